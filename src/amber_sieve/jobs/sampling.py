"""Taking samples from a picture."""

from __future__ import annotations

from ..core.colour.oklab import to_oklab
from ..core.frame import Frame, patch
from ..core.pick.tolerance import steady_tolerance, thinned
from ..errors import Trouble
from ..project.model import Pick, Sample
from ..render.mask import probe_of


def sample_at(frame: Frame, x: float, y: float, size: int = 5, number: int = 0, **settings: object) -> Sample:
    """A sample of the ``size`` x ``size`` pixels round full-resolution (x, y).

    Raises
    ------
    Trouble: the point lies outside the picture.
    """
    try:
        mean = patch(
            frame.planes, (x - frame.origin[0]) * frame.scale, (y - frame.origin[1]) * frame.scale, max(1, round(size * frame.scale))
        ).mean(axis=1, dtype=float)
    except ValueError as error:
        raise Trouble(f"No sample can be taken there: {error}.") from None
    return Sample(x=x, y=y, frame=number, size=size, colour=(float(mean[0]), float(mean[1]), float(mean[2])), **settings)  # type: ignore[arg-type]


def with_found_tolerance(sample: Sample, frame: Frame, pick: Pick) -> Sample:
    """The sample with the tolerance at which its mask holds still on this picture; only surfaces are searched for."""
    if sample.compare != "surface":
        return sample
    lab = to_oklab(thinned(frame.planes))
    return sample.but(tolerance=round(steady_tolerance(lab, probe_of(sample, pick)), 2))
