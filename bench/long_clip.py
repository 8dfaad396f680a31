"""Memory while ten thousand frames are played, and while they are exported: it must be flat.

.venv/bin/python bench/long_clip.py [FRAMES]
"""

import pathlib
import subprocess
import sys
import tempfile
import time

import common  # noqa: F401  (finds the sources)

from amber_sieve.export.clip import export_clip
from amber_sieve.live.parts import Shown
from amber_sieve.live.playing import Played, Player
from amber_sieve.live.sampling import sample_at, with_found_tolerance
from amber_sieve.live.small_frames import SmallFrames
from amber_sieve.media.opening import open_source
from amber_sieve.progress import Progress
from amber_sieve.project.model import Adjust, Pick, Project, Recolour, Sieve
from amber_sieve.render.views import Looking
from amber_sieve.resolve.resolver import Resolver
from amber_sieve.workspace.clip.playback import SMALL

DEMO = pathlib.Path(__file__).parent.parent / "demo"


def resident() -> float:
    """Megabytes of this process that are in memory now."""
    pages = int(pathlib.Path("/proc/self/statm").read_text().split()[1])
    return pages * 4096 / 1e6


class Watch:
    """Notes the memory at tenths of the way."""

    def __init__(self, name: str) -> None:
        self.name, self.found = name, {}

    def at(self, share: float, _: float | None = None) -> None:
        tenth = int(share * 10)
        if tenth not in self.found:
            self.found[tenth] = resident()

    def tell(self) -> None:
        shown = "  ".join(
            f"{10 * tenth} %: {size:.0f}" for tenth, size in sorted(self.found.items())
        )
        grown = self.found[max(self.found)] - self.found[1]
        print(
            f"{self.name}: megabytes at {shown}; from a tenth to the end {grown:+.0f}", flush=True
        )


def main() -> None:
    frames = int(sys.argv[1]) if len(sys.argv) > 1 else 10_000
    with tempfile.TemporaryDirectory() as folder:
        path = pathlib.Path(folder) / "long.mp4"
        words = [
            "ffmpeg",
            "-v",
            "error",
            "-stream_loop",
            "-1",
            "-i",
            DEMO / "clip.mp4",
            "-frames:v",
            str(frames),
        ]
        subprocess.run([*words, "-vf", "scale=320:180", "-preset", "ultrafast", path], check=True)
        source = open_source(path)
        sample = with_found_tolerance(sample_at(source.frame(0), 97, 150), source.frame(0), Pick())
        project = Project(
            stack=(Sieve(pick=Pick(samples=(sample,)), adjust=Adjust(recolour=Recolour(hue=90))),)
        )

        watch, head = Watch("exported"), 0
        started = time.monotonic()
        export_clip(source, project, pathlib.Path(folder) / "out.mp4", progress=Progress(watch.at))
        watch.tell()
        print(f"    {frames / (time.monotonic() - started):.0f} frames a second")

        watch = Watch("played")
        player = Player(
            lambda: open_source(path),
            Resolver(source),
            0,
            frames - 1,
            0,
            lambda: head,
            SmallFrames(SMALL),
        )
        shown = Shown(1.0, (0, 0, 320, 180), ("result", "mask"))
        player.play(Played(project, project.stack[0].id, shown, Looking(), 1.0))
        started = time.monotonic()
        while head < frames:
            if player.picture(head) is not None:
                head += 1
                watch.at(head / frames)
            else:
                time.sleep(0.001)
        player.stop()
        watch.tell()
        print(f"    {frames / (time.monotonic() - started):.0f} frames a second")
        source.close()


if __name__ == "__main__":
    main()
