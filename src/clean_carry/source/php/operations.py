"""Operations of expressions as PHP writes them: as calls, or in a form of their own.

A writer of an operation gives its text and how strongly that binds.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from clean_carry.source.expressions.model import (
    Apply,
    Constant,
    Expr,
    Field,
    Function,
    Item,
    Name,
    Spread,
    Unsayable,
)
from clean_carry.source.php.literals import (
    AND,
    ATOM,
    CHOICE,
    DOT,
    EQUAL,
    NOT,
    NULLISH,
    OR,
    PLUS,
    TIMES,
)

if TYPE_CHECKING:
    from clean_carry.source.php.spelling import Speller

# Operations that are a call of a function, the helper's (`Js::`) or the language's, with their parts.
CALLS = {
    "text.upper": "mb_strtoupper", "text.lower": "mb_strtolower", "text.trim": "Js::trim",
    "text.trim start": "Js::trimStart", "text.trim end": "Js::trimEnd",
    "text.starts": "str_starts_with", "text.ends": "str_ends_with", "text.holds": "str_contains",
    "text.place": "Js::place", "text.slice": "Js::slice", "text.between": "Js::between",
    "text.stretch": "Js::stretch", "text.sign": "Js::sign", "text.at": "Js::at",
    "text.length": "Js::length",
    "text.replace first": "Js::replaceFirst", "text.pad start": "Js::padStart",
    "text.pad end": "Js::padEnd", "text.number": "Js::number", "read whole": "Js::readWhole",
    "read number": "Js::readNumber", "round": "Js::round", "floor": "floor", "ceil": "ceil",
    "trunc": "Js::trunc", "abs": "abs", "sqrt": "sqrt", "sign": "Js::signOf",
    "number.fixed": "Js::fixed", "list.length": "count",
    "list.find place": "Js::findPlace", "list.find": "Js::find", "list.some": "Js::some",
    "list.every": "Js::every", "list.slice": "Js::part", "list.at": "Js::itemAt",
    "list.reverse": "array_reverse", "is whole": "Js::isWhole", "is no number": "is_nan",
}  # fmt: skip
COMPARE = {"<": "<", ">": ">", "<=": "<=", ">=": ">="}


def flat(expr: Expr) -> list[Expr]:
    """The parts of a text that is joined of others."""
    if isinstance(expr, Apply) and expr.operation == "text.join":
        return [inner for part in expr.parts for inner in flat(part)]
    return [expr]


def _and(speller: Speller, expr: Apply) -> tuple[str, int]:
    one, other = expr.parts
    if one.type.kind == other.type.kind == "flag" and not (one.type.missing or other.type.missing):
        return f"{speller.value(one, AND)} && {speller.value(other, AND)}", AND
    test = speller.truth(one, CHOICE + 1)
    return f"{test} ? {speller.value(other, CHOICE + 1)} : {speller.value(one, CHOICE + 1)}", CHOICE


def _or(speller: Speller, expr: Apply) -> tuple[str, int]:
    one, other = expr.parts
    if one.type.kind == other.type.kind == "flag" and not (one.type.missing or other.type.missing):
        return f"{speller.value(one, OR)} || {speller.value(other, OR)}", OR
    if one.type.kind == "nothing":
        return speller.ranked(other)
    if one.type.kind in ("list", "record"):
        return f"{speller.value(one, NULLISH + 1)} ?? {speller.value(other, NULLISH)}", NULLISH
    if one.type.kind == "number" and one.type.whole:
        return f"{speller.value(one, CHOICE + 1)} ?: {speller.value(other, CHOICE + 1)}", CHOICE
    test = speller.truth(one, CHOICE + 1)
    return f"{test} ? {speller.value(one, CHOICE + 1)} : {speller.value(other, CHOICE + 1)}", CHOICE


def _nullish(speller: Speller, expr: Apply) -> tuple[str, int]:
    one, other = expr.parts
    if isinstance(one, Field | Item):
        # A part that may be missing is read once.
        return f"{speller.path(one)} ?? {speller.value(other, NULLISH)}", NULLISH
    return f"{speller.value(one, NULLISH + 1)} ?? {speller.value(other, NULLISH)}", NULLISH


def _not(speller: Speller, expr: Apply) -> tuple[str, int]:
    inner = expr.parts[0]
    text, own = speller.ranked_truth(inner)
    if own == EQUAL and text.count(" !== ") == 1 and " === " not in text:
        return text.replace(" !== ", " === "), EQUAL
    if own == EQUAL and text.count(" === ") == 1 and " !== " not in text:
        return text.replace(" === ", " !== "), EQUAL
    if text in ("true", "false"):
        return ("false" if text == "true" else "true"), ATOM
    return f"!{text if own >= NOT else f'({text})'}", NOT


def _equal(speller: Speller, expr: Apply) -> tuple[str, int]:
    one, other = expr.parts
    # A whole number may be of either kind of number.
    loose = one.type.kind == "number"
    if loose and (one.type.missing or other.type.missing):
        return speller.helper("same", speller.value(one), speller.value(other)), ATOM
    sign = "==" if loose and not (one.type.whole and other.type.whole) else "==="
    return f"{speller.value(one, EQUAL + 1)} {sign} {speller.value(other, EQUAL + 1)}", EQUAL


def _missing(speller: Speller, expr: Apply) -> tuple[str, int]:
    return f"{speller.value(expr.parts[0], EQUAL + 1)} === null", EQUAL


def _join(speller: Speller, expr: Apply) -> tuple[str, int]:
    parts = [_in_line(speller, part) for part in flat(expr)]
    if len(parts) == 1:
        only = flat(expr)[0]
        if only.type.kind == "number" and only.type.whole and not isinstance(only, Constant):
            return f"(string) {speller.value(only, NOT)}", NOT
        return speller.ranked_text(only)
    return " . ".join(parts), DOT


def _in_line(speller: Speller, part: Expr) -> str:
    return speller.text(part, DOT + 1)


def _arithmetic(speller: Speller, expr: Apply) -> tuple[str, int]:
    level = PLUS if expr.operation in "+-" else TIMES
    one, other = expr.parts
    return (
        f"{speller.value(one, level)} {expr.operation} {speller.value(other, level + 1)}",
        level,
    )


def _divided(speller: Speller, expr: Apply) -> tuple[str, int]:
    by = expr.parts[1]
    if isinstance(by, Constant) and by.value:
        return _arithmetic(speller, expr)
    return speller.call("fdiv", *(speller.value(one) for one in expr.parts)), ATOM


def _power(speller: Speller, expr: Apply) -> tuple[str, int]:
    return speller.helper("power", *(speller.value(one) for one in expr.parts)), ATOM


def _extreme(speller: Speller, expr: Apply) -> tuple[str, int]:
    """The greatest or the least of some numbers."""
    parts = expr.parts
    if len(parts) == 1 and isinstance(parts[0], Spread):
        return speller.helper(expr.operation, speller.value(parts[0].of)), ATOM
    given = ", ".join(speller.given(one) for one in parts)
    if expr.type.whole and len(parts) > 1:
        return f"{expr.operation}({given})", ATOM
    return speller.helper(expr.operation, f"[{given}]"), ATOM


def _opposite(speller: Speller, expr: Apply) -> tuple[str, int]:
    return f"-{speller.value(expr.parts[0], NOT)}", NOT


def _map(speller: Speller, expr: Apply) -> tuple[str, int]:
    of, function = expr.parts
    assert isinstance(function, Function)
    items, told = speller.value(of), speller.function(function)
    if len(function.parameters) > 1:
        if not isinstance(of, Name | Field):
            return speller.helper("map", told, items), ATOM
        return f"array_map({told}, {items}, array_keys({items}))", ATOM
    return f"array_map({told}, {items})", ATOM


def _filter(speller: Speller, expr: Apply) -> tuple[str, int]:
    of, function = expr.parts
    assert isinstance(function, Function)
    told = speller.function(function, truth=True)
    mode = ", ARRAY_FILTER_USE_BOTH" if len(function.parameters) > 1 else ""
    return f"array_values(array_filter({speller.value(of)}, {told}{mode}))", ATOM


def _asked(speller: Speller, expr: Apply) -> tuple[str, int]:
    """Whether, or where, a function is true of an item."""
    of, function = expr.parts
    assert isinstance(function, Function)
    told = speller.function(function, truth=True)
    return speller.call(CALLS[expr.operation], speller.value(of), told), ATOM


def _reduce(speller: Speller, expr: Apply) -> tuple[str, int]:
    of, function, start = expr.parts
    assert isinstance(function, Function)
    if len(function.parameters) > 2:
        raise Unsayable("a reduction with places")
    told = speller.function(function)
    return f"array_reduce({speller.value(of)}, {told}, {speller.value(start)})", ATOM


def _sort(speller: Speller, expr: Apply) -> tuple[str, int]:
    of = expr.parts[0]
    if expr.parts[1:]:
        function = expr.parts[1]
        assert isinstance(function, Function)
        if function.type.kind != "number" or function.type.missing:
            raise Unsayable("a comparison that gives no number")
        return speller.helper("sort", speller.value(of), speller.function(function)), ATOM
    item = of.type.item
    if item is None or item.kind != "text" or item.missing:
        raise Unsayable("sorting by text")
    return speller.helper("sort", speller.value(of), "strcmp(...)"), ATOM


def _list_join(speller: Speller, expr: Apply) -> tuple[str, int]:
    of, item = expr.parts[0], expr.parts[0].type.item
    by = speller.value(expr.parts[1]) if expr.parts[1:] else "','"
    if item is None or item.missing or item.kind not in ("text", "number", "flag"):
        raise Unsayable("a list as text")
    items = speller.value(of)
    if item.kind == "number" and not item.whole:
        speller.helpers.add("num")
        items = f"array_map(Js::num(...), {items})"
    elif item.kind == "flag":
        items = f"array_map(fn ($one) => $one ? 'true' : 'false', {items})"
    return f"implode({by}, {items})", ATOM


def _holds(speller: Speller, expr: Apply) -> tuple[str, int]:
    of, value = expr.parts
    strict = ", true" if value.type.kind != "number" else ""
    return f"in_array({speller.value(value)}, {speller.value(of)}{strict})", ATOM


def _place(speller: Speller, expr: Apply) -> tuple[str, int]:
    return speller.helper("indexOf", *(speller.value(one) for one in expr.parts)), ATOM


def _concat(speller: Speller, expr: Apply) -> tuple[str, int]:
    return f"[{', '.join(f'...{speller.value(one)}' for one in expr.parts)}]", ATOM


def _split(speller: Speller, expr: Apply) -> tuple[str, int]:
    of, by = expr.parts
    if isinstance(by, Constant) and by.value:
        return f"explode({speller.value(by)}, {speller.value(of)})", ATOM
    raise Unsayable("the signs of a text, which are counted otherwise")


def _replace_all(speller: Speller, expr: Apply) -> tuple[str, int]:
    of, old, new = expr.parts
    if not (isinstance(old, Constant) and old.value):
        raise Unsayable("a text to replace that is not known")
    if not isinstance(new, Constant) or "$" in str(new.value):
        raise Unsayable("a replacement that is not known")
    return f"str_replace({speller.value(old)}, {speller.value(new)}, {speller.value(of)})", ATOM


def _replace_first(speller: Speller, expr: Apply) -> tuple[str, int]:
    new = expr.parts[2]
    if not isinstance(new, Constant) or "$" in str(new.value):
        raise Unsayable("a replacement that is not known")
    return speller.helper("replaceFirst", *(speller.value(one) for one in expr.parts)), ATOM


def _repeat(speller: Speller, expr: Apply) -> tuple[str, int]:
    of, count = expr.parts
    if not (isinstance(count, Constant) and isinstance(count.value, int)):
        raise Unsayable("a text repeated a number of times that is not known")
    return f"str_repeat({speller.value(of)}, {speller.value(count)})", ATOM


def _truth_value(speller: Speller, expr: Apply) -> tuple[str, int]:
    return speller.ranked_truth(expr.parts[0])


def _itself(speller: Speller, expr: Apply) -> tuple[str, int]:
    return speller.ranked(expr.parts[0])


def _flag_number(speller: Speller, expr: Apply) -> tuple[str, int]:
    return f"(int) {speller.value(expr.parts[0], NOT)}", NOT


def _as_own_text(speller: Speller, expr: Apply) -> tuple[str, int]:
    return _join(speller, Apply(expr.type, "text.join", expr.parts))


def _remainder(speller: Speller, expr: Apply) -> tuple[str, int]:
    if expr.type.whole:
        return _arithmetic(speller, expr)
    return speller.helper("mod", *(speller.value(one) for one in expr.parts)), ATOM


def _is_list(speller: Speller, expr: Apply) -> tuple[str, int]:
    kind = expr.parts[0].type
    if kind.kind == "any" or kind.missing:
        raise Unsayable("whether a value is a list")
    return ("true" if kind.kind == "list" else "false"), ATOM


Writer = Callable[["Speller", Apply], tuple[str, int]]
WRITERS: dict[str, Writer] = {
    "&&": _and, "||": _or, "??": _nullish, "not": _not,
    "truth": _truth_value, "itself": _itself, "equal": _equal,
    "is missing": _missing, "text.join": _join, "+": _arithmetic,
    "%": _remainder, "-": _arithmetic, "*": _arithmetic, "/": _divided, "**": _power,
    "max": _extreme, "min": _extreme,
    "opposite": _opposite, "list.map": _map, "list.filter": _filter,
    "list.reduce": _reduce, "list.sort": _sort, "list.join": _list_join,
    "list.holds": _holds, "list.place": _place, "list.concat": _concat,
    "text.split": _split, "text.replace all": _replace_all,
    "text.repeat": _repeat, "text.itself": _itself, "number.text": _as_own_text,
    "flag.text": _as_own_text, "flag.number": _flag_number, "is list": _is_list,
    "text.replace first": _replace_first, "list.find": _asked,
    "list.find place": _asked, "list.some": _asked, "list.every": _asked,
}  # fmt: skip
