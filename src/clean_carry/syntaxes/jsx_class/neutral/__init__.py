"""A class for a target of another family: markup in place of render code, events in place of
functions."""
