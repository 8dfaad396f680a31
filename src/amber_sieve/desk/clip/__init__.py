"""A clip over time: the bar of frames and what is keyed."""
