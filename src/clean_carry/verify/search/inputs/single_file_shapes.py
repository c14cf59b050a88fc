"""Shapes of the names of a single file: values in refs, lists made of lists, loops of the template."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.verify.search.values.functions import parameters_of
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.values.shapes import Shapes

_HOLD = ("ref", "shallowRef", "toRef")
# Methods whose items are those of the list, or made of them one by one.
_OF_ITEMS = frozenset("map filter slice concat reverse sort toSorted toReversed flatMap".split())


class SingleFileShapes(Shapes):
    """The shapes of a script in either form, and of the code of its template."""

    def __init__(
        self,
        trees: list[Tree],
        template: Tree | None,
        passed: Iterable[tuple[str, Shape | str]] = (),
    ) -> None:
        self._template = template
        self._passed = passed
        self._held = {name for tree in trees for name, _, _ in _held_values(tree)}
        self._held |= {name for tree in trees for name in _names_of_refs(tree)}
        super().__init__([*trees, *([template] if template is not None else [])])

    def _place(self, node: Node) -> Node | None:
        """Return the place of a ref's value, wherever the value is read by name."""
        above = node.parent
        if node.type == "identifier" and node.text in _values_judged(node):
            return None
        if node.type == "identifier" and node.text in self._held and above is not None:
            part = above.child("property") if above.type == "member_expression" else None
            if part is not None and part.text == "value" and node.field == "object":
                return above
        return super()._place(node)

    def _relate(self) -> None:
        """Relate values to the values made of them, and to the props they are passed on as."""
        for name, given in self._passed:
            self._later.append((self.of(name), self.of(given) if isinstance(given, str) else given))
        for tree in self.trees:
            for name, value, _ in _held_values(tree):
                self._made_of(name, value)
            for name, source in _taken_by_name(tree):
                self._later.append((self.of(source), self.of(name)))
            for node in tree.of("pair"):
                key, held = node.child("key"), node.child("value")
                if key is not None and held is not None:
                    self._made_of(property_name(key) or "", held)
            for node in tree.of("method_definition"):
                key = node.child("name")
                for value in _given(node):
                    self._made_of(property_name(key) or "" if key is not None else "", value)
        for function in self._template.of("arrow_function") if self._template is not None else ():
            body, above = function.child("body"), function.parent
            if body is not None and above is not None and above.type == "expression_statement":
                self._loop_of(function, body)

    def _made_of(self, name: str, value: Node) -> None:
        """A name that is another one's value, or a list of what another one's items are made into."""
        if value.type == "ternary_expression":
            for arm in (value.child("consequence"), value.child("alternative")):
                if arm is not None:
                    self._made_of(name, arm)
            return
        base, lists = _base(value)
        part = base.child("property") if base.type == "member_expression" else base
        if part is not None and part.text == "value":
            part = base.child("object")
        if part is None or not part.type.endswith("identifier") or part.text == name or not name:
            return
        if not lists:
            self._later.append((self.of(part.text), self.of(name)))
            return
        source, made = self.of(part.text), self.of(name)
        source.kinds.add("array")
        source.items = source.items or Shape()
        made.items = made.items or Shape()
        self._later.append((source.items, made.items))

    def _loop_of(self, function: Node, body: Node) -> None:
        base, _ = _base(body)
        part = base.child("property") if base.type == "member_expression" else base
        pattern = function.child("parameter")
        parameters = function.child("parameters")
        if pattern is None and parameters is not None and parameters.named_children:
            first = parameters.named_children[0]
            pattern = first.child("pattern") or first
        if part is None or pattern is None or not part.type.endswith("identifier"):
            return
        shape = self.of(part.text)
        shape.kinds.add("array")
        shape.items = shape.items or Shape()
        self._bind(shape.items, pattern)


def _values_judged(node: Node) -> Iterator[str]:
    """The names a validator around a place has for the value it judges, which is no input of that name."""
    for above in node.up():
        key = above.child("key") if above.type == "pair" else above.child("name")
        if (
            above.type in ("pair", "method_definition")
            and key is not None
            and key.text == "validator"
        ):
            yield from (taken.text for taken in parameters_of(above.child("value") or above))


def _base(node: Node) -> tuple[Node, bool]:
    """Return the start of a chain of list methods, and whether there is a chain."""
    lists = False
    while True:
        if node.type in ("parenthesized_expression", "await_expression", "as_expression") or (
            node.type == "binary_expression" and (node.has("||") or node.has("??"))
        ):
            node = node.named_children[0]
        elif node.type == "call_expression":
            callee = node.child("function")
            part = callee.child("property") if callee is not None else None
            inner = callee.child("object") if callee is not None else None
            if part is None or inner is None or part.text not in _OF_ITEMS:
                return node, lists
            node, lists = inner, True
        elif node.type == "array" and [n.type for n in node.named_children] == ["spread_element"]:
            node, lists = node.named_children[0].named_children[0], True
        else:
            local = _local_value(node) if node.type == "identifier" else None
            if local is None:
                return node, lists
            node = local


def _local_value(name: Node) -> Node | None:
    """The value of a constant that the function around a name declares before it."""
    around = next((up for up in name.up() if up.is_function), None)
    for node in around.walk() if around is not None else ():
        declared = node.child("name") if node.type == "variable_declarator" else None
        if declared is not None and declared.text == name.text and node.end <= name.start:
            return node.child("value")
    return None


def _held_values(tree: Tree) -> Iterator[tuple[str, Node, Node]]:
    """(name, value, declarator) of constants that are refs, or derived."""
    for node in tree.of("variable_declarator"):
        name, call = node.child("name"), node.child("value")
        callee = call.child("function") if call is not None else None
        arguments = call.child("arguments") if call is not None else None
        given = arguments.named_children if arguments is not None else []
        if name is None or callee is None or not given or name.type != "identifier":
            continue
        if callee.text == "toRef" and len(given) == 2:
            continue
        if callee.text in _HOLD:
            yield name.text, given[0], node
        elif callee.text == "computed":
            for value in _given(given[0]):
                yield name.text, value, node


def _names_of_refs(tree: Tree) -> Iterator[str]:
    """The names of constants that hold one input in a ref."""
    for node in tree.of("variable_declarator"):
        name, call = node.child("name"), node.child("value")
        callee = call.child("function") if call is not None else None
        if name is not None and callee is not None and callee.text == "toRef":
            yield name.text


def _taken_by_name(tree: Tree) -> Iterator[tuple[str, str]]:
    """(name, input) of constants that hold one input: `const berths = toRef(props, 'berths')`."""
    for node in tree.of("variable_declarator"):
        name, call = node.child("name"), node.child("value")
        callee = call.child("function") if call is not None else None
        arguments = call.child("arguments") if call is not None else None
        given = arguments.named_children if arguments is not None else []
        if name is None or callee is None or callee.text != "toRef" or len(given) != 2:
            continue
        source = property_name(given[1]) if given[1].type == "string" else None
        if source is not None and source != name.text:
            yield name.text, source


def _given(function: Node) -> Iterator[Node]:
    """Yield the results of a function."""
    if not function.is_function:
        return
    body = function.child("body")
    if body is not None and body.type != "statement_block":
        yield body
    for node in body.walk() if body is not None else ():
        if node.type == "return_statement" and node.named_children:
            inside = next((up for up in node.up() if up.is_function), None)
            if inside is function:
                yield node.named_children[0]
