"""Attributes of the neutral markup as a view template spells them."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.component.fragment import Fragment, settled
from clean_carry.component.markup import (
    Attribute,
    BoundAttribute,
    ClassList,
    Element,
    Handler,
    Key,
    RawHtml,
    Shown,
    StaticAttribute,
    StyleMap,
)
from clean_carry.source.expressions.model import Constant, Expr, Listing, Record
from clean_carry.source.php.literals import quoted
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.server_view.expressions import Expressions
from clean_carry.syntaxes.unsaid import Unsaid

_RULE = "attribute-in-view"
# HTML §2.3.2: attributes that are there or not.
FLAGS = frozenset(
    "checked disabled hidden multiple muted open readonly required selected autofocus loop controls "
    "autoplay novalidate inert ismap nomodule playsinline reversed async defer default formnovalidate "
    "itemscope allowfullscreen".split()
)


@dataclass
class Parts:
    """The attributes of one element: texts, classes as items of an array, and the display of it."""

    texts: list[str] = field(default_factory=list)
    pairs: list[tuple[str, str]] = field(default_factory=list)
    classes: list[str] = field(default_factory=list)
    plain_class: str = ""
    styles: list[str] = field(default_factory=list)


@dataclass
class Attributes:
    """Writes the attributes of a component's elements. `notes` are what is to be known."""

    source: SourceText
    expressions: Expressions
    notes: list[tuple[str, str, int]]
    settled: Fragment = field(default_factory=Fragment)

    def written(self, node: Element, *, is_root: bool) -> str:
        """The attributes of an element, with a space before each; the root takes those that it is given."""
        parts = Parts()
        for one in node.attributes:
            self.one(one, node, parts)
        if is_root:
            return self._root(parts, node)
        texts = [*parts.texts]
        if len(parts.classes) == 1 and " => " not in parts.classes[0]:
            text = f"{{{{ {parts.classes[0]} }}}}"
            texts.insert(0, f'class="{" ".join(one for one in (parts.plain_class, text) if one)}"')
        elif parts.classes:
            plain = [quoted(parts.plain_class)] if parts.plain_class else []
            texts.insert(0, f"@class([{', '.join([*plain, *parts.classes])}])")
        elif parts.plain_class:
            texts.insert(0, f'class="{parts.plain_class}"')
        if parts.styles:
            texts.append(f'style="{" ".join(parts.styles)}"')
        return "".join(f" {one}" for one in texts)

    def _root(self, parts: Parts, node: Element) -> str:
        """The attributes of the root: a parent's replace them, and join its classes."""
        if parts.texts or parts.styles:
            conditional = [one for one in parts.texts if one.startswith("@")]
            if conditional or parts.styles:
                raise Unsaid(
                    "view-markup-unread",
                    "an attribute of the root that may be missing",
                    node.span.start,
                )
        classes = [quoted(parts.plain_class)] if parts.plain_class else []
        classes += parts.classes
        chain = f"->class([{', '.join(classes)}])" if classes else ""
        inputs = {one.name.lower() for one in self.expressions.types.component.inputs.props}
        own, merged = "", list[str]()
        for text, (name, value) in zip(parts.texts, parts.pairs, strict=True):
            if name.replace("-", "").lower() in inputs:
                # A parent's value is the input's, and never among its attributes.
                own += f" {text}"
                continue
            if not value.startswith("'"):
                # The engine trims what it merges (`ComponentAttributeBag`).
                self.notes.append(("value-trimmed", name, node.span.start))
            merged.append(f"{quoted(name)} => {value}")
        chain += f"->merge([{', '.join(merged)}])" if merged else ""
        return f"{own} {{{{ $attributes{chain} }}}}"

    def one(self, one: Attribute, node: Element, parts: Parts) -> None:
        """Add an attribute to the parts of its element."""
        entry = getattr(one, "entry", -1)
        if entry >= 0:
            self.settled += settled(entry, _RULE)
        match one:
            case StaticAttribute():
                self._static(one, parts)
            case BoundAttribute():
                self._bound(one, node, parts)
            case ClassList():
                for name, test, _ in one.items:
                    self._class(name, self.expressions.read(test), test.span.start, parts)
            case StyleMap():
                self._styles(one, parts)
            case Shown():
                shown = self.expressions.said(one.code, "truth")
                parts.styles.append(f"{{{{ {shown} ? '' : 'display: none' }}}}")
            case Key():
                # Keys tell a runtime which element is which; a page that is sent has no such time.
                self.expressions.passed_over(one.code)
            case RawHtml():
                return
            case Handler():
                raise Unsaid("runs-in-browser", f"the listener of {one.event}", one.code.span.start)
            case _:
                what = type(one).__name__.lower()
                raise Unsaid("view-markup-unread", f"a {what}", node.span.start)

    def _static(self, one: StaticAttribute, parts: Parts) -> None:
        value = self.source.slice(*one.value[:2]) if one.value is not None else None
        if one.name == "class":
            parts.plain_class = " ".join((value or "").split())
            return
        if one.name == "style":
            parts.styles.append(f"{(value or '').rstrip('; ')};")
            return
        shown = _escaped(value or "")
        parts.texts.append(f'{one.name}="{shown}"' if value is not None else one.name)
        parts.pairs.append((one.name, quoted(value or "")))

    def _bound(self, one: BoundAttribute, node: Element, parts: Parts) -> None:
        expr = self.expressions.read(one.code)
        at = one.code.span.start
        if one.name == "class":
            self._classes(expr, at, parts)
            return
        if one.name == "style":
            if not isinstance(expr, Record) or any(not name for name, _ in expr.fields):
                raise Unsaid("not-said-in-view", "a style of this form", at)
            for name, value in expr.fields:
                self._style(name, value, at, parts)
            return
        if one.name in FLAGS:
            test = self.expressions.said_of(expr, "truth", at)
            parts.texts.append(f"{{{{ {test} ? {quoted(one.name)} : '' }}}}")
            parts.pairs.append((one.name, f"{self.expressions.said_of(expr, 'truth', at, 10)}"))
            return
        if expr.type.kind not in ("text", "number") and not (
            expr.type.kind == "flag" and one.name.startswith("aria-")
        ):
            raise Unsaid("not-said-in-view", f"the attribute {one.name}", at)
        if expr.type.missing:
            there = self.expressions.said_of(expr, "value", at, 16)
            shown = self.expressions.said_of(expr, "shown", at)
            parts.texts.append(f'@if ({there} !== null){one.name}="{{{{ {shown} }}}}"@endif')
            parts.pairs.append((one.name, shown))
            return
        text = self.expressions.said_of(expr, "text", at)
        parts.texts.append(f'{one.name}="{{{{ {text} }}}}"')
        parts.pairs.append((one.name, text))

    def _classes(self, expr: Expr, at: int, parts: Parts) -> None:
        """The parts of a class list: a text, or a condition for each name."""
        match expr:
            case Listing():
                for one in expr.items:
                    self._classes(one, at, parts)
            case Record():
                for name, value in expr.fields:
                    self._class(name, value, at, parts)
            case _ if expr.type.kind == "text":
                parts.classes.append(self.expressions.said_of(expr, "shown", at))
            case _ if expr.type.kind != "nothing":
                raise Unsaid("not-said-in-view", "a class of no known type", at)

    def _class(self, name: str, test: Expr, at: int, parts: Parts) -> None:
        """Write a class with its condition. Where the outcome is known, the class stands alone, or not at
        all."""
        if isinstance(test, Constant):
            parts.classes += [quoted(name)] if test.value else []
            return
        said = self.expressions.said_of(test, "truth", at)
        parts.classes.append(f"{quoted(name)} => {said}")

    def _styles(self, one: StyleMap, parts: Parts) -> None:
        for name, value, _ in one.items:
            self._style(name, self.expressions.read(value), value.span.start, parts)

    def _style(self, name: str, expr: Expr, at: int, parts: Parts) -> None:
        if expr.type.kind not in ("text", "number") or expr.type.missing:
            raise Unsaid("not-said-in-view", f"the style {name}", at)
        property_ = re.sub(r"([A-Z])", lambda found: f"-{found[1].lower()}", name)
        parts.styles.append(f"{property_}: {{{{ {self.expressions.said_of(expr, 'text', at)} }}}};")


def _escaped(value: str) -> str:
    """A literal value, with what the engine would take for its own marked."""
    return value.replace('"', "&quot;").replace("{{", "@{{")
