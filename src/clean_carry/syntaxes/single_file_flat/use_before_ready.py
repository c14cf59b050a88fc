"""Code that runs during setup, and members it may not read yet."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field, replace

from clean_carry.component.code import (
    Assign,
    AssignEach,
    Builtin,
    Code,
    Member,
    MethodCall,
    Operation,
    Read,
)
from clean_carry.component.members import Derived, Injected, Method, Part, Provided, Reaction, Timed
from clean_carry.component.model import Component, Refusal
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file_flat.spelling import WATCH

# Calls whose result is made of their arguments, or that throw (ECMA-262 §22.2.4, ECMA-402).
_MAKES = re.compile(rb"\bnew (?:Intl\.\w+|RegExp)\(")

_CALLED = re.compile(rb"([\w$.]+)\((?:[^()]*,)?\s*\Z")
# Functions that take any value, and words that stand before a parenthesis and are none.
_TAKES_ANYTHING = re.compile(
    rb"if|while|for|switch|return|typeof|(?:Array\.isArray|String|Boolean|Number|isNaN|parseInt|parseFloat)"
    rb"|(?:Math|Number|JSON|console)\.\w+|Object\.is|.*\.\$?(?:emit|push|includes|indexOf|concat)"
)


@dataclass
class Runs:
    """Follows code through the own methods and derived values it calls at once."""

    component: Component
    texts: dict[tuple[str, str], Code] = field(default_factory=dict)

    def __post_init__(self) -> None:
        for part in self.component.members:
            if isinstance(part, Method):
                self.texts[("method", part.name)] = part.text
            elif isinstance(part, Derived):
                self.texts[("derived", part.name)] = part.text

    def operations(self, codes: Iterable[Code]) -> Iterator[Operation]:
        """Return the operations while `codes` run, in no order, without deferred ones."""
        for code in self.reached(codes):
            yield from (o for o in code.all() if not o.deferred)

    def reached(self, codes: Iterable[Code]) -> Iterator[Code]:
        """The codes, and those of the methods and derived values they call."""
        queue, seen = list(codes), set[tuple[str, str]]()
        while queue:
            code = queue.pop()
            yield code
            for operation in code.all():
                if operation.deferred or not isinstance(operation, MethodCall | Read):
                    continue
                key = (operation.member.kind, operation.member.name)
                if key in self.texts and key not in seen:
                    seen.add(key)
                    queue.append(self.texts[key])


def started(component: Component) -> Component:
    """Move setup code that needs a mixin, or sets a value the mixin reads, to just before the first
    render: the mixin's own setup has run then."""
    runs = Runs(component)
    names = component.foreign.mixed | {"$this"} if component.foreign.mixed else frozenset()
    members: list[Part] = []
    for part in component.members:
        if isinstance(part, Timed) and part.when == "made" and part.callback.text is not None:
            used = list(runs.operations([part.callback.text]))
            asked = (
                component.foreign.opened.names if part.hook in component.foreign.mixed_hooks else ()
            )
            writes = any(name in asked for o in used for name in _written(o))
            if writes or any(isinstance(o, Builtin) and o.name in names for o in used):
                # Before the declarations that exist for that hook already.
                at = next((n for n, p in enumerate(members) if _starts(p)), len(members))
                members.insert(at, replace(part, when="starting", hook=""))
                continue
        members.append(part)
    return replace(component, members=tuple(members))


def _written(operation: Operation) -> list[str]:
    """The state fields an operation writes."""
    if isinstance(operation, AssignEach):
        return [member.name for member, _ in operation.fields]
    return [operation.member.name] if isinstance(operation, Assign) else []


def watched(component: Component, source: SourceText) -> Component:
    """Return the component with `this.$watch(() => …)` in setup statements as the framework's
    function.

    On version 3 they are one (`$watch` calls what `watch` does), as long as the instance is being made: a
    function that is written in place and takes nothing, or that stands for a name.
    """
    members = [
        replace(
            part,
            inner=_by_function(part.inner, source),
            callback=replace(part.callback, text=_by_function(part.callback.text, source)),
        )
        if isinstance(part, Timed) and part.when == "made" and part.flows and part.inner is not None
        else part
        for part in component.members
    ]
    return replace(component, members=tuple(members))


_IN_PLACE = re.compile(r"\(\s*(\(\)\s*=>|function\s*\(\s*\))?")


def _by_function(code: Code | None, source: SourceText) -> Code | None:
    if code is None:
        return None
    named = {
        o.span.start for o in code.operations if isinstance(o, Read) and o.shorthand == "() => "
    }
    operations = []
    for operation in code.operations:
        if isinstance(operation, Builtin) and operation.name == "$watch" and not operation.deferred:
            end = operation.span.end
            call = _IN_PLACE.match(source.slice(end, code.span.end))
            if call is not None and (call[1] or end + len(call[0].encode()) in named):
                operation = replace(operation, name=WATCH)
        operations.append(operation)
    return Code(code.span, tuple(operations))


def _starts(part: Part) -> bool:
    return isinstance(part, Timed) and part.when == "starting"


