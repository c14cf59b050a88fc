"""Values for inputs: one that is typical of its kind, and those a hostile tester would try."""

from __future__ import annotations

import re
from dataclasses import replace
from itertools import zip_longest
from typing import Any

from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.trials import THROWN

_WORDS = ("Holm", "Skail", "Brae", "Voe")
MOST_DEPTH = 4
MARKUP = '<b>&amp; "it\'s"</b>'
LONG = "Gullmoor " * 40
# Non-Latin, combining and right-to-left text; an astral character is two UTF-16 units.
SCRIPTS = ("汐見の港", "e\u0301cluse", "מעבורת הים", "⛴\U0001f30a")
NOT_A_NUMBER = {"$": "NaN"}
UNDEFINED = {"$": "undefined"}
_CALLBACK = re.compile(
    r"^(on|handle|render|get|set|load|fetch|validate|format|sort|filter)[A-Z]|Ref$"
)
# Values that keep a component from doing anything are not typical.
_IDLE = re.compile(
    r"disabled?$|^(read_?only|hidden|hide|loading|static|removed|closed)$", re.IGNORECASE
)
_LISTENER = re.compile(r"^on[A-Z]|^(command|callback|handler)$")
_TRUTH = re.compile(
    r"^(is|has|can|show|hide|should|allow|disable|enable|no|with)[A-Z]|ed$|able$"
    r"|^(open|active|block|inline|outline|loading|visible|horizontal|vertical|multiple|fluid|dark)$"
)
# Inputs that show or link to something, which are seldom parts of a list.
_TEXTS = re.compile(r"^(url|to|href|src|link|label|title|icon|text|name|alt|placeholder|caption)$")
_ALWAYS, _NEVER = frozenset(["visible", "enabled"]), frozenset(["separator", "divider"])
_NUMBERS = re.compile(
    r"(count|size|index|width|height|total|limit|max|min|page|rows|delay|timeout|duration|length"
    r"|number|amount|step|offset|year|month|day)$",
    re.IGNORECASE,
)
_LISTS = re.compile(r"(items|options|list|rows|columns|entries|values|data|[a-z]{3}s)$")
# Fields of an entry of a list or a tree.
_PARTS = frozenset("items nodes rows columns options entries".split())
# Inputs that name an element elsewhere in the page, and the one the page of a trial has: by id and by tag.
# A place in a list: two are there most often.
_INDEX = re.compile(r"(?:^i|[a-z_$]I)ndex$")
# Inputs that become a part of a class, which holds no space.
_TOKEN = re.compile(
    r"^(type|size|variant|colou?r|theme|severity|kind|mode|align|placement|position|animation|transition)$"
    r"|[a-z](Class|ClassName|Type|Size|Color|Position|Animation|Transition)$"
)
# The bounds of what others are: those come between them.
_LEAST = re.compile(r"^min(?=$|[A-Z_])|Min(?=$|[A-Z])")
_MOST = re.compile(r"^max(?=$|[A-Z_])|Max(?=$|[A-Z])")
# Milliseconds: what happens each thousandth of a second is no likely one.
_TIMES = re.compile(r"(interval|delay|timeout|duration|wait|period)$", re.I)
_DAY = 86_400_000
# Values of every input of a kind.
_ONE_OF_A_KIND: dict[str, Any] = {
    "style": {"color": "red"},
    "tag": "section",
    "expression": {"$": "expression", "text": "a"},
    "reference": UNDEFINED,
}
# Stands for no value where others take turns.
_NOTHING = object()
_OUTSIDE = frozenset("target targetId toggler anchor anchorId selector".split())
OUTSIDE = "page-aside"
_TAG = re.compile(r"^(tag|as|component|element)$|[a-z](Tag|Component)$")
# The order in which one kind is chosen where several are possible.
_ORDER = (
    "content", "element content", "date", "array", "object", "string", "number", "boolean",
    "function", "moment", "style", "text", "sized", "attribute", "tag", "reference", "expression",
)  # fmt: skip


def is_function(name: str, shape: Shape) -> bool:
    """Whether an input is given as a recording function."""
    if shape.sometimes and not (shape.declared and shape.kinds == {"function"}):
        return False
    if "function" in shape.kinds:
        others = shape.kinds & {"string", "object", "array", "content", "date", "number"}
        return not others or (len(others) == 1 and not shape.declared)
    return not shape.kinds and bool(_CALLBACK.search(name))


def is_content(name: str, shape: Shape) -> bool:
    """Whether an input is given as content."""
    if name == "children":
        return "function" not in shape.kinds or "content" in shape.kinds
    return "content" in shape.kinds and shape.declared


