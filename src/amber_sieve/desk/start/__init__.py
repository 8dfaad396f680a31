"""Starting: one window for a person, and waiting for the first picture."""
