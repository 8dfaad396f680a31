"""Gives the terminal and the readers broken, hostile and odd files, and counts what a person should
never see.

.venv/bin/python tools/broken_inputs.py [number of variants] [seed]

Every variant must end in one sentence or a right result: no traceback, no hang, no crash, no NaN
written. Readers run in one child process for many files, so that a crash or a hang is seen; what
stood in its way is then tried alone.
"""

from __future__ import annotations

import json
import os
import pathlib
import random
import subprocess
import sys
import tempfile
from collections import Counter

ROOT = pathlib.Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT / "src"), str(ROOT / "tests")]

import av  # noqa: E402
import forked  # noqa: E402
import numpy as np  # noqa: E402
import OpenImageIO as oiio  # noqa: E402
import own_home  # noqa: E402, F401
import pillow_heif  # noqa: E402
from PIL import Image  # noqa: E402

#: Seconds after which a single file counts as a hang.
PATIENCE = 40.0


# Good files to be spoilt


def seeds(folder: pathlib.Path) -> list[pathlib.Path]:
    """A small picture of every kind, a clip and a project."""
    chance = np.random.default_rng(3)
    codes = (chance.random((24, 32, 4)) * 255).astype(np.uint8)
    made = []
    for name, mode in (
        ("a.png", "RGBA"),
        ("grey.png", "L"),
        ("a.jpg", "RGB"),
        ("a.webp", "RGB"),
        ("a.tif", "RGB"),
    ):
        Image.fromarray(codes).convert(mode).save(folder / name)
        made.append(folder / name)
    for name, kind in (
        ("half.exr", "half"),
        ("float.exr", "float"),
        ("deep.tif", "uint16"),
        ("float.tif", "float"),
    ):
        spec = oiio.ImageSpec(32, 24, 4, kind)
        out = oiio.ImageOutput.create(str(folder / name))
        out.open(str(folder / name), spec)
        out.write_image(chance.random((24, 32, 4), dtype=np.float32))
        out.close()
        made.append(folder / name)
    pillow_heif.register_heif_opener()
    plain = Image.fromarray(codes[..., :3])
    for name in ("a.gif", "a.tga", "a.avif", "a.heic", "a.bmp", "a.jp2"):
        plain.save(folder / name)
        made.append(folder / name)
    with av.open(str(folder / "a.mp4"), "w") as out:
        stream = out.add_stream("libx264", 24)
        stream.width, stream.height, stream.pix_fmt = 32, 24, "yuv420p"
        for number in range(12):
            frame = av.VideoFrame.from_ndarray((codes[..., :3] + number).astype(np.uint8), "rgb24")
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    made.append(folder / "a.mp4")
    project = json.loads((ROOT / "demo" / "yard.sieve").read_text())
    project["source"] = "a.png"
    (folder / "a.sieve").write_text(json.dumps(project))
    made.append(folder / "a.sieve")
    return made


# Spoiling


def spoilt(data: bytes, chance: random.Random) -> bytes:
    """Bytes cut, flipped, swapped, repeated or overwritten."""
    way = chance.randrange(6)
    held = bytearray(data)
    if way == 0:
        return bytes(held[: chance.randrange(len(held) + 1)])
    if way == 1:
        for _ in range(chance.choice((1, 2, 8, 64))):
            held[chance.randrange(len(held))] ^= 1 << chance.randrange(8)
        return bytes(held)
    if way == 2:
        at, size = chance.randrange(len(held)), chance.randrange(1, 64)
        held[at : at + size] = bytes(chance.choice((0, 255)) for _ in range(size))
        return bytes(held)
    if way == 3:
        at, size = chance.randrange(len(held)), chance.randrange(1, 256)
        del held[at : at + size]
        return bytes(held)
    if way == 4:
        at = chance.randrange(len(held))
        return bytes(held[:at] + held[at : at + 200] + held[at:])
    head = min(64, len(held))
    for _ in range(3):
        held[chance.randrange(head)] = chance.randrange(256)
    return bytes(held)


HOSTILE = (
    0,
    -1,
    1e200,
    -1e200,
    1e308,
    "auto",
    "",
    "x" * 100_000,
    None,
    [],
    {},
    True,
    [[]],
    2**70,
    -0.0,
    [0, 0, 0, 0],
    [1, 2],
)


def hostile_project(held: dict, chance: random.Random) -> str:
    """A project with some of its values replaced."""

    def walk(value: object, depth: int = 0) -> object:
        if chance.random() < 0.02 + 0.01 * depth:
            return chance.choice(HOSTILE)
        if isinstance(value, dict):
            return {k: walk(v, depth + 1) for k, v in value.items() if chance.random() > 0.01}
        if isinstance(value, list):
            return [walk(v, depth + 1) for v in value] * (50 if chance.random() < 0.02 else 1)
        return value

    changed = walk(held)
    if isinstance(changed, dict):
        changed["version"] = chance.choice((1, 2, 3, 3))
    text = json.dumps(changed)
    if chance.random() < 0.03:
        text = "[" * chance.choice((100, 3000, 100_000))
    if chance.random() < 0.03:
        text = text.replace("2", "NaN", 1)
    return text


