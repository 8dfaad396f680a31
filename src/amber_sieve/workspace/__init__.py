"""Controllers of what is open: Qt's signals, no widgets."""
