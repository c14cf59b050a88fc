"""Views of a server, read as the single files that show the same."""
