"""Trials that find themselves: inputs from what the code says, steps from what the page offers."""
