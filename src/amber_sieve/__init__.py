"""Amber Sieve: masks from sampled colours, and adjustments only inside them."""

__version__ = "0.9.0"
