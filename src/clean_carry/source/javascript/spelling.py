"""Expressions in JavaScript, as templates and scripts of single files hold them.

Values are those that the expression says; null and undefined count as one, `is missing` asks for both.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass

from clean_carry.source.expressions.model import (
    Apply,
    Choice,
    Constant,
    Expr,
    Field,
    Function,
    Item,
    Listing,
    Name,
    Record,
    Unsayable,
)
from clean_carry.source.expressions.types import WHOLE

# How strongly operators bind (ECMA-262 §13, from the innermost production outwards).
ATOM, POWER, UNARY, TIMES, PLUS, COMPARED, EQUAL, AND, OR, NULLISH, CHOICE = range(20, 9, -1)
_SIGNS = {
    "+": ("+", PLUS), "-": ("-", PLUS), "*": ("*", TIMES), "/": ("/", TIMES), "%": ("%", TIMES),
    "number <": ("<", COMPARED), "number >": (">", COMPARED), "number <=": ("<=", COMPARED),
    "number >=": (">=", COMPARED), "&&": ("&&", AND), "||": ("||", OR), "??": ("??", NULLISH),
    "equal": ("===", EQUAL),
}  # fmt: skip
# Operations by the code for them: `0` to `2` stand for the operands in braces.
_FORMS = {
    "text.upper": "{0}.toUpperCase()", "text.lower": "{0}.toLowerCase()", "list.holds": "{0}.includes({1})",
    "text.holds": "{0}.includes({1})", "text.starts": "{0}.startsWith({1})",
    "text.ends": "{0}.endsWith({1})", "list.join": "{0}.join({1})", "list.map": "{0}.map({1})",
    "text.replace all": "{0}.replaceAll({1}, {2})",
    "ascii.upper": "{0}.replace(/[a-z]+/g, (part) => part.toUpperCase())",
    "ascii.lower": "{0}.replace(/[A-Z]+/g, (part) => part.toLowerCase())",
    "ascii.capital": "{0}.replace(/^[a-z]/, (sign) => sign.toUpperCase())",
    "ascii.small": "{0}.replace(/^[A-Z]/, (sign) => sign.toLowerCase())",
    "ascii.capitals": "{0}.replace(/(?<![^ \\t\\r\\n\\f\\v])[a-z]/g, (sign) => sign.toUpperCase())",
    "ascii.trim": "{0}.replace(/^[ \\t\\n\\r\\0\\v]+|[ \\t\\n\\r\\0\\v]+$/g, '')",
    "text.filled": "{0}.replaceAll({1}, () => {2})",
    "list.length": "{0}.length", "text.count": "[...{0}].length",
    "list.sum": "{0}.reduce((sum, one) => sum + one, 0)",
}  # fmt: skip
# The same for functions, whose operands need no parentheses.
_CALLS = {
    "record.size": "Object.keys({0}).length", "is text": "typeof {0} === 'string'", "abs": "Math.abs({0})",
    "is array": "{0} !== null && typeof {0} === 'object'",
    "floor": "Math.floor({0})", "ceil": "Math.ceil({0})",
    "sqrt": "Math.sqrt({0})", "min of list": "Math.min(...{0})", "max of list": "Math.max(...{0})",
    "number.text": "String({0})",
}  # fmt: skip
_NAME = re.compile(r"[A-Za-z_$][\w$]*")


@dataclass
class Speller:
    """Writes expressions. `name` gives the spelling of a name; `quote` is the sign around texts."""

    name: Callable[[str], str]
    quote: str = "'"

    def value(self, expr: Expr, level: int = CHOICE) -> str:
        """The code for a value, as an operand of what binds as strongly as `level`. Raises `Unsayable`."""
        text, own = self.ranked(expr)
        return text if own >= level else f"({text})"

    def ranked(self, expr: Expr) -> tuple[str, int]:
        match expr:
            case Constant():
                return self._constant(expr)
            case Name():
                return self.name(expr.name), ATOM
            case Field():
                head = self.value(expr.of, ATOM)
                if not _NAME.fullmatch(expr.name):
                    return f"{head}{'?.' if expr.safe else ''}[{self.text(expr.name)}]", ATOM
                return f"{head}{'?.' if expr.safe else '.'}{expr.name}", ATOM
            case Item():
                head = self.value(expr.of, ATOM)
                return f"{head}{'?.' if expr.safe else ''}[{self.value(expr.at)}]", ATOM
            case Choice():
                test = self.value(expr.test, CHOICE + 1)
                then = self.value(expr.then, CHOICE + 1)
                return f"{test} ? {then} : {self.value(expr.other)}", CHOICE
            case Listing():
                return f"[{', '.join(self.value(one) for one in expr.items)}]", ATOM
            case Record():
                fields = (f"{self._key(name)}: {self.value(value)}" for name, value in expr.fields)
                return "{ " + ", ".join(fields) + " }" if expr.fields else "{}", ATOM
            case Function():
                outer = self.name
                given = frozenset(expr.parameters)
                self.name = lambda name: name if name in given else outer(name)
                try:
                    body = self.value(expr.body)
                finally:
                    self.name = outer
                return f"({', '.join(expr.parameters)}) => {body}", CHOICE
            case Apply():
                return self._apply(expr)
        raise Unsayable(type(expr).__name__)

    def _key(self, name: str) -> str:
        return name if _NAME.fullmatch(name) else self.text(name)

    def text(self, text: str) -> str:
        """A literal text."""
        shown = text.replace("\\", "\\\\").replace(self.quote, f"\\{self.quote}")
        for sign, escape in (("\n", "\\n"), ("\r", "\\r"), ("\t", "\\t"), ("\0", "\\0")):
            shown = shown.replace(sign, escape)
        return f"{self.quote}{shown}{self.quote}"

    def _constant(self, expr: Constant) -> tuple[str, int]:
        value = expr.value
        if isinstance(value, str):
            return self.text(value), ATOM
        if value is None:
            return ("undefined" if expr.type.missing == "undefined" else "null"), ATOM
        if isinstance(value, bool):
            return ("true" if value else "false"), ATOM
        # A number before a dot needs parentheses.
        return repr(int(value) if float(value).is_integer() else value), UNARY

    def _apply(self, expr: Apply) -> tuple[str, int]:
        operation, parts = expr.operation, expr.parts
        if operation in _SIGNS:
            return self._sign(operation, parts)
        if operation in _FORMS:
            first = self.value(parts[0], ATOM)
            return _FORMS[operation].format(first, *map(self.value, parts[1:])), ATOM
        if operation in _CALLS:
            made = _CALLS[operation].format(*map(self.value, parts))
            return made, AND if " && " in made else EQUAL if made.startswith("typeof") else ATOM
        write = _WRITERS.get(operation)
        if write is None:
            raise Unsayable(operation)
        return write(self, expr)

    def _sign(self, operation: str, parts: tuple[Expr, ...]) -> tuple[str, int]:
        sign, level = _SIGNS[operation]
        one, other = parts
        mixed = (
            {"&&", "||"} if operation == "??" else {"??"} if operation in ("&&", "||") else set()
        )
        texts = []
        for part, least in ((one, level), (other, level + 1)):
            # `??` may not stand beside `&&` and `||` without parentheses.
            apart = isinstance(part, Apply) and part.operation in mixed
            associative = operation in ("&&", "||", "??")
            texts.append(self.value(part, ATOM if apart else level if associative else least))
        return f"{texts[0]} {sign} {texts[1]}", level

    # -- operations with a form of their own ---------------------------------------------

    def _not(self, expr: Apply) -> tuple[str, int]:
        inner = expr.parts[0]
        if isinstance(inner, Apply) and inner.operation == "not":
            return f"!!{self.value(inner.parts[0], UNARY)}", UNARY
        if isinstance(inner, Apply) and inner.operation == "equal":
            one, other = (self.value(part, EQUAL + 1) for part in inner.parts)
            return f"{one} !== {other}", EQUAL
        if isinstance(inner, Apply) and inner.operation == "is missing":
            return f"{self.value(inner.parts[0], EQUAL + 1)} != null", EQUAL
        if isinstance(inner, Apply) and inner.operation == "number >" and inner.parts[1] == _NOUGHT:
            return f"{self.value(inner.parts[0], EQUAL + 1)} === 0", EQUAL
        return f"!{self.value(inner, UNARY)}", UNARY

    def _missing(self, expr: Apply) -> tuple[str, int]:
        return f"{self.value(expr.parts[0], EQUAL + 1)} == null", EQUAL

    def _opposite(self, expr: Apply) -> tuple[str, int]:
        return f"-{self.value(expr.parts[0], UNARY + 1)}", UNARY

    def _power(self, expr: Apply) -> tuple[str, int]:
        one, other = (self.value(part, UNARY + 1) for part in expr.parts)
        return f"{one} ** {other}", POWER

    def _same(self, expr: Apply) -> tuple[str, int]:
        return self.ranked(expr.parts[0])

    def _join(self, expr: Apply) -> tuple[str, int]:
        """A text of parts: a template literal."""
        if all(isinstance(one, Constant) for one in expr.parts):
            return self.text("".join(str(one.value) for one in expr.parts)), ATOM  # type: ignore[attr-defined]
        parts = []
        for one in expr.parts:
            if isinstance(one, Constant):
                shown = (
                    str(one.value).replace("\\", "\\\\").replace("`", "\\`").replace("${", "\\${")
                )
                parts.append(shown.replace("\n", "\\n"))
            else:
                parts.append(f"${{{self.value(one)}}}")
        return f"`{''.join(parts)}`", ATOM

    def _extreme(self, expr: Apply) -> tuple[str, int]:
        return f"Math.{expr.operation}({', '.join(map(self.value, expr.parts))})", ATOM

    def _signs(self, expr: Apply) -> tuple[str, int]:
        of, *ends = expr.parts
        return f"[...{self.value(of)}].slice({', '.join(map(self.value, ends))}).join('')", ATOM

    def _rounded(self, expr: Apply) -> tuple[str, int]:
        of, places = expr.parts
        assert isinstance(places, Constant)
        if places.value:
            return f"Number({self.value(of, ATOM)}.toFixed({places.value}))", ATOM
        text = self.value(of)
        return f"Math.sign({text}) * Math.round(Math.abs({text}))", TIMES

    def _grouped(self, expr: Apply) -> tuple[str, int]:
        of, places = expr.parts
        assert isinstance(places, Constant)
        if of.type.whole and not places.value:
            return f"{self.value(of, ATOM)}.toLocaleString('en-US')", ATOM
        digits = f"minimumFractionDigits: {places.value}, maximumFractionDigits: {places.value}"
        return f"{self.value(of, ATOM)}.toLocaleString('en-US', {{ {digits} }})", ATOM


_NOUGHT = Constant(WHOLE, 0)
_WRITERS: dict[str, Callable[[Speller, Apply], tuple[str, int]]] = {
    "not": Speller._not, "is missing": Speller._missing, "opposite": Speller._opposite,
    "**": Speller._power, "truth": Speller._same, "itself": Speller._same,
    "text.itself": Speller._same, "text.join": Speller._join, "min": Speller._extreme,
    "max": Speller._extreme, "text.signs": Speller._signs, "round away": Speller._rounded,
    "number.grouped": Speller._grouped,
}  # fmt: skip
