"""`surface`: a simulated control surface, to try one without hardware."""

from __future__ import annotations

import argparse

from .options import Commands
from .values import whole


def add(commands: Commands) -> None:
    """Add the command that opens it."""
    surface = commands.add_parser(
        "surface", help="open a simulated control surface that speaks to the window that runs"
    )
    surface.add_argument(
        "--port",
        type=whole(1024, 65535),
        default=9010,
        help="where the window listens, as in its preferences",
    )
    surface.set_defaults(run=_surface)


def _surface(arguments: argparse.Namespace) -> int:
    from ..desk.translations import choose

    spoken = choose()
    from ..desk.app import application
    from ..desk.control_surface.window import ControlSurfaceWindow
    from ..desk.style import dress

    running = application()
    for translator in spoken:
        running.installTranslator(translator)
    window = ControlSurfaceWindow(arguments.port)
    dress(running)
    window.show()
    return int(running.exec())
