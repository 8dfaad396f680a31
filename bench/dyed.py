"""How near a thing in another colour comes to the same thing rendered in it, mean ΔE2000 inside the
thing, both ways for each pair.

python demo/generator/dyed.py FOLDER (in the generator's environment), then .venv/bin/python
bench/dyed.py FOLDER
"""

import pathlib
import sys

import common  # noqa: F401  (finds the sources)
import numpy as np

from amber_sieve.core.adjust.body import Thing
from amber_sieve.core.colour.difference import delta_e_2000, to_cielab
from amber_sieve.core.colour.transfer import decode, encode

#: Noise of a sensor as the demo has it: shot noise and read noise, variance by light and deviation.
SHOT, READ = 3e-5, 8e-4


def photographed(light: np.ndarray, seed: int) -> np.ndarray:
    """Light (3, N) as an 8-bit picture of it holds it."""
    noise = np.random.default_rng(seed).normal(size=light.shape) * np.sqrt(
        np.clip(light, 0, None) * SHOT + READ**2
    )
    codes = (
        np.rint(np.clip(encode(np.clip(light + noise, 0, 1).astype(np.float32)), 0, 1) * 255) / 255
    )
    return np.asarray(decode(codes.astype(np.float32)), np.float64)


def far(given: np.ndarray, wanted: np.ndarray) -> float:
    """Mean ΔE2000 of a thing in the mean light of another, from that."""
    thing = Thing(given, np.ones(given.shape[1]))
    out = thing.in_colour(thing.towards(wanted.mean(axis=1)))
    return float(delta_e_2000(to_cielab(np.clip(out, 0, 1).T), to_cielab(wanted.T)).mean())


def main() -> None:
    folder, every = pathlib.Path(sys.argv[1]), []
    names = sorted({path.stem.split("-")[0] for path in folder.glob("*-first.npz")})
    for name in names:
        held = np.load(folder / f"{name}-first.npz")
        inside, rows = held["cover"] > 0.995, []
        first = photographed(np.moveaxis(held["light"], -1, 0)[:, inside], 1)
        for number, path in enumerate(sorted(folder.glob(f"{name}-*.npz")), 2):
            if path.stem != f"{name}-first":
                other = photographed(np.moveaxis(np.load(path)["light"], -1, 0)[:, inside], number)
                there, back = far(first, other), far(other, first)
                rows.append(f"{path.stem.split('-')[1]} {there:.2f} and back {back:.2f}")
                every += [there, back]
        print(f"{name:10}", ", ".join(rows))
    print(f"mean of {len(every)}: {np.mean(every):.2f}")


if __name__ == "__main__":
    main()
