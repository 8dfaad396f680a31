"""A pick carried to other light: its gains found, divided out, saved, said; in stills and clips."""

import dataclasses
import itertools
import unittest
from unittest import mock

import colour
import numpy as np
import robot
from cameras import COOL, WARM
from cameras import in_light as in_other_light
from common import DEMO, FolderCase, WindowCase, demo_frame, overlap, terminal, truth
from made import true_frames
from PIL import Image
from PyQt6.QtWidgets import QInputDialog
from skimage import data
from sklearn.datasets import load_sample_image
from test_clip import project_of

from amber_sieve.core.colour.transfer import decode_integers, encode
from amber_sieve.core.frame import Frame
from amber_sieve.core.pick.light import CELLS, light_between, signature_from, signature_of
from amber_sieve.core.pick.measured import Measuring, in_light
from amber_sieve.live.by_clicks import with_clicks
from amber_sieve.media.footage.clip import Footage
from amber_sieve.media.opening import open_source
from amber_sieve.project import storage
from amber_sieve.project.model import Pick, Project, Sieve
from amber_sieve.render.automatic import found_amounts
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.light import SAME, SURE, is_sure, light_on, signature_on
from amber_sieve.render.mask import mask_of
from amber_sieve.render.measuring import oklab_of
from amber_sieve.resolve.resolver import Resolver


class LightTest(unittest.TestCase):
    def test_the_gains_of_von_kries_are_found(self):
        """Source: colour-science's von Kries adaptation in its own space is one gain a channel, as
        an illuminant of CIE 15 multiplies what a camera records.
        """
        planes = demo_frame("yard").reduced(3).planes
        signature = signature_of(planes)
        whites = [
            colour.XYZ_to_RGB(
                colour.xy_to_XYZ(
                    colour.CCS_ILLUMINANTS["CIE 1931 2 Degree Standard Observer"][one]
                ),
                "sRGB",
                apply_cctf_encoding=False,
                chromatic_adaptation_transform=None,
            )
            for one in ("D65", "D50", "D75")
        ]
        for white in whites[1:]:
            gains = (white / whites[0]).astype(np.float32)
            found = light_between(signature, signature_of(in_other_light(planes, gains)))
            np.testing.assert_allclose(found.gains, gains, rtol=0.03)
            self.assertGreater(found.sure, SURE)
        self.assertEqual(light_between(signature, signature), ((1.0, 1.0, 1.0), 1.0))

    def test_photographs_of_other_things_are_told_from_other_light(self):
        """Source: photographs of scikit-image and scikit-learn, each against each and the yard."""
        photographs = [load_sample_image("china.jpg"), load_sample_image("flower.jpg")]
        photographs += [getattr(data, name)() for name in ("coffee", "rocket", "astronaut", "cat")]
        frames = [demo_frame("yard").reduced(3)]
        for number, codes in enumerate(photographs):
            planes = decode_integers(np.ascontiguousarray(np.moveaxis(codes, -1, 0)))
            frames.append(Frame(planes, key=number))
        signatures = [signature_on(frame, RenderContext()) for frame in frames]
        for one, other in itertools.permutations(signatures, 2):
            light = light_between(one, other)
            self.assertFalse(is_sure(light), light)
        close = signature_on(demo_frame("close").reduced(3), RenderContext())
        found = light_between(signatures[0], close)  # the same yard, nearer
        np.testing.assert_allclose(found.gains, 1, atol=0.05)

    def test_a_signature_is_text_and_back_and_nothing_odd_is_read(self):
        made = signature_of(demo_frame("close").reduced(3).planes)
        again = signature_from(made.text)
        np.testing.assert_array_equal(again.chroma, made.chroma)
        np.testing.assert_array_equal(again.green, made.green)
        noise = np.random.default_rng(3).uniform(0.005, 0.97, (3, 300, 300)).astype(np.float32)
        for text in (made.text, signature_of(noise).text):
            self.assertEqual(Pick(picked_on=text).picked_on, text)
        for odd in ("", "x", made.text[:-9], "é" * 9, made.text[:50] * 4):
            self.assertIsNone(signature_from(odd), odd)
        for planes in (np.zeros((3, 1, 1)), np.full((3, 4, 4), 60000.0), np.zeros((3, 0, 0))):
            black = signature_of(planes.astype(np.float32))
            self.assertEqual(black.chroma.shape, (CELLS, CELLS))
            self.assertEqual(light_between(black, made).sure, 0)
            self.assertEqual(light_between(made, black).sure, 0)

    def test_light_is_divided_out_of_what_is_measured_alone(self):
        planes = demo_frame("close").reduced(8).planes
        np.testing.assert_allclose(
            in_light(in_other_light(planes, np.ones(3, "f4")), Measuring()), planes, atol=0.01
        )
        back = in_light(planes * WARM[:, None, None], Measuring(light=tuple(WARM.tolist())))
        np.testing.assert_allclose(back, planes, rtol=1e-5)
        self.assertIs(in_light(planes, Measuring()), planes)


