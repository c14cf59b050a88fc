"""The names a template takes from its scope, each with its place, and in which scope it is looked up.

A template's own directives open scopes: what a repetition names is no name of the component there, and
what is written inside of one is a new name of that scope.
"""

from __future__ import annotations

import html
import re
from collections.abc import Callable
from dataclasses import dataclass, field

from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.template.expression import ExpressionError, NameUse, names_in
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode, read_markup
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.scoped_template.directives import (
    CHILD_SCOPES,
    KINDS,
    REPEATED,
    normalised,
)

# How a repetition is written: what it names, over what, under which other name, by what it is known.
_LOOP = re.compile(
    r"\s*([\s\S]+?)\s+in\s+([\s\S]+?)(?:\s+as\s+([\s\S]+?))?(?:\s+track\s+by\s+([\s\S]+?))?\s*$"
)
_ITEM = re.compile(r"(?:([$\w]+)|\(\s*([$\w]+)\s*,\s*([$\w]+)\s*\))$")
_OPTIONS = re.compile(
    r"\s*([\s\S]+?)(?:\s+as\s+([\s\S]+?))?(?:\s+group\s+by\s+([\s\S]+?))?(?:\s+disable\s+when\s+([\s\S]+?))?"
    r"\s+for\s+(?:([$\w]+)|(?:\(\s*([$\w]+)\s*,\s*([$\w]+)\s*\)))\s+in\s+([\s\S]+?)"
    r"(?:\s+track\s+by\s+([\s\S]+?))?$"
)
_ENTITY = re.compile(r"&(?:#\d+|#[xX][\da-fA-F]+|\w+);")

# Says how the value of an attribute of an element is read: a kind of the table, or "" where nobody knows.
KindOf = Callable[[TemplateNode, str], str]


@dataclass(frozen=True)
class ScopeName:
    """One name of the component's scope that a template uses. Offsets are bytes of its text.

    `path` are the members asked of it, with their places; `level` is how many scopes of the template
    lie between it and the component's; `up` is how many of them `$parent` went back before it. `shown`
    says that it is all of an interpolation.
    """

    name: str
    start: int
    end: int
    path: tuple[tuple[str, int, int], ...]
    written: bool
    called: bool
    shorthand: bool
    level: int
    up: int = 0
    above: int = -1
    shown: bool = False


@dataclass
class TemplateNames:
    """The names, tags and unknown attributes that a template uses, and its unread parts.

    `unread` are (what, offset); `unknown` are attributes whose meaning is not known and that mention
    something like a name: (attribute, value, offset, names); `slots` the content it has places for,
    `included` the expressions of other templates it takes in; `lists` are the names repetitions give what
    they show (`as shown`), which stand on the scope around; `elements` the normalised names of its
    elements and attributes, `values` every attribute with its value: element, normalised name, start,
    end.
    """

    names: list[ScopeName] = field(default_factory=list)
    unread: list[tuple[str, int]] = field(default_factory=list)
    unknown: list[tuple[str, str, int, tuple[ScopeName, ...]]] = field(default_factory=list)
    slots: list[str] = field(default_factory=list)
    included: list[str] = field(default_factory=list)
    elements: set[str] = field(default_factory=set)
    lists: set[str] = field(default_factory=set)
    roots: int = 0
    values: list[tuple[TemplateNode, str, int, int]] = field(default_factory=list)


def decoded(source: SourceText, start: int, end: int) -> tuple[str, list[int]]:
    """A stretch as its parser hears it, entities put in, with the byte offset of each character."""
    raw = source.slice(start, end)
    text: list[str] = []
    offsets: list[int] = []
    here, at = start, 0
    while at < len(raw):
        found = _ENTITY.match(raw, at)
        piece = found.group() if found else raw[at]
        for char in html.unescape(piece) if found else piece:
            text.append(char)
            offsets.append(here)
        here += len(piece.encode())
        at += len(piece)
    return "".join(text), [*offsets, here]


@dataclass(frozen=True)
class _Scope:
    """Names that are not the component's here, for each scope of the template, the innermost last."""

    locals: tuple[frozenset[str], ...] = (frozenset(),)

    def child(self, *names: str) -> _Scope:
        return _Scope((*self.locals, frozenset(names)))

    def more(self, *names: str) -> _Scope:
        return _Scope((*self.locals[:-1], self.locals[-1] | set(names)))

    def holds(self, name: str, up: int) -> bool:
        levels = self.locals[: len(self.locals) - up] if up else self.locals
        return any(name in level for level in levels)


