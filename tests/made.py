"""What tests make and measure in more than one module: raw files, projects, truth over a clip."""

import numpy as np
import tifffile
from common import DEMO

from amber_sieve.media.footage.clip import Footage
from amber_sieve.project.model import Adjust, Band, Bands, Edge, Project, Sieve

#: From XYZ to the camera of the made-up raw files: that of linear Rec. 709 (IEC 61966-2-1), so that it sees what we call light.
CAMERA = (3.240454, -1.537138, -0.498531, -0.969266, 1.876010, 0.041556, 0.055643, -0.204025, 1.057225)


def raw_file(path, mosaic: np.ndarray, orientation: int = 1) -> None:
    """A DNG (version 1.4) of a mosaic of red, green, green, blue, 12 bit, by tifffile."""

    def ratios(values) -> tuple[int, ...]:
        return tuple(part for value in values for part in (round(value * 1e6), 10**6))

    tags = [
        (274, "H", 1, orientation, True), (33421, "H", 2, (2, 2), True), (33422, "B", 4, (0, 1, 1, 2), True), (50706, "B", 4, (1, 4, 0, 0), True),
        (50707, "B", 4, (1, 1, 0, 0), True), (50708, "s", 0, "Yard camera", True), (50721, 10, 9, ratios(CAMERA), True), (50778, "H", 1, 21, True),
        (50728, 5, 3, ratios((1, 1, 1)), True), (50714, "H", 1, 0, True), (50717, "H", 1, 4095, True), (271, "s", 0, "Yard", True),
        (272, "s", 0, "Camera", True),
    ]  # fmt: skip
    tifffile.imwrite(path, mosaic.astype(np.uint16), photometric=32803, extratags=tags, metadata=None, rowsperstrip=mosaic.shape[0])


def middle_tone(lab: np.ndarray, true: np.ndarray) -> tuple[int, int]:
    """x, y of an object's most ordinary pixel."""
    rows, columns = np.nonzero(true > 0.995)
    light = lab[0][rows, columns]
    saturation = np.hypot(lab[1], lab[2])[rows, columns] / (light + 0.06)
    nearest = np.argmin((light - np.median(light)) ** 2 + (saturation - np.median(saturation)) ** 2)
    return int(columns[nearest]), int(rows[nearest])


def everything(adjust: Adjust) -> Project:
    """A project that adjusts the whole picture."""
    edge = Edge(specks=0, holes=0, follow=0, clean=0)
    return Project(stack=(Sieve(name="All", bands=Bands(luminance=Band(on=True, corners=(-1, 0, 100, 101))), edge=edge, adjust=adjust),))


def true_frames(kind: str) -> list[np.ndarray]:
    """True coverage for every frame, 0 to 1."""
    footage = Footage(DEMO / "clip.truth" / f"{kind}.mkv")
    frames = [footage.decoded(n).to_ndarray(format="gray").astype(np.float32) / 255 for n in range(footage.about.frames)]
    footage.close()
    return frames
