"""Adjustments inside the masks: blocks, CDL and lookup tables, colours picked for them, and whether
it is believable.
"""

from __future__ import annotations

import pathlib
from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QObject, pyqtSignal

from ..core.adjust.white import neutral
from ..core.frame import patch
from ..errors import Trouble
from ..language import translator
from ..live.preview import Rendered
from ..media.colour import cdl_files, lookup_files
from ..project import edits
from ..project.controls import left_out_of_cdl
from ..render.believable import Believable, believable_of
from ..render.evaluate import arriving
from ..resolve.layers import layers_in
from .background.blocking_call import blocking_call
from .background.guard import guarded
from .document.work import Work
from .speech import Speech
from .tools import Tools
from .viewing.viewing import Viewing

translate = translator("workspace")


@guarded
class AdjustController(QObject):
    """The adjustments of the current sieve. `believable_found` answers `judge`; `picking` when the
    next click is waited for, or no more.
    """

    believable_found = pyqtSignal(object)
    picking = pyqtSignal()

    def __init__(self, work: Work, viewing: Viewing, tools: Tools, speech: Speech) -> None:
        super().__init__()
        self.speech = speech
        self._work, self._viewing, self._tools = work, viewing, tools

    def set_block(self, block: str, on: bool) -> None:
        """See a block of the current sieve's adjustments, or not."""
        self._work.set_field(
            f"adjust.{block}.on",
            on,
            translate("Block on") if on else translate("Block off"),
        )

    def reset_block(self, block: str) -> None:
        """Put a block of the current sieve's adjustments back to where it changes nothing."""
        self._work.edit_sieve(
            lambda sieve: edits.without_block(sieve, block), translate("Reset a block")
        )

    def copy_block(self, block: str, to: str) -> None:
        """Give a block of the current sieve's adjustments to another sieve too."""
        sieve_id = self._work.sieve.id
        self._work.edit(
            lambda project: edits.with_block_copied(project, sieve_id, to, block),
            translate("Copy a block"),
        )

    def read_cdl(
        self, path: pathlib.Path, choose: Callable[[list[str]], int] = lambda names: 0
    ) -> None:
        """Take the CDL of a file into the current sieve; ``choose`` says which, where it holds
        several (below 0: none).
        """
        found = cdl_files.read(path)
        number = (
            choose([one.name or translate("Correction {k}", k=k) for k, one in enumerate(found, 1)])
            if len(found) > 1
            else 0
        )
        if number < 0:
            return
        try:
            block = self._work.sieve.adjust.cdl.but(on=True, **found[number].numbers)
        except ValueError:
            raise Trouble(
                translate(
                    "{path} holds a correction beyond what a CDL here may be: choose another file.",
                    path=path,
                )
            ) from None
        self._work.edit_sieve(
            lambda sieve: sieve.but(adjust=sieve.adjust.but(cdl=block)),
            translate("Read a CDL"),
        )

    def read_table(self, path: pathlib.Path) -> None:
        """Take a lookup table into the current sieve."""
        blocking_call(
            lambda: lookup_files.read(path)
        )  # that it can be read is said before it is taken
        block = self._work.sieve.adjust.lookup.but(on=True, lookup_file=str(path.absolute()))
        self._work.edit_sieve(
            lambda sieve: sieve.but(adjust=sieve.adjust.but(lookup=block)),
            translate("Lookup table"),
        )

    def write_cdl(self, path: pathlib.Path) -> None:
        """Write the CDL of the current sieve, and say what of its adjustments that leaves out."""
        cdl_files.write(
            cdl_files.correction_of(self._work.sieve.name, self._work.sieve.adjust.cdl.given), path
        )
        left = left_out_of_cdl(self._work.sieve)
        words = translate("Wrote {name}", name=path.name)
        if left:
            words += translate("; left out: {left_out}", left_out=", ".join(left))
        self.speech.wrote.emit(words, path)

    def pick_colour(
        self, then: Callable[[tuple[float, float, float]], None] | None, words: str = ""
    ) -> None:
        """Let the next click in the picture take a colour for ``then``, and nothing else; None
        gives it up.
        """
        self._tools.picker, self._tools.spot = then, None
        self.picking.emit()
        if words:
            self.speech.said.emit(words)

    def pick_place(self, then: Callable[[float, float], None], words: str) -> None:
        """Let the next click in the picture give its place, full-resolution pixels, to ``then``,
        and nothing else.
        """
        self.pick_colour(lambda colour: None, words)
        self._tools.spot = then

    def give_colour(self, x: float, y: float) -> None:
        """The colour at a place, as it arrives at the current sieve, for ``then``."""
        if self._tools.spot is not None:
            wanted = self._tools.spot
            self.pick_colour(None)
            wanted(x, y)
            return
        then, context, size = self._tools.picker, self._work.context, self._tools.sample_size
        self.pick_colour(None)
        if then is None:
            return

        def question(last: Rendered) -> tuple[float, float, float] | None:
            place = (
                (x - last.frame.origin[0]) * last.frame.scale,
                (y - last.frame.origin[1]) * last.frame.scale,
            )
            below = arriving(
                last.frame, last.seen, last.wanted.sieve_id, context, layers_in(context)
            )
            try:
                pixels = patch(below.planes, *place, max(1, round(size * last.frame.scale)))
            except ValueError:  # beside the picture
                return None
            red, green, blue = (float(v) for v in pixels.mean(axis=1, dtype=np.float64))
            return red, green, blue

        self._viewing.ask_about_last(
            question, lambda colour: then(colour) if colour is not None else None
        )

    def make_neutral(self, colour: tuple[float, float, float]) -> None:
        """Set temperature and tint so that a colour becomes grey."""
        try:
            temperature, tint = neutral(np.array(colour))
        except ValueError:
            raise Trouble(
                translate(
                    "No light makes a grey look like this colour: pick a place that should be "
                    "grey.",
                )
            ) from None
        block = self._work.sieve.adjust.white.but(
            on=True, temperature=round(temperature, 2), tint=round(tint, 2)
        )
        self._work.edit_sieve(
            lambda sieve: sieve.but(adjust=sieve.adjust.but(white=block)),
            translate("Pick a neutral"),
        )

    def judge(self) -> None:
        """Say how believable the current sieve is, over the view; `believable_found`
        follows.
        """
        context = self._work.context

        def question(last: Rendered) -> Believable:
            return believable_of(
                last.frame, last.seen, last.wanted.sieve_id, context, layers_in(context)
            )

        self._viewing.ask_about_last(question, self.believable_found.emit)
