"""Compiling kernels, keeping them, and running them on all cores."""
