"""Layers read through the cache, so that their pictures count in its budget."""

from __future__ import annotations

from ..core.frame import Frame
from ..media.layers import layer_key, placed, read_layer
from ..render.cache import Cache
from ..render.layers import Layers


class CachedLayers(Layers):
    """Pictures by their paths; both methods raise `Trouble` when one cannot be read."""

    def __init__(self, cache: Cache) -> None:
        self._cache = cache

    def at(self, path: str, like: Frame) -> Frame:
        key = layer_key(path)
        factor = max(1, round(1 / like.scale))
        whole = self.whole(path)
        reduced = self._cache.get(("layer", key, factor), lambda: whole.reduced(factor)) if factor > 1 else whole
        return placed(reduced, path, like)

    def whole(self, path: str) -> Frame:
        return self._cache.get(("layer", layer_key(path)), lambda: read_layer(path))


def layers_in(cache: Cache) -> Layers:
    """What gives the pictures that a project names."""
    return CachedLayers(cache)
