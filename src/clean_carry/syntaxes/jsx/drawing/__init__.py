"""JSX as markup of the neutral component."""
