"""Documents, the tray, and saving."""
