"""The tolerance at which a sample's mask holds still.

After J. Matas, O. Chum, M. Urban, T. Pajdla, "Robust wide baseline stereo from maximally stable
extremal regions" (2002): as the threshold rises, the region grows; where it grows least for its
size, its outline lies on the outline of a thing. Here the regions are the masks of rising
tolerance, and the whole picture counts at once.
"""

from __future__ import annotations

import numpy as np

from .samples import SampleParams, distance_to

#: Least tolerance looked at, hundredths of Oklab like the surface distance; all of these by trial
#: on yard, close-up and held-out scenes.
LOWEST = 5.0
#: Largest tolerance looked at.
HIGHEST = 11.0
#: Steps between them.
STEP = 0.25
#: How far on either side growth is measured, as a share of the tolerance.
REACH = 0.19
#: Pixels looked at; more do not move the result.
GROWN_ON = 250_000
#: A region below this share of the picture is too small for its growth to be told from noise.
SMALLEST = 1e-5


#: Sizes are looked for up to this tolerance.
WIDEST = 60.0
#: In steps of this ratio (a logarithm).
RATIO = 0.04
#: Growth is least among this many steps to either side.
NEARBY = 4
#: And less than this for all of the reach.
STILL = 0.2
#: A mask of more than this share of the picture is nearly all of it, and no size.
MOST_OF_IT = 0.9
#: Each is larger by this than the one before.
LARGER = 1.2


def thinned(planes: np.ndarray, within: np.ndarray | None = None) -> np.ndarray:
    """Every n-th pixel of every n-th row, so that about ``GROWN_ON`` are left, (3, h, w).

    With ``within`` (H, W) bool, only those where it is True, as one row (3, 1, N); all of them when
    that leaves none.
    """
    every = max(1, int(np.sqrt(planes.shape[1] * planes.shape[2] / GROWN_ON)))
    seen = planes[:, ::every, ::every]
    if within is not None and within[::every, ::every].any():
        return np.ascontiguousarray(seen[:, within[::every, ::every]][:, None])
    return np.ascontiguousarray(seen)


class Steadiness:
    """Growth of the mask of one sample with its tolerance.

    Parameters
    ----------
    lab : (3, H, W) float32, Oklab of the whole picture; thinned here.
    probe : a sample compared by surface.
    """

    def __init__(self, lab: np.ndarray, probe: SampleParams) -> None:
        self._distance = np.sort(distance_to(thinned(lab), [probe]), axis=None)

    def _area(self, tolerances: np.ndarray) -> np.ndarray:
        """Share of the picture within some tolerances (N,)."""
        out: np.ndarray = (
            np.searchsorted(self._distance, tolerances, side="right") / self._distance.size
        )
        return out

    def _growth(self, tolerances: np.ndarray) -> np.ndarray:
        """Return the growth from below to above some tolerances (N,), for the size there."""
        grown: np.ndarray = self._area(tolerances * (1 + REACH)) - self._area(
            tolerances * (1 - REACH)
        )
        return grown / np.maximum(self._area(tolerances), SMALLEST)

    @property
    def tolerance(self) -> float:
        """The tolerance between ``LOWEST`` and ``HIGHEST`` at which the mask grows least for its
        size; smaller ones are preferred by the square root, since a mask that is too large is
        harder to mend.
        """
        tolerances = np.arange(LOWEST, HIGHEST + STEP / 2, STEP)
        return float(tolerances[np.argmin(self._growth(tolerances) * np.sqrt(tolerances))])

    @property
    def sizes(self) -> tuple[float, ...]:
        """All tolerances at which the mask holds still over a wide range, from the smallest on: a
        surface, then the thing whose colours run into one another, then what that runs into. One
        counts where growth is least nearby and small, and when the mask is larger than that of the
        one before by a good share.
        """
        tolerances = np.exp(np.arange(np.log(LOWEST), np.log(WIDEST) + RATIO / 2, RATIO))
        growth, areas = self._growth(tolerances), self._area(tolerances)
        found, last = list[float](), 0.0
        for k, (tolerance, size) in enumerate(zip(tolerances, areas, strict=True)):
            least = growth[max(0, k - NEARBY) : k + NEARBY + 1].min()
            if growth[k] == least < STILL and size < MOST_OF_IT and size > LARGER * last:
                found.append(round(float(tolerance), 2))
                last = float(size)
        return tuple(found)


def steady_tolerance(lab: np.ndarray, probe: SampleParams) -> float:
    """See `Steadiness.tolerance`."""
    return Steadiness(lab, probe).tolerance
