"""Values that are bound both ways, as a value and what is called with another one."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import Assign, Read
from clean_carry.component.fragment import Fragment, new, settled
from clean_carry.component.markup import (
    BoundAttribute,
    Element,
    Reference,
    StaticAttribute,
    Text,
    TwoWay,
)
from clean_carry.component.members import Model
from clean_carry.component.spans import Span
from clean_carry.syntaxes.jsx_function.from_markup.events import pascal
from clean_carry.syntaxes.jsx_function.from_markup.spelling import Speller
from clean_carry.syntaxes.unsaid import Unsaid

# How a field's text is taken, and what it becomes.
_TAKEN = {"trim": "{text}.trim()", "number": "numberIn({text})"}


@dataclass
class TwoWays:
    """Writes what one component binds both ways. `typed` are fields whose text is kept as it is typed:
    (name of the text, of its writer, the value, how the text is taken)."""

    speller: Speller
    notes: list[tuple[str, str, int]]

    def __post_init__(self) -> None:
        self.typed: list[tuple[str, str, str, str]] = []
        # Code that a binding writes anew.
        self.replaced: list[Span] = []

    def written(self, bound: TwoWay, node: Element) -> list[Fragment]:
        """The properties of one binding."""
        if node.component:
            return self._component(bound)
        match (node.tag, bound.kind):
            case ("select", "multiple"):
                return self._field(
                    bound, "Array.from(event.target.selectedOptions, (one) => one.value)"
                )
            case ("select", _):
                return self._select(bound, node)
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

    def may_stay(self, bound: TwoWay) -> bool:
        """Whether the bound value may stay as it was, because a parent has it: a field keeps what is typed
        then."""
        first = bound.code.operations[0] if bound.code.operations else None
        if not isinstance(first, Read) or first.span != bound.code.span:
            return False
        models = {m.name for m in self.speller.times.component.members if isinstance(m, Model)}
        return first.member.kind == "derived" or first.member.name in models

    def at_end(self, bound: TwoWay) -> tuple[Fragment, Fragment]:
        """Return the call that reads a field's text when editing ends, and the value it shows."""
        taken = "event.target.value"
        for one in bound.modifiers:
            if one in _TAKEN:
                taken = _TAKEN[one].format(text=taken)
                if one == "number":
                    self.speller.helper("numberIn")
        return self.set(bound, taken), settled(bound.entry, "two-way") + self._value(bound)

    def _value(self, bound: TwoWay) -> Fragment:
        return self.speller.code(bound.code)

    def set(self, bound: TwoWay, value: str) -> Fragment:
        """A call that gives the bound place a value."""
        code = bound.code
        first = code.operations[0] if code.operations else None
        whole = isinstance(first, Read) and first.span == code.span
        if whole and isinstance(first, Read):
            if first.member.kind == "state":
                return new(f"{self.speller.names.setter(first.member.name)}({value})")
            if first.member.kind == "derived":
                return new(f"{self.speller.names.setter(first.member.name)}({value})")
            raise Unsaid("input-written", first.member.name, code.span.start)
        if not bound.changes:
            raise Unsaid("alias-not-followed", self._shown(bound), code.span.start)
        with self.speller.mode(drawing=False):
            text = self._again(bound)
        told = "; ".join(self.speller.changed(name) for name in bound.changes)
        return new(f"{{ {text} = {value}; {told}; }}")

    def _again(self, bound: TwoWay) -> str:
        """The place as it is written once more."""
        code, source = bound.code, self.speller.source
        result, here = "", code.span.start
        for one in code.operations:
            result += source.slice(here, one.span.start)
            result += self.speller.value(one.member)  # type: ignore[attr-defined]
            here = one.span.end
        return result + source.slice(here, code.span.end)

    def _shown(self, bound: TwoWay) -> str:
        return self.speller.source.slice(bound.code.span.start, bound.code.span.end)[:40]

    def _field(self, bound: TwoWay, taken: str) -> list[Fragment]:
        value = new("value={", bound.entry, "two-way") + self._value(bound) + new("}")
        return [value, new("onChange={(event) => ") + self.set(bound, taken) + new("}")]

    def _text(self, bound: TwoWay) -> list[Fragment]:
        taken = "event.target.value"
        kinds = [one for one in bound.modifiers if one in _TAKEN]
        if bound.kind in ("number", "range") and "number" not in kinds and bound.kind == "number":
            kinds.append("number")
        if not kinds:
            return self._field(bound, taken)
        text = "text"
        for one in kinds:
            text = _TAKEN[one].format(text=text)
            if one == "number":
                self.speller.helper("numberIn")
        self.speller.helper("useTyped")
        shown = self._again(bound)
        plain = "".join(part for part in shown.title() if part.isalnum())
        name = self.speller.names.choose(f"typed{plain}", f"text{plain}")
        write = self.speller.names.choose(f"type{plain}", f"write{plain}")
        # A nought before other digits does not stand for the number, as the template's runtime has it.
        taken_as = f"(/^0\\d/.test(text) ? text : {text})" if "number" in kinds else text
        self.typed.append((name, write, shown, f"(text) => {taken_as}"))
        own = self.set(bound, _taken_of(text, taken))
        inner = own if own.pieces[0].text.startswith("{ ") else new("{ ") + own + new("; }")
        body = Fragment(
            [
                inner.pieces[0]._replace(text=f"{{ {write}({taken}); " + inner.pieces[0].text[2:]),
                *inner.pieces[1:],
            ]
        )
        value = new(f"value={{{name}}}", bound.entry, "two-way") + self._settled(bound)
        return [
            value,
            new("onChange={(event) => ") + body + new("}"),
            new(f"onBlur={{(event) => {write}({_taken_of(text, taken)})}}"),
        ]

    def _settled(self, bound: TwoWay) -> Fragment:
        result = settled(-1, "")
        self.replaced.append(bound.code.span)
        for one in bound.code.all():
            result += settled(one.entry, "two-way")
        return result

    def _select(self, bound: TwoWay, node: Element) -> list[Fragment]:
        if "number" in bound.modifiers:
            self.speller.helper("numberIn")
            return self._field(bound, "numberIn(event.target.value)")
        self.notes.append(("select-by-text", self._shown(bound), bound.code.span.start))
        made = self._field(bound, "event.target.value")
        has_ref = any(isinstance(one, Reference) for one in node.attributes)
        if not has_ref and not self._is_an_option(bound, node):
            show = self.speller.helper("showChoice")
            made.append(new(f"ref={{(field) => {show}(field, {self._again(bound)})}}"))
        return made

    def _is_an_option(self, bound: TwoWay, node: Element) -> bool:
        """Whether the value is one of the options all the time: it begins as one, and only the field sets
        it."""
        first = bound.code.operations[0] if bound.code.operations else None
        if not isinstance(first, Read) or first.member.kind != "state":
            return False
        component, source = self.speller.times.component, self.speller.source
        fields = component.state.fields if component.state is not None else ()
        code = next((one.code for one in fields or () if one.name == first.member.name), None)
        begins = source.slice(*code.span[:2]) if code is not None else ""
        written = any(
            isinstance(one, Assign) and one.member == first.member
            for _, one in component.operations()
        )
        values = set()
        for option in node.children:
            given = [one for one in getattr(option, "attributes", ()) if _is_value(one)]
            if isinstance(option, Element):
                if not given:
                    return False
                values.add(source.slice(*given[0].value[:2]))
            elif not isinstance(option, Text):
                return False
        return not written and begins[:1] in ("'", '"') and begins[1:-1] in values

    def _checkbox(self, bound: TwoWay, node: Element) -> list[Fragment]:
        own = [one for one in node.attributes if isinstance(one, StaticAttribute | BoundAttribute)]
        if any(one.name in ("true-value", "false-value") for one in own):
            raise Unsaid("markup-unread", "true-value", node.span.start)
        first = bound.code.operations[0] if bound.code.operations else None
        name = first.member.name if isinstance(first, Read) else ""
        if self.speller.containers.get(name) == "list" and not bound.changes:
            given = next((one for one in own if one.name == "value"), None)
            if given is None:
                raise Unsaid(
                    "markup-unread", "a list of checkboxes without values", node.span.start
                )
            value = self._given(given)
            shown = self._again(bound)
            with self.speller.mode(drawing=False):
                now = self._again(bound)
            taken = f"event.target.checked ? [...{now}, {value}] : {now}.filter((one) => one !== {value})"
            head = new(
                f"checked={{{shown}.includes({value})}}", bound.entry, "two-way"
            ) + self._settled(bound)
            return [head, new("onChange={(event) => ") + self.set(bound, taken) + new("}")]
        head = new("checked={", bound.entry, "two-way") + self._value(bound) + new("}")
        return [
            head,
            new("onChange={(event) => ") + self.set(bound, "event.target.checked") + new("}"),
        ]

    def _given(self, attribute: StaticAttribute | BoundAttribute) -> str:
        source = self.speller.source
        if isinstance(attribute, StaticAttribute):
            return f"'{source.slice(*attribute.value[:2])}'" if attribute.value else "''"
        return self._text_of(attribute)

    def _text_of(self, attribute: BoundAttribute) -> str:
        code, source = attribute.code, self.speller.source
        result, here = "", code.span.start
        for one in code.operations:
            result += source.slice(here, one.span.start)
            result += self.speller.value(one.member)  # type: ignore[attr-defined]
            here = one.span.end
        return result + source.slice(here, code.span.end)

    def _radio(self, bound: TwoWay, node: Element) -> list[Fragment]:
        own = [one for one in node.attributes if isinstance(one, StaticAttribute | BoundAttribute)]
        given = next((one for one in own if one.name == "value"), None)
        if given is None:
            raise Unsaid("markup-unread", "a radio button without a value", node.span.start)
        value = self._given(given)
        head = (
            new("checked={", bound.entry, "two-way") + self._value(bound) + new(f" === {value}}}")
        )
        return [head, new("onChange={() => ") + self.set(bound, value) + new("}")]

    def _component(self, bound: TwoWay) -> list[Fragment]:
        name = bound.name or "modelValue"
        head = new(f"{name}={{", bound.entry, "two-way") + self._value(bound) + new("}")
        event = f"onUpdate{pascal(name)}"
        return [head, new(f"{event}={{(value) => ") + self.set(bound, "value") + new("}")]


def value_of(value: Fragment) -> Fragment:
    """Return the expression of `value={…}`."""
    first, *inner, last = value.pieces
    text = first.text.partition("{")[2]
    return Fragment([first._replace(text=text), *inner, last._replace(text=last.text[:-1])])


def is_typed_in(bound: TwoWay, node: Element) -> bool:
    """Whether a field shows what is done in it before anybody gives its value back."""
    return node.tag in ("select", "input", "textarea") and not (
        bound.kind == "radio" or any(one in _TAKEN for one in bound.modifiers)
    )


def _taken_of(text: str, taken: str) -> str:
    """How a text is taken, of a field's own."""
    if text.startswith("text"):
        return text.replace("text", taken, 1)
    return text.replace("(text", f"({taken}")


def _is_value(attribute: object) -> bool:
    return (
        isinstance(attribute, StaticAttribute)
        and attribute.name == "value"
        and attribute.value is not None
    )
