"""Every use of a name of the script, in the script and in the template, as an operation."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from clean_carry.component.code import (
    Box,
    Builtin,
    FieldUse,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Read,
    Respelled,
    Returned,
)
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.timing import is_deferred
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.single_file.members import Members, add_use, locals_at
from clean_carry.syntaxes.single_file_flat.statements.calls import runtime_call
from clean_carry.syntaxes.single_file_flat.statements.name_meanings import Declared, Held, boxed
from clean_carry.syntaxes.uses import Build, Raw, Uses


@dataclass
class Finder:
    """Finds the uses of the names that stand for something.

    `module` are names whose declarations become code of the module, `watched` the places of boxes that are
    only watched.
    """

    uses: Uses
    declared: Declared
    members: Members
    module: frozenset[str]
    watched: set[int] = field(default_factory=set)
    # Findings: rule, detail, offset.
    noted: list[tuple[str, str, int]] = field(default_factory=list)

    def collect(self) -> None:
        """One operation for every use in the script."""
        shared = [
            (s.node.start, s.node.end) for s in self.declared.statements if s.kind == "shared"
        ]
        for name, held in self.declared.held.items():
            binding = self.declared.binding(name)
            if binding is None or name in self.module:
                continue
            for ref in binding.references:
                if any(start <= ref.start < end for start, end in shared):
                    stays = any(start <= binding.node.start < end for start, end in shared)
                    if not stays:
                        self._in_shared(ref, held)
                    continue
                self._use(ref, held)
        self.uses.sort()

    def _in_shared(self, ref: Node, held: Held) -> None:
        """A use in a statement that stays as it is: only the inputs, whole, are there."""
        if held.kind != "props":
            self.uses.refuse("shared-call-takes", ref.text, ref.start)

    def _use(self, ref: Node, held: Held) -> None:
        root = self._root(ref)
        if held.kind in ("state", "derived", "prop", "injected", "shared") and held.boxed:
            place = boxed(ref)
            if place is None:
                self._box(ref, held, root)
                return
        elif held.kind == "element":
            self._element(ref, held, root)
            return
        else:
            place = ref
        self._member(place, held, root)

    def _box(self, ref: Node, held: Held, root: Node) -> None:
        """A box without its value: it is watched, or given to other code."""
        if is_write(ref):
            self.uses.refuse("unknown-use", ref.text, ref.start)
        short = f"{ref.text}: " if ref.type.startswith("shorthand") else ""
        kind = "derived" if held.kind == "shared" else held.kind
        deferred = is_deferred(ref, root, self.uses.names)
        member = Member(kind, held.member)  # type: ignore[arg-type]
        watched = ref.start in self.watched
        self.add(ref, "box", Box(self.uses.span(ref), -1, deferred, member, watched, short))

    def drawn(self, place: Node, held: Held, root: Node) -> None:
        """A name in the template, where boxes are opened."""
        self._member(place, held, root)

    def _member(self, place: Node, held: Held, root: Node) -> None:
        match held.kind:
            case "props":
                self._input(place, root)
            case "emit":
                add_use(self.uses, place, "$emit", self.members, root)
            case "runtime":
                self._builtin(place, held.member, root)
            case "field":
                deferred = is_deferred(place, root, self.uses.names)
                short = f"{place.text}: " if place.type.startswith("shorthand") else ""
                if short and is_write(place):
                    self.uses.refuse("unknown-use", place.text, place.start)
                member = Member("field", held.member)
                if short:
                    read = Read(self.uses.span(place), -1, deferred, member, short)
                    self.add(place, "field", read)
                    return
                use = FieldUse(self.uses.span(place), -1, deferred, member, is_write(place))
                self.add(place, "field", use)
            case "method":
                self._method(place, held.member, root)
            case _:
                if not add_use(self.uses, place, held.member, self.members, root):
                    self.uses.refuse("unknown-use", place.text, place.start)

    def _input(self, place: Node, root: Node) -> None:
        """`props.pier`, or all inputs as one object."""
        above = place.parent
        part = above.child("property") if above is not None and place.field == "object" else None
        if above is not None and above.type == "member_expression" and part is not None:
            if part.text in self.members.props:
                add_use(self.uses, above, part.text, self.members, root)
                return
        self._builtin(place, "$props", root)

    def _builtin(self, place: Node, name: str, root: Node) -> None:
        if is_write(place) or place.type.startswith("shorthand"):
            self.uses.refuse("unknown-use", place.text, place.start)
        deferred = is_deferred(place, root, self.uses.names)
        self.add(place, "built-in", Builtin(self.uses.span(place), -1, deferred, name))

    def _element(self, ref: Node, held: Held, root: Node) -> None:
        place = boxed(ref)
        if place is None or is_write(place):
            self.uses.refuse("reference-kept", ref.text, ref.start)
            return
        if self._is_followed(ref, held.member):
            self.uses.refuse("reference-followed", ref.text, ref.start)
        deferred = is_deferred(place, root, self.uses.names)
        member = Member("element", held.member)
        self.add(place, "element-reference", FieldUse(self.uses.span(place), -1, deferred, member))

    def _is_followed(self, ref: Node, name: str) -> bool:
        """Whether code runs again when an element is mounted; an effect that runs after rendering always
        finds the element mounted."""
        for one in self.declared.statements:
            if not one.node.start <= ref.start < one.node.end:
                continue
            if one.kind == "derived":
                return True
            call = one.call or runtime_call(one.value, self.uses.names)
            if call is None:
                return False
            source = call.argument()
            followed = source is not None and source.start <= ref.start < source.end
            if call.name == "watchPostEffect":
                if all(detail != ref.text for _, detail, _ in self.noted):
                    self.noted.append(("element-not-followed", ref.text, ref.start))
                return not self.declared.elements.get(name, False)
            return followed and call.name in ("watch", "watchEffect", "watchSyncEffect")
        return False

    def _method(self, ref: Node, name: str, root: Node) -> None:
        parent, member = ref.parent, Member("method", name)
        deferred, span = is_deferred(ref, root, self.uses.names), self.uses.span(ref)
        if is_write(ref):
            self.uses.refuse("method-replaced", name, ref.start)
        elif parent is not None and parent.type == "call_expression" and ref.field == "function":
            self.add(ref, "method-call", MethodCall(span, -1, deferred, member))
        else:
            short = f"{name}: " if ref.type.startswith("shorthand") else ""
            value = MethodValue(span, -1, deferred, member, "kept", shorthand=short)
            self.add(ref, "method-value", value)

    def add(self, node: Node, notion: str, operation: Operation) -> None:
        """Add an operation at a node."""

        def build(entry: int) -> Operation:
            self.uses.locals_at[entry] = locals_at(self.uses, node)
            return replace(operation, entry=entry)

        self.uses.raws.append(Raw(operation.span, notion, build))

    def respell(self, start: int, end: int, text: str, rule: str) -> None:
        """Write `text` in the place of a stretch, by a rule."""
        span = self.uses.tree.source.span(start, end)
        self.uses.raws.append(
            Raw(span, rule, lambda entry: Respelled(span, entry, False, text, rule))
        )

    def _root(self, node: Node) -> Node:
        """The outermost function around a node, else its statement."""
        above = [node, *node.up()]
        functions = [up for up in above if up.is_function]
        return functions[-1] if functions else above[-2]

    # -- arrow functions that become methods ------------------------------------------------------

    def as_method(self, function: Node, alone: bool) -> None:
        """Write an arrow function as methods are written; the result of an `alone` function is unused."""
        if function.type == "arrow_function":
            self._arrow(function, alone)

    def _arrow(self, function: Node, alone: bool) -> None:
        body = function.child("body")
        single = function.child("parameter")
        if body is None:
            return
        if single is not None:
            self.respell(single.start, single.start, "(", "arrow-as-method")
        head = function.child("return_type") or function.child("parameters") or single
        assert head is not None
        close = ")" if single is not None else ""
        if body.type == "statement_block":
            self.respell(head.end, body.start, f"{close} ", "arrow-as-method")
            return
        if close:
            self.respell(head.end, head.end, close, "arrow-as-method")
        value = body
        inner = body.named_children[0] if body.type == "parenthesized_expression" else body
        if inner.type == "object" or "\n" not in body.text:
            value = inner
        span = self.uses.tree.source.span(head.end, body.end)
        own_line = "\n" in self.uses.tree.source.slice(head.end, body.start)
        self.uses.raws.append(
            Raw(
                span,
                "arrow-as-method",
                _returned(self.uses, span, value, own_line, alone and self._is_done(value)),
            )
        )

    def _is_done(self, value: Node) -> bool:
        """Whether an expression is done once it has run: nothing is waited for that it gives."""
        callee = value.child("function") if value.type == "call_expression" else None
        held = self.declared.held.get(callee.text) if callee is not None else None
        sends = held is not None and held.kind == "emit"
        return sends or value.type.endswith(("assignment_expression", "update_expression"))


def _returned(uses: Uses, span, value: Node, own_line: bool, alone: bool) -> Build:  # type: ignore[no-untyped-def]
    def build(entry: int) -> Operation:
        return Returned(span, entry, False, uses.code(uses.span(value)), own_line, alone)

    return build
