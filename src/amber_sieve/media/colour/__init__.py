"""Colour of files and screens: profiles, colour spaces, tables, corrections."""
