"""Colours of footage: patches by every standard decoded as FFmpeg's zscale decodes them, and
through every kind of export and back.
"""

import json
import pathlib
import subprocess
import unittest

import colour
import numpy as np
from common import FolderCase, rendered_whole

from amber_sieve.core.colour import encodings
from amber_sieve.core.colour.luma_chroma import Samples, to_samples
from amber_sieve.export.clip import ClipExport, export_clip
from amber_sieve.media import formats
from amber_sieve.media.opening import open_source
from amber_sieve.project.model import Adjust, Area, Light, Project, Sieve

#: FFmpeg's names of matrix, primaries and curve, and the numbers of ITU-T H.273 for them.
STANDARDS = {
    "Rec. 601": (("smpte170m", "smpte170m", "smpte170m"), (6, 6, 6)),
    "Rec. 709": (("bt709", "bt709", "bt709"), (1, 1, 1)),
    "Rec. 2020": (("bt2020nc", "bt2020", "bt2020-10"), (9, 9, 14)),
    "PQ": (("bt2020nc", "bt2020", "smpte2084"), (9, 9, 16)),
    "HLG": (("bt2020nc", "bt2020", "arib-std-b67"), (9, 9, 18)),
}
#: zscale's names where they differ.
ZSCALE = {"bt709": "709", "bt2020nc": "2020_ncl", "bt2020": "2020", "bt2020-10": "2020_10"}
SIDE, ACROSS, DOWN, FRAMES = 32, 10, 6, 4
SIZE = (SIDE * ACROSS, SIDE * DOWN)


def run(*words: object) -> None:
    subprocess.run([str(word) for word in words], check=True, capture_output=True)


def patches() -> np.ndarray:
    """Codes (DOWN, ACROSS, 3) 0 to 1: greys, the corners of the cube a little inside, and colours
    from everywhere.
    """
    rng = np.random.default_rng(11)
    greys = np.repeat(np.linspace(0.02, 0.98, 10)[:, None], 3, 1)
    corners = np.array([[(n >> k) & 1 for k in range(3)] for n in range(1, 7)]) * 0.9 + 0.05
    return np.concatenate(
        [greys, corners, rng.uniform(0.05, 0.95, (ACROSS * DOWN - 16, 3))]
    ).reshape(DOWN, ACROSS, 3)


def middles(planes: np.ndarray) -> np.ndarray:
    """The means of the middles of all patches (DOWN, ACROSS, 3) of planes (3, H, W)."""
    blocks = planes.reshape(3, DOWN, SIDE, ACROSS, SIDE)[:, :, 12:20, :, 12:20]
    return blocks.mean(axis=(2, 4)).transpose(1, 2, 0)


class PatchCase(FolderCase):
    def made(
        self, standard: str, full: bool, pixels: str = "yuv444p", sound: bool = False
    ) -> pathlib.Path:
        """A lossless clip of the patches, made by FFmpeg: zscale takes RGB codes to Y'CbCr."""
        (matrix, primaries, curve), _ = STANDARDS[standard]
        extent = "full" if full else "limited"
        path, raw = self.folder / f"{standard}-{extent}-{pixels}.mkv", self.folder / "patches.rgb"
        codes = np.rint(np.kron(patches(), np.ones((SIDE, SIDE, 1))) * 65535).astype("<u2")
        raw.write_bytes(codes.tobytes() * FRAMES)
        tags = [
            "-colorspace",
            matrix,
            "-color_primaries",
            primaries,
            "-color_trc",
            curve,
            "-color_range",
            "pc" if full else "tv",
        ]
        there = (
            f"zscale=matrixin=gbr:rangein=full:matrix={ZSCALE.get(matrix, '170m')}:range={extent}"
        )
        run(
            "ffmpeg",
            "-v",
            "error",
            "-y",
            "-f",
            "rawvideo",
            "-pix_fmt",
            "rgb48le",
            "-s",
            f"{SIZE[0]}x{SIZE[1]}",
            "-r",
            24,
            "-i",
            raw,
            *(("-f", "lavfi", "-i", "sine=frequency=440:sample_rate=48000") if sound else ()),
            "-vf",
            f"format=gbrp16le,{there},format={pixels}",
            "-frames:v",
            FRAMES,
            "-shortest",
            "-c:v",
            "ffv1",
            "-level",
            3,
            *tags,
            "-c:a",
            "aac",
            path,
        )
        return path

    def by_zscale(
        self, path: pathlib.Path, standard: str, full: bool, words: str, pixels: str, kind: str
    ) -> np.ndarray:
        """Planes (3, H, W) of the first frame as FFmpeg's zscale makes them."""
        matrix = ZSCALE.get(STANDARDS[standard][0][0], "170m")
        raw = self.folder / "theirs.raw"
        there = f"zscale=matrixin={matrix}:rangein={'full' if full else 'limited'}:{words}"
        run(
            "ffmpeg",
            "-v",
            "error",
            "-y",
            "-i",
            path,
            "-frames:v",
            1,
            "-vf",
            f"{there},format={pixels}",
            "-f",
            "rawvideo",
            raw,
        )
        planes = np.frombuffer(raw.read_bytes(), kind).reshape(3, SIZE[1], SIZE[0])
        return planes[[2, 0, 1]].astype(np.float64)  # FFmpeg keeps green, blue, red


