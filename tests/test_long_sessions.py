"""Sessions, not acts: kills at random moments, many pictures, playing while exporting, closing in
the middle, what is asked of clips in the window.
"""

import os
import pathlib
import random
import sys
import unittest
from unittest import mock

import numpy as np
from common import DEMO, ROOT, FolderCase, WindowCase
from made import raw_file
from PIL import Image, ImageCms
from PyQt6.QtTest import QTest

from amber_sieve.core.frame import Frame
from amber_sieve.desk.dialogs.reading_dialog import ReadingDialog
from amber_sieve.errors import Trouble
from amber_sieve.export import pieces
from amber_sieve.export.clip import ClipExport
from amber_sieve.export.many import done_in_any_order
from amber_sieve.files import folder_beside, made_folder, mark_of, sweep_parts
from amber_sieve.live.playing import KEPT
from amber_sieve.media.colour import profiles
from amber_sieve.media.opening import open_source
from amber_sieve.media.stills.thumbnails import thumbnail
from amber_sieve.progress import Cancelled, Progress
from amber_sieve.project.model import Project
from amber_sieve.read_settings import Reading
from amber_sieve.workspace.document import tray as trays

sys.path.insert(0, str(ROOT / "tools"))


class KillTest(unittest.TestCase):
    def test_nothing_is_lost_broken_or_left_about(self):
        # The whole of it, a hundred kills, is `tools/killed.py`.
        import killed

        before = dict(os.environ)
        try:
            rng = random.Random(11)
            for kind in killed.WORK:
                with self.subTest(kind=kind):
                    self.assertEqual(killed.once(kind, rng), [])
        finally:
            os.environ.clear()
            os.environ.update(before)


class FolderBesideTest(FolderCase):
    def test_it_goes_in_any_case_and_is_swept_after_a_kill(self):
        with self.assertRaises(ValueError), folder_beside(self.folder / "a.mov") as inside:
            (inside / "piece.mov").write_bytes(b"x")
            raise ValueError
        self.assertEqual(list(self.folder.iterdir()), [])
        with (
            mock.patch("amber_sieve.files.shutil.rmtree"),
            mock.patch("pathlib.Path.unlink"),
            mock.patch("os.getpid", return_value=2**22 + 5),
            folder_beside(self.folder / "b.mov") as inside,
        ):
            (inside / "piece.mov").write_bytes(b"x")
        self.assertTrue(inside.is_dir())  # as if it had been killed
        import time

        sweep_parts(time.time() + 120)
        self.assertFalse(inside.exists())
        with self.assertRaises(Trouble), folder_beside(self.folder / "none" / "c.mov"):
            pass

    def test_a_failed_join_leaves_the_earlier_file_and_no_pieces(self):
        source = open_source(DEMO / "clip.mp4")
        out = self.folder / "out.mov"
        out.write_bytes(b"earlier")
        full = mock.patch(
            "amber_sieve.media.footage.joining.join",
            side_effect=OSError(28, "No space left on device"),
        )
        project = Project(source=str(DEMO / "clip.mp4"))
        with full, self.assertRaisesRegex(Trouble, "could not be written"):
            pieces.export_in_pieces(source, project, out, (0, 1), "ProRes 422 HQ", jobs=2)
        self.assertEqual([path.name for path in self.folder.iterdir()], ["out.mov"])
        self.assertEqual(out.read_bytes(), b"earlier")
        source.close()

    def test_pieces_cover_every_frame_once(self):
        for first, last, workers in ((0, 0, 2), (5, 28, 2), (0, 999, 4), (3, 15, 8)):
            cut = pieces.cut(first, last, workers)
            self.assertEqual(
                [n for one, other in cut for n in range(one, other + 1)],
                list(range(first, last + 1)),
            )

    def test_a_mark_knows_a_file_wherever_it_lies(self):
        one, other = self.folder / "a.bin", self.folder / "b.bin"
        one.write_bytes(bytes(range(256)) * 1000)
        other.write_bytes(one.read_bytes())
        self.assertEqual(mark_of(one), mark_of(other))
        other.write_bytes(one.read_bytes()[:-1] + b"x")
        self.assertNotEqual(mark_of(one), mark_of(other))
        self.assertEqual(mark_of(self.folder / "none"), "")
        (self.folder / "file").write_bytes(b"")
        with self.assertRaises(Trouble):
            made_folder(self.folder / "file" / "x", "presets")


