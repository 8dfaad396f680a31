"""Keyframes of numbers, areas and samples, and areas that are tracked."""

import time
import unittest

import av
import cv2
import numpy as np
from common import DEMO, FolderCase, WindowCase, overlap, rendered_whole
from forked import command
from made import middle_tone, true_frames
from PIL import Image
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QMenu
from scipy.interpolate import CubicHermiteSpline

from amber_sieve.core.colour.oklab import to_oklab
from amber_sieve.core.motion.backdrop import Backdrop
from amber_sieve.core.motion.movement import to_grey8
from amber_sieve.desk.clip.key_menu import fill_key_menu
from amber_sieve.errors import Trouble
from amber_sieve.export.clip import export_clip
from amber_sieve.live.sampling import sample_at, with_found_tolerance
from amber_sieve.live.tracking import track, with_tracked
from amber_sieve.live.watching import Course, WatchedFrame
from amber_sieve.media import stills
from amber_sieve.media.opening import open_source
from amber_sieve.names import MOVES
from amber_sieve.progress import Cancelled, Progress
from amber_sieve.project import storage, tracks
from amber_sieve.project.model import (
    Adjust,
    Area,
    Edge,
    Light,
    Pick,
    Project,
    Sample,
    Sieve,
    Stroke,
)
from amber_sieve.project.tracks import value_at
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.mask import NEIGHBOURS, make_fine, waits_for_fine
from amber_sieve.render.resolved import found_of
from amber_sieve.render.stack import sieve_mask
from amber_sieve.resolve.resolver import Resolver


def moving(path, frames: int = 22, spin: float = 0.0) -> list[tuple[float, float]]:
    """A clip of a patch of cloth that moves, and turns, over a wall; where its middle is on every
    frame.
    """
    rng = np.random.default_rng(3)
    yard = np.asarray(Image.open(DEMO / "yard.png").convert("RGB"))
    patch, wall = (
        yard[800:960, 380:540].astype(np.float32),
        yard[320:680, 560:1200].astype(np.float32) + rng.normal(0, 2, (360, 640, 3)),
    )

    middles = []
    with av.open(str(path), "w") as out:
        stream = out.add_stream("ffv1", 24)
        stream.width, stream.height, stream.pix_fmt = 640, 360, "bgr0"
        for number in range(frames):
            x, y = 120 + 11.5 * number, 170 + 40 * np.sin(number / 6)
            matrix = cv2.getRotationMatrix2D((80, 80), spin * number, 1)
            matrix[:, 2] += (x - 80, y - 80)
            laid = cv2.warpAffine(patch, matrix, (640, 360))
            cover = cv2.warpAffine(np.ones((160, 160), np.float32), matrix, (640, 360))[..., None]
            codes = np.clip(
                wall * (1 - cover) + laid * cover + rng.normal(0, 1.5, wall.shape), 0, 255
            ).astype(np.uint8)
            out.mux(
                stream.encode(
                    av.VideoFrame.from_ndarray(np.ascontiguousarray(codes), "rgb24").reformat(
                        format="bgr0"
                    )
                )
            )
            middles.append((x, y))
        out.mux(stream.encode(None))
    return middles


def square(x: float, y: float, half: float = 70) -> Area:
    return Area(id="a", kind="rect", points=((x, y), (x + half, y), (x, y + half)))


def plain_ball(path, frames: int = 22, post: bool = False) -> list[tuple[float, float]]:
    """A clip of a red ball without texture that crosses a wall at 18 pixels a frame, behind a post
    or not; where its middle is.
    """
    rng, middles = np.random.default_rng(3), []
    wall = np.asarray(Image.open(DEMO / "yard.png").convert("RGB"))[320:680, 400:1040].astype(
        np.float32
    )
    down, across = np.mgrid[:360, :640]
    with av.open(str(path), "w") as out:
        stream = out.add_stream("ffv1", 24)
        stream.width, stream.height, stream.pix_fmt = 640, 360, "bgr0"
        for number in range(frames):
            x, y = 60 + 18 * number, 200 + 50 * np.sin(number / 5)
            cover = np.zeros((1440, 2560), np.uint8)
            cv2.circle(cover, (round(4 * x), round(4 * y)), 120, 255, -1)
            share = cv2.resize(cover, (640, 360), interpolation=cv2.INTER_AREA)[..., None] / 255
            shade = np.clip(0.9 - (across - x) / 120 - (down - y) / 100, 0.2, 1.2)[..., None]
            codes = wall * (1 - share) + share * np.array((190, 30, 25)) * shade
            if post:
                codes[:, 290:320] = (120, 90, 60)
            codes = np.clip(codes + rng.normal(0, 2, codes.shape), 0, 255).astype(np.uint8)
            out.mux(
                stream.encode(
                    av.VideoFrame.from_ndarray(np.ascontiguousarray(codes), "rgb24").reformat(
                        format="bgr0"
                    )
                )
            )
            middles.append((x, y))
        out.mux(stream.encode(None))
    return middles


