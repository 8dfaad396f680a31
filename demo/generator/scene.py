"""The glaze yard as a scene for Mitsuba 3: what stands where, what it is made of, who looks at
it.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache

import meshes
import mitsuba as mi
import numpy as np
import textures

INDIGO, MADDER = (44, 62, 128), (150, 44, 40)
SUN_DIRECTION = np.array([-0.50, -0.70, 0.66])
#: Objects whose coverage is written, besides "sky", which is what no ray hits.
OBJECTS = [
    "turquoise",
    "oxblood",
    "leaf",
    "honey",
    "terracotta",
    "figure",
    "cloth",
    "marigolds",
    "wall",
    "cup",
]

JAR = [
    (0.0, 0.0),
    (0.085, 0.0),
    (0.095, 0.02),
    (0.17, 0.14),
    (0.19, 0.24),
    (0.165, 0.34),
    (0.105, 0.40),
    (0.09, 0.425),
    (0.115, 0.455),
    (0.108, 0.458),
    (0.08, 0.43),
    (0.0, 0.40),
]
BOTTLE = [
    (0.0, 0.0),
    (0.08, 0.0),
    (0.10, 0.03),
    (0.115, 0.13),
    (0.10, 0.24),
    (0.05, 0.32),
    (0.034, 0.40),
    (0.036, 0.46),
    (0.052, 0.49),
    (0.044, 0.492),
    (0.028, 0.46),
    (0.0, 0.40),
]
VASE = [
    (0.0, 0.0),
    (0.11, 0.0),
    (0.12, 0.03),
    (0.20, 0.22),
    (0.235, 0.42),
    (0.21, 0.60),
    (0.14, 0.71),
    (0.12, 0.76),
    (0.155, 0.82),
    (0.145, 0.825),
    (0.11, 0.76),
    (0.0, 0.70),
]
BOWL = [
    (0.0, 0.0),
    (0.06, 0.0),
    (0.062, 0.018),
    (0.10, 0.04),
    (0.155, 0.10),
    (0.175, 0.15),
    (0.169, 0.153),
    (0.145, 0.10),
    (0.09, 0.045),
    (0.0, 0.035),
]
POT = [
    (0.0, 0.0),
    (0.11, 0.0),
    (0.115, 0.01),
    (0.150, 0.23),
    (0.170, 0.232),
    (0.174, 0.295),
    (0.160, 0.298),
    (0.154, 0.24),
    (0.11, 0.03),
    (0.0, 0.03),
]


CUP = [
    (0.0, 0.0),
    (0.030, 0.0),
    (0.036, 0.006),
    (0.052, 0.045),
    (0.055, 0.085),
    (0.050, 0.118),
    (0.047, 0.119),
    (0.050, 0.085),
    (0.034, 0.012),
    (0.0, 0.010),
]


@dataclass(frozen=True)
class Look:
    """Where the camera stands, what it looks at, how wide (degrees across), how open (metres), how
    exposed.
    """

    origin: tuple[float, float, float]
    target: tuple[float, float, float]
    width_degrees: float
    aperture: float
    exposure: float


YARD = Look((0.10, -3.55, 1.42), (0.02, 1.0, 0.96), 43.0, 0.012, 1.0)
CLOSE = Look((0.62, -1.85, 1.16), (0.20, 0.8, 0.72), 33.0, 0.020, 1.0)


def clip_look(seconds: float) -> Look:
    """The clip's camera: a slow pan to the right."""
    pan = 0.10 * seconds / 3.4
    return Look((-0.05 + 0.3 * pan, -2.9, 1.30), (0.20 + pan, 1.0, 1.00), 34.0, 0.010, 1.0)


def upload(name: str, mesh: meshes.Mesh, bsdf: dict, flat: bool = False) -> mi.Mesh:
    """Hands a numpy mesh to the renderer."""
    vertices, faces, uv = mesh
    properties = mi.Properties()
    properties["surface"] = mi.load_dict(bsdf)
    properties["face_normals"] = flat
    shape = mi.Mesh(
        name,
        len(vertices),
        len(faces),
        has_vertex_normals=not flat,
        has_vertex_texcoords=True,
        props=properties,
    )
    held = mi.traverse(shape)
    held["vertex_positions"] = np.ascontiguousarray(vertices, np.float32).ravel()
    held["faces"] = np.ascontiguousarray(faces, np.uint32).ravel()
    held["vertex_texcoords"] = np.ascontiguousarray(uv, np.float32).ravel()
    held.update()
    return shape


def picture(values: np.ndarray) -> dict:
    return {
        "type": "bitmap",
        "bitmap": mi.Bitmap(np.ascontiguousarray(values, np.float32)),
        "raw": True,
    }


def glazed(texture: np.ndarray, roughness: float = 0.07) -> dict:
    return {
        "type": "twosided",
        "material": {
            "type": "roughplastic",
            "diffuse_reflectance": picture(texture),
            "alpha": roughness,
            "nonlinear": True,
        },
    }


def matt(texture: np.ndarray) -> dict:
    return {"type": "twosided", "material": {"type": "diffuse", "reflectance": picture(texture)}}


