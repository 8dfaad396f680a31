"""Pictures in files: JPEG, PNG, TIFF, OpenEXR, WebP, through OpenImageIO."""

from __future__ import annotations

import pathlib
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
import OpenImageIO as oiio

from ..core.colour.transfer import decode_integers
from ..core.frame import Frame
from ..errors import Trouble
from ..files import written_beside
from . import colour_management as colours
from .source import About, key_of

READS = (".jpg", ".jpeg", ".png", ".tif", ".tiff", ".exr", ".webp")
#: Ending: sample types it can hold, the default first.
WRITES: dict[str, tuple[str, ...]] = {
    ".png": ("uint8", "uint16"),
    ".jpg": ("uint8",),
    ".jpeg": ("uint8",),
    ".tif": ("uint16", "uint8", "float"),
    ".tiff": ("uint16", "uint8", "float"),
    ".exr": ("half", "float"),
}
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


@dataclass
class Still:
    """One picture file."""

    about: About
    picture: Frame

    def frame(self, number: int) -> Frame:
        """The picture; it has only frame 0."""
        return self.picture

    def close(self) -> None:
        """Nothing is held open."""


def _problem(path: pathlib.Path) -> Trouble:
    """Why a file could not be opened as a picture, in one sentence."""
    if not path.exists():
        return Trouble(f"{path} does not exist: check the name.")
    if path.is_dir():
        return Trouble(f"{path} is a folder: give the name of a picture.")
    if path.stat().st_size == 0:
        return Trouble(f"{path} is empty (0 bytes): restore it from where it came from.")
    if path.suffix.lower() in READS:
        return Trouble(f"{path} is not a readable {path.suffix[1:].upper()} picture: it is damaged or has the wrong ending.")
    return Trouble(f"{path} cannot be opened: give a picture ({', '.join(end[1:].upper() for end in READS)}), a clip or a project.")


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
    for top in range(0, height, ROWS):
        part = pixels[top : top + ROWS]
        if channels == 1:
            part = np.repeat(part, 3, axis=2)
        if linear:
            light = part.astype(np.float32)
        elif part.dtype.kind == "u" and colours.is_srgb(profile):
            light = decode_integers(part)
        else:
            scale = np.iinfo(part.dtype).max if part.dtype.kind == "u" else 1
            light = colours.to_light(part.astype(np.float32) / np.float32(scale), profile)
        planes[:, top : top + ROWS] = np.moveaxis(light, -1, 0)
    if pixels.dtype.kind == "f":
        np.nan_to_num(planes, copy=False, nan=0.0, posinf=65504.0, neginf=-65504.0)
    return planes


def _samples_of(path: pathlib.Path) -> tuple[np.ndarray, Any, str]:
    """The stored samples (H, W, C), upright; the file's own description; the sample type."""
    hints = oiio.ImageSpec()
    hints.attribute("oiio:UnassociatedAlpha", 1)
    opened = oiio.ImageInput.open(str(path), hints) if path.is_file() and path.stat().st_size else None
    if opened is None:
        oiio.geterror()
        raise _problem(path)
    spec = opened.spec()
    stored = str(spec.format)
    kind = stored if stored in ("uint8", "uint16", "half") else "uint16" if "int" in stored else "float"
    pixels = opened.read_image(0, 0, 0, spec.nchannels, kind if kind.startswith("uint") else "float")
    complaint = opened.geterror()
    opened.close()
    if pixels is None or complaint:
        raise Trouble(f"{path} is cut short or damaged: restore it from where it came from.")
    upright = _upright(pixels.reshape(spec.height, spec.width, spec.nchannels), spec.get_int_attribute("Orientation", 1))
    return upright, spec, kind


def read(path: pathlib.Path) -> Still:
    """Read a picture, upright, as linear light.

    Integer files are in their embedded ICC profile, or sRGB; float files are linear Rec. 709 unless a profile says otherwise.
    Alpha is kept apart from the colours (not multiplied in).

    Raises
    ------
    Trouble: missing, empty, damaged, cut short, or not a picture.
    """
    path = pathlib.Path(path)
    pixels, spec, kind = _samples_of(path)
    alpha_at = spec.alpha_channel if spec.alpha_channel >= 0 else (3 if spec.nchannels == 4 else 1 if spec.nchannels == 2 else -1)
    profile = spec.getattribute("ICCProfile")
    profile = bytes(np.asarray(profile, np.uint8)) if profile is not None else b""
    planes = _to_planes(pixels[..., :3] if spec.nchannels >= 3 else pixels[..., :1], profile, kind in ("half", "float") and not profile)
    alpha = None
    if alpha_at >= 0:
        alpha = np.ascontiguousarray(pixels[..., alpha_at], np.float32)
        if kind.startswith("uint"):
            alpha /= np.iinfo(kind).max
        elif kind in ("half", "float") and not spec.get_int_attribute("oiio:UnassociatedAlpha", 0):
            np.divide(planes, alpha, out=planes, where=alpha > 0)
    height, width = pixels.shape[:2]
    tags = {
        "format": path.suffix[1:].upper(),
        "samples": kind,
        "channels": str(spec.nchannels),
        "profile": colours.name_of(profile) if kind.startswith("uint") or profile else "none (linear light)",
    }
    about = About(path, "still", (width, height), kind, profile, _carried(spec), tags=tags)
    return Still(about, Frame(planes, alpha, key_of(path)))