class DecodeTest(PatchCase):
    def test_every_standard_decodes_as_zscale_has_it(self):
        # Reference: FFmpeg's zscale (the zimg library) decodes the same clip to codes of 16 bits.
        for standard, (_, (_, primaries, curve)) in STANDARDS.items():
            for full in (False, True):
                for pixels in ("yuv444p", "yuv420p", "yuv422p10le"):
                    with self.subTest(standard=standard, full=full, pixels=pixels):
                        path = self.made(standard, full, pixels)
                        source = open_source(path)
                        ours = middles(
                            encodings.coded(source.frame(2).planes, curve, primaries).astype(
                                np.float64
                            )
                        )
                        source.close()
                        theirs = middles(
                            self.by_zscale(
                                path, standard, full, "matrix=gbr:range=full", "gbrp16le", "<u2"
                            )
                            / 65535
                        )
                        far = np.abs(np.clip(ours, 0, 1) - theirs) * 255
                        print(
                            f"    {standard}, {'full' if full else 'limited'}, {pixels}: largest "
                            f"{far.max():.2f} levels"
                        )
                        self.assertLess(far.max(), 1.0)

    def test_the_light_of_pq_is_zscales(self):
        # Reference: zscale takes PQ in Rec. 2020 to linear light in Rec. 709, 1 at 203 cd/m² (ITU-R
        # BT.2408).
        path = self.made("PQ", False, "yuv444p10le")
        source = open_source(path)
        ours = middles(source.frame(0).planes.astype(np.float64))
        source.close()
        words = (
            "matrix=gbr:range=full:transferin=smpte2084:transfer=linear:"
            "primariesin=2020:primaries=709:npl=203"
        )
        theirs = middles(self.by_zscale(path, "PQ", False, words, "gbrpf32le", "<f4"))
        codes = [
            encodings.codes_of(np.clip(light, 0, None), encodings.PQ) for light in (ours, theirs)
        ]
        self.assertLess(np.abs(codes[0] - codes[1]).max() * 255, 1.0)


class NearestSamplesTest(unittest.TestCase):
    def test_new_colours_come_out_near_in_red_green_and_blue(self):
        # Source: colour-science decodes what we have coded. Samples rounded each for itself are up
        # to 1.64 levels of blue off in Rec. 709.
        codes = np.random.default_rng(5).random((3, 300, 400), dtype=np.float32)
        for matrix, name in ((1, "ITU-R BT.709"), (6, "ITU-R BT.601"), (9, "ITU-R BT.2020")):
            weights = colour.WEIGHTS_YCBCR[name]
            for full in (False, True):
                for bits, most in ((8, 1.45), (10, 0.42)):
                    samples = np.stack(to_samples(codes, Samples(matrix, bits, full)), axis=-1)
                    back = colour.YCbCr_to_RGB(
                        samples,
                        weights,
                        in_bits=bits,
                        in_legal=not full,
                        in_int=True,
                        out_legal=False,
                    )
                    far = np.abs(back - np.moveaxis(codes, 0, -1)).max() * 255
                    self.assertLess(far, most, (name, full, bits))
        # Grey stays grey, and every code its own.
        greys = np.repeat(np.arange(220, dtype=np.float32)[None, None] / 219, 3, 0)
        luma, blue, red = to_samples(greys, Samples(1, 8))
        np.testing.assert_array_equal(luma[0], np.arange(16, 236))
        self.assertEqual({*blue.ravel().tolist(), *red.ravel().tolist()}, {128})


