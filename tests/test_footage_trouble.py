"""Footage when things go wrong: broken frames, a full disk, a stop in the middle, missing pictures;
and memory over a long clip.
"""

import pathlib
import subprocess
import unittest
from unittest import mock

import av
import numpy as np
from common import DEMO, FolderCase
from made import everything

from amber_sieve.errors import Trouble
from amber_sieve.export.clip import ClipExport, export_clip
from amber_sieve.media import formats
from amber_sieve.media.opening import open_source
from amber_sieve.progress import Cancelled, Progress
from amber_sieve.project.model import Adjust, Recolour


def small(path: pathlib.Path, *words: str, frames: int = 80) -> pathlib.Path:
    """The demo clip, a third as wide."""
    given = [
        "ffmpeg",
        "-v",
        "error",
        "-y",
        "-stream_loop",
        "-1",
        "-i",
        DEMO / "clip.mp4",
        "-an",
        "-vf",
        "scale=320:180",
    ]
    subprocess.run([*given, "-frames:v", str(frames), *words, path], check=True)
    return path


def packets_of(path: pathlib.Path) -> list[tuple[int, int, int, bool]]:
    """Place, size, time stamp, and whether no other frame depends on it, of every packet, as they
    lie in the file.

    Of H.264 in MP4: nal_ref_idc of the first slice is 0 (ITU-T H.264, 7.4.1), which comes after
    four bytes of length.
    """
    with av.open(str(path)) as held:
        return [
            (one.pos, one.size, one.pts, (bytes(one)[4] >> 5) & 3 == 0)
            for one in held.demux(video=0)
            if one.size
        ]


class BrokenFrameTest(FolderCase):
    def check_seeks(self, path: pathlib.Path, at: int, size: int, number: int) -> None:
        """Two hundred random seeks in a clip with a broken packet: every frame but that one is what
        it was.
        """
        whole = open_source(path)
        every = [whole.frame(n).planes.copy() for n in range(whole.about.frames)]
        whole.close()
        data = path.read_bytes()
        broken = path.with_stem("broken")
        broken.write_bytes(data[: at + 6] + bytes(size - 6) + data[at + size :])
        source = open_source(broken)
        for n in (int(n) for n in np.random.default_rng(5).integers(0, len(every), 200)):
            if n != number:
                self.assertTrue(np.array_equal(source.frame(n).planes, every[n]), n)
        # The broken one is said, or comes as far as the decoder could mend it; it is never another
        # frame.
        try:
            mended = source.frame(number).planes
            self.assertLess(np.abs(mended - every[number]).mean(), 0.35)
        except Trouble as trouble:
            self.assertIn(f"Frame {number}", str(trouble))
        source.close()

    def test_of_a_codec_whose_frames_stand_alone(self):
        path = small(
            self.folder / "a.mkv", "-c:v", "ffv1", "-level", "3", "-slicecrc", "1", "-g", "1"
        )
        at, size, *_ = sorted(packets_of(path), key=lambda packet: packet[2])[40]
        self.check_seeks(path, at, size, 40)

    def test_of_a_codec_with_long_groups(self):
        # A frame between others that none depends on, in one group of 250 frames.
        path = small(
            self.folder / "a.mp4",
            "-c:v",
            "libx264",
            "-g",
            "250",
            "-bf",
            "3",
            "-x264-params",
            "b-pyramid=none",
        )
        packets = packets_of(path)
        stamps = sorted(packet[2] for packet in packets)
        at, size, stamp, _ = next(
            packet for packet in packets if packet[3] and stamps.index(packet[2]) >= 40
        )
        self.check_seeks(path, at, size, stamps.index(stamp))


