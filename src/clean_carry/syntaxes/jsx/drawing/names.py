"""How HTML spells what JSX spells in its own way (React DOM's documented property names)."""

from __future__ import annotations

import re

from clean_carry.syntaxes.jsx.attributes import BOOLEAN, EVENTS, RENAMED

_HTML = {new: old for old, new in RENAMED.items()} | {
    "acceptCharset": "accept-charset",
    "allowFullScreen": "allowfullscreen",
    "autoCapitalize": "autocapitalize",
    "autoCorrect": "autocorrect",
    "autoPlay": "autoplay",
    "cellPadding": "cellpadding",
    "cellSpacing": "cellspacing",
    "charSet": "charset",
    "controlsList": "controlslist",
    "formNoValidate": "formnovalidate",
    "frameBorder": "frameborder",
    "httpEquiv": "http-equiv",
    "marginHeight": "marginheight",
    "marginWidth": "marginwidth",
    "noModule": "nomodule",
    "playsInline": "playsinline",
    "referrerPolicy": "referrerpolicy",
    "srcDoc": "srcdoc",
    "srcLang": "srclang",
    "itemProp": "itemprop",
    "itemScope": "itemscope",
    "itemType": "itemtype",
    "xlinkHref": "xlink:href",
    "xmlLang": "xml:lang",
}
# SVG 2, appendix "Presentation attributes": written with hyphens on the page.
_SVG = frozenset(
    "alignmentBaseline baselineShift clipPath clipRule colorInterpolation dominantBaseline fillOpacity "
    "fillRule floodColor floodOpacity fontFamily fontSize fontStretch fontStyle fontVariant fontWeight "
    "letterSpacing lightingColor markerEnd markerMid markerStart paintOrder pointerEvents shapeRendering "
    "stopColor stopOpacity strokeDasharray strokeDashoffset strokeLinecap strokeLinejoin "
    "strokeMiterlimit strokeOpacity strokeWidth textAnchor textDecoration textRendering vectorEffect "
    "wordSpacing writingMode".split()
)
# React DOM's table of styles whose numbers are not pixels.
UNITLESS = frozenset(
    "animationIterationCount aspectRatio borderImageOutset borderImageSlice borderImageWidth boxFlex "
    "boxFlexGroup boxOrdinalGroup columnCount columns flex flexGrow flexPositive flexShrink flexNegative "
    "flexOrder gridArea gridRow gridRowEnd gridRowSpan gridRowStart gridColumn gridColumnEnd "
    "gridColumnSpan gridColumnStart fontWeight lineClamp lineHeight opacity order orphans scale tabSize "
    "widows zIndex zoom fillOpacity floodOpacity stopOpacity strokeDasharray strokeDashoffset "
    "strokeMiterlimit strokeOpacity strokeWidth".split()
)
# Attributes whose boolean is written as a word, or has a meaning of its own.
_OWN_WORDS = frozenset(
    "checked autoFocus capture download contentEditable draggable spellCheck itemScope noModule".split()
)
_EVENTS = {new: old for old, new in EVENTS.items()}
# Elements on which focus and blur have no listener below them.
_ALONE = frozenset({"input", "select", "textarea", "button"})
# Form fields that report a change by clicking (HTML §4.10.5).
_CLICKED = frozenset({"checkbox", "radio", "file"})


# Listeners that JSX has for an element of the page (its reference, "Common components").
_LISTENERS = re.compile(
    r"on(Click|AuxClick|DoubleClick|ContextMenu|Change|Input|BeforeInput|Focus|Blur|Key\w+|Mouse\w+"
    r"|\w*Pointer\w+|Touch\w+|Drag\w*|Drop|Scroll|Wheel|Submit|Reset|Invalid|Copy|Cut|Paste|Load\w*"
    r"|Error|Abort|Animation\w+|Transition\w+|Composition\w+|Select|Toggle|Can\w+|Play\w*|Pause"
    r"|Ended|Progress|Seek\w+|Stalled|Suspend|Waiting|\w*Change|TimeUpdate|Emptied|Encrypted)"
)


def is_unshown(name: str, kind: str) -> bool:
    """Whether an element of the page never shows an input of a kind: truth values and functions it has
    no attribute or listener for."""
    if kind == "Function":
        return _LISTENERS.match(name) is None
    plain = html_name(name).lower() not in BOOLEAN and not name.startswith(("aria-", "data-"))
    return kind == "Boolean" and plain and name not in _OWN_WORDS


def html_name(name: str) -> str:
    """The name a page has for an attribute."""
    if name in _SVG:
        return hyphenated(name)
    return _HTML.get(name, name)


def hyphenated(name: str) -> str:
    """`strokeWidth` as `stroke-width`."""
    return "".join(f"-{letter.lower()}" if letter.isupper() else letter for letter in name)


def event_of(name: str, tag: str, kind: str) -> str:
    """The page's event behind `onX` on an element; `kind` is its type attribute.

    The runtime's change event of a text field is the page's `input`; focus and blur reach it from below.
    """
    if name == "onChange":
        if tag == "select" or (tag == "input" and kind in _CLICKED):
            return "change"
        return "input"
    if name in ("onFocus", "onBlur"):
        alone = {"onFocus": "focus", "onBlur": "blur"}
        within = {"onFocus": "focusin", "onBlur": "focusout"}
        return (alone if tag in _ALONE else within)[name]
    return _EVENTS.get(name, name[2:].lower())
