"""The guide: each page is followed in the real window, and what it promises is compared; what it
names is there.
"""

import importlib.util
import re
import time
import unittest

import numpy as np
from common import DEMO, ROOT, WindowCase, beyond, overlap, truth
from PIL import Image
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QMenu

from amber_sieve.desk.dialogs.guide import Guide, title_of
from amber_sieve.desk.panels.stack_menu import fill_mask_menu
from amber_sieve.project.fields import numbers_of
from amber_sieve.project.model import Adjust, Area, Edge, Pick, Sample, Sieve
from amber_sieve.render.stages.every import left_out

GUIDE = ROOT / "docs" / "guide"
PAGES = sorted(GUIDE.glob("*.md"))
SHIFT = Qt.KeyboardModifier.ShiftModifier


class PagesTest(unittest.TestCase):
    def test_every_page_is_short_and_its_pictures_are_there(self):
        self.assertEqual(len(PAGES), 12)
        pictures = set()
        for page in PAGES:
            text = page.read_text(encoding="utf-8")
            if page.stem not in ("11-keys",):
                self.assertTrue(
                    300 <= len(text.split()) <= 700, f"{page.name}: {len(text.split())} words"
                )
            for link in re.findall(r"\]\(([^)]+)\)", text):
                self.assertTrue((GUIDE / link).exists(), f"{page.name}: {link}")
                pictures.add(link)
        self.assertLessEqual(len(pictures), 16)


