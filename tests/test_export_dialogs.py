"""The dialogs of export and batch: contents first, what fits them, formats by name, what is left
out, and what is remembered.
"""

import re
from unittest import mock

from common import DEMO, WindowCase
from PIL import Image
from PyQt6 import sip
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QDialog, QFileDialog

from amber_sieve.desk.dialogs.batch_dialog import BatchDialog
from amber_sieve.desk.dialogs.export_dialog import ExportDialog
from amber_sieve.export.batch import BatchHow, run_batch
from amber_sieve.export.still_options import Export
from amber_sieve.project.controls import left_out_of_cdl
from amber_sieve.project.model import Adjust, Cdl, Project, Recolour, Sieve


def shut(dialog: QDialog) -> None:
    """Close a dialog that is open still."""
    if not sip.isdeleted(dialog):
        dialog.close()


class ExportDialogTest(WindowCase):
    def export(self, command: str = "export") -> ExportDialog:
        self.window.menus.actions[command].trigger()
        dialog = next(one for one in self.window.findChildren(ExportDialog) if one.isVisible())
        self.addCleanup(shut, dialog)
        return dialog

    def test_a_lookup_table_of_a_clip_is_one(self):
        self.open(DEMO / "clip.mp4")
        dialog = self.export("export lookup")
        self.assertEqual((dialog.kind, dialog.ending), ("lookup table", ".cube"))
        self.assertFalse(dialog.many)
        self.assertFalse(dialog.frames.isEnabled())
        dialog.folder = self.folder
        dialog.fields.pattern.setText("look")
        dialog.export.click()
        self.settle()
        self.assertIn("LUT_3D_SIZE", (self.folder / "look.cube").read_text())
        self.assertEqual(self.troubles, [])

    def test_contents_say_which_frames_fit(self):
        self.open(DEMO / "clip.mp4")
        dialog = self.export()
        self.assertTrue(dialog.many)
        for what, many, free in (
            ("cut-out", False, False),
            ("result", True, True),
            ("result and mask", True, False),
            ("colour decision list", False, False),
            ("mask", True, True),
        ):
            dialog.what.setCurrentIndex(dialog.what.findData(what))
            self.assertEqual((dialog.many, dialog.frames.isEnabled()), (many, free), what)
            self.assertGreater(dialog.format_choice.count(), 0)

    def test_formats_are_found_by_the_names_people_say(self):
        self.open(DEMO / "yard.png")
        dialog = self.export()
        for words, what, ending in (
            ("cube", "lookup table", ".cube"),
            ("cdl", "colour decision list", ".cdl"),
            ("matte", "mask", None),
            ("exr", None, ".exr"),
        ):
            QTest.keyClicks(dialog.search, words)
            dialog.search.returnPressed.emit()
            self.assertIn(dialog.kind, (what, dialog.kind if what is None else what), words)
            self.assertEqual(dialog.ending, ending or dialog.ending, words)

    def test_codecs_are_found_from_a_single_frame_too(self):
        self.open(DEMO / "clip.mp4")
        dialog = self.export()
        dialog.frames.setCurrentIndex(0)
        QTest.keyClicks(dialog.search, "ProRes 4444")
        dialog.search.returnPressed.emit()
        self.assertEqual((dialog.kind, dialog.many), ("result and mask", True))
        self.assertEqual(dialog.chosen_depth, "ProRes 4444")
        self.assertIn(".mov", dialog.example.text())

    def test_a_cdl_says_what_it_leaves_out(self):
        turned = Adjust(recolour=Recolour(hue=90.0), cdl=Cdl(slope_red=1.2))
        self.assertEqual(left_out_of_cdl(Sieve(adjust=turned)), ["Recolour"])
        self.assertEqual(left_out_of_cdl(Sieve(adjust=Adjust(cdl=Cdl(slope_red=1.2)))), [])
        self.open(DEMO / "yard.png")
        self.work.set_field("adjust.recolour.hue", 90.0, "Hue")
        dialog = self.export()
        dialog.what.setCurrentIndex(dialog.what.findData("colour decision list"))
        self.assertIn("Left out: Recolour", dialog.example.text())
        dialog.folder = self.folder
        dialog.fields.pattern.setText("look")
        dialog.export.click()
        self.settle()
        self.assertIn("<Slope>", (self.folder / "look.cdl").read_text())
        self.assertIn("left out: Recolour", self.window.status.message.text())


