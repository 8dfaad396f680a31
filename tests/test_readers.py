"""Files of phones and of the web, headers, clips that say nonsense, BT.2020, and large tables read
apart.
"""

import os
import pathlib
import struct
import subprocess
import sys
import threading
import time
import unittest
import zlib
from unittest import mock

import numpy as np
import pillow_heif
from common import DEMO, ROOT, FolderCase, terminal
from PIL import Image

from amber_sieve.core.colour import encodings
from amber_sieve.core.colour.transfer import encode
from amber_sieve.errors import Trouble
from amber_sieve.export.clip import export_clip
from amber_sieve.media import formats, memory, stills
from amber_sieve.media.colour import lookup_files, ocio_process
from amber_sieve.media.colour import spaces as colour_spaces
from amber_sieve.media.footage.sequences import Sequence
from amber_sieve.media.opening import about_of, open_source
from amber_sieve.project.model import Adjust, Edge, Mono, Project, Sieve


def to_grey8(path: pathlib.Path) -> np.ndarray:
    """Levels (H, W, 3) of a picture as it is read."""
    return np.moveaxis(encode(stills.read(path).picture.planes) * 255, 0, -1)


class PhoneAndWeb(FolderCase):
    def setUp(self) -> None:
        super().setUp()
        pillow_heif.register_heif_opener()
        self.picture = Image.open(DEMO / "yard.png").convert("RGB").resize((90, 60))
        self.codes = np.asarray(self.picture).astype(float)

    def test_each_kind_is_what_was_written(self):
        for name, most in (
            ("a.gif", 6),
            ("a.tga", 0.01),
            ("a.bmp", 0.01),
            ("a.jp2", 0.01),
            ("a.avif", 4),
            ("a.heic", 4),
        ):
            self.picture.save(
                self.folder / name, **({"quality": 95} if name in ("a.avif", "a.heic") else {})
            )
            self.assertLess(np.abs(to_grey8(self.folder / name) - self.codes).mean(), most, name)
            about = about_of(self.folder / name)
            self.assertEqual((about.kind, about.size), ("still", (90, 60)), name)
            self.assertIn(pathlib.Path(name).suffix, formats.endings("still"))

    def test_loading_libraries_is_not_the_time_of_a_header(self):
        # On a busy machine the libraries of Pillow alone take longer than a header may.
        ask = (
            "from amber_sieve.media import header; header.MAX_PROCESSOR_SECONDS = 0.1; "
            "print(header._answer({name!r}))"
        )
        for name in ("a.gif", "a.heic", "a.jp2"):
            self.picture.save(self.folder / name)
            command = [sys.executable, "-c", ask.format(name=str(self.folder / name))]
            self.assertEqual(
                subprocess.run(command, capture_output=True, text=True).stdout, "True\n", name
            )

    def test_tga_with_its_rows_either_way(self):
        """TGA 2.0, field 5.6: bit 5 of the image descriptor says that the first row is the top
        one.
        """
        head = bytearray(18)
        head[2], head[12], head[14], head[16] = 2, 90, 60, 24
        blue_first = np.asarray(self.picture)[:, :, ::-1]
        for name, descriptor, rows in (
            ("up.tga", 0, blue_first[::-1]),
            ("down.tga", 0x20, blue_first),
        ):
            head[17] = descriptor
            (self.folder / name).write_bytes(bytes(head) + rows.tobytes())
            np.testing.assert_allclose(to_grey8(self.folder / name), self.codes, atol=0.01)

    def test_alpha_grey_and_ten_bits(self):
        clear = self.picture.convert("RGBA")
        clear.putpixel((3, 4), (10, 20, 30, 0))
        clear.save(self.folder / "a.tga")
        self.assertEqual(stills.read(self.folder / "a.tga").picture.alpha[4, 3], 0)
        self.picture.convert("L").save(self.folder / "g.tga")
        self.assertTrue(stills.read(self.folder / "g.tga").about.grey)
        ramp = np.repeat(
            np.linspace(0, 65535, 90).astype(np.uint16)[None, :, None], 60, axis=0
        ).repeat(3, axis=2)
        pillow_heif.from_bytes(mode="RGB;16", size=(90, 60), data=ramp.tobytes()).save(
            self.folder / "deep.heic", quality=-1
        )
        read = stills.read(self.folder / "deep.heic")
        self.assertEqual(read.about.depth, "uint16")
        self.assertLess(np.abs(to_grey8(self.folder / "deep.heic") - ramp / 257).max(), 2)

    def test_damaged_and_empty_ones_get_a_sentence(self):
        for ending in formats.PILLOW:
            for data in (b"", b"nothing of that kind"):
                path = self.folder / f"bad{ending}"
                path.write_bytes(data)
                for ask in (stills.read, about_of):
                    with self.assertRaises(Trouble):
                        ask(path)


