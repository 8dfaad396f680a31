"""Kills the program at random moments while it edits, saves, exports and works through a batch, and
looks at what is left.

.venv/bin/python tools/killed.py [TIMES] [SEED]

Every time: no more than two seconds of edits are lost, every file that is there can be read, and
nothing of ours lies about after the next start has swept.
"""

import os
import pathlib
import random
import signal
import subprocess
import sys
import tempfile
import time

ROOT = pathlib.Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT / "src"), str(ROOT / "tests")]
import own_home  # noqa: E402, F401

DEMO = ROOT / "demo"
#: What is killed; each says when it has begun, and what it has done.
WORK = {
    "edit": """
from PyQt6.QtWidgets import QApplication
running = QApplication([])
from amber_sieve.workspace.document.document import Document
from amber_sieve.threads import Threads
document = Document(Threads("autosave"))
document.start(Project(source=str(DEMO / "yard.png")), None, "Untitled")
number = 0
while True:
    number += 1
    document.edit_sieve(lambda sieve: sieve.but(name=f"step {number}"), "Rename")
    print(number, flush=True)
    end = time.monotonic() + 0.05
    while time.monotonic() < end:
        running.processEvents()
""",
    "save": """
from amber_sieve.project import storage
number = 0
while True:
    number += 1
    project = Project(source=str(DEMO / "yard.png"), stack=(Sieve(name=f"step {number}"),))
    storage.save(project, FOLDER / "work.sieve")
    print(number, flush=True)
""",
    "export": """
from amber_sieve.export.still import export_still
from amber_sieve.media.opening import open_source
source, number = open_source(DEMO / "close.png"), 0
while True:
    number += 1
    export_still(source, Project(), FOLDER / f"out{number % 3}.{'png' if number % 2 else 'tif'}")
    print(number, flush=True)
""",
    "clip": """
from amber_sieve.export.clip import export_clip
from amber_sieve.media.opening import open_source
source, number = open_source(DEMO / "clip.mp4"), 0
print(0, flush=True)
while True:
    number += 1
    export_clip(source, Project(), FOLDER / "out.mov", (0, 5))
    print(number, flush=True)
""",
    "batch": """
from amber_sieve.export.batch import run_batch
print(0, flush=True)
pictures = sorted((FOLDER / "in").glob("*.png"))
run_batch(Project(), pictures, FOLDER / "batch", tell=lambda outcome: print(1, flush=True))
time.sleep(60)
""",
}
BEGIN = (
    "import pathlib, sys, time\nfrom amber_sieve.project.model import Project, Sieve\nFOLDER, "
    "DEMO = map(pathlib.Path, sys.argv[1:3])\n"
)


def once(kind: str, rng: random.Random) -> list[str]:
    """One process, killed; what is wrong with what it left."""
    from amber_sieve.errors import Trouble
    from amber_sieve.files import PART, sweep_parts
    from amber_sieve.media.opening import open_source
    from amber_sieve.project import storage
    from amber_sieve.project.recovery import left_behind

    wrong = []
    with tempfile.TemporaryDirectory() as held:
        folder = pathlib.Path(held)
        for name in ("STATE", "CONFIG", "DATA"):
            os.environ[f"XDG_{name}_HOME"] = str(folder / "home" / name.lower())
        (folder / "in").mkdir()
        if kind == "batch":
            from PIL import Image

            small = Image.open(DEMO / "yard.png").resize((90, 60))
            for number in range(40):
                small.save(folder / "in" / f"{number:02}.png")
        environment = os.environ | {
            "PYTHONPATH": str(DEMO.parent / "src"),
            "QT_QPA_PLATFORM": "offscreen",
        }
        words = [sys.executable, "-c", BEGIN + WORK[kind], str(folder), str(DEMO)]
        process = subprocess.Popen(words, stdout=subprocess.PIPE, env=environment)
        said: list[tuple[float, int]] = []
        end = None
        assert process.stdout is not None
        os.set_blocking(process.stdout.fileno(), False)
        rest = ""
        while end is None or time.monotonic() < end:
            rest += (process.stdout.read() or b"").decode()
            *lines, rest = rest.split("\n")
            said += [(time.monotonic(), int(line)) for line in lines]
            if said and end is None:
                end = time.monotonic() + rng.uniform(0, 6.0 if kind == "edit" else 2.5)
            if process.poll() is not None:
                return [f"{kind} ended by itself"]
            time.sleep(0.002)
        process.send_signal(signal.SIGKILL)
        process.wait()
        killed_at = time.monotonic()
        if kind == "edit":
            found = left_behind()
            kept = int(found[0].project.stack[0].name.split()[1]) if found else 0
            lost = [at for at, number in said if number > kept]
            if lost and killed_at - lost[0] > 2:
                wrong.append(f"edits of {killed_at - lost[0]:.1f} s lost")
        if kind == "batch":
            from amber_sieve.export.batch import run_batch
            from amber_sieve.project.model import Project

            outcomes = run_batch(Project(), sorted((folder / "in").glob("*.png")), folder / "batch")
            if len(list((folder / "batch").glob("[0-9]*.png"))) != 40 or any(
                outcome.trouble for outcome in outcomes
            ):
                wrong.append("the batch did not go on")
        sweep_parts(time.time() + 120)
        for path in [
            path
            for path in folder.rglob("*")
            if path.is_file() and "home" not in path.parts[len(folder.parts) :]
        ]:
            if path.name.startswith(PART):
                wrong.append(f"litter: {path.name}")
                continue
            try:
                if path.suffix == ".sieve":
                    storage.load(path)
                elif path.suffix in (".png", ".tif", ".mov"):
                    open_source(path).close()
            except Trouble as trouble:
                wrong.append(str(trouble))
    return wrong


def main() -> int:
    times, seed = (int(word) for word in (sys.argv[1:] + ["100", "1"][len(sys.argv) - 1 :])[:2])
    rng, failures = random.Random(seed), 0
    for number in range(times):
        kind = list(WORK)[number % len(WORK)]
        for line in once(kind, rng):
            failures += 1
            print(f"{number}: {kind}: {line}", flush=True)
    print(f"killed {times} times, {failures} things wrong")
    return 1 if failures else 0


if __name__ == "__main__":
    sys.exit(main())
