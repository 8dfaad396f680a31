"""What a person looks at now: previews, playing, watching, and what a click or an outline finds. No Qt."""
