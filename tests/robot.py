"""A robot that clicks as the usual protocol for scoring interactive segmentation has it.

The first click lies deepest inside the object, each next one in the middle of the largest wrong
region (keep where the mask misses, drop where it leaks), as in N. Xu, B. Price, S. Cohen, J. Yang,
T. Huang, "Deep interactive object selection" (CVPR 2016; from memory). Scored is the soft
intersection over union of the finished mask with the true coverage.
"""

import functools
from collections.abc import Iterator
from dataclasses import dataclass

import cv2
import numpy as np
from common import DEMO, demo_frame, overlap, truth

from amber_sieve.core.frame import Frame
from amber_sieve.core.pick.pieces import deepest
from amber_sieve.live.clicking import clicked
from amber_sieve.live.next_click import offered
from amber_sieve.live.sampling import as_sampled, fitted, sample_along, sample_at
from amber_sieve.project.edits import with_sample
from amber_sieve.project.model import Pick, Sieve
from amber_sieve.render.automatic import found_amounts
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.mask import mask_of
from amber_sieve.render.measuring import measuring_for

#: Clicks are scored after so many; a wrong region less deep than this is not clicked any more,
#: pixels.
CLICKS, SHALLOW = 5, 1.5


@dataclass(frozen=True)
class Clicked:
    """Where the robot clicked, as what, and what came of it."""

    x: int
    y: int
    role: str
    sieve: Sieve
    mask: np.ndarray
    score: float


def _clicked(
    sieve: Sieve, frame: Frame, x: float, y: float, role: str, context: RenderContext
) -> Sieve:
    """A sieve after a click, as `SieveContext.click` makes it."""
    found = found_amounts(sieve, frame, context)
    near = as_sampled(frame, [(x, y)], 5, measuring_for(frame, found))
    taken = sample_at(near, x, y, role=role)
    return with_sample(sieve, clicked(found, taken, frame, context).sample)


def clicks(
    frame: Frame, true: np.ndarray, count: int = CLICKS, sieve: Sieve | None = None
) -> Iterator[Clicked]:
    """Click an object of a picture with a sieve, as it comes if none is given; ends early when
    nothing wrong is left to click.
    """
    cache, sieve = RenderContext(Cache(400_000_000)), sieve or Sieve()
    x, y, _ = deepest(true > 0.99)
    role = "keep"
    for _ in range(count):
        sieve = _clicked(sieve, frame, x + 0.5, y + 0.5, role, cache)
        mask = mask_of(frame, found_amounts(sieve, frame, cache), cache)
        yield Clicked(x, y, role, sieve, mask, overlap(mask, true))
        miss, leak = deepest((true > 0.9) & (mask < 0.5)), deepest((true < 0.1) & (mask > 0.5))
        role = "keep" if miss[2] >= leak[2] else "drop"
        x, y, depth = miss if role == "keep" else leak
        if depth < SHALLOW:
            return


def offered_clicks(frame: Frame, true: np.ndarray, count: int = CLICKS) -> list[float]:
    """Scores after each click of a robot that takes only the places that are offered, and says
    there what is true: one that is right already is a click too.
    """
    cache, sieve, scores, passed = (
        RenderContext(Cache(400_000_000)),
        Sieve(),
        list[float](),
        list[tuple[float, float]](),
    )
    x, y, _ = deepest(true > 0.99)
    role = "keep"
    while len(scores) < count:
        if role:
            sieve = _clicked(sieve, frame, x + 0.5, y + 0.5, role, cache)
        else:
            passed.append((x + 0.5, y + 0.5))
        mask = mask_of(frame, found_amounts(sieve, frame, cache), cache)
        scores.append(overlap(mask, true))
        place = offered(found_amounts(sieve, frame, cache), frame, cache, tuple(passed))
        if place is None:
            break
        x, y = int(place[0]), int(place[1])
        wanted, there = true[y, x] > 0.5, mask[y, x] > 0.5
        role = "" if wanted == there else "keep" if wanted else "drop"
    return scores + scores[-1:] * (count - len(scores))


def objects() -> list[tuple[str, str]]:
    """All objects of the yard and the close-up: picture and name."""
    return [
        (picture, path.stem)
        for picture in ("yard", "close")
        for path in sorted((DEMO / f"{picture}.truth").glob("*.png"))
    ]


@functools.cache
def half_frame(picture: str) -> Frame:
    """A demo picture at half size."""
    return Frame(demo_frame(picture).reduced(2).planes)


@functools.cache
def half_truth(picture: str, name: str) -> np.ndarray:
    """True coverage of an object at half size."""
    return cv2.resize(truth(picture, name), None, fx=0.5, fy=0.5, interpolation=cv2.INTER_AREA)


def scores(picture: str, name: str) -> list[float]:
    """Scores of an object at half size after each of five clicks; what ended early keeps its
    last.
    """
    row = [clicked.score for clicked in clicks(half_frame(picture), half_truth(picture, name))]
    return row + row[-1:] * (CLICKS - len(row))


def clicks_to(row: list[float], wanted: float = 0.9) -> int:
    """After how many clicks a score is reached; one more than there were when it is not."""
    return next((number for number, score in enumerate(row, 1) if score >= wanted), CLICKS + 1)


def stroke_in(where: np.ndarray) -> list[tuple[float, float]]:
    """The longest straight stroke through the deepest place of a region that stays inside, a little
    short of its ends.
    """
    x, y, _ = deepest(where)
    best: tuple[float, list[tuple[float, float]]] = (-1.0, [])
    for turn in np.radians(np.arange(0, 180, 15)):
        way, ends = np.array((np.cos(turn), np.sin(turn))), []
        for sign in (-1, 1):
            length = 0
            while _holds(where, np.array((x, y)) + sign * (length + 1) * way):
                length += 1
            ends.append((sign * length, np.array((x + 0.5, y + 0.5)) + sign * 0.85 * length * way))
        best = max(
            best, (ends[1][0] - ends[0][0], [tuple(end) for _, end in ends]), key=lambda one: one[0]
        )
    return best[1]


def _holds(where: np.ndarray, at: np.ndarray) -> bool:
    x, y = int(at[0]), int(at[1])
    return 0 <= x < where.shape[1] and 0 <= y < where.shape[0] and bool(where[y, x])


def strokes_and_fits(
    frame: Frame, true: np.ndarray, count: int
) -> Iterator[tuple[float, float, Pick]]:
    """Scores after each stroke, as it proposes for itself and after a fit to all of them, and the
    fitted pick.
    """
    cache, sieve, role, where = RenderContext(Cache(400_000_000)), Sieve(), "keep", true > 0.99
    for _ in range(count):
        taken = sample_along(frame, "stroke", stroke_in(where), 6, role=role)
        sieve = with_sample(
            sieve, clicked(found_amounts(sieve, frame, cache), taken, frame, cache).sample
        )
        mask = mask_of(frame, found_amounts(sieve, frame, cache), cache)
        fit, _ = fitted(sieve.pick, frame)
        yield (
            overlap(mask, true),
            overlap(mask_of(frame, found_amounts(sieve.but(pick=fit), frame, cache), cache), true),
            fit,
        )
        missed, leaks = (true > 0.9) & (mask < 0.5), (true < 0.1) & (mask > 0.5)
        role = "keep" if deepest(missed)[2] >= deepest(leaks)[2] else "drop"
        where = missed if role == "keep" else leaks
        if deepest(where)[2] < SHALLOW:
            return
