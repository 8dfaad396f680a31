"""Pictures and footage in and out."""

import subprocess
from dataclasses import replace
from fractions import Fraction

import imagecodecs
import numpy as np
import OpenImageIO as oiio
from common import DEMO, FolderCase
from PIL import Image

from amber_sieve.core.colour.transfer import decode
from amber_sieve.errors import Trouble
from amber_sieve.media import stills
from amber_sieve.media.colour import management as colours
from amber_sieve.media.footage.clip import Footage
from amber_sieve.media.footage.sequences import Sequence
from amber_sieve.media.opening import open_source
from amber_sieve.media.source import About


def one_strip(planes):
    return lambda: iter([(0, planes)])


class StillsTest(FolderCase):
    def written(self, name: str, planes: np.ndarray, depth: str, **about) -> stills.Still:
        path = self.folder / name
        held = About(path, "still", (planes.shape[2], planes.shape[1]), depth, **about)
        stills.write(path, held, one_strip(planes), stills.StillForm(depth))
        return stills.read(path)

    def test_every_format_returns_what_was_written(self):
        planes = np.random.default_rng(1).random((3, 33, 47), dtype=np.float32)
        for name, depth, error in (
            ("a.png", "uint8", 5e-3),
            ("a.png", "uint16", 2e-5),
            ("a.tif", "uint8", 5e-3),
            ("a.tif", "uint16", 2e-5),
            ("a.tif", "float", 0),
            ("a.exr", "half", 5e-4),
            ("a.exr", "float", 0),
        ):
            still = self.written(name, planes, depth)
            self.assertEqual(still.about.depth, depth)
            self.assertLessEqual(np.abs(still.picture.planes - planes).max(), error, (name, depth))

    def test_16_bit_round_trip_is_exact(self):
        codes = np.random.default_rng(2).integers(0, 65536, (40, 50, 3), dtype=np.uint16)
        for profile in (b"", self.wide_profile()):
            source = self.folder / "in.png"
            spec = oiio.ImageSpec(50, 40, 3, "uint16")
            if profile:
                spec.attribute(
                    "ICCProfile",
                    oiio.TypeDesc(f"uint8[{len(profile)}]"),
                    np.frombuffer(profile, np.uint8),
                )
            stills.store(source, spec, [codes])
            still = stills.read(source)
            stills.write(
                self.folder / "out.png",
                still.about,
                one_strip(still.picture.planes),
                original=still.picture,
            )
            back = oiio.ImageInput.open(str(self.folder / "out.png")).read_image("uint16")
            self.assertTrue(np.array_equal(back, codes), len(profile))

    @staticmethod
    def wide_profile() -> bytes:
        """A profile with wider primaries than sRGB and gamma 2.2."""
        return imagecodecs.cms_profile(
            "rgb",
            gamma=2.2,
            whitepoint=[0.3127, 0.3290, 1.0],
            primaries=[0.64, 0.33, 1.0, 0.21, 0.71, 1.0, 0.15, 0.06, 1.0],
        )

    def test_embedded_profiles_are_honoured(self):
        # Source: the green primary of this profile lies outside sRGB, so its linear sRGB red is
        # negative.
        profile = self.wide_profile()
        path = self.folder / "wide.tif"
        spec = oiio.ImageSpec(1, 1, 3, "uint16")
        spec.attribute(
            "ICCProfile", oiio.TypeDesc(f"uint8[{len(profile)}]"), np.frombuffer(profile, np.uint8)
        )
        stills.store(path, spec, [np.array([[[0, 65535, 0]]], np.uint16)])
        light = stills.read(path).picture.planes[:, 0, 0]
        self.assertLess(light[0], -0.3)
        self.assertAlmostEqual(light[1], 1.0, delta=0.01)
        self.assertFalse(colours.is_srgb(profile))
        self.assertTrue(colours.is_srgb(colours.srgb_profile()))

    def test_orientation_is_applied(self):
        # Source: Exif 2.3, tag 274: in orientation 6 the 0th row is the right-hand side.
        image = Image.new("RGB", (4, 2))
        image.putpixel((0, 0), (255, 0, 0))
        exif = image.getexif()
        exif[274] = 6
        path = self.folder / "turned.png"
        image.save(path, exif=exif)
        still = stills.read(path)
        self.assertEqual(still.about.size, (2, 4))
        self.assertEqual(still.picture.planes[0, 0, 1], 1)

    def test_metadata_and_alpha_are_carried_over(self):
        rgba = np.zeros((4, 4, 4), np.uint8)
        rgba[..., 0], rgba[..., 3] = 200, 128
        Image.fromarray(rgba).save(self.folder / "a.png")
        still = stills.read(self.folder / "a.png")
        self.assertAlmostEqual(
            float(still.picture.planes[0, 0, 0]), float(decode(np.array([200 / 255]))[0]), places=5
        )
        stills.write(
            self.folder / "b.png",
            replace(still.about, metadata={"Artist": "The potter"}),
            one_strip(still.picture.planes),
            alpha=still.picture.alpha,
        )
        self.assertTrue(np.array_equal(np.asarray(Image.open(self.folder / "b.png")), rgba))
        self.assertEqual(
            stills.read(self.folder / "b.png").about.metadata.get("Artist"), "The potter"
        )

    def test_grey_and_webp_are_read(self):
        Image.new("L", (5, 3), 100).save(self.folder / "grey.png")
        planes = stills.read(self.folder / "grey.png").picture.planes
        self.assertEqual(planes.shape, (3, 3, 5))
        self.assertTrue((planes[0] == planes[2]).all())
        Image.new("RGB", (6, 3), (10, 200, 30)).save(self.folder / "a.webp", lossless=True)
        self.assertEqual(stills.read(self.folder / "a.webp").about.size, (6, 3))

    def test_colours_outside_the_gamut_keep_their_hue(self):
        planes = np.full((3, 4, 4), 0.2, np.float32)
        planes[1] = 1.3
        still = self.written("g.png", planes, "uint16")
        self.assertLessEqual(still.picture.planes.max(), 1)
        self.assertGreater(still.picture.planes[1, 0, 0], still.picture.planes[0, 0, 0] + 0.2)

    def test_bad_files_are_named_in_one_sentence(self):
        whole = self.folder / "whole.jpg"
        Image.fromarray(
            np.random.default_rng(3).integers(0, 255, (200, 200, 3), dtype=np.uint8)
        ).save(whole)
        cut, text, empty = (
            self.folder / "cut.jpg",
            self.folder / "text.png",
            self.folder / "empty.png",
        )
        cut.write_bytes(whole.read_bytes()[:6000])
        text.write_text("not a picture")
        empty.touch()
        for path, word in (
            (cut, "cut short"),
            (text, "PNG"),
            (empty, "empty"),
            (self.folder / "none.png", "does not exist"),
            (self.folder, "No numbered pictures"),
        ):
            with self.assertRaises(Trouble) as caught:
                open_source(path)
            self.assertIn(word, str(caught.exception))
            self.assertNotIn("\n", str(caught.exception))

    def test_unwritable_targets(self):
        planes = np.zeros((3, 4, 4), np.float32)
        about = About(self.folder / "a.png", "still", (4, 4), "uint8")
        for target in (self.folder / "missing" / "a.png", self.folder / "a.bmp", self.folder / "a"):
            with self.assertRaises(Trouble):
                stills.write(target, about, one_strip(planes))
        with self.assertRaises(Trouble):
            stills.write_mask(self.folder / "m.jpg", planes[0])


