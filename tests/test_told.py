"""Numbers and answers tell the truth: coverage, history, the graph of a clip, exports."""

import pathlib
from unittest import mock

import numpy as np
from common import DEMO, WindowCase
from PIL import Image
from PyQt6.QtGui import QDesktopServices
from PyQt6.QtWidgets import QMenu

from amber_sieve.desk.clip.time_bar import COVERAGE, DRIFT, FLICKER
from amber_sieve.desk.dialogs.history_dialog import HistoryDialog
from amber_sieve.desk.dialogs.small import PreferencesDialog
from amber_sieve.desk.translations import LANGUAGES
from amber_sieve.desk.widgets.block import Block
from amber_sieve.project.changes import changed_numbers
from amber_sieve.project.model import Adjust, Light, Project, Sieve
from amber_sieve.render.stages.every import EDGE


class ChangesTest(WindowCase):
    def test_numbers_are_said_from_what_to_what(self):
        one = Project(stack=(Sieve(id="a"), Sieve(id="b")))
        light = Adjust(light=Light(exposure=1.5))
        two = Project(stack=(Sieve(id="a", strength=40.0, adjust=light), Sieve(id="c")))
        self.assertEqual(
            changed_numbers(one, two), ["Strength 100 → 40 %", "Exposure 0.00 → 1.50 stops"]
        )
        self.assertEqual(changed_numbers(one, one), [])


class ToldTest(WindowCase):
    def setUp(self):
        super().setUp()
        self.open(DEMO / "yard.png")

    def test_coverage_is_of_the_whole_picture_at_any_zoom(self):
        codes = np.full((3000, 4500, 3), 150, np.uint8)
        codes[:, 3000:] = (40, 60, 190)
        Image.fromarray(codes).save(self.folder / "large.png")
        self.open(self.folder / "large.png")
        self.click(4000, 1500)
        self.assertAlmostEqual(self.viewing.last.covered, 1 / 3, delta=0.002)
        said = self.window.pick.coverage.text()
        self.assertIn("33.3 %", said)
        self.window.canvas.viewport.zoom_to(4.0)
        self.settle()
        self.assertTrue(any(self.viewing.last.wanted.shown.box))
        self.assertLess(self.viewing.last.coverage.whole, 0.1)
        self.assertEqual(self.window.pick.coverage.text(), said)
        self.work.set_field("edge.grow", 60.0, "Grow")  # another mask, first seen from near
        self.settle()
        near = share_in(self.window.pick.coverage.text())
        self.assertAlmostEqual(near, 100 * (1500 + 60) / 4500, delta=0.5)
        self.window.stack.follow()  # it waits a moment by itself
        self.assertIn(f"{near:.1f} %", self.window.stack.list.item(0).text())

    def test_history_says_what_changed_when_with_a_picture(self):
        self.click(1398, 882)
        self.work.set_field("adjust.recolour.hue", 40.0, "Hue")
        self.settle()
        self.assertEqual(self.window.menus.actions["history"].shortcut().toString(), "Ctrl+H")
        self.assertIn(
            self.window.menus.actions["history"], self.window.menus.menus["edit"].actions()
        )
        self.window.menus.actions["history"].trigger()
        history = next(one for one in self.window.findChildren(HistoryDialog) if one.isVisible())
        last = history.list.item(history.list.count() - 1)
        numbers, time = last.text().split("\n")
        self.assertEqual(numbers, "Hue 0.0 → 40.0 °")
        self.assertRegex(time, r"\d\d:\d\d")
        self.assertFalse(last.icon().isNull())
        self.work.set_field("adjust.recolour.hue", 60.0, "Hue")
        self.settle()
        self.assertEqual(history.list.count(), len(self.work.history.steps))
        self.assertIn("40.0 → 60.0", history.list.item(history.list.count() - 1).text())
        self.work.undo()
        self.work.undo()
        self.work.set_field("edge.feather", 3.0, "Feather")
        self.settle()
        self.assertIn("Feather 0.0 → 3.0 px", history.list.item(history.list.count() - 1).text())
        self.assertEqual(history.list.currentRow(), history.list.count() - 1)
        history.close()

    def test_an_export_says_where_it_is_and_stands_among_the_recent_ones(self):
        path = self.folder / "jar & bowl.png"
        self.workspace.exports.write(path)
        self.settle()
        self.assertIn("jar &amp; bowl.png", self.window.status.message.text())
        with mock.patch.object(QDesktopServices, "openUrl", return_value=True) as opened:
            self.window.status.message.linkActivated.emit(str(path))
            self.window.status.message.linkActivated.emit(str(self.folder))
            menu = QMenu()
            self.window.exports.fill_recent(menu)
            entry = menu.actions()[0]
            self.assertEqual(entry.text(), path.name)
            for action in entry.menu().actions():
                action.trigger()
        there = [pathlib.Path(call.args[0].toLocalFile()) for call in opened.call_args_list]
        self.assertEqual(there, [path, self.folder, path, self.folder])
        with mock.patch.object(QDesktopServices, "openUrl", return_value=False):
            self.window.exports.open_outside(path)
        self.assertIn("No program opens jar & bowl.png", self.troubles.pop())


