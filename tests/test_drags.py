"""Steps of a drag, each worked only where it changes something, against the same steps worked as a
whole.
"""

import random
import time
import unittest
from unittest import mock

import numpy as np
from common import DEMO, WindowCase, half_demo
from made import random_project
from PyQt6.QtCore import QEventLoop, QPoint, QPointF, QSize, Qt
from PyQt6.QtGui import QImage, QPainter, QPixmap
from PyQt6.QtTest import QTest
from test_preview import levels_of_words

from amber_sieve.core.changed import RUN, changed_boxes
from amber_sieve.core.mix import Mixture
from amber_sieve.core.overlays import grey_pixels
from amber_sieve.core.pick.cached_distances import distances_to_each
from amber_sieve.desk.canvas.scaled import Scaled
from amber_sieve.desk.widgets.number import Number
from amber_sieve.live.parts import Part, Shown, worked_part
from amber_sieve.live.preview import THUMBNAIL, Opened, Wanted, preview
from amber_sieve.media import stills
from amber_sieve.media.opening import open_source
from amber_sieve.project import storage
from amber_sieve.project.controls import blocks
from amber_sieve.project.fields import numbers_of
from amber_sieve.project.model import Adjust, Light, Project, Recolour, Sieve
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.mask import qualified
from amber_sieve.render.patched import _Adjusted
from amber_sieve.render.stages.edging import NO_EDGE


def dragged(chance: random.Random, sieve: Sieve) -> Sieve:
    """A sieve after a hand has dragged one of its handles."""
    handle = chance.choice(
        (
            "tolerance",
            "exposure",
            "hue",
            "strength",
            "grow",
            "blur",
            "opposite",
            "fill",
            "blend",
            "nothing",
        )
    )
    samples = tuple(
        sample.but(tolerance=max(0, sample.tolerance + chance.uniform(-1, 1)))
        for sample in sieve.pick.samples
    )
    adjust = sieve.adjust
    match handle:
        case "tolerance":
            return sieve.but(pick=sieve.pick.but(samples=samples))
        case "exposure":
            return sieve.but(
                adjust=adjust.but(light=adjust.light.but(exposure=chance.uniform(-2, 2)))
            )
        case "hue":
            return sieve.but(
                adjust=adjust.but(recolour=adjust.recolour.but(hue=chance.uniform(-90, 90)))
            )
        case "strength":
            return sieve.but(strength=chance.choice((0, 40, 100)))
        case "grow":
            return sieve.but(edge=sieve.edge.but(grow=chance.uniform(-2, 2)))
        case "blur":
            return sieve.but(
                adjust=adjust.but(detail=adjust.detail.but(blur=chance.choice((0, 2))))
            )
        case "opposite":
            return sieve.but(opposite=not sieve.opposite) if sieve.mask_from == "own" else sieve
        case "fill":
            return sieve.but(
                adjust=adjust.but(fill=adjust.fill.but(fill_opacity=chance.uniform(0, 100)))
            )
        case "blend":
            return sieve.but(blend=chance.choice(("normal", "multiply", "color")))
    return sieve


