"""What the project around a component tells of it: who uses it, in what, and what goes into it."""
