"""The options of a component object, one reader for each. An option without one refuses."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from clean_carry.component.code import Code, Member
from clean_carry.component.model import (
    Default,
    Derived,
    Method,
    Part,
    Prop,
    Reaction,
    State,
    StateField,
)
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
from clean_carry.syntaxes.uses import Uses

Places = tuple[tuple[Span, int], ...]
_FUNCTIONS = ("method_definition", "function_expression", "arrow_function")


@dataclass
class Gathered:
    """What the readers of options fill."""

    uses: Uses
    members: Members
    name: str = ""
    props: list[Prop] = field(default_factory=list)
    events: list[str] = field(default_factory=list)
    state: State | None = None
    parts: list[Part] = field(default_factory=list)
    entries: dict[str, int] = field(default_factory=dict)
    comments: dict[str, tuple[Span, ...]] = field(default_factory=dict)
    values: dict[str, Span] = field(default_factory=dict)


OPTIONS: dict[str, Callable[[Gathered, Node, Node], None]] = {}


def reads(option: str) -> Callable[[Callable[..., None]], Callable[..., None]]:
    """Register the reader of one option. Take one away and the component is refused."""

    def register(function: Callable[..., None]) -> Callable[..., None]:
        OPTIONS[option] = function
        return function

    return register


def parts_of(node: Node) -> list[tuple[str | None, Node, Node]]:
    """(name, property, value) of each part of an object; a method is its own value."""
    found: list[tuple[str | None, Node, Node]] = []
    for part in node.named_children:
        key = part.child("key") or part.child("name")
        value = part.child("value")
        if part.type == "method_definition":
            value = part
        name = property_name(key) if key is not None else None
        found.append((name, part, value if value is not None else part))
    return found


def claim_option(gathered: Gathered, part: Node) -> int:
    """Claim an option with the comments above it."""
    uses = gathered.uses
    return uses.ledger.claim("option", with_comma(uses, part))


def with_comma(uses: Uses, node: Node) -> Span:
    """A property with the comma after it."""
    end, data = node.end, uses.tree.source.data
    while data[end : end + 1] in (b" ", b"\t"):
        end += 1
    return uses.tree.source.span(node.start, end + 1 if data[end : end + 1] == b"," else node.end)


def attached(uses: Uses, node: Node) -> tuple[Span, ...]:
    """The comments that belong to a node."""
    found = comments.leading(uses.tree, node) + comments.trailing(uses.tree, node)
    return tuple(uses.span(comment) for comment in found)


@reads("name")
def _name(gathered: Gathered, part: Node, value: Node) -> None:
    gathered.entries["name"] = claim_option(gathered, part)
    gathered.comments["name"] = attached(gathered.uses, part)
    name = property_name(value) if value.type == "string" else None
    if name is None or not is_identifier(name):
        gathered.uses.refuse("unknown-option", part.text[:60], part.start)
        return
    gathered.name = name
    gathered.values["name"] = gathered.uses.span(value)


@reads("emits")
def _emits(gathered: Gathered, part: Node, value: Node) -> None:
    gathered.entries["emits"] = claim_option(gathered, part)
    gathered.comments["emits"] = attached(gathered.uses, part)
    names = [property_name(item) for item in value.named_children]
    if value.type != "array" or any(name is None for name in names):
        gathered.uses.refuse("unknown-option", "emits that are no list of names", part.start)
        return
    gathered.values["emits"] = gathered.uses.span(value)
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
        gathered.props.append(_prop(uses, name, item, spec))


def _prop(uses: Uses, name: str, item: Node, spec: Node) -> Prop:
    entry = uses.ledger.claim("input", uses.span(item))
    if spec.type != "object":
        implied = "false" if spec.text == "Boolean" else ""
        return Prop(name, None, spec.text, implied, entry=entry)
    kind, required, default = "", False, None
    for key, part, value in parts_of(spec):
        match key:
            case "type":
                kind = value.text
            case "required":
                required = value.text == "true"
            case "default" if value.type not in _FUNCTIONS:
                held = uses.ledger.claim("input-default", uses.span(part))
                form = "constant" if is_constant(value) else "other"
                default = Default(uses.code(uses.span(value)), form, held)  # type: ignore[arg-type]
            case _:
                kind = "unread"
    implied = "false" if kind == "Boolean" and default is None else ""
    return Prop(name, default, kind, implied, required, entry)


@reads("data")
def _data(gathered: Gathered, part: Node, value: Node) -> None:
    uses = gathered.uses
    entry = claim_option(gathered, part)
    literal = returned(value)
    if literal is None or literal.type != "object":
        uses.refuse("state-not-literal", "data", part.start)
        return
    fields: list[StateField] = []
    for name, item, initial in parts_of(literal):
        if name is None or item.type != "pair" or not is_identifier(name):
            uses.refuse("state-not-literal", item.text[:60], item.start)
            continue
        key = uses.ledger.claim("state-part", uses.span(item))
        above = comments.leading(uses.tree, item)
        note = uses.tree.source.span(above[0].start, above[-1].end) if above else None
        code = uses.code(uses.span(initial))
        gathered.members.initial[name] = initial
        fields.append(StateField(name, code, runs_code(initial), key, note))
    whole = Code(uses.span(literal))
    gathered.state = State(tuple(fields), whole, False, "", entry, attached(uses, part))


def returned(function: Node) -> Node | None:
    """The one expression a function gives; None where it does anything else."""
    body = function.child("body")
    if body is None:
        return None
    if body.type != "statement_block":
        return body.named_children[0] if body.type == "parenthesized_expression" else body
    statements = body.named_children
    if len(statements) != 1 or statements[0].type != "return_statement":
        return None
    given = statements[0].named_children
    return given[0] if given else None


def function_text(uses: Uses, function: Node) -> tuple[Code, int]:
    """A method's text from its parameters on, under an entry of its own."""
    parameters = function.child("parameters")
    assert parameters is not None
    span = uses.tree.source.span(parameters.start, function.end)
    entry = uses.ledger.claim("function", span)
    return uses.code(span, kept=False), entry


