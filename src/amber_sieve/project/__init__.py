"""A person's decisions: the immutable model, its history, its files. No pixels, no interface."""
