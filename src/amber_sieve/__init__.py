"""Amber Sieve: masks from sampled colours, and adjustments only inside them."""

from . import compiled

__version__ = "0.9.0"
#: Whether kernels that came compiled with a package are used.
HAS_KERNELS = compiled.use()
