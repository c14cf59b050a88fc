"""The parts of a component that returns markup, for other families: events, earlier values, lists."""
