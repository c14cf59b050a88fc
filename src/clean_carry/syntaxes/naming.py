"""Renaming of locals, for every writer whose members come to stand in one scope."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field

from clean_carry.component.code import Operation
from clean_carry.component.fragment import Fragment, Piece
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component
from clean_carry.component.spans import Span
from clean_carry.source.javascript.scope import Binding, Names, Scope


@dataclass
class Edits:
    """New text for spans of the file: (text, ledger entry, rule)."""

    ledger: Ledger
    texts: dict[Span, tuple[str, int, str]] = field(default_factory=dict)

    def add(self, span: Span, text: str, rule: str = "renamed-apart") -> None:
        """Write `text` in the place of a span."""
        if span not in self.texts:
            entry = self.ledger.claim("local name", span)
            self.ledger.settle(entry, "carried", rule)
            self.texts[span] = (text, entry, rule)


def free_locals(
    edits: Edits,
    taken: set[str],
    component: Component,
    used: Iterable[tuple[Operation, str]],
    names: Names,
) -> None:
    """Rename locals that hide what code around them now calls by the same name; no new name is `taken`."""
    bindings = {b.node.start: b for b in bindings_of(names.module)}
    done: set[int] = set()
    for operation, root in used:
        for name, at in component.facts.locals_at.get(operation.entry, ()):
            if name != root or at in done or at not in bindings:
                continue
            done.add(at)
            binding = bindings[at]
            cap = name[:1].upper() + name[1:]
            wish = f"new{cap}" if binding.kind == "param" else f"current{cap}"
            around = {n for scope in binding.scope.chain() for n in scope.names}
            while wish in taken | around:
                wish += "Here"
            for node in (binding.node, *binding.references):
                short = node.type.startswith("shorthand_property_identifier")
                text = f"{name}: {wish}" if short else wish
                edits.add(names.tree.source.span(node.start, node.end), text)


def bindings_of(scope: Scope) -> Iterator[Binding]:
    """Every binding of a scope and of those below it."""
    stack = [scope]
    while stack:
        here = stack.pop()
        yield from here.names.values()
        stack.extend(here.children)


def edited(fragment: Fragment, edits: Edits) -> Fragment:
    """The fragment with new text where names are renamed."""
    known = sorted(edits.texts.items())
    pieces: list[Piece] = []
    for piece in fragment.pieces:
        span = piece.span
        if span is None:
            pieces.append(piece)
            continue
        here = span.start
        for at, (text, entry, rule) in known:
            if at.start < here or at.end > span.end:
                continue
            pieces.append(Piece(span._replace(start=here, end=at.start), shift=piece.shift))
            pieces.append(Piece(text=text, entry=entry, rule=rule))
            here = at.end
        pieces.append(Piece(span._replace(start=here), shift=piece.shift))
    return Fragment(p for p in pieces if p.span is None or p.span.end > p.span.start)


_PLAIN = re.compile(r"^[A-Za-z_$][\w$]*$")
_PAIR = re.compile(r"(?:^|[{,])\s*([A-Za-z_$][\w$]*): ?$")
_PAIR_ENDS = re.compile(r"^\s*[,}]")


def with_short_pairs(
    fragment: Fragment, text_of: Callable[[int, int], str], ledger: Ledger
) -> Fragment:
    """The fragment in which a pair of an object whose value is called like its key now is a name alone."""
    pieces = list(fragment.pieces)
    for at in range(1, len(pieces) - 1):
        before, piece, after = pieces[at - 1], pieces[at], pieces[at + 1]
        if piece.span is not None or before.span is None or after.span is None:
            continue
        if not _PLAIN.match(piece.text) or not _PAIR_ENDS.match(_start(after.span, text_of)):
            continue
        found = _PAIR.search(text_of(before.span.start, before.span.end))
        if found is None or found[1] != piece.text or found[0].lstrip()[:1] not in "{,":
            continue
        cut = len(text_of(before.span.start, before.span.end)[found.start(1) :].encode())
        key = before.span._replace(start=before.span.end - cut)
        entry = ledger.claim("pair", key)
        ledger.settle(entry, "carried", "pair-by-name")
        pieces[at - 1] = before._replace(span=before.span._replace(end=key.start))
    return Fragment(p for p in pieces if p.span is None or p.span.end > p.span.start)


def _start(span: Span, text_of: Callable[[int, int], str]) -> str:
    return text_of(span.start, min(span.end, span.start + 80))
