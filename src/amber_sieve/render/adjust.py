"""What one sieve does to the picture that reaches it."""

from __future__ import annotations

import importlib

import numpy as np

from ..core.mix import Step, mixed
from ..project.model import Adjust, Sieve
from .mask import Masked


def steps_of(adjust: Adjust) -> list[Step]:
    """The steps of all blocks in use. The sum of a block stands in the file of ``core.adjust`` that is called as its field."""
    steps: list[Step] = []
    for name, block in adjust.blocks():
        if not block.neutral:
            module = importlib.import_module(f"...core.adjust.{name}", __name__)
            steps += module.steps(**dict(block))
    return steps


def weights_of(mask: np.ndarray, sieve: Sieve) -> np.ndarray:
    """How much of the adjustment every pixel gets: the mask, the outside level, the strength."""
    if sieve.outside == 0 and sieve.strength == 100:
        return mask
    outside, strength = np.float32(sieve.outside / 100), np.float32(sieve.strength / 100)
    return (outside + (1 - outside) * mask) * strength


def adjusted(planes: np.ndarray, masked: Masked, sieve: Sieve) -> np.ndarray:
    """The picture after this sieve; ``planes`` itself when the sieve changes nothing."""
    if sieve.adjust.neutral or sieve.strength == 0:
        return planes
    return mixed(planes, weights_of(masked.mask, sieve), steps_of(sieve.adjust), masked.unmixed)
