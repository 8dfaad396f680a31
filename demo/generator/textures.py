"""Procedural surface colours, as linear RGB arrays (H, W, 3) in 0 to 1, and the sky as a
latitude-longitude map.
"""

from __future__ import annotations

import numpy as np
from scipy.ndimage import gaussian_filter

Colour = tuple[float, float, float]


def noise(shape: tuple[int, int], sizes: list[float], seed: int) -> np.ndarray:
    """Sum of smoothed white noise at several sizes, scaled to a standard deviation of 1; wraps
    round.
    """
    rng = np.random.default_rng(seed)
    total = np.zeros(shape)
    for size in sizes:
        layer = gaussian_filter(rng.normal(size=shape), size, mode="wrap")
        total += layer / layer.std()
    return total / total.std()


def linear(levels: tuple[int, int, int]) -> np.ndarray:
    """sRGB levels (0 to 255) as linear light (IEC 61966-2-1)."""
    v = np.array(levels) / 255
    return np.where(v <= 0.04045, v / 12.92, ((v + 0.055) / 1.055) ** 2.4)


def glaze(
    levels: tuple[int, int, int],
    bare: tuple[int, int, int],
    seed: int,
    run: float = 0.16,
    lip: float = 0.985,
) -> np.ndarray:
    """A glaze that pools and runs: thicker is deeper; it breaks to the clay's colour along the lip
    and foot.
    """
    shape = (512, 512)
    colour, clay = linear(levels), linear(bare)
    thick = noise(shape, [3, 10, 30], seed) * run
    streaks = gaussian_filter(
        np.random.default_rng(seed + 1).normal(size=shape), (60, 3), mode="wrap"
    )
    thick += streaks / streaks.std() * run * 0.5
    surface = colour[None, None] ** (1 + 0.35 * thick[..., None])
    v = np.linspace(0, 1, shape[0])[:, None, None]
    foot = np.clip((0.10 + 0.012 * noise(shape, [12], seed + 2)[..., None] - v) / 0.01, 0, 1)
    speck = (gaussian_filter(np.random.default_rng(seed + 3).normal(size=shape), 1.1) > 0.42)[
        ..., None
    ] * 0.35
    surface = surface * (1 - speck) + 0.25 * clay * speck
    return np.clip(surface * (1 - foot) + clay * foot, 0, 1)


def mottled(
    levels: tuple[int, int, int],
    seed: int,
    amount: float,
    sizes: list[float],
    tint: Colour = (1, 1, 1),
) -> np.ndarray:
    """A matt surface with uneven brightness and a drift towards ``tint``."""
    shape = (512, 512)
    light = np.exp(amount * noise(shape, sizes, seed))[..., None]
    drift = 0.5 + 0.25 * np.clip(noise(shape, [40], seed + 1), -2, 2)[..., None]
    return np.clip(linear(levels) * light * (1 - drift + drift * np.array(tint)), 0, 1)


def painted(ground: tuple[int, int, int], brush: tuple[int, int, int], seed: int) -> np.ndarray:
    """A pale glaze with brushed dabs between two bands, no two dabs alike."""
    shape = (512, 512)
    v, u = np.mgrid[0 : shape[0], 0 : shape[1]] / shape[0]
    rng = np.random.default_rng(seed)
    wobble = 0.006 * noise(shape, [14], seed)
    ink = np.maximum(np.abs(v - 0.24 + wobble) < 0.012, np.abs(v - 0.62 + wobble) < 0.016).astype(
        float
    )
    for number in range(11):
        at, high, lean = (
            (number + rng.uniform(-0.25, 0.25)) / 11,
            rng.uniform(0.34, 0.50),
            rng.uniform(-0.8, 0.8),
        )
        across = (u - at + 0.5) % 1 - 0.5
        turned, along = across - lean * (v - high), v - high
        ink = np.maximum(
            ink, (turned / 0.022) ** 2 + (along / rng.uniform(0.045, 0.08)) ** 2 + 8 * wobble < 1
        )
    ink = (
        gaussian_filter(ink, 1.2, mode="wrap")[..., None]
        * np.clip(0.85 + 0.12 * noise(shape, [5, 20], seed + 1), 0.4, 1)[..., None]
    )
    base = linear(ground) * np.exp(0.03 * noise(shape, [4, 25], seed + 2))[..., None]
    return np.clip(base * (1 - ink) + linear(brush) * ink, 0, 1)


