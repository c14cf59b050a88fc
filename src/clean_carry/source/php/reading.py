"""Expressions of PHP 8 as those that several languages can say.

An expression that is read has the value in JavaScript that it has in PHP, its truth included: `test` gives
what JavaScript takes for true where PHP does. Code that depends on unknown types is `Unsayable`.
Sources: the language's reference ("Comparisons", "Converting to boolean", "String functions").
"""

from __future__ import annotations

import re
from collections.abc import Callable

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
    Unsayable,
)
from clean_carry.source.expressions.types import (
    ANY,
    FLAG,
    NULL,
    NUMBER,
    TEXT,
    WHOLE,
    Type,
    either,
    list_of,
    record_of,
)
from clean_carry.source.php.calls import CALLS, SPECIAL, Given
from clean_carry.source.php.tree import PhpNode
from clean_carry.source.php.uses import Path, Uses, path_of

# Gives the expression for a node whose meaning the caller knows, None for any other.
Leaf = Callable[[PhpNode], Expr | None]
_ESCAPES = {"n": "\n", "t": "\t", "r": "\r", "v": "\v", "f": "\f", "e": "\x1b", "0": "\0"}
_ARITHMETIC = frozenset({"+", "-", "*", "/", "%", "**"})
_COMPARED = frozenset({"<", ">", "<=", ">="})
_EQUAL = frozenset({"==", "===", "!=", "!==", "<>"})
# A text that PHP never takes for a number ("Numeric strings").
_NO_NUMBER = re.compile(r"(?!\s*[+-]?(?:\d|\.\d)).+", re.DOTALL)


