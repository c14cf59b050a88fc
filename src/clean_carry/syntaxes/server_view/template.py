"""Markup of the neutral component as a view template.

White space shows between elements in a line, so that lines are broken only beside blocks. A directive is
read where no word stands before it, and its name goes as far as words go: where text is beside one, an echo
of nothing parts them (the engine's compiler, `compileStatements`).
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from contextlib import ExitStack
from dataclasses import replace

from clean_carry.component.fragment import Fragment, settled
from clean_carry.component.markup import (
    Condition,
    Content,
    Element,
    Expression,
    Group,
    Loop,
    Markup,
    MarkupComment,
    RawHtml,
    SlotOutlet,
    Text,
)
from clean_carry.component.model import Component
from clean_carry.source.expressions.types import ANY, WHOLE, Type
from clean_carry.source.html.display import BLOCKS
from clean_carry.source.template.tree import VOID
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.condensed import as_rendered, is_block
from clean_carry.syntaxes.server_view.attributes import Attributes
from clean_carry.syntaxes.server_view.children import ChildAttributes, Children, content_of
from clean_carry.syntaxes.server_view.expressions import Expressions
from clean_carry.syntaxes.server_view.names import variable
from clean_carry.syntaxes.unsaid import Unsaid

_RULE = "markup-to-view"
_NOTHING = "{{ '' }}"
# Elements in which white space between others never shows (HTML §15, tables and lists).
_NO_SPACE = frozenset(
    {"table", "thead", "tbody", "tfoot", "tr", "ul", "ol", "dl", "select", "optgroup"}
)
_OWN_SPACE = frozenset({"pre", "textarea", "listing"})


def _is_seam(nodes: list[Markup], at: int, *, edges: bool) -> bool:
    """Whether nothing shows white space in front of a node: a block stands there, whatever is rendered."""

    def ends(part: list[Markup]) -> bool:
        for one in part:
            if not is_block(one):
                return False
            if isinstance(one, Element):
                return True
        return edges

    before, after = nodes[at - 1], nodes[at]
    if any(isinstance(one, Element) and is_block(one) for one in (before, after)):
        return True
    return ends(nodes[:at][::-1]) and ends(nodes[at:])


class TemplateWriter:
    """Writes the view of one component; raises `Unsaid`. `settled` are the entries of what was written."""

    def __init__(
        self, component: Component, source: SourceText, expressions: Expressions, unit: str
    ) -> None:
        self.component, self.source, self.unit = component, source, unit
        self.expressions = expressions
        self.settled = Fragment()
        self.notes: list[tuple[str, str, int]] = []
        # Whether the root takes attributes that are no inputs.
        self.passes_on = True
        self.takes_slots = True
        self.children: Children | None = None
        # Whether white space around the next condition or list is never shown.
        self.unspaced = False
        self.attributes = Attributes(source, expressions, self.notes)

    def written(self) -> str:
        """The whole view."""
        nodes = self._plain(self.component.view.markup, edge=True)
        real = [one for one in nodes if not isinstance(one, MarkupComment)]
        self.roots = nodes
        only = real[0] if len(real) == 1 else None
        self.root = only if self.passes_on and isinstance(only, Element) else None
        return self._nodes(nodes, 0, edges=True)

    def settle(self, entry: int) -> None:
        """Settle an entry of the ledger."""
        if entry >= 0:
            self.settled += settled(entry, _RULE)

    # -- layout --------------------------------------------------------------------------------

    def _plain(self, nodes: tuple[Markup, ...], *, edge: bool) -> list[Markup]:
        """The nodes as the old template's compiler renders them."""
        flat: list[Markup] = []
        for node in self._flattened(nodes):
            flat.append(node)
        return as_rendered(flat, self.source, self.settle, edge=edge)

    def _flattened(self, nodes: tuple[Markup, ...]) -> Iterator[Markup]:
        """Nodes without groups, and without conditions whose outcome is known."""
        for node in nodes:
            if isinstance(node, Group):
                self.settle(node.entry)
                yield from node.children
            elif isinstance(node, Condition) and self.expressions.types.fixed:
                yield from self._flattened_condition(node)
            else:
                yield node

    def _flattened_condition(self, node: Condition) -> Iterator[Markup]:
        """A condition without the arms that are never shown; the content alone of one that always is."""
        arms = []
        for arm in node.branches:
            known = self.expressions.known(arm.test) if arm.test is not None else None
            if known is None:
                arms.append(arm)
                if arm.test is None:
                    break
                continue
            self.settle(arm.entry)
            assert arm.test is not None
            self.expressions.passed_over(arm.test)
            if known != arm.negated:
                arms.append(replace(arm, test=None, negated=False, entry=-1))
                break
        if arms and arms[0].test is None:
            self.settle(arms[0].entry)
            yield from self._flattened(arms[0].children)
        elif arms:
            yield replace(node, branches=tuple(arms))

    def _nodes(self, nodes: list[Markup], depth: int, *, edges: bool) -> str:
        """Nodes beside each other. `edges` says that white space at either end is not seen."""
        line = f"\n{self.unit * depth}"
        parts: list[str] = []
        for at, node in enumerate(nodes):
            text = self._node(node, depth)
            if at and _is_seam(nodes, at, edges=edges):
                parts.append(line)
            elif at:
                parts.append(_between(parts[-1], text))
            parts.append(text)
        return "".join(parts)

    def _lines(self, nodes: list[Markup], depth: int) -> str:
        """The content of an element that shows no white space: each node on a line of its own."""
        line = f"\n{self.unit * (depth + 1)}"
        texts = []
        for one in nodes:
            self.unspaced = True
            texts.append(self._node(one, depth + 1))
        self.unspaced = False
        return f"{line}{line.join(texts)}\n{self.unit * depth}"

    def _inside(self, nodes: list[Markup], depth: int, *, block: bool) -> str:
        """The content between two tags or two directives: on lines of its own where nothing shows it."""
        if not nodes:
            return ""
        if not block or not any(map(is_block, nodes)):
            return self._nodes(nodes, depth, edges=block)
        inner = self._nodes(nodes, depth + 1, edges=block)
        return f"\n{self.unit * (depth + 1)}{inner}\n{self.unit * depth}"

    # -- nodes ---------------------------------------------------------------------------------

    def _node(self, node: Markup, depth: int) -> str:
        match node:
            case Text():
                return _text(node.drawn or "")
            case Expression():
                self.settle(node.entry)
                return f"{{{{ {self.expressions.said(node.code, 'shown')} }}}}"
            case Element():
                return self._element(node, depth)
            case Condition():
                return self._condition(node, depth)
            case Loop():
                return self._loop(node, depth)
            case SlotOutlet():
                return self._slot(node, depth)
            case MarkupComment():
                self.settle(node.entry)
                return f"{{{{--{self.source.slice(*node.inner[:2])}--}}}}"
        at = getattr(node, "span", (0,))[0]
        raise Unsaid("view-markup-unread", type(node).__name__.lower(), at)

    def _element(self, node: Element, depth: int) -> str:
        at = node.span.start
        if node.chosen is not None:
            raise Unsaid("view-markup-unread", "a tag that code gives", at)
        self.unspaced = False
        if node.component:
            return self._child(node, depth)
        if any(isinstance(one, Content) for one in node.children):
            raise Unsaid("view-markup-unread", "content for a slot", at)
        self.settle(node.entry)
        if node.tag == "template":
            nodes = self._plain(node.children, edge=False)
            return self._nodes(nodes, depth, edges=False)
        head = f"<{node.tag}{self.attributes.written(node, is_root=node is self.root)}"
        raw = next((one for one in node.attributes if isinstance(one, RawHtml)), None)
        if node.tag in VOID:
            return f"{head}>"
        if raw is not None:
            self.settle(raw.entry)
            text = self.source.slice(*raw.code.span[:2])
            self.notes.append(("escaped-raw", text[:40], raw.code.span.start))
            return f"{head}>{{!! {self.expressions.said(raw.code, 'shown')} !!}}</{node.tag}>"
        nodes = self._plain(node.children, edge=False)
        if node.tag in _OWN_SPACE and not all(isinstance(one, Expression) for one in nodes):
            raise Unsaid("view-markup-unread", f"<{node.tag}>, which keeps its white space", at)
        if node.tag in _NO_SPACE and any(isinstance(one, Element | Loop) for one in nodes):
            inner = self._lines(nodes, depth)
            return f"{head}>{inner}</{node.tag}>"
        inner = self._inside(nodes, depth, block=node.tag in BLOCKS)
        return f"{head}>{inner}</{node.tag}>"

    def _child(self, node: Element, depth: int) -> str:
        """The use of a child's view, with its content."""
        if self.children is None:
            raise Unsaid("view-markup-unread", f"the component <{node.tag}>", node.span.start)
        tag, place = self.children.tag(node.tag, node.span.start)
        self.settle(node.entry)
        given = ChildAttributes(self.source, self.expressions, Fragment())
        head = f"<{tag}{given.written(node, place)}"
        self.settled += given.settled
        if node is self.root:
            head += " {{ $attributes }}"
        texts = []
        for name, children, entry in content_of(node):
            self.settle(entry)
            nodes = self._plain(children, edge=True)
            inner = self._nodes(nodes, depth + 1, edges=True)
            if inner:
                texts.append(f'<x-slot name="{name}">{inner}</x-slot>' if name else inner)
        if not texts:
            return f"{head} />"
        line = f"\n{self.unit * (depth + 1)}"
        return f"{head}>{line}{line.join(texts)}\n{self.unit * depth}</{tag}>"

    def _condition(self, node: Condition, depth: int) -> str:
        result, block = "", is_block(node) or self.unspaced
        self.unspaced = False
        with ExitStack() as failed:
            for number, arm in enumerate(node.branches):
                self.settle(arm.entry)
                word = "if" if not number else "elseif"
                head = "@else"
                if arm.test is not None:
                    test = self.expressions.said(arm.test, "truth")
                    head = f"@{word} ({f'!({test})' if arm.negated else test})"
                with self.expressions.where(arm.test, holds=not arm.negated):
                    nodes = self._plain(arm.children, edge=False)
                    result += head + self._arm(nodes, depth, block=block)
                failed.enter_context(self.expressions.where(arm.test, holds=arm.negated))
        return f"{result}@endif"

    def _arm(self, nodes: list[Markup], depth: int, *, block: bool) -> str:
        """The content of a directive, up to the next one."""
        if block:
            inner = self._nodes(nodes, depth + 1, edges=False)
            return f"\n{self.unit * (depth + 1)}{inner}\n{self.unit * depth}" if inner else " "
        inner = self._nodes(nodes, depth, edges=False)
        return f"{_between('@if', inner)}{inner}{_between(inner, '@endif')}"

    def _loop(self, node: Loop, depth: int) -> str:
        self.settle(node.entry)
        block = is_block(node) or self.unspaced
        self.unspaced = False
        item = self.source.slice(*node.item.span[:2]).strip()
        index = self.source.slice(*node.index.span[:2]).strip() if node.index is not None else ""
        if not re.fullmatch(r"[A-Za-z_]\w*", item) or not re.fullmatch(r"(?:[A-Za-z_]\w*)?", index):
            raise Unsaid("view-markup-unread", f"a list whose items are {item}", node.span.start)
        items = self.expressions.read(node.items)
        type_ = items.type
        if type_.kind == "number":
            head, names = self._counted(node, item, index)
        elif type_.kind == "list":
            value = self.expressions.said_of(items, "value", node.span.start)
            value = f"{value} ?? []" if type_.missing else value
            names = {item: type_.item or ANY}
            head = f"@foreach ({value} as {f'${index} => ' if index else ''}${item})"
        else:
            raise Unsaid("not-said-in-view", "the items of a list", node.items.span.start)
        if index:
            names[index] = WHOLE
        for code in (node.item, *([node.index] if node.index is not None else [])):
            self.expressions.passed_over(code)
        with self.expressions.within(names):
            nodes = self._plain(node.children, edge=False)
            inner = self._arm(nodes, depth, block=block)
        return f"{head}{inner}{'@endfor' if head.startswith('@for (') else '@endforeach'}"

    def _counted(self, node: Loop, item: str, index: str) -> tuple[str, dict[str, Type]]:
        if index:
            raise Unsaid("view-markup-unread", "a counted list with places", node.span.start)
        most = self.expressions.said(node.items, "value")
        return f"@for (${item} = 1; ${item} <= {most}; ${item}++)", {item: WHOLE}

    def _slot(self, node: SlotOutlet, depth: int) -> str:
        if not self.takes_slots:
            raise Unsaid("view-markup-unread", "a slot", node.span.start)
        self.settle(node.entry)
        if node.given:
            raise Unsaid("view-markup-unread", "a slot that gives values", node.span.start)
        name = variable(node.name) if node.name and node.name != "default" else ""
        shown = f"{{{{ ${name or 'slot'} }}}}" if not name else f"{{{{ ${name} ?? '' }}}}"
        nodes = self._plain(node.fallback, edge=True)
        if not nodes:
            return shown
        test = "$slot->isEmpty()" if not name else f"!isset(${name})"
        inner = self._nodes(nodes, depth, edges=False)
        other = f"{{{{ ${name or 'slot'} }}}}"
        return f"@if ({test}){_between('@if', inner)}{inner}{_between(inner, '@else')}@else{other}@endif"


def _text(drawn: str) -> str:
    """Text that the engine leaves as it is: what would be a directive or an echo is marked."""
    return re.sub(r"@(?=\w)", "@@", drawn).replace("{{", "@{{").replace("{!!", "@{!!")


def _between(before: str, after: str) -> str:
    """The text that parts two others, of which one is a directive: none, or an echo of nothing."""
    ends = re.search(r"(?:^|\W)@\w+(?: \(.*\))?$|^@\w+$", before, re.DOTALL) is not None
    if ends and re.match(r"\w|\s*\(", after):
        return _NOTHING
    if re.match(r"@\w", after) and not after.startswith("@@") and re.search(r"\w$", before):
        return _NOTHING
    return ""
