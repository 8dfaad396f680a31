"""Fields of a sieve that change from frame to frame: numbers, colours of samples, points and
strokes of areas.
"""

from __future__ import annotations

import functools
from collections.abc import Sequence
from typing import Any

from pydantic import ValidationError

from ..errors import Trouble
from ..language import translator
from ..names import Between
from .edits import field_of, with_field
from .model import Key, Sieve, Track

translate = translator("project")


#: Fields of samples and areas that may be keyed, besides every number of the model: their way is
#: "samples.ID.colour" or "areas.ID.points".
OF_PARTS = {"samples": ("colour",), "areas": ("points", "strokes", "feather")}


def _flat(value: Any) -> tuple[float, ...]:
    """Numbers, points and strokes as a row of numbers."""
    if isinstance(value, (int, float)):
        return (float(value),)
    if isinstance(value, tuple):
        return tuple(
            number
            for one in value
            for number in _flat(one.points if hasattr(one, "points") else one)
        )
    raise Trouble(translate("What is found on the picture cannot be keyed: set it by hand first."))


def _like(value: Any, numbers: list[float]) -> Any:
    """A value of the same form made of a row of numbers, which it uses up."""
    if isinstance(value, (int, float)):
        return numbers.pop(0)
    return tuple(
        one.but(points=_like(one.points, numbers))
        if hasattr(one, "points")
        else _like(one, numbers)
        for one in value
    )


def _part(sieve: Sieve, path: str) -> tuple[str, str, str] | None:
    kind, _, rest = path.partition(".")
    name, _, field = rest.partition(".")
    return (kind, name, field) if kind in OF_PARTS else None


def _parts_of(sieve: Sieve, kind: str) -> tuple[Any, ...]:
    return sieve.pick.samples if kind == "samples" else sieve.areas


def value_of(sieve: Sieve, path: str) -> Any:
    """The value at a way; None where what it stood for is not there any more."""
    part = _part(sieve, path)
    if part is None:
        return field_of(sieve, path)
    kind, name, field = part
    return next((getattr(one, field) for one in _parts_of(sieve, kind) if one.id == name), None)


def _with_value(sieve: Sieve, path: str, value: Any) -> Sieve:
    part = _part(sieve, path)
    if part is None:
        return with_field(sieve, path, value)
    kind, name, field = part
    changed = tuple(
        one.but(**{field: value}) if one.id == name else one for one in _parts_of(sieve, kind)
    )
    return (
        sieve.but(pick=sieve.pick.but(samples=changed))
        if kind == "samples"
        else sieve.but(areas=changed)
    )


def wrong_in(sieve: Sieve) -> str:
    """Return what is wrong with the keys of a sieve, in words; "" for nothing. What lies between
    two keys that fit fits too.
    """
    for track in sieve.tracks:
        try:
            there = value_of(sieve, track.path)
            if there is None or there == "auto":
                continue
            for value in (
                map(min, zip(*(key.value for key in track.keys), strict=True)),
                map(max, zip(*(key.value for key in track.keys), strict=True)),
            ):
                numbers = list(value)
                if len(_flat(there)) == len(numbers):
                    _with_value(sieve, track.path, _like(there, numbers))
        except ValidationError as error:
            words = error.errors(include_url=False, include_context=False, include_input=False)[0][
                "msg"
            ]
            return translate(
                "a key of {path}: {words}",
                path=track.path,
                words=words.removeprefix("Value error, "),
            )
        except (AttributeError, TypeError, Trouble, IndexError):
            return translate(
                "there is nothing called {path} that could change from frame to frame",
                path=track.path[:80],
            )
    return ""


def _known(track: Track, frame: int) -> tuple[float, ...]:
    return value_at([(key.frame, key.value, key.how) for key in track.keys], frame)


@functools.lru_cache(maxsize=256)
def at_frame(sieve: Sieve, frame: int) -> Sieve:
    """Return the sieve with keyed fields at their values on a frame; its tracks stay."""
    for track in sieve.tracks:
        there = value_of(sieve, track.path)
        numbers = _known(track, frame)
        if (
            there is not None and there != "auto" and len(_flat(there)) == len(numbers)
        ):  # else it has other corners now
            sieve = _with_value(sieve, track.path, _like(there, list(numbers)))
    return sieve


