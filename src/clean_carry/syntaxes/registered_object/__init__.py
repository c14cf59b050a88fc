"""A component that a script registers by a name, with its template as text."""
