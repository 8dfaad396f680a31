"""From the colours of a file to linear Rec. 709 light and back, by Little CMS where a profile asks
for it.
"""

from __future__ import annotations

import contextlib
import functools
import io

import imagecodecs
import numpy as np

from ...core.colour.oklab import from_oklab, to_oklab
from ...core.colour.transfer import decode, encode

#: Relative colorimetric: white stays white.
INTENT = 1
#: How far a profile may be from sRGB (as coded values) and still be read as sRGB itself.
SAME = 2e-3
#: Halvings by which a curve is turned round: one code of 16 bits.
HALVINGS = 16


@functools.cache
def linear_profile() -> bytes:
    """ICC profile of the working space: linear light, Rec. 709 primaries, D65 (ITU-R BT.709)."""
    made: bytes = imagecodecs.cms_profile(
        "rgb",
        gamma=1.0,
        whitepoint=[0.3127, 0.3290, 1.0],
        primaries=[0.64, 0.33, 1.0, 0.30, 0.60, 1.0, 0.15, 0.06, 1.0],
    )
    return made


@functools.cache
def srgb_profile() -> bytes:
    """An ICC profile of sRGB, made by Little CMS."""
    from PIL import ImageCms  # slow to load

    return undated(ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes())


def undated(profile: bytes) -> bytes:
    """A profile made on the first day of ICC.1:2022: files that are written twice are the same bit
    by bit.
    """
    return (
        profile[:24]
        + b"\x07\xe6\x00\x01\x00\x01"
        + b"\0" * 6
        + profile[36:84]
        + b"\0" * 16
        + profile[100:]
    )


#: Bytes of a profile without a single tag (ICC.1:2022, 7.1): header and number of tags.
SHORTEST = 132
#: The last rendering intent, and the illuminant of every profile, as it stands in the header.
MAX_INTENT, D50 = 3, bytes.fromhex("0000f6d6000100000000d32d")


@functools.lru_cache(maxsize=32)
def sound_profile(profile: bytes) -> bytes | None:
    """Return a profile as writers of pictures take it; None for a damaged one.

    A sound one names its own length (ICC.1:2022, 7.2.2), is opened by Little CMS and, in RGB,
    leads somewhere finite. What lies behind its end is left out, and header fields that readers
    pass over but writers refuse are set to what the standard has (7.2.15 and 7.2.16).
    """
    from PIL import ImageCms  # slow to load

    length = int.from_bytes(profile[:4], "big")
    if not SHORTEST <= length <= len(profile):
        return None
    intent = profile[64:68] if int.from_bytes(profile[64:68], "big") <= MAX_INTENT else bytes(4)
    held = profile[:64] + intent + D50 + profile[80:length]
    try:
        ImageCms.ImageCmsProfile(io.BytesIO(held))
        if space_of(held) == "rgb":
            return (
                held if np.isfinite(_transform(np.eye(3), held, linear_profile())).all() else None
            )
    except Exception:  # Little CMS says only that it failed
        return None
    return held


def space_of(profile: bytes) -> str:
    """Return the colour space of a profile (ICC.1:2022, header bytes 16 to 19): "rgb", "gray",
    "cmyk" …; "" without a profile.
    """
    return profile[16:20].decode("latin-1").strip().lower() if len(profile) >= 128 else ""


@functools.lru_cache(maxsize=8)
def _grey_curve(profile: bytes) -> tuple[np.ndarray, np.ndarray]:
    """Codes from 0 to 1 and their light in a grey profile; the sRGB curve where it has none that
    rises.
    """
    codes = np.linspace(0, 1, 4096, dtype=np.float32)
    light = decode(codes)
    if space_of(profile) == "gray":
        with contextlib.suppress(
            Exception
        ):  # Little CMS says only that it failed: the profile is damaged
            held = imagecodecs.cms_transform(
                codes[None, :, None],
                profile,
                linear_profile(),
                colorspace="gray",
                outcolorspace="rgb",
                outdtype="float32",
                intent=INTENT,
            )
            found = np.asarray(held, np.float32).reshape(-1, 3).mean(axis=1)
            if np.isfinite(found).all() and (np.diff(found) >= 0).all() and found[-1] > 0.5:
                light = found
    return codes, light


