"""Lifecycle hooks of a class as those of the neutral component."""

from __future__ import annotations

from dataclasses import replace

from clean_carry.component.code import Code, Member
from clean_carry.component.moments import Guard, Moment, MomentName, Previous
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import last_name, property_name
from clean_carry.syntaxes.jsx_class.members.no_change_analysis import idle
from clean_carry.syntaxes.jsx_class.members.notions import HOOKS, function_of
from clean_carry.syntaxes.jsx_class.uses.instance_leaks import is_finder
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts

MOMENTS: dict[str, MomentName] = {
    "componentDidMount": "displayed",
    "componentDidUpdate": "updated",
    "componentWillUnmount": "removed",
    "componentWillMount": "starting",
    "UNSAFE_componentWillMount": "starting",
    "componentWillReceiveProps": "received",
    "UNSAFE_componentWillReceiveProps": "received",
    "componentWillUpdate": "updating",
    "UNSAFE_componentWillUpdate": "updating",
}


def moment(facts: ClassFacts, member: Node, name: str, notes: tuple[Span, ...]) -> Moment:
    """Read one hook. The body is what stands between its braces."""
    entry = facts.ledger.claim(HOOKS[name], facts.span(member))
    member = function_of(member)
    body = member.child("body")
    assert body is not None
    expression = body.type != "statement_block"
    parameters = member.child("parameters")
    given = parameters.named_children if parameters is not None else []
    previous: list[Previous | None] = [None, None]
    if name == "componentDidUpdate":
        for at, parameter in enumerate(given[:2]):
            previous[at] = _previous(facts, member, parameter)
        if len(given) > 2 and _previous(facts, member, given[2]) is not None:
            facts.refuse("snapshot-before-update", "", given[2].start)
    elif MOMENTS[name] in ("received", "updating"):
        known = 2 if MOMENTS[name] == "updating" else 1
        for at, parameter in enumerate(given[:known]):
            previous[at] = _to_come(facts, member, parameter)
        for other in given[known:]:
            if _previous(facts, member, other) is not None:
                facts.refuse("legacy-hook", f"{name} reads the context to come", other.start)
    if MOMENTS[name] == "updating":
        patterns = [_pattern_of(parameter) for parameter in given[:2]]
        if not idle(body, *patterns, with_state=True):
            facts.refuse("legacy-hook", f"{name} acts though nothing changed", member.start)
    code = facts.code(facts.span(body) if expression else inside(facts, body))
    scope = facts.names.inner_scope(member)
    own = frozenset(scope.names) if scope is not None else frozenset()
    facts.locals_at[entry] = frozenset(
        (local, binding.node.start) for local, binding in (scope.names.items() if scope else ())
    )
    statements = [body] if expression else body.named_children
    single = len(statements) == 1 and (expression or statements[0].type == "expression_statement")
    return Moment(
        MOMENTS[name],
        code,
        entry,
        previous[0],
        previous[1],
        _guard(facts, body, code, previous)
        if name == "componentDidUpdate" and not member.has("async") and not expression
        else None,
        _reaches_end(body),
        own,
        frozenset(n.text for n in body.walk() if n.type.endswith("identifier")),
        idle(body, _pattern_of(given[0]) if given else None)
        if MOMENTS[name] == "received"
        else not member.has("async") and _acts_on_change(body, given, previous),
        single,
        notes,
        calls_imports=_calls_imports(facts, body),
        asynchronous=member.has("async"),
        hoists=MOMENTS[name] in ("starting", "received", "updating") and _hoists(body),
        expression=expression,
        one_call=_is_one_call(body, typed=facts.tree.typed and not facts.tree.annotated),
    )


# Calls that end timers, frames, listeners and observers return nothing (HTML §8.6 and §8.11, DOM §2.7).
_GIVE_NOTHING = frozenset(
    (
        "clearTimeout clearInterval cancelAnimationFrame cancelIdleCallback removeEventListener "
        "removeListener disconnect abort clear"
    ).split()
)


