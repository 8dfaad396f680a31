"""Linear light and masks into files of pictures."""

from __future__ import annotations

import contextlib
import functools
import pathlib
import re
import tempfile
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
import OpenImageIO as oiio

from ...core.colour.gamut import lower_chroma
from ...core.frame import BRIGHTEST, Frame
from ...files import written_beside
from .. import formats
from ..colour import management as colours
from ..colour import profiles
from ..colour import spaces as colour_spaces
from ..quiet import quiet
from ..source import About, key_of
from .encoding import encode
from .stored import Stored, stored_in

#: Channels that differ by less than this (linear light) are one grey: a sixteenth of a 16-bit step
#: near white.
GREY = 2e-5
#: Rows of a mask coded at a time.
ROWS = 256


@dataclass(frozen=True)
class StillForm:
    """The form in which a picture is written.

    Attributes
    ----------
    depth : sample type; by default the one of the picture it was made from, as far as the ending
        allows.
    gamut : "lower chroma" or "clip"; only for integer types.
    quality : of JPEG, 1 to 100.
    profile : one of `profiles.NAMES`, "" for that of the picture it was made from; only for integer
        types, and float ones for "Linear" alone.
    display : the "display / view" of OpenColorIO that integer types are made for, in place of a
        profile.
    premultiplied : the colours of integer types are multiplied by alpha, where the kind of file can
        say so (TIFF).
    """

    depth: str = ""
    gamut: str = "lower chroma"
    quality: int = 95
    profile: str = ""
    display: str = ""
    premultiplied: bool = False


AS_READ = StillForm()


def write(
    path: pathlib.Path,
    about: About,
    strips: Callable[[], Iterator[tuple[int, np.ndarray]]],
    form: StillForm = AS_READ,
    alpha: np.ndarray | None = None,
    original: Frame | None = None,
    masks: dict[str, np.ndarray] | None = None,
) -> None:
    """Write a picture in the profile, with the metadata, of the one it was made from.

    Parameters
    ----------
    about : the picture it was made from.
    strips : gives (top row, planes (3, rows, W) of linear light) from top to bottom.
    form : what it is written as.
    alpha : (H, W) float32 or None; a kind of file that has none shows what is transparent before
        white.
    masks : (H, W) float32 by name, as further channels of OpenEXR; of other kinds of file, the
        first of them as alpha.
    original : what was read from ``about.path``, if that is where the strips come from: where
        nothing has changed, the stored samples are written again, since going through a wide
        profile and back can cost the last bit.

    Raises
    ------
    Trouble: unknown ending, or the file could not be written (an earlier file is then still whole).
    """
    path = pathlib.Path(path)
    kind = formats.depth_for(path, form.depth or about.depth)
    known = formats.format_of(path)
    assert known is not None
    width = about.size[0]
    integer = kind.startswith("uint")
    masks = masks or {}
    if masks and known.encoder != "openexr":
        alpha, masks = next(iter(masks.values())), {}
    if alpha is not None and not known.alpha:
        strips = functools.partial(_before_white, strips, alpha)
    held_alpha = alpha if known.alpha else None
    held = (
        (1 if held_alpha is None else 2) in known.greys
        and not masks
        and not form.profile
        and not form.display
    )
    if about.grey and integer and held and all(is_grey(planes) for _, planes in strips()):
        _write_grey(path, about, strips, held_alpha, kind, form.quality)
        return
    channels = 3 if held_alpha is None else 4
    own = about.profile if colours.space_of(about.profile) == "rgb" else b""
    icc = (profiles.named(form.profile) if form.profile else own) if integer else b""
    if form.profile == "sRGB" or not takes_profile(known.encoder, icc):
        icc = b""  # by its exact formula
    as_it_was = (
        original is not None
        and not form.profile
        and not form.display
        and integer
        and kind == about.depth
        and not colours.is_srgb(icc)
    )
    premultiplied = form.premultiplied and known.encoder == "tiff"
    spec = _spec_for(
        about,
        channels,
        kind,
        b"" if form.display else (icc or colours.srgb_profile()) if integer else b"",
    )
    if premultiplied:
        spec.attribute("oiio:UnassociatedAlpha", 0)
    if masks:
        spec.nchannels = channels + len(masks)
        spec.channelnames = (*"RGBA"[:channels], *_channel_names(masks))

    def rows(stored: Stored | None) -> Iterator[np.ndarray]:
        for top, planes in strips():
            here = slice(top, top + planes.shape[1])
            pixels = np.empty((planes.shape[1], width, spec.nchannels), SAMPLES[kind])
            if integer:
                codes = _codes_of(planes, icc, form.display, form.gamut)
                codes *= np.iinfo(kind).max
                np.rint(codes, out=codes)
                pixels[..., :3] = codes
                if stored is not None and original is not None:
                    as_read = original.part(0, here.start, width, here.stop).planes
                    same = (planes == as_read).all(axis=0)[..., None]
                    np.copyto(
                        pixels[..., :3], stored.rows(here.start, here.stop)[..., :3], where=same
                    )
            else:
                most = BRIGHTEST if kind == "half" else np.inf
                pixels[..., :3] = np.moveaxis(np.clip(planes, -most, most), 0, -1)
            if channels == 4 and alpha is not None:
                _add_alpha(pixels, alpha[here], premultiplied or not integer and not known.straight)
            for place, mask in enumerate(masks.values(), channels):
                pixels[..., place] = mask[here]
            yield pixels

    with _stored_samples(about) if as_it_was else contextlib.nullcontext() as stored:
        store(path, spec, rows(stored), form.quality)


