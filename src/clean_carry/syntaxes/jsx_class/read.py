"""Read the component classes of a file into the neutral component.

Three passes: collect the members, resolve names and receivers, build.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from clean_carry.component.code import Read
from clean_carry.component.ledger import Ledger
from clean_carry.component.members import InstanceField, Part, State
from clean_carry.component.model import (
    Component,
    Default,
    Elsewhere,
    Facts,
    Inputs,
    Language,
    Outward,
    Place,
    Prop,
    Refusal,
    View,
)
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Names, is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import (
    is_identifier,
    member_name,
    property_name,
)
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx.children import draws_reacting, sensitive_children
from clean_carry.syntaxes.jsx.runtime_names import runtime_names
from clean_carry.syntaxes.jsx_class.bases.heritage import OF_DEFAULTS_TOO, heritage_types
from clean_carry.syntaxes.jsx_class.class_file import ClassFile
from clean_carry.syntaxes.jsx_class.members import constructor as constructors
from clean_carry.syntaxes.jsx_class.members import contexts, derivations
from clean_carry.syntaxes.jsx_class.members.declared import declared_functions, own_statics
from clean_carry.syntaxes.jsx_class.members.defaults import defaults_of
from clean_carry.syntaxes.jsx_class.members.derived_state import derivation_of
from clean_carry.syntaxes.jsx_class.members.members import MEMBERS, Gathered, is_element_reference
from clean_carry.syntaxes.jsx_class.members.notions import notion_of
from clean_carry.syntaxes.jsx_class.members.optional_props import optional_props
from clean_carry.syntaxes.jsx_class.members.render_results import may_be_undefined
from clean_carry.syntaxes.jsx_class.neutral.drawing import Neutral
from clean_carry.syntaxes.jsx_class.recognise import Candidate, candidates
from clean_carry.syntaxes.jsx_class.uses import instance_leaks
from clean_carry.syntaxes.jsx_class.uses import method_uses as _method_uses  # noqa: F401  (registers readers)
from clean_carry.syntaxes.jsx_class.uses import state_writes as _state_writes  # noqa: F401  (registers readers)
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts, collect
from clean_carry.syntaxes.jsx_class.uses.outer_names import (
    asks_itself,
    drawing_locals,
    is_impure,
    reserved,
    taken_by,
)
from clean_carry.syntaxes.jsx_class.uses.outside_uses import outsiders_of
from clean_carry.syntaxes.jsx_class.uses.receivers import find
from clean_carry.syntaxes.jsx_class.uses.wrappers import Look, looked_into

FOR_CLASSES_DROP = "class-lifecycle-help"
_METHODS = ("prototype-method", "arrow-method", "getter", "setter")


def _key(name: str, notion: str) -> str:
    """The name of a member; that of a setter, which a getter may share, with a sign behind it."""
    return f"{name}=" if notion == "setter" else name


def read(
    tree: Tree,
    names: Names,
    ledger: Ledger,
    workspace: Workspace,
    keeping: frozenset[int] = frozenset(),
    *,
    neutral: bool = False,
) -> tuple[tuple[Component, ...], tuple[Refusal, ...]]:
    """Read every component class of a file; the rest of the file is claimed as kept.

    Classes that begin at an offset of `keeping` keep the defaults of their inputs as a property. `neutral`
    asks for what a target of another family can say: markup, events, slots.
    """
    runtime = runtime_names(tree)
    source = tree.source
    ledger.claim("module code", source.span(0, len(source.data)), "kept")
    file = ClassFile(tree, names, runtime, ledger, workspace, keeping, neutral)
    components: list[Component] = []
    refusals: list[Refusal] = []
    for candidate in candidates(tree, names, runtime, workspace):
        if candidate.refusal is not None:
            rule, detail = candidate.refusal
            refusals.append(Refusal(candidate.name, rule, detail, candidate.node.start))
            continue
        size = len(ledger.entries)
        component, facts = _read_class(file, candidate)
        if facts.refusals:
            rule, detail, at = min(facts.refusals, key=lambda r: r[2])
            refusals.append(Refusal(candidate.name, rule, detail, at))
            del ledger.entries[size:]
            continue
        components.append(component)
    return tuple(components), tuple(refusals)


def _read_class(file: ClassFile, candidate: Candidate) -> tuple[Component, ClassFacts]:
    node, ledger = candidate.node, file.ledger
    facts = ClassFacts(file.tree, file.names, ledger, node, keepers=file.keepers)
    body = node.child("body")
    assert body is not None
    size = len(ledger.entries)
    class_entry = ledger.claim("class", facts.span(candidate.place))
    members = [(m, *notion_of(m, file.tree.typed)) for m in body.named_children]
    gathered = Gathered(facts, file.runtime)
    facts.context = contexts.kind_of_context(members, candidate.siblings, candidate.name)
    facts.itself = candidate.binding
    facts.statics = own_statics(candidate, members)
    facts.functions = declared_functions(candidate, members)
    constructor = _collect(gathered, members, file)
    instance_leaks.mark_named(facts)
    given = [(constructor, ("props", "context"))] if constructor is not None else []
    for member, notion, _ in members:
        if notion == "derivation" and (found := derivation_of(member)) is not None:
            derivations.prepare(facts, found)
            given.append((member, ("props", "state")))
    receivers = find(file.tree, file.names, node, given)
    collect(facts, receivers)
    outsiders = outsiders_of(
        file.workspace.file, candidate.name, facts.methods - facts.getters,
        facts.fields | facts.getters, file.tree.source.slice(0, len(file.tree.source.data)),
    )  # fmt: skip
    if outsiders.extended:
        facts.refuse("extended-by", outsiders.extended, node.start)
    if outsiders.inside:
        asked = f"its field {min(outsiders.inside)}"
        facts.refuse("reached-from-outside", asked, node.start)
    gathered.elsewhere = tuple(Elsewhere("test-reaches-in", *place) for place in outsiders.tests)
    if (not file.tree.typed or file.tree.annotated) and facts.context != "old":
        gathered.exposed = _exposed(facts, members, outsiders.reached | outsiders.written)
        gathered.written_outside = outsiders.written
    elif outsiders.reached:
        name = min(outsiders.reached)
        facts.refuse("reached-from-outside", name, node.start)
    gathered.outside = _outside(facts, members, gathered.exposed)
    if file.neutral:
        gathered.neutral = Neutral(facts, members, receivers)
        gathered.neutral.prepare()
    gathered.entries["component"] = class_entry
    props_type, gathered.state_type = _types(node, members)
    order = sorted(members, key=lambda m: m[1] == "constructor")
    for member, notion, name in order:
        read_member = MEMBERS.get(notion)
        if read_member is not None:
            read_member(gathered, member, name)
    _claim_unread_members(facts, members, size)
    if gathered.drawing is None and not facts.refusals:
        facts.refuse("no-render", "", node.start)
        return _shell(file, candidate), facts
    if facts.refusals:
        return _shell(file, candidate), facts
    component = _assemble(file, candidate, gathered, props_type)
    _claim_comments(facts, node, gathered.neutral.drawn_comments if gathered.neutral else set())
    return component, facts


def _types(node: Node, members: list[tuple[Node, str, str]]) -> tuple[str, str]:
    """The types of inputs and state: those the base is given, else those of declared fields.

    A base that is given three was once given that of its defaults first.
    """
    types = [argument.text for argument in heritage_types(node)]
    if len(types) == OF_DEFAULTS_TOO:
        types = types[1:]
    declared = {
        name: kind.text.removeprefix(":").strip()
        for member, notion, name in members
        if notion == "type-field" and (kind := member.child("type")) is not None
    }
    props, state = (*types, "", "")[:2]
    return props or declared.get("props", ""), state or declared.get("state", "")


def _exposed(
    facts: ClassFacts, members: list[tuple[Node, str, str]], reached: frozenset[str]
) -> tuple[str, ...]:
    """Methods and getters for who holds a reference: those that nothing inside uses and that are not
    private by their name, and those the project is seen to reach. A function gives them out by one as
    well.
    """
    own = {_key(name, notion): member for member, notion, name in members if notion in _METHODS}
    used = {
        raw.member
        for raw in facts.raws
        if raw.member in own and not own[raw.member].start <= raw.span.start < own[raw.member].end
    }
    methods = tuple(
        name
        for name, member in own.items()
        if not name.endswith("=")
        if name in reached or (name not in used and name[:1] not in ("_", "#"))
        if is_identifier(name)
        if not any(below.type == "super" for below in member.walk())
    )
    return methods + tuple(sorted(facts.fields & reached - set(methods)))


def _outside(
    facts: ClassFacts, members: list[tuple[Node, str, str]], exposed: tuple[str, ...]
) -> frozenset[str]:
    """Methods and declared fields that nothing inside uses, and that are not exposed.

    A member that only such a method uses is as good as unused. The methods' text is skipped: it is left.
    """
    if facts.unread:
        return frozenset()
    regions: dict[str, Node] = {}
    for member, notion, name in members:
        if notion in (*_METHODS, "instance-field"):
            regions[_key(name, notion)] = member
    outside: set[str] = set()
    while True:
        used: set[str] = set()
        for raw in facts.raws:
            here = next((n for n, m in regions.items() if m.start <= raw.span.start < m.end), "")
            if raw.member and here not in outside and raw.member != here:
                used.add(raw.member)
        found = {
            name for name in regions if name not in used and name.removesuffix("=") not in exposed
        }
        if found == outside:
            break
        outside = found
    for name in outside:
        facts.skipped.append((regions[name].start, regions[name].end))
    _refuse_unused_names(facts)
    in_use = {raw.member for raw in facts.raws if not _skipped(facts, raw.span.start)}
    facts.fields &= in_use
    return frozenset(outside)


def _refuse_unused_names(facts: ClassFacts) -> None:
    """Names that only members left to a person use would stand unused: the class is refused."""
    if not facts.skipped:
        return
    for ref, binding in facts.names.references_in(facts.node):
        if binding is None or not _skipped(facts, ref.start) or _skipped(facts, binding.node.start):
            continue
        if all(_skipped(facts, other.start) for other in binding.references):
            facts.refuse("reached-from-outside", f"and only it uses {ref.text}", ref.start)


def _skipped(facts: ClassFacts, at: int) -> bool:
    return any(low <= at < high for low, high in facts.skipped)


def _claim_unread_members(
    facts: ClassFacts, members: list[tuple[Node, str, str]], size: int
) -> None:
    """Claim a member that no reader took, so that the ledger does not balance."""
    starts = {entry.span.start for entry in facts.ledger.entries[size:]}
    for member, _, _ in members:
        if member.start not in starts:
            facts.ledger.claim("unread member", facts.span(member))


def _shell(file: ClassFile, candidate: Candidate) -> Component:
    span = file.tree.source.span(candidate.place.start, candidate.place.end)
    return Component(candidate.name, Place(span, span, ""))


def _collect(
    gathered: Gathered, members: list[tuple[Node, str, str]], file: ClassFile
) -> Node | None:
    """First pass: the names of methods, fields and element references."""
    facts = gathered.facts
    constructor: Node | None = None
    for member, notion, name in members:
        if notion in ("prototype-method", "arrow-method", "getter"):
            if name in facts.methods:
                facts.refuse("member-twice", name, member.start)
            facts.methods.add(name)
            if notion == "getter":
                facts.getters.add(name)
        elif notion == "setter":
            facts.setters.add(name)
        elif notion == "type-field":
            continue
        elif notion in ("instance-field", "declared-field"):
            facts.fields.add(name)
            if is_element_reference(file.runtime, facts, member.child("value")):
                facts.elements.add(name)
        elif notion == "constructor":
            constructor = member
    gathered.bound = constructors.prepare(facts, constructor, facts.methods)
    facts.elements |= constructors.element_fields(gathered, constructor)
    body = facts.node.child("body")
    assert body is not None
    for this in file.tree.of("this"):
        parent = this.parent
        if parent is None or not (body.start <= this.start < body.end):
            continue
        part = parent.child("property") if parent.type == "member_expression" else None
        target = property_name(part) if part is not None else None
        if target and is_write(parent) and target not in facts.methods | facts.fields:
            if target not in ("state", "props", "context", "refs"):
                facts.fields.add(target)
    if "setState" in facts.methods or "props" in facts.methods:
        facts.refuse("member-twice", "setState", facts.node.start)
    return constructor


def _assemble(
    file: ClassFile, candidate: Candidate, gathered: Gathered, props_type: str
) -> Component:
    facts, node, drawing = gathered.facts, candidate.node, gathered.drawing
    assert drawing is not None
    defaults, moved, kept = defaults_of(file, candidate, gathered)
    optional = optional_props(file.tree, file.names, node, set(defaults))
    for span, _, _ in moved:
        for comment in comments.within(facts.tree, span.start, span.end):
            file.ledger.claim("comment", facts.span(comment), "kept")
    contexts.outside(facts, gathered, candidate.siblings, candidate.name)
    elsewhere = taken_by(gathered, _beside_drawing(node, drawing))
    neutral = gathered.neutral
    pure = candidate.pure and not gathered.draws_always
    view = View(pure=pure) if neutral is not None else _view(gathered, drawing, pure=pure)
    look = _looked_into(file, candidate, facts)
    place = _place(file, candidate, gathered, moved, look)
    called, callable_state = _called(facts)
    known = Facts(
        reserved=reserved(facts, elsewhere | taken_by(gathered, [drawing]), defaults),
        module_names=frozenset(
            name for scope in file.names.scope_at(candidate.place).chain() for name in scope.names
        ),
        taken_elsewhere=elsewhere,
        locals_at=facts.locals_at,
        sensitive=sensitive_children(file.tree, file.names, file.workspace),
        unfollowed=tuple(facts.unfollowed.items()),
        handed_on=(look.name, look.at) if look is not None and look.way == "unknown" else None,
        looked_into=(look.name, look.at) if look is not None and look.way != "unknown" else None,
        elsewhere=gathered.elsewhere,
        called=called,
        callable_state=callable_state,
    )
    generics = node.child("type_parameters")
    parameters = facts.span(generics) if generics is not None else None
    type_text = optional.inline or props_type
    inputs = Inputs((), type_text, optional.marks, optional.names, parameters, kept)
    component = Component(
        candidate.name,
        place,
        inputs,
        Outward(exposed=gathered.exposed, written_outside=gathered.written_outside),
        _all_members(gathered),
        view,
        Language(file.tree.typed, file.tree.annotated),
        facts=known,
        entries=gathered.entries,
        comments=gathered.drawing_comments,
    )
    if neutral is not None:
        return neutral.completed(component, lambda drawn: _props(drawn, defaults))
    # Only such writes may render too often or too seldom: other files are not looked into for the rest.
    followed = any(write.after is not None for write in component.writes())
    asked = followed or component.writes_constants
    reacting = asked and draws_reacting(file.tree, drawing, file.workspace)
    return replace(
        component,
        inputs=replace(inputs, props=_props(component, defaults)),
        facts=replace(known, reacting=reacting),
    )


def _beside_drawing(node: Node, drawing: Node) -> list[Node]:
    """Yield the members of a class but the render method."""
    body = node.child("body")
    assert body is not None
    return [m for m in body.named_children if not m.start <= drawing.start < m.end]


def _all_members(gathered: Gathered) -> tuple[Part, ...]:
    state, context = _state(gathered), gathered.context
    return (
        *gathered.members,
        *([state] if state is not None else []),
        *_all_fields(gathered),
        *gathered.statics,
        *([context] if context is not None else []),
    )


def _view(gathered: Gathered, drawing: Node, *, pure: bool) -> View:
    """Return the view of a class."""
    facts, body = gathered.facts, drawing.child("body")
    assert body is not None
    nothing = may_be_undefined(drawing)
    return View(
        facts.code(facts.tree.source.span(body.start + 1, body.end - 1)),
        locals=drawing_locals(facts, drawing),
        impure=is_impure(facts, drawing),
        pure=pure,
        undefined_at=nothing.start if nothing is not None else -1,
    )


def _looked_into(file: ClassFile, candidate: Candidate, facts: ClassFacts) -> Look | None:
    """Return the wrapper that inspects the class, if any; leave unknown ones to a person."""
    look = looked_into(candidate, file.tree, file.workspace)
    if look is not None and look.way in ("unknown", "looks"):
        rule = "handed-to-package" if look.way == "unknown" else "wrapper-looks-in"
        facts.ledger.settle(facts.ledger.claim("handed-on", look.span), "left", rule)
    if look is not None and look.way == "extends":
        facts.refuse("extended-by", f"{look.name}() returns one", look.at)
    return look


def _place(
    file: ClassFile, candidate: Candidate, gathered: Gathered,
    moved: list[tuple[Span, int, str]], look: Look | None,
) -> Place:  # fmt: skip
    """Where the class stands, with what goes with it."""
    facts, node = gathered.facts, candidate.node
    named_elsewhere = _named_elsewhere(file, candidate, moved)
    export_span = None
    wrapped = candidate.pure or bool(gathered.exposed) or bool(candidate.decorators)
    if wrapped and candidate.exported == "default" and (named_elsewhere or gathered.statics):
        export_span = file.tree.source.span(candidate.statement.start, node.start)
        gathered.entries["export"] = file.ledger.claim("default-export", export_span)
    decorators = _decorators(facts, candidate)
    moved += _idle_decorators(facts, candidate)
    if gathered.statics and candidate.form == "expression":
        facts.refuse("class-in-expression", "it has static members", node.start)
    if gathered.statics and decorators and (export_span is None or named_elsewhere):
        facts.refuse("decorated", "and it has static members", node.start)
    exported: Literal["", "named", "default"] = "named" if candidate.exported else ""
    return Place(
        facts.span(candidate.place),
        _head(file, candidate.statement),
        "default" if candidate.exported == "default" else exported,
        candidate.form,
        export_span,
        decorators,
        (look.span,) if look is not None else (),
        tuple(moved),
        _names_itself(file, candidate) or asks_itself(facts),
    )


def _idle_decorators(facts: ClassFacts, candidate: Candidate) -> list[tuple[Span, int, str]]:
    """The decorators that mean nothing to a function, as what goes."""
    found: list[tuple[Span, int, str]] = []
    for decorator in candidate.idle:
        entry = facts.ledger.claim("class-decorator", facts.span(decorator))
        if decorator.start < candidate.place.start:
            end = _after_space(facts, decorator.end)
            found.append((facts.tree.source.span(decorator.start, end), entry, FOR_CLASSES_DROP))
        else:
            facts.ledger.settle(entry, "dropped", FOR_CLASSES_DROP)
    return found


def _after_space(facts: ClassFacts, end: int) -> int:
    data = facts.tree.source.data
    while data[end : end + 1].isspace():
        end += 1
    return end


def _decorators(facts: ClassFacts, candidate: Candidate) -> tuple[tuple[Span, Span, int], ...]:
    """The decorators at a class, the outermost first: (all of it, what is called, its entry)."""
    found: list[tuple[Span, Span, int]] = []
    for decorator in candidate.decorators:
        called = decorator.named_children[0]
        end = _after_space(facts, decorator.end)
        entry = facts.ledger.claim("class-decorator", facts.span(decorator))
        found.append((facts.tree.source.span(decorator.start, end), facts.span(called), entry))
    return tuple(found)


def _named_elsewhere(
    file: ClassFile, candidate: Candidate, moved: list[tuple[Span, int, str]]
) -> bool:
    """Whether other code of the file that stays names the class."""
    binding = candidate.binding
    gone = [(span.start, span.end) for span, _, _ in moved]
    return any(
        not any(low <= reference.start < high for low, high in gone)
        for reference in (binding.references if binding is not None else ())
    )


def _names_itself(file: ClassFile, candidate: Candidate) -> bool:
    binding = candidate.binding
    node = candidate.node
    return any(
        node.start <= reference.start < node.end
        for reference in (binding.references if binding is not None else ())
    )


def _head(file: ClassFile, statement: Node) -> Span:
    """A statement with the comments above it."""
    above = comments.leading(file.tree, statement)
    start = above[0].start if above else statement.start
    return file.tree.source.span(start, statement.end)


def _state(gathered: Gathered) -> State | None:
    """The state with the fields that are made before it."""
    if gathered.state is None:
        return None
    before = gathered.made[: gathered.made.index("state")]
    return replace(gathered.state, after=tuple(before))


def _all_fields(gathered: Gathered) -> list[InstanceField]:
    declared = {f.name for f in gathered.fields}
    found = list(gathered.fields)
    for name in sorted(gathered.facts.fields):
        plain = name.lstrip("#")
        if plain not in declared:
            found.append(InstanceField(plain, None, False, False, "", -1))
    for name in sorted(gathered.facts.named_references):
        kind = "any" if gathered.facts.tree.typed else ""
        found.append(InstanceField(name, None, False, True, kind, -1))
    if gathered.facts.root_element:
        kind = "HTMLElement" if gathered.facts.tree.typed else ""
        found.append(InstanceField(gathered.facts.root_element, None, False, True, kind, -1))
    return found


def _props(component: Component, defaults: dict[str, Default]) -> tuple[Prop, ...]:
    names: dict[str, None] = dict.fromkeys(defaults)
    for _, operation in component.operations():
        if isinstance(operation, Read) and operation.member.kind == "prop":
            names.setdefault(operation.member.name)
        bindings = getattr(operation, "bindings", None)
        if bindings and getattr(operation, "source", "") == "props":
            for binding in bindings:
                names.setdefault(binding.key)
    for moment in component.moments("updated"):
        if moment.previous_props is not None:
            names.update(dict.fromkeys(moment.previous_props.names or ()))
    return tuple(Prop(name, defaults.get(name)) for name in names)


def _called(facts: ClassFacts) -> tuple[frozenset[str], frozenset[str]]:
    """The inputs that are only called, and the fields of state that are called."""
    called: dict[str, set[str]] = {"prop-read": set(), "state-read": set()}
    valued: set[str] = set()
    wanted = {(raw.span.start, raw.span.end): raw.notion for raw in facts.raws}
    for node in facts.tree.of("member_expression", "subscript_expression"):
        notion = wanted.get((node.start, node.end), "")
        if not notion and node.field == "value" and node.parent is not None:
            notion = wanted.get((node.parent.start, node.parent.end), "")
        if notion not in called:
            continue
        name = member_name(node) or ""
        if node.field == "function":
            called[notion].add(name)
        elif notion == "prop-read":
            valued.add(name)
    return frozenset(called["prop-read"] - valued), frozenset(called["state-read"])


def _claim_comments(facts: ClassFacts, node: Node, drawn: set[int]) -> None:
    for comment in comments.within(facts.tree, node.start, node.end):
        if comment.start in drawn:
            continue
        if any(low <= comment.start < high for low, high in facts.skipped):
            continue
        facts.ledger.claim("comment", facts.span(comment), "kept")
