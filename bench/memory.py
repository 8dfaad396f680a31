"""Peak memory and time of recolouring a large picture from the terminal.

.venv/bin/python bench/memory.py                          24 megapixels
.venv/bin/python bench/memory.py 12000 8400 --16          100 megapixels of 16 bit
"""

import os
import pathlib
import subprocess
import sys
import tempfile
import time

import common  # noqa: F401  (finds the sources)
import cv2
import numpy as np
from PIL import Image

ROOT = pathlib.Path(__file__).parent.parent


def main() -> None:
    sizes = [int(word) for word in sys.argv[1:] if word.isdigit()]
    width, height = sizes or (6000, 4000)
    deep = "--16" in sys.argv
    with tempfile.TemporaryDirectory() as folder:
        picture = pathlib.Path(folder) / ("large.tif" if deep else "large.png")
        yard = np.asarray(
            Image.open(ROOT / "demo" / "yard.png").convert("RGB").resize((width, height))
        )
        if deep:
            cv2.imwrite(str(picture), yard[..., ::-1].astype(np.uint16) * 257)
        else:
            Image.fromarray(yard).save(picture, compress_level=1)
        del yard
        place = f"{round(width * 0.6833)},{round(height * 0.275)}"
        words = [
            "recolour",
            str(picture),
            "-o",
            f"{folder}/out{picture.suffix}",
            "--keep",
            place,
            "--hue",
            "120",
        ]
        started = time.perf_counter()
        # The peak is that of the command, not of what made the picture: a process of its own asks
        # for it.
        code = (
            "import "
            "sys,resource,subprocess;subprocess.run(sys.argv[1:],check=True);print(resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss/1e6)"
        )
        command = [
            sys.executable,
            "-c",
            code,
            sys.executable,
            "-m",
            "amber_sieve.terminal.main",
            *words,
        ]
        said = subprocess.run(
            command,
            check=True,
            capture_output=True,
            text=True,
            env=os.environ | {"PYTHONPATH": str(ROOT / "src")},
        ).stdout
    peak, took = float(said.split()[-1]), time.perf_counter() - started
    wanted = 1.5 if width * height < 50e6 else 3
    deep_words = " of 16 bit" if deep else ""
    print(
        f"recolouring {width} x {height}{deep_words} from the terminal ({took:.0f} s): peak "
        f"{peak:.2f} GB   (asked for: at most {wanted})"
    )


if __name__ == "__main__":
    main()
