"""What stands beside the canvas: the stack, the colour field, the tray."""
