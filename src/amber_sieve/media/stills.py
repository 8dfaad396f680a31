"""Pictures in files, through OpenImageIO."""

from __future__ import annotations

import contextlib
import functools
import pathlib
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
import OpenImageIO as oiio

from ..core.colour.transfer import decode_integers
from ..core.frame import BRIGHTEST, Frame
from ..errors import Trouble
from ..files import regular_file, write_bytes, written_beside
from . import cmyk, colour_spaces, film_scans, formats, phone_and_web, profiles
from . import colour_management as colours
from .encoding import encoded
from .harmless import divided_by_alpha, harmless_alpha, made_harmless
from .memory import room_for
from .quiet import quiet
from .reading import PLAIN, Reading
from .source import About, key_of

ROWS = 256
#: Pixels of the largest picture that is opened: five times what the largest cameras make.
LARGEST = 500_000_000
#: Channels that differ by less than this (linear light) are one grey: a sixteenth of a 16-bit step near white.
GREY = 2e-5
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


@dataclass
class Still:
    """One picture file."""

    about: About
    picture: Frame

    @property
    def files(self) -> list[pathlib.Path]:
        """The picture's own file."""
        return [self.about.path]

    def about_frame(self, number: int) -> About:
        """What the picture says of itself."""
        return self.about

    def frame(self, number: int) -> Frame:
        """The picture; it has only frame 0."""
        return self.picture

    def quick_frame(self, number: int, factor: float) -> Frame:
        """The picture reduced by a factor."""
        return self.picture.reduced(factor)

    def close(self) -> None:
        """Nothing is held open."""


def _problem(path: pathlib.Path) -> Trouble:
    """Why a file could not be opened as a picture, in one sentence."""
    if path.stat().st_size == 0:
        return Trouble(f"{path} is empty (0 bytes): restore it from where it came from.")
    known = formats.endings("still")
    if path.suffix.lower() in known:
        return Trouble(f"{path} is not a readable {path.suffix[1:].upper()} picture: it is damaged or has the wrong ending.")
    return Trouble(f"{path} cannot be opened: give a picture ({', '.join(end[1:].upper() for end in known)}), a clip or a project.")


def _damaged(path: pathlib.Path) -> Trouble:
    return Trouble(f"{path} is cut short or damaged: restore it from where it came from.")


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
        name = str(opened.spec().getattribute("oiio:subimagename") or opened.spec().getattribute("name") or f"Part {len(names) + 1}")
        names.append(name if name not in names else f"{name} {len(names) + 1}")
    opened.geterror()  # that there is no further one
    opened.seek_subimage(0, 0)
    return tuple(names) if len(names) > 1 else ()


