"""Nothing aborts and nothing is lost: corners, sources, files, full disks, recovery, odd input."""

import contextlib
import gc
import json
import os
import pathlib
import random
import shutil
import subprocess
import sys
import threading
import time
import unittest
from unittest import mock

import av
import forked
import numpy as np
import OpenImageIO as oiio
from common import DEMO, ROOT, FolderCase, terminal
from PIL import Image

from amber_sieve import compiled, files
from amber_sieve.core.areas.strokes import stroke_coverage
from amber_sieve.core.bands.interval import moved_corners, with_corner
from amber_sieve.core.frame import Frame
from amber_sieve.errors import Trouble
from amber_sieve.export.clip import export_clip
from amber_sieve.export.still import export_still
from amber_sieve.gc_pause import gc_pause
from amber_sieve.live.preview import Opened
from amber_sieve.media import stills
from amber_sieve.media.footage.clip import Footage
from amber_sieve.media.footage.sequences import Sequence
from amber_sieve.media.opening import open_source
from amber_sieve.names import MEASURES
from amber_sieve.project import edits, recovery, storage
from amber_sieve.project.model import Adjust, Light, Pick, Project, Recolour, Sample, Sieve
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.stack import render


class CornersTest(unittest.TestCase):
    def test_corners_always_rise_and_stay_in_range(self):
        chance = random.Random(5)
        for _ in range(20_000):
            measure = MEASURES[chance.choice(list(MEASURES))]
            corners = tuple(sorted(chance.uniform(measure.low, measure.high) for _ in range(4)))
            if chance.random() < 0.3:
                corners = (corners[0], corners[0], corners[3], corners[3])
            if chance.random() < 0.2:
                corners = measure.full
            for _ in range(4):
                by = chance.choice((chance.uniform(-3, 3), chance.uniform(-900, 900), 1e-9))
                before = corners
                if chance.random() < 0.2:
                    corners = with_corner(
                        corners, chance.randrange(4), chance.uniform(-400, 800), measure.name
                    )
                else:
                    corners = moved_corners(
                        corners,
                        chance.randrange(5),
                        by,
                        measure.name,
                        chance.random() < 0.5,
                        chance.random() < 0.5,
                    )
                a, b, c, d = corners
                self.assertTrue(a <= b <= c <= d, (measure.name, before, by, corners))
                if not measure.wraps:
                    self.assertTrue(measure.low <= a and d <= measure.high, (measure.name, corners))
                else:
                    self.assertLessEqual(d - a, 360 + 1e-6)


