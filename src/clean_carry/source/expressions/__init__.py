"""Expressions that can be said in several languages: their parts, with the types of what they give."""
