"""Things rendered again in other colours, to see how near a recolouring comes to the thing as it
would look. Nothing of it is shipped.

python demo/generator/dyed.py FOLDER [NAME…] writes NAME-COLOUR.npz (light, and cover for each
thing): what `bench/dyed.py` reads.
"""

from __future__ import annotations

import pathlib
import sys

import drjit as dr
import mitsuba as mi
import numpy as np

mi.set_variant("llvm_ad_rgb")
import meshes  # noqa: E402  (needs the variant set)
import scene as yard  # noqa: E402
import textures  # noqa: E402

SIZE, SAMPLES = (360, 270), 100
#: What each thing has at first (sRGB levels), and the colours that it is rendered in again.
FIRST = {
    "crumpled": (196, 88, 24),
    "satin": (28, 96, 70),
    "jar": (150, 34, 30),
    "ball": (210, 165, 40),
    "dark": (40, 30, 52),
    "pale": (216, 206, 190),
    "grey": (128, 126, 124),
}
COLOURS = {
    "green": (52, 110, 44),
    "blue": (36, 62, 140),
    "rose": (200, 96, 130),
    "cream": (214, 198, 160),
}
LOOK = yard.Look((0.0, -1.9, 0.75), (0.0, 0.0, 0.42), 34.0, 0.004, 1.0)


def crumpled(width: float, height: float, depth: float, seed: int, cells: int = 260) -> meshes.Mesh:
    """A sheet with sharp folds, leaning back."""
    u, v = np.meshgrid(np.linspace(0, 1, cells), np.linspace(0, 1, cells))
    coarse, fine = (
        textures.noise((cells, cells), sizes, seed + k)
        for k, sizes in enumerate(([70.0, 40.0], [22.0, 12.0]))
    )
    sharp = depth * (np.abs(coarse) + 0.35 * np.abs(fine))
    places = np.stack([(u - 0.5) * width, -sharp + 0.35 * v * height, v * height * 0.95 + 0.02], -1)
    return (
        places.reshape(-1, 3),
        meshes.grid_faces(cells, cells),
        np.stack([u, v], -1).reshape(-1, 2),
    )


def ball(radius: float) -> meshes.Mesh:
    """A ball that stands on the ground."""
    turns = np.linspace(-np.pi / 2, np.pi / 2, 60)
    profile = [
        (max(1e-4, radius * float(np.cos(t))), radius + radius * float(np.sin(t))) for t in turns
    ]
    return meshes.turned(profile, 3, rings=0.0)


JAR = [
    (0.0, 0.0),
    (0.16, 0.0),
    (0.24, 0.12),
    (0.27, 0.28),
    (0.22, 0.44),
    (0.13, 0.52),
    (0.12, 0.58),
    (0.15, 0.62),
    (0.12, 0.62),
    (0.1, 0.5),
]


def thing(name: str, levels: tuple[int, int, int]) -> mi.Mesh:
    """One thing in one colour."""
    body = np.broadcast_to(textures.linear(levels), (4, 4, 3)).astype(np.float32)
    woven = textures.woven(levels)
    if name in ("crumpled", "dark", "grey"):
        return yard.upload(
            name, crumpled(1.0, 0.95, 0.16, 5 if name == "crumpled" else 9), yard.matt(woven)
        )
    if name == "satin":
        return yard.upload(name, crumpled(1.0, 0.95, 0.22, 31), yard.glazed(body, 0.22))
    if name == "ball":
        return yard.upload(name, ball(0.32), yard.matt(body))
    return yard.upload(
        name, meshes.turned(JAR, 4), yard.glazed(body, 0.06 if name == "jar" else 0.12)
    )


def render(name: str, levels: tuple[int, int, int]) -> tuple[np.ndarray, np.ndarray]:
    """Light (H, W, 3) and how far each pixel is covered by the thing (H, W)."""
    turn = mi.ScalarTransform4f
    focus = float(np.linalg.norm(np.array(LOOK.target) - np.array(LOOK.origin)))

    def flat(levels: tuple[int, int, int]) -> dict:
        colours = np.broadcast_to(textures.linear(levels), (4, 4, 3))
        return yard.matt(colours.astype(np.float32))

    scene = mi.load_dict(
        {
            "type": "scene",
            "sky": {
                "type": "envmap",
                "bitmap": mi.Bitmap(textures.sky(yard.SUN_DIRECTION, 1500.0, 0.0)),
                "to_world": turn().rotate([1, 0, 0], 90),
            },
            "camera": {
                "type": "thinlens",
                "fov": LOOK.width_degrees,
                "fov_axis": "x",
                "aperture_radius": LOOK.aperture,
                "focus_distance": focus,
                "to_world": turn().look_at(
                    origin=list(LOOK.origin), target=list(LOOK.target), up=[0, 0, 1]
                ),
                "film": {
                    "type": "hdrfilm",
                    "width": SIZE[0],
                    "height": SIZE[1],
                    "rfilter": {"type": "box"},
                    "pixel_format": "rgb",
                    "component_format": "float32",
                },
                "sampler": {"type": "independent"},
            },
            "thing": thing(name, levels),
            "ground": yard.upload(
                "ground", meshes.slab((-3, -3, -0.1), (3, 3, 0.0)), flat((168, 158, 140)), flat=True
            ),
            "wall": yard.upload(
                "wall", meshes.slab((-3, 0.9, 0.0), (3, 1.0, 3.0)), flat((140, 150, 156)), flat=True
            ),
            "neighbour": yard.upload(
                "neighbour",
                meshes.slab((-0.95, -0.3, 0.0), (-0.7, 0.4, 0.6)),
                flat((182, 92, 60)),
                flat=True,
            ),
        }
    )
    number = next(k for k, shape in enumerate(scene.shapes()) if shape.id() == "thing")
    held = dr.reinterpret_array(mi.UInt32, mi.ShapePtr(scene.shapes()[number]))[0]

    class Covering(mi.SamplingIntegrator):
        def __init__(self) -> None:
            super().__init__(mi.Properties())
            self.path = mi.load_dict({"type": "path", "max_depth": 8, "rr_depth": 16})

        def sample(self, scene, sampler, ray, medium=None, active=True):  # type: ignore[no-untyped-def]
            colour, _, _ = self.path.sample(scene, sampler, mi.RayDifferential3f(ray), None, active)
            hit = scene.ray_intersect(ray, active)
            is_it = hit.is_valid() & (dr.reinterpret_array(mi.UInt32, hit.shape) == held)
            return dr.minimum(colour, 12.0), True, [dr.select(is_it, 1.0, 0.0)]

        def aov_names(self):  # type: ignore[no-untyped-def]
            return ["cover"]

    out = np.array(mi.render(scene, integrator=Covering(), spp=SAMPLES, seed=5))
    return out[..., :3], out[..., 3]


def main() -> None:
    folder = pathlib.Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    for name in sys.argv[2:] or FIRST:
        for colour, levels in {"first": FIRST[name], **COLOURS}.items():
            light, cover = render(name, levels)
            np.savez_compressed(
                folder / f"{name}-{colour}.npz",
                light=light.astype(np.float32),
                cover=cover.astype(np.float32),
            )
            print(name, colour, flush=True)


if __name__ == "__main__":
    main()
