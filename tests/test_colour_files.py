"""Colour on its way in and out: profiles, log and HDR encodings, displays, inks, parts, raw white
balance, tables as an adjustment, proofs.
"""

import io
import os
import pathlib
import subprocess
import sys
import tempfile
import unittest

import av
import colour
import imagecodecs
import numpy as np
import OpenImageIO as oiio
import PyOpenColorIO as ocio
from common import DEMO, FolderCase, WindowCase, demo_frame, rendered_whole, terminal
from made import raw_file
from PIL import Image, ImageCms

from amber_sieve.core.adjust import lookup
from amber_sieve.core.colour import encodings
from amber_sieve.core.colour.difference import delta_e_2000, to_cielab
from amber_sieve.core.colour.lookup import MARK, looked_up, pixels_through, to_display_pixels
from amber_sieve.core.colour.transfer import encode
from amber_sieve.core.frame import Frame
from amber_sieve.core.mix import adjusted
from amber_sieve.errors import Trouble
from amber_sieve.export.still_options import Export, export
from amber_sieve.media import stills
from amber_sieve.media.colour import lookup_files, ocio_functions, profiles, screens
from amber_sieve.media.colour import spaces as colour_spaces
from amber_sieve.media.opening import open_source
from amber_sieve.media.source import About
from amber_sieve.project.model import Adjust, Bands, Cdl, Edge, Lookup, Project, Ramp, Sieve
from amber_sieve.read_settings import Reading


#: The ColorChecker's 24 patches as linear light of Rec. 709, by colour-science ("ColorChecker24 -
#: After November 2014"), those in its gamut.
def checker() -> np.ndarray:
    held = colour.CCS_COLOURCHECKERS["ColorChecker24 - After November 2014"]
    xyz = colour.xyY_to_XYZ(list(held.data.values()))
    light = colour.XYZ_to_RGB(xyz, "sRGB", held.illuminant, "CAT02", apply_cctf_encoding=False)
    return np.asarray(light[(light >= 0).all(1)], np.float32)


def every_pixel() -> Sieve:
    """A sieve that holds everything."""
    return Sieve(
        bands=Bands(ramp=Ramp(on=False)),
        invert=True,
        edge=Edge(specks=0, holes=0, follow=0, clean=0, level=0),
    )


class ProfilesTest(FolderCase):
    def test_a_chart_in_every_profile_read_back_by_little_cms(self):
        # Source: Little CMS reads our files by their own profile.
        light = checker()
        planes = np.repeat(light.T[:, None], 4, 1).reshape(3, 4, -1)
        about = About(pathlib.Path("chart.tif"), "still", (planes.shape[2], 4), "uint16")
        wanted = to_cielab(planes.reshape(3, -1).T)
        for name in profiles.NAMES:
            path = self.folder / f"{name}.tif"
            stills.write(
                path, about, lambda: iter([(0, planes)]), stills.StillForm("uint16", profile=name)
            )
            held = oiio.ImageInput.open(str(path))
            profile = bytes(np.asarray(held.spec().getattribute("ICCProfile"), np.uint8))
            codes = held.read_image("uint16")
            held.close()
            self.assertIn(
                name, ImageCms.getProfileDescription(ImageCms.ImageCmsProfile(io.BytesIO(profile)))
            )
            back = imagecodecs.cms_transform(
                codes,
                profile,
                profiles.named("Linear"),
                colorspace="rgb",
                outcolorspace="rgb",
                outdtype="float32",
                intent=1,
            )
            far = delta_e_2000(to_cielab(back.reshape(-1, 3)), wanted)
            print(f"    {name}: mean ΔE2000 {far.mean():.4f}, largest {far.max():.4f}")
            self.assertLess(far.mean(), 0.2)
            # And read again by ourselves.
            self.assertLess(np.abs(stills.read(path).picture.planes - planes).max(), 2e-3)

    def test_written_twice_it_is_the_same_file(self):
        source = open_source(DEMO / "close.png")
        for name in ("a", "b"):
            export(
                source,
                Project(),
                Project().stack[0].id,
                self.folder / f"{name}.jpg",
                Export(profile="Display P3"),
            )
        self.assertEqual((self.folder / "a.jpg").read_bytes(), (self.folder / "b.jpg").read_bytes())

    def test_formats_that_are_new(self):
        frame = demo_frame("yard").part(600, 600, 700, 680)
        about = About(pathlib.Path("a.png"), "still", (100, 80), "uint16")
        for name, depth, most in (
            ("a.webp", "uint8", 0.2),
            ("a.jxl", "uint16", 1e-3),
            ("a.jxl", "uint8", 0.01),
            ("b.jxl", "half", 2e-3),
        ):
            stills.write(
                self.folder / name,
                about,
                lambda: iter([(0, frame.planes)]),
                stills.StillForm(depth, quality=100),
            )
            back = stills.read(self.folder / name)
            self.assertEqual(back.about.size, (100, 80))
            self.assertLess(np.abs(back.picture.planes - frame.planes).max(), most, name)

    def test_a_cut_out_straight_and_multiplied(self):
        planes = np.full((3, 4, 4), 0.5, np.float32)
        alpha = np.full((4, 4), 0.25, np.float32)
        about = About(pathlib.Path("a.tif"), "still", (4, 4), "uint16")
        codes = []
        for multiplied in (False, True):
            path = self.folder / f"{multiplied}.tif"
            stills.write(
                path,
                about,
                lambda: iter([(0, planes)]),
                stills.StillForm(premultiplied=multiplied),
                alpha,
            )
            hints = oiio.ImageSpec()
            hints.attribute("oiio:UnassociatedAlpha", 1)
            held = oiio.ImageInput.open(str(path), hints)
            codes.append(held.read_image("uint16")[0, 0])
            held.close()
            np.testing.assert_allclose(stills.read(path).picture.planes, 0.5, atol=1e-3)
        self.assertAlmostEqual(codes[1][0] / codes[0][0], 0.25, places=3)


