"""Softening an outline, rounding it, and making it hard."""

from __future__ import annotations

import cv2
import numpy as np


def blurred(plane: np.ndarray, sigma: float, ends: float = 4.0) -> np.ndarray:
    """Gaussian blur of a plane (H, W), edges repeated; cut off at four standard deviations, as
    scipy.ndimage does, or where it is said.
    """
    half = int(ends * sigma + 0.5)
    return cv2.GaussianBlur(
        plane, (2 * half + 1, 2 * half + 1), sigma, borderType=cv2.BORDER_REPLICATE
    )


def feathered(mask: np.ndarray, sigma: float, way: str = "both") -> np.ndarray:
    """Soften the outline by a Gaussian of ``sigma`` pixels.

    Parameters
    ----------
    way : both; inwards (nothing outside the outline is added); outwards (nothing inside is lost).
    """
    if sigma <= 0:
        return mask
    soft = blurred(mask, sigma)
    if way == "inwards":
        return np.minimum(mask, np.clip(2 * soft - 1, 0, 1))
    if way == "outwards":
        return np.maximum(mask, np.clip(2 * soft, 0, 1))
    return np.clip(
        soft, 0, 1, out=soft
    )  # the blur's weights are rounded: together they may be a little more than one


def smoothed(mask: np.ndarray, sigma: float) -> np.ndarray:
    """Round a jagged outline without softening it: a Gaussian, then steepened back to an edge about
    a pixel wide.
    """
    if sigma <= 0:
        return mask
    # The slope of a straight blurred edge is 1 / (sigma * sqrt(2 pi)).
    steep = np.float32(sigma * np.sqrt(2 * np.pi))
    return np.clip((blurred(mask, sigma) - np.float32(0.5)) * steep + np.float32(0.5), 0, 1)


def hardened(mask: np.ndarray) -> np.ndarray:
    """The mask (H, W) float32 with no partial pixel: 1 from a half on, else 0."""
    return (mask >= 0.5).astype(np.float32)
