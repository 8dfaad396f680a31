"""Exports, progress, sequences, layers, the demo without a screen, and what set-up ships."""

import ast
import io
import json
import os
import pathlib
import subprocess
import sys
import threading
import time
import tokenize
import unittest
import xml.etree.ElementTree as ElementTree
from dataclasses import replace
from fractions import Fraction
from unittest import mock

import numpy as np
import OpenImageIO as oiio
import tifffile
from common import DEMO, ROOT, FolderCase, demo_frame, rendered_whole, terminal
from PIL import Image

from amber_sieve import warm
from amber_sieve.core.frame import Frame
from amber_sieve.errors import Trouble
from amber_sieve.export.clip import export_clip, frame_range
from amber_sieve.export.frame import finished
from amber_sieve.export.still import export_mask, export_still
from amber_sieve.files import is_running, written_beside
from amber_sieve.live.sampling import sample_at, taken_again
from amber_sieve.media import formats, stills
from amber_sieve.media.footage import writing as footage_writing
from amber_sieve.media.footage.sequences import Sequence
from amber_sieve.media.opening import open_source
from amber_sieve.progress import Cancelled, Progress
from amber_sieve.project.model import Adjust, Pick, Project, Recolour, Sieve
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.keys import MaskKey
from amber_sieve.render.stack import render
from amber_sieve.resolve.layers import layers_in

SOURCES = ROOT / "src" / "amber_sieve"


def recoloured(frame: Frame, x: float = 735, y: float = 830) -> Project:
    """A project that turns the hue of one thing."""
    return Project(
        stack=(
            Sieve(
                pick=Pick(samples=(sample_at(frame, x, y),)),
                adjust=Adjust(recolour=Recolour(hue=80.0)),
            ),
        )
    )


class ProgressTest(unittest.TestCase):
    def test_shares_and_time_left_reach_the_listener(self):
        heard = []
        progress = Progress(lambda share, left: heard.append((share, left)))
        progress._started -= 10
        progress.step(0.25)
        self.assertEqual(heard[0][0], 0.25)
        self.assertAlmostEqual(heard[0][1], 30, delta=1)

    def test_a_cancelled_job_stops_at_its_next_step(self):
        progress = Progress()
        progress.cancel()
        with self.assertRaises(Cancelled):
            progress.step(0.5)

    def test_from_another_thread(self):
        progress, stopped = Progress(), threading.Event()

        def work() -> None:
            try:
                while True:
                    progress.step(0.1)
            except Cancelled:
                stopped.set()

        worker = threading.Thread(target=work)
        worker.start()
        progress.cancel()
        worker.join(5)
        self.assertTrue(stopped.is_set())


class CacheTest(unittest.TestCase):
    def test_values_are_made_once_and_the_oldest_go(self):
        cache, made = Cache(3 * 4000), []

        def make(name: str) -> np.ndarray:
            made.append(name)
            return np.zeros(1000, np.float32)

        for name in ("a", "b", "c", "a", "d", "a", "b"):
            cache.get(name, lambda name=name: make(name))
        self.assertEqual(made, ["a", "b", "c", "d", "b"])
        self.assertTrue(cache.holds("a"))

    def test_a_value_larger_than_the_cache_is_not_kept(self):
        cache = Cache(10)
        cache.get("large", lambda: np.zeros(100))
        self.assertFalse(cache.holds("large"))

    def test_a_smaller_limit_lets_go_of_the_oldest_at_once(self):
        cache = Cache(3 * 4000)
        for name in "abc":
            cache.get(name, lambda: np.zeros(1000, np.float32))
        cache.resize(2 * 4000)
        self.assertEqual([cache.holds(name) for name in "abc"], [False, True, True])

    def test_a_changed_adjustment_does_not_recompute_the_mask(self):
        frame = demo_frame("yard").reduced(8)
        cache, project = Cache(10**9), recoloured(demo_frame("yard"))

        def of_masks() -> set:
            return {
                key
                for key in cache._cached
                if isinstance(key, MaskKey) or key[0] in ("qualified", "picked", "oklab")
            }

        render(frame, project, RenderContext(cache))
        held = of_masks()
        self.assertTrue(
            {"qualified", "oklab"} <= {key[0] for key in held if isinstance(key, tuple)}
        )
        self.assertTrue(any(isinstance(key, MaskKey) for key in held))
        other = project.with_sieve(
            project.stack[0].but(adjust=Adjust(recolour=Recolour(hue=-20.0)))
        )
        render(frame, other, RenderContext(cache))
        self.assertEqual(held, of_masks())


