"""Controllers of the open picture: Qt's signals, no widgets."""
