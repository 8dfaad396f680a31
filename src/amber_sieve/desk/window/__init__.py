"""The main window and its commands."""