def depth_for(ending: str, wanted: str) -> str:
    """The sample type to write for this ending: the wanted one where it can be held, else the nearest.

    Raises
    ------
    Trouble: nothing can be written with this ending.
    """
    if ending.lower() not in WRITES:
        raise Trouble(f"Pictures cannot be written as «{ending or 'no ending'}»: end the name in {', '.join(WRITES)}.")
    can = WRITES[ending.lower()]
    if wanted in can:
        return wanted
    deep = "uint16" if wanted in ("half", "float") else "half" if wanted == "uint16" else can[0]
    return deep if deep in can else can[0]


def write(
    path: pathlib.Path,
    about: About,
    strips: Callable[[], Iterator[tuple[int, np.ndarray]]],
    alpha: np.ndarray | None = None,
    depth: str = "",
    gamut: str = "lower chroma",
    quality: int = 95,
    original: Frame | None = None,
) -> None:
    """Write a picture in the profile, with the metadata, of the one it was made from.

    Parameters
    ----------
    about : the picture it was made from.
    strips : gives (top row, planes (3, rows, W) of linear light) from top to bottom.
    alpha : (H, W) float32 or None.
    depth : sample type; by default the one of ``about``, as far as the ending allows.
    gamut : "lower chroma" or "clip"; only for integer types.
    quality : of JPEG, 1 to 100.
    original : what was read from ``about.path``, if that is where the strips come from: where nothing has changed, the
        stored samples are written again, since going through a wide profile and back can cost the last bit.

    Raises
    ------
    Trouble: unknown ending, or the file could not be written (an earlier file is then still whole).
    """
    path = pathlib.Path(path)
    kind = depth_for(path.suffix, depth or about.depth)
    width, height = about.size
    integer = kind.startswith("uint")
    channels = 4 if alpha is not None and path.suffix.lower() not in (".jpg", ".jpeg") else 3
    pixels = np.empty((height, width, channels), {"uint8": np.uint8, "uint16": np.uint16, "half": np.float16, "float": np.float32}[kind])
    profile = about.profile if integer else b""
    stored = None
    if original is not None and integer and kind == about.depth and not colours.is_srgb(profile):
        stored = _samples_of(about.path)[0]
    for top, planes in strips():
        rows = slice(top, top + planes.shape[1])
        target = pixels[rows, :, :3]
        if integer:
            codes = colours.to_codes(planes, profile)
            codes = colours.fitted(codes, planes, profile) if gamut == "lower chroma" else np.clip(codes, 0, 1, out=codes)
            codes *= np.iinfo(kind).max
            np.rint(codes, out=codes)
            target[...] = codes
            if stored is not None and original is not None:
                np.copyto(target, stored[rows, :, :3], where=(planes == original.planes[:, rows]).all(axis=0)[..., None])
        else:
            target[...] = np.moveaxis(planes, 0, -1)
    if channels == 4 and alpha is not None:
        if not integer:
            pixels[..., :3] *= alpha[..., None]
        pixels[..., 3] = np.rint(alpha * np.iinfo(kind).max) if integer else alpha
    spec = oiio.ImageSpec(width, height, channels, kind)
    for name, value in about.metadata.items():
        spec.attribute(name, value)
    spec.attribute("Orientation", 1)
    if integer:
        held = profile or colours.srgb_profile()
        spec.attribute("ICCProfile", oiio.TypeDesc(f"uint8[{len(held)}]"), np.frombuffer(held, np.uint8))
        spec.attribute("oiio:UnassociatedAlpha", 1)
    store(path, spec, pixels, quality)


def store(path: pathlib.Path, spec: Any, pixels: np.ndarray, quality: int = 95) -> None:
    """Write pixels (H, W, C) beside the target and rename them into place."""
    if path.suffix.lower() in (".jpg", ".jpeg"):
        spec.attribute("Compression", f"jpeg:{quality}")
        spec.attribute("jpeg:subsampling", "4:4:4")
    elif path.suffix.lower() in (".tif", ".tiff", ".exr"):
        spec.attribute("Compression", "zip")
    with written_beside(path) as partial:
        out = oiio.ImageOutput.create(str(partial))
        if out is None or not out.open(str(partial), spec):
            raise Trouble(f"{path} could not be written: choose another place, or check the folder's permissions.")
        done = out.write_image(np.ascontiguousarray(pixels))
        done = out.close() and done
        if not done:
            raise Trouble(f"{path} could not be written whole: check the free space, or choose another place.")


def write_mask(path: pathlib.Path, mask: np.ndarray) -> None:
    """Write a mask as a grey picture: 16-bit PNG or TIFF, or float EXR, by the ending.

    Parameters
    ----------
    mask : (H, W) float32, 0 to 1; stored as it is, not gamma-coded.
    """
    path = pathlib.Path(path)
    ending = path.suffix.lower()
    if ending not in (".png", ".tif", ".tiff", ".exr"):
        raise Trouble(f"Masks cannot be written as «{ending or 'no ending'}»: end the name in .png, .tif or .exr.")
    kind = "float" if ending == ".exr" else "uint16"
    pixels = mask.astype(np.float32) if kind == "float" else np.rint(mask * 65535).astype(np.uint16)
    spec = oiio.ImageSpec(mask.shape[1], mask.shape[0], 1, kind)
    store(path, spec, pixels[..., None])
