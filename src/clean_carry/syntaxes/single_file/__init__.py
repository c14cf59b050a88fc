"""What the single-file family shares: blocks, template markup, names in template expressions."""
