"""The guide, read in the window without a network."""

from __future__ import annotations

import pathlib

from PyQt6.QtCore import Qt, QUrl
from PyQt6.QtGui import QTextDocument
from PyQt6.QtWidgets import (
    QDialog,
    QListWidget,
    QListWidgetItem,
    QSplitter,
    QTextBrowser,
    QVBoxLayout,
    QWidget,
)

from ...language import translator

translate = translator("dialogs")


_PATH = Qt.ItemDataRole.UserRole


def title_of(page: pathlib.Path) -> str:
    """The heading of a page."""
    return page.read_text(encoding="utf-8").partition("\n")[0].lstrip("# ").strip()


class Guide(QDialog):
    """The pages on the left, the one that is read on the right. It stays open beside the work."""

    def __init__(self, parent: QWidget, folder: pathlib.Path) -> None:
        super().__init__(parent)
        self.setWindowTitle(translate("Guide"))
        self.pages, self.text = QListWidget(), QTextBrowser()
        self.pages.setAccessibleName(translate("Pages of the guide"))
        self.text.setAccessibleName(translate("Page of the guide"))
        self.text.setOpenExternalLinks(False)
        self.text.sourceChanged.connect(self._follow)
        for path in sorted(folder.glob("*.md")):
            item = QListWidgetItem(title_of(path))
            item.setData(_PATH, str(path))
            self.pages.addItem(item)
        self.pages.currentItemChanged.connect(lambda item, _: self._show(item))
        split = QSplitter()
        split.addWidget(self.pages)
        split.addWidget(self.text)
        split.setSizes([220, 640])
        QVBoxLayout(self).addWidget(split)
        self.resize(900, 640)
        self.pages.setCurrentRow(0)

    def turn_to(self, page: str) -> None:
        """Show a page by the stem of its file; "" for the one that is open."""
        for row in range(self.pages.count()):
            there = self.pages.item(row)
            if there is not None and pathlib.Path(there.data(_PATH)).stem == page:
                self.pages.setCurrentRow(row)

    def _show(self, item: QListWidgetItem | None) -> None:
        if item is not None:
            self.text.setSource(
                QUrl.fromLocalFile(item.data(_PATH)), QTextDocument.ResourceType.MarkdownResource
            )

    def _follow(self, url: QUrl) -> None:
        """A link to another page chooses it in the list too."""
        for row in range(self.pages.count()):
            item = self.pages.item(row)
            if item is not None and item.data(_PATH) == url.toLocalFile():
                self.pages.setCurrentRow(row)
