"""Situations: inputs, functions, slot content and replies a walk starts from."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import zip_longest
from random import Random
from typing import Any

from clean_carry.verify.search.inputs.inputs import Inputs
from clean_carry.verify.search.values.row_keys import told_apart
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.values.values import (
    MARKUP,
    as_text,
    function_plans,
    is_content,
    is_function,
    kind,
    reply_plans,
    typical,
    variants,
)
from clean_carry.verify.trials import Trial

Step = dict[str, Any]
_SOME = [{"tag": "em", "attributes": {"class": "given"}, "content": ["some content"]}]
_FOCUSED = [
    {"tag": "button", "attributes": {"type": "button"}, "content": ["first"]},
    {"tag": "a", "attributes": {"href": "#last"}, "content": ["last"]},
]
CONTENTS: tuple[list[Any], ...] = (
    _SOME,
    _FOCUSED,
    ["plain content"],
    [{"tag": "b", "content": ["one"]}, " two ", {"tag": "i", "content": [MARKUP]}],
    [],
)


# The form of an element's name, and names to use where none is known.
_TAGS = ["section", "b"]
_TAG = re.compile(r"[a-z][a-z\d-]*")
# Milliseconds after which what begins with an input is over.
_LONG = 1000
# So many words are tried early.
MOST_MODES = 16
_NOTHING = (None, {"$": "undefined"})
# In the place of a value: it is not given.
_NONE = object()
# Kinds a component seldom does without, where nothing is declared.
_NEEDED = frozenset("array object number sized date".split())
# Attributes and listeners that a parent may pass to any element; listeners of events that bubble.
PASSED_ON = {"title": "given", "id": "given-id", "data-trial": "7"}
LISTENERS = ("onClick", "onKeyDown")


@dataclass(frozen=True)
class Situation:
    """The props, functions, slots and replies of a trial before its first step."""

    inputs: dict[str, Any] = field(default_factory=dict)
    functions: dict[str, Any] = field(default_factory=dict)
    slots: dict[str, Any] = field(default_factory=dict)
    replies: list[dict[str, Any]] = field(default_factory=list)

    def trial(self, name: str, *, strict: bool = False) -> Trial:
        """A trial that starts so, without steps."""
        return Trial(name, self.inputs, self.functions, self.slots, self.replies, [], strict)

    def with_input(self, name: str, value: Any) -> Situation:
        """The same with one input set."""
        return replace(self, inputs={**self.inputs, name: value})

    def with_part(self, part: str, name: str, value: Any) -> Situation:
        """The same with one of its `inputs`, `functions` or `slots` set."""
        changed: Any = {part: {**getattr(self, part), name: value}}
        return replace(self, **changed)

    def without(self, part: str, name: str) -> Situation:
        """The same without one of its `inputs`, `functions` or `slots`: two of them may have one name."""
        changed: Any = {part: {k: v for k, v in getattr(self, part).items() if k != name}}
        return replace(self, **changed)


class Situations:
    """Makes situations for one component from what its code says.

    `fitting` are the inputs of the full situation once they are known; before, they are the typical ones.
    Where `typed`, no input is given a value of another kind than it is declared with, and no two rows of
    a list have one of the `keys` alike.
    """

    plain_content = CONTENTS[0]

    def __init__(
        self, inputs: Inputs, *, typed: bool = False, keys: frozenset[str] = frozenset()
    ) -> None:
        self.inputs, self.typed, self.keys = inputs, typed, keys
        # Whether walks may send composition events.
        self.composes = True
        self.functions: dict[str, list[dict[str, Any]]] = {e: [{}] for e in inputs.events}
        # Between two runtimes nothing is given into an element that takes none: only one of them minds.
        full = typed and inputs.childless
        self.slots: list[str] = [] if full else [*inputs.slots]
        self.values: dict[str, list[Any]] = {}
        self.shapes: dict[str, Shape] = {}
        # Functions given only now and then: those it passes on take the place of its own.
        self.odd: set[str] = set()
        # Functions the old code calls without asking whether they are there: between two runtimes they
        # always are, since a call of nothing fails on one side and an event nobody hears does not.
        self.always: set[str] = set()
        # Listeners of events, between two runtimes: they stay while the component does. A function of one
        # render keeps the listener it was given; an event goes to who listens by then.
        self.heard: set[str] = set()
        for name, shape in inputs.shapes.items():
            if is_function(name, shape):
                plans = function_plans(shape)
                # Between two runtimes what a function gives is shown as text, unless it fills a slot.
                self.functions[name] = [as_text(one) for one in plans] if typed else plans
                if typed and not shape.tested and not shape.passed:
                    self.always.add(name)
                if shape.passed and not shape.required:
                    self.odd.add(name)
            elif is_content(name, shape):
                self.slots += [] if full else [name]
            else:
                self.shapes[name] = shape
                values = [told_apart(one, keys) for one in variants(name, shape)]
                self.values[name] = _suggested(name, shape, values) if typed else values
        # Typical values that are known, by input.
        self.told: Mapping[str, Any] = {}
        # Whether content comes and goes with the component alone, and every change is seen by itself.
        self.content_stays = False
        # Whether content is parsed as a part of a page.
        self.parsed = False
        self.one_by_one_only = False
        taken = inputs.slots or "children" in self.slots or "children" in self.functions
        self.extra_slot = "" if taken or full else "children"
        self.own_contents: list[list[Any]] = [
            *inputs.contents,
            *([{"use": at + 1}] for at in range(inputs.uses)),
        ]
        self.contents: dict[str, list[list[Any]]] = {}
        self.keep_contents(self.own_contents)
        self.fitting: dict[str, Any] | None = None
        self.replies = reply_plans(inputs.reply)
        named = {*self.functions, *self.slots, *self.values}
        self.passed = {n: v for n, v in PASSED_ON.items() if inputs.passes_on and n not in named}
        self.passed_functions: dict[str, Any] = {
            name: {} for name in LISTENERS if inputs.passes_on and name not in named
        }

    def full(self) -> Situation:
        """Every input at a typical value, every slot filled, every function there."""
        inputs = self.fitting
        if inputs is None:
            inputs = {name: self._typical(name) for name in self.shapes}
        return Situation(
            dict(inputs),
            {name: plans[0] for name, plans in self.functions.items() if name not in self.odd},
            {name: self.contents_of(name)[0] for name in self.slots},
            self.replies[0],
        )

    def keep_contents(self, own: list[list[Any]]) -> None:
        """Fill the main slot with these contents of the project's own first."""
        self.contents = {name: [*own, *CONTENTS] for name in ("children", "default") if own}

    def contents_of(self, slot: str) -> Sequence[list[Any]]:
        """Return contents for a slot: the project's own first; no slot like another."""
        found = self.contents.get(slot) or (_some(slot), *CONTENTS[1:])
        if self.parsed:
            # A browser takes links and buttons in others of their kind apart.
            found = [one for one in found if one is not _FOCUSED]
        # Content that is given, and empty, is none where content is an input.
        return [one for one in found if one] if self.typed else found

    def off(self) -> Situation:
        """The same with every truth value off."""
        situation = self.full()
        flags = self.flags
        return replace(
            situation,
            inputs={n: (False if n in flags else v) for n, v in situation.inputs.items()},
        )

    @property
    def flags(self) -> list[str]:
        """The inputs that are on or off."""
        return [name for name, shape in self.shapes.items() if kind(name, shape) == "boolean"]

    def sparse(self) -> Situation:
        """Only what the component seems to need: no defaults overridden, nothing optional given."""
        situation = self.full()
        needed = {
            name: value
            for name, value in situation.inputs.items()
            if (shape := self.shapes[name]).default is None
            and (shape.required or not shape.tested)
            and (shape.required or kind(name, shape) in _NEEDED)
        }
        functions = {
            name: plan
            for name, plan in situation.functions.items()
            if name not in self.shapes or self.shapes[name].default is None
        }
        return Situation(needed, functions, {}, self.replies[0])

    def openings(self) -> list[Situation]:
        """The situations every search starts with."""
        functions = {n: plan for n, plan in self.full().functions.items() if n in self.always}
        found = [self.full(), self.off(), self.sparse(), replace(self.full(), functions=functions)]
        if self.extra_slot:
            content = self.contents_of(self.extra_slot)[0]
            found[0] = replace(found[0], slots={**found[0].slots, self.extra_slot: content})
        if self.passed:
            found[0] = self.passing_on(found[0])
        if self.slots:
            # The component's output in the place of content.
            found.append(replace(self.full(), slots={}))
        return found

    def forgiven(self) -> None:
        """Leave out lists with items that are nothing, which expressions of the old runtime pass over."""
        for name, values in self.values.items():
            self.values[name] = [
                one
                for one in values
                if not isinstance(one, list) or all(item not in _NOTHING for item in one)
            ]

    def complete(self) -> None:
        """Leave out objects without a field that is declared: given to a child, it is no value in one
        runtime and no input in the other."""
        for name, values in self.values.items():
            shape = self.shapes[name]
            self.values[name] = [one for one in values if _is_complete(shape, one)]

    def keep(self, fits: Callable[[str, Any], bool]) -> None:
        """Leave out values of inputs that do not fit, but for the typical ones."""
        for name, values in self.values.items():
            self.values[name] = [one for one in values if fits(name, one)]

    def with_all(self, situation: Situation, needed: frozenset[str]) -> Situation:
        """The same with every input that is `needed`, at its typical value where it is not given."""
        inputs, functions = dict(situation.inputs), dict(situation.functions)
        for name in needed:
            if name in self.functions:
                functions.setdefault(name, self.functions[name][0])
            elif name in self.shapes:
                inputs.setdefault(name, self._typical(name))
        return replace(situation, inputs=inputs, functions=functions)

    def passing_on(self, situation: Situation) -> Situation:
        """The same with inputs and listeners that the component only passes on."""
        return replace(
            situation,
            inputs={**situation.inputs, **self.passed},
            functions={**situation.functions, **self.passed_functions},
        )

    def modes(self) -> Iterator[Situation]:
        """The full situation with every other word that an input is compared with, round by round."""
        full = self.full()
        columns = []
        for name, shape in self.shapes.items():
            words = [value for value in shape.literals if isinstance(value, str)]
            if len(words) > 1:
                columns.append([(name, w) for w in words if w != full.inputs.get(name)])
        cells = [cell for row in zip_longest(*columns) for cell in row if cell is not None]
        for name, word in cells[:MOST_MODES]:
            yield full.with_input(name, word)

    def one_by_one(self) -> Iterator[Situation]:
        """The full, off or sparse situation with one thing different, round by round over inputs."""
        full, off, sparse = self.full(), self.off(), self.sparse()
        bases = (off, full, sparse)
        columns: list[list[tuple[str, str, Any]]] = [
            [("inputs", name, value) for value in (*_others(values, full.inputs.get(name)), _NONE)]
            for name, values in self.values.items()
        ]
        columns += [
            [
                ("functions", name, plan)
                for plan in (*plans[0 if name in self.odd else 1 :], _NONE)
                if plan is not _NONE or name not in self.always
            ]
            for name, plans in self.functions.items()
        ]
        # An element in the place of a slot's content comes first.
        columns += [
            [("slots", name, content) for content in (_NONE, *self.contents_of(name)[1:])]
            for name in self.slots
        ]
        for turn, row in enumerate(zip_longest(*columns)):
            for number, cell in enumerate(row, turn):
                if cell is not None:
                    # The values of one thing are tried in one situation after the other.
                    part, name, value = cell
                    base = bases[number % len(bases)]
                    none = value is _NONE
                    yield base.without(part, name) if none else base.with_part(part, name, value)

    def changes(self) -> Iterator[list[Step]]:
        """Input changes in short runs: each input through its values and back."""
        full = self.full().inputs
        run: list[Step] = []
        for name, values in self.changing():
            lasts = kind(name, self.shapes[name]) == "boolean"
            for value in (*values, full.get(name)):
                run.append({"change": {"inputs": {name: value}}})
                # Work that a flag starts is finished before the flag changes again.
                run += [{"pass": _LONG}] * lasts
                if len(run) >= 10:
                    yield run
                    run = []
            run.append({"change": {"without": [name]}})
            run.append({"change": {"inputs": {name: full.get(name)}}})
        for name, plans in self.functions.items():
            if name in self.heard:
                continue
            run.append({"change": {"functions": {name: plans[0]}}})
            if name not in self.always:
                run.append({"change": {"without": [name]}})
                run.append({"change": {"functions": {name: plans[0]}}})
        for slot in self.slots if not self.content_stays else ():
            run += [{"change": {"slots": {slot: content}}} for content in self.contents_of(slot)]
        if run:
            yield run

    def changing(self) -> list[tuple[str, list[Any]]]:
        """The inputs that can change: what is provided is there from the start."""
        return [(n, v) for n, v in self.values.items() if not n.startswith("$provided.")]

    def any_change(self, rng: Random) -> Step | None:
        """Return a change of one prop, sometimes of a second one before the page is at rest; now
        and then of content."""
        if self.slots and not self.content_stays and rng.random() < 0.12:
            slot = rng.choice(sorted(self.slots))
            return {"change": {"slots": {slot: rng.choice(self.contents_of(slot))}}}
        changing = sorted(set(self.functions) - self.heard)
        if changing and (not self.changing() or rng.random() < 0.2):
            name = rng.choice(changing)
            if rng.random() < 0.4 and name not in self.always:
                return {"change": {"without": [name]}}
            return {"change": {"functions": {name: self.functions[name][0]}}}
        if not self.changing():
            return None
        first = self._any_input(rng)
        change: dict[str, Any] = {"inputs": first}
        if rng.random() < 0.2 and not self.one_by_one_only:
            change["then"] = {"inputs": self._any_input(rng)}
        return {"change": change}

    def _any_input(self, rng: Random) -> dict[str, Any]:
        name = rng.choice(sorted(name for name, _ in self.changing()))
        return {name: self._any_value(name, rng)}

    def _any_value(self, name: str, rng: Random) -> Any:
        if rng.random() < 0.4:
            return self._typical(name, rng.randrange(3))
        return rng.choice(self.values[name] or [None])

    def _typical(self, name: str, number: int = 0) -> Any:
        """A typical value of an input; between two runtimes one that its uses suggest."""
        if name in self.told:
            values = [self.told[name], *self.values.get(name, ())]
            return values[number % len(values)]
        shape = self.shapes[name]
        value = told_apart(typical(name, shape, number), self.keys)
        if not self.typed or value in _suggested(name, shape, [value, *self.values[name]]):
            return value
        return next(iter(self.values[name]), value)

    @property
    def named(self) -> list[str]:
        """All that a situation may give: inputs, functions and slots."""
        return [*self.values, *self.functions, *self.slots]

    def together(self, base: Situation, names: Sequence[str], rng: Random) -> Situation:
        """The same with some inputs, functions and slots at any of their values, all at once; now and then
        two inputs have one value."""
        situation = base
        for name in names:
            for part in ("inputs", "functions", "slots"):
                situation = self._any(situation, part, name, rng)
        inputs = [name for name in names if name in situation.inputs]
        if len(inputs) > 1 and rng.random() < 0.2:
            one, other = rng.sample(inputs, 2)
            if not self.typed or self._alike(one, other):
                situation = situation.with_input(one, situation.inputs[other])
        return situation

    def _alike(self, one: str, other: str) -> bool:
        """Whether what one input is given could be given to another."""
        shapes = self.shapes[one], self.shapes[other]
        if not shapes[0].declared:
            return True
        return kind(one, shapes[0]) == kind(other, shapes[1])

    def _any(self, base: Situation, part: str, name: str, rng: Random) -> Situation:
        known: Any = {"inputs": self.values, "functions": self.functions, "slots": self.slots}[part]
        if name not in known:
            return base
        if rng.random() < 0.2 and not (part == "functions" and name in self.always):
            return base.without(part, name)
        if part == "inputs":
            return base.with_input(name, self._any_value(name, rng))
        choices = self.functions[name] if part == "functions" else self.contents_of(name)
        return base.with_part(part, name, rng.choice(choices))

    def anything(self, rng: Random) -> Situation:
        """A random situation: mostly typical, partly odd, partly not given."""
        situation = rng.choice((self.full(), self.off(), self.sparse()))
        for name in self.values:
            chance = rng.random()
            if chance < 0.3 and self.values[name]:
                situation = situation.with_input(name, rng.choice(self.values[name]))
            elif chance < 0.45:
                situation = situation.without("inputs", name)
        for name, plans in self.functions.items():
            if rng.random() < 0.25:
                situation = situation.with_part("functions", name, rng.choice(plans))
        for name in (*self.slots, self.extra_slot):
            if name and rng.random() < 0.35:
                situation = situation.with_part("slots", name, rng.choice(self.contents_of(name)))
        if rng.random() < 0.3:
            situation = self.passing_on(situation)
        return replace(situation, replies=rng.choice(self.replies))


