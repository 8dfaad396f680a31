"""Clips as the world hands them in: every frame in any order, transport streams, timecode, alpha,
thin strips.
"""

import json
import os
import pathlib
import random
import subprocess
import sys
import tempfile
import time
import unittest
from concurrent.futures import ThreadPoolExecutor
from fractions import Fraction
from unittest import mock

import av
import clip_zoo
import numpy as np
from common import ROOT, FolderCase

from amber_sieve.core.motion.movement import flow_between
from amber_sieve.errors import Trouble
from amber_sieve.export.clip import export_clip
from amber_sieve.export.pieces import export_in_pieces
from amber_sieve.media import formats
from amber_sieve.media.footage import packets
from amber_sieve.media.footage.clip import Footage
from amber_sieve.media.footage.packets import Packet, index_of
from amber_sieve.media.opening import open_source
from amber_sieve.project.model import Adjust, Fill, Project, Sieve


def ffmpeg(*words: object) -> None:
    subprocess.run(["ffmpeg", "-v", "error", "-y", *map(str, words)], check=True)


class ZooTest(unittest.TestCase):
    """All clips of `clip_zoo`, made once."""

    @classmethod
    def setUpClass(cls):
        held = tempfile.TemporaryDirectory()
        cls.addClassCleanup(held.cleanup)
        frames = clip_zoo.numbered_frames()
        with ThreadPoolExecutor(2) as pool:
            cls.clips = list(
                pool.map(
                    lambda recipe: clip_zoo.make(pathlib.Path(held.name), recipe, frames),
                    clip_zoo.recipes(),
                )
            )
            cls.wanted = list(pool.map(clip_zoo.numbers_by_ffmpeg, cls.clips))

    def test_every_frame_comes_in_every_order_as_ffmpeg_decodes_it(self):
        asked = 0
        for path, wanted in zip(self.clips, self.wanted, strict=True):
            with av.open(str(path)) as held:
                pictures = [
                    frame.to_ndarray(format="gray")
                    for frame in held.decode(held.streams.best("video"))
                ]
            every = list(range(len(wanted)))
            for name, order in (
                ("forward", every),
                ("backward", every[::-1]),
                ("random", random.Random(1).sample(every, len(every))),
            ):
                with self.subTest(clip=path.name, order=name):
                    clip = Footage(path)
                    self.assertEqual(clip.about.frames, len(wanted))
                    for number in order:
                        picture = clip.decoded(number).to_ndarray(format="gray")
                        self.assertEqual(clip_zoo.number_in(picture), wanted[number])
                        self.assertTrue(np.array_equal(picture, pictures[number]), number)
                        asked += 1
                    clip.close()
        print(f"\n    {asked} frames asked for in {len(self.clips)} clips")

    def test_no_whole_clip_is_said_to_end_early_and_times_go_on(self):
        for path in self.clips:
            with self.subTest(clip=path.name):
                clip = Footage(path)
                self.assertEqual(
                    [note for note in clip.about.notes if "interlaced" not in note], []
                )
                self.assertTrue((np.diff(clip.stamps) > 0).all())
                if path.stem == "pace":
                    continue
                length = (clip.stamps[-1] - clip.stamps[0]) * clip.time_base * clip.rate
                self.assertLess(abs(length - (len(clip.stamps) - 1)), 2)
                clip.close()

    def test_a_clip_cut_short_says_how_much_of_it_is_there(self):
        for name in ("h264.mkv", "faststart.mp4", "h264.avi"):
            path = next(path for path in self.clips if path.name == name)
            cut = path.with_stem("cut")
            cut.write_bytes(path.read_bytes()[: path.stat().st_size * 2 // 3])
            with self.subTest(name=name):
                clip = Footage(cut)
                self.assertRegex(clip.about.notes[0], r"ends early: it holds \d+ of (59|60) frames")
                clip.close()

    def test_files_of_cameras_and_recorders_are_opened_by_their_ending(self):
        for ending in (".ts", ".mpg", ".nut", ".h264", ".hevc", ".m2v"):
            path = next(path for path in self.clips if path.suffix == ending)
            self.assertEqual(open_source(path).about.kind, "clip")
        self.assertTrue(
            {".mts", ".m2ts", ".mpeg", ".vob", ".264", ".265"} <= set(formats.endings("clip"))
        )


class FieldTest(unittest.TestCase):
    def test_second_fields_that_are_packets_of_their_own_belong_to_the_frame_before(self):
        # Common practice in transport streams of interlaced H.264, no source: the first field alone
        # carries a time.
        times = [0, None, 7200, None, 3600, None]
        made = [Packet(time, k * 1800, k * 100, 90, k == 0, False) for k, time in enumerate(times)]
        index = index_of(made, Fraction(1, 90_000), Fraction(25))
        self.assertEqual((index.count, index.shown, index.stamps), (3, [0, 4, 2], [0, 3600, 7200]))
        self.assertEqual([index.place[k] for k in range(6)], [0, 0, 2, 2, 1, 1])
        # Times that are missing otherwise are not relied on.
        lost = index_of(
            [Packet(None, None, k * 100, 90, k == 0, False) for k in range(6)],
            Fraction(1, 90_000),
            Fraction(25),
        )
        self.assertEqual(
            (lost.count, lost.stamped, lost.stamps[:2], lost.time_base),
            (6, False, [0, 1], Fraction(1, 25)),
        )


def probed_timecodes(path: pathlib.Path) -> set[str]:
    """Return what ffprobe says of the timecode of a file: of its streams, itself, and its first
    frame.
    """
    words = [
        "ffprobe",
        "-v",
        "error",
        "-show_streams",
        "-show_format",
        "-show_frames",
        "-read_intervals",
        "%+#1",
        "-of",
        "json",
        path,
    ]
    held = json.loads(subprocess.run(words, capture_output=True, check=True).stdout)
    tags = [
        one.get("tags", {}) for one in (*held["streams"], *held.get("frames", ()), held["format"])
    ]
    return {words for row in tags for name, words in row.items() if name.lower() == "timecode"}


class SourceTimecodeTest(FolderCase):
    def test_it_is_read_moved_by_the_in_point_and_written_as_ffprobe_reads_it(self):
        for rate, code, wanted in (
            ("30000/1001", "01:00:59;28", "01:01:00;06"),  # two numbers of the minute are dropped
            ("30000/1001", "01:00:59:28", "01:01:00:04"),
            ("60000/1001", "23:59:59;56", "00:00:00;02"),  # midnight
            ("25", "10:00:00:24", "10:00:01:05"),
            ("24000/1001", "00:00:00:05", "00:00:00:11"),
        ):
            for ending in ("mov", "mp4", "mkv"):
                with self.subTest(rate=rate, code=code, ending=ending):
                    path = self.folder / f"in.{ending}"
                    test = f"testsrc2=size=64x48:rate={rate}:duration=0.5"
                    ffmpeg(
                        "-f",
                        "lavfi",
                        "-i",
                        test,
                        "-c:v",
                        "libx264",
                        "-pix_fmt",
                        "yuv420p",
                        "-timecode",
                        code,
                        path,
                    )
                    source = open_source(path)
                    self.assertEqual({str(source.about.timecode)}, probed_timecodes(path))
                    names = ("a.mov", "a.mp4", "a.mkv") if ending == "mov" else ("a.mov",)
                    for name in names:
                        export_clip(source, Project(), self.folder / name, (6, 9))
                        self.assertEqual(probed_timecodes(self.folder / name), {wanted}, name)
                    source.close()

    def test_numbered_pictures_hold_the_timecode_of_their_frame(self):
        path = self.folder / "in.mov"
        test = "testsrc2=size=64x48:rate=60000/1001:duration=0.3"
        ffmpeg(
            "-f",
            "lavfi",
            "-i",
            test,
            "-c:v",
            "libx264",
            "-pix_fmt",
            "yuv420p",
            "-timecode",
            "00:09:59;50",
            path,
        )
        source = open_source(path)
        for ending in ("exr", "dpx"):
            with self.subTest(ending=ending):
                export_clip(source, Project(), self.folder / f"a.####.{ending}", (8, 11))
                back = open_source(self.folder / f"a.####.{ending}")
                self.assertEqual(
                    (str(back.about.timecode), back.about.rate),
                    ("00:09:59;58", Fraction(60000, 1001)),
                )
                self.assertEqual(str(back.about_frame(3).timecode), "00:10:00;01")
                export_clip(back, Project(), self.folder / "b.mov", (1, 3))
                self.assertEqual(probed_timecodes(self.folder / "b.mov"), {"00:09:59;59"})
                light = source.frame(8).planes
                inside = ((light >= 0) & (light <= 1)).all(
                    axis=0
                )  # other light is brought into the gamut of integers
                self.assertGreater(inside.mean(), 0.3)
                self.assertLess(np.abs(back.frame(0).planes - light)[:, inside].max(), 2e-3)
        source.close()
        # Above 30 frames a second a header counts pairs of frames, which FFmpeg does not read; at
        # 25 it counts frames.
        ffmpeg(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=size=64x48:rate=25:duration=0.2",
            "-timecode",
            "10:00:00:23",
            self.folder / "c.mov",
        )
        export_clip(
            open_source(self.folder / "c.mov"), Project(), self.folder / "c.####.dpx", (1, 3)
        )
        self.assertEqual(probed_timecodes(self.folder / "c.0003.dpx"), {"10:00:01:01"})

    def test_a_clip_joined_of_pieces_keeps_it_and_one_without_gets_none(self):
        path = self.folder / "in.mov"
        test = "testsrc2=size=64x48:rate=25:duration=2"
        ffmpeg(
            "-f",
            "lavfi",
            "-i",
            test,
            "-c:v",
            "libx264",
            "-pix_fmt",
            "yuv420p",
            "-timecode",
            "10:00:00:00",
            path,
        )
        export_in_pieces(
            open_source(path), Project(source=str(path)), self.folder / "out.mov", (5, 44)
        )
        self.assertEqual(probed_timecodes(self.folder / "out.mov"), {"10:00:00:05"})
        ffmpeg(
            "-f",
            "lavfi",
            "-i",
            test,
            "-c:v",
            "libx264",
            "-pix_fmt",
            "yuv420p",
            self.folder / "none.mkv",
        )
        export_clip(open_source(self.folder / "none.mkv"), Project(), self.folder / "plain.mov")
        self.assertEqual(probed_timecodes(self.folder / "plain.mov"), set())


class AlphaTest(FolderCase):
    def test_alpha_is_read_and_kept_by_a_codec_that_holds_it_and_its_loss_is_said(self):
        test = (
            "testsrc2=size=160x96:rate=25:duration=0.2,format=yuva420p,"
            "geq=lum='lum(X,Y)':a='X*255/W'"
        )
        for name, words in (
            ("9.webm", ("-c:v", "libvpx-vp9")),
            ("8.webm", ("-c:v", "libvpx", "-auto-alt-ref", "0")),
            ("p.mov", ("-c:v", "prores_ks", "-profile:v", "4444", "-pix_fmt", "yuva444p10le")),
            ("r.mov", ("-c:v", "png", "-pix_fmt", "rgba")),
        ):
            with self.subTest(name=name):
                ffmpeg("-f", "lavfi", "-i", test, *words, self.folder / name)
                source = open_source(self.folder / name)
                ramp = np.arange(160) / 160
                np.testing.assert_allclose(source.frame(3).alpha[40], ramp, atol=0.02)
                np.testing.assert_allclose(
                    source.quick_frame(3, 2.0).alpha[20], ramp.reshape(-1, 2).mean(1), atol=0.02
                )
                self.assertIn("partly transparent: export it as ProRes 4444", source.about.notes[0])
                for project in (
                    Project(),
                    Project(stack=(Sieve(adjust=Adjust(light={"exposure": 0.5})),)),
                ):
                    export_clip(source, project, self.folder / "out.mov", codec="ProRes 4444")
                    back = open_source(self.folder / "out.mov")
                    np.testing.assert_allclose(
                        back.frame(3).alpha, source.frame(3).alpha, atol=0.01
                    )
                    back.close()
                export_clip(source, Project(), self.folder / "out.mp4")
                self.assertIsNone(open_source(self.folder / "out.mp4").frame(0).alpha)
                source.close()

    def test_what_a_sieve_makes_transparent_is_transparent_in_the_clip(self):
        ffmpeg(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=size=64x48:rate=25:duration=0.2",
            "-pix_fmt",
            "yuv420p",
            self.folder / "in.mp4",
        )
        gone = {"on": True, "corners": (-1, 0, 100, 101)}
        sieve = Sieve(
            bands={"luminance": gone},
            edge={"follow": 0, "clean": 0},
            adjust=Adjust(fill=Fill(fill="nothing")),
        )
        export_clip(
            open_source(self.folder / "in.mp4"),
            Project(stack=(sieve,)),
            self.folder / "out.mov",
            codec="ProRes 4444",
        )
        self.assertLess(open_source(self.folder / "out.mov").frame(2).alpha.max(), 0.01)


class EndlessTest(FolderCase):
    def test_what_does_not_end_is_refused_in_a_sentence(self):
        # Ten megabytes of empty units of H.264 (ITU-T H.264, 7.4.1: access unit delimiters), and
        # far more frames than bytes.
        (self.folder / "units.h264").write_bytes(b"\0\0\1\x09\x10" * 2_000_000)
        ffmpeg(
            "-f",
            "lavfi",
            "-i",
            "color=size=2x2:rate=1000:duration=3",
            "-c:v",
            "rawvideo",
            "-pix_fmt",
            "gray",
            self.folder / "many.avi",
        )
        with (
            mock.patch.object(packets, "MAX_SECONDS", 0.0),
            mock.patch.object(packets, "SECONDS_A_BYTE", 0.0),
        ):
            for name in ("units.h264", "many.avi"):
                started = time.monotonic()
                with self.assertRaisesRegex(Trouble, "does not end"):
                    open_source(self.folder / name)
                self.assertLess(time.monotonic() - started, 15)
        self.assertEqual(open_source(self.folder / "many.avi").about.frames, 3000)


class ThinTest(FolderCase):
    def test_motion_is_found_in_strips_of_few_pixels(self):
        # OpenCV's flow ended the process on strips of 16 to 24 pixels: so each size is tried in one
        # of its own.
        words = (
            "import sys, numpy as np; from amber_sieve.core.motion.movement import flow_between "
            "as f; h, w = map(int, sys.argv[1:]); "
        )
        words += (
            "one = np.random.default_rng(1).integers(0, 255, (h, w)).astype(np.uint8); assert "
            "f(one, one).shape == (h, w, 2)"
        )
        env = os.environ | {"PYTHONPATH": str(ROOT / "src")}
        for height, width in ((16, 96), (272, 17), (24, 768), (2, 32_000), (1, 1), (20, 2000)):
            done = subprocess.run(
                [sys.executable, "-c", words, str(height), str(width)], capture_output=True, env=env
            )
            self.assertEqual((done.returncode, done.stderr), (0, b""), (height, width))
        rng = np.random.default_rng(2)
        one = np.repeat(np.repeat(rng.integers(0, 255, (6, 40)), 8, 0), 8, 1).astype(np.uint8)
        self.assertAlmostEqual(
            float(np.median(flow_between(one, np.roll(one, 3, axis=1))[..., 0])), 3, delta=0.3
        )

    def test_sides_beyond_what_can_be_followed_are_refused_in_a_sentence(self):
        ffmpeg(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=size=2x65534:rate=25:duration=0.1",
            "-c:v",
            "ffv1",
            self.folder / "tall.mkv",
        )
        with self.assertRaisesRegex(
            Trouble, "is 2 x 65534 pixels: clips of up to 32766 on a side are read"
        ):
            open_source(self.folder / "tall.mkv")


if __name__ == "__main__":
    unittest.main()
