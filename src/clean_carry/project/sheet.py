"""One component, described for whoever is about to carry it."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from clean_carry.component.code import Assign, Code, Emit, FieldUse, StateWrite
from clean_carry.component.errors import CarryError, InputError
from clean_carry.component.markup import Condition, Element, Loop, SlotOutlet
from clean_carry.component.members import (
    Context,
    Derived,
    Effect,
    Followed,
    Injected,
    InstanceField,
    Method,
    Model,
    Provided,
    Reaction,
    Reducer,
    State,
    Static,
    Timed,
)  # fmt: skip
from clean_carry.component.model import Component
from clean_carry.component.moments import Moment
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file, read_file
from clean_carry.project.index.links import Index
from clean_carry.project.index.model import Found, Use
from clean_carry.project.passed import Passed, passed_at
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.contract import ReadFile

# The hooks of the neutral component in a reader's words.
HOOKS = {
    "made": "before the first render", "starting": "before the first render",
    "derived": "before every render", "received": "new props", "updating": "before an update",
    "displayed": "after mount", "before update": "before an update", "updated": "after every update",
    "before removal": "before unmount", "removed": "after unmount", "failed": "an error below it",
}  # fmt: skip
_LONGEST = 60


@dataclass
class Item:
    """One row of a sheet, such as a prop, an event or an effect; `kind` is one of `KINDS`.

    `about` is what the source says of it (a default, what it depends on). `places` are the users that pass
    it, as `file:line`, or the functions that write it. `carry` is the outcome of carrying the code on its
    line: {"carried" or "left" or "refused": number of constructs}.
    """

    kind: str
    name: str
    line: int
    about: str = ""
    places: list[str] = field(default_factory=list)
    carry: dict[str, int] = field(default_factory=dict)


@dataclass
class Sheet:
    """A component with everything on it, in the order of `KINDS`."""

    name: str
    file: str
    line: int
    syntax: str
    lines: int
    items: list[Item]
    users: list[Use]
    uses: list[str]
    carry: Result | None = None
    problem: str = ""

    def of(self, kind: str) -> list[Item]:
        """The items of a kind."""
        return [item for item in self.items if item.kind == kind]

    def as_json(self, root: Path) -> dict[str, Any]:
        """The JSON shape of `sheet --json`."""
        top = len(root.as_posix().rstrip("/")) + 1
        carry = None
        if self.carry is not None:
            findings = [vars(one) for one in self.carry.findings]
            carry = {"to": self.carry.target, "outcome": self.carry.status, "findings": findings}
        return {
            "name": self.name, "file": self.file, "line": self.line, "syntax": self.syntax,
            "lines": self.lines, "items": [vars(item) for item in self.items],
            "users": [
                {"file": use.file[top:], "line": use.line, "how": use.how, "role": use.role}
                for use in self.users
            ],
            "uses": self.uses, "carry": carry, "problem": self.problem,
        }  # fmt: skip


KINDS = (
    "prop", "event", "slot", "state", "derived", "effect", "method", "field", "injected", "provided",
    "style", "tag",
)  # fmt: skip


def sheets(index: Index, path: Path, target: str | None) -> list[Sheet]:
    """A sheet for each component of a file. Raises `InputError` where it holds none."""
    file = path.resolve().as_posix()
    facts = index.files.get(file)
    if facts is None or not facts.components:
        why = facts.problem if facts is not None and facts.problem else "holds no component"
        raise InputError(why, file=str(path))
    aliases = tuple(index.settings.aliases.items())
    request = Request(path.resolve(), str(path), target or "", aliases=aliases)
    results = _carried(request) if target else []
    problem, read = "", None
    try:
        read, _ = read_file(request)
    except CarryError as error:
        problem = error.one_line()
    found = []
    for key in index.in_file(file):
        one = index.components[key]
        component = _component(read, one)
        result = next((r for r in results if r.component == one.seen.name), None)
        result = results[0] if result is None and len(results) == 1 else result
        items = list(_Items(read, component).all()) if read is not None and component else []
        items += _styles(one, index)
        items += [Item("tag", tag, one.seen.line) for tag in one.seen.tags]
        _say_carry(items, result)
        passed = passed_at(one.users)
        _say_passed(items, passed, index)
        found.append(
            Sheet(
                one.seen.name, str(path), one.seen.line, one.seen.syntax, one.seen.lines,
                sorted(items, key=lambda item: KINDS.index(item.kind)), one.users,
                sorted({index.components[used].seen.name for used, _ in one.uses}), result,
                problem if component is None else "",
            )
        )  # fmt: skip
    if read is not None:
        read.release()
    return found


def _carried(request: Request) -> list[Result]:
    try:
        return carry_file(request)
    except CarryError:
        return []


def _component(read: ReadFile | None, found: Found) -> Component | None:
    components = read.components if read is not None else ()
    named = [one for one in components if one.name == found.seen.name]
    return (named or (components if len(components) == 1 else [None]))[0]  # type: ignore[list-item]


class _Items:
    """The items that the neutral component knows of."""

    def __init__(self, read: ReadFile, component: Component) -> None:
        self.source: SourceText = read.source
        self.component = component
        self.writers: dict[str, list[str]] = defaultdict(list)
        for owner, operation in component.operations():
            name = getattr(owner, "name", "") or getattr(owner, "when", "") or "the markup"
            for field_name in _written(operation):
                if name not in self.writers[field_name]:
                    self.writers[field_name].append(HOOKS.get(name, name))

    def all(self) -> Iterator[Item]:
        """Every item, in the order of the source."""
        yield from self._inputs()
        for member in self.component.members:
            yield from self._of(member)
        yield from self._slots(self.component.view.markup)

    def line(self, offset: int) -> int:
        """The line of an offset in the file as it is on the disk."""
        return self.source.place(max(offset, 0)).line

    def text(self, code: Code | None) -> str:
        """A piece of code on one line, cut."""
        if code is None:
            return ""
        plain = " ".join(self.source.slice(code.span.start, code.span.end).split())
        return plain if len(plain) <= _LONGEST else plain[: _LONGEST - 1] + "…"

    def _inputs(self) -> Iterator[Item]:
        start = self.line(self.component.span.start)
        events = {*self.component.outward.events, *self.component.outward.sent} - {""}
        for prop in self.component.inputs.props:
            kind = "event" if prop.name[:2] == "on" and prop.name[2:3].isupper() else "prop"
            kind = "slot" if prop.name == "children" else kind
            parts = [prop.kind, "required" if prop.required else ""]
            default = prop.default
            if default is not None:
                parts.append(f"default {default.text or self.text(default.code)}")
            line = self.line(default.code.span.start) if default is not None else start
            yield Item(kind, prop.name, line, ", ".join(part for part in parts if part))
        for name in sorted(events):
            yield Item("event", name, start)

    def _of(self, member: object) -> Iterator[Item]:
        match member:
            case State(fields=fields):
                for one in fields or ():
                    about = f"starts as {self.text(one.code)}" if one.code is not None else ""
                    line = self.line(one.code.span.start) if one.code is not None else 0
                    yield Item("state", one.name, line, about, self._written_by(one.name))
            case InstanceField(name=name, code=code, element=element):
                about = "a reference to an element" if element else self.text(code)
                line = self.line(code.span.start) if code is not None else 0
                yield Item("field", name, line, about, self._written_by(name))
            case Derived(name=name, text=text, returned=returned):
                yield Item("derived", name, self.line(text.span.start), self.text(returned))
            case Method(name=name, text=text):
                about = "waits" if member.asynchronous else ""
                yield Item("method", name, self.line(text.span.start), about)
            case Reducer(state=name, reduce=reduce):
                yield Item("state", name, self.line(reduce.span.start), "by a reducer")
            case Model(prop=name):
                yield Item("prop", name, self.line(self.component.span.start), "bound both ways")
            case Injected(name=name, key=key):
                yield Item("injected", name, 0, f"from {key}")
            case Provided(key=key, code=code):
                yield Item("provided", key, self.line(code.span.start), self.text(code))
            case Context(text=text):
                yield Item("injected", text or "the old context", 0)
            case Static(name=name, code=code):
                yield Item("field", name, self.line(code.span.start), "on the component itself")
            case _:
                yield from self._effect(member)

    def _effect(self, member: object) -> Iterator[Item]:
        match member:
            case Moment(when=when, body=body):
                yield Item("effect", HOOKS.get(when, when), self.line(body.span.start))
            case Timed(when=when, callback=callback):
                line = self.line(callback.text.span.start) if callback.text is not None else 0
                yield Item("effect", HOOKS.get(when, when), line)
            case Effect(text=text, sources=sources, ends=ends):
                names = ", ".join(self.text(one) for one in sources)
                about = f"when {names} changes" if names else "once"
                about += ", with a clean-up" if ends else ""
                yield Item("effect", "after render", self.line(text.span.start), about)
            case Followed(text=text):
                yield Item("effect", "after a change of what it reads", self.line(text.span.start))
            case Reaction(source=source, body=body):
                about = ", ".join(
                    word
                    for word, holds in (("at once", member.immediate), ("deep", member.deep))
                    if holds
                )
                name = f"{source.name} changes"
                yield Item("effect", name, self.line(body.span.start), about)
            case _:
                return

    def _slots(self, nodes: tuple[Any, ...]) -> Iterator[Item]:
        for node in nodes:
            match node:
                case SlotOutlet(name=name, fallback=fallback, given=given):
                    about = "with a fallback" if fallback else ""
                    if given:
                        about += (", " if about else "") + f"gives {', '.join(g[0] for g in given)}"
                    yield Item("slot", name or "default", self.line(node.span.start), about)
                case Condition(branches=branches):
                    for branch in branches:
                        yield from self._slots(branch.children)
                case Element() | Loop():
                    yield from self._slots(node.children)
                case _:
                    yield from self._slots(getattr(node, "children", ()))

    def _written_by(self, name: str) -> list[str]:
        return [f"written by {writer}" for writer in self.writers.get(name, ())]


def _written(operation: object) -> Iterator[str]:
    match operation:
        case StateWrite(fields=fields):
            for one in fields or ():
                yield getattr(one, "name", "") or getattr(one, "key", "")
        case Assign(member=member):
            yield member.name
        case FieldUse(member=member, write=True):
            yield member.name
        case Emit():
            return


def _styles(found: Found, index: Index) -> Iterator[Item]:
    endings = (".css", ".scss", ".sass", ".less", ".styl")
    for one in index.files[found.key.file].imports:
        if one.request.endswith(endings):
            yield Item("style", one.request, one.line, "a stylesheet of its own")
    if found.seen.counts.get("styles") and found.key.file.endswith(".vue"):
        yield Item("style", "style block", 0, f"{found.seen.counts['styles']} in the file")


def _say_carry(items: list[Item], result: Result | None) -> None:
    """Note at each item the outcomes of the constructs on its line."""
    by_line: dict[int, dict[str, int]] = defaultdict(dict)
    for entry in result.entries if result is not None else ():
        counts = by_line[entry.line]
        counts[entry.outcome] = counts.get(entry.outcome, 0) + 1
    for item in items:
        item.carry = by_line.get(item.line, {})


def _say_passed(items: list[Item], passed: list[Passed], index: Index) -> None:
    """Note at each prop, event and slot where users pass it."""
    top = len(index.root.as_posix().rstrip("/")) + 1
    for item in items:
        if item.kind in ("prop", "event", "slot"):
            item.places += [
                f"{one.use.file[top:]}:{one.line}"
                for one in passed
                if one.means(item.kind, item.name)
            ]
