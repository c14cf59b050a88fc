"""What a component that returns markup says to other families: events, values as they were, lists."""
