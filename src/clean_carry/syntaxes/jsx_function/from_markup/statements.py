"""The members of a template's component, as statements of a function."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.component.code import Assign, Code, Member, Read, SlotGiven
from clean_carry.component.fragment import Fragment, between, copy, joined, new, settled
from clean_carry.component.markup import Element, Loop, Reference, walk
from clean_carry.component.members import (
    Derived,
    Followed,
    Injected,
    KeptOption,
    LeftMember,
    Method,
    Model,
    Provided,
    Reaction,
    StateField,
    Timed,
)
from clean_carry.component.spans import Span
from clean_carry.syntaxes.jsx_function.from_markup.effects import EffectWriter
from clean_carry.syntaxes.jsx_function.from_markup.text import FunctionText
from clean_carry.syntaxes.unsaid import Unsaid

# The options whose parts are written one by one.
_SETTLED = (
    "props", "emits", "computed", "watch", "methods", "inject", "expose", "name", "components", "filters",
)  # fmt: skip
_BY_OWN_NAMES = re.compile(r"components:\s*\{[\s\w$,]*\},?\s*$")
_KEPT = frozenset({"inheritAttrs", "model"})


@dataclass
class Statements(FunctionText):
    """Writes the statements of one component; raises `Unsaid` for what has no statement.

    `constants` are values of the module that defaults need.
    """

    constants: list[Fragment] = field(default_factory=list)
    notes: list[tuple[str, str, int]] = field(default_factory=list)

    def __post_init__(self) -> None:
        super().__post_init__()
        # Fields whose first value setup code gives.
        self.first: dict[str, Code] = {}
        self.folded: list[Timed] = []
        self.settled_first = Fragment()
        # The name that holds the first state, where statements build it.
        self.first_state = "initial"
        self.replaced: list[Span] = []
        # References to the elements of lists.
        loops = [node for node in walk(self.component.view.markup) if isinstance(node, Loop)]
        self.listed = {
            attribute.member
            for loop in loops
            for node in walk(loop.children)
            if isinstance(node, Element)
            for attribute in node.attributes
            if isinstance(attribute, Reference)
        }
        self.effects = EffectWriter(self.component, self.source, self.speller)
        # The number of blocks that stand before the effects that run after a render.
        self.effects_at = 0

    def write(self) -> list[Fragment]:
        """All of them, in the order values come to be: blocks that a blank line sets apart."""
        component = self.component
        self._refuse_others()
        self.folded = [one for one in self._of(Timed) if one.when == "made" and self._folds(one)]
        prelude = component.foreign.prelude
        made_first = [self._made_first(prelude)] if prelude is not None else []
        state = [self._model(one) for one in self._of(Model)] + made_first
        state += [part for one in self._fields() if (part := self._state(one)) is not None]
        fields = [self._field(name) for name in component.foreign.plain_fields]
        elements = [self._element(m) for m in self._elements()]
        later = [self._watcher(one) for one in component.reactions]
        made = [
            self._timed(one)
            for one in self._of(Timed)
            if one.when == "made" and one not in self.folded
        ]
        made += [self.effects.written(one) for one in self._of(Followed) if not one.drawn]
        moments = self._moments()
        moments += [self.effects.written(one) for one in self._of(Followed) if one.drawn]
        methods = [self._method(one) for one in component.methods()]
        derived: list[Fragment] = []
        for one in self._ordered():
            derived += self._derived(one)
        setters = [self._setter(one) for one in component.derived if one.setter is not None]
        blocks = [_lines(elements, self.line), _lines(state, self.line), _lines(fields, self.line)]
        blocks += [_lines(derived, self.line), *methods, *setters]
        blocks = [block for block in blocks if block]
        self.effects_at = len(blocks)
        return [*blocks, *(b for b in (*later, *made, *moments, self._exposed()) if b)]

    def settled(self) -> Fragment:
        """Return the entries of the object that are written elsewhere."""
        component = self.component
        result = settled(component.entries["component"], "object-to-function") + self.settled_first
        for option in _SETTLED:
            if option in component.entries:
                result += settled(component.entries[option], "object-to-function")
        for part in self._of(KeptOption):
            if part.idle or part.name in _KEPT or part.name == "components":
                result += settled(part.entry, "object-to-function")
        for part in self._of(Injected):
            result += settled(part.entry, "injected-to-input")
        for prop in component.inputs.props:
            if prop.entry >= 0:
                result += settled(prop.entry, "input-to-parameter")
        if component.state is not None:
            result += settled(component.state.entry, "state-to-hooks")
        return result

    def _of(self, kind: type) -> list:  # type: ignore[type-arg]
        return [part for part in self.component.members if isinstance(part, kind)]

    def _only_tags(self, components: KeptOption) -> bool:
        """Whether components are registered by their own names, and no code can choose one of them."""
        text = self.source.slice(components.span.start, components.span.end)
        found = [n for n in walk(self.component.view.markup) if isinstance(n, Element)]
        known = all(one.one_of for one in found if one.chosen is not None)
        return known and bool(_BY_OWN_NAMES.match(text))

    def _refuse_others(self) -> None:
        component = self.component
        at = component.span.start
        for part in self._of(KeptOption):
            if part.name == "components" and self._only_tags(part):
                continue
            if not part.idle and part.name not in _KEPT:
                raise Unsaid("unknown-option", part.name, part.span.start)
            if part.name == "model":
                self.notes.append(("model-by-name", "", part.span.start))
        for part in self._of(LeftMember):
            raise Unsaid(part.rule, part.detail, part.span.start)
        for part in self._of(Provided):
            raise Unsaid("context-not-in-target", part.key, part.code.span.start)
        for part in self._of(Injected):
            self.notes.append(("injected-as-input", part.name, at))
        if (
            component.foreign.mixed
            or component.foreign.mixed_props
            or component.foreign.mixed_hooks
        ):
            raise Unsaid("mixins-not-in-target", "", at)
        if component.foreign.opened.names:
            raise Unsaid("reached-from-outside", ", ".join(component.foreign.opened.names), at)

    # -- what it holds --------------------------------------------------------------------------

    def _fields(self) -> list[StateField]:
        state = self.component.state
        if state is None:
            return []
        if state.fields is None:
            raise Unsaid("state-not-literal", "data", self.component.span.start)
        return list(state.fields)

    def _made_first(self, prelude: Code) -> Fragment:
        """Statements that make the state, run once; each field takes its part of what they give."""
        state = self.component.state
        assert state is not None and state.whole is not None
        self.first_state = self.speller.names.choose("initial", "initialState")
        line, deeper = self.line, f"{self.line}{self.unit}"
        literal = state.whole.span
        codes = [one.code for one in self._fields() if one.code is not None]
        operations = tuple(op for code in codes for op in code.operations)
        with self.speller.mode(drawing=True):
            statements = self._level(prelude, 2)
            given = between(literal, operations, self.speller.spell)
        given = given.shifted(2 - self._levels(literal.start))
        head = f"const [{self.first_state}] = {self.speller.hook('useState')}(() => {{{deeper}"
        tail = new(f"{self.end}{line}}}){self.end}")
        return new(head) + statements + new(f"{deeper}return ") + given + tail

    def _state(self, one: StateField) -> Fragment | None:
        if one.name in self.speller.module_values:
            assert one.code is not None
            self.replaced.append(one.code.span)
            self.settled_first += settled(one.entry, "state-to-constant")
            return None
        names, times = self.speller.names, self.speller.times
        name = names.of(Member("state", one.name))
        above = copy(one.comment) + new(self.line) if one.comment is not None else Fragment()
        given = self.first.get(one.name, one.code)
        made = self.component.foreign.prelude is not None and one.name not in self.first
        with self.speller.mode(drawing=True):
            value = self._level(given, 1) if given is not None else new("undefined")
            if given is not one.code and one.code is not None:
                # A value that existed only during setup goes into no output.
                self.replaced.append(one.code.span)
        text = self.source.slice(given.span.start, given.span.end) if given is not None else ""
        if made:
            value, text = new(f"{self.first_state}.{one.name}"), ""
        if (one.lazy and not made) or "(" in text or text.startswith("["):
            simple = text in ("[]", "{}")
            value = value if simple else new("() => ") + (_grouped(text, value))
        elif text.startswith("{") and text != "{}":
            value = new("() => (") + value + new(")")
        if one.name in times.live:
            hook = self.speller.helper("useNewest")
            head = f"const [{name}, {names.setter(one.name)}, {names.now(one.name)}] = {hook}("
        elif one.name in times.written:
            hook = self.speller.hook("useState")
            head = f"const [{name}, {names.setter(one.name)}] = {hook}("
        else:
            head = f"const [{name}] = {self.speller.hook('useState')}("
        line = above + new(head, one.entry, "state-to-hook") + value + new(f"){self.end}")
        for note in one.behind:
            line += new(" ") + copy(note)
        return line

    def _model(self, one: Model) -> Fragment:
        """A value the parent binds both ways."""
        names, prop = (
            self.speller.names,
            next(prop for prop in self.component.inputs.props if prop.name == one.prop),
        )
        first, default = new("undefined"), prop.default
        if default is not None and default.kind != "constant":
            raise Unsaid(
                "not-in-target",
                f"a model whose default is made: {one.prop}",
                default.code.span.start,
            )
        if default is not None:
            first = settled(default.entry, "default-to-hook") + self._level(default.code, 1)
        elif prop.kind == "Boolean":
            first = new("false")
        self.speller.helper("useListeners")
        name, now = names.of(Member("state", one.name)), names.now(one.name)
        given, tell = names.of(Member("prop", one.prop)), names.event(f"update:{one.prop}")
        hook = self.speller.helper("useModel")
        head = f"const [{name}, {names.setter(one.name)}, {now}] = {hook}({given}, "
        line = new(head, one.entry, "model-to-hook") + first + new(f", {tell}){self.end}")
        return self._noted(one.comments, line)

    def _folds(self, one: Timed) -> bool:
        """Whether setup code only gives state fields their initial values."""
        inner = one.inner
        if inner is None:
            return False
        values: dict[str, Code] = {}
        here = inner.span.start
        for operation in inner.operations:
            between_them = self.source.slice(here, operation.span.start)
            plain = isinstance(operation, Assign) and operation.operator == "="
            if between_them.strip(" \n\t;") or not plain:
                return False
            assert isinstance(operation, Assign)
            assert operation.value is not None
            if operation.member.kind != "state":
                return False
            reads = [m for m in operation.value.all() if not isinstance(m, Read)]
            own = [
                m for m in operation.value.all() if isinstance(m, Read) and m.member.kind != "prop"
            ]
            if reads or own or operation.member.name in values:
                return False
            values[operation.member.name] = operation.value
            here = operation.span.end
        if self.source.slice(here, inner.span.end).strip(" \n\t;") or not values:
            return False
        self.first.update(values)
        self.settled_first += settled(one.entry, "made-to-first-value")
        self.settled_first += settled(one.callback.entry, "made-to-first-value")
        for operation in inner.operations:
            self.settled_first += settled(operation.entry, "made-to-first-value")
        return True

    def _field(self, name: str) -> Fragment:
        local = self.speller.names.of(Member("field", name))
        kind = "<any>(undefined)" if self.component.language.typed else "()"
        return new(f"const {local} = {self.speller.hook('useRef')}{kind}{self.end}")

    def _elements(self) -> list[str]:
        return list(dict.fromkeys(name for name, _ in self.component.view.element_names))

    def _element(self, name: str) -> Fragment:
        local = self.speller.names.of(Member("element", name))
        first = "[]" if name in self.listed else "null"
        kind = "<any>" if self.component.language.typed else ""
        return new(f"const {local} = {self.speller.hook('useRef')}{kind}({first}){self.end}")

    # -- derived values -------------------------------------------------------------------------

    def _ordered(self) -> list[Derived]:
        """Derived values so that each stands after those it reads."""
        pending = {one.name: one for one in self.component.derived}
        done: list[Derived] = []
        while pending:
            ready = [
                name
                for name, one in pending.items()
                if not any(
                    m.kind == "derived" and m.name in pending and m.name != name
                    for m in self.speller.times.dependencies(one.text)
                )
            ]
            if not ready:
                first = next(iter(pending.values()))
                raise Unsaid("derived-in-steps", first.name, first.text.span.start)
            done.append(pending.pop(ready[0]))
        return done

    def _derived(self, one: Derived) -> list[Fragment]:
        names, times = self.speller.names, self.speller.times
        name = names.of(Member("derived", one.name))
        if one.stored is not None:
            raise Unsaid("not-in-target", f"a store's {one.name}", one.text.span.start)
        asked = one.name in times.asked
        getter = one.getter
        assert getter is not None
        if getter.text is None:
            raise Unsaid("derived-in-steps", one.name, one.text.span.start)
        result: list[Fragment] = []
        if any(isinstance(op, SlotGiven) for op in one.text.all()):
            self.notes.append(("slots-kept", one.name, one.text.span.start))
        settle = settled(getter.entry, "derived-to-value") + settled(one.entry, "derived-to-value")
        settle += settled(one.text_entry, "derived-to-value")
        if asked:
            with self.speller.mode(drawing=False, late=True):
                function = self._arrow(getter)
            head = settle + new(f"const {names.reader(one.name)} = ") + function + new(self.end)
            result.append(self._noted(one.comments, head))
            reader = names.reader(one.name)
            again = new(f"const {name} = {reader}(){self.end}")
            if one.name in self._behind_watched():
                # A list made anew is another one to who watches it.
                needs = self._needs(one)
                again = new(
                    f"const {name} = {self.speller.hook('useMemo')}({reader}, [{needs}]){self.end}"
                )
            result.append(again)
            return result
        with self.speller.mode(drawing=True):
            if one.name in times.lazy:
                line = settle + new(f"const {name} = ") + self._worked_out(one) + new(self.end)
            elif one.returned is not None and one.name not in self._behind_watched():
                value = self._level(one.returned, 1)
                settle += self._others_settled(one.text, one.returned)
                line = settle + new(f"const {name} = ") + value + new(self.end)
            else:
                needs = self._needs(one)
                line = settle + new(f"const {name} = {self.speller.hook('useMemo')}(")
                line += self._arrow(getter) + new(f", [{needs}]){self.end}")
        return [self._noted(one.comments, line)]

    def _needs(self, one: Derived) -> str:
        """Return the dependencies of a derived value, as rendered."""
        names, found = self.speller.names, self.speller.times.dependencies(one.text)
        return ", ".join(dict.fromkeys(names.of(m) for m in found if m.kind != "field"))

    def _behind_watched(self) -> set[str]:
        """The derived values that are watched, and those they are worked out from."""
        derived = {one.name: one for one in self.component.derived}
        queue = [name for name in derived if self._watched(name)]
        found: set[str] = set(queue)
        while queue:
            members = self.speller.times.dependencies(derived[queue.pop()].text)
            more = {m.name for m in members if m.kind == "derived" and m.name in derived} - found
            found |= more
            queue += more
        return found

    def _worked_out(self, one: Derived) -> Fragment:
        """A function that works a value out."""
        assert one.getter is not None
        if one.returned is None:
            return self._arrow(one.getter)
        value = self._level(one.returned, 1)
        others = self._others_settled(one.text, one.returned)
        text = self.source.slice(one.returned.span.start, one.returned.span.end)
        if text.startswith("{"):
            value = new("(") + value + new(")")
        return others + new("() => ") + value

    def _watched(self, name: str) -> bool:
        sources = [one.source for one in self.component.reactions]
        sources += [m for one in self._of(Followed) for m in self.effects.sources(one)]
        return Member("derived", name) in sources

    def _others_settled(self, whole: Code, part: Code) -> Fragment:
        result = Fragment()
        for one in whole.operations:
            if not part.span.start <= one.span.start < part.span.end:
                result += settled(one.entry, "derived-to-value")
        return result

    def _setter(self, one: Derived) -> Fragment:
        setter = one.setter
        assert setter is not None
        name = self.speller.names.setter(one.name)
        with self.speller.mode(drawing=False, late=f"{one.name}=" in self.speller.times.late):
            return new(f"const {name} = ") + self._arrow(setter) + new(self.end)

    # -- code ---------------------------------------------------------------------------------

    def _method(self, one: Method) -> Fragment:
        if one.shared is not None or one.stored is not None or one.prefix == "module":
            raise Unsaid("not-in-target", one.name, one.text.span.start)
        name = self.speller.names.of(Member("method", one.name))
        late = one.name in self.speller.times.late
        stable = one.name in self.speller.times.stable
        with self.speller.mode(drawing=False, late=late and not stable):
            if stable:
                hook = self.speller.helper("useStable")
                head = new(f"const {name} = {hook}(", one.entry, "method-to-function")
                word = f"{one.prefix} {name}" if one.form == "declared" else ""
                text = new(word) + self._level(one.text, 1) + new(f"){self.end}")
                return self._noted(one.comments, head + text)
            if one.form == "declared":
                head = new(f"{one.prefix} {name}", one.entry, "method-to-function")
                return self._noted(one.comments, head + self._level(one.text, 1))
            head = new(f"const {name} = ", one.entry, "method-to-function")
            return self._noted(one.comments, head + self._level(one.text, 1) + new(self.end))

    def _watcher(self, one: Reaction) -> Fragment:
        names = self.speller.names
        hook = self.speller.helper("useEndedChange" if one.ended else "useChange")
        result = settled(one.entry, "watcher-to-hook")
        for _, entry in (*one.now, *one.before):
            result += settled(entry, "", "kept")
        if one.source.name.startswith("$"):
            raise Unsaid("not-in-target", f"a watcher of {one.source.name}", one.body.span.start)
        for span in one.settings:
            text = self.source.slice(span.start, span.end)
            key = text.partition(":")[0].strip().strip("'\"")
            if key not in ("deep", "immediate") and "post" not in text:
                raise Unsaid("not-in-target", f"a watcher with {text}", span.start)
        source = names.of(one.source)
        # A path is followed as far as there is something: nothing stays what it is.
        steps = [source, *one.path]
        value = " && ".join(".".join(steps[:count]) for count in range(1, len(steps) + 1))
        handler = one.handler
        assert handler is not None
        if handler.shared is not None:
            raise Unsaid("not-in-target", "a watcher that is put off", one.body.span.start)
        if not one.deep and one.source.name in self._changed_inside() and not one.path:
            self.notes.append(("change-seen", one.source.name, one.body.span.start))
        if handler.text is None:
            run = new(names.of(Member("method", handler.method)))
        else:
            with self.speller.mode(drawing=False):
                run = self._arrow(handler)
        at_once = ", true" if one.immediate else ""
        line = result + new(f"{hook}({value}, ") + run + new(f"{at_once}){self.end}")
        return self._noted(one.comments, line)

    def _changed_inside(self) -> set[str]:
        return {name for name, _ in self.component.facts.mutations}

    def _timed(self, one: Timed) -> Fragment:
        """Return setup code that runs once, before anything else that waits for the first render."""
        effect = self.speller.hook("useLayoutEffect")
        with self.speller.mode(drawing=False):
            run = self._run(one.callback)
        head = settled(one.entry, "moment-to-effect") + new(f"{effect}(() => {{")
        return self._noted(one.comments, head + run + new(f"}}, []){self.end}"))

    def _moments(self) -> list[Fragment]:
        found: list[Fragment] = []
        shown = [one for one in self._of(Timed) if one.when == "displayed"]
        gone = [one for one in self._of(Timed) if one.when in ("before removal", "removed")]
        effect = self.speller.hook("useLayoutEffect") if shown or gone else ""
        for one in shown:
            with self.speller.mode(drawing=False):
                run = self._run(one.callback)
            head = settled(one.entry, "moment-to-effect") + new(f"{effect}(() => {{")
            found.append(self._noted(one.comments, head + run + new(f"}}, []){self.end}")))
        for one in gone:
            with self.speller.mode(drawing=False, late=True):
                run = self._run(one.callback)
            head = settled(one.entry, "moment-to-effect") + new(f"{effect}(() => () => {{")
            found.append(self._noted(one.comments, head + run + new(f"}}, []){self.end}")))
        for one in self._of(Timed):
            if one.when == "updated":
                found.append(self._updated(one))
            elif one.when not in ("displayed", "made", "before removal", "removed"):
                raise Unsaid("moment-not-in-target", one.hook, self._at(one))
        return found

    def _exposed(self) -> Fragment:
        """Return the members that a parent may read through a ref."""
        wanted = self.component.outward.exposed
        if not wanted:
            return Fragment()
        own = {m.name: Member("method", m.name) for m in self.component.methods()}
        own |= {d.name: Member("derived", d.name) for d in self.component.derived}
        own |= {f.name: Member("state", f.name) for f in self._fields()}
        parts = []
        for name in wanted:
            if name not in own:
                raise Unsaid("reached-from-outside", name, self.component.span.start)
            local = self.speller.names.of(own[name])
            parts.append(name if name == local else f"{name}: {local}")
        hook = self.speller.hook("useImperativeHandle")
        held = f"{{ {', '.join(parts)} }}"
        return new(f"{hook}({self.speller.names.reference}, () => ({held})){self.end}")

    def _at(self, one: Timed) -> int:
        return one.callback.text.span.start if one.callback.text is not None else 0

    def _updated(self, one: Timed) -> Fragment:
        """Return code that runs after every render but the first."""
        effect = self.speller.hook("useLayoutEffect")
        first = self.speller.names.choose("renderedBefore", "renderedOnce")
        ref = self.speller.hook("useRef")
        with self.speller.mode(drawing=False):
            run = self._run(one.callback).shifted(1)
        two = f"{self.line}{self.unit}"
        text = f"const {first} = {ref}(false){self.end}{self.line}{effect}(() => {{{two}"
        text += f"if ({first}.current) {{"
        tail = f"}}{two}{first}.current = true{self.end}{self.line}}}){self.end}"
        self.notes.append(("runs-after-drawing", one.hook, self._at(one)))
        return self._noted(
            one.comments, settled(one.entry, "moment-to-effect") + new(text) + run + new(tail)
        )


def _lines(parts: list[Fragment], line: str) -> Fragment:
    return joined((part for part in parts if part), line)


def _grouped(text: str, value: Fragment) -> Fragment:
    return new("(") + value + new(")") if text.startswith("{") else value
