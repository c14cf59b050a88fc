"""Views of a server that keep their state between requests: actions, fields, computed values."""
