"""The Adjust page in the real window, and the second five minutes of the README against the
terminal.
"""

import dataclasses
import pathlib
import unittest
from unittest import mock

import numpy as np
from common import FolderCase, WindowCase, half_demo, terminal, truth
from PIL import Image
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QColor
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QMenu

from amber_sieve.core.colour.transfer import decode
from amber_sieve.desk.dialogs.picture_colour import PictureColour, show_picture
from amber_sieve.media.colour import cdl_files
from amber_sieve.project import storage
from amber_sieve.project.model import Adjust, Light

SHIFT = Qt.KeyboardModifier.ShiftModifier


class AdjustCase(WindowCase):
    """A window with the yard, its Adjust page in front."""

    scale = 0.5
    own_window = True

    def setUp(self) -> None:
        super().setUp()
        self.open(half_demo() / "yard.png")
        self.page = self.window.adjust
        self.window.pages.setCurrentWidget(self.page)

    def opened(self, *names: str) -> None:
        """Open some blocks, close the others."""
        for name, block in self.page.blocks.items():
            block.set_open(name in names)
        self.application.processEvents()

    def press(self, widget, at: QPoint, button=Qt.MouseButton.LeftButton) -> None:
        QTest.mousePress(widget, button, Qt.KeyboardModifier.NoModifier, at)

    def drag_from(self, widget, start: QPointF, by: QPoint) -> None:
        self.press(widget, start.toPoint())
        for step in range(1, 5):
            QTest.mouseMove(widget, start.toPoint() + by * step / 4)
            self.application.processEvents()
        QTest.mouseRelease(
            widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start.toPoint() + by
        )
        self.settle()

    def typed(self, name: str, text: str) -> None:
        """Type a value into a number of the page."""
        number = self.page.numbers[name]
        number.setFocus()
        QTest.keyClick(number, Qt.Key.Key_Return)
        number._entry.selectAll()
        QTest.keyClicks(number._entry, text)
        QTest.keyClick(number._entry, Qt.Key.Key_Return)
        self.settle()


