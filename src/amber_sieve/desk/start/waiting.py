"""Letting the window work until nothing is left to do: for the demo without a display, benchmarks and tests."""

from __future__ import annotations

import time

from PyQt6.QtWidgets import QApplication

from ...workspace.session import Session


def settle(session: Session, limit: float = 60.0) -> None:
    """Run the event loop until every job and render is done.

    Raises
    ------
    TimeoutError: it took longer than ``limit`` seconds.
    """
    session.playback.stop()  # what plays is never done
    end = time.monotonic() + limit
    while time.monotonic() < end:
        QApplication.processEvents()
        shown = session.last is not None and session.last.wanted == session.wanted()
        if session.idle and (shown or session.opened is None):
            QApplication.processEvents()
            if session.idle:
                return
        time.sleep(0.002)
    raise TimeoutError(f"the window was still busy after {limit:.0f} seconds")
