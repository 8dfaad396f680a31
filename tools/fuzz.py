"""Gives our own parsers bytes that grow towards code not yet reached (atheris, coverage-guided),
and says what is no plain sentence.

.venv/bin/pip install atheris && .venv/bin/python tools/fuzz.py [seconds for each] [parser ...]
.venv/bin/python tools/fuzz.py --port [packets] [seed]      sends spoilt packets to the control port
of a real window

A parser must return, or raise `Trouble` (or what its docstring names); anything else is printed
with the bytes that did it, which are kept in a folder that is named at the end. Each parser has a
process of its own: one that dies of its bytes is told apart.
"""

from __future__ import annotations

import importlib
import json
import os
import pathlib
import pkgutil
import random
import re
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable

ROOT = pathlib.Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT / "src"), str(ROOT / "tests")]
os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
import own_home  # noqa: E402, F401

#: Bytes that are tried at most.
LONGEST = 6000
CUBE = (
    b'TITLE "a"\nLUT_3D_SIZE 2\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 1 1 1\n'
    + b"0 0 0\n1 0 0\n0 1 0\n1 1 0\n0 0 1\n1 0 1\n0 1 1\n1 1 1\n"
)
CDL = (
    b'<?xml version="1.0"?><ColorDecisionList '
    b'xmlns="urn:ASC:CDL:v1.01"><ColorDecision><ColorCorrection id="a"><SOPNode><Slope>1 1 '
    b"1</Slope>"
    b"<Offset>0 0 0</Offset><Power>1 1 "
    b"1</Power></SOPNode><SatNode><Saturation>1</Saturation></SatNode></ColorCorrection></ColorDecision>"
    b"</ColorDecisionList>"
)
CLF = (
    b'<?xml version="1.0"?><ProcessList id="a" compCLFversion="3.0"><LUT3D inBitDepth="32f" '
    b'outBitDepth="32f"><Array dim="2 2 2 3">'
    b"0 0 0 0 0 1 0 1 0 0 1 1 1 0 0 1 0 1 1 1 0 1 1 1</Array></LUT3D></ProcessList>"
)


#: Values that take the place of others in what is JSON.
HOSTILE = (
    0,
    -1,
    1e200,
    -1e308,
    0.5,
    "auto",
    "",
    "x" * 300,
    "keep",
    None,
    [],
    {},
    True,
    [[]],
    2**70,
    -0.0,
    [0, 0, 0, 0],
    [1, 2],
    "\ud800",
    "\0",
)


#: What must live as long as the process.
KEPT: list[object] = []


class Tried:
    """One parser: what it takes, what it starts from, and what it may raise."""

    def __init__(
        self,
        parse: Callable[[bytes], object],
        seeds: list[bytes],
        raises: tuple[type[BaseException], ...] = (),
    ) -> None:
        self.parse, self.seeds, self.raises = parse, seeds, raises


def hostile(held: object, chance: random.Random, often: float = 0.02) -> object:
    """What stands in a JSON text with some of its values replaced, left out or repeated."""
    if chance.random() < often:
        return chance.choice(HOSTILE)
    if isinstance(held, dict):
        return {
            key: hostile(value, chance, often)
            for key, value in held.items()
            if chance.random() > often / 2
        }
    if isinstance(held, list):
        return [hostile(value, chance, often) for value in held] * (
            3 if chance.random() < often else 1
        )
    return held


def from_file(read: Callable[[pathlib.Path], object], ending: str) -> Callable[[bytes], object]:
    """A parser of bytes, of one that reads files."""
    path = (
        pathlib.Path(tempfile.mkdtemp(dir="/dev/shm" if os.path.isdir("/dev/shm") else None))
        / f"a{ending}"
    )

    def parse(data: bytes) -> object:
        path.write_bytes(data)
        return read(path)

    return parse


def in_place(file: pathlib.Path, read: Callable[[], object]) -> Callable[[bytes], object]:
    """A parser of bytes, of one that reads a file of the program's own."""
    file.parent.mkdir(parents=True, exist_ok=True)

    def parse(data: bytes) -> object:
        file.write_bytes(data)
        return read()

    return parse