def woven(levels: tuple[int, int, int], seed: int = 21) -> np.ndarray:
    """Hand-dyed cloth: weave, uneven dye, and two paler woven stripes."""
    shape = (768, 768)
    v, u = np.mgrid[0 : shape[0], 0 : shape[1]] / shape[0]
    weave = 1 + 0.07 * np.sin(u * 2 * np.pi * 190) * np.sin(v * 2 * np.pi * 190)
    dye = np.exp(0.09 * noise(shape, [4, 14, 50], seed))
    stripes = 1 + 0.45 * (
        np.exp(-(((v - 0.80) / 0.010) ** 2)) + np.exp(-(((v - 0.74) / 0.006) ** 2))
    )
    return np.clip(linear(levels) * (weave * dye * stripes)[..., None], 0, 1)


def petals(
    tips: tuple[int, int, int] = (255, 168, 18), hearts: tuple[int, int, int] = (196, 72, 4)
) -> np.ndarray:
    """Marigold colours: u runs from orange heads to yellower ones, v from between the petals to
    their tips.
    """
    u, v = np.meshgrid(np.linspace(0, 1, 64), np.linspace(0, 1, 64))
    deep, pale = linear(hearts), linear(tips)
    warm = linear((246, 126, 8))
    tip = warm + (pale - warm) * u[..., None]
    return deep + (tip - deep) * (v[..., None] ** 0.8)


def sky(sun_direction: np.ndarray, sun: float, cloud: float, size: int = 512) -> np.ndarray:
    """Radiance map, (size, 2·size, 3): blue that pales to the horizon, and a sun 1.2 degrees in
    radius.

    ``sun`` scales the sun; ``cloud`` (0 to 1) greys and dims it, as when a cloud passes before it.
    """
    theta = (np.arange(size) + 0.5) / size * np.pi
    phi = (np.arange(2 * size) + 0.5) / (2 * size) * 2 * np.pi
    height = np.cos(theta)[:, None]
    direction = np.stack(
        [
            np.sin(theta)[:, None] * np.sin(phi),
            np.broadcast_to(height, (size, 2 * size)),
            -np.sin(theta)[:, None] * np.cos(phi),
        ],
        -1,
    )  # the renderer's map has y up; the scene turns it to z up
    up = np.clip(height, 0, 1)[..., None]
    zenith, horizon = np.array([0.085, 0.20, 0.52]), np.array([0.46, 0.60, 0.78])
    radiance = horizon + (zenith - horizon) * up**0.55
    grey = np.array([0.42, 0.45, 0.50])
    radiance = radiance * (1 - 0.35 * cloud) + grey * 0.30 * cloud
    radiance = np.where(height[..., None] < 0, np.array([0.16, 0.13, 0.10]), radiance)
    radiance = np.broadcast_to(radiance, direction.shape).copy()
    to_sun = np.array([sun_direction[0], sun_direction[2], -sun_direction[1]])
    angle = np.degrees(np.arccos(np.clip(direction @ (to_sun / np.linalg.norm(to_sun)), -1, 1)))
    radiance += (
        np.exp(-((angle / 18) ** 2))[..., None] * np.array([0.5, 0.45, 0.35]) * (1 - 0.6 * cloud)
    )
    disc = np.clip((1.7 - angle) / 0.5, 0, 1)[..., None]
    return (radiance + disc * np.array([1.0, 0.93, 0.80]) * sun * (1 - 0.80 * cloud)).astype(
        np.float32
    )
