"""Attributes of the neutral markup as a template of a decorated class spells them."""

from __future__ import annotations

import re
from dataclasses import dataclass

from clean_carry.component.code import Code, Member
from clean_carry.component.fragment import Fragment, copy, new, settled
from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    ClassList,
    Element,
    Handler,
    Key,
    RawHtml,
    Reference,
    Shown,
    StaticAttribute,
    StyleMap,
    TwoWay,
)
from clean_carry.component.model import Component
from clean_carry.syntaxes.decorated_class.from_markup.expressions import Expressions
from clean_carry.syntaxes.decorated_class.from_markup.listeners import Listeners
from clean_carry.syntaxes.decorated_class.from_markup.names import camel
from clean_carry.syntaxes.decorated_class.from_markup.two_way import TwoWays
from clean_carry.syntaxes.unsaid import Unsaid

# HTML §4, §6: properties that are true or false.
_FLAGS = frozenset(
    "checked disabled hidden multiple muted open readonly readOnly required selected autofocus loop "
    "controls autoplay novalidate noValidate indeterminate inert".split()
)
_PROPERTIES = {"readonly": "readOnly", "novalidate": "noValidate"}
_WORDED = ("aria-", "data-")
_PLAIN_CLASS = re.compile(r"[\w:/.-]+")


