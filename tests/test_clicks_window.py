"""Clicks in the window: what they change is shown, reach and rule can be changed, numbers find
themselves, an outline gives samples.
"""

import json
import pathlib
import re
import time
from unittest import mock

import numpy as np
from common import DEMO, ROOT, WindowCase, overlap, truth
from PyQt6.QtCore import QPointF, QRect, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QToolTip

from amber_sieve.desk.window.window import PAGE
from amber_sieve.errors import Trouble
from amber_sieve.live.difference import difference_of
from amber_sieve.live.outlining import outlined, thing_inside
from amber_sieve.live.sieve_context import SieveContext
from amber_sieve.progress import Cancelled, Progress
from amber_sieve.project import edits, presets, storage
from amber_sieve.project.model import Area, Edge, Sieve
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext

SHIFT, CTRL = Qt.KeyboardModifier.ShiftModifier, Qt.KeyboardModifier.ControlModifier


class ClicksTest(WindowCase):
    own_window = True

    def setUp(self):
        super().setUp()
        self.window.resize(1280, 800)
        self.open(DEMO / "yard.png")
        self.page, self.canvas = self.window.pick, self.window.canvas

    def samples(self):
        return self.work.sieve.pick.samples

    def test_added_and_removed_are_shown_and_said(self):
        flashed = []
        self.viewing.changed_mask.connect(flashed.append)
        self.click(1398, 882)
        self.click(735, 830, SHIFT)
        added = flashed[-1].change
        self.assertGreater(added.max(), 0.9)
        self.assertRegex(self.canvas.answer.label.text(), r"^Added \d+\.\d %")
        self.assertTrue(self.canvas.answer.isVisible())
        self.assertIsNotNone(self.canvas.panes[0]._flash)
        self.assertTrue(self.canvas.panes[0].grab().toImage().width())
        self.canvas._flash(None)
        self.assertIsNone(self.canvas.panes[0]._flash)
        self.click(1690, 1042, CTRL)  # on the pot, not on its rim
        self.assertLess(flashed[-1].change.min(), -0.9)
        self.click(735, 830, CTRL)  # where a keep sample lies: the last word holds its place
        self.assertRegex(self.canvas.answer.label.text(), r"^Removed \d+\.\d %, this piece only")
        self.work.undo()
        self.settle()
        self.click(300, 100, CTRL)
        self.assertIn("Nothing removed", self.canvas.answer.label.text())
        # the sample that changed nothing is taken out with one press
        self.canvas.answer.button.click()
        self.assertEqual([sample.role for sample in self.samples()], ["keep", "keep", "drop"])
        self.assertEqual(self.troubles, [])

    def test_a_click_is_seen_in_a_hurry_and_then_finely_but_not_where_it_was_looked_at_first(self):
        seen, flashed = [], []
        self.viewing.rendered.connect(
            lambda result: seen.append(
                (result.wanted.hurried, len(result.wanted.project.stack[0].pick.samples))
            )
        )
        self.viewing.changed_mask.connect(flashed.append)
        self.click(1230, 400)
        self.assertEqual(list(dict.fromkeys(seen)), [(True, 1), (False, 1)])
        self.assertEqual(len(flashed), 1, "what has changed is told of the fine one")
        fine = self.viewing.last.mask.copy()
        self.hover(735, 830)  # nobody looks ahead: nothing is seen of it
        self.workspace.ahead.switch(True)
        self.hover(1398, 882)
        seen.clear()
        self.click(1398, 882)
        self.assertEqual({hurried for hurried, _ in seen}, {False})
        self.work.undo()
        self.settle()
        np.testing.assert_array_equal(self.viewing.last.mask, fine)
        self.assertEqual(self.troubles, [])

    def hover(self, x: float, y: float) -> None:
        """Let the pointer rest at a place of the picture until what a click there would give is
        shown.
        """
        viewport = self.canvas.viewport
        self.canvas._hover(
            viewport.to_picture(QPointF(viewport.to_pane(QPointF(x + 0.5, y + 0.5)).toPoint()))
        )
        deadline = time.monotonic() + 20
        while self.workspace.ahead._task.waits and time.monotonic() < deadline:
            self.application.processEvents()
        self.settle()

    def test_off_the_page_pick_a_plain_click_chooses_a_sieve_and_no_pick_is_lost(self):
        self.click(1398, 882)
        self.click(1420, 905, SHIFT)
        jar, samples = self.work.sieve.id, self.samples()
        self.workspace.stack.add()
        self.click(300, 100)  # an empty sieve is picked for on any page
        wall = self.work.sieve.id
        for page in (self.window.adjust, self.window.edge, self.window.bands):
            self.window.pages.setCurrentWidget(page)
            self.work.select(wall)
            project = self.work.project
            self.click(1398, 882)
            self.assertIs(self.work.project, project)
            self.assertEqual(self.work.sieve.id, jar)
            self.assertIn(self.work.sieve.name, self.canvas.answer.label.text())
            self.click(1398, 882)
            self.assertIs(self.work.project, project)
            self.assertIn("Nothing changed", self.canvas.answer.label.text())
            answer, pane = self.canvas.answer, self.canvas.answer.parentWidget()
            self.assertLessEqual(answer.geometry().right(), pane.width())
            self.assertGreaterEqual(
                answer.label.height(), answer.label.heightForWidth(answer.label.width())
            )
            self.canvas.gestures.keys()[Qt.Key.Key_Return]()
            self.settle()
            self.assertIs(self.work.project, project)
        self.click(735, 830, SHIFT)
        self.assertEqual(len(self.samples()), 3)
        self.assertEqual(self.samples()[:2], samples)
        self.assertEqual(self.troubles, [])

    def test_a_new_pick_that_throws_samples_away_says_so_and_offers_undo(self):
        for x, y, held in ((1398, 882, SHIFT), (1420, 905, SHIFT), (735, 830, SHIFT)):
            self.click(x, y, held)
        samples = self.samples()
        self.assertEqual(len(samples), 3)
        self.click(300, 100)
        self.assertEqual(len(self.samples()), 1)
        self.assertIn("3 samples were replaced", self.canvas.answer.label.text())
        self.canvas.answer.button.click()
        self.settle()
        self.assertEqual(self.samples(), samples)

    def test_what_a_click_would_give_is_shown_before_it_is_made_and_taken_as_shown(self):
        before = self.work.project
        self.hover(1230, 400)
        self.assertEqual(self.viewing.last.mask.max(), 0)  # nobody looks ahead
        QTest.keyPress(self.canvas.panes[0], Qt.Key.Key_Q)
        self.hover(1230, 400)
        shown = self.viewing.last.mask
        self.assertGreater(shown.mean(), 0.05)
        self.assertIn("A click here would be a new pick: tolerance", self.canvas.readout.text())
        self.assertIs(self.work.project, before)  # nothing has been done
        self.canvas._hover(QPointF(1240, 410))  # moving on drops it
        self.assertNotIn("A click here", self.canvas.readout.text())
        self.assertIs(self.viewing.wanted().project, before)
        self.hover(1230, 400)
        taken = self.workspace.ahead._shown.came.sample
        self.click(1230, 400)
        self.assertEqual(self.samples(), (taken,))
        np.testing.assert_array_equal(self.viewing.last.mask, shown)
        # Of another sieve nothing that was shown is taken.
        self.hover(735, 830)
        first = self.work.sieve.id
        self.workspace.stack.add()
        self.settle()
        self.assertNotIn("A click here", self.canvas.readout.text())
        self.workspace.work.document.select(first)
        self.settle()
        self.hover(735, 830)
        self.workspace.work.document.select(self.work.project.stack[1].id)
        self.settle()
        self.assertNotIn("A click here", self.canvas.readout.text())
        self.work.undo()
        self.settle()
        # With the key up a click is a click; nothing is shown before it any more.
        QTest.keyRelease(self.canvas.panes[0], Qt.Key.Key_Q)
        self.hover(735, 830)
        np.testing.assert_array_equal(self.viewing.last.mask, shown)
        # A project that changes meanwhile is what is shown; leaving the picture drops it too.
        self.workspace.ahead.switch(True)
        self.hover(735, 830)
        self.assertFalse(np.array_equal(self.viewing.last.mask, shown))
        self.work.undo()
        self.settle()
        self.assertEqual(self.viewing.last.mask.max(), 0)
        self.hover(735, 830)
        self.canvas._hover(None)
        self.settle()
        self.assertEqual((self.viewing.last.mask.max(), self.troubles), (0, []))

    def test_an_empty_pick_keeps_whatever_the_mode_and_modes_stay_with_their_picture(self):
        self.page.modes["drop"].click()
        self.click(1230, 400)
        self.assertEqual([sample.role for sample in self.samples()], ["keep"])
        self.click(735, 830)
        self.assertEqual([sample.role for sample in self.samples()], ["keep", "drop"])
        self.open(DEMO / "close.png")
        self.assertEqual((self.page.modes[""].isChecked(), self.workspace.tools.role), (True, ""))
        self.click(600, 700, CTRL)
        self.assertEqual([sample.role for sample in self.samples()], ["keep"])

    def test_the_next_click_is_offered_where_the_mask_is_least_sure(self):
        offers = []
        self.workspace.offers.offered.connect(offers.append)
        self.click(735, 830)
        self.assertEqual(offers, [])
        self.workspace.preferences.change(offers=True)
        self.click(735, 840)

        def answered() -> None:
            self.wait(lambda: self.workspace.offers.idle)

        self.assertFalse(self.workspace.offers.idle)
        self.assertTrue(
            self.workspace.workers.offers.idle
        )  # a hand that goes on at once finds nothing in its way
        answered()
        x, y = offers[-1]
        self.assertTrue(0 <= x < 1800 and 0 <= y < 1200)
        pane = self.canvas.panes[0]
        at = self.canvas.viewport.to_pane(QPointF(x, y)).toPoint()
        pane._inside = True  # the pointer is over it
        ring = pane.grab(QRect(at.x() - 11, at.y() - 11, 22, 22)).toImage()
        self.workspace.preferences.change(offers=False)
        self.assertIsNone(offers[-1])
        plain = pane.grab(QRect(at.x() - 11, at.y() - 11, 22, 22)).toImage()
        self.assertNotEqual(ring, plain)
        # With a box round the place only what lies there can be offered.
        self.workspace.preferences.change(offers=True)
        self.work.edit_sieve(
            lambda s: s.but(
                areas=(
                    Area(
                        kind="rect", mode="intersect", points=((735, 840), (800, 840), (735, 900))
                    ),
                )
            ),
            "Area",
        )
        self.settle()
        answered()
        self.assertTrue(
            offers[-1] is None or (670 < offers[-1][0] < 800 and 780 < offers[-1][1] < 900),
            offers[-1],
        )
        self.assertEqual(self.troubles, [])

    def test_surfaces_are_offered_shown_and_picked(self):
        narrowest = self.window.minimumSizeHint().width()
        self.workspace.preferences.change(surfaces=True)
        self.open(DEMO / "yard.png")
        row = self.window.pick.surfaces
        deadline = time.monotonic() + 60
        while not row.chips and time.monotonic() < deadline:
            self.application.processEvents()
        self.assertEqual(len(row.chips), 10)
        before = self.work.project
        row.chips[1].enterEvent(None)
        self.settle()
        shown = self.viewing.last.mask
        self.assertGreater(shown.max(), 0.9)
        self.assertIs(self.work.project, before)
        row.chips[1].leaveEvent(None)
        self.settle()
        self.assertEqual(self.viewing.last.mask.max(), 0)
        row.chips[1].enterEvent(None)
        self.settle()
        row.chips[1].click()
        self.settle()
        np.testing.assert_array_equal(self.viewing.last.mask, shown)
        self.assertEqual((len(self.work.project.stack), len(self.samples())), (1, 1))
        QTest.mouseClick(row.chips[4], Qt.MouseButton.LeftButton, CTRL)
        self.settle()
        self.assertEqual((len(self.work.project.stack), len(self.samples())), (2, 1))
        # The chips have room on the narrowest page, and never make the window wider.
        self.assertEqual(self.window.minimumSizeHint().width(), narrowest)
        self.assertTrue(
            all(chip.isVisible() and chip.geometry().right() < PAGE for chip in row.chips)
        )
        row.fold.arrow.click()  # folded, they are not looked for in the next picture
        self.assertFalse(row.chips[0].isVisible())
        self.open(DEMO / "close.png")
        self.settle()
        self.assertEqual(
            (row.chips, self.workspace.workers.surfaces.idle, self.troubles), ([], True, [])
        )

    def test_what_nobody_waits_for_rests_while_something_is_dragged(self):
        workers, asked = self.workspace.workers, []
        self.click(1230, 400)
        for name in ("surfaces", "offers"):
            one = getattr(workers, name)
            ask = mock.patch.object(
                one,
                "ask",
                side_effect=lambda work, about=None, name=name, ask=one.ask: (
                    asked.append(name),
                    ask(work, about),
                ),
            )
            self.enterContext(ask)
        self.workspace.preferences.change(
            surfaces=True, offers=True
        )  # surfaces begin to be looked for at once
        self.assertEqual(asked, ["surfaces"])
        quiet = self.workspace.surfaces._quiet
        calm = quiet.interval()
        quiet.setInterval(
            1
        )  # as if the hand rested long on each step, but not so long that the picture is made fine
        self.enterContext(mock.patch("amber_sieve.workspace.viewing.viewing.REST", 60_000))
        for tolerance in (21, 22, 23, 24):  # none is what was found
            self.workspace.samples.edit({"tolerance": tolerance}, "Tolerance", "tolerance")
            self.assertTrue(self.work.dragging)
            self.wait(lambda: self.viewing.last.wanted.project == self.work.project)
            self.application.processEvents()
        self.assertEqual(asked, ["surfaces"])
        self.wait(lambda: workers.surfaces.idle)  # it was stopped: nothing has been found
        self.assertEqual(self.window.pick.surfaces.chips, [])
        QTest.qWait(20)
        self.assertEqual(asked, ["surfaces"])
        quiet.setInterval(calm)
        self.work.end_drag()
        self.assertTrue(quiet.isActive())  # the next drag may begin right away
        self.assertGreater(quiet.remainingTime(), calm / 2)
        self.settle()
        self.wait(lambda: len(self.window.pick.surfaces.chips) == 10, 60)
        self.wait(lambda: self.workspace.offers.idle)
        self.assertEqual(sorted(set(asked)), ["offers", "surfaces"])
        self.assertEqual(self.troubles, [])

    def test_why_a_pixel_is_in_is_said_beside_the_pointer(self):
        told = []
        self.workspace.readout.explained.connect(told.append)
        self.click(1230, 400)
        self.canvas._hover(QPointF(1230, 400))
        QTest.keyClick(self.canvas.panes[0], Qt.Key.Key_Y)
        self.settle()
        self.assertIn("is wholly in", told[0][0])
        self.assertIn("The keep sample that decides is keep 1", told[0][1])
        self.assertIn("keep 1", QToolTip.text())
        self.canvas._hover(QPointF(300, 300))
        QTest.keyClick(self.canvas.panes[0], Qt.Key.Key_Y)
        self.settle()
        self.assertIn("is out", told[1][0])
        # The tolerance that it names takes the pixel in.
        needed = float(re.search(r"A tolerance of ([\d.]+) would", " ".join(told[1]))[1]) + 0.06
        self.workspace.samples.edit({"tolerance": needed}, "Tolerance")
        self.settle()
        self.canvas._hover(QPointF(300, 300))
        self.workspace.readout.explain()
        self.settle()
        self.assertIn("so it keeps this pixel", told[2][1])

    def test_masks_of_different_places_are_not_compared(self):
        self.click(1398, 882)
        before = self.viewing.last
        self.canvas.viewport.zoom_to(2.0)
        self.settle()
        self.assertIsNone(difference_of(before, self.viewing.last))
        self.assertIsNotNone(difference_of(before, before))

    def test_reach_by_key_button_and_list(self):
        self.click(1398, 882)
        self.click(1270, 966, SHIFT)
        reach = self.samples()[1].reach
        QTest.keyClick(self.canvas.panes[0], Qt.Key.Key_R)
        self.settle()
        self.assertNotEqual(self.samples()[1].reach, reach)
        self.page.here.click()
        self.settle()
        self.assertEqual(self.samples()[1].reach, reach)
        self.page.samples.item(0).setSelected(True)
        self.page.here.click()
        self.settle()
        self.assertEqual(self.samples()[0].reach, "here")
        self.assertIn("here", self.page.samples.item(0).text())
        self.work.undo()
        self.assertEqual(self.samples()[0].reach, "everywhere")
        self.assertIn(
            ("Edit", "Reach of the sample: here or everywhere"),
            [row[:2] for row in self.window.menus.listed()],
        )

    def test_the_drop_rule_can_be_chosen(self):
        self.click(1398, 882)
        self.assertFalse(self.page.rule.isEnabled())
        self.click(750, 1180, CTRL)
        self.assertTrue(self.page.rule.isEnabled())
        self.assertEqual(self.samples()[1].rule, "nearer")
        self.page.samples.item(1).setSelected(True)
        self.page.rule.activated.emit(1)
        self.assertEqual((self.samples()[0].rule, self.samples()[1].rule), ("nearer", "tolerance"))
        self.page.compare.activated.emit(1)
        self.page.compare.activated.emit(3)
        self.assertEqual((self.samples()[1].compare, self.samples()[1].rule), ("hue", "tolerance"))

    def test_a_drag_outwards_sets_the_tolerance_of_the_new_sample(self):
        pane, at = (
            self.canvas.panes[0],
            self.canvas.viewport.to_pane(QPointF(1398.5, 882.5)).toPoint(),
        )
        QTest.mousePress(pane, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, at)
        QTest.mouseMove(pane, at + QPointF(60, 0).toPoint())
        QTest.mouseRelease(
            pane,
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
            at + QPointF(60, 0).toPoint(),
        )
        self.settle()
        self.assertAlmostEqual(self.samples()[0].tolerance, 7.2, delta=0.3)

    def test_numbers_that_find_themselves(self):
        self.window.pages.setCurrentWidget(self.window.edge)
        self.click(1398, 882)
        specks, follow = self.window.edge.numbers["specks"], self.window.edge.numbers["follow"]
        self.assertEqual(
            (specks.auto, specks.shown(), follow.shown()), (True, "auto  648 px", "auto")
        )
        QTest.keyClick(specks, Qt.Key.Key_Right)
        self.assertEqual(self.work.sieve.edge.specks, 653)
        self.assertFalse(specks.auto)
        QTest.keyClick(specks, Qt.Key.Key_A)
        self.assertEqual(self.work.sieve.edge.specks, "auto")
        follow.set(12)
        self.assertEqual(self.work.sieve.edge.follow, 12)
        follow.reset()
        self.assertEqual(self.work.sieve.edge.follow, "auto")
        follow.set(0)
        self.settle()
        self.assertFalse(self.window.edge.numbers["sensitivity"].isEnabled())

    def test_the_dividing_line_is_drawn_on_the_field(self):
        self.click(735, 830)
        self.assertIsNone(self.window.field._line)
        self.workspace.samples.take(1100, 1150, "drop")
        self.settle()
        self.workspace.samples.edit({"reach": "everywhere"}, "Reach", ids=(self.samples()[-1].id,))
        self.settle()
        self.assertGreater(np.count_nonzero(self.window.field._line), 40)
        self.assertTrue(self.window.field.grab().toImage().width())

    def test_a_place_that_is_lost_is_said(self):
        said = []
        self.workspace.speech.said.connect(said.append)
        self.open(DEMO / "clip.mp4")
        self.click(290, 450)
        self.workspace.samples.edit({"reach": "here"}, "Reach")
        self.workspace.clip.go_to(60)
        self.settle()
        self.assertEqual(self.viewing.last.lost, ())
        self.workspace.samples.edit(
            {"x": 955.0, "y": 535.0, "frame": 79}, "A place that is not in the picture yet"
        )
        self.settle()
        if self.viewing.last.lost:
            self.assertTrue(any("Place lost" in words for words in said))
        self.assertEqual(self.troubles, [])


