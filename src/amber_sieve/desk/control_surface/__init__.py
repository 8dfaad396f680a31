"""A simulated control surface: a window of its own that speaks to the program over its port alone,
as a real one would.
"""