def _is_one_call(body: Node, *, typed: bool) -> bool:
    """Whether a body is one call; in a typed file one whose result a clean-up may give back."""
    statements = body.named_children
    call = body
    if body.type == "statement_block":
        if len(statements) != 1 or statements[0].type != "expression_statement":
            return False
        call = statements[0].named_children[0]
    if call.type != "call_expression":
        return False
    return not typed or last_name(call.child("function")) in _GIVE_NOTHING


def _to_come(facts: ClassFacts, member: Node, parameter: Node) -> Previous | None:
    """Yield the next props or state that a hook reads, each use claimed."""
    came = _previous(facts, member, parameter)
    if came is None:
        return None
    claim = facts.ledger.claim
    uses = tuple((span, claim("receipt-parameter", span)) for span, _ in came.uses)
    return replace(came, uses=uses)


def _hoists(body: Node) -> bool:
    """Whether a name is declared that all of the function around has."""
    stack = list(body.children)
    while stack:
        here = stack.pop()
        if here.type == "variable_declaration":
            return True
        if not here.is_function:
            stack.extend(here.children)
    return False


def _calls_imports(facts: ClassFacts, body: Node, seen: frozenset[str] = frozenset()) -> bool:
    """Whether the body calls a function of another file at once, itself or through own methods."""
    for call in body.walk():
        if call.type != "call_expression" or facts.deferred(call):
            continue
        base = call.child("function")
        if base is not None and is_finder(facts, base):
            continue
        part = base.child("property") if base is not None else None
        if part is not None and base is not None and base.children[0].type == "this":
            if (
                part.text in facts.methods - seen
                and (own := _body_of(facts, part.text)) is not None
            ):
                if _calls_imports(facts, own, seen | {part.text}):
                    return True
            continue
        while base is not None and base.type == "member_expression":
            base = base.children[0]
        binding = facts.names.meaning(base) if base is not None else None
        if binding is not None and binding.kind == "import":
            return True
    return False


def _body_of(facts: ClassFacts, name: str) -> Node | None:
    """The body of an own method."""
    body = facts.node.child("body")
    for member in body.named_children if body is not None else ():
        named = member.child("name")
        if named is not None and named.text == name:
            value = member.child("value") or member
            return value.child("body")
    return None


def _pattern_of(parameter: Node) -> Node:
    pattern = parameter.child("pattern")
    return pattern if pattern is not None else parameter


def inside(facts: ClassFacts, body: Node) -> Span:
    """Return the text between two braces."""
    return facts.tree.source.span(body.start + 1, body.end - 1)


def _previous(facts: ClassFacts, member: Node, parameter: Node) -> Previous | None:
    """Return the earlier values that an update hook reads from its parameter; None if it reads none."""
    pattern = _pattern_of(parameter)
    scope = facts.names.inner_scope(member)
    assert scope is not None
    if pattern.type == "object_pattern":
        return Previous(pattern.text, _pattern_names(pattern))
    binding = scope.names.get(pattern.text)
    if pattern.type != "identifier" or binding is None:
        return Previous(pattern.text, None)
    if not binding.references:
        return None
    found: list[str] = []
    uses = tuple((facts.span(ref), -1) for ref in binding.references)
    for ref in binding.references:
        above = ref.parent
        part = above.child("property") if above is not None else None
        if above is not None and above.type == "member_expression" and part is not None:
            if ref.field == "object":
                found.append(part.text)
                continue
        if above is not None and above.type == "variable_declarator" and ref.field == "value":
            target = above.child("name")
            names = _pattern_names(target) if target is not None else None
            if names is not None:
                found.extend(names)
                continue
        return Previous(pattern.text, None, uses)
    return Previous(pattern.text, tuple(dict.fromkeys(found)), uses)


