"""Uses of a component in the project around it: its users, its parents and its content."""