class SecondFiveMinutesTest(AdjustCase):
    """README: every result is what the terminal writes, bit for bit."""

    def written(self, name: str, *words: object) -> np.ndarray:
        """What the window exports, after it was compared with what the terminal writes of clicks at
        the same places.
        """
        clicks = [
            word
            for sample in self.work.sieve.pick.samples
            for word in ("--keep", f"{sample.x!r},{sample.y!r}")
        ]
        ours, theirs = self.folder / f"{name}.png", self.folder / f"{name}-terminal.png"
        self.workspace.exports.write(ours)
        self.settle()
        if words:
            done = terminal("recolour", half_demo() / "yard.png", "-o", theirs, *clicks, *words)
        # the areas came after the clicks, which the options of the terminal cannot say: the project
        # can
        else:
            self.workspace.saving.save(self.folder / f"{name}.sieve")
            done = terminal("render", self.folder / f"{name}.sieve", "-o", theirs)
        self.assertEqual(done.returncode, 0, done.stderr)
        one, other = (np.asarray(Image.open(path)) for path in (ours, theirs))
        self.assertEqual(one.shape, other.shape)
        self.assertEqual(int((one != other).sum()), 0, name)
        return decode(one[..., :3] / 255).transpose(2, 0, 1)

    def test_sky_jar_grey_and_another_sky(self):
        before = decode(np.asarray(Image.open(half_demo() / "yard.png")) / 255).transpose(2, 0, 1)
        # The sky, through the opposite of the wall.
        self.click(268, 576)
        self.click(1688, 348, SHIFT)
        self.click(1205, 400, SHIFT)
        self.work.set_field("invert", True, "Invert")
        self.window.pages.setCurrentWidget(self.window.areas)
        self.window.canvas.areas.take("rect")
        viewport, pane = self.window.canvas.viewport, self.window.canvas.panes[0]
        self.drag_from(
            pane,
            viewport.to_pane(QPointF(1, 1)),
            (viewport.to_pane(QPointF(899, 150)) - viewport.to_pane(QPointF(1, 1))).toPoint(),
        )
        self.window.pages.setCurrentWidget(self.page)
        self.opened("light")
        self.typed("exposure", "-1.2")
        sky = self.written("sky")
        inside, wall = (
            truth("yard", "sky", half_demo()) > 0.99,
            truth("yard", "wall", half_demo()) > 0.99,
        )
        self.assertLess(np.median(sky[:, inside] / before[:, inside]), 0.45)
        self.assertEqual(np.median(sky[:, wall] / before[:, wall]), 1.0)

        # The jar, matched to a target.
        self.workspace.saving.start_over()
        self.settle()
        self.click(742, 790)
        self.opened("match")
        self.page.target.code.setText("#8E5A9E")
        self.page.target.code.editingFinished.emit()
        self.settle()
        jar = self.written("jar", "--set", "target=#8E5A9E")
        held = truth("yard", "turquoise", half_demo()) > 0.99
        self.assertLess(
            np.abs(jar[:, held].mean(1) - decode(np.array([0x8E, 0x5A, 0x9E]) / 255)).max(), 0.03
        )

        # One colour left in a grey picture.
        self.workspace.saving.start_over()
        self.settle()
        self.click(1205, 400)
        self.work.set_field("invert", True, "Invert")
        self.opened("mono")
        self.typed("mono", "100")
        grey = self.written("grey", "--invert", "--set", "mono=100")
        self.assertLess(np.ptp(grey[:, held], axis=0).max(), 0.01)
        cloth = truth("yard", "cloth", half_demo()) > 0.99
        self.assertGreater(np.median(np.ptp(grey[:, cloth], axis=0)), 0.05)

        # A cut-out on another sky.
        self.workspace.saving.start_over()
        self.settle()
        self.click(300, 200)
        self.work.set_field("invert", True, "Invert")
        self.opened("fill")
        self.page.fill_with(half_demo() / "evening.png")
        self.page.fill_where.setCurrentIndex(1)
        self.page.fill_where.activated.emit(1)
        self.settle()
        words = ("fill=picture", "fill_where=behind", f"fill_picture={half_demo() / 'evening.png'}")
        other = self.written(
            "other", "--invert", *(part for word in words for part in ("--set", word))
        )
        self.assertGreater(np.abs(other[:, inside] - before[:, inside]).mean(), 0.1)
        self.assertLess(np.abs(other[:, wall] - before[:, wall]).mean(), 1e-5)
        self.assertEqual(self.troubles, [])


