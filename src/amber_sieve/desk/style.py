"""Colours, type and the style sheet. Greys have no tint, so that they do not push the eye; amber is
only for what is active.

The sheet is written for the dark theme. The others replace its colours: greys by their
counterparts, accents one by one.
"""

from __future__ import annotations

import pathlib
import re

from PyQt6.QtGui import QColor, QFont, QFontDatabase, QPalette
from PyQt6.QtWidgets import QApplication, QLabel

HERE = pathlib.Path(__file__).parent
#: The colours of the theme in use, for what is painted by hand: `dress` gives them their values.
AMBER = QColor(232, 158, 32)
INK, DIM, GROUND, WELL, LINE = (
    QColor(226, 226, 226),
    QColor(158, 158, 158),
    QColor(46, 46, 46),
    QColor(34, 34, 34),
    QColor(70, 70, 70),
)
_BY_HAND = {
    "#e89e20": AMBER,
    "#e2e2e2": INK,
    "#9e9e9e": DIM,
    "#2e2e2e": GROUND,
    "#222222": WELL,
    "#464646": LINE,
}
#: Height of the letters, pixels of a screen of 96 dots to the inch.
LETTERS = 12
SURROUNDS = {
    "dark": QColor(28, 28, 28),
    "mid": QColor(119, 119, 119),
    "light": QColor(200, 200, 200),
}

