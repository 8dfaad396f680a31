"""The panes that show the picture, and the tools that work on it."""
