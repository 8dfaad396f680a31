"""Places of clicked samples, in pixels of a frame."""

from __future__ import annotations

from ..core.frame import Frame
from ..project.model import Pick, Sample
from .stages.edging import ClickedPlaces


def place_of(sample: Sample, frame: Frame) -> tuple[float, float]:
    """The place of a sample in pixels of a frame; of a stroke its middle point, which lies on the
    thing.
    """
    x, y = (
        sample.points[len(sample.points) // 2]
        if sample.place == "stroke" and sample.points
        else (sample.x, sample.y)
    )
    return (x - frame.origin[0]) * frame.scale, (y - frame.origin[1]) * frame.scale


def seeds_of(pick: Pick, frame: Frame) -> list[tuple[float, float]]:
    """The kept places in pixels of this frame."""
    kept = [sample for sample in pick.samples if sample.on and sample.role == "keep"]
    # A stroke lies on the thing all along its way; a box only surely in its middle, its corners may
    # lie beside it.
    places = [
        point
        for sample in kept
        for point in (sample.points if sample.place == "stroke" else ((sample.x, sample.y),))
    ]
    return [
        ((x - frame.origin[0]) * frame.scale, (y - frame.origin[1]) * frame.scale)
        for x, y in places
    ]


def clicked_places(pick: Pick, frame: Frame) -> ClickedPlaces:
    """Return where the working samples lie on a frame."""
    working = [sample for sample in pick.samples if sample.on]
    kept, dropped = (
        tuple(place_of(s, frame) for s in working if s.role == role) for role in ("keep", "drop")
    )
    return ClickedPlaces(kept, dropped)
