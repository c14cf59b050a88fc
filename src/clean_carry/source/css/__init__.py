"""Stylesheets: the places of selectors."""