def _methods_of(
    gathered: Gathered, part: Node, value: Node
) -> list[tuple[str, Node, tuple[Span, ...]]]:
    """(name, function, comments) of each part; the first gets the comments of the option too."""
    found: list[tuple[str, Node, tuple[Span, ...]]] = []
    notes = attached(gathered.uses, part)
    for name, item, given in parts_of(value):
        if name is None or item.type != "method_definition" or item.has("get"):
            gathered.uses.refuse("unknown-option", item.text.split("\n")[0][:60], item.start)
            continue
        found.append((name, given, notes + attached(gathered.uses, given)))
        notes = ()
    if value.type != "object":
        gathered.uses.refuse("unknown-option", part.text.split("\n")[0][:60], part.start)
    return found


@reads("computed")
def _computed(gathered: Gathered, part: Node, value: Node) -> None:
    uses = gathered.uses
    gathered.entries["computed"] = claim_option(gathered, part)
    for name, function, note in _methods_of(gathered, part, value):
        entry = uses.ledger.claim("derived", with_comma(uses, function))
        text, text_entry = function_text(uses, function)
        given = returned(function)
        code = uses.code(uses.span(given)) if given is not None else None
        if given is not None:
            gathered.members.initial[name] = given
        gathered.parts.append(Derived(name, text, text_entry, code, entry, note))


@reads("watch")
def _watch(gathered: Gathered, part: Node, value: Node) -> None:
    uses, members = gathered.uses, gathered.members
    gathered.entries["watch"] = claim_option(gathered, part)
    for name, function, note in _methods_of(gathered, part, value):
        kind = "prop" if name in members.props else "state" if name in members.state else "derived"
        if name not in members.props | members.state | members.derived:
            uses.refuse("unknown-option", f"a watcher of {name}", function.start)
            continue
        entry = uses.ledger.claim("reaction", with_comma(uses, function))
        text, text_entry = function_text(uses, function)
        body = function.child("body")
        assert body is not None
        inner = uses.tree.source.span(body.start + 1, body.end - 1)
        uses.ledger.claim("code", inner, "kept")
        source = Member(kind, name)  # type: ignore[arg-type]
        now, before = _parameters(uses, function)
        members.named.update((span.start, name) for span, _ in (*now, *before))
        gathered.parts.append(
            Reaction(
                source, text, text_entry, uses.code(inner, kept=False), now, before,
                runs_code(body), entry, note,
            )
        )  # fmt: skip


def _parameters(uses: Uses, function: Node) -> tuple[Places, Places]:
    """The uses of the new and of the old value; what is no plain name refuses."""
    found: list[Places] = []
    parameters, scope = function.child("parameters"), uses.names.inner_scope(function)
    for parameter in parameters.named_children if parameters is not None else []:
        pattern = parameter.child("pattern")
        binding = scope.names.get(pattern.text) if scope is not None and pattern else None
        if binding is None or pattern is None or pattern.type != "identifier" or binding.written:
            uses.refuse("unknown-option", "a watcher's parameter that is no name", parameter.start)
            continue
        if any(ref.type != "identifier" for ref in binding.references):
            uses.refuse("unknown-option", "a watcher's parameter in a shorthand", parameter.start)
        spans = [uses.span(ref) for ref in binding.references]
        found.append(tuple((span, uses.ledger.claim("watched value", span)) for span in spans))
    found += [(), ()]
    return found[0], found[1]


@reads("methods")
def _methods(gathered: Gathered, part: Node, value: Node) -> None:
    uses = gathered.uses
    gathered.entries["methods"] = claim_option(gathered, part)
    for name, function, note in _methods_of(gathered, part, value):
        entry = uses.ledger.claim("method", with_comma(uses, function))
        name_node, body = function.child("name"), function.child("body")
        assert name_node is not None and body is not None
        prefix = "async function" if function.has("async") else "function"
        if function.has("*"):
            prefix += "*"
        text = uses.code(uses.tree.source.span(name_node.end, function.end))
        used = any(n.type == "identifier" and n.text == "arguments" for n in function.walk())
        gathered.parts.append(
            Method(
                name,
                "declared",
                text,
                prefix,
                True,
                entry,
                used,
                body.start,
                function.has("async"),
                note,
            )
        )
