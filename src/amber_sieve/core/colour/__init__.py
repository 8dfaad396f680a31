"""Colour spaces, transfer functions, measures and differences."""
