"""What tests make and measure in more than one module: raw files, projects, truth over a clip."""

import functools
import random
from collections.abc import Sequence

import numpy as np
import tifffile
from common import DEMO, half_demo

from amber_sieve.live.sampling import sample_at
from amber_sieve.media.footage.clip import Footage
from amber_sieve.media.opening import open_source
from amber_sieve.project.model import (
    Adjust,
    Band,
    Bands,
    Edge,
    Light,
    Pick,
    Project,
    Recolour,
    Sieve,
)

#: From XYZ to the camera of the made-up raw files: that of linear Rec. 709 (IEC 61966-2-1), so that
#: it sees what we call light.
CAMERA = (
    3.240454,
    -1.537138,
    -0.498531,
    -0.969266,
    1.876010,
    0.041556,
    0.055643,
    -0.204025,
    1.057225,
)


def raw_file(path, mosaic: np.ndarray, orientation: int = 1) -> None:
    """A DNG (version 1.4) of a mosaic of red, green, green, blue, 12 bit, by tifffile."""

    def ratios(values) -> tuple[int, ...]:
        return tuple(part for value in values for part in (round(value * 1e6), 10**6))

    tags = [
        (274, "H", 1, orientation, True),
        (33421, "H", 2, (2, 2), True),
        (33422, "B", 4, (0, 1, 1, 2), True),
        (50706, "B", 4, (1, 4, 0, 0), True),
        (50707, "B", 4, (1, 1, 0, 0), True),
        (50708, "s", 0, "Yard camera", True),
        (50721, 10, 9, ratios(CAMERA), True),
        (50778, "H", 1, 21, True),
        (50728, 5, 3, ratios((1, 1, 1)), True),
        (50714, "H", 1, 0, True),
        (50717, "H", 1, 4095, True),
        (271, "s", 0, "Yard", True),
        (272, "s", 0, "Camera", True),
    ]
    tifffile.imwrite(
        path,
        mosaic.astype(np.uint16),
        photometric=32803,
        extratags=tags,
        metadata=None,
        rowsperstrip=mosaic.shape[0],
    )


def middle_tone(lab: np.ndarray, true: np.ndarray) -> tuple[int, int]:
    """x, y of an object's most ordinary pixel."""
    rows, columns = np.nonzero(true > 0.995)
    light = lab[0][rows, columns]
    saturation = np.hypot(lab[1], lab[2])[rows, columns] / (light + 0.06)
    nearest = np.argmin((light - np.median(light)) ** 2 + (saturation - np.median(saturation)) ** 2)
    return int(columns[nearest]), int(rows[nearest])


def everything(adjust: Adjust) -> Project:
    """A project that adjusts the whole picture."""
    edge = Edge(specks=0, holes=0, follow=0, clean=0, level=0)
    return Project(
        stack=(
            Sieve(
                name="All",
                bands=Bands(luminance=Band(on=True, corners=(-1, 0, 100, 101))),
                edge=edge,
                adjust=adjust,
            ),
        )
    )


class TrueFrames(Sequence):
    """True coverage on every frame of the demo clip, 0 to 1, decoded when it is asked for."""

    def __init__(self, kind: str) -> None:
        self._footage = Footage(DEMO / "clip.truth" / f"{kind}.mkv")

    def __len__(self) -> int:
        return self._footage.about.frames

    def __getitem__(self, number: int) -> np.ndarray:
        if number >= len(self):
            raise IndexError(number)
        return self._footage.decoded(number).to_ndarray(format="gray").astype(np.float32) / 255


@functools.cache
def true_frames(kind: str) -> TrueFrames:
    """True coverage of an object of the demo clip."""
    return TrueFrames(kind)


def random_project(chance: random.Random, name: str) -> Project:
    """One or two sieves with random edges, measuring the original, the result or a layer, for the
    clip or a picture of the demo at half size.
    """
    sieves, half = [], half_demo()
    frame = open_source(DEMO / "clip.mp4" if name == "clip" else half / f"{name}.png").frame(0)
    for number in range(chance.choice((1, 2))):
        x, y = chance.randrange(frame.width), chance.randrange(frame.height)
        measure = (
            chance.choice(("original", "result", "layer" if name == "yard" else "original"))
            if number
            else "original"
        )
        sample = sample_at(frame, x, y).but(tolerance=chance.uniform(4, 10))
        edge = Edge(
            specks=chance.choice((0, 30)),
            holes=chance.choice((0, 40)),
            grow=chance.choice((0, 2.5, -1.5)),
            feather=chance.choice((0, 3)),
            smooth=chance.choice((0, 2)),
            follow=chance.choice((0, 0, 6)),
            clean=chance.choice((0, 1, "auto")),
        )
        pick = Pick(
            samples=(sample,),
            measure=measure,
            layer=str(half / "madder.png"),
            connected=chance.random() < 0.2,
        )
        # What looks around, what is found on the whole, and what lies at a place must come out of a
        # part as out of the whole.
        detail = {
            "noise": chance.choice((0, 0, 40)),
            "blur": chance.choice((0, 0, 3)),
            "sharpen": chance.choice((0, 0, 40)),
        }
        detail |= {
            "local_contrast": chance.choice((0, 0, 50)),
            "contrast_radius": 12,
            "grain": chance.choice((0, 0, 30)),
        }
        fill = {
            "fill": chance.choice(("off", "off", "gradient", "picture", "nothing")),
            "fill_picture": str(half / "evening.png"),
            "fill_opacity": 40,
        }
        adjust = Adjust(
            light=Light(exposure=chance.choice((0, 0.5))),
            recolour=Recolour(hue=chance.uniform(-90, 90)),
            detail=detail,
            fill=fill,
            match={"target": chance.choice((None, (0.2, 0.1, 0.3)))},
            even={"even_hue": chance.choice((0, 50))},
        )
        sieves.append(
            Sieve(
                pick=pick,
                edge=edge,
                adjust=adjust,
                outside=chance.choice((0, 20)),
                strength=chance.choice((100, 70)),
            )
        )
    if chance.random() < 0.4:
        lent = Sieve(
            mask_from="same",
            of=(sieves[0].id,),
            opposite=chance.random() < 0.5,
            adjust=Adjust(light=Light(exposure=0.3)),
        )
        sieves.append(lent)
    return Project(stack=tuple(sieves))
