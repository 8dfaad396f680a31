"""Path-traces the demo pictures and the clip with their true coverage. See README.md in this
folder.

python demo/generator/render.py yard|close|madder|clip --out FOLDER [--samples N] [--scale S]
"""

from __future__ import annotations

import argparse
import pathlib
import time as clock

import drjit as dr
import mitsuba as mi
import numpy as np

mi.set_variant("llvm_ad_rgb")
import scene as yard  # noqa: E402  (needs the variant set)

CLIP_SIZE, CLIP_RATE, CLIP_FRAMES = (960, 540), 24, 80
STILL_SIZE = (1800, 1200)
PASS_SAMPLES = 30_000_000


class Covering(mi.SamplingIntegrator):
    """A path tracer that also tells, for each camera sample, which object it hit: colour and
    coverage come from the same rays.
    """

    def __init__(self, scene: mi.Scene, kinds: list[str]) -> None:
        super().__init__(mi.Properties())
        self.path = mi.load_dict({"type": "path", "max_depth": 6, "rr_depth": 16})
        slots = [yard.OBJECTS.index(kind) + 1 if kind in yard.OBJECTS else 0 for kind in kinds]
        numbers = [
            dr.reinterpret_array(mi.UInt32, mi.ShapePtr(shape))[0] for shape in scene.shapes()
        ]
        table = np.zeros(max(numbers) + 1, np.uint32)
        table[numbers] = slots
        self.table = mi.UInt32(table)

    def sample(self, scene, sampler, ray, medium=None, active=True):  # type: ignore[no-untyped-def]
        colour, _, _ = self.path.sample(scene, sampler, mi.RayDifferential3f(ray), None, active)
        colour = dr.minimum(colour, 12.0)  # a sensor saturates; so do the rare bright paths
        hit = scene.ray_intersect(ray, active)
        slot = dr.gather(
            mi.UInt32, self.table, dr.reinterpret_array(mi.UInt32, hit.shape), hit.is_valid()
        )
        covers = [
            dr.select(hit.is_valid() & (slot == k + 1), 1.0, 0.0) for k in range(len(yard.OBJECTS))
        ]
        return colour, True, [*covers, dr.select(hit.is_valid(), 0.0, 1.0)]

    def aov_names(self):  # type: ignore[no-untyped-def]
        return [*yard.OBJECTS, "sky"]


def trace(
    look: yard.Look, size: tuple[int, int], samples: int, seed: int, **options
) -> tuple[np.ndarray, dict[str, np.ndarray]]:  # type: ignore[no-untyped-def]
    """Linear light (H, W, 3) and the coverage (H, W) of every object."""
    scene, kinds = yard.build(look, size, **options)
    integrator = Covering(scene, kinds)
    each = max(1, min(samples, PASS_SAMPLES // (size[0] * size[1])))
    total, done = np.zeros((size[1], size[0], 3 + len(yard.OBJECTS) + 1)), 0
    while done < samples:
        total += (
            np.array(mi.render(scene, integrator=integrator, spp=each, seed=seed * 1000 + done))
            * each
        )
        done += each
    total /= done
    return total[..., :3] * look.exposure, {
        name: total[..., 3 + k] for k, name in enumerate([*yard.OBJECTS, "sky"])
    }


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    parser.add_argument("what", choices=["yard", "close", "madder", "clip"])
    parser.add_argument("--out", type=pathlib.Path, required=True)
    parser.add_argument("--samples", type=int, default=0)
    parser.add_argument("--scale", type=float, default=1.0)
    parser.add_argument(
        "--frames",
        type=int,
        nargs="*",
        default=range(CLIP_FRAMES),
        help="only these frames of the clip",
    )
    arguments = parser.parse_args()
    arguments.out.mkdir(parents=True, exist_ok=True)
    if arguments.what == "clip":
        size = (round(CLIP_SIZE[0] * arguments.scale), round(CLIP_SIZE[1] * arguments.scale))
        for number in arguments.frames:
            target = arguments.out / f"clip-{number:04}.npz"
            if target.exists():
                continue
            started, seconds = clock.time(), number / CLIP_RATE
            cloud = float(np.exp(-(((seconds - 1.9) / 0.65) ** 2)))  # a cloud passes before the sun
            light, covers = trace(
                yard.clip_look(seconds),
                size,
                arguments.samples or 24,
                9000 + number,
                time=seconds,
                wind=1.0,
                cloud=cloud,
                with_errand=True,
            )
            held = {
                name: np.round(covers[name] * 255).astype(np.uint8)
                for name in ("turquoise", "cloth", "cup")
            }
            partial = arguments.out / f"partial-{number:04}.npz"
            np.savez_compressed(partial, light=light.astype(np.float16), **held)
            partial.rename(target)
            print(number, f"{clock.time() - started:.1f} s", flush=True)
        return
    size = (round(STILL_SIZE[0] * arguments.scale), round(STILL_SIZE[1] * arguments.scale))
    look, levels = (
        (yard.CLOSE if arguments.what == "close" else yard.YARD),
        (yard.MADDER if arguments.what == "madder" else yard.INDIGO),
    )
    light, covers = trace(
        look,
        size,
        arguments.samples or 96,
        7 if arguments.what == "close" else 1,
        cloth_levels=levels,
    )
    np.savez_compressed(
        arguments.out / f"{arguments.what}.npz",
        light=light.astype(np.float32),
        **{name: cover.astype(np.float32) for name, cover in covers.items()},
    )


if __name__ == "__main__":
    main()
