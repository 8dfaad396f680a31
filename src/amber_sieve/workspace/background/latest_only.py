"""Work of which only the newest request counts: renders while something is dragged, the readout
under the pointer.
"""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ...progress import Cancelled
from ...threads import Threads
from .guard import told
from .memory import GivesBack, give_back

#: After this many milliseconds without anything to do, what renders have freed is given back.
QUIET = 2000
#: Seconds for which a request goes on although a newer one about the same waits: a hand that drags
#: sees every picture that takes no longer; what takes longer is seen when the hand rests, and not
#: after all that came before.
SEEN_TO_ITS_END = 2.0


class LatestOnlyWorker(QObject):
    """One thread that answers the newest request only; what was asked before and not begun is
    forgotten.
    """

    done = pyqtSignal(object)
    failed = pyqtSignal(str, str)
    #: Nothing is waiting and nothing is being computed any more.
    rested = pyqtSignal()

    def __init__(self, name: str, large: bool = False, last: bool = False) -> None:
        """``large``: its results take much memory, which is given back to the system when
        nothing is being done. ``last``: nobody waits for it, see `Threads`.
        """
        super().__init__()
        self._lock = threading.Lock()
        self._request: Callable[[], Any] | None = None
        #: Subject of the newest request; subject and start time of the running one.
        self._about: object = None
        self._answered: object = None
        self._since = 0.0
        #: Whether the newest request is a step of a drag, and whether what is being answered is.
        self._hurries = False
        self._hurried = False
        self._busy = False
        self._threads = Threads(name, last=last)
        self._gives_back = GivesBack() if large else None
        self._quiet = QTimer(self)
        self._quiet.setSingleShot(True)
        self._quiet.setInterval(QUIET)
        self._quiet.timeout.connect(self._rest)
        if large:
            self.rested.connect(self._quiet.start)

    def ask(self, request: Callable[[], Any], about: object = None, hurries: bool = False) -> None:
        """Compute this next and drop the waiting request; the running one may be given up, see
        `superseded`. ``hurries``: it is a step of a drag, or the first look after a click.
        """
        with self._lock:
            self._request, self._about, self._hurries = request, about, hurries
            if not self._busy:
                self._busy = True
                self._threads.start(self._answer)

    def forget(self) -> None:
        """Nothing is wanted any more."""
        with self._lock:
            self._request = self._about = None

    def superseded(self) -> bool:
        """Asked by what is being computed: whether it may give up, because it is about something
        that nobody looks at any more, or a newer request waits and it has taken long, or is the
        fine picture of a drag that goes on.
        """
        with self._lock:
            long = time.monotonic() - self._since > SEEN_TO_ITS_END
            newer = self._request is not None and (long or (self._hurries and not self._hurried))
            return newer or self._about is not self._answered

    @property
    def idle(self) -> bool:
        """Return whether nothing is waiting and nothing is being computed."""
        with self._lock:
            return not self._busy

    def _answer(self) -> None:
        while True:
            with self._lock:
                request, self._request = self._request, None
                self._answered, self._since, self._hurried = (
                    self._about,
                    time.monotonic(),
                    self._hurries,
                )
                self._busy = request is not None
            if request is None:
                self.rested.emit()
                return
            try:
                result = request()
            except Cancelled:  # a newer one waits, or none is wanted
                pass
            except (
                Exception
            ) as error:  # whatever happens, the thread lives on and the person is told
                self.failed.emit(*told(error))
            else:
                self.done.emit(result)
                request = result = None  # nothing is held while memory is given back
                if (
                    self._gives_back is not None and not self._hurried
                ):  # the next step of a drag asks for the same memory again
                    self._gives_back()
            request = result = None

    def _rest(self) -> None:
        if self.idle:
            self._threads.start(give_back)

    def end(self) -> None:
        """Give up or finish what is being computed, then stop the thread."""
        self._quiet.stop()
        self.forget()
        self._threads.end(10)
