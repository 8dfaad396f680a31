"""Pictures in files into linear light, through OpenImageIO and, for what phones and the web make, Pillow."""

from __future__ import annotations

import pathlib
from typing import Any

import numpy as np
import OpenImageIO as oiio

from ...core.colour.transfer import decode_integers
from ...core.frame import Frame
from ...errors import Trouble
from ...files import regular_file
from ...language import translate
from ...reading import PLAIN, Reading
from .. import formats
from ..colour import management as colours
from ..colour import spaces as colour_spaces
from ..harmless import divided_by_alpha, harmless_alpha, made_harmless
from ..memory import room_for
from ..quiet import quiet
from ..source import About, key_of
from . import cmyk, film_scans, phone_and_web
from .still import Still

#: Pixels of the largest picture that is opened: five times what the largest cameras make.
LARGEST = 500_000_000
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


def _problem(path: pathlib.Path) -> Trouble:
    """Why a file could not be opened as a picture, in one sentence."""
    if path.stat().st_size == 0:
        return Trouble(translate("stills", "{path} is empty (0 bytes): restore it from where it came from.", path=path))
    known = formats.endings("still")
    if path.suffix.lower() in known:
        return Trouble(
            translate(
                "stills",
                "{path} is not a readable {kind} picture: it is damaged or has the wrong ending.",
                path=path,
                kind=path.suffix[1:].upper(),
            )
        )
    return Trouble(
        translate(
            "stills",
            "{path} cannot be opened: give a picture ({known}), a clip or a project.",
            path=path,
            known=", ".join(end[1:].upper() for end in known),
        )
    )


def _damaged(path: pathlib.Path) -> Trouble:
    return Trouble(translate("stills", "{path} is cut short or damaged: restore it from where it came from.", path=path))


def _opened(path: pathlib.Path, hints: Any) -> Any:
    """The file, opened with hints to its reader; raises `Trouble` when it is empty, damaged or no picture."""
    try:
        opened = oiio.ImageInput.open(str(path), hints) if path.stat().st_size else None
    except (RuntimeError, ValueError):
        raise _damaged(path) from None
    if opened is None:
        oiio.geterror()
        raise _problem(path)
    return opened


def _upright(pixels: np.ndarray, orientation: int) -> np.ndarray:
    """Undo an Exif orientation (1 to 8; Exif 2.3, tag 274)."""
    if orientation in (5, 6, 7, 8):
        pixels = pixels.transpose(1, 0, 2)
    if orientation in (2, 3, 6, 7):
        pixels = pixels[:, ::-1]
    if orientation in (3, 4, 7, 8):
        pixels = pixels[::-1]
    return pixels


def _carried(spec: Any) -> dict[str, Any]:
    """Metadata worth carrying over."""
    return {a.name: a.value for a in spec.extra_attribs if not a.name.lower().startswith(OWN) and isinstance(a.value, (str, int, float))}


def _to_planes(pixels: np.ndarray, profile: bytes, linear: bool) -> np.ndarray:
    """Colour samples (H, W, 1 or 3) as planes of light, a strip at a time."""
    height, width, channels = pixels.shape
    planes = np.empty((3, height, width), np.float32)
    scale = np.float32(np.iinfo(pixels.dtype).max if pixels.dtype.kind == "u" else 1)
    for top in range(0, height, ROWS):
        part = pixels[top : top + ROWS]
        if channels == 1 and not linear and colours.space_of(profile) == "gray":
            planes[:, top : top + ROWS] = colours.grey_to_light(part[..., 0].astype(np.float32) / scale, profile)
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


def parts_of(opened: Any) -> tuple[str, ...]:
    """Names of the parts of an opened file that holds several, each only once; nothing for one picture."""
    names: list[str] = []
    while opened.seek_subimage(len(names), 0):
        name = str(
            opened.spec().getattribute("oiio:subimagename")
            or opened.spec().getattribute("name")
            or translate("stills", "Part {count}", count=len(names) + 1)
        )
        names.append(name if name not in names else f"{name} {len(names) + 1}")
    opened.geterror()  # that there is no further one
    opened.seek_subimage(0, 0)
    return tuple(names) if len(names) > 1 else ()