def parsers() -> dict[str, Callable[[], Tried]]:
    """All parsers by name; each is made in its own process."""

    def project() -> Tried:
        from amber_sieve.project import storage

        return Tried(
            from_file(storage.load, ".sieve"), [(ROOT / "demo" / "yard.sieve").read_bytes()]
        )

    def preset() -> Tried:
        from amber_sieve.project import presets

        return Tried(
            from_file(presets.read, ".json"), [presets.SHIPPED[0].model_dump_json().encode()]
        )

    def clipboard() -> Tried:
        from amber_sieve.project.clippings import sieves_in, text_of
        from amber_sieve.project.model import Sieve

        return Tried(
            lambda data: sieves_in(data.decode("utf-8", "replace")), [text_of((Sieve(),)).encode()]
        )

    def tray() -> Tried:
        from amber_sieve.project import open_tray

        row = {"source": "a.png", "project": "a.sieve", "shared": False, "frame": 0}
        seed = json.dumps(
            {"windows": [{"process": 1, "started": "1", "entries": [row], "current": 0}]}
        ).encode()
        return Tried(in_place(open_tray.tray_file(), open_tray.take_over), [seed])

    def preferences() -> Tried:
        from amber_sieve.workspace import preferences as kept

        return Tried(
            in_place(kept.preferences_file(), kept.load),
            [kept.Preferences().model_dump_json().encode()],
        )

    def cube() -> Tried:
        from amber_sieve.media.colour import lookup_files

        return Tried(from_file(lookup_files.read, ".cube"), [CUBE])

    def clf() -> Tried:
        from amber_sieve.media.colour import lookup_files

        return Tried(from_file(lookup_files.read, ".clf"), [CLF])

    def cdl() -> Tried:
        from amber_sieve.media.colour import cdl_files

        return Tried(from_file(cdl_files.read, ".cdl"), [CDL])

    def profile() -> Tried:
        import numpy as np

        from amber_sieve.media.colour import management, profiles

        grid = np.linspace(0, 1, 12, dtype=np.float32).reshape(2, 2, 3)

        def parse(data: bytes) -> object:
            management.name_of(data)
            light = (
                management.grey_to_light(grid[..., 0], data)
                if management.space_of(data) == "gray"
                else management.to_light(grid, data)
            )
            assert light.shape[:2] == grid.shape[:2]
            return light

        return Tried(
            parse, [management.srgb_profile(), profiles.named("Display P3")], (ValueError,)
        )

    def door() -> Tried:
        from amber_sieve.desk.start.one_window import paths_in

        return Tried(paths_in, [b'["/a/b.png", "/c.sieve"]\n'], (ValueError,))

    def surface() -> Tried:
        from PyQt6.QtWidgets import QApplication

        from amber_sieve.desk.start.waiting import settle
        from amber_sieve.workspace.control_surfaces import message
        from amber_sieve.workspace.workspace import Workspace

        application = QApplication([])
        workspace = Workspace()
        workspace.pictures.open(ROOT / "demo" / "yard.png")  # so that numbers are turned
        settle(workspace)
        KEPT.append((application, workspace))

        def parse(data: bytes) -> object:
            workspace.control_surfaces.take(data)
            workspace.control_surfaces._work_off()
            return None

        return Tried(parse, [message("/sieve/adjust/light/exposure", 0.5), message("/page/by", 1)])

    return {
        made.__name__: made
        for made in (
            project,
            preset,
            clipboard,
            tray,
            preferences,
            cube,
            clf,
            cdl,
            profile,
            door,
            surface,
        )
    }


def fuzz(name: str, seconds: int, found: pathlib.Path) -> None:
    """Try one parser in this process."""
    import atheris

    import amber_sieve.core

    for found_there in pkgutil.walk_packages(amber_sieve.core.__path__, "amber_sieve.core."):
        if found_there.name != "amber_sieve.core.edge.matting_parts":  # nothing here needs it
            importlib.import_module(
                found_there.name
            )  # kernels could not be compiled with marks in them
    with atheris.instrument_imports(include=["amber_sieve", "pythonosc"]):
        from amber_sieve.errors import Trouble

        tried = parsers()[name]()

    def once(data: bytes) -> None:
        try:
            tried.parse(data)
        except (Trouble, *tried.raises):
            pass

    def changed(data: bytes, most: int, seed: int) -> bytes:
        """Half of the time what is JSON stays JSON; else bytes are changed without regard to what
        they say.
        """
        chance = random.Random(seed)
        try:
            if chance.random() < 0.5:
                made = json.dumps(
                    hostile(json.loads(data), chance, chance.choice((0.01, 0.05)))
                ).encode()
                if len(made) <= most:
                    return made
        except (ValueError, RecursionError):
            pass
        return atheris.Mutate(data, most)

    corpus = pathlib.Path(tempfile.mkdtemp())
    for number, seed in enumerate(tried.seeds):
        (corpus / str(number)).write_bytes(seed)
    options = [
        f"-max_total_time={seconds}",
        f"-max_len={LONGEST}",
        f"-artifact_prefix={found}/{name}-",
        "-timeout=20",
        "-rss_limit_mb=4000",
    ]
    atheris.Setup([sys.argv[0], *options, str(corpus)], once, custom_mutator=changed)
    atheris.Fuzz()


