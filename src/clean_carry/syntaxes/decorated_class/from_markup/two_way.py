"""Values that are bound both ways, as a property and the event that tells another value."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.component.code import Code, Read
from clean_carry.component.fragment import Fragment, new, settled
from clean_carry.component.markup import (
    BoundAttribute,
    Element,
    Expression,
    StaticAttribute,
    Text,
    TwoWay,
)
from clean_carry.component.model import Component
from clean_carry.syntaxes.decorated_class.from_markup.expressions import Expressions
from clean_carry.syntaxes.decorated_class.from_markup.names import camel
from clean_carry.syntaxes.unsaid import Unsaid

# The text of a field while an event of it is heard.
_TEXT = "$any($event.target).value"
_TAKEN = {"trim": "{0}.trim()", "number": "numberIn({0})"}


@dataclass
class TwoWays:
    """Writes what one component binds both ways. `choices` are how the options of the choices around a node
    ask whether they are chosen."""

    component: Component
    expressions: Expressions
    notes: list[tuple[str, str, int]]
    choices: list[str] = field(default_factory=list)
    # Code that a binding writes anew.
    replaced: list[tuple[int, int]] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.speller = self.expressions.speller

    def written(self, bound: TwoWay, node: Element) -> list[Fragment]:
        """The properties and listeners of one binding."""
        if node.component:
            return self._component(bound)
        match (node.tag, bound.kind):
            case ("select", _):
                return self._select(bound)
            case ("input", "checkbox"):
                return self._checkbox(bound, node)
            case ("input", "radio"):
                return self._radio(bound, node)
            case ("input", "?"):
                raise Unsaid(
                    "markup-unread", "v-model of a field whose type is chosen", node.span.start
                )
            case ("input" | "textarea", _):
                return self._text(bound)
        raise Unsaid("markup-unread", f"v-model on <{node.tag}>", node.span.start)

    def place(self, code: Code) -> str:
        """The bound place as the template writes it."""
        with self.speller.in_template():
            text = self.expressions.text_of(self.speller.code(code))
        self.expressions.note(text)
        return text

    def write(self, bound: TwoWay, value: str) -> str:
        """Statements of the template that give the bound place a value."""
        first = bound.code.operations[0] if bound.code.operations else None
        with self.speller.in_template():
            if isinstance(first, Read) and first.span == bound.code.span:
                at = bound.code.span.start
                return self.expressions.text_of(self.speller.write(first.member, at, new(value)))
            if not bound.changes:
                shown = self.speller.source.slice(*bound.code.span[:2])[:40]
                raise Unsaid("alias-not-followed", shown, bound.code.span.start)
        place = self.place(bound.code)
        told = [self._told(name) for name in bound.changes]
        return "; ".join([f"{place} = {value}", *told])

    def _told(self, name: str) -> str:
        """A call of the method that sets a copy of a field, whose value was changed in place."""
        own = self.speller.tell(name)
        self.expressions.used.add(own)
        return f"{own}()"

    def _value(self, bound: TwoWay) -> Fragment:
        with self.speller.in_template():
            made = self.speller.code(bound.code)
        self.expressions.note(self.expressions.text_of(made))
        return made

    def _settled(self, bound: TwoWay) -> Fragment:
        result = settled(bound.entry, "two-way")
        self.replaced.append((bound.code.span.start, bound.code.span.end))
        for one in bound.code.all():
            result += settled(one.entry, "two-way")
        return result

    def _text(self, bound: TwoWay) -> list[Fragment]:
        kinds = [one for one in bound.modifiers if one in _TAKEN]
        if bound.kind == "number" and "number" not in kinds:
            kinds.append("number")
        event = "change" if "lazy" in bound.modifiers else "input"
        taken = _TEXT
        for one in kinds:
            taken = self._taken(one, taken)
        if not kinds:
            value = new('[value]="', bound.entry, "two-way") + self._value(bound) + new(" ?? ''\"")
            return [value, new(f'({event})="{self.write(bound, taken)}"')]
        name = self.speller.names.choose("field")
        shown = self.speller.ask("typed")
        self.expressions.used.add(shown)
        inner = f"{name}.value"
        for one in kinds:
            inner = self._taken(one, inner)
        place = self.place(bound.code)
        head = new(f'[value]="{shown}({name}.value, {inner}, {place})"') + self._settled(bound)
        found = [new(f"#{name}"), head, new(f'({event})="{self.write(bound, taken)}"')]
        if event == "input":
            found.append(new(f'(change)="{name}.value = {inner}"'))
        return found

    def _taken(self, kind: str, text: str) -> str:
        if kind == "trim":
            return f"{text}.trim()"
        helper = self.speller.ask("numberIn")
        self.expressions.used.add(helper)
        return f"{helper}({text})"

    def _select(self, bound: TwoWay) -> list[Fragment]:
        if bound.kind == "multiple":
            helper = self.speller.ask("chosenIn")
            self.expressions.used.add(helper)
            self.choices.append(f"{self.place(bound.code)}.includes({{0}})")
            taken = f"{helper}($any($event.target))"
        else:
            self.choices.append(f"{self.place(bound.code)} === {{0}}")
            taken = self._taken("number", _TEXT) if "number" in bound.modifiers else _TEXT
            shown = self.speller.source.slice(*bound.code.span[:2])[:40]
            self.notes.append(("select-by-text", shown, bound.code.span.start))
        return [self._settled(bound), new(f'(change)="{self.write(bound, taken)}"')]

    def option(self, node: Element) -> Fragment:
        """Whether an option of a bound choice is the chosen one."""
        if not self.choices:
            return Fragment()
        value = self._value_of(node)
        if value is None:
            raise Unsaid("markup-unread", "an option without a value", node.span.start)
        return new(f'[selected]="{self.choices[-1].format(value)}"')

    def _value_of(self, node: Element) -> str | None:
        for one in node.attributes:
            if isinstance(one, StaticAttribute) and one.name == "value":
                text = self.speller.source.slice(*one.value[:2]) if one.value is not None else ""
                return f"'{text}'" if "'" not in text else None
            if isinstance(one, BoundAttribute) and one.name == "value":
                return self.place(one.code)
        return self._shown_in(node)

    def _shown_in(self, node: Element) -> str | None:
        """The text an option shows, which is its value."""
        real = [
            one
            for one in node.children
            if not isinstance(one, Text) or self.speller.source.slice(*one.span[:2]).strip()
        ]
        if len(real) != 1:
            return "''" if not real else None
        if isinstance(real[0], Expression):
            return self.place(real[0].code)
        if isinstance(real[0], Text):
            text = " ".join(self.speller.source.slice(*real[0].span[:2]).split())
            return f"'{text}'" if not re.search(r"['&]", text) else None
        return None

    def _checkbox(self, bound: TwoWay, node: Element) -> list[Fragment]:
        own = [one for one in node.attributes if isinstance(one, StaticAttribute | BoundAttribute)]
        if any(one.name in ("true-value", "false-value") for one in own):
            raise Unsaid("markup-unread", "true-value", node.span.start)
        first = bound.code.operations[0] if bound.code.operations else None
        name = first.member.name if isinstance(first, Read) else ""
        ticked = "$any($event.target).checked"
        if self.speller.containers.get(name) == "list" and not bound.changes:
            value = self._value_of(node)
            if value is None or value == "''":
                raise Unsaid(
                    "markup-unread", "a list of checkboxes without values", node.span.start
                )
            place = self.place(bound.code)
            helper = self.speller.ask("ticked")
            self.expressions.used.add(helper)
            head = new(f'[checked]="{place}.includes({value})"') + self._settled(bound)
            taken = f"{helper}({place}, {value}, {ticked})"
            return [head, new(f'(change)="{self.write(bound, taken)}"')]
        head = new('[checked]="', bound.entry, "two-way") + self._value(bound) + new('"')
        return [head, new(f'(change)="{self.write(bound, ticked)}"')]

    def _radio(self, bound: TwoWay, node: Element) -> list[Fragment]:
        value = self._value_of(node)
        if value is None or value == "''":
            raise Unsaid("markup-unread", "a radio button without a value", node.span.start)
        head = new(f'[checked]="{self.place(bound.code)} === {value}"') + self._settled(bound)
        return [head, new(f'(change)="{self.write(bound, value)}"')]

    def _component(self, bound: TwoWay) -> list[Fragment]:
        name = camel(bound.name or "modelValue")
        head = new(f'[{name}]="', bound.entry, "two-way") + self._value(bound) + new('"')
        return [head, new(f'({name}Change)="{self.write(bound, "$event")}"')]