def _others(values: list[Any], known: Any) -> list[Any]:
    """The values that are not known yet, then those that are."""
    return sorted(values, key=lambda value: type(value) is type(known) and value == known)


def _some(slot: str) -> list[Any]:
    if slot in ("", "default", "children"):
        return CONTENTS[0]
    return [{"tag": "em", "attributes": {"class": "given"}, "content": [f"some {slot}"]}]


# The kinds of value that a use tells apart, and what a value of each is.
_TELLING: dict[str, type | tuple[type, ...]] = {
    "number": (int, float),
    "array": list,
    "boolean": bool,
    "string": str,
    "text": (str, int, float),
}


def _suggested(name: str, shape: Shape, values: list[Any]) -> list[Any]:
    """The values of a kind that the uses of an undeclared input suggest: all where they suggest none.

    No value at all is suggested only where the code tests for it. The tag of an element is always a name:
    of anything else a runtime makes an error, or an empty place, as it likes.
    """
    # Nothing, given by name: whether that is an input or none is each runtime's own.
    values = [value for value in values if value != {"$": "undefined"}]
    if kind(name, shape) == "tag":
        tags = [value for value in values if isinstance(value, str) and _TAG.fullmatch(value)]
        return tags or _TAGS
    found = [value for value in values if _fits(shape, value) and _parts_fit(shape, value)]
    return found or values


