"""Values between keyframes."""

from __future__ import annotations

from collections.abc import Sequence

from ..names import Between


def value_at(keys: Sequence[tuple[int, tuple[float, ...], Between]], frame: int) -> tuple[float, ...]:
    """Return keyed numbers at a frame.

    Parameters
    ----------
    keys : frame, numbers, and how they go on to the next key, by rising frames; at least one, all of one length.

    Returns
    -------
    The numbers: before the first key and after the last, theirs. ``linear`` goes evenly, ``smooth`` begins and ends gently (3t² − 2t³),
    ``hold`` stays until the next key.
    """
    before = keys[0]
    for key in keys:
        if key[0] > frame:
            break
        before = key
    later = next((key for key in keys if key[0] > frame), None)
    if later is None or frame <= before[0] or before[2] == "hold":
        return before[1]
    share = (frame - before[0]) / (later[0] - before[0])
    if before[2] == "smooth":
        share = share * share * (3 - 2 * share)
    return tuple(one + share * (other - one) for one, other in zip(before[1], later[1], strict=True))
