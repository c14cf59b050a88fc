"""Write a component as the top-level statements of a script. The template stays as it is."""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.component.code import (
    AssignEach,
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
from clean_carry.component.members import (
    Callback,
    Derived,
    Injected,
    KeptOption,
    Method,
    Provided,
    Reaction,
    StateField,
    Stored,
    Timed,
)
from clean_carry.component.model import Component
from clean_carry.component.spans import Span
from clean_carry.syntaxes.single_file_flat.public_surface import Outward
from clean_carry.syntaxes.single_file_flat.spelling import Speller, root_of

# The function that registers a hook.
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
# The same for the router's own hooks (its declared types, since version 4).
ROUTE_MOMENTS = {"leaving route": "onBeforeRouteLeave", "route changing": "onBeforeRouteUpdate"}
# Members that the runtime gives every instance.
_ALWAYS_THERE = ("$attrs", "$slots", "$listeners", "$props")
_SETTLED = ("computed", "watch", "methods", "inject", "provide", "expose")


class FlatWriter(Outward):
    """Writes one component."""

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
            for note in component.foreign.option_comments.get("components", ()):
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
        known = self._lines([self._field(name) for name in component.foreign.plain_fields])
        elements = self._lines([self._element(name) for name in self._elements()])
        exposed = self._exposed()
        opened = self._opened()
        if component.foreign.opened.names and self.speller.version < 3:
            # It must be there before setup code hands the instance on.
            opened, exposed = exposed, Fragment()
        options = self._options() if self.speller.version >= 3 else Fragment()
        contract = self._contract()
        blocks = [options, contract, self._helpers(), injected, elements, state, known, *values]
        blocks += [*constants, opened, *watchers, *functions, *made, *later, exposed]
        return settle + joined((b for b in blocks if b), f"\n{self.line}")

    # -- what it holds ------------------------------------------------------------------------

    def _state(self) -> Fragment:
        state = self.component.state
        if state is None:
            return Fragment()
        result = settled(state.entry, "state-to-refs")
        for note in state.comments:
            result += copy(note) + new(self.line)
        if self.component.foreign.prelude is not None:
            result += self._releveled(self.component.foreign.prelude) + new(self.line)
        result += self._lines([self._ref(f) for f in state.fields or ()])
        names = [f.name for f in state.fields or () if f.name in self.speller.by_name]
        if names:
            locals_ = [self.names.of(Member("state", name)) for name in names]
            pairs = [
                n if n == own else f"{n}: {own}" for n, own in zip(names, locals_, strict=True)
            ]
            head = f"const {self.names.helper('fields')} = {{"
            result += new(f"\n{self.line}" + self.listed(pairs, head, f"}}{self.end}", " "))
        return result

    def _ref(self, field_: StateField) -> Fragment:
        above = copy(field_.comment) + new(self.line) if field_.comment is not None else Fragment()
        assert field_.code is not None
        call = self.speller.run("ref")
        name = self.names.of(Member("state", field_.name))
        head = new(f"const {name} = {call}(", field_.entry, "state-field-to-ref")
        line = above + head + self._releveled(field_.code) + new(f"){self.end}")
        for note in field_.behind:
            line += new(" ") + copy(note)
        return line

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

    # -- behaviour --------------------------------------------------------------------------

    def _method(self, part: Method) -> Fragment:
        name = self.names.of(Member("method", part.name))
        if part.prefix == "module":
            return self.noted(part.comments, dropped(part.entry, "method-in-scope"))
        if part.stored is not None:
            return self.noted(part.comments, self._stored(part.stored, name, part.entry))
        if part.shared is not None:
            return self.noted(part.comments, self._put_off(part, name))
        if part.form == "declared":
            head = new(f"{part.prefix} {name}", part.entry, "method-to-function")
            return self.noted(part.comments, head + self._releveled(part.text))
        head = new(f"const {name} = ", part.entry, "method-to-function")
        return self.noted(part.comments, head + self._releveled(part.text) + new(self.end))

    def _put_off(self, part: Method, name: str) -> Fragment:
        """A method whose calls are put off by one function for all instances, which stands in the
        module."""
        assert part.shared is not None
        later = self._later(part.shared, name)
        code, at = part.text, part.body_at
        first = [o for o in code.operations if o.span.start < at]
        rest = [o for o in code.operations if o.span.start >= at]
        levels = -self._levels(code.span.start)
        deeper = f"{self.line}{self.unit}"
        head = between(code.span._replace(end=at), first, self.speller.spell)
        body = between(code.span._replace(start=at), rest, self.speller.spell).shifted(levels + 1)
        arrow = "async () => " if part.asynchronous else "() => "
        result = new(f"function {name}", part.entry, "method-to-function") + head.shifted(levels)
        result += new(f"{{{deeper}{later}({arrow}") + body
        return result + new(f"){self.end}{self.line}}}")

    def _stored(self, stored: Stored, name: str, entry: int) -> Fragment:
        """A function of a store."""
        store, rest = (
            self.speller.store(stored.store),
            "...args: any[]" if self.typed else "...args",
        )
        key = f"{self.quote}{stored.path}{self.quote}, "
        call = f"{stored.path}(" if stored.taken == "call" else f".{stored.taken}({key}"
        text = f"const {name} = ({rest}) => {store}{call}...args){self.end}"
        return new(text, entry, "stored-by-name")

    def _stored_value(self, stored: Stored) -> Fragment:
        """Return the computation of a store's value."""
        if stored.code is not None:
            return new("() => ") + self._releveled(stored.code)
        value = self.speller.store(stored.store) + stored.path
        if stored.taken != "written":
            return new(f"() => {value}")
        inner, given = f"{self.line}{self.unit}", "given: any" if self.typed else "given"
        setter = f"set: ({given}) => {{{inner}{self.unit}{value} = given{self.end}{inner}}}"
        return new(f"{{{inner}get: () => {value},{inner}{setter}{self.last}{self.line}}}")

    def _later(self, shared: tuple[Span, Span], name: str) -> str:
        """The name of a function of the module that puts off the calls of all instances."""
        later = self.names.helper(f"{name}Later")
        maker, others = (self.source.slice(span.start, span.end) for span in shared)
        self.module_lines.append(
            f"// One for all instances, as the option object made it.\n"
            f"{self.base}const {later} = {maker}((run) => run(){others}){self.end}"
        )
        return later

    def _put_off_watcher(self, callback: Callback, name: str) -> Fragment:
        """A watcher's function that one function for all instances puts off."""
        assert callback.shared is not None and callback.text is not None
        later = self._later(callback.shared, name)
        code, at = callback.text, callback.body_at
        first = [o for o in code.operations if o.span.start < at]
        rest = [o for o in code.operations if o.span.start >= at]
        head = between(code.span._replace(end=at), first, self.speller.spell)
        body = between(code.span._replace(start=at), rest, self.speller.spell)
        arrow = "async () => " if callback.asynchronous else "() => "
        text = settled(callback.entry, "", "kept") + head + new(f"=> {later}({arrow}") + body
        return (text + new(")")).shifted(-self._levels(code.span.start))

    def _derived(self, part: Derived) -> Fragment:
        call = self.speller.run("computed")
        name = self.names.of(Member("derived", part.name))
        head = new(f"const {name} = {call}(", part.entry, "derived-to-computed")
        if part.stored is not None:
            return self.noted(
                part.comments, head + self._stored_value(part.stored) + new(f"){self.end}")
            )
        assert part.getter is not None
        if part.setter is None:
            text = self._callback(part.getter)
        else:
            inner = f"{self.line}{self.unit}"
            text = new(f"{{{inner}get: ") + self._callback(part.getter).shifted(1)
            text += new(f",{inner}set: ") + self._callback(part.setter).shifted(1)
            text += new(f"{self.last}{self.line}}}")
        return self.noted(part.comments, head + text + new(f"){self.end}"))

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
            # Only the watcher of the runtime runs where an object was changed in place.
            call = f"{self.speller.take('proxy')}.$watch"
        source = watched.removesuffix(".value")
        # The runtime goes on where a function it watches fails, and not where a value does.
        fails = part.source.kind == "derived" and part.source.name in self.fallible
        plain = kept and not part.path and not fails and part.source.kind in ("state", "derived")
        given = [
            new(source if plain else f"() => {watched}"),
            self._callback(part.handler)
            if part.handler.shared is None
            else self._put_off_watcher(part.handler, part.source.name),
        ]
        if part.settings:
            given.append(new("{ ") + joined((copy(s) for s in part.settings), ", ") + new(" }"))
        head = settle + new(f"{call}(", part.entry, "reaction-to-watch")
        if self.wraps and (not plain or part.settings) and part.handler.body_at >= 0:
            inner = f"{self.line}{self.unit}"
            text = joined((g.shifted(1) for g in given), f",{inner}")
            text = new(inner) + text + new(f"{self.comma}{self.line}")
        else:
            text = joined(given, ", ")
        return self.noted(part.comments, head + text + new(f"){self.end}"))

    def _watched(self, part: Reaction) -> str:
        name = part.source.name
        value = (
            self.speller.built_in(name) if name.startswith("$") else self.speller.value(part.source)
        )
        if self.speller.version >= 3 and not name.startswith("$"):
            # The runtime follows a path as far as there is something: nothing stays what it is.
            steps = [value, *part.path]
            if part.held:
                steps = [".".join(steps[:2]), *steps[2:]]
            return " && ".join(".".join(steps[:count]) for count in range(1, len(steps) + 1))
        path = "".join(f"?.{step}" for step in part.path)
        return value + (path[1:] if name in _ALWAYS_THERE else path)

    def _timed(self, part: Timed) -> Fragment:
        result = settled(part.entry, "moment-to-call")
        if part.when != "made":
            if part.when in ROUTE_MOMENTS:
                call = self.speller.run(ROUTE_MOMENTS[part.when], "vue-router")
            else:
                call = self.speller.run(MOMENTS[part.when])
            text = new(f"{call}(") + self._callback(part.callback) + new(f"){self.end}")
            return result + self.noted(part.comments, text)
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
        return result + self.noted(part.comments, text + new(f"\n{self.line}{name}(){self.end}"))

    def _inline(self, part: Timed) -> Fragment:
        """Return setup code as statements; in a block if it declares names."""
        assert part.inner is not None
        span = part.inner.span
        data = self.source.data[span.start : span.end]
        start = span.start + len(data) - len(data.lstrip())
        end = span.end - (len(data) - len(data.rstrip()))
        if start >= end:
            return self.noted(part.comments, Fragment())
        inner = Code(span._replace(start=start, end=end), part.inner.operations)
        if not part.locals:
            return self.noted(part.comments, self._releveled(inner))
        deeper = f"{self.line}{self.unit}"
        body = self._releveled(inner).shifted(1)
        return self.noted(part.comments, new(f"{{{deeper}") + body + new(f"{self.line}}}"))

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
        if self.bare and len(callback.untyped) == 1 and not self.typed:
            inner = callback.untyped[0]
            if (
                self.source.slice(code.span.start, at).strip()
                == f"({self.source.slice(*inner[:2])})"
            ):
                settle = settled(callback.entry, "arrow-as-the-others")
                head = copy(inner) + new(" ")
        prefix = "async " if callback.asynchronous else ""
        return settle + new(prefix) + (head + new("=> ") + tail).shifted(levels)


def used_names(component: Component, speller: Speller) -> list[tuple[Operation, str]]:
    """Every operation of the script that is spelled, with the name its text begins with."""
    found: list[tuple[Operation, str]] = []
    for owner, operation in component.operations():
        if owner == "drawing":
            continue
        if isinstance(operation, AssignEach):
            found += _named_by(operation, speller)
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


def _named_by(operation: AssignEach, speller: Speller) -> Iterator[tuple[Operation, str]]:
    """The names a write of several fields begins each of its statements and, where they are written again,
    its values with."""
    for member, value in operation.fields:
        yield operation, root_of(speller.value(member))
        for inner in value.operations if operation.again else ():
            yield operation, root_of(speller.spelled(inner))
