"""The picture on screen, and work done ahead while a person looks at it."""
