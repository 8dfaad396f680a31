"""Layers read through the cache, so that their pictures count in its budget."""

from __future__ import annotations

from ..core.frame import Frame
from ..media.layers import layer_key, placed, read_layer
from ..render.cache import Cache
from ..render.measured import Layers


def layers_in(cache: Cache) -> Layers:
    """What gives the picture of a layer at the place and scale of a frame; it raises `Trouble` when it cannot."""

    def layer(path: str, like: Frame) -> Frame:
        key = layer_key(path)
        factor = max(1, round(1 / like.scale))
        whole = cache.get(("layer", key), lambda: read_layer(path))
        reduced = cache.get(("layer", key, factor), lambda: whole.reduced(factor)) if factor > 1 else whole
        return placed(reduced, path, like)

    return layer
