"""The inputs of a component and what is known of each: declared, defaulted or only used."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from clean_carry.source.javascript.tree import Node
from clean_carry.verify.search.values.shape import Shape, kind_of, literal_of


@dataclass
class Inputs:
    """The props, slots, events, replies and exports of a component, as far as its code shows.

    `passes_on` says that inputs it does not name may reach an element of its own, `childless` that such
    an element takes no content; `uses` how many
    contents the project itself gives the component; `methods` are those it gives out by a
    reference, with what they are called with, `handed` the handlers it hands to children, likewise;
    `closed` says that no others can be reached;
    `held` are the keys the code asks whether they are held meanwhile, `signals` the steps that send it
    what it hears by objects of other modules, `contents` what it is made for holding, neutrally.
    """

    shapes: dict[str, Shape] = field(default_factory=dict)
    slots: list[str] = field(default_factory=list)
    events: list[str] = field(default_factory=list)
    reply: Shape | None = None
    exports: list[str] = field(default_factory=list)
    passes_on: bool = False
    childless: bool = False
    uses: int = 0
    methods: dict[str, list[Any]] = field(default_factory=dict)
    handed: dict[str, list[Any]] = field(default_factory=dict)
    closed: bool = False
    held: tuple[str, ...] = ()
    signals: list[dict[str, Any]] = field(default_factory=list)
    contents: list[list[Any]] = field(default_factory=list)

    def join(self, other: Inputs, names: dict[str, str], *, across: bool = False) -> Inputs:
        """These and those of the other side; `names` maps the other side's names to ours. `across` two
        runtimes the other side's uses say nothing of an input whose uses on this side do."""
        shapes = dict(self.shapes)
        for name, shape in other.shapes.items():
            own = names.get(name, name)
            if across and own in shapes and shapes[own].kinds:
                continue
            shapes[own] = merged(shapes[own], shape) if own in shapes else shape
        return Inputs(
            # An input that only the other side has is content of this one; both may have both.
            {n: shape for n, shape in shapes.items() if n not in self.slots or n in self.shapes},
            self.slots,
            self.events,
            self.reply or other.reply,
            self.exports,
            self.passes_on or other.passes_on,
            self.childless,
            methods=self._reached(other),
            handed={name: given for name, given in self.handed.items() if name in other.handed},
            closed=self.closed or other.closed,
            held=self.held or other.held,
            signals=self.signals or other.signals,
            contents=self.contents or other.contents,
        )

    def _reached(self, other: Inputs) -> dict[str, list[Any]]:
        """Return the methods that both sides offer: those of the side that lists them, otherwise of
        either."""
        both = {**other.methods, **self.methods}
        listing = [one.methods for one in (self, other) if one.closed]
        return {name: both[name] for name in both if all(name in names for names in listing)}


def merged(one: Shape, other: Shape) -> Shape:
    """Merge the shapes of one prop from both sides; the declared one wins."""
    if other.declared and not one.declared:
        one, other = other, one
    kinds = set(one.kinds) if one.declared else one.kinds | other.kinds
    if one.declared and kinds == {"object"} and "array" in other.kinds:
        # A list, whatever is declared: the code reads members that only lists have.
        kinds = {"array"}
    if "reference" in one.kinds | other.kinds:
        # A value that ends as an element's reference is a function or an object, whatever is declared.
        kinds = {"reference", "function"}
    result = Shape(
        kinds,
        list(one.literals),
        {**other.fields, **one.fields},
        _items(one, other),
        one.result or other.result,
        one.tested or other.tested,
        one.declared,
        one.required,
        one.default or other.default,
        list(dict.fromkeys([*one.hints, *other.hints])),
        passed=one.passed,
        holds=[*one.holds, *(value for value in other.holds if value not in one.holds)],
        sometimes=one.sometimes or other.sometimes,
        keyed=one.keyed or other.keyed,
        listed=one.listed,
        alike=one.alike or other.alike,
        least=max(one.least, other.least),
        nullable=one.nullable or other.nullable,
    )
    for literal in other.literals:
        result.note(literal)
    return result


def _items(one: Shape, other: Shape) -> Shape | None:
    """Merge the shapes of a list's items; declared items without any information count as none."""
    if one.items is None or not (one.items.kinds or one.items.fields or one.items.literals):
        return other.items or one.items
    for name, part in one.items.fields.items():
        used = other.items.fields.get(name) if other.items is not None else None
        for literal in used.literals if used is not None and not part.literals else ():
            if kind_of(literal) in part.kinds:
                part.used.append(literal)
    return one.items


def note_default(shape: Shape, value: Node) -> None:
    """Note the default of an input: its value where it is a literal, else what kind it is."""
    known, literal = literal_of(value)
    shape.default = (literal,)
    if known:
        if literal is not None and not shape.declared:
            shape.kinds.add(kind_of(literal))
    elif value.is_function and not shape.declared:
        shape.kinds.add("function")
    elif value.type in ("object", "array") and not shape.declared:
        shape.kinds.add(value.type)
