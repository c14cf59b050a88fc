"""Listeners of a template as properties of JSX."""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.component.code import Builtin, Code
from clean_carry.component.fragment import Fragment, joined, new, settled
from clean_carry.component.markup import Element, Handler, StaticAttribute
from clean_carry.syntaxes.jsx_function.from_markup.events import NAMES, event_property
from clean_carry.syntaxes.jsx_function.from_markup.spelling import Speller
from clean_carry.syntaxes.unsaid import Unsaid

# Events that do not bubble on the page but do for the runtime.
_ALONE = frozenset({"focus", "blur", "load", "error", "toggle", "invalid", "scroll"})
_LEAVES = frozenset({"input", "select", "textarea", "button", "img", "video", "audio"})
# The template compiler's names of keys, as the page names them (UI Events, "Named key values").
_KEYS = {
    "enter": "Enter", "esc": "Escape", "escape": "Escape", "tab": "Tab", "space": " ", "up": "ArrowUp",
    "down": "ArrowDown", "left": "ArrowLeft", "right": "ArrowRight", "backspace": "Backspace",
    "home": "Home", "end": "End", "page-up": "PageUp", "page-down": "PageDown",
}  # fmt: skip
_SYSTEM = frozenset({"ctrl", "shift", "alt", "meta"})
# The keys that `exact` asks of, but for those that are named.
_HELD = ("ctrl", "shift", "alt", "meta")
# An early return of a listener whose modifier does not match.
_LEAVE = "if ({}) return"
_BLOCK = "if ("
_LEAVING = re.compile(r"if \((.*)\) return")
# The start of a property that a two-way binding writes.
_BOUND = re.compile(r"\w+=\{\((\w*)\) => ")
_CALLED = {"prevent": "event.preventDefault()", "stop": "event.stopPropagation()"}


@dataclass
class Listeners:
    """Writes the listeners of one component's elements."""

    speller: Speller

    def written(self, handler: Handler, node: Element, others: str) -> Fragment:
        """One listener; on the root a parent's own, which `others` hold, is called too."""
        name = self.name(handler, node)
        head = new(f"{name}={{", handler.entry, "listener")
        return head + self.function(handler, node, f"{others}.{name}" if others else "") + new("}")

    def statement(self, handler: Handler, node: Element) -> Fragment:
        """Write one of several listeners of the same event as a statement of the merged listener."""
        modifiers = [one for one in handler.modifiers if one != "capture"]
        code = self._code(handler)
        steps = self._steps(modifiers, handler, node)
        if not node.component and handler.event in _ALONE and node.tag not in _LEAVES:
            steps.insert(0, _LEAVE.format("event.target !== event.currentTarget"))
        given = ", ...more" if node.component else ""
        called = self._called(handler, code, self._text(handler.code), given)
        end = self.speller.end or ";"
        result = settled(handler.entry, "listener") + called + new(end)
        for step in reversed(steps):
            leaves = _LEAVING.fullmatch(step)
            if leaves is None:
                result = new(f"{step}{end} ") + result
            else:
                result = new(f"{_BLOCK}{_turned(leaves[1])}) {{ ") + result + new(" }")
        return result

    def function(self, handler: Handler, node: Element, others: str = "") -> Fragment:
        """Return the listener for an event; then `others`, a parent's own listener."""
        modifiers = [one for one in handler.modifiers if one != "capture"]
        code = self._code(handler)
        text = self._text(handler.code)
        native = not node.component and handler.event in _ALONE and node.tag not in _LEAVES
        if not modifiers and not others and not native:
            if handler.function:
                return code
            taken = "event" if self._takes_event(handler.code) else ""
            if handler.states:
                return new(f"({taken}) => {{ ") + code + new(" }")
            return new(f"({taken}) => ") + code
        steps = [new(step) for step in self._steps(modifiers, handler, node)]
        if native:
            steps.insert(0, new(_LEAVE.format("event.target !== event.currentTarget")))
        steps.append(self._called(handler, code, text))
        if others:
            steps.append(new(f"{others}?.(event)"))
        end = self.speller.end or ";"
        body = joined((step for step in steps if step.pieces), f"{end} ")
        return new("(event) => { ") + body + new(f"{end} }}")

    def _code(self, handler: Handler) -> Fragment:
        """Spell the code of a listener; it runs after rendering."""
        with self.speller.mode(drawing=False):
            before = self.speller.inline
            self.speller.inline = True
            code = self.speller.code(handler.code)
            self.speller.inline = before
        return code

    def _called(self, handler: Handler, code: Fragment, text: str, more: str = "") -> Fragment:
        """The call of a listener's own code with the event, and `more`."""
        if handler.code.span.start == handler.code.span.end:
            return Fragment()
        if not handler.function:
            return code
        plain = "=>" not in text and not text.startswith("function")
        return (code if plain else new("(") + code + new(")")) + new(f"(event{more})")

    def _text(self, code: Code) -> str:
        return self.speller.source.slice(code.span.start, code.span.end).strip()

    def _takes_event(self, code: Code) -> bool:
        return any(isinstance(one, Builtin) and one.name == "$event" for one in code.all())

    def name(self, handler: Handler, node: Element) -> str:
        """Return the name of the JSX property for a listener."""
        event = handler.event
        if node.component:
            if "native" in handler.modifiers:
                raise Unsaid("markup-unread", f"@{event}.native", node.span.start)
            return event_property(event)
        if event == "change":
            return "onChange"
        if event not in NAMES:
            raise Unsaid("markup-unread", f"@{event}", node.span.start)
        return NAMES[event] + ("Capture" if "capture" in handler.modifiers else "")

    def ends_typing(self, handler: Handler, node: Element) -> bool:
        """Whether `change` comes when a field is left, for which the runtime has no property."""
        kinds = [
            one.value
            for one in node.attributes
            if isinstance(one, StaticAttribute) and one.name == "type"
        ]
        kind = self.speller.source.slice(*kinds[0][:2]) if kinds and kinds[0] is not None else ""
        if node.component or handler.event != "change":
            return False
        return node.tag in ("input", "textarea") and kind not in ("checkbox", "radio", "file")

    def _steps(self, modifiers: list[str], handler: Handler, node: Element) -> list[str]:
        found = []
        for one in modifiers:
            if one in _CALLED:
                found.append(_CALLED[one])
            elif one == "self":
                found.append(_LEAVE.format("event.target !== event.currentTarget"))
            elif one in _SYSTEM and not (one in _KEYS and handler.event.startswith("key")):
                found.append(_LEAVE.format(f"!event.{one}Key"))
            elif one in _KEYS and handler.event.startswith("key"):
                found.append(_LEAVE.format(f"event.key !== '{_KEYS[one]}'"))
            elif one == "delete" and handler.event.startswith("key"):
                found.append(_LEAVE.format("event.key !== 'Delete' && event.key !== 'Backspace'"))
            elif one == "exact":
                others = [key for key in _HELD if key not in modifiers]
                found.append(_LEAVE.format(" || ".join(f"event.{key}Key" for key in others)))
            else:
                raise Unsaid("markup-unread", f"@{handler.event}.{one}", node.span.start)
        return found


