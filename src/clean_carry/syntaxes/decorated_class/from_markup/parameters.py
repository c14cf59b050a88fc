"""Types of parameters: strict projects, as new ones are, take no parameter without a type."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.text import SourceText

_FUNCTIONS = ("method_definition", "function_declaration", "function_expression", "arrow_function")


def with_types(text: str) -> str:
    """A script in which each parameter that has no type, and gets none from where it stands, is `any`."""
    source = SourceText("class.ts", text.encode())
    return MergedText(source, _edits(Tree(source))).data.decode()


def _edits(tree: Tree) -> Iterator[Edit]:
    for node in tree.of(*_FUNCTIONS):
        if node.parent is not None and node.parent.type == "arguments":
            # The function that is called gives the parameters of a callback their types.
            continue
        single = node.child("parameter")
        if single is not None:
            yield Edit(single.start, single.end, f"({single.text}: any)")
        parameters = node.child("parameters")
        for one in parameters.named_children if parameters is not None else ():
            yield from _typed(one)


def _typed(parameter: Node) -> Iterator[Edit]:
    pattern = parameter.child("pattern")
    if parameter.type not in ("required_parameter", "optional_parameter") or pattern is None:
        return
    if parameter.child("type") is None and parameter.child("value") is None:
        text = ": any[]" if pattern.type == "rest_pattern" else ": any"
        end = parameter.end if parameter.type == "optional_parameter" else pattern.end
        yield Edit(end, end, text)