class PagesTest(WindowCase):
    def test_the_edge_shows_its_steps_in_the_order_in_which_they_act(self):
        groups = [one for one in self.window.edge.findChildren(Block) if one.title[0].isdigit()]
        self.assertEqual([int(one.title.split()[0]) for one in groups], list(range(1, 8)))
        order = [stage.automatic or stage.name for stage in EDGE]
        shown = ["clean", "follow", "feather"]
        self.assertEqual(shown, sorted(shown, key=lambda name: order.index(name)))
        numbers = [
            self.window.edge.numbers[name] for name in ("clean", "specks", "grow", "feather")
        ]
        for one in groups:
            one.set_open(True)
        self.window.pages.setCurrentWidget(self.window.edge)
        self.settle()
        tops = [one.mapTo(self.window.edge.widget(), one.rect().topLeft()).y() for one in numbers]
        self.assertEqual(tops, sorted(tops))

    def test_a_number_is_copied_to_all_sieves(self):
        self.open(DEMO / "yard.sieve")
        self.workspace.stack.add()
        self.work.set_field("edge.feather", 4.0, "Feather")
        self.window.edge.copy_to_all("edge.feather", "Feather")
        self.assertEqual({sieve.edge.feather for sieve in self.work.project.stack}, {4.0})
        self.work.undo()
        self.assertEqual(len({sieve.edge.feather for sieve in self.work.project.stack}), 2)


class LanguageTest(WindowCase):
    def test_another_language_offers_a_restart(self):
        self.window.menus.actions["preferences"].trigger()
        dialog = self.window.findChild(PreferencesDialog)
        self.addCleanup(dialog.close)
        self.assertFalse(dialog.restart.isVisible())
        index = list(LANGUAGES).index("de") + 1
        dialog.language.setCurrentIndex(index)
        dialog.language.activated.emit(index)
        self.addCleanup(self.workspace.preferences.change, language="")
        self.assertTrue(dialog.restart.isVisible())
        with mock.patch.object(self.window, "close", return_value=True) as closed:
            dialog.restart.click()
        self.assertTrue(closed.called and self.window.starts_again)
        self.window.starts_again = False


class GraphTest(WindowCase):
    def test_the_lines_of_the_graph_have_names_in_their_colours(self):
        self.open(DEMO / "clip.mp4")
        self.click(600, 100)
        self.window.timeline.watch.click()
        self.settle()
        bar = self.window.timeline.bar
        self.assertIsNotNone(bar.course)
        pixels = bar.grab().toImage()
        top = {pixels.pixelColor(x, y).name() for x in range(260) for y in range(14)}
        for colour in (COVERAGE, FLICKER, DRIFT):
            self.assertIn(colour.name(), top)


def share_in(words: str) -> float:
    """The number in a sentence."""
    return float(np.array([one for one in words.split() if one[0].isdigit()])[0])