class OutlineTest(WindowCase):
    OUTLINE = ((560.0, 100.0), (660.0, 480.0), (800.0, 500.0), (860.0, 880.0), (600.0, 890.0))

    def setUp(self):
        super().setUp()
        self.window.resize(1280, 800)
        self.open(DEMO / "yard.png")

    def seen(self):
        return SieveContext(
            self.work.opened, self.work.project, self.work.sieve.id, 0, RenderContext(Cache(10**8))
        )

    def test_drawn_round_the_jar_it_gives_samples_that_can_be_changed(self):
        self.window.pick.places["outline"].click()
        view, pane = self.window.canvas.viewport, self.window.canvas.panes[0]
        points = [
            view.to_pane(QPointF(x, y)).toPoint()
            for x, y in ((620, 660), (850, 660), (850, 970), (620, 970), (615, 670))
        ]
        QTest.mousePress(pane, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, points[0])
        for point in points[1:]:
            QTest.mouseMove(pane, point)
        QTest.mouseRelease(
            pane, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, points[-1]
        )
        self.settle()
        pick = self.work.sieve.pick
        self.assertGreaterEqual(len(pick.samples), 1)
        self.assertGreaterEqual(len(pick.outline), 4)
        mask = self.viewing.last.mask
        import cv2

        true = cv2.resize(
            truth("yard", "turquoise"), mask.shape[::-1], interpolation=cv2.INTER_AREA
        )
        print(
            f"\nloose outline round the jar: {len(pick.samples)} samples, intersection over union "
            f"{overlap(mask, true):.3f}"
        )
        self.assertGreaterEqual(overlap(mask, true), 0.85)
        pane._inside = True
        self.assertTrue(pane.grab().toImage().width())  # with the outline on it
        self.work.edit_sieve(edits.without_any_sample, "Clear samples")
        self.assertEqual(self.work.sieve.pick.outline, ())
        self.work.undo()
        self.work.undo()
        self.assertEqual(self.work.sieve.pick.samples, ())
        self.assertEqual(self.troubles, [])

    def test_an_outline_round_nothing_says_so(self):
        seen = self.seen()
        for outline in (
            ((5.0, 5.0), (6.0, 6.0)),
            ((0.0, 0.0), (1800.0, 0.0), (1800.0, 1200.0), (0.0, 1200.0)),
        ):
            with self.assertRaises(Trouble):
                thing_inside(outline, seen.reduced())
        with self.assertRaises(Cancelled):
            progress = Progress()
            progress.cancel()
            outlined(Sieve(), self.OUTLINE, seen.whole(), seen.reduced(), seen.context, 0, progress)


class OldFilesTest(WindowCase):
    def test_a_project_and_a_preset_of_version_2_look_as_they_did(self):
        sample = {"role": "drop", "x": 1, "y": 2, "colour": [0.1, 0.1, 0.1]}
        held = {
            "version": 2,
            "source": "",
            "stack": [{"pick": {"samples": [sample]}, "edge": {"grow": 2}}],
        }
        project = storage.project_from(held, pathlib.Path("old.sieve"))
        self.assertEqual(project.version, storage.VERSION)
        self.assertEqual(project.stack[0].edge, Edge(grow=2, specks=0, holes=0, follow=0, clean=0))
        self.assertEqual(project.stack[0].pick.samples[0].rule, "tolerance")
        path = self.folder / "old.json"
        path.write_text(
            json.dumps(
                {
                    "version": 2,
                    "name": "Old",
                    "swatch": [0.1, 0.2, 0.3],
                    "edge": {"clean": 3},
                    "pick": {"samples": [sample]},
                }
            )
        )
        preset = presets.read(path)
        self.assertEqual(
            (preset.edge.clean, preset.edge.follow, preset.pick.samples[0].rule),
            (3, 0, "tolerance"),
        )
        self.assertTrue((ROOT / "demo" / "yard.sieve").exists())
