"""Asking about a single pixel."""

from __future__ import annotations

import numpy as np

from ..core.frame import Frame
from ..project.model import Bands, Sieve
from .cache import Cache
from .mask import qualified


def deciding_sample(light: tuple[float, float, float] | np.ndarray, sieve: Sieve) -> str:
    """Name of the sample that decides about a pixel: the drop sample that takes it out, else the keep sample that holds it most.

    Parameters
    ----------
    light : (3,) linear light.

    Returns
    -------
    Its name, or its role and number; "" when no sample holds the pixel.
    """
    frame = Frame(np.asarray(light, np.float32).reshape(3, 1, 1))
    held = []
    for number, sample in enumerate(sieve.pick.samples, 1):
        if sample.on:
            alone = sieve.pick.but(samples=(sample.but(role="keep"),), connected=False)
            share = float(qualified(frame, alone, Bands(), Cache(0))[0, 0])
            held.append((sample.role == "drop" and share > 0.5, share, sample.name or f"{sample.role} {number}"))
    drops = sorted((entry for entry in held if entry[0]), reverse=True)
    keeps = sorted((entry for entry in held if not entry[0] and entry[1] > 0), key=lambda entry: -entry[1])
    return (drops or keeps or [(False, 0.0, "")])[0][2]
