"""The markup of a component, with the declarations of its render code as members."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace

from clean_carry.component.code import Code, Emit, Member, Read, RestInputs, WholeRead
from clean_carry.component.markup import Expression, Markup, codes_of, walk
from clean_carry.component.members import Derived, Method, Part
from clean_carry.component.model import Component, Default, Prop
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Scope
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import is_constant, is_number
from clean_carry.syntaxes.jsx.drawing.declared import Declared
from clean_carry.syntaxes.jsx.drawing.kinds import Kinds, kinds_of
from clean_carry.syntaxes.jsx.drawing.locals import Locals, bare
from clean_carry.syntaxes.jsx.drawing.markup import MarkupReader, is_handed_on
from clean_carry.syntaxes.jsx.drawing.names import is_unshown
from clean_carry.syntaxes.jsx.facts import JsxFacts
from clean_carry.syntaxes.jsx.neutral.missing_lists import keys_of, lists_that_may_miss
from clean_carry.syntaxes.jsx.neutral.pure import called_while_drawn
from clean_carry.syntaxes.uses import Build


@dataclass
class DrawnReader:
    """One component on its way to another family: what is known once the names of its code are.

    `drawing` is the function that renders, `declared` what its inputs are declared as, `events` the inputs
    that are events, `forwarded` the parameter that holds a parent's reference; after `read` there is its
    markup.
    """

    facts: JsxFacts
    declared: dict[str, Declared] = field(default_factory=dict, kw_only=True)
    events: tuple[str, ...] = field(default=(), kw_only=True)
    notes: list[tuple[str, str, int]] = field(default_factory=list, kw_only=True)
    told: list[tuple[str, str, int]] = field(default_factory=list, kw_only=True)
    drawn_comments: set[int] = field(default_factory=set, kw_only=True)
    resolved: set[int] = field(default_factory=set, kw_only=True)
    drawing: Node | None = field(default=None, kw_only=True)
    state_kinds: dict[str, Kinds] = field(default_factory=dict, kw_only=True)
    forwarded: str = field(default="", kw_only=True)
    locals: Locals = field(init=False)

    def helper(self, node: Node) -> Node | None:
        """Return the function that a call renders by, or that is passed on to render."""
        raise NotImplementedError

    def literal_defaults(self) -> Node | None:
        """The object of the inputs' defaults, where there is one."""
        return None

    def asked_elsewhere(self) -> list[str]:
        """Return the props that code reads in a special way."""
        return []

    def _rests(self) -> None:
        """A name for the inputs that are not named, as the attributes of an element."""
        facts = self.facts
        for scope in scopes_of(facts):
            for binding in scope.names.values():
                if id(binding) not in self.locals.rests:
                    continue
                named = self.locals.rests[id(binding)]
                for ref in binding.references:
                    if ref.start in self.locals.rest_parts:
                        continue
                    if not is_handed_on(ref):
                        facts.refuse("not-in-target", f"{ref.text}, in code", ref.start)
                    self.locals.add(ref, "rest-inputs", _rest(facts.span(ref), named))

    def _index(self) -> None:
        self._at: dict[tuple[int, int], Member] = {}
        for raw in self.facts.raws:
            if raw.notion in ("prop-read", "state-read", "derived-read"):
                read = raw.build(-1)
                if isinstance(read, Read):
                    self._at[(raw.span.start, raw.span.end)] = read.member

    def _known(self, node: Node) -> Kinds | None:
        member = self._at.get((node.start, node.end))
        if member is None:
            return None
        if member.kind == "state":
            return self.state_kinds.get(member.name)
        if member.kind == "derived":
            value = next(one for one in self.locals.derived if one.binding.name == member.name)
            return kinds_of(value.value, self._known)
        declared = self.declared.get(member.name)
        return declared.kinds if declared is not None else None

    def _slot(self, node: Node) -> str | None:
        member = self._at.get((node.start, node.end))
        if member is None or member.kind != "prop":
            return None
        if member.name == "children":
            return ""
        declared = self.declared.get(member.name)
        return member.name if declared is not None and declared.kind == "markup" else None

    def completed(
        self, component: Component, props_of: Callable[[Component], tuple[Prop, ...]]
    ) -> Component:
        """Return the component with its markup, and names of the render code as members. `props_of`
        are the props that all of its code uses."""
        markup = self.read()
        codes = [code for node in markup for code in codes_of(node)]
        self._hands_on = any(isinstance(o, RestInputs) for code in codes for o in code.operations)
        drawn: tuple[Part, ...] = (*self.functions(), *self.values())
        given = {key for key, _ in self.locals.defaults} | keys_of(self.literal_defaults())
        given |= {name for name, one in self.declared.items() if one.required}
        self.notes += lists_that_may_miss(markup, given, self.facts.tree.source)
        made = replace(
            component,
            view=replace(component.view, markup=markup),
            members=(*component.members, *drawn),
            outward=replace(component.outward, events=self.events),
        )
        if component.view.pure:
            self.notes += dict.fromkeys(called_while_drawn(made))
        self._refuse_unlisted(made)
        self.notes += dict.fromkeys(_sent_later(made))
        self.notes += dict.fromkeys(_results_as_text(markup))
        facts = replace(component.facts, locals_at=self.locals_at(), noted=tuple(self.notes))
        return replace(
            made, facts=facts, inputs=replace(made.inputs, props=self.inputs(props_of(made)))
        )

    def _refuse_unlisted(self, made: Component) -> None:
        """Code that is given all inputs as one object gets those that are listed, and no events."""
        if self.declared and not self.events:
            return
        for _, operation in made.operations():
            if isinstance(operation, WholeRead) and operation.source == "props":
                name = self.events[0] if self.declared else "props"
                self.facts.refuse("inputs-unlisted", name, operation.span.start)

    def read(self) -> tuple[Markup, ...]:
        """The markup; what cannot be seen as markup refuses the class."""
        assert self.drawing is not None
        reader = MarkupReader(
            self.facts,
            self.locals,
            self._known,
            self._slot,
            self.helper,
            self._unshown(),
            self.forwarded,
        )
        drawn = reader.drawn_by(self.drawing)
        self.notes = [*self.told, *reader.attributes.notes]
        self.drawn_comments = reader.attributes.drawn_comments
        return drawn

    def _unshown(self) -> frozenset[str]:
        """Return the declared props that an HTML element does not show, if they are passed on to it."""
        return frozenset(n for n, one in self.declared.items() if is_unshown(n, one.kind))

    def locals_at(self) -> dict[int, frozenset[tuple[str, int]]]:
        """The local names in force at an operation, without those that are names no more."""
        return {
            entry: frozenset(one for one in found if one[1] not in self.resolved)
            for entry, found in self.facts.locals_at.items()
        }

    def values(self) -> list[Derived]:
        """Return the values that the render code names, as derived ones."""
        found = []
        for one in self.locals.derived:
            entry = self.facts.ledger.claim("local", self.facts.span(one.statement))
            code = self.facts.code(self.facts.span(one.value))
            notes = tuple(
                self.facts.span(note) for note in comments.leading(self.facts.tree, one.statement)
            )
            found.append(Derived(one.binding.name, code, -1, code, entry, notes))
        return found

    def functions(self) -> list[Method]:
        """Return the functions that the render code names."""
        found = []
        for one in self.locals.functions:
            entry = self.facts.ledger.claim("local-function", self.facts.span(one.statement))
            notes = tuple(
                self.facts.span(note) for note in comments.leading(self.facts.tree, one.statement)
            )
            name, value = one.value.child("name"), one.value.child("value")
            assert name is not None
            if value is not None:
                text = self.facts.code(self.facts.span(value))
                found.append(Method(name.text, "assigned", text, "", True, entry, comments=notes))
            else:
                span = self.facts.tree.source.span(name.end, one.value.end)
                prefix = "async function" if one.value.has("async") else "function"
                code = self.facts.code(span)
                found.append(
                    Method(name.text, "declared", code, prefix, True, entry, comments=notes)
                )
        return found

    def inputs(self, props: tuple[Prop, ...]) -> tuple[Prop, ...]:
        """The inputs with what is declared of them; events and slots are none."""
        slots = {n for n, one in self.declared.items() if one.kind == "markup"} | {"children"}
        made = {**{prop.name: prop for prop in props}}
        named = {name for names in self.locals.rests.values() for name in names}
        listed = named | self._unshown() if self._hands_on else self.declared
        for name in (*listed, *self.asked_elsewhere()):
            made.setdefault(name, Prop(name))
        for name, value in self.locals.defaults:
            if made.setdefault(name, Prop(name)).default is None:
                made[name] = replace(made[name], default=self._default(value))
            else:
                self.facts.refuse("default-twice", name, value.start)
        found = []
        for name, prop in made.items():
            if name in self.events and prop.default is not None:
                self.facts.ledger.settle(prop.default.entry, "dropped", "event-always-sent")
            if name in slots or name in self.events or name in ("key", "ref"):
                continue
            declared = self.declared.get(name)
            if declared is not None:
                prop = replace(prop, kind=declared.kind, required=declared.required)
            if not prop.kind and prop.default is not None:
                prop = replace(prop, kind=self._kind_of_default(prop.default))
            found.append(prop)
        return tuple(found)

    def _kind_of_default(self, default: Default) -> str:
        """Return the kind of a prop by its default; "" if unknown."""
        text = self.facts.tree.source.slice(*default.code.span[:2])
        if default.kind == "function" or default.method:
            return "Function"
        if text[:1] in "'\"`":
            return "String"
        if text in ("true", "false"):
            return "Boolean"
        if default.numeric:
            return "Number"
        if default.kind == "object":
            return {"[": "Array", "{": "Object"}.get(text[:1], "")
        return ""

    def _default(self, value: Node) -> Default:
        code: Code = self.facts.code(self.facts.span(value))
        entry = self.facts.ledger.claim("default-input", self.facts.span(value))
        plain = bare(value)
        return Default(
            code, "constant" if is_constant(plain) else "object", entry, is_number(plain)
        )


def scopes_of(facts: JsxFacts) -> Iterator[Scope]:
    """The scope of a component and all below it."""
    stack = [facts.names.scope_at(facts.node)]
    while stack:
        here = stack.pop()
        yield here
        stack.extend(here.children)


def _rest(span: Span, named: tuple[str, ...]) -> Build:
    return lambda entry: RestInputs(span, entry, False, named)


def _sent_later(made: Component) -> Iterator[tuple[str, str, int]]:
    """Events that code sends later than it was called, when the component may be removed; each once."""
    seen: set[str] = set()
    for owner, operation in made.operations():
        if isinstance(operation, Emit) and operation.deferred and owner != "drawing":
            if operation.event not in seen:
                seen.add(operation.event)
                yield "sent-after-removal", operation.event, operation.span.start


def _results_as_text(markup: tuple[Markup, ...]) -> Iterator[tuple[str, str, int]]:
    """Function inputs whose results are shown: a template shows text only."""
    for node in walk(markup):
        if isinstance(node, Expression):
            for one in node.code.operations:
                if (
                    isinstance(one, Read)
                    and one.called
                    and one.member.kind == "prop"
                    and one.span.start == node.code.span.start
                ):
                    yield "result-as-text", one.member.name, one.span.start