def still_things() -> list[tuple[str, meshes.Mesh, Callable[[], dict]]]:
    """All in the yard that does not move, as (object it counts as, mesh, material)."""
    m = meshes
    clay = (150, 92, 62)
    pots = [
        m.moved(m.turned(POT, 31), (1.02, 0.98, 0.0)),
        m.moved(m.turned(POT, 32), (1.02, 0.99, 0.22), 0.97, 0.6, 0.04),
        m.moved(m.turned(POT, 33), (0.62, 0.62, 0.0), 0.80),
        m.moved(m.turned(POT, 34), (1.34, 0.66, 0.13), 0.78, 0.4, 1.15),
        m.moved(m.turned(POT, 35), (-1.42, 1.55, 0.0), 1.25),
        m.moved(m.turned(POT, 36), (0.50, 0.13, 0.44), 0.40),
    ]
    posts = [
        m.tube(np.array([[x, 1.66, 0.0], [x + 0.02, 1.65, 1.1], [x, 1.66, 2.05]]), 0.026, 10)
        for x in (-0.98, 1.62)
    ]
    line = m.tube(m.sag((-0.98, 1.65, 1.98), (1.62, 1.65, 1.98), 0.05), 0.004, 6)
    flowers = m.join(
        [
            m.garland(m.sag((-0.98, 1.58, 1.90), (-0.02, 1.58, 1.90), 0.22), 1),
            m.garland(m.sag((-0.03, 1.56, 1.90), (-0.05, 1.56, 1.28), 0.0, 8), 2),
            m.garland(
                np.array(
                    [
                        [0.30, 0.29, 0.50],
                        [0.36, 0.21, 0.51],
                        [0.45, 0.24, 0.51],
                        [0.46, 0.33, 0.51],
                        [0.37, 0.36, 0.51],
                        [0.33, 0.30, 0.53],
                        [0.39, 0.25, 0.545],
                        [0.42, 0.30, 0.55],
                        [0.37, 0.31, 0.575],
                    ]
                ),
                3,
            ),
            m.garland(
                np.array(
                    [
                        [-0.40, 0.22, 0.47],
                        [-0.28, 0.15, 0.472],
                        [-0.10, 0.11, 0.47],
                        [0.04, 0.16, 0.472],
                        [0.14, 0.12, 0.47],
                    ]
                ),
                4,
            ),
            m.garland(
                np.array(
                    [
                        [0.20, 0.02, 0.03],
                        [0.34, -0.10, 0.03],
                        [0.52, -0.06, 0.03],
                        [0.62, 0.08, 0.03],
                        [0.50, 0.16, 0.03],
                    ]
                ),
                5,
                0.04,
                0.06,
            ),
        ]
    )
    bench = m.join(
        [
            m.slab((-0.62, 0.05, 0.405), (0.60, 0.26, 0.44)),
            m.slab((-0.62, 0.28, 0.405), (0.60, 0.50, 0.44)),
            m.slab((-0.55, 0.08, 0.0), (-0.49, 0.47, 0.405)),
            m.slab((0.47, 0.08, 0.0), (0.53, 0.47, 0.405)),
        ]
    )
    roof = m.join(
        [m.slab((-6.0, -0.4, 2.75), (-1.55, 2.3, 2.80))]
        + [
            m.slab((-1.55 + 0.22 * i, -0.4, 2.75), (-1.45 + 0.22 * i, 2.3, 2.78))
            for i in range(1, 5)
        ]
    )
    ground = (
        np.array([[-9, -6, 0], [9, -6, 0], [9, 40, 0], [-9, 40, 0]], float),
        np.array([[0, 1, 2], [0, 2, 3]]),
        np.array([[0, 0], [9, 0], [9, 23], [0, 23]], float),
    )
    wood = lambda: matt(textures.mottled((122, 104, 86), 61, 0.22, [1, 6], (0.95, 0.9, 0.85)))  # noqa: E731
    return [
        (
            "turquoise",
            m.moved(m.turned(JAR, 11), (-0.24, 0.36, 0.44)),
            lambda: glazed(textures.glaze((38, 146, 150), clay, 71)),
        ),
        (
            "oxblood",
            m.moved(m.turned(VASE, 12), (-0.92, 0.72, 0.0)),
            lambda: glazed(textures.glaze((142, 26, 34), clay, 72), 0.06),
        ),
        (
            "leaf",
            m.moved(m.turned(BOTTLE, 13), (0.13, 0.38, 0.44)),
            lambda: glazed(textures.glaze((62, 116, 48), clay, 73), 0.09),
        ),
        (
            "honey",
            m.moved(m.turned(BOWL, 14), (0.39, 0.29, 0.44), 1.0),
            lambda: glazed(textures.glaze((206, 164, 62), clay, 74), 0.08),
        ),
        (
            "honey",
            m.moved(m.turned(BOWL, 15), (0.16, 0.78, 0.0), 1.5),
            lambda: glazed(textures.glaze((206, 164, 62), clay, 75), 0.08),
        ),
        (
            "terracotta",
            m.join(pots),
            lambda: matt(textures.mottled((188, 96, 62), 51, 0.10, [2, 9, 30], (1.0, 1.06, 1.12))),
        ),
        (
            "figure",
            m.moved(m.figure(), (0.62, 0.60, 0.255), 0.95, 0.35),
            lambda: matt(textures.mottled((214, 160, 132), 52, 0.05, [3, 20], (1.0, 0.97, 0.95))),
        ),
        (
            "figure",
            m.moved(m.figure(), (1.06, 0.28, 0.0), 1.0, -0.3),
            lambda: matt(textures.mottled((214, 160, 132), 53, 0.05, [3, 20], (1.0, 0.97, 0.95))),
        ),
        ("marigolds", flowers, lambda: matt(textures.petals())),
        (
            "wall",
            m.plaster(14.0, 1.72, 2.55),
            lambda: matt(
                textures.mottled((236, 232, 222), 54, 0.03, [2, 12, 60], (1.0, 0.99, 0.96))
            ),
        ),
        ("wood", m.join([bench, *posts]), wood),
        ("line", line, lambda: matt(textures.mottled((170, 160, 140), 62, 0.1, [3]))),
        ("roof", roof, wood),
        (
            "ground",
            ground,
            lambda: matt(textures.mottled((142, 118, 96), 55, 0.16, [1, 5, 30], (1.0, 0.96, 0.9))),
        ),
    ]