SHEET = """
QMainWindow, QDialog, QWidget#panel { background: #2e2e2e; }
QDialogButtonBox { dialogbuttonbox-buttons-have-icons: 0; }
QMenuBar, QMenu { background: #262626; }
QMenuBar::item { padding: 6px 7px; background: transparent; }
QMenuBar::item:selected, QMenu::item:selected { background: #4a4a4a; }
QMenu { border: 1px solid #464646; padding: 4px; }
QMenu::item { padding: 5px 26px 5px 16px; }
QMenu::item:disabled { color: #7a7a7a; }
QMenu::separator { height: 1px; background: #464646; margin: 4px 8px; }
QLabel#heading { font-weight: 600; color: #bdbdbd; padding-top: 6px; }
QLabel#title { font-size: 26px; font-weight: 600; }
QLabel#dim { color: #9e9e9e; }
QLabel#active { color: #f2b64a; }
QToolButton#bare { background: transparent; border: 0; padding: 3px 2px; font-weight: 600;
    color: #d0d0d0; }
QToolButton#bare:hover { background: #3a3a3a; }
QFrame#answer { background: #1c1c1c; border: 1px solid #6a6a6a; border-radius: 4px; }
QFrame#notice { background: #3a3326; border-bottom: 1px solid #1f1f1f; }
QToolButton#chip { padding: 0; min-height: 62px; }
QToolButton#bare:focus { background: #453c2a; }
QToolButton#bare::menu-indicator { image: none; }
QPushButton, QToolButton, QComboBox { background: #3c3c3c; border: 1px solid #4a4a4a;
    border-radius: 3px; padding: 4px 7px; min-height: 16px; }
QPushButton:hover, QToolButton:hover, QComboBox:hover { background: #474747; }
QPushButton:pressed, QToolButton:pressed { background: #2a2a2a; }
QPushButton:checked, QToolButton:checked { border-color: #e89e20; color: #f2b64a; }
QPushButton:disabled, QToolButton:disabled { color: #747474; background: #333333; }
QPushButton:focus, QToolButton:focus, QComboBox:focus, QListWidget:focus {
    border: 1px solid #c08a2c; }
QComboBox { padding-right: 20px; }
QComboBox::drop-down { border: 0; width: 18px; }
QComboBox::down-arrow { image: url(@icons/down.svg); width: 9px; height: 9px; }
QComboBox QAbstractItemView { background: #262626; selection-background-color: #4a4a4a; }
QTabBar::tab { background: transparent; padding: 7px 9px; border: 0;
    border-bottom: 2px solid transparent; color: #b4b4b4; }
QTabBar::tab:selected { color: #ffffff; border-bottom: 2px solid #e89e20; }
QTabBar::tab:hover { color: #ffffff; }
QListWidget { background: #222222; border: 1px solid #3a3a3a; outline: 0; }
QListWidget::item { padding: 4px; }
QListWidget::item:selected { background: #3f3a30; color: #ffffff; }
QStatusBar { background: #262626; }
QStatusBar::item { border: 0; }
QStatusBar QLabel#dim { padding-left: 10px; }
QStatusBar QLabel#said { padding-right: 10px; }
QLineEdit { background: #1c1c1c; border: 1px solid #c08a2c; padding: 1px 4px;
    selection-background-color: #8a6114; }
QFileDialog QToolButton { padding: 2px; background: #787878; }
QLineEdit#search { border-color: #565656; padding: 5px 7px; }
QTextEdit, QPlainTextEdit, QTableWidget, QTreeView, QListView, QTableView { background: #222222;
    border: 1px solid #3a3a3a; selection-background-color: #4a4030; }
QHeaderView::section { background: #2e2e2e; color: #bdbdbd; border: 0;
    border-bottom: 1px solid #464646; padding: 4px 6px; }
QSlider::groove:horizontal { height: 4px; background: #1c1c1c; }
QSlider::handle:horizontal { width: 8px; margin: -6px 0; background: #c8c8c8; border-radius: 2px; }
QSlider::handle:horizontal:focus { background: #e89e20; }
QProgressBar { background: #1c1c1c; border: 1px solid #464646; height: 12px; text-align: center; }
QProgressBar::chunk { background: #8a6114; }
QMainWindow::separator { background: #1f1f1f; width: 3px; height: 3px; }
QMainWindow::separator:hover { background: #8a6114; }
QWidget#row { background: #262626; border-bottom: 1px solid #1f1f1f; }
QToolTip { background: #1c1c1c; color: #e2e2e2; border: 1px solid #565656; padding: 3px; }
QScrollArea { border: 0; background: #2e2e2e; }
QScrollBar:vertical { background: #262626; width: 10px; }
QScrollBar::handle:vertical { background: #565656; border-radius: 4px; min-height: 24px; }
QScrollBar::add-line, QScrollBar::sub-line { height: 0; }
QCheckBox::indicator, QAbstractItemView::indicator { width: 13px; height: 13px;
    border: 1px solid #6a6a6a; background: #222222; border-radius: 2px; }
QCheckBox::indicator:checked, QAbstractItemView::indicator:checked { background: #e89e20;
    border-color: #e89e20; image: url(@icons/tick.svg); }
"""


#: What accents of the dark theme become in the others.
_ACCENTS = {
    "light": {
        "#e89e20": "#a86200",
        "#f2b64a": "#7a4a00",
        "#c08a2c": "#b06c00",
        "#8a6114": "#e0b15a",
        "#453c2a": "#ecd9b4",
        "#3f3a30": "#ecd9b4",
        "#3a3326": "#f2e2c0",
        "#4a4030": "#ecd9b4",
    },
    "contrast": {
        "#e89e20": "#ffb52e",
        "#f2b64a": "#ffc95c",
        "#c08a2c": "#ffb52e",
        "#3f3a30": "#5a4000",
        "#3a3326": "#3a2a00",
    },
}
#: Text that is quieter in the dark theme, and cannot be in the others.
_QUIET = ("#9e9e9e", "#7a7a7a", "#747474", "#b4b4b4", "#bdbdbd")
_HEX = re.compile(r"#[0-9a-f]{6}")


