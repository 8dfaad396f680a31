"""Pictures in files into linear light, through OpenImageIO and, for what phones and the web make,
Pillow.
"""

from __future__ import annotations

import pathlib
from fractions import Fraction
from typing import Any

import numpy as np
import OpenImageIO as oiio

from ...core.colour.transfer import decode_integers
from ...core.frame import Frame
from ...files import regular_file
from ...language import translator
from ...read_settings import PLAIN, Reading
from .. import formats
from ..colour import management as colours
from ..colour import spaces as colour_spaces
from ..harmless import divided_by_alpha, harmless_alpha, made_harmless
from ..quiet import quiet
from ..scratch import IN_MEMORY, Scratch
from ..source import FILM_RATE, About, is_rate, key_of, rate_in_use
from ..timecode import DROP_BIT, NTSC_RATE, Timecode, from_word
from . import cmyk, film_scans, phone_and_web
from .still import Still
from .stored import LARGEST, PARTED, damaged, opened_file, parts_of, problem, stored_in

translate = translator("stills")


#: Rows that are worked at a time.
ROWS = 256
#: What a file says about its own coding, which must not be carried into a file coded otherwise.
OWN = (
    "oiio:",
    "png:",
    "jpeg:",
    "tiff:",
    "openexr:",
    "webp:",
    "exr",
    "icc",
    "compression",
    "planarconfig",
    "orientation",
    "version",
    "softwaremd",
    "xdensity",
    "exif:pixel",
    "exif:colorspace",
    "exif:flashpix",
    "thumbnail",
    "chromaticities",
    "name",
    "capdate",
    "dwacompression",
)


def _carried(spec: Any) -> dict[str, Any]:
    """Metadata worth carrying over."""
    return {
        a.name: a.value
        for a in spec.extra_attribs
        if not a.name.lower().startswith(OWN) and isinstance(a.value, (str, int, float))
    }


def _sound(profile: bytes) -> tuple[bytes, str]:
    """Return the profile of a file, b"" for a damaged one, and what is said of that."""
    held = colours.sound_profile(profile) if profile else b""
    return (b"", translate("damaged (read as sRGB)")) if held is None else (held, "")


def _note_of_profile(path: pathlib.Path, damage: str) -> tuple[str, ...]:
    """Return a sentence about a damaged profile, where it is one."""
    if not damage:
        return ()
    return (
        translate(
            "{name} has a damaged colour profile: it is read as sRGB, and written without it.",
            name=path.name,
        ),
    )


def _rate_of(spec: Any) -> Fraction:
    """Return the frames a second that the header of one of many pictures says, 0 where it says
    none.
    """
    said, in_dpx = spec.getattribute("FramesPerSecond"), spec.getattribute("dpx:FrameRate")
    if said is not None and said[1]:
        rate = Fraction(int(said[0]), int(said[1]))
    elif in_dpx is not None and np.isfinite(in_dpx):
        rate = rate_in_use(Fraction(float(in_dpx)))
    else:
        return Fraction(0)
    return rate if is_rate(rate) else Fraction(0)


def _timecode_of(spec: Any, rate: Fraction) -> Timecode | None:
    """Return the timecode in the header of a picture at its rate (0: not said), None where it holds
    none.
    """
    held = spec.getattribute("smpte:TimeCode")
    if held is None:
        return None
    word = int(held[0]) & 0xFFFFFFFF
    return from_word(word, rate or (NTSC_RATE if word & DROP_BIT else FILM_RATE))


def _to_planes(pixels: np.ndarray, profile: bytes, linear: bool) -> np.ndarray:
    """Colour samples (H, W, 1 or 3) as planes of light, a strip at a time."""
    height, width, channels = pixels.shape
    planes = np.empty((3, height, width), np.float32)
    scale = np.float32(np.iinfo(pixels.dtype).max if pixels.dtype.kind == "u" else 1)
    for top in range(0, height, ROWS):
        part = pixels[top : top + ROWS]
        if channels == 1 and not linear and colours.space_of(profile) == "gray":
            planes[:, top : top + ROWS] = colours.grey_to_light(
                part[..., 0].astype(np.float32) / scale, profile
            )
            continue
        if channels == 1:
            part = np.repeat(part, 3, axis=2)
        if linear:
            light = part.astype(np.float32)
        elif part.dtype.kind == "u" and colours.is_srgb(profile):
            light = decode_integers(part)
        else:
            light = colours.to_light(part.astype(np.float32) / scale, profile)
        planes[:, top : top + ROWS] = np.moveaxis(light, -1, 0)
    return planes