class EncodingsTest(unittest.TestCase):
    CODES = np.linspace(0, 1, 257)

    def test_pq_and_hlg_are_those_of_the_standards(self):
        # Source: colour-science's SMPTE ST 2084 and ITU-R BT.2100; diffuse white of ITU-R BT.2408
        # is 203 cd/m², at 58 % of PQ and 75 % of HLG.
        ours = encodings.light_of(self.CODES, encodings.PQ) * 203
        np.testing.assert_allclose(
            ours, colour.models.eotf_ST2084(self.CODES, 10_000), rtol=1e-6, atol=1e-6
        )
        grey = np.repeat(np.rint(self.CODES * 65535).astype(np.uint16)[None, :, None], 3, 2)
        shown = encodings.decoded(grey, encodings.HLG, 9)[1, 0] * 203
        np.testing.assert_allclose(
            shown, colour.models.eotf_BT2100_HLG(self.CODES, L_B=0, L_W=1000), rtol=2e-3, atol=2e-2
        )
        for curve, code in ((encodings.PQ, 0.58), (encodings.HLG, 0.75)):
            white = encodings.decoded(np.full((1, 1, 3), round(code * 65535), np.uint16), curve, 9)
            np.testing.assert_allclose(white, 1, atol=0.02)

    def test_every_way_leads_back(self):
        rng = np.random.default_rng(1)
        codes = rng.integers(500, 65000, (20, 30, 3)).astype(np.uint16)
        for curve in (1, 4, 5, encodings.LINEAR, encodings.PQ, encodings.HLG):
            for primaries in (1, 5, 6, 9, 12):
                back = (
                    np.moveaxis(
                        encodings.coded(
                            encodings.decoded(codes, curve, primaries), curve, primaries
                        ),
                        0,
                        -1,
                    )
                    * 65535
                )
                self.assertLess(np.abs(back - codes).max(), 40, (curve, primaries))  # of 65535

    def test_primaries_are_those_of_colour_science(self):
        for number, name in ((9, "ITU-R BT.2020"), (12, "P3-D65"), (6, "SMPTE C")):
            matrix = colour.matrix_RGB_to_RGB(name, "ITU-R BT.709", "Bradford")
            np.testing.assert_allclose(
                encodings.to_rec_709(number), matrix, atol=2e-4, err_msg=name
            )

    def test_patches_in_footage(self):
        # Source: colour-science encodes the patches, as codes and as Y'CbCr; a lossless clip of
        # them is decoded by what its stream says.
        light = np.array(
            [
                (0.2, 0.2, 0.2),
                (0.5, 0.1, 0.05),
                (0.05, 0.4, 0.1),
                (0.9, 0.9, 0.9),
                (0.02, 0.05, 0.3),
            ]
        )
        to_2020 = colour.matrix_RGB_to_RGB("ITU-R BT.709", "ITU-R BT.2020", None)
        wide = np.clip(light @ to_2020.T, 0, None)
        codes = {
            (16, 9): colour.models.eotf_inverse_ST2084(wide * 203, 10_000),
            (18, 9): colour.models.eotf_inverse_BT2100_HLG(wide * 203, L_B=0, L_W=1000),
            (1, 1): np.asarray(encode(light.astype(np.float32)), np.float64),
        }
        for (curve, primaries), values in codes.items():
            for full in (False, True):
                with self.subTest(curve=curve, full=full), tempfile.TemporaryDirectory() as folder:
                    path = pathlib.Path(folder) / "a.mkv"
                    picture = np.rint(
                        np.repeat(np.repeat(values[None], 16, 0), 16, 1) * 65535
                    ).astype(np.uint16)
                    with av.open(str(path), "w") as out:
                        stream = out.add_stream("ffv1", 24)
                        stream.width, stream.height, stream.pix_fmt = (
                            picture.shape[1],
                            16,
                            "yuv444p10le",
                        )
                        context = stream.codec_context
                        context.colorspace, context.color_range = primaries, 2 if full else 1
                        context.color_primaries, context.color_trc = primaries, curve
                        weights = colour.WEIGHTS_YCBCR[
                            "ITU-R BT.709" if primaries == 1 else "ITU-R BT.2020"
                        ]
                        samples = colour.RGB_to_YCbCr(
                            picture / 65535, weights, out_bits=10, out_legal=not full, out_int=True
                        )
                        frame = av.VideoFrame(stream.width, stream.height, "yuv444p10le")
                        for index, plane in enumerate(frame.planes):
                            held = np.frombuffer(memoryview(plane), np.uint16).reshape(
                                plane.height, -1
                            )
                            held[:, : plane.width] = samples[..., index]
                        (
                            frame.colorspace,
                            frame.color_range,
                            frame.color_primaries,
                            frame.color_trc,
                        ) = (
                            primaries,
                            2 if full else 1,
                            primaries,
                            curve,
                        )
                        out.mux(stream.encode(frame))
                        out.mux(stream.encode(None))
                    source = open_source(path)
                    self.assertEqual(source.about.tags["curve"], encodings.CURVE_NAMES[curve])
                    seen = source.frame(0).planes[:, 8, 8::16].T
                    # Within one level of eight bits, as coded by the stream's own curve.
                    back = encodings.coded(
                        np.ascontiguousarray(seen.T[:, None], np.float32), curve, primaries
                    )[:, 0].T
                    self.assertLess(np.abs(back - values).max() * 255, 1.0)
                    np.testing.assert_allclose(seen, light, rtol=0.03, atol=2e-3)
                    source.close()


