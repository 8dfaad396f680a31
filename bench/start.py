"""How long a command and a second start of the window take, from the shell to the answer.

.venv/bin/python bench/start.py
"""

import os
import pathlib
import statistics
import subprocess
import sys
import tempfile
import time

ROOT = pathlib.Path(__file__).parent.parent
#: Opens the window with nothing, and ends as soon as it has been painted.
WINDOW = """
from amber_sieve.desk.translations import choose
choose("en")
import os, gc
gc.disable()  # as `amber-sieve open` does
from amber_sieve.desk.app import application
from amber_sieve.desk.window.open_window import open_window
from amber_sieve.workspace.workspace import Workspace
gc.freeze()
gc.enable()
running = application()
window = open_window(Workspace())
window.show()
running.processEvents()
os._exit(0)
"""
RUNS = 7


def seconds(words: list[str]) -> float:
    """Median time of a process, after one to warm up."""
    times = []
    with tempfile.TemporaryDirectory() as home:
        own = os.environ | {f"XDG_{kind}_HOME": home for kind in ("STATE", "CONFIG", "DATA")}
        own |= {
            "PYTHONPATH": str(ROOT / "src"),
            "QT_QPA_PLATFORM": "offscreen",
            "PYDANTIC_DISABLE_PLUGINS": "__all__",
        }
        # As people start it: what Python compiles is kept, whatever the shell that measures says.
        own.pop("PYTHONDONTWRITEBYTECODE", None)
        own["PYTHONPYCACHEPREFIX"] = str(pathlib.Path(home) / "compiled")
        for _ in range(RUNS + 1):
            started = time.perf_counter()
            subprocess.run([sys.executable, *words], check=True, env=own, capture_output=True)
            times.append(time.perf_counter() - started)
    return statistics.median(times[1:])


if __name__ == "__main__":
    bare = seconds(["-c", "import numpy"])
    print(f"  Python with NumPy alone {bare:.2f} s")
    info = seconds(["-m", "amber_sieve.terminal.main", "info", str(ROOT / "demo" / "yard.png")])
    print(f"  info of a picture {info:.2f} s   (asked for: at most 0.6)")
    print(
        f"  a second start to the painted window {seconds(['-c', WINDOW]):.2f} s   (asked for: at "
        "most 1.2)"
    )