def read(path: pathlib.Path, reading: Reading = PLAIN) -> Still:
    """Read a picture, upright, as linear light.

    Integer files are in their embedded ICC profile, or sRGB; float files are linear Rec. 709 unless
    a profile says otherwise. Alpha is kept apart from the colours (not multiplied in). What no
    kernel could stand is made harmless, and said in ``notes``.

    Raises
    ------
    Trouble: missing, empty, damaged, cut short, or not a picture; or it has no such part or colour
        space.
    """
    path = pathlib.Path(path)
    try:
        return _read(path, reading)
    except (
        UnicodeDecodeError,
        RuntimeError,
    ):  # a name or a complaint inside the file that is no text
        raise damaged(path) from None


def _read(path: pathlib.Path, reading: Reading) -> Still:
    if phone_and_web.is_ours(path):
        return _by_pillow(path, reading)
    mark = key_of(
        regular_file(path)
    )  # before it is read: a file that changes meanwhile is not the one it says
    with stored_in(path, reading.part) as stored:
        spec, kind, parts = stored.spec, stored.kind, stored.parts
        if cmyk.holds_inks(path, spec):
            return _of_light(
                path, cmyk.read(path), kind, _carried(spec), cmyk.tags_of(path), reading
            )
        grey, profile = spec.nchannels < 3, spec.getattribute("ICCProfile")
        profile, damage = _sound(
            bytes(np.asarray(profile, np.uint8)) if profile is not None else b""
        )
        curve = film_scans.curve_of(spec) if path.suffix.lower() == ".dpx" else ""
        width, height = stored.size
        scratch = Scratch((3, height, width), path) if width * height > IN_MEMORY else None
        planes = scratch.planes if scratch is not None else np.empty((3, height, width), np.float32)
        alpha = np.empty((height, width), np.float32) if _alpha_at(spec) >= 0 else None
        known, odd = formats.format_of(path), 0
        straight = bool(spec.get_int_attribute("oiio:UnassociatedAlpha", 0)) or (
            known is not None and known.straight
        )
        for top in range(0, height, stored.rows_together):
            rows = slice(top, min(top + stored.rows_together, height))
            light, coverage = _light_of(
                stored.rows(rows.start, rows.stop),
                spec,
                kind,
                profile,
                reading.space,
                curve,
                straight,
            )
            odd += made_harmless(light)
            planes[:, rows] = light
            if scratch is not None:
                scratch.let_go()
            if alpha is not None and coverage is not None:
                alpha[rows] = coverage
    tags = {
        "format": path.suffix[1:].upper(),
        "samples": kind,
        "channels": str(spec.nchannels),
        "profile": reading.space
        or curve
        or damage
        or (
            colours.name_of(profile)
            if kind.startswith("uint") or profile
            else translate("none (linear light)")
        ),
    }
    if parts:
        tags["parts"] = ", ".join(parts)
    notes = _note_of_profile(path, damage)
    if odd:
        notes += (
            translate(
                "{name}: {odd} values were no numbers or too bright to be light; they were made "
                "black, or as bright as can be.",
                name=path.name,
                odd=odd,
            ),
        )
    if reading.space or curve:
        profile = b""  # what it was coded in is no profile; what leaves is
    rate = _rate_of(spec)
    about = About(
        path,
        "still",
        (width, height),
        kind,
        profile,
        _carried(spec),
        rate=rate,
        grey=grey,
        tags=tags,
        notes=notes,
        parts=parts,
        part=reading.part,
        mark=mark,
        timecode=_timecode_of(spec, rate),
    )
    key = (mark, reading) if reading != PLAIN else mark
    return Still(
        about, Frame(planes, alpha, key, let_go=scratch.let_go if scratch is not None else None)
    )


def _alpha_at(spec: Any) -> int:
    """Return which channel of a file holds its alpha, below 0 for none."""
    return (
        int(spec.alpha_channel) if spec.alpha_channel >= 0 else {2: 1, 4: 3}.get(spec.nchannels, -1)
    )


def _light_of(
    pixels: np.ndarray, spec: Any, kind: str, profile: bytes, space: str, curve: str, straight: bool
) -> tuple[np.ndarray, np.ndarray | None]:
    """Stored samples (h, W, C) as light (3, h, W), and their alpha (h, W), None where the file has
    none.

    ``straight`` says that alpha is not multiplied into the colours.
    """
    alpha_at, integer = _alpha_at(spec), kind.startswith("uint")
    associated = alpha_at >= 0 and not straight
    samples, alpha = pixels[..., : 1 if spec.nchannels < 3 else 3], None
    if alpha_at >= 0:
        alpha = pixels[..., alpha_at].astype(np.float32)
        if integer:
            alpha /= np.iinfo(kind).max
            if associated:
                samples = _unassociated(samples, alpha)
        alpha = harmless_alpha(alpha)
    with np.errstate(all="ignore"):
        if space or curve:
            codes = _as_codes(samples)
            planes = (
                colour_spaces.to_light(codes, space) if space else film_scans.to_light(codes, curve)
            )
        else:
            planes = _to_planes(samples, profile, kind in ("half", "float") and not profile)
        if alpha is not None and associated and not integer:
            divided_by_alpha(planes, alpha)
    return planes, alpha


