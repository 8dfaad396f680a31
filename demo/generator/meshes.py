"""Procedural meshes of the yard: turned pots, modelled clay, hanging cloth with a fringe,
marigolds, wall.

A mesh is ``(vertices (N, 3), faces (M, 3), uv (N, 2))`` in metres, x to the right, y away from the
camera, z up.
"""

from __future__ import annotations

import numpy as np
from scipy.interpolate import PchipInterpolator
from scipy.ndimage import gaussian_filter
from skimage.measure import marching_cubes

Mesh = tuple[np.ndarray, np.ndarray, np.ndarray]


def grid_faces(rows: int, columns: int) -> np.ndarray:
    """Two triangles for every cell of a (rows, columns) grid of vertices."""
    index = np.arange(rows * columns).reshape(rows, columns)
    a, b, c, d = index[:-1, :-1], index[:-1, 1:], index[1:, 1:], index[1:, :-1]
    return np.concatenate(
        [np.stack([a, b, c], -1).reshape(-1, 3), np.stack([a, c, d], -1).reshape(-1, 3)]
    )


def join(meshes: list[Mesh]) -> Mesh:
    """One mesh out of several."""
    offsets = np.cumsum([0] + [len(mesh[0]) for mesh in meshes[:-1]])
    return (
        np.concatenate([mesh[0] for mesh in meshes]),
        np.concatenate([mesh[1] + offset for mesh, offset in zip(meshes, offsets, strict=True)]),
        np.concatenate([mesh[2] for mesh in meshes]),
    )


def moved(
    mesh: Mesh,
    to: tuple[float, float, float],
    scale: float = 1.0,
    turn: float = 0.0,
    lean: float = 0.0,
) -> Mesh:
    """The mesh scaled, leant about x and turned about z (radians), then moved."""
    c, s = np.cos(turn), np.sin(turn)
    cl, sl = np.cos(lean), np.sin(lean)
    about_x = np.array([[1, 0, 0], [0, cl, -sl], [0, sl, cl]])
    about_z = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]])
    return mesh[0] * scale @ (about_z @ about_x).T + np.array(to), mesh[1], mesh[2]