def exr_of(path: pathlib.Path) -> np.ndarray:
    """The one channel of an OpenEXR file, by OpenImageIO's own reading of it."""
    held = oiio.ImageBuf(str(path))
    return held.get_pixels(oiio.FLOAT)[..., 0]


class StillExportTest(FolderCase):
    def test_every_ending_and_depth(self):
        source = open_source(DEMO / "yard.png")
        project = recoloured(source.frame(0))
        goal = rendered_whole(source.frame(0), project).planes
        for name, depth, error in (
            ("a.png", "", 0.02),
            ("b.png", "uint16", 1e-3),
            ("c.tif", "float", 1e-6),
            ("d.exr", "half", 1e-3),
            ("e.jpg", "", 0.3),
        ):
            path = self.folder / name
            export_still(source, project, path, depth=depth)
            back = stills.read(path)
            self.assertEqual(back.about.size, (1800, 1200))
            inside = np.clip(goal, 0, 1) if not name.endswith(("tif", "exr")) else goal
            self.assertLess(
                float(np.quantile(np.abs(back.picture.planes - inside), 0.999)), error, name
            )

    def test_stopping_leaves_nothing_behind(self):
        source = open_source(DEMO / "yard.png")
        progress = Progress(lambda share, left: progress.cancel() if share > 0.6 else None)
        with self.assertRaises(Cancelled):
            export_still(
                source, recoloured(source.frame(0)), self.folder / "a.png", progress=progress
            )
        self.assertEqual(list(self.folder.iterdir()), [])

    def test_masks_as_png_tiff_and_exr(self):
        source = open_source(DEMO / "yard.png")
        project = recoloured(source.frame(0))
        mask = finished(source, project, result=False, masks=[project.stack[0].id]).masks[
            project.stack[0].id
        ]
        self.assertGreater((mask == 1).sum(), 1000)
        for name in ("m.png", "m.tif", "m.exr"):
            mean = export_mask(source, project, project.stack[0].id, self.folder / name)
            back = stills.read(self.folder / name)
            self.assertEqual(back.about.tags["channels"], "1")
            self.assertGreater(mean, 0.01)
            # Read by libraries that did not write it, every pixel is the mask as it is rendered; 16
            # bits round it.
            readers = {
                "m.png": lambda path: np.asarray(Image.open(path)),
                "m.tif": tifffile.imread,
                "m.exr": exr_of,
            }
            stored = readers[name](self.folder / name)
            shares = stored.astype(np.float64) / (65535 if stored.dtype == np.uint16 else 1)
            self.assertEqual(stored.dtype, np.float32 if name == "m.exr" else np.uint16)
            np.testing.assert_allclose(shares, mask, atol=0 if name == "m.exr" else 0.5001 / 65535)
            self.assertAlmostEqual(mean, float(mask.mean(dtype=np.float64)), places=7)

    def test_a_picture_taken_from_a_clip(self):
        source = open_source(DEMO / "clip.mp4")
        self.addCleanup(source.close)
        export_still(source, Project(), self.folder / "frame.png", 40)
        self.assertEqual(stills.read(self.folder / "frame.png").about.size, (960, 540))

    def test_samples_are_taken_again_where_they_were(self):
        frame = demo_frame("yard")
        sample = sample_at(frame, 735, 830).but(colour=(0.0, 0.0, 0.0), name="Jar")
        again = taken_again(sample, frame)
        self.assertEqual(again.name, "Jar")
        self.assertEqual(again.colour, sample_at(frame, 735, 830).colour)


