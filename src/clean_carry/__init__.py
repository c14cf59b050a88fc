"""Carry UI components from one syntax to another, and prove that both behave the same."""

__version__ = "0.2.0.dev0"
