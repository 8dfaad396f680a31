"""The pages Pick and Bands, the colour field and the views, driven by mouse and keyboard."""

from unittest import mock

import numpy as np
from common import DEMO, WindowCase
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest

from amber_sieve.core.bands.interval import moved_corners
from amber_sieve.names import COMPARISONS, SHAPES
from amber_sieve.project import store
from amber_sieve.project.model import Edge

SHIFT, CTRL, ALT = (
    Qt.KeyboardModifier.ShiftModifier,
    Qt.KeyboardModifier.ControlModifier,
    Qt.KeyboardModifier.AltModifier,
)
LEFT, NONE = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
JAR, CLOTH = (735, 830), (1230, 330)


class PickPageTest(WindowCase):
    def setUp(self):
        super().setUp()
        self.open(DEMO / "yard.png")
        self.page = self.window.pick

    def stroke(self, *points, held=NONE):
        """Press on the first picture point, move over the others, release."""
        pane, view = self.window.canvas.panes[0], self.window.canvas.viewport
        places = [view.to_pane(QPointF(*point)).toPoint() for point in points]
        QTest.mousePress(pane, LEFT, held, places[0])
        for place in places[1:]:
            QTest.mouseMove(pane, place)
            self.application.processEvents()
        QTest.mouseRelease(pane, LEFT, held, places[-1])
        self.settle()

    def choose(self, box, index):
        box.setCurrentIndex(index)
        box.activated.emit(index)
        self.settle()

    def test_boxes_and_strokes_with_their_tones(self):
        QTest.mouseClick(self.page.places["box"], LEFT)
        self.stroke((1150, 200), (1300, 400))
        box = self.work.sieve.pick.samples[0]
        self.assertEqual((box.place, len(box.points)), ("box", 2))
        self.assertGreaterEqual(len(box.tones), 1)
        QTest.mouseClick(self.page.places["stroke"], LEFT)
        self.stroke((1450, 1010), (1500, 1050), (1520, 1100), held=SHIFT)
        stroke = self.work.sieve.pick.samples[1]
        self.assertEqual((stroke.place, stroke.role), ("stroke", "keep"))
        self.assertGreaterEqual(len(stroke.points), 3)

    def test_dragging_outwards_widens_the_tolerance_in_one_step(self):
        self.stroke(JAR, (760, 830), (900, 830), (1100, 830))
        wide = self.work.sieve.pick.samples[0].tolerance
        self.assertGreater(wide, 8)
        self.window.menus.actions["undo"].trigger()
        self.settle()
        self.assertLess(self.work.sieve.pick.samples[0].tolerance, 11.5)
        self.assertEqual(len(self.work.sieve.pick.samples), 1)

    def test_rows_stay_while_a_setting_is_dragged_and_follow_in_words(self):
        self.open(DEMO / "yard.sieve")
        # What is automatic at an edge rests while something is dragged: so it would be another
        # mask.
        self.work.edit_sieve(
            lambda sieve: sieve.but(edge=Edge(specks=0, holes=0, follow=0, clean=0, level=0)),
            "No edge work",
        )
        self.work.edit(
            lambda p: p.but(stack=(*p.stack, p.stack[0].but(id="other", name="Other"))), "Another"
        )
        self.settle()
        stack, samples = self.window.stack.list, self.page.samples
        samples.item(0).setSelected(True)
        rows = [shown.item(row) for shown in (stack, samples) for row in range(shown.count())]
        self.wait(lambda: all("%" in stack.item(row).text() for row in range(stack.count())))
        pictures = [stack.item(row).icon().cacheKey() for row in range(stack.count())]
        self.drag(self.page.tolerance, 30)
        tolerance = self.work.sieve.pick.samples[0].tolerance
        self.wait(lambda: f"±{tolerance:.1f}" in samples.item(0).text())
        for row, now in zip(
            rows,
            [shown.item(row) for shown in (stack, samples) for row in range(shown.count())],
            strict=True,
        ):
            self.assertIs(row, now)
        self.assertEqual(
            [item.data(Qt.ItemDataRole.UserRole) for item in samples.selectedItems()],
            [self.work.sieve.pick.samples[0].id],
        )
        # The small picture of the sieve whose mask it is has changed, and no other.
        place = [sieve.id for sieve in self.work.project.stack].index(self.work.sieve.id)
        self.assertEqual(stack.count(), 2)
        self.wait(lambda: stack.item(place).icon().cacheKey() != pictures[place])
        now = [stack.item(row).icon().cacheKey() for row in range(stack.count())]
        self.assertEqual(
            [
                row
                for row, (one, other) in enumerate(zip(pictures, now, strict=True))
                if one != other
            ],
            [place],
        )

    def test_settings_go_to_the_chosen_samples(self):
        self.click(*JAR)
        self.click(*CLOTH, SHIFT)
        self.page.samples.item(0).setSelected(True)
        self.choose(self.page.compare, COMPARISONS.index("levels"))
        self.drag(self.page.tolerance, 20)
        self.choose(self.page.shape, SHAPES.index("hard"))
        first, second = self.work.sieve.pick.samples
        self.assertEqual(
            (first.compare, first.shape, second.compare, second.shape),
            ("levels", "hard", "surface", "linear"),
        )
        self.assertNotEqual(first.tolerance, second.tolerance)
        self.assertEqual(self.page.whose.title, "Tolerance of keep 1")
        self.page.samples.clearSelection()
        self.assertEqual(
            self.page.whose.title, "Tolerance of keep 2"
        )  # with none chosen, of the last
        self.page.all_samples.click()
        self.assertEqual(self.page.whose.title, "Tolerance of all 2 samples")
        self.choose(self.page.shape, SHAPES.index("bend"))
        self.page.bend.setFocus()
        QTest.keyClick(self.page.bend, Qt.Key.Key_Right)
        self.assertEqual([s.bend for s in self.work.sieve.pick.samples], [0.05, 0.05])
        for name in COMPARISONS:
            self.choose(self.page.compare, COMPARISONS.index(name))
            self.assertEqual(self.work.sieve.pick.samples[1].compare, name)

    def test_samples_are_switched_renamed_swapped_shown_alone_and_removed(self):
        self.click(*JAR)
        self.click(*CLOTH, SHIFT)
        whole = self.viewing.last.coverage.whole
        item = self.page.samples.item(1)
        self.page.samples.itemEntered.emit(item)
        self.settle()
        self.assertLess(self.viewing.last.coverage.whole, whole)
        self.assertGreater(self.viewing.last.field.sum(), 10)
        self.viewing.look(solo="")
        item.setCheckState(Qt.CheckState.Unchecked)
        self.settle()
        self.assertFalse(self.work.sieve.pick.samples[1].on)
        self.page.samples.item(1).setText("Cloth in the sun")
        self.assertEqual(self.work.sieve.pick.samples[1].name, "Cloth in the sun")
        self.page.samples.item(1).setSelected(True)
        self.page.swap.trigger()
        self.assertEqual([s.role for s in self.work.sieve.pick.samples], ["keep", "drop"])
        self.page.again.trigger()
        self.page.samples.setFocus()
        QTest.keyClick(self.page.samples, Qt.Key.Key_Delete)
        self.assertEqual(len(self.work.sieve.pick.samples), 1)
        self.page.clear.trigger()
        self.assertEqual(self.work.sieve.pick.samples, ())

    def test_connected_bridge_invert_transparent_and_fit(self):
        self.click(*JAR)
        self.page.show_number("pick.bridge")  # unfolds its group
        QTest.mouseClick(self.page.connected, LEFT, NONE, QPoint(8, 8))
        self.settle()
        self.assertTrue(self.work.sieve.pick.connected)
        self.page.bridge.setFocus()
        QTest.keyClick(self.page.bridge, Qt.Key.Key_Right, SHIFT)
        self.assertEqual(self.work.sieve.pick.bridge, 10)
        for box in (self.page.invert, self.page.transparent):
            box.setFocus()
            QTest.keyClick(box, Qt.Key.Key_Space)
        self.assertTrue(self.work.sieve.invert)
        self.assertFalse(self.work.sieve.pick.transparent)
        self.click(*CLOTH, CTRL)
        QTest.mouseClick(self.page.fit, LEFT)
        self.settle()
        self.assertIn("separation", self.window.status.message.text())
        self.choose(self.page.measure, 1)
        self.assertEqual(self.work.sieve.pick.measure, "result")
        self.page.patch_size.activated.emit(4)
        self.assertEqual(self.workspace.tools.sample_size, 31)

    def test_a_layer_is_measured(self):
        with mock.patch(
            "amber_sieve.desk.pages.pick.QFileDialog.getOpenFileName",
            return_value=(str(DEMO / "close.png"), ""),
        ):
            self.choose(self.page.measure, 2)
        self.assertEqual(self.work.sieve.pick.measure, "layer")
        self.click(*JAR)
        mask = self.viewing.last.mask
        self.choose(self.page.measure, 0)
        self.assertFalse(np.array_equal(mask, self.viewing.last.mask))
        self.assertEqual(self.troubles, [])

    def test_loupe_wipe_weak_spots_and_veil(self):
        self.click(*JAR)
        pane, canvas = self.window.canvas.panes[0], self.window.canvas
        QTest.keyClick(pane, Qt.Key.Key_L)
        QTest.mouseMove(pane, QPoint(300, 150))
        self.assertTrue(pane.loupe)
        QTest.keyClick(pane, Qt.Key.Key_W)
        self.settle()
        self.assertIn("original", self.viewing.last.pictures)
        at = canvas.viewport.to_picture(QPointF(pane.wipe_x(), 100))
        self.stroke((at.x(), at.y()), (at.x() - 300, at.y()))
        self.assertLess(pane.wipe, 0.5)
        self.assertEqual(len(self.work.sieve.pick.samples), 1)
        canvas.set_view(1, "weak spots")
        self.settle()
        self.assertIn("weak spots", self.viewing.last.pictures)
        canvas.set_view(1, "veil")
        self.settle()
        inside = self.viewing.last.pictures["veil"].copy()
        self.viewing.look(veil_outside=True, veil_opacity=0.9)
        self.settle()
        self.assertFalse(np.array_equal(inside, self.viewing.last.pictures["veil"]))

    def test_the_readout_names_the_sample_that_decided(self):
        self.click(*JAR)
        self.click(*CLOTH, CTRL)
        for place, decided in ((JAR, "by keep 1"), (CLOTH, "by drop 2")):
            self.window.canvas.panes[0].hovered.emit(QPointF(*place))
            self.settle()
            self.assertIn(decided, self.window.canvas.readout.text())