def _turned(condition: str) -> str:
    """Return the negation of an early return's condition."""
    if " || " in condition:
        return f"!({condition})"
    if condition.startswith("!event."):
        return condition[1:]
    return condition.replace("!==", "===").replace("&&", "||")


@dataclass
class Heard:
    """Collects the listeners of one element and merges those of the same event into one property.

    `parent` is the rest object with the listeners that a parent passes, or "". A `v-model` comes first: its
    runtime registers its listener before those of the element.
    """

    listeners: Listeners
    node: Element
    parent: str
    into: list[Fragment]
    depth: int

    def __post_init__(self) -> None:
        # By property name: its index in `into`, and its listeners in order.
        self.found: dict[str, tuple[int, list[Handler | Fragment]]] = {}
        plain = () if self.node.component else self.node.attributes
        self.hears_input = any(isinstance(one, Handler) and one.event == "input" for one in plain)

    def hear(self, handler: Handler) -> None:
        """Add a listener of the template."""
        self._add(self.listeners.name(handler, self.node), handler)

    def bind(self, properties: list[Fragment]) -> None:
        """Add the properties of a two-way binding; its `on…` properties are listeners."""
        for one in properties:
            first, *rest = one.pieces
            if self.hears_input:
                first = first._replace(text=first.text.replace("onChange=", "onInput=", 1))
            name = first.text.partition("=")[0]
            if name.startswith("on"):
                self._add(name, Fragment([first, *rest]))
            else:
                self.into.append(one)

    def _add(self, name: str, one: Handler | Fragment) -> None:
        if name not in self.found:
            self.found[name] = (len(self.into), [])
            self.into.append(Fragment())
        self.found[name][1].append(one)

    def written(self) -> None:
        """Write each property at the place of its first listener."""
        for name, (at, ones) in self.found.items():
            ones.sort(key=lambda one: isinstance(one, Handler))
            first = ones[0]
            if len(ones) > 1 or (isinstance(first, Fragment) and self.parent):
                self.into[at] = self._together(name, ones)
            elif isinstance(first, Handler):
                self.into[at] = self.listeners.written(first, self.node, self.parent)
            else:
                self.into[at] = first

    def _together(self, name: str, ones: list[Handler | Fragment]) -> Fragment:
        speller = self.listeners.speller
        said = [self._statement(one) for one in ones]
        if self.parent:
            said.append(new(f"{self.parent}.{name}?.(event){speller.end or ';'}"))
        taken = "event, ...more" if self.node.component else "event"
        head = new(f"{name}={{({taken}) => {{")
        if len(said) > 2 or any(one.pieces and _BLOCK in one.pieces[0].text for one in said):
            line = f"\n{speller.unit * (self.depth + 1)}"
            body = joined((new(line + speller.unit) + one for one in said), "")
            return head + body + new(f"{line}}}}}")
        return head + new(" ") + joined(said, " ") + new(" }}")

    def _statement(self, one: Handler | Fragment) -> Fragment:
        if isinstance(one, Handler):
            return self.listeners.statement(one, self.node)
        first, *rest = one.pieces
        head = _BOUND.match(first.text)
        if head is None:
            raise Unsaid("markup-unread", first.text, self.node.span.start)
        pieces = [first._replace(text=first.text[head.end() :]), *rest]
        pieces[-1] = pieces[-1]._replace(text=pieces[-1].text.removesuffix("}"))
        given = "const value = event; " if head[1] == "value" else ""
        return new(given) + unbraced(Fragment(pieces))


def unbraced(call: Fragment) -> Fragment:
    """Strip the braces of a block, or end an expression, so that statements can follow."""
    first, *rest = call.pieces
    if not first.text.startswith("{ "):
        return call + new(";")
    last = rest.pop() if rest else first
    last = last._replace(text=last.text.removesuffix(" }"))
    first = first if rest or last is not first else last
    pieces = [first, *rest, last] if last is not first and call.pieces[1:] else [last]
    pieces[0] = pieces[0]._replace(text=pieces[0].text.removeprefix("{ "))
    return Fragment(pieces)