@functools.lru_cache(maxsize=16)
def takes_profile(encoder: str, profile: bytes) -> bool:
    """Return whether a kind of file keeps a profile, tried on a pixel: some writers refuse or drop
    what Little CMS reads.
    """
    if not profile:
        return True
    channels = 1 if colours.space_of(profile) == "gray" else 3
    spec = oiio.ImageSpec(1, 1, channels, "uint8")
    spec.attribute(
        "ICCProfile", oiio.TypeDesc(f"uint8[{len(profile)}]"), np.frombuffer(profile, np.uint8)
    )
    with tempfile.TemporaryDirectory() as folder, quiet(), contextlib.suppress(OSError):
        path = pathlib.Path(folder) / f"a{formats.endings_of(encoder)[0]}"
        encode(encoder, spec, iter([np.zeros((1, 1, channels), np.uint8)]), path)
        held = oiio.ImageInput.open(str(path))
        return held is not None and held.spec().getattribute("ICCProfile") is not None
    return False


#: Sample types as NumPy has them.
SAMPLES = {"uint8": np.uint8, "uint16": np.uint16, "half": np.float16, "float": np.float32}


def _codes_of(planes: np.ndarray, icc: bytes, display: str, gamut: str) -> np.ndarray:
    """Light (3, H, W) as codes (H, W, 3) from 0 to 1, of a profile or, where one is named, of a
    display.
    """
    if display:
        shown: np.ndarray = np.moveaxis(colour_spaces.to_display(planes, display), 0, -1).clip(0, 1)
        return shown
    if gamut == "lower chroma" and colours.is_srgb(icc):
        planes = lower_chroma(planes)  # as on the screen
        return np.clip(colours.to_codes(planes, icc), 0, 1)
    codes = colours.to_codes(planes, icc)
    return (
        colours.fitted(codes, planes, icc)
        if gamut == "lower chroma"
        else np.clip(codes, 0, 1, out=codes)
    )


def _add_alpha(pixels: np.ndarray, alpha: np.ndarray, premultiplied: bool) -> None:
    """Put alpha (H, W) into the fourth channel of samples (H, W, 4), in place; the colours are
    multiplied by it where asked for.
    """
    if pixels.dtype.kind == "f":
        pixels[..., :3] *= alpha[..., None] if premultiplied else 1
        pixels[..., 3] = alpha
        return
    if premultiplied:
        np.rint(pixels[..., :3] * alpha[..., None], out=pixels[..., :3], casting="unsafe")
    pixels[..., 3] = np.rint(alpha * np.iinfo(pixels.dtype).max)


@contextlib.contextmanager
def _stored_samples(about: About) -> Iterator[Stored | None]:
    """The samples of the file that was read, while it is still that."""
    if not _is_as_read(about):
        yield None
        return
    with stored_in(about.path, about.part) as stored:
        yield stored if _is_as_read(about) and stored.size == about.size else None


def _is_as_read(about: About) -> bool:
    """Return whether the file is still the one that was read: another may lie in its place by
    now.
    """
    try:
        return about.mark is not None and key_of(about.path) == about.mark
    except OSError:
        return False


def _before_white(
    strips: Callable[[], Iterator[tuple[int, np.ndarray]]], alpha: np.ndarray
) -> Iterator[tuple[int, np.ndarray]]:
    """Lay what cannot be transparent over white; where it is opaque it stays bit by bit."""
    for top, planes in strips():
        share = alpha[top : top + planes.shape[1]]
        yield top, np.where(share == 1, planes, 1 + share * (planes - 1))


