"""From the uses of an instance to the operations of the neutral component.

Each use becomes one operation with one ledger entry. A use that fits no row of the tables here is *left*:
the innermost expression (or assignment) around the use.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Literal

from clean_carry.component.code import (
    DraftState,
    Gone,
    Itself,
    Left,
    Member,
    Read,
    Redraw,
    WholeRead,
)
from clean_carry.source.javascript.scope import Binding, is_write
from clean_carry.source.javascript.timing import MAKE_ELEMENTS, in_handler, is_deferred
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name, member_name, property_name
from clean_carry.syntaxes.jsx.facts import JsxFacts
from clean_carry.syntaxes.jsx.keepers import Keepers
from clean_carry.syntaxes.jsx_class.members.notions import HOOKS
from clean_carry.syntaxes.jsx_class.uses.callback_identity import place_of
from clean_carry.syntaxes.jsx_class.uses.kept_callbacks import kept_later
from clean_carry.syntaxes.jsx_class.uses.receivers import Receiver, Receivers
from clean_carry.syntaxes.uses import Build, Raw


@dataclass
class ClassFacts(JsxFacts):
    """The names of a class's members by kind, collected by the first pass."""

    methods: set[str] = field(default_factory=set)
    fields: set[str] = field(default_factory=set)
    elements: set[str] = field(default_factory=set)
    skipped: list[tuple[int, int]] = field(default_factory=list)
    handled: set[int] = field(default_factory=set)
    unread: bool = False
    context: str = ""
    draft: tuple[int, int] = (0, 0)
    made: list[Node] = field(default_factory=list)
    root_element: str = ""
    getters: set[str] = field(default_factory=set)
    setters: set[str] = field(default_factory=set)
    # Methods that the constructor, or a field of their name, wraps once: the node they are named in.
    wrapped: dict[str, Node] = field(default_factory=dict)
    named_references: set[str] = field(default_factory=set)
    statics: set[str] = field(default_factory=set)
    functions: frozenset[str] = frozenset()
    itself: Binding | None = None
    keepers: Keepers | None = None
    # Tags of components that cannot be followed and are given functions, with where.
    unfollowed: dict[str, int] = field(default_factory=dict)

    def root_of(self, node: Node) -> Node:
        """The member's function, or its initial value, in which `node` stands."""
        body = self.node.child("body")
        here = node
        for above in node.up():
            if above is body:
                break
            here = above
        if here.type == "public_field_definition":
            value = here.child("value")
            if value is not None:
                return value
        return here

    def deferred(self, node: Node, *, is_function: bool = False) -> bool:
        """Whether `node` runs later than its member is entered, or is a function that does."""
        root = self.root_of(node)
        if is_deferred(node, root, self.names):
            return True
        return self.keepers is not None and kept_later(
            node, root, self.keepers, self.unfollowed, is_function=is_function
        )

    def own_function(self, name: str) -> Node | None:
        """The member that is the method of a name."""
        return next((member for own, member in self.own_functions() if own == name), None)

    def own_functions(self) -> list[tuple[str, Node]]:
        """The members of the class, by name."""
        body = self.node.child("body")
        named = [(m.child("name"), m) for m in (body.named_children if body is not None else ())]
        return [(name.text, member) for name, member in named if name is not None]

    def locals_of(self, node: Node) -> frozenset[tuple[str, int]]:
        """Local names in force at a node, each with the place of its declaration."""
        return _locals_at(self, node)


READERS: dict[str, Callable[[ClassFacts, Receiver, Node], None]] = {}


def reader(name: str) -> Callable[[Callable[..., None]], Callable[..., None]]:
    """Register the reader of one notion. Take one away and the ledger no longer balances."""

    def register(function: Callable[..., None]) -> Callable[..., None]:
        READERS[name] = function
        return function

    return register