class StepsTest(unittest.TestCase):
    def test_every_step_is_what_it_is_without_the_steps_before(self):
        chance, seen = random.Random(11), 0
        read = open_source(half_demo() / "yard.png")
        whole = read.frame(0)
        source = stills.Still(read.about, whole)  # read once
        read.close()
        opened = Opened(source)
        for _ in range(4):
            project, cache = random_project(chance, "yard"), RenderContext(Cache(10**9))
            left, top = chance.randrange(whole.width - 300), chance.randrange(whole.height - 200)
            shown = Shown(1, (left, top, left + 300, top + 200), ("result", "mask", "veil"))
            for _ in range(4):
                sieve = chance.choice(project.stack)
                project = project.with_sieve(dragged(chance, sieve))
                wanted = Wanted(
                    project, chance.choice((sieve, project.stack[-1])).id, 0, shown, hurried=True
                )
                step, alone = (
                    preview(opened, wanted, cache),
                    preview(Opened(source), wanted, RenderContext(Cache(10**9))),
                )
                np.testing.assert_array_equal(step.mask, alone.mask)
                for name in shown.views:
                    apart = np.abs(
                        levels_of_words(step.pictures[name]) - levels_of_words(alone.pictures[name])
                    )
                    self.assertLessEqual(apart.max(), 1, (name, project))
                    self.assertEqual(np.percentile(apart, 99.9), 0, (name, project))
                seen += 1
        print(f"\n{seen} steps of drags are what they are alone")

    def test_light_that_is_only_drawn_is_there_when_somebody_asks_for_it(self):
        """While a mask alone changes, the light after a sieve goes to the screen without being
        written down; sieves after it, and other views, get all of it.
        """
        chance, cache, read = (
            random.Random(3),
            RenderContext(Cache(10**9)),
            open_source(DEMO / "yard.png"),
        )
        source = stills.Still(read.about, read.frame(0))
        read.close()
        opened, first = (
            Opened(source),
            storage.load(DEMO / "yard.sieve")
            .stack[0]
            .but(edge=NO_EDGE, adjust=Adjust(recolour=Recolour(hue=60))),
        )
        second = Sieve(
            pick=first.pick.but(measure="result"),
            edge=NO_EDGE,
            adjust=Adjust(light=Light(exposure=0.5)),
            strength=80,
        )
        project, drawn = Project(stack=(first, second)), 0
        for step in range(24):
            sieve = project.stack[chance.random() < 0.7]
            if chance.random() < 0.8:
                samples = tuple(
                    sample.but(tolerance=sample.tolerance + chance.uniform(-0.7, 0.7))
                    for sample in sieve.pick.samples
                )
                sieve = sieve.but(pick=sieve.pick.but(samples=samples))
            else:
                sieve = sieve.but(
                    adjust=sieve.adjust.but(light=Light(exposure=chance.uniform(-1, 1)))
                )
            project = project.with_sieve(sieve)
            views = chance.choice(
                (
                    ("result",),
                    ("result", "mask"),
                    ("result", "veil"),
                    ("mask",),
                    ("isolate", "result"),
                )
            )
            wanted = Wanted(project, sieve.id, 0, Shown(2, views=views), hurried=True)
            with mock.patch.object(
                Mixture, "draw_runs", autospec=True, side_effect=Mixture.draw_runs
            ) as only_drawn:
                made = preview(opened, wanted, cache)
            drawn += only_drawn.call_count
            alone = preview(Opened(source), wanted, RenderContext(Cache(10**9)))
            for name in views:
                apart = np.abs(
                    levels_of_words(made.pictures[name]) - levels_of_words(alone.pictures[name])
                )
                self.assertLessEqual(apart.max(), 1, (step, name))
                self.assertEqual(np.percentile(apart, 99.9), 0, (step, name))
        self.assertGreater(drawn, 3)

    def test_a_mask_is_kept_from_the_second_time_it_is_asked_for(self):
        """A step of a tolerance makes a mask that nobody asks for again; a drag of the edge asks
        for the same one at each step.
        """
        opened, cache = Opened(open_source(DEMO / "yard.png")), RenderContext(Cache(10**9))
        self.addCleanup(opened.retire)
        sieve, shown = storage.load(DEMO / "yard.sieve").stack[0].but(edge=NO_EDGE), Shown(2)

        def step(sieve: Sieve) -> np.ndarray:
            return preview(
                opened, Wanted(Project(stack=(sieve,)), sieve.id, 0, shown, hurried=True), cache
            ).mask

        with mock.patch("amber_sieve.render.mask.qualified", side_effect=qualified) as made:
            for specks in (0, 40, 80, 120):
                mask = step(sieve.but(edge=NO_EDGE.but(specks=specks, holes=30)))
            large = [call for call in made.call_args_list if call.args[0].width > THUMBNAIL]
        self.assertEqual(len(large), 2)
        alone = preview(
            opened,
            Wanted(
                Project(stack=(sieve.but(edge=NO_EDGE.but(specks=120, holes=30)),)),
                sieve.id,
                0,
                shown,
            ),
            RenderContext(Cache(10**9)),
        )
        np.testing.assert_array_equal(mask, alone.mask)

    def test_what_was_shown_is_never_written_over(self):
        """The window still shows the pixels of a step while the next one is made."""
        chance, cache = random.Random(5), RenderContext(Cache(10**9))
        opened = Opened(open_source(half_demo() / "yard.png"))
        self.addCleanup(opened.retire)
        project, before = random_project(chance, "yard"), []
        for _ in range(6):
            project = project.with_sieve(dragged(chance, project.stack[0]))
            pictures = preview(
                opened,
                Wanted(
                    project,
                    project.stack[0].id,
                    0,
                    Shown(2, views=("result", "mask")),
                    hurried=True,
                ),
                cache,
            ).pictures
            for held, copy in before:
                np.testing.assert_array_equal(held, copy)
            before += [(pixels, pixels.copy()) for pixels in pictures.values()]

    def test_what_is_at_rest_is_counted_whole(self):
        """Though the mask is the same as at the last step of the drag, which counts every fourth
        row.
        """
        project = storage.load(DEMO / "yard.sieve")
        opened, cache, sieve = (
            Opened(open_source(DEMO / "yard.png")),
            RenderContext(Cache(10**9)),
            project.stack[0].but(edge=NO_EDGE),
        )
        self.addCleanup(opened.retire)
        for hurried in (True, False):
            made = preview(
                opened,
                Wanted(Project(stack=(sieve,)), sieve.id, 0, Shown(2), hurried=hurried),
                cache,
            )
        self.assertAlmostEqual(
            made.coverage.whole, float(made.mask.mean(dtype=np.float64)), delta=1e-7
        )

    def test_a_step_draws_no_more_than_what_it_may_change(self):
        project = storage.load(DEMO / "yard.sieve")
        opened, cache, shown = (
            Opened(open_source(DEMO / "yard.png")),
            RenderContext(Cache(10**9)),
            Shown(2, views=("result", "mask")),
        )
        self.addCleanup(opened.retire)
        sieve = project.stack[0].but(edge=NO_EDGE)
        for step in range(4):
            light = sieve.adjust.light.but(exposure=0.1 + step / 10)
            brighter = sieve.but(adjust=sieve.adjust.but(light=light))
            made = preview(
                opened, Wanted(Project(stack=(brighter,)), sieve.id, 0, shown, hurried=True), cache
            )
        held = np.add.reduceat(made.mask > 0, np.arange(0, made.mask.shape[1], RUN), axis=1) > 0
        np.testing.assert_array_equal(made.steps["result"].runs, held)
        preview(
            opened, Wanted(Project(stack=(brighter,)), sieve.id, 0, shown), cache
        )  # what is learnt of the cloth stays from here on
        for step in range(4):
            sample = sieve.pick.samples[0].but(tolerance=8 + step / 10)
            wider = brighter.but(pick=brighter.pick.but(samples=(sample,)))
            made = preview(
                opened, Wanted(Project(stack=(wider,)), sieve.id, 0, shown, hurried=True), cache
            )
        for name in ("result", "mask"):
            self.assertLess(made.steps[name].runs.mean(), 0.5 * held.mean(), name)

    def test_a_drag_works_on_what_is_seen_alone_where_the_screen_has_many_pixels(self):
        level, cache = Opened(open_source(DEMO / "yard.png")).frame(0), RenderContext(Cache(10**9))
        shown = Shown(1, (0, 0, level.width, level.height), seen=(100, 50, 1300, 950))

        def pixels(part: Part) -> int:
            return part.frame.planes[0][part.inner].size

        self.assertEqual(
            pixels(worked_part(level, shown, 0, False, cache)), level.width * level.height
        )
        held = worked_part(level, shown, 0, True, cache)
        self.assertAlmostEqual(held.frame.origin[0], 100, delta=1)
        self.assertGreaterEqual(
            pixels(held), 0.49 * 1200 * 900
        )  # never below half of the screen's pixels
        self.assertLess(pixels(held), 0.6 * 1200 * 900)
        # What is nearly all of a picture is not copied out of it.
        self.assertIs(
            worked_part(
                level, Shown(1, (20, 20, level.width, level.height)), 0, False, cache
            ).frame,
            level,
        )

    def test_what_is_read_beside_the_picture_follows_now_and_then_and_is_right_at_rest(self):
        project, cache, shown = (
            storage.load(DEMO / "yard.sieve"),
            RenderContext(Cache(10**9)),
            Shown(4),
        )
        opened, sieve = Opened(open_source(DEMO / "yard.png")), project.stack[0].but(edge=NO_EDGE)
        self.addCleanup(opened.retire)

        def beside(tolerance: float, hurried: bool) -> tuple[np.ndarray, float]:
            wider = sieve.but(
                pick=sieve.pick.but(samples=(sieve.pick.samples[0].but(tolerance=tolerance),))
            )
            seen = preview(
                opened, Wanted(Project(stack=(wider,)), sieve.id, 0, shown, hurried=hurried), cache
            )
            return seen.thumbnails[sieve.id].pixels, seen.coverage.whole

        small, share = beside(8, False)
        with mock.patch("amber_sieve.live.preview.SMALL_EVERY", 1e6):
            self.assertIs(beside(12, True)[0], small)
            self.assertEqual(beside(12, True)[1], share)
        with mock.patch("amber_sieve.live.preview.SMALL_EVERY", 0.0):
            step, step_share = beside(12, True)
        self.assertFalse(np.array_equal(step, small))
        self.assertGreater(step_share, share)
        np.testing.assert_array_equal(beside(14, False)[0], beside(14, True)[0])
        self.assertFalse(np.array_equal(beside(14, False)[0], step))
        self.assertGreater(beside(14, False)[1], step_share)

    def test_while_only_a_mask_changes_each_pixel_is_adjusted_once(self):
        source, shown, cache = (
            open_source(DEMO / "yard.png"),
            Shown(2, views=("result", "mask")),
            RenderContext(Cache(10**9)),
        )
        opened, adjust = (
            Opened(source),
            Adjust(recolour=Recolour(hue=40, dyed=False)),
        )  # nothing is learnt of what is masked
        self.addCleanup(opened.retire)
        sieve = storage.load(DEMO / "yard.sieve").stack[0].but(edge=NO_EDGE, adjust=adjust)
        sample = sieve.pick.samples[0]
        adjust = adjust.but(light=adjust.light.but(exposure=-1.5))
        known, new = mock.patch.object(_Adjusted, "of", autospec=True, side_effect=_Adjusted.of), []
        with known as asked:
            for tolerance, changed in (
                (10, {}),
                (20, {}),
                (40, {}),
                (15, {}),
                (40, {}),
                (40, {"adjust": adjust}),
                (20, {"adjust": adjust}),
            ):
                wider = sieve.but(
                    pick=sieve.pick.but(samples=(sample.but(tolerance=float(tolerance)),)),
                    **changed,
                )
                wanted = Wanted(Project(stack=(wider,)), sieve.id, 0, shown, hurried=True)
                before = asked.call_args_list[-1][0][0].known.sum() if asked.called else 0
                step, alone = (
                    preview(opened, wanted, cache),
                    preview(Opened(source), wanted, RenderContext(Cache(10**9))),
                )
                np.testing.assert_array_equal(step.pictures["result"], alone.pictures["result"])
                new.append(
                    (
                        asked.call_count,
                        bool(asked.called and asked.call_args_list[-1][0][0].known.sum() > before),
                    )
                )
        self.assertEqual(
            new, [(0, False), (1, True), (2, True), (3, False), (4, False), (4, False), (5, False)]
        )


