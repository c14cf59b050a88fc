"""Templates of views that a server renders: marks, markup between them, and blocks."""
