"""The hooks of a function: what each statement that calls one means."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from clean_carry.component.code import (
    Builtin,
    FieldUse,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Patch,
    Read,
    SetterValue,
    StateWrite,
)
from clean_carry.component.members import (
    Effect,
    InstanceField,
    Part,
    Reducer,
    StateField,
)
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Binding, is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import is_constant, runs_code
from clean_carry.syntaxes.jsx.drawing.locals import bare, body_of, parameters_of
from clean_carry.syntaxes.jsx.positions import position_of
from clean_carry.syntaxes.jsx.runtime_names import RuntimeNames
from clean_carry.syntaxes.jsx_function.reading.facts import FunctionFacts

# Hooks the target has no form for, by the rule that says so.
_REFUSED = {
    "useContext": "context-not-in-target",
    "useTransition": "hook-not-in-target",
    "useDeferredValue": "hook-not-in-target",
    "useSyncExternalStore": "hook-not-in-target",
    "useInsertionEffect": "hook-not-in-target",
    "useOptimistic": "hook-not-in-target",
    "useActionState": "hook-not-in-target",
    "use": "hook-not-in-target",
}


@dataclass(frozen=True)
class HookCall:
    """A statement of a function's body that calls a hook: its own name, the call, what is declared."""

    name: str
    statement: Node
    call: Node
    pattern: Node | None

    @property
    def given(self) -> list[Node]:
        """Return the arguments of the hook."""
        arguments = self.call.child("arguments")
        return arguments.named_children if arguments is not None else []

    def argument(self, at: int = 0) -> Node | None:
        """Return its argument at a position."""
        return self.given[at] if at < len(self.given) else None

    @property
    def type_text(self) -> str:
        """The type it is called with."""
        types = self.call.child("type_arguments")
        return types.text[1:-1] if types is not None else ""


