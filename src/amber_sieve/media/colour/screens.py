"""Tables from sRGB codes to a screen or a print: a screen's own profile, a soft proof and what lies
outside its gamut.
"""

from __future__ import annotations

import functools
import pathlib

import imagecodecs
import numpy as np

from ...core.colour.difference import delta_e_2000, to_cielab
from ...core.colour.transfer import decode
from ...errors import Trouble
from ...files import regular_file
from ...language import translator
from . import spaces as colour_spaces
from .management import INTENT, linear_profile, space_of, srgb_profile

translate = translator("colour")


#: Nodes on a side of the tables.
NODES = 33
#: Nodes of the table of a display.
DISPLAY_NODES = 65
#: The light that its first node stands for; between, equal steps are nearly equal factors.
DARK = 0.01
#: The light that its last node stands for.
BRIGHT = 64.0


def _grid(nodes: int = NODES) -> np.ndarray:
    steps = np.linspace(0, 1, nodes, dtype=np.float32)
    return np.stack(np.meshgrid(steps, steps, steps, indexing="ij"), -1)


def _profile(path: str) -> bytes:
    data = regular_file(pathlib.Path(path)).read_bytes()
    if data[36:40] != b"acsp" or space_of(data) not in ("rgb", "cmyk", "gray"):
        raise Trouble(
            translate(
                "{path} is no ICC profile of a screen or a print: choose an .icc or .icm file.",
                path=path,
            )
        )
    return data


def _through(
    values: np.ndarray, one: bytes, other: bytes, spaces: tuple[str, str], kind: str
) -> np.ndarray:
    done: np.ndarray = imagecodecs.cms_transform(
        np.ascontiguousarray(values),
        one,
        other,
        colorspace=spaces[0],
        outcolorspace=spaces[1],
        outdtype=kind,
        intent=INTENT,
    )
    return done


@functools.lru_cache(maxsize=4)
def screen_table(path: str, changed: int) -> np.ndarray:
    """sRGB codes as those of a screen (N, N, N, 3) float32, by its ICC profile; ``changed`` is when
    the file was.

    Raises
    ------
    Trouble: it is no profile of a screen.
    """
    profile = _profile(path)
    if space_of(profile) != "rgb":
        raise Trouble(translate("{path} is no ICC profile of a screen: choose another.", path=path))
    try:
        flat = _through(
            _grid().reshape(1, -1, 3), srgb_profile(), profile, ("rgb", "rgb"), "float32"
        )
    except Exception:  # Little CMS says only that it failed
        raise Trouble(
            translate("The profile {path} cannot be used: it is damaged.", path=path)
        ) from None
    return np.clip(flat, 0, 1).reshape(NODES, NODES, NODES, 3).astype(np.float32)


@functools.lru_cache(maxsize=4)
def proof_tables(path: str, changed: int) -> tuple[np.ndarray, np.ndarray]:
    """sRGB codes as a print or screen by an ICC profile would show them, and ΔE2000 from what they
    should be (N, N, N, 3) alike in all three; raises `Trouble` when it is no such profile.
    """
    profile, grid = _profile(path), _grid()
    space, wanted = space_of(profile), grid.reshape(1, -1, 3)
    try:
        # Sixteen bits on the way: inks have no more, and what a profile cannot hold is cut off
        # there.
        there = _through(
            np.rint(wanted * 65535).astype(np.uint16),
            srgb_profile(),
            profile,
            ("rgb", space),
            "uint16",
        )
        there = there if space != "gray" else there.reshape(1, -1, 1)
        light = _through(there, profile, linear_profile(), (space, "rgb"), "float32").reshape(-1, 3)
    except Exception:  # Little CMS says only that it failed
        raise Trouble(
            translate(
                "The profile {path} cannot be used for a proof: it is damaged, or lacks the way "
                "back.",
                path=path,
            )
        ) from None
    far = delta_e_2000(to_cielab(light), to_cielab(decode(wanted[0])))
    back = np.clip(_coded(light), 0, 1).reshape(grid.shape)
    return back.astype(np.float32), np.repeat(
        far.astype(np.float32).reshape(*grid.shape[:3], 1), 3, axis=3
    )


def _coded(light: np.ndarray) -> np.ndarray:
    from ...core.colour.transfer import encode

    return encode(np.ascontiguousarray(light, np.float32))


@functools.lru_cache(maxsize=4)
def display_table(name: str, environment: str) -> np.ndarray:
    """Return the table of a "display / view", (N, N, N, 3) float32, over the places of
    `display_places`; ``environment`` is ``$OCIO``.

    Raises
    ------
    Trouble: there is no such display.
    """
    places = _grid(DISPLAY_NODES).astype(np.float64)
    light = DARK * ((BRIGHT + DARK) / DARK) ** places - DARK
    planes = np.ascontiguousarray(np.moveaxis(light.reshape(1, -1, 3), -1, 0), np.float32)
    shown = np.clip(colour_spaces.to_display(planes, name), 0, 1)
    return np.ascontiguousarray(np.moveaxis(shown, 0, -1).reshape(places.shape), np.float32)
