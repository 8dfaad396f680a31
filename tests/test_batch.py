"""Many pictures by one project, and lookup tables."""

import csv
import os
import pathlib
import re
import signal
import subprocess
import sys
import time
import unittest

import distributed
import numpy as np
import PyOpenColorIO as ocio
from common import DEMO, ROOT, FolderCase, demo_frame, terminal
from PIL import Image

from amber_sieve.core.colour.transfer import decode, encode
from amber_sieve.errors import Trouble
from amber_sieve.export import batch, lookup
from amber_sieve.export.still_options import Export
from amber_sieve.files import PART
from amber_sieve.media.opening import open_source
from amber_sieve.project import storage
from amber_sieve.project.model import (
    Adjust,
    Area,
    Band,
    Bands,
    Edge,
    Hues,
    Light,
    Project,
    Ramp,
    Recolour,
    Sieve,
)

BARE = Edge(specks=0, holes=0, follow=0, clean=0, level=0)


def project() -> Project:
    """Everything that is light and warm, darkened."""
    bands = Bands(luminance=Band(on=True, corners=(20, 40, 100, 100)))
    return Project(
        stack=(
            Sieve(name="Light", bands=bands, edge=BARE, adjust=Adjust(light=Light(exposure=-1))),
        )
    )


class BatchTest(FolderCase):
    PICTURES, BROKEN = 60, 7

    def make(self, count: int, broken: int) -> list:
        """Small made-up pictures, some of them broken."""
        inside = self.folder / "in"
        inside.mkdir()
        rng = np.random.default_rng(1)
        paths = []
        for number in range(count):
            path = inside / f"p{number:03}.png"
            Image.fromarray(rng.integers(60, 200, (24, 32, 3), dtype=np.uint8)).save(path)
            paths.append(path)
        for path in paths[5 :: count // broken][:broken]:
            path.write_bytes(path.read_bytes()[: 60 if int(path.stem[1:]) % 2 else 0] + b"x")
        storage.save(project(), self.folder / "p.sieve")
        return paths

    def results(self) -> list:
        # A killed process may leave one part-file, which a later start sweeps (test_foundations).
        return sorted(
            path.name
            for path in (self.folder / "out").glob("*.png")
            if not path.name.startswith(PART)
        )

    def test_sixty_of_which_seven_are_broken_killed_and_gone_on_with(self):
        self.make(self.PICTURES, self.BROKEN)
        words = [
            sys.executable,
            "-m",
            "amber_sieve.terminal.main",
            "batch",
            str(self.folder / "p.sieve"),
            str(self.folder / "in"),
            "-o",
            str(self.folder / "out"),
        ]
        environment = os.environ | {"PYTHONPATH": str(ROOT / "src")}
        running = subprocess.Popen(
            words, env=environment, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL
        )
        deadline = time.monotonic() + 60
        while (
            not (self.folder / "out" / batch.STATE).is_file()
            and running.poll() is None
            and time.monotonic() < deadline
        ):
            time.sleep(0.05)
        if running.poll() is None:
            running.send_signal(signal.SIGKILL)
        running.wait()
        for name in self.results():
            Image.open(self.folder / "out" / name).load()  # nothing half-written under a final name
        before = {name: (self.folder / "out" / name).stat().st_mtime_ns for name in self.results()}
        done = terminal(
            "batch",
            self.folder / "p.sieve",
            self.folder / "in",
            "-o",
            self.folder / "out",
            "--jobs",
            2,
        )
        self.assertEqual(done.returncode, 1)
        self.assertEqual(done.stderr.count("\n"), self.BROKEN, done.stderr[-800:])
        self.assertNotIn("Traceback", done.stderr)
        self.assertEqual(len(self.results()), self.PICTURES - self.BROKEN)
        again = {path.name: path.stat().st_mtime_ns for path in (self.folder / "out").glob("*.png")}
        self.assertGreater(sum(again[name] == when for name, when in before.items()), 0)
        # The report: one row a picture, what stands out first.
        with (self.folder / "out" / batch.TABLE).open() as file:
            rows = list(csv.DictReader(file))
        self.assertEqual(len(rows), self.PICTURES)
        self.assertTrue(all(row["warning"] for row in rows[: self.BROKEN]))
        page = (self.folder / "out" / batch.PAGE).read_text()
        self.assertIn(f"{self.PICTURES - self.BROKEN} of {self.PICTURES} pictures written", page)
        self.assertEqual(page.count("<img"), self.PICTURES - self.BROKEN)

    def test_one_process_and_two_give_the_same_bits(self):
        paths = self.make(12, 1)
        found = []
        for jobs in (1, 2):
            batch.run_batch(project(), paths, self.folder / f"out{jobs}", batch.BatchHow(jobs=jobs))
            found.append(
                {
                    path.name: np.asarray(Image.open(path)).tobytes()
                    for path in (self.folder / f"out{jobs}").glob("*.png")
                }
            )
        self.assertEqual(found[0], found[1])
        single = self.folder / "single.png"
        done = terminal("render", self.folder / "p.sieve", "--input", paths[0], "-o", single)
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertTrue(
            np.array_equal(
                np.asarray(Image.open(single)),
                np.asarray(Image.open(self.folder / "out1" / "p000.png")),
            )
        )

    def test_two_workers_of_a_cluster_one_killed_half_way_give_the_same_files(self):
        count = 24
        pictures = self.make(count, self.BROKEN // 2)
        alone, farm = self.folder / "alone", self.folder / "farm"
        batch.run_batch(project(), pictures, alone)
        killed = []
        with distributed.LocalCluster(
            n_workers=2, threads_per_worker=1, dashboard_address=None, silence_logs=50
        ) as cluster:

            def tell(outcome) -> None:
                if not killed and len(list(farm.glob("*.png"))) > count // 3:
                    killed.append(next(iter(cluster.workers.values())).pid)
                    os.kill(killed[0], signal.SIGKILL)

            outcomes = batch.run_batch(
                project(),
                pictures,
                farm,
                batch.BatchHow(scheduler=cluster.scheduler_address),
                tell=tell,
            )
        self.assertEqual(len(killed), 1)
        self.assertEqual(sum(bool(outcome.trouble) for outcome in outcomes), self.BROKEN // 2)
        names = sorted(path.name for path in alone.glob("*.png"))
        self.assertEqual(len(names), count - self.BROKEN // 2)
        self.assertEqual(
            sorted(path.name for path in farm.glob("*.png") if not path.name.startswith(PART)),
            names,
        )
        for name in names:
            self.assertEqual((alone / name).read_bytes(), (farm / name).read_bytes(), name)
        said = (farm / batch.PAGE).read_text()
        self.assertEqual(
            len(re.findall(r"<tr><td>p\d+\.png</td><td>[^<]+ \(\d+\)</td>", said)),
            count,
            "who did each of them",
        )
        self.assertFalse(
            "Who worked" in (alone / batch.PAGE).read_text(), "of one process nothing is said"
        )
        with self.assertRaisesRegex(Trouble, "cannot be reached"):
            batch.run_batch(
                project(),
                pictures[:1],
                self.folder / "none",
                batch.BatchHow(scheduler="tcp://127.0.0.1:1"),
            )

    def test_each_picture_by_its_own_project(self):
        pictures = self.make(2, 1)[:1] * 1 + [DEMO / "close.png"]
        bright = project().with_sieve(
            project().stack[0].but(adjust=Adjust(light=Light(exposure=1)))
        )
        batch.run_batch([project(), bright], pictures, self.folder / "out")
        batch.run_batch(bright, [DEMO / "close.png"], self.folder / "one")
        self.assertEqual(
            (self.folder / "out" / "close.png").read_bytes(),
            (self.folder / "one" / "close.png").read_bytes(),
        )

    def test_pictures_are_never_written_over_and_names_never_meet(self):
        paths = self.make(3, 1)
        with self.assertRaisesRegex(Trouble, "choose another folder"):
            batch.run_batch(project(), paths, self.folder / "in")
        other = self.folder / "other"
        other.mkdir()
        Image.new("RGB", (8, 8)).save(other / "p000.png")
        outs = batch.outputs_for(
            [paths[0], other / "p000.png", self.folder / "scan.tga"], self.folder / "o"
        )
        self.assertEqual([out.name for out in outs], ["p000.png", "p000-2.png", "scan.png"])

    def test_all_are_written_as_what_is_wanted(self):
        pictures = [DEMO / "close.png", DEMO / "yard.png"]
        outcomes = batch.run_batch(
            project(), pictures, self.folder / "out", batch.BatchHow(".tif", Export(depth="uint16"))
        )
        for outcome, picture in zip(outcomes, pictures, strict=True):
            self.assertEqual(
                (outcome.trouble, pathlib.Path(outcome.out).name), ("", f"{picture.stem}.tif")
            )
            self.assertEqual(open_source(pathlib.Path(outcome.out)).about.depth, "uint16")
        again = batch.run_batch(
            project(), pictures, self.folder / "out", batch.BatchHow(".tif", Export(depth="uint8"))
        )
        self.assertEqual(
            open_source(pathlib.Path(again[0].out)).about.depth, "uint8"
        )  # another depth is another batch

    def test_outliers_are_named(self):
        rows = [
            batch.Outcome(f"{k}", "", [], coverage={"Jar": 0.2 + 0.01 * (k % 3)}) for k in range(9)
        ]
        rows += [
            batch.Outcome("odd", "", [], coverage={"Jar": 0.7}),
            batch.Outcome("none", "", [], coverage={"Jar": 0.0}),
        ]
        self.assertEqual(sorted(batch.outliers(rows)), ["none", "odd"])


class LookupTest(FolderCase):
    def smooth(self) -> Project:
        """A sieve whose mask and adjustment change gently with colour."""
        adjust = Adjust(
            light=Light(contrast=12, exposure=0.2),
            hues=Hues(saturation_by_hue=((30, 20), (200, -20))),
            recolour=Recolour(vibrance=15),
        )
        return Project(
            source=str(DEMO / "yard.png"),
            stack=(Sieve(name="Soft", bands=Bands(ramp=Ramp(on=True)), edge=BARE, adjust=adjust),),
        )

    def test_a_smooth_sieve_through_the_table_is_near_its_render(self):
        for size in lookup.SIZES:
            written = lookup.write_lookup(
                self.smooth(), demo_frame("yard"), self.folder / f"{size}.cube", size
            )
            print(
                f"    lookup table of {size}: mean ΔE2000 {written.mean:.3f}, largest "
                f"{written.largest:.2f} from the render"
            )
            self.assertEqual(written.left_out, [])
            if size == 33:
                self.assertLess(written.mean, 0.3)

    def test_opencolorio_reads_our_files_as_we_do(self):
        # Source: OpenColorIO's own reading of both formats, by tetrahedra.
        table = lookup.table_of(self.smooth(), 17)
        pixels = np.random.default_rng(3).random((40, 50, 3)).astype(np.float32)
        ours = encode(lookup.applied(table, decode(pixels).transpose(2, 0, 1))).transpose(1, 2, 0)
        for ending in (".cube", ".clf"):
            path = self.folder / f"table{ending}"
            lookup.lookup_files.write(table, path, 'a "title"')
            transform = ocio.FileTransform(str(path), interpolation=ocio.INTERP_TETRAHEDRAL)
            processor = (
                ocio.Config.CreateRaw()
                .getProcessor(transform)
                .getOptimizedCPUProcessor(ocio.OPTIMIZATION_LOSSLESS)
            )
            theirs = pixels.copy()
            processor.applyRGB(theirs)
            np.testing.assert_allclose(theirs, ours, atol=1e-4, err_msg=ending)

    def test_what_a_table_cannot_carry_is_listed(self):
        area = Area(kind="rect", points=((5, 5), (9, 5), (5, 9)))
        held = self.smooth()
        held = held.with_sieve(
            held.stack[0].but(
                areas=(area,), edge=Edge(), adjust=held.stack[0].adjust.but(detail={"blur": 3.0})
            )
        )
        self.assertEqual(
            lookup.left_out(held), ["Soft: a cleaned source, specks, holes, follow, areas, detail"]
        )
        storage.save(held, self.folder / "p.sieve")
        done = terminal(
            "lookup", self.folder / "p.sieve", "-o", self.folder / "t.cube", "--size", 17
        )
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertIn("left out of the table: Soft: a cleaned source", done.stdout)
        self.assertIn("LUT_3D_SIZE 17", (self.folder / "t.cube").read_text())
        done = terminal("lookup", self.folder / "p.sieve", "-o", self.folder / "t.txt")
        self.assertEqual((done.returncode, done.stderr.count("\n")), (1, 1))


if __name__ == "__main__":
    unittest.main()
