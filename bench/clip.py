"""What a sieve adds to writing a clip: milliseconds a frame next to bare decoding and encoding of
the same clip, in turns.

.venv/bin/python bench/clip.py [ROUNDS]

One sieve with eight samples, three bands and a recolour, with Follow and without, on the demo clip
as it is and enlarged to 1920 x 1080.
"""

import pathlib
import statistics
import sys
import tempfile
import time

import av
import common  # noqa: F401  (finds the sources)
import cv2
import numpy as np

from amber_sieve.export.clip import export_clip
from amber_sieve.live.sampling import sample_at, with_found_tolerance
from amber_sieve.media.footage.clip import Footage
from amber_sieve.project.model import Adjust, Band, Bands, Edge, Pick, Project, Recolour, Sieve

DEMO = pathlib.Path(__file__).parent.parent / "demo"
FRAMES, LARGE = 24, (1920, 1080)
#: Places on the jar of the demo clip at its own size.
PLACES = [
    (290, 450),
    (260, 400),
    (320, 500),
    (300, 380),
    (280, 430),
    (240, 450),
    (310, 440),
    (250, 500),
]


def encoder_of(target: av.container.OutputContainer, rate, size: tuple[int, int]):
    """H.264 as the program writes it."""
    video = target.add_stream("libx264", rate, options={"crf": "16", "preset": "medium"})
    video.width, video.height, video.pix_fmt = *size, "yuv420p"
    return video


def bare(path: pathlib.Path, out: pathlib.Path) -> int:
    """Decode and encode, nothing else."""
    frames = 0
    with av.open(str(path)) as source, av.open(str(out), "w") as target:
        stream = source.streams.video[0]
        video = encoder_of(target, stream.average_rate, (stream.width, stream.height))
        for frame in source.decode(stream):
            target.mux(video.encode(frame))
            frames += 1
        target.mux(video.encode(None))
    return frames


def enlarged(path: pathlib.Path, out: pathlib.Path, size: tuple[int, int]) -> pathlib.Path:
    """The first frames of a clip at another size."""
    with av.open(str(path)) as source, av.open(str(out), "w") as target:
        stream = source.streams.video[0]
        video = encoder_of(target, stream.average_rate, size)
        for frame, _ in zip(source.decode(stream), range(FRAMES), strict=False):
            picture = cv2.resize(
                frame.to_ndarray(format="rgb24"), size, interpolation=cv2.INTER_CUBIC
            )
            target.mux(
                video.encode(
                    av.VideoFrame.from_ndarray(np.ascontiguousarray(picture), "rgb24").reformat(
                        format="yuv420p"
                    )
                )
            )
        target.mux(video.encode(None))
    return out


def project_of(clip: Footage, follow: bool) -> Project:
    """The sieve that is measured."""
    frame, share = clip.frame(0), clip.about.size[0] / 960
    samples = tuple(
        with_found_tolerance(sample_at(frame, int(x * share), int(y * share)), frame, Pick())
        for x, y in PLACES
    )
    bands = Bands(
        hue=Band(on=True, corners=(150, 160, 240, 250)),
        saturation=Band(on=True, corners=(0, 4, 96, 100)),
        luminance=Band(on=True, corners=(0, 3, 95, 100)),
    )
    edge = Edge() if follow else Edge(follow=0)
    return Project(
        stack=(
            Sieve(
                pick=Pick(samples=samples),
                bands=bands,
                edge=edge,
                adjust=Adjust(recolour=Recolour(hue=90)),
            ),
        )
    )


def milliseconds(work) -> float:
    """Wall-clock time of a frame."""
    started = time.perf_counter()
    frames = work()
    return 1000 * (time.perf_counter() - started) / frames


def main() -> None:
    rounds = int(sys.argv[1]) if len(sys.argv) > 1 else 3
    with tempfile.TemporaryDirectory() as folder:
        out = pathlib.Path(folder) / "out.mp4"
        large = enlarged(DEMO / "clip.mp4", pathlib.Path(folder) / "large.mp4", LARGE)
        for path in (DEMO / "clip.mp4", large):
            clip = Footage(path)
            plain, followed = project_of(clip, False), project_of(clip, True)
            works = {
                "bare decode and encode": lambda: bare(clip.path, out),  # noqa: B023  (called in this round)
                "the same, nothing to change": lambda: export_clip(clip, Project(), out),  # noqa: B023
                "sieve without Follow": lambda: export_clip(clip, plain, out),  # noqa: B023
                "sieve with Follow": lambda: export_clip(clip, followed, out),  # noqa: B023
            }
            works["sieve with Follow"]()  # kernels are loaded, files are cached
            found = {name: [] for name in works}
            for _ in range(rounds):
                for name, work in works.items():
                    found[name].append(milliseconds(work))
            print(
                f"{clip.about.size[0]} x {clip.about.size[1]}, {len(clip.stamps)} frames, median "
                f"of {rounds} rounds"
            )
            for name, times in found.items():
                ratios = [
                    own / other
                    for own, other in zip(times, found["bare decode and encode"], strict=True)
                ]
                print(
                    f"    {name:30}{statistics.median(times):8.1f} ms a "
                    f"frame{statistics.median(ratios):8.2f} times bare"
                )
            clip.close()


if __name__ == "__main__":
    main()
