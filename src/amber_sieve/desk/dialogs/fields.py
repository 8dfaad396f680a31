"""Fields of dialogs: a number, a box with words, and its rows by their ids."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QSignalBlocker
from PyQt6.QtWidgets import QComboBox

from ...project.fields import plain_spec
from ..widgets.number import Number


def number_of(name: str, label: str, start: float, low: float, high: float, unit: str) -> Number:
    return Number(
        plain_spec(name, label, start, low, high, unit=unit, help=label, soft_high=min(high, 200))
    )


def refill(combo: QComboBox, rows: Sequence[tuple[str, str]], wanted: str) -> None:
    """Give a box other rows, each what is read and its id, and choose the one with an id, or the
    first; nothing is told.
    """
    with QSignalBlocker(combo):
        combo.clear()
        for words, name in rows:
            combo.addItem(words, name)
        combo.setCurrentIndex(max(0, combo.findData(wanted)))


def combo_of(name: str, words: list[str]) -> QComboBox:
    combo = QComboBox()
    combo.addItems(words)
    combo.setAccessibleName(name)
    return combo