def odd_floats(path: pathlib.Path, chance: random.Random) -> None:
    """A float picture with values that no camera makes."""
    values = np.random.default_rng(chance.randrange(10**6)).random((24, 32, 4), dtype=np.float32)
    for _ in range(40):
        bad = chance.choice((np.nan, np.inf, -np.inf, 1e30, -1e30, 1e-42, 3.4e38, -1.0, 0.0))
        values[chance.randrange(24), chance.randrange(32), chance.randrange(4)] = bad
    spec = oiio.ImageSpec(32, 24, 4, "float")
    out = oiio.ImageOutput.create(str(path))
    out.open(str(path), spec)
    out.write_image(values)
    out.close()


def stroke_project(held: dict, chance: random.Random) -> str:
    """A project whose brush strokes are huge, or many."""
    far = chance.choice((1e3, 1e6, -1e6, 5e5))
    points = [
        [chance.uniform(-abs(far), abs(far)), chance.uniform(-abs(far), abs(far)), 1.0]
        for _ in range(chance.choice((1, 2, 50, 2000)))
    ]
    stroke = {
        "points": points,
        "size": chance.choice((0.1, 1, 60, 5000)),
        "flow": chance.choice((0, 1, 50, 100)),
    }
    held["stack"][0]["areas"] = [
        {"kind": "brush", "mode": "add", "strokes": [stroke] * chance.choice((1, 3))}
    ]
    return json.dumps(held)


# The terminal's own words

WORDS = (
    ["mask", "a.png", "-o", "out.png", "--keep", "nan,nan"],
    ["mask", "a.png", "-o", "out.png", "--keep", "1e200,3"],
    ["mask", "a.png", "-o", "out.png", "--keep", "3"],
    ["mask", "a.png", "-o", "out.png", "--keep", "-5,3"],
    ["mask", "a.png", "-o", "out.png", "--keep", "3,3", "--frame", "-1"],
    ["mask", "a.png", "-o", "out.png", "--keep", "3,3", "--frame", "7"],
    ["mask", "a.png", "-o", "out.png", "--hue", "nan,0,1,2"],
    ["mask", "a.png", "-o", "out.png", "--hue", "1e200,1e201,1e202,1e203"],
    ["mask", "a.png", "-o", "out.png", "--area", "add:rect:nan,0,1,inf"],
    ["mask", "a.png", "-o", "out.png", "--area", "add:rect:0,0,0,0"],
    ["mask", "a.png", "-o", "out.png", "--area", "add:rect:1e200,0,1,1"],
    ["mask", "a.png", "-o", "x" * 300 + ".png", "--keep", "3,3"],
    ["mask", "a.png", "-o", "/dev/null", "--keep", "3,3"],
    ["mask", "/dev/zero", "-o", "out.png", "--keep", "3,3"],
    ["mask", "fifo.png", "-o", "out.png", "--keep", "3,3"],
    ["mask", "a.png", "-o", "fifo.png", "--keep", "3,3"],
    ["mask", "x" * 5000 + ".png", "-o", "out.png", "--keep", "3,3"],
    ["mask", "none.png", "-o", "out.png", "--keep", "3,3"],
    ["mask", ".", "-o", "out.png", "--keep", "3,3"],
    ["render", "a.sieve", "-o", "out.mp4"],
    ["render", "a.sieve", "-o", "out.xyz"],
    ["render", "a.mp4", "-o", "out.png"],
    ["render", "deep.sieve", "-o", "out.png"],
    ["info", "deep.sieve"],
    ["info", "."],
    ["recolour", "a.png", "-o", "out.png", "--keep", "3,3", "--set", "exposure=nan"],
    ["recolour", "a.png", "-o", "out.png", "--keep", "3,3", "--set", "exposure=1e30"],
    ["recolour", "a.png", "-o", "out.png", "--keep", "3,3", "--set", "nothing=1"],
    ["recolour", "a.png", "-o", "out.jpg", "--keep", "3,3", "--set", "exposure=10"],
)

READER = """
import pathlib, sys
sys.path.insert(0, sys.argv[1])
import numpy as np
import OpenImageIO as oiio
from amber_sieve.errors import Trouble
from amber_sieve.media import stills
from amber_sieve.media.opening import open_source
from amber_sieve.export.frame import finished
from amber_sieve.project import storage
from amber_sieve.project.model import Adjust, Light, Pick, Project, Recolour, Sample, Sieve
plain = Project(stack=(Sieve(
    pick=Pick(samples=(Sample(x=5, y=5, colour=(0.2, 0.3, 0.4), tolerance=30),)),
    adjust=Adjust(light=Light(exposure=1), recolour=Recolour(hue=40)),
),))
out = pathlib.Path(sys.argv[2])
for line in sys.stdin:
    path = pathlib.Path(line.rstrip(chr(10)))
    print("at", path, flush=True)
    try:
        project = storage.load(path) if path.suffix == ".sieve" else plain
        source = open_source(pathlib.Path(project.source) if path.suffix == ".sieve" else path)
        try:
            frame = source.frame(0)
            result = finished(source, project).result.planes
            if not np.isfinite(result).all():
                print("nan", path, flush=True)
            target = out / "written.exr"
            if source.about.kind == "still":
                form = stills.StillForm("half")
                stills.write(target, source.about, lambda: iter([(0, result)]), form, frame.alpha)
                if not np.isfinite(oiio.ImageBuf(str(target)).get_pixels()).all():
                    print("nan", path, flush=True)
        finally:
            source.close()
        print("fine", path, flush=True)
    except Trouble as trouble:
        print("long" if chr(10) in str(trouble) else "said", path, flush=True)
    except BaseException as error:
        said = str(error)[:200].replace(chr(10), " ")
        print("traceback", path, type(error).__name__, said, flush=True)
"""


