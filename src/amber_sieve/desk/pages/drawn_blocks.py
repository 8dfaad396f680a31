"""Blocks of the Adjust page that are drawn over the colours inside the mask: curves, balance,
curves over hue.
"""

from __future__ import annotations

import numpy as np
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QComboBox, QLabel

from ...core.adjust.balance import RANGES
from ...core.adjust.curve import curve_through
from ...core.adjust.hues import closed_curve
from ...core.colour.transfer import one_encoded
from ...core.statistics import Statistics
from ...language import translator
from ...live.slider_colours import hue_ring
from ...project.fields import field_at, plain_spec, title_of
from ...project.model import Sieve
from ..style import AMBER
from ..widgets.balance_disc import BalanceDisc
from ..widgets.block import Block
from ..widgets.curve_editor import CurveEditor, Points
from ..widgets.number import Number
from .page import row_of
from .rows import RowsPage

translate = translator("pages")


CURVES = {
    "curve": translate("Luminance"),
    "curve_red": translate("Red"),
    "curve_green": translate("Green"),
    "curve_blue": translate("Blue"),
}
CURVE_COLOURS = {
    "curve": AMBER,
    "curve_red": QColor(230, 90, 80),
    "curve_green": QColor(90, 200, 100),
    "curve_blue": QColor(100, 140, 245),
}
HUE_CURVES = {
    "turn_by_hue": translate("Hue shift"),
    "saturation_by_hue": translate("Saturation"),
    "lightness_by_hue": translate("Lightness"),
}


def _typed(
    name: str, label: str, low: float, high: float, unit: str = "", decimals: int = 0
) -> Number:
    return Number(
        plain_spec(name, label, max(low, 0), low, high, unit=unit, decimals=decimals, help=label)
    )


class _Edited:
    """One editor for several curves, with a list to choose from and two numbers for the chosen
    point.
    """

    def __init__(
        self,
        page: RowsPage,
        block: Block,
        way: str,
        names: dict[str, str],
        editor: CurveEditor,
        typed: tuple[Number, Number],
    ):
        self.page, self.way, self.names, self.editor, self.typed = page, way, names, editor, typed
        self.choice = QComboBox()
        self.choice.addItems(list(names.values()))
        self.choice.setAccessibleName(translate("Which curve"))
        self.choice.currentIndexChanged.connect(lambda _: self.follow())
        block.add(self.choice, editor, row_of(*typed))
        editor.edited.connect(self._edit)
        editor.settled.connect(page.work.end_drag)
        editor.chosen_changed.connect(self._show_point)
        for number in typed:
            number.moved.connect(lambda _: self._type())
            number.settled.connect(page.work.end_drag)
        self._show_point()

    @property
    def field(self) -> str:
        """The name of the curve that is shown."""
        return list(self.names)[self.choice.currentIndex()]

    @property
    def path(self) -> str:
        return f"{self.way}.{self.field}"

    #: From a point of the curve to the numbers that are typed, and back.
    scale = (1.0, 1.0)

    def _edit(self, points: Points) -> None:
        title = title_of(field_at(Sieve, self.path)) or self.field
        self.page.work.set_field(self.path, points, title, group=self.path)

    def _type(self) -> None:
        if 0 <= self.editor.chosen < len(self.editor.points):
            x, y = (
                number.value() / scale for number, scale in zip(self.typed, self.scale, strict=True)
            )
            self.editor.move_to(self.editor.chosen, x, y)

    def _show_point(self) -> None:
        there = 0 <= self.editor.chosen < len(self.editor.points)
        for k, number in enumerate(self.typed):
            number.setEnabled(there)
            if there:
                number.show_value(
                    round(self.editor.points[self.editor.chosen][k] * self.scale[k], 2)
                )

    def follow(self) -> None:
        """Show what the work holds now."""
        _, block, _ = self.path.split(".")
        self.editor.show_points(getattr(getattr(self.page.work.sieve.adjust, block), self.field))
        self._show_point()


