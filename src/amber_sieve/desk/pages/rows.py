"""Numbers of adjustments in rows, and which of them stand side by side."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtWidgets import QLabel

from ...language import translator
from ...workspace.workspace import Workspace
from ..widgets.block import Block
from ..widgets.number import Number
from .page import Page, row_of

translate = translator("pages")


#: Numbers that stand side by side, with shorter labels where the neighbours explain them.
PAIRS: dict[str, tuple[tuple[str, ...], ...]] = {
    "white": (("temperature",), ("tint",)),
    "light": (
        ("exposure",),
        ("contrast", "pivot"),
        ("highlights", "shadows"),
        ("white_point", "black_point"),
        ("gamma",),
    ),
    "recolour": (
        ("hue",),
        ("saturation",),
        ("vibrance",),
        ("lightness",),
        ("one_hue",),
        ("one_hue_at",),
    ),
    "even": (("even_lightness",), ("even_hue",)),
    "mono": (("mono",), ("mono_red", "mono_green", "mono_blue")),
    "cdl": (
        ("slope_red", "slope_green", "slope_blue"),
        ("offset_red", "offset_green", "offset_blue"),
        ("power_red", "power_green", "power_blue"),
        ("cdl_saturation",),
    ),
    "detail": (
        ("noise",),
        ("blur",),
        ("local_contrast",),
        ("contrast_radius",),
        ("sharpen", "sharpen_radius"),
        ("grain", "grain_size"),
    ),
}
SHORT = {
    "cdl_saturation": translate("Saturation"),
    "even_lightness": translate("Lightness"),
    "even_hue": translate("Hue"),
}
ROW_NAMES = {
    "slope_red": translate("Slope"),
    "offset_red": translate("Offset"),
    "power_red": translate("Power"),
    "mono_red": translate("Brightness of"),
}
CHANNELS = {"red": "R", "green": "G", "blue": "B"}


class RowsPage(Page):
    """A page whose blocks have rows of numbers."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__(workspace)
        #: The numbers of all blocks, by their field's name.
        self.numbers: dict[str, Number] = {}

    def row(self, block: Block, name: str, names: Sequence[str]) -> None:
        """Put numbers of a block side by side."""
        if names[0] in ROW_NAMES:
            label = QLabel(ROW_NAMES[names[0]])
            label.setObjectName("dim")
            block.add(label)
        for field in names:
            channel = CHANNELS.get(field.rpartition("_")[2], "") if name in ("cdl", "mono") else ""
            self.numbers[field] = self.number(
                f"adjust.{name}.{field}", channel or SHORT.get(field, ""), add=False
            )
        block.add(row_of(*(self.numbers[field] for field in names)))
