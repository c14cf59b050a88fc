"""The options of a component object, one reader for each. An option without one refuses."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path

from clean_carry.component.code import Code
from clean_carry.component.members import KeptOption, Part, State, StateField
from clean_carry.component.model import Default, DefaultKind, Prop
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import (
    is_constant,
    is_identifier,
    property_name,
    runs_code,
)
from clean_carry.syntaxes.single_file.members import Members
from clean_carry.syntaxes.single_file.options.functions import (
    FUNCTIONS,
    attached,
    instance_parameter,
    only_returns,
    parts_of,
    returned,
    with_comma,
)
from clean_carry.syntaxes.uses import Uses


@dataclass
class Gathered:
    """The results of the readers of options.

    `runtime` is the major version it is read for. `by_name` says that the template chooses components by
    name; `drawn_writes` are the names it writes.
    """

    uses: Uses
    members: Members
    file: Path
    by_name: bool = False
    runtime: int = 3
    drawn_writes: frozenset[str] = frozenset()
    name: str = ""
    props: list[Prop] = field(default_factory=list)
    events: list[str] = field(default_factory=list)
    exposed: list[str] = field(default_factory=list)
    state: State | None = None
    prelude: Code | None = None
    prelude_names: frozenset[str] = frozenset()
    parts: list[Part] = field(default_factory=list)
    entries: dict[str, int] = field(default_factory=dict)
    comments: dict[str, tuple[Span, ...]] = field(default_factory=dict)
    values: dict[str, Span] = field(default_factory=dict)


OPTIONS: dict[str, Callable[[Gathered, Node, Node], None]] = {}
# Options only the runtime reads; the text filters and the custom model are of the older one.
KEPT = ("inheritAttrs", "directives", "model", "compatConfig", "mixins", "extends")


def reads(option: str) -> Callable[[Callable[..., None]], Callable[..., None]]:
    """Register the reader of one option. Take one away and the component is refused."""

    def register(function: Callable[..., None]) -> Callable[..., None]:
        OPTIONS[option] = function
        return function

    return register


def claim_option(gathered: Gathered, part: Node) -> int:
    """Claim an option with the comma after it."""
    uses = gathered.uses
    return uses.ledger.claim("option", with_comma(uses, part))


@reads("name")
def _name(gathered: Gathered, part: Node, value: Node) -> None:
    gathered.entries["name"] = claim_option(gathered, part)
    gathered.comments["name"] = attached(gathered.uses, part)
    gathered.values["name"] = gathered.uses.span(value)
    name = property_name(value) if value.type == "string" else None
    if name is None or not is_identifier(name):
        gathered.members.kept_only("unknown-option", part.text[:60], part.start)
        return
    gathered.name = name


@reads("emits")
def _emits(gathered: Gathered, part: Node, value: Node) -> None:
    gathered.entries["emits"] = claim_option(gathered, part)
    gathered.comments["emits"] = attached(gathered.uses, part)
    gathered.values["emits"] = gathered.uses.span(value)
    if value.type == "object":
        names = [name for name, _, _ in parts_of(value)]
    else:
        names = [property_name(item) for item in value.named_children]
    if value.type not in ("array", "object"):
        gathered.uses.refuse("unknown-option", "emits that are no list", part.start)
    elif value.type == "object" or any(name is None for name in names):
        gathered.members.kept_only("unknown-option", "emits with checks", part.start)
    gathered.events.extend(name for name in names if name is not None)


@reads("props")
def _props(gathered: Gathered, part: Node, value: Node) -> None:
    uses = gathered.uses
    gathered.entries["props"] = claim_option(gathered, part)
    gathered.comments["props"] = attached(uses, part)
    gathered.values["props"] = uses.span(value)
    if value.type == "array":
        for item in value.named_children:
            name = property_name(item)
            if name is None:
                uses.refuse("input-declaration", item.text[:60], item.start)
            else:
                key = uses.ledger.claim("input", uses.span(item))
                gathered.props.append(Prop(name, entry=key))
        return
    for name, item, spec in parts_of(value):
        if value.type != "object" or name is None:
            uses.refuse("input-declaration", item.text[:60], item.start)
            continue
        gathered.props.append(_prop(gathered, name, item, spec))
    if value.type != "object":
        uses.refuse("input-declaration", value.text[:60], value.start)


def _prop(gathered: Gathered, name: str, item: Node, spec: Node) -> Prop:
    uses = gathered.uses
    entry = uses.ledger.claim("input", uses.span(item))
    if spec.type != "object":
        implied = "false" if spec.text == "Boolean" else ""
        return Prop(name, None, spec.text, implied, entry=entry)
    kind, required, default = "", False, None
    made = unread = False
    for key, part, value in parts_of(spec):
        match key:
            case "type":
                kind = value.text
            case "required":
                required = value.text == "true"
            case "default" if value.type not in FUNCTIONS:
                held = uses.ledger.claim("input-default", uses.span(part))
                form = "constant" if is_constant(value) else "other"
                default = Default(uses.code(uses.span(value)), form, held)  # type: ignore[arg-type]
            case "default" if gathered.members.neutral and returned(value) is not None:
                default, made = _made_default(uses, part, value), True
            case "default":
                made, unread = True, True
            case "validator" if gathered.members.neutral:
                # Only a development build asks it, and only to complain.
                pass
            case _:
                unread = True
    implied = "made" if made else "false" if kind == "Boolean" and default is None else ""
    return Prop(name, default, "unread" if unread else kind, implied, required, entry)


def _made_default(uses: Uses, part: Node, function: Node) -> Default:
    """A default that a function makes for each instance: what it gives, where that is all it does."""
    held = uses.ledger.claim("input-default", uses.span(part))
    given = returned(function)
    if given is None or not only_returns(function):
        return Default(uses.code(uses.span(function)), "other", held, method="made")
    form: DefaultKind = "constant" if is_constant(given) else "object"
    return Default(uses.code(uses.span(given)), form, held)


@reads("data")
def _data(gathered: Gathered, part: Node, value: Node) -> None:
    uses, members = gathered.uses, gathered.members
    entry = claim_option(gathered, part)
    literal = returned(value) if value.type in FUNCTIONS else None
    if literal is None or literal.type != "object":
        uses.refuse("state-not-literal", "data", part.start)
        return
    if not only_returns(value):
        _prelude(gathered, value)
    parameters = value.child("parameters")
    takes = parameters is not None and bool(parameters.named_children)
    if takes and instance_parameter(value) is None:
        uses.refuse("state-not-literal", "data with a parameter", part.start)
    fields: list[StateField] = []
    for name, item, initial in parts_of(literal):
        if name is None or not is_identifier(name) or item.type not in _FIELDS:
            uses.refuse("state-not-literal", item.text[:60], item.start)
            continue
        if name in members.internal:
            # It is read through the runtime's object of the state, which stays for it.
            members.kept_only("state-not-literal", name, item.start)
            if any(n.type == "this" for n in item.walk()):
                uses.refuse("state-not-literal", name, item.start)
            inside = uses.ledger.claim("state-part", with_comma(uses, item))
            notes = attached(uses, item)
            gathered.parts.append(KeptOption("data", uses.span(item), inside, notes))
            continue
        if item.type != "pair":
            members.kept_only("state-not-literal", item.text[:60], item.start)
        key = uses.ledger.claim("state-part", uses.span(item))
        above = comments.leading(uses.tree, item)
        note = uses.tree.source.span(above[0].start, above[-1].end) if above else None
        code = uses.code(uses.span(initial))
        members.initial[name] = initial
        behind = tuple(uses.span(c) for c in comments.trailing(uses.tree, item))
        fields.append(StateField(name, code, runs_code(initial), key, note, behind=behind))
    whole = Code(uses.span(literal))
    gathered.state = State(tuple(fields), whole, False, "", entry, attached(uses, part))


_FIELDS = ("pair", "shorthand_property_identifier")


def _prelude(gathered: Gathered, function: Node) -> None:
    """Statements before the state is given."""
    uses = gathered.uses
    body = function.child("body")
    assert body is not None
    statements = body.named_children
    gathered.members.kept_only("state-not-literal", "data", function.start)
    if any(n.type == "return_statement" for s in statements[:-1] for n in s.walk()):
        uses.refuse("state-not-literal", "data that returns at several places", function.start)
    notes = comments.trailing(uses.tree, statements[-2]) + comments.leading(
        uses.tree, statements[-1]
    )
    end = notes[-1].end if notes else statements[-2].end
    span = uses.tree.source.span(statements[0].start, end)
    gathered.prelude = uses.code(span)
    scope = uses.names.inner_scope(function)
    gathered.prelude_names = frozenset(n for n in scope.names) if scope else frozenset()


def keep_option(gathered: Gathered, option: str, part: Node) -> None:
    """Keep an option that only the runtime reads."""
    uses = gathered.uses
    entry = claim_option(gathered, part)
    gathered.members.kept_only("unknown-option", part.text.split("\n")[0][:60], part.start)
    gathered.parts.append(KeptOption(option, uses.span(part), entry, attached(uses, part)))


def _kept(option: str) -> None:
    @reads(option)
    def read(gathered: Gathered, part: Node, value: Node) -> None:
        keep_option(gathered, option, part)


for _option in KEPT:
    _kept(_option)
