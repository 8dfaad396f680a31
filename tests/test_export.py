"""What leaves and what comes in: the export dialog, cut-outs, masks as channels, raw files, JPEG
XL, and projects in sentences.
"""

import unittest
from unittest import mock

import imagecodecs
import numpy as np
import OpenImageIO as oiio
from common import DEMO, FolderCase, WindowCase, demo_frame, rendered_whole, terminal, truth
from made import raw_file
from PIL import Image
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QMessageBox

from amber_sieve.core.frame import Frame
from amber_sieve.desk.dialogs.export_dialog import ExportDialog
from amber_sieve.errors import Trouble
from amber_sieve.export import still_options as export
from amber_sieve.export.frame import finished, leaving, strips_of
from amber_sieve.live.sampling import sample_at
from amber_sieve.media import stills
from amber_sieve.media.opening import open_source
from amber_sieve.media.source import About
from amber_sieve.project import storage
from amber_sieve.project.model import (
    Adjust,
    Area,
    Detail,
    Edge,
    Fill,
    Joined,
    Light,
    Pick,
    Project,
    Recolour,
    Sieve,
)
from amber_sieve.render.explain import explained
from amber_sieve.render.stages.every import EDGE


class RawTest(FolderCase):
    def test_size_orientation_and_linear_values(self):
        # Source: the DNG specification's own reading of black, white and colour matrix, by LibRaw.
        mosaic = np.full((48, 64), 1000)
        mosaic[:, 32:] = 2000
        raw_file(self.folder / "a.dng", mosaic, orientation=6)
        source = open_source(self.folder / "a.dng")
        self.assertEqual(source.about.size, (48, 64))  # turned by a quarter
        planes = source.frame(0).planes
        np.testing.assert_allclose(planes[:, 10:22, 10:-10], 1000 / 4095, atol=2e-4)
        np.testing.assert_allclose(planes[:, 42:54, 10:-10], 2000 / 4095, atol=2e-4)

    def test_broken_ones_are_one_sentence(self):
        mosaic = np.full((48, 64), 1000)
        raw_file(self.folder / "good.dng", mosaic)
        data = (self.folder / "good.dng").read_bytes()
        for k, part in enumerate((b"", b"no raw", data[:200], data[: len(data) // 2])):
            path = self.folder / f"{k}.nef"
            path.write_bytes(part)
            done = terminal("info", path)
            self.assertIn(done.returncode, (0, 1))
            self.assertNotIn("Traceback", done.stderr)
            self.assertLessEqual(done.stderr.count("\n"), 1)

    def test_jpeg_xl(self):
        pixels = np.asarray(Image.open(DEMO / "yard.png"))[300:400, 500:640]
        (self.folder / "a.jxl").write_bytes(imagecodecs.jpegxl_encode(pixels, lossless=True))
        planes = open_source(self.folder / "a.jxl").frame(0).planes
        np.testing.assert_allclose(
            planes, demo_frame("yard").planes[:, 300:400, 500:640], atol=1e-5
        )


class ExportTest(FolderCase):
    def project(self) -> Project:
        jar = Area(kind="ellipse", points=((740, 800), (860, 800), (740, 920)), feather=3)
        return Project(
            source=str(DEMO / "yard.png"),
            stack=(
                Sieve(
                    id="jar", name="The jar", areas=(jar,), adjust=Adjust(light=Light(exposure=0.5))
                ),
                Sieve(
                    id="rest",
                    name="The rest",
                    mask_from="same",
                    of=("jar",),
                    opposite=True,
                    adjust=Adjust(light=Light(exposure=-0.5)),
                ),
            ),
        )

    def write(self, name: str, **how) -> list:
        source = open_source(DEMO / "yard.png")
        self.addCleanup(source.close)
        return export.export(
            source, self.project(), "jar", self.folder / name, export.Export(**how)
        )

    def test_every_mask_as_channels_of_one_file_or_as_files(self):
        (path,) = self.write("masks.exr", what="every mask")
        held = oiio.ImageInput.open(str(path))
        self.assertEqual(tuple(held.spec().channelnames), ("The_jar", "The_rest"))
        pixels = held.read_image("float")
        held.close()
        np.testing.assert_allclose(pixels.sum(axis=-1), 1, atol=1e-6)
        names = [path.name for path in self.write("masks.png", what="every mask")]
        self.assertEqual(names, ["masks-The-jar.png", "masks-The-rest.png"])

    def test_a_cut_out_of_a_sieve_that_is_off(self):
        held = self.project()
        for off in ({"on": False}, {"strength": 0.0}, {"adjust": Adjust()}):
            cut = export.with_cut_out(held.with_sieve(held.sieve("jar").but(**off)), "jar")
            alpha = rendered_whole(demo_frame("yard"), cut).alpha
            self.assertEqual((alpha[800, 740], alpha[10, 10]), (1, 0), off)

    def test_a_cut_out_has_alpha(self):
        self.write("cut.png", what="cut-out", depth="uint16")
        read = stills.read(self.folder / "cut.png").picture
        self.assertAlmostEqual(float(read.alpha[800, 740]), 1, places=3)
        self.assertEqual(float(read.alpha[10, 10]), 0)
        np.testing.assert_allclose(
            read.planes[:, 800, 740],
            demo_frame("yard").planes[:, 800, 740] * 2**0.5 * 2**-0.0,
            rtol=0.02,
        )

    def test_sizes_depth_and_metadata(self):
        for size, wanted in ((50, (900, 600)), (10, (180, 120)), (150, (2700, 1800))):
            self.write("a.tif", size=float(size), depth="uint16")
            self.assertEqual(stills.read(self.folder / "a.tif").about.size, wanted)
        small = stills.read(self.folder / "a.tif").about
        self.assertEqual(small.depth, "uint16")
        self.write("a.png")
        whole = stills.read(self.folder / "a.png").picture.planes
        self.write("b.png", size=25.0)
        reduced = stills.read(self.folder / "b.png").picture.planes
        self.assertLess(np.abs(reduced.mean((1, 2)) - whole.mean((1, 2))).max(), 1e-3)

    def test_a_hole_lies_before_white_where_there_is_no_alpha(self):
        hole = Project(
            stack=(
                Sieve(
                    areas=(Area(kind="rect", points=((50, 50), (80, 50), (50, 80))),),
                    adjust=Adjust(fill=Fill(fill="nothing")),
                ),
            )
        )
        source = open_source(DEMO / "yard.png")
        self.addCleanup(source.close)
        for name in ("hole.jpg", "hole.png"):
            export.export(source, hole, hole.stack[0].id, self.folder / name, export.Export())
        self.assertGreater(np.asarray(Image.open(self.folder / "hole.jpg"))[50, 50].min(), 250)
        self.assertEqual(np.asarray(Image.open(self.folder / "hole.png"))[50, 50, 3], 0)

    def test_names(self):
        self.assertEqual(
            export.name_from("{name}-{sieve}-{frame}", DEMO / "yard.png", "a/b", 7), "yard-a-b-0007"
        )
        for wrong in ("", "{nothing}", "  . ", "a/b", "a\\b"):
            with self.assertRaises(Trouble):
                export.name_from(wrong, DEMO / "yard.png", "x")


class LeavingTest(unittest.TestCase):
    def test_a_picture_worked_out_row_by_row_is_the_finished_one(self):
        """With outlines unmixed, detail, filling, holes, a backdrop, several sieves, and nothing to
        do.
        """
        frame = Frame(
            np.ascontiguousarray(demo_frame("yard").planes[:, 60:560, 900:1500])
        )  # cloth with its fringe, wall, post
        source = stills.Still(
            About(DEMO / "yard.png", "still", (frame.width, frame.height), "uint8"), frame
        )
        pick, edge = Pick(samples=(sample_at(frame, 305, 340, tolerance=12),)), Edge(follow=12)
        light, detailed = Light(exposure=1), Detail(blur=3, grain=30)
        gradient, behind = (
            Fill(fill="gradient", fill_blend="screen"),
            Fill(fill="colour", fill_where="behind"),
        )
        kinds = {
            "recoloured": [Adjust(recolour=Recolour(hue=60))],
            "with detail": [Adjust(light=light, detail=detailed)],
            "filled": [Adjust(fill=gradient)],
            "filled with detail": [Adjust(fill=gradient, detail=detailed)],
            "a hole": [Adjust(fill=Fill(fill="nothing"))],
            "a backdrop": [Adjust(light=light, fill=behind)],
            "two": [Adjust(light=light), Adjust(recolour=Recolour(hue=90), detail=detailed)],
            "nothing": [Adjust()],
        }
        for name, adjusts in kinds.items():
            with self.subTest(name):
                project = Project(
                    stack=tuple(
                        Sieve(name=str(n), pick=pick, edge=edge, adjust=adjust)
                        for n, adjust in enumerate(adjusts)
                    )
                )
                whole, made = finished(source, project).result, leaving(source, project)
                rows = np.concatenate([planes for _, planes in strips_of(made.result)], axis=1)
                np.testing.assert_array_equal(rows, whole.planes)
                np.testing.assert_array_equal(
                    *(
                        np.zeros(1) if alpha is None else alpha
                        for alpha in (made.alpha, whole.alpha)
                    )
                )
                self.assertEqual((rows != frame.planes).any(), name not in ("nothing", "a hole"))


class ExportDialogTest(WindowCase):
    def test_everything_is_chosen_seen_and_written(self):
        self.open(DEMO / "yard.png")
        self.click(742, 790)
        self.window.exports.show_export()
        dialog = next(child for child in self.window.findChildren(ExportDialog))
        self.settle()
        seen = dialog.picture.picture.pixmap().toImage()
        self.assertEqual((seen.width(), seen.height()), (360, 240))
        dialog.what.setCurrentIndex(1)
        self.settle()
        self.assertNotEqual(dialog.picture.picture.pixmap().toImage(), seen)
        dialog.folder = self.folder
        dialog.what.setCurrentIndex(2)
        self.assertNotIn(
            "JPEG  .jpg",
            [dialog.format_choice.itemText(k) for k in range(dialog.format_choice.count())],
        )
        dialog.fields.size_number.set(50)
        dialog.fields.pattern.clear()
        QTest.keyClicks(dialog.fields.pattern, "{nothing}")
        self.assertFalse(dialog.export.isEnabled())
        dialog.fields.pattern.clear()
        QTest.keyClicks(dialog.fields.pattern, "{name}-{sieve}")
        self.assertIn("yard-Sieve 1.png", dialog.example.text())
        self.assertIn("900 × 600", dialog.example.text())
        dialog.export.click()
        self.settle()
        alpha = np.asarray(Image.open(self.folder / "yard-Sieve 1.png"))[..., 3] / 255
        self.assertAlmostEqual(alpha.mean(), float(truth("yard", "turquoise").mean()), delta=0.006)
        # Writing over something is asked.
        self.window.exports.show_export()
        dialog = self.window.findChildren(ExportDialog)[-1]
        dialog.folder = self.folder
        dialog.fields.pattern.setText("yard-Sieve 1")
        with mock.patch.object(
            QMessageBox, "question", return_value=QMessageBox.StandardButton.No
        ) as asked:
            dialog.export.click()
        self.assertEqual(asked.call_count, 1)
        dialog.close()
        self.assertEqual(self.troubles, [])

    def dialog(self) -> ExportDialog:
        self.window.exports.show_export()
        dialog = self.window.findChildren(ExportDialog)[-1]
        dialog.folder = self.folder
        self.settle()
        return dialog

    def test_presets_of_exports(self):
        self.open(DEMO / "close.png")
        dialog = self.dialog()
        dialog.presets.box.setCurrentIndex(1)
        dialog.presets.box.activated.emit(1)
        self.assertEqual(
            (dialog.ending, dialog.how.profile, dialog.how.size, dialog.how.metadata),
            (".jpg", "sRGB", 50.0, False),
        )
        self.assertIn("about", dialog.example.text())
        dialog.fields.quality.set(61)
        dialog.fields.filter.setCurrentIndex(3)
        with mock.patch(
            "amber_sieve.desk.dialogs.preset_row.QInputDialog.getText",
            return_value=("Small ones", True),
        ):
            dialog.presets.store.click()
        dialog.close()
        dialog = self.dialog()
        at = dialog.presets.box.findText("Small ones")
        self.assertGreater(at, 0)
        dialog.presets.box.setCurrentIndex(at)
        dialog.presets.box.activated.emit(at)
        self.assertEqual((dialog.how.quality, dialog.how.filter), (61, "cubic"))
        dialog.fields.pattern.setText("small")
        dialog.export.click()
        self.settle()
        about = stills.read(self.folder / "small.jpg").about
        self.assertEqual(about.size, tuple(round(side / 2) for side in self.work.size))
        dialog = self.dialog()
        dialog.presets.box.setCurrentIndex(at)
        dialog.presets.box.activated.emit(at)
        dialog.presets.remove.click()
        self.assertEqual(dialog.presets.box.findText("Small ones"), -1)
        dialog.close()
        self.assertEqual(self.troubles, [])

    def test_a_lookup_table_is_shown_beside_the_real_result(self):
        self.open(DEMO / "yard.png")
        self.click(742, 790)
        self.work.set_field("adjust.recolour.hue", 120.0, "Hue")
        self.settle()
        dialog = self.dialog()
        dialog.what.setCurrentIndex(4)
        self.settle()
        self.assertFalse(dialog.picture.beside.pixmap().isNull())
        self.assertIn("largest ΔE2000", dialog.picture.said.text())
        self.assertIn(
            "Left out: Sieve 1: a cleaned source, specks",
            dialog.picture.said.text(),
        )
        self.assertEqual(dialog.chosen_depth, "33")
        dialog.depth_choice.setCurrentIndex(0)
        self.settle()
        dialog.fields.pattern.setText("table")
        dialog.export.click()
        self.settle()
        self.assertIn("LUT_3D_SIZE 17", (self.folder / "table.cube").read_text()[:200])
        self.assertEqual(self.troubles, [])

    def test_frames_of_a_clip_as_a_clip_and_as_pictures(self):
        self.open(DEMO / "clip.mp4")
        self.workspace.clip.go_to(4)
        self.workspace.clip.set_between(4, 6)
        self.settle()
        dialog = self.dialog()
        self.assertEqual(dialog.frames.currentText(), "From in to out point")
        self.assertIn("3 frames", dialog.example.text())
        dialog.what.setCurrentIndex(dialog.what.findData("result and mask"))
        dialog.format_choice.setCurrentIndex(
            next(k for k in range(9) if dialog.format_choice.itemText(k).endswith(".mov"))
        )
        self.assertEqual(
            [dialog.depth_choice.itemText(k) for k in range(dialog.depth_choice.count())],
            ["ProRes 4444"],
        )
        dialog.fields.pattern.setText("alpha")
        dialog.export.click()
        self.settle()
        clip = open_source(self.folder / "alpha.mov")
        self.assertEqual(
            (clip.about.frames, clip.about.depth),
            (3, "yuva444p12le" if "12" in clip.about.depth else "yuva444p10le"),
        )
        clip.close()
        dialog = self.dialog()
        dialog.what.setCurrentIndex(1)
        dialog.format_choice.setCurrentIndex(
            dialog.format_choice.findText("PNG, numbered  .####.png")
        )
        dialog.fields.pattern.setText("mask")
        dialog.export.click()
        self.settle()
        self.assertEqual(len(list(self.folder.glob("mask.*.png"))), 3)
        dialog = self.dialog()
        dialog.frames.setCurrentIndex(0)
        dialog.format_choice.setCurrentIndex(0)
        dialog.fields.pattern.setText("still-{frame}")
        dialog.export.click()
        self.settle()
        self.assertTrue((self.folder / "still-0004.png").exists())
        self.assertEqual(self.troubles, [])

    def test_a_lookup_table_and_a_batch_from_the_window(self):
        self.open(DEMO / "yard.png")
        self.click(742, 790)
        self.work.set_field("adjust.light.exposure", 0.5, "Exposure")
        said = []
        self.workspace.speech.wrote.connect(lambda words, _: said.append(words))
        self.workspace.exports.write_lookup(self.folder / "t.cube", 17)
        self.settle()
        self.assertIn("mean ΔE2000", said[-1])
        for name in ("a.png", "b.png"):
            Image.open(DEMO / "yard.png").crop((600, 600, 900, 900)).save(self.folder / name)
        (self.folder / "c.png").write_bytes(b"x")
        self.workspace.exports.run_batch(
            [self.folder / name for name in ("a.png", "b.png", "c.png")], self.folder / "out"
        )
        self.settle()
        self.assertEqual(len(list((self.folder / "out").glob("*.png"))), 2)
        self.assertEqual(len(self.troubles), 1)


class ExplainTest(FolderCase):
    def test_each_control_of_the_edge_is_told_of_once(self):
        edge = Edge(
            black=5,
            specks=20,
            holes=0,
            grow=3,
            feather=2,
            smooth=1,
            follow=6,
            sensitivity=30,
            fine=4,
            steady=50,
            clean="auto",
            hard=True,
        )
        (line,) = explained(Project(stack=(Sieve(name="One", edge=edge),)))
        for words in (
            "black point 5 %",
            "remove specks up to 20 px",
            "grow 3 px",
            "feather 2 px",
            "colour separation 30 %",
            "hair and fringe 4 px",
            "steady over time 50 %",
            "hard edge",
        ):
            self.assertEqual(line.count(words), 1, words)
        self.assertIn("and clean found on the picture", line)
        stands_for = [name for stage in EDGE for name in (*stage.does, *stage.settings)]
        self.assertEqual(
            sorted(stands_for), sorted(Edge.model_fields)
        )  # no field without a stage, none with two

    def test_every_sieve_in_sentences(self):
        project = ExportTest.project(ExportTest())
        project = project.with_sieve(
            project.sieve("rest").but(
                joined=(Joined(mode="add", of="jar"),), strength=60, blend="multiply"
            )
        )
        lines = explained(project)
        self.assertEqual(len(lines), 2)
        self.assertIn("«The jar» masks nothing yet", lines[0])
        self.assertIn("Areas: ellipse (intersect)", lines[0])
        self.assertIn("light: exposure 0.5 stops", lines[0])
        self.assertIn("the same as «The jar», turned round", lines[1])
        self.assertIn("blended by multiply and at a strength of 60 %", lines[1])
        storage.save(project, self.folder / "p.sieve")
        done = terminal("explain", self.folder / "p.sieve")
        self.assertEqual(done.stdout.count("«The jar»"), 3)


if __name__ == "__main__":
    unittest.main()
