"""Markup that a browser would repair when it reads the page: moved, closed or dropped elements.

A template makes elements as they are written, so that such a view has no template that shows the same.
Source: HTML §13.2.6, the tree construction.
"""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.source.html.display import BLOCKS as SHOWN_AS_BLOCKS
from clean_carry.source.text import SourceText
from clean_carry.source.view.marks import Mark
from clean_carry.source.view.tree import Block, Part, Piece, Tag

# Elements that end a paragraph.
_END_P = (SHOWN_AS_BLOCKS | {"pre", "hr", "listing"}) - {
    "dd", "dt", "li", "optgroup", "option", "caption", "colgroup", "col", "thead", "tbody", "tfoot",
    "tr", "td", "th", "html", "body", "legend",
}  # fmt: skip
# Elements that stand in certain others alone.
_PARENTS = {
    "tr": frozenset({"tbody", "thead", "tfoot", "table"}), "td": frozenset({"tr"}), "th": frozenset({"tr"}),
    "thead": frozenset({"table"}), "tbody": frozenset({"table"}), "tfoot": frozenset({"table"}),
    "caption": frozenset({"table"}), "colgroup": frozenset({"table"}), "col": frozenset({"colgroup"}),
}  # fmt: skip
_INNER = {
    "table": frozenset({"caption", "colgroup", "thead", "tbody", "tfoot", "tr"}),
    "tbody": frozenset({"tr"}), "thead": frozenset({"tr"}), "tfoot": frozenset({"tr"}),
    "tr": frozenset({"td", "th"}), "select": frozenset({"option", "optgroup", "hr"}),
    "optgroup": frozenset({"option"}),
}  # fmt: skip
# Elements that hold none of their own kind.
_ALONE = frozenset({"a", "button", "form", "option"})


def repaired(parts: list[Part], source: SourceText) -> tuple[str, int] | None:
    """The first element that would be repaired, with its offset; None where all is as written."""
    return next(_repaired(parts, source, ()), None)


def _repaired(
    parts: list[Part], source: SourceText, above: tuple[str, ...]
) -> Iterator[tuple[str, int]]:
    parent = above[-1] if above else ""
    for part in parts:
        if isinstance(part, Block):
            for arm in part.arms:
                yield from _repaired(arm.children, source, above)
        elif isinstance(part, Tag):
            tag = part.node.tag.lower()
            if tag.startswith("x-"):
                # Its content stands in a view of its own, which is checked by itself.
                if parent == "table":
                    yield f"<{tag}>", part.start
                yield from _repaired(part.children, source, (*above, tag))
                continue
            if _moves(tag, parent, above) or (part.node.closed_itself and _stays_open(tag, above)):
                yield f"<{tag}>", part.start
            yield from _repaired(part.children, source, (*above, tag))
        elif parent in _INNER and (isinstance(part, Mark) and part.kind in ("echo", "raw")):
            yield source.slice(part.start, part.end), part.start
        elif parent in _INNER and isinstance(part, Piece):
            text = source.slice(part.start, part.end)
            if text.strip() and not text.startswith("<!--"):
                yield text.strip()[:40], part.start


def _moves(tag: str, parent: str, above: tuple[str, ...]) -> bool:
    if tag in _PARENTS and parent not in _PARENTS[tag]:
        return True
    if parent in _INNER and tag not in _INNER[parent]:
        return True
    return (tag in _ALONE and tag in above) or ("p" in above and tag in _END_P)


def _stays_open(tag: str, above: tuple[str, ...]) -> bool:
    """Whether a tag that closes itself opens an element all the same."""
    void = "area base br col embed hr img input link meta param source track wbr".split()
    return tag not in void and "svg" not in (*above, tag) and "math" not in (*above, tag)


def lacks_body(tag: Tag) -> bool:
    """Whether a table has rows without a body, which a browser puts around them."""
    return tag.node.tag == "table" and "tr" in _tags(tag.children)


def _tags(parts: list[Part]) -> set[str]:
    found: set[str] = set()
    for part in parts:
        if isinstance(part, Tag):
            found.add(part.node.tag)
        elif isinstance(part, Block):
            for arm in part.arms:
                found |= _tags(arm.children)
    return found
