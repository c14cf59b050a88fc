"""Events and fields of a stateful view: actions of its class, and state that fields hold."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from itertools import count

from clean_carry.component.code import Assign, Code, MethodCall, MethodValue, Read
from clean_carry.component.fragment import settled
from clean_carry.component.markup import Attribute, Element, Handler, Key, TwoWay
from clean_carry.source.expressions.types import Type, either
from clean_carry.syntaxes.server_view.attributes import Attributes, Parts
from clean_carry.syntaxes.server_view.expressions import RULE
from clean_carry.syntaxes.server_view.names import action, variable
from clean_carry.syntaxes.unsaid import Unsaid

# Events that the library hears, and modifiers that mean the same there.
_EVENTS = frozenset({"click", "submit", "change"})
_MODIFIERS = frozenset({"prevent"})


@dataclass
class StatefulAttributes(Attributes):
    """The attributes of a stateful view. `given` are the types of what actions are called with.
    `inline` are the statements of listeners that become actions, by their new names, and `taken` the
    names that others have."""

    given: dict[str, list[Type]] = field(default_factory=dict)
    inline: dict[str, Code] = field(default_factory=dict)
    taken: frozenset[str] = frozenset()

    def one(self, one: Attribute, node: Element, parts: Parts) -> None:
        """Add an attribute to the parts of its element."""
        match one:
            case Handler():
                self.settled += settled(one.entry, RULE)
                self._handler(one, parts)
            case TwoWay():
                self.settled += settled(one.entry, RULE)
                self._two_way(one, node, parts)
            case Key():
                self.settled += settled(one.entry, RULE)
                text = self.expressions.said(one.code, "shown")
                parts.texts.append(f'wire:key="{{{{ {text} }}}}"')
            case _:
                super().one(one, node, parts)

    def _handler(self, one: Handler, parts: Parts) -> None:
        at = one.code.span.start
        if one.event not in _EVENTS or not set(one.modifiers) <= _MODIFIERS:
            raise Unsaid("runs-in-browser", f"the listener of {one.event}", at)
        event = ".".join(["submit" if one.event == "submit" else one.event, *one.modifiers])
        # A form is never sent by itself there.
        event = event.replace("submit.prevent", "submit")
        parts.texts.append(f'wire:{event}="{self._action(one.code)}"')

    def _action(self, code: Code) -> str:
        at = code.span.start
        self.expressions.passed_over(code)
        first = code.operations[0] if code.operations else None
        text = self.source.slice(*code.span[:2]).strip()
        if isinstance(first, MethodValue) and len(code.operations) == 1:
            return action(first.member.name)
        if isinstance(first, MethodCall):
            return self._call(first, code, text)
        alone = not re.search(r"[;\n]", text)
        if (
            alone
            and isinstance(first, Assign)
            and first.value is not None
            and first.operator == "="
        ):
            name = variable(first.member.name)
            value = self.source.slice(*first.value.span[:2]).strip()
            if value == f"!{self.source.slice(*first.target[:2]).strip()}":
                return f"$toggle('{name}')"
            if not any(True for _ in first.value.all()):
                return f"$set('{name}', {self._value(first.value)})"
        if isinstance(first, Assign):
            return self._inline(first, code, text)
        raise Unsaid("not-said-in-view", f"the statement {text[:40]}", at)

    def _inline(self, first: Assign, code: Code, text: str) -> str:
        """The name of an action for the statements of a listener: what they do to the first field."""
        for name, other in self.inline.items():
            if self.source.slice(*other.span[:2]).strip() == text:
                return name
        field_ = variable(first.member.name)
        verb = {"++": "increase", "--": "decrease"}.get(first.operator, "change")
        if re.search(r"[;\n]", text):
            verb = "change"
        wanted = f"{verb}{field_[:1].upper()}{field_[1:]}"
        numbered = (wanted if at == 1 else f"{wanted}{at}" for at in count(1))
        name = next(one for one in numbered if one not in self.taken and one not in self.inline)
        self.inline[name] = code
        return name

    def _call(self, one: MethodCall, code: Code, text: str) -> str:
        name, inner = action(one.member.name), text.partition("(")[2]
        if not text.endswith(")") or text.count("(") != text.count(")"):
            raise Unsaid("not-said-in-view", f"the statement {text[:40]}", code.span.start)
        if inner == ")":
            return name
        start = one.span.end
        while self.source.data[start : start + 1] != b"(":
            start += 1
        listed = code.span._replace(start=start + 1, end=code.span.end - 1)
        if "," in self.source.slice(*listed[:2]):
            raise Unsaid("not-said-in-view", "an action with several values", code.span.start)
        operations = tuple(each for each in code.operations if each.span.start > start)
        value = Code(listed, operations)
        type_ = self.expressions.read(value).type
        known = self.given.setdefault(one.member.name, [])
        self.given[one.member.name] = [either(known[0], type_) if known else type_]
        return f"{name}({self._value(value)})"

    def _value(self, code: Code) -> str:
        """A value in a statement of the library, which is one of JavaScript."""
        expr = self.expressions.read(code)
        text = self.source.slice(*code.span[:2]).strip()
        if not code.operations and (
            text.lstrip("-").isdigit() or text in ("true", "false", "null", "''")
        ):
            return text
        # An echo would escape for HTML only: any text would become code of the page.
        return f"@js({self.expressions.said_of(expr, 'value', code.span.start)})"

    def _two_way(self, one: TwoWay, node: Element, parts: Parts) -> None:
        first = one.code.operations[0] if one.code.operations else None
        at = one.code.span.start
        self.expressions.passed_over(one.code)
        if (
            not isinstance(first, Read)
            or first.span != one.code.span
            or first.member.kind != "state"
        ):
            raise Unsaid("not-said-in-view", "a field bound to a part of a value", at)
        if not set(one.modifiers) <= {"lazy"}:
            raise Unsaid("runs-in-browser", f"the modifier {one.modifiers[0]} of a field", at)
        self.expressions.used[first.member] = None
        wait = "blur" if "lazy" in one.modifiers else "live"
        parts.texts.append(f'wire:model.{wait}="{variable(first.member.name)}"')
