"""Joins model and core. A render is a pure function of a frame, a project and a frame number."""