class FullDiskTest(FolderCase):
    def test_every_kind_of_export_leaves_the_earlier_file_and_nothing_else(self):
        source = open_source(small(self.folder / "in.mkv", "-c:v", "ffv1", frames=24))
        project = everything(Adjust(recolour=Recolour(hue=40)))
        wanted = [
            (f"x{ending}", codec)
            for held in formats.FORMATS
            if held.kind == "clip"
            for codec in held.writes
            for ending in held.endings
        ]
        for name, codec in wanted:
            with self.subTest(name=name, codec=codec):
                out = self.folder / name
                out.write_bytes(b"earlier")
                # As if the disk were full after so many bytes: what is written beyond fails as the
                # system has it fail.
                with (
                    mock.patch("amber_sieve.files.open", full_after(2_000), create=True),
                    self.assertRaises(Trouble) as caught,
                ):
                    export_clip(source, project, out, codec=codec)
                self.assertIn("No space left", str(caught.exception))
                self.assertEqual(out.read_bytes(), b"earlier")
                out.unlink()
                self.assertEqual([path.name for path in self.folder.iterdir()], ["in.mkv"])
        source.close()
        tiny = open_source(
            small(self.folder / "tiny.mkv", "-vf", "scale=160:90", "-c:v", "ffv1", frames=3)
        )
        with self.assertRaisesRegex(Trouble, "DNxHR HQX does not take pictures of 160 x 90"):
            export_clip(tiny, project, self.folder / "x.mov", codec="DNxHR HQX")
        self.assertFalse((self.folder / "x.mov").exists())
        tiny.close()

    def test_a_stop_leaves_nothing_of_a_clip_and_whole_pictures_of_a_sequence(self):
        source = open_source(small(self.folder / "in.mkv", "-c:v", "ffv1", frames=24))
        project = everything(Adjust(recolour=Recolour(hue=40)))
        for name, what in (
            ("x.mov", "result"),
            ("y.mkv", "mask"),
            ("z.####.exr", "result and mask"),
        ):
            progress = Progress()
            progress._listener = lambda share, left, running=progress: (
                running.cancel() if share > 0.4 else None
            )
            with self.subTest(name=name), self.assertRaises(Cancelled):
                export_clip(
                    source, project, self.folder / name, progress=progress, how=ClipExport(what)
                )
        left = sorted(path.name for path in self.folder.iterdir())
        self.assertEqual([name for name in left if not name.startswith("z.")], ["in.mkv"])
        made = open_source(self.folder / "z.####.exr")
        self.assertGreaterEqual(made.about.frames, 9)
        for number in range(made.about.frames):
            self.assertEqual(made.frame(number).planes.shape, (3, 180, 320))
        # Going on makes the rest and leaves what is there.
        first = (self.folder / "z.0000.exr").stat().st_mtime_ns
        export_clip(
            source,
            project,
            self.folder / "z.####.exr",
            how=ClipExport("result and mask", resume=True),
        )
        self.assertEqual(open_source(self.folder / "z.####.exr").about.frames, 24)
        self.assertEqual((self.folder / "z.0000.exr").stat().st_mtime_ns, first)
        source.close()

    def test_a_broken_picture_in_a_sequence_keeps_those_before_it(self):
        source = open_source(small(self.folder / "in.mkv", "-c:v", "ffv1", frames=12))
        export_clip(source, everything(Adjust()), self.folder / "s.####.png")
        source.close()
        (self.folder / "s.0007.png").write_bytes((self.folder / "s.0007.png").read_bytes()[:900])
        pictures = open_source(self.folder / "s.####.png")
        with self.assertRaises(Trouble) as caught:
            export_clip(
                pictures, everything(Adjust(recolour=Recolour(hue=40))), self.folder / "t.####.png"
            )
        self.assertIn("s.0007.png", str(caught.exception))
        made = sorted(path.name for path in self.folder.glob("t.*"))
        self.assertEqual(made[:7], [f"t.{number:04}.png" for number in range(7)])
        self.assertFalse((self.folder / "t.0007.png").exists())
        self.assertEqual([name for name in made if not name.endswith(".png")], [])


def full_after(limit: int):
    """Opens files that hold no more than so many bytes."""

    def opened(path, mode="r", *rest, **more):
        held = open(path, mode, *rest, **more)  # noqa: SIM115  (whoever asked closes it)
        if "w" not in mode or "b" not in mode:
            return held
        write, total = held.write, [0]

        def counted(data) -> int:
            total[0] += len(data)
            if total[0] > limit:
                raise OSError(28, "No space left on device")
            return write(data)

        return mock.Mock(wraps=held, write=counted)

    return opened


if __name__ == "__main__":
    unittest.main()