class BlocksTest(AdjustCase):
    def test_only_what_is_used_is_open_and_each_block_resets_and_switches(self):
        self.assertEqual(
            [name for name, block in self.page.blocks.items() if block.open], ["recolour", "light"]
        )  # what most people need
        self.click(742, 790)
        self.opened("light")
        self.typed("exposure", "1")
        light = self.page.blocks["light"]
        self.assertEqual(light.mark.text(), "●")
        seen = self.viewing.last.pictures["result"].copy()
        light.switch.click()
        self.settle()
        self.assertTrue(self.work.sieve.adjust.neutral)
        self.assertGreater(int((self.viewing.last.pictures["result"] != seen).sum()), 1000)
        self.assertEqual(light.mark.text(), "○")
        light.switch.click()
        self.settle()
        self.assertTrue(np.array_equal(self.viewing.last.pictures["result"], seen))
        light.back.click()
        self.settle()
        self.assertEqual(self.work.sieve.adjust.light, Light())
        self.work.undo()
        self.settle()
        self.assertEqual(self.work.sieve.adjust.light.exposure, 1)
        # Another sieve: what it uses is open, nothing else; one that does nothing yet has what most
        # people need.
        white = self.page.blocks["white"]
        self.work.set_field("adjust.white.tint", 5.0, "Tint")
        self.settle()
        self.assertTrue(white.open)
        self.workspace.stack.add()
        self.settle()
        self.assertFalse(white.open)
        self.assertTrue(light.open)
        self.work.select(self.work.project.stack[0].id)
        self.settle()
        self.assertTrue(white.open)

    def test_a_block_goes_to_another_sieve(self):
        self.work.set_field("adjust.light.exposure", 1.0, "Exposure")
        first = self.work.sieve.id
        self.workspace.stack.add()
        self.work.select(first)
        self.settle()
        menu = QMenu()
        self.page._fill_menu(menu, "light")
        copy = menu.actions()[0].menu()
        self.assertEqual([action.text() for action in copy.actions()], ["Sieve 2"])
        copy.actions()[0].trigger()
        self.assertEqual(self.work.project.stack[1].adjust.light.exposure, 1)
        self.assertEqual(self.work.history.undoes, "Copy a block")

    def test_a_heading_opens_its_block(self):
        block = self.page.blocks["mono"]
        self.assertTrue(block.body.isHidden())
        QTest.mouseClick(
            block, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, QPoint(150, 8)
        )
        self.assertFalse(block.body.isHidden())
        QTest.mouseClick(block.arrow, Qt.MouseButton.LeftButton)
        self.assertTrue(block.body.isHidden())

    def test_before_stands_beside_after(self):
        beside = self.window.menus.actions["beside"]
        beside.trigger()
        self.settle()
        self.assertEqual([pane.view for pane in self.window.canvas.panes], ["result", "original"])
        beside.trigger()
        self.settle()
        self.assertEqual(self.window.canvas.panes[1].view, "mask")

    def test_tracks_show_the_colours_that_values_stand_for(self):
        self.opened("recolour", "white", "light")
        hue = self.page.numbers["hue"]
        self.assertGreater(len(hue.colours), 10)
        self.assertEqual(self.page.numbers["exposure"].colours, ())
        before = hue.colours
        self.click(742, 790)
        self.assertNotEqual(hue.colours, before)
        temperature = self.page.numbers["temperature"].colours
        self.assertGreater(temperature[0].blueF(), temperature[0].redF())
        self.assertGreater(temperature[-1].redF(), temperature[-1].blueF())


