"""Cleaning the outline of a mask."""