def black_png(width: int, height: int) -> bytes:
    """A black PNG of some size (ISO/IEC 15948): next to nothing in the file, a lot in memory."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return (
            struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
        )

    body = zlib.compress(bytes((1 + 3 * width) * height), 1)
    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", body) + chunk(b"IEND", b"")


class Headers(FolderCase):
    def test_info_decodes_nothing(self):
        (self.folder / "large.png").write_bytes(black_png(9000, 9000))
        code = (
            "import resource,sys\nfrom amber_sieve.terminal.main import "
            "main\nmain(sys.argv[1:])\nprint(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss)"
        )
        done = subprocess.run(
            [sys.executable, "-c", code, "info", str(self.folder / "large.png")],
            capture_output=True,
            text=True,
            env=os.environ | {"PYTHONPATH": str(ROOT / "src")},
        )
        self.assertIn("9000 x 9000", done.stdout)
        self.assertLess(int(done.stdout.split()[-1]), 500_000)

    def test_what_memory_is_needed_is_said(self):
        (self.folder / "large.png").write_bytes(black_png(9000, 9000))
        with (
            mock.patch.object(memory, "available", return_value=1_000_000_000),
            self.assertRaisesRegex(Trouble, r"1.6 GB to open, 1.0 GB"),
        ):
            open_source(self.folder / "large.png")
        self.assertGreater(memory.available(), 1 << 20)


class Clips(FolderCase):
    def clip(self, *options: str) -> pathlib.Path:
        path = self.folder / "c.mp4"
        made = [
            "ffmpeg",
            "-v",
            "error",
            "-y",
            "-f",
            "lavfi",
            "-i",
            "testsrc=size=64x48:rate=25:duration=0.4",
            *options,
            str(path),
        ]
        subprocess.run(made, check=True)
        return path

    def test_none_of_its_frames_decodes(self):
        path = self.clip("-c:v", "libx264")
        held = bytearray(path.read_bytes())
        start = held.find(b"mdat") + 4
        size = int.from_bytes(held[start - 8 : start - 4], "big") - 8
        held[start : start + size] = np.random.default_rng(1).bytes(size)
        path.write_bytes(held)
        with self.assertRaisesRegex(Trouble, "none of which can be decoded"):
            open_source(path)

    def test_a_rate_that_is_none(self):
        path = self.clip(
            "-vf",
            "setpts=N*100000/TB",
            "-r",
            "1/100000",
            "-frames:v",
            "3",
            "-c:v",
            "libx264",
            "-video_track_timescale",
            "1000",
        )
        source = open_source(path)
        self.addCleanup(source.close)
        self.assertEqual(source.about.rate, 25)
        self.assertTrue(any("a rate that no clip has" in note for note in source.about.notes))
        project = Project(stack=(Sieve(adjust=Adjust(mono=Mono(mono=100))),))
        for name in ("o.mov", "o.mp4", "o.mkv"):
            self.assertEqual(export_clip(source, project, self.folder / name), source.about.frames)

    def test_numbered_pictures_are_decoded_once_a_frame_and_side_by_side(self):
        for number in range(4):
            Image.new("RGB", (40, 30), (number * 20, 9, 9)).save(self.folder / f"s.{number}.png")
        source = Sequence(self.folder / "s.#.png")
        read, inside, most = [], [0], [0]
        real, lock = stills.read, threading.Lock()

        def counted(path: pathlib.Path, reading: object) -> stills.Still:
            with lock:
                read.append(path.name)
                inside[0] += 1
                most[0] = max(most[0], inside[0])
            time.sleep(0.02)  # long enough that others come in, if they may
            try:
                return real(path, reading)
            finally:
                with lock:
                    inside[0] -= 1

        plain = Edge(
            specks=0, holes=0, follow=0, clean=0, level=0
        )  # nothing is found on the first frame for all
        project = Project(stack=(Sieve(edge=plain, adjust=Adjust(mono=Mono(mono=100))),))
        with mock.patch.object(stills, "read", counted):
            export_clip(source, project, self.folder / "o.#.png")
        self.assertEqual(sorted(read), [f"s.{number}.png" for number in range(4)])
        self.assertGreater(most[0], 1)


class Bt2020(unittest.TestCase):
    def test_saturated_colours_come_back_as_bt2087_has_it(self):
        """ITU-R BT.2087-0: primaries are changed in display light, E = (E')^2.4; the matrix is the
        inverse of its M2 (five decimals).
        """
        to_2020 = np.array(
            [[0.6274, 0.3293, 0.0433], [0.0691, 0.9195, 0.0114], [0.0164, 0.0880, 0.8956]]
        )
        levels = np.array(
            [(30, 180, 60), (200, 40, 90), (10, 20, 240), (128, 128, 128), (250, 240, 10)], float
        )
        codes = ((levels / 255) ** 2.4 @ to_2020.T) ** (1 / 2.4)
        for curve in (14, 1, 2):
            light = encodings.decoded(np.rint(codes * 65535).astype(np.uint16)[None], curve, 9)
            self.assertLess(np.abs(encode(light)[:, 0].T * 255 - levels).max(), 0.5, curve)
            back = encodings.coded(light, curve, 9)[:, 0].T
            self.assertLess(np.abs(back - codes).max(), 1e-4)


class TablesApart(FolderCase):
    def longest_gap(self, work) -> float:
        """Longest time, seconds, for which no other thread of Python got its turn."""
        gap, ends = [0.0], threading.Event()

        def watch() -> None:
            last = time.monotonic()
            while not ends.is_set():
                time.sleep(0.002)
                now = time.monotonic()
                gap[0], last = max(gap[0], now - last), now

        thread = threading.Thread(target=watch)
        thread.start()
        try:
            work()
        finally:
            ends.set()
            thread.join()
        return gap[0]

    def test_large_tables_are_read_and_written_while_others_get_their_turn(self):
        nodes = np.linspace(0, 1, 65, dtype=np.float32)
        table = np.stack(np.meshgrid(nodes, nodes, nodes, indexing="ij"), -1) ** 1.1
        gaps = {}
        for name in ("a.cube", "a.clf"):
            path = self.folder / name
            gaps[f"write {name}"] = self.longest_gap(
                lambda path=path: lookup_files.write(table, path, "t")
            )
            gaps[f"read {name}"] = self.longest_gap(lambda path=path: lookup_files.read(path))
            np.testing.assert_allclose(lookup_files.read(path), table, atol=2e-6)
        print("\nlongest gaps, ms:", {name: round(1000 * gap) for name, gap in gaps.items()})
        (self.folder / "bad.cube").write_text("LUT_3D_SIZE 2\n" + "x" * 300_000)
        with self.assertRaisesRegex(Trouble, "not a readable lookup table"):
            lookup_files.read(self.folder / "bad.cube")

    def test_a_configuration_of_ones_own_is_read_apart(self):
        from amber_sieve.media.colour import ocio_functions

        text = ocio_functions.config_of("").serialize()
        (self.folder / "own.ocio").write_text(text)
        plain = colour_spaces.names()
        light = np.full((3, 1, 2), 0.4, np.float32)
        wanted = colour_spaces.to_light(light, "ACEScct")
        with mock.patch.dict(os.environ, {"OCIO": str(self.folder / "own.ocio")}):
            self.assertEqual(colour_spaces.names(), plain)
            np.testing.assert_allclose(colour_spaces.to_light(light, "ACEScct"), wanted, atol=1e-6)
            with self.assertRaisesRegex(Trouble, "choose one of"):
                colour_spaces.to_light(light, "No such space")
        ocio_process._child._process.kill()  # as when memory runs out
        with mock.patch.dict(os.environ, {"OCIO": str(self.folder / "own.ocio")}):
            try:
                self.assertEqual(colour_spaces.names(), plain)
            except Trouble as trouble:
                self.assertIn("was ended", str(trouble))
            self.assertEqual(colour_spaces.names(), plain)
        done = terminal(
            "mask", DEMO / "close.png", "-o", self.folder / "m.png", "--keep", "300,400"
        )
        self.assertEqual((done.returncode, done.stderr), (0, ""))


if __name__ == "__main__":
    unittest.main()