def kind(name: str, shape: Shape) -> str:
    """The one kind a typical value has, by declaration, use, and at last by name."""
    if _TAG.search(name) and (shape.kinds & {"tag", "string", "function"} or not shape.kinds):
        return "tag"
    kinds = shape.kinds - {"function"} if shape.sometimes else shape.kinds
    for one in _ORDER:
        if one in kinds:
            return one
    if shape.fields:
        return "object"
    if not kinds and _LISTENER.search(name):
        return "function"
    if not kinds and _TEXTS.search(name):
        return "string"
    if not kinds and not shape.declared and name in _PARTS:
        return "array"
    if _TRUTH.search(name) or _IDLE.search(name) or (shape.tested and not kinds):
        return "boolean"
    if _NUMBERS.search(name):
        return "number"
    if _LISTS.search(name) and not shape.tested and shape.items is not None:
        return "array"
    return "string"


def typical(name: str, shape: Shape, salt: int = 0, depth: int = 0) -> Any:
    """A plausible value; `salt` tells the members of a list apart."""
    told = _told(name, shape, salt)
    if told is not None:
        return told[0]
    name = shape.alike or name
    if shape.keyed and not shape.kinds & {"array", "string"} and not shape.fields:
        inner = shape.items
        value = typical("", inner, salt, depth + 1) if inner is not None and inner.fields else True
        word = "key" if shape.keyed.endswith("Key") else shape.keyed
        return {str(typical(word, Shape(), salt)): value}
    what = kind(name, shape)
    match what:
        case "array":
            inner = shape.items
            if shape.holds and (inner is None or not inner.fields):
                return shape.holds[:3]
            return _many(name, shape, max(2, shape.least), depth)
        case "object":
            return _object(shape, salt, depth)
        case "number":
            return _number(name, salt, apart=depth > 1 and not shape.alike)
        case "boolean":
            if depth and (name in _ALWAYS or name in _NEVER):
                return name in _ALWAYS
            # The flags of one thing are not all the same.
            return (salt + (len(name) if depth else 0)) % 2 == 0 and not _IDLE.search(name)
        case "function":
            return {"$": "function", "called": name}
        case "date":
            bound = bool(_MOST.search(name)) - bool(_LEAST.search(name))
            return {"$": "date", "time": 1_704_200_000_000 + (salt + 30 * bound) * _DAY}
        case "moment":
            return 1_704_200_000_000 + salt * _DAY
        case "element content" | "content":
            return {"$": "markup", "content": [{"tag": "i", "content": [f"{name} {_word(salt)}"]}]}
    return _ONE_OF_A_KIND[what] if what in _ONE_OF_A_KIND else _text(name, salt)


def _told(name: str, shape: Shape, salt: int) -> tuple[Any] | None:
    """(value,) of what the code compares it with, or its name stands for; None where nothing tells."""
    # That something is asked whether it is `false` does not make that likely.
    told = [value for value in shape.literals if not isinstance(value, bool)]
    if all(isinstance(value, int | float) for value in told):
        # Numbers are compared with 0 more often than they are below it.
        told.sort(key=lambda value: (value <= 0, value < 0))
        if told and told[0] <= 1 and _TIMES.search(name):
            return (500 * (1 + salt),)
    wordy = "string" in shape.kinds and isinstance(told[0] if told else None, str)
    if told and not shape.kinds & {"array", "object", "date", *(() if wordy else ("function",))}:
        return (told[salt % len(told)],)
    words = "string" in shape.kinds or any(isinstance(value, str) for value in shape.used)
    if (name in _OUTSIDE or shape.alike in _OUTSIDE) and (not shape.declared or words):
        return (OUTSIDE,)
    name = shape.alike or name
    if name in ("container", "appendTo", "attachTo", "teleportTo"):
        return ("body",)
    if shape.used and kind(name, shape) != "boolean":
        return (shape.used[salt % len(shape.used)],)
    return None


def _object(shape: Shape, salt: int, depth: int) -> dict[str, Any]:
    if depth >= MOST_DEPTH:
        return {}
    fields = shape.fields
    if fields and "sized" in shape.kinds and not shape.kinds & {"array", "string", "text"}:
        # A field called length among other fields, as a ship has one.
        fields = {**fields, "length": Shape({"number"})}
    missing = _missing(fields, salt) if depth else set()
    return {
        key: typical(key, part, salt, depth + 1)
        for key, part in fields.items()
        if key not in ("constructor", "prototype") and key not in missing
    }


