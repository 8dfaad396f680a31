"""The command line: a file a command."""