@dataclass
class Hooks:
    """The hooks of one function; `read` fills the uses, `parts` makes the members once all uses are known.

    `memos` are values that are worked out, `callbacks` the component's own functions that a hook keeps,
    `elements` references to elements by their names; `exposed` what a parent's reference offers.
    """

    facts: FunctionFacts
    runtime: RuntimeNames
    reference: Node | None
    calls: list[HookCall] = field(default_factory=list)
    states: dict[str, HookCall] = field(default_factory=dict)
    setters: dict[str, str] = field(default_factory=dict)
    dispatches: dict[str, str] = field(default_factory=dict)
    boxes: dict[str, HookCall] = field(default_factory=dict)
    elements: set[str] = field(default_factory=set)
    memos: list[HookCall] = field(default_factory=list)
    callbacks: list[HookCall] = field(default_factory=list)
    effects: list[HookCall] = field(default_factory=list)
    ids: list[HookCall] = field(default_factory=list)
    exposed: list[str] = field(default_factory=list)

    @property
    def statements(self) -> set[int]:
        """The statements that are hooks."""
        return {id(one.statement) for one in self.calls}

    def find(self) -> None:
        """Find the hooks at the top of the function."""
        body = body_of(self.facts.node)
        if body.type != "statement_block":
            return
        for statement in body.named_children:
            call = self._call(statement)
            if call is not None:
                self.calls.append(call)
                self._sort(call)
        known = {id(one.call) for one in self.calls}
        for node in self.facts.tree.of("call_expression"):
            if not self.facts.node.start <= node.start < self.facts.node.end or id(node) in known:
                continue
            if self._hook_name(node):
                self.facts.refuse("hook-unread", node.text.split("\n")[0][:40], node.start)

    def _call(self, statement: Node) -> HookCall | None:
        pattern: Node | None = None
        value: Node | None = None
        if statement.type == "expression_statement":
            value = statement.named_children[0]
        elif statement.type == "lexical_declaration" and len(statement.named_children) == 1:
            declarator = statement.named_children[0]
            pattern, value = declarator.child("name"), declarator.child("value")
        value = bare(value) if value is not None else None
        name = self._hook_name(value) if value is not None else ""
        return HookCall(name, statement, value, pattern) if value is not None and name else None

    def _hook_name(self, call: Node) -> str:
        callee = call.child("function") if call.type == "call_expression" else None
        if callee is None:
            return ""
        own = self.runtime.imported(callee, self.facts.names)
        if own is not None and own.startswith("use"):
            self.facts.carried_names.add(callee.start)
            return own
        if (
            callee.type == "identifier"
            and callee.text.startswith("use")
            and callee.text[3:4].isupper()
        ):
            return f"own {callee.text}"
        return ""

    def _sort(self, call: HookCall) -> None:
        pattern = call.pattern
        match call.name:
            case "useState" | "useReducer":
                self._state(call)
            case "useRef" if pattern is not None and pattern.type == "identifier":
                self.boxes[pattern.text] = call
            case "useMemo" if pattern is not None and pattern.type == "identifier":
                self.memos.append(call)
            case "useCallback" if pattern is not None and pattern.type == "identifier":
                self.callbacks.append(call)
            case "useEffect" | "useLayoutEffect" if pattern is None:
                self.effects.append(call)
            case "useId" if pattern is not None and pattern.type == "identifier":
                self.ids.append(call)
            case "useImperativeHandle" if pattern is None:
                self._expose(call)
            case "useDebugValue":
                self.facts.refuse("hook-not-in-target", call.name, call.call.start)
            case name if name in _REFUSED:
                self.facts.refuse(_REFUSED[name], name, call.call.start)
            case name if name.startswith("own "):
                self.facts.refuse("hook-not-followed", name.removeprefix("own "), call.call.start)
            case _:
                what = call.call.text.split("\n")[0][:40]
                self.facts.refuse("hook-unread", what, call.call.start)

    def _state(self, call: HookCall) -> None:
        names = call.pattern.named_children if call.pattern is not None else []
        plain = call.pattern is not None and call.pattern.type == "array_pattern"
        if not plain or not names or any(n.type != "identifier" for n in names) or len(names) > 2:
            self.facts.refuse("hook-unread", call.call.text[:40], call.call.start)
            return
        if call.name == "useReducer" and len(call.given) > 2:
            self.facts.refuse(
                "hook-unread", "a reducer with a function that begins", call.call.start
            )
        self.states[names[0].text] = call
        if len(names) > 1:
            target = self.setters if call.name == "useState" else self.dispatches
            target[names[1].text] = names[0].text

    def _expose(self, call: HookCall) -> None:
        first, second = call.argument(), call.argument(1)
        made = bare(body_of(second)) if second is not None and second.is_function else None
        if (
            self.reference is None or first is None or made is None or made.type != "object"
            or first.text != self.reference.text
        ):  # fmt: skip
            self.facts.refuse("exposed-otherwise", call.call.text[:40], call.call.start)
            return
        for part in made.named_children:
            key, value = part.child("key"), part.child("value")
            if part.type == "shorthand_property_identifier":
                key = value = part
            if key is None or value is None or value.type not in (
                "identifier", "shorthand_property_identifier",
            ) or key.text != value.text:  # fmt: skip
                self.facts.refuse("exposed-otherwise", part.text.split("\n")[0][:40], part.start)
                continue
            self.exposed.append(key.text)
            self.facts.ignored.append((part.start, part.end))
        self.facts.ignored.append((call.call.start, call.call.end))

    # -- uses ------------------------------------------------------------------------------------

    def read(self) -> None:
        """One operation for every use of what hooks give."""
        for call in (*self.memos, *self.callbacks, *self.effects):
            deps = call.argument(1)
            if deps is not None:
                self.facts.ignored.append((deps.start, deps.end))
        for name in self.states:
            for ref in self._refs(name, everywhere=True):
                self._state_read(ref, name)
        for name, state in self.setters.items():
            for ref in self._refs(name):
                self._written(ref, state)
        for name in self.dispatches:
            for ref in self._refs(name):
                self._dispatched(ref, name)
        for name in self.boxes:
            self._box(name)
        for call in self.ids:
            assert call.pattern is not None
            for ref in self._refs(call.pattern.text):
                self._field(ref, ref, call.pattern.text)

    def _refs(self, name: str, *, everywhere: bool = False) -> list[Node]:
        scope = self.facts.names.inner_scope(self.facts.node)
        binding: Binding | None = scope.names.get(name) if scope is not None else None
        refs = binding.references if binding is not None else []
        return [ref for ref in refs if everywhere or not self.is_ignored(ref)]

    def is_ignored(self, ref: Node) -> bool:
        """Whether a place is no code of the component."""
        return any(start <= ref.start < end for start, end in self.facts.ignored)

    def _state_read(self, ref: Node, name: str) -> None:
        if is_write(ref):
            self.facts.refuse("hook-unread", f"{name} is written", ref.start)
        span, member = self.facts.span(ref), Member("state", name)
        head = f"{name}: " if ref.type == "shorthand_property_identifier" else ""
        deferred, called = self.facts.deferred(ref), ref.field == "function"
        self.facts.add(
            ref, "state-read",
            lambda entry: Read(span, entry, deferred, member, head, called=called),
        )  # fmt: skip

    def _written(self, ref: Node, state: str) -> None:
        call = ref.parent
        if call is None or call.type != "call_expression" or ref.field != "function":
            span, member = self.facts.span(ref), Member("state", state)
            if ref.type != "identifier":
                self.facts.refuse("state-writer-as-value", ref.text, ref.start)
            self.facts.add(
                ref, "setter-value", lambda entry: SetterValue(span, entry, True, member)
            )
            return
        arguments = call.child("arguments")
        given = arguments.named_children if arguments is not None else []
        if len(given) != 1:
            self.facts.refuse("hook-unread", call.text[:40], call.start)
            return
        self._write(call, ref, state, bare(given[0]))

    def _write(self, call: Node, ref: Node, state: str, value: Node) -> None:
        span, callee = self.facts.span(call), self.facts.span(ref)
        deferred, position = self.facts.deferred(call), position_of(call)
        updates = value.is_function
        shown, grouped = value, False
        if updates:
            parameters = parameters_of(value)
            body = body_of(value)
            plain = len(parameters) == 1 and parameters[0].type == "identifier"
            if body.type == "statement_block" or not plain or value.has("async"):
                grouped = True
            else:
                shown = body
                scope = self.facts.names.inner_scope(value)
                own = scope.names.get(parameters[0].text) if scope is not None else None
                for one in own.references if own is not None else ():
                    self._latest(one, state)

        def build(entry: int) -> Operation:
            code = self.facts.code(self.facts.span(shown))
            patch = Patch(state, code, False, updates=grouped)
            return StateWrite(span, entry, deferred, position, code, callee, (patch,))

        self.facts.add(call, "state-write", build)
        self.facts.raws[-1].member = state

    def _latest(self, ref: Node, state: str) -> None:
        """The parameter of an updater: the state as it is by then."""
        span, member = self.facts.span(ref), Member("state", state)
        head = f"{ref.text}: " if ref.type == "shorthand_property_identifier" else ""
        self.facts.add(ref, "latest-state", lambda entry: Read(span, entry, False, member, head))

    def _dispatched(self, ref: Node, name: str) -> None:
        span, member = self.facts.span(ref), Member("method", name)
        deferred = self.facts.deferred(ref)
        if ref.field == "function":
            self.facts.add(ref, "dispatch", lambda entry: MethodCall(span, entry, deferred, member))
            self.facts.raws[-1].member = self.dispatches[name]
        else:
            head = f"{name}: " if ref.type == "shorthand_property_identifier" else ""
            self.facts.add(
                ref, "dispatch-value",
                lambda entry: MethodValue(span, entry, True, member, "kept", shorthand=head),
            )  # fmt: skip

    def _box(self, name: str) -> None:
        refs = self._refs(name)
        given = [ref for ref in refs if is_reference(ref)]
        if given:
            self.elements.add(name)
        for ref in refs:
            above = ref.parent
            part = above.child("property") if above is not None and ref.field == "object" else None
            if ref in given:
                self._field(ref, ref, name)
            elif above is not None and part is not None and part.text == "current":
                self._field(above, ref, name)
            else:
                self.facts.refuse("reference-passed", name, ref.start)

    def _field(self, place: Node, ref: Node, name: str) -> None:
        kind = "element" if name in self.elements else "field"
        span, write = self.facts.span(place), is_write(place) and place is not ref
        deferred, member = self.facts.deferred(place), Member(kind, name)  # type: ignore[arg-type]
        if write and kind == "element":
            self.facts.refuse("reference-kept", name, place.start)
        if ref.type == "shorthand_property_identifier":
            head = f"{name}: "
            self.facts.add(
                place, "field-use", lambda entry: Read(span, entry, deferred, member, head)
            )
            return
        self.facts.add(
            place, "field-use", lambda entry: FieldUse(span, entry, deferred, member, write)
        )

    # -- members -----------------------------------------------------------------------------------

    def parts(
        self, effects: Callable[[HookCall], Effect | None]
    ) -> tuple[list[Part], list[StateField]]:
        """The members that hooks make, and the fields of state."""
        found: list[Part] = []
        fields: list[StateField] = []
        # Those before the page is painted run before the others (the reference of the runtime's hooks).
        for call in sorted(self.calls, key=lambda one: one.name == "useEffect"):
            entry = self.facts.ledger.claim("hook", self.facts.span(call.statement))
            notes = self._notes(call)
            pattern = call.pattern
            match call.name:
                case "useState" | "useReducer" if pattern is not None and pattern.named_children:
                    fields.append(self._field_of_state(call, entry, notes))
                    if call.name == "useReducer":
                        found += self._reducer(call, entry, notes)
                case "useRef" if pattern is not None:
                    found.append(self._instance(call, entry, notes))
                case "useId" if pattern is not None:
                    self._made_up(call)
                    code = self.facts.code(self.facts.span(call.call))
                    found.append(InstanceField(pattern.text, code, True, False, "", entry, notes))
                case "useEffect" | "useLayoutEffect":
                    effect = effects(call)
                    if effect is not None:
                        found.append(effect)
                    self.facts.ledger.settle(entry, "carried", "hook-to-call")
                case _:
                    # A value, a function or what is exposed has its own part.
                    self.facts.ledger.settle(entry, "carried", "hook-to-call")
        return found, fields

    def _made_up(self, call: HookCall) -> None:
        callee = call.call.child("function")
        assert callee is not None
        span = self.facts.span(callee)
        self.facts.add(callee, "made-up-id", lambda entry: Builtin(span, entry, False, "$useId"))
        self.facts.sort()

    def _notes(self, call: HookCall) -> tuple[Span, ...]:
        found = comments.leading(self.facts.tree, call.statement)
        found += comments.trailing(self.facts.tree, call.statement)
        return tuple(self.facts.span(note) for note in found)

    def _field_of_state(self, call: HookCall, entry: int, notes: tuple[Span, ...]) -> StateField:
        assert call.pattern is not None
        name = call.pattern.named_children[0].text
        first = call.argument(1 if call.name == "useReducer" else 0)
        value = bare(first) if first is not None else None
        made = value is not None and value.is_function and call.name == "useState"
        if value is not None and made:
            body = body_of(value)
            if body.type == "statement_block" or parameters_of(value):
                self.facts.refuse("state-not-listed", name, value.start)
            value = body
        code = self.facts.code(self.facts.span(value)) if value is not None else None
        above = notes[0] if notes and notes[0].start < call.statement.start else None
        lazy = value is not None and runs_code(value)
        type_text = call.type_text if call.name == "useState" else ""
        return StateField(name, code, lazy, entry, above, type_text=type_text)

    def _reducer(self, call: HookCall, entry: int, notes: tuple[Span, ...]) -> list[Part]:
        assert call.pattern is not None
        names, first = call.pattern.named_children, call.argument()
        if len(names) < 2 or first is None:
            return []
        code = self.facts.code(self.facts.span(first))
        return [Reducer(names[0].text, names[1].text, code, entry)]

    def _instance(self, call: HookCall, entry: int, notes: tuple[Span, ...]) -> InstanceField:
        assert call.pattern is not None
        name, first = call.pattern.text, call.argument()
        element = name in self.elements
        code = None
        if first is not None and not element:
            code = self.facts.code(self.facts.span(first))
        return InstanceField(
            name, None if element else code, True, element, call.type_text, entry, notes,
            first is not None and is_constant(first),
        )  # fmt: skip


def is_reference(ref: Node) -> bool:
    """Whether a name is given to an element as its reference: `<div ref={box}>`."""
    above = ref.parent
    attribute = above.parent if above is not None and above.type == "jsx_expression" else None
    return (
        attribute is not None
        and attribute.type == "jsx_attribute"
        and attribute.children[0].text == "ref"
    )
