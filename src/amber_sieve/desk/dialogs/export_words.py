"""Sentences of the export dialog about what will be written."""

from __future__ import annotations

from ...export.lookup import Compared
from ...export.presets import WhichFrames
from ...export.still_options import Export, estimated_bytes
from ...language import translator

translate = translator("dialogs")


#: Which frames of a clip leave, and the words for them.
FRAMES: dict[WhichFrames, str] = {
    "this": translate("This frame"),
    "all": translate("All frames"),
    "between": translate("From in to out point"),
}
#: What stands beside the choice of a depth.
DEPTH_WORDS = {
    "clip": translate("Codec"),
    "lookup": translate("Table"),
    "still": translate("Depth"),
}
#: What each choice looks like in a pane.
VIEWS = {
    "result": "result",
    "mask": "mask",
    "cut-out": "cut-out",
    "every mask": "mask",
    "colour decision list": "result",
    "result and mask": "result",
}


def size_words(
    size: tuple[int, int], frames: tuple[int, int] | None, how: Export, ending: str
) -> str:
    """Return how large it becomes: the first and last frame of a clip, None for a still of ``size``
    pixels.
    """
    if frames is not None:
        first, last = frames
        return translate(
            "{count} frames of {width} × {height} pixels",
            count=last - first + 1,
            width=size[0],
            height=size[1],
        )
    width, height = how.pixels(size)
    takes = estimated_bytes(how, ending, (width, height))
    return translate("{width} × {height} pixels, {takes}", width=width, height=height, takes=takes)


def compared_words(found: Compared) -> str:
    """Return a lookup table's distance from the render, and what it leaves out."""
    left = "".join(translate("<br>Left out: {line}", line=line) for line in found.left_out)
    return translate(
        "Above through the table, below the real result: largest ΔE2000 {whole:.1f}. Of what "
        "depends on colour alone: mean {mean:.2f}, largest {largest:.1f}.{left}",
        whole=found.whole_largest,
        mean=found.mean,
        largest=found.largest,
        left=left,
    )
