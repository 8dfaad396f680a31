"""Frames a second of exporting the demo clip, next to bare decoding and encoding of the same clip.

.venv/bin/python bench/clip.py
"""

import pathlib
import tempfile
import time

import av
import common  # noqa: F401  (finds the sources)

from amber_sieve.jobs.clip import export_clip
from amber_sieve.jobs.sampling import sample_at, with_found_tolerance
from amber_sieve.media.footage import Footage
from amber_sieve.project.model import Adjust, Pick, Project, Recolour, Sieve

DEMO = pathlib.Path(__file__).parent.parent / "demo"


def bare(path: pathlib.Path, out: pathlib.Path) -> int:
    """Decode and encode, nothing else."""
    frames = 0
    with av.open(str(path)) as source, av.open(str(out), "w") as target:
        stream = source.streams.video[0]
        video = target.add_stream("libx264", stream.average_rate, options={"crf": "16", "preset": "medium"})
        video.width, video.height, video.pix_fmt = stream.width, stream.height, "yuv420p"
        for frame in source.decode(stream):
            target.mux(video.encode(frame))
            frames += 1
        target.mux(video.encode(None))
    return frames


def main() -> None:
    clip = Footage(DEMO / "clip.mp4")
    frame = clip.frame(0)
    sample = with_found_tolerance(sample_at(frame, 290, 450), frame, Pick())
    project = Project(stack=(Sieve(pick=Pick(samples=(sample,)), adjust=Adjust(recolour=Recolour(hue=90))),))
    with tempfile.TemporaryDirectory() as folder:
        out = pathlib.Path(folder) / "out.mp4"
        for name, work in (
            ("decode, sieve, encode", lambda: export_clip(clip, project, out)),
            ("bare decode and encode", lambda: bare(clip.path, out)),
        ):
            started = time.perf_counter()
            frames = work()
            print(f"{name:26}{frames / (time.perf_counter() - started):8.1f} frames a second")


if __name__ == "__main__":
    main()