class PhpReader:
    """Reads expressions. `uses` gathers what they say about types; `items` are the paths of names that
    stand for items of lists; `notes` what is to be known: rule, detail, offset."""

    def __init__(self, leaf: Leaf, uses: Uses) -> None:
        self.leaf, self.uses = leaf, uses
        self.items: dict[str, Path] = {}
        self.notes: list[tuple[str, str, int]] = []

    def read(self, node: PhpNode) -> Expr:
        """The expression of a node. Raises `Unsayable`."""
        if node.type == "parenthesized_expression":
            return self.read(node.named[0])
        known = self.leaf(node)
        if known is not None:
            return known
        read = _READ.get(node.type)
        if read is None:
            raise self.unsaid(node)
        return read(self, node)

    @staticmethod
    def unsaid(node: PhpNode, why: str = "") -> Unsayable:
        """The error about a node."""
        return Unsayable(f"`{' '.join(node.text.split())[:40]}`{why}", node.start)

    # -- what a value is used for --------------------------------------------------------

    def path(self, expr: Expr) -> Path | None:
        """The path of a value."""
        return path_of(expr, self.items)

    def expect(self, expr: Expr, kind: str, node: PhpNode) -> Expr:
        """A value that is used as one of a kind. Raises `Unsayable` where it is of another one."""
        if expr.type.kind == "any":
            self.uses.note(self.path(expr), kind)
            return expr
        wanted = "number" if kind == "whole" else kind
        if expr.type.missing and kind != "list":
            raise self.unsaid(node, ", a value that may be missing")
        if expr.type.kind != wanted and not (wanted == "list" and expr.type.kind == "record"):
            raise self.unsaid(node, f", which is no {wanted}")
        return expr

    def shown(self, expr: Expr, node: PhpNode) -> Expr:
        """A value as a text: nothing and false are none, true is "1"."""
        match expr.type.kind:
            case "any":
                self.uses.note(self.path(expr), "shown")
                return expr
            case "text" | "number":
                if expr.type.missing:
                    return Apply(TEXT, "??", (expr, Constant(TEXT, "")))
                return expr
            case "flag":
                return Choice(TEXT, expr, Constant(TEXT, "1"), Constant(TEXT, ""))
            case "nothing":
                return Constant(TEXT, "")
        raise self.unsaid(node, f", a {expr.type.kind} as text")

    def test(self, node: PhpNode) -> Expr:
        """A value that JavaScript takes for true where PHP takes the node's for true."""
        made = self.truth(self.read(node), node)
        while isinstance(made, Apply) and made.operation == "not":
            inner = made.parts[0]
            if not (isinstance(inner, Apply) and inner.operation == "not"):
                break
            made = inner.parts[0]
        return made

    def truth(self, expr: Expr, node: PhpNode) -> Expr:
        """The same for a value that was read."""
        match expr.type.kind:
            case "nothing":
                return Constant(FLAG, False)
            case "text":
                if isinstance(expr, Constant):
                    return Constant(FLAG, expr.value not in ("", "0"))
                return Apply(FLAG, "&&", (expr, _unlike(expr, "0")))
            case "list" | "record" if self._is_array(expr):
                size = "list.length" if expr.type.kind == "list" else "record.size"
                filled = Apply(FLAG, "number >", (Apply(WHOLE, size, (expr,)), _NOUGHT))
                return Apply(FLAG, "&&", (expr, filled)) if expr.type.missing else filled
            case "any":
                self.uses.note(self.path(expr), "truth")
        return expr

    def _is_array(self, expr: Expr) -> bool:
        """Whether a value is an array, which is false if empty, and no object."""
        return (self.path(expr) or ()) not in self.uses.objects

    # -- literals and names --------------------------------------------------------------

    def _literal(self, node: PhpNode) -> Expr:
        text = node.text
        match node.type:
            case "integer":
                return Constant(
                    WHOLE,
                    int(text.replace("_", ""), 0 if text[:1] == "0" and len(text) > 1 else 10),
                )
            case "float":
                return Constant(NUMBER, float(text.replace("_", "")))
            case "boolean":
                return Constant(FLAG, text.lower() == "true")
            case "null":
                return Constant(NULL, None)
        return Constant(TEXT, re.sub(r"\\([\\'])", r"\1", text[1:-1]))

    def _joined_text(self, node: PhpNode) -> Expr:
        """A text in double quotes, with the values in it."""
        parts: list[Expr] = []
        for one in node.named:
            if one.type == "string_content":
                parts.append(Constant(TEXT, one.text))
            elif one.type == "escape_sequence":
                parts.append(Constant(TEXT, self._escape(one)))
            elif one.type == "dynamic_variable_name":
                raise self.unsaid(node)
            else:
                parts.append(self.shown(self._named_item(one), one))
        return _text_of(parts)

    def _named_item(self, node: PhpNode) -> Expr:
        """A value in a text: in a subscript there a bare word is a text."""
        if (
            node.type == "subscript_expression"
            and len(node.named) == 2
            and node.named[1].type == "name"
        ):
            return self._field(self.read(node.named[0]), node.named[1].text, node)
        return self.read(node)

    def _escape(self, node: PhpNode) -> str:
        sign = node.text[1:]
        if sign in _ESCAPES:
            return _ESCAPES[sign]
        if sign in ('"', "\\", "$"):
            return sign
        found = re.fullmatch(r"u\{([0-9a-fA-F]+)\}", sign)
        if found is None:
            raise self.unsaid(node)
        return chr(int(found[1], 16))

    # -- members -------------------------------------------------------------------------

    def _member(self, node: PhpNode) -> Expr:
        of = self.read(node.part("object"))
        name = node.part("name")
        if name.type != "name":
            raise self.unsaid(node)
        made = self._field(of, name.text, node, safe="?->" in node.text)
        path = self.path(of)
        if path is not None:
            self.uses.objects.add(path)
        return made

    def _subscript(self, node: PhpNode) -> Expr:
        if len(node.named) != 2:
            raise self.unsaid(node)
        of, at = (self.read(one) for one in node.named)
        if isinstance(at, Constant) and isinstance(at.value, str):
            return self._field(of, at.value, node)
        kind = of.type.kind
        if kind == "any":
            self.uses.note(self.path(of), "list" if at.type.kind == "number" else "keys")
            made = Item(ANY, of, at)
            self.uses.note(self.path(made), "item")
            return made
        if kind == "list" and at.type.kind in ("number", "any"):
            self.expect(at, "whole", node)
            return Item(of.type.item or ANY, of, at)
        if kind == "record" and at.type.kind in ("text", "any", "number"):
            found = of.type.item
            if found is None and of.type.fields:
                for _, own in of.type.fields:
                    found = own if found is None else either(found, own)
            return Item(found or ANY, of, at)
        raise self.unsaid(node)

    def _field(self, of: Expr, name: str, node: PhpNode, *, safe: bool = False) -> Expr:
        if of.type.kind in ("list", "text", "number", "flag", "nothing"):
            raise self.unsaid(node, f", a field of a {of.type.kind}")
        safe = safe or bool(of.type.missing)
        made = Field(of.type.field(name) or ANY, of, name, safe=safe)
        if of.type.kind == "record" and of.type.fields is None and of.type.item is not None:
            made = Field(of.type.item, of, name, safe=safe)
        self.uses.note(self.path(made), "field")
        return made

    def _call_of(self, node: PhpNode) -> Expr:
        """A call of an object's method: without arguments it is a value that the page gives."""
        of, name = self.read(node.part("object")), node.part("name").text
        if node.part("arguments").named or of.type.kind not in ("any", "record"):
            raise self.unsaid(node, ", a call of the server")
        made = self._field(of, name, node, safe="nullsafe" in node.type)
        path = self.path(of)
        if path is None:
            raise self.unsaid(node, ", a call of the server")
        self.uses.objects.add(path)
        self.notes.append(("call-becomes-field", node.text, node.start))
        return made

    # -- operators -----------------------------------------------------------------------

    def _unary(self, node: PhpNode) -> Expr:
        sign = node.text[:1]
        inner = node.part("argument")
        if sign == "!":
            return Apply(FLAG, "not", (self.test(inner),))
        value = self.expect(self.read(inner), "number", inner)
        if sign == "-":
            if isinstance(value, Constant) and value.value:
                return Constant(value.type, -value.value)  # type: ignore[operator]
            return Apply(NUMBER, "opposite", (value,))
        raise self.unsaid(node)

    def _binary(self, node: PhpNode) -> Expr:
        left, right = node.part("left"), node.part("right")
        sign = node.part("operator").text.lower()
        if sign in ("&&", "and", "||", "or"):
            word = "&&" if sign in ("&&", "and") else "||"
            one, other = self.test(left), self.test(right)
            return Apply(FLAG, word, (Apply(FLAG, "truth", (one,)), Apply(FLAG, "truth", (other,))))
        if sign == "??":
            one, other = self.there(left), self.read(right)
            type_ = either(one.type.present, other.type)
            if one.type.kind == "any" and other.type.kind in ("text", "number"):
                self.uses.note(self.path(one), "shown")
                type_ = other.type
            return Apply(type_, "??", (one, other))
        if sign == ".":
            return _text_of(
                [self.shown(self.read(left), left), self.shown(self.read(right), right)]
            )
        one, other = self.read(left), self.read(right)
        if sign in _EQUAL:
            return self._equal(sign, one, other, node)
        if sign in _COMPARED:
            one, other = (self.expect(e, "number", n) for e, n in ((one, left), (other, right)))
            return Apply(FLAG, f"number {sign}", (one, other))
        if sign in _ARITHMETIC:
            kind = "whole" if sign == "%" else "number"
            one, other = (self.expect(e, kind, n) for e, n in ((one, left), (other, right)))
            whole = sign not in ("/", "**") and one.type.whole and other.type.whole
            return Apply(WHOLE if whole else NUMBER, sign, (one, other))
        raise self.unsaid(node)

    def there(self, node: PhpNode) -> Expr:
        """A value that may be missing, as `??` and `isset` read it, as may be what it is a part of."""
        made = self.read(node)
        self.uses.note_missing(self.path(made))
        return _safe(made, outer=True)

    def _equal(self, sign: str, one: Expr, other: Expr, node: PhpNode) -> Expr:
        made = self.same(one, other, strict=len(sign) == 3, node=node)
        return Apply(FLAG, "not", (made,)) if sign[0] in "!<" else made

    def same(self, one: Expr, other: Expr, *, strict: bool, node: PhpNode) -> Expr:
        """Whether two values are equal: of one type, or one of them nothing."""
        if one.type.kind == "nothing" or other.type.kind == "nothing":
            value = other if one.type.kind == "nothing" else one
            if not strict:
                raise self.unsaid(node, ": nothing equals much")
            self.uses.note_missing(self.path(value))
            return Apply(FLAG, "is missing", (value,))
        for value, by in ((one, other), (other, one)):
            if value.type.kind == "any" and by.type.kind in ("text", "number", "flag"):
                kind = "whole" if by.type.whole else by.type.kind
                self.uses.note(self.path(value), kind)
        kinds = {one.type.kind, other.type.kind}
        if "any" in kinds and kinds & {"text", "number", "flag"}:
            return Apply(FLAG, "equal", (one, other))
        if len(kinds) > 1:
            keys = all(e.type.whole or _is_key(e) for e in (one, other))
            if kinds == {"text", "number"} and keys and not strict:
                # Keys are texts in one language, and numbers in the other where they look like one.
                return Apply(FLAG, "equal", (_as_text(one), _as_text(other)))
            raise self.unsaid(node, ", of two types")
        both = one.type.kind
        if both == "any" and any(_is_key(e) for e in (one, other)) and not strict:
            for value in (one, other):
                self.uses.note(self.path(value), "whole")
            return Apply(FLAG, "equal", (_as_text(one), _as_text(other)))
        if both not in ("text", "number", "flag"):
            raise self.unsaid(node, ", of no known types")
        keyed = any(map(_is_key, (one, other)))
        if both == "text" and strict == keyed and not any(map(_is_no_number, (one, other))):
            self.notes.append(("compared-as-texts", node.text, node.start))
            if not strict and keyed:
                one, other = (_as_text(e) if _is_key(e) else e for e in (one, other))
        return Apply(FLAG, "equal", (one, other))

    def _choice(self, node: PhpNode) -> Expr:
        condition, other = node.part("condition"), node.part("alternative")
        body = node.child("body")
        test = self.test(condition)
        then = self.read(body) if body is not None else self.read(condition)
        return self._either(test, then, self.read(other))

    def _either(self, test: Expr, then: Expr, other: Expr) -> Expr:
        for value, by in ((then, other), (other, then)):
            if value.type.kind == "any" and by.type.kind in ("text", "number"):
                self.uses.note(self.path(value), "shown")
        return Choice(either(then.type, other.type), test, then, other)

    def _match(self, node: PhpNode) -> Expr:
        """A `match`: equal in value and type, and an error for what no arm is for."""
        condition = node.part("condition").named[0]
        arms = node.part("body").named
        if not arms or arms[-1].type != "match_default_expression":
            raise self.unsaid(node, ", without `default`")
        made = self.read(arms[-1].part("return_expression"))
        for arm in reversed(arms[:-1]):
            tests = [
                self._case(condition, one) for one in arm.part("conditional_expressions").named
            ]
            test = tests[0]
            for one in tests[1:]:
                test = Apply(FLAG, "||", (test, one))
            made = self._either(test, self.read(arm.part("return_expression")), made)
        return made

    def _case(self, condition: PhpNode, case: PhpNode) -> Expr:
        if condition.text.lower() == "true":
            made = self.read(case)
            if made.type != FLAG:
                raise self.unsaid(case)
            return made
        return self.same(self.read(condition), self.read(case), strict=True, node=case)

    # -- lists, records, calls -----------------------------------------------------------

    def _array(self, node: PhpNode) -> Expr:
        fields: list[tuple[str, Expr]] = []
        items: list[Expr] = []
        for one in node.named:
            inner = one.named
            if len(inner) == 2:
                key = self.read(inner[0])
                if (
                    not isinstance(key, Constant)
                    or not isinstance(key.value, str)
                    or key.value.isdigit()
                ):
                    raise self.unsaid(one)
                fields.append((key.value, self.read(inner[1])))
            elif inner[0].type == "variadic_unpacking":
                raise self.unsaid(one)
            else:
                items.append(self.read(inner[0]))
        if fields and items:
            raise self.unsaid(node, ", of keys and none")
        if fields:
            return Record(record_of({name: value.type for name, value in fields}), tuple(fields))
        found: Type | None = None
        for value in items:
            found = value.type if found is None else either(found, value.type)
        return Listing(list_of(found) if found else Type("list"), tuple(items))

    def _call(self, node: PhpNode) -> Expr:
        name = node.part("function").text.lstrip("\\").lower()
        given = [one.named[0] for one in node.part("arguments").named]
        if any(one.type in ("variadic_unpacking", "variadic_placeholder") for one in given):
            raise self.unsaid(node)
        special = SPECIAL.get(name)
        if special is not None:
            return special(Given(self, node, given))
        made = CALLS.get(name)
        if made is None:
            raise self.unsaid(node, ", a function of the server")
        return made(Given(self, node, given))