class PartsOfThePictureTest(unittest.TestCase):
    def test_boxes_hold_every_pixel_that_differs(self):
        chance = np.random.default_rng(3)
        for shape in ((1, 1), (64, 64), (65, 129), (200, 500), (7, 1000)):
            for count in (0, 1, 5, 400):
                one = chance.integers(0, 2**32, shape, np.uint32)
                other = one.copy()
                other.ravel()[chance.integers(0, one.size, count)] ^= 1
                left = one != other
                for top, start, bottom, stop in changed_boxes(one, other):
                    self.assertTrue(left[top:bottom, start:stop].any())
                    left[top:bottom, start:stop] = False
                self.assertFalse(left.any(), (shape, count))

    def paint(
        self, scaled: Scaled, pixels: np.ndarray, at: tuple[float, float], zoom: float, ratio: float
    ) -> np.ndarray:
        image = QImage(round(300 * ratio), round(200 * ratio), QImage.Format.Format_RGB32)
        image.setDevicePixelRatio(ratio)
        image.fill(0)
        painter = QPainter(image)
        scaled.draw(painter, pixels, QPointF(*at), zoom, QSize(300, 200), ratio)
        painter.end()
        held = image.constBits()
        held.setsize(image.sizeInBytes())
        return np.frombuffer(held, np.uint32).reshape(image.height(), image.width()).copy()

    def test_what_is_exchanged_is_painted_as_if_all_were(self):
        """Pixel by pixel; and outside the region that is named nothing has changed."""
        chance = np.random.default_rng(4)
        for at, zoom, ratio in (
            ((0, 0), 1, 1),
            ((-40.3, 10.7), 1.41, 1),
            ((-200, -150), 0.74, 1),
            ((12.5, -33.1), 0.9, 1.5),
            ((3, 4), 0.6, 2),
        ):
            pixels = np.kron(
                chance.integers(0, 2**24, (60, 90), np.uint32), np.ones((8, 8), np.uint32)
            ) | np.uint32(0xFF000000)
            scaled = Scaled()
            before = self.paint(scaled, pixels, at, zoom, ratio)
            for whole in (False, False, True, False):
                pixels = pixels.copy()
                top, left = chance.integers(0, pixels.shape[0]), chance.integers(0, pixels.shape[1])
                if whole:
                    pixels[:] ^= np.uint32(0x00F03C1E)
                else:
                    pixels[
                        top : top + chance.integers(1, 90), left : left + chance.integers(1, 200)
                    ] ^= np.uint32(0x00F03C1E)
                region = scaled.exchange(pixels)
                after, wanted = (
                    self.paint(scaled, pixels, at, zoom, ratio),
                    self.paint(Scaled(), pixels, at, zoom, ratio),
                )
                np.testing.assert_array_equal(after, wanted)
                for y, x in np.argwhere(after != before):
                    self.assertTrue(
                        region.contains(QPoint(int(x / ratio), int(y / ratio))),
                        (at, zoom, ratio, x, y),
                    )
                before = after

    def test_grey_is_painted_as_the_same_colours_are(self):
        """A mask is scaled and drawn as one number a pixel, until it gets colours (its band, the
        screen's profile); and back again.
        """
        chance = np.random.default_rng(5)
        for at, zoom, ratio in (
            ((0, 0), 1, 1),
            ((-40.3, 10.7), 1.41, 1),
            ((3, 4), 0.6, 2),
            ((-9, -7), 3, 1),
        ):
            levels = np.kron(
                chance.integers(0, 256, (50, 71), np.uint32), np.ones((5, 7), np.uint32)
            )
            grey, scaled = levels.astype(np.uint8), Scaled()
            for what in ("grey", "grey", "coloured", "coloured", "grey"):
                grey = grey.copy()
                top, left = chance.integers(0, 200), chance.integers(0, 400)
                grey[top : top + 40, left : left + 80] = 0x5A
                pixels = grey_pixels(grey)
                if what == "coloured":
                    pixels[top : top + 40, left : left + 80] = 0xFF8040C0
                shown = grey if what == "grey" else pixels
                scaled.exchange(shown)
                painted, wanted = (
                    self.paint(scaled, shown, at, zoom, ratio),
                    self.paint(Scaled(), pixels, at, zoom, ratio),
                )
                self.assertLessEqual(
                    np.abs(levels_of_words(painted) - levels_of_words(wanted)).max(), 1, (at, what)
                )

    def test_another_size_or_squares_are_painted_whole(self):
        pixels = np.full((50, 60), 0xFF102030, np.uint32)
        scaled = Scaled()
        self.assertIsNone(scaled.exchange(pixels))
        self.paint(scaled, pixels, (0, 0), 1, 1)
        self.assertIsNone(scaled.exchange(pixels[:40]))
        self.paint(scaled, pixels, (0, 0), 4, 1)
        self.assertIsNone(scaled.exchange(pixels.copy()))