#: Packets that are sent before the window is looked at, fewer than the system drops.
BURST = 64


def flood(count: int, seed: int) -> int:
    """Send spoilt packets to the control port of a window in this process; say what came of them
    and how long it stood still.
    """
    from packets import ENDLESS, spoilt
    from PyQt6.QtCore import QCoreApplication
    from PyQt6.QtWidgets import QApplication

    from amber_sieve.desk.start.waiting import settle
    from amber_sieve.desk.window.open_window import open_window
    from amber_sieve.workspace.control_surfaces import message
    from amber_sieve.workspace.workspace import Workspace

    application = QApplication([])
    window = open_window(Workspace())
    KEPT.append((application, window))
    surfaces, raised = window.workspace.control_surfaces, list[str]()
    window.workspace.speech.mishap.connect(lambda words, details: raised.append(details))
    window.show()
    window.workspace.pictures.open(ROOT / "demo" / "close.png")
    settle(window.workspace)
    out = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    window.workspace.preferences.change(control_surface=True, control_surface_port=float(port))
    chance, sent, worst, started = random.Random(seed), 0, 0.0, time.monotonic()
    while sent < count:
        for _ in range(min(BURST, count - sent)):
            out.sendto(ENDLESS if sent % 1000 == 999 else spoilt(chance), ("127.0.0.1", port))
            sent += 1
        end = time.monotonic() + 0.012  # what has arrived is done every 8 ms
        while (before := time.monotonic()) < end:
            QCoreApplication.processEvents()
            worst = max(worst, time.monotonic() - before)
            time.sleep(0.0005)
    settle(window.workspace)
    done = surfaces.done
    out.sendto(message("/page", 2), ("127.0.0.1", port))
    end = time.monotonic() + 5
    while surfaces.done == done and time.monotonic() < end:
        QCoreApplication.processEvents()
    answers = surfaces.done > done
    print(
        f"{sent} packets in {time.monotonic() - started:.0f} s: {surfaces.done} messages done, "
        f"{surfaces.damaged} packets damaged, "
        f"{surfaces.dropped - surfaces.damaged} dropped otherwise; longest pause "
        f"{1000 * worst:.0f} ms; "
        f"{len(raised)} raised; the window {'answers' if answers else 'DOES NOT ANSWER'}",
        flush=True,
    )
    for words in dict.fromkeys(raised):
        print(words)
    os._exit(0 if answers and not raised else 1)


def main() -> int:
    if sys.argv[1:2] == ["--here"]:
        fuzz(sys.argv[2], int(sys.argv[3]), pathlib.Path(sys.argv[4]))
        return 0
    if sys.argv[1:2] == ["--port"]:
        given = (sys.argv[2:] + ["100000", "1"][len(sys.argv) - 2 :])[:2]
        return flood(*(int(word) for word in given))
    seconds = int(sys.argv[1]) if len(sys.argv) > 1 else 60
    found, bad, total = pathlib.Path(tempfile.mkdtemp(prefix="found-")), 0, 0
    for name in sys.argv[2:] or parsers():
        with tempfile.TemporaryDirectory() as home:
            own = os.environ | {f"XDG_{kind}_HOME": home for kind in ("STATE", "CONFIG", "DATA")}
            words = [sys.executable, __file__, "--here", name, str(seconds), str(found)]
            done = subprocess.run(
                words,
                env=own,
                stdout=subprocess.PIPE,
                stderr=subprocess.STDOUT,
                text=True,
                errors="replace",
            )
        runs = re.findall(r"Done (\d+) runs|^#(\d+)", done.stdout, re.MULTILINE)
        count, reached = (
            max((int(one or other) for one, other in runs), default=0),
            re.findall(r"ft: (\d+)", done.stdout),
        )
        total += count
        print(
            f"{name:12} {count:8} runs, {reached[-1] if reached else 0:>5} features reached",
            "" if not done.returncode else "FAILED",
        )
        if done.returncode:
            bad += 1
            print(done.stdout[-2500:])
    print(f"{total} runs; {bad} parsers failed" + (f", see {found}" if bad else ""))
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
