"""The demo: the window with the glaze yard, or, without a display, its pictures in a folder."""

from __future__ import annotations

import gc
import os
import pathlib
import sys

from .gc_pause import gc_pause


def without_screen(demo: pathlib.Path, out: pathlib.Path) -> int:
    """Open the same window offscreen, write result, mask and a picture of the window; returns the
    exit code.
    """
    from .desk.app import application
    from .desk.start.waiting import settle
    from .desk.window.open_window import open_window
    from .warm import warm_rest_beside
    from .workspace.workspace import Workspace

    out.mkdir(exist_ok=True)
    warm_rest_beside()
    running = application()
    window = open_window(Workspace())
    window.show()
    window.workspace.pictures.open(demo / "yard.sieve", copy=True)
    settle(window.workspace)
    for name, write in (
        ("result.png", window.workspace.exports.write),
        ("mask.png", window.workspace.exports.write_mask),
    ):
        write(out / name)
        settle(window.workspace)
    window.stack.follow()
    window.grab().save(str(out / "window.png"))
    window.workspace.close()
    running.processEvents()
    print(
        "No display: wrote "
        f"{', '.join(sorted(str(out / name) for name in ('result.png', 'mask.png', 'window.png')))}"
    )
    return 0


def main() -> int:
    """Run the demo in the folder of the first argument, writing to the second."""
    demo, out = pathlib.Path(sys.argv[1]), pathlib.Path(sys.argv[2])
    # Importing makes many lasting objects; collecting garbage among them costs a tenth of the
    # start.
    with gc_pause():
        from .desk.translations import choose

        spoken = choose()
        from .desk.app import has_screen
        from .desk.app import main as desk

        gc.freeze()
    if has_screen() and os.environ.get("QT_QPA_PLATFORM") != "offscreen":
        code = desk(
            sys.argv[3:] or [str(demo / "yard.sieve")], copy=len(sys.argv) == 3, translators=spoken
        )
    else:
        code = without_screen(demo, out)
    gc.unfreeze()  # else libraries say at the end that something was left
    return code


if __name__ == "__main__":
    sys.exit(main())
