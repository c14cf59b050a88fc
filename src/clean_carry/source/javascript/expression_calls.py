"""Calls of functions and methods, as operations."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator

from clean_carry.source.expressions.model import (
    Apply,
    Constant,
    Expr,
    Function,
    Listing,
    Name,
    Spread,
    Unsayable,
)
from clean_carry.source.expressions.types import ANY, FLAG, NUMBER, TEXT, WHOLE, Type, either
from clean_carry.source.javascript.methods import CHANGING, FUNCTIONS, METHODS, OF_MANY
from clean_carry.source.javascript.tree import Node

# Gives the expression for a node whose meaning the caller knows, None for any other.
Leaf = Callable[[Node], Expr | None]
# Operations whose function is called with an item and its place.
_CALLED = frozenset(
    {"list.map", "list.filter", "list.find", "list.find place", "list.some", "list.every"}
)
# Operations whose arguments are whole numbers.
_COUNTING = frozenset(
    {
        "text.slice", "text.between", "text.stretch", "text.sign", "text.repeat", "list.slice", "list.at",
        "number.fixed",
    }
)  # fmt: skip


class CallReader:
    """Reads calls; what they are called with is read by the rest of the reader."""

    def __init__(self, leaf: Leaf) -> None:
        self.leaf = leaf
        self.locals: dict[str, Type] = {}
        # Texts of expressions that are known to have a value here.
        self.there: frozenset[str] = frozenset()

    def read(self, node: Node) -> Expr:
        """The expression of a node."""
        raise NotImplementedError

    def guarded(self, of: Expr, node: Node, make: Callable[[Expr], Expr]) -> Expr:
        """Something that is made of a value; nothing where a chain `?.` ends because there is none."""
        raise NotImplementedError

    def given(self, node: Node) -> Expr:
        """An item of a list, or all of another one."""
        raise NotImplementedError

    def call(self, node: Node) -> Expr:
        callee, given = part_of(node, "function"), part_of(node, "arguments")
        arguments = given.named_children
        called = callee.text
        if callee.type in ("identifier", "member_expression") and self.leaf(callee) is None:
            made = self._function(called, arguments, node)
            if made is not None:
                return made
        if callee.type != "member_expression":
            raise Unsayable(f"a call of `{called[:40]}`", node.start)
        of, name = self.read(part_of(callee, "object")), part_of(callee, "property").text
        return self.guarded(of, callee, lambda one: self._method(one, name, arguments, node))

    def _function(self, called: str, arguments: list[Node], node: Node) -> Expr | None:
        """A function of the language; None for anything else."""
        if called.partition(".")[0] in self.locals:
            return None
        if called in FUNCTIONS:
            operation, kinds, result = FUNCTIONS[called]
            parts = tuple(self.read(one) for one in arguments)
            fits = len(parts) == len(kinds) and all(
                kind in ("any", one.type.kind) and (kind == "any" or not one.type.missing)
                for kind, one in zip(kinds, parts, strict=True)
            )
            if not fits:
                raise Unsayable(f"`{node.text[:40]}`", node.start)
            return Apply(result, operation, parts)
        if called in OF_MANY:
            operation, _, result = OF_MANY[called]
            parts = tuple(self.given(one) for one in arguments)
            if not parts or not all(_is_number(one) for one in parts):
                raise Unsayable(f"`{node.text[:40]}`", node.start)
            whole = all(not isinstance(one, Spread) and one.type.whole for one in parts)
            return Apply(WHOLE if whole else result, operation, parts)
        if called in ("String", "Number", "Boolean", "parseInt", "parseFloat"):
            return self._converted(called, arguments, node)
        return None

    def _converted(self, called: str, arguments: list[Node], node: Node) -> Expr:
        if not arguments or len(arguments) > (2 if called == "parseInt" else 1):
            raise Unsayable(f"`{node.text[:40]}`", node.start)
        value = self.read(arguments[0])
        match called:
            case "String":
                return Apply(TEXT, "text.join", (value,))
            case "Boolean":
                return Apply(FLAG, "truth", (value,))
            case "Number":
                return self.as_number(value, node)
        radix = self.read(arguments[1]) if arguments[1:] else Constant(WHOLE, 10)
        if value.type != TEXT or not isinstance(radix, Constant) or radix.value != 10:
            raise Unsayable(f"`{node.text[:40]}`", node.start)
        return Apply(NUMBER, "read whole" if called == "parseInt" else "read number", (value,))

    def as_number(self, value: Expr, node: Node) -> Expr:
        if value.type.missing or value.type.kind not in ("number", "text", "flag"):
            raise Unsayable(f"`{node.text[:40]}`", node.start)
        return (
            value
            if value.type.kind == "number"
            else Apply(NUMBER, f"{value.type.kind}.number", (value,))
        )

    def _method(self, of: Expr, name: str, arguments: list[Node], node: Node) -> Expr:
        row = METHODS.get((of.type.kind, name))
        if row is None or not row[1] <= len(arguments) <= row[2]:
            raise Unsayable(f"`{name}` of this value", node.start)
        operation, _, _, result = row
        if operation in CHANGING and not isinstance(of, Listing | Apply):
            raise Unsayable(f"`{name}`, which changes its list", node.start)
        parts, types = [of], []
        for number, one in enumerate(arguments):
            made = self._argument(of, operation, number, one, arguments)
            parts.append(made)
            types.append(made.type)
        self._fit(operation, parts, node)
        return Apply(result(of.type, tuple(types)), operation, tuple(parts))

    def _argument(
        self, of: Expr, operation: str, number: int, node: Node, arguments: list[Node]
    ) -> Expr:
        """An argument; a function with the types of what it is called with."""
        item = of.type.item or ANY
        if operation == "list.reduce" and number == 0:
            carry = self.read(arguments[1]).type
            first = self._lambda(node, (carry, item, WHOLE))
            if first.type != carry:
                first = self._lambda(node, (either(carry, first.type), item, WHOLE))
            return first
        if operation == "list.sort":
            return self._lambda(node, (item, item))
        if operation in _CALLED:
            if (
                node.type == "identifier"
                and node.text == "Boolean"
                and "Boolean" not in self.locals
            ):
                return Function(FLAG, ("one",), Name(item, "one"))
            return self._lambda(node, (item, WHOLE))
        return self.read(node)

    def _fit(self, operation: str, parts: list[Expr], node: Node) -> None:
        """Raises `Unsayable` where arguments are not of the types that the operation is known for."""
        for at, one in enumerate(parts[1:]):
            own = one.type
            if isinstance(one, Function):
                continue
            if operation in _COUNTING:
                fits = own == WHOLE
            elif operation in ("text.pad start", "text.pad end"):
                fits = own == (WHOLE if at == 0 else TEXT)
            elif operation.startswith("text."):
                fits = own == TEXT or (operation == "text.join" and not own.missing)
            elif operation in ("list.holds", "list.place"):
                item = parts[0].type.item or ANY
                fits = own.kind == item.kind and own.kind in ("text", "number", "flag")
                fits = fits and not own.missing and not item.missing
            elif operation == "list.concat":
                fits = own.kind == "list" and not own.missing
            elif operation == "list.join":
                fits = own == TEXT
            else:
                fits = True
            if not fits:
                raise Unsayable(f"`{node.text[:40]}`", node.start)

    def _lambda(self, node: Node, types: tuple[Type, ...]) -> Function:
        if node.type not in ("arrow_function", "function_expression"):
            raise Unsayable(f"`{node.text[:40]}` as a function", node.start)
        body = part_of(node, "body")
        if body.type == "statement_block":
            statements = body.named_children
            if len(statements) != 1 or statements[0].type != "return_statement":
                raise Unsayable("a function of several statements", node.start)
            body = statements[0].named_children[0] if statements[0].named_children else body
        names = list(_parameters(node))
        if len(names) > len(types):
            raise Unsayable("a function with more parameters", node.start)
        outer, there = self.locals, self.there
        self.locals = {**outer, **dict(zip(names, types, strict=False))}
        self.there = frozenset(one for one in there if not _mentions(one, names))
        try:
            value = self.read(body)
        finally:
            self.locals, self.there = outer, there
        return Function(value.type, tuple(names), value)


def part_of(node: Node, field: str) -> Node:
    """A part of a node by its role. Raises `Unsayable` where it has none."""
    found = node.child(field)
    if found is None:
        raise Unsayable(f"`{node.text[:40]}`", node.start)
    return found


def _is_number(one: Expr) -> bool:
    if isinstance(one, Spread):
        item = one.type.item
        return (
            one.type.kind == "list"
            and item is not None
            and item.kind == "number"
            and not item.missing
        )
    return one.type.kind == "number" and not one.type.missing


def _parameters(node: Node) -> Iterator[str]:
    single, several = node.child("parameter"), node.child("parameters")
    found = (
        [single] if single is not None else several.named_children if several is not None else []
    )
    for one in found:
        name = one.child("pattern") or one
        if name.type != "identifier" or one.child("value") is not None:
            raise Unsayable(f"the parameter `{one.text[:40]}`", one.start)
        yield name.text


def _mentions(text: str, names: list[str]) -> bool:
    return any(re.search(rf"(?<![\w$.]){re.escape(name)}(?![\w$])", text) for name in names)
