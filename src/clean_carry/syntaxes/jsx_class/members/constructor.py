"""The constructor of a component class: state, instance fields and bound methods."""

from __future__ import annotations

from clean_carry.component.members import State
from clean_carry.component.moments import Moment
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Binding
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name, runs_code
from clean_carry.syntaxes.jsx_class.bases.heritage import is_base_call
from clean_carry.syntaxes.jsx_class.members.members import (
    Gathered,
    add_field,
    is_element_reference,
    read_state,
    reads,
)
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts


def assigned(statement: Node) -> tuple[str, Node] | None:
    """(name, value) of `this.name = value;`."""
    if statement.type != "expression_statement":
        return None
    assignment = statement.named_children[0]
    if assignment.type != "assignment_expression":
        return None
    target, value = assignment.child("left"), assignment.child("right")
    if target is None or value is None or target.type != "member_expression":
        return None
    part = target.child("property")
    name = property_name(part) if part is not None else None
    if target.children[0].type != "this" or name is None:
        return None
    return name, value


def bound_method(statement: Node) -> str | None:
    """The method of `this.m = this.m.bind(this);`."""
    found = assigned(statement)
    if found is None:
        return None
    name, value = found
    if "".join(value.text.split()) == f"this.{name}.bind(this)":
        return name
    return None


def wraps_method(pair: tuple[str, Node] | None, methods: set[str]) -> bool:
    """Whether `this.m = debounce(this.m.bind(this), …)` puts what a function makes of a method in its
    place."""
    if pair is None or pair[0] not in methods or pair[1].type != "call_expression":
        return False
    callee, arguments = pair[1].child("function"), pair[1].child("arguments")
    if callee is None or arguments is None or callee.text.startswith("this."):
        return False
    plain = {f"this.{pair[0]}", f"this.{pair[0]}.bind(this)"}
    return any("".join(given.text.split()) in plain for given in arguments.named_children)


def prepare(facts: ClassFacts, constructor: Node | None, names_of_methods: set[str]) -> set[str]:
    """Before anything is read: fields the constructor makes, and the methods it binds."""
    bound: set[str] = set()
    draft = drafting(facts, constructor, names_of_methods)
    if draft:
        facts.draft = (draft[0].start, draft[-1].end)
        facts.made = [
            statement for statement in draft if (assigned(statement) or ("",))[0] == "state"
        ]
        if _assignments_of_state(draft) != len(facts.made):
            facts.made = []
    rest = [] if draft else _rest(facts, constructor, names_of_methods)
    for statement in _statements(constructor):
        if statement in draft:
            continue
        name = bound_method(statement)
        if name is not None and name in names_of_methods:
            bound.add(name)
            for below in statement.walk():
                if below.type == "this":
                    facts.handled.add(id(below))
            continue
        found = assigned(statement)
        if found is not None:
            assignment = statement.named_children[0]
            target = assignment.child("left")
            assert target is not None
            if wraps_method(found, names_of_methods):
                facts.wrapped[found[0]] = found[1]
                facts.handled.add(id(target.children[0]))
                facts.fields.add(found[0])
            elif found[0] not in names_of_methods:
                if statement not in rest:
                    facts.handled.add(id(target.children[0]))
                if found[0] != "state":
                    facts.fields.add(found[0])
    return bound


def drafting(facts: ClassFacts, constructor: Node | None, methods: set[str]) -> list[Node]:
    """The statements that make the state together, where it takes more than plain assignments.

    Plain assignments of fields before and after them stay apart, as long as they use no local name.
    """
    statements = [s for s in _statements(constructor) if s.type != "comment"]
    scope = facts.names.inner_scope(constructor) if constructor is not None else None
    parameters = constructor.child("parameters") if constructor is not None else None
    own = {
        name
        for name, binding in (scope.names.items() if scope is not None else ())
        if parameters is None or not parameters.start <= binding.node.start < parameters.end
    }

    def apart(statement: Node) -> bool:
        if is_base_call(statement) or (bound_method(statement) or "") in methods:
            return True
        found = assigned(statement)
        if found is None or (found[0] in methods and not wraps_method(found, methods)):
            return False
        return not _uses(found[1], own)

    def plain(statement: Node) -> bool:
        found = assigned(statement)
        return apart(statement) and (found is None or found[0] != "state")

    if all(apart(statement) for statement in statements) or _stands_alone(statements, own):
        return []
    first, last = 0, len(statements)
    while first < last and plain(statements[first]):
        first += 1
    while last > first and plain(statements[last - 1]):
        last -= 1
    inside = statements[first:last]
    unsafe = any(
        is_base_call(s) or (bound_method(s) or "") in methods or _returns(s) for s in inside
    )
    return [] if unsafe or _assignments_of_state(inside) == 0 else inside


