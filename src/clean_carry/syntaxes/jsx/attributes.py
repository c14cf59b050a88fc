"""How JSX spells attributes and events of HTML (React DOM's documented property names)."""

from __future__ import annotations

RENAMED = {
    "class": "className",
    "for": "htmlFor",
    "accesskey": "accessKey",
    "autocomplete": "autoComplete",
    "colspan": "colSpan",
    "contenteditable": "contentEditable",
    "crossorigin": "crossOrigin",
    "datetime": "dateTime",
    "enctype": "encType",
    "enterkeyhint": "enterKeyHint",
    "formaction": "formAction",
    "hreflang": "hrefLang",
    "inputmode": "inputMode",
    "maxlength": "maxLength",
    "minlength": "minLength",
    "novalidate": "noValidate",
    "readonly": "readOnly",
    "rowspan": "rowSpan",
    "spellcheck": "spellCheck",
    "srcset": "srcSet",
    "tabindex": "tabIndex",
    "usemap": "useMap",
}
# HTML §2.3.2: attributes whose presence alone counts.
BOOLEAN = frozenset(
    "allowfullscreen async controls default defer disabled hidden inert loop multiple muted "
    "novalidate open playsinline readonly required reversed selected".split()
)
# Set as a property and kept by the runtime afterwards: not an attribute that is only written.
STATEFUL = frozenset({"value", "checked", "autofocus", "innerHTML", "style"})
# Events that reach the same handlers in the same order, whether the runtime listens at the element
# or at the root: they bubble, and React DOM gives them no meaning of its own.
EVENTS = {
    "click": "onClick",
    "dblclick": "onDoubleClick",
    "input": "onInput",
    "keydown": "onKeyDown",
    "keypress": "onKeyPress",
    "keyup": "onKeyUp",
    "mousedown": "onMouseDown",
    "mouseup": "onMouseUp",
    "mouseover": "onMouseOver",
    "mouseout": "onMouseOut",
    "pointerdown": "onPointerDown",
    "pointerup": "onPointerUp",
    "reset": "onReset",
    "submit": "onSubmit",
    "touchstart": "onTouchStart",
    "touchend": "onTouchEnd",
}
# HTML §3.2.6 (global attributes) and the common ones of §4: a slot of this name gets a suffix.
HTML_NAMES = frozenset(
    "title lang dir hidden id style name label value type href src alt width height action method "
    "content summary span start list form cite data open size shape target rel media".split()
)


def spelled(name: str) -> str:
    """The name JSX gives an attribute."""
    return RENAMED.get(name, name)