class BetweenTest(unittest.TestCase):
    def test_values_between_keys(self):
        # Source: SciPy's Hermite spline with level ends is what smooth is.
        keys = [
            (10, (0.0, 4.0), "linear"),
            (20, (10.0, 4.0), "smooth"),
            (30, (20.0, 0.0), "hold"),
            (40, (0.0, 0.0), "linear"),
        ]
        self.assertEqual(value_at(keys, 0), (0.0, 4.0))
        self.assertEqual(value_at(keys, 15), (5.0, 4.0))
        spline = CubicHermiteSpline([20, 30], [[10, 4], [20, 0]], [[0, 0], [0, 0]])
        for frame in range(20, 31):
            np.testing.assert_allclose(value_at(keys, frame), spline(frame), atol=1e-12)
        self.assertEqual(value_at(keys, 39), (20.0, 0.0))
        self.assertEqual(value_at(keys, 99), (0.0, 0.0))

    def test_edits_of_what_is_keyed_stay_at_their_frame(self):
        sieve = Sieve(adjust=Adjust(light=Light(exposure=1)), areas=(square(10, 10),))
        sieve = tracks.with_key(
            tracks.with_key(sieve, "adjust.light.exposure", 5), "areas.a.points", 5
        )
        changed = tracks.recorded(
            sieve,
            tracks.at_frame(sieve, 9).but(
                adjust=Adjust(light=Light(exposure=3)), areas=(square(50, 10),)
            ),
            9,
        )
        self.assertEqual(
            [tracks.at_frame(changed, frame).adjust.light.exposure for frame in (0, 5, 7, 9, 20)],
            [1, 1, 2, 3, 3],
        )
        self.assertEqual(tracks.at_frame(changed, 7).areas[0].points[0], (30, 10))
        self.assertEqual(tracks.keyframes_of(changed), (5, 9))
        # Keys are moved in time as far as those beside them let them go.
        path = "adjust.light.exposure"
        self.assertEqual(
            [
                tracks.frames_of(tracks.with_key_moved(changed, path, 5, to), path)
                for to in (3, 8, 12)
            ],
            [(3, 9), (8, 9), (8, 9)],
        )
        self.assertEqual(
            tracks.frames_of(tracks.with_key_moved(changed, path, 9, 30), path), (5, 30)
        )
        self.assertEqual(tracks.with_key_moved(changed, path, 7, 3), changed)
        fewer = tracks.without_key(changed, "adjust.light.exposure", 9)
        self.assertEqual(
            [tracks.at_frame(fewer, frame).adjust.light.exposure for frame in (0, 9)], [1, 1]
        )
        # An area that is gone takes its keys along; a polygon with another corner is the same at
        # all frames.
        gone = tracks.recorded(changed, tracks.at_frame(changed, 9).but(areas=()), 9)
        self.assertEqual([one.path for one in gone.tracks], ["adjust.light.exposure"])
        with self.assertRaises(Trouble):
            tracks.with_key(Sieve(), "edge.follow", 0)