class BatchDialogTest(WindowCase):
    def batch(self) -> BatchDialog:
        self.window.menus.actions["batch"].trigger()
        dialog = next(one for one in self.window.findChildren(BatchDialog) if one.isVisible())
        self.addCleanup(shut, dialog)
        return dialog

    def test_a_batch_has_presets_size_name_and_remembers_them(self):
        self.open(DEMO / "close.png")
        dialog = self.batch()
        chosen = ([str(DEMO / "close.png")], "")
        with mock.patch.object(QFileDialog, "getOpenFileNames", return_value=chosen):
            dialog.choose.click()
        out = str(self.folder / "out")
        (self.folder / "out").mkdir()
        with mock.patch.object(QFileDialog, "getExistingDirectory", return_value=out):
            dialog.into.click()
        dialog.presets.setCurrentIndex(1)  # for the web
        dialog.presets.activated.emit(1)
        self.assertEqual((dialog.how.ending, dialog.how.form.size), (".jpg", 50))
        dialog.fields.pattern.setText("{nothing}")
        self.assertFalse(dialog.begin.isEnabled())
        dialog.fields.pattern.setText("{name}-web")
        dialog.begin.click()
        self.settle()
        whole, made = (
            Image.open(path).size
            for path in (DEMO / "close.png", self.folder / "out" / "close-web.jpg")
        )
        self.assertEqual(made, tuple(round(side / 2) for side in whole))
        again = self.batch()
        self.assertEqual(again.into.text(), out)
        self.assertEqual((again.how.ending, again.how.pattern), (".jpg", "{name}-web"))
        self.assertEqual(self.troubles, [])

    def test_the_second_run_says_what_it_reuses_and_pictures_are_links(self):
        for name in ("one", "two & three"):
            Image.new("RGB", (60, 40), (120, 60, 30)).save(self.folder / f"{name}.png")
        pictures = sorted(self.folder.glob("*.png"))
        project, out = Project(stack=(Sieve(id="a"),)), self.folder / "out"
        how = BatchHow(".jpg", Export(quality=60, size=50))
        self.assertEqual(
            [one.reused for one in run_batch(project, pictures, out, how)], [False] * 2
        )
        self.assertEqual([one.reused for one in run_batch(project, pictures, out, how)], [True] * 2)
        page = (out / "batch.html").read_text()
        self.assertIn("2 of them by an earlier run", page)
        links = re.findall(r'<a href="(file:[^"]+)">', page)
        self.assertEqual(len(links), 4)
        self.assertTrue(any(link.endswith("two%20%26%20three.jpg") for link in links))
        other = BatchHow(".jpg", Export(quality=61, size=50))
        made = run_batch(project, pictures, out, other)
        self.assertEqual([one.reused for one in made], [False] * 2)

    def test_a_size_that_cannot_be_written_is_said_and_shows_what_a_preset_sets(self):
        Image.new("RGB", (9000, 2)).save(self.folder / "wide.png")
        how = BatchHow(".jpg", Export(size=400))
        project = Project(stack=(Sieve(id="a"),))
        told = run_batch(project, [self.folder / "wide.png"], self.folder / "out", how)[0].trouble
        self.assertIn("ask for less than", told)
        self.open(DEMO / "close.png")
        dialog = self.batch()
        self.assertTrue(dialog.fields.metadata.isVisible() and dialog.fields.filter.isVisible())

    def test_stop_says_that_it_stops(self):
        self.open(DEMO / "clip.mp4")
        status = self.window.status
        self.workspace.exports.write(self.folder / "long.mov")
        status.stop.click()
        self.assertEqual(status._bar.format(), "Stopping…")
        self.assertFalse(status.stop.isEnabled())
        self.settle()
        self.assertEqual(list(self.folder.iterdir()), [])
