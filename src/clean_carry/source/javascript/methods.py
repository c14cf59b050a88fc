"""Methods, functions and operators of JavaScript: the operation of each, and the type of its result.

Sources: ECMA-262 (§21.1 Number, §21.3 Math, §22.1 String, §23.1 Array).
"""

from __future__ import annotations

from collections.abc import Callable

from clean_carry.source.expressions.types import (
    ANY,
    FLAG,
    NUMBER,
    TEXT,
    WHOLE,
    Type,
    either,
    list_of,
)

# The type of a result, from the types of the receiver and of the arguments. An argument that is a
# function counts with the type of the value it returns.
Result = Callable[[Type, tuple[Type, ...]], Type]


def _always(type_: Type) -> Result:
    return lambda receiver, given: type_


def _item(receiver: Type, given: tuple[Type, ...]) -> Type:
    return (receiver.item or ANY).or_missing("undefined")


def _same(receiver: Type, given: tuple[Type, ...]) -> Type:
    return receiver.present


def _list_of_given(receiver: Type, given: tuple[Type, ...]) -> Type:
    return list_of(given[0])


def _joined(receiver: Type, given: tuple[Type, ...]) -> Type:
    found = receiver.present
    for one in given:
        found = either(found, one)
    return found


def _carried(receiver: Type, given: tuple[Type, ...]) -> Type:
    return either(given[0], given[1])


# By kind of receiver and name: the operation (`text.upper` for `toUpperCase` of a text), the least and most
# arguments, and the type of the result.
METHODS: dict[tuple[str, str], tuple[str, int, int, Result]] = {
    ("text", "toUpperCase"): ("text.upper", 0, 0, _always(TEXT)),
    ("text", "toLowerCase"): ("text.lower", 0, 0, _always(TEXT)),
    ("text", "trim"): ("text.trim", 0, 0, _always(TEXT)),
    ("text", "trimStart"): ("text.trim start", 0, 0, _always(TEXT)),
    ("text", "trimEnd"): ("text.trim end", 0, 0, _always(TEXT)),
    ("text", "startsWith"): ("text.starts", 1, 1, _always(FLAG)),
    ("text", "endsWith"): ("text.ends", 1, 1, _always(FLAG)),
    ("text", "includes"): ("text.holds", 1, 1, _always(FLAG)),
    ("text", "indexOf"): ("text.place", 1, 1, _always(WHOLE)),
    ("text", "slice"): ("text.slice", 1, 2, _always(TEXT)),
    ("text", "substring"): ("text.between", 1, 2, _always(TEXT)),
    ("text", "substr"): ("text.stretch", 1, 2, _always(TEXT)),
    ("text", "charAt"): ("text.sign", 1, 1, _always(TEXT)),
    ("text", "split"): ("text.split", 1, 1, _always(list_of(TEXT))),
    ("text", "replace"): ("text.replace first", 2, 2, _always(TEXT)),
    ("text", "replaceAll"): ("text.replace all", 2, 2, _always(TEXT)),
    ("text", "padStart"): ("text.pad start", 1, 2, _always(TEXT)),
    ("text", "padEnd"): ("text.pad end", 1, 2, _always(TEXT)),
    ("text", "repeat"): ("text.repeat", 1, 1, _always(TEXT)),
    ("text", "concat"): ("text.join", 1, 9, _always(TEXT)),
    ("text", "toString"): ("text.itself", 0, 0, _always(TEXT)),
    ("number", "toFixed"): ("number.fixed", 0, 1, _always(TEXT)),
    ("number", "toString"): ("number.text", 0, 0, _always(TEXT)),
    ("flag", "toString"): ("flag.text", 0, 0, _always(TEXT)),
    ("list", "map"): ("list.map", 1, 1, _list_of_given),
    ("list", "filter"): ("list.filter", 1, 1, _same),
    ("list", "find"): ("list.find", 1, 1, _item),
    ("list", "findIndex"): ("list.find place", 1, 1, _always(WHOLE)),
    ("list", "some"): ("list.some", 1, 1, _always(FLAG)),
    ("list", "every"): ("list.every", 1, 1, _always(FLAG)),
    ("list", "includes"): ("list.holds", 1, 1, _always(FLAG)),
    ("list", "indexOf"): ("list.place", 1, 1, _always(WHOLE)),
    ("list", "slice"): ("list.slice", 0, 2, _same),
    ("list", "join"): ("list.join", 0, 1, _always(TEXT)),
    ("list", "concat"): ("list.concat", 1, 9, _joined),
    ("list", "reduce"): ("list.reduce", 2, 2, _carried),
    ("list", "sort"): ("list.sort", 0, 1, _same),
    ("list", "reverse"): ("list.reverse", 0, 0, _same),
    ("list", "at"): ("list.at", 1, 1, _item),
}
# Methods that change their list: only a new list has them.
CHANGING = frozenset({"list.sort", "list.reverse"})
# Functions of the language by name: operation, the kinds of their arguments, the type of the result.
FUNCTIONS: dict[str, tuple[str, tuple[str, ...], Type]] = {
    "Math.round": ("round", ("number",), NUMBER),
    "Math.floor": ("floor", ("number",), NUMBER),
    "Math.ceil": ("ceil", ("number",), NUMBER),
    "Math.trunc": ("trunc", ("number",), NUMBER),
    "Math.abs": ("abs", ("number",), NUMBER),
    "Math.sqrt": ("sqrt", ("number",), NUMBER),
    "Math.sign": ("sign", ("number",), NUMBER),
    "Math.pow": ("**", ("number", "number"), NUMBER),
    "Number.isInteger": ("is whole", ("number",), FLAG),
    "Number.isNaN": ("is no number", ("number",), FLAG),
    "isNaN": ("is no number", ("number",), FLAG),
    "Array.isArray": ("is list", ("any",), FLAG),
}
# Functions of any number of arguments of a kind.
OF_MANY: dict[str, tuple[str, str, Type]] = {
    "Math.max": ("max", "number", NUMBER),
    "Math.min": ("min", "number", NUMBER),
}
ARITHMETIC = frozenset({"-", "*", "/", "%", "**"})
COMPARED = frozenset({"<", ">", "<=", ">="})
EQUAL = frozenset({"===", "!==", "==", "!="})