def collect(facts: ClassFacts, receivers: Receivers) -> None:
    """Fill `facts.raws` with one operation for every use of the instance."""
    for declaration in receivers.declarations:
        span = facts.span(declaration)
        deferred = facts.deferred(declaration)
        add(
            facts,
            declaration,
            "receiver-alias",
            lambda entry, span=span, deferred=deferred: Gone(  # type: ignore[misc]
                span, entry, deferred, "receiver-alias"
            ),
        )
    for node in receivers.static_uses:
        facts.refuse("static-receiver", "", node.start)
    for use in receivers.uses:
        if id(use.node) in facts.handled:
            continue
        if _is_tag(use.node) and not _may_be_tag(facts, use.node):
            facts.refuse("instance-tag", "", use.node.start)
            continue
        notion, node = _notion(facts, use)
        if notion is None:
            continue
        read = READERS.get(notion)
        if read is not None:
            read(facts, use, node)
    lefts = [(raw.span.start, raw.span.end) for raw in facts.raws if raw.notion == "left"]
    outer = [s for s in lefts if not any(o != s and o[0] <= s[0] and s[1] <= o[1] for o in lefts)]
    facts.skipped = sorted(set(outer))
    _refuse_orphaned_names(facts, outer)
    facts.raws = [raw for raw in facts.raws if not _inside_left(raw, outer)]
    facts.sort()
    _claim_unread(facts, receivers)


def _is_tag(node: Node) -> bool:
    for above in node.up():
        if above.type == "member_expression":
            continue
        return above.type.startswith("jsx_") and above.type.endswith("_element")
    return False


def _may_be_tag(facts: ClassFacts, node: Node) -> bool:
    """Whether a tag taken from the instance stays one: a name that is read, or a capital one."""
    asked = node.parent
    above = asked.parent if asked is not None else None
    part = member_name(asked) if asked is not None else None
    if asked is None or above is None or asked.children[0] is not node:
        return False
    if above.type != "member_expression":
        return part in facts.fields and part not in facts.elements
    own = part == "constructor" and _asks_own_static(facts, asked)
    given = part in ("props", "state") and (member_name(above) or "")[:1].isupper()
    return own or (given and above.parent is not None and above.parent.type != above.type)


def _claim_unread(facts: ClassFacts, receivers: Receivers) -> None:
    """Claim a use of the instance that no reader took, so that the ledger does not balance."""
    for use in receivers.uses:
        if id(use.node) in facts.handled:
            continue
        at = bisect_right(facts.starts, use.node.start)
        while at > 0 and facts.raws[at - 1].span.end < use.node.end:
            at -= 1
        if at == 0:
            facts.ledger.claim("use of the instance", facts.span(use.node))
            facts.unread = True


def _inside_left(raw: Raw, outer: list[tuple[int, int]]) -> bool:
    if raw.notion == "left":
        return (raw.span.start, raw.span.end) not in outer
    return any(low <= raw.span.start and raw.span.end <= high for low, high in outer)


def _refuse_orphaned_names(facts: ClassFacts, lefts: list[tuple[int, int]]) -> None:
    """Names that only places left to a person use would stand unused: the class is refused."""
    for raw in facts.raws:
        span = (raw.span.start, raw.span.end)
        if raw.notion != "left" or span not in lefts:
            continue
        for ref, binding in facts.names.references_in(facts.node):
            if binding is None or binding.kind == "param" or not span[0] <= ref.start < span[1]:
                continue
            if all(any(a <= r.start < b for a, b in lefts) for r in binding.references):
                if not any(a <= binding.node.start < b for a, b in lefts):
                    left = raw.build(-1)
                    assert isinstance(left, Left)
                    facts.refuse(left.rule, left.detail, raw.span.start)