def read_all(paths: list[pathlib.Path], out: pathlib.Path) -> Counter:
    """Read files in a child process; when it dies or hangs, go on behind the file it died of."""
    found: Counter = Counter()
    waiting = list(paths)
    while waiting:
        child = subprocess.Popen(
            [sys.executable, "-c", READER, str(ROOT / "src"), str(out)],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            stderr=subprocess.PIPE,
            text=True,
        )
        try:
            text, complaints = child.communicate(
                "\n".join(map(str, waiting)) + "\n", timeout=PATIENCE + 0.5 * len(waiting)
            )
            how = "crash" if child.returncode else ""
        except subprocess.TimeoutExpired:
            child.kill()
            text, complaints = child.communicate()
            how = "hang"
        if complaints.strip():
            found["words on stderr"] += 1
            print("stderr:", complaints.strip().splitlines()[-1][:300])
        done = 0
        for line in text.splitlines():
            word, _, rest = line.partition(" ")
            if word == "at":
                done += 1
            elif word in ("nan", "traceback", "long", "fine", "said"):
                found[word] += 1
                if word in ("nan", "traceback", "long"):
                    print(word, rest)
        if how:
            print(how, waiting[done - 1] if done else "at start")
            found[how] += 1
        waiting = waiting[max(done, 1) :] if how else []
    return found


def try_words(folder: pathlib.Path) -> Counter:
    """Run the terminal with words that should not fit."""
    found: Counter = Counter()
    for words in [
        *WORDS,
        ["info", b"\xff\xfe.png"],
        ["mask", b"\xff.png", "-o", b"\xfe.png", "--keep", "3,3"],
    ]:
        try:
            done = forked.run(forked.command, *words, cwd=folder, timeout=PATIENCE)
        except subprocess.TimeoutExpired:
            found["hang"] += 1
            print("hang", words)
            continue
        lines = [line for line in done.stderr.splitlines() if line.strip()]
        if done.returncode < 0:
            found["crash"] += 1
            print("crash", words)
        elif "Traceback" in done.stderr or "went wrong inside" in done.stderr:
            found["traceback"] += 1
            print("traceback", words, lines[-1:])
        elif (done.returncode == 1 and len(lines) != 1) or done.returncode not in (0, 1, 2):
            found["long"] += 1
            print("long", words, lines)
        else:
            found["said" if done.returncode else "fine"] += 1
    return found


def run(count: int, seed: int = 1) -> Counter:
    """Try so many spoilt files and all words; returns how often what happened."""
    chance = random.Random(seed)
    with tempfile.TemporaryDirectory() as name:
        folder = pathlib.Path(name)
        good = seeds(folder)
        os.mkfifo(folder / "fifo.png")
        (folder / "deep.sieve").write_text('{"version": 1, "stack": ' + "[" * 3000)
        project = json.loads((folder / "a.sieve").read_text())
        paths = list(good)
        for number in range(count - len(WORDS) - len(good)):
            kind = number % 5
            if kind == 0:
                path = folder / f"v{number}.sieve"
                path.write_text(hostile_project(project, chance))
            elif kind == 1 and number % 2:
                path = folder / f"v{number}.{chance.choice(('exr', 'tif'))}"
                odd_floats(path, chance)
            elif kind == 1 and number % 10 == 6:
                path = folder / f"v{number}.sieve"
                path.write_text(stroke_project(json.loads(json.dumps(project)), chance))
            else:
                source = chance.choice(good[:-1])
                path = folder / f"v{number}{source.suffix}"
                path.write_bytes(spoilt(source.read_bytes(), chance))
            paths.append(path)
        return read_all(paths, folder) + try_words(folder)


BAD = ("traceback", "hang", "crash", "nan", "long", "words on stderr")


def main() -> int:
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 1200
    found = run(count, int(sys.argv[2]) if len(sys.argv) > 2 else 1)
    total = found["fine"] + found["said"] + sum(found[word] for word in BAD)
    print(
        f"{total} variants: {found['fine']} worked, {found['said']} said in a sentence; "
        + ", ".join(f"{found[w]} {w}" for w in BAD)
    )
    return 1 if any(found[word] for word in BAD) else 0


if __name__ == "__main__":
    sys.exit(main())
