"""The picture as it is seen, and work done ahead while a person looks at it."""
