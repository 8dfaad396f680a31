"""The one door between widgets and the rest: it holds the document, the tools, the threads and the renderer, and tells what changed.

Widgets ask here and listen here. They keep no copy of the model and call no kernel. What takes time runs in threads: the
interface thread decodes, samples and renders nothing.
"""

from __future__ import annotations

from .adjusting import Adjusting
from .exporting import Exporting
from .opening import Opening
from .outlining import Outlining
from .over_time import OverTime
from .sampling import Sampling
from .stack import Stacking
from .state import MissingSource

__all__ = ["MissingSource", "Session"]


class Session(Opening, Stacking, Sampling, Outlining, Adjusting, OverTime, Exporting):
    """The state of the work, as signals and methods; every step of the work is a part in a file of its own."""
