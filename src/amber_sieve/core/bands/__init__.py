"""Masks from intervals of hue, saturation, luminance and single channels."""