class ManyTest(unittest.TestCase):
    def test_the_same_results_in_one_process_and_in_two(self):
        given = [(number,) for number in range(12)]
        one, two = (
            {done.number: done.answer for done in done_in_any_order(pow2, given, jobs)}
            for jobs in (1, 2)
        )
        self.assertEqual(one, two)
        self.assertEqual(one[5], 32)

    def test_progress_rests_and_stops(self):
        progress = Progress()
        progress.pause(True)
        self.assertTrue(progress.paused)
        progress.cancel()
        with self.assertRaises(Cancelled):
            progress.step(0.5)  # a stop wakes what rests


def pow2(number: int) -> int:
    return 2**number


class FramesTest(FolderCase):
    def test_neighbours_and_quick_frames(self):
        source = open_source(DEMO / "clip.mp4")
        frame = source.frame(4)
        self.assertTrue(np.array_equal(frame.near(1).planes, source.frame(5).planes))
        self.assertIsNone(frame.near(-5))
        self.assertIsNone(frame.near(76))
        small = frame.reduced(2).part(10, 20, 110, 90)
        self.assertTrue(
            np.array_equal(
                small.near(-1).planes, source.frame(3).reduced(2).part(10, 20, 110, 90).planes
            )
        )
        quick, careful = source.quick_frame(4, 2.5), frame.reduced(2.5)
        self.assertEqual(
            (quick.width, quick.height, quick.whole_size),
            (careful.width, careful.height, (960, 540)),
        )
        near, far = (np.sqrt(np.clip(one.planes, 0, None)) for one in (quick, careful))
        self.assertLess(np.abs(near - far).mean(), 0.01)
        source.close()
        self.assertIsNone(Frame(np.zeros((3, 2, 2), np.float32)).near)

    def test_a_profile_with_another_name_is_the_same_profile(self):
        import io

        for name in profiles.NAMES:
            renamed = profiles.with_description(profiles.named(name), "Something else")
            held = ImageCms.ImageCmsProfile(io.BytesIO(renamed))
            self.assertEqual(ImageCms.getProfileDescription(held).strip(), "Something else")
            grey = Image.new("RGB", (1, 1), (90, 140, 200))
            pair = [
                ImageCms.profileToProfile(
                    grey, ImageCms.ImageCmsProfile(io.BytesIO(one)), ImageCms.createProfile("sRGB")
                )
                for one in (renamed, profiles.named(name))
            ]
            self.assertEqual(pair[0].getpixel((0, 0)), pair[1].getpixel((0, 0)))

    def test_small_pictures_of_what_cannot_be_read(self):
        for name in ("a.jpg", "a.png", "a.mp4"):
            (self.folder / name).write_bytes(b"nothing")
            with self.assertRaises(Trouble):
                thumbnail(self.folder / name)


