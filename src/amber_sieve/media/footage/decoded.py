"""Decoded frames as light: matrix and range as the stream says, planes as they lie in memory."""

from __future__ import annotations

import re
import threading
from typing import Any

import av
import numpy as np
from av.video.frame import VideoFrame
from av.video.reformatter import ColorRange, Interpolation

from ...core.colour.luma_chroma import LUMA_WEIGHTS, Samples, to_light

#: FFmpeg's numbers (ITU-T H.273) for what streams commonly say.
UNSPECIFIED = 2
MATRIX_NAMES = {
    0: "RGB",
    1: "BT.709",
    4: "FCC",
    5: "BT.601 (625)",
    6: "BT.601 (525)",
    7: "SMPTE 240M",
    9: "BT.2020",
    10: "BT.2020 (constant)",
}
RANGE_NAMES = {1: "limited", 2: "full"}
#: A stream that names no matrix is taken as BT.709 from this height on, as BT.601 below (common
#: practice, no source).
HD_HEIGHT = 576


def matrix_of(number: int, height: int) -> int:
    """The matrix to decode with: the stream's, or what its height suggests."""
    return number if number in LUMA_WEIGHTS else (1 if height > HD_HEIGHT else 6)


def range_of(frame: VideoFrame) -> ColorRange:
    """The range to decode with: the stream's; limited when it does not say."""
    return (
        ColorRange.JPEG
        if frame.color_range == ColorRange.JPEG or frame.format.name.startswith("yuvj")
        else ColorRange.MPEG
    )


def plane_of(frame: VideoFrame, index: int) -> np.ndarray:
    """One plane of a frame as it lies in memory, (rows, at least the columns there are), shared
    with it.
    """
    held = frame.planes[index]
    values = np.frombuffer(
        memoryview(held), np.uint16 if frame.format.components[index].bits > 8 else np.uint8
    )
    return values.reshape(held.height, -1)


def samples_of(pixels: av.VideoFormat, matrix: int, full: bool, used: int = 0) -> Samples:
    """Return how light is coded in a format of planes."""
    across, down = (64 // size for size in (pixels.chroma_width(64), pixels.chroma_height(64)))
    return Samples(matrix, 16 if used else pixels.components[0].bits, full, across, down, used)


#: Formats that hold the samples of others in another order.
SAME_AS = {
    "nv12": "yuv420p",
    "yuyv422": "yuv422p",
    "uyvy422": "yuv422p",
    "p010le": "yuv420p10le",
    "p210le": "yuv422p10le",
}
#: Formats whose planes are read as they are, and the one that others are brought to, its samples
#: being those they had, moved up.
PLANES = re.compile(r"yuv(j|a)?4(20|22|44)p((9|10|12|14|16)le)?")
MOVED_UP = "yuv444p16le"


def is_luma_chroma(pixels: av.VideoFormat) -> bool:
    """Return whether a format holds Y', Cb and Cr."""
    return not pixels.is_rgb and len(pixels.components) >= 3


#: What converts a frame is kept with the frame and writes into it while it works: two threads at
#: once would end the program.
_CONVERTING = tuple(threading.Lock() for _ in range(61))


def converted(frame: VideoFrame, **how: Any) -> VideoFrame:
    """A frame in another pixel format or size, see `VideoFrame.reformat`; may be called for the
    same frame from several threads at once.
    """
    with _CONVERTING[id(frame) // 16 % len(_CONVERTING)]:
        return frame.reformat(**how)


def light_of(
    frame: VideoFrame, curve: int, primaries: int, size: tuple[int, int] | None = None
) -> np.ndarray:
    """Linear light (3, H, W) of a decoded frame of Y'CbCr, by its own matrix and range; ``size`` is
    width and height to shrink to.
    """
    extent, name, used = range_of(frame), SAME_AS.get(frame.format.name, frame.format.name), 0
    matrix, height = matrix_of(int(frame.colorspace), frame.height), frame.height
    if size is None and PLANES.fullmatch(name):
        planes = (
            frame
            if name == frame.format.name
            else converted(frame, format=name, src_color_range=extent, dst_color_range=extent)
        )
    else:
        used, (width, height) = frame.format.components[0].bits, size or (frame.width, frame.height)
        how = Interpolation.AREA | Interpolation.ACCURATE_RND
        planes = converted(
            frame,
            width=width,
            height=height,
            format=MOVED_UP,
            interpolation=how,
            src_color_range=extent,
            dst_color_range=extent,
        )
    luma, blue, red = (plane_of(planes, index) for index in range(3))
    return to_light(
        luma,
        blue,
        red,
        planes.width,
        samples_of(planes.format, matrix, extent == ColorRange.JPEG, used),
        curve,
        primaries,
    )


def alpha_of(frame: VideoFrame, size: tuple[int, int] | None = None) -> np.ndarray | None:
    """Return the alpha (H, W) float32 of a decoded frame, None where its format has none; ``size``
    is width and height to shrink to.
    """
    at = next(
        (index for index, component in enumerate(frame.format.components) if component.is_alpha),
        None,
    )
    if at is None:
        return None
    if size is not None or not PLANES.fullmatch(frame.format.name):
        width, height = size or (frame.width, frame.height)
        deep = "yuva444p16le" if is_luma_chroma(frame.format) else "gbrap16le"
        frame, at = (
            converted(
                frame, width=width, height=height, format=deep, interpolation=Interpolation.AREA
            ),
            3,
        )
    most = 2 ** frame.format.components[at].bits - 1
    alpha: np.ndarray = plane_of(frame, at)[:, : frame.width] / np.float32(most)
    return alpha


def to_rgb16(frame: VideoFrame, size: tuple[int, int] | None = None) -> np.ndarray:
    """Red, green, blue codes (H, W, 3) uint16 of a decoded frame of RGB or greys; ``size`` is width
    and height to shrink to.

    They may share the memory of the frame: read only.
    """
    spread = converted(
        frame,
        width=size[0] if size else None,
        height=size[1] if size else None,
        interpolation=Interpolation.AREA if size else None,
        format="rgb48le",
        src_color_range=None if frame.format.is_rgb else range_of(frame),
        dst_color_range=ColorRange.JPEG,
    )
    held = spread.planes[0]
    rows = np.frombuffer(memoryview(held), np.uint16).reshape(held.height, -1)
    return np.ascontiguousarray(rows[:, : 3 * held.width]).reshape(held.height, held.width, 3)