class CarriedTest(FolderCase):
    def test_picks_on_the_yard_hold_in_warmer_and_cooler_light(self):
        """A fifth of the other picture is cut away. `bench/clicks.py --carried` has all things."""
        base, held = robot.half_frame("yard"), {}
        cut = base.width // 5
        picked_on = signature_on(base, RenderContext()).text
        for name in ("wall", "honey", "cloth"):
            true = robot.half_truth("yard", name)
            *_, last = robot.clicks(base, true, 2)
            samples = tuple(s.but(x=s.x - cut) for s in last.sieve.pick.samples)
            for kind, gains in (("warm", WARM), ("cool", COOL)):
                frame = Frame(in_other_light(base.planes[:, :, cut:], gains), key=kind)
                for light in ("auto", "off"):
                    pick = last.sieve.pick.but(samples=samples, picked_on=picked_on, light=light)
                    context = RenderContext(Cache(10**8))
                    stands = found_amounts(last.sieve.but(pick=pick), frame, context)
                    score = overlap(mask_of(frame, stands, context), true[:, cut:])
                    held[name, kind, light] = score, last.score
        for (name, kind, light), (score, picked) in held.items():
            print(f"    {name}, {kind}, {light}: {score:.3f}, {picked:.3f} where picked")
            if light == "auto":
                self.assertGreater(score, picked - 0.08, (name, kind))
        for name in ("wall", "honey"):
            self.assertLess(held[name, "cool", "off"][0], 0.7)

    def test_clicks_in_other_light_are_in_the_light_picked_in(self):
        """A second click on a picture in other light adds a colour that holds on both."""
        frame = demo_frame("yard").reduced(2)
        for name, gains in (("one", np.ones(3, np.float32)), ("warm", WARM)):
            codes = np.rint(encode(np.minimum(frame.planes * gains[:, None, None], 1)) * 255)
            Image.fromarray(np.moveaxis(codes, 0, -1).astype(np.uint8)).save(
                self.folder / f"{name}.png"
            )
        one, warm = (open_source(self.folder / f"{name}.png") for name in ("one", "warm"))
        project = with_clicks(Project(stack=(Sieve(),)), one, [("keep", 134, 288, None)])
        self.assertTrue(project.stack[0].pick.picked_on)
        here, there = (
            with_clicks(project, source, [("keep", 600, 200, None)]).stack[0].pick
            for source in (one, warm)
        )
        self.assertEqual(there.picked_on, here.picked_on)
        np.testing.assert_allclose(there.samples[1].colour, here.samples[1].colour, rtol=0.1)
        storage.save(project, self.folder / "p.sieve")
        self.assertEqual(storage.load(self.folder / "p.sieve").stack, project.stack)

    def test_light_is_divided_out_once_a_frame(self):
        frame, context = (
            Frame(demo_frame("yard").reduced(8).planes, key="k"),
            RenderContext(Cache(10**8)),
        )
        measuring = Measuring(light=(1.2, 1.0, 0.8), flat=(0.1, 0.6))
        lab = oklab_of(frame, context, measuring)
        with mock.patch("amber_sieve.render.measuring.as_lit") as again:
            self.assertIs(oklab_of(frame, context, measuring), lab)
        again.assert_not_called()

    def test_what_is_not_to_be_carried_is_left(self):
        planes = demo_frame("yard").reduced(4).planes
        frame, context = (
            Frame(in_other_light(planes, WARM), key="warm"),
            RenderContext(Cache(10**8)),
        )
        picked_on = signature_of(planes).text
        sample = project_of(Footage(DEMO / "clip.mp4"), true_frames("cloth")[0]).stack[0].pick
        pick = sample.but(picked_on=picked_on)
        self.assertIsNotNone(light_on(pick, frame, context))
        for other in (
            pick.but(light="off"),
            pick.but(light=(2.0, 1.0, 1.0)),
            pick.but(picked_on=""),
            pick.but(picked_on="not one"),
            pick.but(samples=()),
            pick.but(measure="result"),
        ):
            self.assertIsNone(light_on(other, frame, context))
            self.assertEqual(found_amounts(Sieve(pick=other), frame, context).pick, other)
        # The same light within a few per cent is the picture as it is.
        same = Frame(planes * np.float32(1 + SAME / 3), key="same")
        self.assertEqual(found_amounts(Sieve(pick=pick), same, context).pick, pick)

    def test_the_terminal_carries_it_says_so_and_looks_before_it_renders(self):
        source, warm = self.folder / "a.png", self.folder / "warm.png"
        planes = demo_frame("yard").reduced(2).planes
        for path, gains in ((source, np.ones(3, np.float32)), (warm, WARM)):
            codes = np.rint(encode(np.minimum(planes * gains[:, None, None], 1)) * 255)
            Image.fromarray(np.moveaxis(codes, 0, -1).astype(np.uint8)).save(path)
        saved = self.folder / "wall.sieve"
        done = terminal(
            "mask", source, "-o", self.folder / "m.png", "--keep", "134,288", "--save", saved
        )
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        true, scores = truth("yard", "wall")[::2, ::2], {}
        for light in ("auto", "off", "0.544,0.435,0.348"):
            out = self.folder / f"{light}.png"
            words = ("render", saved, "--input", warm, "-o", out, "--mask-only", "--light", light)
            done = terminal(*words)
            self.assertEqual((done.returncode, done.stderr), (0, ""))
            mask = np.asarray(Image.open(out)).astype(np.float32)
            scores[light] = overlap(mask / mask.max(), true)
        self.assertLess(scores["off"], 0.1)
        self.assertAlmostEqual(scores["auto"], scores["0.544,0.435,0.348"], delta=0.02)
        self.assertGreater(scores["auto"], 0.6)
        done = terminal("render", saved, "-o", self.folder / "x.png", "--light", "1,2")
        self.assertEqual(done.returncode, 2)
        folder = self.folder / "out"
        done = terminal(
            "batch", saved, source, warm, DEMO / "evening.png", "-o", folder, "--preview"
        )
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        self.assertEqual(sorted(p.name for p in folder.iterdir()), ["batch.csv", "batch.html"])
        page = (folder / "batch.html").read_text()
        self.assertEqual(page.count("<img"), 3)
        self.assertIn("3 of 3 pictures looked at", page)
        self.assertRegex(
            (folder / "batch.csv").read_text(), r"warm.png.*0.5\d 0.4\d 0.3\d, 9\d % sure"
        )


