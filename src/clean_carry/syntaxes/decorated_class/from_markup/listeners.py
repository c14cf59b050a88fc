"""Listeners of a template as listeners of the other one."""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.component.code import Code, MethodCall, MethodValue
from clean_carry.component.fragment import Fragment, new
from clean_carry.component.markup import BoundAttribute, Element, Handler
from clean_carry.component.members import Method
from clean_carry.component.model import Component
from clean_carry.syntaxes.decorated_class.from_markup.expressions import Expressions
from clean_carry.syntaxes.decorated_class.from_markup.names import camel, output_of
from clean_carry.syntaxes.unsaid import Unsaid

# The template compiler's names of keys, as the page names them (UI Events, "Named key values").
_KEYS = {
    "enter": "Enter", "esc": "Escape", "escape": "Escape", "tab": "Tab", "space": " ", "up": "ArrowUp",
    "down": "ArrowDown", "left": "ArrowLeft", "right": "ArrowRight", "backspace": "Backspace",
    "home": "Home", "end": "End", "page-up": "PageUp", "page-down": "PageDown",
}  # fmt: skip
_HELD = ("ctrl", "shift", "alt", "meta")
_MOUSE = {"left": 0, "middle": 1, "right": 2}
_CALLED = {"prevent": "$event.preventDefault()", "stop": "$event.stopPropagation()"}
# A function of one name at most.
_ARROW = re.compile(r"\s*(?:\(\s*([\w$]*)(?:\s*:[^)]*)?\s*\)|([\w$]+))\s*=>\s*")
_RETURNS = re.compile(r"\breturn\s+[^;\s}]")


