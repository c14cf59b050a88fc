"""State, derived values, watchers, hooks and functions of a component, as members of a class."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from clean_carry.component.code import (
    Assign,
    Builtin,
    Changed,
    Code,
    Emit,
    FieldUse,
    Member,
    MethodValue,
    Operation,
    Read,
    Rebound,
    Respelled,
)
from clean_carry.component.fragment import (
    Fragment,
    between,
    breaks,
    copy,
    joined,
    length,
    new,
    settled,
)
from clean_carry.component.markup import Element, Handler, walk
from clean_carry.component.members import (
    Derived,
    Followed,
    KeptOption,
    LeftMember,
    Method,
    Provided,
    Reaction,
    StateField,
    Timed,
)
from clean_carry.syntaxes.decorated_class.from_markup.text import ClassText
from clean_carry.syntaxes.lists import container_of
from clean_carry.syntaxes.unsaid import Unsaid

# The options whose parts are written one by one.
_SETTLED = (
    "props", "emits", "computed", "watch", "methods", "inject", "expose", "name", "components", "filters",
)  # fmt: skip
_KEPT = frozenset({"inheritAttrs", "model", "components"})
_TYPES = {"list": "any[]", "object": "any", "set": "Set<any>", "map": "Map<any, any>"}
# Hooks by the runtime's names, and what of a component runs there.
_HOOKS = (
    ("ngAfterViewInit", ("displayed",)),
    ("ngOnDestroy", ("before removal", "removed")),
)


def _ends_it(operation: Operation) -> bool:
    """Whether an operation is the return of what ends an effect."""
    return isinstance(operation, Respelled) and operation.text == "return "


def _asks_for_page(operation: Operation) -> bool:
    """Whether an operation reads an element."""
    if isinstance(operation, FieldUse):
        return operation.member.kind == "element"
    return isinstance(operation, Builtin) and operation.name == "$el"


@dataclass
class MemberWriter(ClassText):
    """Writes the members of one component; raises `Unsaid` for what a class cannot say.

    `hidden` are the names of members that the template does not use; `notes` are what is to be known.
    """

    used: frozenset[str] = frozenset()
    notes: list[tuple[str, str, int]] = field(default_factory=list)

    def __post_init__(self) -> None:
        super().__post_init__()
        # Code that runs once there are inputs.
        self.first: list[Fragment] = []
        called = {id(one) for one in self._called_by_listeners()}
        self.held = {
            one.member.name
            for _, one in self.component.operations()
            if isinstance(one, MethodValue | Rebound) and id(one) not in called
        }

    def _called_by_listeners(self) -> Iterator[Operation]:
        """The methods that a listener of the template names, to be called with the event."""
        for node in walk(self.component.view.markup):
            for one in node.attributes if isinstance(node, Element) else ():
                if isinstance(one, Handler) and one.function and len(one.code.operations) == 1:
                    first = one.code.operations[0]
                    if first.span == one.code.span:
                        yield first

    def blocks(self) -> list[Fragment]:
        """The members in groups that a blank line sets apart."""
        component = self.component
        self._refuse_others()
        state = [self._state(one) for one in self._fields()]
        state += [self._plain(name) for name in component.foreign.plain_fields]
        derived = [self._derived(one) for one in component.derived]
        self.first += [self._watcher(one) for one in component.reactions]
        effects = [self._effect(one) for one in self._of(Followed)]
        methods = [self._method(one) for one in component.methods()]
        setters = [self._setter(one) for one in component.derived if one.setter is not None]
        hooks = self._hooks()
        lines = [joined(group, self.line) for group in (self._queries(), state, derived) if group]
        if effects:
            # Effects follow what they read from the first check on, when there are inputs.
            line = f"{self.line}{self.unit}"
            body = joined((new(line) + one for one in effects), "")
            hooks.insert(0, new("constructor() {") + body + new(f"{self.line}}}"))
        return [*lines, *hooks, *methods, *setters]

    def settled(self) -> Fragment:
        """The entries of the object that are written elsewhere."""
        component = self.component
        result = settled(component.entries["component"], "object-to-class")
        for option in _SETTLED:
            if option in component.entries:
                result += settled(component.entries[option], "object-to-class")
        for part in self._of(KeptOption):
            if part.idle or part.name in _KEPT:
                result += settled(part.entry, "object-to-class")
        if component.state is not None:
            result += settled(component.state.entry, "state-to-signals")
        return result

    def _of(self, kind: type) -> list:  # type: ignore[type-arg]
        return [part for part in self.component.members if isinstance(part, kind)]

    def _refuse_others(self) -> None:
        component = self.component
        at = component.span.start
        for part in self._of(KeptOption):
            if not part.idle and part.name not in _KEPT:
                raise Unsaid("unknown-option", part.name, part.span.start)
        for part in self._of(LeftMember):
            raise Unsaid(part.rule, part.detail, part.span.start)
        for part in self._of(Provided):
            raise Unsaid("context-not-in-target", part.key, part.code.span.start)
        foreign = component.foreign
        if foreign.mixed or foreign.mixed_props or foreign.mixed_hooks:
            raise Unsaid("mixins-not-in-target", "", at)
        reached = [*foreign.opened.names, *component.outward.exposed]
        methods = {one.name for one in component.methods()}
        for name in reached:
            if name not in methods:
                raise Unsaid("not-in-target", f"the exposed {name}", at)

    def access(self, name: str) -> str:
        """The word before a member: who may use it."""
        if name in self.component.outward.exposed:
            return ""
        return "protected " if name in self.used else "private "

    # -- what it holds -------------------------------------------------------------------------

    def _fields(self) -> list[StateField]:
        state = self.component.state
        if state is None:
            return []
        if state.fields is None:
            raise Unsaid("state-not-literal", "data", self.component.span.start)
        prelude = self.component.foreign.prelude
        if prelude is not None:
            self.first.append(self.level(prelude, 2))
        return list(state.fields)

    def _queries(self) -> list[Fragment]:
        found, speller = [], self.speller
        names = dict.fromkeys(name for name, _ in self.component.view.element_names)
        for member in names:
            name = speller.names.of(Member("element", member))
            made = speller.of_core("viewChildren" if member in speller.listed else "viewChild")
            found.append(self._query(name, made))
        if speller.root and speller.root not in [
            speller.names.of(Member("element", one)) for one in names
        ]:
            found.append(self._query(speller.root, speller.of_core("viewChild")))
        return found

    def _query(self, name: str, made: str) -> Fragment:
        quote = self.speller.quote
        types = f"<{self.speller.of_core('ElementRef')}<any>>"
        return new(f"private readonly {name} = {made}{types}({quote}{name}{quote}){self.end}")

    def _state(self, one: StateField) -> Fragment:
        name = self.speller.names.of(Member("state", one.name))
        above = copy(one.comment) + new(self.line) if one.comment is not None else Fragment()
        head = above + new(f"{self.access(name)}readonly {name} = ", one.entry, "state-to-signal")
        text = self.source.slice(*one.code.span[:2]) if one.code is not None else "undefined"
        waits = self.component.foreign.prelude is not None or self._waits(one)
        signal = self.speller.is_signal(one.name)
        if waits:
            assert one.code is not None
            self.speller.of_core("signal")
            value = self.level(one.code, 2)
            self.first.append(new(f"this.{name}.set(") + value + new(f"){self.end}"))
            types = self._type(one, text) or "any"
            line = head + new(f"signal<{types}>(undefined as any){self.end}")
        else:
            value = self.level(one.code, 1) if one.code is not None else new("undefined")
            if signal:
                types = self._type(one, text)
                self.speller.of_core("signal")
                head += new(f"signal{f'<{types}>' if types else ''}(")
                line = head + value + new(f"){self.end}")
            else:
                line = head + value + new(self.end)
        for note in one.behind:
            line += new(" ") + copy(note)
        return line

    def _waits(self, one: StateField) -> bool:
        """Whether the first value of a field needs inputs or what is declared below."""
        if one.code is None:
            return False
        return any(
            not one.deferred
            and not (isinstance(one, Read) and one.member.kind == "state")
            and hasattr(one, "member")
            for one in one.code.all()
        )

    def _type(self, one: StateField, text: str) -> str:
        """The type of a signal, where its first value does not tell it."""
        if one.type_text:
            return one.type_text.lstrip(": ")
        if re.search(r"\sas\s", text):
            return ""
        plain = re.fullmatch(r"'[^']*'|\"[^\"]*\"|`[^`$]*`|-?[\d.]+|true|false", text.strip())
        if plain and not self._waits(one):
            return ""
        return _TYPES.get(container_of(text), "any")

    def _plain(self, name: str) -> Fragment:
        own = self.speller.names.of(Member("field", name))
        return new(f"private {own}: any{self.end}")

    # -- derived values ------------------------------------------------------------------------

    def _derived(self, one: Derived) -> Fragment:
        at = one.text.span.start
        if one.stored is not None:
            raise Unsaid("not-in-target", f"a store's {one.name}", at)
        if one.getter is None or one.getter.text is None:
            raise Unsaid("derived-in-steps", one.name, at)
        for operation in one.text.all():
            if isinstance(operation, Assign | Changed | Emit):
                raise Unsaid("derived-writes", one.name, operation.span.start)
        name = self.speller.names.of(Member("derived", one.name))
        settle = settled(one.getter.entry, "derived-to-signal")
        settle += settled(one.entry, "derived-to-signal")
        settle += settled(one.text_entry, "derived-to-signal")
        made = self.speller.of_core("computed")
        head = settle + new(f"{self.access(name)}readonly {name} = {made}(")
        if one.returned is None or self._asks_for_own(one.returned):
            return self.noted(one.comments, head + self.arrow(one.getter) + new(f"){self.end}"))
        for operation in one.text.operations:
            if not one.returned.span.start <= operation.span.start < one.returned.span.end:
                head += settled(operation.entry, "derived-to-signal")
        value = self.level(one.returned, 1)
        if self.source.slice(*one.returned.span[:2]).startswith("{"):
            value = new("(") + value + new(")")
        line = head + new("() => ") + value + new(f"){self.end}")
        wide = length(line) + len(self.unit) > self.speller.width
        if wide and not breaks(line, self.source.slice):
            deeper = f"{self.line}{self.unit}"
            line = (
                head
                + new(f"() =>{deeper}")
                + value
                + new(f"{self.speller.last}{self.line}){self.end}")
            )
        return self.noted(one.comments, line)

    def _asks_for_own(self, code: Code) -> bool:
        """Whether a function inside of code has a `this` of its own, so that the instance needs a name."""
        inner = self.speller.inner
        return any(start <= op.span.start < end for op in code.all() for start, end in inner)

    def _setter(self, one: Derived) -> Fragment:
        assert one.setter is not None and one.setter.text is not None
        name = self.speller.names.of(Member("derived", one.name))
        own = self.speller.names.helper(f"set {one.name}", f"set{name[:1].upper()}{name[1:]}")
        return self._function(own, one.setter.text, one.setter.body_at, settle=one.setter.entry)

    # -- code ----------------------------------------------------------------------------------

    def _function(
        self, name: str, text: Code, body_at: int, settle: int, prefix: str = ""
    ) -> Fragment:
        """A function from its parameters on, as a method."""
        first = [one for one in text.operations if one.span.start < body_at]
        rest = [one for one in text.operations if one.span.start > body_at]
        head = between(text.span._replace(end=body_at + 1), first, self.speller.spell)
        inner = self.with_own(text.span._replace(start=body_at + 1), rest)
        whole = (head + inner).shifted(1 - self.levels(text.span.start))
        opening = new(f"{self.access(name)}{prefix}{name}", settle, "method-of-class")
        return opening + whole

    def _method(self, one: Method) -> Fragment:
        at = one.text.span.start
        if one.shared is not None or one.stored is not None or one.prefix == "module":
            raise Unsaid("not-in-target", one.name, at)
        if "*" in one.prefix:
            raise Unsaid("not-in-target", f"the generator {one.name}", at)
        name = self.speller.names.of(Member("method", one.name))
        prefix = "async " if one.asynchronous and one.form == "declared" else ""
        if one.form == "declared" and one.name not in self.held:
            return self.noted(
                one.comments,
                self._function(name, one.text, one.body_at, one.entry, prefix),
            )
        if one.uses_arguments:
            raise Unsaid("not-in-target", f"arguments in {one.name}", at)
        head = new(f"{self.access(name)}readonly {name} = ", one.entry, "method-of-class")
        if one.form == "declared":
            value = self.as_arrow(one.text, one.body_at, asynchronous=one.asynchronous)
        else:
            value = self.level(one.text, 1)
        return self.noted(one.comments, head + value + new(self.end))

    def _watcher(self, one: Reaction) -> Fragment:
        at = one.body.span.start
        result = settled(one.entry, "watcher-to-effect")
        for _, entry in (*one.now, *one.before):
            result += settled(entry, "", "kept")
        if one.ended or one.source.name.startswith("$"):
            raise Unsaid("not-in-target", f"a watcher of {one.source.name}", at)
        for span in one.settings:
            text = self.source.slice(*span[:2])
            if text.partition(":")[0].strip().strip("'\"") not in ("deep", "immediate"):
                raise Unsaid("not-in-target", f"a watcher with {text}", span.start)
        handler = one.handler
        if handler is None or handler.shared is not None:
            raise Unsaid("not-in-target", f"a watcher of {one.source.name}", at)
        changed = {name for name, _ in self.component.facts.mutations}
        if not one.deep and not one.path and one.source.name in changed:
            raise Unsaid("watched-in-place", one.source.name, at)
        # A path is followed as far as there is something: nothing stays what it is.
        steps = [self.speller.value(one.source, -1), *one.path]
        source = " && ".join(".".join(steps[:count]) for count in range(1, len(steps) + 1))
        if handler.text is None:
            name = self.speller.names.of(Member("method", handler.method))
            run = new(f"(now, before) => this.{name}(now, before)")
            method = next(m for m in self.component.methods() if m.name == handler.method)
            text = self.source.slice(method.text.span.start, method.body_at)
            if not method.uses_arguments and text.count(",") == 0:
                given = "now" if re.search(r"\w", text) else ""
                run = new(f"({given}) => this.{name}({given})")
        else:
            run = self.arrow(handler).shifted(1)
        helper = self.speller.ask("onChange")
        at_once = ", true" if one.immediate else ""
        head = result + new(f"this.{helper}(() => {source}, ")
        return self.noted(one.comments, head + run + new(f"{at_once}){self.end}"), 2)

    def _effect(self, one: Followed) -> Fragment:
        drawn = one.drawn and any(_asks_for_page(op) for op in one.text.all())
        effect = self.speller.of_core("afterRenderEffect" if drawn else "effect")
        ends = [at for at, op in enumerate(one.text.operations) if _ends_it(op)]
        code = one.text
        if ends:
            # The runtime ignores the result of an effect; the end is registered instead.
            opens, closes = ends[0], ends[0] + 1
            told = list(code.operations)
            told[opens] = replace(told[opens], text="onCleanup(")  # type: ignore[call-arg]
            told[closes] = replace(told[closes], text=")")  # type: ignore[call-arg]
            code = replace(code, operations=tuple(told))
        text = self.level(code, 2)
        if one.expression:
            text = new(" ") + text + new(f"{self.end} ")
        given = "onCleanup" if ends else ""
        head = settled(one.entry, "effect-to-effect") + new(f"{effect}(({given}) => {{")
        return self.noted(one.comments, head + text + new(f"}}){self.end}"), 2)

    def _hooks(self) -> list[Fragment]:
        timed = self._of(Timed)
        known = {"made", "starting", *(when for _, whens in _HOOKS for when in whens)}
        for one in timed:
            if one.when not in known:
                at = one.callback.text.span.start if one.callback.text is not None else 0
                raise Unsaid("moment-not-in-target", one.hook, at)
        made = [one for when in ("made", "starting") for one in timed if one.when == when]
        found = [self._hook("ngOnInit", made, self.first)] if made or self.first else []
        for hook, whens in _HOOKS:
            own = [one for when in whens for one in timed if one.when == when]
            if own:
                found.append(self._hook(hook, own, []))
        return found

    def _hook(self, name: str, parts: list[Timed], first: list[Fragment]) -> Fragment:
        """A method that the runtime calls, with the code of one or several hooks."""
        line = f"{self.line}{self.unit}"
        pieces, asynchronous = list(first), ""
        settle = Fragment()
        for number, one in enumerate(parts):
            settle += settled(one.entry, "moment-to-hook")
            callback, last = one.callback, number == len(parts) - 1
            alone = last and (not one.locals or not pieces)
            if callback.text is None or (one.flows and not one.locals) or alone:
                asynchronous = "async " if callback.asynchronous else ""
                pieces.append(self.body(callback))
            else:
                call = new("(") + self.arrow(callback).shifted(1) + new(f")(){self.end}")
                pieces.append(call)
        body = joined((new(line) + one for one in pieces if one), "")
        comments = tuple(note for one in parts for note in one.comments)
        head = settle + new(f"{asynchronous}{name}() {{")
        return self.noted(comments, head + body + new(f"{self.line}}}"))
