"""Template markup: a tree with the place of every byte."""