def _by_pillow(path: pathlib.Path, reading: Reading) -> Still:
    """A picture of a kind that Pillow reads."""
    regular_file(path)
    if path.stat().st_size == 0:
        raise problem(path)
    with quiet():
        samples, coverage, profile, kind, metadata = phone_and_web.samples_of(path, LARGEST)
    profile, damage = _sound(profile)
    alpha = (
        None
        if coverage is None
        else harmless_alpha(coverage.astype(np.float32) / np.iinfo(kind).max)
    )
    planes = (
        colour_spaces.to_light(_as_codes(samples), reading.space)
        if reading.space
        else _to_planes(samples, profile, False)
    )
    made_harmless(planes)
    tags = {
        "format": path.suffix[1:].upper(),
        "samples": kind,
        "channels": str(samples.shape[2] + (alpha is not None)),
        "profile": reading.space or damage or colours.name_of(profile),
    }
    size, grey = (samples.shape[1], samples.shape[0]), samples.shape[2] == 1
    about = About(
        path,
        "still",
        size,
        kind,
        b"" if reading.space else profile,
        metadata,
        grey=grey,
        tags=tags,
        notes=_note_of_profile(path, damage),
    )
    return Still(
        about, Frame(planes, alpha, (key_of(path), reading) if reading != PLAIN else key_of(path))
    )


def about(path: pathlib.Path) -> About:
    """Return the properties of a picture, from its header alone: nothing is decoded.

    Raises
    ------
    Trouble: missing, empty, damaged, or not a picture.
    """
    path = regular_file(pathlib.Path(path))
    if path.stat().st_size == 0:
        raise problem(path)
    if phone_and_web.is_ours(path):
        with quiet(), phone_and_web.opened(path, LARGEST) as picture:
            tags = {
                "format": path.suffix[1:].upper(),
                "samples": "uint8",
                "channels": str(len(picture.getbands())),
            }
            return About(path, "still", picture.size, "uint8", tags=tags)
    with quiet():
        opened = opened_file(path, oiio.ImageSpec())
        try:
            spec, parts = opened.spec(), parts_of(opened) if path.suffix.lower() in PARTED else ()
        finally:
            opened.close()
    kind = str(spec.format)
    profile = spec.getattribute("ICCProfile")
    profile, damage = _sound(bytes(np.asarray(profile, np.uint8)) if profile is not None else b"")
    inks = cmyk.holds_inks(path, spec)
    named = (
        translate("none (linear light)")
        if not kind.startswith("uint") and not profile
        else colours.name_of(profile)
    )
    named = damage or named
    tags = {
        "format": path.suffix[1:].upper(),
        "samples": kind,
        "channels": str(spec.nchannels),
        "profile": named,
    }
    if parts:
        tags["parts"] = ", ".join(parts)
    turned = spec.get_int_attribute("Orientation", 1) in (5, 6, 7, 8)
    size = (spec.height, spec.width) if turned else (spec.width, spec.height)
    tags = cmyk.tags_of(path) if inks else tags
    return About(
        path,
        "still",
        size,
        kind,
        profile,
        tags=tags,
        parts=parts,
        notes=_note_of_profile(path, damage),
    )


def _as_codes(samples: np.ndarray) -> np.ndarray:
    """Stored samples (H, W, 1 or 3) as codes (3, H, W) float32, of integers from 0 to 1."""
    scale = np.float32(1 / np.iinfo(samples.dtype).max if samples.dtype.kind == "u" else 1)
    spread = np.moveaxis(samples, -1, 0).astype(np.float32) * scale
    return np.repeat(spread, 3, axis=0) if spread.shape[0] == 1 else spread


def _of_light(
    path: pathlib.Path,
    planes: np.ndarray,
    kind: str,
    metadata: dict[str, Any],
    tags: dict[str, str],
    reading: Reading,
) -> Still:
    """A picture that came as light already; it is written in sRGB."""
    about = About(path, "still", (planes.shape[2], planes.shape[1]), kind, b"", metadata, tags=tags)
    return Still(about, Frame(planes, None, (key_of(path), reading)))


def _unassociated(samples: np.ndarray, alpha: np.ndarray) -> np.ndarray:
    """Integer samples (H, W, C) that alpha (H, W) was multiplied into, without it; where there is
    none they stay.
    """
    top = np.iinfo(samples.dtype).max
    divided = samples / np.where(alpha > 0, alpha, 1)[..., None]
    return np.minimum(np.rint(divided), top).astype(samples.dtype)
