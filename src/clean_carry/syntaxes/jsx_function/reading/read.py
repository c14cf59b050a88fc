"""Read the components of a script that are functions into the neutral component."""

from __future__ import annotations

from dataclasses import replace

from clean_carry.component.code import Read
from clean_carry.component.ledger import Ledger
from clean_carry.component.members import Part, State
from clean_carry.component.model import (
    Component,
    Default,
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
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx.drawing.declared import Declared, checked_inputs, typed_inputs
from clean_carry.syntaxes.jsx.drawing.locals import parameters_of
from clean_carry.syntaxes.jsx.runtime_names import RuntimeNames, runtime_names
from clean_carry.syntaxes.jsx_function.reading.drawing import FunctionDrawing
from clean_carry.syntaxes.jsx_function.reading.facts import FunctionFacts
from clean_carry.syntaxes.jsx_function.reading.hooks import Hooks
from clean_carry.syntaxes.jsx_function.reading.outside import OutsideReader
from clean_carry.syntaxes.jsx_function.reading.recognise import Candidate, candidates


def read(
    tree: Tree, names: Names, ledger: Ledger, workspace: Workspace
) -> tuple[tuple[Component, ...], tuple[Refusal, ...]]:
    """The components of a script, and those that are refused."""
    source = tree.source
    ledger.claim("module code", source.span(0, len(source.data)), "kept")
    runtime = runtime_names(tree)
    components: list[Component] = []
    refusals: list[Refusal] = []
    for candidate in candidates(tree, names, runtime):
        facts = FunctionFacts(tree, names, ledger, candidate.node)
        if candidate.refusal is not None:
            facts.refuse(*candidate.refusal, candidate.node.start)
        component = _component(candidate, facts, runtime, workspace)
        if facts.refusals:
            rule, detail, at = min(facts.refusals, key=lambda one: one[2])
            refusals.append(Refusal(candidate.name, rule, detail, at))
        else:
            components.append(component)
    return tuple(components), tuple(refusals)


def _component(
    candidate: Candidate, facts: FunctionFacts, runtime: RuntimeNames, workspace: Workspace
) -> Component:
    tree, ledger = facts.tree, facts.ledger
    span = facts.span(candidate.place)
    entries = {"component": ledger.claim("component", span)}
    outside = OutsideReader(candidate, facts, workspace)
    hooks = Hooks(facts, runtime, candidate.reference)
    hooks.find()
    drawing = FunctionDrawing(facts, hooks)
    drawing.forwarded = candidate.reference.text if candidate.reference is not None else ""
    drawing.declared = _declared(candidate, facts, outside)
    drawing.defaults = outside.literal
    drawing.prepare()
    defaults = outside.defaults()
    own, fields = hooks.parts(drawing.effect)
    members: list[Part] = list(own)
    if fields:
        members.append(State(tuple(fields), None, False, "", fields[0].entry))
    shell = Component(
        candidate.name,
        _place(candidate, facts, outside.moved),
        Inputs(type_text=_type_text(candidate.node)),
        Outward(exposed=tuple(hooks.exposed)),
        tuple(members),
        View(pure=candidate.pure),
        Language(tree.typed, tree.annotated),
        facts=Facts(
            reserved=frozenset(facts.names.free),
            module_names=frozenset(facts.names.module.names) - set(runtime.named.values()),
            locals_at=facts.locals_at,
            carried_names=frozenset({*facts.carried_names, *outside.carried_names}),
        ),
        entries=entries,
    )
    named = _named(candidate.node)
    component = drawing.completed(shell, lambda made: _props(made, defaults, named))
    drawn = drawing.drawn_comments
    for comment in comments.within(tree, span.start, span.end):
        if comment.start not in drawn:
            ledger.claim("comment", facts.span(comment), "kept")
    noted = (*component.facts.noted, *(n for n in drawing.told if n not in component.facts.noted))
    return replace(component, facts=replace(component.facts, noted=noted))


def _props(
    component: Component, defaults: dict[str, Default], named: list[str]
) -> tuple[Prop, ...]:
    """Return the props, in the order of the signature, then those that code reads."""
    used: dict[str, None] = dict.fromkeys(defaults)
    for _, operation in component.operations():
        if isinstance(operation, Read) and operation.member.kind == "prop":
            used.setdefault(operation.member.name)
    names = dict.fromkeys([name for name in named if name in used] + list(used))
    return tuple(Prop(name, defaults.get(name)) for name in names)


def _named(function: Node) -> list[str]:
    """The names the parameter takes."""
    parameters = parameters_of(function)
    first = parameters[0] if parameters else None
    found = []
    for part in first.named_children if first is not None else ():
        key = part.child("key") or (part.children[0] if part.children else part)
        found.append((property_name(key) or key.text) if key.children == [] else key.text)
    return found


def _declared(
    candidate: Candidate, facts: FunctionFacts, outside: OutsideReader
) -> dict[str, Declared]:
    given = _parameter_type(candidate.node)
    if facts.tree.typed and given is not None:
        return typed_inputs(facts.tree, given)
    return checked_inputs(outside.checked)


def _parameter_type(function: Node) -> Node | None:
    parameters = function.child("parameters")
    first = parameters.named_children[0] if parameters and parameters.named_children else None
    annotation = first.child("type") if first is not None else None
    return annotation.named_children[0] if annotation is not None else None


def _type_text(function: Node) -> str:
    given = _parameter_type(function)
    return given.text if given is not None and parameters_of(function) else ""


def _place(candidate: Candidate, facts: FunctionFacts, moved: list[tuple[Span, int, str]]) -> Place:
    above = comments.leading(facts.tree, candidate.statement)
    start = above[0].start if above else candidate.statement.start
    head = facts.tree.source.span(start, candidate.statement.end)
    exported = candidate.exported
    return Place(
        facts.span(candidate.place),
        head,
        exported if exported in ("default", "named") else "",  # type: ignore[arg-type]
        "declared" if candidate.node is candidate.place else "constant",
        moved=tuple(moved),
    )
