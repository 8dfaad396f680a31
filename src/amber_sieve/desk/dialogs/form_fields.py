"""The fields for the form of a picture that is written: quality, size, profile and name."""

from __future__ import annotations

from PyQt6.QtWidgets import QCheckBox, QLineEdit

from ...export.presets import ExportChoice, WhichFrames
from ...export.still_options import FILTERS, Export, What
from ...language import named, translator
from ...media.colour import profiles
from .fields import combo_of, number_of

translate = translator("dialogs")


class FormFields:
    """Widgets that the dialogs of export and batch both lay out."""

    def __init__(self, pattern: str, tip: str) -> None:
        """``pattern`` of the names, and what is said of it."""
        self.quality, self.size_number = (
            number_of("quality", translate("Quality"), 95, 1, 100, ""),
            number_of("size", translate("Size"), 100, 1, 400, "%"),
        )
        self.filter = combo_of(translate("Resampling"), [named(word) for word in FILTERS])
        self.filter.setToolTip(
            translate(
                "How it is resampled. Best: means where it shrinks, Lanczos where it grows",
            )
        )
        self.profile = combo_of(
            translate("Profile"),
            [translate("The picture's own"), *profiles.NAMES],
        )
        self.premultiplied, self.metadata = (
            QCheckBox(translate("Premultiplied alpha")),
            QCheckBox(translate("Keep metadata")),
        )
        self.metadata.setChecked(True)
        self.pattern = QLineEdit(pattern)
        self.pattern.setObjectName("search")
        self.pattern.setAccessibleName(translate("Name"))
        self.pattern.setToolTip(tip)

    def export(self, what: What = "result", depth: str = "") -> Export:
        """Return the chosen options of one picture."""
        chosen = self.profile.currentIndex() and self.profile.isEnabled()
        return Export(
            what,
            depth,
            round(self.quality.value()),
            self.size_number.value(),
            self.metadata.isChecked(),
            self.profile.currentText() if chosen else "",
            FILTERS[self.filter.currentIndex()],
            self.premultiplied.isChecked() and self.premultiplied.isEnabled(),
        )

    def use(self, choice: ExportChoice) -> None:
        """Choose all of it as it was stored."""
        self.quality.set(choice.quality)
        self.size_number.set(choice.size)
        self.filter.setCurrentIndex(FILTERS.index(choice.filter))
        self.profile.setCurrentIndex(max(0, self.profile.findText(choice.profile)))
        self.premultiplied.setChecked(choice.premultiplied)
        self.metadata.setChecked(choice.metadata)
        self.pattern.setText(choice.pattern)

    def choice(
        self, ending: str, how: Export, frames: WhichFrames = "this", what: str = ""
    ) -> ExportChoice:
        """Return everything that is chosen, to be stored."""
        return ExportChoice(
            frames=frames,
            what=what or how.what,
            ending=ending,
            depth=how.depth,
            quality=how.quality,
            size=how.size,
            filter=how.filter,
            profile=how.profile,
            premultiplied=how.premultiplied,
            metadata=how.metadata,
            pattern=self.pattern.text()[:200],
        )
