"""Template, script and style in one file; the script exports one object."""
