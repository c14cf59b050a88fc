"""The code in a template: every expression parsed in its place, with the offsets of the file.

One parse serves a whole template. The parser sees the file with everything blank but the expressions; the
bytes before and after each become brackets, so that each is a statement. Names that the template itself
gives (loops, content of slots) are kept apart from those of the component.
"""

from __future__ import annotations

import re
from bisect import bisect_right
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode
from clean_carry.source.text import SourceText

HANDLER = ("@", "v-on:")
BOUND = (":", "v-bind:", ".")
CONDITIONS = ("v-if", "v-else-if")
# Directives of the runtime that hold no expression.
_SILENT = ("v-else", "v-once", "v-pre", "v-cloak", "v-for")
_PARAMETERS = ("v-slot", "#", "slot-scope", "scope")
_LOOP = re.compile(rb"^(\s*)([\s\S]*?)(\s)(in|of)(\s[\s\S]*)$")
_DYNAMIC = re.compile(r"\[([^\]]+)\]")


def is_handler(attribute: TemplateAttribute) -> bool:
    """Whether an attribute holds code for an event."""
    return attribute.name.startswith(HANDLER)


def is_expression(attribute: TemplateAttribute) -> bool:
    """Whether an attribute holds an expression."""
    name = attribute.name
    if name.startswith(_PARAMETERS) and not name.startswith("v-slot-"):
        return False
    return name.startswith(BOUND) or (name.startswith("v-") and name not in _SILENT)


@dataclass(frozen=True)
class TemplateName:
    """A name a template uses that it does not give itself. `attribute` holds it, if one does.

    `through` is what stands for the instance before it; it is `hidden` where the template gives the same
    name.
    """

    node: Node
    attribute: TemplateAttribute | None
    through: Node | None = None
    hidden: bool = False


@dataclass(frozen=True)
class TemplateCode:
    """The parsed expressions of a template: a tree, its names, and each by where it starts.

    `loops` are functions of the names a loop gives, whose body is its list. `used` are the names of the
    component, in source order; `filters` those of the text filters of the older runtime.
    """

    tree: Tree
    names: Names
    values: dict[int, Node]
    handlers: dict[int, tuple[Node, ...]]
    used: tuple[TemplateName, ...] = ()
    filters: frozenset[str] = frozenset()
    loops: Mapping[int, Node] = field(default_factory=dict)


@dataclass(frozen=True)
class _Region:
    """Code in a template: where, the names the template gives there, the attribute it stands in."""

    start: int
    end: int
    given: frozenset[str]
    attribute: TemplateAttribute | None


@dataclass
class _Layer:
    """The view that is parsed, and the regions of code in it by kind."""

    source: SourceText
    view: bytearray
    values: list[_Region] = field(default_factory=list)
    handlers: list[_Region] = field(default_factory=list)
    loops: list[_Region] = field(default_factory=list)

    def visit(self, node: TemplateNode, given: frozenset[str]) -> None:
        """Lay the code of a node and of all below it."""
        if node.kind == "interpolation":
            self._value(*node.inner, given, None)
        if node.attribute("v-pre") is not None:
            return
        inside = given
        for attribute in node.attributes:
            if attribute.name == "v-for" and attribute.value is not None:
                inside |= self._loop(attribute, attribute.value, inside)
            elif attribute.name == "slot-scope" or (
                attribute.name == "scope" and node.tag == "template"
            ):
                inside |= self._parameters(attribute)
        below = inside
        for attribute in node.attributes:
            name, value = attribute.name, attribute.value
            if name.startswith(("v-slot", "#")):
                below |= self._parameters(attribute)
            elif value is not None and is_handler(attribute):
                self._handler(*value, inside, attribute)
            elif value is not None and is_expression(attribute):
                self._value(*value, inside, attribute)
            self._dynamic(attribute, inside)
        for child in node.children:
            self.visit(child, below)

    def _value(
        self, start: int, end: int, given: frozenset[str], attribute: TemplateAttribute | None
    ) -> None:
        if not self.source.data[start:end].strip():
            return
        self._lay(start, end, b"()")
        self.values.append(_Region(start, end, given, attribute))

    def _handler(
        self, start: int, end: int, given: frozenset[str], attribute: TemplateAttribute
    ) -> None:
        if not self.source.data[start:end].strip():
            return
        text = self.source.data[start:end].lstrip()
        self._lay(start, end, b"()" if text.startswith((b"function", b"async f")) else b"{}")
        self.handlers.append(_Region(start, end, given, attribute))

    def _loop(
        self, attribute: TemplateAttribute, value: tuple[int, int], given: frozenset[str]
    ) -> frozenset[str]:
        """Lay `each in list` as a function of its names, whose body is the list."""
        start, end = value
        data = self.source.data
        found = _LOOP.match(data[start:end])
        if found is None:
            self._value(start, end, given, attribute)
            return frozenset()
        self.view[start - 2] = ord(";")
        self.view[start:end] = data[start:end]
        left = found[2].strip()
        if not left.startswith(b"("):
            self.view[start - 1] = ord("(")
            self.view[start + found.start(3)] = ord(")")
        word = start + found.start(4)
        self.view[word : word + 2] = b"=>"
        self.view[end] = ord(";")
        self.loops.append(_Region(start, end, given, attribute))
        return _given_by(left.decode("utf-8", "replace"), self.source.path)

    def _parameters(self, attribute: TemplateAttribute) -> frozenset[str]:
        if attribute.value is None:
            return frozenset()
        return _given_by(self.source.slice(*attribute.value), self.source.path)

    def _dynamic(self, attribute: TemplateAttribute, given: frozenset[str]) -> None:
        """A name of an attribute that is an expression in square brackets."""
        found = _DYNAMIC.search(attribute.name)
        if found is None:
            return
        start = attribute.start + len(attribute.name[: found.start(1)].encode())
        end = start + len(found[1].encode())
        self.view[start - 1 : end + 1] = b"(" + self.source.data[start:end] + b")"
        self.view[start - 2] = ord(";")
        self.values.append(_Region(start, end, given, attribute))

    def _lay(self, start: int, end: int, brackets: bytes) -> None:
        self.view[start - 2] = ord(";")
        self.view[start - 1] = brackets[0]
        self.view[start:end] = self.source.data[start:end]
        self.view[end : end + 1] = brackets[1:]


