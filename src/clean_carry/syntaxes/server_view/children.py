"""Child components in a view that is written: their tags, what they are given, and their content."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from pathlib import Path

from clean_carry.component.fragment import Fragment, settled
from clean_carry.component.markup import (
    BoundAttribute,
    Content,
    Element,
    Handler,
    Key,
    Markup,
    StaticAttribute,
    TwoWay,
)
from clean_carry.source.javascript.tree import Node
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import ScriptFile
from clean_carry.syntaxes.server_view.expressions import Expressions
from clean_carry.syntaxes.server_view.names import class_of, view_of
from clean_carry.syntaxes.unsaid import Unsaid

_RULE = "child-in-view"
_ENDING = ".vue"
_FLAG = r"\b{}['\"]?\s*:\s*(?:Boolean\b|\{{[^{{}}]*\btype\s*:\s*Boolean\b)"


@dataclass
class Children:
    """The child components of one file, by the imports of its script."""

    file: ScriptFile
    workspace: Workspace
    used: set[str] = field(default_factory=set)

    def tag(self, tag: str, at: int) -> tuple[str, Path]:
        """The tag of a child's view, and the child's file. Raises `Unsaid`."""
        request = self._request(tag)
        place = self.workspace.resolve(request) if request else None
        if place is None:
            raise Unsaid("child-not-found", f"<{tag}>", at)
        if not self.workspace.is_carried(request):
            raise Unsaid("child-not-carried", f"<{tag}>", at)
        if place.resolve().parent != self.workspace.file.resolve().parent:
            # Its view stands in another folder of views, which tags do not name.
            raise Unsaid("view-markup-unread", f"<{tag}>, a child of another folder", at)
        self.used.add(request)
        return f"x-{view_of(class_of(place.name.partition('.')[0]))}", place

    def is_used(self, statement: Node) -> bool:
        """Whether a statement imports a child that the view uses."""
        origin = statement.child("source") if statement.type == "import_statement" else None
        return origin is not None and origin.text[1:-1] in self.used

    def _request(self, tag: str) -> str:
        """The request that imports what a tag means, "" where none does."""
        plain = tag.replace("-", "").lower()
        for name, binding in self.file.names.module.names.items():
            if binding.kind != "import" or name.lower() != plain:
                continue
            statement = next(up for up in binding.node.up() if up.type == "import_statement")
            origin = statement.child("source")
            if origin is not None and origin.text[1:-1].endswith(_ENDING):
                return origin.text[1:-1]
        return ""


@dataclass
class ChildAttributes:
    """Writes what a child is given. `settled` are the entries of what was written."""

    source: SourceText
    expressions: Expressions
    settled: Fragment

    def written(self, node: Element, child: Path) -> str:
        """The attributes of a child's tag, with a space before each. Raises `Unsaid`."""
        texts = (self._one(one, node, child) for one in node.attributes)
        return "".join(f" {text}" for text in texts if text)

    def _one(self, one: object, node: Element, child: Path) -> str:
        entry = getattr(one, "entry", -1)
        if entry >= 0:
            self.settled += settled(entry, _RULE)
        match one:
            case StaticAttribute():
                return self._static(one, child)
            case BoundAttribute():
                return self._bound(one)
            case Key():
                self.expressions.passed_over(one.code)
                return ""
            case Handler():
                raise Unsaid("runs-in-browser", f"the listener of {one.event}", one.code.span.start)
            case TwoWay():
                raise Unsaid("runs-in-browser", "a value bound both ways", one.code.span.start)
        raise Unsaid(
            "view-markup-unread", f"a {type(one).__name__.lower()} of a child", node.span.start
        )

    def _static(self, one: StaticAttribute, child: Path) -> str:
        if one.value is not None:
            value = self.source.slice(*one.value[:2])
            if "{{" in value or "@" in value:
                raise Unsaid("view-markup-unread", f"the attribute {one.name}", one.value[0])
            return f'{one.name}="{value}"'
        name = re.sub(r"-(\w)", lambda found: found[1].upper(), one.name)
        text = child.read_text("utf-8", "replace")
        # A flag without a value is true; any other input gets a text without signs.
        flag = re.search(_FLAG.format(re.escape(name)), text) is not None
        return f':{one.name}="{"true" if flag else chr(39) * 2}"'

    def _bound(self, one: BoundAttribute) -> str:
        at = one.code.span.start
        expr = self.expressions.read(one.code)
        if expr.type.missing:
            raise Unsaid("not-said-in-view", f"the input {one.name}, which may be missing", at)
        if one.name in ("class", "style") and expr.type.kind != "text":
            raise Unsaid("view-markup-unread", f"a bound {one.name} of a child", at)
        text = self.expressions.said_of(expr, "value", at)
        if '"' in text:
            raise Unsaid("not-said-in-view", f"the input {one.name}", at)
        dashed = re.sub(r"(?<=[a-z0-9])([A-Z])", lambda found: f"-{found[1].lower()}", one.name)
        return f':{dashed}="{text}"'


def content_of(node: Element) -> list[tuple[str, tuple[Markup, ...], int]]:
    """The content of a child by its slots, the default one under "", with the entries. Raises `Unsaid`."""
    found: list[tuple[str, tuple[Markup, ...], int]] = []
    rest: list[Markup] = []
    for one in node.children:
        if not isinstance(one, Content):
            rest.append(one)
            continue
        if one.parameters is not None:
            raise Unsaid("view-markup-unread", "content that is given values", one.span.start)
        if one.name in ("", "default"):
            found.append(("", one.children, one.entry))
        else:
            found.append((one.name, one.children, one.entry))
    if rest:
        found.append(("", tuple(rest), -1))
    return found
