"""From a source and a project to finished pixels, and everything that writes them."""
