"""The kind of value that each name of a component holds, by declarations and uses.

Uses are gathered by name over a whole file: what is said of `sailing` in one place is taken to hold
of every `sailing`. That may be wrong, and then a trial has an odd input: no more.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.verify.search.values.compared_shapes import ComparedShapes
from clean_carry.verify.search.values.functions import functions_of, parameters_of, pattern_names
from clean_carry.verify.search.values.shape import Shape, kind_of, literal_of
from clean_carry.verify.search.values.words import (
    ARRAY,
    BOOLEAN_ATTRIBUTES,
    DATE,
    ITEM_FIRST,
    KEYS,
    LOOKED_UP,
    NUMBER,
    OF_ANY,
    OF_ELEMENTS,
    SAME_ITEMS,
    STRING,
    TRANSPARENT,
)

MOST_HINTS = 6
# A list is made as long as this for what is asked of it by number.
MOST_ITEMS = 12


# The kind of a value by its place: the node that holds it, and the field.
_KINDS_BY_PLACE = {
    "jsx_opening_element name": "tag",
    "jsx_self_closing_element name": "tag",
    "template_substitution": "text",
    "update_expression": "number",
}
# The kind of a value by the function it is passed to.
_KINDS_BY_CALL = {
    "Number": "number",
    "isNaN": "number",
    "Number.isFinite": "number",
    "isFinite": "number",
    "parseInt": "text",
    "parseFloat": "text",
    "Date": "moment",
    "Object.keys": "object",
    "Object.entries": "object",
    "Object.values": "object",
    "Object.assign": "object",
    "Array.isArray": "array",
}


def _kind_by_call(text: str) -> str:
    """Return the kind of a function's argument, "" if unknown."""
    if text.startswith("Math."):
        return "number"
    if ".Children." in text or text.endswith(("cloneElement", "isValidElement")):
        return "content"
    return _KINDS_BY_CALL.get(text, "")


def _setters(trees: list[Tree]) -> Iterator[tuple[str, str]]:
    """`const [now, setNow] = useState()`: what sets a value, and the value."""
    for tree in trees:
        for node in tree.of("array_pattern"):
            names = node.named_children
            call = node.parent.child("value") if node.parent is not None else None
            callee = call.child("function") if call is not None else None
            if callee is not None and callee.text.endswith("useState") and len(names) == 2:
                yield names[1].text, names[0].text


