"""Listeners of a template as properties of JSX."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import Builtin, Code
from clean_carry.component.fragment import Fragment, joined, new
from clean_carry.component.markup import Element, Handler, StaticAttribute
from clean_carry.syntaxes.jsx.attributes import EVENTS
from clean_carry.syntaxes.jsx_function.from_markup.names import pascal
from clean_carry.syntaxes.jsx_function.from_markup.spelling import Speller, Unsaid

# React DOM's documented listeners beside those that need no second look.
_MORE = {
    "focus": "onFocus", "blur": "onBlur", "focusin": "onFocus", "focusout": "onBlur",
    "mouseenter": "onMouseEnter", "mouseleave": "onMouseLeave", "mousemove": "onMouseMove",
    "pointermove": "onPointerMove", "pointerenter": "onPointerEnter", "pointerleave": "onPointerLeave",
    "pointercancel": "onPointerCancel", "touchmove": "onTouchMove", "touchcancel": "onTouchCancel",
    "wheel": "onWheel", "scroll": "onScroll", "drag": "onDrag", "dragstart": "onDragStart",
    "dragend": "onDragEnd", "dragenter": "onDragEnter", "dragleave": "onDragLeave",
    "dragover": "onDragOver",
    "drop": "onDrop", "copy": "onCopy", "cut": "onCut", "paste": "onPaste", "contextmenu": "onContextMenu",
    "load": "onLoad", "error": "onError", "animationend": "onAnimationEnd", "invalid": "onInvalid",
    "transitionend": "onTransitionEnd", "toggle": "onToggle", "play": "onPlay", "pause": "onPause",
    "ended": "onEnded", "compositionstart": "onCompositionStart", "compositionend": "onCompositionEnd",
}  # fmt: skip
_NAMES = EVENTS | _MORE
# What does not bubble on the page and does for the runtime.
_ALONE = frozenset({"focus", "blur", "load", "error", "toggle", "invalid", "scroll"})
_LEAVES = frozenset({"input", "select", "textarea", "button", "img", "video", "audio"})
# The template compiler's names of keys, as the page names them (UI Events, "Named key values").
_KEYS = {
    "enter": "Enter", "esc": "Escape", "escape": "Escape", "tab": "Tab", "space": " ", "up": "ArrowUp",
    "down": "ArrowDown", "left": "ArrowLeft", "right": "ArrowRight", "backspace": "Backspace",
    "home": "Home", "end": "End", "page-up": "PageUp", "page-down": "PageDown",
}  # fmt: skip
_SYSTEM = frozenset({"ctrl", "shift", "alt", "meta"})
_CALLED = {"prevent": "event.preventDefault()", "stop": "event.stopPropagation()"}


@dataclass
class Listeners:
    """Writes the listeners of one component's elements."""

    speller: Speller

    def written(self, handler: Handler, node: Element, others: str) -> Fragment:
        """One listener; on the root a parent's own, which `others` hold, is called too."""
        name = self._name(handler, node)
        head = new(f"{name}={{", handler.entry, "listener")
        return head + self.function(handler, node, f"{others}.{name}" if others else "") + new("}")

    def function(self, handler: Handler, node: Element, others: str = "") -> Fragment:
        """What is called with the event; then `others`, a parent's own listener."""
        modifiers = [one for one in handler.modifiers if one != "capture"]
        with self.speller.mode(drawing=False):
            before = self.speller.inline
            self.speller.inline = True
            code = self.speller.code(handler.code)
            self.speller.inline = before
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
            steps.insert(0, new("if (event.target !== event.currentTarget) return"))
        steps.append(self._called(handler, code, text))
        if others:
            steps.append(new(f"{others}?.(event)"))
        end = self.speller.end or ";"
        body = joined((step for step in steps if step.pieces), f"{end} ")
        return new("(event) => { ") + body + new(f"{end} }}")

    def _called(self, handler: Handler, code: Fragment, text: str) -> Fragment:
        """The call of a listener's own code."""
        if handler.code.span.start == handler.code.span.end:
            return Fragment()
        if not handler.function:
            return code
        plain = "=>" not in text and not text.startswith("function")
        return (code if plain else new("(") + code + new(")")) + new("(event)")

    def _text(self, code: Code) -> str:
        return self.speller.source.slice(code.span.start, code.span.end).strip()

    def _takes_event(self, code: Code) -> bool:
        return any(isinstance(one, Builtin) and one.name == "$event" for one in code.all())

    def _name(self, handler: Handler, node: Element) -> str:
        event = handler.event
        if node.component:
            if "native" in handler.modifiers:
                raise Unsaid("markup-unread", f"@{event}.native", node.span.start)
            return f"on{pascal(event)}"
        if event == "change":
            return "onChange"
        if event not in _NAMES:
            raise Unsaid("markup-unread", f"@{event}", node.span.start)
        return _NAMES[event] + ("Capture" if "capture" in handler.modifiers else "")

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
                found.append("if (event.target !== event.currentTarget) return")
            elif one in _SYSTEM and not (one in _KEYS and handler.event.startswith("key")):
                found.append(f"if (!event.{one}Key) return")
            elif one in _KEYS and handler.event.startswith("key"):
                found.append(f"if (event.key !== '{_KEYS[one]}') return")
            elif one == "delete" and handler.event.startswith("key"):
                found.append("if (event.key !== 'Delete' && event.key !== 'Backspace') return")
            else:
                raise Unsaid("markup-unread", f"@{handler.event}.{one}", node.span.start)
        return found
