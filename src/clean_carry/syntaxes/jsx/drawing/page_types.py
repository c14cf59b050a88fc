"""Types of the family a component comes from, as the page's own (its type declarations; DOM, HTML)."""

from __future__ import annotations

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.jsx.runtime_names import RUNTIME

_OF_PAGE = {
    "SyntheticEvent": "Event",
    "FormEvent": "Event",
    "MouseEvent": "MouseEvent",
    "KeyboardEvent": "KeyboardEvent",
    "FocusEvent": "FocusEvent",
    "PointerEvent": "PointerEvent",
    "TouchEvent": "TouchEvent",
    "WheelEvent": "WheelEvent",
    "DragEvent": "DragEvent",
    "ClipboardEvent": "ClipboardEvent",
    "CSSProperties": "Record<string, string | number>",
    "ElementType": "string | object",
    "ReactNode": "unknown",
    "ReactElement": "unknown",
    "ReactChild": "unknown",
}
# Types of all attributes an element takes.
_OF_ELEMENTS = ("HTMLAttributes", "SVGAttributes", "SVGProps", "HTMLProps", "DOMAttributes")
GONE = " "
# The type of the field that changed, where the event type names it.
_WITH_TARGET = frozenset({"ChangeEvent"})


def types_of_page(tree: Tree) -> dict[tuple[int, int], str]:
    """The page's type for each of the runtime's in a file, by where it stands; "" for one that has none,
    `GONE` for what only said that all attributes of an element may be given: they fall through."""
    named = _imported(tree)
    found: dict[tuple[int, int], str] = {}
    for clause in tree.of("extends_type_clause"):
        bases = [
            part.children[0] if part.type == "generic_type" else part
            for part in clause.named_children
        ]
        names = [_name(base, named) or "" for base in bases]
        if names and all(name.endswith(_OF_ELEMENTS) for name in names):
            before = [part.end for part in _above(clause) if part.end <= clause.start]
            found[(max(before, default=clause.start), clause.end)] = GONE
    done: set[int] = set()
    for node in tree.of("generic_type", "nested_type_identifier", "type_identifier"):
        inner = node.children[0] if node.type == "generic_type" else node
        name = _name(inner, named)
        if name is None or node.start in done:
            continue
        if any(up.type in ("extends_clause", "import_statement") for up in node.up()):
            continue
        if any(start <= node.start < end for start, end in found if found[start, end] == GONE):
            continue
        done.update(below.start for below in inner.walk())
        if name in _WITH_TARGET:
            arguments = node.child("type_arguments")
            of = arguments.text[1:-1] if arguments is not None else "HTMLInputElement"
            found[(node.start, node.end)] = f"Event & {{ target: {of} }}"
        else:
            found[(node.start, node.end)] = _OF_PAGE.get(name, "")
    return found


def _above(node: Node) -> list[Node]:
    return node.parent.children if node.parent is not None else []


def _imported(tree: Tree) -> dict[str, str]:
    """Local names of the runtime's types, and of all of it under ""."""
    found: dict[str, str] = {}
    for node in tree.root.children:
        source = node.child("source") if node.type == "import_statement" else None
        if source is None or source.text[1:-1] != RUNTIME:
            continue
        for part in node.walk():
            if part.type == "import_specifier":
                name, alias = part.child("name"), part.child("alias")
                if name is not None:
                    found[(alias or name).text] = name.text
            elif part.type == "identifier" and part.parent is not None:
                if part.parent.type in ("import_clause", "namespace_import"):
                    found[part.text] = ""
    return found


def _name(node: Node, named: dict[str, str]) -> str | None:
    if node.type == "nested_type_identifier":
        whole = node.children[0].text
        return node.children[-1].text if named.get(whole) == "" else None
    return named.get(node.text) or None
