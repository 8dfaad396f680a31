"""Reading and writing pictures and footage. Knows `Frame`, and nothing above it."""
