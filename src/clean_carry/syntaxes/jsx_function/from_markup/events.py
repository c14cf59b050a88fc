"""Names of listener properties in JSX."""

from __future__ import annotations

from clean_carry.syntaxes.jsx.attributes import EVENTS

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
NAMES = EVENTS | _MORE
# DOM events that would share a property with another event.
_SHARED = frozenset({"focusin", "focusout"})


def pascal(name: str) -> str:
    """`update:count` and `row-picked` as `UpdateCount` and `RowPicked`."""
    return "".join(
        part[:1].upper() + part[1:] for part in name.replace(":", "-").split("-") if part
    )


def event_property(event: str) -> str:
    """Return the prop by which a parent listens to an event of a component.

    DOM events get the runtime's spelling (`onKeyDown`): a component that does not emit such an event passes
    the prop on to its root element.
    """
    if event in NAMES and event not in _SHARED:
        return NAMES[event]
    return f"on{pascal(event)}"
