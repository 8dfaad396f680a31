"""Controls that know nothing of the project."""