class SequenceExportTest(FolderCase):
    def setUp(self) -> None:
        super().setUp()
        for number in range(5):
            picture = np.full((24, 32, 3), (30 * number, 120, 60), np.uint8)
            Image.fromarray(picture).save(self.folder / f"in.{number:04}.png")
        self.source = Sequence(self.folder / "in.####.png")

    def test_pictures_in_pictures_out(self):
        self.assertEqual(
            export_clip(self.source, Project(), self.folder / "out.####.tif", (1, 3)), 3
        )
        names = sorted(path.name for path in self.folder.glob("out.*"))
        self.assertEqual(names, ["out.0001.tif", "out.0002.tif", "out.0003.tif"])
        self.assertTrue(
            np.array_equal(
                stills.read(self.folder / "out.0002.tif").picture.planes,
                self.source.frame(2).planes,
            )
        )

    def test_pictures_in_clip_out(self):
        out = self.folder / "out.mov"
        export_clip(self.source, Project(), out, codec="ProRes 422 HQ")
        clip = open_source(out)
        self.addCleanup(clip.close)
        self.assertEqual((clip.about.frames, clip.about.rate), (5, Fraction(24)))
        self.assertLess(np.abs(clip.frame(3).planes - self.source.frame(3).planes).max(), 0.03)

    def test_ranges_and_endings_that_do_not_fit_are_said(self):
        self.assertEqual(frame_range(self.source, None), range(5))
        for wanted in ((3, 2), (-1, 2), (0, 5)):
            with self.assertRaises(Trouble):
                frame_range(self.source, wanted)
        for name, codec in (("x.avi", ""), ("x.mp4", "ProRes 422 HQ"), ("x.mxf", "H.264")):
            with self.assertRaises(Trouble):
                formats.codec_for(pathlib.Path(name), codec)

    def test_odd_sizes_need_prores(self):
        odd = replace(self.source.about, size=(31, 24))
        with self.assertRaises(Trouble) as caught:
            footage_writing.ClipWriter(
                self.folder / "x.mp4", None, footage_writing.ClipForm(odd.size, odd.rate, "H.264")
            )
        self.assertIn("even", str(caught.exception))


class LayerTest(FolderCase):
    def setUp(self) -> None:
        super().setUp()
        self.layer = layers_in(RenderContext(Cache(10**8)))

    def test_a_layer_lies_at_the_place_and_scale_of_a_frame(self):
        frame = demo_frame("yard")
        part = frame.part(300, 200, 700, 600)
        self.assertTrue(
            np.array_equal(
                self.layer.at(str(DEMO / "madder.png"), part).planes,
                demo_frame("madder").planes[:, 200:600, 300:700],
            )
        )
        small = frame.reduced(4)
        self.assertEqual(
            self.layer.at(str(DEMO / "madder.png"), small).planes.shape, small.planes.shape
        )

    def test_missing_and_small_layers_are_said(self):
        Image.new("RGB", (20, 20)).save(self.folder / "small.png")
        for path in (self.folder / "none.png", self.folder / "small.png"):
            with self.assertRaises(Trouble):
                self.layer.at(str(path), demo_frame("yard"))


class FilesTest(FolderCase):
    def test_the_earlier_file_stays_when_writing_fails(self):
        path = self.folder / "a.txt"
        path.write_text("before")
        with self.assertRaises(Trouble), written_beside(path) as partial:
            partial.write_text("half")
            raise OSError(28, "No space left on device")
        self.assertEqual(path.read_text(), "before")
        self.assertEqual([p.name for p in self.folder.iterdir()], ["a.txt"])

    def test_another_error_passes_through_and_leaves_nothing(self):
        with self.assertRaises(ZeroDivisionError), written_beside(self.folder / "b.txt") as partial:
            partial.write_text("half")
            raise ZeroDivisionError
        self.assertEqual(list(self.folder.iterdir()), [])


