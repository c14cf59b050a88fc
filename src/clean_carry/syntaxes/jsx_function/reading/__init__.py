"""Functions that return JSX, and their hooks, read into the neutral component."""
