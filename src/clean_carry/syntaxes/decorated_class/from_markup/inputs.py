"""Inputs, outputs and models of a class, as functions of the runtime make them."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import Emit, Member, Read
from clean_carry.component.fragment import Fragment, new, settled
from clean_carry.component.members import Injected, Model
from clean_carry.component.model import Component, Prop
from clean_carry.syntaxes.decorated_class.from_markup.text import ClassText
from clean_carry.syntaxes.prop_types import type_of
from clean_carry.syntaxes.unsaid import Unsaid

# Types that a default tells by itself.
_TOLD = frozenset({"string", "number", "boolean"})


def events_of(component: Component) -> list[str]:
    """The events a component declares or sends, but for those that tell a model's value."""
    models = {f"update:{one.prop}" for one in component.members if isinstance(one, Model)}
    found = dict.fromkeys(component.outward.events)
    found.update(
        dict.fromkeys(one.event for _, one in component.operations() if isinstance(one, Emit))
    )
    return [event for event in found if event and event not in models]


@dataclass
class InputWriter(ClassText):
    """Writes what goes in and out of one component; raises `Unsaid`."""

    def lines(self) -> list[Fragment]:
        """A line for each input, model and output."""
        models = {one.prop for one in self.component.members if isinstance(one, Model)}
        found = [self._input(one, model=one.name in models) for one in self.component.inputs.props]
        for part in self.component.members:
            if isinstance(part, Injected):
                found.append(self._injected(part))
        return found + [self._output(event) for event in events_of(self.component)]

    def _input(self, prop: Prop, *, model: bool) -> Fragment:
        name = self.speller.names.of(Member("prop", prop.name))
        made = self.speller.of_core("model" if model else "input")
        type_, alias = type_of(prop), ""
        if name != prop.name:
            alias = f"{{ alias: {self.speller.quote}{prop.name}{self.speller.quote} }}"
        settle = settled(prop.entry, "input-to-signal") if prop.entry >= 0 else Fragment()
        head = settle + new(f"readonly {name} = {made}")
        if prop.required:
            return head + new(f".required<{type_}>({alias}){self.end}")
        default = self._default(prop)
        comma = ", " if alias else ""
        if default is not None:
            told = prop.default is None or prop.default.kind == "constant"
            types = "" if told and type_ in _TOLD else f"<{type_}>"
            return head + new(f"{types}(") + default + new(f"{comma}{alias}){self.end}")
        nothing = "undefined, " if alias else ""
        return head + new(f"<{type_}>({nothing}{alias}){self.end}")

    def _default(self, prop: Prop) -> Fragment | None:
        default = prop.default
        if default is None:
            return new("false") if prop.kind == "Boolean" else None
        at = default.code.span.start
        reads = any(isinstance(one, Read) for one in default.code.operations)
        several = "Boolean" in prop.kind and prop.kind != "Boolean"
        if reads or several or default.method or default.kind == "other":
            raise Unsaid("input-declaration", prop.name, at)
        settle = settled(default.entry, "input-to-signal") if default.entry >= 0 else Fragment()
        return settle + self.level(default.code, 1)

    def _injected(self, part: Injected) -> Fragment:
        name = self.speller.names.of(Member("injected", part.name))
        settle = settled(part.entry, "injected-to-input")
        made = self.speller.of_core("input")
        if part.fallback is None:
            return settle + new(f"readonly {name} = {made}<any>(){self.end}")
        if part.made:
            raise Unsaid("context-not-in-target", part.key, part.fallback.span.start)
        value = self.level(part.fallback, 1)
        return settle + new(f"readonly {name} = {made}<any>(") + value + new(f"){self.end}")

    def _output(self, event: str) -> Fragment:
        name = self.speller.names.output(event)
        sent = [
            one
            for _, one in self.component.operations()
            if isinstance(one, Emit) and one.event == event
        ]
        told = any(one.arguments for one in sent) or not sent
        types = "<any>" if told else "<void>"
        return new(f"readonly {name} = {self.speller.of_core('output')}{types}(){self.end}")
