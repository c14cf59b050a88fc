"""The superclass of a class, and whether it renders."""

from __future__ import annotations

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.jsx.runtime_names import RuntimeNames

CLASSES = ("class_declaration", "abstract_class_declaration", "class")
# So many types a base was once given: those of defaults, inputs and state.
OF_DEFAULTS_TOO = 3
BASES = ("Component", "PureComponent")
_JSX = frozenset({"jsx_element", "jsx_self_closing_element", "jsx_fragment"})


def extends_clause(node: Node) -> Node | None:
    """The clause that says what a class extends."""
    for part in node.children:
        if part.type == "class_heritage":
            for clause in part.children:
                if clause.type == "extends_clause":
                    return clause
    return None


def heritage(node: Node) -> Node | None:
    """The expression a class extends."""
    clause = extends_clause(node)
    return clause.child("value") if clause is not None else None


def heritage_types(node: Node) -> list[Node]:
    """The type arguments of the base class."""
    clause = extends_clause(node)
    for arguments in clause.children if clause is not None else ():
        if arguments.type == "type_arguments":
            return arguments.named_children
    return []


def draws(node: Node) -> bool:
    """Whether a class has a render method with markup in it."""
    body = node.child("body")
    for member in body.named_children if body is not None else ():
        name = member.child("name")
        if name is not None and property_name(name) == "render":
            return any(below.type in _JSX for below in member.walk())
    return False


def is_component(node: Node, runtime: RuntimeNames, names: Names) -> bool:
    """Whether a class extends the runtime's base, or something else and renders."""
    base = heritage(node)
    if base is None:
        return False
    return runtime.imported(base, names) in BASES or draws(node)


def is_base_call(statement: Node) -> bool:
    """Whether a statement is the call of the base's constructor."""
    call = statement.named_children[0] if statement.type == "expression_statement" else None
    callee = call.child("function") if call is not None else None
    return callee is not None and callee.type == "super"