def errand(seconds: float) -> tuple[meshes.Mesh, meshes.Mesh]:
    """A painted cup, and the cord it hangs on from a second line above the picture: pulled across
    the yard it sways and comes nearer.
    """
    gone = seconds / 3.3
    swing = 0.10 * np.sin(2 * np.pi * 0.85 * seconds + 0.4)
    hung, long = np.array([1.14 - 2.06 * gone, -0.20 - 0.24 * gone, 1.72]), 0.81
    bottom = hung + long * np.array([np.sin(swing), 0.0, -np.cos(swing)])
    vertices, faces, uv = meshes.turned(CUP, 17, 0.0002)
    c, s = np.cos(swing), np.sin(swing)
    tilted = (
        vertices @ np.array([[c, 0, s], [0, 1, 0], [-s, 0, c]]) + bottom
    )  # it leans as its cord does
    rim = bottom + 0.115 * np.array([-s, 0, c])
    return (tilted, faces, uv), meshes.tube(np.linspace(hung, rim, 12), 0.0018, 6)


@cache
def painted_cup() -> dict:
    return glazed(textures.painted((226, 216, 196), (38, 60, 140), 81), 0.08)


@cache
def still_shapes() -> list[tuple[str, mi.Mesh]]:
    """What does not move, uploaded once for all frames."""
    return [
        (kind, upload(f"{kind}{number}", mesh, material(), flat=kind in ("wood", "roof")))
        for number, (kind, mesh, material) in enumerate(still_things())
    ]


def build(
    look: Look,
    size: tuple[int, int],
    time: float = 0.0,
    wind: float = 0.35,
    cloud: float = 0.0,
    cloth_levels: tuple[int, int, int] = INDIGO,
    with_errand: bool = False,
) -> tuple[mi.Scene, list[str]]:
    """The scene, and the object that each of its shapes counts as, in the order of
    ``scene.shapes()``.
    """
    turn = mi.ScalarTransform4f
    focus = float(np.linalg.norm(np.array(look.target) - np.array(look.origin)))
    sun_up = turn().rotate([1, 0, 0], 90)
    held: dict = {
        "type": "scene",
        "sky": {
            "type": "envmap",
            "bitmap": mi.Bitmap(textures.sky(SUN_DIRECTION, 1500.0, cloud)),
            "to_world": sun_up,
        },
        "camera": {
            "type": "thinlens",
            "fov": look.width_degrees,
            "fov_axis": "x",
            "aperture_radius": look.aperture,
            "focus_distance": focus * 0.80,
            "to_world": turn().look_at(
                origin=list(look.origin), target=list(look.target), up=[0, 0, 1]
            ),
            "film": {
                "type": "hdrfilm",
                "width": size[0],
                "height": size[1],
                "rfilter": {"type": "box"},
                "pixel_format": "rgb",
                "component_format": "float32",
            },
            "sampler": {"type": "independent"},
        },
    }
    cloth = meshes.moved(meshes.cloth(1.02, 1.02, time, wind), (0.74, 1.64, 1.945))
    shapes = [
        *still_shapes(),
        ("cloth", upload("cloth", cloth, matt(textures.woven(cloth_levels)))),
    ]
    if with_errand:
        cup, cord = errand(time)
        shapes += [
            ("cup", upload("cup", cup, painted_cup())),
            ("line", upload("cord", cord, matt(np.full((4, 4, 3), 0.3)))),
        ]
    named = {f"{kind}-{number}": (kind, shape) for number, (kind, shape) in enumerate(shapes)}
    held |= {name: shape for name, (_, shape) in named.items()}
    scene = mi.load_dict(held)
    return scene, [named[shape.id()][0] for shape in scene.shapes()]
