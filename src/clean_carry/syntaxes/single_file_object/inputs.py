"""The options that say what goes in and out, and those that stay as they are."""

from __future__ import annotations

from clean_carry.component.fragment import Fragment, copy, joined, new
from clean_carry.component.members import Model
from clean_carry.component.model import Component, Default, Prop
from clean_carry.component.spans import Span
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file_object.members import MemberWriter


class InputWriter:
    """Writes the inputs and events of one component."""

    def __init__(self, component: Component, source: SourceText, members: MemberWriter) -> None:
        self.component, self.source, self.members = component, source, members
        self.quote = members.speller.quote

    def props(self) -> Fragment | None:
        """The option `props`."""
        models = [part for part in self.component.members if isinstance(part, Model)]
        own = {model.prop for model in models}
        given = [prop for prop in self.component.inputs.props if prop.name not in own]
        span = self.component.foreign.option_values.get("props")
        if span is not None:
            changed = [p for p in given if p.default is not None]
            cut, gap = self._end_of(span)
            more = [new(gap) + self._model(one).shifted(gap.count("\n")) for one in models]
            head = self._with_defaults(span._replace(end=cut), changed)
            tail = copy(span._replace(start=cut))
            return new("props: ") + head + joined(more, "") + tail
        if not given and not models:
            return None
        lines = [self._declared(prop) for prop in given] + [self._model(one) for one in models]
        return self.members.block("props: {", lines)

    def _model(self, model: Model) -> Fragment:
        value = new(model.kind) if model.declared is None else copy(model.declared.span)
        return new(f"{model.prop}: ") + value

    def _with_defaults(self, span: Span, changed: list[Prop]) -> Fragment:
        made, here = Fragment(), span.start
        entries = self.members.entry_spans
        for prop in changed:
            assert prop.default is not None
            own = entries(prop.entry)
            key = prop.name if is_identifier(prop.name) else f"{self.quote}{prop.name}{self.quote}"
            made += copy(span._replace(start=here, end=own.start))
            made += new(f"{key}: {{ type: {prop.kind}, ", prop.entry, "statements-to-object")
            made += self._default(prop.default, prop.kind) + new(" }")
            here = own.end
        return made + copy(span._replace(start=here))

    def _declared(self, prop: Prop) -> Fragment:
        key = prop.name if is_identifier(prop.name) else f"{self.quote}{prop.name}{self.quote}"
        required = ", required: true" if prop.required else ""
        if prop.default is None:
            return new(
                f"{key}: {{ type: {prop.kind}{required} }}" if required else f"{key}: {prop.kind}"
            )
        return (
            new(f"{key}: {{ type: {prop.kind}{required}, ")
            + self._default(prop.default, prop.kind)
            + new(" }")
        )

    def _default(self, default: Default, kind: str) -> Fragment:
        value = self.members.speller.at_top(default.code)
        plain = default.kind == "constant" or default.method == "factory" or "Function" in kind
        wrapped = new("") if plain else new("() => ")
        text = self.source.slice(*default.code.span[:2])
        if not plain and text.startswith("{"):
            wrapped, value = new("() => ("), value + new(")")
        settle = new("", default.entry, "statements-to-object")
        return settle + new("default: ") + wrapped + value

    def _end_of(self, span: Span) -> tuple[int, str]:
        """Where the last part of an object or a list ends, and what stands before one more."""
        text = self.source.slice(*span[:2])
        inner = text[:-1].rstrip().removesuffix(",").rstrip()
        if len(inner) == 1:
            return span.start + 1, ""
        gap = f",\n{self.members.unit}" if "\n" in text else ", "
        return span.start + len(inner.encode()), gap

    def emits(self) -> Fragment | None:
        """The option `emits`."""
        span = self.component.foreign.option_values.get("emits")
        told = [f"update:{one.prop}" for one in self.component.members if isinstance(one, Model)]
        if span is not None:
            cut, gap = self._end_of(span)
            list_ = self.source.slice(*span[:2]).startswith("[")
            more = "".join(
                f"{gap}{self.quote}{name}{self.quote}{'' if list_ else ': null'}" for name in told
            )
            return (
                new("emits: ")
                + copy(span._replace(end=cut))
                + new(more)
                + copy(span._replace(start=cut))
            )
        names = dict.fromkeys(self.component.outward.events)
        if not names:
            return None
        return new(f"emits: [{', '.join(f'{self.quote}{name}{self.quote}' for name in names)}]")

    def exposed(self) -> Fragment | None:
        """The option `expose`."""
        names = self.component.outward.exposed
        if not names:
            return None
        return (
            new("expose: [")
            + joined((new(f"{self.quote}{n}{self.quote}") for n in names), ", ")
            + new("]")
        )
