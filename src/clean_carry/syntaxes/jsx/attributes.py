"""How JSX spells attributes and events of HTML (React DOM's documented property names)."""

from __future__ import annotations

_CAMEL = (
    "accessKey allowFullScreen autoCapitalize autoComplete autoCorrect autoPlay autoSave cellPadding "
    "cellSpacing charSet classID colSpan contentEditable contextMenu controlsList crossOrigin dateTime "
    "disablePictureInPicture disableRemotePlayback encType enterKeyHint fetchPriority "
    "formAction formEncType "
    "formMethod formNoValidate formTarget frameBorder hrefLang imageSizes imageSrcSet "
    "inputMode itemID itemProp "
    "itemRef itemScope itemType keyParams keyType marginHeight marginWidth maxLength mediaGroup minLength "
    "noModule noValidate playsInline popoverTarget popoverTargetAction radioGroup readOnly referrerPolicy "
    "rowSpan spellCheck srcDoc srcLang srcSet tabIndex useMap"
).split()
RENAMED = {
    **{name.lower(): name for name in _CAMEL},
    "class": "className",
    "for": "htmlFor",
    "accept-charset": "acceptCharset",
    "http-equiv": "httpEquiv",
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