class WindowTest(WindowCase):
    def on_screen(self, pixmap: QPixmap) -> np.ndarray:
        image = pixmap.toImage().convertToFormat(QImage.Format.Format_RGB32)
        held = image.constBits()
        held.setsize(image.sizeInBytes())
        return np.frombuffer(held, np.uint32).reshape(image.height(), image.width()).copy()

    def drag(self, number: Number, steps: range) -> None:
        """Drag a number, and compare what stands on the screen after every step with the panes
        painted anew.
        """
        window = self.window
        QTest.mousePress(
            number, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, QPoint(60, 10)
        )
        for step in steps:
            QTest.mouseMove(number, QPoint(60 + step, 10))
            ends = time.monotonic() + 20
            while self.viewing.last.wanted.project != self.work.project and time.monotonic() < ends:
                self.application.processEvents(QEventLoop.ProcessEventsFlag.WaitForMoreEvents, 50)
            for _ in range(3):  # what came meanwhile is painted too
                self.application.processEvents()
            screen = self.on_screen(self.application.primaryScreen().grabWindow(window.winId()))
            for pane in window.canvas.panes:
                corner = pane.mapTo(window, QPoint(0, 0))
                shown = screen[
                    corner.y() : corner.y() + pane.height(), corner.x() : corner.x() + pane.width()
                ]
                np.testing.assert_array_equal(
                    shown, self.on_screen(pane.grab()), (number.accessibleName(), step)
                )
        QTest.mouseRelease(number, Qt.MouseButton.LeftButton)
        self.settle()

    def test_what_stands_on_the_screen_is_what_would_be_painted(self):
        """Marks that vanish when a drag begins, a picture that is coarser meanwhile, and parts of
        it that change: nothing is left over.
        """
        window = self.window
        window.resize(1500, 950)
        self.open(DEMO / "yard.sieve")
        for zoom in (1, 1.9):
            window.canvas.viewport.zoom_to(window.canvas.viewport.zoom * zoom)
            window.pages.setCurrentWidget(window.pick)
            self.settle()
            self.drag(window.pick.tolerance, range(1, 12, 2))
            window.pages.setCurrentWidget(window.adjust)
            window.adjust.blocks["light"].set_open(True)
            self.settle()
            self.drag(window.adjust.numbers["exposure"], range(2, 14, 3))

    def test_the_hill_behind_a_number_is_drawn_anew_when_it_or_its_room_changes(self):
        spec = next(spec for _, kind in blocks() for spec in numbers_of(kind))

        def painted(curve: tuple[float, ...], width: int, number: Number | None = None) -> QImage:
            number = number or Number(spec)
            number.resize(width, 30)
            number.set_curve(curve)
            return number.grab().toImage()

        kept, steep, flat = Number(spec), tuple(np.linspace(0, 1, 64)), (0.3,) * 64
        shown = [
            painted(*of, kept) for of in ((steep, 300), (flat, 300), (flat, 220), (steep, 300))
        ]
        alone = [painted(*of) for of in ((steep, 300), (flat, 300), (flat, 220), (steep, 300))]
        self.assertEqual(shown, alone)
        self.assertNotEqual(shown[0], shown[1])
        with mock.patch("amber_sieve.desk.widgets.hill._draw") as drawn:
            painted(steep, 300, kept)
        drawn.assert_not_called()

    def test_the_first_step_of_a_tolerance_measures_nothing_anew(self):
        """How far pixels lie from samples, and what is made of all that a step masks, is there
        before a hand takes hold of the number.
        """
        window = self.window
        window.resize(3000, 1800)
        self.enterContext(mock.patch("amber_sieve.workspace.viewing.viewing.REST", 60_000))
        with mock.patch(
            "amber_sieve.render.mask.distances_to_each", side_effect=distances_to_each
        ) as measured:
            self.open(DEMO / "yard.sieve")
            window.pages.setCurrentWidget(window.pick)
            self.settle()
            self.wait(lambda: all(pane._ready._step is not None for pane in window.canvas.panes))
            self.rest()
            measured.assert_called()
            measured.reset_mock()
            number = window.pick.tolerance
            QTest.mousePress(
                number, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, QPoint(60, 10)
            )
            QTest.mouseMove(number, QPoint(61, 10))
            self.assertTrue(self.work.dragging)
            self.wait(
                lambda: (
                    self.viewing.last.wanted.hurried
                    and self.viewing.last.wanted.project == self.work.project
                )
            )
            # The small mask in the stack is made now and then.
            self.assertEqual(
                [
                    call.args[0].shape
                    for call in measured.call_args_list
                    if max(call.args[0].shape) > THUMBNAIL
                ],
                [],
            )
            QTest.mouseRelease(number, Qt.MouseButton.LeftButton)
            self.settle()

    def test_the_first_step_of_a_drag_is_drawn_like_the_next(self):
        """What a drag works on is coarser than what stands there at rest: that is scaled while the
        hand rests, not when it moves.
        """
        window = self.window
        window.resize(3000, 1800)  # in a smaller one a drag works on the same picture
        self.enterContext(
            mock.patch("amber_sieve.workspace.viewing.viewing.REST", 60_000)
        )  # a slow machine does not end the drag
        self.open(DEMO / "yard.sieve")
        panes = window.canvas.panes
        for zoom in (1, 1.7):
            window.canvas.viewport.zoom_to(window.canvas.viewport.zoom * zoom)
            self.settle()
            wanted = self.viewing.last.wanted
            self.wait(lambda: all(pane._ready._step is not None for pane in panes))
            self.rest()  # two pictures have come: the one that was opened, and what is seen of it
            with mock.patch.object(
                Scaled, "_scale_all", autospec=True, side_effect=Scaled._scale_all
            ) as scaled:
                self.work.set_field("adjust.light.exposure", 0.5, "Exposure", "a drag")
                self.wait(
                    lambda: (
                        self.viewing.last.wanted.hurried
                        and self.viewing.last.wanted.project == self.work.project
                    )
                )
                QTest.qWait(20)
                scaled.assert_not_called()
            self.assertNotEqual(self.viewing.last.wanted, wanted)
            for pane in panes:
                drawn = self.on_screen(pane.grab())
                pane._scaled = Scaled()  # nothing is known any more of what was drawn
                apart = np.abs(
                    levels_of_words(drawn) - levels_of_words(self.on_screen(pane.grab()))
                )
                self.assertLessEqual(apart.max(), 1)
            self.work.undo()
            self.work.end_drag()
            self.settle()

    def test_bands_are_drawn_anew_when_something_of_them_changes(self):
        self.open(DEMO / "yard.sieve")
        self.workspace.samples.set_bands()
        self.window.pages.setCurrentWidget(self.window.bands)
        self.settle()
        editor = self.window.bands.editors["hue"]

        def looks() -> bytes:
            return self.on_screen(editor.grab()).tobytes()

        seen = {looks()}
        band = self.work.sieve.bands.hue
        for change in (
            lambda: self.work.edit_sieve(
                lambda s: s.but(bands=s.bands.but(hue=band.but(inverted=True))), "Inverted"
            ),
            lambda: self.work.edit_sieve(
                lambda s: s.but(bands=s.bands.but(hue=band.but(on=False))), "Off"
            ),
            lambda: editor.show_histogram(np.arange(256)),
            lambda: editor.show_pointer(120.0),
            lambda: editor.show_pointer(200.0),
            lambda: editor.resize(editor.width() + 9, editor.height()),
        ):
            change()
            self.application.processEvents()
            seen.add(looks())
        self.assertEqual(len(seen), 7)


if __name__ == "__main__":
    unittest.main()