def _samples_of(path: pathlib.Path, part: str = "") -> tuple[np.ndarray, Any, str, tuple[str, ...]]:
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
                raise Trouble(f"{path} has no part {part[:80]}: it has {', '.join(parts)[:200] or 'only one'}.")
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
    pixels, spec, kind, parts = _samples_of(path, reading.part)
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
        "profile": reading.space or curve or (colours.name_of(profile) if integer or profile else "none (linear light)"),
    }
    if parts:
        tags["parts"] = ", ".join(parts)
    notes = (
        (f"{path.name}: {odd} values were no numbers or too bright to be light; they were made black, or as bright as can be.",)
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
    named = "none (linear light)" if not kind.startswith("uint") and not profile else colours.name_of(profile)
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


def write(
    path: pathlib.Path,
    about: About,
    strips: Callable[[], Iterator[tuple[int, np.ndarray]]],
    alpha: np.ndarray | None = None,
    depth: str = "",
    gamut: str = "lower chroma",
    quality: int = 95,
    original: Frame | None = None,
    profile: str = "",
    display: str = "",
    premultiplied: bool = False,
    masks: dict[str, np.ndarray] | None = None,
) -> None:
    """Write a picture in the profile, with the metadata, of the one it was made from.

    Parameters
    ----------
    about : the picture it was made from.
    strips : gives (top row, planes (3, rows, W) of linear light) from top to bottom.
    alpha : (H, W) float32 or None; a kind of file that has none shows what is transparent before white.
    depth : sample type; by default the one of ``about``, as far as the ending allows.
    gamut : "lower chroma" or "clip"; only for integer types.
    quality : of JPEG, 1 to 100.
    profile : one of `profiles.NAMES`, "" for the one of ``about``; only for integer types, and float ones for "Linear" alone.
    display : the "display / view" of OpenColorIO that integer types are made for, in place of a profile.
    premultiplied : the colours of integer types are multiplied by alpha, where the kind of file can say so (TIFF).
    masks : (H, W) float32 by name, as further channels of OpenEXR; of other kinds of file, the first of them as alpha.
    original : what was read from ``about.path``, if that is where the strips come from: where nothing has changed, the
        stored samples are written again, since going through a wide profile and back can cost the last bit.

    Raises
    ------
    Trouble: unknown ending, or the file could not be written (an earlier file is then still whole).
    """
    path = pathlib.Path(path)
    kind = formats.depth_for(path, depth or about.depth)
    known = formats.format_of(path)
    assert known is not None
    width, height = about.size
    integer = kind.startswith("uint")
    masks = masks or {}
    if masks and known.encoder != "openexr":
        alpha, masks = next(iter(masks.values())), {}
    if alpha is not None and not known.alpha:
        strips = functools.partial(_before_white, strips, alpha)
    if about.grey and integer and not masks and not profile and not display and all(is_grey(planes) for _, planes in strips()):
        _write_grey(path, about, strips, alpha if known.alpha else None, kind, quality)
        return
    channels = 4 if alpha is not None and known.alpha else 3
    pixels = np.empty((height, width, channels), {"uint8": np.uint8, "uint16": np.uint16, "half": np.float16, "float": np.float32}[kind])
    own = about.profile if colours.space_of(about.profile) == "rgb" else b""
    icc = (profiles.named(profile) if profile else own) if integer else b""
    if profile == "sRGB":
        icc = b""  # by its exact formula
    stored = None
    if profile or display:
        original = None
    if original is not None and integer and kind == about.depth and not colours.is_srgb(icc) and _is_as_read(about):
        stored = _samples_of(about.path, about.part)[0]
        stored = stored if _is_as_read(about) and stored.shape[:2] == (height, width) else None
    for top, planes in strips():
        rows = slice(top, top + planes.shape[1])
        target = pixels[rows, :, :3]
        if integer:
            if display:
                codes = np.moveaxis(colour_spaces.to_display(planes, display), 0, -1).clip(0, 1)
            else:
                codes = colours.to_codes(planes, icc)
                codes = colours.fitted(codes, planes, icc) if gamut == "lower chroma" else np.clip(codes, 0, 1, out=codes)
            codes *= np.iinfo(kind).max
            np.rint(codes, out=codes)
            target[...] = codes
            if stored is not None and original is not None:
                np.copyto(target, stored[rows, :, :3], where=(planes == original.planes[:, rows]).all(axis=0)[..., None])
        else:
            most = BRIGHTEST if kind == "half" else np.inf
            target[...] = np.moveaxis(np.clip(planes, -most, most), 0, -1)
    if channels == 4 and alpha is not None:
        if not integer:
            pixels[..., :3] *= alpha[..., None]
        elif premultiplied and known.encoder == "tiff":
            np.rint(pixels[..., :3] * alpha[..., None], out=pixels[..., :3], casting="unsafe")
        pixels[..., 3] = np.rint(alpha * np.iinfo(kind).max) if integer else alpha
    spec = _spec_for(about, channels, kind, b"" if display else (icc or colours.srgb_profile()) if integer else b"")
    if premultiplied and known.encoder == "tiff":
        spec.attribute("oiio:UnassociatedAlpha", 0)
    if masks:
        names = _channel_names(masks)
        pixels = np.concatenate([pixels, *(mask[..., None].astype(pixels.dtype) for mask in masks.values())], axis=2)
        spec.nchannels = pixels.shape[2]
        spec.channelnames = (*"RGBA"[:channels], *names)
    store(path, spec, pixels, quality)


def _is_as_read(about: About) -> bool:
    """Whether the file is still the one that was read: another may lie in its place by now."""
    try:
        return about.mark is not None and key_of(about.path) == about.mark
    except OSError:
        return False


def _before_white(strips: Callable[[], Iterator[tuple[int, np.ndarray]]], alpha: np.ndarray) -> Iterator[tuple[int, np.ndarray]]:
    """What cannot be transparent, before white; where it is opaque it stays bit by bit."""
    for top, planes in strips():
        share = alpha[top : top + planes.shape[1]]
        yield top, np.where(share == 1, planes, 1 + share * (planes - 1))


def _spec_for(about: About, channels: int, kind: str, profile: bytes) -> Any:
    """The description of a picture that is written from another one."""
    spec = oiio.ImageSpec(*about.size, channels, kind)
    for name, value in about.metadata.items():
        with contextlib.suppress(TypeError, RuntimeError):  # what a damaged file said of itself need not be sayable again
            spec.attribute(name, value)
    spec.attribute("Orientation", 1)
    if kind.startswith("uint"):
        spec.attribute("oiio:UnassociatedAlpha", 1)
    if profile:
        spec.attribute("ICCProfile", oiio.TypeDesc(f"uint8[{len(profile)}]"), np.frombuffer(profile, np.uint8))
    if channels in (2, 4):
        spec.alpha_channel = channels - 1
    return spec


def is_grey(planes: np.ndarray) -> bool:
    """Whether light (3, H, W) is the same in all channels, up to what an adjustment rounds off."""
    most = GREY * (1 + np.abs(planes[1]))
    return bool((np.abs(planes[0] - planes[1]) <= most).all() and (np.abs(planes[2] - planes[1]) <= most).all())


def _write_grey(
    path: pathlib.Path,
    about: About,
    strips: Callable[[], Iterator[tuple[int, np.ndarray]]],
    alpha: np.ndarray | None,
    kind: str,
    quality: int,
) -> None:
    """Write a grey picture as one, in its own profile."""
    top = np.iinfo(kind).max
    profile = about.profile if colours.space_of(about.profile) == "gray" else b""
    pixels = np.empty((about.size[1], about.size[0], 1 if alpha is None else 2), np.uint8 if kind == "uint8" else np.uint16)
    for first, planes in strips():
        codes = colours.light_to_grey(planes[1], profile)
        pixels[first : first + planes.shape[1], :, 0] = np.rint(np.clip(codes, 0, 1) * top)
    if alpha is not None:
        pixels[..., 1] = np.rint(alpha * top)
    store(path, _spec_for(about, pixels.shape[2], kind, profile), pixels, quality)


def store(path: pathlib.Path, spec: Any, pixels: np.ndarray, quality: int = 95) -> None:
    """Write pixels (H, W, C) beside the target and rename them into place; raises `Trouble` when that fails."""
    known = formats.format_of(path)
    assert known is not None
    if known.name == "WebP":
        spec.attribute("Compression", f"webp:{quality}" if quality < 100 else "lossless:75")
    elif known.name == "JPEG":
        spec.attribute("Compression", f"jpeg:{quality}")
        spec.attribute("jpeg:subsampling", "4:4:4")
    elif known.encoder in ("tiff", "openexr"):
        spec.attribute("Compression", "zip")
    with written_beside(path) as partial:
        write_bytes(partial, encoded(known.encoder, spec, pixels))


def _channel_names(masks: dict[str, np.ndarray]) -> list[str]:
    """Names of channels after those of masks, each only once."""
    names: list[str] = []
    for name in masks:
        plain = re.sub(r"[^\w-]+", "_", name) or "mask"
        plain = f"mask_{plain}" if plain in ("R", "G", "B", "A") else plain
        names.append(plain if plain not in names else f"{plain}_{len(names) + 1}")
    return names


def write_masks(path: pathlib.Path, masks: dict[str, np.ndarray]) -> list[pathlib.Path]:
    """Write several masks (H, W) by name: as named channels of one OpenEXR file, else as a file each, their names after that of ``path``.

    Returns what was written.
    """
    path = pathlib.Path(path)
    if path.suffix.lower() == ".exr":
        names = _channel_names(masks)
        height, width = next(iter(masks.values())).shape
        spec = oiio.ImageSpec(width, height, len(masks), "float")
        spec.channelnames = tuple(names)
        store(path, spec, np.stack([mask.astype(np.float32) for mask in masks.values()], axis=-1))
        return [path]
    written: list[pathlib.Path] = []
    for number, (name, mask) in enumerate(masks.items(), 1):
        plain = re.sub(r"[^\w-]+", "-", name).strip("-") or f"mask-{number}"
        one = path.with_name(f"{path.stem}-{plain}{path.suffix}")
        one = one if one not in written else path.with_name(f"{path.stem}-{plain}-{number}{path.suffix}")
        write_mask(one, mask)
        written.append(one)
    return written


def write_mask(path: pathlib.Path, mask: np.ndarray) -> None:
    """Write a mask as a grey picture: 16-bit PNG or TIFF, or float EXR, by the ending.

    Parameters
    ----------
    mask : (H, W) float32, 0 to 1; stored as it is, not gamma-coded.
    """
    kind = formats.mask_depth_for(pathlib.Path(path))
    pixels = mask.astype(np.float32) if kind == "float" else np.rint(mask * 65535).astype(np.uint16)
    spec = oiio.ImageSpec(mask.shape[1], mask.shape[0], 1, kind)
    store(path, spec, pixels[..., None])
