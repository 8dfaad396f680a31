"""Peak memory of recolouring 24 megapixels from the terminal.

.venv/bin/python bench/memory.py
"""

import os
import pathlib
import resource
import subprocess
import sys
import tempfile

import numpy as np
from PIL import Image

ROOT = pathlib.Path(__file__).parent.parent


def main() -> None:
    with tempfile.TemporaryDirectory() as folder:
        picture = pathlib.Path(folder) / "large.png"
        yard = Image.open(ROOT / "demo" / "yard.png").resize((6000, 4000))
        Image.fromarray(np.asarray(yard)).save(picture, compress_level=1)
        words = [
            sys.executable,
            "-m",
            "amber_sieve.terminal.main",
            "recolour",
            str(picture),
            "-o",
            f"{folder}/out.png",
            "--keep",
            "4100,1100",
            "--hue",
            "120",
        ]
        subprocess.run(words, check=True, env=os.environ | {"PYTHONPATH": str(ROOT / "src")})
    peak = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1e6
    print(f"recolouring 6000 x 4000 from the terminal: peak {peak:.2f} GB   (asked for: at most 1.5)")


if __name__ == "__main__":
    main()
