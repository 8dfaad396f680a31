"""Lists of items with an id: a row is reused while its item exists, so that only changed rows are
redrawn.
"""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QListWidget, QListWidgetItem

#: Milliseconds after which the rows of a list follow while something is dragged.
SOON = 120


def ids_of(shown: QListWidget) -> list[str]:
    """Return the ids of the rows of a list."""
    return [
        row.data(Qt.ItemDataRole.UserRole)
        for number in range(shown.count())
        if (row := shown.item(number)) is not None
    ]


def rows_for(shown: QListWidget, ids: Sequence[str]) -> list[QListWidgetItem]:
    """A row for each id, which it holds as its user data; those that stand already where the ids
    are the same ones, else fresh ones that can be ticked and renamed.
    """
    if ids_of(shown) == list(ids):
        return [row for number in range(shown.count()) if (row := shown.item(number)) is not None]
    shown.clear()
    rows = [QListWidgetItem() for _ in ids]
    for row, its in zip(rows, ids, strict=True):
        row.setData(Qt.ItemDataRole.UserRole, its)
        row.setFlags(row.flags() | Qt.ItemFlag.ItemIsUserCheckable | Qt.ItemFlag.ItemIsEditable)
        shown.addItem(row)
    return rows


def tick(row: QListWidgetItem, on: bool) -> None:
    """Tick the box of a row, or untick it."""
    row.setCheckState(Qt.CheckState.Checked if on else Qt.CheckState.Unchecked)


def set_icon(row: QListWidgetItem, icon: QIcon) -> None:
    """The picture of a row; the same one again costs nothing."""
    if row.icon().cacheKey() != icon.cacheKey():
        row.setIcon(icon)
