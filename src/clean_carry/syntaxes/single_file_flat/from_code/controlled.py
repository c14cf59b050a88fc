"""Fields that show a value of the component whatever is typed into them.

A field with a `value` shows that value again once its listener has run (the runtime's reference,
"Controlling an input with a state variable"). A template leaves what was typed where the value stays the
same, so the component is rendered again behind the listener, unless the listener takes all that is typed.
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from clean_carry.component.code import MethodValue, StateWrite
from clean_carry.component.fragment import Fragment, copy, new
from clean_carry.component.markup import (
    BoundAttribute,
    Element,
    Handler,
    Markup,
    StaticAttribute,
    walk,
)
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file_flat.from_code.spelling import CodeSpeller
from clean_carry.syntaxes.unsaid import Unsaid

AGAIN = "$forceUpdate()"
# Expressions that may give a field another text than the one typed, or none.
_CHANGES = re.compile(
    r"\b(?:if|return|switch)\b|[?]|&&|\|\||\b(?:Number|parseInt|parseFloat|Math)\b|"
    r"\.(?:slice|replace\w*|trim\w*|substring|padStart|toUpperCase|toLowerCase|toFixed|filter)\("
)
_TYPED = re.compile(r"\.(?:target|currentTarget)\b")


def kept_as_typed(nodes: tuple[Markup, ...], source: SourceText) -> Iterator[tuple[str, str, int]]:
    """Yield a note for each number field that shows its listener's result: the old field keeps a
    text for the same number (the framework's code for inputs)."""
    for node in walk(nodes):
        if not isinstance(node, Element) or node.tag != "input" or node.component:
            continue
        static = [a for a in node.attributes if isinstance(a, StaticAttribute) and a.value]
        kinds = [source.slice(*a.value[:2]) for a in static if a.name == "type" and a.value]
        bound = [a for a in node.attributes if isinstance(a, BoundAttribute) and a.name == "value"]
        heard = any(
            isinstance(a, Handler) and a.event in ("input", "change") for a in node.attributes
        )
        if kinds == ["number"] and bound and heard:
            text = source.slice(*bound[0].code.span[:2])
            yield "number-as-typed", text, bound[0].code.span.start


def takes_all(handler: Handler, speller: CodeSpeller) -> bool:
    """Whether a listener is seen to keep all that is typed."""
    code = handler.code
    own = code.operations[0] if len(code.operations) == 1 else None
    if isinstance(own, MethodValue) and own.span == code.span:
        methods = speller.component.methods() if speller.component is not None else []
        method = next((m for m in methods if m.name == own.member.name), None)
        if method is None:
            return False
        code = method.text
    text = speller.source.slice(*code.span[:2])
    writes = any(isinstance(one, StateWrite) for one in code.all())
    return writes and bool(_TYPED.search(text)) and _CHANGES.search(_body(text)) is None


def _body(text: str) -> str:
    """A function without what a choice between a tick and a text looks like."""
    return re.sub(r"type === ['\"]checkbox['\"] \? checked : value", "value", text)


def rendered_again(code: Fragment, text: str, source: SourceText, *, called: bool) -> Fragment:
    """A listener, with the component rendered again behind it."""
    if called:
        return code + new(f"($event); {AGAIN}")
    head, arrow, body = text.partition("=>")
    if not arrow:
        return code + new(f"; {AGAIN}")
    last = code.pieces[-1]
    written = last.text if last.span is None else source.slice(*last.span[:2])
    if body.strip().startswith("{") and written.rstrip().endswith("}"):
        kept = written.rstrip()[:-1].rstrip()
        gap = "" if kept.endswith((";", "{")) else ";"
        closing = new(f"{gap} {AGAIN} }}")
        if last.span is None:
            return Fragment([*code.pieces[:-1], last._replace(text=kept)]) + closing
        end = last.span.start + len(kept.encode())
        return Fragment(code.pieces[:-1]) + copy(last.span._replace(end=end)) + closing
    first = code.pieces[0]
    opened = first.text if first.span is None else source.slice(*first.span[:2])
    if opened.rstrip() == f"{head}=>":
        rest = Fragment(code.pieces[1:])
        return Fragment([first]) + new("{ ") + rest + new(f"; {AGAIN} }}")
    at = first.span.start if first.span is not None else 0
    raise Unsaid("markup-in-code", "a field whose listener may not take what is typed", at)
