"""Write a component as the top-level statements of a script. The template stays as it is."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import (
    Code,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Rebound,
    Taken,
)
from clean_carry.component.fragment import (
    Fragment,
    between,
    copy,
    dropped,
    joined,
    new,
    settled,
)
from clean_carry.component.model import (
    Callback,
    Component,
    Derived,
    Injected,
    KeptOption,
    Method,
    Provided,
    Reaction,
    StateField,
    Timed,
)
from clean_carry.component.spans import Span
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file_flat.spelling import TAKEN, Speller, root_of

# The function that says what runs at a moment.
MOMENTS = {
    "starting": "onBeforeMount",
    "displayed": "onMounted",
    "before update": "onBeforeUpdate",
    "updated": "onUpdated",
    "shown again": "onActivated",
    "hidden": "onDeactivated",
    "before removal": "onBeforeUnmount",
    "removed": "onUnmounted",
    "failed": "onErrorCaptured",
}
_SETTLED = ("computed", "watch", "methods", "inject", "provide", "expose")


@dataclass
class FlatWriter:
    """Writes one component. `exposed` are members the project reaches by a reference.

    What the runtime types as anything is anything in a `typed` script as well.
    """

    component: Component
    source: SourceText
    speller: Speller
    unit: str
    semicolon: str
    quote: str
    width: int
    typed: bool = False
    exposed: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        self.base = self.source.indent_at(self.component.span.start)
        self.line = f"\n{self.base}"
        self.end = self.semicolon
        self.names = self.speller.names

    # -- the whole --------------------------------------------------------------------------

    def write(self) -> Fragment:
        """The statements of the script, without imports."""
        component = self.component
        settle = settled(component.entries["component"], "object-to-statements")
        for option in _SETTLED:
            if option in component.entries:
                settle += settled(component.entries[option], "object-to-statements")
        if "components" in component.entries:
            settle += dropped(component.entries["components"], "registered-by-import")
            for note in component.option_comments.get("components", ()):
                settle += copy(note) + new(self.line)
        for part in self._of(KeptOption):
            if part.idle:
                settle += dropped(part.entry, "option-never-read")
        watchers = [self._reaction(part) for part in component.reactions]
        made = [self._provided(part) for part in self._of(Provided)]
        made += [self._timed(part) for part in self._of(Timed) if part.when == "made"]
        later = [self._timed(part) for part in self._of(Timed) if part.when != "made"]
        values: list[Fragment] = [self._derived(part) for part in component.derived]
        state = self._state()
        own = component.methods()
        functions = [self._method(part) for part in own if part.form == "declared"]
        # A constant is there only after its statement; a function is there from the start.
        constants = [self._method(part) for part in own if part.form != "declared"]
        injected = self._lines([self._injected(part) for part in self._of(Injected)])
        known = self._lines([self._field(name) for name in component.plain_fields])
        elements = self._lines([self._element(name) for name in self._elements()])
        exposed = self._exposed()
        opened = self._opened()
        options = self._options() if self.speller.version >= 3 else Fragment()
        contract = self._contract()
        blocks = [options, contract, self._helpers(), injected, elements, state, known, *values]
        blocks += [*constants, opened, *watchers, *functions, *made, *later, exposed]
        return settle + joined((b for b in blocks if b), f"\n{self.line}")

    def _of(self, kind: type) -> list:  # type: ignore[type-arg]
        return [part for part in self.component.members if isinstance(part, kind)]

    def _lines(self, parts: list[Fragment]) -> Fragment:
        return joined((part for part in parts if part), self.line)

    def _kept(self) -> list[KeptOption]:
        return [part for part in self._of(KeptOption) if not part.idle]

    # -- what it is for others --------------------------------------------------------------

    def kept_options(self) -> list[Fragment]:
        """The options only the runtime reads, each with its comments."""
        found: list[Fragment] = []
        if "name" in self.component.entries:
            head = new("name: ", self.component.entries["name"], "name-declared")
            value = head + copy(self.component.option_values["name"])
            found.append(self._noted(self.component.option_comments.get("name", ()), value))
        for part in self._kept():
            if part.name in ("data", "methods"):
                continue
            text = settled(part.entry, "option-kept") + self._level(part.span)
            found.append(self._noted(part.comments, text))
        inner = f"{self.line}{self.unit}"
        state = self._parts_kept("data", ", ", 0)
        if state:
            text = new(f"data() {{{inner}return {{ ") + state
            found.append(text + new(f" }}{self.end}{self.line}}}"))
        methods = self._parts_kept("methods", f",{inner}", 1)
        if methods:
            found.append(new(f"methods: {{{inner}") + methods + new(f",{self.line}}}"))
        return found

    def _parts_kept(self, option: str, between: str, levels: int) -> Fragment:
        """The parts of an option that stay, with their comments."""
        parts: list[Fragment] = []
        for part in self._kept():
            if part.name == option:
                text = settled(part.entry, "option-kept") + self._level(part.span).shifted(levels)
                parts.append(self._noted(part.comments, text))
        return joined(parts, between)

    def _options(self) -> Fragment:
        kept = self.kept_options()
        if not kept:
            return Fragment()
        if len(kept) == 1 and not self._kept() and self._one_line(kept[0]):
            return new("defineOptions({ ") + kept[0] + new(f" }}){self.end}")
        inner = f"{self.line}{self.unit}"
        result = new("defineOptions({")
        for part in kept:
            result += new(inner) + part.shifted(1) + new(",")
        return result + new(f"{self.line}}}){self.end}")

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
            line += self._level(component.option_values[option])
            notes = component.option_comments.get(option, ())
            lines.append(self._noted(notes, line + new(f"){self.end}")))
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
        if len(self.base) + len(line) <= self.width:
            return line
        inner = "".join(f"{self.line}{self.unit}{name}," for name in names)
        return f"{head}{inner}{self.line}{tail}"

    def _events(self) -> list[str]:
        return [event for event in dict.fromkeys(self.component.sent) if event]

    def _helpers(self) -> Fragment:
        lines: list[Fragment] = []
        for helper, function in TAKEN.values():
            if helper in self.speller.takes:
                call = self.speller.run(function)
                lines.append(new(f"const {self.names.helper(helper)} = {call}(){self.end}"))
        if "instance" in self.speller.takes:
            call = self.speller.run("getCurrentInstance")
            kind = ": any" if self.typed else ""
            lines.append(new(f"const {self.names.helper('instance')}{kind} = {call}(){self.end}"))
        return self._lines(lines)

    def _injected(self, part: Injected) -> Fragment:
        call = self.speller.run("inject")
        name = self.names.of(Member("injected", part.name))
        kind = "<any>" if self.typed else ""
        result = new(f"const {name} = {call}{kind}({part.key}", part.entry, "injected")
        if part.fallback is not None:
            result += new(", ") + self._releveled(part.fallback)
            result += new(", true" if part.made else "")
        return self._noted(part.comments, result + new(f"){self.end}"))

    def _provided(self, part: Provided) -> Fragment:
        call = self.speller.run("provide")
        head = new(f"{call}({part.key}, ", part.entry, "provided")
        if part.members is not None:
            text = self._members(part.members)
            return self._noted(part.comments, head + text + new(f"){self.end}"))
        return self._noted(part.comments, head + self._releveled(part.code) + new(f"){self.end}"))

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
        return new(f"{self.speller.run('reactive')}({{{inner}{text},{self.line}}})")

    def _linked(self, name: str) -> str:
        """An input as a part of an object that follows it."""
        link = f"{self.speller.run('toRef')}({self.speller.take('props')}, "
        return f"{name}: {link}{self.quote}{name}{self.quote})"

    def _exposed(self) -> Fragment:
        parts = []
        for member, name in self.names.members.items():
            if member.name in self.exposed and member.kind in ("state", "derived", "method"):
                parts.append(name if name == member.name else f"{member.name}: {name}")
        for prop in self.component.props:
            if prop.name in self.exposed:
                parts.append(self._linked(prop.name))
        text = self.listed(parts, "defineExpose({", f"}}){self.end}", " ")
        line = new(text) if parts else Fragment()
        return self._noted(self.component.option_comments.get("expose", ()), line)

    def _opened(self) -> Fragment:
        """What others ask the instance for: accessors on it, where only inputs are by themselves."""
        opened = self.component.opened
        own = {member.name: member for member in self.names.members if member.kind != "element"}
        inner = f"{self.line}{self.unit}"
        lines = []
        for name in opened.names:
            if name not in own:
                continue
            value = self.speller.value(own[name])
            text = f"get: () => {value}"
            if name in opened.written:
                given = "value" if value.split(".")[0] != "value" else "given"
                text += f", set: ({given}) => {{ {value} = {given}{self.end} }}"
            lines.append(f"{inner}{name}: {{ {text} }},")
        if not lines:
            return Fragment()
        whole = f"{self.speller.take('instance')}.proxy"
        note = "// Asked of the instance by what is mixed in, or by what it is handed to."
        head = f"{note}{self.line}Object.defineProperties({whole}, {{"
        return new(f"{head}{''.join(lines)}{self.line}}}){self.end}")

    # -- what it holds ------------------------------------------------------------------------

    def _state(self) -> Fragment:
        state = self.component.state
        if state is None:
            return Fragment()
        result = settled(state.entry, "state-to-refs")
        for note in state.comments:
            result += copy(note) + new(self.line)
        if self.component.prelude is not None:
            result += self._releveled(self.component.prelude) + new(self.line)
        return result + self._lines([self._ref(f) for f in state.fields or ()])

    def _ref(self, field_: StateField) -> Fragment:
        above = copy(field_.comment) + new(self.line) if field_.comment is not None else Fragment()
        assert field_.code is not None
        call = self.speller.run("ref")
        name = self.names.of(Member("state", field_.name))
        head = new(f"const {name} = {call}(", field_.entry, "state-field-to-ref")
        return above + head + self._releveled(field_.code) + new(f"){self.end}")

    def _field(self, name: str) -> Fragment:
        kind = ": any" if self.typed else ""
        return new(f"let {self.names.of(Member('field', name))}{kind}{self.end}")

    def _elements(self) -> list[str]:
        return [member.name for member in self.names.members if member.kind == "element"]

    def _element(self, name: str) -> Fragment:
        call = self.speller.run("ref")
        local = self.names.of(Member("element", name))
        kind = "<any>" if self.typed else ""
        return new(f"const {local} = {call}{kind}(null){self.end}")

    # -- what it does -----------------------------------------------------------------------

    def _method(self, part: Method) -> Fragment:
        name = self.names.of(Member("method", part.name))
        if part.prefix == "module":
            return self._noted(part.comments, dropped(part.entry, "method-in-scope"))
        if part.form == "declared":
            head = new(f"{part.prefix} {name}", part.entry, "method-to-function")
            return self._noted(part.comments, head + self._releveled(part.text))
        head = new(f"const {name} = ", part.entry, "method-to-function")
        return self._noted(part.comments, head + self._releveled(part.text) + new(self.end))

    def _derived(self, part: Derived) -> Fragment:
        call = self.speller.run("computed")
        name = self.names.of(Member("derived", part.name))
        head = new(f"const {name} = {call}(", part.entry, "derived-to-computed")
        assert part.getter is not None
        if part.setter is None:
            text = self._callback(part.getter)
        else:
            inner = f"{self.line}{self.unit}"
            text = new(f"{{{inner}get: ") + self._callback(part.getter).shifted(1)
            text += new(f",{inner}set: ") + self._callback(part.setter).shifted(1)
            text += new(f",{self.line}}}")
        return self._noted(part.comments, head + text + new(f"){self.end}"))

    def _reaction(self, part: Reaction) -> Fragment:
        settle = Fragment()
        for _, entry in (*part.now, *part.before):
            settle += settled(entry, "", "kept")
        assert part.handler is not None
        watched = self._watched(part)
        kept = part.plain or part.deep or self.speller.version >= 3
        if kept:
            call = self.speller.run("watch")
        else:
            # Only the runtime's own watcher runs where an object was changed in place.
            call = f"{self.speller.take('instance')}.proxy.$watch"
        head = new(f"{call}(() => {watched}, ", part.entry, "reaction-to-watch")
        text = head + self._callback(part.handler)
        if part.settings:
            text += new(", { ") + joined((copy(s) for s in part.settings), ", ") + new(" }")
        return self._noted(part.comments, settle + text + new(f"){self.end}"))

    def _watched(self, part: Reaction) -> str:
        name = part.source.name
        value = (
            self.speller.built_in(name) if name.startswith("$") else self.speller.value(part.source)
        )
        return value + "".join(f"?.{step}" for step in part.path)

    def _timed(self, part: Timed) -> Fragment:
        result = settled(part.entry, "moment-to-call")
        if part.when != "made":
            call = self.speller.run(MOMENTS[part.when])
            text = new(f"{call}(") + self._callback(part.callback) + new(f"){self.end}")
            return result + self._noted(part.comments, text)
        if part.flows and part.inner is not None:
            return result + settled(part.callback.entry, "", "carried") + self._inline(part)
        name = self.names.helper("created")
        assert part.callback.text is not None
        prefix = "async function" if part.callback.asynchronous else "function"
        if part.callback.body_at < 0:
            text = new(f"const {name} = ") + self._callback(part.callback) + new(self.end)
        else:
            text = settled(part.callback.entry, "", "kept") + new(f"{prefix} {name}")
            text += self._releveled(part.callback.text)
        return result + self._noted(part.comments, text + new(f"\n{self.line}{name}(){self.end}"))

    def _inline(self, part: Timed) -> Fragment:
        """Code of the making, as statements; in a block where it declares names."""
        assert part.inner is not None
        span = part.inner.span
        data = self.source.data[span.start : span.end]
        start = span.start + len(data) - len(data.lstrip())
        end = span.end - (len(data) - len(data.rstrip()))
        if start >= end:
            return self._noted(part.comments, Fragment())
        inner = Code(span._replace(start=start, end=end), part.inner.operations)
        if not part.locals:
            return self._noted(part.comments, self._releveled(inner))
        deeper = f"{self.line}{self.unit}"
        body = self._releveled(inner).shifted(1)
        return self._noted(part.comments, new(f"{{{deeper}") + body + new(f"{self.line}}}"))

    # -- text -------------------------------------------------------------------------------

    def _callback(self, callback: Callback) -> Fragment:
        """A function of an option as an arrow function, or the method that stands for it."""
        if callback.text is None:
            return new(self.names.of(Member("method", callback.method)))
        settle = settled(callback.entry, "", "kept")
        if callback.body_at < 0:
            return settle + self._releveled(callback.text)
        code = callback.text
        at = callback.body_at
        first = [o for o in code.operations if o.span.start < at]
        rest = [o for o in code.operations if o.span.start >= at]
        head = between(code.span._replace(end=at), first, self.speller.spell)
        levels = -self._levels(code.span.start)
        tail = between(code.span._replace(start=at), rest, self.speller.spell)
        prefix = "async " if callback.asynchronous else ""
        return settle + new(prefix) + (head + new("=> ") + tail).shifted(levels)

    def _noted(self, notes: tuple[Span, ...], line: Fragment) -> Fragment:
        above = Fragment()
        for note in notes:
            levels = self._levels(note.start)
            above += copy(note).shifted(-levels) + new(self.line)
        return above + line

    def _level(self, span: Span) -> Fragment:
        return copy(span).shifted(-self._levels(span.start))

    def _releveled(self, code: Code) -> Fragment:
        return self.speller.code(code).shifted(-self._levels(code.span.start))

    def _levels(self, at: int) -> int:
        unit = self.unit
        indent = self.source.indent_at(at).replace("\t", unit)
        base = self.base.replace("\t", unit)
        return (len(indent) - len(base)) // max(1, len(unit))


def used_names(component: Component, speller: Speller) -> list[tuple[Operation, str]]:
    """Every operation of the script that is spelled, with the name its text begins with."""
    found: list[tuple[Operation, str]] = []
    for owner, operation in component.operations():
        if owner == "drawing":
            continue
        for inner in [o for o, _, _ in operation.members] if isinstance(operation, Taken) else []:
            found.append((inner, root_of(speller.spelled(inner))))
        text = speller.spelled(operation)
        if isinstance(operation, Rebound):
            found.append((operation, speller.names.of(operation.member)))
        elif text:
            found.append((operation, root_of(text)))
            if isinstance(operation, MethodCall | MethodValue):
                continue
            if text.startswith(f"{speller.names.helpers.get('unref', '')}("):
                found.append((operation, speller.names.of(operation.member)))  # type: ignore[attr-defined]
    return found