class GuideTest(WindowCase):
    def test_what_the_guide_names_is_in_the_window(self):
        listed = {f"{menu} > {label}".rstrip("…") for menu, label, _ in self.window.menus.listed()}
        listed |= {
            f"{self.window.menus.menus[row].title().replace('&', '')}"
            for row in self.window.menus.menus
        }
        menus = {menu.title().replace("&", "") for menu in self.window.menus.menus.values()}
        for page in PAGES:
            for path in re.findall(
                r"\*((?:File|Edit|Stack|Clip|View|Go|Help) > [^*]+)\*",
                " ".join(page.read_text(encoding="utf-8").split()),
            ):
                last = path.rpartition(" > ")[2].rstrip("…")
                known = {entry.rpartition(" > ")[2] for entry in listed} | menus
                known |= {
                    "Panels",
                    "Save the stack as a take",
                    "Track the area",
                }  # filled when they open, or the head of a menu
                self.assertIn(last, known, f"{page.name}: {path}")

    def test_every_number_that_stands_in_bold_is_called_so(self):
        labels = {spec.label for model in (Sample, Pick, Edge, Sieve) for spec in numbers_of(model)}
        labels |= {
            spec.label
            for block in (field.annotation for field in Adjust.model_fields.values())
            for spec in numbers_of(block)
        }
        for name in (
            "Hue",
            "Exposure",
            "Saturation",
            "Amount",
            "Even hue",
            "Even lightness",
            "Grow",
            "Hair and fringe",
            "Highlights",
            "Vibrance",
        ):
            self.assertIn(name, labels)

    def test_the_page_of_keys_is_that_of_the_window(self):
        spec = importlib.util.spec_from_file_location(
            "screenshots", ROOT / "tools" / "screenshots.py"
        )
        tool = importlib.util.module_from_spec(spec)
        spec.loader.exec_module(tool)
        self.assertEqual(
            (GUIDE / "11-keys.md").read_text(encoding="utf-8"), tool.keys_page(self.window)
        )

    def test_it_is_read_in_the_window(self):
        self.window.menus.actions["guide"].trigger()
        guide = self.window.findChild(Guide)
        self.assertEqual(guide.pages.count(), len(PAGES))
        guide.pages.setCurrentRow(4)
        self.assertIn("fringe", guide.text.toPlainText())
        self.assertEqual(guide.pages.currentItem().text(), title_of(PAGES[4]))
        guide.close()

    def test_recolour_one_thing(self):
        self.open(DEMO / "yard.png")
        self.click(742, 790)
        before = self.viewing.last.pictures["result"].copy()
        self.assertGreater(
            overlap(
                np.repeat(np.repeat(self.viewing.last.mask, 2, 0), 2, 1), truth("yard", "turquoise")
            ),
            0.8,
        )
        self.window.pages.setCurrentWidget(self.window.adjust)
        self.assertTrue(self.window.adjust.blocks["recolour"].open)
        self.window.adjust.numbers["hue"].set(100)
        self.settle()
        changed = self.viewing.last.pictures["result"] != before
        mask = self.viewing.last.mask
        self.assertGreater(changed[mask > 0.9].mean(), 0.95)
        # Nothing else changes: beside the outline the colour that reaches further goes with it.
        self.assertEqual(changed[beyond(mask)].sum(), 0)
        self.window.canvas.bar.compare.click()  # a click switches, and one more switches back
        self.settle()
        self.assertEqual(self.window.canvas.panes[0].showing, "original")
        self.window.canvas.bar.compare.click()
        self.assertEqual(self.window.canvas.panes[0].showing, "result")

    def test_darken_a_sky_through_the_opposite_of_a_wall(self):
        self.open(DEMO / "yard.png")
        self.click(300, 450)
        self.click(1000, 620, SHIFT)
        self.window.pick.invert.click()
        self.settle()
        self.assertTrue(self.window.notices.inverted.isVisible())
        self.assertIn("left out", self.window.notices.inverted.words.text())
        self.workspace.areas.add(
            Area(kind="gradient", points=((900, 100), (900, 260)), mode="intersect")
        )
        self.work.set_field("adjust.light.exposure", -1.0, "Exposure")
        self.settle()
        mask, scale = self.viewing.last.mask, self.viewing.last.scale
        self.assertGreater(mask[: int(80 * scale), : int(600 * scale)].mean(), 0.9)  # the sky
        self.assertLess(mask[int(300 * scale) :].mean(), 0.01)
        self.window.notices.inverted.button.click()
        self.assertFalse(self.work.sieve.invert)
        self.assertFalse(self.window.notices.inverted.isVisible())

    def test_one_colour_in_a_grey_picture(self):
        self.open(DEMO / "yard.png")
        self.click(753, 225)
        first = self.work.sieve
        self.window.menus.actions["rest"].trigger()
        self.work.set_field("adjust.mono.mono", 100.0, "Amount")
        self.settle()
        pixels = self.viewing.last.pictures["result"]
        red, blue = (pixels >> 16) & 255, pixels & 255
        rest = self.viewing.last.mask == 1
        self.assertLessEqual(np.abs(red.astype(int) - blue.astype(int))[rest].max(), 1)
        self.assertGreater(rest.mean(), 0.8)
        # Ticked one after another, the menu stays open.
        self.work.select(first.id)
        self.workspace.stack.add()
        self.settle()
        menu = QMenu()
        fill_mask_menu(menu, self.workspace)
        part = next(action.menu() for action in menu.actions() if action.text() == "The rest of")
        boxes = [action.defaultWidget() for action in part.actions()]
        for box in boxes[:2]:
            box.click()
        self.assertEqual(len(self.work.sieve.of), 2)

    def test_what_a_sieve_is(self):
        self.open(DEMO / "yard.png")
        self.click(742, 790)
        kept = self.viewing.last.coverage.whole
        self.click(930, 840, SHIFT)
        self.assertGreaterEqual(self.viewing.last.coverage.whole, kept)
        self.click(300, 450, Qt.KeyboardModifier.ControlModifier)
        self.assertEqual(
            [sample.role for sample in self.work.sieve.pick.samples], ["keep", "keep", "drop"]
        )
        before = self.viewing.last.pictures["result"].copy()
        self.window.menus.actions["add sieve"].trigger()
        self.click(1235, 420)
        self.assertTrue(
            (self.viewing.last.pictures["result"] == before).all()
        )  # a new sieve changes nothing
        self.workspace.stack.keep_take("first look")
        self.assertEqual([take.name for take in self.work.project.takes], ["first look"])
        for view in ("veil", "isolate", "cut-out"):
            self.window.canvas.set_view(0, view)
            self.settle()
            self.assertIn(view, self.viewing.last.pictures)

    def test_another_sky_behind_a_fringe(self):
        self.open(DEMO / "yard.png")
        self.click(1235, 420)
        self.assertEqual(self.work.sieve.edge.follow, "auto")
        before = self.viewing.last.pictures["result"].copy()
        for name, value in (
            ("fill", "picture"),
            ("fill_where", "behind"),
            ("fill_picture", str(DEMO / "close.png")),
        ):
            self.work.set_field(f"adjust.fill.{name}", value, "Fill")
        self.settle()
        mask, changed = self.viewing.last.mask, self.viewing.last.pictures["result"] != before
        self.assertGreater(changed[mask == 0].mean(), 0.9)
        self.assertLess(changed[mask == 1].mean(), 0.01)
        self.window.edge.fringe_check.click()
        self.settle()
        self.assertIn("without the correction", self.window.edge.fringe.text())
        self.work.set_field("adjust.fill.fill", "nothing", "Fill")
        self.settle()
        self.workspace.exports.write(self.folder / "cut.png")
        self.settle()
        alpha = np.asarray(Image.open(self.folder / "cut.png").convert("RGBA"))[..., 3]
        self.assertEqual((int(alpha[420, 1235]), int(alpha[600, 300])), (255, 0))

    def test_calm_a_cloth(self):
        self.open(DEMO / "yard.png")
        self.click(1235, 420)
        inside = self.viewing.last.mask > 0.99
        spread = [
            self.viewing.last.pictures["result"][inside]
            .view(np.uint8)
            .reshape(-1, 4)[:, :3]
            .std(axis=0)
            .sum()
        ]
        self.work.set_field("adjust.even.even_lightness", 100.0, "Even lightness")
        self.settle()
        spread.append(
            self.viewing.last.pictures["result"][inside]
            .view(np.uint8)
            .reshape(-1, 4)[:, :3]
            .std(axis=0)
            .sum()
        )
        self.assertLess(spread[1], 0.6 * spread[0])
        first = self.work.sieve
        self.workspace.stack.add()
        other = self.work.sieve.id
        self.work.select(first.id)
        self.workspace.adjust.copy_block("even", other)
        self.assertEqual(self.work.project.sieve(other).adjust.even, first.adjust.even)

    def test_a_clip_through_a_cloud(self):
        self.open(DEMO / "clip.mp4")
        self.click(300, 250)
        watched = []
        self.workspace.clip.watched.connect(watched.append)
        self.workspace.clip.watch(True)
        end = time.monotonic() + 120
        while (
            not (watched and len(watched[-1].seen) == self.work.frames) and time.monotonic() < end
        ):
            self.application.processEvents()
            time.sleep(0.01)
        self.assertEqual(len(watched[-1].seen), self.work.frames)
        self.workspace.clip.watch(False)
        self.workspace.clip.key_samples()
        self.settle()
        self.workspace.clip.go_to(20)
        self.settle()
        self.workspace.clip.key_samples()
        self.settle()
        self.assertEqual(self.workspace.clip.keyframes, (0, 20))
        self.workspace.clip.next_key(-1)
        self.assertEqual(self.work.number, 0)
        self.workspace.clip.set_between(5, 30)
        self.assertEqual(self.work.between, (5, 30))

    def test_colour_management(self):
        self.open(DEMO / "yard.png")
        self.click(1235, 420)
        self.window.menus.actions["scopes"].trigger()
        self.settle()
        self.assertTrue(self.window.scopes.isVisible())
        self.window.menus.actions["scopes"].trigger()
        self.window.menus.actions["surround light"].trigger()
        self.assertEqual(self.workspace.preferences.values.surround, "light")
        self.window.menus.actions["surround dark"].trigger()
        self.work.set_field("adjust.detail.blur", 3.0, "Blur")
        self.assertIn("detail", left_out(self.work.project.stack[0]))  # what a table cannot carry

    def test_when_it_does_not_work(self):
        self.open(DEMO / "yard.png")
        self.assertTrue(
            self.window.canvas.panes[1].message or not self.work.sieve.pick.samples
        )  # an empty mask says what to do
        self.click(1000, 900)
        leaks = self.viewing.last.coverage.whole
        self.window.pick.connected.click()
        self.settle()
        self.assertLessEqual(self.viewing.last.coverage.whole, leaks)
        self.workspace.readout.point((1000.0, 900.0))
        self.settle()
        said = []
        self.workspace.readout.explained.connect(lambda *words: said.append(words))
        self.window.menus.actions["why"].trigger()
        self.settle()
        self.assertEqual(len(said), 1)
        self.window.pick.invert.click()
        self.settle()
        self.assertTrue(self.window.notices.inverted.isVisible())
        self.window.pick.invert.click()

    def test_the_tour_waits_for_each_step_and_can_be_left(self):
        self.assertEqual(self.window.front.currentIndex(), 1)  # nothing is open: ways to begin
        self.window.menus.actions["tour"].trigger()
        self.settle()
        tour, pick = self.window.help.tour, self.window.pick
        self.assertEqual((tour.step, self.window.front.currentIndex()), (0, 0))
        self.assertTrue(tour.notice.isVisible())
        self.click(742, 790)
        self.assertEqual(tour.step, 1)
        self.click(742, 900, SHIFT)
        self.assertEqual(tour.step, 2)
        pick.tolerance.setFocus()
        QTest.keyClick(pick.tolerance, Qt.Key.Key_Right)
        self.settle()
        self.assertEqual(tour.step, 3)
        self.assertIs(self.window.pages.currentWidget(), self.window.edge)
        self.window.edge.numbers["grow"].set(1.0)
        self.window.edge.numbers["grow"].settled.emit()
        self.settle()
        self.assertEqual(tour.step, 4)
        self.window.adjust.numbers["hue"].set(40.0)
        self.window.adjust.numbers["hue"].settled.emit()
        self.settle()
        self.assertEqual(tour.step, 5)
        self.workspace.exports.write(self.folder / "jar.png")
        self.settle()
        self.assertIn("Exported jar.png", tour.notice.words.text())
        tour.notice.button.click()
        self.assertIsNone(tour.step)
        self.assertFalse(tour.notice.isVisible())
        self.assertEqual(self.window.front.currentIndex(), 1)  # nothing is left behind
        self.open(DEMO / "yard.png")
        before = self.work.project
        self.window.menus.actions["tour"].trigger()
        self.settle()
        self.click(742, 790)
        self.assertEqual(tour.step, 1)
        tour.notice.button.click()
        self.assertIs(self.work.project, before)  # the work that was open stands as it did

    def test_a_picture_with_a_project_beside_it_says_so_and_starts_fresh(self):
        picture, project = self.folder / "a.png", self.folder / "a.sieve"
        picture.write_bytes((DEMO / "close.png").read_bytes())
        self.open(picture)
        self.click(610, 976)
        self.assertTrue(self.workspace.saving.save(project))
        self.assertIn(str(project), self.workspace.preferences.values.recent)
        self.workspace.pictures.close_all()
        self.workspace.pictures.open_many([picture])
        self.settle()
        self.assertEqual((self.work.path, len(self.work.sieve.pick.samples)), (project, 1))
        self.assertIn("a.sieve", self.window.notices.opened.words.text())
        self.window.notices.opened.button.click()
        self.assertEqual(self.work.sieve.pick.samples, ())
        self.work.undo()
        self.assertEqual(len(self.work.sieve.pick.samples), 1)
        # Another picture beside it is opened as ever.
        other = self.folder / "b.png"
        other.write_bytes((DEMO / "close.png").read_bytes())
        self.workspace.pictures.open_many([other])
        self.settle()
        self.assertEqual((self.work.path, self.window.notices.opened.isVisible()), (None, False))
        self.assertEqual(self.troubles, [])

    def test_answers_stand_beside_the_pointer(self):
        self.open(DEMO / "yard.png")
        answer = self.window.canvas.answer
        self.click(742, 790)
        self.assertTrue(answer.isVisible())
        self.work.undo()
        self.assertFalse(answer.isVisible())  # it goes with undo
        self.click(742, 790)
        place = self.window.canvas.viewport.to_pane(QPointF(742, 790))
        self.assertLess((QPointF(answer.pos()) - place).manhattanLength(), 60)
