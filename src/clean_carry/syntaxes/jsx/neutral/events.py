"""Inputs that are functions and are only called: what the component tells whoever uses it.

`if (this.props.onPick) this.props.onPick(id)` and `this.props.onPick && this.props.onPick(id)` say no
more than the call, since an event nobody listens to goes nowhere.
"""

from __future__ import annotations

import re

from clean_carry.component.code import Emit, Operation, Read, Respelled
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import does_nothing, property_name
from clean_carry.syntaxes.jsx.facts import JsxFacts
from clean_carry.syntaxes.uses import Raw

_EVENT = re.compile(r"on[A-Z]\w*")
_UNWRAPPED = ("parenthesized_expression", "non_null_expression")


def send(
    facts: JsxFacts,
    defaults: Node | None,
    others: frozenset[str],
    required: frozenset[str],
    notes: list[tuple[str, str, int]],
) -> tuple[str, ...]:
    """Turn the calls of such inputs into events; the inputs, in source order. `others` are no events.

    Notes each that is called without asking whether it is there, and is not `required`.
    """
    nodes = {(node.start, node.end): node for node in facts.tree.of("member_expression", "identifier",
             "shorthand_property_identifier", "subscript_expression", "pair")}  # fmt: skip
    uses: dict[str, list[tuple[Raw, Node]]] = {}
    for raw in facts.raws:
        if raw.notion != "prop-read":
            continue
        read = raw.build(-1)
        node = nodes.get((raw.span.start, raw.span.end))
        if isinstance(read, Read) and node is not None:
            uses.setdefault(read.member.name, []).append((raw, node))
    silent = _without_effect(defaults)
    found: list[str] = []
    for name, places in uses.items():
        if not _EVENT.fullmatch(name) or name in others or not silent.get(name, True):
            continue
        calls = [_call(node) for _, node in places]
        guards = [_guarded(node, name, calls) for _, node in places]
        if not any(calls) or not all(
            call is not None or guard is not None for call, guard in zip(calls, guards, strict=True)
        ):
            continue
        found.append(name)
        plain = [call for call in calls if call is not None and not call.has("?.")]
        asked = len([guard for guard in guards if guard is not None])
        if len(plain) > asked and name not in required and name not in silent:
            notes.append(("called-if-given", name, plain[0].start))
        for (raw, _), call, guard in zip(places, calls, guards, strict=True):
            facts.raws.remove(raw)
            if call is not None:
                _emit(facts, name, call)
            elif guard is not None:
                for start, end in guard:
                    _gone(facts, start, end)
    return tuple(found)


def event_name(prop: str) -> str:
    """`onPick` as `pick`."""
    return prop[2].lower() + prop[3:]


def _without_effect(defaults: Node | None) -> dict[str, bool]:
    """Of each default whether it is a function that does nothing."""
    found = {}
    for part in defaults.named_children if defaults is not None else ():
        key, value = part.child("key"), part.child("value")
        name = property_name(key) if key is not None else None
        if name is not None and value is not None:
            body = value.child("body") if value.is_function else None
            empty = body is not None and body.type == "statement_block" and not body.named_children
            found[name] = empty or does_nothing(value)
    return found


def _call(node: Node) -> Node | None:
    """The call of which a node is the function, where nobody takes what it gives."""
    call = node.parent
    if call is None or call.type != "call_expression" or node.field != "function":
        return None
    above, here = call.parent, call
    while above is not None and above.type in _UNWRAPPED:
        here, above = above, above.parent
    if above is None:
        return None
    if above.type == "binary_expression" and above.has("&&") and here.field == "right":
        here, above = above, above.parent
        while above is not None and above.type in _UNWRAPPED:
            here, above = above, above.parent
    if above is None:
        return None
    if above.type == "expression_statement":
        return call
    if above.type == "arrow_function" and here.field == "body":
        return call
    return None


def _guarded(node: Node, name: str, calls: list[Node | None]) -> list[tuple[int, int]] | None:
    """The stretches around a call that only ask whether the input is there; None for any other use."""
    asked = node
    while asked.parent is not None and asked.parent.type in _UNWRAPPED:
        asked = asked.parent
    above = asked.parent
    if above is None:
        return None
    starts = {call.start for call in calls if call is not None}
    if above.type == "binary_expression" and above.has("&&") and asked.field == "left":
        right = above.child("right")
        return [(above.start, right.start)] if right is not None and right.start in starts else None
    if above.type != "if_statement" or above.child("alternative") is not None:
        return None
    then = above.child("consequence")
    inner = then
    if then is not None and then.type == "statement_block":
        inner = then.named_children[0] if len(then.named_children) == 1 else None
    if inner is None or then is None or inner.type != "expression_statement":
        return None
    if inner.named_children[0].start not in starts:
        return None
    found = [(above.start, inner.start)]
    return found if inner is then else [*found, (inner.end, then.end)]


def _emit(facts: JsxFacts, name: str, call: Node) -> None:
    arguments, function = call.child("arguments"), call.child("function")
    assert arguments is not None
    assert function is not None
    span, deferred = facts.span(call), facts.deferred(call)
    callee = facts.tree.source.span(call.start, arguments.start + 1)
    given = arguments.named_children

    def build(entry: int) -> Operation:
        codes = tuple(facts.code(facts.span(one), kept=False) for one in given)
        return Emit(span, entry, deferred, event_name(name), callee, codes)

    facts.add(call, "event", build)


def _gone(facts: JsxFacts, start: int, end: int) -> None:
    span = facts.tree.source.span(start, end)
    facts.raws.append(
        Raw(
            span,
            "event-asked",
            lambda entry: Respelled(span, entry, False, "", "event-always-sent"),
        )
    )
