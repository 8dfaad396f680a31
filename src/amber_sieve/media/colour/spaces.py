"""Colour spaces by name, through OpenColorIO: of ``$OCIO`` where that is set, else of its own ACES
studio configuration.

Its own configuration is small and used here; one that somebody has made may be large, and is used
in a process of its own.
"""

from __future__ import annotations

import os
import pathlib
from typing import Any

import numpy as np

from ...errors import Trouble
from ...files import regular_file
from ...language import translator
from . import ocio_process

translate = translator("colour")


def _ask(what: str, *given: Any) -> Any:
    """Ask OpenColorIO about the configuration in use, here or in its own process; raises
    `Trouble`.
    """
    if os.environ.get("OCIO", ""):
        return ocio_process.ask(what, *given)
    from . import ocio_functions

    return getattr(ocio_functions, what)(*given)


def _environment() -> str:
    """``$OCIO`` as the other process finds it, wherever that runs; raises `Trouble` when it names
    no file.
    """
    name = os.environ.get("OCIO", "")
    if not name or "://" in name:
        return name
    try:
        return str(regular_file(pathlib.Path(name)).absolute())  # a pipe would be waited for
    except Trouble as trouble:
        raise Trouble(
            translate(
                "{trouble} That is what $OCIO names: correct it, or unset it.",
                trouble=trouble,
            )
        ) from None


def names() -> dict[str, list[str]]:
    """The names of "inputs", "displays" and "workings", see below; raises `Trouble` when ``$OCIO``
    is no configuration.
    """
    found: dict[str, list[str]] = _ask("names", _environment())
    return found


def inputs() -> list[str]:
    """Names of the colour spaces a picture may be in; raises `Trouble` when ``$OCIO`` is no
    configuration.
    """
    return names()["inputs"]


def displays() -> list[str]:
    """Displays with their views, as in "display / view"; raises `Trouble` when ``$OCIO`` is no
    configuration.
    """
    return names()["displays"]


def workings() -> list[str]:
    """Names of the linear colour spaces, in which may be worked; raises `Trouble` when ``$OCIO`` is
    no configuration.
    """
    return names()["workings"]


def matrix_of(name: str) -> tuple[float, ...]:
    """The matrix from a linear colour space to Rec. 709, its nine numbers row by row; raises
    `Trouble` when it is not linear, or unknown.
    """
    ends = np.concatenate([np.eye(3), 2 * np.eye(3)]).astype(np.float32)
    light = to_light(np.ascontiguousarray(ends.T[:, None]), name)[:, 0].astype(np.float64)
    if (
        not np.allclose(light[:, 3:], 2 * light[:, :3], atol=1e-4)
        or abs(np.linalg.det(light[:, :3])) < 1e-6
    ):
        raise Trouble(
            translate(
                "«{name}» is not linear, so nothing can be worked in it: choose one of {spaces}.",
                name=name,
                spaces=", ".join(workings())[:300],
            )
        )
    return tuple(float(number) for number in light[:, :3].ravel())


def to_light(codes: np.ndarray, name: str) -> np.ndarray:
    """Samples (3, H, W) in a colour space as linear light, Rec. 709 primaries; raises `Trouble` for
    an unknown one.
    """
    light: np.ndarray = _ask("applied", "input", name, _environment(), codes)
    return light


def to_display(planes: np.ndarray, name: str) -> np.ndarray:
    """Linear light (3, H, W) as the codes of "display / view", 0 to 1; raises `Trouble` for an
    unknown one.
    """
    codes: np.ndarray = _ask("applied", "display", name, _environment(), planes)
    return codes
