"""The kind of value that an expression has, as far as its form shows."""

from __future__ import annotations

import re

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node

_LITERALS = frozenset({"string", "number", "true", "false", "null", "undefined", "regex"})


def is_constant(node: Node) -> bool:
    """A literal that is equal to itself wherever it is written."""
    if node.type in _LITERALS:
        return node.type != "regex"
    if node.type == "unary_expression":
        operand = node.child("argument")
        return operand is not None and is_constant(operand)
    if node.type in ("as_expression", "parenthesized_expression", "satisfies_expression"):
        return is_constant(node.named_children[0])
    if node.type == "template_string":
        return not any(c.type == "template_substitution" for c in node.children)
    if node.type == "binary_expression":
        return all(is_constant(part) for part in node.named_children)
    return False


# Calls that give a new value or the time, without side effects (ECMA-262 §20 to §24, HR-TIME).
_MAKES_ONLY = re.compile(
    r"Date\.now|performance\.now|Math\.\w+|Number|String|Boolean|Symbol"
    r"|new (?:Date|Map|Set|WeakMap|WeakSet)|.*\)\.(?:get\w+|valueOf)"
)
_IDLE = frozenset(
    "object array pair arguments null undefined identifier property_identifier member_expression "
    "new_expression call_expression parenthesized_expression binary_expression".split()
)


def does_nothing(node: Node) -> bool:
    """Whether an expression has no side effect and cannot throw, so that it can be left out if unused."""
    if is_constant(node):
        return True
    if node.type not in _IDLE or (node.type == "identifier" and node.text != "undefined"):
        return False
    if node.type == "member_expression":
        return False
    if node.type in ("call_expression", "new_expression"):
        callee, given = node.child("function") or node.child("constructor"), node.child("arguments")
        called = f"new {callee.text}" if node.type == "new_expression" and callee else ""
        called = called or (callee.text if callee is not None else "")
        if given is None or _MAKES_ONLY.fullmatch(called) is None:
            return False
        owner = callee.child("object") if callee is not None else None
        made = owner is None or owner.type == "identifier" or does_nothing(owner)
        return made and all(does_nothing(part) for part in given.named_children)
    parts = node.named_children[1:] if node.type == "pair" else node.named_children
    if node.has("computed_property_name"):
        return False
    return all(does_nothing(part) for part in parts)


def is_number(node: Node) -> bool:
    """A number written in place, with or without a sign."""
    if node.type == "unary_expression":
        operand = node.child("argument")
        return operand is not None and is_number(operand)
    return node.type == "number"


def is_module_name(node: Node, names: Names) -> bool:
    """A name (or a path from it) bound once at the top of the module."""
    while node.type == "member_expression":
        node = node.children[0]
    if node.type != "identifier":
        return False
    binding = names.meaning(node)
    if binding is None or binding.scope is not names.module:
        return False
    return binding.kind in ("import", "const", "function", "class") and not binding.written


def is_function(node: Node) -> bool:
    """A function written in place."""
    return node.type in ("arrow_function", "function_expression")


# Expressions that do something, or cost something, each time they are evaluated. A tagged template is
# a call expression in the grammar.
_RUNNING = frozenset(
    (
        "call_expression new_expression await_expression yield_expression update_expression "
        "assignment_expression augmented_assignment_expression"
    ).split()
)


# Expressions whose value has no insides: nothing can change it in place.
_PRIMITIVE = frozenset(
    {"template_string", "binary_expression", "update_expression", "string", "number"}
)


def is_primitive(node: Node) -> bool:
    """Whether a value is seen to be text, a number, a truth value or nothing."""
    while node.type in ("parenthesized_expression", "as_expression"):
        node = node.named_children[0]
    if node.type == "binary_expression" and any(node.has(sign) for sign in ("||", "&&", "??")):
        return all(is_primitive(part) for part in node.named_children)
    return node.type in _PRIMITIVE or is_constant(node)


_CALLING = frozenset({"call_expression", "new_expression", "await_expression"})


def calls_code(node: Node) -> bool:
    """Whether evaluating it calls or constructs something."""
    return _holds(node, _CALLING)


def runs_code(node: Node) -> bool:
    """Whether evaluating it calls, constructs or writes something."""
    return _holds(node, _RUNNING)


def _holds(node: Node, kinds: frozenset[str]) -> bool:
    """Whether an expression of one of these kinds is evaluated with a node, not in a function below it."""
    stack = [node]
    while stack:
        here = stack.pop()
        if here.type in kinds:
            return True
        if not here.is_function:
            stack.extend(here.children)
    return False


def property_name(node: Node) -> str | None:
    """The name of a property key, None where it is computed."""
    match node.type:
        case (
            "property_identifier" | "private_property_identifier" | "shorthand_property_identifier"
        ):
            return node.text
        case "identifier" | "shorthand_property_identifier_pattern":
            return node.text
        case "string":
            fragment = [c for c in node.children if c.type != node.children[0].type]
            if len(fragment) == 1 and fragment[0].type == "string_fragment":
                return fragment[0].text
    return None


def member_name(node: Node) -> str | None:
    """The name an access reads: of `a.b` and `a['b']` it is b; None where it is computed."""
    part = node.child("property")
    if part is not None:
        return property_name(part)
    index = node.child("index")
    return property_name(index) if index is not None and index.type == "string" else None


def last_name(node: Node | None) -> str:
    """The name something is called by: of `a`, `b.a` and `b.c.a` it is a; "" where there is none."""
    part = node.child("property") if node is not None else None
    named = part or node
    return named.text if named is not None and not named.children else ""


def is_identifier(name: str) -> bool:
    """Whether a name is an identifier (ECMA-262 §12.7; `$` is allowed in every place)."""
    return name.replace("$", "_").isidentifier()


def plain_fields(node: Node) -> list[tuple[str, Node | None]] | None:
    """The fields of an object literal of plain names; None where it holds anything else."""
    fields: list[tuple[str, Node | None]] = []
    for part in node.named_children:
        if part.type == "shorthand_property_identifier":
            fields.append((part.text, None))
            continue
        if part.type != "pair":
            return None
        key, value = part.child("key"), part.child("value")
        name = property_name(key) if key is not None else None
        if name is None or value is None or not is_identifier(name):
            return None
        fields.append((name, value))
    names = [name for name, _ in fields]
    return fields if len(set(names)) == len(names) else None