def _pattern_names(pattern: Node) -> tuple[str, ...] | None:
    if pattern.type != "object_pattern":
        return None
    found: list[str] = []
    for part in pattern.named_children:
        if part.type == "shorthand_property_identifier_pattern":
            found.append(part.text)
        elif part.type == "pair_pattern":
            key = part.child("key")
            name = property_name(key) if key is not None else None
            if name is None:
                return None
            found.append(name)
        else:
            return None
    return tuple(found)


def _reaches_end(body: Node) -> bool:
    stack = list(body.children)
    while stack:
        here = stack.pop()
        if here.type in ("return_statement", "throw_statement"):
            return False
        if not here.is_function:
            stack.extend(here.children)
    return True


def _acts_on_change(body: Node, given: list[Node], previous: list[Previous | None]) -> bool:
    """Whether an update hook does nothing where neither inputs nor state changed."""
    if _compares_only(body, previous):
        return True
    patterns = [_pattern_of(parameter) for parameter in given[:2]]
    return bool(patterns) and idle(body, *patterns, with_state=True)


def _compares_only(body: Node, previous: list[Previous | None]) -> bool:
    """Whether every statement is an `if` for a change, so that a render without one does nothing."""
    for statement in body.named_children:
        if statement.type == "lexical_declaration":
            if any(
                not n.named_children[-1].type.endswith("expression")
                for n in statement.named_children
            ):
                return False
            if any(below.type == "call_expression" for below in statement.walk()):
                return False
            continue
        if statement.type != "if_statement" or statement.child("alternative") is not None:
            return False
        condition = statement.child("condition")
        parts = list(condition.named_children) if condition is not None else []
        asks = False
        while parts:
            part = parts.pop()
            if part.type == "parenthesized_expression" or (
                part.type == "binary_expression" and part.has("&&")
            ):
                parts.extend(part.named_children)
            elif part.type == "binary_expression" and part.has("!=="):
                asks = asks or any(_previous_read(s, previous) for s in part.named_children)
        if not asks:
            return False
    return True


def _guard(
    facts: ClassFacts, body: Node, code: Code, previous: list[Previous | None]
) -> Guard | None:
    """The body as one `if (before.x !== this.props.x) { … }`, where it is nothing else."""
    statements = body.named_children
    if len(statements) != 1 or statements[0].type != "if_statement":
        return None
    statement = statements[0]
    condition, then = statement.child("condition"), statement.child("consequence")
    if statement.child("alternative") is not None or condition is None or then is None:
        return None
    test = condition.named_children[0]
    if then.type != "statement_block" or test.type != "binary_expression" or not test.has("!=="):
        return None
    sides = [test.child("left"), test.child("right")]
    before = [s for s in sides if s is not None and _previous_read(s, previous) is not None]
    now = [s for s in sides if s is not None and s.text.startswith("this.")]
    if len(before) != 1 or len(now) != 1:
        return None
    member = _previous_read(before[0], previous)
    assert member is not None
    holder = "props" if member.kind == "prop" else "state"
    if now[0].text != f"this.{holder}.{member.name}":
        return None
    inner = inside(facts, then)
    uses = [p.parameter for p in previous if p is not None]
    for below in then.walk():
        if below.type == "identifier" and below.text in uses:
            return None
    operations = tuple(
        o for o in code.operations if inner.start <= o.span.start and o.span.end <= inner.end
    )
    entry = facts.ledger.claim("guarded-update", facts.span(statement))
    facts.ledger.claim("code", inner, "kept")
    notes = tuple(facts.span(note) for note in comments.leading(facts.tree, statement))
    return Guard((member,), Code(inner, operations), entry, notes)


def _previous_read(node: Node, previous: list[Previous | None]) -> Member | None:
    if node.type != "member_expression" or node.children[0].type != "identifier":
        return None
    part = node.child("property")
    for kind, known in zip(("prop", "state"), previous, strict=True):
        if known is not None and known.parameter == node.children[0].text and part is not None:
            return Member("prop" if kind == "prop" else "state", part.text)
    return None