class CurvesTest(AdjustCase):
    def setUp(self) -> None:
        super().setUp()
        self.click(742, 790)

    def test_points_are_put_dragged_typed_and_taken_off(self):
        self.opened("curve")
        editor = self.page.curves.editor
        self.drag_from(editor, editor.at(0.5, 0.5), QPoint(0, -20))
        points = self.work.sieve.adjust.curve.curve
        self.assertEqual(len(points), 1)
        self.assertAlmostEqual(points[0][0], 0.5, delta=0.01)
        self.assertGreater(points[0][1], 0.55)
        self.page.curves.typed[1].set(204)
        self.settle()
        self.assertAlmostEqual(self.work.sieve.adjust.curve.curve[0][1], 0.8, places=3)
        self.page.curves.choice.setCurrentIndex(3)
        editor.setFocus()
        QTest.keyClick(editor, Qt.Key.Key_Insert)
        QTest.keyClick(editor, Qt.Key.Key_Up, SHIFT)
        self.assertGreater(self.work.sieve.adjust.curve.curve_blue[0][1], 0.5)
        QTest.keyClick(editor, Qt.Key.Key_Delete)
        self.assertEqual(self.work.sieve.adjust.curve.curve_blue, ())
        self.page.curves.choice.setCurrentIndex(0)
        place = editor.at(*self.work.sieve.adjust.curve.curve[0]).toPoint()
        self.press(editor, place, Qt.MouseButton.RightButton)
        self.settle()
        self.assertEqual(self.work.sieve.adjust.curve.curve, ())
        self.assertEqual(self.troubles, [])

    def test_a_curve_of_the_same_points_is_drawn_as_the_one_that_was_chosen(self):
        points = ((10.0, 40.0), (200.0, 40.0))
        hues = self.work.sieve.adjust.hues.but(turn_by_hue=points, saturation_by_hue=points)
        self.work.edit_sieve(lambda sieve: sieve.but(adjust=sieve.adjust.but(hues=hues)), "Hues")
        for block, drawn, first, second in (
            ("hues", self.page.hues, 0, 1),
            ("curve", self.page.curves, 1, 2),
        ):
            self.opened(block)
            drawn.choice.setCurrentIndex(first)
            self.settle()
            if block == "curve":  # of a grey picture red and green hold the same
                drawn._counted = dataclasses.replace(
                    drawn._counted, levels=np.ones_like(drawn._counted.levels)
                )
                drawn._draw()
            self.application.processEvents()
            with mock.patch.object(drawn.editor, "update", wraps=drawn.editor.update) as update:
                drawn.choice.setCurrentIndex(second)
            self.assertTrue(update.called, block)
            with mock.patch.object(drawn.editor, "update", wraps=drawn.editor.update) as update:
                drawn.follow()  # nothing has changed
            self.assertFalse(update.called, block)

    def test_a_drag_is_one_step_of_undo(self):
        self.opened("curve")
        editor = self.page.curves.editor
        self.drag_from(editor, editor.at(0.3, 0.3), QPoint(4, 25))
        self.work.undo()
        self.settle()
        self.assertEqual(self.work.sieve.adjust.curve.curve, ())
        self.assertEqual(editor.points, ())

    def test_the_masks_own_histogram_lies_under_it(self):
        self.opened("curve", "hues", "balance")
        self.settle()
        within = self.viewing.last.within
        self.assertIsNotNone(within)
        inside = int((self.viewing.last.mask > 0.5).sum())
        self.assertAlmostEqual(within["curve"].levels[0].sum(), inside, delta=0.05 * inside)
        self.assertGreater(self.page.curves.editor._histogram.sum(), 0)
        self.window.pages.setCurrentWidget(self.window.pick)
        self.viewing.ask()
        self.settle()
        self.assertIsNone(self.viewing.last.within)

    def test_a_curve_over_hue_moves_one_hue_and_keeps_the_others(self):
        self.opened("hues")
        editor = self.page.hues.editor
        self.drag_from(editor, editor.at(200, 0), QPoint(0, -20))
        points = self.work.sieve.adjust.hues.turn_by_hue
        self.assertEqual(len(points), 3)
        self.assertEqual([value > 0 for _, value in points], [False, True, False])
        QTest.keyClick(editor, Qt.Key.Key_Home)
        self.assertEqual(self.work.sieve.adjust.hues.turn_by_hue, ())

    def test_the_disc(self):
        self.opened("balance")
        disc = self.page.balance.disc
        middle = QPointF(disc.width() / 2, disc.height() / 2)
        self.drag_from(disc, middle, QPoint(0, -40))
        held = self.work.sieve.adjust.balance
        self.assertAlmostEqual(held.midtones_hue, 90, delta=1)
        self.assertGreater(held.midtones_colour, 30)
        disc.setFocus()
        QTest.keyClick(disc, Qt.Key.Key_Up)
        QTest.keyClick(disc, Qt.Key.Key_Plus, SHIFT)
        self.assertEqual(self.work.sieve.adjust.balance.highlights_colour, 10)
        QTest.keyClick(disc, Qt.Key.Key_Home)
        self.assertEqual(self.work.sieve.adjust.balance.highlights_colour, 0)
        self.settle()
        self.assertEqual(self.troubles, [])


