"""What is open and what is done with it: Qt's signals, no widgets."""
