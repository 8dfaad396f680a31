"""Small clips of many containers, codecs and oddities, each frame with its number drawn into it.

Made by FFmpeg's command line; the number stands as black and white blocks, so that any codec keeps
it.
"""

import pathlib
import subprocess
from dataclasses import dataclass

import numpy as np

WIDTH, HEIGHT, FRAMES, BITS = 160, 96, 60, 8
#: Side of a block of the number, in pixels.
BLOCK = 16


@dataclass(frozen=True)
class Recipe:
    """How a clip is made: ``words`` encode, ``before`` stand before the input, ``then`` copy the
    clip once more without encoding.
    """

    name: str
    words: tuple[str, ...]
    before: tuple[str, ...] = ()
    then: tuple[str, ...] = ()
    then_before: tuple[str, ...] = ()
    sound: bool = False


H264 = ("-c:v", "libx264", "-preset", "veryfast", "-pix_fmt", "yuv420p", "-g", "20")
HEVC = (
    "-c:v",
    "libx265",
    "-preset",
    "ultrafast",
    "-pix_fmt",
    "yuv420p",
    "-x265-params",
    "log-level=none:keyint=20:bframes=3:open-gop=1",
)
MPEG4 = ("-c:v", "mpeg4", "-q:v", "3", "-bf", "2", "-g", "20")
MPEG2 = ("-c:v", "mpeg2video", "-q:v", "3", "-bf", "2", "-g", "12", "-pix_fmt", "yuv420p")
VP9 = (
    "-c:v",
    "libvpx-vp9",
    "-deadline",
    "realtime",
    "-cpu-used",
    "8",
    "-g",
    "20",
    "-b:v",
    "600k",
    "-pix_fmt",
    "yuv420p",
)
OPEN = ("-bf", "3", "-x264-params", "open-gop=1:bframes=3")
FRAGMENTS = ("-movflags", "frag_keyframe+empty_moov")


def recipes() -> list[Recipe]:
    """Return the clips there are."""
    made = []
    for container in ("mp4", "mov", "mkv", "avi", "ts", "nut", "mpg"):
        codecs = {
            "h264": (*H264, "-bf", "3"),
            "open": (*H264, *OPEN),
            "hevc": HEVC,
            "mpeg4": MPEG4,
            "mpeg2": MPEG2,
        }
        for codec, words in codecs.items():
            if container == "avi" and codec == "hevc":
                continue  # AVI has no code for it that FFmpeg would write
            if container == "mpg" and codec not in ("mpeg2", "h264"):
                continue
            tag = ("-tag:v", "hvc1") if codec == "hevc" and container in ("mp4", "mov") else ()
            made.append(Recipe(f"{codec}.{container}", (*words, *tag)))
    made += [
        Recipe("vp9.mkv", VP9),
        Recipe("vp9.webm", VP9),
        Recipe(
            "vp8.webm",
            (
                "-c:v",
                "libvpx",
                "-deadline",
                "good",
                "-cpu-used",
                "5",
                "-auto-alt-ref",
                "1",
                "-lag-in-frames",
                "16",
                "-b:v",
                "400k",
                "-pix_fmt",
                "yuv420p",
            ),
        ),
        Recipe("intra.mkv", ("-c:v", "ffv1", "-level", "3")),
        Recipe("intra.mov", ("-c:v", "prores_ks")),
        Recipe("intra.avi", ("-c:v", "mjpeg", "-q:v", "3", "-pix_fmt", "yuvj420p")),
        Recipe("fragments.mp4", (*H264, "-bf", "3", *FRAGMENTS)),
        Recipe("fragments-open.mp4", (*H264, *OPEN, *FRAGMENTS)),
        Recipe("fragments-sound.mp4", (*H264, "-bf", "3", *FRAGMENTS, "-c:a", "aac"), sound=True),
        Recipe(
            "short-fragments.mp4",
            (
                *H264,
                "-bf",
                "3",
                "-frag_duration",
                "300000",
                "-movflags",
                "empty_moov+default_base_moof",
            ),
        ),
        Recipe("offset.mkv", (*H264, "-bf", "3"), then=("-output_ts_offset", "5000")),
        Recipe("offset.mp4", (*H264, "-bf", "3"), then=("-output_ts_offset", "5")),
        Recipe("offset.ts", (*H264, "-bf", "3"), then=("-output_ts_offset", "90000")),
        Recipe(
            "negative.mkv",
            (*H264, "-bf", "3"),
            then=("-output_ts_offset", "-1", "-avoid_negative_ts", "disabled"),
        ),
        Recipe(
            "negative.mp4",
            (*H264, "-bf", "3"),
            then=("-output_ts_offset", "-1", "-avoid_negative_ts", "disabled"),
        ),
        Recipe("trim.mp4", (*H264, *OPEN), then_before=("-ss", "1.3"), then=()),
        Recipe("trim.mov", (*H264, "-bf", "3"), then_before=("-ss", "1.3"), then=()),
        Recipe("trim.mkv", (*H264, *OPEN), then_before=("-ss", "1.3"), then=()),
        Recipe(
            "trim-sound.mp4",
            (*H264, "-bf", "3", "-c:a", "aac"),
            then_before=("-ss", "1.3"),
            then=(),
            sound=True,
        ),
        Recipe(
            "pace.mp4",
            (*H264, "-bf", "3", "-vf", "setpts='(N+floor(N/7)*3)/25/TB'", "-fps_mode", "vfr"),
        ),
        Recipe(
            "pace.mkv",
            (*H264, "-bf", "3", "-vf", "setpts='(N+floor(N/7)*3)/25/TB'", "-fps_mode", "vfr"),
        ),
        Recipe("raw.h264", (*H264, "-bf", "3", "-f", "h264")),
        Recipe("raw-open.h264", (*H264, *OPEN, "-f", "h264")),
        Recipe("raw.hevc", (*HEVC, "-f", "hevc")),
        Recipe("raw.m2v", (*MPEG2, "-f", "mpeg2video")),
        Recipe("refresh.mkv", (*H264, "-x264-params", "intra-refresh=1:bframes=0")),
        Recipe(
            "one-key.mkv",
            (
                "-c:v",
                "libx264",
                "-preset",
                "veryfast",
                "-pix_fmt",
                "yuv420p",
                "-g",
                "999",
                "-bf",
                "8",
                "-b_strategy",
                "0",
            ),
        ),
        Recipe(
            "interlaced.ts", (*H264, "-bf", "2", "-flags", "+ildct+ilme", "-x264-params", "tff=1")
        ),
        Recipe("interlaced.mpg", (*MPEG2, "-flags", "+ildct+ilme")),
        Recipe("one.mp4", (*H264, "-frames:v", "1")),
        Recipe("two.mp4", (*H264, "-bf", "3", "-frames:v", "2")),
        Recipe("faststart.mp4", (*H264, "-bf", "3", "-movflags", "faststart")),
        Recipe("ntsc.mov", (*H264, "-bf", "3", "-r", "30000/1001", "-timecode", "01:00:59;28")),
    ]
    return made