def _spec_for(about: About, channels: int, kind: str, profile: bytes) -> Any:
    """The description of a picture that is written from another one."""
    spec = oiio.ImageSpec(*about.size, channels, kind)
    for name, value in about.metadata.items():
        with contextlib.suppress(
            TypeError, RuntimeError
        ):  # what a damaged file said of itself need not be sayable again
            spec.attribute(name, value)
    spec.attribute("Orientation", 1)
    if kind.startswith("uint"):
        spec.attribute("oiio:UnassociatedAlpha", 1)
    if profile:
        spec.attribute(
            "ICCProfile", oiio.TypeDesc(f"uint8[{len(profile)}]"), np.frombuffer(profile, np.uint8)
        )
    if channels in (2, 4):
        spec.alpha_channel = channels - 1
    if about.timecode is not None:  # kinds of file that hold none leave it out
        rate = about.timecode.rate
        spec.attribute(
            "smpte:TimeCode", oiio.TypeTimeCode, np.array([about.timecode.word, 0], np.uint32)
        )
        spec.attribute(
            "FramesPerSecond",
            oiio.TypeRational,
            np.array([rate.numerator, rate.denominator], np.int32),
        )
        spec.attribute("dpx:FrameRate", float(rate))
    return spec


def is_grey(planes: np.ndarray) -> bool:
    """Return whether light (3, H, W) is the same in all channels, up to what an adjustment rounds
    off.
    """
    most = GREY * (1 + np.abs(planes[1]))
    return bool(
        (np.abs(planes[0] - planes[1]) <= most).all()
        and (np.abs(planes[2] - planes[1]) <= most).all()
    )


def _write_grey(
    path: pathlib.Path,
    about: About,
    strips: Callable[[], Iterator[tuple[int, np.ndarray]]],
    alpha: np.ndarray | None,
    kind: str,
    quality: int,
) -> None:
    """Write a grey picture as one, in its own profile."""
    most = np.iinfo(kind).max
    profile = about.profile if colours.space_of(about.profile) == "gray" else b""
    known = formats.format_of(path)
    profile = profile if known is not None and takes_profile(known.encoder, profile) else b""
    channels = 1 if alpha is None else 2

    def rows() -> Iterator[np.ndarray]:
        for top, planes in strips():
            pixels = np.empty((planes.shape[1], planes.shape[2], channels), SAMPLES[kind])
            pixels[..., 0] = np.rint(
                np.clip(colours.light_to_grey(planes[1], profile), 0, 1) * most
            )
            if alpha is not None:
                pixels[..., 1] = np.rint(alpha[top : top + planes.shape[1]] * most)
            yield pixels

    store(path, _spec_for(about, channels, kind, profile), rows(), quality)


def store(path: pathlib.Path, spec: Any, rows: Iterable[np.ndarray], quality: int = 95) -> None:
    """Write a picture, given as some rows (h, W, C) after others, beside the target and rename it
    into place; raises `Trouble` when that fails.
    """
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
        encode(known.encoder, spec, rows, partial)


def _channel_names(masks: dict[str, np.ndarray]) -> list[str]:
    """Names of channels after those of masks, each only once."""
    names: list[str] = []
    for name in masks:
        plain = re.sub(r"[^\w-]+", "_", name) or "mask"
        plain = f"mask_{plain}" if plain in ("R", "G", "B", "A") else plain
        names.append(plain if plain not in names else f"{plain}_{len(names) + 1}")
    return names


def write_masks(path: pathlib.Path, masks: dict[str, np.ndarray]) -> list[pathlib.Path]:
    """Write several masks (H, W) by name: as named channels of one OpenEXR file, else as a file
    each, their names after that of ``path``.

    Returns what was written.
    """
    path = pathlib.Path(path)
    if path.suffix.lower() == ".exr":
        names = _channel_names(masks)
        height, width = next(iter(masks.values())).shape
        spec = oiio.ImageSpec(width, height, len(masks), "float")
        spec.channelnames = tuple(names)
        store(
            path,
            spec,
            (
                np.stack([mask[top : top + ROWS] for mask in masks.values()], axis=-1)
                for top in range(0, height, ROWS)
            ),
        )
        return [path]
    written: list[pathlib.Path] = []
    for number, (name, mask) in enumerate(masks.items(), 1):
        plain = re.sub(r"[^\w-]+", "-", name).strip("-") or f"mask-{number}"
        one = path.with_name(f"{path.stem}-{plain}{path.suffix}")
        one = (
            one
            if one not in written
            else path.with_name(f"{path.stem}-{plain}-{number}{path.suffix}")
        )
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

    def rows() -> Iterator[np.ndarray]:
        for top in range(0, len(mask), ROWS):
            part = mask[top : top + ROWS, :, None]
            yield (
                part.astype(np.float32)
                if kind == "float"
                else np.rint(part * 65535).astype(np.uint16)
            )

    store(path, oiio.ImageSpec(mask.shape[1], mask.shape[0], 1, kind), rows())