class TrackingTest(FolderCase):
    def test_it_stays_on_what_moves_within_three_pixels(self):
        middles = moving(self.folder / "m.mkv", 14)
        source = open_source(self.folder / "m.mkv")
        for moves in MOVES:
            found = track(source, square(*middles[0]), 0, 1, moves)
            self.assertIsNone(found.lost, moves)
            far = [
                np.hypot(found.keys[n][0] - x, found.keys[n][1] - y)
                for n, (x, y) in enumerate(middles)
            ]
            print(
                f"    tracking by {moves}: farthest {max(far):.2f} px, confidence "
                f"{min(found.confidence.values()):.2f} at least"
            )
            self.assertLess(max(far), 3.0, moves)
        stopped = Progress()
        stopped.cancel()
        with self.assertRaises(Cancelled):  # while it looks ahead already
            track(source, square(*middles[0]), 0, 1, "position", stopped)
        shares = []
        track(
            source,
            square(*middles[8]),
            8,
            1,
            "position",
            Progress(lambda share, left: shares.append(share)),
        )
        self.assertEqual((shares, shares[-1]), (sorted(shares), 1.0))
        back = track(source, square(*middles[-1]), len(middles) - 1, -1, "position")
        self.assertLess(
            np.hypot(back.keys[0][0] - middles[0][0], back.keys[0][1] - middles[0][1]), 3.0
        )
        source.close()

    def test_a_plain_thing_is_followed_by_the_piece_of_the_mask_that_it_is(self):
        """Without texture features hold nothing: its colour says where it is, from any frame, by
        any motion, and behind a post it is waited for.
        """
        for post in (False, True):
            middles = plain_ball(self.folder / f"{post}.mkv", post=post)
            source = open_source(self.folder / f"{post}.mkv")
            starts = (
                (0, "position, size and rotation"),
                (21, "position"),
                (5, "perspective"),
            )
            for start, moves in starts if post else starts[2:]:
                x, y = middles[start]
                area = Area(id="a", kind="ellipse", points=((x, y), (x + 33, y), (x, y + 33)))
                sieve = (
                    Sieve(pick=Pick(samples=(sample_at(source.frame(start), x, y, tolerance=12),)))
                    if start == 5
                    else None
                )
                for way in (1, -1):
                    found = track(source, area, start, way, moves, sieve=sieve)
                    self.assertIsNone(found.lost, (post, start, way))
                    for number, key in found.keys.items():
                        x, y = middles[number]
                        if not (post and 290 - 31 < x < 320 + 31):  # it is whole
                            self.assertLess(
                                np.hypot(key[0] - x, key[1] - y), 3.0, (post, start, moves, number)
                            )
            source.close()

    def test_the_terminal_tracks_an_area_and_recolours_the_clip_with_it(self):
        middles = plain_ball(self.folder / "ball.mkv", 9)
        x, y = middles[4]
        mask, saved = self.folder / "mask.png", self.folder / "ball.sieve"
        area = f"intersect:ellipse:{x - 40},{y - 40},80,80"
        told = command(
            "mask",
            self.folder / "ball.mkv",
            "-o",
            mask,
            "--frame",
            4,
            "--keep",
            f"{x},{y}",
            "--area",
            area,
            "--save",
            saved,
        )
        self.assertEqual(told, 0)
        self.assertEqual(
            command(
                "track",
                saved,
                "--from",
                4,
                "-o",
                self.folder / "tracked.sieve",
                "--move",
                "position",
            ),
            0,
        )
        keys = storage.load(self.folder / "tracked.sieve").stack[0].tracks[0].keys
        self.assertEqual([key.frame for key in keys], list(range(9)))
        for key, (there, down) in zip(keys, middles, strict=True):
            self.assertLess(np.hypot(key.value[0] - there, key.value[1] - down), 3.0)
        for wrong in (("--area", 2), ("--sieve", "other"), ("--from", 9), ("-o", saved)):
            self.assertEqual(
                command("track", saved, "--from", 4, "-o", self.folder / "no.sieve", *wrong),
                1,
                wrong,
            )
        out = self.folder / "green.mkv"
        told = command(
            "recolour",
            self.folder / "ball.mkv",
            "-o",
            out,
            "--keep",
            f"{middles[0][0]},{middles[0][1]}",
            "--hue",
            110,
            "--codec",
            "FFV1",
        )
        self.assertEqual(told, 0)
        source = open_source(out)
        self.assertEqual(source.about.frames, 9)
        for number in (0, 8):
            x, y = (round(at) for at in middles[number])
            red, green, _ = source.frame(number).planes[:, y, x]
            self.assertGreater(green, red)
        source.close()

    def test_turning_and_strokes_ride_along_and_what_is_lost_is_said(self):
        middles = moving(self.folder / "t.mkv", spin=2.0)
        source = open_source(self.folder / "t.mkv")
        x, y = middles[0]
        brush = Area(
            id="b",
            kind="brush",
            strokes=(Stroke(points=((x - 40, y, 1), (x + 40, y, 1)), size=60),),
        )
        found = track(source, brush, 0, 1, "position, size and rotation")
        left, right = np.array(found.keys[20][:2]), np.array(found.keys[20][3:5])
        self.assertAlmostEqual(
            float(np.degrees(np.arctan2(*(right - left)[::-1]))), -40.0, delta=2.0
        )
        sieve = with_tracked(Sieve(areas=(brush,)), found)
        self.assertEqual(tracks.at_frame(sieve, 20).areas[0].strokes[0].size, 60)
        flat = Area(id="c", kind="rect", points=((910, 920), (928, 920), (910, 930)))
        lost = track(source, flat, 0, 1, "perspective")
        self.assertEqual(lost.lost, 1)
        with self.assertRaises(Trouble):
            track(source, Area(kind="gradient", points=((0, 0), (9, 9))), 0, 1, "position")
        source.close()