class SpacesTest(FolderCase):
    def test_inputs_and_displays_are_opencolorios(self):
        # Source: OpenColorIO's own processors between named spaces of the same configuration.
        config = ocio.Config.CreateFromFile(ocio_functions.BUILT_IN)
        rng = np.random.default_rng(2)
        codes = rng.random((3, 6, 8)).astype(np.float32)
        for name in ("ACEScct", "ACEScg", "ACES2065-1", "Linear Rec.2020"):
            pixels = np.ascontiguousarray(np.moveaxis(codes, 0, -1))
            config.getProcessor(name, "Linear Rec.709 (sRGB)").getDefaultCPUProcessor().applyRGB(
                pixels
            )
            np.testing.assert_allclose(
                colour_spaces.to_light(codes, name),
                np.moveaxis(pixels, -1, 0),
                rtol=1e-4,
                atol=1e-5,
                err_msg=name,
            )
        shown = colour_spaces.displays()[0]
        display, _, view = shown.partition(ocio_functions.BETWEEN)
        pixels = np.ascontiguousarray(np.moveaxis(codes, 0, -1))
        config.getProcessor(
            "Linear Rec.709 (sRGB)", display, view, ocio.TRANSFORM_DIR_FORWARD
        ).getDefaultCPUProcessor().applyRGB(pixels)
        np.testing.assert_allclose(
            colour_spaces.to_display(codes, shown), np.moveaxis(pixels, -1, 0), atol=2e-4
        )
        with self.assertRaises(Trouble):
            colour_spaces.to_light(codes, "no such space")
        # Source: OpenColorIO's own command, on a file.
        spec = oiio.ImageSpec(8, 6, 3, "float")
        out = oiio.ImageOutput.create(str(self.folder / "i.exr"))
        out.open(str(self.folder / "i.exr"), spec)
        out.write_image(np.ascontiguousarray(np.moveaxis(codes, 0, -1)))
        out.close()
        command = [
            pathlib.Path(sys.executable).parent / "ocioconvert",
            self.folder / "i.exr",
            "ACEScct",
            self.folder / "o.exr",
            "Linear Rec.709 (sRGB)",
        ]
        subprocess.run(
            command,
            env=os.environ | {"OCIO": ocio_functions.BUILT_IN},
            check=True,
            capture_output=True,
        )
        theirs = stills.read(self.folder / "o.exr").picture.planes
        np.testing.assert_allclose(
            colour_spaces.to_light(codes, "ACEScct"), theirs, rtol=1e-4, atol=1e-5
        )
        # Source: ACEScct 0.4135884 is mid grey, 0.18 (S-2016-001).
        np.testing.assert_allclose(
            colour_spaces.to_light(np.full((3, 1, 1), 0.4135884, np.float32), "ACEScct"),
            0.18,
            atol=1e-4,
        )

    def test_cdl_works_in_the_channels_of_the_working_space(self):
        # Source: OpenColorIO's own matrices there and back, with the CDL of ASC CDL 1.2 between
        # them.
        frame = demo_frame("yard").part(500, 300, 600, 360)
        cdl = Adjust(cdl=Cdl(slope_red=1.4, slope_blue=0.7))
        project = Project(working="ACEScg", stack=(every_pixel().but(adjust=cdl),))
        got = rendered_whole(frame, project).planes
        matrix = np.array(colour_spaces.matrix_of("ACEScg")).reshape(3, 3)
        wide = np.linalg.inv(matrix) @ frame.planes.reshape(3, -1).astype(np.float64)
        wanted = matrix @ (wide * np.array([[1.4], [1.0], [0.7]]))
        np.testing.assert_allclose(got.reshape(3, -1), wanted, atol=2e-5)
        self.assertGreater(
            np.abs(got - rendered_whole(frame, project.but(working="")).planes).max(), 0.01
        )
        # Source: the matrix from AP1 to Rec. 709 of ACES (S-2014-004, from memory, adapted from D60
        # to D65).
        np.testing.assert_allclose(matrix[0], (1.70505, -0.62179, -0.08326), atol=2e-3)
        with self.assertRaisesRegex(Trouble, "not linear"):
            colour_spaces.matrix_of("ACEScct")

    def test_ocio_names_another_configuration_and_a_broken_one_is_said(self):
        environment = os.environ | {"OCIO": str(self.folder / "none.ocio")}
        words = (
            "from amber_sieve.media.colour import spaces as c\nfrom amber_sieve.errors import "
            "Trouble\ntry:\n c.inputs()\nexcept Trouble as t:\n print(t)"
        )
        run = subprocess.run(
            [sys.executable, "-c", words],
            env=environment | {"PYTHONPATH": str(DEMO.parent / "src")},
            capture_output=True,
            text=True,
        )
        self.assertIn("$OCIO", run.stdout)
        self.assertEqual(run.stderr, "")

    def test_what_is_seen_through_a_display_is_what_is_written(self):
        name = colour_spaces.displays()[0]
        frame = demo_frame("yard").part(500, 300, 900, 700)
        table = screens.display_table(name, "")
        words = to_display_pixels(frame.planes, table, screens.DARK, screens.BRIGHT)
        about = About(pathlib.Path("a.png"), "still", (400, 400), "uint8")
        stills.write(
            self.folder / "a.png",
            about,
            lambda: iter([(0, frame.planes)]),
            stills.StillForm(display=name),
        )
        written = np.asarray(Image.open(self.folder / "a.png")).astype(int)
        far = [
            np.abs((words >> shift & 255).astype(int) - written[..., k])
            for k, shift in enumerate((16, 8, 0))
        ]
        print(
            f"    a display's table against its formula: largest {max(f.max() for f in far)} "
            f"levels, mean {np.mean(far):.3f}"
        )
        self.assertLessEqual(max(f.max() for f in far), 2)

    def test_log_codes_and_projects_that_name_their_space(self):
        codes = np.rint(np.asarray(Image.open(DEMO / "close.png").crop((0, 0, 64, 48)))).astype(
            np.uint8
        )
        Image.fromarray(codes).save(self.folder / "log.png")
        light = open_source(self.folder / "log.png", Reading(space="ACEScct")).frame(0).planes
        np.testing.assert_allclose(
            light,
            colour_spaces.to_light(np.moveaxis(codes / np.float32(255), -1, 0), "ACEScct"),
            rtol=1e-5,
        )