@dataclass
class Attributes:
    """Writes the attributes of one component's elements. `notes` are what is to be known."""

    component: Component
    expressions: Expressions
    notes: list[tuple[str, str, int]]

    def __post_init__(self) -> None:
        self.speller = self.expressions.speller
        self.listeners = Listeners(self.component, self.expressions)
        self.two_ways = TwoWays(self.component, self.expressions, self.notes)

    def written(self, node: Element, root_name: str = "") -> list[Fragment]:
        """The attributes of an element; `root_name` is what the class knows it by."""
        found: list[Fragment] = []
        own = any(isinstance(one, Reference) for one in node.attributes)
        if root_name and not own:
            found.append(new(f"#{root_name}"))
        displayed = any(isinstance(one, Shown) for one in node.attributes)
        for one in node.attributes:
            if isinstance(one, TwoWay):
                found += self.two_ways.written(one, node)
                continue
            if displayed and isinstance(one, StaticAttribute) and one.name == "style":
                text = self.speller.source.slice(*one.value[:2]) if one.value is not None else ""
                if "display" in text:
                    raise Unsaid("markup-unread", "v-show beside a display", node.span.start)
            found += self._one(one, node)
        return [one for one in found if one.pieces]

    def _one(self, one: Attribute, node: Element) -> list[Fragment]:
        match one:
            case StaticAttribute():
                return [self._static(one, node)]
            case BoundAttribute(name="class", code=code, entry=entry):
                return [new('[class]="', entry, "class-list") + self._classes(code) + new('"')]
            case BoundAttribute(name="style", code=code, entry=entry):
                return [new('[style]="', entry, "bound-attribute") + self._style(code) + new('"')]
            case BoundAttribute():
                return [self._bound(one, node)]
            case ClassList(items=items, entry=entry):
                return [settled(entry, "class-list"), *(self._class(*item[:2]) for item in items)]
            case Handler():
                return [self.listeners.written(one, node)]
            case Reference(member=member, entry=entry, code=None):
                name = self.speller.names.of(Member("element", member))
                return [new(f"#{name}", entry, "element-reference")]
            case Shown(code=code, entry=entry):
                head = new('[style.display]="', entry, "shown-to-style")
                return [head + self._grouped(code, "shown") + new(" ? null : 'none'\"")]
            case RawHtml(code=code, entry=entry):
                self.notes.append(("html-sanitised", self._shown(code), code.span.start))
                head = new('[innerHTML]="', entry, "raw-html")
                return [head + self.expressions.value(code, "html") + new('"')]
            case StyleMap(items=items, entry=entry):
                found = [settled(entry, "bound-attribute")]
                for name, code, pixels in items:
                    if pixels:
                        raise Unsaid("markup-unread", f"the style {name}", code.span.start)
                    value = self.expressions.value(code, camel(name))
                    found.append(new(f'[style.{name}]="') + value + new('"'))
                return found
            case Key(code=code):
                raise Unsaid("markup-unread", "a key outside of a list", code.span.start)
        raise Unsaid("markup-unread", type(one).__name__, node.span.start)

    def _shown(self, code: Code) -> str:
        return self.speller.source.slice(*code.span[:2])[:40]

    def _static(self, one: StaticAttribute, node: Element) -> Fragment:
        if one.name.startswith("on") and not node.component:
            raise Unsaid("markup-unread", one.name, node.span.start)
        name = (
            camel(one.name) if node.component and one.name not in ("class", "style") else one.name
        )
        if one.value is None:
            if node.component:
                return new(f'[{name}]="true"', one.entry, "attribute")
            return new(name, one.entry, "attribute")
        raw = self.speller.source.slice(*one.value[:2])
        if "{{" in raw or ('"' in raw and "'" in raw):
            raise Unsaid("markup-unread", f"the value of {one.name}", one.value.start)
        quote = "'" if '"' in raw else '"'
        return new(f"{name}={quote}", one.entry, "attribute") + copy(one.value) + new(quote)

    def _bound(self, one: BoundAttribute, node: Element) -> Fragment:
        name, code = one.name, one.code
        value = self.expressions.value(code, camel(name))
        if node.component:
            return new(f'[{camel(name)}]="', one.entry, "bound-attribute") + value + new('"')
        if name in _FLAGS:
            own = _PROPERTIES.get(name, name)
            if one.form != "boolean" and self.expressions.text_of(value).rstrip()[-1:] != ")":
                value = new("!!") + self._wrapped(value)
            return new(f'[{own}]="', one.entry, "bound-attribute") + value + new('"')
        if name == "value" and node.tag in ("input", "textarea", "option", "select", "progress"):
            if one.form != "text" and node.tag in ("input", "textarea"):
                value = self._or_empty(code, value)
            return new('[value]="', one.entry, "bound-attribute") + value + new('"')
        if name in ("innerHTML", "textContent"):
            raise Unsaid("markup-unread", f":{name}", code.span.start)
        if one.form == "boolean" and not name.startswith(_WORDED):
            value = self._word_or_nothing(code, value, may_go=one.may_go)
        return new(f'[attr.{name}]="', one.entry, "bound-attribute") + value + new('"')

    def _or_empty(self, code: Code, value: Fragment) -> Fragment:
        simple = re.fullmatch(r"[\w$.]+(?:\(\))?", self.expressions.text_of(value).strip())
        return (value if simple else new("(") + value + new(")")) + new(" ?? ''")

    def _word_or_nothing(self, code: Code, value: Fragment, *, may_go: bool) -> Fragment:
        if not may_go:
            return value
        return self._wrapped(value) + new(" ? true : null")

    def _wrapped(self, value: Fragment) -> Fragment:
        text = self.expressions.text_of(value).strip()
        if re.fullmatch(r"!?[\w$.]+(?:\(\))?", text):
            return value
        return new("(") + value + new(")")

    def _grouped(self, code: Code, wish: str) -> Fragment:
        return self._wrapped(self.expressions.value(code, wish))

    # -- classes and styles --------------------------------------------------------------------

    def _class(self, name: str, code: Code) -> Fragment:
        if not _PLAIN_CLASS.fullmatch(name):
            raise Unsaid("markup-unread", f"the class {name}", code.span.start)
        return new(f'[class.{name}]="') + self.expressions.value(code, camel(name)) + new('"')

    def _classes(self, code: Code) -> Fragment:
        """Classes by an expression: text, an object of conditions, or a list of both."""
        text = self.speller.source.slice(*code.span[:2]).strip()
        value = self.expressions.value(code, "classes")
        if not text.startswith("["):
            return value
        helper = self.speller.ask("classes")
        self.expressions.used.add(helper)
        return new(f"{helper}(") + value + new(")")

    def _style(self, code: Code) -> Fragment:
        text = self.speller.source.slice(*code.span[:2]).strip()
        if text.startswith("["):
            raise Unsaid("markup-unread", "a list of styles", code.span.start)
        return self.expressions.value(code, "styles")
