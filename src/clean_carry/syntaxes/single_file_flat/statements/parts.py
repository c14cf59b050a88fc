"""The members of a component, from the statements that make them."""

from __future__ import annotations

from clean_carry.component.code import Code
from clean_carry.component.members import (
    Callback,
    Derived,
    Injected,
    InstanceField,
    Method,
    Model,
    Part,
    Provided,
    Reaction,
    SharedCall,
    StateField,
    Timed,
)
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.single_file.options.functions import flows, parts_of
from clean_carry.syntaxes.single_file_flat.statements.calls import MOMENTS, RuntimeCall, bare
from clean_carry.syntaxes.single_file_flat.statements.inputs import model_parts
from clean_carry.syntaxes.single_file_flat.statements.name_meanings import Declared, Statement
from clean_carry.syntaxes.single_file_flat.statements.types import TypeReader
from clean_carry.syntaxes.single_file_flat.statements.watched import Watched
from clean_carry.syntaxes.uses import Uses


class PartReader:
    """Makes the parts of one component; `watchers` are those an option can say, by their statement."""

    def __init__(
        self, declared: Declared, uses: Uses, types: TypeReader, watchers: dict[int, Watched]
    ) -> None:
        self.declared, self.uses, self.types = declared, uses, types
        self.watchers = watchers
        self.parts: list[Part] = []
        self.fields: list[StateField] = []

    def read(self, one: Statement) -> None:
        """Read one statement."""
        entry = self.uses.ledger.claim("statement", self.uses.span(one.node))
        notes = self.notes(one.node)
        match one.kind:
            case "state":
                self._state(one, entry, notes)
            case "derived":
                self._derived(one, entry, notes)
            case "method":
                assert one.value is not None
                self.parts.append(self.method(one.name, one.value, entry, notes))
            case "field":
                code = self.uses.code(self.uses.span(one.value)) if one.value is not None else None
                self.parts.append(InstanceField(one.name, code, True, False, "", entry, notes))
            case "injected":
                self._injected(one, entry, notes)
            case "provided":
                self._provided(one, entry, notes)
            case "moment":
                self._moment(one, entry, notes)
            case "watch" if id(one.node) in self.watchers:
                self._reaction(self.watchers[id(one.node)], entry, notes)
            case "watch" | "made":
                code = self.uses.code(self.uses.span(one.node))
                callback = Callback(code, entry)
                self.parts.append(Timed("made", "created", callback, entry, code, comments=notes))
            case "shared":
                self._shared(one, entry, notes)
            case "model" if one.call is not None:
                self._model(one.name, one.call, entry, notes)
            case _:
                # Its text stands with the props, events and options, or nowhere.
                self.uses.ledger.settle(entry, "carried", "statements-to-object")

    def notes(self, node: Node) -> tuple[Span, ...]:
        """The comments that belong to a statement."""
        found = comments.leading(self.uses.tree, node) + comments.trailing(self.uses.tree, node)
        return tuple(self.uses.span(comment) for comment in found)

    def _state(self, one: Statement, entry: int, notes: tuple[Span, ...]) -> None:
        above = [note for note in notes if note.start < one.node.start]
        comment = self.uses.tree.source.span(above[0].start, above[-1].end) if above else None
        behind = tuple(note for note in notes if note.start > one.node.start)
        code = self.uses.code(self.uses.span(one.value)) if one.value is not None else None
        type_text = one.call.type_text if one.call is not None else ""
        self.fields.append(
            StateField(one.name, code, True, entry, comment, behind=behind, type_text=type_text)
        )

    def function(self, function: Node) -> tuple[Code, int]:
        """A function from its parameters on, as a method has them, and where its body begins."""
        start = function.child("type_parameters") or function.child("parameters")
        start = start or function.child("parameter")
        body = function.child("body")
        assert start is not None and body is not None
        return self.uses.code(self.uses.tree.source.span(start.start, function.end)), body.start

    def method(self, name: str, function: Node, entry: int, notes: tuple[Span, ...]) -> Method:
        """A function of the component's own."""
        text, body_at = self.function(function)
        prefix = "async function" if function.has("async") else "function"
        prefix += "*" * function.has("*")
        used = any(n.type == "identifier" and n.text == "arguments" for n in function.walk())
        return Method(
            name, "declared", text, prefix, True, entry, used, body_at, function.has("async"), notes
        )

    def callback(self, function: Node) -> Callback:
        """A function the runtime calls."""
        text, body_at = self.function(function)
        entry = self.uses.ledger.claim("function", self.uses.span(function))
        parameters = function.child("parameters")
        takes = function.child("parameter") is not None
        takes = takes or (parameters is not None and bool(parameters.named_children))
        return Callback(text, entry, body_at, function.has("async"), takes)

    def _derived(self, one: Statement, entry: int, notes: tuple[Span, ...]) -> None:
        value = one.value
        assert value is not None
        getter, setter = value, None
        if value.type == "object":
            functions = {key: function for key, _, function in parts_of(value)}
            if set(functions) != {"get", "set"} or not all(
                f.is_function for f in functions.values()
            ):
                self.uses.refuse(
                    "unread-statement", one.node.text.split("\n")[0][:60], one.node.start
                )
                return
            getter, setter = functions["get"], functions["set"]
        read = self.callback(getter)
        assert read.text is not None
        write = self.callback(setter) if setter is not None else None
        if read.parameters:
            self.uses.refuse(
                "unread-statement", "a derived value that is given its last one", value.start
            )
        type_text = one.call.type_text if one.call is not None else ""
        self.parts.append(
            Derived(
                one.name,
                read.text,
                read.entry,
                None,
                entry,
                notes,
                read,
                write,
                type_text=type_text,
            )
        )

    def _injected(self, one: Statement, entry: int, notes: tuple[Span, ...]) -> None:
        assert one.call is not None
        key, fallback, made = one.call.argument(), one.call.argument(1), one.call.argument(2)
        assert key is not None
        code = self.uses.code(self.uses.span(fallback)) if fallback is not None else None
        word = property_name(key) if key.type == "string" else None
        self.parts.append(
            Injected(
                one.name, word if word is not None else f"={key.text}", code,
                made is not None and made.text == "true", entry, notes,
            )
        )  # fmt: skip

    def _provided(self, one: Statement, entry: int, notes: tuple[Span, ...]) -> None:
        assert one.call is not None
        key, value = one.call.argument(), one.call.argument(1)
        if key is None or value is None:
            self.uses.refuse("unread-statement", one.node.text[:60], one.node.start)
            return
        word = property_name(key) if key.type == "string" else None
        code = self.uses.code(self.uses.span(value))
        self.parts.append(
            Provided(word if word is not None else f"[{key.text}]", code, entry, notes)
        )

    def _moment(self, one: Statement, entry: int, notes: tuple[Span, ...]) -> None:
        assert one.call is not None
        hook, when = MOMENTS[one.call.name]
        function = bare(one.call.argument())
        if function is not None and function.type == "identifier":
            held = self.declared.held.get(function.text)
            if held is not None and held.kind == "method":
                callback = Callback(None, entry, method=held.member)
                self.parts.append(Timed(when, hook, callback, entry, None, comments=notes))
                return
        if function is None or not function.is_function or len(one.call.given) > 1:
            self.uses.refuse("unread-statement", one.node.text.split("\n")[0][:60], one.node.start)
            return
        straight = flows(function) or function.child("body").type != "statement_block"  # type: ignore[union-attr]
        inner = self._inner(function) if straight else None
        scope = self.uses.names.inner_scope(function)
        names = frozenset(scope.names) if scope is not None else frozenset[str]()
        self.parts.append(
            Timed(when, hook, self.callback(function), entry, inner, names, flows(function), notes)
        )

    def _inner(self, function: Node) -> Code | None:
        """The statements of a function, or the expression that is all of it."""
        body = function.child("body")
        if body is None or not body.named_children:
            return None
        if body.type != "statement_block":
            return self.uses.code(self.uses.span(body))
        source = self.uses.tree.source
        statements = body.named_children
        notes = comments.leading(self.uses.tree, statements[0])
        start = notes[0].start if notes else statements[0].start
        after = comments.trailing(self.uses.tree, statements[-1])
        return self.uses.code(source.span(start, after[-1].end if after else statements[-1].end))

    def _reaction(self, seen: Watched, entry: int, notes: tuple[Span, ...]) -> None:
        settings = tuple(self.uses.span(part) for part in seen.settings)
        if seen.function is not None:
            handler = self.callback(seen.function)
            assert handler.text is not None
            text, at = handler.text, handler.entry
        else:
            handler = Callback(None, entry, method=seen.method)
            text, at = Code(self.uses.tree.source.span(0, 0)), entry
        self.parts.append(
            Reaction(
                seen.source, text, at, text, (), (), True, entry, notes, seen.path, handler, settings,
                seen.deep, seen.immediate,
            )
        )  # fmt: skip

    def _model(self, name: str, call: RuntimeCall, entry: int, notes: tuple[Span, ...]) -> None:
        prop, given = model_parts(call)
        declared = self.uses.code(self.uses.span(given)) if given is not None else None
        if given is not None and any(key in ("get", "set") for key, _, _ in parts_of(given)):
            self.uses.refuse("unread-statement", f"{name}, which has code of its own", given.start)
        types = call.node.child("type_arguments")
        kind = None if types is not None else "null"
        if types is not None and types.named_children:
            given_type = types.named_children[0]
            kind = self.types.declared_type(given_type, given_type.text)
        if kind is None or (types is not None and given is not None):
            self.uses.refuse("type-not-followed", call.node.text[:60], call.node.start)
        self.parts.append(Model(name, prop, declared, kind or "null", entry, notes))

    def _shared(self, one: Statement, entry: int, notes: tuple[Span, ...]) -> None:
        span = self.uses.span(one.node)
        names = tuple(name for name in one.name.split(",") if name)
        inside = [
            (s.node.start, s.node.end) for s in self.declared.statements if s.kind == "shared"
        ]
        offered = []
        for name in names:
            binding = self.declared.binding(name)
            refs = [
                ref
                for ref in (binding.references if binding is not None else ())
                if not any(start <= ref.start < end for start, end in inside)
            ]
            if refs or name in self.declared.drawn:
                offered.append(name)
        self.uses.code(span)
        self.parts.append(SharedCall(span, entry, names, tuple(offered), notes))


def functions_of(one: Statement, watchers: dict[int, Watched]) -> list[Node]:
    """The functions of a statement that become methods or options."""
    value, call = one.value, one.call
    match one.kind:
        case "method":
            found = [value]
        case "derived" if value is not None and value.type == "object":
            found = [function for _, _, function in parts_of(value)]
        case "derived":
            found = [value]
        case "moment":
            found = [_first(call)]
        case "watch" if id(one.node) in watchers:
            found = [watchers[id(one.node)].function]
        case _:
            found = []
    return [function for function in found if function is not None]


def _first(call: RuntimeCall | None) -> Node | None:
    return bare(call.argument()) if call is not None else None
