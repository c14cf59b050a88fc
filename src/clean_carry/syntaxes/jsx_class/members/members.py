"""The members of a component class, one reader for each notion of notions.py."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from clean_carry.component.members import (
    Context,
    InstanceField,
    LeftMember,
    Method,
    State,
    StateField,
    Static,
)
from clean_carry.component.model import Elsewhere
from clean_carry.component.moments import Moment
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import (
    does_nothing,
    is_function,
    is_identifier,
    is_number,
    is_primitive,
    property_name,
    runs_code,
)
from clean_carry.syntaxes.jsx.runtime_names import RuntimeNames
from clean_carry.syntaxes.jsx_class.members.hooks import moment
from clean_carry.syntaxes.jsx_class.members.notions import (
    ALWAYS_BY_PARENT,
    REFUSED,
    REFUSED_STATICS,
    function_of,
    given_by,
    value_of,
)
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts

if TYPE_CHECKING:
    from clean_carry.syntaxes.jsx_class.neutral.drawing import Neutral


@dataclass
class Gathered:
    """The results of the readers of members."""

    facts: ClassFacts
    runtime: RuntimeNames
    state_type: str = ""
    bound: set[str] = field(default_factory=set)
    outside: frozenset[str] = frozenset()
    exposed: tuple[str, ...] = ()
    written_outside: frozenset[str] = frozenset()
    elsewhere: tuple[Elsewhere, ...] = ()
    state: State | None = None
    fields: list[InstanceField] = field(default_factory=list)
    members: list[Method | Moment | LeftMember | Static] = field(default_factory=list)
    statics: list[Static] = field(default_factory=list)
    defaults: Node | None = None
    drawing: Node | None = None
    context: Context | None = None
    entries: dict[str, int] = field(default_factory=dict)
    drawing_comments: tuple[Span, ...] = ()
    draws_always: bool = False
    neutral: Neutral | None = None
    # The names of fields in the order they are made; `state` for the state.
    made: list[str] = field(default_factory=list)


MEMBERS: dict[str, Callable[[Gathered, Node, str], None]] = {}


def reads(notion: str) -> Callable[[Callable[..., None]], Callable[..., None]]:
    """Register the reader of one notion. Take one away and the ledger no longer balances."""

    def register(function: Callable[..., None]) -> Callable[..., None]:
        MEMBERS[notion] = function
        return function

    return register


def attached(facts: ClassFacts, member: Node) -> tuple[Span, ...]:
    """The comments that belong to a member: above it, and after it on its last line."""
    found = comments.leading(facts.tree, member) + comments.trailing(facts.tree, member)
    return tuple(facts.span(comment) for comment in found)


def full_span(facts: ClassFacts, member: Node) -> Span:
    """The span of a member with the semicolon after it."""
    end = member.end
    data = facts.tree.source.data
    look = end
    while look < len(data) and data[look : look + 1] in (b" ", b"\t"):
        look += 1
    if data[look : look + 1] == b";":
        end = look + 1
    return facts.tree.source.span(member.start, end)


@reads("prototype-method")
@reads("getter")
@reads("setter")
def _prototype_method(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    name_node, body = member.child("name"), member.child("body")
    entry = facts.ledger.claim("prototype-method", facts.span(member))
    if name_node is None or body is None or _holds(facts, member, b"super"):
        _leave(gathered, member, "unknown-member", name, entry)
        return
    if _draws(gathered, name, entry):
        return
    if member.has("set"):
        name = f"{name}="
    if name in gathered.outside:
        _leave(gathered, member, "reached-from-outside", name, entry)
        return
    prefix = "async function" if member.has("async") else "function"
    if member.has("*"):
        prefix += "*"
    text = facts.code(facts.tree.source.span(name_node.end, member.end))
    gathered.members.append(
        Method(
            name.lstrip("#"),
            "declared",
            text,
            prefix,
            name in gathered.bound,
            entry,
            _holds(facts, member, b"arguments"),
            body.start,
            member.has("async"),
            attached(facts, member),
            member.has("get"),
        )
    )


def _draws(gathered: Gathered, name: str, entry: int) -> bool:
    """Whether a method renders where it is called, for a target with markup."""
    if gathered.neutral is None or name not in gathered.neutral.helpers:
        return False
    gathered.facts.ledger.settle(entry, "carried", "drawn-in-place")
    return True


def _holds(facts: ClassFacts, member: Node, word: bytes) -> bool:
    """Whether a member has this word in its code. Most texts do not hold it at all."""
    if facts.tree.view.find(word, member.start, member.end) < 0:
        return False
    return any(c.type in ("super", "identifier") and c.text == word.decode() for c in member.walk())


@reads("arrow-method")
def _arrow_method(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    span = full_span(facts, member)
    entry = facts.ledger.claim("arrow-method", span)
    name_node, value = member.child("name"), member.child("value")
    assert name_node is not None and value is not None
    if _draws(gathered, name, entry):
        return
    if name in gathered.outside:
        _leave(gathered, member, "reached-from-outside", name, entry)
        return
    kind = member.child("type")
    start = kind.start if kind is not None else value.start
    text = facts.code(facts.tree.source.span(start, value.end))
    arguments = value.type == "function_expression" and any(
        c.type == "identifier" and c.text == "arguments" for c in value.walk()
    )
    gathered.members.append(
        Method(
            name.lstrip("#"),
            "assigned",
            text,
            "typed" if kind is not None else "",
            True,
            entry,
            arguments,
            asynchronous=value.has("async"),
            comments=attached(facts, member),
        )
    )


@reads("display-hook")
@reads("update-hook")
@reads("removal-hook")
@reads("start-hook")
@reads("receipt-hook")
@reads("before-update-hook")
def _hook(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    early = name not in ("componentDidMount", "componentDidUpdate", "componentWillUnmount")
    if (member.has("async") and early) or function_of(member).has("*"):
        entry = facts.ledger.claim("async-hook", facts.span(member))
        _leave(gathered, member, "async-hook", name, entry)
        return
    gathered.members.append(moment(facts, member, name, attached(facts, member)))


@reads("refused-member")
def _refused(gathered: Gathered, member: Node, name: str) -> None:
    rule = REFUSED.get(name) or REFUSED_STATICS.get(name) or "unknown-member"
    gathered.facts.refuse(rule, name, member.start)


@reads("unknown-member")
def _unknown(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    entry = facts.ledger.claim("unknown-member", full_span(facts, member))
    _leave(gathered, member, "unknown-member", name, entry)


def _leave(gathered: Gathered, member: Node, rule: str, detail: str, entry: int) -> None:
    facts = gathered.facts
    facts.ledger.settle(entry, "left", rule)
    facts.skipped.append((member.start, member.end))
    span = full_span(facts, member)
    gathered.members.append(LeftMember(rule, detail, span, entry))


@reads("type-field")
@reads("declared-field")
def _declared(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    entry = facts.ledger.claim("declared-field", full_span(facts, member))
    facts.ledger.settle(entry, "dropped", "declaration-only")


@reads("draws-always")
def _draws_always(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    entry = facts.ledger.claim("draws-always", full_span(facts, member))
    facts.ledger.settle(entry, "dropped", "draws-always")
    own = any(raw.notion.startswith("state-") for raw in facts.raws)
    if own and given_by(member) in ALWAYS_BY_PARENT:
        facts.refuse("decides-updates", name, member.start)
    gathered.draws_always = True


@reads("render")
def _render(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    function = function_of(member)
    if function.has("async") or function.has("*"):
        facts.refuse("unknown-member", "render", member.start)
    gathered.entries["render"] = facts.ledger.claim("render", full_span(facts, member))
    gathered.drawing = function
    gathered.drawing_comments = attached(facts, member)


@reads("static-value")
def _static_value(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    entry = facts.ledger.claim("static-value", full_span(facts, member))
    value = value_of(member)
    if value is None:
        facts.ledger.settle(entry, "dropped", "declaration-only")
        return
    if gathered.neutral is not None and name in ("propTypes", "displayName"):
        facts.ledger.settle(entry, "carried", "declared-inputs")
        return
    code = facts.code(facts.span(value))
    notes = attached(facts, member)
    gathered.statics.append(Static(name, code, entry, "", notes, runs_code(value)))


@reads("static-method")
def _static_method(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    entry = facts.ledger.claim("static-method", facts.span(member))
    name_node = member.child("name")
    assert name_node is not None
    prefix = "async function" if member.has("async") else "function"
    if member.has("*"):
        prefix += "*"
    code = facts.code(facts.tree.source.span(name_node.end, member.end))
    gathered.statics.append(Static(name, code, entry, prefix, attached(facts, member)))


@reads("default-inputs")
def _default_inputs(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    if gathered.defaults is not None:
        facts.refuse("member-twice", name, member.start)
    gathered.entries["defaults"] = facts.ledger.claim("default-inputs", full_span(facts, member))
    gathered.defaults = value_of(member)


@reads("state-field")
def _state_field(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    entry = facts.ledger.claim("state-field", full_span(facts, member))
    kind = member.child("type")
    type_text = kind.named_children[0].text if kind is not None else ""
    value = member.child("value")
    if value is None:
        facts.ledger.settle(entry, "dropped", "declaration-only")
        gathered.state_type = type_text or gathered.state_type
        return
    read_state(gathered, value, entry, attached(facts, member), type_text)


def read_state(
    gathered: Gathered, value: Node, entry: int, notes: tuple[Span, ...], type_text: str = ""
) -> None:
    """Read the initial state from its expression."""
    facts = gathered.facts
    if gathered.state is not None:
        facts.refuse("state-set-twice", "", value.start)
        return
    gathered.made.append("state")
    type_text = type_text or gathered.state_type
    inner = value
    while inner.type in ("as_expression", "parenthesized_expression", "satisfies_expression"):
        inner = inner.named_children[0]
    fields: list[StateField] = []
    plain = inner.type == "object" and all(_is_state_part(p) for p in inner.named_children)
    if plain:
        fields = [
            _state_part(facts, part) for part in inner.named_children if part.type != "comment"
        ]
    lazy = runs_code(value)
    whole = facts.code(facts.span(value), kept=False)
    gathered.state = State(tuple(fields) if plain else None, whole, lazy, type_text, entry, notes)


def _is_state_part(part: Node) -> bool:
    """Whether a part of the initial state is a field of a plain name."""
    if part.type in ("shorthand_property_identifier", "comment"):
        return True
    key = part.child("key") if part.type == "pair" else None
    name = property_name(key) if key is not None else None
    return name is not None and is_identifier(name)


def _state_part(facts: ClassFacts, part: Node) -> StateField:
    if part.type == "shorthand_property_identifier":
        entry = facts.ledger.claim("state-part", facts.span(part))
        return StateField(part.text, facts.code(facts.span(part)), False, entry)
    key, value = part.child("key"), part.child("value")
    name = property_name(key) if key is not None else None
    assert name is not None and value is not None
    entry = facts.ledger.claim("state-part", facts.span(part))
    code = facts.code(facts.span(value))
    above = comments.leading(facts.tree, part)
    comment = None
    if above:
        comment = facts.tree.source.span(above[0].start, above[-1].end)
    lazy = runs_code(value) or is_function(value)
    return StateField(name, code, lazy, entry, comment, is_number(value))


@reads("instance-field")
def _instance_field(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    entry = facts.ledger.claim("instance-field", full_span(facts, member))
    if name in gathered.outside and member.child("value") is None:
        facts.ledger.settle(entry, "dropped", "declaration-only")
        return
    if name in gathered.outside and name == "displayName":
        facts.ledger.settle(entry, "dropped", "instance-display-name")
        return
    value = member.child("value")
    if name in gathered.outside and value is not None and does_nothing(value):
        facts.ledger.settle(entry, "dropped", "field-never-used")
        return
    if name in gathered.outside:
        _leave(gathered, member, "reached-from-outside", name, entry)
        return
    kind = member.child("type")
    type_text = kind.named_children[0].text if kind is not None else ""
    if type_text and member.has("?"):
        type_text += " | undefined"
    add_field(gathered, name, member.child("value"), entry, attached(facts, member), type_text)


def add_field(
    gathered: Gathered,
    name: str,
    value: Node | None,
    entry: int,
    notes: tuple[Span, ...],
    type_text: str = "",
) -> None:
    """Read one instance field with its initial value."""
    facts = gathered.facts
    element = is_element_reference(gathered.runtime, facts, value)
    lazy = value is not None and (runs_code(value) or is_function(value))
    code = None
    if value is not None and not element:
        code = facts.code(facts.span(value))
    if element and value is not None:
        arguments = value.child("type_arguments")
        type_text = arguments.named_children[0].text if arguments is not None else ""
    name = name.lstrip("#")
    gathered.made = [*(made for made in gathered.made if made != name), name]
    primitive = value is not None and (is_primitive(value) or is_function(value))
    field_ = InstanceField(name, code, lazy, element, type_text, entry, notes, primitive)
    gathered.fields.append(field_)


def is_element_reference(runtime: RuntimeNames, facts: ClassFacts, value: Node | None) -> bool:
    """Whether an initial value is created by the framework's function for refs."""
    if value is None or value.type != "call_expression":
        return False
    callee = value.child("function")
    return callee is not None and runtime.imported(callee, facts.names) == "createRef"
