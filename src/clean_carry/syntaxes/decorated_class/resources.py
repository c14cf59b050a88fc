"""The files that a decorated class names as its template and its styles."""

from __future__ import annotations

from clean_carry.source.javascript.tree import Tree
from clean_carry.syntaxes.contract import PartFile
from clean_carry.syntaxes.decorated_class.recognise import decorated_in, property_of, text_of

_ONE, _SEVERAL = ("templateUrl", "styleUrl"), ("styleUrls",)


def resources_of(tree: Tree) -> list[PartFile]:
    """The templates and stylesheets of the classes of a script."""
    found = []
    for one in decorated_in(tree):
        nodes = [property_of(one.options, name) for name in _ONE]
        for name in _SEVERAL:
            listed = property_of(one.options, name)
            nodes += listed.named_children if listed is not None else []
        for node in nodes:
            request = text_of(node) if node is not None else None
            if node is not None and request is not None:
                found.append(PartFile(request, node.start + 1, node.end - 1))
    return found