class ThereAndBackTest(PatchCase):
    def tagged(self, path: pathlib.Path) -> dict:
        words = [
            "ffprobe",
            "-v",
            "error",
            "-show_streams",
            "-show_format",
            "-count_frames",
            "-of",
            "json",
            str(path),
        ]
        return json.loads(subprocess.run(words, capture_output=True, text=True, check=True).stdout)

    def test_every_kind_of_export_keeps_colours_tags_frames_and_sound(self):
        # ffprobe says what the file says of itself; the colours are those that were handed to the
        # encoder.
        left = Area(kind="rect", points=((-1, -1), (SIZE[0] / 2, -1), (-1, SIZE[1] + 1)))
        project = Project(
            stack=(Sieve(name="Left", areas=(left,), adjust=Adjust(light=Light(exposure=-0.5))),)
        )
        every = [
            (codec, ending)
            for held in formats.FORMATS
            if held.kind == "clip"
            for codec in held.writes
            for ending in held.endings
        ]
        for standard, (
            (matrix, primaries, curve),
            (_, primaries_number, curve_number),
        ) in STANDARDS.items():
            path = self.made(
                standard,
                False,
                "yuv420p10le" if standard in ("PQ", "HLG") else "yuv420p",
                sound=True,
            )
            source = open_source(path)
            # Every kind of file once, and every codec by every standard.
            kinds = (
                every
                if standard == "Rec. 709"
                else list({codec: (codec, ending) for codec, ending in every}.values())
            )
            for codec, ending in kinds:
                with self.subTest(standard=standard, codec=codec, ending=ending):
                    out = self.folder / f"out{ending}"
                    # At the best quality: what the codec throws away besides is its own.
                    export_clip(source, project, out, codec=codec, how=ClipExport(quality=100))
                    held = self.tagged(out)
                    video = next(
                        stream for stream in held["streams"] if stream["codec_type"] == "video"
                    )
                    said = [
                        video.get(name)
                        for name in (
                            "color_space",
                            "color_primaries",
                            "color_transfer",
                            "color_range",
                        )
                    ]
                    if (
                        ending == ".mxf"
                        # it has one label for both lines of BT.601, and one for the curves of
                        # BT.601 and BT.709
                    ):
                        said[0] = said[0].replace("bt470bg", "smpte170m")
                        said[2] = said[2].replace(
                            "bt709", curve if curve == "smpte170m" else "bt709"
                        )
                    self.assertEqual(said, [matrix, primaries, curve, "tv"])
                    self.assertEqual(int(video["nb_read_frames"]), FRAMES)
                    self.assertAlmostEqual(
                        float(video.get("duration") or held["format"]["duration"]),
                        FRAMES / 24,
                        delta=0.05,
                    )
                    self.assertTrue(
                        any(stream["codec_type"] == "audio" for stream in held["streams"])
                    )
                    back = open_source(out)
                    there, here = (
                        middles(
                            encodings.coded(planes, curve_number, primaries_number).astype(
                                np.float64
                            )
                        )
                        for planes in (back.frame(2).planes, wanted_of(source, project, 2))
                    )
                    back.close()
                    far = np.abs(there - np.clip(here, 0, 1)) * 255
                    changed, kept = far[:, : ACROSS // 2], far[:, ACROSS // 2 :]
                    print(
                        f"    {standard}, {codec}{ending}: largest {kept.max():.2f} levels, of "
                        f"what was changed {changed.max():.2f}"
                    )
                    self.assertLess(kept.max(), 1.5)
                    self.assertLess(changed.max(), 1.5)
            source.close()


def wanted_of(source, project: Project, number: int) -> np.ndarray:
    """What is handed to the encoder."""
    from amber_sieve.resolve.resolver import Resolver

    return rendered_whole(source.frame(number), project, Resolver(source), number).planes


if __name__ == "__main__":
    unittest.main()