class LongTest(WindowCase):
    own_window = True

    def pictures(self, count: int) -> list[pathlib.Path]:
        base = Image.open(DEMO / "yard.png").resize((600, 400))
        paths = []
        for number in range(count):
            paths.append(self.folder / f"p{number:02}.png")
            base.rotate(number).save(paths[-1])
        return paths

    def test_many_pictures_stay_small_in_memory(self):
        with mock.patch.object(trays, "STAY_OPEN", 3 * 600 * 400 * trays.BYTES_A_PIXEL):
            self.workspace.pictures.open_many(self.pictures(12))
            self.settle()
            for entry in self.workspace.tray.entries:
                self.workspace.pictures.go_to(entry)
                self.settle()
            opened = [entry for entry in self.workspace.tray.entries if entry.opened is not None]
            self.assertEqual(len(opened), 4)  # the one in the window, and three more
            self.assertIs(opened[-1], self.workspace.tray.current)
            others = round(
                3 * 600 * 400 * trays.BYTES_A_PIXEL
            )  # what they take, the stages may not
            allowed = round(self.workspace.preferences.values.cache_megabytes * 1e6)
            self.assertEqual(
                (self.workspace.tray.bytes_behind, self.workspace.workers.cache.limit),
                (others, allowed - others),
            )
            self.assertTrue(
                all(
                    entry.glimpse is not None and entry.thumbnail is not None
                    for entry in self.workspace.tray.entries[:-1]
                )
            )
        self.assertEqual(self.troubles, [])

    def test_playing_exporting_switching_and_undoing_at_once(self):
        self.workspace.pictures.open_many([DEMO / "clip.mp4", *self.pictures(2)])
        self.settle()
        clip, one, _ = self.workspace.tray.entries
        self.click(280, 450)
        self.work.set_field("adjust.mono.mono", 100.0, "Grey")
        self.settle()
        self.workspace.exports.write_frames(
            self.folder / "a.mov", (0, 7), "ProRes 422 HQ", ClipExport()
        )
        allowed = self.workspace.workers.cache.limit
        self.workspace.playback.start()
        self.assertEqual(
            self.workspace.workers.cache.limit, max(allowed - KEPT, allowed // 4)
        )  # finished pictures have their part
        QTest.qWait(200)
        self.workspace.pictures.go_to(one)
        self.work.set_field("adjust.light.exposure", 1.0, "Exposure")
        self.work.undo()
        self.workspace.pictures.go_to(clip)
        self.workspace.playback.start()
        QTest.qWait(150)
        self.work.undo()
        self.workspace.pictures.close([one])
        self.settle()
        self.assertEqual(
            (self.workspace.playback.playing, self.workspace.workers.cache.limit), (False, allowed)
        )
        held = open_source(self.folder / "a.mov")
        self.assertEqual(held.about.frames, 8)
        self.assertLess(
            np.ptp(held.frame(3).planes[:, 400:430, 230:260], axis=0).mean(), 0.02
        )  # as it was when it was asked for
        held.close()
        self.assertEqual(self.work.sieve.adjust.mono.mono, 0.0)
        self.assertEqual(self.troubles, [])

    def test_closing_while_everything_runs(self):
        self.workspace.pictures.open_many([DEMO / "clip.mp4", *self.pictures(4)])
        self.workspace.clip.watch(True)
        self.workspace.exports.write_frames(self.folder / "a.mp4", None, "H.264", ClipExport())
        self.workspace.exports.write_frames(self.folder / "b.mp4", None, "H.264", ClipExport())
        QTest.qWait(300)
        self.workspace.playback.start()
        QTest.qWait(100)
        self.workspace.close()
        self.assertEqual(
            [
                path.name
                for path in self.folder.iterdir()
                if path.suffix == ".mp4" or path.name.startswith(".")
            ],
            [],
        )
        self.assertEqual(self.troubles, [])

    def test_a_raw_file_is_balanced_by_a_click_and_a_clip_read_otherwise(self):
        mosaic = np.full((48, 64), 1000)
        mosaic[::2, ::2] = 1600
        raw_file(self.folder / "a.dng", mosaic)
        self.open(self.folder / "a.dng")
        self.window.colours.show_reading()
        dialog = self.window.findChildren(ReadingDialog)[-1]
        red, green, _ = self.work.light_at(30, 20)
        self.assertGreater(red / green, 1.2)
        dialog.pick.click()
        self.click(30, 20)
        self.assertAlmostEqual(*self.work.light_at(30, 20)[:2], delta=0.02)
        self.assertRegex(dialog.white.text(), "from 3[01], 2[01]")
        self.assertEqual(self.work.sieve.pick.samples, ())  # the click picked nothing else
        dialog.as_shot.click()
        self.settle()
        self.assertGreater(self.work.light_at(30, 20)[0], self.work.light_at(30, 20)[1])
        dialog.close()
        self.open(DEMO / "clip.mp4")
        before = self.work.light_at(200, 200)
        self.window.colours.show_reading()
        dialog = self.window.findChildren(ReadingDialog)[-1]
        combo = dialog.streams["curve"]
        combo.setCurrentIndex(combo.findText("PQ"))
        combo.activated.emit(combo.currentIndex())
        self.settle()
        self.assertEqual(self.work.opened.reading.curve, "PQ")
        self.assertNotEqual(self.work.light_at(200, 200), before)
        self.assertEqual(
            open_source(DEMO / "clip.mp4", Reading(curve="PQ")).about.tags["curve"], "PQ"
        )
        self.work.undo()
        self.settle()
        self.assertEqual(self.work.light_at(200, 200), before)
        dialog.close()
        self.assertEqual(self.troubles, [])


if __name__ == "__main__":
    unittest.main()
