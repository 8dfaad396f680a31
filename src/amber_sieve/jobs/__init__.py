"""Long work without a window: masks, stills and clips written to files."""