def grey_to_light(coded: np.ndarray, profile: bytes) -> np.ndarray:
    """Grey codes (H, W) in 0 to 1 as light, by the curve of a grey profile."""
    codes, light = _grey_curve(profile)
    return np.interp(coded, codes, light).astype(np.float32)


def light_to_grey(light: np.ndarray, profile: bytes) -> np.ndarray:
    """Light (H, W) as grey codes: the inverse of `grey_to_light`; without a profile by the sRGB
    curve.
    """
    if space_of(profile) != "gray":
        return encode(light)
    codes, held = _grey_curve(profile)
    return np.interp(light, held, codes).astype(np.float32)


def name_of(profile: bytes) -> str:
    """The description in a profile, or what it is instead."""
    if not profile:
        return "none (read as sRGB)"
    from PIL import ImageCms  # slow to load

    try:
        return ImageCms.getProfileDescription(ImageCms.ImageCmsProfile(io.BytesIO(profile))).strip()
    except (ImageCms.PyCMSError, OSError):
        return "damaged (read as sRGB)"


def _transform(values: np.ndarray, one: bytes, other: bytes) -> np.ndarray:
    """(N, 3) float32 through Little CMS."""
    shaped = np.ascontiguousarray(values, np.float32).reshape(1, -1, 3)
    done: np.ndarray = imagecodecs.cms_transform(
        shaped, one, other, colorspace="rgb", outcolorspace="rgb", outdtype="float32", intent=INTENT
    )
    return done.reshape(-1, 3)


@functools.lru_cache(maxsize=32)
def is_srgb(profile: bytes) -> bool:
    """Return whether a profile means sRGB closely enough to use its exact formula; so does a
    missing or damaged one.
    """
    if not profile:
        return True
    grid = np.stack(np.meshgrid(*[np.linspace(0, 1, 9)] * 3, indexing="ij"), -1).reshape(-1, 3)
    try:
        light = _transform(grid, profile, linear_profile())
    except Exception:  # Little CMS says only that it failed: not an RGB profile, or a damaged one
        return True
    return bool(np.abs(encode(light) - grid).max() < SAME)


def to_light(coded: np.ndarray, profile: bytes) -> np.ndarray:
    """Coded values in a profile's space as linear light.

    Parameters
    ----------
    coded : (rows, W, 3) float32, 0 to 1 for integer files.

    Returns
    -------
    (rows, W, 3) float32
    """
    if is_srgb(profile):
        return decode(coded)
    return _transform(coded.reshape(-1, 3), profile, linear_profile()).reshape(coded.shape)


def to_codes(planes: np.ndarray, profile: bytes) -> np.ndarray:
    """Linear light (3, rows, W) as coded values (rows, W, 3) float32 in a profile's space; what is
    outside its gamut stays outside 0 to 1.
    """
    pixels = np.ascontiguousarray(np.moveaxis(planes, 0, -1))
    if is_srgb(profile):
        return encode(pixels)
    return _transform(pixels.reshape(-1, 3), linear_profile(), profile).reshape(pixels.shape)


def fitted(codes: np.ndarray, planes: np.ndarray, profile: bytes) -> np.ndarray:
    """Coded values with every colour outside the profile's gamut brought back by lowering chroma at
    constant Oklab lightness and hue (CSS Color 4).

    Parameters
    ----------
    codes : (rows, W, 3) float32 from `to_codes`; changed in place.
    planes : (3, rows, W) float32, the light they stand for.
    """
    slack = 1e-5
    outside = (codes.min(2) < -slack) | (codes.max(2) > 1 + slack)
    if outside.any():
        lab = to_oklab(np.ascontiguousarray(planes[:, outside])[:, None])
        low, high = np.zeros(lab.shape[2], np.float32), np.ones(lab.shape[2], np.float32)
        ends = np.clip(lab[0, 0], 0, 1)
        lab[0, 0] = ends

        def at(share: np.ndarray) -> np.ndarray:
            return to_codes(
                from_oklab(np.stack([lab[0], lab[1] * share, lab[2] * share])), profile
            )[0]

        for _ in range(HALVINGS):
            middle = (low + high) / 2
            coded = at(middle)
            inside = (coded.min(1) >= 0) & (coded.max(1) <= 1)
            low, high = np.where(inside, middle, low), np.where(inside, high, middle)
        codes[outside] = at(low)
    return np.clip(codes, 0, 1, out=codes)
