"""Ten sieves on 24 megapixels: one slider of the last, seen at one megapixel, and the export of
all.

.venv/bin/python bench/stack.py
"""

import pathlib
import resource
from dataclasses import replace

import cv2
import numpy as np
from common import Ruler, seconds

from amber_sieve.core.frame import Frame
from amber_sieve.export.frame import finished
from amber_sieve.live.parts import Shown
from amber_sieve.live.preview import Opened, Wanted, preview
from amber_sieve.media.opening import open_source
from amber_sieve.media.source import About
from amber_sieve.project.model import Adjust, Band, Bands, Edge, Light, Project, Recolour, Sieve
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext

WIDTH, HEIGHT = 6000, 4000


class Made:
    """A picture in memory, as a source."""

    def __init__(self, frame: Frame) -> None:
        self._frame = frame
        self.about = About("made.png", "still", (frame.width, frame.height), "uint16")

        self.files: list[pathlib.Path] = []

    def about_frame(self, number: int) -> About:
        return self.about

    def frame(self, number: int) -> Frame:
        return self._frame

    def close(self) -> None:
        pass


def ten(exposure: float) -> Project:
    """Ten sieves, each by a band of hue and with two adjustments; two take their masks from
    others.
    """
    stack = []
    for k in range(10):
        band = Band(on=True, corners=(36 * k, 36 * k + 5, 36 * k + 40, 36 * k + 50))
        light = Light(exposure=exposure if k == 9 else 0.2, contrast=10)
        stack.append(
            Sieve(
                id=f"s{k}",
                name=f"s{k}",
                bands=Bands(hue=band),
                edge=Edge(specks=0, holes=0, follow=0, clean=0, level=0, feather=2),
                mask_from="same" if k in (4, 8) else "own",
                of=("s0",) if k in (4, 8) else (),
                opposite=k == 8,
                adjust=Adjust(light=light, recolour=Recolour(hue=10.0 * k)),
            )
        )
    return Project(stack=tuple(stack))


def main() -> None:
    yard = open_source(pathlib.Path(__file__).parent.parent / "demo" / "yard.png").frame(0)
    planes = np.stack(
        [
            cv2.resize(plane, (WIDTH, HEIGHT), interpolation=cv2.INTER_LINEAR)
            for plane in yard.planes
        ]
    )
    made = Made(Frame(planes))
    whole = Ruler(WIDTH, HEIGHT, 5)
    ratio = seconds(lambda: finished(made, ten(0.3)), 1) / whole.copy
    print(
        f"  all ten rendered at {WIDTH} x {HEIGHT}: {ratio:.0f} copies   (asked for: at most 200)"
    )
    print(
        f"  most memory held: {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1e6:.2f} GB   "
        "(asked for: at most 2.5)"
    )
    opened, cache = Opened(Made(Frame(planes))), RenderContext(Cache(1_500_000_000))
    view = Ruler(1500, 1000)
    steps, start = iter(np.linspace(0.01, 1, 400)), ten(0.0)
    wanted = Wanted(start, "s9", 0, Shown(4, (0, 0, 0, 0), ("result", "mask")), hurried=True)
    preview(opened, wanted, cache)

    def dragged() -> Project:
        last = start.stack[-1]
        light = last.adjust.light.but(exposure=float(next(steps)))
        return start.with_sieve(last.but(adjust=last.adjust.but(light=light)))

    ratio = seconds(lambda: preview(opened, replace(wanted, project=dragged()), cache)) / view.copy
    print(
        f"  one slider of the last of ten, 1500 x 1000 pixels seen: {ratio:.1f} copies of them   "
        "(asked for: under 10)"
    )


if __name__ == "__main__":
    main()
