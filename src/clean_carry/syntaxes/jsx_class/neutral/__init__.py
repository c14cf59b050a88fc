"""A class for a target of another family: markup in place of code that draws, events in place of
functions."""