class HouseTest(FolderCase):
    """The plan of the house holds: who may import whom, and what is shipped."""

    #: What every floor may import besides itself and the ground.
    GROUND = (
        "gc_pause",
        "compiled",
        "language",
        "names",
        "errors",
        "files",
        "progress",
        "read_settings",
        "side_by_side",
        "threads",
        "worker_process",
    )
    FLOORS = {
        **dict.fromkeys(GROUND, ()),
        "core": (),
        "project": (),
        "media": ("core",),
        "render": ("core", "project"),
        "resolve": ("core", "project", "media", "render"),
        **dict.fromkeys(("live", "export"), ("core", "project", "media", "render", "resolve")),
        "workspace": ("core", "project", "media", "render", "resolve", "live", "export"),
        "warm": ("core",),
        "ready": ("core", "project", "media", "render", "resolve", "live", "export", "warm"),
        "api": ("core", "project", "media", "render", "resolve", "live", "export"),
        **dict.fromkeys(
            ("desk", "terminal", "demo"),
            (
                "core",
                "project",
                "media",
                "render",
                "resolve",
                "live",
                "export",
                "workspace",
                "desk",
                "ready",
                "warm",
            ),
        ),
    }
    #: Floors that know nothing of Qt, and the one that knows its signals but no widgets.
    NO_QT = (
        *GROUND,
        "core",
        "project",
        "media",
        "render",
        "resolve",
        "live",
        "export",
        "terminal",
        "ready",
        "warm",
        "api",
    )

    def test_benches_tools_and_tests_have_a_home_of_their_own(self):
        # Importing `own_home`, or what imports it, before anything of the program.
        first = {"own_home", "common", "forked", "monkey", "robot", "ends", "made"}
        for path in (
            path
            for folder in ("bench", "tools", "tests")
            for path in sorted((ROOT / folder).glob("*.py"))
        ):
            if (
                path.parent.name == "tests"
                and path.stem != "ends"
                and not path.stem.startswith("test_")
            ):
                continue  # what tests import, after this
            names = [
                name.split(".")[0]
                for node in ast.parse(path.read_text()).body
                if isinstance(node, ast.Import | ast.ImportFrom)
                for name in (
                    [node.module or ""]
                    if isinstance(node, ast.ImportFrom)
                    else [alias.name for alias in node.names]
                )
            ]
            if "amber_sieve" in names and path.stem != "translations":  # which only reads tables
                homes = [place for place, name in enumerate(names) if name in first]
                self.assertTrue(
                    homes and homes[0] < names.index("amber_sieve"),
                    f"{path.name} may write into somebody's state folder",
                )

    def imports_of(self, path: pathlib.Path) -> set[str]:
        found = set()
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.ImportFrom):
                base = path.parent
                for _ in range(max(node.level - 1, 0)):
                    base = base.parent
                whole = (
                    (base / (node.module or "").replace(".", "/"))
                    if node.level
                    else pathlib.Path(node.module or "")
                )
                found.add(
                    str(whole.relative_to(SOURCES))
                    if node.level and whole.is_relative_to(SOURCES)
                    else str(whole)
                )
            elif isinstance(node, ast.Import):
                found |= {alias.name for alias in node.names}
        return found

    def test_imports_run_downwards(self):
        for path in SOURCES.rglob("*.py"):
            floor = path.relative_to(SOURCES).parts[0].removesuffix(".py")
            if floor == "__init__":
                continue
            self.assertIn(floor, self.FLOORS, f"{path.name} stands on no floor")
            for name in self.imports_of(path):
                first = name.split("/")[0]
                self.assertFalse(first.startswith("PyQt6") and floor in self.NO_QT, path)
                self.assertFalse(first.startswith("PyQt6.QtWidgets") and floor == "workspace", path)
                if first in self.FLOORS:
                    self.assertIn(
                        first,
                        (floor, *self.GROUND, *self.FLOORS[floor]),
                        f"{path.name} imports {name}",
                    )

    def modules_imported_by(self, path: pathlib.Path) -> set[pathlib.Path]:
        """The files of the program that a file imports, also those it imports for the type checker
        or inside a function.
        """
        found = set()
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.ImportFrom) and node.level:
                place = path.parents[node.level - 1] / (node.module or "").replace(".", "/")
                inside = {place / f"{alias.name}.py" for alias in node.names}
                found |= {one for one in inside if one.exists()} or {
                    place.with_suffix(".py"),
                    place / "__init__.py",
                }
        return {one for one in found if one.exists()}

    def test_imports_go_round_in_no_circle(self):
        left = {path: self.modules_imported_by(path) - {path} for path in SOURCES.rglob("*.py")}
        while free := [path for path, others in left.items() if not others & left.keys()]:
            for path in free:
                del left[path]
        self.assertEqual({str(path.relative_to(SOURCES)) for path in left}, set())

    def test_controllers_stay_small_and_widgets_hold_few(self):
        for path in (SOURCES / "workspace").rglob("*.py"):
            for node in ast.parse(path.read_text()).body:
                if isinstance(node, ast.ClassDef):
                    named = {one.name for one in node.body if isinstance(one, ast.FunctionDef)}
                    named |= {
                        one.attr
                        for one in ast.walk(node)
                        if isinstance(one, ast.Attribute)
                        and isinstance(one.ctx, ast.Store)
                        and getattr(one.value, "id", "") == "self"
                    }
                    named |= {
                        target.id
                        for one in node.body
                        if isinstance(one, ast.Assign)
                        for target in one.targets
                    }
                    public = {name for name in named if not name.startswith("_")}
                    self.assertLessEqual(len(public), 45, f"{path.name}: {node.name}")
        for path in (SOURCES / "desk").rglob("*.py"):
            if path.parent.name != "window":  # the window itself, and its own parts, hold all of it
                self.assertNotRegex(path.read_text(), r"self\._?workspace\b", path.name)

    def test_files_and_functions_are_short(self):
        """By statements, not lines: a limit of lines makes them wide."""
        for path in SOURCES.rglob("*.py"):
            tree = ast.parse(path.read_text())
            for node in (tree, *ast.walk(tree)):
                if isinstance(node, ast.Module | ast.FunctionDef):
                    held = sum(isinstance(one, ast.stmt) for one in ast.walk(node) if one != node)
                    most = 250 if isinstance(node, ast.Module) else 60
                    self.assertLessEqual(held, most, f"{path.name} {getattr(node, 'name', '')}")

    #: Words that make a riddle of a sentence. The list grows.
    ODD = (
        *("that which", "so many", "so much", "so often", "whoever", "in a hurry", "put on by"),
        *("whose sake", "rubbish", "drawn anew", "made anew", "worked anew"),
    )

    def test_no_docstring_or_comment_has_an_odd_word(self):
        for path in SOURCES.rglob("*.py"):
            source = path.read_text()
            said = [
                " ".join((ast.get_docstring(node) or "").split())
                for node in ast.walk(ast.parse(source))
                if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef)
            ]
            tokens = tokenize.generate_tokens(io.StringIO(source).readline)
            said += [token.string for token in tokens if token.type == tokenize.COMMENT]
            for words in said:
                for odd in self.ODD:
                    self.assertNotIn(odd, words.lower(), path.name)

    def test_docstrings_open_with_what_is_returned_or_done(self):
        """Not with a question word, after which the verb comes last."""
        for path in SOURCES.rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text())):
                if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef) and (
                    said := ast.get_docstring(node)
                ):
                    self.assertNotIn(
                        said.split()[0],
                        ("What", "How", "Whether", "Where", "Which", "Who"),
                        f"{path.name}: {said[:60]}",
                    )

    def test_every_kernel_and_what_it_is_called_with_is_in_the_list_that_is_compiled(self):
        kernels = []
        for path in (SOURCES / "core").rglob("*.py"):
            module = path.relative_to(SOURCES.parent).with_suffix("").as_posix().replace("/", ".")
            made = [
                node
                for node in ast.parse(path.read_text()).body
                if isinstance(node, ast.FunctionDef)
                and any(
                    isinstance(one, ast.Name) and one.id in ("kernel", "serial_kernel")
                    for one in node.decorator_list
                )
            ]
            # One that another kernel calls is compiled into that.
            calls = [
                inner.func.id
                for node in made
                for inner in ast.walk(node)
                if isinstance(inner, ast.Call) and isinstance(inner.func, ast.Name)
            ]
            names, inside = [node.name for node in made], set(calls)
            kernels += [(module, name) for name in names if name not in inside]
        self.assertGreater(len(kernels), 40)
        listed = {
            (f"amber_sieve.core.{job.module}", job.name)
            for group in warm.GROUPS
            for job in warm.listed(group)
        }
        self.assertEqual(set(kernels) - listed, set())
        words = [sys.executable, ROOT / "tools" / "signatures.py", "--check"]
        done = subprocess.run(words, capture_output=True, text=True, cwd=self.folder, timeout=300)
        self.assertEqual(
            done.stdout.splitlines()[-1:],
            ["The list is complete."],
            done.stdout[-2000:] + done.stderr[-2000:],
        )

    def test_workers_end_with_the_process_they_work_for(self):
        (self.folder / "pool.py").write_text("""
import multiprocessing, os, time
from concurrent.futures import ProcessPoolExecutor
from amber_sieve import worker_process

if __name__ == "__main__":
    pool = ProcessPoolExecutor(2, multiprocessing.get_context("spawn"), worker_process.begin)
    print(*{pool.submit(os.getpid).result() for _ in range(2)}, flush=True)
    time.sleep(60)
""")
        environment = os.environ | {"PYTHONPATH": str(SOURCES.parent)}
        parent = subprocess.Popen(
            [sys.executable, self.folder / "pool.py"],
            stdout=subprocess.PIPE,
            text=True,
            env=environment,
        )
        workers = [int(word) for word in parent.stdout.readline().split()]
        parent.kill()
        parent.wait()
        parent.stdout.close()
        end = time.monotonic() + 20
        while any(is_running(number) for number in workers) and time.monotonic() < end:
            time.sleep(0.05)
        self.assertTrue(workers)
        self.assertEqual([number for number in workers if is_running(number)], [])

    def test_kernels_are_compiled_by_all_cores_and_only_once(self):
        jobs = [job for job in warm.listed("first") if job.module == "colour.transfer"]
        shares = []
        environment = {
            "NUMBA_CACHE_DIR": str(self.folder / "kept"),
            "XDG_STATE_HOME": str(self.folder),
        }
        with (
            mock.patch.dict(os.environ, environment),
            mock.patch.object(warm, "listed", return_value=jobs),
        ):
            warm.warm(("first",), shares.append)
            self.assertEqual((len(shares), shares[-1]), (len(jobs), 1.0))
            self.assertTrue(list((self.folder / "kept").rglob("*.nbc")))
            warm.warm(("first",), lambda share: self.fail("it is compiled already"))

    def test_an_empty_window_needs_no_compiler(self):
        code = """
import sys
from amber_sieve.desk.app import application
from amber_sieve.desk.window.open_window import open_window
from amber_sieve.workspace.workspace import Workspace
running, window = application(), open_window(Workspace())
before = "numba" in sys.modules
window.show()
print(before)
window.workspace.close()
"""
        environment = os.environ | {
            "PYTHONPATH": str(SOURCES.parent),
            "QT_QPA_PLATFORM": "offscreen",
        }
        done = subprocess.run(
            [sys.executable, "-c", code],
            capture_output=True,
            text=True,
            env=environment,
            cwd=self.folder,
        )
        self.assertEqual(done.stdout.strip(), "False", done.stderr[-2000:])

    def test_what_the_first_picture_needs_is_loaded_before(self):
        code = """
import gc, pathlib, sys
from amber_sieve.core.jit.parallel import Kernel
from amber_sieve.live.preview import Opened, Wanted, preview
from amber_sieve.media.opening import open_source
from amber_sieve.project import storage
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.ready import make_ready
make_ready()
kept = gc.isenabled() and gc.get_freeze_count() > 100_000 and "scipy.interpolate" in sys.modules
def loaded():
    core = [one for name, one in list(sys.modules.items()) if name.startswith("amber_sieve.core")]
    named = [pair for one in core for pair in vars(one).items()]
    return {key for key, made in named if isinstance(made, Kernel) and made.made}
before = loaded()
project = storage.load(pathlib.Path(sys.argv[1]))
opened = Opened(open_source(pathlib.Path(project.source)))
preview(opened, Wanted(project, project.stack[0].id), RenderContext(Cache(10**9)))
print(kept and len(before) > 15 and len(loaded() - before) < 3, sorted(loaded() - before))
"""
        environment = os.environ | {"PYTHONPATH": str(SOURCES.parent)}
        words = [sys.executable, "-c", code, str(DEMO / "yard.sieve")]
        done = subprocess.run(
            words, capture_output=True, text=True, env=environment, cwd=self.folder
        )
        self.assertTrue(done.stdout.startswith("True"), done.stdout + done.stderr[-2000:])

    def test_what_is_shipped_can_be_read(self):
        ElementTree.parse(ROOT / "packaging" / "amber-sieve.xml")
        ElementTree.parse(SOURCES / "desk" / "icons" / "amber-sieve.svg")
        entry = (ROOT / "packaging" / "amber-sieve.desktop").read_text()
        self.assertIn("MimeType=application/x-amber-sieve+json", entry)
        self.assertIn(
            '"signatures.json"', (ROOT / "pyproject.toml").read_text()
        )  # or a first start finds nothing to compile
        self.assertTrue(
            (ROOT / "LICENSE").read_text().lstrip().startswith("GNU GENERAL PUBLIC LICENSE")
        )
        for path in DEMO.rglob("*"):
            self.assertLess(path.stat().st_size, 4_000_000, path)

    def test_the_schema_fits_the_demo_project(self):
        schema = json.loads(terminal("schema").stdout)
        held = json.loads((DEMO / "yard.sieve").read_text())
        self.assertTrue(set(held) <= set(schema["properties"]))


class DemoTest(FolderCase):
    def test_without_a_screen_the_demo_writes_three_pictures(self):
        environment = {
            name: value
            for name, value in os.environ.items()
            if name not in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")
        }
        words = [sys.executable, "-m", "amber_sieve.demo", str(DEMO), str(self.folder / "out")]
        done = subprocess.run(
            words,
            capture_output=True,
            text=True,
            env=environment | {"PYTHONPATH": str(ROOT / "src")},
            cwd=ROOT,
        )
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertIn("window.png", done.stdout)
        self.assertEqual(
            sorted(p.name for p in (self.folder / "out").iterdir()),
            ["mask.png", "result.png", "window.png"],
        )
        self.assertEqual(Image.open(self.folder / "out" / "window.png").size, (1280, 800))
