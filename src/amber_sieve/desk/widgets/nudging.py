"""Nudges: the distance that an arrow key moves a value."""

from __future__ import annotations

from PyQt6.QtCore import Qt


def steps_of(held: Qt.KeyboardModifier) -> float:
    """Return how many steps a nudge is: ten with Shift, a tenth with Alt, else one."""
    if held & Qt.KeyboardModifier.ShiftModifier:
        return 10.0
    return 0.1 if held & Qt.KeyboardModifier.AltModifier else 1.0