def turned(
    profile: list[tuple[float, float]],
    seed: int,
    rings: float = 0.0007,
    around: int = 160,
    along: int = 200,
) -> Mesh:
    """A pot thrown on the wheel: (radius, height) points turned about z, with throwing rings and a
    slightly uneven hand.
    """
    points = np.array(profile, float)
    length = np.concatenate([[0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    t = np.linspace(0, length[-1], along)
    radius, height = (
        PchipInterpolator(length, points[:, 0])(t),
        PchipInterpolator(length, points[:, 1])(t),
    )
    rng = np.random.default_rng(seed)
    radius = radius + rings * np.sin(
        t * 190 + 2.5 * np.sin(t * 17 + rng.uniform(0, 6)) + rng.uniform(0, 6)
    ) * np.clip(radius * 8, 0, 1)
    angle = np.linspace(0, 2 * np.pi, around + 1)
    uneven = (
        1
        + 0.008 * np.sin(2 * angle + rng.uniform(0, 6))[None]
        + 0.004 * np.sin(3 * angle + 4 * t[:, None])
    )
    r = radius[:, None] * uneven
    vertices = np.stack(
        [r * np.cos(angle), r * np.sin(angle), np.broadcast_to(height[:, None], r.shape)], -1
    )
    uv = np.stack(np.meshgrid(angle / (2 * np.pi), t / length[-1]), -1)
    return vertices.reshape(-1, 3), grid_faces(along, around + 1), uv.reshape(-1, 2)


def figure(cells: int = 150) -> Mesh:
    """A seated clay figure pressed together from balls and rolls: a smooth union of capsules, 0.46
    m high.
    """
    parts = [
        ((0, 0, 0.04), (0, 0, 0.06), 0.105),
        ((0, 0, 0.06), (0, 0.01, 0.24), 0.075),
        ((0, 0, 0.24), (0, 0, 0.27), 0.068),
        ((0, -0.005, 0.30), (0, -0.01, 0.36), 0.034),
        ((0, -0.015, 0.385), (0, -0.015, 0.40), 0.060),
        ((0, -0.075, 0.385), (0, -0.07, 0.40), 0.010),
        ((0, 0.03, 0.455), (0, 0.03, 0.46), 0.028),
        ((-0.085, 0, 0.265), (-0.13, -0.05, 0.16), 0.028),
        ((-0.13, -0.05, 0.16), (-0.055, -0.13, 0.10), 0.023),
        ((0.085, 0, 0.265), (0.13, -0.05, 0.16), 0.028),
        ((0.13, -0.05, 0.16), (0.055, -0.13, 0.10), 0.023),
        ((-0.06, -0.03, 0.04), (-0.15, -0.12, 0.05), 0.050),
        ((-0.15, -0.12, 0.05), (0.0, -0.17, 0.035), 0.036),
        ((0.06, -0.03, 0.04), (0.15, -0.12, 0.05), 0.050),
        ((0.15, -0.12, 0.05), (0.0, -0.18, 0.04), 0.036),
    ]
    low, high = np.array([-0.24, -0.26, -0.03]), np.array([0.24, 0.16, 0.52])
    step = (high - low).max() / cells
    axes = [np.arange(low[i], high[i], step) for i in range(3)]
    p = np.stack(np.meshgrid(*axes, indexing="ij"), -1)
    blend = 0.016
    total = np.zeros(p.shape[:3])
    for a, b, r in parts:
        a, b = np.array(a), np.array(b)
        along = np.clip((p - a) @ (b - a) / ((b - a) @ (b - a)), 0, 1)
        total += np.exp(-(np.linalg.norm(p - a - along[..., None] * (b - a), axis=-1) - r) / blend)
    distance = -blend * np.log(total + 1e-12)
    distance += (
        0.0025 * gaussian_filter(np.random.default_rng(5).normal(size=distance.shape), 2.2) * 8
    )
    vertices, faces, _, _ = marching_cubes(distance, 0.0, spacing=(step,) * 3)
    vertices = vertices + low
    return (
        vertices,
        faces.astype(int),
        np.stack([np.arctan2(vertices[:, 1], vertices[:, 0]) / 6.2832 + 0.5, vertices[:, 2]], -1),
    )


def flower(radius: float, seed: int) -> Mesh:
    """A marigold head: a ball of ruffled petals."""
    rng = np.random.default_rng(seed)
    rows, columns = 56, 80
    theta, phi = np.meshgrid(
        np.linspace(0.02, np.pi - 0.02, rows), np.linspace(0, 2 * np.pi, columns), indexing="ij"
    )
    petals = rng.integers(8, 12)
    turn = rng.uniform(0, 6)
    ruffle = 0.16 * np.abs(np.sin(petals * phi / 2 + 9 * theta + turn)) + 0.10 * np.sin(
        theta * 24 + 2 * np.sin(petals * phi)
    ) * np.sin(theta)
    r = radius * (0.78 + ruffle)
    vertices = np.stack(
        [r * np.sin(theta) * np.cos(phi), r * np.sin(theta) * np.sin(phi), 0.8 * r * np.cos(theta)],
        -1,
    )
    shade = np.clip((ruffle + 0.05) / 0.3, 0, 1)  # petal tips are paler than what lies between them
    uv = np.stack([np.full_like(shade, rng.uniform(0.05, 0.95)), 0.02 + 0.96 * shade], -1)
    return moved(
        (vertices.reshape(-1, 3), grid_faces(rows, columns), uv.reshape(-1, 2)),
        (0, 0, 0),
        1.0,
        rng.uniform(0, 6),
        rng.uniform(-1.5, 1.5),
    )


def garland(path: np.ndarray, seed: int, radius: float = 0.034, spacing: float = 0.052) -> Mesh:
    """Marigold heads threaded along a polyline (N, 3)."""
    rng = np.random.default_rng(seed)
    length = np.concatenate([[0], np.cumsum(np.linalg.norm(np.diff(path, axis=0), axis=1))])
    heads = []
    for i, t in enumerate(np.arange(0, length[-1], spacing)):
        at = np.array([np.interp(t, length, path[:, k]) for k in range(3)]) + rng.normal(
            0, 0.004, 3
        )
        heads.append(moved(flower(radius * rng.uniform(0.85, 1.15), seed * 1000 + i), tuple(at)))
    return join(heads)


def sag(
    start: tuple[float, float, float],
    end: tuple[float, float, float],
    depth: float,
    points: int = 60,
) -> np.ndarray:
    """A line that hangs between two points, ``depth`` lower in its middle."""
    t = np.linspace(0, 1, points)[:, None]
    path = np.array(start) * (1 - t) + np.array(end) * t
    path[:, 2] -= depth * 4 * (t * (1 - t))[:, 0]
    return path


def tube(path: np.ndarray, radius: np.ndarray | float, sides: int = 6, v: float = 0.5) -> Mesh:
    """A round thread or pole along a polyline (N, 3)."""
    path = np.asarray(path, float)
    tangent = np.gradient(path, axis=0)
    tangent /= np.linalg.norm(tangent, axis=1, keepdims=True) + 1e-12
    other = np.where(np.abs(tangent[:, :1]) < 0.8, [[1.0, 0, 0]], [[0, 1.0, 0]])
    side = np.cross(tangent, other)
    side /= np.linalg.norm(side, axis=1, keepdims=True)
    up = np.cross(tangent, side)
    angle = np.linspace(0, 2 * np.pi, sides + 1)
    ring = np.cos(angle)[None, :, None] * side[:, None] + np.sin(angle)[None, :, None] * up[:, None]
    radius = np.broadcast_to(np.asarray(radius, float), (len(path),))
    vertices = path[:, None] + ring * radius[:, None, None]
    uv = np.stack(np.meshgrid(angle / 6.2832, np.full(len(path), v)), -1)
    return vertices.reshape(-1, 3), grid_faces(len(path), sides + 1), uv.reshape(-1, 2)


def cloth(width: float, drop: float, time: float = 0.0, wind: float = 1.0, seed: int = 3) -> Mesh:
    """Cloth pegged to a line along x at z = 0, hanging ``drop`` metres, with folds and a fringe of
    threads.

    ``time`` in seconds moves the folds; ``wind`` scales how far.
    """
    rng = np.random.default_rng(seed)
    columns, rows = 260, 160
    u, v = np.meshgrid(np.linspace(0, 1, columns), np.linspace(0, 1, rows))

    def shape(u: np.ndarray, v: np.ndarray) -> np.ndarray:
        loose = v**0.8
        folds = 0.046 * np.sin(2 * np.pi * 4.3 * u + 0.9 * np.sin(3 * v)) + 0.022 * np.sin(
            2 * np.pi * 9.1 * u + 1.3 + 2 * v
        )
        blow = 0.055 * np.sin(2 * np.pi * (1.1 * u + 0.7 * v - 0.55 * time)) + 0.022 * np.sin(
            2 * np.pi * (2.7 * u - 0.4 * v - 0.9 * time) + 1
        )
        y = loose * folds * (0.6 + 0.4 * v) + wind * v**1.3 * blow + wind * 0.05 * v**2
        x = (
            (u - 0.5) * width * (1 - 0.05 * v)
            + 0.012 * loose * np.sin(2 * np.pi * 4.3 * u + 1.6)
            + wind * 0.012 * v * np.sin(6.28 * (0.5 * u - 0.5 * time))
        )
        z = (
            -drop * v
            - 0.014 * np.sin(np.pi * np.mod(u * 5, 1)) * (1 - v) ** 3
            + 0.02 * v * wind * np.sin(6.28 * (0.8 * u - 0.6 * time))
        )
        return np.stack([x, y, z], -1)

    sheet = (
        shape(u, v).reshape(-1, 3),
        grid_faces(rows, columns),
        np.stack([u, 0.9 * v], -1).reshape(-1, 2),
    )
    threads = []
    for start in np.sort(rng.uniform(0.002, 0.998, 210)):
        hem = shape(np.array(start), np.array(1.0))
        along = np.linspace(0, 1, 14)[:, None]
        length = rng.uniform(0.07, 0.125)
        curl = rng.normal(0, 1, (2, 3)) * [0.014, 0.016, 0.004]
        sway = wind * np.array(
            [
                0.012 * np.sin(6.28 * (start - 0.6 * time)),
                0.02 * np.sin(6.28 * (1.4 * start - 0.7 * time)),
                0.0,
            ]
        )
        path = (
            hem
            + along * [0, 0, -length]
            + np.sin(along * 2.2) * curl[0]
            + np.sin(along * 6 + start * 40) * along * curl[1] * 0.4
            + along**1.6 * sway
        )
        threads.append(tube(path, np.linspace(0.0017, 0.0010, 14), 5, rng.uniform(0.91, 0.99)))
    return join([sheet, *threads])


def slab(low: tuple[float, float, float], high: tuple[float, float, float]) -> Mesh:
    """A box between two corners."""
    vertices, faces, uv = [], [], []
    low_, high_ = np.array(low), np.array(high)
    for axis in range(3):
        for end in (0, 1):
            a, b = [k for k in range(3) if k != axis]
            corner = np.tile(low_, (4, 1))
            corner[:, axis] = (low_, high_)[end][axis]
            corner[[1, 2], a] = high_[a]
            corner[[2, 3], b] = high_[b]
            faces += [
                [len(vertices), len(vertices) + 1, len(vertices) + 2],
                [len(vertices), len(vertices) + 2, len(vertices) + 3],
            ]
            vertices += list(corner)
            uv += [[0, 0], [1, 0], [1, 1], [0, 1]]
    return np.array(vertices), np.array(faces), np.array(uv, float)


def plaster(width: float, height: float, y: float, seed: int = 8) -> Mesh:
    """A hand-plastered wall: a sheet in the x-z plane at depth ``y`` with soft undulation, and a
    thick top edge.
    """
    columns, rows = 420, 170
    rng = np.random.default_rng(seed)
    bumps = 0.012 * 14 * gaussian_filter(
        rng.normal(size=(rows, columns)), 7
    ) + 0.0016 * gaussian_filter(rng.normal(size=(rows, columns)), 1.2)
    x, z = np.meshgrid(np.linspace(-width / 2, width / 2, columns), np.linspace(0, height, rows))
    top = 0.012 * np.sin(x * 2.2) + 0.02 * gaussian_filter(rng.normal(size=columns), 9)[None] * 5
    z = z + (z / height) ** 6 * top
    front = np.stack([x, y + bumps, z], -1)
    back = np.stack([x[-1], np.full(columns, y + 0.22), z[-1] - 0.01], -1)
    vertices = np.concatenate([front, back[None]])
    uv = np.stack(np.meshgrid(np.linspace(0, 1, columns), np.linspace(0, 1, rows + 1)), -1)
    return vertices.reshape(-1, 3), grid_faces(rows + 1, columns), uv.reshape(-1, 2)