def _notion(facts: ClassFacts, use: Receiver) -> tuple[str | None, Node]:
    """Return the notion of a use of the instance: the row of the table, and its node."""
    node, parent = use.node, use.node.parent
    if use.means in ("props", "state"):
        return _whole_notion(facts, node, use.means)
    if use.means == "context":
        return "context-whole", node
    if parent is None or parent.type != "member_expression" or parent.children[0] is not node:
        return "escape", node
    name_node = parent.child("property")
    name = property_name(name_node) if name_node is not None else None
    if name == "state" and facts.draft[0] <= parent.start < facts.draft[1]:
        if not facts.deferred(parent):
            return "state-draft", parent
    if name in ("props", "state"):
        return _whole_notion(facts, parent, name)
    if name == "context":
        return "context-whole", parent
    if name == "setState":
        return "state-write", parent
    if name == "refs" and "refs" not in facts.fields:
        return "named-reference", parent
    if name == "forceUpdate":
        return "redraw", parent
    wrapping = facts.wrapped.get(name) if name is not None else None
    if wrapping is not None and not wrapping.start <= parent.start < wrapping.end:
        return "field-use", parent
    if name in facts.methods or name in facts.setters:
        return "method-use", parent
    if name in facts.fields:
        return "field-use", parent
    if name in HOOKS or name == "render":
        return "hook-use", parent
    return "unknown-use", parent


def _whole_notion(facts: ClassFacts, node: Node, source: str) -> tuple[str | None, Node]:
    parent = node.parent
    if parent is not None and node.field == "object":
        if parent.type == "member_expression":
            return f"{source}-read", parent
        if parent.type == "subscript_expression" and member_name(parent) is not None:
            return f"{source}-read", parent
    if parent is not None and parent.type == "variable_declarator" and node.field == "value":
        target = parent.child("name")
        if target is not None and target.type == "object_pattern":
            return "pattern-read", node
    return f"{source}-whole", node


def add(facts: ClassFacts, node: Node, notion: str, build: Build, end: int = -1) -> None:
    """Note an operation at a node; `end` is where it ends where that is not where the node does."""
    facts.add(node, notion, build, end)


def _locals_at(facts: ClassFacts, node: Node) -> frozenset[tuple[str, int]]:
    """Local names in force at a node, each with the place of its declaration."""
    found: set[tuple[str, int]] = set()
    for scope in facts.names.scope_at(node).chain():
        if scope.node is facts.node or scope.parent is None:
            break
        name = scope.node.child("name")
        if scope.node.type == "method_definition" and name is not None:
            if name.text == "constructor":
                # Only what makes the state keeps names of its own.
                low, high = facts.draft
                found.update(
                    (key, binding.node.start)
                    for key, binding in scope.names.items()
                    if low <= binding.node.start < high
                )
                continue
        found.update((key, binding.node.start) for key, binding in scope.names.items())
    return frozenset(found)


def leave(facts: ClassFacts, node: Node, rule: str, detail: str = "") -> None:
    """Leave the innermost whole expression around `node` to a person."""
    here = node
    while here.parent is not None:
        above = here.parent
        if (
            (
                above.type
                in (
                    "member_expression",
                    "subscript_expression",
                    "call_expression",
                    "new_expression",
                )
                and here.field in ("object", "function", "constructor")
            )
            or above.type in ("non_null_expression", "update_expression", "await_expression")
            or (above.type.endswith("assignment_expression") and here.field == "left")
            or (above.type == "unary_expression" and above.has("delete"))
        ):
            here = above
            continue
        break
    if is_write(here):
        facts.refuse(rule, detail, node.start)
        return
    if here.parent is not None and here.parent.type == "variable_declarator":
        target = here.parent.child("name")
        if target is not None and target.type != "identifier":
            facts.refuse(rule, detail, node.start)
            return
    if here.parent is not None and here.parent.type == "expression_statement":
        block = here.parent.parent
        if block is not None and block.type in ("statement_block", "program"):
            here = here.parent
    span, deferred = facts.span(here), facts.deferred(node)
    add(facts, here, "left", lambda entry: Left(span, entry, deferred, rule, detail))


@reader("props-read")
def _props_read(facts: ClassFacts, use: Receiver, node: Node) -> None:
    _member_read(facts, use, node, "prop")


@reader("state-read")
def _state_read(facts: ClassFacts, use: Receiver, node: Node) -> None:
    _member_read(facts, use, node, "state")