@dataclass
class Listeners:
    """Writes the listeners of one component's elements."""

    component: Component
    expressions: Expressions

    def written(self, handler: Handler, node: Element) -> Fragment:
        """One listener."""
        event = handler.event
        self._put_back(handler, node)
        if node.component:
            if "native" not in handler.modifiers:
                event = output_of(event)
        head = new(f'({event})="', handler.entry, "listener")
        calls, asked = [], []
        for one in handler.modifiers:
            if one in _CALLED:
                calls.append(_CALLED[one])
            elif one != "native":
                asked.append(self._asked(one, handler, node))
        several = ";" in self.expressions.text_of(self.expressions.speller.code(handler.code))
        if asked and (calls or several or handler.states):
            return head + self._method(handler, calls, asked) + new('"')
        code = self._code(handler)
        text = "; ".join(calls)
        if not asked:
            gap = "; " if calls and code.pieces else ""
            return head + new(text + gap) + code + new('"')
        test = " && ".join(asked)
        return head + new(f"{test} ? ") + code + new(' : null"')

    def _put_back(self, handler: Handler, node: Element) -> None:
        """Say what a forced update does in the listener of a field whose value is bound."""
        speller = self.expressions.speller
        speller.put_back.clear()
        bound = [one for one in node.attributes if isinstance(one, BoundAttribute)]
        bound = [one for one in bound if one.name in ("value", "checked")]
        text = speller.source.slice(*handler.code.span[:2])
        arrow = _ARROW.match(text)
        if len(bound) != 1 or node.component:
            return
        event = (arrow[1] or arrow[2]) if handler.function and arrow is not None else "$event"
        value = self.expressions.text_of(speller.code(bound[0].code))
        if event:
            times = text.count("$forceUpdate")
            speller.put_back += [f"{event}.target.{bound[0].name} = {value}"] * times

    def _method(self, handler: Handler, calls: list[str], asked: list[str]) -> Fragment:
        """A method that asks first and then does several things."""
        code, speller = handler.code, self.expressions.speller
        event = camel(handler.event)
        inner = speller.code(code)
        if handler.function and code.span.end > code.span.start:
            first = code.operations[0] if len(code.operations) == 1 else None
            if not isinstance(first, MethodValue | MethodCall) or first.span != code.span:
                raise Unsaid("markup-unread", f"@{handler.event} with a function", code.span.start)
            method = self._method_of(first.member.name)
            inner += new("($event)" if method is None or self._takes(method) else "()")
        line, end = f"\n{speller.unit}", speller.end
        test = " && ".join(asked)
        test = test[1:] if test.startswith("!") and len(asked) == 1 else f"!({test})"
        head = f"if ({test}) return{end}{line}" + "".join(f"{one}{end}{line}" for one in calls)
        wish = f"on{event[:1].upper()}{event[1:]}"
        return self.expressions.method(code, wish, new(head) + inner, event=True)

    def _asked(self, one: str, handler: Handler, node: Element) -> str:
        keys = handler.event.startswith("key")
        if one == "self":
            return "$event.target === $event.currentTarget"
        if one in _HELD and not (one in _KEYS and keys):
            return f"$event.{one}Key"
        if one in _KEYS and keys:
            return f"$event.key === '{_KEYS[one]}'"
        if one == "delete" and keys:
            return "($event.key === 'Delete' || $event.key === 'Backspace')"
        if one in _MOUSE and not keys:
            return f"$event.button === {_MOUSE[one]}"
        if one == "exact":
            others = [key for key in _HELD if key not in handler.modifiers]
            return " && ".join(f"!$event.{key}Key" for key in others)
        raise Unsaid("markup-unread", f"@{handler.event}.{one}", node.span.start)

    def _code(self, handler: Handler) -> Fragment:
        """The code of a listener, which gives nothing that the runtime would take for an answer."""
        code = handler.code
        if code.span.start == code.span.end:
            return Fragment()
        wish = f"on{camel(handler.event)[:1].upper()}{camel(handler.event)[1:]}"
        if not handler.function:
            made = self.expressions.statement(code, wish, states=handler.states)
            return self._silent(made, code.operations)
        return self._function(handler, wish)

    def _function(self, handler: Handler, wish: str) -> Fragment:
        code = handler.code
        first = code.operations[0] if len(code.operations) == 1 else None
        if isinstance(first, MethodValue | MethodCall) and first.span == code.span:
            method = self._method_of(first.member.name)
            made = self.expressions.statement(code, wish, states=False)
            given = "$event" if method is None or self._takes(method) else ""
            return self._silent(made + new(f"({given})"), code.operations)
        text = self.expressions.speller.source.slice(*code.span[:2])
        arrow = _ARROW.match(text)
        if arrow is None:
            # A function written in place: a member of the class is called with the event.
            made = self.expressions.value(code, wish)
            return made + new("($event)")
        start = code.span.start + len(text[: arrow.end()].encode())
        span, given = code.span._replace(start=start), arrow[1] or arrow[2]
        block = text[arrow.end() :].startswith("{")
        if block:
            span = span._replace(start=start + 1, end=span.end - 1)
        inner = Code(span, tuple(op for op in code.operations if op.span.start >= span.start))
        if not given and not block:
            made = self.expressions.statement(inner, wish, states=False)
            return self._silent(made, code.operations)
        return self.expressions.handler(inner, wish, given, block=block)

    def _silent(self, made: Fragment, operations: tuple[object, ...]) -> Fragment:
        """Code whose last value is never false, for which the runtime would prevent the event."""
        for one in operations:
            if isinstance(one, MethodCall | MethodValue):
                method = self._method_of(one.member.name)
                if method is not None and self._answers(method):
                    return (
                        new("void ") + made if ";" not in self.expressions.text_of(made) else made
                    )
        text = self.expressions.text_of(made)
        if re.search(r"&&|\|\||\?", text) and ";" not in text:
            return new("void (") + made + new(")")
        return made

    def _method_of(self, name: str) -> Method | None:
        return next((one for one in self.component.methods() if one.name == name), None)

    def _answers(self, method: Method) -> bool:
        """Whether a method may give something."""
        text = self.expressions.speller.source.slice(*method.text.span[:2])
        return not method.asynchronous and bool(
            _RETURNS.search(text) or re.match(r"\s*\([^)]*\)\s*=>\s*[^{\s]", text)
        )

    def _takes(self, method: Method) -> bool:
        """Whether a method takes arguments."""
        text = self.expressions.speller.source.slice(*method.text.span[:2]).lstrip()
        return method.uses_arguments or not re.match(r"(?:async\s*)?\(\s*\)", text)
