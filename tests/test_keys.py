"""Keys of commands act wherever the focus is."""

from unittest import mock

from common import DEMO, WindowCase
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QKeyEvent, QKeySequence
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QLineEdit, QTextEdit, QWidget

from amber_sieve.desk.window.picture_keys import EDITING


class KeysTest(WindowCase):
    def setUp(self):
        super().setUp()
        self.open(DEMO / "yard.png")

    def shortcuts(self) -> list[tuple[str, QKeySequence]]:
        """The ids of commands and their keys, of those with Ctrl or Alt."""
        actions = self.window.menus.actions.items()
        keys = [(name, one) for name, action in actions for one in action.shortcuts()]
        held = Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier
        return [(name, one) for name, one in keys if one[0].keyboardModifiers() & held]

    def one_of_each_kind(self) -> list[QWidget]:
        """A widget of every kind that takes the focus, on the page that is open and beside it."""
        found: dict[str, QWidget] = {}
        for widget in self.window.findChildren(QWidget):
            focused = widget.focusPolicy() & Qt.FocusPolicy.TabFocus
            if focused and widget.isVisible() and widget.isEnabled():
                found.setdefault(type(widget).__name__, widget)
        return list(found.values())

    def test_no_widget_swallows_the_key_of_a_command(self):
        keys, kinds = self.shortcuts(), set()
        self.assertGreater(len(keys), 30)
        for page in range(self.window.pages.count()):
            self.window.pages.setCurrentIndex(page)
            self.settle()
            for widget in self.one_of_each_kind():
                widget.setFocus()
                kinds.add(type(widget).__name__)
                for name, key in keys:
                    event = QKeyEvent(
                        QEvent.Type.ShortcutOverride, key[0].key(), key[0].keyboardModifiers()
                    )
                    if isinstance(widget, (QLineEdit, QTextEdit)) and any(
                        map(event.matches, EDITING)
                    ):
                        continue
                    event.ignore()
                    self.application.sendEvent(widget, event)
                    self.assertFalse(event.isAccepted(), (type(widget).__name__, name))
        self.assertGreater(len(kinds), 5, kinds)

    def test_the_key_of_a_page_puts_the_focus_on_its_first_number(self):
        self.click(742, 790)
        for page, first in (("go pick", "Tolerance"), ("go edge", "Remove"), ("go adjust", "Hue")):
            self.window.menus.actions[page].trigger()
            number = self.application.focusWidget()
            self.assertIn(first, number.accessibleName(), page)
        QTest.keyClick(number, Qt.Key.Key_Up)
        self.settle()
        self.assertGreater(self.work.sieve.adjust.recolour.hue, 0)

    def test_export_opens_after_a_number_was_dragged_and_typed(self):
        self.click(742, 790)
        window = self.window
        window.pages.setCurrentWidget(window.adjust)
        hue = window.adjust.numbers["hue"]
        with mock.patch.object(window.exports, "show_export") as shown:
            QTest.mousePress(hue, Qt.MouseButton.LeftButton, pos=hue.rect().center())
            QTest.mouseMove(hue, hue.rect().center())
            QTest.mouseRelease(hue, Qt.MouseButton.LeftButton, pos=hue.rect().center())
            QTest.keyClick(self.application.focusWidget(), "e", Qt.KeyboardModifier.ControlModifier)
            self.assertEqual(shown.call_count, 1)
            hue.setFocus()
            QTest.keyClick(hue, "4")  # a digit opens the field
            field = self.application.focusWidget()
            self.assertIsInstance(field, QLineEdit)
            QTest.keyClick(field, "e", Qt.KeyboardModifier.ControlModifier)
            self.assertEqual(shown.call_count, 2)
        self.assertEqual(self.troubles, [])