class SourceTest(FolderCase):
    def test_a_source_is_closed_when_its_last_reader_lets_go(self):
        source = mock.Mock(about=mock.Mock(size=(2, 2)))
        opened = Opened(source)
        with opened.read():
            opened.retire()
            source.close.assert_not_called()
        source.close.assert_called_once()

    def test_closing_a_clip_waits_for_the_frame_that_is_being_decoded(self):
        for _ in range(8):
            clip = Footage(DEMO / "clip.mp4")
            failures = []

            def run(clip=clip, failures=failures) -> None:
                for number in range(0, 40, 3):
                    try:
                        clip.frame(number)
                    except Trouble:
                        return
                    except Exception as error:
                        failures.append(error)
                        return

            reader = threading.Thread(target=run)
            reader.start()
            time.sleep(0.03)
            clip.close()
            reader.join(20)
            self.assertEqual(failures, [])

    def test_a_damaged_frame_costs_itself_only(self):
        whole = (DEMO / "clip.mp4").read_bytes()
        clip = Footage(DEMO / "clip.mp4")
        with av.open(str(DEMO / "clip.mp4")) as held:
            packets = [(p.pos, p.size, p.is_keyframe) for p in held.demux(video=0) if p.size]
        at, size, _ = next(p for p in packets[20:] if not p[2] and p[1] > 200)
        path = self.folder / "broken.mp4"
        path.write_bytes(whole[: at + 8] + bytes(size - 8) + whole[at + size :])
        broken = Footage(path)
        self.addCleanup(broken.close)
        self.addCleanup(clip.close)
        failed = []
        for number in range(clip.about.frames):
            try:
                broken.frame(number)
            except Trouble:
                failed.append(number)
        self.assertLessEqual(len(failed), 12, failed)
        self.assertEqual(broken.frame(0).planes.shape, (3, 540, 960))

    def test_frames_can_be_read_after_one_that_fails(self):
        clip = Footage(DEMO / "clip.mp4")
        self.addCleanup(clip.close)
        with (
            mock.patch.object(clip._decoder, "_run_to", return_value=(None, False)),
            self.assertRaises(Trouble),
        ):
            clip.frame(30)
        for number in (0, 1, 23):
            self.assertEqual(clip.frame(number).planes.shape, (3, 540, 960))

    def test_a_clip_cut_in_half_says_so(self):
        made = self.folder / "whole.mkv"
        subprocess.run(
            ["ffmpeg", "-v", "error", "-i", str(DEMO / "clip.mp4"), "-c", "copy", "-an", str(made)],
            check=True,
        )
        cut = self.folder / "cut.mkv"
        cut.write_bytes(made.read_bytes()[: made.stat().st_size // 2])
        clip = Footage(cut)
        self.addCleanup(clip.close)
        self.assertIn("ends early", clip.about.notes[0])
        whole = Footage(DEMO / "clip.mp4")
        self.addCleanup(whole.close)
        self.assertEqual(whole.about.notes, ())

    def test_names_that_look_like_patterns(self):
        for name in ("cat #1.png", "shot%d.png"):
            Image.new("RGB", (6, 4)).save(self.folder / name)
            self.assertEqual(open_source(self.folder / name).about.kind, "still")
        for number in range(3):
            Image.new("RGB", (6, 4)).save(self.folder / f"in.{number:04}.png")
        export_clip(Sequence(self.folder / "in.####.png"), Project(), self.folder / "out.%06d.png")
        self.assertTrue((self.folder / "out.000002.png").exists())

    def test_a_still_becomes_a_clip_of_one_frame(self):
        Image.new("RGB", (32, 24), (90, 40, 30)).save(self.folder / "a.png")
        self.assertEqual(
            export_clip(open_source(self.folder / "a.png"), Project(), self.folder / "a.mp4"), 1
        )

    def test_a_frame_of_a_sequence_with_a_wide_profile(self):
        import imagecodecs

        wide = imagecodecs.cms_profile(
            "rgb",
            gamma=2.2,
            whitepoint=[0.3127, 0.329, 1],
            primaries=[0.64, 0.33, 1, 0.21, 0.71, 1, 0.15, 0.06, 1],
        )
        for number in range(2):
            Image.new("RGB", (6, 4), (40 + number, 90, 30)).save(
                self.folder / f"w.{number:04}.png", icc_profile=wide
            )
        source = Sequence(self.folder / "w.####.png")
        export_still(source, Project(), self.folder / "out.png", 1)
        self.assertEqual(Image.open(self.folder / "out.png").getpixel((2, 2)), (41, 90, 30))


class OddPixelsTest(FolderCase):
    def written(self, name: str, pixels: np.ndarray, kind: str, **attributes) -> pathlib.Path:
        path = self.folder / name
        spec = oiio.ImageSpec(pixels.shape[1], pixels.shape[0], pixels.shape[2], kind)
        for key, value in attributes.items():
            spec.attribute(key.replace("_", ":"), value)
        out = oiio.ImageOutput.create(str(path))
        out.open(str(path), spec)
        out.write_image(pixels)
        out.close()
        return path

    def test_values_no_camera_makes_are_counted_said_and_made_harmless(self):
        pixels = np.random.default_rng(1).random((20, 30, 4), dtype=np.float32)
        pixels[2, 3] = (1e30, np.nan, -np.inf, 1e-42)
        pixels[4, 5] = (3e38, 0.2, 0.1, np.nan)
        still = stills.read(self.written("odd.exr", pixels, "float"))
        self.assertTrue(np.isfinite(still.picture.planes).all())
        self.assertLessEqual(np.abs(still.picture.planes).max(), 65504)
        self.assertTrue(((still.picture.alpha >= 0) & (still.picture.alpha <= 1)).all())
        self.assertIn("4 values", still.about.notes[0])
        sample = Sample(x=3, y=2, colour=(1, 1, 1), tolerance=900)
        adjust = Adjust(light=Light(exposure=10), recolour=Recolour(saturation=100))
        result = render(
            still.picture,
            Project(stack=(Sieve(pick=Pick(samples=(sample,)), adjust=adjust),)),
            RenderContext(),
        )
        self.assertTrue(np.isfinite(result).all())

    def test_integer_tiff_with_associated_alpha(self):
        # Source: TIFF 6.0, ExtraSamples = 1: associated alpha, colours are stored multiplied by it.
        pixels = np.zeros((4, 4, 4), np.uint8)
        pixels[..., 0], pixels[..., 3] = 100, 128
        straight = stills.read(
            self.written("u.tif", pixels, "uint8", oiio_UnassociatedAlpha=1)
        ).picture.planes[0, 0, 0]
        Image.new("RGB", (1, 1), (199, 0, 0)).save(self.folder / "goal.png")
        goal = stills.read(self.folder / "goal.png").picture.planes[0, 0, 0]
        associated = stills.read(self.written("a.tif", pixels, "uint8")).picture.planes[0, 0, 0]
        self.assertLess(straight, associated)
        self.assertAlmostEqual(float(associated), float(goal), places=2)

    def test_grey_in_grey_out_with_its_profile(self):
        import imagecodecs

        profile = imagecodecs.cms_profile("gray", gamma=1.8, whitepoint=[0.3457, 0.3585, 1.0])
        Image.new("L", (5, 3), 100).save(self.folder / "grey.png", icc_profile=profile)
        still = stills.read(self.folder / "grey.png")
        self.assertAlmostEqual(float(still.picture.planes[1, 0, 0]), (100 / 255) ** 1.8, places=3)
        export_still(still, Project(), self.folder / "out.png")
        back = Image.open(self.folder / "out.png")
        self.assertEqual(
            (back.mode, back.getpixel((1, 1)), back.info["icc_profile"]), ("L", 100, profile)
        )
        turned = Sieve(
            bands=Sieve().bands.but(ramp={"on": True}), adjust=Adjust(light=Light(exposure=0.5))
        )
        export_still(still, Project(stack=(turned,)), self.folder / "brighter.png")
        self.assertEqual(Image.open(self.folder / "brighter.png").mode, "L")

    def test_a_huge_stroke_takes_no_more_than_the_picture(self):
        started = time.monotonic()
        covered = stroke_coverage(np.array([[-1e6, -1e6, 1], [1e6, 1e6, 1]]), 0.1, (300, 400))
        self.assertEqual(covered[150, 150] > 0, True)
        points = np.random.default_rng(1).random((200_000, 3)) * [400, 300, 1]
        self.assertGreater(stroke_coverage(points, 60, (300, 400)).min(), 0.99)
        self.assertGreater(stroke_coverage(points, 60, (300, 400), flow=0.2).min(), 0.9)
        self.assertLess(time.monotonic() - started, 30)


def on_a_full_disk(
    code: str, folder: pathlib.Path, limit: int = 20_000
) -> subprocess.CompletedProcess:
    """Run Python that may write no file beyond so many bytes, as if the disk were full
    (setrlimit(2), RLIMIT_FSIZE).
    """

    environment = {"PYTHONPATH": str(ROOT / "src"), "FOLDER": str(folder), "DEMO": str(DEMO)}
    return forked.run(forked.code, code, environment=environment, limit=limit, timeout=120)


WRITING = """
import os, pathlib, sys
from amber_sieve.terminal.main import main
folder, demo = pathlib.Path(os.environ["FOLDER"]), pathlib.Path(os.environ["DEMO"])
sys.exit(main({words}))
"""


class FullDiskTest(FolderCase):
    def test_every_format_says_so_and_leaves_the_earlier_file(self):
        still = self.folder / "in" / "part.png"
        still.parent.mkdir()
        Image.open(DEMO / "yard.png").crop((600, 700, 900, 900)).save(still)
        for name in ("a.png", "a.jpg", "a.tif", "a.exr", "a.mp4", "a.mov"):
            target = self.folder / name
            target.write_bytes(b"earlier")
            words = (
                (
                    '["render", str(demo / "yard.sieve"), "--input", str(demo / "clip.mp4"), '
                    f'"--frames", "0-5", "-o", str(folder / "{name}")]'
                )
                if name in ("a.mp4", "a.mov")
                else (
                    f'["recolour", str(folder / "in" / "part.png"), "-o", str(folder / "{name}"), '
                    '"--keep", "135,130", "--hue", "60"]'
                )
            )
            done = on_a_full_disk(WRITING.format(words=words), self.folder)
            self.assertEqual(done.returncode, 1, (name, done.stderr))
            self.assertEqual(len(done.stderr.strip().splitlines()), 1, (name, done.stderr))
            self.assertIn("could not be written", done.stderr)
            self.assertEqual(target.read_bytes(), b"earlier", name)
        self.assertEqual(
            sorted(p.name for p in self.folder.iterdir()),
            ["a.exr", "a.jpg", "a.mov", "a.mp4", "a.png", "a.tif", "in"],
        )

    def sources(self) -> pathlib.Path:
        """A copy of the sources with a small kernel that takes in a function of another file."""
        made = self.folder / "made"
        package = made / "amber_sieve"
        left_out = shutil.ignore_patterns("__pycache__")
        shutil.copytree(ROOT / "src" / "amber_sieve", package, ignore=left_out)
        (package / "core" / "colour" / "rooted.py").write_text("""
import numpy as np
from ..jit.parallel import serial_kernel
from .roots import cube_root

@serial_kernel
def _root(values, out):
    for k in range(values.size):
        out[k] = cube_root(values[k])

def rooted(values):
    out = np.empty_like(values)
    _root(values, out)
    return out
""")
        return made

    def kernel_in(
        self,
        sources: pathlib.Path,
        first: str = "",
        environment: dict[str, str] | None = None,
        **how,
    ) -> tuple[str, str]:
        """What a kernel gives and what is complained of, in a process that has imported nothing
        yet.
        """
        code = f"""
{first}
import numpy as np
from amber_sieve.core.colour.rooted import rooted
print(rooted(np.ones(2, np.float32))[0].round(3))
"""
        own = {
            "NUMBA_CACHE_DIR": str(self.folder / "kept"),
            "PYTHONPATH": str(sources),
            **(environment or {}),
        }
        done = subprocess.run(
            [sys.executable, "-c", code],
            capture_output=True,
            text=True,
            env=os.environ | own,
            timeout=120,
            **how,
        )
        return done.stdout.strip(), done.stderr

    def test_a_kernel_that_cannot_be_kept_works_all_the_same(self):
        made = self.sources()
        no_bytecode = {"PYTHONDONTWRITEBYTECODE": "1"}  # see `forked.no_room`
        self.assertEqual(
            self.kernel_in(made, environment=no_bytecode, preexec_fn=lambda: forked.no_room(100)),
            ("1.0", ""),
        )
        nowhere = (
            "from amber_sieve.core.jit import kernel_cache as k; k._KeptCode._locator_classes = "
            "(k._ShippedPlace,)"
        )
        self.assertEqual(self.kernel_in(made, nowhere), ("1.0", ""))

    def test_kernels_come_with_a_package_and_what_does_not_fit_is_compiled_anew(self):
        made, kept = self.sources(), self.folder / "kept"
        shipping = {
            "AMBER_SIEVE_MAKES_PACKAGE": "1",
            "NUMBA_CPU_NAME": compiled.PROCESSOR,
            "NUMBA_CPU_FEATURES": "",
        }
        self.assertEqual(self.kernel_in(made, environment=shipping), ("1.0", ""))
        kernels = made / "amber_sieve" / "kernels"
        self.assertGreater(len(list((kernels / "core" / "colour").glob("*.nbc"))), 0)
        self.assertEqual(list(kept.rglob("*.nbc")), [])
        (kernels / "made-by").write_text(compiled.versions())
        there = made.rename(self.folder / "installed elsewhere")
        kernels = there / "amber_sieve" / "kernels"
        self.assertEqual(self.kernel_in(there), ("1.0", ""))
        if compiled._processor_runs_them():
            self.assertEqual(list(kept.rglob("*.nbc")), [])  # nothing was compiled
        for path in kernels.rglob("*.nbc"):
            path.write_bytes(path.read_bytes()[:200])
        self.assertEqual(self.kernel_in(there), ("1.0", ""))
        self.assertGreater(len(list(kept.rglob("*.nbc"))), 0)
        shutil.rmtree(kept)
        (kernels / "made-by").write_text("Python 2.7, numba 0.1, llvmlite 0.1\n")
        asked = "import amber_sieve; assert not amber_sieve.HAS_KERNELS"
        self.assertEqual(self.kernel_in(there, asked), ("1.0", ""))
        self.assertGreater(len(list(kept.rglob("*.nbc"))), 0)

    def test_a_kernel_is_compiled_anew_when_what_it_takes_in_from_another_file_has_changed(self):
        made = self.sources()
        roots, kept = made / "amber_sieve" / "core" / "colour" / "roots.py", self.folder / "kept"
        self.assertEqual(self.kernel_in(made), ("1.0", ""))
        compiled_once = {path: path.stat().st_mtime_ns for path in kept.rglob("*.nbc")}
        # Not even where a library has numbers written in another way.
        self.assertEqual(
            self.kernel_in(made, "import numpy; numpy.set_printoptions(legacy='1.13')"), ("1.0", "")
        )
        self.assertEqual(
            {path: path.stat().st_mtime_ns for path in kept.rglob("*.nbc")}, compiled_once
        )
        text = roots.read_text()
        for was, now, wanted in (
            ("root = size * t * t\n", "root = np.float32(2) * size * t * t\n", "2.0"),
            ("TINY = np.float32(1e-30)", "TINY = np.float32(27)", "3.0"),
        ):
            self.assertIn(was, text)
            roots.write_text(text.replace(was, now))
            self.assertEqual(self.kernel_in(made), (wanted, ""))

    def test_two_that_compile_at_once_do_not_mix_up_their_code(self):
        """One is held up between its two files while another, that had looked before either wrote,
        compiles for other arguments.
        """
        (self.folder / "summing.py").write_text("""
from amber_sieve.core.jit.parallel import serial_kernel

def total(values):
    out = 0.0
    for row in range(values.shape[0]):
        out += values[row]
    return out

first, second, third = (serial_kernel(total) for _ in range(3))
""")
        held_up = """
import numpy as np
import summing
floats, bytes_ = np.ones(4), np.arange(4, dtype=np.uint8)
files = [kernel.real()._cache._cache_file for kernel in (summing.first, summing.second)]
at_once, index = [lambda: summing.second(bytes_)], files[0]._save_index
files[1]._load_index = dict

def in_between(named):
    index(named)
    if at_once:
        at_once.pop()()

files[0]._save_index = in_between
summing.first(floats)
print(summing.third(bytes_), summing.third(floats), summing.third(np.arange(3, dtype=np.float32)))
"""
        own = {
            "NUMBA_CACHE_DIR": str(self.folder / "kept"),
            "PYTHONPATH": f"{ROOT / 'src'}:{self.folder}",
        }
        done = subprocess.run(
            [sys.executable, "-c", held_up],
            capture_output=True,
            text=True,
            env=os.environ | own,
            timeout=120,
        )
        self.assertEqual((done.stdout.strip(), done.stderr), ("6.0 4.0 3.0", ""))

    def test_a_project_too(self):
        code = """
import os, pathlib
from amber_sieve.errors import Trouble
from amber_sieve.project import storage
from amber_sieve.project.model import Project, Sieve
path = pathlib.Path(os.environ["FOLDER"]) / "a.sieve"
try:
    storage.save(Project(stack=tuple(Sieve(name="x" * 200) for _ in range(200))), path)
except Trouble as trouble:
    print(trouble)
"""
        storage.save(Project(), self.folder / "a.sieve")
        before = (self.folder / "a.sieve").read_bytes()
        self.assertIn("could not be written", on_a_full_disk(code, self.folder).stdout)
        self.assertEqual((self.folder / "a.sieve").read_bytes(), before)


class WritingTest(FolderCase):
    def test_links_are_followed_and_permissions_kept(self):
        real, link = self.folder / "real.sieve", self.folder / "link.sieve"
        storage.save(Project(), real)
        real.chmod(0o640)
        link.symlink_to(real)
        storage.save(Project(gamut="clip"), link)
        self.assertTrue(link.is_symlink())
        self.assertEqual((storage.load(real).gamut, real.stat().st_mode & 0o777), ("clip", 0o640))

    def test_devices_and_pipes_are_refused_for_reading_and_writing(self):
        os.mkfifo(self.folder / "pipe.png")
        for path in (self.folder / "pipe.png", pathlib.Path("/dev/null")):
            with self.assertRaises(Trouble):
                open_source(path)
            with self.assertRaises(Trouble), files.written_beside(path):
                pass

    def test_a_read_only_place_is_said(self):
        with (
            mock.patch("pathlib.Path.unlink", side_effect=OSError(30, "Read-only file system")),
            self.assertRaises(Trouble) as caught,
            files.written_beside(self.folder / "a.txt"),
        ):
            raise OSError(30, "Read-only file system")
        self.assertIn("Read-only file system", str(caught.exception))

    def test_part_files_of_a_killed_process_are_swept(self):
        code = """
import os, pathlib, time
from amber_sieve.files import written_beside
with written_beside(pathlib.Path(os.environ["FOLDER"]) / "big.png") as partial:
    partial.write_bytes(b"half")
    print("there", flush=True)
    time.sleep(60)
"""
        child = subprocess.Popen(
            [sys.executable, "-c", code],
            stdout=subprocess.PIPE,
            env=os.environ | {"PYTHONPATH": str(ROOT / "src"), "FOLDER": str(self.folder)},
        )
        child.stdout.readline()
        child.kill()
        child.wait()
        child.stdout.close()
        (self.folder / f"{files.PART}not-ours.png").write_bytes(b"x")
        self.assertEqual(len(list(self.folder.iterdir())), 2)
        files.sweep_parts()
        self.assertEqual(len(list(self.folder.iterdir())), 2)  # it may still be writing
        self.assertGreaterEqual(files.sweep_parts(time.time() + 1000), 1)
        self.assertEqual([p.name for p in self.folder.iterdir()], [f"{files.PART}not-ours.png"])

    def test_a_project_and_its_layer_move_together(self):
        (self.folder / "pictures").mkdir()
        (self.folder / "work").mkdir()
        pick = Pick(measure="layer", layer=str(self.folder / "pictures" / "b.png"))
        project = Project(source=str(self.folder / "pictures" / "a.png"), stack=(Sieve(pick=pick),))
        storage.save(project, self.folder / "work" / "a.sieve")
        held = json.loads((self.folder / "work" / "a.sieve").read_text())
        self.assertEqual(
            (held["source"], held["stack"][0]["pick"]["layer"]),
            ("../pictures/a.png", "../pictures/b.png"),
        )
        moved = self.folder.with_name(self.folder.name + "-moved")
        self.folder.rename(moved)
        loaded = storage.load(moved / "work" / "a.sieve")
        moved.rename(self.folder)
        self.assertEqual(loaded.source, str(moved / "pictures" / "a.png"))
        self.assertEqual(loaded.stack[0].pick.layer, str(moved / "pictures" / "b.png"))

    def test_interlaced_footage_of_version_5_stays_deinterlaced(self):
        path = self.folder / "five.sieve"
        path.write_text(json.dumps({"version": 5, "reading": {"one_field": True}}))
        self.assertTrue(storage.load(path).reading.deinterlaced)

    def test_projects_of_version_1_load_unchanged(self):
        old = {
            "version": 1,
            "stack": [
                {
                    "name": "One",
                    "adjust": {"hue": 40, "lightness": -10},
                    "edge": {"clean_auto": True, "grow": 3},
                }
            ],
        }
        path = self.folder / "old.sieve"
        path.write_text(json.dumps(old))
        sieve = storage.load(path).stack[0]
        self.assertEqual(
            (
                sieve.adjust.recolour.hue,
                sieve.adjust.recolour.lightness,
                sieve.edge.clean,
                sieve.edge.grow,
            ),
            (40, -10, "auto", 3),
        )


EDITING = """
import os, pathlib, sys, time
os.environ["QT_QPA_PLATFORM"] = "offscreen"
from amber_sieve.desk.app import application
from amber_sieve.workspace.document.document import Document
from amber_sieve.project.model import Project
running = application()
from amber_sieve.threads import Threads
document = Document(Threads("autosave"), 0.2)
document.start(Project(source="/nowhere/a.png"), None, "Untitled")
number = 0
while True:
    number += 1
    document.edit_sieve(lambda s: s.but(name=f"step {number}"), "Rename")
    print(number, time.time(), flush=True)
    end = time.monotonic() + 0.02
    while time.monotonic() < end:
        running.processEvents()
"""
SAVING = """
import os, pathlib
from amber_sieve.project import storage
from amber_sieve.project.model import Project, Sieve
path = pathlib.Path(os.environ["FOLDER"]) / "work.sieve"
number = 0
print("go", flush=True)
while True:
    number += 1
    storage.save(Project(stack=tuple(Sieve(name=f"step {number} of {k}") for k in range(40))), path)
"""


class KillTest(FolderCase):
    def spawn(self, code: str) -> subprocess.Popen:
        environment = os.environ | {
            "PYTHONPATH": str(ROOT / "src"),
            "FOLDER": str(self.folder),
            "XDG_STATE_HOME": str(self.folder / "state"),
        }
        return subprocess.Popen(
            [sys.executable, "-c", code], stdout=subprocess.PIPE, text=True, env=environment
        )

    def test_killed_while_editing_at_most_ten_seconds_are_lost(self):
        chance = random.Random(2)
        for _ in range(4):
            child = self.spawn(EDITING)
            child.stdout.readline()
            time.sleep(1.0 + chance.random())
            child.kill()
            died = time.time()
            last = int(child.stdout.read().strip().splitlines()[-1].split()[0])
            child.stdout.close()
            child.wait()
            with mock.patch.object(
                recovery,
                "recovery_folder",
                lambda: self.folder / "state" / "amber-sieve" / "recovery",
            ):
                left = recovery.left_behind()
                self.assertEqual(len(left), 1)
                self.assertLess(died - left[0].when, 10)
                self.assertGreater(int(left[0].project.stack[0].name.split()[1]), last - 80)
                recovery.discard(left[0])

    def test_killed_while_saving_the_file_is_whole(self):
        chance = random.Random(3)
        for _ in range(8):
            child = self.spawn(SAVING)
            child.stdout.readline()
            time.sleep(0.05 + 0.25 * chance.random())
            child.kill()
            child.wait()
            child.stdout.close()
            if (self.folder / "work.sieve").exists():
                self.assertEqual(len(storage.load(self.folder / "work.sieve").stack), 40)

    def test_a_write_that_was_cut_short_is_not_offered_twice(self):
        with (
            mock.patch.object(recovery, "recovery_folder", lambda: self.folder),
            mock.patch.object(recovery, "is_running", lambda number: False),
        ):
            recovery.Recovery().keep(Project(), "Untitled", None)
            whole = next(self.folder.glob("*.json"))
            (self.folder / f".{whole.name}.part.json").write_bytes(whole.read_bytes())
            self.assertEqual(len(recovery.left_behind()), 1)

    def test_nothing_is_left_after_a_clean_end(self):
        with mock.patch.object(recovery, "recovery_folder", lambda: self.folder):
            kept = recovery.Recovery()
            kept.keep(Project(), "Untitled", None)
            self.assertEqual(len(list(self.folder.iterdir())), 1)
            self.assertEqual(recovery.left_behind(), [])  # its owner lives
            kept.forget()
            self.assertEqual(list(self.folder.iterdir()), [])


class CollectingTest(unittest.TestCase):
    def test_rubbish_lies_until_the_last_thread_is_through(self):
        first, second = gc_pause(), gc_pause()
        first.__enter__()
        second.__enter__()
        first.__exit__(None, None, None)
        self.assertFalse(gc.isenabled())
        second.__exit__(None, None, None)
        self.assertTrue(gc.isenabled())
        gc.disable()
        self.addCleanup(gc.enable)
        with gc_pause():
            pass
        self.assertFalse(gc.isenabled())  # as it was


class CacheKeyTest(unittest.TestCase):
    def test_minus_one_and_minus_two_are_two_keys(self):
        # hash(-1.0) == hash(-2.0) in CPython: a key that was the hash took one for the other.
        frame = Frame(np.random.default_rng(1).random((3, 16, 16), dtype=np.float32))
        cache = RenderContext(Cache(10**8))

        def shown(hue: float) -> np.ndarray:
            sieve = Sieve(
                id="s",
                bands=Sieve().bands.but(ramp={"on": True}),
                adjust=Adjust(recolour=Recolour(hue=hue)),
            )
            return render(frame, Project(stack=(sieve,)), cache)

        self.assertFalse(np.array_equal(shown(-1.0), shown(-2.0)))
        self.assertEqual(hash(-1.0), hash(-2.0))


class TerminalTest(FolderCase):
    def test_what_says_how_a_clip_is_written_is_refused_for_a_picture(self):
        out, still = self.folder / "out.png", DEMO / "yard.png"
        picked = ("recolour", still, "-o", out, "--keep", "742,790")
        for words, named in (
            ((*picked, "--codec", "FFV1", "--jobs", "2"), "--codec and --jobs go with"),
            ((*picked, "--frames", "1-3"), "--frames goes with"),
            ((*picked, "--quality", "50"), "--quality goes with"),
            (("render", DEMO / "yard.sieve", "-o", out, "--resume"), "--resume goes with"),
            (
                ("render", DEMO / "yard.sieve", "-o", out, "--page", self.folder / "p.html"),
                "--page goes with",
            ),
        ):
            done = terminal(*words)
            self.assertEqual((done.returncode, done.stdout), (1, ""), words)
            self.assertIn(f"is one picture: {named} clips", done.stderr)
            self.assertEqual(done.stderr.count("\n"), 1)
        self.assertFalse(out.exists())

    def test_numbers_that_are_none_are_wrong_usage(self):
        for words in (
            ("--keep", "nan,nan"),
            ("--keep", "1e200,3"),
            ("--keep", "735,830", "--frame", "-1"),
            ("--hue", "nan,1,2,3"),
            ("--area", "add:rect:0,0,inf,3"),
            ("--keep", "735,830", "--follow", "1e9"),
        ):
            done = terminal("mask", DEMO / "yard.png", "-o", self.folder / "m.png", *words)
            self.assertEqual(done.returncode, 2, words)
            self.assertNotIn("Traceback", done.stderr)

    def test_names_that_are_no_text_or_too_long(self):
        for name in (b"\xff\xfe.png", b"x" * 4000 + b".png"):
            with contextlib.suppress(UnicodeDecodeError):
                done = subprocess.run(
                    [sys.executable, "-m", "amber_sieve.terminal.main", "info", name],
                    capture_output=True,
                    env=os.environ | {"PYTHONPATH": str(ROOT / "src")},
                )
                self.assertEqual(
                    (done.returncode, len(done.stderr.strip().splitlines())), (1, 1), done.stderr
                )

    def test_deep_json_is_said(self):
        path = self.folder / "deep.sieve"
        path.write_text('{"version": 1, "stack": ' + "[" * 3000)
        done = terminal("info", path)
        self.assertEqual(done.returncode, 1)
        self.assertIn("not valid JSON", done.stderr)

    def test_broken_inputs_in_short(self):
        done = subprocess.run(
            [sys.executable, str(ROOT / "tools" / "broken_inputs.py"), "90", "11"],
            capture_output=True,
            text=True,
            timeout=300,
        )
        print("\n" + done.stdout.strip().splitlines()[-1])
        self.assertEqual(done.returncode, 0, done.stdout)

    def test_controls_are_listed_and_stand_in_the_docs(self):
        listed = terminal("controls").stdout.strip()
        self.assertIn("| adjust | exposure | -10 to 10 stops | 0 |", listed)
        self.assertIn(listed, (ROOT / "docs" / "controls.md").read_text())

    def test_any_adjustment_can_be_set_by_name(self):
        # Source: a stop is a factor of two of light (common practice, no source).
        out = self.folder / "out.exr"
        ramp = ("--area", "add:rect:0,0,1800,1200")
        self.assertEqual(
            terminal(
                "recolour", DEMO / "yard.png", "-o", out, *ramp, "--set", "exposure=1"
            ).returncode,
            0,
        )
        goal = stills.read(DEMO / "yard.png").picture.planes * 2
        self.assertLess(np.abs(stills.read(out).picture.planes - goal).max(), 2e-3)


class EditsTest(unittest.TestCase):
    def test_fields_by_their_way(self):
        sieve = edits.with_field(Sieve(), "adjust.recolour.hue", 20.0)
        self.assertEqual(edits.field_of(sieve, "adjust.recolour.hue"), 20)
        self.assertEqual(edits.without_adjustments(sieve).adjust, Adjust())
        self.assertEqual(edits.with_field(sieve, "strength", 40.0).strength, 40)
