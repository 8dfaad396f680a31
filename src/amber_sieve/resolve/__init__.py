"""A project together with the source it is about: opened as it says, its layers read, and how it
stands on a frame.
"""
