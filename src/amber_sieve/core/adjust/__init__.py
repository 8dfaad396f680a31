"""What is done inside a mask."""