class Shapes(ComparedShapes):
    """The shapes of all names of one or several trees."""

    def __init__(self, trees: list[Tree]) -> None:
        super().__init__(trees)
        self._later: list[tuple[Shape, Shape]] = []
        self._looked_up: list[tuple[Shape, Shape, str]] = []
        self._functions = functions_of(trees)
        self._setters = dict(_setters(trees))
        for tree in trees:
            for node in tree.of(
                "identifier", "shorthand_property_identifier", "property_identifier"
            ):
                value = self._place(node)
                if value is not None:
                    self._use(node.text, value)
            for node in tree.of("variable_declarator"):
                self._pattern(node.child("name"), node.child("value"))
            for node in tree.of("assignment_pattern", "object_assignment_pattern"):
                self._default(node)
        self._relate()
        self._asked_by_name()
        self._settle()
        for one, other in self._compared:
            for left, right in ((one, other), (other, one)):
                if right.default is not None and isinstance(right.default[0], int | float):
                    left.note(right.default[0])
        hints = list(dict.fromkeys(self._numbers()))[:MOST_HINTS]
        for shape in self._shapes.values():
            if shape.kinds & {"number", "text", "moment", "array", "sized"} or not shape.kinds:
                shape.hints = hints

    def _asked_by_name(self) -> None:
        """Return the words that a function looks values up by: `of(part, "label")`."""
        looked = {}
        for name, function in self._functions.items():
            names = [part.text for part in parameters_of(function)]
            for node in function.walk() if names else ():
                index = node.child("index") if node.type == "subscript_expression" else None
                whole = node.child("object") if index is not None else None
                if index is None or whole is None or index.text not in names:
                    continue
                part = whole.child("property") if whole.type == "member_expression" else whole
                if part is not None and part.type.endswith("identifier"):
                    looked[name] = (names.index(index.text), part.text)
        for tree in self.trees if looked else ():
            for call in tree.of("call_expression"):
                callee, arguments = call.child("function"), call.child("arguments")
                own = callee.child("property") or callee if callee is not None else None
                if own is None or arguments is None or own.text not in looked:
                    continue
                at, whole_name = looked[own.text]
                given = arguments.named_children[at : at + 1]
                word = property_name(given[0]) if given and given[0].type == "string" else None
                if word:
                    shape = self.of(whole_name)
                    shape.kinds.add("object")
                    shape.fields.setdefault(word, self.of(word))
                    self._use(word, call)

    def _numbers(self) -> Iterator[Any]:
        for tree in self.trees:
            for node in tree.of("number"):
                found, value = literal_of(node)
                if found and value not in (0, 1):
                    yield value

    def _relate(self) -> None:
        """Relate values in ways that only this syntax has."""

    # -- uses ---------------------------------------------------------------------------------

    def _use(self, name: str, value: Node) -> None:
        self._used(self.of(name), name, value)

    def _used(self, shape: Shape, name: str, value: Node) -> None:
        """Note the uses of a value; `name` is empty for the result of a function."""
        parent = value.parent
        while parent is not None and parent.type in TRANSPARENT:
            value, parent = parent, parent.parent
        if parent is None:
            return
        place = f"{parent.type} {value.field or ''}".strip()
        if place in _KINDS_BY_PLACE or parent.type in _KINDS_BY_PLACE:
            shape.kinds.add(_KINDS_BY_PLACE.get(place) or _KINDS_BY_PLACE[parent.type])
            return
        match parent.type:
            case "member_expression" if value.field == "object":
                self._member(shape, parent)
            case "call_expression" if value.field == "function":
                self._called(shape, parent)
            case "subscript_expression" | "binary_expression":
                indexed = parent.type == "subscript_expression"
                (self._subscript if indexed else self._binary)(shape, value, parent)
            case "unary_expression":
                self._unary(shape, parent)
            case "ternary_expression" | "if_statement" if value.field == "condition":
                shape.tested = True
            case "jsx_expression":
                self._shown(shape, parent)
            case "spread_element" | "jsx_spread":
                shape.kinds.add("array" if _in_array(parent) else "object")
            case "for_in_statement" if value.field == "right":
                self._loop(shape, parent)
            case "switch_statement" | "switch_expression":
                self._switch(shape, parent)
            case "arguments":
                self._argument(shape, name, value, parent)
            case "assignment_expression" | "pair":
                self._given_on(shape, name, value, parent)

    def _called(self, shape: Shape, call: Node) -> None:
        shape.kinds.add("function")
        shape.result = shape.result or Shape()
        if _is_drawn(call):
            shape.result.kinds.add("content")
        else:
            self._used(shape.result, "", call)

    def _given_on(self, shape: Shape, name: str, value: Node, parent: Node) -> None:
        """A value that another name, or a part of an object, stands for from now on."""
        if parent.type == "pair":
            key = parent.child("key") if value.field == "value" else None
            other = property_name(key) if key is not None else None
        else:
            left = parent.child("left") if value.field == "right" else None
            part = left.child("property") or left if left is not None else None
            plain = part is not None and part.type.endswith("identifier")
            other = part.text if part is not None and plain else None
        if other is not None and other != name:
            self._later.append((shape, self.of(other)))

    def _member(self, shape: Shape, member: Node) -> None:
        part = member.child("property")
        if part is None:
            return
        name = part.text
        call = member.parent
        if call is not None and call.type == "call_expression" and member.field == "function":
            for table, kind in ((STRING, "string"), (NUMBER, "number"), (DATE, "date")):
                if name in table:
                    shape.kinds.add(kind)
                    return
            if name in ARRAY:
                shape.kinds.add("array")
                shape.items = shape.items or Shape()
                self._callback(shape, name, call)
                if name in SAME_ITEMS:
                    self._chain(shape, call)
            elif name in ("slice", "concat", "includes", "indexOf", "toString", "lastIndexOf"):
                shape.kinds.add("sized")
                self._held_word(shape, name, call)
                self._chain(shape, call)
            elif name in ("call", "apply", "bind"):
                shape.kinds.add("function")
            elif name in OF_ANY or name in OF_ELEMENTS:
                shape.kinds.add("object")
            elif name in ("then", "catch", "finally"):
                shape.kinds.add("promise")
                self._promised(shape, name, call)
            elif name in ("test", "exec"):
                shape.kinds.add("expression")
            else:
                shape.kinds.add("object")
                shape.fields.setdefault(name, self.of(name))
            return
        if name == "length":
            shape.kinds.add("sized")
        elif name != "current" and not name.startswith("#"):
            shape.kinds.add("object")
            if name in OF_ELEMENTS:
                return
            shape.fields.setdefault(name, self.of(name))

    def _held_word(self, shape: Shape, method: str, call: Node) -> None:
        """Note a value that a list, or a text, is searched for."""
        arguments = call.child("arguments")
        first = arguments.named_children[:1] if arguments is not None else []
        known, value = self._constants.literal(first[0]) if first else (False, None)
        if known and method in ("includes", "indexOf", "lastIndexOf") and value not in shape.holds:
            shape.holds.append(value)

    def _chain(self, shape: Shape, call: Node) -> None:
        """Relate a part of a list to its items."""
        member = call.parent
        if member is not None and member.type == "member_expression" and call.field == "object":
            self._member(shape, member)

    def _callback(self, shape: Shape, method: str, call: Node) -> None:
        arguments = call.child("arguments")
        given = arguments.named_children if arguments is not None else []
        if not given or not given[0].is_function:
            return
        parameters = list(parameters_of(given[0]))
        at = 0 if method in ITEM_FIRST else 1
        if method in (*ITEM_FIRST, "reduce") and len(parameters) > at and shape.items is not None:
            self._bind(shape.items, parameters[at])

    def _promised(self, shape: Shape, method: str, call: Node) -> None:
        """Relate the result of a promise to the value it resolves to."""
        arguments = call.child("arguments")
        first = arguments.named_children[:1] if method == "then" and arguments is not None else []
        for given in first:
            parameter = next(iter(parameters_of(given)), None) if given.is_function else None
            if parameter is not None:
                self._bind(shape, parameter)

    def _bind(self, shape: Shape, pattern: Node) -> None:
        """Relate the names of a pattern to the parts of a value."""
        if pattern.type == "identifier":
            own = self.of(pattern.text)
            if own is not shape:
                shape.fields = _joined(shape.fields, own.fields)
                shape.kinds |= own.kinds
                self._later.append((shape, own))
        elif pattern.type == "object_pattern":
            shape.kinds.add("object")
            for key, local in pattern_names(pattern):
                shape.fields.setdefault(key, self.of(local))
        elif pattern.type == "array_pattern":
            shape.kinds.add("array")

    def _settle(self) -> None:
        """Join what was bound before all was known of it."""
        for one, other, name in self._equal:
            if one is not other and not one.literals and not other.literals:
                one.alike = other.alike = one.alike or other.alike or name
        for whole, key, name in self._looked_up:
            if not key.kinds - {"string", "attribute", "text"}:
                word = re.findall(r"[A-Z]?[a-z\d]+", name)[-1].lower()
                inner = Shape({"array"}, items=whole) if word in ("children", "items") else Shape()
                whole.kinds.add("object")
                whole.fields.setdefault(word, inner)
                key.kinds.add("string")
                key.note(word)
        for _ in range(3):
            for shape, own in self._later:
                shape.alike = shape.alike or own.alike
                shape.kinds |= own.kinds
                shape.fields = _joined(shape.fields, own.fields)
                if own.items is not None and own.items is not shape.items:
                    if shape.items is None:
                        shape.items = own.items
                    else:
                        shape.items.kinds |= own.items.kinds
                        shape.items.fields = _joined(shape.items.fields, own.items.fields)
                shape.tested = shape.tested or own.tested
                for literal in own.literals:
                    shape.note(literal)
        for name, shape in self._shapes.items():
            # A list of which nothing more is known holds what is called by its name.
            single = self._shapes.get(name.removesuffix("s")) if name.endswith("s") else None
            if single is None or not single.fields or shape.kinds - {"array", "sized", "object"}:
                continue
            if shape.items is None or not (shape.items.kinds or shape.items.fields):
                shape.items = single

    def _subscript(self, shape: Shape, value: Node, parent: Node) -> None:
        if value.field == "object":
            index = parent.child("index")
            name = property_name(index) if index is not None else None
            if name is not None and index is not None and index.type == "string":
                shape.kinds.add("object")
                shape.fields.setdefault(name, self.of(name))
            else:
                shape.kinds.add("sized")
                if index is not None and index.type == "number" and index.text.isdigit():
                    shape.least = max(shape.least, min(int(index.text) + 1, MOST_ITEMS))
                last = _last_name(index) if index is not None else ""
                keyed = KEYS.search(last) is not None
                if keyed:
                    shape.keyed = shape.keyed or last
                if is_write(parent) and not keyed:
                    shape.kinds.add("array")
                else:
                    shape.items = shape.items or Shape()
                    self._used(shape.items, "", parent)
        elif value.field == "index":
            for key in self._keys_of(parent.child("object")):
                shape.note(key)

    def _shown(self, shape: Shape, expression: Node) -> None:
        attribute = expression.parent
        if attribute is None or attribute.type != "jsx_attribute":
            shape.kinds.add("text")
            return
        name = attribute.children[0].text
        if name in BOOLEAN_ATTRIBUTES:
            shape.kinds.add("boolean")
        elif name == "style":
            shape.kinds.add("style")
        elif name.startswith("on") and name[2:3].isupper():
            shape.kinds.add("function")
        elif name in ("ref", "innerRef"):
            shape.kinds.add("reference")
        elif name == "className":
            shape.kinds.add("string")
        else:
            shape.kinds.add("attribute")

    def _loop(self, shape: Shape, statement: Node) -> None:
        if statement.has("of"):
            shape.kinds.add("array")
            shape.items = shape.items or Shape()
            left = statement.child("left")
            if left is not None:
                self._bind(shape.items, left)
        else:
            shape.kinds.add("object")

    def _argument(self, shape: Shape, name: str, value: Node, arguments: Node) -> None:
        call = arguments.parent
        callee = call.child("function") or call.child("constructor") if call is not None else None
        if callee is None or call is None:
            return
        text = callee.text
        if text.split(".")[-1] in ITEM_FIRST and _is_list_call(arguments, value):
            # A list and what is done with its items, both given to a function of a library.
            shape.kinds.add("array")
            shape.items = shape.items or Shape()
            first = next(iter(parameters_of(arguments.named_children[1])), None)
            if first is not None:
                self._bind(shape.items, first)
        first = arguments.named_children[0]
        whole = first.child("property") if first.type == "member_expression" else first
        if value is not first and whole is not None and whole.type.endswith("identifier"):
            if LOOKED_UP.search(name):
                self._looked_up.append((self.of(whole.text), shape, name))
        own = self._functions.get(text.split(".")[-1])
        if own is not None and callee.type in ("identifier", "member_expression"):
            at = next((n for n, g in enumerate(arguments.named_children) if g is value), 0)
            parameters = list(parameters_of(own))
            if at < len(parameters):
                self._later.append((shape, self._parameter_shape(parameters[at])))
        if text in self._setters:
            self._later.append((shape, self.of(self._setters[text])))
        whole = callee.child("object") if text.endswith((".includes", ".indexOf")) else None
        for literal in self._constants.parts(whole) if whole is not None else ():
            shape.note(literal)
            shape.kinds.add(kind_of(literal))
        kind = _kind_by_call(text)
        if kind:
            shape.kinds.add(kind)
        elif text in ("setTimeout", "setInterval") and arguments.named_children[-1] is value:
            if len(arguments.named_children) > 1:
                shape.kinds.add("number")

    def _parameter_shape(self, pattern: Node) -> Shape:
        if pattern.type == "identifier":
            return self.of(pattern.text)
        shape = Shape()
        self._bind(shape, pattern)
        return shape

    # -- declarations -------------------------------------------------------------------------

    def _pattern(self, target: Node | None, value: Node | None) -> None:
        if target is None or value is None:
            return
        while value.type in TRANSPARENT:
            value = value.named_children[0]
        if target.type == "array_pattern" and value.type == "call_expression":
            self._started(target, value)
            return
        if value.type == "subscript_expression":
            self._part(target, value)
            return
        callee = value.child("function") if value.type == "call_expression" else None
        named = callee or value
        part = named.child("property") if named.type == "member_expression" else named
        if part is None or part.type not in ("identifier", "property_identifier"):
            return
        shape = self.of(part.text)
        if callee is not None:
            shape.result = shape.result or Shape()
            shape = shape.result
        if target.type == "identifier":
            if target.text != part.text or callee is not None:
                self._later.append((shape, self.of(target.text)))
        else:
            self._bind(shape, target)

    def _part(self, target: Node, value: Node) -> None:
        """`const first = list[0]`: what is known of one is known of the items of the other."""
        whole, index = value.child("object"), value.child("index")
        part = whole.child("property") or whole if whole is not None else None
        if part is None or not part.type.endswith("identifier") or index is None:
            return
        if (
            index.type != "string"
            and not KEYS.search(_last_name(index))
            and target.text != part.text
        ):
            shape = self.of(part.text)
            shape.items = shape.items or Shape()
            self._bind(shape.items, target)

    def _started(self, target: Node, call: Node) -> None:
        """`const [now] = useState(start)`: one is what the other starts as."""
        callee, arguments = call.child("function"), call.child("arguments")
        given = arguments.named_children if arguments is not None else []
        names = target.named_children
        if callee is None or not callee.text.endswith("useState") or not given or not names:
            return
        part = given[0].child("property") if given[0].type == "member_expression" else given[0]
        if part is not None and part.type.endswith("identifier") and names[0].type == "identifier":
            self._later.append((self.of(part.text), self.of(names[0].text)))

    def _default(self, node: Node) -> None:
        left, right = node.child("left"), node.child("right")
        if left is None or right is None:
            return
        found, literal = literal_of(right)
        if left.type in ("identifier", "shorthand_property_identifier_pattern"):
            shape = self.of(left.text)
            if found:
                shape.default = (literal,)
                if literal is not None:
                    shape.kinds.add(kind_of(literal))
            elif right.type in ("object", "array"):
                shape.kinds.add(right.type)
            elif right.is_function:
                shape.kinds.add("function")


def _last_name(index: Node) -> str:
    """The last name of what something is looked up by: of a call, that of the function."""
    named = index.child("function") if index.type == "call_expression" else index
    part = named.child("property") if named is not None else None
    return (part or named or index).text


def _joined(one: dict[str, Shape], other: dict[str, Shape]) -> dict[str, Shape]:
    """The fields of both, those of which more is known."""
    told = {key: shape for key, shape in one.items() if shape.kinds or key not in other}
    return {**one, **other, **told}


def _is_drawn(call: Node) -> bool:
    return any(up.type == "jsx_expression" for up in list(call.up())[:3])


def _is_list_call(arguments: Node, value: Node) -> bool:
    given = arguments.named_children
    return len(given) == 2 and given[0] is value and given[1].is_function


def _in_array(node: Node) -> bool:
    return node.parent is not None and node.parent.type == "array"
