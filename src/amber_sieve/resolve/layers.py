"""Layers read through the cache, so that their pictures count in its budget."""

from __future__ import annotations

import os
import pathlib

import numpy as np

from ..core.frame import Frame
from ..media.colour import lookup_files, screens
from ..media.colour import spaces as colour_spaces
from ..media.stills.layers import layer_key, placed, read_layer, table_key
from ..render.context import RenderContext
from ..render.layers import Display, Layers, Table


class CachedLayers(Layers):
    """Pictures by their paths; both methods raise `Trouble` when one cannot be read."""

    def __init__(self, context: RenderContext) -> None:
        self._context = context

    def at(self, path: str, like: Frame) -> Frame:
        key = layer_key(path)
        factor = max(1, round(1 / like.scale))
        whole = self.whole(path)
        reduced = (
            self._context.get(("layer", key, factor), lambda: whole.reduced(factor))
            if factor > 1
            else whole
        )
        return placed(reduced, path, like)

    def whole(self, path: str) -> Frame:
        return self._context.get(("layer", layer_key(path)), lambda: read_layer(path))

    def table(self, path: str) -> Table:
        key = ("lookup", table_key(path))
        return self._context.get(key, lambda: Table(key, lookup_files.read(pathlib.Path(path))))

    def primaries(self, name: str) -> tuple[float, ...]:
        return colour_spaces.matrix_of(name)

    def display(self, name: str) -> Display:
        return Display(
            screens.display_table(name, os.environ.get("OCIO", "")), screens.DARK, screens.BRIGHT
        )

    def through_display(self, planes: np.ndarray, name: str) -> np.ndarray:
        return colour_spaces.to_display(planes, name)


def layers_in(context: RenderContext) -> Layers:
    """Return the reader of the pictures that a project names."""
    return CachedLayers(context)
