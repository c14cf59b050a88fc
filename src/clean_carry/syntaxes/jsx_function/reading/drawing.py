"""The markup of a function, with the declarations of its body as members of the component."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from clean_carry.component.code import Code, Member, Read, WholeRead
from clean_carry.component.members import Derived, Effect, Method
from clean_carry.component.model import Component, Prop
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.jsx.drawing.kinds import Kinds, kinds_of
from clean_carry.syntaxes.jsx.drawing.locals import (
    Locals,
    Value,
    bare,
    body_of,
    holds_markup,
    is_map,
    parameters_of,
)
from clean_carry.syntaxes.jsx.neutral.drawing import DrawnReader
from clean_carry.syntaxes.jsx.neutral.events import send
from clean_carry.syntaxes.jsx.neutral.reads_after_writes import keep_earlier, refuse_repeated
from clean_carry.syntaxes.jsx_function.reading.built_values import BuiltValue, built_values
from clean_carry.syntaxes.jsx_function.reading.effects import EffectReader
from clean_carry.syntaxes.jsx_function.reading.facts import FunctionFacts
from clean_carry.syntaxes.jsx_function.reading.fall_through import with_fall_through
from clean_carry.syntaxes.jsx_function.reading.hooks import HookCall, Hooks, is_reference
from clean_carry.syntaxes.jsx_function.reading.stale_closures import keep_rendered
from clean_carry.syntaxes.uses import Build, Raw


@dataclass
class BodyLocals(Locals):
    """The names of a function's body; statements that are `hooks`, and functions that return markup, are
    read elsewhere."""

    hooks: set[int] = field(default_factory=set)
    helpers: dict[str, Node] = field(default_factory=dict)
    built: set[int] = field(default_factory=set)

    def _statement(self, statement: Node, *, top: bool) -> None:
        apart = id(statement) in self.hooks or id(statement) in self.built
        if apart or self._is_helper(statement, top):
            return
        super()._statement(statement, top=top)

    def _is_helper(self, statement: Node, top: bool) -> bool:
        """Whether a statement declares a function that returns markup, which is rendered where it is
        called."""
        for name, function in self.helpers.items():
            if top and statement.start <= function.start < statement.end:
                scope = self.uses.names.scope_at(function)
                binding = scope.find(name)
                if binding is not None:
                    self.resolved.add(binding.node.start)
                span = self.uses.span(statement)
                self.uses.ledger.claim("local-function", span, "carried", "drawn-by-helper")
                return True
        return False


@dataclass
class FunctionDrawing(DrawnReader):
    """One function on its way to another family."""

    facts: FunctionFacts
    hooks: Hooks
    built: list[Value] = field(default_factory=list)
    dependencies: dict[int, list[Raw]] = field(default_factory=dict)
    defaults: Node | None = None

    def literal_defaults(self) -> Node | None:
        """The object of defaults beside the function."""
        return self.defaults

    def prepare(self) -> None:
        """Find what stands for the names the body declares."""
        facts, function = self.facts, self.facts.node
        self.drawing = function
        self._helpers = dict(self._find_helpers())
        self._given_to: set[int] = set()
        self.state_kinds = dict(self._kinds_of_state())
        self.locals = BodyLocals(
            facts, self._part_of, self.helper, hooks=self.hooks.statements, helpers=self._helpers
        )
        groups = list(built_values(facts, self.hooks.statements))
        self.locals.built = {id(statement) for one in groups for statement in one.statements}
        self._functions()
        self._signature()
        self.locals.read(function)
        for value in self.locals.derived:
            self.facts.values[value.binding.name] = (value.value.start, value.value.end)
        self._memos()
        self._built_up(groups)
        self._callbacks()
        self.hooks.read()
        self._refuse_other_markup()
        self._take_dependencies()
        self.resolved = set(self.locals.resolved)
        self._rests()
        facts.sort()
        self._index()
        others = {name for name, found in self.declared.items() if found.kind == "markup"}
        others |= set(self._depended_on())
        if not facts.tree.typed:
            required = frozenset(name for name, one in self.declared.items() if one.required)
            self.events = send(
                facts, self.literal_defaults(), frozenset(others), required, self.told
            )
        self._give_dependencies()
        facts.sort()
        keep_rendered(facts)
        keep_earlier(facts)
        refuse_repeated(facts)
        facts.sort()
        self._refuse_unread_names()

    def _refuse_unread_names(self) -> None:
        """A name of the function that nothing stands for would name nothing in the target."""
        facts = self.facts
        scope = facts.names.inner_scope(facts.node)
        starts = {raw.span.start for raw in facts.raws}
        covered = [(r.span.start, r.span.end) for r in facts.raws if r.notion in _COVERING]
        covered += facts.ignored
        covered += [(one.statements[0].start, one.statements[-1].end) for one in self.groups]
        for name, binding in scope.names.items() if scope is not None else ():
            if id(binding) in self.locals.markup or name in self._helpers:
                continue
            if binding.kind == "type":
                continue
            for ref in binding.references:
                if ref.start in starts or any(a <= ref.start < b for a, b in covered):
                    continue
                if name == self.forwarded and is_reference(ref):
                    continue
                if _is_taken_apart(ref):
                    continue
                facts.refuse("name-unread", name, ref.start)
                break

    # -- the signature ------------------------------------------------------------------------------

    def _signature(self) -> None:
        parameters = parameters_of(self.facts.node)
        first = parameters[0] if parameters else None
        self._inputs = first if first is not None and first.type == "identifier" else None
        if first is None:
            return
        if first.type == "object_pattern":
            for piece in first.named_children:
                self.locals._piece(piece, first, "prop")
        elif first.type == "identifier":
            self._whole_inputs(first)
        else:
            self.facts.refuse("signature-unread", first.text[:40], first.start)

    def _whole_inputs(self, name: Node) -> None:
        """`props`: what is asked of it, or all of it."""
        scope = self.facts.names.inner_scope(self.facts.node)
        binding = scope.names.get(name.text) if scope is not None else None
        for ref in binding.references if binding is not None else ():
            above = ref.parent
            part = above.child("property") if above is not None and ref.field == "object" else None
            if above is not None and above.type == "subscript_expression" and ref.field == "object":
                index = above.child("index")
                part = index if index is not None and index.type == "string" else None
            key = property_name(part) if part is not None else None
            if above is not None and key is not None:
                if is_write(above):
                    self.facts.refuse("input-written", key, above.start)
                self._prop_read(above, key)
            elif not _is_taken_apart(ref):
                span = self.facts.span(ref)
                self.facts.add(ref, "inputs", _all_inputs(span))

    def _prop_read(self, node: Node, key: str) -> None:
        span, member, called = self.facts.span(node), Member("prop", key), node.field == "function"
        self.facts.add(
            node, "prop-read", lambda entry: Read(span, entry, False, member, "", called=called)
        )

    def _part_of(self, value: Node) -> str:
        """ "prop" for all of the inputs."""
        return "prop" if self._inputs is not None and value.text == self._inputs.text else ""

    # -- functions and values -------------------------------------------------------------------------

    def _functions(self) -> None:
        """The component's own functions, by name."""
        for name, value in self._declared_functions():
            if name.type == "identifier" and name.text not in self._helpers:
                self.facts.functions[name.text] = value
        for call in self.hooks.callbacks:
            first = call.argument()
            if call.pattern is not None and first is not None:
                self.facts.functions[call.pattern.text] = first

    def _declared_functions(self) -> Iterator[tuple[Node, Node]]:
        """The functions that statements of the body declare: name, function."""
        body = body_of(self.facts.node)
        for statement in body.named_children if body.type == "statement_block" else ():
            name, value = statement.child("name"), statement
            if statement.type == "lexical_declaration" and len(statement.named_children) == 1:
                declarator = statement.named_children[0]
                name, given = declarator.child("name"), declarator.child("value")
                value = bare(given) if given is not None else statement
            if name is not None and value.is_function:
                yield name, value

    def _find_helpers(self) -> Iterator[tuple[str, Node]]:
        """Functions of the body that return markup, by name."""
        for name, value in self._declared_functions():
            if not holds_markup(value):
                continue
            scope = self.facts.names.inner_scope(self.facts.node)
            binding = scope.names.get(name.text) if scope is not None else None
            if name.text[:1].isupper():
                self.facts.refuse("component-in-component", name.text, name.start)
            elif binding is not None and any(not _renders(ref) for ref in binding.references):
                self.facts.refuse("markup-in-code", "markup that is kept as a value", value.start)
            elif binding is not None and len(binding.references) == 1 and not value.has("async"):
                yield name.text, value
            elif binding is not None and len(binding.references) > 1:
                what = f"{name.text}() draws in several places"
                self.facts.refuse("markup-in-code", what, binding.references[1].start)

    def helper(self, node: Node) -> Node | None:
        """Return the function of the body that a call renders by, or that is passed on to render."""
        callee = node.child("function") if node.type == "call_expression" else node
        if callee is None or callee.type != "identifier":
            return None
        function = self._helpers.get(callee.text)
        if (
            function is not None
            and node.type == "call_expression"
            and id(node) not in self._given_to
        ):
            self._given_to.add(id(node))
            arguments = node.child("arguments")
            values = arguments.named_children if arguments is not None else []
            parameters = parameters_of(function)
            if len(parameters) > len(values):
                self.facts.refuse(
                    "markup-in-code", f"{node.text[:30]} gives fewer values", node.start
                )
                return None
            for parameter, value in zip(parameters, values, strict=False):
                self.locals.stand_for(parameter, value)
        return function

    def _memos(self) -> None:
        scope = self.facts.names.inner_scope(self.facts.node)
        for call in self.hooks.memos:
            first = call.argument()
            binding = scope.names.get(call.pattern.text) if scope and call.pattern else None
            if binding is None or first is None or not first.is_function or holds_markup(first):
                self.facts.refuse(
                    "hook-unread", call.call.text.split("\n")[0][:40], call.call.start
                )
                continue
            body = body_of(first)
            self._check_complete(call, first)
            name = binding.name
            value = Value(binding, body, call.statement)
            self.facts.values[name] = (body.start, body.end)
            (self.built if body.type == "statement_block" else self.locals.derived).append(value)
            self.locals._reads(binding, _derived(self, name))

    def _built_up(self, groups: list[BuiltValue]) -> None:
        """Values that several statements work out are read as derived ones behind those."""
        self.groups = groups
        for one in groups:
            first, last = one.statements[0], one.statements[-1]
            self.facts.values[one.name] = (first.start, last.end)
            for binding in one.bindings:
                self.locals.resolved.add(binding.node.start)
                path = "" if binding.name == one.name else f".{binding.name}"
                for ref in binding.references:
                    if ref.start >= last.end:
                        self._part_read(ref, one.name, path)

    def _part_read(self, ref: Node, name: str, path: str) -> None:
        head = f"{ref.text}: " if ref.type == "shorthand_property_identifier" else ""
        span, member, called = (
            self.facts.span(ref),
            Member("derived", name),
            ref.field == "function",
        )
        deferred = self.facts.deferred(ref)
        self.facts.add(
            ref, "derived-read",
            lambda entry: Read(span, entry, deferred, member, head, called=called, path=path),
        )  # fmt: skip

    def _callbacks(self) -> None:
        scope = self.facts.names.inner_scope(self.facts.node)
        for call in self.hooks.callbacks:
            first = call.argument()
            binding = scope.names.get(call.pattern.text) if scope and call.pattern else None
            if binding is None or first is None or not first.is_function:
                self.facts.refuse(
                    "hook-unread", call.call.text.split("\n")[0][:40], call.call.start
                )
                continue
            self._check_complete(call, first)
            self.locals._reads(binding, _function(self, binding.name))

    def _check_complete(self, call: HookCall, function: Node) -> None:
        """Check that a memoised value or function lists all its dependencies; otherwise it reads
        stale values on purpose."""
        deps = call.argument(1)
        if deps is None or deps.type != "array":
            return
        named = {part.text.split(".")[0].split("?")[0] for part in deps.named_children}
        scope = self.facts.names.inner_scope(self.facts.node)
        stable = {*self.hooks.setters, *self.hooks.dispatches, *self.hooks.boxes}
        for ref, binding in self.facts.names.references_in(function):
            own = scope is not None and binding is not None and binding.scope is scope
            if own and ref.text not in named | stable:
                self.facts.refuse("old-value-read", f"{ref.text}, no dependency", ref.start)
                return

    def _kinds_of_state(self) -> Iterator[tuple[str, Kinds]]:
        for name, call in self.hooks.states.items():
            first = call.argument() if call.name == "useState" else None
            value = body_of(first) if first is not None and first.is_function else first
            kinds: Kinds | None = kinds_of(value, lambda node: None) if value is not None else None
            if kinds is not None and kinds != frozenset({"nothing"}):
                yield name, kinds

    def _known(self, node: Node) -> Kinds | None:
        member = self._at.get((node.start, node.end))
        if member is not None and member.kind == "derived":
            known = [one.binding.name for one in self.built]
            known += [group.name for group in self.groups]
            if member.name in known:
                return None
        return super()._known(node)

    def _refuse_other_markup(self) -> None:
        """JSX outside of what renders is a value: no template can give one."""
        inside = [function for _, function in self.facts.own_functions()]
        inside += [call.call for call in self.hooks.calls]
        for node in self.facts.tree.of("jsx_element", "jsx_self_closing_element"):
            if any(one.start <= node.start < one.end for one in inside):
                self.facts.refuse("markup-in-code", "markup that is kept as a value", node.start)
                return

    # -- dependencies -----------------------------------------------------------------------------------

    def _take_dependencies(self) -> None:
        """Uses in lists of dependencies are none of the component's code."""
        kept = []
        for raw in self.facts.raws:
            at = next(
                (
                    n
                    for n, (start, end) in enumerate(self.facts.ignored)
                    if start <= raw.span.start < end
                ),
                None,
            )
            if at is None:
                kept.append(raw)
            else:
                self.dependencies.setdefault(at, []).append(raw)
        self.facts.raws = kept

    def _of_effects(self) -> Iterator[Raw]:
        """The uses in the dependencies of effects."""
        effects = [call.argument(1) for call in self.hooks.effects]
        for at, raws in self.dependencies.items():
            start, end = self.facts.ignored[at]
            if any(d is not None and d.start == start and d.end == end for d in effects):
                yield from raws

    def _depended_on(self) -> Iterator[str]:
        """The inputs that effects depend on. A function among them stays an input: it may change."""
        for raw in self._of_effects():
            read = raw.build(-1)
            if isinstance(read, Read) and read.member.kind == "prop":
                yield read.member.name

    def _give_dependencies(self) -> None:
        """Read the dependencies of effects once more, except functions."""
        wanted = {"state-read", "derived-read", "prop-read"}
        self.facts.raws += [raw for raw in self._of_effects() if raw.notion in wanted]

    # -- members --------------------------------------------------------------------------------------

    def completed(
        self, component: Component, props_of: Callable[[Component], tuple[Prop, ...]]
    ) -> Component:
        """The component with its markup; what falls through to its root is said by that alone."""
        return with_fall_through(super().completed(component, props_of), self.facts)

    def values(self) -> list[Derived]:
        """The values the body names, as derived ones; those with statements keep these."""
        found = super().values()
        for one in self.built:
            entry = self.facts.ledger.claim("local", self.facts.span(one.statement))
            code = self.facts.code(self.facts.span(one.value))
            notes = tuple(
                self.facts.span(n) for n in comments.leading(self.facts.tree, one.statement)
            )
            found.append(Derived(one.binding.name, code, -1, None, entry, notes))
        for group in self.groups:
            first, last = group.statements[0], group.statements[-1]
            span = self.facts.tree.source.span(first.start, last.end)
            entry = self.facts.ledger.claim("local", span)
            notes = tuple(self.facts.span(n) for n in comments.leading(self.facts.tree, first))
            code = self.facts.code(span)
            found.append(Derived(group.name, code, -1, None, entry, notes, gives=group.gives))
        return found

    def functions(self) -> list[Method]:
        """The functions the body names, also those a hook keeps."""
        found = super().functions()
        for call in self.hooks.callbacks:
            first = call.argument()
            if first is None or call.pattern is None or not first.is_function:
                continue
            entry = self.facts.ledger.claim("local-function", self.facts.span(call.statement))
            text: Code = self.facts.code(self.facts.span(first))
            notes = tuple(
                self.facts.span(n) for n in comments.leading(self.facts.tree, call.statement)
            )
            found.append(
                Method(call.pattern.text, "assigned", text, "", True, entry, comments=notes)
            )
        return found

    def effect(self, call: HookCall) -> Effect | None:
        """The effect a call makes."""
        return EffectReader(self.facts, self.hooks, self.events).read(call)


# Uses that stand for more than the name they begin with.
_COVERING = frozenset({"event-asked"})


def _is_taken_apart(ref: Node) -> bool:
    """Whether a name is taken apart: `const { steps } = props`."""
    above = ref.parent
    if above is None or above.type != "variable_declarator" or ref.field != "value":
        return False
    pattern = above.child("name")
    return pattern is not None and pattern.type == "object_pattern"


def _renders(ref: Node) -> bool:
    """Whether a function that returns markup is called, or passed on to a list, where it is named."""
    above = ref.parent
    if above is None:
        return False
    call = above.parent if above.type == "arguments" else above
    if call is None or call.type != "call_expression":
        return False
    return ref.field == "function" or is_map(call)


def _all_inputs(span: Span) -> Build:
    return lambda entry: WholeRead(span, entry, False, "props")


def _derived(drawing: FunctionDrawing, name: str) -> Callable[[Node, str], None]:
    return lambda ref, head: drawing.locals._derived_read(ref, name, head)


def _function(drawing: FunctionDrawing, name: str) -> Callable[[Node, str], None]:
    return lambda ref, head: drawing.locals._function_use(ref, name, head)
