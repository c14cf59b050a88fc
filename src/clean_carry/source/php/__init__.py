"""PHP: expressions, and the helper that stands for what JavaScript does otherwise."""
