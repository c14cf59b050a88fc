"""Views of a server: a template, and a class whose public members it sees."""
