"""Runs the benches, and prints what was asked for beside what was measured, as a table in Markdown;
what misses is marked.

.venv/bin/python bench/report.py              everything: about twenty minutes, alone on the machine
.venv/bin/python bench/report.py kernels edge some of it
"""

import datetime
import os
import pathlib
import platform
import re
import subprocess
import sys

HERE = pathlib.Path(__file__).parent
#: The benches, and how each is called.
BENCHES = {
    "kernels": ("kernels.py",),
    "bands": ("bands.py",),
    "edge": ("edge.py",),
    "stack": ("stack.py",),
    "clicks": ("clicks.py",),
    "dragging": ("dragging.py",),
    "large windows": ("dragging.py", "--large"),
    "clip": ("clip.py",),
    "memory": ("memory.py",),
    "memory of 100 megapixels": ("memory.py", "12000", "8400", "--16"),
    "large": ("large.py",),
    "start": ("start.py",),
}
#: What a line says, a figure with its unit, and what was asked for.
LINE = re.compile(
    r"^\s*(?P<what>.*?)[:,]?\s+(?P<figure>-?\d[\d.]*) ?(?P<unit>copies|copies of "
    r"them|ms|GB|s)\b[^()]*\(asked for: (?P<wanted>[^)]*)\)"
)


def figures(words: tuple[str, ...]) -> list[tuple[str, float, str, str]]:
    """What a bench says: what, figure, unit, what was asked for."""
    said = subprocess.run(
        [sys.executable, str(HERE / words[0]), *words[1:]],
        capture_output=True,
        text=True,
        env=os.environ,
    ).stdout
    found, size = [], ""
    for line in said.splitlines():
        heading = re.match(r"^(\d+ x \d+): one copy", line)
        size = f" ({heading[1]})" if heading else size
        if m := LINE.match(line):
            found.append((m["what"].strip() + size, float(m["figure"]), m["unit"], m["wanted"]))
    return found


def missed(figure: float, wanted: str) -> bool:
    """Whether a figure is more than was asked for."""
    bound = re.search(r"\d[\d.]*", wanted)
    return bound is not None and figure > float(bound.group())


def main() -> None:
    names = sys.argv[1:] or list(BENCHES)
    print(
        f"Measured {datetime.date.today()} on {os.cpu_count()} cores ({platform.machine()}); one "
        "copy is the time of copying three float32 planes.\n"
    )
    print("| bench | what | measured | asked for | |\n|---|---|---|---|---|")
    for name in names:
        for what, figure, unit, wanted in figures(BENCHES[name]):
            print(
                f"| {name} | {what} | {figure:g} {unit} | {wanted} | "
                f"{'**missed**' if missed(figure, wanted) else 'met'} |",
                flush=True,
            )


if __name__ == "__main__":
    main()