def _stands_alone(statements: list[Node], own: set[str]) -> bool:
    """Whether the state is one literal that nothing else in the constructor has to do with."""
    made = [s for s in statements if (assigned(s) or ("",))[0] == "state"]
    if len(made) != 1:
        return False
    others = [s for s in statements if s is not made[0] and not is_base_call(s)]
    value = assigned(made[0])[1]  # type: ignore[index]
    if runs_code(value) or _uses(value, own):
        return False
    return not any(
        below.type == "member_expression" and below.text == "this.state"
        for statement in others
        for below in statement.walk()
    )


def _uses(value: Node, own: set[str]) -> bool:
    """Whether a value uses one of these names."""
    kinds = ("identifier", "shorthand_property_identifier")
    return any(below.type in kinds and below.text in own for below in value.walk())


def _returns(statement: Node) -> bool:
    return any(
        below.type == "return_statement" and not _within_function(below, statement)
        for below in statement.walk()
    )


def _within_function(node: Node, top: Node) -> bool:
    for above in node.up() if node is not top else ():
        if above is top:
            return False
        if above.is_function:
            return True
    return False


def _assignments_of_state(statements: list[Node]) -> int:
    """How often the state as a whole is given a value."""
    return sum(
        below.type == "assignment_expression" and below.children[0].text == "this.state"
        for statement in statements
        for below in statement.walk()
    )


def _statements(constructor: Node | None) -> list[Node]:
    body = constructor.child("body") if constructor is not None else None
    return body.named_children if body is not None else []


@reads("constructor")
def _constructor(gathered: Gathered, member: Node, name: str) -> None:
    facts = gathered.facts
    entry = facts.ledger.claim("constructor", facts.span(member))
    facts.ledger.settle(entry, "carried", "constructor-to-body")
    draft = drafting(facts, member, facts.methods)
    if draft:
        _read_draft(gathered, draft)
    rest = [] if draft else _rest(facts, member, facts.methods)
    for run in _runs(rest, member):
        _read_run(gathered, run, rest, member)
    for statement in _statements(member):
        if statement in draft or statement in rest:
            continue
        span = facts.span(statement)
        notes: tuple[Span, ...] = tuple(
            facts.span(c)
            for c in comments.leading(facts.tree, statement)
            + comments.trailing(facts.tree, statement)
        )
        if is_base_call(statement):
            _drop(facts, "base-constructor-call", span)
            continue
        method = bound_method(statement)
        if method is not None and method in gathered.bound:
            _drop(facts, "method-bound-in-constructor", span)
            continue
        found = assigned(statement)
        if found is None or (found[0] in facts.methods and found[0] not in facts.wrapped):
            facts.refuse("constructor-code", statement.text[:60], statement.start)
            continue
        target, value = found
        if target == "state":
            key = facts.ledger.claim("state-field", span)
            read_state(gathered, value, key, notes)
            continue
        known = [f for f in gathered.fields if f.name == target.lstrip("#")]
        if known:
            declared = known[0]
            if declared.code is not None:
                facts.refuse("constructor-code", statement.text[:60], statement.start)
                continue
            gathered.fields.remove(declared)
            facts.ledger.settle(declared.entry, "carried", "field-to-reference")
            notes = declared.comments + notes
        key = facts.ledger.claim("instance-field", span)
        kind = known[0].type_text if known else ""
        add_field(gathered, target, value, key, notes, kind)


def _rest(facts: ClassFacts, constructor: Node | None, methods: set[str]) -> list[Node]:
    """The statements that are no plain assignment, no binding, and not the base's call.

    A field whose value needs the rest, because code runs for it after other code did, because it asks a
    method, or because it uses a name or a field of the rest, is filled with the rest.
    """
    found: list[Node] = []
    scope = facts.names.inner_scope(constructor) if constructor is not None else None
    names = scope.names if scope is not None else {}
    for statement in _statements(constructor):
        if statement.type == "comment" or is_base_call(statement):
            continue
        if bound_method(statement) is not None and bound_method(statement) in methods:
            continue
        pair = assigned(statement)
        if (
            pair is None
            or (pair[0] in methods and not wraps_method(pair, methods))
            or (pair[0] != "state" and _asks(pair[1], methods))
            or (pair[0] != "state" and found and _needs(pair[1], found, names))
        ):
            found.append(statement)
    return found


