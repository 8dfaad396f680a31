"""Motion of pictures and of things in them, from frame to frame."""
