"""Taking samples, fitting to them, and bands from them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from PyQt6.QtCore import QObject, pyqtSignal

from ..core.bands.starts import tonal
from ..core.frame import Frame
from ..core.pick.fit import Fit
from ..core.pick.measured import in_light
from ..language import mid_sentence, named, translator
from ..live.clicking import Clicked
from ..live.outlining import outlined
from ..live.sampling import bands_from_samples, fitted, sample_along, sample_at, taken_again
from ..live.sieve_context import SieveContext
from ..progress import Progress
from ..project import edits
from ..project.model import Pick, Sample, Sieve, fresh_id
from ..render.measuring import measuring_for
from .background.guard import guarded
from .background.workers import Workers
from .document.work import Work
from .speech import Speech
from .tools import Tools
from .viewing.viewing import Viewing

translate = translator("workspace")


@guarded
class SamplesController(QObject):
    """The samples of the current sieve. `clicked` comes with what a click has come to; `looking`
    with a place and words while something is looked for there, and when it was found.
    """

    clicked = pyqtSignal(object)
    looking = pyqtSignal(tuple, str)

    def __init__(
        self, work: Work, viewing: Viewing, workers: Workers, tools: Tools, speech: Speech
    ) -> None:
        super().__init__()
        self.speech = speech
        self._work, self._viewing, self._workers, self._tools = work, viewing, workers, tools
        #: Of samples that are being taken: what the person has set with the button still down.
        self._early: dict[str, dict[str, object]] = {}

    def take(self, x: float, y: float, role: str = "keep", fresh: bool = False) -> str:
        """Take a sample at full-resolution (x, y); ``fresh`` starts over with it alone. Returns the
        id it will have, "" for none.
        """
        size, number = self._tools.sample_size, self._work.number
        return self._take(
            lambda frame, held: sample_at(frame, x, y, size, number, role=role, **held),
            [(x, y)],
            fresh,
            role,
        )

    def take_place(
        self, place: str, points: list[tuple[float, float]], role: str = "keep", fresh: bool = False
    ) -> str:
        """Take a sample of a box or along a stroke."""
        width, number = self._tools.stroke_width, self._work.number
        return self._take(
            lambda frame, held: sample_along(
                frame, place, points, width, number, role=role, **held
            ),
            points,
            fresh,
            role,
        )

    def _take(
        self,
        take: Callable[[Frame, dict[str, object]], Sample],
        points: list[tuple[float, float]],
        fresh: bool,
        role: str,
    ) -> str:
        x, y = points[0]
        if not self._work.opened or not (
            0 <= x < self._work.size[0] and 0 <= y < self._work.size[1]
        ):
            return ""
        if self._work.sieve.mask_from != "own":
            self.speech.said.emit(
                translate(
                    "This mask is made from others': unlink it to pick colours of its own",
                )
            )
            return ""
        sample_id = fresh_id()
        self._early = {sample_id: {}}
        question = self._asked(take, points, fresh, sample_id)

        def then(answer: tuple[str, Clicked]) -> None:
            sieve_id, came = answer
            early = self._early.pop(sample_id, {})
            if any(sieve.id == sieve_id for sieve in self._work.project.stack):
                self.add(sieve_id, came, role, fresh)
            if (
                early
            ):  # what the person has set with the button still down, before the sample was there
                self.edit(
                    early,
                    translate("Tolerance"),
                    translate("Drag tolerance"),
                    ids=(sample_id,),
                )

        self._work.ask_about(lambda seen: (seen.sieve_id, question(seen)), then)
        return sample_id

    def _asked(
        self,
        take: Callable[[Frame, dict[str, object]], Sample],
        points: list[tuple[float, float]],
        fresh: bool,
        sample_id: str,
    ) -> Callable[[SieveContext], Clicked]:
        """Return the question of a click: it takes after the last sample there is."""
        room = max(self._tools.sample_size, self._tools.stroke_width)

        def asked(seen: SieveContext) -> Clicked:
            sieve = seen.sieve
            held: dict[str, object] = {"id": sample_id}
            own = None
            if sieve.pick.samples and not fresh:
                like = sieve.pick.samples[-1]
                held |= {
                    name: getattr(like, name) for name in ("compare", "falloff", "shape", "bend")
                }
                own = like.tolerance if like.compare != "surface" else None
            return seen.click(lambda frame: take(frame, held), points, room, fresh, tolerance=own)

        return asked

    def question(
        self, x: float, y: float, role: str, fresh: bool
    ) -> Callable[[SieveContext], Clicked] | None:
        """Return the question of a click at full-resolution (x, y); None where it takes nothing."""
        if (
            not (0 <= x < self._work.size[0] and 0 <= y < self._work.size[1])
            or self._work.sieve.mask_from != "own"
        ):
            return None
        size, number = self._tools.sample_size, self._work.number
        return self._asked(
            lambda frame, held: sample_at(frame, x, y, size, number, role=role, **held),
            [(x, y)],
            fresh,
            fresh_id(),
        )

    def add(self, sieve_id: str, came: Clicked, role: str, fresh: bool) -> None:
        """Add to a sieve what a click has come to."""
        self._viewing.note_before()
        if fresh:
            came = replace(came, replaced=len(self._work.project.sieve(sieve_id).pick.samples))
        self._work.edit(
            lambda project: project.with_sieve(
                edits.with_sample(project.sieve(sieve_id), came.sample, fresh, came.picked_on)
            ),
            translate("New pick")
            if fresh
            else translate("Add {role} sample", role=mid_sentence(named(role))),
        )
        self.clicked.emit(came)

    def choose_at(self, x: float, y: float) -> None:
        """Choose the sieve whose mask holds a place, and say so. No pick changes."""

        def then(found: str) -> None:
            if found and found != self._work.sieve.id:
                self._work.select(found)
                words = translate("Chosen: {name}", name=self._work.sieve.name)
            else:
                words = translate(
                    "Nothing changed. Shift+click adds, Ctrl+click drops; a new pick is made on "
                    "the page Pick."
                )
            self.looking.emit((x, y), words)

        self._work.ask_about(lambda seen: seen.sieve_at(x, y), then)

    def edit(
        self, changes: dict[str, object], what: str, group: str = "", ids: tuple[str, ...] = ()
    ) -> None:
        """Change fields of some samples of the current sieve; of all of them when no ids are
        given.
        """
        for sample_id in ids:
            if sample_id in self._early:
                self._early[sample_id] |= changes
        self._work.edit_sieve(
            lambda sieve: edits.with_changed_samples(sieve, changes, ids), what, group
        )

    def remove(self, ids: tuple[str, ...]) -> None:
        """Take samples out of the current sieve, by their ids."""
        self._work.edit_sieve(
            lambda sieve: edits.without_samples(sieve, ids), translate("Remove sample")
        )

    def take_again(self, ids: tuple[str, ...] = ()) -> None:
        """Read the colours of samples anew from this frame."""
        number = self._work.number

        def work(seen: SieveContext) -> tuple[list[Sample], str]:
            wanted, frame = [s for s in seen.pick.samples if not ids or s.id in ids], seen.whole()
            picked_on = seen.colours()
            if len(wanted) < len(seen.pick.samples):  # the others stay as they were taken
                how = measuring_for(frame, seen.sieve)
                frame, picked_on = replace(frame, planes=in_light(frame.planes, how)), ""
            return [taken_again(sample, frame).but(frame=number) for sample in wanted], picked_on

        def then(found: tuple[list[Sample], str]) -> None:
            by_id = {sample.id: sample for sample in found[0]}

            def change(sieve: Sieve) -> Sieve:
                samples = tuple(by_id.get(held.id, held) for held in sieve.pick.samples)
                picked_on = found[1] or sieve.pick.picked_on
                return sieve.but(pick=sieve.pick.but(samples=samples, picked_on=picked_on))

            self._work.edit_sieve(change, translate("Sample again"))

        self._work.ask_about(work, then)

    def fit(self) -> None:
        """Find the settings that part keep from drop samples best, and say how well."""

        def work(seen: SieveContext) -> tuple[Pick, Fit]:
            return fitted(seen.pick, seen.whole(), seen.number, seen.other)

        def then(result: tuple[Pick, Fit]) -> None:
            fresh, found = result
            drops = [sample for sample in fresh.samples if sample.on and sample.role == "drop"]
            nearest = (
                translate(
                    "; nearest is {name}",
                    name=drops[found.nearest].name
                    or translate("drop sample {nearest}", nearest=found.nearest + 1),
                )
                if found.nearest is not None
                else ""
            )
            self._work.edit_sieve(lambda s: s.but(pick=fresh), translate("Fit to samples"))
            kept = (
                translate("; nothing would part them better")
                if found.separation == max(found.before, 0.0)
                else translate(", it was {before:.0f} %", before=100 * max(found.before, 0))
            )
            self.speech.said.emit(
                translate(
                    "Fit: separation {separation:.0f} %{kept}{nearest}",
                    separation=100 * max(found.separation, 0),
                    kept=kept,
                    nearest=nearest,
                )
            )

        self._work.ask_about(work, then)

    def take_outlined(self, points: list[tuple[float, float]]) -> None:
        """Find samples that make a mask of what lies inside a loose outline, with progress; they
        replace those that are there.
        """
        opened, project, sieve_id, number, context = (
            self._work.opened,
            self._work.project,
            self._work.sieve.id,
            self._work.number,
            self._workers.context,
        )
        if opened is None:
            return

        anew = edits.without_any_sample(project.sieve(sieve_id))

        def work(progress: Progress) -> tuple[list[Sample], str]:
            with opened.read():
                seen = SieveContext(opened, project.with_sieve(anew), sieve_id, number, context)
                samples = outlined(
                    seen.sieve, points, seen.whole(), seen.reduced(), context, number, progress
                )
                return samples, seen.colours()

        def then(found: tuple[list[Sample], str]) -> None:
            samples, picked_on = found
            if opened is self._work.opened and any(
                sieve.id == sieve_id for sieve in self._work.project.stack
            ):
                self._viewing.note_before()

                def change(sieve: Sieve) -> Sieve:
                    fresh = edits.with_samples(sieve, samples)
                    pick = fresh.pick.but(outline=tuple(points), picked_on=picked_on)
                    return fresh.but(pick=pick)

                self._work.edit(
                    lambda held: held.with_sieve(change(held.sieve(sieve_id))),
                    translate("Outline a thing"),
                )
                self.looking.emit(
                    points[0],
                    translate(
                        "{n} samples hold what is inside the outline",
                        "{n} sample holds what is inside the outline",
                        len(samples),
                    ),
                )

        self.looking.emit(points[0], translate("Looking inside the outline…"))
        self._workers.wait_for(translate("Looking inside the outline"), work, then)

    def set_bands(self) -> None:
        """Put hue, saturation and luminance bands round the kept samples; each further sample
        widens them.
        """

        def work(seen: SieveContext) -> Any:
            return bands_from_samples(
                seen.pick,
                seen.project.sieve(seen.sieve_id).bands,
                seen.whole(),
                seen.number,
                seen.other,
            )

        def then(bands: Any) -> None:
            # The samples have done their work: they are switched off so that the bands alone
            # decide, and can be switched on again.
            self._work.edit_sieve(
                lambda s: edits.with_changed_samples(s, {"on": False}).but(bands=bands),
                translate("Set bands from samples"),
            )

        self._work.ask_about(work, then)

    def set_tonal(self, part: str, softness: float) -> None:
        """Set the luminance band to shadows, midtones or highlights."""

        def change(sieve: Sieve) -> Sieve:
            band = sieve.bands.luminance.but(on=True, inverted=False, corners=tonal(part, softness))
            return sieve.but(
                bands=sieve.bands.but(luminance=band, ramp=sieve.bands.ramp.but(on=False))
            )

        self._work.edit_sieve(
            change,
            translate("Start from {part}", part=mid_sentence(named(part))),
            group=f"Start from {part}",
        )