def read_code(source: SourceText, template: TemplateNode) -> TemplateCode:
    """Parse all code of a template. Raises `InputError` where it is no JavaScript."""
    layer = _Layer(source, source.blanked())
    for node in template.children:
        layer.visit(node, frozenset())
    tree = Tree(source, bytes(layer.view))
    names = Names(tree)
    by_start = {node.start: node for node in tree.root.named_children}
    values: dict[int, Node] = {}
    handlers: dict[int, tuple[Node, ...]] = {}
    for region in layer.values:
        statement = by_start.get(region.start - 1)
        inner = statement.named_children[0].named_children if statement is not None else []
        if len(inner) == 1:
            values[region.start] = inner[0]
    for region in layer.handlers:
        statement = by_start.get(region.start - 1)
        if statement is not None:
            handlers[region.start] = tuple(statement.named_children)
    loops = {
        region.start: function
        for region in layer.loops
        for function in tree.of("arrow_function")
        if region.start - 1 <= function.start < region.end
        and function.parent is not None
        and function.parent.parent is tree.root
    }
    filters, calls = _filters(layer.values, values)
    used = tuple(n for n in _used(layer, names) if id(n.node) not in calls)
    return TemplateCode(tree, names, values, handlers, used, filters, loops)


def _used(layer: _Layer, names: Names) -> Iterator[TemplateName]:
    """Yield the free names of an expression that the template around it does not provide."""
    regions = sorted((*layer.values, *layer.handlers, *layer.loops), key=lambda r: r.start)
    starts = [region.start for region in regions]
    loops = {region.start for region in layer.loops}
    for ref, binding in names.references_in(names.tree.root):
        region = regions[max(0, bisect_right(starts, ref.start) - 1)] if regions else None
        if region is None or (binding is not None and region.start not in loops):
            continue
        part = _through(ref) if ref.text == "$data" else None
        if part is not None:
            yield TemplateName(part, region.attribute, ref)
        elif ref.text not in region.given:
            yield TemplateName(ref, region.attribute)
    for this in names.tree.of("this"):
        region = regions[max(0, bisect_right(starts, this.start) - 1)] if regions else None
        part = _through(this)
        if region is not None and part is not None:
            hidden = part.text in region.given
            yield TemplateName(part, region.attribute, this, hidden)


def _through(holder: Node) -> Node | None:
    """The member that is asked of the instance: `tide` in `this.tide` and `$data.tide`."""
    above = holder.parent
    if above is None or above.type != "member_expression" or holder.field != "object":
        return None
    return above.child("property")


def _filters(regions: list[_Region], values: dict[int, Node]) -> tuple[frozenset[str], set[int]]:
    """The names of filters (`value | name(…)`), and the nodes that are them."""
    found: set[str] = set()
    nodes: set[int] = set()
    for region in regions:
        node = values.get(region.start)
        while node is not None and node.type == "binary_expression" and node.has("|"):
            right = node.child("right")
            name = right.child("function") if right and right.type == "call_expression" else right
            if name is not None and name.type == "identifier":
                found.add(name.text)
                nodes.add(id(name))
            node = node.child("left")
    return frozenset(found), nodes


def _given_by(text: str, path: str) -> frozenset[str]:
    """The names that parameters declare."""
    if not text.strip():
        return frozenset()
    inner = text.strip()
    form = f"({inner}) => 0" if not inner.startswith("(") else f"{inner} => 0"
    try:
        tree = Tree(SourceText(path, form.encode()))
    except InputError:
        return frozenset(re.findall(r"[\w$]+", inner))
    functions = tree.of("arrow_function")
    scope = Names(tree).inner_scope(functions[0]) if functions else None
    return frozenset(name for name in scope.names) if scope is not None else frozenset()
