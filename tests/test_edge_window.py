"""The pages Edge and Areas, islands, the brush and a simulated tablet, driven in the real
window.
"""

import numpy as np
from common import DEMO, WindowCase
from PyQt6.QtCore import QEvent, QPointF, Qt
from PyQt6.QtGui import QInputDevice, QPointingDevice, QTabletEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from amber_sieve.desk.canvas.area_shape import handles_of, numbers_of
from amber_sieve.project.edits import field_of
from amber_sieve.project.model import Adjust, Recolour

SHIFT, CTRL = Qt.KeyboardModifier.ShiftModifier, Qt.KeyboardModifier.ControlModifier
LEFT, NONE = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
JAR = (735, 830)


class EdgePageTest(WindowCase):
    def setUp(self):
        super().setUp()
        self.open(DEMO / "yard.sieve")
        self.window.pages.setCurrentWidget(self.window.edge)
        self.page = self.window.edge
        self.application.processEvents()

    def test_every_number_is_dragged_nudged_and_reset(self):
        self.page.reset.click()
        for name, number in self.page.numbers.items():
            if name in ("sensitivity", "fine"):
                continue
            before = getattr(self.work.sieve.edge, name)
            number.setFocus()
            QTest.keyClick(number, Qt.Key.Key_Left if name == "white" else Qt.Key.Key_Right)
            self.assertNotEqual(getattr(self.work.sieve.edge, name), before, name)
            self.drag(number, -25 if name == "white" else 25)
            QTest.mouseDClick(number, LEFT)
            self.assertEqual(getattr(self.work.sieve.edge, name), before, name)
        self.settle()
        self.assertEqual(self.troubles, [])

    def test_checks_ways_follow_and_reset(self):
        for box, name in self.page._bound_checks:
            box.setEnabled(True)
            before = field_of(self.work.sieve, name)
            box.click()
            self.assertNotEqual(field_of(self.work.sieve, name), before, name)
        self.page.way.activated.emit(1)
        self.assertEqual(self.work.sieve.edge.way, "inwards")
        self.page.numbers["follow"].set(20)
        self.settle()
        self.assertTrue(self.page.numbers["sensitivity"].isEnabled())
        self.page.reset.click()
        self.assertEqual(self.work.sieve.edge.follow, "auto")

    def test_fine_works_in_the_background_and_is_kept(self):
        seen = []
        self.workspace.workers.job_changed.connect(
            lambda job: seen.append(job.title if job else "")
        )
        self.page.numbers["fine"].set(8)
        self.settle()
        self.assertIn("Hair and fringe", seen)
        self.assertEqual(self.viewing.last.waiting, ())
        fine = self.viewing.last.mask.copy()
        seen.clear()
        self.work.edit_sieve(lambda s: s.but(adjust=Adjust(recolour=Recolour(hue=-40.0))), "Hue")
        self.settle()
        self.assertEqual(seen, [])
        self.assertTrue(np.array_equal(self.viewing.last.mask, fine))

    def test_haze_is_counted_and_marked(self):
        self.page.numbers["follow"].set(30)
        self.settle()
        self.page.fringe_check.click()
        self.settle()
        self.assertRegex(
            self.page.fringe.text(), r"Colour fringe on \d+ pixels; \d+ without the correction"
        )
        self.window.canvas.set_view(1, "fringe")
        self.settle()
        self.assertIn("fringe", self.viewing.last.pictures)

    def test_islands_are_listed_outlined_clicked_out_and_brought_back(self):
        QTest.mouseClick(self.page.count, LEFT)
        self.settle()
        self.assertGreater(self.page.islands.count(), 1)
        self.page.islands.itemEntered.emit(self.page.islands.item(0))
        self.assertIsNotNone(self.workspace.areas.outlined)
        whole = self.viewing.last.coverage.whole
        QTest.mouseClick(self.page.click_islands, LEFT)
        self.click(1230, 330, pane=1)
        self.assertLess(self.viewing.last.coverage.whole, whole / 2)
        self.click(1230, 330, pane=1)
        self.assertAlmostEqual(self.viewing.last.coverage.whole, whole, places=6)
        QTest.mouseClick(self.page.click_islands, LEFT)
        QTest.mouseClick(self.page.out, LEFT)
        self.settle()
        self.assertEqual(len(self.work.sieve.edge.islands_out), self.page.islands.count() - 1)
        self.page.islands.item(0).setSelected(True)
        QTest.mouseClick(self.page.only, LEFT)
        self.assertEqual(len(self.work.sieve.edge.islands_only), 1)
        QTest.mouseClick(self.page.back, LEFT)
        self.assertEqual(self.work.sieve.edge.islands_only, ())