class CurvesBlock(_Edited):
    """Levels and curves."""

    scale = (255.0, 255.0)

    def __init__(self, page: RowsPage, block: Block) -> None:
        editor = CurveEditor(translate("Curve"), (0, 1), (0, 1))
        editor.through = curve_through
        self._counted: Statistics | None = None
        super().__init__(
            page,
            block,
            "adjust.curve",
            CURVES,
            editor,
            (
                _typed("in", translate("In"), 0, 255),
                _typed("out", translate("Out"), 0, 255),
            ),
        )
        for row in (("in_black", "in_white"), ("middle",), ("out_black", "out_white")):
            page.row(block, "curve", row)

    def show_counted(self, counted: Statistics) -> None:
        """Draw what the mask holds under the curve."""
        self._counted = counted
        self._draw()

    def _draw(self) -> None:
        if self._counted is None:
            return
        channel = list(CURVES).index(self.field) - 1
        if channel >= 0:
            self.editor.show_histogram(self._counted.levels[channel])
            return
        # Counted by L*, drawn by coded value.
        lightness = (np.arange(256) + 0.5) / 256 * 100
        light = np.where(lightness > 8, ((lightness + 16) / 116) ** 3, lightness * 27 / 24389)
        self.editor.show_histogram(
            np.histogram(one_encoded(light), 128, (0, 1), weights=self._counted.luminance)[0]
        )

    def follow(self) -> None:
        self.editor.show_as(CURVE_COLOURS[self.field], self.editor.y_range)
        self._draw()
        super().follow()


class HuesBlock(_Edited):
    """Curves over hue."""

    def __init__(self, page: RowsPage, block: Block) -> None:
        editor = CurveEditor(translate("Curve over hue"), (0, 360), (-100, 100), closed=True)
        editor.through = closed_curve
        editor.ground = [QColor.fromRgbF(*(float(v) for v in code)) for code in hue_ring()]
        typed = (
            _typed("hue", translate("At hue"), 0, 359.99, "°", 1),
            _typed("value", translate("Value"), -100, 100, "", 1),
        )
        super().__init__(page, block, "adjust.hues", HUE_CURVES, editor, typed)

    def show_counted(self, counted: Statistics) -> None:
        """Draw the hues that the mask holds under the curve."""
        self.editor.show_histogram(counted.hue)

    def follow(self) -> None:
        most = 180 if self.field == "turn_by_hue" else 100
        self.editor.show_as(self.editor.colour, (-most, most))
        self.typed[1].set_range(-most, most, 0, "°" if most == 180 else "%")
        super().follow()


class BalanceBlock:
    """Balance of shadows, midtones and highlights."""

    def __init__(self, page: RowsPage, block: Block) -> None:
        self.page = page
        self.disc = BalanceDisc()
        self.disc.edited.connect(self._edit)
        self.disc.settled.connect(page.work.end_drag)
        block.add(self.disc)
        for title, fields in (
            (translate("Lightness"), "lightness"),
            (translate("Colour"), "colour"),
            (translate("Hue"), "hue"),
        ):
            label = QLabel(translate("{title} of shadows, midtones, highlights", title=title))
            label.setWordWrap(True)
            label.setObjectName("dim")
            numbers = []
            for name in RANGES:
                field = f"{name}_{fields}"
                page.numbers[field] = page.number(
                    f"adjust.balance.{field}", name[0].upper(), add=False
                )
                numbers.append(page.numbers[field])
            block.add(label, row_of(*numbers))
        page.row(block, "balance", ("shadows_to",))
        page.row(block, "balance", ("highlights_from",))

    def _edit(self, name: str, hue: float, colour: float) -> None:
        changes = {f"{name}_hue": min(hue, 360.0), f"{name}_colour": colour}

        def change(sieve: Sieve) -> Sieve:
            return sieve.but(adjust=sieve.adjust.but(balance=sieve.adjust.balance.but(**changes)))

        self.page.work.edit_sieve(
            change, translate("Balance of {name}", name=name), group=f"balance {name}"
        )

    def show_density(self, density: np.ndarray) -> None:
        """Show the mask's own colours on the disc."""
        self.disc.show_colours(density)

    def follow(self) -> None:
        """Show what the work holds now."""
        held = self.page.work.sieve.adjust.balance
        self.disc.show_handles(
            {
                name: (getattr(held, f"{name}_hue"), getattr(held, f"{name}_colour"))
                for name in RANGES
            }
        )