def _fits(shape: Shape, value: Any) -> bool:
    """Whether a value is of a kind that its uses suggest."""
    told = [_TELLING[kind] for kind in sorted(shape.kinds) if kind in _TELLING]
    if shape.declared or not told:
        return True
    plain = isinstance(value, bool) and not any(one is bool for one in told)
    special = isinstance(value, dict) and "$" in value
    fits = any(isinstance(value, one) for one in told) and not plain
    return fits or special or (value is None and shape.tested)


def _parts_fit(shape: Shape, value: Any) -> bool:
    """The same of the rows of a list and the fields of an object."""
    if isinstance(value, list):
        inner = shape.items
        return inner is None or all(_parts_fit(inner, one) for one in value)
    if not isinstance(value, dict) or "$" in value:
        return True
    fields = ((shape.fields[key], part) for key, part in value.items() if key in shape.fields)
    return all(_fits(field, part) and _parts_fit(field, part) for field, part in fields)


def _is_complete(shape: Shape, value: Any) -> bool:
    """Whether every field that is declared, and must be there, is."""
    if isinstance(value, list):
        inner = shape.items
        return inner is None or all(_is_complete(inner, one) for one in value)
    if not isinstance(value, dict) or "$" in value:
        return True
    return all(
        _is_complete(field, value[key]) if key in value else not field.required
        for key, field in shape.fields.items()
    )
