"""Functions of OpenColorIO: names and transforms of a colour configuration, and lookup tables in
files.
"""

from __future__ import annotations

import functools
import pathlib
from typing import Any

import numpy as np
import PyOpenColorIO as ocio

from ...errors import Trouble
from ...language import translator

translate = translator("colour")


BUILT_IN = "ocio://studio-config-v2.1.0_aces-v1.3_ocio-v2.3"
#: OpenColorIO's name of the working space: linear light, Rec. 709 primaries.
WORKING = "Linear Rec.709 (sRGB)"
#: Between the name of a display and that of its view.
BETWEEN = " / "
#: Nodes on a side of a table that is made from what is no plain table.
NODES = 65


@functools.lru_cache(maxsize=4)
def config_of(name: str) -> Any:
    """The configuration that ``$OCIO`` names, or OpenColorIO's own for ""; raises `Trouble` when it
    is none.
    """
    try:
        config = ocio.Config.CreateFromFile(name or BUILT_IN)
        config.validate()
    except (ocio.Exception, ocio.ExceptionMissingFile) as error:
        words = str(error).splitlines()[0][:200]
        raise Trouble(
            translate(
                "The colour configuration {name} cannot be used ({words}): correct $OCIO, or "
                "unset it.",
                name=name,
                words=words,
            )
        ) from None
    return config


def names(environment: str) -> dict[str, list[str]]:
    """Names of "inputs" (the colour spaces a picture may be in), "displays" ("display / view") and
    "workings" (linear spaces).
    """
    config = config_of(environment)
    spaces = list(config.getColorSpaces())
    return {
        "inputs": [space.getName() for space in spaces if not space.isData()],
        "displays": [
            f"{display}{BETWEEN}{view}"
            for display in config.getDisplays()
            for view in config.getViews(display)
        ],
        "workings": [space.getName() for space in spaces if space.getEncoding() == "scene-linear"],
    }


@functools.lru_cache(maxsize=16)
def _processor(kind: str, name: str, environment: str) -> Any:
    config = config_of(environment)
    try:
        if kind == "input":
            return ocio.Config.GetProcessorToBuiltinColorSpace(
                config, name, WORKING
            ).getDefaultCPUProcessor()
        display, _, view = name.partition(BETWEEN)
        working = ocio.Config.GetProcessorFromBuiltinColorSpace(
            WORKING, config, ocio.ROLE_SCENE_LINEAR
        )
        shown = config.getProcessor(
            ocio.ROLE_SCENE_LINEAR, display, view, ocio.TRANSFORM_DIR_FORWARD
        )
        both = ocio.GroupTransform([*working.createGroupTransform(), *shown.createGroupTransform()])
        return config.getProcessor(both).getDefaultCPUProcessor()
    except (ocio.Exception, ocio.ExceptionMissingFile) as error:
        known = "; ".join(names(environment)["inputs" if kind == "input" else "displays"])[:300]
        words = str(error).splitlines()[0][:200]
        raise Trouble(
            translate(
                "«{name}» cannot be used as a colour space ({words}): choose one of {known} …",
                name=name,
                words=words,
                known=known,
            )
        ) from None


def applied(kind: str, name: str, environment: str, planes: np.ndarray) -> np.ndarray:
    """Planes (3, H, W) from a colour space to linear light ("input"), or from there to a "display";
    raises `Trouble` for an unknown one.
    """
    processor = _processor(kind, name, environment)
    if not planes.size:
        return planes
    pixels = np.ascontiguousarray(np.moveaxis(planes, 0, -1), np.float32)
    processor.applyRGB(pixels)
    return np.ascontiguousarray(np.moveaxis(pixels, -1, 0))


def table(path: str) -> np.ndarray:
    """The lookup table of a file (N, N, N, 3) float32, by red, green, blue; what is more than a
    table is made into one. Raises `Trouble`.
    """
    try:
        transform = ocio.FileTransform(path, interpolation=ocio.INTERP_TETRAHEDRAL)
        made = ocio.Config.CreateRaw().getProcessor(transform)
        parts = list(made.createGroupTransform())
        if (
            len(parts) == 1
            and isinstance(parts[0], ocio.Lut3DTransform)
            and parts[0].getDirection() == ocio.TRANSFORM_DIR_FORWARD
        ):
            size = parts[0].getGridSize()
            return np.array(parts[0].getData(), np.float32).reshape(size, size, size, 3)
        nodes = np.linspace(0, 1, NODES, dtype=np.float32)
        grid = np.ascontiguousarray(
            np.stack(np.meshgrid(nodes, nodes, nodes, indexing="ij"), -1).reshape(-1, 3)
        )
        made.getDefaultCPUProcessor().applyRGB(grid)
        return grid.reshape(NODES, NODES, NODES, 3)
    except (ocio.Exception, ocio.ExceptionMissingFile, ValueError, UnicodeDecodeError):
        raise Trouble(
            translate(
                "{path} is not a readable lookup table: it is damaged or of a kind that is not "
                "known.",
                path=pathlib.Path(path),
            )
        ) from None


def clf_of(values: np.ndarray) -> str:
    """A table (N, N, N, 3) as the text of a ``.clf``."""
    transform = ocio.Lut3DTransform(gridSize=values.shape[0])
    transform.setData(np.ascontiguousarray(values, np.float32).reshape(-1))  # blue changes fastest
    return str(
        ocio.GroupTransform([transform]).write(
            "Academy/ASC Common LUT Format", ocio.Config.CreateRaw()
        )
    )
