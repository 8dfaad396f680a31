"""One page for each step of the work: pick, bands, edge, areas, adjust."""
