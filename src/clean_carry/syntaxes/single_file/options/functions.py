"""The parts of an object of options, and its functions as text a writer can place."""

from __future__ import annotations

from clean_carry.component.code import Code
from clean_carry.component.members import Callback
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.uses import Uses

FUNCTIONS = ("method_definition", "function_expression", "arrow_function")


# Wrappers around a value that serve its type, or nothing.
TYPED = ("non_null_expression", "as_expression", "satisfies_expression", "parenthesized_expression")


def untyped(value: Node) -> Node:
    """A value without what stands around it for its type."""
    while value.type in TYPED and value.named_children:
        value = value.named_children[0]
    return value


def parts_of(node: Node) -> list[tuple[str | None, Node, Node]]:
    """(name, property, value) of each part of an object; a method is its own value."""
    found: list[tuple[str | None, Node, Node]] = []
    for part in node.named_children:
        key = part.child("key") or part.child("name")
        value = part.child("value")
        if part.type in ("method_definition", "shorthand_property_identifier"):
            value = part
        if part.type == "shorthand_property_identifier":
            key = part
        name = property_name(key) if key is not None else None
        found.append((name, part, value if value is not None else part))
    return found


def returned(function: Node) -> Node | None:
    """Return the result of a function that only returns it, or returns it after other statements."""
    body = function.child("body")
    if body is None:
        return None
    if body.type != "statement_block":
        return body.named_children[0] if body.type == "parenthesized_expression" else body
    statements = body.named_children
    if not statements or statements[-1].type != "return_statement":
        return None
    given = statements[-1].named_children
    return given[0] if given else None


def only_returns(function: Node) -> bool:
    """Whether a function does nothing but give a value."""
    body = function.child("body")
    return body is None or body.type != "statement_block" or len(body.named_children) == 1


def instance_parameter(function: Node) -> Node | None:
    """The only parameter of a function that is given the instance, where it is a plain name."""
    if function.type not in FUNCTIONS:
        return None
    single = function.child("parameter")
    parameters = function.child("parameters")
    given = parameters.named_children if parameters is not None else []
    first = single or (given[0] if len(given) == 1 else None)
    pattern = (first.child("pattern") or first) if first is not None else None
    return pattern if pattern is not None and pattern.type == "identifier" else None


def callback_of(uses: Uses, function: Node) -> Callback | None:
    """A function as text from its parameters on; None where its form cannot be an arrow function."""
    body = function.child("body")
    parameters = function.child("parameters") or function.child("parameter")
    if function.type not in FUNCTIONS or body is None or parameters is None or function.has("*"):
        return None
    takes = parameters.type == "identifier" or bool(parameters.named_children)
    asynchronous = function.has("async")
    if function.type == "arrow_function":
        span = uses.span(function)
        entry = uses.ledger.claim("function", span)
        return Callback(uses.code(span, kept=False), entry, -1, asynchronous, takes)
    if any(n.type == "identifier" and n.text == "arguments" for n in function.walk()):
        return None
    span = uses.tree.source.span(parameters.start, function.end)
    entry = uses.ledger.claim("function", span)
    untyped = tuple(
        uses.span(part)
        for part in (p.child("pattern") or p for p in parameters.named_children)
        if part.type == "identifier" and not (part.parent and part.parent.child("type"))
    )
    text = uses.code(span, kept=False)
    return Callback(text, entry, body.start, asynchronous, takes, untyped=untyped)


def body_of(uses: Uses, function: Node) -> Code | None:
    """Return the text between the braces of a function."""
    body = function.child("body")
    if body is None or body.type != "statement_block":
        return None
    return uses.code(uses.tree.source.span(body.start + 1, body.end - 1), kept=False)


def flows(function: Node) -> bool:
    """Whether the statements of a function could stand in a script as they are."""
    parameters, body = function.child("parameters"), function.child("body")
    if body is None or body.type != "statement_block" or function.has("async"):
        return False
    if parameters is not None and parameters.named_children:
        return False
    stack = list(body.named_children)
    while stack:
        here = stack.pop()
        if here.type in ("return_statement", "await_expression") or here.text == "arguments":
            return False
        if not here.is_function:
            stack.extend(here.named_children)
    return True


def with_comma(uses: Uses, node: Node) -> Span:
    """A property with the comma after it."""
    end, data = node.end, uses.tree.source.data
    while data[end : end + 1] in (b" ", b"\t"):
        end += 1
    return uses.tree.source.span(node.start, end + 1 if data[end : end + 1] == b"," else node.end)


def attached(uses: Uses, node: Node) -> tuple[Span, ...]:
    """The comments that belong to a node."""
    found = comments.leading(uses.tree, node) + comments.trailing(uses.tree, node)
    return tuple(uses.span(comment) for comment in found)
