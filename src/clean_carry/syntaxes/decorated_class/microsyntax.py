"""The microsyntax of starred attributes: `*ngFor="let sailing of sailings; let i = index; trackBy: byId"`.

It is a short form of bindings of a template (the runtime's guide, "Structural directive syntax
reference"): an expression first, or `let` names; then `key expression`, `let name = value` and
`value as name`, parted by `;`, by commas or by nothing.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.syntaxes.piped_expressions import Token, Unread, grouped

_LET = re.compile(r"let\s+([\w$]+)\s*(?:=\s*([\w$]+))?\s*$")
_AS = re.compile(r"^(.*?)\s+as\s+([\w$]+)\s*$", re.DOTALL)
_KEY = re.compile(r"([A-Za-z][\w-]*)\s*:?\s+(.*)$", re.DOTALL)


@dataclass
class Starred:
    """A starred attribute. `value` is its expression ("" where it begins with `let`), `alias` the name that
    is given to it; `lets` are names with what they stand for ("" for the item), `keys` its further
    expressions by name."""

    value: str = ""
    alias: str = ""
    lets: dict[str, str] = field(default_factory=dict)
    keys: dict[str, str] = field(default_factory=dict)


def read_starred(text: str) -> Starred:
    """Read a starred attribute. Raises `Unread`."""
    made = Starred()
    for number, part in enumerate(_parts(text)):
        _read(part.strip(), made, first=number == 0)
    return made


def _parts(text: str) -> list[str]:
    """The stretches between semicolons and commas outside of brackets and texts."""
    root = grouped(text)
    cuts = [
        part.at
        for part in root.parts
        if isinstance(part, Token) and part.kind == "sign" and part.text in (";", ",")
    ]
    ends = [*cuts, len(text)]
    starts = [0, *(cut + 1 for cut in cuts)]
    found: list[str] = []
    for start, end in zip(starts, ends, strict=True):
        found += _unparted(text[start:end])
    return [one for one in found if one.strip()]


def _unparted(text: str) -> list[str]:
    """`let a of list index as i` in parts: a separator may be left out before `let`, and in `x as y` of a
    loop's own values."""
    text = text.strip()
    found: list[str] = []
    local = re.search(r"\s+((?:index|count|first|last|even|odd)\s+as\s+[\w$]+)\s*$", text)
    while local is not None and local.start() > 0:
        found.insert(0, local[1])
        text = text[: local.start()]
        local = re.search(r"\s+((?:index|count|first|last|even|odd)\s+as\s+[\w$]+)\s*$", text)
    of = re.match(r"(let\s+[\w$]+)\s+(of\s+.*)$", text, re.DOTALL)
    return [*([of[1], of[2]] if of is not None else [text]), *found]


_LOCALS = frozenset({"index", "count", "first", "last", "even", "odd"})


def _read(part: str, made: Starred, *, first: bool) -> None:
    let = _LET.match(part)
    if let is not None:
        made.lets[let[1]] = let[2] or ""
        return
    alias = _AS.match(part)
    if alias is not None and alias[1].strip() in _LOCALS:
        made.lets[alias[2]] = alias[1].strip()
        return
    if first:
        made.value, made.alias = (alias[1], alias[2]) if alias is not None else (part, "")
        return
    key = _KEY.match(part)
    if key is None:
        raise Unread(part)
    if alias is not None and key[1] == "of":
        made.keys["of"] = _KEY.match(alias[1])[2]  # type: ignore[index]
        made.alias = alias[2]
        return
    made.keys[key[1]] = key[2].strip()