_NOUGHT = Constant(WHOLE, 0)


def _unlike(expr: Expr, text: str) -> Expr:
    return Apply(FLAG, "not", (Apply(FLAG, "equal", (expr, Constant(TEXT, text))),))


def _as_text(expr: Expr) -> Expr:
    return Apply(TEXT, "number.text", (expr,))


def _is_key(expr: Expr) -> bool:
    """Whether a value is the key of a record."""
    return isinstance(expr, Name) and expr.name.endswith(" key")


def _is_no_number(expr: Expr) -> bool:
    return isinstance(expr, Constant) and _NO_NUMBER.fullmatch(str(expr.value)) is not None


def _text_of(parts: list[Expr]) -> Expr:
    """Parts as one text, with texts beside each other joined."""
    flat: list[Expr] = []
    for one in parts:
        inner = one.parts if isinstance(one, Apply) and one.operation == "text.join" else (one,)
        for part in inner:
            before = flat[-1] if flat else None
            if isinstance(part, Constant) and isinstance(before, Constant):
                flat[-1] = Constant(TEXT, f"{before.value}{part.value}")
            else:
                flat.append(part)
    if len(flat) == 1 and flat[0].type == TEXT:
        return flat[0]
    return Apply(TEXT, "text.join", tuple(flat or [Constant(TEXT, "")]))


