"""The public surface of a component in the flat form: options, props, events, provided and exposed
members."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import Code, Member
from clean_carry.component.fragment import (
    Fragment,
    Piece,
    copy,
    joined,
    new,
    settled,
    with_comments,
)
from clean_carry.component.members import Injected, KeptOption, Provided
from clean_carry.component.model import Component
from clean_carry.component.spans import Span
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file_flat.spelling import TAKEN, Speller


@dataclass
class Outward:
    """The public surface of a component, and the form of its text.

    `exposed` are members the project reaches by a reference. `comma` and `last` end the last part of broken
    arguments, and of a broken object or list; a script `wraps` whose formatter breaks what a call is given
    where two functions are, and arrow functions of one parameter are `bare`. A member typed as `any` by the
    runtime is `any` in a `typed` script as well. `called` is a name that the component is given, where that
    of its file would mean another; `fallible` derived values may fail.
    """

    component: Component
    source: SourceText
    speller: Speller
    unit: str
    semicolon: str
    quote: str
    width: int
    comma: str
    last: str
    wraps: bool = False
    bare: bool = False
    typed: bool = False
    exposed: tuple[str, ...] = ()
    called: str = ""
    fallible: frozenset[str] = frozenset()

    def __post_init__(self) -> None:
        # Statements that stand in the module, since they run once for all instances.
        self.module_lines: list[str] = []
        self.base = self.source.indent_at(self.component.span.start)
        self.line = f"\n{self.base}"
        self.end = self.semicolon
        self.names = self.speller.names

    # -- what it is for others --------------------------------------------------------------

    def kept_options(self) -> list[Fragment]:
        """The options only the runtime reads, each with its comments."""
        found: list[Fragment] = []
        if "name" in self.component.entries:
            head = new("name: ", self.component.entries["name"], "name-declared")
            value = head + copy(self.component.foreign.option_values["name"])
            found.append(self.noted(self.component.foreign.option_comments.get("name", ()), value))
        elif self.called:
            found.append(new(f"name: {self.quote}{self.called}{self.quote}"))
        for part in self._kept():
            if part.name in ("data", "methods"):
                continue
            text = settled(part.entry, "option-kept") + self._level(part.span)
            found.append(self.noted(part.comments, text))
        inner = f"{self.line}{self.unit}"
        state = self._parts_kept("data")
        if any(part.comments for part in self._kept() if part.name == "data"):
            text = new(f"data() {{{inner}return ") + self.braced(state).shifted(1)
            found.append(text + new(f"{self.end}{self.line}}}"))
        elif state:
            text = new(f"data() {{{inner}return {{ ") + joined(state, ", ")
            found.append(text + new(f" }}{self.end}{self.line}}}"))
        methods = self._parts_kept("methods")
        if methods:
            found.append(new("methods: ") + self.braced(methods))
        return found

    def _parts_kept(self, option: str) -> list[Fragment]:
        """The parts of an option that stay, with their comments."""
        return [
            self.noted(part.comments, settled(part.entry, "option-kept") + self._level(part.span))
            for part in self._kept()
            if part.name == option
        ]

    def _options(self) -> Fragment:
        kept = self.kept_options()
        if not kept:
            return Fragment()
        if len(kept) == 1 and not self._kept() and self._one_line(kept[0]):
            return new("defineOptions({ ") + kept[0] + new(f" }}){self.end}")
        return new("defineOptions(") + self.braced(kept) + new(f"){self.end}")

    def braced(self, parts: list[Fragment]) -> Fragment:
        """An object of a part a line."""
        inner = f"{self.line}{self.unit}"
        commas = [","] * (len(parts) - 1) + [self.last]
        lines = (self._ended(part, comma) for part, comma in zip(parts, commas, strict=True))
        result = joined((line.shifted(1) for line in lines), inner)
        return new(f"{{{inner}") + result + new(f"{self.line}}}")

    def _ended(self, part: Fragment, comma: str) -> Fragment:
        """A part of an object with its comma, which stands before a comment behind it."""
        at = len(part.pieces)
        while at > 1 and self._is_comment(part.pieces[at - 1]):
            at -= 2
        return Fragment(part.pieces[:at]) + new(comma) + Fragment(part.pieces[at:])

    def _is_comment(self, piece: Piece) -> bool:
        span = piece.span
        return span is not None and self.source.slice(*span[:2]).startswith(("//", "/*"))

    def _one_line(self, fragment: Fragment) -> bool:
        return not any("\n" in piece.text for piece in fragment.pieces)

    def _contract(self) -> Fragment:
        lines: list[Fragment] = []
        component = self.component
        takes = self.speller.takes
        for option, macro, helper in (
            ("props", "defineProps", "props"),
            ("emits", "defineEmits", "emit"),
        ):
            if option not in component.entries:
                if option == "props" and helper in takes:
                    # All of them are mixed in.
                    local = self.names.helper(helper)
                    lines.append(new(f"const {local} = {macro}({{}}){self.end}"))
                continue
            local = self.names.helper(helper) if helper in takes else ""
            head = f"const {local} = {macro}(" if helper in takes else f"{macro}("
            line = new(head, component.entries[option], f"{option}-declared")
            line += self._level(component.foreign.option_values[option])
            notes = component.foreign.option_comments.get(option, ())
            lines.append(self.noted(notes, line + new(f"){self.end}")))
        if "emit" in takes and "emits" not in component.entries:
            local = self.names.helper("emit")
            if self.speller.undeclared:
                whole = self.speller.run("getCurrentInstance")
                wish = "emit" if local == "emit" else f"emit: {local}"
                known = "!" if self.typed else ""
                lines.append(new(f"const {{ {wish} }} = {whole}(){known}{self.end}"))
            else:
                q = self.quote
                events = [f"{q}{event}{q}" for event in self._events()]
                text = self.listed(events, f"const {local} = defineEmits([", f"]){self.end}")
                lines.append(new(text))
        return self._lines(lines)

    def listed(self, names: list[str], head: str, tail: str, space: str = "") -> str:
        """A list on one line, or a name a line where that is too wide."""
        line = f"{head}{space}{', '.join(names)}{space}{tail}"
        if "\n" not in line and len(self.base) + len(line) <= self.width:
            return line
        inner = ",".join(f"{self.line}{self.unit}{name}" for name in names)
        return f"{head}{inner}{self.last}{self.line}{tail}"

    def _events(self) -> list[str]:
        return [event for event in dict.fromkeys(self.component.outward.sent) if event]

    def _helpers(self) -> Fragment:
        lines: list[Fragment] = []
        for helper, function in TAKEN.values():
            if helper in self.speller.takes:
                call = self.speller.run(function)
                lines.append(new(f"const {self.names.helper(helper)} = {call}(){self.end}"))
        if "proxy" in self.speller.takes:
            call = self.speller.run("getCurrentInstance")
            local = self.names.helper("proxy")
            wish = "proxy" if local == "proxy" else f"proxy: {local}"
            kind = ": any" if self.typed else ""
            lines.append(new(f"const {{ {wish} }}{kind} = {call}(){self.end}"))
        for function, local in self.speller.stores.items():
            lines.append(new(f"const {local} = {function}(){self.end}"))
        return self._lines(lines)

    def _injected(self, part: Injected) -> Fragment:
        call = self.speller.run("inject")
        name = self.names.of(Member("injected", part.name))
        kind = "<any>" if self.typed else ""
        result = new(f"const {name} = {call}{kind}({part.key}", part.entry, "injected")
        if part.fallback is not None:
            result += new(", ") + self._releveled(part.fallback)
            result += new(", true" if part.made else "")
        return self.noted(part.comments, result + new(f"){self.end}"))

    def _provided(self, part: Provided) -> Fragment:
        call = self.speller.run("provide")
        head = new(f"{call}({part.key}, ", part.entry, "provided")
        if part.members is not None:
            text = self._members(part.members)
            return self.noted(part.comments, head + text + new(f"){self.end}"))
        return self.noted(part.comments, head + self._releveled(part.code) + new(f"){self.end}"))

    def _members(self, wanted: tuple[str, ...]) -> Fragment:
        """Members of the component as one object that follows them."""
        own = {m.name: m for m in self.names.members if m.kind in ("state", "derived", "method")}
        inner = f"{self.line}{self.unit}"
        parts: list[str] = []
        for name in wanted:
            local = self.names.of(own[name]) if name in own else ""
            if not local:
                parts.append(self._linked(name))
            else:
                parts.append(name if name == local else f"{name}: {local}")
        text = f",{inner}".join(parts)
        return new(f"{self.speller.run('reactive')}({{{inner}{text}{self.last}{self.line}}})")

    def _linked(self, name: str) -> str:
        """An input as a part of an object that follows it."""
        link = f"{self.speller.run('toRef')}({self.speller.take('props')}, "
        return f"{name}: {link}{self.quote}{name}{self.quote})"

    def _exposed(self) -> Fragment:
        component = self.component
        older = self.speller.version < 3
        wanted = {*self.exposed, *(component.foreign.opened.names if older else ())}
        parts = []
        for member, name in self.names.members.items():
            if member.name not in wanted:
                continue
            if member.kind in ("state", "derived", "method"):
                parts.append(name if name == member.name else f"{member.name}: {name}")
            elif older and member.kind == "injected":
                parts.append(member.name if name == member.name else f"{member.name}: {name}")
            elif older and member.kind == "field":
                parts += self._own_accessors(member)
        for prop in component.inputs.props:
            if prop.name in self.exposed:
                parts.append(self._linked(prop.name))
        text = self.listed(parts, "defineExpose({", f"}}){self.end}", " ")
        line = new(text) if parts else Fragment()
        return self.noted(component.foreign.option_comments.get("expose", ()), line)

    def _own_accessors(self, member: Member) -> list[str]:
        """A variable of the script as a property that follows it."""
        local, name = self.names.of(member), member.name
        one, two = (f"{self.line}{self.unit * depth}" for depth in (1, 2))
        parts = [f"get {name}() {{{two}return {local}{self.end}{one}}}"]
        if name in self.component.foreign.opened.written:
            given = "value" if local != "value" else "given"
            parts.append(f"set {name}({given}) {{{two}{local} = {given}{self.end}{one}}}")
        return parts

    def _opened(self) -> Fragment:
        """Return accessors for members that outside code reads from the instance: only props are
        there by themselves.

        On version 2.7 what is exposed is on the instance.
        """
        names = self.component.foreign.opened.names if self.speller.version >= 3 else ()
        own = self._open()
        lines = [new(f"{name}: {self._accessors(name)}") for name in names if name in own]
        if not lines:
            return Fragment()
        whole = self.speller.take("proxy")
        note = "// Asked of the instance by what is mixed in, or by what it is handed to."
        head = new(f"{note}{self.line}Object.defineProperties({whole}, ")
        return head + self.braced(lines) + new(f"){self.end}")

    def _open(self) -> dict[str, Member]:
        return {member.name: member for member in self.names.members if member.kind != "element"}

    def _accessors(self, name: str) -> str:
        """How a member is read by others, and written where they do."""
        value = self.speller.value(self._open()[name])
        if name not in self.component.foreign.opened.written:
            return f"{{ get: () => {value} }}"
        given = "value" if value.split(".")[0] != "value" else "given"
        one, two = (f"{self.line}{self.unit * depth}" for depth in (1, 2))
        setter = f"set({given}) {{{two}{value} = {given}{self.end}{one}}}"
        return f"{{{one}get: () => {value},{one}{setter}{self.last}{self.line}}}"

    # -- text -------------------------------------------------------------------------------

    def _of(self, kind: type) -> list:  # type: ignore[type-arg]
        return [part for part in self.component.members if isinstance(part, kind)]

    def _lines(self, parts: list[Fragment]) -> Fragment:
        return joined((part for part in parts if part), self.line)

    def _kept(self) -> list[KeptOption]:
        return [part for part in self._of(KeptOption) if not part.idle]

    def noted(self, notes: tuple[Span, ...], line: Fragment) -> Fragment:
        """A line with its comments: those before it above, those after it on its last line behind it."""
        return with_comments(line, notes, lambda at: -self._levels(at), self.line)

    def _level(self, span: Span) -> Fragment:
        return copy(span).shifted(-self._levels(span.start))

    def _releveled(self, code: Code) -> Fragment:
        return self.speller.code(code).shifted(-self._levels(code.span.start))

    def _levels(self, at: int) -> int:
        unit = self.unit
        indent = self.source.indent_at(at).replace("\t", unit)
        base = self.base.replace("\t", unit)
        return (len(indent) - len(base)) // max(1, len(unit))