def themed(colour: str, theme: str) -> str:
    """Return the counterpart of a dark theme's colour in another theme, both as #rrggbb."""
    accents = _ACCENTS.get(theme, {})
    if theme == "dark" or colour in accents:
        return accents.get(colour, colour)
    grey = int(colour[1:3], 16)
    if len({colour[1:3], colour[3:5], colour[5:7]}) > 1:
        return colour
    if theme == "light":
        # Turned round, and lifted, so that the grounds lie between a light grey and white.
        level = (
            round(min(255, 255 - 0.55 * grey)) if grey < 128 else round(max(0, 0.6 * (255 - grey)))
        )
        level = 84 if colour in _QUIET else level
    else:
        level = (
            0
            if grey <= 46
            else 214
            if colour in _QUIET
            else 255
            if grey > 190
            else 24
            if grey < 64
            else 150
        )
    return f"#{level:02x}{level:02x}{level:02x}"


def _palette(theme: str) -> QPalette:
    """The same greys for what no style sheet reaches: file, colour and message dialogs."""
    palette = QPalette()
    roles = {
        QPalette.ColorRole.Window: GROUND,
        QPalette.ColorRole.WindowText: INK,
        QPalette.ColorRole.Base: WELL,
        QPalette.ColorRole.AlternateBase: GROUND,
        QPalette.ColorRole.Text: INK,
        QPalette.ColorRole.Button: GROUND,
        QPalette.ColorRole.ButtonText: INK,
        QPalette.ColorRole.ToolTipBase: WELL,
        QPalette.ColorRole.ToolTipText: INK,
        QPalette.ColorRole.Highlight: QColor(138, 97, 20),
        QPalette.ColorRole.HighlightedText: QColor(255, 255, 255),
        QPalette.ColorRole.Link: QColor(themed("#f2b64a", theme)),
        QPalette.ColorRole.PlaceholderText: DIM,
        QPalette.ColorRole.Light: LINE,
        QPalette.ColorRole.Midlight: LINE,
        QPalette.ColorRole.Mid: LINE,
        QPalette.ColorRole.Dark: WELL,
    }
    for role, colour in roles.items():
        palette.setColor(role, QColor(colour))
    for role in (
        QPalette.ColorRole.WindowText,
        QPalette.ColorRole.Text,
        QPalette.ColorRole.ButtonText,
    ):
        palette.setColor(QPalette.ColorGroup.Disabled, role, QColor(DIM))
    return palette


def set_type(application: QApplication) -> None:
    """Give the application the fonts and the style that everything is measured with."""
    for font in sorted((HERE / "fonts").glob("*.otf")):
        QFontDatabase.addApplicationFont(str(font))
    application.setStyle("Fusion")
    application.setFont(_letters(100))


def _letters(text_size: float) -> QFont:
    """Return the font of most words. A font of the application, not of the sheet: a rule for every
    widget takes as long as all others together.
    """
    font = QFont("Inter")
    font.setPixelSize(round(LETTERS * text_size / 100))
    return font


def dress(application: QApplication, theme: str = "dark", text_size: float = 100.0) -> None:
    """Give the application its colours and style sheet; ``text_size`` in per cent. Best when its
    widgets stand: each time one with a sheet gets another parent, all that it holds is dressed
    anew.
    """
    if application.property("dressed") == (wanted := f"{theme} {text_size:g}"):
        return
    application.setProperty("dressed", wanted)
    for name, colour in _BY_HAND.items():
        colour.setRgb(QColor(themed(name, theme)).rgb())
    application.setPalette(_palette(theme))
    application.setFont(_letters(text_size))
    sheet = _HEX.sub(lambda found: themed(found.group(0), theme), SHEET)
    sheet = re.sub(
        r"font-size: (\d+)px",
        lambda found: f"font-size: {round(int(found.group(1)) * text_size / 100)}px",
        sheet,
    )
    arrow = "down-dark" if theme == "light" else "down"
    application.setStyleSheet(
        sheet.replace("@icons/down", f"@icons/{arrow}").replace(
            "@icons", (HERE / "icons").as_posix()
        )
    )
    for label in application.allWidgets():
        if isinstance(label, QLabel) and "<a " in (words := label.text()):
            label.clear()  # a link has the colour that it had when its words were set
            label.setText(words)
