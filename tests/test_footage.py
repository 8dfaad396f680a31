"""Footage for a grader: playing in time, coverage over time, timecode, every codec out, pieces
joined, seeks that hit their frame.
"""

import contextlib
import functools
import json
import os
import pathlib
import re
import signal
import subprocess
import sys
import time
import unittest
from concurrent.futures import ThreadPoolExecutor
from fractions import Fraction
from unittest import mock

import av
import cv2
import distributed
import numpy as np
from common import DEMO, FolderCase, WindowCase, rendered_whole, terminal, truth
from made import everything
from PIL import Image
from PyQt6.QtCore import QPoint, Qt, qInstallMessageHandler
from PyQt6.QtTest import QTest

from amber_sieve.core.frame import Frame
from amber_sieve.desk.dialogs.jobs_dialog import JobsDialog
from amber_sieve.errors import Trouble
from amber_sieve.export.clip import ClipExport, export_clip
from amber_sieve.export.pieces import export_in_pieces
from amber_sieve.live import small_frames
from amber_sieve.live.small_frames import SmallFrames
from amber_sieve.live.watching import Course, WatchedFrame, jumps
from amber_sieve.media import formats
from amber_sieve.media.footage.clip import Footage
from amber_sieve.media.opening import open_source
from amber_sieve.media.timecode import first_timecode, from_text, from_word
from amber_sieve.progress import Progress
from amber_sieve.project import storage
from amber_sieve.project.model import Adjust, Band, Bands, Mono, Recolour, Sieve
from amber_sieve.read_settings import Reading


def probed(path: pathlib.Path) -> dict:
    """What ffprobe says of a file."""
    words = [
        "ffprobe",
        "-v",
        "error",
        "-show_streams",
        "-show_format",
        "-count_frames",
        "-of",
        "json",
        str(path),
    ]
    return json.loads(subprocess.run(words, capture_output=True, text=True, check=True).stdout)


def small_clip(folder: pathlib.Path) -> pathlib.Path:
    """The demo clip, small, with its sound."""
    path = folder / "small.mp4"
    words = [
        "ffmpeg",
        "-v",
        "error",
        "-i",
        DEMO / "clip.mp4",
        "-vf",
        "scale=320:180",
        "-crf",
        "12",
        "-c:a",
        "copy",
        path,
    ]
    subprocess.run(words, check=True)
    return path


