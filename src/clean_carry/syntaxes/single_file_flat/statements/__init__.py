"""The statements of a single file in the flat form, read into the neutral component."""
