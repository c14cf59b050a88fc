"""Components with templates, written as decorated classes."""
