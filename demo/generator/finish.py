"""From rendered light to the files of the demo: sensor noise, coding, coverage as grey pictures,
the clip with its sound.

    python demo/generator/finish.py RENDERED_FOLDER DEMO_FOLDER

RENDERED_FOLDER holds what render.py wrote: yard/, close/, madder/, clip/.
"""

from __future__ import annotations

import pathlib
import sys
from fractions import Fraction

import av
import numpy as np
from PIL import Image, ImageCms

RATE, SOUND_RATE = 24, 48_000


def noisy(light: np.ndarray, seed: int) -> np.ndarray:
    """What a sensor records: shot noise that grows with the square root of light, and read
    noise.
    """
    deviation = np.sqrt(np.clip(light, 0, None) * 3.0e-5 + 8e-4**2)
    return light + np.random.default_rng(seed).normal(size=light.shape) * deviation


def coded(light: np.ndarray) -> np.ndarray:
    """sRGB codes 0 to 1 (IEC 61966-2-1)."""
    light = np.clip(light, 0, 1)
    return np.where(light <= 0.0031308, 12.92 * light, 1.055 * light ** (1 / 2.4) - 0.055)


def still(
    rendered: pathlib.Path, out: pathlib.Path, name: str, seed: int, truth: bool = True
) -> None:
    """One picture, and the coverage of every object in it."""
    held = np.load(rendered / name / f"{name}.npz")
    picture = Image.fromarray(
        np.rint(coded(noisy(held["light"].astype(np.float64), seed)) * 255).astype(np.uint8)
    )
    profile = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    picture.save(out / f"{name}.png", optimize=True, icc_profile=profile)
    if truth:
        folder = out / f"{name}.truth"
        folder.mkdir(exist_ok=True)
        for kind in held.files:
            if kind != "light" and held[kind].max() > 0.5:
                Image.fromarray(np.rint(held[kind] * 255).astype(np.uint8)).save(
                    folder / f"{kind}.png", optimize=True
                )


def wind(samples: int) -> np.ndarray:
    """A soft gust and two far bells, int16 (1, samples)."""
    rng = np.random.default_rng(4)
    t = np.arange(samples) / SOUND_RATE
    spectrum = np.fft.rfft(rng.normal(size=samples))
    frequency = np.fft.rfftfreq(samples, 1 / SOUND_RATE)
    hiss = np.fft.irfft(spectrum / (1 + (frequency / 300) ** 2), samples)
    sound = hiss / np.abs(hiss).max() * (0.25 + 0.2 * np.sin(2 * np.pi * t / 3.3))
    for start, pitch in ((0.6, 1318.5), (2.1, 1568.0)):
        after = np.clip(t - start, 0, None)
        sound += 0.12 * np.sin(2 * np.pi * pitch * after) * np.exp(-3 * after) * (t > start)
    return (np.clip(sound, -1, 1) * 28_000).astype(np.int16)[None]


def clip(rendered: pathlib.Path, out: pathlib.Path) -> None:
    """The clip as H.264 with sound, and the coverage of three objects as lossless grey footage."""
    files = sorted((rendered / "clip").glob("clip-*.npz"))
    height, width = np.load(files[0])["cloth"].shape
    with av.open(str(out / "clip.mp4"), "w") as container:
        video = container.add_stream("libx264", RATE, options={"preset": "slow"})
        video.width, video.height, video.pix_fmt = width, height, "yuv420p"
        context = video.codec_context
        context.bit_rate = 7_600_000  # keeps the file below 4 MB
        context.colorspace, context.color_primaries, context.color_trc, context.color_range = (
            1,
            1,
            1,
            1,
        )
        audio = container.add_stream("aac", SOUND_RATE, layout="mono")
        for number, path in enumerate(files):
            codes = np.rint(
                coded(noisy(np.load(path)["light"].astype(np.float64), 500 + number)) * 65535
            ).astype(np.uint16)
            frame = av.VideoFrame.from_ndarray(codes, "rgb48le").reformat(
                format="yuv420p", dst_colorspace=1, src_color_range=2, dst_color_range=1
            )
            frame.pts, frame.time_base = number, Fraction(1, RATE)
            container.mux(video.encode(frame))
        container.mux(video.encode(None))
        sound = av.AudioFrame.from_ndarray(
            wind(len(files) * SOUND_RATE // RATE), format="s16", layout="mono"
        )
        sound.sample_rate, sound.pts = SOUND_RATE, 0
        container.mux(audio.encode(sound))
        container.mux(audio.encode(None))
    folder = out / "clip.truth"
    folder.mkdir(exist_ok=True)
    for kind in ("turquoise", "cloth", "cup"):
        with av.open(str(folder / f"{kind}.mkv"), "w") as container:
            video = container.add_stream("ffv1", RATE)
            video.width, video.height, video.pix_fmt = width, height, "gray"
            for number, path in enumerate(files):
                frame = av.VideoFrame.from_ndarray(np.load(path)[kind], "gray")
                frame.pts, frame.time_base = number, Fraction(1, RATE)
                container.mux(video.encode(frame))
            container.mux(video.encode(None))


def main() -> None:
    rendered, out = pathlib.Path(sys.argv[1]), pathlib.Path(sys.argv[2])
    out.mkdir(parents=True, exist_ok=True)
    for seed, (name, truth) in enumerate([("yard", True), ("close", True), ("madder", False)]):
        if (rendered / name / f"{name}.npz").exists():
            still(rendered, out, name, seed, truth)
    if any((rendered / "clip").glob("clip-*.npz")):
        clip(rendered, out)


if __name__ == "__main__":
    main()
