"""The shapes that values get from comparisons: operators, conditions, cases, keys."""

from __future__ import annotations

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.verify.search.values.constants import Constants
from clean_carry.verify.search.values.shape import Shape, kind_of, literal_of
from clean_carry.verify.search.values.words import (
    ARITHMETIC,
    EQUAL,
    NAMED_APART,
    OF_DATES,
    ORDERING,
    TRANSPARENT,
    TYPE_WORDS,
)


class ComparedShapes:
    """The shapes of names by what stands beside them in expressions."""

    def __init__(self, trees: list[Tree]) -> None:
        self.trees = trees
        self._shapes: dict[str, Shape] = {}
        self._compared: list[tuple[Shape, Shape]] = []
        self._equal: list[tuple[Shape, Shape, str]] = []
        self._constants = Constants(trees)

    def of(self, name: str) -> Shape:
        """The shape of a name."""
        return self._shapes.setdefault(name, Shape())

    def __contains__(self, name: str) -> bool:
        return name in self._shapes

    def _place(self, node: Node) -> Node | None:
        """The expression whose value a name is, for those that know more of their syntax."""
        return value_node(node)

    def _keys_of(self, node: Node | None) -> list[str]:
        """The keys of a constant object of the file that a name means."""
        if node is None or node.type != "identifier":
            return []
        for tree in self.trees:
            for declarator in tree.of("variable_declarator"):
                name, value = declarator.child("name"), declarator.child("value")
                if name is None or value is None or name.text != node.text:
                    continue
                if value.type == "object":
                    keys = [part.child("key") for part in value.named_children]
                    names = [property_name(key) for key in keys if key is not None]
                    return [key for key in names if key is not None]
        return []

    def _binary(self, shape: Shape, value: Node, parent: Node) -> None:
        operator = next((c.type for c in parent.children if not c.named), "")
        other = parent.named_children[1 if parent.named_children[0] is value else 0]
        found, literal = self._constants.literal(other)
        if operator in ("&&", "||", "??"):
            if value.field == "left":
                shape.tested = shape.tested or operator != "??"
                if operator in ("||", "??") and found and shape.default is None:
                    shape.kinds.add(kind_of(literal))
        elif operator in EQUAL:
            if found:
                if literal is not None:
                    shape.note(literal)
                    shape.kinds.add(kind_of(literal))
            else:
                self._equals(shape, other)
        elif operator in ARITHMETIC:
            shape.kinds.add("number")
            while other.type in TRANSPARENT:
                other = other.named_children[0]
            part = other.child("property") if other.type == "member_expression" else other
            if operator in ORDERING and part is not None and part.type.endswith("identifier"):
                self._compared.append((shape, self.of(part.text)))
            number = isinstance(literal, int | float) and not isinstance(literal, bool)
            if found and number and operator in ORDERING:
                for near in (literal - 1, literal, literal + 1):
                    shape.note(near)
        elif operator == "+":
            shape.kinds.add(kind_of(literal) if found and literal is not None else "text")
        elif operator == "instanceof":
            shape.kinds.add("date" if other.text == "Date" else "object")

    def _equals(self, shape: Shape, other: Node) -> None:
        """Values that are compared with each other are sometimes equal."""
        while other.type in TRANSPARENT:
            other = other.named_children[0]
        callee = other.child("function") if other.type == "call_expression" else None
        asked = callee.child("property") if callee is not None else None
        for number in OF_DATES.get(asked.text, ()) if asked is not None else ():
            shape.kinds.add("number")
            shape.note(number)
        part = other.child("property") if other.type == "member_expression" else other
        if part is not None and part.text == "value" and other.type == "member_expression":
            # The value of a ref; of anything else a field of that name.
            inner = other.child("object")
            part = inner if inner is not None and self._place(inner) is other else part
        if part is not None and part.type.endswith("identifier") and part.text not in NAMED_APART:
            self._equal.append((shape, self.of(part.text), part.text))

    def _unary(self, shape: Shape, parent: Node) -> None:
        if parent.has("!"):
            shape.tested = True
        elif parent.has("typeof"):
            above = parent.parent
            for part in above.named_children if above is not None else []:
                found, literal = literal_of(part)
                if found and literal in TYPE_WORDS:
                    shape.kinds.add(TYPE_WORDS[literal])
                    shape.sometimes = shape.sometimes or literal == "function"
        elif parent.has("-") or parent.has("+"):
            shape.kinds.add("number")

    def _switch(self, shape: Shape, node: Node) -> None:
        statement = node.parent if node.type != "switch_statement" else node
        for case in statement.walk() if statement is not None else ():
            if case.type == "switch_case":
                value = case.child("value")
                known = self._constants.literal(value) if value is not None else (False, None)
                found, literal = known
                if found and literal is not None:
                    shape.note(literal)
                    shape.kinds.add(kind_of(literal))


def value_node(node: Node) -> Node | None:
    """The expression whose value a name is: itself, or the path that ends in it."""
    parent = node.parent
    if parent is None:
        return None
    if parent.type == "member_expression" and node.field == "property":
        return parent
    if node.type == "property_identifier":
        return None
    return node
