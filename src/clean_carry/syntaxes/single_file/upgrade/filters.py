"""Filters: a value behind `|` is what a function gives (migration guide, "Filters")."""

from __future__ import annotations

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.single_file.expressions import TemplateCode
from clean_carry.syntaxes.single_file.options.functions import parts_of
from clean_carry.syntaxes.single_file.upgrade.changes import Changes

_MEMBERS = ("props", "data", "computed", "methods", "inject")


def upgrade_filters(changes: Changes, code: TemplateCode, tree: Tree, literal: Node) -> None:
    """Call filters, and keep those of the component among its methods."""
    option = next(
        ((part, value) for name, part, value in parts_of(literal) if name == "filters"), None
    )
    own = {name: part for name, part, _ in parts_of(option[1])} if option is not None else {}
    for node in code.values.values():
        _call(changes, node, code, set(own))
    if option is None:
        return
    part, value = option
    if value.type != "object" or None in own:
        changes.refuse("removed-from-runtime", "filters made by code", part.start)
        return
    _move(changes, tree, literal, part, {name or "": one for name, one in own.items()})


def _call(changes: Changes, node: Node, code: TemplateCode, own: set[str | None]) -> None:
    """A value and the filters behind it, the outermost first."""
    if node.type != "binary_expression" or not node.has("|"):
        return
    left, right = node.child("left"), node.child("right")
    called = right.child("function") if right and right.type == "call_expression" else right
    if left is None or right is None or called is None or called.text not in code.filters:
        return
    if called.text not in own:
        detail = f"the filter {called.text}, which is registered elsewhere"
        changes.refuse("removed-from-runtime", detail, node.start)
        return
    arguments = right.child("arguments") if right.type == "call_expression" else None
    given = arguments.named_children if arguments is not None else []
    changes.put(node.start, node.start, f"{called.text}(")
    _call(changes, left, code, own)
    rest = "".join(f", {one.text}" for one in given)
    changes.put(left.end, node.end, f"{rest})")


def _move(changes: Changes, tree: Tree, literal: Node, part: Node, own: dict[str, Node]) -> None:
    """The filters among the methods."""
    taken = set()
    methods = None
    for name, _, value in parts_of(literal):
        if name == "methods" and value.type == "object":
            methods = value
        if name in _MEMBERS and value.type in ("object", "array"):
            taken |= {key for key, _, _ in parts_of(value)}
    for name, one in own.items():
        if name in taken:
            changes.refuse(
                "removed-from-runtime", f"the filter {name}, named like a member", one.start
            )
            return
    source = tree.source
    end = part.end + (source.data[part.end : part.end + 1] == b",")
    if methods is None:
        # The option becomes the methods where it stands.
        key = part.child("key") or part.child("name")
        if key is not None:
            changes.put(key.start, key.end, "methods")
        return
    line = source.statement_line(part.start, end)
    changes.put(line.start, line.end, "")
    indent = source.indent_at(methods.named_children[0].start) if methods.named_children else "    "
    inner = [one.text for one in own.values()]
    moved = "".join(f"\n{indent}{_placed(text, source, part, indent)}," for text in inner)
    changes.put(methods.start + 1, methods.start + 1, moved)


def _placed(text: str, source, part: Node, indent: str) -> str:  # type: ignore[no-untyped-def]
    """A member at the depth of its new neighbours."""
    old = source.indent_at(part.start) + "  "
    first, *rest = text.split("\n")
    return "\n".join([first, *(indent + line.removeprefix(old) for line in rest)])
