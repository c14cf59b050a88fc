"""Expressions of JavaScript as those that several languages can say.

Only expressions without side effects are read, and none whose meaning depends on types that are not known.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from contextlib import contextmanager

from clean_carry.source.expressions.model import (
    Apply,
    Choice,
    Constant,
    Expr,
    Field,
    Item,
    Listing,
    Name,
    Record,
    Spread,
    Unsayable,
)
from clean_carry.source.expressions.types import (
    ANY,
    FLAG,
    NULL,
    NUMBER,
    TEXT,
    UNDEFINED,
    WHOLE,
    Type,
    either,
    list_of,
    record_of,
)
from clean_carry.source.javascript.expression_calls import CallReader, Leaf, part_of
from clean_carry.source.javascript.methods import (
    ARITHMETIC,
    COMPARED,
    EQUAL,
)
from clean_carry.source.javascript.narrowing import AROUND, CHAINED, found_there
from clean_carry.source.javascript.tree import Node

_ESCAPES = {"n": "\n", "t": "\t", "r": "\r", "b": "\b", "f": "\f", "v": "\v", "0": "\0"}
_ESCAPE = re.compile(
    r"\\(?:u\{([0-9a-fA-F]+)\}|u([0-9a-fA-F]{4})|x([0-9a-fA-F]{2})|(\r\n|.))", re.DOTALL
)
_LARGEST = 2**53


def expression(node: Node, leaf: Leaf, there: frozenset[str] = frozenset()) -> Expr:
    """The expression of a node; `there` are texts of expressions that are known to have a value. Raises
    `Unsayable` for what is not read."""
    reader = _Reader(leaf)
    reader.there = there
    return reader.read(node)


def unescaped(text: str) -> str:
    """The value of the inside of a literal text."""

    def sign(found: re.Match[str]) -> str:
        code = found[1] or found[2] or found[3]
        if code is not None:
            return chr(int(code, 16))
        if found[4] in ("\n", "\r\n"):
            return ""
        return _ESCAPES.get(found[4], found[4])

    made = _ESCAPE.sub(sign, text)
    # Two halves of one sign.
    return made.encode("utf-16", "surrogatepass").decode("utf-16", "replace")


class _Reader(CallReader):
    def read(self, node: Node) -> Expr:
        """The expression of a node."""
        made = self._read(node)
        if made.type.missing and made.type.kind != "nothing" and node.text in self.there:
            return _present(made)
        return made

    def _read(self, node: Node) -> Expr:
        if node.type in AROUND:
            return self.read(node.named_children[0])
        if node.type == "identifier" and node.text in self.locals:
            return Name(self.locals[node.text], node.text)
        known = self.leaf(node)
        if known is not None:
            return known
        if node.type == "identifier" and node.text == "undefined":
            return Constant(UNDEFINED, None)
        read = _READ.get(node.type)
        if read is None:
            raise Unsayable(f"`{node.text[:40]}`", node.start)
        return read(self, node)

    def _literal(self, node: Node) -> Expr:
        match node.type:
            case "string":
                return Constant(TEXT, unescaped(node.text[1:-1]))
            case "number":
                return _number(node)
            case "null":
                return Constant(NULL, None)
            case "undefined":
                return Constant(UNDEFINED, None)
        return Constant(FLAG, node.type == "true")

    # -- texts ---------------------------------------------------------------------------

    def _template(self, node: Node) -> Expr:
        parts: list[Expr] = []
        here = node.start + 1
        for inner in node.named_children:
            if inner.type != "template_substitution":
                continue
            self._piece(parts, node.text_of.slice(here, inner.start))
            parts.append(self.read(inner.named_children[0]))
            here = inner.end
        self._piece(parts, node.text_of.slice(here, node.end - 1))
        return Apply(TEXT, "text.join", tuple(parts or [Constant(TEXT, "")]))

    @staticmethod
    def _piece(parts: list[Expr], text: str) -> None:
        if text:
            parts.append(Constant(TEXT, unescaped(text)))

    # -- members -------------------------------------------------------------------------

    def _member(self, node: Node) -> Expr:
        of, name = self.read(part_of(node, "object")), part_of(node, "property").text
        return self.guarded(of, node, lambda one: self._field(one, name, node))

    def guarded(self, of: Expr, node: Node, make: Callable[[Expr], Expr]) -> Expr:
        """Something that is made of a value; nothing where a chain `?.` ends because there is none."""
        if of.type.kind == "nothing":
            raise Unsayable(f"a part of nothing, `{node.text[:40]}`", node.start)
        if not of.type.missing:
            return make(of)
        if not _is_optional(node):
            raise Unsayable(f"`{node.text[:40]}`, of a value that may be missing", node.start)
        made = make(_present(of))
        if isinstance(made, Field) and isinstance(of, Name | Field | Item):
            return Field(made.type.or_missing("undefined"), of, made.name, safe=True)
        if isinstance(made, Item) and isinstance(of, Name | Field | Item):
            return Item(made.type.or_missing("undefined"), of, made.at, safe=True)
        nothing = Constant(UNDEFINED, None)
        missing = Apply(FLAG, "is missing", (of,))
        return Choice(either(made.type, UNDEFINED), missing, nothing, made)

    def _field(self, of: Expr, name: str, node: Node) -> Expr:
        kind = of.type.kind
        if name == "length" and kind in ("list", "text"):
            return Apply(WHOLE, f"{kind}.length", (of,))
        if kind == "record":
            found = of.type.field(name)
            if found is None and of.type.fields is not None:
                found = UNDEFINED
            if found is None:
                return Field(ANY.or_missing("undefined"), of, name, safe=True)
            return Field(found, of, name, safe=bool(found.missing))
        raise Unsayable(f"`{name}` of a value of no known type", node.start)

    def _subscript(self, node: Node) -> Expr:
        of, at = self.read(part_of(node, "object")), self.read(part_of(node, "index"))
        return self.guarded(of, node, lambda one: self._item(one, at, node))

    def _item(self, of: Expr, at: Expr, node: Node) -> Expr:
        kind = of.type.kind
        if kind == "record" and isinstance(at, Constant) and isinstance(at.value, str):
            return self._field(of, at.value, node)
        if kind == "list" and at.type == WHOLE:
            return Item((of.type.item or ANY).or_missing("undefined"), of, at)
        if kind == "text" and at.type == WHOLE:
            return Apply(TEXT.or_missing("undefined"), "text.at", (of, at))
        if kind == "record" and at.type == TEXT:
            found: Type = UNDEFINED
            for _, own in of.type.fields or (("", ANY),):
                found = either(found, own)
            return Item(found, of, at)
        raise Unsayable(f"`{node.text[:40]}`", node.start)

    # -- operators -----------------------------------------------------------------------

    def _unary(self, node: Node) -> Expr:
        sign, value = node.children[0].text, self.read(part_of(node, "argument"))
        match sign:
            case "!":
                return Apply(FLAG, "not", (value,))
            case "-" if value.type.kind == "number" and not value.type.missing:
                if isinstance(value, Constant) and value.value:
                    return Constant(value.type, -value.value)  # type: ignore[operator]
                # The opposite of nought has a sign, and is no whole number elsewhere.
                return Apply(NUMBER, "opposite", (value,))
            case "+":
                return self.as_number(value, node)
            case "typeof" if not value.type.missing and value.type.kind in _NAMED:
                return Constant(TEXT, _NAMED[value.type.kind])
        raise Unsayable(f"`{node.text[:40]}`", node.start)

    def _binary(self, node: Node) -> Expr:
        sign = part_of(node, "operator").text
        left = part_of(node, "left")
        one = self.read(left)
        if sign in ("&&", "||", "??"):
            there = found_there(left, holds=sign == "&&") if sign != "??" else frozenset[str]()
            with self._knowing(there):
                other = self.read(part_of(node, "right"))
            return _either_of(sign, one, other)
        other = self.read(part_of(node, "right"))
        kinds = {one.type.kind, other.type.kind}
        missing = bool(one.type.missing or other.type.missing)
        if sign in EQUAL:
            return self._equal(sign, one, other, node)
        if missing:
            raise Unsayable(f"`{node.text[:40]}`, of a value that may be missing", node.start)
        if sign == "+" and "text" in kinds and kinds <= {"text", "number", "flag"}:
            return Apply(TEXT, "text.join", (one, other))
        if sign == "+" and kinds == {"number"}:
            return Apply(
                WHOLE if one.type.whole and other.type.whole else NUMBER, "+", (one, other)
            )
        if sign in ARITHMETIC and kinds == {"number"}:
            by = sign == "%" and isinstance(other, Constant) and other.value
            whole = (sign == "-" or bool(by)) and one.type.whole and other.type.whole
            return Apply(WHOLE if whole else NUMBER, sign, (one, other))
        if sign in COMPARED and kinds in ({"number"}, {"text"}):
            return Apply(FLAG, f"{kinds.pop()} {sign}", (one, other))
        raise Unsayable(f"`{node.text[:40]}`", node.start)

    def _equal(self, sign: str, one: Expr, other: Expr, node: Node) -> Expr:
        """Whether two values are equal: of one type, or one of them nothing."""
        not_ = sign[0] == "!"
        strict = len(sign) == 3
        nothing = next((e for e in (one, other) if e.type.kind == "nothing"), None)
        made: Expr
        if nothing is not None:
            value = other if nothing is one else one
            if value.type.kind in ("nothing", "any"):
                raise Unsayable(f"`{node.text[:40]}`", node.start)
            if strict and value.type.missing not in ("", nothing.type.missing):
                raise Unsayable(
                    f"`{node.text[:40]}`: null and undefined are one elsewhere", node.start
                )
            if strict and not value.type.missing:
                made = Constant(FLAG, False)
            else:
                made = Apply(FLAG, "is missing", (value,))
        elif one.type.kind != other.type.kind or one.type.kind not in ("text", "number", "flag"):
            raise Unsayable(f"`{node.text[:40]}`, of two types", node.start)
        elif one.type.missing and other.type.missing and strict:
            raise Unsayable(f"`{node.text[:40]}`: null and undefined are one elsewhere", node.start)
        else:
            made = Apply(FLAG, "equal", (one, other))
        return Apply(FLAG, "not", (made,)) if not_ else made

    def _choice(self, node: Node) -> Expr:
        condition = part_of(node, "condition")
        test = self.read(condition)
        with self._knowing(found_there(condition, holds=True)):
            then = self.read(part_of(node, "consequence"))
        with self._knowing(found_there(condition, holds=False)):
            other = self.read(part_of(node, "alternative"))
        return Choice(either(then.type, other.type), test, then, other)

    @contextmanager
    def _knowing(self, there: frozenset[str]) -> Iterator[None]:
        before = self.there
        self.there = before | there
        try:
            yield
        finally:
            self.there = before

    # -- lists and records ---------------------------------------------------------------

    def given(self, node: Node) -> Expr:
        if node.type != "spread_element":
            return self.read(node)
        of = self.read(node.named_children[0])
        if of.type.missing or of.type.kind not in ("list", "record"):
            raise Unsayable(f"`{node.text[:40]}`", node.start)
        return Spread(of.type, of)

    def _list(self, node: Node) -> Expr:
        items = tuple(self.given(one) for one in node.named_children)
        found: Type | None = None
        for one in items:
            if isinstance(one, Spread) and one.type.kind != "list":
                raise Unsayable(f"`{node.text[:40]}`", node.start)
            own = (one.type.item or ANY) if isinstance(one, Spread) else one.type
            found = own if found is None else either(found, own)
        return Listing(list_of(found), items)

    def _record(self, node: Node) -> Expr:
        fields: list[tuple[str, Expr]] = []
        types: dict[str, Type] = {}
        for one in node.named_children:
            if one.type == "spread_element":
                spread = self.given(one)
                if spread.type.kind != "record" or spread.type.fields is None:
                    raise Unsayable(f"`{one.text[:40]}`", one.start)
                fields.append(("", spread))
                types |= dict(spread.type.fields)
            elif one.type == "shorthand_property_identifier":
                value = self._read_shorthand(one)
                fields.append((one.text, value))
                types[one.text] = value.type
            elif one.type == "pair":
                key = part_of(one, "key")
                name = key.text.strip("'\"") if key.type != "computed_property_name" else None
                if name is None or name.isdigit():
                    raise Unsayable(f"`{one.text[:40]}`", one.start)
                value = self.read(part_of(one, "value"))
                fields.append((name, value))
                types[name] = value.type
            else:
                raise Unsayable(f"`{one.text[:40]}`", one.start)
        return Record(record_of(types), tuple(fields))

    def _read_shorthand(self, node: Node) -> Expr:
        if node.text in self.locals:
            return Name(self.locals[node.text], node.text)
        known = self.leaf(node)
        if known is None:
            raise Unsayable(f"`{node.text}`", node.start)
        return known


_NAMED = {
    "text": "string",
    "number": "number",
    "flag": "boolean",
    "list": "object",
    "record": "object",
}


_READ: dict[str, Callable[[_Reader, Node], Expr]] = {
    **dict.fromkeys(("string", "number", "true", "false", "null", "undefined"), _Reader._literal),
    "template_string": _Reader._template, "member_expression": _Reader._member,
    "subscript_expression": _Reader._subscript, "call_expression": _Reader.call,
    "unary_expression": _Reader._unary, "binary_expression": _Reader._binary,
    "ternary_expression": _Reader._choice, "array": _Reader._list, "object": _Reader._record,
}  # fmt: skip


def _number(node: Node) -> Expr:
    text = node.text.replace("_", "").lower()
    value: int | float
    try:
        value = int(text, 0) if not text.isdigit() else int(text)
    except ValueError:
        try:
            value = float(text)
        except ValueError:
            raise Unsayable(f"`{node.text}`", node.start) from None
    if isinstance(value, float) and value.is_integer() and abs(value) < _LARGEST:
        value = int(value)
    if isinstance(value, int) and abs(value) >= _LARGEST:
        raise Unsayable(f"`{node.text}`, a number too large", node.start)
    return Constant(WHOLE if isinstance(value, int) else NUMBER, value)


def _either_of(sign: str, one: Expr, other: Expr) -> Expr:
    """`&&`, `||` and `??` with the type of what they give."""
    if sign in ("??", "||"):
        type_ = either(one.type.present, other.type) if one.type.kind != "nothing" else other.type
    else:
        type_ = either(one.type, other.type)
    return Apply(type_, sign, (one, other))


def _present(of: Expr) -> Expr:
    """The same value where it is known to be there."""
    match of:
        case Name():
            return Name(of.type.present, of.name)
        case Field():
            return Field(of.type.present, of.of, of.name)
        case Item():
            return Item(of.type.present, of.of, of.at)
    return Apply(of.type.present, "itself", (of,))


def _is_optional(node: Node) -> bool:
    """Whether an access ends, or stands in, a chain with `?.`."""
    if node.has("optional_chain") or node.has("?."):
        return True
    inner = node.child("object") or node.child("function")
    return inner is not None and inner.type in CHAINED and _is_optional(inner)
