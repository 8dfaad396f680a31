"""The live picture: previews, playing, watching, and what a click or an outline finds. No Qt."""
