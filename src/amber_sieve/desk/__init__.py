"""The window: widgets only."""