def _number(name: str, salt: int, *, apart: bool) -> int:
    """A number; those of one thing are `apart` from each other, so that none is taken for another."""
    if _INDEX.search(name) or _LEAST.search(name):
        return 1 + salt
    if _MOST.search(name):
        return 10 + salt
    return 3 + salt + (sum(map(ord, name)) % 5 if apart else 0)


def _text(name: str, salt: int) -> str:
    if name in ("href", "src", "url", "to"):
        return f"#{_word(salt).lower()}"
    if name in ("id", "key") or name.endswith("Id"):
        return f"id-{salt + 1}"
    if _TOKEN.search(name):
        return f"{name}-{_word(salt).lower()}"
    if name in ("query", "search", "filter", "term", "keyword", "searchTerm", "q"):
        return _word(salt)
    return f"{name} {_word(salt)}"


def _missing(fields: dict[str, Shape], salt: int) -> set[str]:
    """Remove from later items of a list the members that the code tests for; the first item has all."""
    asked = [key for key, part in fields.items() if part.tested and kind(key, part) != "boolean"]
    return set(asked[salt % 2 :: 2]) if salt and len(asked) > 1 else set()


def _word(salt: int) -> str:
    return _WORDS[salt % len(_WORDS)] + ("" if salt < len(_WORDS) else str(salt))


def _single(name: str) -> str:
    """The name of one of a list's values."""
    return name[:-1] if name.endswith("s") else name


def _many(name: str, shape: Shape, count: int, depth: int) -> list[Any]:
    if depth >= MOST_DEPTH:
        return []
    inner = shape.items or Shape()
    return [typical(_single(name), inner, salt, depth + 1) for salt in range(count)]


def variants(name: str, shape: Shape, depth: int = 0) -> list[Any]:
    """Other values, the most telling first: declared ones, then the edges of its kinds in turn."""
    told = [*shape.literals, *shape.used]
    if shape.default is not None and shape.default[0] is not None:
        told.append(shape.default[0])
    kinds = {k for k in _ORDER if k in shape.kinds} or {kind(name, shape)}
    if shape.tested and not shape.declared:
        kinds.add("boolean")
    groups = [_edges(name, shape, one, depth) for one in _ORDER if one in kinds]
    turns = [value for turn in zip_longest(*groups, fillvalue=_NOTHING) for value in turn]
    last: list[Any] = [None] if not shape.declared else []
    if shape.declared and not shape.required:
        # Few declared types take null; code that tests whether an input is truthy handles null, too.
        last = [None, UNDEFINED] if shape.nullable or shape.tested else [UNDEFINED]
    found: list[Any] = []
    for value in (*told, *turns, *last):
        if value is not _NOTHING and not any(_equal(value, known) for known in found):
            found.append(value)
    return found


def _edges(name: str, shape: Shape, one: str, depth: int) -> list[Any]:
    """The values at the edges of one kind."""
    match one:
        case "boolean":
            return [True, False]
        case "number" if shape.listed and shape.literals:
            return []
        case "number" | "moment":
            edges = [0, 1, -1, 7, 2_147_483_648, 0.5, NOT_A_NUMBER]
            return [*shape.hints[:3], *edges, *shape.hints[3:]]
        case "string" | "attribute" | "text":
            return _texts(name, shape, one)
        case "array" | "sized":
            return _lists(name, shape, depth)
        case "object":
            return _objects(name, shape, depth)
        case "date":
            several = shape.kinds & {"array", "sized"}
            two = [[typical(name, Shape({"date"}), salt) for salt in (0, 3)]] if several else []
            # A bound among the typical ones holds some of them and not others.
            bound = (
                [typical("", Shape({"date"}), 1)]
                if _MOST.search(name) or _LEAST.search(name)
                else []
            )
            ends = [{"$": "date", "time": time} for time in (0, 4_102_444_800_000)]
            return [*two, *bound, *ends]
        case "style":
            return [{}, {"width": 10, "display": "none"}]
        case "tag":
            return ["b", "label"]
        case "content" | "element content":
            markup = {"$": "markup", "content": [{"tag": "b", "content": ["one"]}]}
            return [markup, "plain text"] if one == "content" else [markup]
        case "function":
            stub = {"$": "function", "called": name}
            failing = {**stub, "throws": THROWN}
            return [stub, failing] if shape.sometimes else [failing]
    return []


