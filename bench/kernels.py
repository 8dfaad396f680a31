"""The kernels, and the same work written with OpenCV and with scikit-image.

.venv/bin/python bench/kernels.py
"""

import functools
import warnings
from dataclasses import replace

import cv2
import numpy as np
from common import Ruler, seconds
from skimage import color

from amber_sieve.core.adjust import blending, detail, fill, light, recolour
from amber_sieve.core.colour.measures import hue_saturation_luminance
from amber_sieve.core.colour.oklab import to_oklab
from amber_sieve.core.mix import mixed
from amber_sieve.core.pick.pieces import Reaching, with_pieces
from amber_sieve.core.pick.samples import SampleParams, membership, membership_and_distances
from amber_sieve.project.model import Sieve
from amber_sieve.render.resolved import with_found
from amber_sieve.render.stages.edging import NO_EDGE
from amber_sieve.render.stages.every import BLOCKS, example, steps_of

warnings.simplefilter("ignore")


def ours(ruler: Ruler) -> None:
    planes, lab = ruler.planes, np.empty_like(ruler.planes)
    mask = np.empty(planes.shape[1:], np.float32)
    colours = np.random.default_rng(2).random((8, 3))
    probes = [SampleParams(tuple(c), keep=k % 4 != 3) for k, c in enumerate(colours)]
    ruler.tell("measure (Oklab)", lambda: to_oklab(planes, lab), 2.5)
    ruler.tell(
        "hue, saturation, luminance from it",
        lambda: hue_saturation_luminance(planes, lab, ruler.spare),
    )
    ruler.tell("eight samples by surface", lambda: membership(lab, probes, out=mask), 3.5)
    mixture = [
        replace(p, competes=not p.keep)
        for p in (*probes[:3], *(replace(q, keep=False) for q in probes[3:6]))
    ]
    height, width = mask.shape
    groups = [[probe] for probe in probes[6:]]
    near = membership_and_distances(lab, mixture, groups)[1]
    pieces = [
        Reaching(plane, (width / 2, height / 2), k == 0, 20.0, 5.0) for k, plane in enumerate(near)
    ]
    ruler.tell(
        "eight, three drops competing, two here only",
        lambda: membership_and_distances(lab, mixture, groups, out=mask),
        3.5,
    )
    ruler.tell("  the two pieces, on noise", lambda: with_pieces(mask, pieces))
    turned, lit = recolour.steps(40, 20, -10), light.steps(0.5)
    ruler.tell("recolour, mixed in", lambda: mixed(planes, mask, turned, out=ruler.spare), 3.5)
    ruler.tell("exposure, mixed in", lambda: mixed(planes, mask, lit, out=ruler.spare), 3.5)
    used, nothing = example(Sieve(edge=NO_EDGE)), Sieve(edge=NO_EDGE)
    for block in BLOCKS:
        if block.pointwise:
            steps = steps_of(block.example(nothing))
            bound = 4 if block.field == "lookup" else 3.5
            mix = functools.partial(mixed, planes, mask, steps, out=ruler.spare)
            ruler.tell(f"  {block.field}, all of it", mix, bound)
    alone: dict[str, float] = {}
    for block in BLOCKS:
        learnt = block.example(nothing)
        for field, value in block.of(learnt):
            if (
                block.pointwise
                and field not in ("on", "target", "nearest", "lookup_file")
                and value != getattr(block.of(nothing), field)
            ):
                steps = steps_of(block.put(learnt, type(block.of(nothing))(**{field: value})))
                if steps:
                    mix = functools.partial(mixed, planes, mask, steps, out=ruler.spare)
                    alone[field] = seconds(mix, 3) / ruler.copy
    field, ratio = max(alone.items(), key=lambda row: row[1])
    print(
        f"  the slowest of {len(alone)} adjustments alone: {field} {ratio:.2f} copies   (asked "
        "for: at most 3.5)"
    )
    everything = steps_of(with_found(used, primaries=(1.0, 0.1, 0, 0, 1.0, 0, 0, 0, 1.0)))
    ruler.tell(
        "every pointwise adjustment at once",
        lambda: mixed(planes, mask, everything, out=ruler.spare),
        14,
    )
    for given in (
        {"noise": 50},
        {"blur": 3},
        {"blur": 60},
        {"local_contrast": 50},
        {"sharpen": 50},
        {"grain": 50},
    ):
        ruler.tell(f"  detail, {given}", lambda: detail.with_detail(planes, mask, **given), 25)  # noqa: B023
    for blend in ("normal", "multiply", "soft-light", "luminosity"):
        over, colour = [blending.filling(blend, 0.7)], fill.of_colour((0.3, 0.1, 0.2))
        mix = functools.partial(mixed, planes, mask, over, out=ruler.spare, filling=colour)
        ruler.tell(f"  filled, {blend}", mix)
    ruler.tell("both in one chain", lambda: mixed(planes, mask, lit + turned, out=ruler.spare), 6)

    def all_of_it() -> None:
        to_oklab(planes, lab)
        membership(lab, probes, out=mask)
        mixed(planes, mask, turned, out=ruler.spare)

    ruler.tell("all of it", all_of_it, 9)


def with_opencv(ruler: Ruler) -> None:
    """CIE Lab, eight distances, hue turned in HLS, mixed: the usual recipe on interleaved
    pixels.
    """
    pixels = np.ascontiguousarray(np.moveaxis(ruler.planes, 0, -1))
    colours = np.random.default_rng(2).random((8, 3)) * [100, 60, 60]

    def work() -> None:
        lab = cv2.cvtColor(pixels, cv2.COLOR_RGB2Lab)
        mask = np.zeros(lab.shape[:2], np.float32)
        for colour in colours:
            distance = cv2.magnitude(lab[..., 1] - colour[1], lab[..., 2] - colour[2])
            mask = np.maximum(mask, np.clip(1 - (distance - 6) / 2, 0, 1))
        hls = cv2.cvtColor(pixels, cv2.COLOR_RGB2HLS)
        hls[..., 0] = (hls[..., 0] + 40) % 360
        turned = cv2.cvtColor(hls, cv2.COLOR_HLS2RGB)
        pixels + mask[..., None] * (turned - pixels)

    ruler.tell("all of it, written with OpenCV", work)


def with_skimage(ruler: Ruler) -> None:
    """The same with scikit-image."""
    pixels = np.ascontiguousarray(np.moveaxis(ruler.planes, 0, -1))
    colours = np.random.default_rng(2).random((8, 3)) * [100, 60, 60]

    def work() -> None:
        lab = color.rgb2lab(pixels)
        mask = np.zeros(lab.shape[:2], np.float32)
        for colour in colours:
            distance = color.deltaE_cie76(lab, colour)
            mask = np.maximum(mask, np.clip(1 - (distance - 6) / 2, 0, 1))
        hsv = color.rgb2hsv(pixels)
        hsv[..., 0] = (hsv[..., 0] + 40 / 360) % 1
        turned = color.hsv2rgb(hsv)
        pixels + mask[..., None] * (turned - pixels)

    ruler.runs = 1
    ruler.tell("all of it, written with scikit-image", work)


if __name__ == "__main__":
    for size in ((1920, 1080), (6000, 4000)):
        ruler = Ruler(*size)
        ours(ruler)
        with_opencv(ruler)
        with_skimage(ruler)
