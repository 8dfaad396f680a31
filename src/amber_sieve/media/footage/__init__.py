"""Clips and numbered pictures: decoded to light, written from it."""