def recorded(before: Sieve, after: Sieve, frame: int) -> Sieve:
    """Return the sieve after a change at a frame: keyed fields get a key there and keep their
    values at other frames.

    ``before`` is the stored sieve, ``after`` the changed sieve of that frame.
    """
    if not before.tracks:
        return after
    tracks = []
    for track in after.tracks:
        value = value_of(after, track.path)
        if value is None:
            continue
        if value == "auto" or len(_flat(value)) != len(track.keys[0].value):
            continue  # it is another thing now, the same at all frames
        numbers = _flat(value)
        if numbers != _known(track, frame):
            track = with_key_in(track, frame, numbers)
        tracks.append(track)
        after = _with_value(
            after,
            track.path,
            value_of(before, track.path) if value_of(before, track.path) is not None else value,
        )
    return after.but(tracks=tuple(tracks))


def with_key_in(
    track: Track, frame: int, value: tuple[float, ...], how: Between | None = None
) -> Track:
    """The track with a key at a frame."""
    there = next((key for key in track.keys if key.frame == frame), None)
    before = [key for key in track.keys if key.frame < frame]
    kept = how or (there.how if there else before[-1].how if before else "linear")
    keys = [key for key in track.keys if key.frame != frame] + [
        Key(frame=frame, value=value, how=kept)
    ]
    return track.but(keys=tuple(sorted(keys, key=lambda key: key.frame)))


def with_key(sieve: Sieve, path: str, frame: int, how: Between | None = None) -> Sieve:
    """Return the sieve with a key for the present value of a field at a frame; raises `Trouble`
    when it cannot be keyed.
    """
    now = at_frame(sieve, frame)
    value = _flat(value_of(now, path))
    held = next((track for track in sieve.tracks if track.path == path), None)
    fresh = (
        with_key_in(held, frame, value, how)
        if held
        else Track(path=path, keys=(Key(frame=frame, value=value, how=how or "linear"),))
    )
    return sieve.but(tracks=(*(track for track in sieve.tracks if track.path != path), fresh))


def with_key_moved(sieve: Sieve, path: str, frame: int, to: int) -> Sieve:
    """The sieve with a field's key at a frame at another frame, as far as the keys beside it let it
    go; itself where there is no such key.
    """
    held = keyed(sieve, path)
    at = next((n for n, key in enumerate(held.keys) if key.frame == frame), None) if held else None
    if held is None or at is None:
        return sieve
    first = held.keys[at - 1].frame + 1 if at else 0
    last = held.keys[at + 1].frame - 1 if at + 1 < len(held.keys) else to
    moved = held.keys[at].but(frame=max(first, min(to, last)))
    track = held.but(keys=(*held.keys[:at], moved, *held.keys[at + 1 :]))
    return sieve.but(tracks=tuple(track if one is held else one for one in sieve.tracks))


def without_key(sieve: Sieve, path: str, frame: int | None = None) -> Sieve:
    """The sieve without a field's key at a frame, or without all of them; without any, the field
    keeps its value of that frame.
    """
    tracks = []
    for track in sieve.tracks:
        keys = tuple(key for key in track.keys if key.frame != frame) if frame is not None else ()
        if track.path != path:
            tracks.append(track)
        elif keys:
            tracks.append(track.but(keys=keys))
    return sieve.but(tracks=tuple(tracks))


def keyframes_of(sieve: Sieve) -> tuple[int, ...]:
    """All frames at which something of a sieve has a key."""
    return tuple(sorted({key.frame for track in sieve.tracks for key in track.keys}))


def frames_of(sieve: Sieve, path: str) -> tuple[int, ...]:
    """The frames at which a field has a key."""
    track = keyed(sieve, path)
    return tuple(key.frame for key in track.keys) if track else ()


def keyed(sieve: Sieve, path: str) -> Track | None:
    """The track of a field, None for a field that is the same at all frames."""
    return next((track for track in sieve.tracks if track.path == path), None)


def value_at(
    keys: Sequence[tuple[int, tuple[float, ...], Between]], frame: int
) -> tuple[float, ...]:
    """Return keyed numbers at a frame.

    Parameters
    ----------
    keys : frame, numbers, and how they go on to the next key, by rising frames; at least one, all
        of one length.

    Returns
    -------
    The numbers: before the first key and after the last, theirs. ``linear`` goes evenly, ``smooth``
    begins and ends gently (3t² − 2t³), ``hold`` stays until the next key.
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
    return tuple(
        one + share * (other - one) for one, other in zip(before[1], later[1], strict=True)
    )
