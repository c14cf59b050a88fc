"""Controller components, read as the single files that do the same."""