def _member_read(facts: ClassFacts, use: Receiver, node: Node, kind: str) -> None:
    name = member_name(node) or ""
    if is_write(node):
        leave(facts, node, "input-written" if kind == "prop" else "state-written-directly", name)
        return
    deferred = facts.deferred(node)
    snapshot = use.alias is not None and use.means != "this"
    if snapshot and use.alias is not None and deferred and not facts.deferred(use.alias):
        if not in_reference(node):
            leave(facts, node, "snapshot-alias", name)
            return
        deferred = False
    key, whole = part_of_object(node)
    span = facts.span(whole)
    called = node.field == "function" or (kind == "prop" and hands_function_on(facts, node, name))
    reference = place_of(node)[0] == "reference"
    handled = called and in_handler(node, facts.root_of(node))
    member = Member("prop" if kind == "prop" else "state", name)
    add(
        facts,
        node,
        f"{kind}-read",
        lambda entry: Read(
            span,
            entry,
            deferred,
            member,
            key,
            called=called,
            reference=reference,
            handled=handled,
        ),
    )
    facts.raws[-1].span = span


def part_of_object(node: Node) -> tuple[str, Node]:
    """(`key: `, the part) of the object that a node is the value of, else ("", the node): a part that comes
    to be called like its key is written by its name alone."""
    pair = node.parent
    key = pair.child("key") if pair is not None and pair.type == "pair" else None
    if pair is None or key is None or key.type != "property_identifier" or node.field != "value":
        return "", node
    if pair.parent is None or _is_of_state(pair.parent):
        return "", node
    return (f"{key.text}: ", pair) if f"{key.text}: {node.text}" == pair.text else ("", node)


def _is_of_state(literal: Node) -> bool:
    """Whether an object is state, or a change of it: its parts are read one by one."""
    here = literal
    if any(above.type == "method_definition" and above.has("static") for above in literal.up()):
        return True
    for above in literal.up():
        match above.type:
            case "parenthesized_expression" | "as_expression" | "satisfies_expression":
                here = above
            case (
                "return_statement" | "statement_block" | "ternary_expression" | "binary_expression"
            ):
                here = above
            case "arrow_function" | "function_expression":
                here = above
            case "arguments":
                callee = above.parent.child("function") if above.parent is not None else None
                return last_name(callee) == "setState"
            case "public_field_definition":
                name = above.child("name")
                return name is not None and name.text == "state"
            case "assignment_expression":
                return here.field == "right" and above.children[0].text == "this.state"
            case _:
                return False
    return False


def hands_function_on(facts: ClassFacts, node: Node, name: str) -> bool:
    """Whether an input that is declared a function goes where it may be called at once: as an argument, or
    under another name."""
    if name in facts.functions and _is_renamed(node):
        return True
    call = (
        node.parent.parent if node.parent is not None and node.parent.type == "arguments" else None
    )
    callee = call.child("function") if call is not None else None
    if name not in facts.functions or callee is None:
        return False
    return last_name(callee) not in MAKE_ELEMENTS


def _is_renamed(node: Node) -> bool:
    """Whether a value, perhaps one of several, is given a name of its own."""
    for above in node.up():
        if above.type in ("parenthesized_expression", "ternary_expression") or (
            above.type == "binary_expression" and (above.has("||") or above.has("??"))
        ):
            continue
        value = above.child("name") if above.type == "variable_declarator" else None
        return value is not None and value.type == "identifier"
    return False


def in_reference(node: Node) -> bool:
    """Whether the function a node stands in is given to an element as its reference."""
    function = next((up for up in node.up() if up.is_function), None)
    return function is not None and place_of(function)[0] == "reference"


@reader("props-whole")
def _props_whole(facts: ClassFacts, use: Receiver, node: Node) -> None:
    _whole_read(facts, use, node, "props")


@reader("state-whole")
def _state_whole(facts: ClassFacts, use: Receiver, node: Node) -> None:
    _whole_read(facts, use, node, "state")


