"""The component as an object of options: read by every syntax of the family that is written so."""