def numbered_frames() -> bytes:
    """Return all frames as raw RGB: stripes that move, with the number of each drawn over them."""
    x, y = np.meshgrid(np.arange(WIDTH), np.arange(HEIGHT))
    frames = np.empty((FRAMES, HEIGHT, WIDTH, 3), np.uint8)
    for number in range(FRAMES):
        frames[number] = np.stack(
            [(x * 2 + number * 5) % 256, (y * 3 + number * 3) % 256, (x + y + number * 7) % 256],
            axis=-1,
        )
        for bit in range(BITS):
            frames[number, :BLOCK, bit * BLOCK : (bit + 1) * BLOCK] = (
                235 if number >> bit & 1 else 16
            )
    return frames.tobytes()


def number_in(codes: np.ndarray) -> int:
    """Return the number drawn into a frame (H, W, 3) or (H, W)."""
    grey = codes if codes.ndim == 2 else codes[..., 1]
    middle = BLOCK // 2
    return sum(
        int(
            grey[
                middle - 3 : middle + 3, bit * BLOCK + middle - 3 : bit * BLOCK + middle + 3
            ].mean()
            > 120
        )
        << bit
        for bit in range(BITS)
    )


def make(folder: pathlib.Path, recipe: Recipe, frames: bytes) -> pathlib.Path:
    """Make one clip."""
    path = folder / recipe.name
    first = (
        folder / f"first-{recipe.name.replace('.mpg', '.ts')}"
        if recipe.then or recipe.then_before
        else path
    )
    words = [
        "ffmpeg",
        "-v",
        "error",
        "-y",
        "-f",
        "rawvideo",
        "-pix_fmt",
        "rgb24",
        "-s",
        f"{WIDTH}x{HEIGHT}",
        "-r",
        "25",
        *recipe.before,
        "-i",
        "-",
    ]
    if recipe.sound:
        words += ["-f", "lavfi", "-i", f"sine=duration={FRAMES / 25 + 0.4}"]
    subprocess.run([*words, *recipe.words, first], input=frames, check=True)
    if first != path:
        subprocess.run(
            [
                "ffmpeg",
                "-v",
                "error",
                "-y",
                *recipe.then_before,
                "-i",
                first,
                "-c",
                "copy",
                *recipe.then,
                path,
            ],
            check=True,
        )
        first.unlink()
    return path


def numbers_by_ffmpeg(path: pathlib.Path) -> list[int]:
    """Return the numbers that FFmpeg's command line decodes, in the order they are shown."""
    words = [
        "ffmpeg",
        "-v",
        "quiet",
        "-i",
        path,
        "-map",
        "0:v:0",
        "-fps_mode",
        "passthrough",
        "-f",
        "rawvideo",
        "-pix_fmt",
        "gray",
        "-",
    ]
    data = subprocess.run(words, capture_output=True, check=False).stdout
    frames = np.frombuffer(data, np.uint8).reshape(-1, HEIGHT, WIDTH)
    return [number_in(frame) for frame in frames]