def too_early(component: Component) -> Refusal | None:
    """A use of what is not there yet by code that runs while the component is made."""
    runs = Runs(component)
    for operation in runs.operations(_state(component)):
        if isinstance(operation, Builtin) and operation.name == "$this":
            return Refusal(component.name, "instance-escapes", "", operation.span.start)
        # The old form gives nothing for what is still being made, the new one a value or an error.
        if isinstance(operation, Read) and operation.member.kind in ("state", "derived"):
            name, at = operation.member.name, operation.span.start
            return Refusal(component.name, "state-reads-state", name, at)
    for operation in runs.operations([*_state(component), *_made(component)]):
        if isinstance(operation, Builtin) and operation.name in component.foreign.mixed:
            return Refusal(component.name, "mixin-too-early", operation.name, operation.span.start)
    for part in component.members:
        if (
            isinstance(part, Timed)
            and part.hook in component.foreign.mixed_hooks
            and part.callback.text
        ):
            for operation in runs.operations([part.callback.text]):
                changing = component.foreign.mixed - component.foreign.mixed_calm
                if isinstance(operation, Builtin) and operation.name in changing:
                    at = operation.span.start
                    return Refusal(component.name, "mixin-order", operation.name, at)
    return None


# A member of a list's element, or of what a search gives, is read: there may be none.
_INDEXED = re.compile(
    rb"\[[\w.$ +-]+\]\.\w|\.(?:find|match|exec|querySelector|closest)\([^;\n]*?\)[.\[]"
)


def may_throw(component: Component, source: SourceText) -> int:
    """Return where setup code reads a member of a value that may be missing; -1 if nowhere.

    An input, what nobody may provide, the parent, and what is derived of them.
    """
    made = [p.callback.text for p in component.members if isinstance(p, Timed) and p.when == "made"]
    return _throws(component, source, [*_state(component), *(code for code in made if code)])


def fallible(component: Component, source: SourceText) -> frozenset[str]:
    """The derived values that may fail as they are worked out."""
    parts = [part for part in component.members if isinstance(part, Derived)]
    return frozenset(p.name for p in parts if _throws(component, source, [p.text]) >= 0)


def _throws(component: Component, source: SourceText, first: list[Code]) -> int:
    given = {p.name for p in component.inputs.props if p.default or p.implied}
    # A default stands in for what is missing, and not for `null`, which is a value of every type.
    nothing = {p.name for p in component.inputs.props if not (p.required and p.kind)}
    nothing |= component.foreign.mixed_props
    unsure = {p.name for p in component.inputs.props} - given
    unsure -= {p.name for p in component.inputs.props if p.kind in ("String", "Boolean", "Number")}
    provided = {p.name for p in component.members if isinstance(p, Injected) and not p.fallback}
    runs = Runs(component)
    for code in runs.reached(first):
        found = _MAKES.search(source.data, code.span.start, code.span.end)
        found = found or _INDEXED.search(source.data, code.span.start, code.span.end)
        if found is not None:
            return found.start()
    for code in runs.reached(first):
        calls = any(isinstance(o, MethodCall) for o in code.all())
        for operation in (o for o in code.all() if not o.deferred):
            # TypeScript's `!` says that it is there, and does nothing.
            end = operation.span.end
            after = source.data[end : end + 2].removeprefix(b"!")[:1]
            # Its member is read, or it gets a name, or goes to an own function that may read one.
            asked = after in (b".", b"[")
            handed = after in (b",", b")") and (calls or _handed(source, operation))
            if asked or handed or (after in (b";", b"\n") and _derived(operation)):
                if _unsure(operation, nothing if asked else unsure, provided):
                    return operation.span.start
    return -1


def _handed(source: SourceText, operation: Operation) -> bool:
    """Whether a value is passed whole to a function, which may read any member."""
    start = operation.span.start
    found = _CALLED.search(source.data, max(start - 80, 0), start)
    return found is not None and _TAKES_ANYTHING.fullmatch(found[1]) is None


def _derived(operation: Operation) -> bool:
    return isinstance(operation, Read) and operation.member.kind == "derived"


def _unsure(operation: Operation, unsure: set[str], provided: set[str]) -> bool:
    """Whether what an operation gives may not be there."""
    match operation:
        case Read(member=Member(kind="prop", name=name)):
            return name in unsure
        case Read(member=Member(kind="injected", name=name)):
            return name in provided
        case Read(member=Member(kind="derived")) | Builtin(name="$parent"):
            return True
    return False


def _state(component: Component) -> Iterator[Code]:
    state = component.state
    if state is not None:
        yield from (part.code for part in state.fields or () if part.code is not None)
    if component.foreign.prelude is not None:
        yield component.foreign.prelude


def _made(component: Component) -> Iterator[Code]:
    """The code that runs once the state is there."""
    for part in component.members:
        match part:
            case Provided(code=code):
                yield code
            case Timed(when="made", callback=callback) if callback.text is not None:
                yield callback.text
            case Reaction(text=text, immediate=immediate, source=source):
                # A watcher looks at its source at once.
                yield from (d.text for d in component.derived if d.name == source.name)
                if immediate:
                    yield text
