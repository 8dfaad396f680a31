"""The part of the session for: taking samples, fitting to them, bands from them, and presets of pick, bands and edge."""

from __future__ import annotations

import pathlib
from collections.abc import Callable
from typing import Any

from ..core.bands.starts import tonal
from ..core.frame import Frame
from ..core.pick.fit import Fit
from ..errors import Trouble
from ..live.clicking import Clicked, clicked
from ..live.outlining import outlined
from ..live.sampling import bands_from_samples, fitted, sample_along, sample_at, taken_again
from ..live.seen import Seen
from ..progress import Progress
from ..project import edits, presets
from ..project.model import Pick, Sample, Sieve, fresh_id
from .guard import guarded
from .state import SessionState


@guarded
class Sampling(SessionState):
    """Taking samples, fitting to them, bands from them, and presets of pick, bands and edge."""

    def sample(self, x: float, y: float, role: str = "keep", fresh: bool = False) -> str:
        """Take a sample at full-resolution (x, y); ``fresh`` starts over with it alone. Returns the id it will have, "" for none."""
        size, number = self.tools.sample_size, self.number
        return self._take_sample(lambda frame, held: sample_at(frame, x, y, size, number, role=role, **held), [(x, y)], fresh, role)

    def promise(self, x: int, y: int) -> None:
        """Find the colour that a click at a pixel would take; `promised` follows, for the newest that was asked for."""
        self._promise = (x, y)
        if self._promising or not self.opened or not (0 <= x < self.size[0] and 0 <= y < self.size[1]):
            return
        self._promising, size, number = True, self.tools.sample_size, self.number

        def work(seen: Seen) -> tuple[float, float, float]:
            return sample_at(seen.around([(x, y)], size), x, y, size, number).colour

        def then(colour: tuple[float, float, float]) -> None:
            self._promising = False
            self.promised.emit((x, y, colour))
            if self._promise is not None and self._promise != (x, y):
                self.promise(*self._promise)

        self._ask_about(work, then)

    def sample_place(self, place: str, points: list[tuple[float, float]], role: str = "keep", fresh: bool = False) -> str:
        """Take a sample of a box or along a stroke."""
        width, number = self.tools.stroke_width, self.number
        return self._take_sample(
            lambda frame, held: sample_along(frame, place, points, width, number, role=role, **held), points, fresh, role
        )

    def _take_sample(
        self, take: Callable[[Frame, dict[str, object]], Sample], points: list[tuple[float, float]], fresh: bool, role: str
    ) -> str:
        x, y = points[0]
        if not self.opened or not (0 <= x < self.size[0] and 0 <= y < self.size[1]):
            return ""
        if self.sieve.mask_from != "own":
            self.said.emit("This mask is made from others': unlink it to pick colours of its own")
            return ""
        sample_id = fresh_id()
        self._early = {sample_id: {}}
        room = max(self.tools.sample_size, self.tools.stroke_width)

        def work(seen: Seen) -> tuple[str, Clicked]:
            sieve = seen.sieve
            held: dict[str, object] = {"id": sample_id}
            own = None
            if sieve.pick.samples and not fresh:
                like = sieve.pick.samples[-1]
                held |= {name: getattr(like, name) for name in ("compare", "falloff", "shape", "bend")}
                own = like.tolerance if like.compare != "surface" else None
            return seen.sieve_id, clicked(sieve, take(seen.around(points, room), held), seen.reduced(), seen.cache, fresh, tolerance=own)

        def then(answer: tuple[str, Clicked]) -> None:
            sieve_id, came = answer
            early = self._early.pop(sample_id, {})
            if any(sieve.id == sieve_id for sieve in self.project.stack):
                self._before = self.last
                self.edit(
                    lambda project: project.with_sieve(edits.with_sample(project.sieve(sieve_id), came.sample, fresh)),
                    "Start over with a sample" if fresh else f"Add {role} sample",
                )
                self.clicked.emit(came)
            if early:  # what the person has set with the button still down, before the sample was there
                self.edit_samples(early, "Tolerance", "Drag tolerance", ids=(sample_id,))

        self._ask_about(work, then)
        return sample_id

    def edit_samples(self, changes: dict[str, object], what: str, group: str = "", ids: tuple[str, ...] = ()) -> None:
        """Change fields of some samples of the current sieve; of all of them when no ids are given."""
        for sample_id in ids:
            if sample_id in self._early:
                self._early[sample_id] |= changes
        self.edit_sieve(lambda sieve: edits.with_changed_samples(sieve, changes, ids), what, group)

    def remove_samples(self, ids: tuple[str, ...]) -> None:
        """Take samples out."""
        self.edit_sieve(lambda sieve: edits.without_samples(sieve, ids), "Remove sample")

    def take_again(self, ids: tuple[str, ...] = ()) -> None:
        """Read the colours of samples anew from this frame."""
        number = self.number

        def work(seen: Seen) -> list[Sample]:
            wanted, frame = [s for s in seen.pick.samples if not ids or s.id in ids], seen.whole()
            return [taken_again(sample, frame).but(frame=number) for sample in wanted]

        def then(taken: list[Sample]) -> None:
            by_id = {sample.id: sample for sample in taken}
            self.edit_sieve(lambda s: edits.with_samples(s, [by_id.get(x.id, x) for x in s.pick.samples]), "Sample again")

        self._ask_about(work, then)

    def fit(self) -> None:
        """Find the settings that part keep from drop samples best, and say how well."""

        def work(seen: Seen) -> tuple[Pick, Fit]:
            return fitted(seen.pick, seen.whole(), seen.number, seen.other)

        def then(result: tuple[Pick, Fit]) -> None:
            fresh, found = result
            drops = [sample for sample in fresh.samples if sample.on and sample.role == "drop"]
            nearest = f"; nearest is {drops[found.nearest].name or f'drop sample {found.nearest + 1}'}" if found.nearest is not None else ""
            self.edit_sieve(lambda s: s.but(pick=fresh), "Fit")
            kept = (
                "; nothing would part them better"
                if found.separation == max(found.before, 0.0)
                else f", it was {100 * max(found.before, 0):.0f} %"
            )
            self.said.emit(f"Fit: separation {100 * max(found.separation, 0):.0f} %{kept}{nearest}")

        self._ask_about(work, then)

    def sample_outlined(self, points: list[tuple[float, float]]) -> None:
        """Find samples that make a mask of what lies inside a loose outline, with progress; they replace those that are there."""
        opened, project, sieve_id, number, cache = self.opened, self.project, self.sieve.id, self.number, self._cache
        if opened is None:
            return

        def work(progress: Progress) -> list[Sample]:
            with opened.read():
                seen = Seen(opened, project, sieve_id, number, cache)
                return outlined(seen.sieve, points, seen.whole(), seen.reduced(), cache, number, progress)

        def then(samples: list[Sample]) -> None:
            if opened is self.opened and any(sieve.id == sieve_id for sieve in self.project.stack):
                self._before = self.last

                def change(sieve: Sieve) -> Sieve:
                    fresh = edits.with_samples(sieve, samples)
                    return fresh.but(pick=fresh.pick.but(outline=tuple(points)))

                self.edit(lambda held: held.with_sieve(change(held.sieve(sieve_id))), "Outline a thing")
                self.said.emit(f"{len(samples)} samples found inside the outline")

        self.tasks.run("Looking inside the outline", work, then)

    def set_bands_from_samples(self) -> None:
        """Put hue, saturation and luminance bands round the kept samples; each further sample widens them."""

        def work(seen: Seen) -> Any:
            return bands_from_samples(seen.pick, seen.project.sieve(seen.sieve_id).bands, seen.whole(), seen.number, seen.other)

        def then(bands: Any) -> None:
            # The samples have done their work: they are switched off so that the bands alone decide, and can be switched on again.
            self.edit_sieve(lambda s: edits.with_changed_samples(s, {"on": False}).but(bands=bands), "Set bands from samples")

        self._ask_about(work, then)

    def set_tonal(self, part: str, softness: float) -> None:
        """Set the luminance band to shadows, midtones or highlights."""

        def change(sieve: Sieve) -> Sieve:
            band = sieve.bands.luminance.but(on=True, inverted=False, corners=tonal(part, softness))
            return sieve.but(bands=sieve.bands.but(luminance=band, ramp=sieve.bands.ramp.but(on=False)))

        self.edit_sieve(change, f"Start from {part}", group=f"Start from {part}")

    def apply_preset(self, preset: presets.Preset) -> None:
        """Use a preset's pick, bands and edge in the current sieve."""
        self.edit_sieve(lambda s: s.but(pick=preset.pick, bands=preset.bands, edge=preset.edge), f"Preset {preset.name}")

    def _preset_from_here(self, name: str) -> presets.Preset:
        if not 1 <= len(name) <= presets.LONGEST_NAME:
            raise Trouble(f"The name of a preset has 1 to {presets.LONGEST_NAME} characters, this one {len(name)}: give another name.")
        kept = [sample for sample in self.sieve.pick.samples if sample.role == "keep"]
        swatch = kept[0].colour if kept else (0.2, 0.2, 0.2)
        return presets.Preset(name=name, swatch=swatch, pick=self.sieve.pick.but(outline=()), bands=self.sieve.bands, edge=self.sieve.edge)

    def save_preset(self, name: str) -> None:
        """Store the current pick, bands and edge among a person's own presets."""
        presets.keep(self._preset_from_here(name))
        self.said.emit(f"Stored preset {name}")

    def export_preset(self, path: pathlib.Path) -> None:
        """Write the current pick, bands and edge as a preset file."""
        presets.write(self._preset_from_here(path.stem[: presets.LONGEST_NAME]), path)
        self.said.emit(f"Wrote {path.name}")

    def import_preset(self, path: pathlib.Path) -> None:
        """Take a preset file into a person's own."""
        presets.keep(presets.read(path))
