"""The same file form; the top-level statements of the script are the component."""
