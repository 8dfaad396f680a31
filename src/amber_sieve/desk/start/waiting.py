"""Letting the window work until nothing is left to do: for the demo without a display, benchmarks
and tests.
"""

from __future__ import annotations

import time
from dataclasses import fields

from PyQt6.QtWidgets import QApplication

from ...workspace.workspace import Workspace


def settle(workspace: Workspace, limit: float = 60.0) -> None:
    """Run the event loop until every job and render is done.

    Raises
    ------
    TimeoutError: it took longer than ``limit`` seconds.
    """
    workspace.playback.stop()  # what plays is never done
    end = time.monotonic() + limit
    while time.monotonic() < end:
        QApplication.processEvents()
        shown = (
            workspace.viewing.last is not None
            and workspace.viewing.last.wanted == workspace.viewing.wanted()
        )
        if workspace.idle and (shown or workspace.work.opened is None):
            QApplication.processEvents()
            if workspace.idle:
                return
        time.sleep(0.002)
    raise TimeoutError(
        f"the window was still busy after {limit:.0f} seconds: {_what_for(workspace)}"
    )


def _what_for(workspace: Workspace) -> str:
    """Name what is not done."""
    workers, viewing = workspace.workers, workspace.viewing
    busy = [name for name, one in vars(workers).items() if not getattr(one, "idle", True)]
    busy += ["dragging"] * workspace.work.dragging + ["thumbnails"] * (
        not workspace.pictures.thumbnails.idle
    )
    wanted, last = viewing.wanted(), viewing.last
    if last is None:
        return ", ".join([*busy, "nothing was shown yet"])
    other = [
        field.name
        for field in fields(wanted)
        if getattr(wanted, field.name) != getattr(last.wanted, field.name)
    ]
    return ", ".join([*busy, *(f"another {name} is shown" for name in other)])
