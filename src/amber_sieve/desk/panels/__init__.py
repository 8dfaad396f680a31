"""Panels beside the canvas: the stack, the colour field, the tray."""
