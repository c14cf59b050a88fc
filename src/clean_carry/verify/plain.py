"""Plain trials for a component without a trial file: fill what it declares, touch everything.

Inputs are read from the component's declared input types; each is changed once, everything on the
page is pressed and typed into, a minute passes, the component is removed.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import is_constant, property_name
from clean_carry.source.text import SourceText
from clean_carry.verify.trials import Trial

_WORDS = ("Holm", "Skail")
_MINUTE = 60_000


@dataclass
class Declared:
    """Declared inputs: a value, another value to change to, and which are functions or content."""

    values: dict[str, tuple[Any, Any]] = field(default_factory=dict)
    functions: list[str] = field(default_factory=list)
    content: list[str] = field(default_factory=list)


def plain_trials(text: str, path: str, component: str | None = None) -> list[Trial]:
    """Two trials: with every declared input filled, and with none."""
    declared = declared_inputs(text, path, component)
    functions: dict[str, Any] = {name: {} for name in declared.functions}
    slots = {name: [f"{_WORDS[0]} pier"] for name in declared.content}
    filled = {name: pair[0] for name, pair in declared.values.items()}
    steps: list[dict[str, Any]] = [{"everything": True}]
    for name, (_, other) in declared.values.items():
        steps.append({"change": {"inputs": {name: other}}})
    steps += [{"everything": True}, {"pass": _MINUTE}, {"remove": True}]
    bare_steps: list[dict[str, Any]] = [{"everything": True}, {"pass": _MINUTE}, {"remove": True}]
    return [
        Trial("every declared input filled", filled, functions, slots, [], steps),
        Trial("nothing given but content", {}, functions, {"children": ["Holm"]}, [], bare_steps),
    ]


def declared_inputs(text: str, path: str, component: str | None = None) -> Declared:
    """Read the declared input types of a file; empty where there are none to read."""
    found = Declared()
    try:
        tree = Tree(SourceText(path, text.encode()))
    except InputError:
        return found
    literal = _types_literal(tree, component)
    for part in literal.named_children if literal is not None else []:
        key, value = part.child("key"), part.child("value")
        name = property_name(key) if key is not None else None
        if part.type != "pair" or name is None or value is None:
            continue
        _declare(found, name, value)
    if literal is None:
        _from_annotations(tree, found)
    return found


def _types_literal(tree: Tree, component: str | None) -> Node | None:
    for node in tree.of("assignment_expression"):
        left, right = node.child("left"), node.child("right")
        if left is None or right is None or not left.text.endswith(".propTypes"):
            continue
        if component is not None and left.text != f"{component}.propTypes":
            continue
        return _resolved(tree, right)
    for node in tree.of("public_field_definition"):
        name, value = node.child("name"), node.child("value")
        if name is not None and value is not None and name.text == "propTypes":
            return _resolved(tree, value)
    return None


def _resolved(tree: Tree, node: Node) -> Node | None:
    if node.type == "object":
        return node
    if node.type == "identifier":
        for declarator in tree.of("variable_declarator"):
            name, value = declarator.child("name"), declarator.child("value")
            if name is not None and value is not None and name.text == node.text:
                return value if value.type == "object" else None
    return None


def _declare(found: Declared, name: str, node: Node) -> None:
    kind, arguments = _kind(node)
    if kind == "func":
        found.functions.append(name)
    elif kind in ("node", "element"):
        if name == "children" or kind == "node":
            found.content.append(name)
    else:
        pair = _values(kind, arguments, name, 0)
        if pair is not None:
            found.values[name] = pair


def _kind(node: Node) -> tuple[str, list[Node]]:
    """The last name of a declared type, and the arguments of its call."""
    arguments: list[Node] = []
    while True:
        if node.type == "call_expression":
            given = node.child("arguments")
            arguments = given.named_children if given is not None else []
            callee = node.child("function")
            if callee is None:
                return "", []
            node = callee
        elif node.type == "member_expression":
            part = node.child("property")
            if part is not None and part.text == "isRequired":
                node = node.children[0]
                continue
            return (part.text if part is not None else ""), arguments
        else:
            return node.text if node.type == "identifier" else "", arguments


def _values(kind: str, arguments: list[Node], name: str, depth: int) -> tuple[Any, Any] | None:
    if depth > 3:
        return None
    match kind:
        case "string":
            return f"{name} {_WORDS[0]}", f"{name} {_WORDS[1]}"
        case "number":
            return 3, 4
        case "bool":
            return True, False
        case "array":
            return list(_WORDS), [_WORDS[1]]
        case "any":
            return _WORDS
        case "oneOf" if arguments and arguments[0].type == "array":
            found = [_literal(item) for item in arguments[0].named_children if is_constant(item)]
            found = [value for value in found if value is not None]
            return (found[0], found[-1]) if found else None
        case "oneOfType" if arguments and arguments[0].type == "array":
            for item in arguments[0].named_children:
                inner, given = _kind(item)
                pair = _values(inner, given, name, depth + 1)
                if pair is not None:
                    return pair
            return None
        case "arrayOf" if arguments:
            inner, given = _kind(arguments[0])
            pair = _values(inner, given, name, depth + 1)
            return ([pair[0], pair[1]], [pair[1]]) if pair is not None else ([], [])
        case "shape" | "exact" if arguments and arguments[0].type == "object":
            return _shape(arguments[0], depth)
        case "object":
            return {"a": 1}, {"a": 2}
    return None


def _shape(node: Node, depth: int) -> tuple[Any, Any]:
    first: dict[str, Any] = {}
    second: dict[str, Any] = {}
    for part in node.named_children:
        key, value = part.child("key"), part.child("value")
        name = property_name(key) if key is not None else None
        if name is None or value is None:
            continue
        kind, arguments = _kind(value)
        pair = _values(kind, arguments, name, depth + 1)
        if pair is not None:
            first[name], second[name] = pair
    return first, second


def _literal(node: Node) -> Any:
    match node.type:
        case "string":
            return node.text[1:-1]
        case "number":
            return float(node.text) if "." in node.text else int(node.text, 0)
        case "true" | "false":
            return node.type == "true"
    return None


def _from_annotations(tree: Tree, found: Declared) -> None:
    """Inputs declared by an interface or type named `…Props` (TypeScript)."""
    for node in tree.of("interface_declaration", "type_alias_declaration"):
        name = node.child("name")
        if name is None or not name.text.endswith("Props"):
            continue
        for part in node.walk():
            if part.type != "property_signature":
                continue
            key, kind = part.child("name"), part.child("type")
            if key is None or kind is None or part.parent is None:
                continue
            text = kind.text.lstrip(": ")
            pair = {
                "string": (f"{key.text} {_WORDS[0]}", f"{key.text} {_WORDS[1]}"),
                "number": (3, 4),
                "boolean": (True, False),
                "string[]": (list(_WORDS), [_WORDS[1]]),
            }.get(text)
            if pair is not None:
                found.values[key.text] = pair
            elif "=>" in text:
                found.functions.append(key.text)
            elif "ReactNode" in text:
                found.content.append(key.text)
        return
