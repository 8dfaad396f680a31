"""Masks from sampled colours."""
