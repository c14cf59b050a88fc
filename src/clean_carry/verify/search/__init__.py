"""Generated trials: props from the code, steps from the elements on the page."""
