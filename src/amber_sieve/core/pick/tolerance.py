"""The tolerance at which a sample's mask holds still.

After J. Matas, O. Chum, M. Urban, T. Pajdla, "Robust wide baseline stereo from maximally stable extremal regions" (2002):
as the threshold rises, the region grows; where it grows least for its size, its outline lies on the outline of a thing.
Here the regions are the masks of rising tolerance, and the whole picture counts at once.
"""

from __future__ import annotations

import numpy as np

from .samples import Probe, distance_to

#: Tolerances looked at, hundredths of Oklab like the surface distance; and how far on either side growth is measured, as a share of them.
LOWEST, HIGHEST, STEP, REACH = 5.0, 11.0, 0.25, 0.19
#: Pixels looked at; more do not move the result.
GROWN_ON = 250_000
#: A region below this share of the picture is too small for its growth to be told from noise.
SMALLEST = 1e-5


#: Sizes are looked for up to this tolerance, in steps of this ratio (a logarithm); growth is least among so many steps to either side, less than
#: this for all of the reach, of a mask that is not nearly all of the picture and larger by this than the one before.
WIDEST, RATIO, NEARBY, STILL, MOST_OF_IT, LARGER = 60.0, 0.04, 4, 0.2, 0.9, 1.2


def thinned(planes: np.ndarray, within: np.ndarray | None = None) -> np.ndarray:
    """Every n-th pixel of every n-th row, so that about ``GROWN_ON`` are left, (3, h, w).

    With ``within`` (H, W) bool, only those where it is True, as one row (3, 1, N); all of them when that leaves none.
    """
    every = max(1, int(np.sqrt(planes.shape[1] * planes.shape[2] / GROWN_ON)))
    seen = planes[:, ::every, ::every]
    if within is not None and within[::every, ::every].any():
        return np.ascontiguousarray(seen[:, within[::every, ::every]][:, None])
    return np.ascontiguousarray(seen)


def steady_sizes(lab: np.ndarray, probe: Probe) -> tuple[float, ...]:
    """All tolerances at which the mask of one sample holds still over a wide range, from the smallest on: a surface, then the thing whose colours
    run into one another, then what that runs into.

    Parameters and units are those of `steady_tolerance`. One counts where growth is least nearby and small, and when the mask is larger than
    that of the one before by a good share.
    """
    distance = np.sort(distance_to(thinned(lab), [probe]), axis=None)

    def area(tolerances: np.ndarray) -> np.ndarray:
        out: np.ndarray = np.searchsorted(distance, tolerances, side="right") / distance.size
        return out

    tolerances = np.exp(np.arange(np.log(LOWEST), np.log(WIDEST) + RATIO / 2, RATIO))
    growth = (area(tolerances * (1 + REACH)) - area(tolerances * (1 - REACH))) / np.maximum(area(tolerances), SMALLEST)
    near = np.array([growth[max(0, k - NEARBY) : k + NEARBY + 1].min() for k in range(growth.size)])
    found: list[float] = []
    for tolerance, least, there in zip(tolerances, near, growth, strict=True):
        size = float(area(np.array(tolerance)))
        if there == least and there < STILL and size < MOST_OF_IT and (not found or size > LARGER * float(area(np.array(found[-1])))):
            found.append(round(float(tolerance), 2))
    return tuple(found)


def steady_tolerance(lab: np.ndarray, probe: Probe) -> float:
    """The tolerance between ``LOWEST`` and ``HIGHEST`` at which the mask of one sample grows least for its size.

    Parameters
    ----------
    lab : (3, H, W) float32, Oklab of the whole picture; thinned here.
    probe : a sample compared by surface.

    Returns
    -------
    A tolerance; smaller ones are preferred by the square root, since a mask that is too large is harder to mend.
    """
    seen = thinned(lab)
    tolerances = np.arange(LOWEST, HIGHEST + STEP / 2, STEP)
    distance = np.sort(distance_to(seen, [probe]), axis=None)
    shrunk, area, grown = (np.searchsorted(distance, tolerances * by, side="right") / distance.size for by in (1 - REACH, 1, 1 + REACH))
    growth = (grown - shrunk) / np.maximum(area, SMALLEST)
    return float(tolerances[np.argmin(growth * np.sqrt(tolerances))])
