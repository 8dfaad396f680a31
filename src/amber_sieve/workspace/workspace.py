"""All that is open and what is done with it: the controllers, made and introduced to each other.

Widgets ask controllers and listen to them. They keep no copy of the model and call no kernel. What
takes time runs in threads: the interface thread decodes, samples and renders nothing.
"""

from __future__ import annotations

from .adjust import AdjustController
from .areas import AreasController
from .background.memory import stages_may_keep
from .background.workers import Workers
from .clip.ahead import LookAhead
from .clip.clip import ClipController
from .clip.playback import Playback
from .clip.quiet_frames import QuietFrames
from .control_surfaces import ControlSurfaces
from .document.last_tray import LastTray
from .document.pictures import Pictures
from .document.saving import Saving
from .document.sharing import Sharing
from .document.unsaved import Unsaved
from .document.work import Work
from .exports import ExportsController
from .preferences import PreferenceStore
from .preset_shelf import PresetShelf
from .samples import SamplesController
from .speech import Speech
from .stack import StackController
from .tools import Tools
from .viewing.drag_ready import DragReady
from .viewing.offers import Offers
from .viewing.reading import SourceReading
from .viewing.readout import Readout
from .viewing.surfaces import SurfacesController
from .viewing.tolerance_hints import ToleranceHints
from .viewing.viewing import Viewing

#: Bytes in the unit that the preferences give the cache in.
MEGABYTE = 1_000_000


class Workspace:
    """The controllers of one window."""

    def __init__(self) -> None:
        self.speech = speech = Speech()
        self.preferences = preferences = PreferenceStore(speech)
        self.tools = tools = Tools()
        self.workers = workers = Workers(self._bytes_allowed, speech)
        self.work = work = Work(workers, speech)
        self.tray = work.tray
        self.viewing = viewing = Viewing(work, workers, preferences, speech)
        self.readout = Readout(work, viewing, workers, tools)
        self.playback = playback = Playback(work, viewing, speech)
        self.quiet_frames = QuietFrames(work, viewing, workers, playback)
        self.drag_ready = DragReady(work, viewing, workers)
        self.samples = SamplesController(work, viewing, workers, tools, speech)
        self.ahead = LookAhead(work, viewing, workers, self.samples)
        self.stack = StackController(work, speech)
        self.surfaces = SurfacesController(
            work, viewing, workers, self.ahead, self.stack, preferences
        )
        self.offers = Offers(work, viewing, workers, preferences)
        self.tolerance_hints = ToleranceHints(work, workers)
        self.presets = PresetShelf(work, speech)
        self.areas = AreasController(work, viewing, speech)
        self.adjust = AdjustController(work, viewing, tools, speech)
        self.clip = clip = ClipController(work, viewing, workers, playback, speech)
        self.control_surfaces = ControlSurfaces(work, clip, playback)
        self.reading = SourceReading(work, viewing, workers, speech)
        self.pictures = Pictures(work, viewing, workers, clip, playback, preferences, speech)
        self.last_tray = LastTray(self.pictures, self.tray, workers, speech)
        self.unsaved = Unsaved(self.pictures, self.tray, speech)
        self.sharing = Sharing(work, workers, speech)
        self.saving = Saving(work, self.preferences, speech)
        self.exports = ExportsController(work, workers, speech)
        for changed in (
            playback.changed,
            self.tray.changed,
            work.source_changed,
            preferences.changed,
        ):
            changed.connect(self._fit_cache)

    @property
    def _bytes_allowed(self) -> int:
        return round(self.preferences.values.cache_megabytes * MEGABYTE)

    def _fit_cache(self) -> None:
        others = self.tray.bytes_behind + self.playback.small.bytes
        self.workers.cache.resize(
            stages_may_keep(self._bytes_allowed, others, self.playback.playing)
        )

    @property
    def idle(self) -> bool:
        """Return whether nothing is being done and nothing dragged."""
        return not self.work.dragging and self.workers.idle and self.pictures.thumbnails.idle

    def close(self, keep_work: bool = False) -> None:
        """Stop the threads and let go of files; unsaved work is kept for the next start only when
        that is wished.
        """
        self.playback.stop()
        self.quiet_frames.end()
        self.clip.watcher.close()
        self.pictures.end(keep_work)
        self.workers.end()
        self.pictures.retire()
