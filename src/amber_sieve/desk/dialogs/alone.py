"""Show a dialog, one of its kind at a time."""

from __future__ import annotations

from typing import Any, TypeVar

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QDialog, QWidget

D = TypeVar("D", bound=QDialog)


def show_alone(kind: type[D], parent: QWidget, *given: Any, beside: bool = False) -> D:
    """Show a dialog made with ``given``, or bring the one of its kind that is open to the front.

    It holds the window, unless it stays ``beside`` the work: then the keys of the window act in it.
    """
    there = next((one for one in parent.findChildren(kind) if one.isVisible()), None)
    if there is not None:
        there.raise_()
        there.activateWindow()
        return there
    dialog = kind(parent, *given)
    dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    if beside:
        dialog.setWindowFlag(Qt.WindowType.Tool)
    else:
        dialog.setWindowModality(Qt.WindowModality.WindowModal)
    dialog.show()
    return dialog