def _needs(value: Node, before: list[Node], names: dict[str, Binding]) -> bool:
    """Whether a value needs the statements before it."""
    own = {
        name
        for name, binding in names.items()
        if any(part.start <= binding.node.start < part.end for part in before)
    }
    return runs_code(value) or _reads_instance(value) or _uses(value, own)


def _asks(value: Node, methods: set[str]) -> bool:
    """Whether a value is made by calling an own method at once."""
    return any(
        below.type == "call_expression"
        and not _within_function(below, value)
        and (callee := below.child("function")) is not None
        and callee.type == "member_expression"
        and callee.children[0].type == "this"
        and callee.children[-1].text in methods
        for below in value.walk()
    )


def _runs(rest: list[Node], constructor: Node) -> list[list[Node]]:
    """The statements in runs that nothing else stands between."""
    runs: list[list[Node]] = []
    before: Node | None = None
    for statement in _statements(constructor):
        if statement.type == "comment":
            continue
        if statement in rest:
            if before is not None and before in rest:
                runs[-1].append(statement)
            else:
                runs.append([statement])
        before = statement
    return runs


def _reads_instance(value: Node) -> bool:
    """Whether a value reads anything of the instance but its inputs at once."""
    return any(
        below.type == "this"
        and below.parent is not None
        and not below.parent.text.startswith("this.props")
        and not _within_function(below, value)
        for below in value.walk()
    )


def _read_run(gathered: Gathered, run: list[Node], rest: list[Node], constructor: Node) -> None:
    """Other code of the constructor: it runs once, when the component is made.

    It would run behind all state and fields, so nothing after it may run code for one of these, or read
    what it may have made; nor may a name it declares be used elsewhere.
    """
    facts = gathered.facts
    start, end = run[0].start, run[-1].end
    scope = facts.names.inner_scope(constructor)
    body = constructor.child("body")
    inner = facts.names.inner_scope(body) if body is not None else None
    own = {**(scope.names if scope else {}), **(inner.names if inner else {})}
    shared = any(
        (start <= binding.node.start < end) != (start <= ref.start < end)
        for binding in own.values()
        if binding.kind != "param"
        for ref in binding.references
    )
    after = [s for s in _statements(constructor) if s.start >= end and s not in rest]
    values = [pair[1] for s in after if bound_method(s) is None and (pair := assigned(s))]
    early = any(is_base_call(s) for s in after)
    replaced = any((assigned(s) or ("",))[0] in facts.methods for s in run)
    needed = any(runs_code(value) or _reads_instance(value) for value in values)
    if shared or early or replaced or needed or any(_returns(s) for s in run):
        facts.refuse("constructor-code", run[0].text[:60], start)
        return
    single = (
        len(run) == 1
        and run[0].type == "expression_statement"
        and not run[0].named_children[0].type.endswith("assignment_expression")
    )
    notes = tuple(facts.span(note) for note in comments.leading(facts.tree, run[0]))
    span = facts.span(run[0].named_children[0]) if single else facts.tree.source.span(start, end)
    key = facts.ledger.claim("constructor-code", span)
    names = frozenset(b.name for b in own.values() if start <= b.node.start < end)
    gathered.members.append(
        Moment(
            "made", facts.code(span), key, locals=names, single_expression=single, comments=notes
        )
    )


def _read_draft(gathered: Gathered, draft: list[Node]) -> None:
    """The state by the statements that make it."""
    facts = gathered.facts
    span = facts.tree.source.span(draft[0].start, draft[-1].end)
    if gathered.state is not None:
        facts.refuse("state-set-twice", "", draft[0].start)
        return
    gathered.made.append("state")
    key = facts.ledger.claim("state-made", span)
    notes = tuple(facts.span(note) for note in comments.leading(facts.tree, draft[0]))
    code = facts.code(span)
    gathered.state = State(None, code, True, gathered.state_type, key, notes, body=True)


def _drop(facts: ClassFacts, rule: str, span: Span) -> None:
    facts.ledger.settle(facts.ledger.claim(rule, span), "dropped", rule)


def element_fields(gathered: Gathered, constructor: Node | None) -> set[str]:
    """Names of fields the constructor fills with an element reference."""
    found: set[str] = set()
    for statement in _statements(constructor):
        pair = assigned(statement)
        if pair is not None and is_element_reference(gathered.runtime, gathered.facts, pair[1]):
            found.add(pair[0])
    return found