class ColoursTest(AdjustCase):
    def test_neutral_by_a_click_and_given_up_by_escape(self):
        self.opened("white")
        self.page.neutral.click()
        self.assertIsNotNone(self.workspace.tools.picker)
        QTest.keyClick(self.window, Qt.Key.Key_Escape)
        self.window.canvas.panes[0].setFocus()
        self.application.processEvents()
        QTest.keyClick(self.window.canvas.panes[0], Qt.Key.Key_Escape)
        self.assertIsNone(self.workspace.tools.picker)
        self.page.neutral.click()
        samples = self.work.sieve.pick.samples
        self.click(268, 576)
        self.assertEqual(self.work.sieve.pick.samples, samples)
        self.assertNotEqual(self.work.sieve.adjust.white.temperature, 0)
        self.page.neutral.click()
        self.click(742, 790)
        self.settle()
        self.assertEqual(len(self.troubles), 1 if "grey" in "".join(self.troubles) else 0)

    def test_a_target_from_the_picture_and_from_another(self):
        self.click(742, 790)
        self.opened("match")
        self.page.from_here.click()
        self.click(1205, 400)
        target = self.work.sieve.adjust.match.target
        self.assertGreater(target[2], target[0])
        show_picture(self.page, self.workspace.workers, half_demo() / "close.png", self.page._aim)
        self.settle()
        dialogs = self.page.findChildren(PictureColour)
        self.assertEqual(len(dialogs), 1)
        QTest.mouseClick(
            dialogs[0].picture,
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
            QPoint(40, 40),
        )
        self.settle()
        self.assertNotEqual(self.work.sieve.adjust.match.target, target)
        self.page.no_target.click()
        self.assertIsNone(self.work.sieve.adjust.match.target)

    def test_a_code_that_is_none_is_put_back(self):
        self.opened("match")
        self.page.target.code.setText("#12")
        self.page.target.code.editingFinished.emit()
        self.assertEqual(self.page.target.code.text(), "")
        self.page.target.code.setText("3F7C95")
        self.page.target.code.editingFinished.emit()
        self.settle()
        self.assertEqual(QColor(self.page.target.code.text()), QColor("#3F7C95"))

    def test_preview_and_export_agree_where_means_are_found(self):
        self.click(742, 790)
        self.work.set_field("adjust.match.target", (0.3, 0.1, 0.25), "Target")
        self.work.set_field("adjust.even.even_hue", 60.0, "Even hue")
        self.window.canvas.viewport.zoom_to(1.0)
        self.settle()
        self.workspace.exports.write(self.folder / "out.png")
        self.settle()
        out, last = np.asarray(Image.open(self.folder / "out.png")), self.viewing.last
        words = last.pictures["result"]
        left, top = (round(v) for v in last.origin)
        seen = np.stack([(words >> shift) & 255 for shift in (16, 8, 0)], axis=-1).astype(int)
        part = out[top : top + words.shape[0], left : left + words.shape[1], :3].astype(int)
        self.assertEqual(last.scale, 1)
        self.assertLessEqual(int(np.abs(seen - part).max()), 1)


class BelievableTest(AdjustCase):
    def judged(self):
        found = []
        self.workspace.adjust.believable_found.connect(found.append)
        self.workspace.adjust.judge()
        self.settle()
        self.workspace.adjust.believable_found.disconnect(found.append)
        return found[-1]

    def test_figures_warn_and_lead_to_the_control(self):
        self.click(742, 790)
        self.assertEqual(self.judged().moved, 0)
        self.work.set_field("adjust.recolour.saturation", 100.0, "Saturation")
        self.settle()
        wild = self.judged()
        self.assertGreater(wild.outside, 0.05)
        self.assertGreater(wild.moved, 3)
        self.assertIn("adjust.recolour.saturation", [warned.control for warned in wild.warnings])
        self.page._judged(wild)
        self.page.warned.linkActivated.emit("edge.follow")
        self.assertIs(self.window.pages.currentWidget(), self.window.edge)
        self.page.warned.linkActivated.emit("adjust.light.contrast")
        self.assertIs(self.window.pages.currentWidget(), self.page)
        self.assertTrue(self.page.blocks["light"].open)
        self.work.set_field("adjust.recolour.saturation", 0.0, "Saturation")
        self.work.set_field("adjust.even.even_lightness", 100.0, "Even")
        self.settle()
        self.assertLess(self.judged().texture, 0.5)

    def test_a_gentle_change_is_believable(self):
        self.click(742, 790)
        self.work.set_field("adjust.recolour.hue", 15.0, "Hue")
        self.work.set_field("adjust.light.exposure", -0.2, "Exposure")
        self.settle()
        found = self.judged()
        self.assertGreater(found.texture, 0.98)
        self.assertLess(found.outside, 0.02)
        self.assertEqual(
            [w.control for w in found.warnings if w.control.startswith("adjust.light")], []
        )
        self.window.canvas.set_view(1, "realism")
        self.settle()
        self.assertIn("realism", self.viewing.last.pictures)


