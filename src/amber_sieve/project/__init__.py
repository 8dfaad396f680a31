"""What a person decided: the immutable model, its history, its files. No pixels, no interface."""