class _Walker:
    def __init__(self, source: SourceText, kind_of: KindOf) -> None:
        self.source, self.kind_of = source, kind_of
        self.found = TemplateNames()
        self.inside_braces = False

    def nodes(self, nodes: list[TemplateNode], scope: _Scope) -> None:
        """Siblings: what one of them starts lasts until the one that ends it."""
        ended: list[tuple[str, _Scope]] = []
        for node in nodes:
            if node.kind == "interpolation":
                self.interpolation(*node.inner, scope)
            if node.kind != "element":
                continue
            names = {normalised(a.name) for a in node.attributes}
            for name in sorted(names):
                if name.endswith("Start") and name[:-5] in KINDS:
                    ended.append((name[:-5] + "End", scope))
            inner = self.element(node, scope)
            if any(name.endswith("Start") and name[:-5] in KINDS for name in names):
                scope = inner
            while ended and ended[-1][0] in names:
                scope = ended.pop()[1]

    def element(self, node: TemplateNode, scope: _Scope) -> _Scope:
        """One element; the scope its content is looked up in."""
        found = self.found
        found.elements.add(normalised(node.tag))
        attributes = [(normalised(a.name), a) for a in node.attributes]
        found.elements.update(name for name, _ in attributes)
        if any(name == "ngNonBindable" for name, _ in attributes):
            return scope
        if node.tag == "ng-transclude" or any(name == "ngTransclude" for name, _ in attributes):
            self.slot(node)
        outer = scope
        for name, attribute in attributes:
            base = name.removesuffix("Start") if name.endswith("Start") else name
            if base == "ngRepeat" and attribute.value is not None:
                scope = self.loop(attribute.value, outer)
            elif base in CHILD_SCOPES and base != "ngRepeat":
                if base == "ngController":
                    self.controller(attribute)
                    scope = scope.child(*_alias_of(self.text(attribute)))
                else:
                    # Its own condition is asked outside of what it opens.
                    self.attribute(node, base, attribute, scope)
                    scope = scope.child()
        for name, attribute in attributes:
            if name == "ngInit" and len(scope.locals) > 1:
                scope = scope.more(*self.begun(attribute))
        for name, attribute in attributes:
            base = name.removesuffix("Start") if name.endswith("Start") else name
            if base not in CHILD_SCOPES and not name.endswith("End"):
                self.attribute(node, base, attribute, scope)
        if node.tag in ("script", "style"):
            return scope
        self.nodes(node.children, scope)
        return scope

    def begun(self, attribute: TemplateAttribute) -> list[str]:
        """The names that a scope of the template begins with: they are written there, and its own."""
        try:
            uses = names_in(self.text(attribute))
        except ExpressionError:
            return []
        return [use.name for use in uses if use.written and not use.path and use.name]

    def text(self, attribute: TemplateAttribute) -> str:
        """The value of an attribute."""
        return decoded(self.source, *attribute.value)[0] if attribute.value else ""

    def slot(self, node: TemplateNode) -> None:
        for attribute in node.attributes:
            if normalised(attribute.name) in ("ngTransclude", "ngTranscludeSlot"):
                self.found.slots.append(self.text(attribute))
                return
        self.found.slots.append("")

    def controller(self, attribute: TemplateAttribute) -> None:
        self.found.unread.append(("a controller of its own (`ng-controller`)", attribute.start))

    def attribute(
        self, node: TemplateNode, name: str, attribute: TemplateAttribute, scope: _Scope
    ) -> None:
        """One attribute, read as its kind is."""
        if attribute.value is None:
            return
        start, end = attribute.value
        kind = KINDS.get(name) or _prefixed(name) or self.kind_of(node, name)
        if name in ("name", "ngForm") and (node.tag in ("form", "ng-form") or name == "ngForm"):
            # A form puts itself into its scope under its name.
            kind = "target" if self.source.slice(start, end).strip() else "text"
        if name in ("src", "onload") and node.tag == "ng-include":
            kind = "value" if name == "src" else "statement"
        if (name == "src" and node.tag == "ng-include") or name == "ngInclude":
            self.found.included.append(decoded(self.source, start, end)[0].strip())
        if name == "on" and node.tag == "ng-switch":
            kind = "value"
        match kind:
            case "value" | "statement" | "target":
                names = ("$event",) if kind == "statement" else ()
                self.expression(start, end, scope.more(*names), kind == "target")
            case "options":
                self.options((start, end), scope)
            case "text":
                self.interpolated(start, end, scope)
            case _:
                self.unknown(attribute, scope)
        self.found.values.append((node, name, start, end))

    def unknown(self, attribute: TemplateAttribute, scope: _Scope) -> None:
        """Read the interpolations of an unknown directive's attribute, and report the rest."""
        assert attribute.value is not None
        text = self.text(attribute)
        if "{{" in text:
            self.interpolated(*attribute.value, scope)
            return
        try:
            uses = names_in(text)
        except ExpressionError:
            return
        if any(not scope.holds(use.name, 0) for use in uses):
            before, self.found.names = self.found.names, []
            self.expression(*attribute.value, scope, False)
            names, self.found.names = tuple(self.found.names), before
            self.found.unknown.append((attribute.name, text, attribute.start, names))

    def interpolated(self, start: int, end: int, scope: _Scope) -> None:
        """The interpolations of a text."""
        text, offsets = decoded(self.source, start, end)
        for found in re.finditer(r"\{\{([\s\S]*?)\}\}", text):
            self.names(text, offsets, found.start(1), found.end(1), scope, False)

    def interpolation(self, start: int, end: int, scope: _Scope) -> None:
        text, offsets = decoded(self.source, start, end)
        self.inside_braces = True
        self.names(text, offsets, 0, len(text), scope, False)
        self.inside_braces = False

    def expression(self, start: int, end: int, scope: _Scope, target: bool) -> None:
        text, offsets = decoded(self.source, start, end)
        self.names(text, offsets, 0, len(text), scope, target)

    def names(
        self, text: str, offsets: list[int], start: int, end: int, scope: _Scope, target: bool
    ) -> None:
        """Take the component's names out of one expression."""
        try:
            uses = names_in(text, start, end)
        except ExpressionError as error:
            self.found.unread.append((f"an expression ({error})", offsets[min(error.at, end)]))
            return
        whole = text[start:end].strip().removeprefix("::").strip()
        shown = text[max(start - 2, 0) : start] == "{{" or self.inside_braces
        for number, use in enumerate(uses):
            use.written |= target and number == 0
            self.use(use, offsets, scope, shown and whole == use.name)

    def use(self, use: NameUse, offsets: list[int], scope: _Scope, shown: bool) -> None:
        name, start, end, path, up = use.name, use.start, use.end, list(use.path), 0
        above = -1
        while name == "$parent" and path:
            up += 1
            above = start if above < 0 else above
            name, start, end = path.pop(0)
        if up == 0 and scope.holds(name, 0):
            return
        level = len(scope.locals) - 1
        if up and up <= level and scope.holds(name, up):
            return
        self.found.names.append(
            ScopeName(
                name,
                offsets[start],
                offsets[end],
                tuple((part, offsets[a], offsets[b]) for part, a, b in path),
                use.written and not path,
                use.called,
                use.shorthand,
                level,
                up,
                offsets[above] if above >= 0 else -1,
                shown,
            )
        )

    def loop(self, value: tuple[int, int], scope: _Scope) -> _Scope:
        """A repetition; the scope of what it repeats."""
        text, offsets = decoded(self.source, *value)
        found = _LOOP.match(text)
        item = _ITEM.match(found.group(1).strip()) if found else None
        if found is None or item is None:
            self.found.unread.append(("a repetition", value[0]))
            return scope.child()
        named = [name for name in item.groups() if name]
        inner = scope.child(*named, *REPEATED)
        self.names(text, offsets, *found.span(2), scope, False)
        if found.group(3) and is_identifier(found.group(3).strip()):
            self.found.lists.add(found.group(3).strip())
        elif found.group(3):
            self.found.unread.append(("a repetition under another name (`as`)", value[0]))
        if found.group(4):
            self.names(text, offsets, *found.span(4), inner, False)
        return inner

    def options(self, value: tuple[int, int], scope: _Scope) -> None:
        """The comprehension of a select's options."""
        text, offsets = decoded(self.source, *value)
        found = _OPTIONS.match(text)
        if found is None:
            self.found.unread.append(("a comprehension", value[0]))
            return
        named = [name for name in found.group(5, 6, 7) if name]
        inner = scope.child(*named)
        for group in (1, 2, 3, 4, 9):
            if found.group(group):
                self.names(text, offsets, *found.span(group), inner, False)
        self.names(text, offsets, *found.span(8), scope, False)


# Prefixes of attributes that set what follows: an attribute, a property, a listener.
_PREFIXES = (("ngAttr", "text"), ("ngProp", "value"), ("ngOn", "statement"))


def _prefixed(name: str) -> str:
    """How an attribute is read whose name only begins with a directive's."""
    for prefix, kind in _PREFIXES:
        if name.startswith(prefix) and name[len(prefix) :][:1].isupper():
            return kind
    return ""


def _alias_of(text: str) -> tuple[str, ...]:
    found = re.search(r"\sas\s+([\w$]+)\s*$", text)
    return (found.group(1),) if found else ()


def names_of(source: SourceText, kind_of: KindOf) -> TemplateNames:
    """Read a template's markup and what it uses. Raises `InputError` for markup that is not balanced."""
    nodes = read_markup(source, 0, len(source.data), loose=True)
    walker = _Walker(source, kind_of)
    walker.nodes(nodes, _Scope())
    # The name of a list is the template's own wherever it stands: a repetition may come later.
    walker.found.names = [n for n in walker.found.names if n.up or n.name not in walker.found.lists]
    walker.found.roots = sum(node.kind == "element" for node in nodes)
    return walker.found


__all__ = ["KindOf", "ScopeName", "TemplateNames", "decoded", "names_of"]
