"""The options of a component object, each as a fragment at the indentation of a script's statements."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.component.code import FieldUse, MethodCall, MethodValue, Read
from clean_carry.component.fragment import Fragment, copy, joined, new, settled, with_comments
from clean_carry.component.ledger import Ledger
from clean_carry.component.members import (
    Callback,
    Derived,
    Injected,
    InstanceField,
    Method,
    Model,
    Provided,
    Reaction,
    SharedCall,
    StateField,
    Timed,
)
from clean_carry.component.model import Component
from clean_carry.component.spans import Span
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file_object.spelling import Speller
from clean_carry.syntaxes.unsaid import Unsaid

_RULE = "statements-to-object"
# The older runtime's names of two hooks.
_OLDER = {"beforeUnmount": "beforeDestroy", "unmounted": "destroyed"}


class MemberWriter:
    """Writes the members of one component as options."""

    def __init__(
        self, component: Component, source: SourceText, ledger: Ledger, speller: Speller,
        version: int, last: str,
    ) -> None:  # fmt: skip
        self.component, self.source, self.speller = component, source, speller
        self.ledger = ledger
        self.version, self.last = version, last
        self.unit, self.end = speller.unit, speller.end

    def entry_spans(self, entry: int) -> Span:
        """The span of a ledger entry."""
        return self.ledger.entries[entry].span

    def _of(self, kind: type) -> list:  # type: ignore[type-arg]
        return [part for part in self.component.members if isinstance(part, kind)]

    def block(self, head: str, parts: list[Fragment], tail: str = "}") -> Fragment:
        """Parts one under another between brackets, one level deeper."""
        line = f"\n{self.unit}"
        return (
            new(f"{head}{line}")
            + joined((part.shifted(1) for part in parts), f",{line}")
            + new(f"{self.last}\n{tail}")
        )

    def noted(self, line: Fragment, comments: tuple[Span, ...]) -> Fragment:
        """A line with its comments."""
        return with_comments(line, comments, lambda at: -self.speller.level(at), "\n")

    # -- what it holds ---------------------------------------------------------------------------

    def data(self, more: list[str]) -> Fragment | None:
        """Return the option `data`; `more` are names of the module that the template reads."""
        state = self.component.state
        fields = list(state.fields or ()) if state is not None else []
        if not fields and not more:
            return None
        early = {
            one.member.name
            for field in fields
            for one in (field.code.all() if field.code is not None else ())
            if isinstance(one, Read) and one.member.kind == "state" and not one.deferred
        }
        self.speller.local = frozenset(early)
        lines, parts = [], [new(name) for name in more]
        with self.speller.making():
            for field in fields:
                value = self._value(field)
                if field.name in early:
                    made = new(f"const {field.name} = ") + value + new(self.end)
                    lines.append(self._field(field, made))
                    parts.append(new(field.name))
                else:
                    parts.append(self._field(field, new(f"{field.name}: ") + value))
        own = [new(f"const {self.speller.own} = this{self.end}")] if self._took_own() else []
        returned = self.block("return {", parts, f"}}{self.end}")
        statements = joined([*own, *lines, returned], "\n").shifted(1)
        return new(f"data() {{\n{self.unit}") + statements + new("\n}")

    def _took_own(self) -> bool:
        used, self.speller.used_own = self.speller.used_own, False
        return used

    def _field(self, field: StateField, line: Fragment) -> Fragment:
        line = settled(field.entry, _RULE) + line
        above = (field.comment,) if field.comment is not None else ()
        for note in field.behind:
            line += new(" ") + copy(note)
        return self.noted(line, above)

    def _value(self, field: StateField) -> Fragment:
        value = new("undefined") if field.code is None else self.speller.at_top(field.code)
        if field.type_text and self.component.language.typed:
            text = "" if field.code is None else self.source.slice(*field.code.span[:2])
            kind = field.type_text if field.code is not None else f"{field.type_text} | undefined"
            if _type_of(text) != field.type_text:
                value += new(f" as {kind}")
        return value

    def injected(self) -> Fragment | None:
        """The option `inject`."""
        parts: list[Injected] = self._of(Injected)
        if not parts:
            return None
        q = self.speller.quote
        plain = all(p.fallback is None and p.key == p.name and not p.comments for p in parts)
        if plain:
            names = ", ".join(f"{q}{part.key}{q}" for part in parts)
            settle = joined((settled(part.entry, _RULE) for part in parts), "")
            return settle + new(f"inject: [{names}]")
        lines = []
        for part in parts:
            given = []
            if part.key != part.name:
                given.append(
                    new(f"from: {part.key[1:] if part.key[:1] == '=' else q + part.key + q}")
                )
            if part.fallback is not None:
                value = self.speller.at_top(part.fallback)
                text = self.source.slice(*part.fallback.span[:2])
                factory = "" if part.made or _is_plain(text) else "() => "
                wrapped = text.startswith("{") and factory
                given.append(
                    new(f"default: {factory}{'(' if wrapped else ''}")
                    + value
                    + new(")" if wrapped else "")
                )
            inner = joined(given, ", ")
            line = (
                new(f"{part.name}: {{ ") + inner + new(" }") if given else new(f"{part.name}: {{}}")
            )
            lines.append(self.noted(settled(part.entry, _RULE) + line, part.comments))
        return self.block("inject: {", lines)

    def provided(self) -> Fragment | None:
        """The option `provide`."""
        parts: list[Provided] = self._of(Provided)
        if not parts:
            return None
        lines = []
        for part in parts:
            key = part.key
            if not key.startswith("[") and not is_identifier(key):
                key = f"{self.speller.quote}{key}{self.speller.quote}"
            line = new(f"{key}: ") + self.speller.at_top(part.code)
            lines.append(self.noted(settled(part.entry, _RULE) + line, part.comments))
        returned = self.block("return {", lines, f"}}{self.end}").shifted(1)
        return new(f"provide() {{\n{self.unit}") + returned + new("\n}")

    def shared(self) -> Fragment | None:
        """The option `setup`: calls of shared code, as they are, and what of them is offered."""
        parts: list[SharedCall | Model] = self._of(SharedCall) + self._of(Model)
        if not parts:
            return None
        parts.sort(key=lambda part: self.entry_spans(part.entry).start)
        lines = []
        for part in parts:
            if isinstance(part, Model):
                lines.append(self._model(part))
                continue
            lines.append(
                self.noted(
                    settled(part.entry, _RULE)
                    + copy(part.span).shifted(-self.speller.level(part.span.start)),
                    part.comments,
                )
            )
        offered = [
            name
            for part in parts
            for name in (part.offered if isinstance(part, SharedCall) else (part.name,))
        ]
        names = ", ".join(offered)
        returned = [new(f"return {{ {names} }}{self.end}")] if names else []
        takes = self._props_name(parts)
        body = joined([*lines, *returned], "\n").shifted(1)
        return new(f"setup({takes}) {{\n{self.unit}") + body + new("\n}")

    def _model(self, part: Model) -> Fragment:
        if self.version < 3:
            raise Unsaid("model-of-newer", part.prop, self.entry_spans(part.entry).start)
        self.speller.imports.add("useModel")
        q = self.speller.quote
        call = f"useModel({self._props_named()}, {q}{part.prop}{q})"
        line = settled(part.entry, _RULE) + new(f"const {part.name} = {call}{self.end}")
        return self.noted(line, part.comments)

    def _props_named(self) -> str:
        stands = self.component.foreign.stands_for
        return next((name for name, means in stands.items() if means == "$props"), "props")

    def _props_name(self, parts: list[SharedCall | Model]) -> str:
        name = self._props_named()
        shared = [part for part in parts if isinstance(part, SharedCall)]
        text = " ".join(self.source.slice(*part.span[:2]) for part in shared)
        return name if len(shared) < len(parts) or name in text else ""

    # -- behaviour ---------------------------------------------------------------------------------

    def derived(self) -> Fragment | None:
        """The option `computed`."""
        lines = []
        for part in self.component.derived:
            assert part.getter is not None
            if part.setter is None:
                line = self._callback(part.name, part.getter, self._result(part))
            else:
                both = [self._callback("get", part.getter), self._callback("set", part.setter)]
                line = self.block(f"{part.name}: {{", both)
            lines.append(self.noted(settled(part.entry, _RULE) + line, part.comments))
        return self.block("computed: {", lines) if lines else None

    def _result(self, part: Derived) -> str:
        typed = self.component.language.typed and part.type_text
        head = self.source.slice(part.text.span.start, part.getter.body_at) if part.getter else ""
        return f": {part.type_text}" if typed and ":" not in head.rpartition(")")[2] else ""

    def _callback(self, name: str, callback: Callback, result: str = "") -> Fragment:
        assert callback.text is not None
        head = "async " if callback.asynchronous else ""
        made = self.speller.function(callback.text, callback.body_at)
        if result:
            made = _with_result(made, result)
        return settled(callback.entry, _RULE) + new(f"{head}{name}") + made

    def watched(self) -> Fragment | None:
        """The option `watch`."""
        by_key: dict[str, list[Reaction]] = {}
        for part in self.component.reactions:
            key = ".".join((part.source.name, *part.path))
            by_key.setdefault(key, []).append(part)
        lines = []
        for key, parts in by_key.items():
            name = key if is_identifier(key) else f"{self.speller.quote}{key}{self.speller.quote}"
            if len(parts) == 1:
                lines.append(self._watcher(name, parts[0]))
            else:
                many = [self._settings(part) for part in parts]
                lines.append(self.block(f"{name}: [", many, "]"))
        return self.block("watch: {", lines) if lines else None

    def _watcher(self, name: str, part: Reaction) -> Fragment:
        handler = part.handler
        assert handler is not None
        if part.settings or part.deep:
            line = new(f"{name}: ") + self._settings(part)
            return line if not part.comments else self.noted(line, ())
        if handler.method:
            q = self.speller.quote
            line = new(f"{name}: {q}{handler.method}{q}")
        else:
            line = self._callback(name, handler)
        return self.noted(settled(part.entry, _RULE) + line, part.comments)

    def _settings(self, part: Reaction) -> Fragment:
        handler, q = part.handler, self.speller.quote
        assert handler is not None
        if handler.method:
            first = new(f"handler: {q}{handler.method}{q}")
        else:
            first = self._callback("handler", handler)
        told = [copy(span) for span in part.settings]
        if part.deep and not any("deep" in self.source.slice(*s[:2]) for s in part.settings):
            told.append(new("deep: true"))
        inner = self.block("{", [first, *told])
        return self.noted(settled(part.entry, _RULE), ()) + _above(part.comments) + inner

    def made(self) -> tuple[Fragment | None, Fragment | None]:
        """The hooks `beforeCreate` and `created`: fields, and what runs while it is made."""
        early = self._used_early()
        first: list[Fragment] = []
        then: list[Fragment] = []
        for part in self.component.members:
            if isinstance(part, InstanceField):
                value = (
                    self.speller.at_top(part.code) if part.code is not None else new("undefined")
                )
                line = new(f"this.{part.name} = ") + value + new(self.end)
                line = self.noted(settled(part.entry, _RULE) + line, part.comments)
                (first if part.name in early else then).append(line)
                if part.name in early and part.code is not None and part.code.operations:
                    raise Unsaid("field-too-early", part.name, part.code.span.start)
            elif isinstance(part, Timed) and part.when == "made":
                assert part.inner is not None
                line = settled(part.entry, _RULE) + self.speller.at_top(part.inner)
                then.append(self.noted(line, part.comments))
        return self._hook("beforeCreate", first), self._hook("created", then)

    def _used_early(self) -> set[str]:
        """The fields that are used before `created` runs: by what is provided, and by watchers at once."""
        methods = {method.name: method.text for method in self.component.methods()}
        queue = [part.code for part in self._of(Provided)]
        for part in self.component.reactions:
            if part.immediate and part.handler is not None:
                queue += [part.handler.text] if part.handler.text is not None else []
                queue += [methods[part.handler.method]] if part.handler.method in methods else []
        found: set[str] = set()
        seen: set[str] = set()
        while queue:
            for one in queue.pop().all():
                if isinstance(one, FieldUse) and one.member.kind == "field":
                    found.add(one.member.name)
                elif isinstance(one, MethodCall | MethodValue) and one.member.name not in seen:
                    seen.add(one.member.name)
                    queue += [methods[one.member.name]] if one.member.name in methods else []
        return found

    def _hook(self, name: str, lines: list[Fragment]) -> Fragment | None:
        if not lines:
            return None
        own = [new(f"const {self.speller.own} = this{self.end}")] if self._took_own() else []
        body = joined([*own, *lines], "\n").shifted(1)
        return new(f"{name}() {{\n{self.unit}") + body + new("\n}")

    def moments(self) -> Iterator[Fragment]:
        """Return the other hooks, several of one kind in one."""
        by_hook: dict[str, list[Timed]] = {}
        for part in self.component.members:
            if isinstance(part, Timed) and part.when != "made":
                by_hook.setdefault(part.hook, []).append(part)
        for hook, parts in by_hook.items():
            name = _OLDER.get(hook, hook) if self.version < 3 else hook
            if len(parts) == 1 and not parts[0].callback.method:
                line = self._callback(name, parts[0].callback)
                yield self.noted(settled(parts[0].entry, _RULE) + line, parts[0].comments)
                continue
            yield self._several(name, parts)

    def _several(self, name: str, parts: list[Timed]) -> Fragment:
        lines = []
        for part in parts:
            settle = settled(part.entry, _RULE)
            if part.callback.method:
                line = new(f"this.{part.callback.method}(){self.end}")
            elif part.inner is None or part.callback.asynchronous:
                raise Unsaid("hooks-meet", name, self.component.span.start)
            else:
                settle += settled(part.callback.entry, _RULE)
                settle += self._around(part)
                line = self.speller.at_top(part.inner) + new("" if part.flows else self.end)
                if part.locals:
                    line = new(f"{{\n{self.unit}") + line.shifted(1) + new("\n}")
            lines.append(self.noted(settle + line, part.comments))
        made = self._hook(name, lines)
        assert made is not None
        return made

    def _around(self, part: Timed) -> Fragment:
        """Remove the code around the statements of a callback when they stand with others."""
        text, inner = part.callback.text, part.inner
        made = Fragment()
        for one in text.operations if text is not None and inner is not None else ():
            if not inner.span.holds(one.span):  # type: ignore[union-attr]
                made += settled(one.entry, _RULE)
        return made

    def methods(self, imported: list[str]) -> Fragment | None:
        """The option `methods`; `imported` are functions of the module the template calls."""
        lines = [new(name) for name in imported]
        for part in self.component.methods():
            line = self._method(part)
            lines.append(self.noted(settled(part.entry, _RULE) + line, part.comments))
        return self.block("methods: {", lines) if lines else None

    def _method(self, part: Method) -> Fragment:
        head = "async " if part.asynchronous else ""
        head += "*" if part.prefix.endswith("*") else ""
        return new(f"{head}{part.name}") + self.speller.function(part.text, part.body_at)


def _above(comments: tuple[Span, ...]) -> Fragment:
    """Comments that find no line of their own: before what they are said of."""
    return joined((copy(one) + new("\n") for one in comments), "") if comments else Fragment()


def _type_of(text: str) -> str:
    """The type a literal has by itself."""
    if text in ("true", "false"):
        return "boolean"
    if text[:1] in "'\"`" and text:
        return "string"
    return "number" if text.replace(".", "", 1).isdigit() else ""


def _is_plain(text: str) -> bool:
    """Whether a text is a literal that is no object."""
    return bool(_type_of(text)) or text in ("null", "undefined")


def _with_result(function: Fragment, result: str) -> Fragment:
    """A function without parameters, with the type of what it returns."""
    first, *rest = function.pieces
    if first.span is None:
        return function
    span = first.span
    head = copy(span._replace(end=span.start + 2))
    return (
        head
        + new(result)
        + Fragment([first._replace(span=span._replace(start=span.start + 2)), *rest])
    )
