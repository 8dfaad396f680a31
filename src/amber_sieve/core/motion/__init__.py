"""How pictures and things in them move from frame to frame."""
