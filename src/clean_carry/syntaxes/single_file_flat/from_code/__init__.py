"""A component of another family as a single file: its markup as a template, its members as statements."""