class TracksInProjectTest(FolderCase):
    def test_they_are_saved_rendered_and_exported(self):
        moving(self.folder / "m.mkv", 12)
        source = open_source(self.folder / "m.mkv")
        everywhere = Pick(samples=(Sample(x=1, y=1, colour=(0.5, 0.5, 0.5), tolerance=1000),))
        sieve = Sieve(
            name="S",
            pick=everywhere,
            adjust=Adjust(light=Light(exposure=0)),
            areas=(square(120, 170, 30),),
        )
        sieve = tracks.with_key(
            tracks.with_key(sieve, "adjust.light.exposure", 0), "areas.a.points", 0
        )
        moved = tracks.at_frame(sieve, 10).but(
            adjust=Adjust(light=Light(exposure=-4)), areas=(square(420, 170, 30),)
        )
        project = Project(
            source=str(self.folder / "m.mkv"), stack=(tracks.recorded(sieve, moved, 10),)
        )
        storage.save(project, self.folder / "p.sieve")
        self.assertEqual(storage.load(self.folder / "p.sieve").stack, project.stack)
        export_clip(source, project, self.folder / "o.####.tif")
        for number, x in ((5, 270), (10, 420)):
            before = source.frame(number).planes
            after = stills.read(self.folder / f"o.{number:04}.tif").picture.planes
            stops = np.log2(
                after[:, 165:175, x - 10 : x + 10].mean()
                / before[:, 165:175, x - 10 : x + 10].mean()
            )
            self.assertAlmostEqual(float(stops), -0.4 * number, delta=0.05)
            self.assertTrue(np.allclose(after[:, :60], before[:, :60], atol=0.01))
        source.close()