class PartsInksScansTest(FolderCase):
    def test_parts_of_a_file_are_chosen_by_name(self):
        specs = [oiio.ImageSpec(8, 4, 3, "half") for _ in range(2)]
        for spec, name in zip(specs, ("beauty", "shadow"), strict=True):
            spec.attribute("oiio:subimagename", name)
        out = oiio.ImageOutput.create(str(self.folder / "m.exr"))
        out.open(str(self.folder / "m.exr"), tuple(specs))
        out.write_image(np.full((4, 8, 3), 0.5, np.float32))
        out.open(str(self.folder / "m.exr"), specs[1], "AppendSubimage")
        out.write_image(np.full((4, 8, 3), 0.25, np.float32))
        out.close()
        source = open_source(self.folder / "m.exr")
        self.assertEqual(source.about.parts, ("beauty", "shadow"))
        self.assertEqual(source.frame(0).planes[0, 0, 0], 0.5)
        self.assertEqual(
            open_source(self.folder / "m.exr", Reading(part="shadow")).frame(0).planes[0, 0, 0],
            0.25,
        )
        with self.assertRaisesRegex(Trouble, "beauty, shadow"):
            open_source(self.folder / "m.exr", Reading(part="none"))

    def test_a_later_page_in_a_wide_profile_comes_out_as_it_is(self):
        rng = np.random.default_rng(6)
        pages = [rng.integers(0, 65535, (12, 16, 3)).astype(np.uint16) for _ in range(2)]
        spec = oiio.ImageSpec(16, 12, 3, "uint16")
        profile = profiles.named("Display P3")
        spec.attribute(
            "ICCProfile", oiio.TypeDesc(f"uint8[{len(profile)}]"), np.frombuffer(profile, np.uint8)
        )
        out = oiio.ImageOutput.create(str(self.folder / "p.tif"))
        out.open(str(self.folder / "p.tif"), (spec, spec))
        out.write_image(pages[0])
        out.open(str(self.folder / "p.tif"), spec, "AppendSubimage")
        out.write_image(pages[1])
        out.close()
        source = open_source(self.folder / "p.tif", Reading(part="Part 2"))
        export(source, Project(), Project().stack[0].id, self.folder / "o.tif", Export())
        held = oiio.ImageInput.open(str(self.folder / "o.tif"))
        self.assertTrue(np.array_equal(held.read_image("uint16"), pages[1]))
        held.close()

    def test_inks_go_through_their_profile(self):
        # Plain inks without a profile; with one, Little CMS by pillow is the reference.
        Image.fromarray(np.full((4, 8, 4), (0, 255, 255, 0), np.uint8), "CMYK").save(
            self.folder / "c.jpg", quality=100
        )
        np.testing.assert_allclose(
            open_source(self.folder / "c.jpg").frame(0).planes[:, 0, 0], (1, 0, 0), atol=0.01
        )
        (self.folder / "cut.jpg").write_bytes((self.folder / "c.jpg").read_bytes()[:300])
        with self.assertRaises(Trouble):
            open_source(self.folder / "cut.jpg")

    def test_scans_of_film_by_their_header(self):
        # Source: the Cineon file format (from memory): code 685 of 1023 is white, 95 is black.
        for said, code, light in (
            ("Printing density", 685, 1.0),
            ("Printing density", 95, 0.0),
            ("Linear", 512, 512 / 1023),
        ):
            spec = oiio.ImageSpec(8, 4, 3, "uint16")
            spec.attribute("oiio:BitsPerSample", 10)
            spec.attribute("dpx:Transfer", said)
            out = oiio.ImageOutput.create(str(self.folder / "a.dpx"))
            out.open(str(self.folder / "a.dpx"), spec)
            out.write_image(np.full((4, 8, 3), round(code * 65535 / 1023), np.uint16))
            out.close()
            np.testing.assert_allclose(
                open_source(self.folder / "a.dpx").frame(0).planes, light, atol=2e-3, err_msg=said
            )

    def test_raw_white_balance_from_a_place(self):
        mosaic = np.full((48, 64), 1000)
        mosaic[::2, ::2] = 1600  # red sees more: a warm light
        raw_file(self.folder / "a.dng", mosaic)
        shot = open_source(self.folder / "a.dng").frame(0).planes[:, 20, 30]
        self.assertGreater(shot[0] / shot[1], 1.2)
        picked = (
            open_source(self.folder / "a.dng", Reading(white=(30, 20))).frame(0).planes[:, 20, 30]
        )
        np.testing.assert_allclose(picked / picked[1], 1, atol=0.02)
        with self.assertRaises(Trouble):
            open_source(self.folder / "a.dng", Reading(white=(300, 20)))


