"""Small dialogs: trouble with its details, the sheet of keys, and preferences."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor, QGuiApplication
from PyQt6.QtWidgets import (
    QApplication,
    QCheckBox,
    QColorDialog,
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QHBoxLayout,
    QHeaderView,
    QLineEdit,
    QMessageBox,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from ...language import named, translator
from ...project.fields import spec_of
from ...workspace.preferences import Arrangement, Preferences, Surround
from ...workspace.workspace import Workspace
from ..translations import LANGUAGES
from ..widgets.number import Number
from ..widgets.swatch import light_of, swatch

translate = translator("dialogs")


ARRANGEMENTS: dict[Arrangement, str] = {
    "twin": translate("Picture and mask side by side"),
    "inset": translate("Mask small in a corner"),
    "single": translate("One view"),
}
SURROUNDS: tuple[Surround, ...] = ("dark", "mid", "light")


def tell(parent: QWidget, message: str, details: str = "") -> QMessageBox:
    """Say what is wrong in one sentence, without stopping anything; with details, offer to copy
    them.
    """
    box = QMessageBox(
        QMessageBox.Icon.Warning,
        "Amber Sieve",
        message,
        QMessageBox.StandardButton.Ok,
        QApplication.activeModalWidget() or parent,  # a dialog that holds the window holds this too
    )
    box.setModal(False)
    box.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    if details:
        copy = box.addButton(translate("Copy details"), QMessageBox.ButtonRole.ActionRole)
        assert copy is not None
        copy.clicked.disconnect()
        copy.clicked.connect(lambda: put_on_clipboard(details))
    box.show()
    return box


def put_on_clipboard(text: str) -> None:
    """Put a text where others can paste it."""
    board = QGuiApplication.clipboard()
    if board is not None:
        board.setText(text)


class Keys(QDialog):
    """Lists all mouse and key commands, page by page; the field above narrows it down."""

    def __init__(self, parent: QWidget, rows: Sequence[tuple[str, str, str]]) -> None:
        super().__init__(parent)
        self.setWindowTitle(translate("Keys and gestures"))
        self.resize(640, 560)
        column = QVBoxLayout(self)
        self.search = QLineEdit()
        self.search.setObjectName("search")
        self.search.setPlaceholderText(translate("Search"))
        self.search.textChanged.connect(self._narrow)
        column.addWidget(self.search)
        self.table = QTableWidget(len(rows), 3)
        self.table.setHorizontalHeaderLabels(
            [
                translate("Where"),
                translate("Key or gesture"),
                translate("What it does"),
            ]
        )
        self.table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.table.setSelectionMode(QTableWidget.SelectionMode.NoSelection)
        self.table.setShowGrid(False)
        self.table.setWordWrap(True)
        for line, words in enumerate(rows):
            for place, text in enumerate(words):
                self.table.setItem(line, place, QTableWidgetItem(text))
        side, head = self.table.verticalHeader(), self.table.horizontalHeader()
        assert side is not None and head is not None
        side.hide()
        head.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft)
        head.resizeSection(0, 90)
        head.resizeSection(1, 190)
        head.setSectionResizeMode(2, QHeaderView.ResizeMode.Stretch)
        self.table.resizeRowsToContents()
        column.addWidget(self.table)
        self.search.setFocus()

    def _narrow(self, text: str) -> None:
        words = text.lower().split()
        for line in range(self.table.rowCount()):
            row = " ".join(
                item.text().lower()
                for item in (self.table.item(line, place) for place in range(3))
                if item is not None
            )
            self.table.setRowHidden(line, not all(word in row for word in words))


#: Themes of the window, and what they are called.
THEMES = {
    "dark": translate("Dark"),
    "light": translate("Light"),
    "contrast": translate("High contrast"),
}


class PreferencesDialog(QDialog):
    """The settings of the window; every change counts at once."""

    def __init__(
        self, parent: QWidget, workspace: Workspace, restart: Callable[[], object]
    ) -> None:
        super().__init__(parent)
        self._preferences = workspace.preferences
        self.setWindowTitle(translate("Preferences"))
        self.setMinimumWidth(420)
        form = QFormLayout(self)
        form.setSpacing(8)
        held = workspace.preferences.values
        self.surround = self._choice(
            translate("Surround"),
            SURROUNDS,
            [named(name) for name in SURROUNDS],
            held.surround,
            "surround",
        )
        self.arrangement = self._choice(
            translate("Arrangement"),
            tuple(ARRANGEMENTS),
            list(ARRANGEMENTS.values()),
            held.arrangement,
            "arrangement",
        )
        self.theme = self._choice(
            translate("Theme"), tuple(THEMES), list(THEMES.values()), held.theme, "theme"
        )
        words = [translate("As the system"), *LANGUAGES.values()]
        self.language = self._choice(
            translate("Language"), ("", *LANGUAGES), words, held.language, "language"
        )
        spoken = held.language
        self.restart = QPushButton(translate("It shows at the next start: restart now"))
        self.restart.clicked.connect(restart)
        self.restart.hide()
        self.language.activated.connect(
            lambda _: self.restart.setVisible(self._preferences.values.language != spoken)
        )
        for label, box in (
            (translate("Language"), self.language),
            ("", self.restart),
            (translate("Theme"), self.theme),
            (translate("Surround"), self.surround),
            (translate("Picture and mask"), self.arrangement),
        ):
            form.addRow(label, box)
        row = QWidget()
        beside = QHBoxLayout(row)
        beside.setContentsMargins(0, 0, 0, 0)
        self.veil, automatic = (
            QPushButton(translate("Choose…")),
            QPushButton(translate("Automatic")),
        )
        automatic.setToolTip(translate("A colour far from what the veil covers"))
        self.veil.clicked.connect(self._veil)
        automatic.clicked.connect(lambda: self._prefer(veil_colour=None))
        beside.addWidget(self.veil)
        beside.addWidget(automatic)
        form.addRow(translate("Veil colour"), row)
        self.numbers = {}
        for name in ("text_size", "veil_opacity", "cache_megabytes"):
            number = Number(spec_of(Preferences, name))
            number.show_value(getattr(held, name))
            number.moved.connect(lambda value, name=name: self._prefer(**{name: value}))
            self.numbers[name] = number
            form.addRow(number)
        self.surface = QCheckBox(translate("Listen to control surfaces (OSC, this machine only)"))
        self.surface.setChecked(held.control_surface)
        self.surface.toggled.connect(lambda on: self._prefer(control_surface=on))
        port = Number(spec_of(Preferences, "control_surface_port"))
        port.show_value(held.control_surface_port)
        port.settled.connect(lambda: self._prefer(control_surface_port=port.value()))
        form.addRow(self.surface)
        form.addRow(port)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
        buttons.rejected.connect(self.accept)
        form.addRow(buttons)
        self._show_veil()

    def _choice(
        self, label: str, values: Sequence[str], words: Sequence[str], held: str, name: str
    ) -> QComboBox:
        box = QComboBox()
        box.addItems(words)
        box.setAccessibleName(label)
        box.setCurrentIndex(list(values).index(held))
        box.activated.connect(lambda index: self._prefer(**{name: values[index]}))
        return box

    def _prefer(self, **changes: object) -> None:
        self._preferences.change(**changes)
        self._show_veil()

    def _show_veil(self) -> None:
        colour = self._preferences.values.veil_colour
        self.veil.setText(translate("Choose…") if colour is None else translate("Chosen…"))
        self.veil.setIcon(swatch(colour or (0.02, 0.7, 0.2)))

    def _veil(self) -> None:
        colour = ask_colour(self, translate("Veil colour"))
        if colour is not None:
            self._prefer(veil_colour=colour)


def ask_colour(parent: QWidget, title: str) -> tuple[float, float, float] | None:
    """A colour in linear light that the person chooses, None when they think better of it."""
    colour = QColorDialog.getColor(QColor(40, 220, 90), parent, title)
    return light_of(colour) if colour.isValid() else None