Source = Literal["props", "state", "context"]
_WRITTEN: dict[Source, str] = {
    "props": "input-written",
    "state": "state-written-directly",
    "context": "context-read",
}


def _whole_read(facts: ClassFacts, use: Receiver, node: Node, source: Source) -> None:
    if is_write(node):
        leave(facts, node, _WRITTEN[source])
        return
    deferred = facts.deferred(node)
    snapshot = use.alias is not None and use.means != "this"
    if snapshot and use.alias is not None and deferred and not facts.deferred(use.alias):
        if not in_reference(node):
            leave(facts, node, "snapshot-alias")
            return
        deferred = False
    span = facts.span(node)
    add(facts, node, f"{source}-whole", lambda entry: WholeRead(span, entry, deferred, source))


@reader("state-draft")
def _state_draft(facts: ClassFacts, use: Receiver, node: Node) -> None:
    assignment = node.parent
    span = facts.span(node)
    form: Literal["made", "result", "named"] = "named"
    if assignment is not None and len(facts.made) == 1 and facts.made[0] is assignment.parent:
        value = assignment.child("right")
        form = "made"
        if value is not None and assignment.parent is not None:
            if assignment.parent.end >= facts.draft[1]:
                form, span = "result", facts.tree.source.span(node.start, value.start)
    add(facts, node, "state-draft", lambda entry: DraftState(span, entry, False, form))
    facts.raws[-1].span = span


@reader("context-whole")
def _context_whole(facts: ClassFacts, use: Receiver, node: Node) -> None:
    if facts.context:
        _whole_read(facts, use, node, "context")
    else:
        leave(facts, node, "context-read")


@reader("unknown-use")
def _unknown_use(facts: ClassFacts, use: Receiver, node: Node) -> None:
    part = node.child("property")
    name = (property_name(part) if part is not None else None) or ""
    if name == "constructor" and _asks_own_static(facts, node):
        span, deferred = facts.span(node), facts.deferred(node)
        add(facts, node, "own-static", lambda entry: Itself(span, entry, deferred))
        return
    rule = "instance-escapes" if name == "constructor" else "unknown-use"
    leave(facts, node, rule, f"this.{name}")


def _asks_own_static(facts: ClassFacts, node: Node) -> bool:
    """Whether the class reads a static of its own under its own name, and nothing else."""
    above, itself = node.parent, facts.itself
    if above is None or itself is None:
        return False
    if facts.names.scope_at(node).find(itself.name) is not itself:
        return False
    target = above.child("name") if above.type == "variable_declarator" else None
    if target is not None and target.type == "object_pattern":
        keys = [property_name(part.child("key") or part) for part in target.named_children]
        return all(key in facts.statics for key in keys)
    return (
        above.type == "member_expression"
        and node.field == "object"
        and member_name(above) in facts.statics
        and not is_write(above)
    )


_BEFORE_DRAWING = frozenset(
    (
        "constructor componentWillMount UNSAFE_componentWillMount componentWillReceiveProps "
        "UNSAFE_componentWillReceiveProps render"
    ).split()
)


@reader("redraw")
def _redraw(facts: ClassFacts, use: Receiver, node: Node) -> None:
    call = node.parent
    arguments = call.child("arguments") if call is not None else None
    where = call.parent.type if call is not None and call.parent is not None else ""
    member = facts.root_of(node)
    name = member.child("name") if member.type == "method_definition" else None
    maker = next((up for up in node.up() if up.is_function), None)
    early = maker is member and name is not None and name.text in _BEFORE_DRAWING
    if (
        call is None or arguments is None or node.field != "function" or early
        or arguments.named_children or where not in ("expression_statement", "arrow_function")
    ):  # fmt: skip
        leave(facts, node, "forced-update", "this.forceUpdate")
        return
    span, deferred = facts.span(call), facts.deferred(node)
    add(facts, call, "redraw", lambda entry: Redraw(span, entry, deferred))