def samples_of(path: pathlib.Path, part: str = "") -> tuple[np.ndarray, Any, str, tuple[str, ...]]:
    """The stored samples (H, W, C), upright; the file's own description; the sample type; the names of its parts.

    Raises
    ------
    Trouble: it is no picture, damaged, without such a part, or larger than can be worked on.
    """
    regular_file(path)
    hints = oiio.ImageSpec()
    hints.attribute("oiio:UnassociatedAlpha", 1)
    with quiet():
        opened = _opened(path, hints)
        try:
            parts = parts_of(opened) if path.suffix.lower() in PARTED else ()
            if part and part not in parts:
                raise Trouble(
                    translate(
                        "stills",
                        "{path} has no part {part}: it has {parts}.",
                        path=path,
                        part=part[:80],
                        parts=", ".join(parts)[:200] or translate("stills", "only one"),
                    )
                )
            at = parts.index(part) if part else 0
            opened.seek_subimage(at, 0)
            spec = opened.spec()
            room_for(path, spec.width, spec.height, LARGEST)
            stored = str(spec.format)
            kind = stored if stored in ("uint8", "uint16", "half") else "uint16" if "int" in stored else "float"
            pixels = opened.read_image(at, 0, 0, spec.nchannels, kind if kind.startswith("uint") else "float")
            complaint = opened.geterror()
            if pixels is None or complaint:
                raise _damaged(path)
            pixels = pixels.reshape(spec.height, spec.width, spec.nchannels)
        except (RuntimeError, ValueError, TypeError, IndexError):
            raise _damaged(path) from None
        finally:
            opened.close()
    return _upright(pixels, spec.get_int_attribute("Orientation", 1)), spec, kind, parts


#: Endings of files that may hold several pictures, of which one is chosen.
PARTED = (".exr", ".tif", ".tiff")


def read(path: pathlib.Path, reading: Reading = PLAIN) -> Still:
    """Read a picture, upright, as linear light.

    Integer files are in their embedded ICC profile, or sRGB; float files are linear Rec. 709 unless a profile says otherwise.
    Alpha is kept apart from the colours (not multiplied in). What no kernel could stand is made harmless, and said in ``notes``.

    Raises
    ------
    Trouble: missing, empty, damaged, cut short, or not a picture; or it has no such part or colour space.
    """
    path = pathlib.Path(path)
    try:
        return _read(path, reading)
    except (UnicodeDecodeError, RuntimeError):  # a name or a complaint inside the file that is no text
        raise _damaged(path) from None


def _read(path: pathlib.Path, reading: Reading) -> Still:
    if phone_and_web.is_ours(path):
        return _by_pillow(path, reading)
    mark = key_of(regular_file(path))  # before it is read: a file that changes meanwhile is not the one it says
    pixels, spec, kind, parts = samples_of(path, reading.part)
    if cmyk.holds_inks(path, spec):
        return _of_light(path, cmyk.read(path), kind, _carried(spec), cmyk.tags_of(path), reading)
    alpha_at = spec.alpha_channel if spec.alpha_channel >= 0 else (3 if spec.nchannels == 4 else 1 if spec.nchannels == 2 else -1)
    integer, grey = kind.startswith("uint"), spec.nchannels < 3
    profile = spec.getattribute("ICCProfile")
    profile = bytes(np.asarray(profile, np.uint8)) if profile is not None else b""
    associated = alpha_at >= 0 and not spec.get_int_attribute("oiio:UnassociatedAlpha", 0)
    samples, alpha = pixels[..., : 1 if grey else 3], None
    if alpha_at >= 0:
        alpha = pixels[..., alpha_at].astype(np.float32)
        if integer:
            alpha /= np.iinfo(kind).max
            if associated:
                samples = _unassociated(samples, alpha)
        alpha = harmless_alpha(alpha)
    curve = film_scans.curve_of(spec) if path.suffix.lower() == ".dpx" else ""
    with np.errstate(all="ignore"):
        if reading.space or curve:
            codes = _as_codes(samples)
            planes = colour_spaces.to_light(codes, reading.space) if reading.space else film_scans.to_light(codes, curve)
        else:
            planes = _to_planes(samples, profile, kind in ("half", "float") and not profile)
        if alpha is not None and associated and not integer:
            divided_by_alpha(planes, alpha)
        odd = made_harmless(planes)
    height, width = pixels.shape[:2]
    tags = {
        "format": path.suffix[1:].upper(),
        "samples": kind,
        "channels": str(spec.nchannels),
        "profile": reading.space
        or curve
        or (colours.name_of(profile) if integer or profile else translate("stills", "none (linear light)")),
    }
    if parts:
        tags["parts"] = ", ".join(parts)
    notes = (
        (
            translate(
                "stills",
                "{name}: {odd} values were no numbers or too bright to be light; they were made black, or as bright as can be.",
                name=path.name,
                odd=odd,
            ),
        )
        if odd
        else ()
    )
    if reading.space or curve:
        profile = b""  # what it was coded in is no profile; what leaves is
    about = About(
        path,
        "still",
        (width, height),
        kind,
        profile,
        _carried(spec),
        grey=grey,
        tags=tags,
        notes=notes,
        parts=parts,
        part=reading.part,
        mark=mark,
    )
    return Still(about, Frame(planes, alpha, (mark, reading) if reading != PLAIN else mark))