class LookupTest(FolderCase):
    def test_tetrahedra_are_opencolorios(self):
        # Source: OpenColorIO, tetrahedral interpolation.
        rng = np.random.default_rng(5)
        table = rng.random((9, 9, 9, 3)).astype(np.float32)
        lookup_files.write(table, self.folder / "t.cube", "t")
        np.testing.assert_allclose(lookup_files.read(self.folder / "t.cube"), table, atol=1e-6)
        pixels = rng.random((40, 50, 3)).astype(np.float32)
        transform = ocio.FileTransform(
            str(self.folder / "t.cube"), interpolation=ocio.INTERP_TETRAHEDRAL
        )
        theirs = pixels.copy()
        ocio.Config.CreateRaw().getProcessor(transform).getOptimizedCPUProcessor(
            ocio.OPTIMIZATION_LOSSLESS
        ).applyRGB(theirs)
        np.testing.assert_allclose(
            looked_up(np.ascontiguousarray(np.moveaxis(pixels, -1, 0)), table),
            np.moveaxis(theirs, -1, 0),
            atol=2e-5,
        )

    def test_a_table_that_changes_nothing_leaves_all_light_alone(self):
        grid = np.stack(
            np.meshgrid(*[np.linspace(0, 1, 17, dtype=np.float32)] * 3, indexing="ij"), -1
        )
        light = np.random.default_rng(6).random((3, 40, 50), np.float32) ** 3 * np.float32(
            1.2
        ) - np.float32(0.02)
        within = adjusted(light, lookup.steps(grid))
        np.testing.assert_allclose(within, light, atol=2e-6)
        grid[0, 0, 0] = (
            1e-6  # a table that leaves 0 to 1 is coded and decoded in the way that knows no bounds
        )
        grid[-1, -1, -1] = 1 + 1e-6
        np.testing.assert_allclose(adjusted(light, lookup.steps(grid)), within, atol=6e-6)

    def test_a_table_is_an_adjustment_inside_the_mask(self):
        grid = np.stack(
            np.meshgrid(*[np.linspace(0, 1, 33, dtype=np.float32)] * 3, indexing="ij"), -1
        )
        lookup_files.write(grid[..., ::-1].copy(), self.folder / "swap.cube", "swap")
        lookup_files.write(grid, self.folder / "same.clf", "same")
        frame = demo_frame("yard").part(500, 300, 700, 400)
        bright = Frame(frame.planes * np.float32(3))
        held = every_pixel()
        for name, wanted in (("swap.cube", frame.planes[::-1]), ("same.clf", frame.planes)):
            sieve = held.but(adjust=Adjust(lookup=Lookup(lookup_file=str(self.folder / name))))
            got = rendered_whole(frame, Project(stack=(sieve,))).planes
            np.testing.assert_allclose(got, wanted, atol=2e-4, err_msg=name)
        # Light beyond white stays beyond it.
        got = rendered_whole(
            bright,
            Project(
                stack=(
                    held.but(
                        adjust=Adjust(lookup=Lookup(lookup_file=str(self.folder / "same.clf")))
                    ),
                )
            ),
        ).planes
        np.testing.assert_allclose(got, bright.planes, atol=5e-4)

    def test_missing_and_broken_tables_are_one_sentence(self):
        for name, data in (
            ("a.cube", b""),
            ("b.cube", b"LUT_3D_SIZE 2\n1 2\n"),
            ("c.clf", b"<x>"),
            ("d.txt", b"x"),
        ):
            (self.folder / name).write_bytes(data)
            with self.assertRaises(Trouble):
                lookup_files.read(self.folder / name)
        done = terminal(
            "recolour",
            DEMO / "close.png",
            "-o",
            self.folder / "o.png",
            "--keep",
            "20,20",
            "--set",
            f"lookup_file={self.folder}/none.cube",
        )
        self.assertEqual((done.returncode, done.stdout), (1, ""))
        self.assertEqual(len(done.stderr.strip().splitlines()), 1)