class CupTest(unittest.TestCase):
    """The demo clip: a painted cup, swaying on a cord, crosses before cloth, bottle and jar while a
    cloud passes. Truth: its rendered coverage.
    """

    def setUp(self) -> None:
        self.source = open_source(DEMO / "clip.mp4")
        self.addCleanup(self.source.close)
        self.true = true_frames("cup")
        self.middles = {}
        for number, mask in enumerate(self.true):
            columns = np.flatnonzero((mask > 0.5).any(axis=0))
            if (
                columns.size and columns[0] > 2 and columns[-1] < mask.shape[1] - 3
            ):  # all of it is in the picture
                rows = np.arange(mask.shape[0])[:, None], np.arange(mask.shape[1])[None]
                self.middles[number] = tuple(
                    float((mask * at).sum() / mask.sum()) for at in reversed(rows)
                )

    def ellipse(self, number: int) -> Area:
        rows, columns = np.nonzero(self.true[number] > 0.5)
        x, y = self.middles[number]
        wide, high = np.ptp(columns) / 2, np.ptp(rows) / 2
        return Area(id="cup", kind="ellipse", points=((x, y), (x + wide, y), (x, y + high)))

    def test_it_stays_on_the_cup_that_crosses(self):
        numbers = sorted(self.middles)
        middle = numbers[len(numbers) // 2]
        for start, ways in ((middle, (1, -1)), (numbers[0], (1,))):
            keys, lost = {}, []
            for way in ways:
                found = track(
                    self.source, self.ellipse(start), start, way, "position, size and rotation"
                )
                keys |= found.keys
                lost += [found.lost] if found.lost is not None else []
            far = [
                np.hypot(keys[n][0] - x, keys[n][1] - y)
                for n, (x, y) in self.middles.items()
                if n in keys
            ]
            print(
                f"    the cup, from frame {start}: {len(far)} of {len(numbers)} frames, farthest "
                f"{max(far):.1f} px, "
                f"mean {np.mean(far):.1f}, lost at {lost}"
            )
            self.assertEqual(
                len(far),
                len(numbers)
                if start == middle
                else len([n for n in numbers if (n - start) * ways[0] >= 0]),
            )
            self.assertLess(max(far), 3.0)


def wall(height: int, width: int, shift: float = 0.0) -> np.ndarray:
    """A wall with a soft pattern, as codes, moved to the left by some pixels."""
    y, x = np.mgrid[0:height, 0:width].astype(np.float32)
    x = x + shift
    grey = 120 + 25 * np.sin(x / 9) * np.cos(y / 13) + 15 * np.sin(x / 37 + y / 23)
    return np.stack([grey, grey * 0.98, grey * 0.95])


class BackdropTest(unittest.TestCase):
    """A plain disc, which has no features at all, before a wall."""

    def frame(self, number: int, pan: float = 0.0, light: float = 1.0) -> np.ndarray:
        codes = wall(300, 500, pan * number) * light
        y, x = np.mgrid[0:300, 0:500]
        covered = np.clip(30.5 - np.hypot(x - 100 - 9 * number, y - 150), 0, 1)
        codes = (
            codes * (1 - covered)
            + np.array([150, 120, 90], np.float32)[:, None, None] * light * covered
        )
        return np.clip(
            codes + np.random.default_rng(number).normal(0, 3, codes.shape), 0, 255
        ).astype(np.uint8)

    def disc(
        self, number: int, dx: float = 0.0, dy: float = 0.0, radius: float = 30.0
    ) -> np.ndarray:
        turn = np.linspace(0, 2 * np.pi, 48, endpoint=False)
        return np.column_stack(
            [100 + 9 * number + dx + radius * np.cos(turn), 150 + dy + radius * np.sin(turn)]
        )

    def test_it_says_how_far_off_an_area_is(self):
        for light, pan in ((1.0, 0.0), (0.97, 0.0), (1.0, 1.5)):
            backdrop = Backdrop((300, 500))
            step = np.array([[1, 0, -pan], [0, 1, 0], [0, 0, 1]])
            for number in range(12):
                backdrop.moved(step)
                backdrop.add(self.frame(number, pan, light**number), self.disc(number))
            backdrop.moved(step)
            now = self.frame(12, pan, light**12)
            for dx, dy in ((0, 0), (2, -1), (-3, 2)):
                alignment = backdrop.alignment(now, self.disc(12, dx, dy))
                np.testing.assert_allclose(alignment.step, (-dx, -dy), atol=0.4)
                self.assertEqual(alignment.margin, 0)
            self.assertEqual(backdrop.alignment(now, self.disc(12, radius=27.5)).margin, 0.05)
            self.assertIsNone(backdrop.alignment(now, self.disc(3)))  # nothing stands out there

    def test_nothing_is_said_of_what_was_never_uncovered(self):
        backdrop = Backdrop((300, 500))
        for number in (0, 0, 0):
            backdrop.add(self.frame(number), self.disc(number))
        self.assertIsNone(backdrop.alignment(self.frame(0), self.disc(0)))
        for number in range(12):
            backdrop.add(self.frame(number), self.disc(number))
        self.assertIsNotNone(backdrop.alignment(self.frame(12), self.disc(12)))
        backdrop.moved(None)
        self.assertIsNone(backdrop.alignment(self.frame(12), self.disc(12)))
        self.assertIsNone(backdrop.alignment(self.frame(12), self.disc(-40)))  # out of the picture


class SteadyTest(unittest.TestCase):
    """Flicker is what changes of a mask from frame to frame once the motion is taken out."""

    def setUp(self) -> None:
        self.source = open_source(DEMO / "clip.mp4")
        self.addCleanup(self.source.close)

    def found(
        self, kind: str, sample: Sample, edge: Edge, numbers: range
    ) -> dict[float, tuple[float, float]]:
        """Mean flicker and mean overlap with the truth, without Steady and with all of it."""
        true, found = true_frames(kind), {}
        for steady in (0.0, 100.0):
            sieve = Sieve(pick=Pick(samples=(sample,)), edge=edge.but(steady=steady))
            course, overlaps, resolver = Course(), [], Resolver(self.source)
            for number in numbers:
                frame, cache = self.source.frame(number), RenderContext(frames=resolver.across)
                stands = resolver.resolve_frame(Project(stack=(sieve,)), frame, number, cache)
                mask = sieve_mask(frame, stands, sieve.id, cache)
                course.add(
                    number,
                    WatchedFrame(
                        float(mask.mean()),
                        0,
                        np.rint(mask * 255).astype(np.uint8),
                        to_grey8(frame.planes),
                    ),
                )
                overlaps.append(overlap(mask, true[number]))
            found[steady] = (course.mean_flicker, float(np.mean(overlaps)))
        (flicker, held), (steady_flicker, steady_held) = found[0.0], found[100.0]
        print(
            f"    {kind}: flicker {flicker:.2f} % becomes {steady_flicker:.2f} %, overlap "
            f"{held:.3f} becomes {steady_held:.3f}"
        )
        return found

    def test_it_halves_the_flicker_and_costs_no_precision(self):
        # The jar in the darkest frames, from a sample at its rim: as unsteady as it gets.
        found = self.found(
            "turquoise",
            sample_at(self.source.frame(0), 240, 440, tolerance=8.0),
            Edge(follow=6),
            range(34, 42),
        )
        self.assertLess(found[100][0], 0.5 * found[0][0])
        self.assertGreater(found[100][1], found[0][1] - 0.01)

    def test_so_it_does_for_one_click_with_everything_as_it_is(self):
        first = self.source.frame(0)
        for kind in ("turquoise", "cloth"):
            place = middle_tone(to_oklab(first.planes), true_frames(kind)[0])
            found = self.found(
                kind,
                with_found_tolerance(sample_at(first, *place), first, Pick()),
                Edge(),
                range(14, 20),
            )
            self.assertLess(found[100][0], 0.5 * found[0][0])
            self.assertGreater(found[100][1], found[0][1] - 0.01)

    def test_frames_that_share_masks_are_frames_by_themselves(self):
        first = self.source.frame(0)
        x, y = middle_tone(to_oklab(first.planes), true_frames("turquoise")[0])
        pick = Pick(samples=(sample_at(first, x, y), sample_at(first, 100, 100, tolerance=3)))
        project = Project(
            stack=(
                Sieve(
                    pick=pick,
                    edge=Edge(follow=3, steady=70),
                    adjust=Adjust(light=Light(exposure=1)),
                ),
            )
        )
        together = Resolver(self.source)
        for number in (0, 1, 79):
            frame = self.source.frame(number)
            shared, alone = (
                rendered_whole(frame, project, one, number).planes
                for one in (together, Resolver(self.source))
            )
            np.testing.assert_array_equal(shared, alone)


class SteadyFineTest(unittest.TestCase):
    def test_mattings_of_the_frames_around_are_waited_for(self):
        source = open_source(DEMO / "clip.mp4")
        self.addCleanup(source.close)
        frame = source.frame(4).part(180, 330, 400, 530)
        sieve = Sieve(
            pick=Pick(samples=(sample_at(source.frame(4), 290, 450, tolerance=6),)),
            edge=Edge(follow=3, fine=6, steady=100),
        )
        cache, told = RenderContext(Cache(10**9)), []
        self.assertTrue(waits_for_fine(frame, sieve, cache))
        make_fine(frame, sieve, cache, told.append)
        self.assertFalse(waits_for_fine(frame, sieve, cache))
        self.assertEqual((told, told[-1] <= 1), (sorted(told), True))
        self.assertTrue(
            waits_for_fine(frame, sieve.but(edge=Edge(follow=3, fine=7, steady=100)), cache)
        )
        # With its own matting alone it still waits for the others'.
        plain, alone = sieve.but(edge=Edge(follow=3, fine=6)), RenderContext(Cache(10**9))
        make_fine(frame, plain, alone, told.append)
        self.assertFalse(waits_for_fine(frame, plain, alone))
        self.assertTrue(waits_for_fine(frame, sieve, alone))


class SteadyPlacesTest(FolderCase):
    def test_a_sample_that_reaches_a_piece_lies_on_it_in_the_frames_around(self):
        middles = moving(self.folder / "m.mkv", 12)
        source = open_source(self.folder / "m.mkv")
        frame = source.frame(5)
        sample = sample_at(frame, *middles[5], tolerance=30).but(reach="here", frame=5)
        sieve = Sieve(
            pick=Pick(samples=(sample,)), edge=Edge(follow=0, specks=0, holes=0, steady=100)
        )
        resolver = Resolver(source)
        stands = resolver.resolve_frame(Project(stack=(sieve,)), frame, 5, RenderContext()).stack[0]
        self.assertEqual(len(found_of(stands).around), len(NEIGHBOURS))
        for away, pick in zip(NEIGHBOURS, found_of(stands).around, strict=True):
            there = pick.samples[0]
            self.assertLess(
                np.hypot(there.x - middles[5 + away][0], there.y - middles[5 + away][1]), 3, away
            )
        self.assertIsNone(
            found_of(
                resolver.resolve_frame(
                    Project(stack=(sieve,)), source.frame(11), 11, RenderContext()
                ).stack[0]
            ).around[0]
        )
        # A drag leaves Steady out, and does not look around; tracks of what is no pick do not
        # either; a still has nothing around.
        self.assertEqual(
            found_of(
                resolver.resolve_frame(
                    Project(stack=(sieve,)), frame, 5, RenderContext(), around=False
                ).stack[0]
            ).around,
            (),
        )
        plain = tracks.with_key(Sieve(edge=sieve.edge), "adjust.light.exposure", 2)
        self.assertEqual(
            found_of(
                resolver.resolve_frame(Project(stack=(plain,)), frame, 5, RenderContext()).stack[0]
            ).around,
            (),
        )
        still = open_source(DEMO / "yard.png")
        self.assertEqual(
            Resolver(still)
            .resolve_frame(Project(stack=(sieve,)), still.frame(0), 0, RenderContext())
            .stack[0]
            .edge.steady,
            0,
        )
        # What is found for rendering is not kept in files.
        self.assertNotIn("around", stands.model_dump())
        source.close()


def move_held(widget, place: QPoint) -> None:
    """Move over a widget with the left button held, which QTest's own moves do not."""
    held, none = Qt.MouseButton.LeftButton, Qt.MouseButton.NoButton
    at, where = QPointF(place), QPointF(widget.mapToGlobal(place))
    QApplication.sendEvent(
        widget,
        QMouseEvent(QEvent.Type.MouseMove, at, where, none, held, Qt.KeyboardModifier.NoModifier),
    )


class TracksWindowTest(WindowCase):
    own_window = True

    def test_numbers_areas_and_samples_are_keyed_in_the_window(self):
        middles = moving(self.folder / "m.mkv")
        self.open(self.folder / "m.mkv")
        self.click(*middles[0])
        self.window.pages.setCurrentWidget(self.window.adjust)
        page = self.window.adjust
        menu = QMenu()
        fill_key_menu(menu, self.work, self.workspace.clip, "adjust.light.exposure")
        menu.actions()[1].trigger()  # smooth
        self.workspace.clip.go_to(20)
        self.settle()
        self.work.set_field("adjust.light.exposure", -2.0, "Exposure")
        self.settle()
        self.assertEqual(self.workspace.clip.keyframes, (0, 20))
        self.assertTrue(page.numbers["exposure"].keyed)
        self.workspace.clip.go_to(10)
        self.settle()
        self.assertAlmostEqual(page.numbers["exposure"]._value, -1.0, places=5)
        self.workspace.clip.next_key(1)
        self.assertEqual(self.work.number, 20)
        # An area is drawn, tracked back and forth, corrected by hand, and the rest stays.
        self.workspace.clip.go_to(0)
        self.work.edit_sieve(lambda sieve: sieve.but(areas=(square(*middles[0]),)), "Area")
        self.window.track_area(1, "position")
        self.settle()
        self.workspace.clip.go_to(21)
        self.settle()
        points = self.work.sieve.areas[0].points
        self.assertLess(np.hypot(points[0][0] - middles[21][0], points[0][1] - middles[21][1]), 3)
        self.work.edit_sieve(lambda sieve: sieve.but(areas=(square(10, 10),)), "By hand")
        self.workspace.clip.go_to(15)
        self.settle()
        self.assertLess(abs(self.work.sieve.areas[0].points[0][0] - middles[15][0]), 3)
        self.window.key_area(remove=True)
        self.assertEqual(
            [one.path for one in self.work.document.sieve.tracks], ["adjust.light.exposure"]
        )
        # The samples as they are here, from here on.
        self.workspace.clip.key_samples()
        self.settle()
        path = f"samples.{self.work.sieve.pick.samples[0].id}.colour"
        self.assertIsNotNone(tracks.keyed(self.work.document.sieve, path))
        self.work.undo()
        self.settle()
        self.assertIsNone(tracks.keyed(self.work.document.sieve, path))
        self.assertEqual(self.troubles, [])

    def test_curves_of_what_is_keyed_and_how_sure_tracking_was(self):
        middles = moving(self.folder / "m.mkv")
        self.open(self.folder / "m.mkv")
        self.click(*middles[0])
        line = self.window.timeline
        self.assertFalse(line.lanes.isVisible())
        self.workspace.clip.set_key("adjust.light.exposure", "smooth")
        self.work.edit_sieve(lambda sieve: sieve.but(areas=(square(*middles[0]),)), "Area")
        self.window.track_area(1, "position")
        self.settle()
        lanes = line.lanes
        self.assertTrue(lanes.isVisible())
        exposure, place = lanes.tracks
        self.assertEqual(lanes.words_for(exposure, 3), "Exposure, frame 3: 0")
        self.assertRegex(
            lanes.words_for(place, 20),
            r"^Rectangle 1: place, frame 20: [\d.]+ px from its first key, tracked with \d+ % "
            r"confidence$",
        )
        far = float(lanes.words_for(place, 20).split(": ")[2].split(" ")[0])
        self.assertAlmostEqual(
            far,
            float(np.hypot(middles[20][0] - middles[0][0], middles[20][1] - middles[0][1])),
            delta=3,
        )
        # A press in a lane goes to that frame; what is set there by hand is a key of its own.
        QTest.mouseClick(
            lanes, Qt.MouseButton.LeftButton, pos=QPoint(round(line.bar.place_of(12)), 4)
        )
        self.settle()
        self.assertEqual(self.work.number, 12)
        self.work.edit_sieve(lambda sieve: sieve.but(areas=(square(10, 10),)), "By hand")
        self.settle()
        by_hand, tracked = line.bar._keyframes()
        self.assertEqual((by_hand, len(tracked)), ({0, 12}, 21))
        path = self.folder / "p.sieve"
        storage.save(self.work.project, path)
        self.assertEqual(storage.load(path).stack[0].tracks, self.work.document.sieve.tracks)
        amber = [
            lanes.grab().toImage().pixelColor(round(line.bar.place_of(n)), 11).name()
            for n in range(22)
        ]
        self.assertGreater(len(set(amber)), 1)
        line.curves.click()
        self.assertFalse(lanes.isVisible())
        self.assertEqual(self.troubles, [])

    def test_keys_are_dragged_in_time(self):
        middles = moving(self.folder / "m.mkv", 12)
        self.open(self.folder / "m.mkv")
        self.click(*middles[0])
        path, lanes, bar = (
            "adjust.light.exposure",
            self.window.timeline.lanes,
            self.window.timeline.bar,
        )
        self.workspace.clip.set_key(path)
        self.workspace.clip.go_to(6)
        self.settle()
        self.work.set_field(path, -2.0, "Exposure")
        self.settle()
        steps = len(self.work.history.steps)

        def at(frame: int) -> QPoint:
            return QPoint(round(bar.place_of(frame)), 11)

        def frames() -> tuple[int, ...]:
            return tracks.frames_of(self.work.document.sieve, path)

        self.workspace.clip.go_to(2)
        for frame in (5, 6):  # wherever the pointer was before
            QTest.mouseMove(lanes, at(frame))
        self.assertIn("drag the key", lanes.toolTip())
        QTest.mousePress(lanes, Qt.MouseButton.LeftButton, pos=at(6))
        self.assertEqual(self.work.number, 6)
        for frame in (7, 8, 9):
            move_held(lanes, at(frame))
        self.assertEqual((frames(), self.work.number), ((0, 9), 9))
        for frame in (3, 0):  # not past the key before it
            move_held(lanes, at(frame))
        QTest.mouseRelease(lanes, Qt.MouseButton.LeftButton, pos=at(0))
        self.settle()
        self.assertEqual((frames(), self.work.number), ((0, 1), 1))
        self.assertAlmostEqual(self.work.sieve.adjust.light.exposure, -2.0)
        self.assertEqual(len(self.work.history.steps), steps + 1)
        self.work.undo()
        self.assertEqual(frames(), (0, 6))
        menu = QMenu()
        self.workspace.clip.go_to(6)
        fill_key_menu(menu, self.work, self.workspace.clip, path)
        self.assertEqual(
            [action.isChecked() for action in menu.actions()[:3]], [True, False, False]
        )
        menu.actions()[4].trigger()
        self.assertEqual(frames(), (0,))
        self.assertEqual(self.troubles, [])

    def test_flicker_is_said_before_and_after_steady(self):
        self.open(DEMO / "clip.mp4")
        self.workspace.clip.set_between(0, 79)
        self.click(240, 440)
        self.work.set_field("edge.steady", 100.0, "Steady")
        self.settle()
        self.window.timeline.watch.click()
        until = time.monotonic() + 60
        while not self.window.edge.flicker.text() and time.monotonic() < until:
            QTest.qWait(50)
        self.assertRegex(
            self.window.edge.flicker.text(), r"^Flicker [\d.]+ % a frame, [\d.]+ % without Steady$"
        )
        self.window.timeline.watch.click()
        self.assertTrue(self.window.edge.flicker.isHidden())


if __name__ == "__main__":
    unittest.main()
