"""The styles of a single file as a stylesheet beside a function; scoped ones use an attribute."""

from __future__ import annotations

from clean_carry.component.fragment import Fragment, copy, new
from clean_carry.component.model import StyleBlock
from clean_carry.source.css.selectors import FOREIGN, FOREIGN_ANYWHERE, scope_splices
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.unsaid import Unsaid


def scope_mark(name: str) -> str:
    """The attribute that scopes the styles of a component: `data-seat-counter` for SeatCounter."""
    out = "data-"
    for at, letter in enumerate(name):
        out += ("-" if letter.isupper() and at else "") + letter.lower()
    return out


def language_of(blocks: tuple[StyleBlock, ...]) -> str:
    """The ending of the stylesheet. Raises `Unsaid` for styles in several languages."""
    own = [block for block in blocks if not block.linked]
    languages = list(dict.fromkeys(block.language for block in own))
    if len(languages) > 1:
        raise Unsaid("style-unread", "styles in several languages", own[1].content.start)
    return {"stylus": "styl"}.get(languages[0], languages[0]) if languages else "css"


def styles_of(blocks: tuple[StyleBlock, ...], source: SourceText, mark: str) -> Fragment:
    """The stylesheet; selectors of scoped blocks get the attribute `mark`. Raises `Unsaid`."""
    result = Fragment()
    for block in blocks:
        if block.linked:
            continue
        start, end, _ = block.content
        while source.data[start : start + 1] == b"\n":
            start += 1
        text = source.data[start:end]
        for word in FOREIGN if block.scoped else FOREIGN_ANYWHERE:
            if word in text:
                raise Unsaid("style-unread", word.decode(), start + text.find(word))
        here, attribute = start, f"[{mark}]".encode()
        splices = scope_splices(source.data, start, end, attribute) if block.scoped else []
        if isinstance(splices, int):
            raise Unsaid("style-unread", "a selector out of the scope", splices)
        for low, high, made in splices:
            result += copy(source.span(here, low)) + new(made.decode())
            here = high
        result += copy(source.span(here, end))
    return result