def _texts(name: str, shape: Shape, one: str) -> list[Any]:
    found: list[Any] = [f"a {value} b" for value in shape.holds]
    if not shape.literals:
        word = f"{shape.alike or name} {_WORDS[1]}"
        found += ["", word, MARKUP, *SCRIPTS, LONG, " a  b "]
    elif not shape.listed:
        # A text that is none of the words it is compared with.
        found += [f"{name} {_WORDS[1]}", ""]
    return found + ([0, 12] if one == "text" and not shape.declared else [])


def _lists(name: str, shape: Shape, depth: int) -> list[Any]:
    text = kind(name, shape) == "string"
    found: list[Any] = [value if text else [value] for value in shape.holds]
    found += [[], _many(name, shape, 1, depth), _many(name, shape, 3, depth)]
    found += [_many(name, shape, 24, depth), list(reversed(_many(name, shape, 3, depth)))]
    for count in shape.hints:
        if isinstance(count, int) and 3 < count < 24:
            found.append(_many(name, shape, count, depth))
    if depth < 2 and shape.items is not None:
        one = _many(name, shape, 1, depth)
        found += [[value, *one] for value in variants(_single(name), shape.items, depth + 1)[:24]]
    return found


def _objects(name: str, shape: Shape, depth: int) -> list[Any]:
    """An object with each field in turn at another value, or missing."""
    if len(shape.kinds) > 1 and shape.fields:
        # A value that may have another type as well.
        shape = replace(shape, kinds={"object"}, literals=[], used=[])
    if depth >= 2:
        return [typical(name, shape, 1, depth)]
    base = typical(name, shape, 0, depth)
    if not isinstance(base, dict):
        return []
    columns = [
        [
            *({**base, key: value} for value in variants(key, part, depth + 1)[:6]),
            {k: v for k, v in base.items() if k != key},
        ]
        for key, part in list(shape.fields.items())[:10]
    ]
    rows = [cell for row in zip_longest(*columns) for cell in row if cell is not None]
    return [typical(name, shape, 1, depth), {}, *rows[:40]]


def _equal(one: Any, other: Any) -> bool:
    return type(one) is type(other) and bool(one == other)


def function_plans(shape: Shape) -> list[dict[str, Any]]:
    """Return the plans of a recording function: do nothing, return something, throw, answer later."""
    plans: list[dict[str, Any]] = [{}]
    if shape.result is not None and "content" in shape.result.kinds:
        content = {"$": "markup", "content": [{"tag": "b", "content": ["given back"]}]}
        plans[0] = {"returns": content}
        plans.append({"returns": None})
    elif shape.result is not None and "promise" in shape.result.kinds:
        plans[0] = {"resolves": typical("result", shape.result), "after": 20}
    elif shape.result is not None and shape.result.kinds and "void" not in shape.result.kinds:
        plans[0] = {"returns": typical("result", shape.result)}
    plans += [
        {"throws": THROWN},
        {"resolves": typical("result", shape.result or Shape({"object"})), "after": 20},
        {"rejects": "the promise failed", "after": 20},
        {"returns": False},
        {"returns": True},
    ]
    return plans


def as_text(plan: dict[str, Any]) -> dict[str, Any]:
    """A plan that gives text back where it would give content."""
    given = plan.get("returns")
    content = isinstance(given, dict) and given.get("$") == "markup"
    return {**plan, "returns": "given back"} if content else plan


def reply_plans(shape: Shape | None) -> list[list[dict[str, Any]]]:
    """Replies to every request: success, slow, empty, an error, no network, malformed."""
    good = typical("reply", shape) if shape is not None else {"ok": True}
    anywhere: dict[str, Any] = {"url": "*"}
    plans = [
        [{**anywhere, "json": good}],
        [{**anywhere, "json": good, "after": 2000}],
        [{**anywhere, "status": 500, "text": "no tide today"}],
        [{**anywhere, "fail": True}],
        [{**anywhere, "text": "{"}],
        [{**anywhere, "json": None}],
        [{**anywhere, "json": {}}],
    ]
    other: Any = {"ok": False}
    if shape is not None:
        for value in variants("reply", shape)[:10]:
            plans.append([{**anywhere, "json": value}])
        other = _other(good, typical("reply", shape, 1))
    # Last: a slow reply to the first request, a fast and different one to those after it.
    slow = {**anywhere, "json": good, "after": 500, "once": True}
    plans.append([slow, {**anywhere, "json": other, "after": 50}])
    return plans


def _other(one: Any, other: Any) -> Any:
    """A reply that cannot be taken for `one`: lists in it are shorter."""
    if isinstance(other, dict):
        return {
            key: value[1:] if isinstance(value, list) else value for key, value in other.items()
        }
    return other[1:] if isinstance(other, list) and other == one else other