class FootageTest(FolderCase):
    def test_frames_by_number_in_any_order(self):
        clip = Footage(DEMO / "clip.mp4")
        self.addCleanup(clip.close)
        self.assertGreaterEqual(clip.about.frames, 72)
        self.assertEqual((clip.about.size, clip.about.rate), ((960, 540), Fraction(24)))
        self.assertEqual(clip.tags["matrix"], "BT.709")
        order = [0, 40, 41, 3, clip.about.frames - 1, 39]
        again = {n: clip.frame(n).planes for n in order}
        fresh = Footage(DEMO / "clip.mp4")
        self.addCleanup(fresh.close)
        for number in range(clip.about.frames):
            planes = fresh.frame(number).planes
            if number in again:
                self.assertTrue(np.array_equal(planes, again[number]), number)
        with self.assertRaises(Trouble):
            clip.frame(clip.about.frames)

    def test_matrix_and_range_are_read_from_the_stream(self):
        # Source: ITU-R BT.709 and BT.601: pure red and mid grey, coded with either matrix and
        # range, must come back the same.
        for matrix, span in (("bt709", "tv"), ("smpte170m", "tv"), ("bt709", "pc")):
            path = self.folder / f"{matrix}-{span}.mp4"
            made = [
                "ffmpeg",
                "-v",
                "error",
                "-y",
                "-f",
                "lavfi",
                "-i",
                "color=0xC82814:size=64x64:rate=24:duration=0.2,format=gbrp",
            ]
            made += [
                "-vf",
                f"scale=out_color_matrix={matrix}:out_range={span},format=yuv444p",
                "-colorspace",
                matrix,
                "-color_range",
                span,
                "-c:v",
                "libx264",
                "-qp",
                "0",
                str(path),
            ]
            subprocess.run(made, check=True)
            clip = Footage(path)
            self.addCleanup(clip.close)
            levels = np.rint(255 * np.clip(clip.frame(1).planes[:, 30, 30], 0, 1) ** (1 / 2.2))
            expected = 255 * decode(np.array([200, 40, 20]) / 255) ** (1 / 2.2)
            np.testing.assert_allclose(levels, expected, atol=3, err_msg=f"{matrix} {span}")

    def test_sequences(self):
        for number in range(3, 7):
            Image.new("RGB", (8, 6), (number * 20, 0, 0)).save(
                self.folder / f"shot.{number:04}.png"
            )
        for path in (self.folder / "shot.####.png", self.folder / "shot.%04d.png", self.folder):
            shot = open_source(path)
            self.assertIsInstance(shot, Sequence)
            self.assertEqual(shot.about.frames, 4)
            self.assertGreater(shot.frame(3).planes[0, 0, 0], shot.frame(0).planes[0, 0, 0])
        Image.new("RGB", (9, 6)).save(self.folder / "shot.0009.png")
        with self.assertRaises(Trouble):
            open_source(self.folder).frame(4)

    def test_a_broken_clip(self):
        path = self.folder / "broken.mp4"
        path.write_bytes((DEMO / "clip.mp4").read_bytes()[:2000])
        with self.assertRaises(Trouble):
            open_source(path)