class BandsPageTest(WindowCase):
    def setUp(self):
        super().setUp()
        self.open(DEMO / "yard.png")
        self.window.pages.setCurrentWidget(self.window.bands)
        self.page = self.window.bands
        self.application.processEvents()

    def pull(self, widget, start: QPointF, end: QPointF, held=NONE):
        QTest.mousePress(widget, LEFT, held, start.toPoint())
        QTest.mouseMove(widget, ((start + end) / 2).toPoint())
        QTest.mouseMove(widget, end.toPoint())
        QTest.mouseRelease(widget, LEFT, held, end.toPoint())
        self.settle()

    def test_bands_follow_what_is_dragged_elsewhere_now_and_then_and_at_its_end_at_once(self):
        page, editor = self.window.bands, self.window.bands.editors["hue"]
        self.window.canvas.panes[0].setFocus()

        def drag(low: float):
            band = self.work.sieve.bands.hue.but(
                on=True, corners=(low, low + 10, low + 20, low + 30)
            )
            self.work.edit_sieve(
                lambda sieve: sieve.but(bands=sieve.bands.but(hue=band)),
                "Colour field",
                group="field",
            )
            return band

        band = drag(40)
        self.assertEqual((page.corners[1].value(), editor.band == band), (50, False))
        self.work.end_drag()
        self.assertEqual(editor.band, band)
        band = drag(60)
        self.wait(lambda: editor.band == band)
        editor.setFocus()  # the keys go on from where the band is
        band = drag(80)
        self.assertEqual(editor.band, band)
        self.work.end_drag()

    def test_corners_are_dragged_nudged_typed_and_reset(self):
        editor = self.page.editors["luminance"]
        middle = editor.height() / 2
        self.pull(editor, QPointF(editor.x_of(0), middle), QPointF(editor.x_of(30), middle))
        band = self.work.sieve.bands.luminance
        self.assertTrue(band.on)
        self.assertTrue(20 < max(band.corners[0], band.corners[1]) < 40)
        self.assertEqual(band.corners[2:], (100, 100))
        editor.setFocus()
        QTest.keyClick(editor, Qt.Key.Key_Home)
        self.page.corners[1].set(20)
        self.page.corners[2].set(70)
        self.assertEqual(self.work.sieve.bands.luminance.corners, (0, 20, 70, 100))
        self.pull(editor, QPointF(editor.x_of(45), middle), QPointF(editor.x_of(45), middle))
        self.assertEqual(editor.grip, 4)
        for _ in range(4):
            QTest.keyClick(editor, Qt.Key.Key_Up)
        self.assertEqual(editor.grip, 3)
        QTest.keyClick(editor, Qt.Key.Key_Left)
        QTest.keyClick(editor, Qt.Key.Key_Left, SHIFT)
        self.assertEqual(self.work.sieve.bands.luminance.corners[3], 89)
        QTest.keyClick(editor, Qt.Key.Key_I)
        self.assertTrue(self.work.sieve.bands.luminance.inverted)
        QTest.keyClick(editor, Qt.Key.Key_Space)
        self.assertFalse(self.work.sieve.bands.luminance.on)
        QTest.mouseDClick(editor, LEFT)
        self.assertEqual(self.work.sieve.bands.luminance.corners, (0, 0, 100, 100))

    def test_mirror_and_together(self):
        corners = (10.0, 20.0, 60.0, 70.0)
        self.assertEqual(moved_corners(corners, 1, 5, "luminance", mirror=True), (10, 25, 55, 70))
        self.assertEqual(moved_corners(corners, 1, 5, "luminance", together=True), (15, 25, 60, 70))
        self.assertEqual(moved_corners(corners, 4, 50, "luminance"), (40, 50, 90, 100))
        self.assertEqual(moved_corners(corners, 0, 30, "luminance"), (40, 40, 60, 70))
        self.assertEqual(moved_corners((340, 350, 370, 380), 4, 20, "hue"), (0, 10, 30, 40))

    def test_channels_shapes_and_switches(self):
        QTest.mouseClick(self.page.set_buttons[1], LEFT)
        self.assertEqual(self.page.active, "red")
        self.page.corners[1].set(100)
        self.assertEqual(self.work.sieve.bands.red.corners, (0, 100, 255, 255))
        self.page.shape.activated.emit(SHAPES.index("bend"))
        self.page.bend.set(0.5)
        self.assertEqual(
            (self.work.sieve.bands.red.shape, self.work.sieve.bands.red.bend), ("bend", 0.5)
        )
        self.settle()
        QTest.mouseClick(self.page.full, LEFT)
        self.assertEqual(self.work.sieve.bands.red.corners, (0, 0, 255, 255))
        for box in (self.page.on, self.page.inverted):
            box.setFocus()
            QTest.keyClick(box, Qt.Key.Key_Space)
        self.assertTrue(self.work.sieve.bands.red.inverted)

    def test_tonal_starts_and_ramp(self):
        self.page.choose("luminance")
        QTest.mouseClick(self.page.tonal["midtones"], LEFT)
        corners = self.work.sieve.bands.luminance.corners
        self.page.softness.set(0)
        self.assertNotEqual(self.work.sieve.bands.luminance.corners, corners)
        self.page.ramp.click()
        self.page.black.set(20)
        self.page.white.set(80)
        self.page.inverse.click()
        ramp = self.work.sieve.bands.ramp
        self.assertEqual((ramp.on, ramp.inverse, ramp.black, ramp.white), (True, True, 20, 80))
        self.settle()
        counts = self.viewing.last.coverage.histogram
        self.assertGreater(counts[1:-1].sum(), 0.3 * counts.sum())  # partly covered

    def test_set_from_samples_and_presets(self):
        for place in (CLOTH, (1100, 180), (1400, 450)):
            self.click(*place, SHIFT)
        QTest.mouseClick(self.page.from_samples, LEFT)
        self.settle()
        self.assertTrue(self.work.sieve.bands.hue.on)
        self.assertGreater(self.viewing.last.coverage.whole, 0.07)
        with mock.patch.object(store, "folder_of_presets", lambda: self.folder / "presets"):
            with mock.patch(
                "amber_sieve.desk.pages.bands.QInputDialog.getText", return_value=("Indigo", True)
            ):
                QTest.mouseClick(self.page.save_button, LEFT)
            names = [self.page.preset.itemText(k) for k in range(self.page.preset.count())]
            self.assertIn("Indigo", names)
            bands = self.work.sieve.bands
            out = self.folder / "exported.json"
            with mock.patch(
                "amber_sieve.desk.pages.bands.QFileDialog.getSaveFileName",
                return_value=(str(out), ""),
            ):
                self.page._export()
            self.page.preset.activated.emit(names.index("Skies"))
            self.settle()
            self.assertNotEqual(self.work.sieve.bands, bands)
            with mock.patch(
                "amber_sieve.desk.pages.bands.QFileDialog.getOpenFileName",
                return_value=(str(out), ""),
            ):
                self.page._import()
            names = [self.page.preset.itemText(k) for k in range(self.page.preset.count())]
            self.page.preset.activated.emit(names.index("exported"))
            self.assertEqual(self.work.sieve.bands, bands)
            self.workspace.presets.read(DEMO / "yard.sieve")
            self.assertEqual(len(self.troubles), 1)

    def test_colour_field(self):
        field = self.window.field
        self.page.editors["hue"].edited.emit(
            self.work.sieve.bands.hue.but(on=True, corners=(240, 255, 285, 300)), "Hue band"
        )
        self.page.editors["saturation"].edited.emit(
            self.work.sieve.bands.saturation.but(on=True, corners=(20, 30, 70, 80)),
            "Saturation band",
        )
        self.settle()
        self.pull(field, field.at(270, 50), field.at(300, 50))
        hue = self.work.sieve.bands.hue.corners
        self.assertTrue(275 < hue[1] < 295, hue)
        start = field.at(sum(hue[1:3]) / 2, 70)
        self.pull(field, start, field.at(sum(hue[1:3]) / 2, 90))
        self.assertGreater(max(self.work.sieve.bands.saturation.corners[2:]), 84)
        QTest.mousePress(field, LEFT, NONE, field.at(100, 60).toPoint())
        self.settle()
        self.assertIsNotNone(self.viewing.looking.spot)
        QTest.mouseRelease(field, LEFT, NONE, field.at(100, 60).toPoint())
        self.assertIsNone(self.viewing.looking.spot)
        field.setFocus()
        QTest.keyClick(field, Qt.Key.Key_Left, SHIFT)
        self.assertAlmostEqual(self.work.sieve.bands.hue.corners[1], hue[1] + 10, places=4)
        QTest.keyClick(field, Qt.Key.Key_Up)
        strip = QPointF(field.width() - 12, field.y_of(2))
        self.pull(field, strip, QPointF(strip.x(), field.y_of(40)))
        self.assertTrue(self.work.sieve.bands.luminance.on)
        QTest.keyClick(field, Qt.Key.Key_Delete)
        self.assertFalse(self.work.sieve.bands.hue.on)
        self.window.menus.actions["follow view"].trigger()
        self.settle()
        self.assertTrue(self.viewing.counts_view)
