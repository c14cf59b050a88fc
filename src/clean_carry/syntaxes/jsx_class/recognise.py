"""Find the component classes of a file, and say which of them cannot be carried."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.jsx.runtime_names import RuntimeNames

CLASSES = ("class_declaration", "abstract_class_declaration", "class")
_JSX = frozenset({"jsx_element", "jsx_self_closing_element", "jsx_fragment"})


@dataclass(frozen=True)
class Candidate:
    """A class that renders. `refusal` is (rule, detail) where it is refused from the outside.

    `pure` says that its base compares inputs and state before it draws again.
    """

    node: Node
    name: str
    statement: Node
    exported: str
    pure: bool
    refusal: tuple[str, str] | None


def candidates(tree: Tree, names: Names, runtime: RuntimeNames) -> list[Candidate]:
    """Every class with a heritage clause and a render method, in source order."""
    found: list[Candidate] = []
    for node in sorted(tree.of(*CLASSES), key=lambda n: n.start):
        if heritage(node) is None or not _renders(node, runtime, names):
            continue
        found.append(_candidate(tree, node, names, runtime))
    return found


def heritage(node: Node) -> Node | None:
    """The expression a class extends."""
    for part in node.children:
        if part.type == "class_heritage":
            for clause in part.children:
                if clause.type == "extends_clause":
                    return clause.child("value")
    return None


def heritage_types(node: Node) -> list[Node]:
    """The type arguments of the base class."""
    for part in node.children:
        if part.type == "class_heritage":
            for clause in part.children:
                if clause.type == "extends_clause":
                    for arguments in clause.children:
                        if arguments.type == "type_arguments":
                            return arguments.named_children
    return []


def _renders(node: Node, runtime: RuntimeNames, names: Names) -> bool:
    base = heritage(node)
    if base is not None and runtime.imported(base, names) in ("Component", "PureComponent"):
        return True
    body = node.child("body")
    if body is None:
        return False
    for member in body.named_children:
        name = member.child("name")
        if name is not None and property_name(name) == "render":
            return any(below.type in _JSX for below in member.walk())
    return False


def _candidate(tree: Tree, node: Node, names: Names, runtime: RuntimeNames) -> Candidate:
    name_node = node.child("name")
    name = name_node.text if name_node is not None else ""
    statement, exported = node, ""
    parent = node.parent
    if parent is not None and parent.type == "export_statement":
        statement, exported = parent, "default" if parent.has("default") else "named"
    if not name:
        name = _stem(tree.source.path)
    base = heritage(node)
    pure = base is not None and runtime.imported(base, names) == "PureComponent"
    refusal = _refusal(node, statement, names, runtime, name_node)
    return Candidate(node, name, statement, exported, pure, refusal)


def _refusal(
    node: Node, statement: Node, names: Names, runtime: RuntimeNames, name: Node | None
) -> tuple[str, str] | None:
    base = heritage(node)
    assert base is not None
    meaning = runtime.imported(base, names)
    if meaning not in ("Component", "PureComponent"):
        return "own-base", f"it extends {base.text[:60]}"
    if node.type == "class":
        return "class-in-expression", ""
    if statement.parent is None or statement.parent.type != "program":
        return "class-in-function", ""
    if node.type == "abstract_class_declaration":
        return "abstract-class", ""
    if any(part.type == "decorator" for part in (*node.children, *statement.children)):
        return "decorated", ""
    if name is None:
        return "class-without-name", ""
    binding = names.module.names.get(name.text)
    for reference in binding.references if binding is not None else ():
        if any(up.type == "extends_clause" for up in reference.up()):
            return "extended-by", f"{name.text} is a base class in this file"
        if reference.parent is not None and reference.parent.type == "binary_expression":
            if reference.parent.has("instanceof"):
                return "instance-escapes", f"instanceof {name.text}"
        if reference.parent is not None and reference.parent.type == "new_expression":
            return "instance-escapes", f"new {name.text}"
    return None


def _stem(path: str) -> str:
    name = path.replace("\\", "/").rsplit("/", 1)[-1].split(".")[0]
    return name or "Component"
