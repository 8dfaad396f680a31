"""The window's front while nothing is open: recent work, and ways to begin."""

from __future__ import annotations

import contextlib
import pathlib
from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QSize, Qt, pyqtSignal
from PyQt6.QtGui import QHideEvent, QIcon, QPixmap, QShowEvent
from PyQt6.QtWidgets import (
    QGridLayout,
    QLabel,
    QListView,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ...errors import Trouble
from ...language import translator
from ...media.formats import PROJECT
from ...media.stills.thumbnails import SIDE, thumbnail
from ...progress import Cancelled
from ...project import storage
from ...workspace.workspace import Workspace
from ..widgets.drawing import pixmap_of
from ..widgets.icon import with_icon
from .places import demo_project, guide

translate = translator("start")


#: Most pictures of recent work that are shown.
MOST = 8
_PATH = Qt.ItemDataRole.UserRole


def _small(path: pathlib.Path) -> np.ndarray | None:
    """A small picture of a picture, a clip, or what a project is of; None where there is none."""
    with contextlib.suppress(Trouble, OSError, MemoryError):
        return thumbnail(
            pathlib.Path(storage.load(path).source) if path.suffix.lower() == PROJECT else path
        )
    return None


class StartView(QWidget):
    """Open, the demo, the guide, and what was worked on last; files can be dropped anywhere on the
    window.
    """

    #: The path of recent work, and its small picture.
    _made = pyqtSignal(str, object)

    def __init__(
        self,
        workspace: Workspace,
        ask_open: Callable[[], object],
        show_guide: Callable[[], object],
        tour: Callable[[], object],
    ) -> None:
        super().__init__()
        self._pictures, self._preferences, self._workers = (
            workspace.pictures,
            workspace.preferences,
            workspace.workers,
        )
        self._made.connect(self._draw)
        self.open, self.demo, self.guide, self.tour = (
            QPushButton(),
            QPushButton(),
            QPushButton(),
            QPushButton(),
        )
        with_icon(
            self.open,
            "folder-open",
            translate("Open pictures, clips or projects (Ctrl+O)"),
            translate("Open…"),
        )
        with_icon(
            self.demo,
            "palette",
            translate("Open the glaze yard, a made-up picture to try things on"),
            translate("Open the demo"),
        )
        with_icon(
            self.tour,
            "play",
            translate("Six steps on the demo, each in your own hands"),
            translate("Take the tour"),
        )
        with_icon(
            self.guide,
            "list",
            translate("What each thing is for, page by page"),
            translate("Read the guide"),
        )
        self.open.clicked.connect(lambda: ask_open())
        self.demo.clicked.connect(self._open_demo)
        self.guide.clicked.connect(lambda: show_guide())
        self.tour.clicked.connect(lambda: tour())
        self.demo.setVisible(demo_project() is not None)
        self.tour.setVisible(demo_project() is not None)
        self.guide.setVisible(guide() is not None)
        title = QLabel("Amber Sieve")
        title.setObjectName("title")
        what = QLabel(translate("Pick colours in a picture or a clip, and change only those."))
        drop = QLabel(
            translate("Or drop pictures, clips, projects or folders anywhere on this window.")
        )
        drop.setObjectName("dim")
        for label in (what, drop):
            label.setWordWrap(True)
        row = QGridLayout()
        row.setSpacing(8)
        for number, button in enumerate((self.open, self.demo, self.tour, self.guide)):
            row.addWidget(button, number // 2, number % 2)
        row.setColumnStretch(2, 1)
        self.heading = QLabel(translate("Recent work"))
        self.heading.setObjectName("heading")
        self.recent = QListWidget()
        self.recent.setAccessibleName(translate("Recent work"))
        self.recent.setViewMode(QListView.ViewMode.IconMode)
        self.recent.setMovement(QListView.Movement.Static)
        self.recent.setResizeMode(QListView.ResizeMode.Adjust)
        self.recent.setIconSize(QSize(SIDE, SIDE * 2 // 3))
        self.recent.setGridSize(QSize(SIDE + 24, SIDE * 2 // 3 + 34))
        self.recent.itemActivated.connect(self._open_item)
        self.recent.itemClicked.connect(self._open_item)
        column = QVBoxLayout(self)
        column.setContentsMargins(40, 32, 40, 24)
        column.setSpacing(12)
        for widget in (title, what):
            column.addWidget(widget)
        column.addLayout(row)
        for widget in (drop, self.heading):
            column.addWidget(widget)
        column.addWidget(self.recent, 1)

    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self._list()

    def hideEvent(self, event: QHideEvent | None) -> None:
        super().hideEvent(event)
        # large pictures would go on being read beside the opened file
        self._workers.recents.forget()

    def _list(self) -> None:
        paths = [
            path for path in map(pathlib.Path, self._preferences.values.recent) if path.exists()
        ][:MOST]
        self.heading.setVisible(bool(paths))
        self.recent.setVisible(bool(paths))
        self.recent.clear()
        for path in paths:
            empty = QPixmap(SIDE, SIDE * 2 // 3)
            empty.fill(Qt.GlobalColor.black)
            item = QListWidgetItem(QIcon(empty), path.name)
            item.setData(_PATH, str(path))
            item.setToolTip(str(path))
            self.recent.addItem(item)
        if paths:
            self._workers.recents.ask(lambda: self._make(paths), about=paths)

    def _make(self, paths: list[pathlib.Path]) -> None:
        """Make small pictures in the thread of recent work, until they are not seen any more."""
        for path in paths:
            if self._workers.recents.superseded():
                raise Cancelled
            pixels = _small(path)
            if pixels is not None:
                self._made.emit(str(path), pixels)

    def _draw(self, path: str, pixels: np.ndarray) -> None:
        for item in map(self.recent.item, range(self.recent.count())):
            if item is not None and item.data(_PATH) == path:
                item.setIcon(QIcon(pixmap_of(pixels)))

    def _open_item(self, item: QListWidgetItem) -> None:
        self._pictures.open_many([pathlib.Path(item.data(_PATH))])

    def _open_demo(self) -> None:
        project = demo_project()
        if project is not None:
            self._pictures.open(project, copy=True)
