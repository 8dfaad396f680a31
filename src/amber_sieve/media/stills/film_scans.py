"""DPX (SMPTE ST 268-1): what its header says of the curve, as light."""

from __future__ import annotations

from typing import Any

import numpy as np

#: Code of black, of 1023 (the Cineon file format; from memory).
BLACK = 95.0
#: Code of white, of 1023 (the same, from memory).
WHITE = 685.0
#: How many codes a density of 1 takes (the same, from memory).
CODES_PER_DENSITY = 500.0
#: The slope of the film that it stands for.
GAMMA = 0.6
#: How the numbers of a film scan are read where they stand for density.
LOG = "printing density (log)"
#: And where they stand for light.
LINEAR = "linear light"


def curve_of(spec: Any) -> str:
    """Return the curve that the header names: ``LOG``, ``LINEAR``, or "" for codes as of video,
    which are read by the sRGB curve.
    """
    said = str(spec.getattribute("dpx:Transfer") or "").lower()
    if "density" in said or "log" in said:
        return LOG
    return LINEAR if said.startswith("linear") else ""


def to_light(codes: np.ndarray, curve: str) -> np.ndarray:
    """Codes (3, H, W) from 0 to 1 as light; of densities, black is 0 and white 1."""
    if curve == LINEAR:
        return codes
    light = 10 ** (
        (codes * np.float32(1023) - np.float32(WHITE)) / np.float32(CODES_PER_DENSITY * GAMMA)
    )
    black = np.float32(10 ** ((BLACK - WHITE) / (CODES_PER_DENSITY * GAMMA)))
    light -= black
    light /= 1 - black
    return np.asarray(light, np.float32)
