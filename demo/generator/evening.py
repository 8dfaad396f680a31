"""An evening sky to put behind a cut-out: python demo/generator/evening.py OUT.png"""

from __future__ import annotations

import sys

import numpy as np
from PIL import Image
from textures import linear, noise

WIDTH, HEIGHT = 1200, 800


def evening() -> np.ndarray:
    """sRGB levels (H, W, 3): deep blue above, amber at the horizon, and streaks of cloud lit from
    below.
    """
    height = np.linspace(1, 0, HEIGHT)[:, None]
    stops = [
        (0.0, (255, 170, 96)),
        (0.25, (238, 158, 120)),
        (0.5, (150, 140, 170)),
        (1.0, (38, 58, 112)),
    ]
    light = np.stack(
        [
            np.interp(height[:, 0], [s for s, _ in stops], [linear(c)[k] for _, c in stops])
            for k in range(3)
        ],
        1,
    )[:, None]
    streaks = noise((HEIGHT, WIDTH), [14, 30, 70], 5)
    rows = (np.arange(HEIGHT) * 2.6).astype(int) % HEIGHT  # clouds lie flat; the noise wraps round
    cloud = (
        np.clip((streaks[rows] - 0.2) * 0.3, 0, 0.75)[..., None]
        * np.clip(1.3 - np.abs(height - 0.55) * 2, 0, 1)[..., None]
    )
    glow = linear((255, 196, 150)) * (0.35 + 0.65 * (1 - height))[..., None]
    light = light * (1 - cloud) + glow * cloud
    coded = np.where(
        light <= 0.0031308, 12.92 * light, 1.055 * np.clip(light, 0, None) ** (1 / 2.4) - 0.055
    )
    return np.rint(np.clip(coded, 0, 1) * 255).astype(np.uint8)


if __name__ == "__main__":
    Image.fromarray(evening()).save(sys.argv[1], optimize=True)
