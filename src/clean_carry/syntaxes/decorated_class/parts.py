"""Template and styles of a decorated class: in files of their own, or in its decorator.

Both ways are inverse: a part whose text would not come back byte for byte stays where it is.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.decorated_class.recognise import decorated_in, text_of

# Gives the text of a file by its request, None where there is none.
Read = Callable[[str], str | None]
# The options that hold a part, by the options that name its file, and the ending of that file.
_INLINE = {"template": ("templateUrl", "html"), "styles": ("styleUrls", "css")}
_NAMED = {"templateUrl": "template", "styleUrls": "styles", "styleUrl": "styles"}
_ESCAPES = re.compile(r"\\([`$\\])")


@dataclass(frozen=True)
class _Part:
    """One literal of an option: the text of a part, or the request of its file."""

    option: str
    key: Node
    literal: Node
    number: int


def apart(text: str, stem: str) -> dict[str, str]:
    """The class with its template and styles in files: texts by name, "" for the class itself.

    `stem` is the name of the class's file without its ending.
    """
    source = SourceText(f"{stem}.ts", text.encode())
    tree = Tree(source)
    files: dict[str, str] = {}
    edits: dict[int, Edit] = {}
    for part in _parts(tree, _INLINE):
        ending = _INLINE[part.option][1]
        name = f"{stem}{f'.{part.number}' if part.number > 1 else ''}.{ending}"
        held = _held(part, source)
        if held is None or name in files:
            continue
        files[name] = held
        named = _INLINE[part.option][0]
        if named == "styleUrls" and part.literal.parent is part.key.parent:
            named = "styleUrl"
        quote = "'" if "'" in text else '"'
        edits[part.key.start] = Edit(part.key.start, part.key.end, named)
        request = f"{quote}./{name}{quote}"
        edits[part.literal.start] = Edit(part.literal.start, part.literal.end, request)
    return {"": _applied(source, edits), **files}


def together(text: str, read: Read) -> str:
    """The class with the texts of its files in its decorator; a file that is not there stays named."""
    source = SourceText("x.ts", text.encode())
    tree = Tree(source)
    edits: dict[int, Edit] = {}
    for part in _parts(tree, _NAMED):
        held = read(text_of(part.literal) or "")
        if held is None:
            continue
        edits[part.key.start] = Edit(part.key.start, part.key.end, _NAMED[part.option])
        literal = _literal(held, part, source)
        edits[part.literal.start] = Edit(part.literal.start, part.literal.end, literal)
    return _applied(source, edits)


def requests(text: str) -> list[str]:
    """The files that a class names for its template and styles."""
    tree = Tree(SourceText("x.ts", text.encode()))
    return [text_of(part.literal) or "" for part in _parts(tree, _NAMED)]


def _parts(tree: Tree, options: Mapping[str, object]) -> Iterator[_Part]:
    found = decorated_in(tree)
    for pair in found[0].options.named_children if len(found) == 1 else ():
        key, value = pair.child("key"), pair.child("value")
        if key is None or value is None or key.text not in options:
            continue
        literals = value.named_children if value.type == "array" else [value]
        if all(text_of(one) is not None for one in literals):
            for number, literal in enumerate(literals, 1):
                yield _Part(key.text, key, literal, number)


def _held(part: _Part, source: SourceText) -> str | None:
    """The text of a file for a literal; None where the literal would not come back from it."""
    raw = part.literal.text[1:-1]
    if part.literal.type != "template_string":
        return None if "\\" in raw or not raw else _checked(raw, part, source)
    text = _ESCAPES.sub(r"\1", raw)
    return _checked(_dedented(text, part, source), part, source) or _checked(text, part, source)


def _checked(text: str, part: _Part, source: SourceText) -> str | None:
    return text if _literal(text, part, source) == part.literal.text else None


def _around(part: _Part, source: SourceText) -> tuple[str, str]:
    """The white space before a line of a part and before the end of its literal."""
    indent = source.indent_at(part.literal.start)
    unit = "\t" if "\t" in indent else "  "
    return indent + unit, indent


def _dedented(text: str, part: _Part, source: SourceText) -> str:
    """The lines of a part as they stand in a file: not indented, and the last one ended."""
    inner, _ = _around(part, source)
    lines = text.split("\n")
    if len(lines) < 3 or lines[0]:
        return text
    kept = [line.removeprefix(inner) for line in lines[1:-1]]
    return "\n".join(kept) + "\n"


def _literal(text: str, part: _Part, source: SourceText) -> str:
    """A text as a literal: indented lines for a file that ends with one, else as it is."""
    escaped = re.sub(r"[`\\]|\$(?=\{)", r"\\\g<0>", text)
    if "\n" not in text and not re.search(r"['\\]", text):
        return f"'{text}'"
    if text.startswith("\n") or not text.endswith("\n"):
        return f"`{escaped}`"
    inner, outer = _around(part, source)
    lines = escaped[:-1].split("\n")
    body = "\n".join(f"{inner}{line}" if line else line for line in lines)
    return f"`\n{body}\n{outer}`"


def _applied(source: SourceText, edits: dict[int, Edit]) -> str:
    data, here, made = source.data, 0, b""
    for edit in sorted(edits.values(), key=lambda one: one.start):
        made += data[here : edit.start] + edit.text.encode()
        here = edit.end
    return (made + data[here:]).decode()
