"""Numbers of what a component in a script has, as its text shows them. A survey's rough measure."""

from __future__ import annotations

import re

from clean_carry.source.index.facts import Sighting
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.javascript.tree import Node

_READ = re.compile(r"\bprops\??\.(\w+)")
_TAKEN = re.compile(r"\{([^{}]*)\}\s*(?::[^={}]*)?=\s*(?:this\.)?props\b")
_EVENT = re.compile(r"on[A-Z]")
_NAME = re.compile(r"\s*(?:\.\.\.)?(\w+)")
_STYLES = re.compile(r"""\bimport\b[^;\n]*['"][^'"\n]*\.(?:css|scss|sass|less|styl)['"]""")


def props_in(text: str) -> set[str]:
    """The props that the text of a component reads: `props.fare`, `{ fare } = props`."""
    found = set(_READ.findall(text))
    for names in _TAKEN.findall(text):
        found |= names_in(names)
    return found


def names_in(pattern: str) -> set[str]:
    """The names at the top of an object pattern, the rest left out."""
    parts = (part for part in pattern.split(",") if part.strip() and "..." not in part)
    return {found[1] for part in parts if (found := _NAME.match(part)) is not None}


def sighting(
    parsed: Parsed, node: Node, syntax: str, local: str, counts: dict[str, int], props: set[str]
) -> Sighting:
    """A component of a script: its place, and its numbers with those that its props give."""
    name = local or _of_file(parsed.source.path)
    first, last = parsed.line(node.start), parsed.line(max(node.end - 1, node.start))
    text = parsed.source.slice(0, len(parsed.source.data))
    events = {prop for prop in props if _EVENT.match(prop)}
    numbers = {
        "props": len(props - events - {"children"}),
        "events": len(events),
        "slots": int("children" in props),
        "styles": len(_STYLES.findall(text)),
        **counts,
    }
    exports = () if local else ("default",)
    return Sighting(
        name, syntax, node.start, node.end, first, last - first + 1, local, exports,
        counts={key: value for key, value in numbers.items() if value},
    )  # fmt: skip


def _of_file(path: str) -> str:
    parts = path.replace("\\", "/").split("/")
    stem = parts[-1].split(".")[0]
    stem = parts[-2] if stem == "index" and len(parts) > 1 else stem
    return stem[:1].upper() + stem[1:]