def _safe(expr: Expr, *, outer: bool = False) -> Expr:
    """A path in which each step may find nothing; its first value may do so only if it is the whole."""
    type_ = expr.type.or_missing("either") if outer and expr.type.kind != "any" else expr.type
    if outer and expr.type.kind == "any":
        type_ = ANY.or_missing("either")
    match expr:
        case Field():
            return Field(type_, _safe(expr.of), expr.name, safe=expr.safe or _is_part(expr.of))
        case Item():
            return Item(type_, _safe(expr.of), expr.at, safe=expr.safe or _is_part(expr.of))
        case Name() if outer:
            return Name(type_, expr.name)
    return expr


def _is_part(expr: Expr) -> bool:
    return isinstance(expr, Field | Item) or bool(expr.type.missing)


_READ: dict[str, Callable[[PhpReader, PhpNode], Expr]] = {
    **dict.fromkeys(("integer", "float", "boolean", "null", "string"), PhpReader._literal),
    "encapsed_string": PhpReader._joined_text, "member_access_expression": PhpReader._member,
    "nullsafe_member_access_expression": PhpReader._member,
    "subscript_expression": PhpReader._subscript, "member_call_expression": PhpReader._call_of,
    "nullsafe_member_call_expression": PhpReader._call_of,
    "unary_op_expression": PhpReader._unary, "binary_expression": PhpReader._binary,
    "conditional_expression": PhpReader._choice, "match_expression": PhpReader._match,
    "array_creation_expression": PhpReader._array, "function_call_expression": PhpReader._call,
}  # fmt: skip