class TimecodeTest(unittest.TestCase):
    @staticmethod
    def code(number: int, rate: Fraction) -> str:
        return str(first_timecode(rate).after(number))

    def test_numbers_are_dropped_as_the_standard_has_it(self):
        # Source: SMPTE ST 12-1, worked examples from memory: at 29.97, frame 1800 is 00:01:00;02
        # and 17982 is 00:10:00;00.
        ntsc = Fraction(30000, 1001)
        for number, words in (
            (0, "00:00:00;00"),
            (1799, "00:00:59;29"),
            (1800, "00:01:00;02"),
            (17981, "00:09:59;29"),
            (17982, "00:10:00;00"),
        ):
            self.assertEqual(self.code(number, ntsc), words)
        self.assertEqual(self.code(107892, ntsc), "01:00:00;00")
        self.assertEqual(self.code(3600, Fraction(60000, 1001)), "00:01:00;04")
        for rate in (24, 25, 30, 50):
            self.assertEqual(self.code(rate * 3661 + 7, Fraction(rate)), "01:01:01:07")
        self.assertEqual(self.code(24, Fraction(24000, 1001)), "00:00:01:00")

    def test_every_frame_has_a_code_of_its_own(self):
        codes = [self.code(number, Fraction(30000, 1001)) for number in range(20_000)]
        self.assertEqual(len(set(codes)), len(codes))
        self.assertFalse(
            any(
                code.endswith((";00", ";01")) and code[6:8] == "00" and code[4] != "0"
                for code in codes
            )
        )

    def test_texts_and_words_of_headers_are_read_as_they_were_written(self):
        # Source of the word: SMPTE ST 12-1, two decimal digits a byte, from memory: 01:02:03:04 is
        # 0x01020304.
        self.assertEqual(
            from_word(0x01020304, Fraction(25)), from_text("01:02:03:04", Fraction(25))
        )
        for rate in (
            Fraction(24),
            Fraction(25),
            Fraction(30000, 1001),
            Fraction(50),
            Fraction(60000, 1001),
        ):
            day = first_timecode(rate).after(-1).frames
            for frames in (0, 1, 1799, 1800, 17982, 107892, 107893, day // 3, day):
                code = first_timecode(rate).after(frames)
                self.assertEqual(from_text(str(code), rate), code)
                self.assertEqual(from_word(code.word, rate), code)
            self.assertEqual(str(first_timecode(rate).after(day + 1)), str(first_timecode(rate)))
        for text in (
            "",
            "1:00:00:00",
            "24:00:00:00",
            "00:60:00:00",
            "00:00:00:25",
            "00:00:61:00",
            "words",
        ):
            self.assertIsNone(from_text(text, Fraction(25)), text)
        for word in (0xFFFFFFFF, 0x0A000000, 0x0000000A, 0xFDFDFDFE):
            self.assertIsNone(from_word(word, Fraction(25)), word)


class WatchingTest(unittest.TestCase):
    def test_jumps_and_flicker(self):
        steady = {number: 0.2 + 0.002 * np.sin(number) for number in range(40)}
        self.assertEqual(jumps(steady), [])
        self.assertEqual(jumps(steady | {17: 0.05, 18: 0.05}), [17])
        self.assertEqual(jumps({}), [])
        one, other = np.zeros((4, 4), np.uint8), np.zeros((4, 4), np.uint8)
        one[:2], other[1:3] = 255, 255
        course = Course()
        course.add(0, WatchedFrame(0.5, 0, one))
        course.add(1, WatchedFrame(0.5, 0, other))
        self.assertAlmostEqual(course.flicker(1), 100.0)
        self.assertEqual(course.flicker(0), 0.0)


class ExportTest(FolderCase):
    def test_every_codec_keeps_frames_sound_and_tags(self):
        source = open_source(small_clip(self.folder))
        sound = any(
            stream["codec_type"] == "audio" for stream in probed(DEMO / "clip.mp4")["streams"]
        )
        for ending, codec in [
            (f.endings[0], codec) for f in formats.FORMATS if f.kind == "clip" for codec in f.writes
        ]:
            with self.subTest(ending=ending, codec=codec):
                path = self.folder / f"out{ending}"
                self.assertEqual(
                    export_clip(
                        source, everything(Adjust(recolour=Recolour(hue=40))), path, (3, 8), codec
                    ),
                    6,
                )
                held = probed(path)
                video = next(
                    stream for stream in held["streams"] if stream["codec_type"] == "video"
                )
                self.assertEqual(int(video["nb_read_frames"]), 6)
                self.assertAlmostEqual(
                    float(video.get("duration") or held["format"]["duration"]), 6 / 24, delta=0.06
                )
                self.assertIn(video.get("color_space"), ("bt709", "smpte170m", "bt470bg"))
                self.assertEqual(
                    any(stream["codec_type"] == "audio" for stream in held["streams"]), sound
                )
                back, wanted = open_source(path), finished_of(source, 5)
                far = np.abs(coded(back.frame(2).planes) - coded(wanted))
                self.assertLess(np.median(far), 3.0, codec)
                back.close()

    def test_quality_makes_smaller_files(self):
        source = open_source(DEMO / "clip.mp4")
        sizes = []
        for quality in (30, 90):
            export_clip(
                source,
                everything(Adjust(mono=Mono(mono=100))),
                self.folder / "a.mp4",
                (0, 5),
                "H.264",
                how=ClipExport(quality=quality),
            )
            sizes.append((self.folder / "a.mp4").stat().st_size)
        self.assertLess(sizes[0] * 2, sizes[1])

    def test_the_mask_as_alpha_and_as_a_channel(self):
        source = open_source(DEMO / "clip.mp4")
        project = everything(Adjust()).but(
            stack=(
                Sieve(name="Top", bands=Bands(luminance=Band(on=True, corners=(40, 60, 100, 101)))),
            )
        )
        how = ClipExport("result and mask")
        export_clip(source, project, self.folder / "a.mov", (0, 1), "ProRes 4444", how=how)
        with av.open(str(self.folder / "a.mov")) as held:
            planes = next(held.decode(video=0)).to_ndarray(format="rgba64le")
        export_clip(source, project, self.folder / "m.####.png", (0, 1), how=ClipExport("mask"))
        mask = np.asarray(Image.open(self.folder / "m.0000.png")) / 65535
        self.assertLess(np.abs(planes[..., 3] / 65535 - mask).mean(), 0.01)
        export_clip(
            source,
            project,
            self.folder / "e.####.exr",
            (0, 1),
            how=ClipExport("result and mask", depth="half"),
        )
        import OpenImageIO as oiio

        held = oiio.ImageInput.open(str(self.folder / "e.0001.exr"))
        self.assertEqual(tuple(held.spec().channelnames), ("R", "G", "B", "Top"))
        held.close()
        # Going on where it stopped leaves what is there.
        (self.folder / "m.0000.png").write_bytes(b"mine")
        export_clip(
            source, project, self.folder / "m.####.png", (0, 2), how=ClipExport("mask", resume=True)
        )
        self.assertEqual((self.folder / "m.0000.png").read_bytes(), b"mine")
        self.assertTrue((self.folder / "m.0002.png").exists())


class ReadingTest(FolderCase):
    def made(self, name: str, *words: str, before: tuple[str, ...] = ()) -> pathlib.Path:
        path = self.folder / name
        subprocess.run(
            [
                "ffmpeg",
                "-v",
                "error",
                *before,
                "-i",
                DEMO / "clip.mp4",
                "-frames:v",
                "6",
                "-an",
                *words,
                path,
            ],
            check=True,
        )
        return path

    def test_rotation_is_undone_and_written_upright(self):
        plain = self.made("plain.mp4")
        turned = self.folder / "turned.mp4"
        subprocess.run(
            [
                "ffmpeg",
                "-v",
                "error",
                "-i",
                plain,
                "-c",
                "copy",
                "-metadata:s:v:0",
                "rotate=90",
                turned,
            ],
            check=True,
        )
        source = open_source(turned)
        self.assertEqual(source.about.size, (540, 960))
        # Source: ffmpeg itself, which turns what it decodes.
        subprocess.run(
            ["ffmpeg", "-v", "error", "-i", turned, "-frames:v", "1", self.folder / "theirs.png"],
            check=True,
        )
        theirs = np.asarray(Image.open(self.folder / "theirs.png"))
        far = np.abs(coded(source.frame(0).planes).transpose(1, 2, 0) - theirs)
        self.assertEqual(theirs.shape[:2], (960, 540))
        self.assertLess(np.median(far), 2)
        export_clip(
            source, everything(Adjust(recolour=Recolour(hue=10))), self.folder / "out.mp4", (0, 2)
        )
        self.assertEqual(open_source(self.folder / "out.mp4").about.size, (540, 960))

    def test_interlaced_is_said_and_deinterlaced_when_asked(self):
        # A striped disc crosses a still, textured ground, a field every 48th of a second; FFmpeg
        # weaves the fields to frames.
        rng = np.random.default_rng(2)
        ground = cv2.GaussianBlur(rng.uniform(40, 215, (180, 320)), (0, 0), 1.5)
        shown = []
        for number in range(16):
            picture = ground.copy()
            cv2.circle(picture, (60 + 8 * number, 90), 30, 250, -1)
            cv2.circle(picture, (60 + 8 * number, 90), 18, 20, -1)
            shown.append(picture)
            Image.fromarray(np.repeat(picture[..., None], 3, 2).astype(np.uint8)).save(
                self.folder / f"f{number:03}.png"
            )
        path = self.folder / "i.mkv"
        weave = [
            "-vf",
            "tinterlace=interleave_top,fieldorder=tff",
            "-c:v",
            "ffv1",
            "-pix_fmt",
            "yuv444p",
            "-r",
            "24",
            "-field_order",
            "tt",
        ]
        subprocess.run(
            ["ffmpeg", "-v", "error", "-r", "48", "-i", self.folder / "f%03d.png", *weave, path],
            check=True,
        )
        source, whole = open_source(path), open_source(path, Reading(deinterlaced=True))
        self.assertEqual(source.about.tags["lines"], "interlaced")
        self.assertIn("interlaced", " ".join(source.about.notes))
        self.assertEqual(whole.about.notes, ())
        for number in (4, 1, 7, 0):
            raw, made, wanted = (
                coded(source.frame(number).planes)[1],
                coded(whole.frame(number).planes)[1],
                shown[2 * number],
            )
            left, right = 30 + 16 * number, 100 + 16 * number
            combed, mended = (
                np.abs(p[55:125, left:right] - wanted[55:125, left:right]).mean()
                for p in (raw, made)
            )
            print(
                f"    frame {number}: where it moves {combed:.1f} levels off, deinterlaced "
                f"{mended:.1f}"
            )
            self.assertLess(mended, 0.5 * combed)
            # Where nothing moves both fields are woven: the ground keeps its fine lines.
            still = np.abs(made[:50, :] - wanted[:50, :]).mean()
            self.assertLess(still, 1.5 if number not in (0, 7) else 6)
        export_clip(
            source=whole,
            project=everything(Adjust(mono=Mono(mono=100))),
            path=self.folder / "w.mkv",
            codec="FFV1",
        )
        far = np.abs(
            coded(open_source(self.folder / "w.mkv").frame(4).planes) - coded(whole.frame(4).planes)
        )
        self.assertLess(far.mean(), 1.0)
        source.close()
        whole.close()

    def test_what_the_stream_says_can_be_overruled(self):
        path = self.made("a.mkv", "-c:v", "ffv1")
        said = open_source(path).frame(0).planes
        for reading in (
            Reading(matrix="BT.601"),
            Reading(range="full"),
            Reading(curve="PQ"),
            Reading(primaries="BT.2020"),
        ):
            self.assertGreater(
                np.abs(open_source(path, reading).frame(0).planes - said).max(), 0.01, reading
            )
        with self.assertRaisesRegex(Trouble, "choose one of"):
            open_source(path, Reading(curve="none"))

    def test_gaps_in_a_sequence_are_said(self):
        for number in (1, 2, 5):
            Image.new("RGB", (8, 8), (number, 0, 0)).save(self.folder / f"s.{number:04}.png")
        source = open_source(self.folder / "s.####.png")
        self.assertEqual(source.about.frames, 3)
        self.assertIn("lacks 2 of its pictures (3, 4)", source.about.notes[0])


class PiecesTest(FolderCase):
    def frames_of(self, path: pathlib.Path) -> list[bytes]:
        with av.open(str(path)) as held:
            return [frame.to_ndarray(format="rgb48le").tobytes() for frame in held.decode(video=0)]

    def test_pieces_are_the_same_frames_with_the_sound_joined_without_encoding_again(self):
        clip = small_clip(self.folder)
        project = everything(Adjust(recolour=Recolour(hue=40))).but(source=str(clip))
        storage.save(project, self.folder / "p.sieve")
        for name, codec in (("a.mov", "ProRes 422 HQ"), ("a.mp4", "H.264"), ("a.mkv", "H.264")):
            with self.subTest(name=name):
                plain, joined = self.folder / f"plain-{name}", self.folder / f"joined-{name}"
                export_clip(open_source(clip), project, plain, (5, 28), codec)
                done = terminal(
                    "render",
                    self.folder / "p.sieve",
                    "-o",
                    joined,
                    "--codec",
                    codec,
                    "--jobs",
                    2,
                    "--frames",
                    "5-28",
                )
                self.assertEqual((done.returncode, done.stderr), (0, ""))
                one, other = self.frames_of(plain), self.frames_of(joined)
                self.assertEqual(len(one), 24)
                self.assertEqual(len(other), 24)
                if codec != "H.264":
                    self.assertEqual(one, other)
                with av.open(str(plain)) as left, av.open(str(joined)) as right:
                    stamps = [
                        sorted(
                            p.pts * p.time_base for p in held.demux(video=0) if p.pts is not None
                        )
                        for held in (left, right)
                    ]
                    np.testing.assert_allclose(
                        [float(v) for v in stamps[1]], [float(v) for v in stamps[0]], atol=2e-3
                    )
                kinds = [
                    sorted(stream["codec_name"] for stream in probed(path)["streams"])
                    for path in (plain, joined)
                ]
                self.assertEqual(*kinds)
        self.assertEqual(
            [path.name for path in self.folder.iterdir() if path.name.startswith(".")], []
        )

    def test_two_workers_of_a_cluster_one_killed(self):
        clip = small_clip(self.folder)
        project = everything(Adjust(mono=Mono(mono=100))).but(source=str(clip))
        source = open_source(clip)
        export_clip(source, project, self.folder / "plain.mov", (0, 35), "ProRes 422 HQ")
        killed = []
        with farm(self.folder) as (address, workers):

            def step(share: float, left: float | None) -> None:
                if share > 0.2 and not killed:
                    killed.append(workers[0].pid)
                    os.killpg(workers[0].pid, signal.SIGKILL)

            export_in_pieces(
                source,
                project,
                self.folder / "farm.mov",
                (0, 35),
                "ProRes 422 HQ",
                Progress(step),
                scheduler=address,
            )
            # As from a terminal, by the worker that is left.
            storage.save(project, self.folder / "p.sieve")
            words = (
                "render",
                self.folder / "p.sieve",
                "-o",
                self.folder / "words.mov",
                "--frames",
                "0-35",
                "--codec",
                "ProRes 422 HQ",
            )
            done = terminal(*words, "--scheduler", address, "--page", self.folder / "who.html")
            self.assertEqual((done.returncode, done.stderr), (0, ""))
            said = (self.folder / "who.html").read_text()
            self.assertTrue("<h1>words.mov: 36 frames</h1>" in said)
            self.assertEqual(re.findall(r"frames (\d+) to (\d+)", said)[0][0], "0")
            self.assertEqual(
                len(set(re.findall(r"\((\d+)\)</td>", said))), 1, "only one worker is left"
            )
            still = (
                "render",
                self.folder / "p.sieve",
                "-o",
                self.folder / "one.png",
                "--frames",
                "3",
            )
            for given, complaint in (
                (
                    (*words, "--page", self.folder / "who.html"),
                    "it goes with --jobs or --scheduler",
                ),
                ((*words, "--jobs", 2, "--page", self.folder / "words.mov"), "is the clip itself"),
                ((*still, "--page", self.folder / "who.html"), "--page goes with clips"),
            ):
                refused = terminal(*given)
                self.assertEqual((refused.returncode, refused.stderr.count("\n")), (1, 1))
                self.assertIn(complaint, refused.stderr)
        self.assertEqual(len(killed), 1)
        self.assertEqual(
            self.frames_of(self.folder / "plain.mov"), self.frames_of(self.folder / "words.mov")
        )
        self.assertEqual(
            self.frames_of(self.folder / "plain.mov"), self.frames_of(self.folder / "farm.mov")
        )


@contextlib.contextmanager
def farm(folder: pathlib.Path):
    """A Dask scheduler that has nothing but Dask, and two workers that have the program, as
    processes of their own.
    """
    dask = pathlib.Path(sys.executable).with_name("dask")
    bare = {name: value for name, value in os.environ.items() if name != "PYTHONPATH"}
    told = folder / "scheduler.json"

    def started(*words: object, environment: dict[str, str]) -> subprocess.Popen:
        return subprocess.Popen(
            [dask, *map(str, words)],
            env=environment,
            cwd=folder,
            start_new_session=True,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )

    processes = [
        started(
            "scheduler", "--port", 0, "--no-dashboard", "--scheduler-file", told, environment=bare
        )
    ]
    try:
        end = time.monotonic() + 60
        while not (told.exists() and told.read_text().endswith("}")) and time.monotonic() < end:
            time.sleep(0.1)
        address = json.loads(told.read_text())["address"]
        ours = os.environ | {"PYTHONPATH": str(DEMO.parent / "src")}
        workers = [
            started("worker", address, "--nthreads", 1, "--no-dashboard", environment=ours)
            for _ in range(2)
        ]
        processes += workers
        with distributed.Client(address) as client:
            client.wait_for_workers(2, timeout=60)
        yield address, workers
    finally:
        for process in processes:
            with contextlib.suppress(ProcessLookupError):
                os.killpg(process.pid, signal.SIGKILL)
            process.wait()


def finished_of(source, number: int) -> np.ndarray:
    return rendered_whole(
        source.frame(number), everything(Adjust(recolour=Recolour(hue=40)))
    ).planes


def coded(planes: np.ndarray) -> np.ndarray:
    from amber_sieve.core.colour.transfer import encode

    return 255 * encode(np.clip(planes, 0, 1))


class SeekTest(FolderCase):
    def test_two_hundred_random_seeks_hit_their_frame(self):
        # Source: the clip itself, decoded from its start.
        long_gop = self.folder / "long.mp4"
        variable = self.folder / "vfr.mkv"
        subprocess.run(
            [
                "ffmpeg",
                "-v",
                "error",
                "-i",
                DEMO / "clip.mp4",
                "-an",
                "-vf",
                "scale=160:90",
                "-g",
                "250",
                "-bf",
                "3",
                long_gop,
            ],
            check=True,
        )
        words = "scale=160:90,setpts='if(lt(N,40),N/24,40/24+(N-40)/10)/TB'"
        subprocess.run(
            [
                "ffmpeg",
                "-v",
                "error",
                "-i",
                DEMO / "clip.mp4",
                "-an",
                "-vf",
                words,
                "-fps_mode",
                "vfr",
                "-g",
                "60",
                variable,
            ],
            check=True,
        )
        rng = np.random.default_rng(4)
        for path in (long_gop, variable):
            source = open_source(path)
            every = [source.frame(number).planes.copy() for number in range(source.about.frames)]
            for number in rng.integers(0, source.about.frames, 200):
                self.assertTrue(
                    np.array_equal(source.frame(int(number)).planes, every[number]),
                    (path.name, number),
                )
            source.close()

    def test_one_decoded_frame_is_converted_by_many_threads_at_once(self):
        # What converts a frame is kept with it: without a lock this ended the whole program.
        whole = self.folder / "rgb.mkv"
        subprocess.run(
            [
                "ffmpeg",
                "-v",
                "error",
                "-i",
                DEMO / "clip.mp4",
                "-an",
                "-frames:v",
                "4",
                "-pix_fmt",
                "bgr0",
                "-c:v",
                "ffv1",
                whole,
            ],
            check=True,
        )
        for path in (whole, DEMO / "clip.mp4"):
            source = open_source(path)
            source.frame(3)  # the ones before it were decoded on the way, and are kept
            alone = [source.quick_frame(1, 2.0).planes, source.frame(1).planes]
            with ThreadPoolExecutor(4) as threads:
                quick = [functools.partial(source.quick_frame, 1, 2.0)] * 30
                fine = [functools.partial(source.frame, 1)] * 30
                turns = [one for pair in zip(quick, fine, strict=True) for one in pair]
                for made in threads.map(lambda turn: turn(), turns):
                    self.assertTrue(np.array_equal(made.planes, alone[made.scale == 1]), path.name)
            source.close()


class SmallFramesTest(unittest.TestCase):
    """What is kept of footage that is slow to decode, for playing."""

    def frame(self, number: int) -> Frame:
        planes = np.random.default_rng(number).random((3, 20, 30), dtype=np.float32) * np.float32(
            3
        ) - np.float32(0.2)
        return Frame(planes, None, ("frame", number), 0.25, (0, 0), (120, 80))

    def test_frames_come_back_as_they_were(self):
        small = SmallFrames(10**6)
        self.assertTrue(small.keep("a", 4, self.frame(4), 0, 9))
        back = small.take("a", 4)
        np.testing.assert_allclose(back.planes, self.frame(4).planes, rtol=2**-10, atol=1e-6)
        self.assertEqual((back.key, back.scale, back.whole), (("frame", 4), 0.25, (120, 80)))
        far = Frame(np.full((3, 2, 2), 9e5, np.float32))
        self.assertTrue(small.keep("a", 5, far, 0, 9))
        self.assertTrue(np.isfinite(small.take("a", 5).planes).all())
        self.assertFalse(small.keep("a", 6, Frame(far.planes, np.ones((2, 2), np.float32)), 0, 9))
        self.assertIsNone(small.take("b", 4))
        small.keep("b", 1, self.frame(1), 0, 9)
        self.assertFalse(small.holds("a", 4))
        small.let_go()
        self.assertIsNone(small.take("b", 1))

    def test_those_that_are_played_soonest_stay(self):
        small = SmallFrames(3 * 20 * 30 * 2 * 4)  # four frames
        for number in (6, 7, 0, 3, 8, 5):
            small.keep("a", number, self.frame(number), 6, 9)
        self.assertEqual([n for n in range(9) if small.holds("a", n)], [0, 6, 7, 8])
        self.assertFalse(small.keep("a", 5, self.frame(5), 6, 9))
        self.assertTrue(small.keep("a", 5, self.frame(5), 4, 9))
        self.assertEqual([n for n in range(9) if small.holds("a", n)], [5, 6, 7, 8])
        self.assertFalse(SmallFrames(10).keep("a", 0, self.frame(0), 0, 9))


#: Plays something for the first time while what is left of closed things waits to be collected,
#: sooner or later in that moment.
FIRST_PLAYED = """
import gc, os, pathlib
from PyQt6.QtWidgets import QToolButton
from amber_sieve.desk.app import application
from amber_sieve.desk.window.open_window import open_window
from amber_sieve.workspace.clip.sound import Sound
from amber_sieve.workspace.workspace import Workspace
running, window = application(), open_window(Workspace())
window.show()
running.processEvents()
# A lock that a loading thread holds would stay locked in a fork of this process.
while not window.workspace.workers.recents.idle:
    running.processEvents()
gc.collect()
gc.disable()
for _ in range(5):
    closed = QToolButton()
    closed.show()
    closed.itself = closed
del closed
ends = []
for objects in range(50, 700, 50):
    child = os.fork()
    if not child:
        gc.enable()
        gc.set_threshold(objects + gc.get_count()[0], 100, 100)
        Sound(pathlib.Path("clip.mp4"), 0.0)
        os._exit(0)
    ends.append(os.waitpid(child, 0)[1])
print(ends, flush=True)
os._exit(0)
"""


class PlayTest(WindowCase):
    own_window = True

    def test_what_is_collected_while_something_is_played_for_the_first_time_ends_nothing(self):
        done = subprocess.run(
            [sys.executable, "-c", FIRST_PLAYED], capture_output=True, text=True, timeout=120
        )
        self.assertEqual(done.stdout.strip(), str([0] * 13), done.stderr[-500:])

    def test_it_plays_in_time_stops_where_it_is_and_keeps_to_in_and_out(self):
        self.open(DEMO / "clip.mp4")
        self.click(280, 450)
        said = []
        self.workspace.speech.said.connect(said.append)
        line = self.window.timeline
        line.bar.setFocus()
        self.workspace.clip.go_to(20)
        QTest.keyClick(line.bar, Qt.Key.Key_BracketLeft)
        self.workspace.clip.go_to(30)
        QTest.keyClick(line.bar, Qt.Key.Key_BracketRight)
        self.assertEqual(self.work.between, (20, 30))
        self.settle()
        numbers = []
        self.work.frame_changed.connect(lambda: numbers.append(self.work.number))
        QTest.keyClick(line.bar, Qt.Key.Key_Space)
        end = time.monotonic() + 20
        while self.workspace.playback.shown < 30 and time.monotonic() < end:
            QTest.qWait(5)
        self.assertTrue(self.workspace.playback.playing)
        self.assertGreaterEqual(self.workspace.playback.shown, 30)
        self.assertLessEqual(set(numbers), set(range(20, 31)))
        # What is changed while it plays is seen in what plays on.
        self.work.set_field("adjust.mono.mono", 100.0, "Grey")
        QTest.qWait(400)
        QTest.keyClick(line.bar, Qt.Key.Key_Space)
        self.settle()
        self.assertFalse(self.workspace.playback.playing)
        self.assertIn("Played", " ".join(said))
        self.assertEqual(self.viewing.last.wanted.number, self.work.number)
        QTest.keyClick(line.bar, Qt.Key.Key_BracketLeft)
        self.assertEqual(
            self.work.between, (self.work.number, 30) if self.work.number not in (20,) else (0, 30)
        )
        self.assertRegex(line.label.text(), r"\d\d:\d\d:\d\d:\d\d")
        # Closing, and opening something else, while it plays.
        self.workspace.playback.start()
        QTest.qWait(50)
        self.open(DEMO / "close.png")
        self.assertFalse(self.workspace.playback.playing)
        self.assertEqual(self.troubles, [])

    def test_footage_that_is_slow_to_decode_is_made_small_while_nobody_waits(self):
        quick, decoded, quiet, small = (
            Footage.quick_frame,
            [],
            self.workspace.quiet_frames,
            self.workspace.playback.small,
        )

        def slow(footage, number: int, factor: float):
            decoded.append(number)
            time.sleep(0.05)
            return quick(footage, number, factor)

        def until(done) -> None:
            end = time.monotonic() + 60
            while not done() and time.monotonic() < end:
                QTest.qWait(20)
            self.assertTrue(done())

        with mock.patch.object(Footage, "quick_frame", slow):
            quiet._task._timer.setInterval(50)
            self.open(DEMO / "clip.mp4")
            until(lambda: quiet.idle and len(decoded) >= 80)
            self.assertEqual(decoded, list(range(80)))
            decoded.clear()
            playback = self.workspace.playback
            playback.start()
            until(lambda: playback.shown > 20)
            self.work.set_field("adjust.mono.mono", 100.0, "Grey")
            until(lambda: playback.shown > 40)
            self.assertEqual(
                decoded, [], "nothing is decoded again, also when something else is to be seen"
            )
            playback.stop()
            self.settle()
            about = playback.about
            self.assertTrue(small.holds(about, 20))
            # Between other points others are played: what is there already is not made again.
            small.let_go()
            self.workspace.clip.set_between(30, 33)
            until(lambda: quiet.idle and small.holds(about, 33))
            self.assertFalse(small.holds(about, 20))
            decoded.clear()
            self.workspace.clip.set_between(30, 34)
            until(lambda: quiet.idle and small.holds(about, 34))
            self.assertEqual(decoded, [34])
            self.open(DEMO / "close.png")
            self.assertFalse(small.holds(about, 20))
            self.assertTrue(quiet.idle)
            # Opened and closed again while they are made.
            self.open(DEMO / "clip.mp4")
            until(lambda: len(decoded) > 2)
            self.workspace.pictures.close_all()
            self.settle()
            until(lambda: quiet.idle)
            self.assertLess(len(decoded), 80)
        self.assertEqual(self.troubles, [])

    def test_footage_that_is_quick_to_decode_is_not_kept(self):
        with mock.patch.object(small_frames, "SLOW", 5.0):
            self.workspace.quiet_frames._task._timer.setInterval(10)
            self.open(DEMO / "clip.mp4")
            end = time.monotonic() + 20
            while not self.workspace.quiet_frames.idle and time.monotonic() < end:
                QTest.qWait(10)
            self.workspace.playback.start()
            while self.workspace.playback.shown < 10 and time.monotonic() < end:
                QTest.qWait(10)
            playback = self.workspace.playback
            playback.stop()
            self.assertFalse(
                any(playback.small.holds(playback.about, number) for number in range(80))
            )

    def test_footage_that_cannot_be_decoded_at_its_rate_plays_slower_and_shows_what_it_makes(self):
        self.open(DEMO / "clip.mp4")
        playback, quick, said, numbers = self.workspace.playback, Footage.quick_frame, [], []
        self.workspace.speech.said.connect(said.append)
        self.work.frame_changed.connect(lambda: numbers.append(self.work.number))

        def slow(footage: Footage, number: int, factor: float) -> Frame:
            time.sleep(0.12)  # eight frames a second
            return quick(footage, number, factor)

        playback.loop = False
        self.workspace.clip.go_to(50)
        self.settle()
        numbers.clear()
        with mock.patch.object(Footage, "quick_frame", slow):
            playback.start()
            started = end = time.monotonic()
            while playback.playing and end - started < 40:
                QTest.qWait(5)
                end = time.monotonic()
        self.assertFalse(playback.playing)
        self.assertEqual(playback.shown + playback.left_out, 30)
        self.assertGreater(playback.shown, 12, "it does not stand still")
        self.assertGreater(playback.dropped, 10)
        self.assertGreater(end - started, 30 / 24)
        self.assertEqual(numbers, sorted(numbers))
        self.assertIn("of 30 frames could not be shown in time", " ".join(said))

    def test_exports_queue_pause_change_order_and_stop_while_work_goes_on(self):
        self.open(DEMO / "clip.mp4")
        self.click(280, 450)
        self.work.set_field("adjust.mono.mono", 100.0, "Grey")
        self.settle()
        self.workspace.clip.set_between(0, 5)
        self.window.exports.show_jobs()
        dialog = self.window.findChildren(JobsDialog)[-1]
        for name in ("a.mov", "b.mov", "c.mov", "d.mov"):
            self.workspace.exports.write_frames(
                self.folder / name, (0, 5), "ProRes 422 HQ", ClipExport()
            )
        dialog.pause.click()
        self.assertIn("(paused)", dialog.title.text())
        self.assertEqual(
            [dialog.list.item(k).text() for k in range(3)],
            ["Exporting b.mov", "Exporting c.mov", "Exporting d.mov"],
        )
        dialog.list.setCurrentRow(2)
        dialog.up.click()
        dialog.up.click()
        self.assertEqual(
            [waiting.title for waiting in self.workspace.workers.jobs.waiting],
            ["Exporting d.mov", "Exporting b.mov", "Exporting c.mov"],
        )
        dialog.list.setCurrentRow(1)
        dialog.remove.click()
        QTest.qWait(300)
        self.assertFalse((self.folder / "a.mov").exists())  # it rests
        # Meanwhile work goes on, and does not change what was queued.
        self.work.set_field("adjust.mono.mono", 0.0, "Grey")
        dialog.pause.click()
        self.settle()
        self.assertEqual(
            sorted(path.name for path in self.folder.iterdir()), ["a.mov", "c.mov", "d.mov"]
        )
        clip = open_source(self.folder / "c.mov")
        self.assertEqual(clip.about.frames, 6)
        clip.close()
        dialog.close()
        self.assertEqual(self.troubles, [])

    def test_coverage_over_time_finds_the_frame_where_a_mask_breaks(self):
        # A clip of our own in which the jar loses its colour for four frames.
        clip = self.folder / "break.mkv"
        jar, yard = (
            truth("yard", "turquoise")[::6, ::6] > 0.5,
            np.asarray(Image.open(DEMO / "yard.png"))[::6, ::6],
        )
        with av.open(str(clip), "w") as out:
            stream = out.add_stream("ffv1", 24)
            stream.width, stream.height, stream.pix_fmt = 300, 200, "bgr0"
            for number in range(40):
                codes = yard.copy()
                if 25 <= number < 29:
                    codes[jar] = (120, 110, 100)
                out.mux(
                    stream.encode(
                        av.VideoFrame.from_ndarray(np.ascontiguousarray(codes), "rgb24").reformat(
                            format="bgr0"
                        )
                    )
                )
            out.mux(stream.encode(None))
        self.open(clip)
        self.click(123, 131)
        line = self.window.timeline
        line.watch.click()
        end = time.monotonic() + 40
        while (
            line.bar.course is None or len(line.bar.course.seen) < 40
        ) and time.monotonic() < end:
            QTest.qWait(20)
        self.assertEqual(len(line.bar.course.seen), 40)
        QTest.mouseMove(line.bar, QPoint(round(line.bar.place_of(26)), 20))
        line.bar.setFocus()
        QTest.keyClick(line.bar, Qt.Key.Key_N)
        self.settle()
        self.assertEqual(self.work.number, 25)
        self.assertGreater(line.bar.course.flicker(25), 50)
        warned = []
        self.addCleanup(
            qInstallMessageHandler,
            qInstallMessageHandler(lambda kind, where, words: warned.append(words)),
        )
        line.bar.resize(line.bar.width(), 10)  # pulled so small that the graph has no room
        line.bar.grab()
        self.assertEqual([words for words in warned if "paint" in words.lower()], [])
        line.watch.click()
        self.assertIsNone(line.bar.course)
        self.assertEqual(self.troubles, [])


if __name__ == "__main__":
    unittest.main()
