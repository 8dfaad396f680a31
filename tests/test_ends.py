"""No value at either end of its range, alone or with others, makes anything but finite light: a
short form of `tools/ends.py`.
"""

import re
import subprocess
import sys
import unittest

import numpy as np
from common import DEMO, ROOT, FolderCase, terminal

from amber_sieve.core.adjust import dye
from amber_sieve.core.adjust.even import found_means
from amber_sieve.core.adjust.match import found_match
from amber_sieve.core.areas.shapes import coverage
from amber_sieve.core.bands.interval import Interval
from amber_sieve.core.bands.interval import numbers_of as numbers_of_band
from amber_sieve.core.colour.gamut import lower_chroma
from amber_sieve.core.colour.lookup import looked_up
from amber_sieve.core.colour.screen import to_screen
from amber_sieve.core.colour.transfer import to_levels
from amber_sieve.core.edge.levels import mask_levels
from amber_sieve.core.frame import BRIGHTEST, Frame
from amber_sieve.core.mix import adjusted as after
from amber_sieve.core.motion.place import followed, patch_at
from amber_sieve.core.statistics import coverage_of, statistics_of
from amber_sieve.project.fields import numbers_of
from amber_sieve.project.model import Adjust, Area, Edge, Light, Match, Project, Sieve, Stroke
from amber_sieve.render.adjust import adjusted
from amber_sieve.render.automatic import with_found_means
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.masked import Masked
from amber_sieve.render.resolved import found_of

EXAMPLES = 60


