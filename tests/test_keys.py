"""Keys of commands act wherever the focus is."""

from unittest import mock

from common import DEMO, WindowCase
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QKeyEvent, QKeySequence
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QFileDialog, QLineEdit, QTextEdit, QWidget

from amber_sieve.desk.dialogs.export_dialog import ExportDialog
from amber_sieve.desk.window.picture_keys import EDITING


class KeysTest(WindowCase):
    def setUp(self):
        super().setUp()
        self.open(DEMO / "yard.png")
        self.window.activateWindow()
        self.settle()

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
            QTest.keyClick(self.focused(), "e", Qt.KeyboardModifier.ControlModifier)
            self.assertEqual(shown.call_count, 1)
            hue.setFocus()
            QTest.keyClick(hue, "4")  # a digit opens the field
            field = self.application.focusWidget()
            self.assertIsInstance(field, QLineEdit)
            QTest.keyClick(field, "e", Qt.KeyboardModifier.ControlModifier)
            self.assertEqual(shown.call_count, 2)
        self.assertEqual(self.troubles, [])

    def test_tab_goes_through_the_page_before_the_time_bar(self):
        self.open(DEMO / "clip.mp4")
        self.window.pages.setCurrentWidget(self.window.pick)
        self.window.canvas.panes[0].setFocus()
        pages, timeline = [], []
        for step in range(60):
            QTest.keyClick(self.focused(), Qt.Key.Key_Tab)
            focus = self.application.focusWidget()
            if self.window.pick.isAncestorOf(focus):
                pages.append(step)
            elif self.window.timeline.isAncestorOf(focus):
                timeline.append(step)
        self.assertTrue(pages and timeline)
        self.assertLess(max(pages[:5]), timeline[0])

    def test_x_gives_arrows_and_enter_to_the_picture_from_anywhere(self):
        self.window.pages.setCurrentWidget(self.window.adjust)
        self.window.adjust.numbers["hue"].setFocus()
        self.press("X")
        self.assertIn(self.application.focusWidget(), self.window.canvas.panes)
        at = self.window.canvas.key_cursor.at.x()
        self.press(Qt.Key.Key_Right)
        self.assertGreater(self.window.canvas.key_cursor.at.x(), at)
        self.press("X")

    def focused(self) -> QWidget:
        """The widget that has the focus, once a window is active: no window manager sees to that
        here.
        """
        if self.application.focusWidget() is None:
            window = self.application.activeModalWidget() or self.window
            window.activateWindow()
            self.settle()
            (window.focusWidget() or window).setFocus()
        focus = self.application.focusWidget()
        self.assertIsNotNone(focus)
        return focus

    def press(self, key, *, ctrl: bool = False, shift: bool = False, times: int = 1) -> None:
        """Press a key on what has the focus."""
        held = Qt.KeyboardModifier.NoModifier
        held |= Qt.KeyboardModifier.ControlModifier if ctrl else held
        held |= Qt.KeyboardModifier.ShiftModifier if shift else held
        for _ in range(times):
            QTest.keyClick(self.focused(), key, held)
        self.settle()

    def write(self, words: str) -> None:
        """Type words into the field that has the focus, and end with Enter."""
        QTest.keyClicks(self.focused(), words)
        self.press(Qt.Key.Key_Return)

    def test_five_minutes_of_work_by_keyboard_alone(self):
        names = ([str(DEMO / "clip.mp4")], "")
        with mock.patch.object(QFileDialog, "getOpenFileNames", return_value=names):
            self.press("O", ctrl=True)
        self.assertEqual(self.work.frames, 80)
        self.press("X")
        self.press(Qt.Key.Key_Right, times=10)
        self.press(Qt.Key.Key_Up, times=12)
        self.press(Qt.Key.Key_Return)
        self.assertEqual(len(self.work.sieve.pick.samples), 1)
        self.press(Qt.Key.Key_Escape)
        tolerance = self.work.sieve.pick.samples[0].tolerance
        self.press(Qt.Key.Key_F2)
        self.press(Qt.Key.Key_Up, times=3)
        self.assertGreater(self.work.sieve.pick.samples[0].tolerance, tolerance)
        first = self.work.sieve.id
        self.press("N", ctrl=True, shift=True)
        self.assertNotEqual(self.work.sieve.id, first)
        self.press("K", ctrl=True)
        self.write("sieve 1")
        self.assertEqual(self.work.sieve.id, first)
        self.press("K", ctrl=True)
        self.write("hue 40")
        self.assertEqual(self.work.sieve.adjust.recolour.hue, 40)
        self.press(Qt.Key.Key_Up)
        self.assertEqual(self.work.sieve.adjust.recolour.hue, 41)
        self.press(Qt.Key.Key_Period)
        self.assertEqual(self.work.number, 1)
        self.press("E", ctrl=True)
        dialog = self.window.findChild(ExportDialog)
        self.assertTrue(dialog.isVisible())
        dialog.frames.setFocus()
        self.press(Qt.Key.Key_Home)  # this frame
        dialog.place.setFocus()
        folder = str(self.folder)
        with mock.patch.object(QFileDialog, "getExistingDirectory", return_value=folder):
            self.press(Qt.Key.Key_Space)
        self.press("E", ctrl=True)
        self.assertEqual(self.troubles, [])
        self.assertTrue(list(self.folder.iterdir()), "nothing was exported")
