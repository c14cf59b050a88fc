"""Reads of state behind a write in the same code, `this.setState({ n: 1 }); use(this.state.n)`.

In a class they give the old value: the runtime applies writes once that code is done (its reference,
`setState`). In the target they would give the new one, so the old value gets a name before the write.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from clean_carry.component.code import Kept, Member, MethodCall, Operation, Read, StateWrite
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name, plain_fields
from clean_carry.syntaxes.jsx.facts import JsxFacts
from clean_carry.syntaxes.uses import Raw


def keep_earlier(facts: JsxFacts) -> None:
    """Mark such reads, and the writes before which the value is kept."""
    writes = [raw for raw in facts.raws if raw.notion in ("state-write", "dispatch")]
    if not writes:
        return
    at = {(n.start, n.end): n for n in facts.tree.of("call_expression", "member_expression",
          "identifier", "shorthand_property_identifier", "pair")}  # fmt: skip
    done = _Kept(facts)
    for raw in sorted(writes, key=lambda one: one.span.start):
        node = at.get((raw.span.start, raw.span.end))
        function = _function(node) if node is not None else None
        if node is None or function is None:
            continue
        written = frozenset({raw.member}) if raw.member else _written(node)
        for other in facts.raws:
            if not raw.span.end <= other.span.start < function.end:
                continue
            place = at.get((other.span.start, other.span.end))
            if place is None or _function(place) is not function or _waited(function, node, place):
                continue
            found = _use(other)
            if isinstance(found, Read) and _may_change(facts, found.member, written):
                _keep(done, raw, other, found.member, (node, place))
            elif isinstance(found, MethodCall) and _reads(
                facts, other.member, written, frozenset()
            ):
                facts.refuse("old-value-read", f"{other.member}() reads it", other.span.start)


@dataclass
class _Kept:
    """The values that are kept so far: the block in which each has a name, and the member. Where one is in
    force no other is kept: the first is that of the render."""

    facts: JsxFacts
    places: list[tuple[int, int, Member]] = field(default_factory=list)

    def __post_init__(self) -> None:
        for raw in self.facts.raws:
            if raw.notion == "kept" and isinstance(found := raw.build(-1), Kept):
                for member in found.members:
                    self.add(self._block(raw.span.start - 1), member)

    def _block(self, start: int) -> Node:
        return next(one for one in self.facts.tree.of("statement_block") if one.start == start)

    def add(self, block: Node, member: Member) -> None:
        self.places.append((block.start, block.end, member))

    def holds(self, member: Member, nodes: tuple[Node, Node]) -> bool:
        function = _function(nodes[1])
        first = function.start if function is not None else 0
        return any(
            first <= start and all(start <= node.start < end for node in nodes) and one == member
            for start, end, one in self.places
        )


_USES = frozenset({"state-read", "derived-read", "method-call", "getter"})


def _may_change(facts: JsxFacts, member: Member, written: frozenset[str] | None) -> bool:
    """Whether a write of these fields may give a member another value."""
    if member.kind == "derived":
        return written is None or facts.depends(member.name, written)
    return member.kind == "state" and (written is None or member.name in written)


def _use(raw: Raw) -> Operation | None:
    """A read of state, or a call of a method."""
    return raw.build(-1) if raw.notion in _USES else None


def _written(call: Node) -> frozenset[str] | None:
    """The fields a write changes; None where any may be."""
    arguments = call.child("arguments")
    given = arguments.named_children[0] if arguments is not None else call
    if given.type == "arrow_function":
        body = given.child("body")
        given = body if body is not None else given
    while given.type == "parenthesized_expression":
        given = given.named_children[0]
    fields = plain_fields(given) if given.type == "object" else None
    return frozenset(name for name, _ in fields) if fields is not None else None


def _function(node: Node) -> Node | None:
    return next((up for up in node.up() if up.is_function), None)


def _waited(function: Node, first: Node, second: Node) -> bool:
    """Whether the function awaits between two places, so that everything is rendered by then."""
    return any(
        below.type == "await_expression" and first.end <= below.end <= second.start
        for below in function.walk()
    )


def _keep(done: _Kept, write: Raw, read: Raw, member: Member, nodes: tuple[Node, Node]) -> None:
    """Keep the value before the write, or where that is inside of a branch, at the start of the
    function."""
    facts, statement = done.facts, nodes[0].parent
    block = statement.parent if statement is not None else None
    if block is None or _leaves(nodes[0], nodes[1]):
        return
    around = block.start <= nodes[1].start < block.end
    function = _function(nodes[1])
    body = function.child("body") if function is not None else None
    held = write.notion == "state-write"
    if done.holds(member, nodes):
        pass
    elif held and statement is not None and statement.type == "expression_statement" and around:
        done.add(block, member)
        build = write.build

        def with_kept(entry: int) -> StateWrite:
            made = build(entry)
            assert isinstance(made, StateWrite)
            return replace(made, keeps=tuple(dict.fromkeys((*made.keeps, member))))

        write.build = with_kept
    elif (
        function is None
        or body is None
        or body.type != "statement_block"
        or _waited(function, body.children[0], nodes[1])
    ):
        facts.refuse("old-value-read", member.name, read.span.start)
        return
    else:
        done.add(body, member)
        keep_at_start(facts, body, member)
    reading = read.build

    def earlier(entry: int) -> Read:
        made = reading(entry)
        assert isinstance(made, Read)
        return replace(made, earlier=True)

    read.build = earlier


def keep_at_start(facts: JsxFacts, body: Node, member: Member) -> None:
    """Keep a value where a function begins."""
    span = facts.tree.source.span(body.start + 1, body.start + 1)
    known = next((raw for raw in facts.raws if raw.notion == "kept" and raw.span == span), None)
    if known is None:
        facts.raws.append(Raw(span, "kept", lambda entry: Kept(span, entry, False, (member,))))
        return
    build = known.build

    def more(entry: int) -> Kept:
        made = build(entry)
        assert isinstance(made, Kept)
        return replace(made, members=tuple(dict.fromkeys((*made.members, member))))

    known.build = more


def _leaves(write: Node, read: Node) -> bool:
    """Whether the branch a write stands in is left before the read is reached."""
    for block in write.up():
        if block.start <= read.start < block.end:
            then, other = block.child("consequence"), block.child("alternative")
            # One of two branches runs.
            return bool(
                block.type == "if_statement" and then is not None and other is not None
                and then.start <= write.start < then.end and other.start <= read.start < other.end
            )  # fmt: skip
        if block.type == "statement_block" and block.named_children:
            if block.named_children[-1].type in ("return_statement", "throw_statement"):
                return True
    return False


def refuse_repeated(facts: JsxFacts) -> None:
    """Refuse a method that computes a field from its old value and runs several times before a
    render: each run sees the same old value."""
    for name, member in facts.own_functions():
        if not _depends_on_itself(facts, member):
            continue
        calls = [raw for raw in facts.raws if raw.notion == "method-call" and raw.member == name]
        nodes = {(n.start, n.end): n for n in facts.tree.of("member_expression", "identifier")}
        found = [n for raw in calls if (n := nodes.get((raw.span.start, raw.span.end)))]
        functions = [id(_function(node)) for node in found]
        for node in found:
            if _repeated(node) or functions.count(id(_function(node))) > 1:
                facts.refuse("old-value-read", f"{name}() runs several times", node.start)
                return


def _depends_on_itself(facts: JsxFacts, member: Node) -> bool:
    written: set[str] = set()
    read: set[str] = set()
    nodes = {(n.start, n.end): n for n in facts.tree.of("call_expression")}
    for raw in facts.raws:
        if not member.start <= raw.span.start < member.end:
            continue
        if raw.notion == "state-write":
            written |= _written(nodes[(raw.span.start, raw.span.end)]) or set()
        elif isinstance(found := _use(raw), Read):
            read.add(found.member.name)
    return bool(written & read)


_ITERATING = frozenset("forEach map filter reduce some every flatMap".split())


def _repeated(node: Node) -> bool:
    """Whether code runs several times in one run of the member it stands in."""
    for above in node.up():
        if above.type in ("for_statement", "for_in_statement", "while_statement", "do_statement"):
            return True
        if above.type in ("jsx_attribute", "class_body"):
            return False
        if above.type == "arguments" and above.parent is not None:
            if last_name(above.parent.child("function")) in _ITERATING:
                return True
        kept = above.parent.type in ("pair", "variable_declarator") if above.parent else False
        if above.is_function and kept:
            # A function that is given on under a name runs when somebody calls it.
            return False
    return False


def _reads(
    facts: JsxFacts, method: str, written: frozenset[str] | None, seen: frozenset[str]
) -> bool:
    """Whether an own method reads one of these fields at once, itself or by another method."""
    if method in seen:
        return False
    member = facts.own_function(method)
    if member is None:
        return True
    for raw in facts.raws:
        if not member.start <= raw.span.start < member.end:
            continue
        found = _use(raw)
        if (
            isinstance(found, Read)
            and not found.deferred
            and _may_change(facts, found.member, written)
        ):
            return True
        elif isinstance(found, MethodCall) and not found.deferred:
            if _reads(facts, raw.member, written, seen | {method}):
                return True
    return False
