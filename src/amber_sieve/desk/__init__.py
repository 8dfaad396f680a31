"""The window. The only place where PyQt6 is imported."""
