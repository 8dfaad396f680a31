"""Ctrl+K finds everything by name; one dialog of a kind is open at a time."""

from common import DEMO, WindowCase
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QDialog, QLineEdit, QMessageBox

from amber_sieve.desk.dialogs.finder import Finder, number_in
from amber_sieve.desk.dialogs.guide import Guide
from amber_sieve.desk.dialogs.history_dialog import HistoryDialog
from amber_sieve.desk.dialogs.small import PreferencesDialog

CTRL = Qt.KeyboardModifier.ControlModifier


class FinderTest(WindowCase):
    def setUp(self):
        super().setUp()
        self.open(DEMO / "yard.sieve")

    def finder(self) -> Finder:
        self.window.menus.actions["find"].trigger()
        return next(one for one in self.window.findChildren(Finder) if one.isVisible())

    def find(self, words: str) -> None:
        finder = self.finder()
        finder.search.setText(words)
        QTest.keyClick(finder.search, Qt.Key.Key_Return)
        self.settle()

    def test_a_number_is_found_and_set_with_its_value(self):
        self.find("hue 40")
        self.assertEqual(self.work.sieve.adjust.recolour.hue, 40)
        self.assertIs(self.window.pages.currentWidget(), self.window.adjust)
        self.assertIs(self.window.focusWidget(), self.window.adjust.numbers["hue"])
        self.find("feather 2,5")
        self.assertEqual(self.work.sieve.edge.feather, 2.5)
        self.find("strength -900")
        self.assertEqual(self.work.sieve.strength, 0)
        self.work.undo()
        self.assertEqual(self.work.sieve.edge.feather, 2.5)

    def test_a_number_without_a_value_is_gone_to(self):
        before = self.work.project
        self.find("exposure")
        self.assertIs(self.window.focusWidget(), self.window.adjust.numbers["exposure"])
        self.assertIs(self.work.project, before)

    def test_blocks_sieves_takes_presets_pictures_and_the_guide_are_found(self):
        workspace = self.workspace
        workspace.stack.add()
        sieves = self.work.project.stack
        self.find(f"sieve {sieves[0].name}".lower())
        self.assertEqual(self.work.sieve.id, sieves[0].id)
        self.find("adjust black and")
        self.assertTrue(self.window.adjust.blocks["mono"].open)
        workspace.stack.keep_take("Madder evening")
        workspace.stack.remove(sieves[0].id)
        self.find("madder eve")
        self.assertEqual(len(self.work.project.stack), len(sieves))
        workspace.presets.keep_sieve("Old terracotta", b"")
        self.find("old terra")
        self.assertEqual(len(self.work.project.stack), len(sieves) + 1)
        workspace.pictures.open_many([DEMO / "close.png"])
        self.settle()
        self.find("picture yard")
        self.assertIn("yard", self.work.display_name())
        self.find("guide glossary")
        self.assertTrue(any(guide.isVisible() for guide in self.window.findChildren(Guide)))

    def test_every_command_and_every_number_of_the_pages_is_listed_once(self):
        finder = self.finder()
        rows = [finder.list.item(row).text() for row in range(finder.list.count())]
        self.assertGreater(len(rows), 200)
        self.assertEqual(len(rows), len(set(rows)))
        finder.search.setText("nothing is called so")
        self.assertEqual(finder.list.count(), 0)
        QTest.keyClick(finder.search, Qt.Key.Key_Return)  # does nothing

    def test_words_that_are_numbers(self):
        for word, value in (("40", 40), ("-2,5", -2.5), ("1e3", 1000), ("h2", None), ("-", None)):
            self.assertEqual(number_in(word), value, word)


class DialogsTest(WindowCase):
    def setUp(self):
        super().setUp()
        self.open(DEMO / "yard.png")

    def tearDown(self):
        for dialog in self.window.findChildren(QDialog):
            dialog.close()
        super().tearDown()

    def test_a_command_twice_opens_one_dialog(self):
        for name in ("export", "batch", "preferences", "history", "guide", "keys", "find", "queue"):
            for _ in range(2):
                self.window.menus.actions[name].trigger()
            visible = [one for one in self.window.findChildren(QDialog) if one.isVisible()]
            self.assertEqual(len(visible), 1, name)
            visible[0].close()

    def test_a_dialog_holds_the_window_unless_it_stays_beside_the_work(self):
        self.window.menus.actions["preferences"].trigger()
        held = self.window.findChild(PreferencesDialog)
        self.assertTrue(held.isModal())
        self.assertIs(self.application.activeModalWidget(), held)
        self.window.tell_trouble("Something went wrong.")
        told = self.window.findChild(PreferencesDialog).findChild(QMessageBox)
        self.assertTrue(told.isVisible())  # a child of the dialog, so it can be answered
        told.close()

    def test_undo_works_with_the_history_open(self):
        self.click(742, 790)
        self.work.set_field("edge.feather", 3.0, "Feather")
        self.window.menus.actions["history"].trigger()
        history = self.window.findChild(HistoryDialog)
        self.assertFalse(history.isModal())
        history.activateWindow()
        history.list.setFocus()
        self.settle()
        QTest.keyClick(history.list, Qt.Key.Key_Z, CTRL)
        self.assertEqual(self.work.sieve.edge.feather, 0)
        self.assertEqual(history.list.currentRow(), self.work.history.at)

    def test_a_digit_leaves_no_field_open(self):
        self.click(742, 790)
        pages, hue = self.window.pages, self.window.adjust.numbers["hue"]
        leaves = {
            "escape": lambda field: QTest.keyClick(field, Qt.Key.Key_Escape),
            "the picture": lambda _: self.window.canvas.panes[0].setFocus(),
            "another page": lambda _: self.window.menus.actions["go edge"].trigger(),
            "a dialog": lambda _: self.window.menus.actions["preferences"].trigger(),
            "another number": lambda field: QTest.keyClick(field, Qt.Key.Key_Tab),
            "a button": lambda _: QTest.mouseClick(
                self.window.adjust.blocks["light"].back, Qt.MouseButton.LeftButton
            ),
        }
        for name, leave in leaves.items():
            pages.setCurrentWidget(self.window.adjust)
            self.window.activateWindow()
            self.settle()
            hue.setFocus()
            QTest.keyClick(hue, "7")
            field = self.application.focusWidget()
            self.assertIsInstance(field, QLineEdit, name)
            leave(field)
            self.settle()
            self.assertFalse(field.isVisible(), name)
            for dialog in self.window.findChildren(QDialog):
                dialog.close()
