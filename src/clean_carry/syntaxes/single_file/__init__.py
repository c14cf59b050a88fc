"""Shared parts of the single-file family: blocks, template markup, names in template expressions."""
