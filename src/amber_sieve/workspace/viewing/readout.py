"""Readout of the pixel under the pointer, and of a click there: answered in threads, the newest
place alone.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from PyQt6.QtCore import QObject, pyqtSignal

from ...core.colour.measures import one_hue_saturation_luminance
from ...core.colour.transfer import one_encoded
from ...language import translator
from ...live.preview import Rendered
from ...live.sampling import sample_at
from ...live.sieve_context import SieveContext
from ...names import MEASURES
from ...render.why import deciding_sample, why
from ...resolve.layers import layers_in
from ..background.workers import Workers
from ..document.work import Work
from ..tools import Tools
from .viewing import Viewing

translate = translator("workspace")


@dataclass(frozen=True)
class Pointed:
    """A pixel of the picture.

    Attributes
    ----------
    x, y : its column and row. measures : by name: hue in degrees, saturation in per cent, luminance
        L*, red, green, blue in levels.
    masked : its mask, 0 to 1, None where it is not rendered. decided : name of the sample that
        decides about it, "" for none.
    """

    x: int
    y: int
    measures: dict[str, float]
    masked: float | None
    decided: str


class Readout(QObject):
    """`pointed` comes with a `Pointed`, or None beside the picture; `promised` with a place and the
    colour that a click there would take; `explained` with what decided about a pixel, in sentences.
    """

    pointed = pyqtSignal(object)
    promised = pyqtSignal(object)
    explained = pyqtSignal(list)

    def __init__(self, work: Work, viewing: Viewing, workers: Workers, tools: Tools) -> None:
        super().__init__()
        self._work, self._viewing, self._workers, self._tools = work, viewing, workers, tools
        #: Where the pointer is, None beside the picture.
        self._at: tuple[float, float] | None = None
        #: Something was said that has to be taken back when the pointer leaves.
        self._tells = True
        workers.readouts.done.connect(self._take)
        workers.promises.done.connect(self.promised)

    def point(self, at: tuple[float, float] | None) -> None:
        """The pointer is at a place of the picture, full-resolution pixels, or beside it."""
        self._at = at
        x, y = (int(np.floor(at[0])), int(np.floor(at[1]))) if at is not None else (-1, -1)
        light, last, sieve = self._work.light_at(x, y), self._viewing.last, self._work.sieve
        if at is None or light is None or last is None:
            self._at = None
            if self._tells:  # with every render it need not be said again that there is nothing
                self._tells = False
                self.pointed.emit(None)
            return
        column, row = (
            int((at[0] - last.origin[0]) * last.scale),
            int((at[1] - last.origin[1]) * last.scale),
        )
        inside = 0 <= row < last.mask.shape[0] and 0 <= column < last.mask.shape[1]
        masked = float(last.mask[row, column]) if inside else None

        def answer() -> Pointed:
            numbers = (*one_hue_saturation_luminance(np.array(light)), *(one_encoded(light) * 255))
            measures = {name: float(value) for name, value in zip(MEASURES, numbers, strict=True)}
            return Pointed(x, y, measures, masked, deciding_sample(light, sieve, masked))

        self._workers.readouts.ask(answer)

    def _take(self, pointed: Pointed) -> None:
        if self._at is not None:  # the pointer has not left meanwhile
            self._tells = True
            self.pointed.emit(pointed)

    def explain(self) -> None:
        """Say why the pixel under the pointer is in the mask or not; `explained` follows."""
        if self._at is None:
            self._viewing.speech.said.emit(
                translate(
                    "Point at the picture first: what decided about the pixel there is said",
                )
            )
            return
        place = (int(np.floor(self._at[0])), int(np.floor(self._at[1])))
        context = self._workers.context

        def question(last: Rendered) -> list[str]:
            return why(
                last.frame, last.seen, last.wanted.sieve_id, place, context, layers_in(context)
            )

        self._viewing.ask_about_last(question, self.explained.emit)

    def promise(self, x: int, y: int) -> None:
        """Find the colour that a click at a pixel would take; `promised` follows, for the newest
        that was asked for.
        """
        work, size = self._work, self._tools.sample_size
        opened, (width, height) = work.opened, work.size
        if opened is None or not (0 <= x < width and 0 <= y < height):
            return
        seen = SieveContext(opened, work.project, work.sieve.id, work.number, self._workers.context)

        def answer() -> tuple[int, int, tuple[float, float, float]]:
            with opened.read():
                return x, y, sample_at(seen.around([(x, y)], size), x, y, size, seen.number).colour

        self._workers.promises.ask(answer)