class CdlFilesTest(FolderCase):
    def test_written_and_read_again_in_every_format(self):
        one = cdl_files.Correction("pot", (1.1, 0.9, 1.05), (0.01, -0.02, 0), (1.2, 0.8, 1), 0.7)
        for ending in cdl_files.FORMATS:
            cdl_files.write(one, self.folder / f"a{ending}")
            self.assertEqual(cdl_files.read(self.folder / f"a{ending}"), [one])

    def test_opencolorio_applying_the_file_gives_what_we_give(self):
        # Source: OpenColorIO's own reading of the file, without clamping.
        import PyOpenColorIO as ocio

        from amber_sieve.core.adjust import cdl
        from amber_sieve.core.mix import mixed

        one = cdl_files.Correction(
            "pot", (1.4, 0.8, 1.05), (0.03, -0.02, 0.01), (1.2, 0.8, 1.6), 1.3
        )
        for ending in cdl_files.FORMATS:
            path = self.folder / f"b{ending}"
            cdl_files.write(one, path)
            transform = ocio.FileTransform(str(path), "pot" if ending != ".cc" else "")
            transform.setCDLStyle(ocio.CDL_NO_CLAMP)
            processor = (
                ocio.Config.CreateRaw()
                .getProcessor(transform)
                .getOptimizedCPUProcessor(ocio.OPTIMIZATION_LOSSLESS)
            )
            pixels = np.random.default_rng(1).uniform(0, 1.5, (20, 30, 3)).astype(np.float32)
            ours = mixed(
                np.ascontiguousarray(np.moveaxis(pixels, -1, 0)),
                np.ones((20, 30), np.float32),
                cdl.steps(**cdl_files.read(path)[0].numbers),
            )
            processor.applyRGB(pixels)
            np.testing.assert_allclose(np.moveaxis(ours, 0, -1), pixels, atol=1e-5)

    def test_hostile_files_are_one_sentence(self):
        bomb = (
            '<?xml version="1.0"?><!DOCTYPE l [<!ENTITY a "aaaa"><!ENTITY b '
            '"&a;&a;">]><ColorCorrection><SOPNode><Slope>&b;</Slope></SOPNode></ColorCorrection>'
        )
        good = (
            "<ColorCorrection id='x'><SOPNode><Slope>{}</Slope><Offset>0 0 0</Offset><Power>1 1 "
            "1</Power></SOPNode></ColorCorrection>"
        )
        for k, text in enumerate(
            (
                "",
                "no xml",
                bomb,
                good.format("nan 1 1"),
                good.format("1 1"),
                good.format("inf 1 1"),
                good.format("-3 1 1"),
                good.format("1e9 1 1"),
                "<ColorCorrectionCollection></ColorCorrectionCollection>",
                "\x00\xff" * 40,
                good.format("1 1 1")[:60],
            )
        ):
            path = self.folder / f"{k}.cc"
            path.write_text(text)
            done = terminal(
                "recolour",
                half_demo() / "yard.png",
                "-o",
                self.folder / "o.png",
                "--keep",
                "371,395",
                "--cdl",
                path,
            )
            self.assertEqual(done.returncode, 1, text)
            self.assertEqual(done.stderr.count("\n"), 1, done.stderr)
            self.assertNotIn("Traceback", done.stderr)
        done = terminal(
            "recolour",
            half_demo() / "yard.png",
            "-o",
            self.folder / "o.png",
            "--keep",
            "371,395",
            "--cdl",
            "none.cdl",
        )
        self.assertEqual(done.returncode, 1)

    def test_the_terminal_takes_and_writes_a_cdl_and_every_kind_of_setting(self):
        one, two = (
            cdl_files.Correction(name, (slope,) * 3, (0, 0, 0), (1, 1, 1), 1)
            for name, slope in (("a", 0.5), ("b", 2.0))
        )
        import PyOpenColorIO as ocio

        group = ocio.GroupTransform(
            [
                ocio.CDLTransform(list(c.slope), list(c.offset), list(c.power), c.saturation)
                for c in (one, two)
            ]
        )
        for transform, name in zip(group, "ab", strict=True):
            transform.setID(name)
        (self.folder / "both.ccc").write_text(
            group.write("ColorCorrectionCollection", ocio.Config.CreateRaw())
        )
        project = self.folder / "p.sieve"
        done = terminal(
            "recolour",
            half_demo() / "yard.png",
            "-o",
            self.folder / "o.png",
            "--keep",
            "371,395",
            "--cdl",
            f"{self.folder / 'both.ccc'}#b",
            "--gamut",
            "clip",
            "--blend",
            "screen",
            "--strength",
            "80",
            "--set",
            "curve=0.2:0.1,0.7:0.8",
            "--set",
            "turn_by_hue=20:0,190:30,300:0",
            "--set",
            "target=120,60,200",
            "--set",
            "nearest=on",
            "--set",
            "fill=colour",
            "--set",
            "fill_opacity=10",
            "--save",
            project,
        )
        self.assertEqual(done.returncode, 0, done.stderr)
        held = storage.load(project)
        sieve = held.stack[0]
        self.assertEqual((held.gamut, sieve.blend, sieve.strength), ("clip", "screen", 80))
        self.assertEqual(sieve.adjust.cdl.slope_red, 2)
        self.assertEqual(sieve.adjust.curve.curve, ((0.2, 0.1), (0.7, 0.8)))
        self.assertTrue(sieve.adjust.match.nearest)
        done = terminal("cdl", project, "-o", self.folder / "out.cdl")
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertEqual(cdl_files.read(self.folder / "out.cdl")[0].slope, (2, 2, 2))
        for wrong in (
            "curve=0.5:0.5,0.2:0.1",
            "curve=1",
            "turn_by_hue=400:3",
            "target=red",
            "nearest=yes",
            "fill=sky",
            "exposure=nan",
            "nothing=1",
        ):
            done = terminal(
                "recolour",
                half_demo() / "yard.png",
                "-o",
                self.folder / "o.png",
                "--keep",
                "371,395",
                "--set",
                wrong,
            )
            self.assertEqual(done.returncode, 2, wrong)

    def test_earlier_versions_load_unchanged(self):
        path = self.folder / "old.sieve"
        path.write_text(
            '{"version": 3, "source": "a.png", "stack": [{"name": "One", "adjust": {"light": '
            '{"exposure": 1}, "mono": {"mono": 40}}}]}'
        )
        adjust = storage.load(path).stack[0].adjust
        self.assertEqual(adjust, Adjust(light={"exposure": 1}, mono={"mono": 40}))


class CdlPageTest(AdjustCase):
    def test_read_and_written_from_the_page(self):
        path = self.folder / "grade.cdl"
        self.opened("cdl")
        self.typed("slope_green", "1.5")
        self.workspace.adjust.write_cdl(path)
        self.page.blocks["cdl"].back.click()
        self.assertTrue(self.work.sieve.adjust.cdl.neutral)
        self.workspace.adjust.read_cdl(path)
        self.assertEqual(self.work.sieve.adjust.cdl.slope_green, 1.5)
        self.workspace.adjust.read_cdl(self.folder / "none.cdl")
        self.workspace.adjust.read_cdl(pathlib.Path(half_demo() / "yard.png"))
        self.assertEqual(len(self.troubles), 2)
        self.assertEqual(self.work.sieve.adjust.cdl.slope_green, 1.5)


if __name__ == "__main__":
    unittest.main()
