"""Limiting a mask with shapes and brush strokes."""
