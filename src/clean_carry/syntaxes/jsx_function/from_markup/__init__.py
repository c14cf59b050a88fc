"""A component of another family as a function: its markup as JSX, its members through hooks."""
