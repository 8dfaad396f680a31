"""Colour spaces by name, through OpenColorIO: of ``$OCIO`` where that is set, else of its own ACES studio configuration."""

from __future__ import annotations

import functools
import os
from typing import Any

import numpy as np

from ..errors import Trouble

BUILT_IN = "ocio://studio-config-v2.1.0_aces-v1.3_ocio-v2.3"
#: OpenColorIO's name of the working space: linear light, Rec. 709 primaries.
WORKING = "Linear Rec.709 (sRGB)"
#: Between the name of a display and that of its view.
BETWEEN = " / "


def _config() -> Any:
    return _config_of(os.environ.get("OCIO", ""))


@functools.lru_cache(maxsize=4)
def _config_of(name: str) -> Any:
    import PyOpenColorIO as ocio  # slow to load, and rarely needed

    try:
        config = ocio.Config.CreateFromFile(name or BUILT_IN)
        config.validate()
    except (ocio.Exception, ocio.ExceptionMissingFile) as error:
        words = str(error).splitlines()[0][:200]
        raise Trouble(f"The colour configuration {name} cannot be used ({words}): correct $OCIO, or unset it.") from None
    return config


def inputs() -> list[str]:
    """Names of the colour spaces a picture may be in; raises `Trouble` when ``$OCIO`` is no configuration."""
    return [space.getName() for space in _config().getColorSpaces() if not space.isData()]


def displays() -> list[str]:
    """Displays with their views, as in "display / view"; raises `Trouble` when ``$OCIO`` is no configuration."""
    config = _config()
    return [f"{display}{BETWEEN}{view}" for display in config.getDisplays() for view in config.getViews(display)]


@functools.lru_cache(maxsize=16)
def _processor(kind: str, name: str, environment: str) -> Any:
    import PyOpenColorIO as ocio

    config = _config_of(environment)
    try:
        if kind == "input":
            return ocio.Config.GetProcessorToBuiltinColorSpace(config, name, WORKING).getDefaultCPUProcessor()
        display, _, view = name.partition(BETWEEN)
        working = ocio.Config.GetProcessorFromBuiltinColorSpace(WORKING, config, ocio.ROLE_SCENE_LINEAR)
        shown = config.getProcessor(ocio.ROLE_SCENE_LINEAR, display, view, ocio.TRANSFORM_DIR_FORWARD)
        both = ocio.GroupTransform([*working.createGroupTransform(), *shown.createGroupTransform()])
        return config.getProcessor(both).getDefaultCPUProcessor()
    except (ocio.Exception, ocio.ExceptionMissingFile) as error:
        known = "; ".join(inputs() if kind == "input" else displays())[:300]
        words = str(error).splitlines()[0][:200]
        raise Trouble(f"«{name}» cannot be used as a colour space ({words}): choose one of {known} …") from None


def workings() -> list[str]:
    """Names of the linear colour spaces, in which may be worked; raises `Trouble` when ``$OCIO`` is no configuration."""
    return [space.getName() for space in _config().getColorSpaces() if space.getEncoding() == "scene-linear"]


def matrix_of(name: str) -> tuple[float, ...]:
    """The matrix from a linear colour space to Rec. 709, its nine numbers row by row; raises `Trouble` when it is not linear, or unknown."""
    ends = np.concatenate([np.eye(3), 2 * np.eye(3)]).astype(np.float32)
    light = to_light(np.ascontiguousarray(ends.T[:, None]), name)[:, 0].astype(np.float64)
    if not np.allclose(light[:, 3:], 2 * light[:, :3], atol=1e-4) or abs(np.linalg.det(light[:, :3])) < 1e-6:
        raise Trouble(f"«{name}» is not linear, so nothing can be worked in it: choose one of {', '.join(workings())[:300]}.")
    return tuple(float(number) for number in light[:, :3].ravel())


def _applied(processor: Any, planes: np.ndarray) -> np.ndarray:
    """Planes (3, H, W) through a processor."""
    pixels = np.ascontiguousarray(np.moveaxis(planes, 0, -1), np.float32)
    processor.applyRGB(pixels)
    return np.ascontiguousarray(np.moveaxis(pixels, -1, 0))


def to_light(codes: np.ndarray, name: str) -> np.ndarray:
    """Samples (3, H, W) in a colour space as linear light, Rec. 709 primaries; raises `Trouble` for an unknown one."""
    return _applied(_processor("input", name, os.environ.get("OCIO", "")), codes)


def to_display(planes: np.ndarray, name: str) -> np.ndarray:
    """Linear light (3, H, W) as the codes of "display / view", 0 to 1; raises `Trouble` for an unknown one."""
    return _applied(_processor("display", name, os.environ.get("OCIO", "")), planes)
