"""Pictures as cameras give them, made of clean ones: noisy, compressed, soft, dark, flat, in mixed
light.

Shot noise grows with the square root of light. A flat picture was coded with a log curve and is
read as sRGB. Film is H.264 in 4:2:0.
"""

import pathlib
import subprocess
import tempfile

import cv2
import numpy as np

from amber_sieve.core.colour.transfer import decode, encode

KINDS = ("clean", "jpeg", "film", "noise", "soft", "dark", "flat", "mixed")
#: Blur of a picture out of focus, and of what is true in it, pixels.
FOCUS = 2.5
#: Gains of light that is warmer and cooler by a quarter, and 1.2 stops darker.
WARM, COOL = (
    np.array(gains, np.float32) * np.float32(2**-1.2) for gains in ((1.25, 1, 0.8), (0.8, 1, 1.25))
)


def in_light(planes: np.ndarray, gains: np.ndarray) -> np.ndarray:
    """A picture (3, H, W) of linear light in other light, 8 bit."""
    return _read(_codes(np.minimum(planes * gains[:, None, None], 1)))


def as_cameras_give(planes: np.ndarray, kind: str, seed: int = 5) -> np.ndarray:
    """A picture (3, H, W) of linear light, 8 bit, as one of ``KINDS``."""
    rng = np.random.default_rng(seed)

    def noisy(light: np.ndarray, much: float) -> np.ndarray:
        grain = rng.normal(size=light.shape) * much * np.sqrt(np.clip(light, 0.004, 2))
        return np.clip(light + grain, 0, None)

    if kind == "clean":
        return planes
    if kind == "jpeg":
        return _read(_through_jpeg(_codes(planes), 55))
    if kind == "film":
        return _read(_through_film(_codes(noisy(planes, 0.02))))
    if kind == "flat":
        coded = 0.392 + 0.247 * np.log10(5.5 * noisy(planes, 0.008) + 0.052)
        return _read(_eight(np.moveaxis(coded, 0, -1)))
    light = {
        "noise": lambda: noisy(planes, 0.045),
        "soft": lambda: np.stack([cv2.GaussianBlur(plane, (0, 0), FOCUS) for plane in planes]),
        "dark": lambda: noisy(planes / 10, 0.012),
        "mixed": lambda: planes * _mixed(planes.shape[2]),
    }[kind]()
    return _read(_codes(light))


def _mixed(width: int) -> np.ndarray:
    """Cool light on the left, warm on the right, (3, 1, W)."""
    cool, warm = np.array([0.72, 0.97, 1.30]), np.array([1.30, 1.0, 0.72])
    right = np.linspace(0, 1, width)
    return ((1 - right) * cool[:, None] + right * warm[:, None])[:, None]


def _eight(coded: np.ndarray) -> np.ndarray:
    return (np.clip(coded, 0, 1) * 255).round().astype(np.uint8)


def _codes(light: np.ndarray) -> np.ndarray:
    """sRGB codes (H, W, 3)."""
    return _eight(np.moveaxis(encode(light.astype(np.float32)), 0, -1))


def _read(codes: np.ndarray) -> np.ndarray:
    coded = np.moveaxis(codes.astype(np.float32) / 255, -1, 0)
    return decode(np.ascontiguousarray(coded))


def _through_jpeg(codes: np.ndarray, quality: int) -> np.ndarray:
    words = [cv2.IMWRITE_JPEG_QUALITY, quality]
    held = cv2.imencode(".jpg", np.ascontiguousarray(codes[..., ::-1]), words)[1]
    return cv2.imdecode(held, cv2.IMREAD_COLOR)[..., ::-1]


def _through_film(codes: np.ndarray) -> np.ndarray:
    high, wide = codes.shape[0] // 2 * 2, codes.shape[1] // 2 * 2
    ask = ["ffmpeg", "-y", "-loglevel", "error"]
    with tempfile.TemporaryDirectory() as folder:
        one, clip = pathlib.Path(folder) / "one.png", pathlib.Path(folder) / "one.mp4"
        cv2.imwrite(str(one), np.ascontiguousarray(codes[:high, :wide, ::-1]))
        coder = ["-pix_fmt", "yuv420p", "-c:v", "libx264", "-crf", "26"]
        subprocess.run([*ask, "-i", one, *coder, clip], check=True)
        subprocess.run([*ask, "-i", clip, "-frames:v", "1", one], check=True)
        back = cv2.imread(str(one))[..., ::-1]
    room = ((0, codes.shape[0] - high), (0, codes.shape[1] - wide), (0, 0))
    return np.pad(back, room, mode="edge")
