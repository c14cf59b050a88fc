"""The browser engine: the trials that were found, run again where pages are laid out and painted."""