class AnythingTogether(unittest.TestCase):
    def test_projects_at_the_ends_of_all_ranges(self):
        done = subprocess.run(
            [sys.executable, ROOT / "tools" / "ends.py", "--here", str(EXAMPLES), "20", "finite"],
            capture_output=True,
            text=True,
            timeout=500,
        )
        self.assertEqual(done.returncode, 0, done.stdout[-3000:] + done.stderr[-2000:])
        counts = re.fullmatch(
            r"(\d+) stills, (\d+) clip frames", done.stdout.strip().split("\n")[-1]
        )
        self.assertGreaterEqual(int(counts[1]) + int(counts[2]), EXAMPLES)

    def test_what_is_seen_is_what_is_exported(self):
        done = subprocess.run(
            [sys.executable, ROOT / "tools" / "ends.py", "--here", str(EXAMPLES // 2), "7", "seen"],
            capture_output=True,
            text=True,
            timeout=500,
        )
        self.assertEqual(done.returncode, 0, done.stdout[-3000:] + done.stderr[-2000:])

    def test_what_lies_beyond_the_ends_is_refused(self):
        for name, block in Adjust().blocks():
            for spec in numbers_of(type(block)):
                for beyond in (
                    spec.low - 1,
                    spec.high + 1,
                    float("nan"),
                    float("inf"),
                    -float("inf"),
                ):
                    with self.assertRaises(ValueError, msg=f"{name}.{spec.name}"):
                        block.but(**{spec.name: beyond})


class WhatCrashed(FolderCase):
    def test_the_four_together_on_the_yard(self):
        given = [
            part
            for setting in ("exposure=10", "contrast=100", "gamma=0.1", "in_black=10")
            for part in ("--set", setting)
        ]
        done = terminal(
            "recolour",
            DEMO / "yard.png",
            "-o",
            self.folder / "o.png",
            "--keep",
            "1230,400",
            "--invert",
            *given,
        )
        self.assertEqual((done.returncode, done.stderr), (0, ""))

    def test_two_sieves_one_after_another(self):
        picture = np.linspace(0, 1, 3 * 40 * 30, dtype=np.float32).reshape(3, 30, 40)
        sieve = Sieve(adjust=Adjust(light=Light(exposure=3, contrast=100, gamma=0.1)))
        for _ in range(3):
            picture, _ = adjusted(
                Frame(picture), Masked(np.ones((30, 40), np.float32), None), sieve
            )
            self.assertTrue(np.isfinite(lower_chroma(picture)).all())
            self.assertLessEqual(
                np.abs(picture).max(), BRIGHTEST * (1 + 1e-6)
            )  # what is mixed may be rounded beyond either side


class NoNumber(unittest.TestCase):
    """Kernels that look something up stay inside their tables even where NaN gets past every
    comparison.
    """

    planes = np.random.default_rng(3).choice(
        np.array([np.nan, np.inf, -np.inf, 3e38, -3e38, 0, 0.5], np.float32), (3, 64, 300)
    )

    def test_they_stay_inside(self):
        for kernel in (
            to_levels,
            to_screen,
            lower_chroma,
            statistics_of,
            lambda p: looked_up(p, np.zeros((3, 3, 3, 3), np.float32)),
        ):
            kernel(self.planes)
        coverage_of(self.planes[0])


class Degenerate(unittest.TestCase):
    def test_levels_of_a_mask_whose_white_is_a_hair_above_black(self):
        mask = np.linspace(0, 1, 101, dtype=np.float32)[None]
        for white in (0.5, np.nextafter(0.5, 1), 0.5 + 1e-12):
            self.assertEqual(set(mask_levels(mask, 0.5, float(white), 1.0).ravel()), {0.0, 1.0})

    def test_shapes_without_width(self):
        for points in (
            ((5, 5), (5, 5), (5, 5)),
            ((5, 5), (9, 5), (9, 5)),
            ((5, 5), (5 - 1e-3, 5), (5, 5)),
            ((5, 5), (1e6, 1e6), (-1e6, -1e6)),
        ):
            for kind in ("rect", "ellipse", "radial"):
                with np.errstate(all="raise", under="ignore"):
                    self.assertTrue(
                        np.isfinite(coverage(kind, points, (12, 12))).all(), (kind, points)
                    )

    def test_bands_whose_corners_touch(self):
        for corners in (
            (50, 50, 50, 50),
            (50, np.nextafter(50, 60), 60, 60),
            (-1e4, -1e4, 1e4, 1e4),
        ):
            with np.errstate(all="raise"):
                self.assertTrue(
                    np.isfinite(
                        np.array(numbers_of_band(Interval("luminance", corners)), np.float32)
                    ).all()
                )

    def test_a_match_with_the_brightest_and_the_darkest_light(self):
        rng = np.random.default_rng(5)
        for lights in ((BRIGHTEST, -BRIGHTEST, 0.0), (0.0,), (-1.0, 1e-30), (BRIGHTEST,)):
            planes = rng.choice(np.array(lights, np.float32), (3, 1, 200))
            for target in ((1e6, -1e6, 1e6), (0.0, 0.0, 0.0), (1.0, 1.0, 1.0)):
                for believable in (False, True):
                    found = found_match(planes, np.ones(200), target, believable)
                    self.assertTrue(
                        np.isfinite(found.colour + found.body.colour + found.body.gloss).all(),
                        (lights, target, found),
                    )
                    self.assertTrue(
                        np.isfinite(after(planes, dye.steps(found))).all(), (lights, target, found)
                    )
            lightness, hue = found_means(planes, np.ones(200))
            self.assertTrue(0 <= lightness < 1e4 and 0 <= hue <= 360)

    def test_a_mask_that_is_faint_everywhere_has_no_colour_of_its_own(self):
        frame = Frame(np.random.default_rng(7).random((3, 60, 80), np.float32))
        faint = Area(kind="brush", strokes=(Stroke(points=((40, 30, 1),), size=400, flow=1),))
        for nearest in (False, True):
            match = Match(target=(0.0, 0.0, 0.0), nearest=nearest)
            project = Project(
                stack=(Sieve(areas=(faint,), edge=Edge(follow=0.0), adjust=Adjust(match=match)),)
            )
            with np.errstate(all="raise", under="ignore"):
                found = with_found_means(project, frame, RenderContext(Cache(10**7)))
            self.assertIsNone(found_of(found.stack[0]).match)

    def test_a_place_beside_the_picture_is_not_followed(self):
        planes = np.random.default_rng(6).random((3, 40, 50), np.float32)
        for x, y in ((-5.0, 3.0), (1e6, 1e6), (49.9, 40.0)):
            self.assertEqual(followed(patch_at(planes, x, y), planes, x, y, 3), (x, y))
        self.assertIsNone(followed(patch_at(planes, 20, 20), planes, 400.0, 400.0, 1))


if __name__ == "__main__":
    unittest.main()
