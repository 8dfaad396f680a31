"""Presets made from the current sieve: of its pick, bands and edge, and of the whole of it."""

from __future__ import annotations

import pathlib

from ..language import translator
from ..project import edits, presets, sieve_presets, store
from .background.guard import guarded
from .document.work import Work
from .speech import Speech

translate = translator("workspace")


@guarded
class PresetShelf:
    """Keeping, using, reading and writing presets."""

    def __init__(self, work: Work, speech: Speech) -> None:
        self.speech = speech
        self._work = work

    def apply(self, preset: presets.Preset) -> None:
        """Use a preset's pick, bands and edge in the current sieve."""
        self._work.edit_sieve(
            lambda s: s.but(pick=preset.pick, bands=preset.bands, edge=preset.edge),
            translate("Preset {name}", name=preset.name),
        )

    def _from_here(self, name: str) -> presets.Preset:
        kept = [sample for sample in self._work.sieve.pick.samples if sample.role == "keep"]
        swatch = kept[0].colour if kept else (0.2, 0.2, 0.2)
        return presets.Preset(
            name=name,
            swatch=swatch,
            pick=self._work.sieve.pick.but(outline=()),
            bands=self._work.sieve.bands,
            edge=self._work.sieve.edge,
        )

    def keep(self, name: str) -> None:
        """Store the current pick, bands and edge among a person's own presets."""
        presets.STORE.keep(self._from_here(store.checked_name(name)))
        self.speech.said.emit(translate("Stored preset {name}", name=name))

    def write(self, path: pathlib.Path) -> None:
        """Write the current pick, bands and edge as a preset file."""
        store.write(self._from_here(path.stem[: store.LONGEST_NAME]), path)
        self.speech.said.emit(translate("Wrote {name}", name=path.name))

    def read(self, path: pathlib.Path) -> None:
        """Take a preset file into a person's own."""
        presets.STORE.keep(presets.read(path))

    # Of whole sieves

    def keep_sieve(self, name: str, png: bytes) -> None:
        """Store the current sieve as a preset, with a small picture."""
        sieve = self._work.sieve
        alone = edits.unlinked(self._work.project, sieve) if sieve.leans_on else sieve
        sieve_presets.STORE.keep(sieve_presets.preset_of(name, alone, png))
        self.speech.said.emit(translate("Stored {name}", name=name.strip()))

    def read_sieve(self, path: pathlib.Path) -> None:
        """Take a file into the presets of sieves."""
        sieve_presets.STORE.keep(sieve_presets.read(path))

    def write_sieve(self, preset: sieve_presets.SievePreset, path: pathlib.Path) -> None:
        """Write a preset of a sieve as a file."""
        store.write(preset, path if path.suffix else path.with_suffix(".json"))
        self.speech.said.emit(translate("Wrote {name}", name=path.name))