class ScreensTest(WindowCase):
    def profile(self, name: str, primaries, gamma: float) -> pathlib.Path:
        path = self.folder / name
        path.write_bytes(
            imagecodecs.cms_profile(
                "rgb", whitepoint=[0.3127, 0.3290, 1.0], primaries=primaries, gamma=gamma
            )
        )
        return path

    def test_a_screen_and_a_proof(self):
        wide = self.profile("wide.icc", [0.68, 0.32, 1, 0.265, 0.69, 1, 0.15, 0.06, 1], 2.2)
        narrow = self.profile("narrow.icc", [0.5, 0.35, 1, 0.3, 0.5, 1, 0.18, 0.12, 1], 2.2)
        # Source: Little CMS through pillow, eight bits.
        table = screens.screen_table(str(wide), 1)
        picture = Image.open(DEMO / "close.png").convert("RGB").crop((0, 0, 200, 150))
        theirs = np.asarray(
            ImageCms.profileToProfile(
                picture, ImageCms.createProfile("sRGB"), str(wide), renderingIntent=1
            )
        ).astype(int)
        codes = np.asarray(picture).astype(np.uint32)
        words = pixels_through(
            np.ascontiguousarray(
                0xFF000000 | codes[..., 0] << 16 | codes[..., 1] << 8 | codes[..., 2]
            ).astype(np.uint32),
            table,
        )
        ours = np.stack([words >> shift & 255 for shift in (16, 8, 0)], -1).astype(int)
        self.assertLessEqual(np.abs(ours - theirs).max(), 2)
        # In the window: the proof marks what a narrow profile cannot hold, and nothing where it
        # holds all.
        self.open(DEMO / "yard.png")
        self.viewing.proof(narrow)
        self.settle()
        marked = (self.viewing.last.pictures["result"] == MARK).mean()
        self.assertTrue(0.01 < marked < 0.5, marked)
        self.viewing.look(proof_marks=False)
        self.settle()
        self.assertEqual((self.viewing.last.pictures["result"] == MARK).mean(), 0)
        self.viewing.proof(wide)
        self.viewing.look(proof_marks=True)
        self.settle()
        self.assertLess((self.viewing.last.pictures["result"] == MARK).mean(), 0.001)
        self.viewing.proof(None)
        self.settle()
        plain = self.viewing.last.pictures["result"]
        self.viewing.use_screen_profile(wide)
        self.settle()
        self.assertGreater((self.viewing.last.pictures["result"] != plain).mean(), 0.5)
        self.viewing.use_screen_profile(None)
        (self.folder / "bad.icc").write_bytes(b"nothing")
        self.viewing.proof(self.folder / "bad.icc")
        self.assertIn("no ICC profile", self.troubles[-1])

    def test_how_a_picture_is_read_is_chosen_undone_and_said_when_it_cannot_be(self):
        from amber_sieve.desk.dialogs.reading_dialog import ReadingDialog

        self.open(DEMO / "close.png")
        before = self.work.light_at(100, 100)
        self.window.colours.show_reading()
        self.settle()  # the names are read in a thread
        dialog = self.window.findChildren(ReadingDialog)[-1]
        at = dialog.space.findText("ACEScct")
        dialog.space.setCurrentIndex(at)
        dialog.space.activated.emit(at)
        self.settle()
        self.assertNotEqual(self.work.light_at(100, 100), before)
        self.work.undo()
        self.settle()
        self.assertEqual(self.work.light_at(100, 100), before)
        self.assertEqual(dialog.space.currentIndex(), 0)
        plain = self.viewing.last.pictures["result"]
        dialog.display.setCurrentIndex(1)
        dialog.display.activated.emit(1)
        self.settle()
        self.assertGreater((self.viewing.last.pictures["result"] != plain).mean(), 0.5)
        self.workspace.reading.change(part="nothing")
        self.settle()
        self.assertEqual(self.work.project.reading.part, "")
        self.assertEqual(len(self.troubles), 1)
        dialog.close()


if __name__ == "__main__":
    unittest.main()
