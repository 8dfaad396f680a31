"""Adjustments inside a mask."""