def _by_pillow(path: pathlib.Path, reading: Reading) -> Still:
    """A picture of a kind that Pillow reads."""
    regular_file(path)
    if path.stat().st_size == 0:
        raise _problem(path)
    with quiet():
        samples, coverage, profile, kind, metadata = phone_and_web.samples_of(path, LARGEST)
    alpha = None if coverage is None else harmless_alpha(coverage.astype(np.float32) / np.iinfo(kind).max)
    planes = colour_spaces.to_light(_as_codes(samples), reading.space) if reading.space else _to_planes(samples, profile, False)
    made_harmless(planes)
    tags = {
        "format": path.suffix[1:].upper(),
        "samples": kind,
        "channels": str(samples.shape[2] + (alpha is not None)),
        "profile": reading.space or colours.name_of(profile),
    }
    size, grey = (samples.shape[1], samples.shape[0]), samples.shape[2] == 1
    about = About(path, "still", size, kind, b"" if reading.space else profile, metadata, grey=grey, tags=tags)
    return Still(about, Frame(planes, alpha, (key_of(path), reading) if reading != PLAIN else key_of(path)))


def about(path: pathlib.Path) -> About:
    """What a picture says of itself, from its header alone: nothing is decoded.

    Raises
    ------
    Trouble: missing, empty, damaged, or not a picture.
    """
    path = regular_file(pathlib.Path(path))
    if path.stat().st_size == 0:
        raise _problem(path)
    if phone_and_web.is_ours(path):
        with quiet(), phone_and_web.opened(path, LARGEST) as picture:
            tags = {"format": path.suffix[1:].upper(), "samples": "uint8", "channels": str(len(picture.getbands()))}
            return About(path, "still", picture.size, "uint8", tags=tags)
    with quiet():
        opened = _opened(path, oiio.ImageSpec())
        try:
            spec, parts = opened.spec(), parts_of(opened) if path.suffix.lower() in PARTED else ()
        finally:
            opened.close()
    kind = str(spec.format)
    profile = spec.getattribute("ICCProfile")
    profile = bytes(np.asarray(profile, np.uint8)) if profile is not None else b""
    inks = cmyk.holds_inks(path, spec)
    named = translate("stills", "none (linear light)") if not kind.startswith("uint") and not profile else colours.name_of(profile)
    tags = {"format": path.suffix[1:].upper(), "samples": kind, "channels": str(spec.nchannels), "profile": named}
    if parts:
        tags["parts"] = ", ".join(parts)
    turned = spec.get_int_attribute("Orientation", 1) in (5, 6, 7, 8)
    size = (spec.height, spec.width) if turned else (spec.width, spec.height)
    return About(path, "still", size, kind, profile, tags=cmyk.tags_of(path) if inks else tags, parts=parts)


def _as_codes(samples: np.ndarray) -> np.ndarray:
    """Stored samples (H, W, 1 or 3) as codes (3, H, W) float32, of integers from 0 to 1."""
    scale = np.float32(1 / np.iinfo(samples.dtype).max if samples.dtype.kind == "u" else 1)
    spread = np.moveaxis(samples, -1, 0).astype(np.float32) * scale
    return np.repeat(spread, 3, axis=0) if spread.shape[0] == 1 else spread


def _of_light(path: pathlib.Path, planes: np.ndarray, kind: str, metadata: dict[str, Any], tags: dict[str, str], reading: Reading) -> Still:
    """A picture that came as light already; it is written in sRGB."""
    about = About(path, "still", (planes.shape[2], planes.shape[1]), kind, b"", metadata, tags=tags)
    return Still(about, Frame(planes, None, (key_of(path), reading)))


def _unassociated(samples: np.ndarray, alpha: np.ndarray) -> np.ndarray:
    """Integer samples (H, W, C) that alpha (H, W) was multiplied into, without it; where there is none they stay."""
    top = np.iinfo(samples.dtype).max
    divided = samples / np.where(alpha > 0, alpha, 1)[..., None]
    return np.minimum(np.rint(divided), top).astype(samples.dtype)