class ClipLightTest(unittest.TestCase):
    def test_a_white_balance_that_drifts_by_a_third_breaks_no_mask(self):
        clip = Footage(DEMO / "clip.mp4")
        self.addCleanup(clip.close)

        class Drifting:
            about = clip.about

            @staticmethod
            def frame(number: int) -> Frame:
                share = 1 + number / 79 / 3
                frame = clip.frame(number)
                gains = np.array((share, 1, 1 / share), np.float32)[:, None, None]
                planes = np.minimum(frame.planes * gains, 1)
                return dataclasses.replace(frame, planes=planes, key=("drift", number), near=None)

        true, source = true_frames("turquoise"), Drifting()
        sieve = project_of(clip, true[0]).stack[0]
        picked_on = signature_on(clip.frame(0), RenderContext()).text
        scores = {}
        for light in ("auto", "off"):
            pick = sieve.pick.but(picked_on=picked_on, light=light)
            project, resolver = Project(stack=(sieve.but(pick=pick),)), Resolver(source)
            for number in (0, 20, 40, 60, 79):
                frame = source.frame(number)
                stands = resolver.resolve_frame(project, frame, number, RenderContext()).stack[0]
                mask = mask_of(frame, stands, RenderContext())
                scores[light, number] = overlap(mask, true[number])
        print("    " + "  ".join(f"{key}: {value:.3f}" for key, value in scores.items()))
        self.assertGreater(min(scores["auto", n] for n in (0, 20, 40, 60, 79)), 0.95)
        self.assertLess(scores["off", 79], scores["auto", 79])


class WindowTest(WindowCase):
    def test_the_light_is_chosen_on_the_page_and_said(self):
        self.open(DEMO / "close.png")
        self.click(560, 420)
        page = self.window.pick
        self.assertTrue(self.work.sieve.pick.picked_on)
        self.assertEqual(page.light.currentText(), "Light: found")
        page.light.activated.emit(1)
        self.settle()
        self.assertEqual(self.work.sieve.pick.light, "off")
        self.work.edit_sieve(lambda s: s.but(pick=s.pick.but(light=(1.25, 1.0, 0.8))), "Light")
        self.settle()
        self.assertEqual(page.light.currentText(), "Light: 1.25 1.00 0.80")
        for told, kept in (("2 1 0,5", (2.0, 1.0, 0.5)), ("1 2", None), ("1 x 1", None)):
            with mock.patch.object(QInputDialog, "getText", return_value=(told, True)):
                page.light.activated.emit(2)
            self.settle()
            self.assertEqual(self.work.sieve.pick.light, kept or (2.0, 1.0, 0.5))
        self.assertEqual(len(self.troubles), 2)


if __name__ == "__main__":
    unittest.main()