class AreasPageTest(WindowCase):
    def setUp(self):
        super().setUp()
        self.open(DEMO / "yard.png")
        self.click(*JAR)
        self.window.pages.setCurrentWidget(self.window.areas)
        self.page, self.tools = self.window.areas, self.window.canvas.areas
        self.pane, self.view = self.window.canvas.panes[0], self.window.canvas.viewport
        self.application.processEvents()

    def at(self, x, y):
        return self.view.to_pane(QPointF(x, y)).toPoint()

    def draw(self, *points, held=NONE):
        QTest.mousePress(self.pane, LEFT, held, self.at(*points[0]))
        for point in points[1:]:
            QTest.mouseMove(self.pane, self.at(*point))
        QTest.mouseRelease(self.pane, LEFT, held, self.at(*points[-1]))
        self.settle()

    def use(self, tool):
        QTest.mouseClick(self.page.buttons[tool], LEFT)
        self.pane.setFocus()

    def test_shapes_are_drawn_and_the_first_is_only_here(self):
        self.use("rect")
        self.draw((600, 600), (740, 1000))
        self.use("ellipse")
        self.draw((900, 600), (1000, 700))
        self.use("radial")
        self.draw((900, 600), (1000, 700))
        self.use("gradient")
        self.draw((100, 100), (100, 400))
        self.use("freehand")
        self.draw((100, 100), (300, 100), (300, 300), (100, 300))
        areas = self.work.sieve.areas
        self.assertEqual(
            [a.kind for a in areas], ["rect", "ellipse", "radial", "gradient", "polygon"]
        )
        self.assertEqual([a.mode for a in areas], ["intersect"] + ["add"] * 4)

    def test_polygon_and_clinging_outline_by_clicks(self):
        self.use("polygon")
        for point in ((600, 600), (900, 600), (950, 650), (900, 1000)):
            QTest.mouseClick(self.pane, LEFT, NONE, self.at(*point))
        QTest.keyClick(self.pane, Qt.Key.Key_Backspace)
        self.assertEqual(len(self.tools.outline), 3)
        QTest.keyClick(self.pane, Qt.Key.Key_Return)
        self.assertEqual(len(self.work.sieve.areas[0].points), 3)
        self.use("cling")
        for point in ((640, 820), (740, 660), (850, 820)):
            QTest.mouseClick(self.pane, LEFT, NONE, self.at(*point))
            self.settle()
        self.assertGreater(len(self.tools.outline), 20)
        QTest.mouseDClick(self.pane, LEFT, NONE, self.at(740, 950))
        self.settle()
        self.assertEqual(self.work.sieve.areas[1].kind, "polygon")
        self.assertEqual(self.work.sieve.areas[1].name, "Edge outline")
        # It answers a drag too: a corner each time it has gone a while.
        self.use("cling")
        self.draw((640, 820), (660, 740), (740, 660), (830, 740), (850, 900), (740, 960))
        self.assertGreater(len(self.tools.outline), 20)
        QTest.keyClick(self.pane, Qt.Key.Key_Return)
        self.settle()
        self.assertEqual(len(self.work.sieve.areas), 3)
        width = numbers_of(self.work.sieve.areas[2])["Width"]
        self.page.areas.setCurrentRow(2)
        self.page.numbers["Width"].set(width / 2)  # an outline has its numbers
        self.assertAlmostEqual(numbers_of(self.work.sieve.areas[2])["Width"], width / 2, delta=0.5)
        self.use("polygon")
        QTest.mouseClick(self.pane, LEFT, NONE, self.at(600, 600))
        QTest.keyClick(self.pane, Qt.Key.Key_Escape)
        self.assertEqual(self.tools.outline, [])

    def test_handles_numbers_list_and_snap(self):
        self.use("rect")
        self.draw((600, 600), (800, 800))
        self.use("change")
        right = handles_of(self.tools.area, self.view.zoom)["right"]
        self.draw(right, (right[0] + 150, right[1]))
        self.assertAlmostEqual(numbers_of(self.tools.area)["Width"], 350, delta=8)
        self.draw((700, 700), (760, 720))
        turn = handles_of(self.tools.area, self.view.zoom)["turn"]
        self.draw(turn, (turn[0] - 50, turn[1] + 300))
        self.assertGreater(numbers_of(self.tools.area)["Angle"], 20)
        for name, value in (("X", 700), ("Y", 640), ("Width", 220), ("Height", 140), ("Angle", 0)):
            self.page.numbers[name].set(value)
            self.assertAlmostEqual(numbers_of(self.tools.area)[name], value, delta=0.01)
        self.page.feather.set(12)
        self.page.way.activated.emit(2)
        self.page.joins.activated.emit(1)
        self.page.inverted.click()
        area = self.tools.area
        self.assertEqual(
            (area.feather, area.way, area.mode, area.inverted), (12, "outwards", "subtract", True)
        )
        QTest.mouseClick(self.page.duplicate, LEFT)
        self.assertEqual(len(self.work.sieve.areas), 2)
        QTest.mouseClick(self.page.up, LEFT)
        self.assertEqual(self.work.sieve.areas[0].id, self.tools.selected)
        self.page.areas.item(1).setText("The other one")
        self.page.areas.item(1).setCheckState(Qt.CheckState.Unchecked)
        self.assertEqual(
            (self.work.sieve.areas[1].name, self.work.sieve.areas[1].on), ("The other one", False)
        )
        QTest.mouseClick(self.page.remove, LEFT)
        self.assertEqual(len(self.work.sieve.areas), 1)
        self.page.snap.click()
        self.use("rect")
        self.draw((4, 4), (898, 603))
        box = numbers_of(self.tools.area)
        self.assertEqual((box["Width"], box["Height"]), (900, 600))

    def test_the_brush_paints_erases_draws_lines_and_resizes(self):
        self.use("brush")
        for name, value in (("size", 90), ("hardness", 50), ("flow", 80), ("opacity", 90)):
            self.page.brush[name].set(value)
        self.draw((200, 200), (300, 220), (400, 260))
        area = self.work.sieve.areas[0]
        self.assertEqual(
            (area.kind, area.mode, area.strokes[0].size, area.strokes[0].opacity),
            ("brush", "add", 90, 90),
        )
        column, row = int(300 * self.viewing.last.scale), int(220 * self.viewing.last.scale)
        self.assertGreater(self.viewing.last.mask[row, column], 0.5)
        self.draw((300, 220), (310, 222), held=CTRL)
        self.assertTrue(self.work.sieve.areas[0].strokes[1].erase)
        self.draw((700, 300), held=SHIFT)
        line = self.work.sieve.areas[0].strokes[2].points
        self.assertEqual(len(line), 2)
        QTest.keyClick(self.pane, Qt.Key.Key_BracketRight)
        self.assertAlmostEqual(self.tools.brush.size, 103.5)
        QTest.mousePress(self.pane, Qt.MouseButton.RightButton, NONE, self.at(500, 500))
        QTest.mouseMove(self.pane, self.at(700, 500))
        QTest.mouseRelease(self.pane, Qt.MouseButton.RightButton, NONE, self.at(700, 500))
        self.assertGreater(self.tools.brush.size, 200)
        self.page.alike.click()
        self.draw((1230, 330), (1300, 340))
        self.assertIsNotNone(self.work.sieve.areas[0].strokes[3].like)
        QTest.keyClick(self.window, Qt.Key.Key_Z, CTRL)
        self.assertEqual(len(self.work.sieve.areas[0].strokes), 3)

    def test_a_simulated_tablet_gives_pressure(self):
        self.use("brush")
        self.page.pressure.activated.emit(1)
        pen = QPointingDevice(
            "pen",
            7,
            QInputDevice.DeviceType.Stylus,
            QPointingDevice.PointerType.Pen,
            QInputDevice.Capability.Pressure,
            1,
            1,
        )

        def send(kind, x, y, pressure):
            at = QPointF(self.at(x, y))
            event = QTabletEvent(
                kind,
                pen,
                at,
                QPointF(self.pane.mapToGlobal(at.toPoint())),
                pressure,
                0,
                0,
                0,
                0,
                0,
                NONE,
                LEFT,
                LEFT,
            )
            QApplication.sendEvent(self.pane, event)

        send(QEvent.Type.TabletPress, 300, 300, 0.2)
        for step in range(1, 8):
            send(QEvent.Type.TabletMove, 300 + 40 * step, 300, 0.2 + 0.1 * step)
        send(QEvent.Type.TabletRelease, 580, 300, 0.0)
        self.settle()
        stroke = self.work.sieve.areas[0].strokes[0]
        self.assertEqual(stroke.pressure, "size")
        self.assertAlmostEqual(stroke.points[0][2], 0.2, places=3)
        self.assertGreater(stroke.points[-1][2], 0.8)

    def test_tools_are_put_away_with_their_page(self):
        self.use("rect")
        self.window.pages.setCurrentWidget(self.window.pick)
        self.assertEqual(self.tools.tool, "")
        self.click(1230, 330)
        self.assertEqual(self.work.sieve.areas, ())
