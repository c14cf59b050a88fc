"""Structure in the older notation of templates: starred attributes, and switches by an attribute."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping

from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.decorated_class.attributes import Attributes, quoted
from clean_carry.syntaxes.decorated_class.markup import Part
from clean_carry.syntaxes.decorated_class.microsyntax import Starred
from clean_carry.syntaxes.piped_expressions import Spelling, Unread, grouped

_SIMPLE = re.compile(r"[\w$]+(?:\.[\w$]+|\[[\w$]+\])*(?:\(\))?$")


class OlderNotation:
    """Writes structure in the older notation. The methods that it calls are those of the template's
    writer."""

    source: SourceText
    pieces: list[tuple[str, int]]
    templates: dict[str, TemplateNode]
    tracks: Mapping[str, tuple[list[str], str]]
    beside: tuple[bool, bool]

    def put(self, text: str, at: int) -> None:
        """Add a text that comes from an offset."""
        raise NotImplementedError

    def code(self, text: str, at: int, spelling: Spelling) -> str:
        """An expression in the new spelling. Raises `Unread` at its place."""
        raise NotImplementedError

    def siblings(
        self, parts: list[Part], spelling: Spelling, ends: tuple[bool, bool] = (False, False)
    ) -> None:
        """Write parts that stand beside each other."""
        raise NotImplementedError

    def element(self, node: TemplateNode, spelling: Spelling, head: str = "") -> None:
        """Write an element; `head` is a directive that it gets."""
        raise NotImplementedError

    def framed(self, parts: list[Part], head: str, spelling: Spelling, at: int) -> None:
        """Write content under a directive."""
        raise NotImplementedError

    def folded_content(self, node: TemplateNode) -> list[Part]:
        """The content of an element, with its blocks folded."""
        raise NotImplementedError

    def attributes_of(self, node: TemplateNode, spelling: Spelling) -> Attributes:
        """The attributes of an element."""
        raise NotImplementedError

    def loop(
        self,
        item: str,
        items: str,
        locals_: Mapping[str, str],
        key: str,
        text: str,
        spelling: Spelling,
        at: int,
    ) -> tuple[str, Spelling]:
        """The directive of a loop, and the spelling in it."""
        raise NotImplementedError

    def line_break(self, at: int) -> None:
        """Begin a line as far to the right as that of an offset."""
        raise NotImplementedError

    def is_blank(self, part: TemplateNode) -> bool:
        """Whether a node is white space alone."""
        raise NotImplementedError

    def old_switch(self, node: TemplateNode, spelling: Spelling, head: str) -> None:
        switch = node.attribute("[ngSwitch]")
        assert switch is not None and switch.value is not None
        subject = operand(self.code(self.source.slice(*switch.value), switch.start, spelling))
        bare = [one for one in node.attributes if one is not switch]
        plain = TemplateNode(node.kind, node.start, node.end, node.inner, node.tag, bare, [])
        is_container = node.tag == "ng-container"
        if not is_container:
            made = self.attributes_of(plain, spelling)
            lead = f" {head}" if head else ""
            self.put(f"<{node.tag}{lead}{made.written()}>", node.start)
        first = True
        for child in node.children:
            case = child.attribute("*ngSwitchCase")
            default = child.attribute("*ngSwitchDefault")
            starred = case or default
            if starred is None:
                if child.kind != "text" or self.source.slice(child.start, child.end).strip():
                    raise Unread("[ngSwitch] with other content", child.start)
                self.put(self.source.slice(child.start, child.end), child.start)
                continue
            if case is not None and case.value is not None:
                code = self.code(self.source.slice(*case.value), case.start, spelling)
                own = f'{"v-if" if first else "v-else-if"}="{quoted(f"{subject} === {code}")}"'
            else:
                own = "v-else" if not first else 'v-if="true"'
            first = False
            inner = [one for one in child.attributes if one is not starred]
            self.element(
                TemplateNode(
                    child.kind, child.start, child.end, child.inner, child.tag, inner, child.children,
                    child.closed_itself,
                ),
                spelling,
                own,
            )  # fmt: skip
        if not is_container:
            self.put(f"</{node.tag}>", node.inner[1])

    # -- starred attributes --------------------------------------------------------------

    def starred(
        self, name: str, read: Starred, node: TemplateNode, spelling: Spelling, at: int
    ) -> None:
        match name:
            case "ngIf":
                self._if(read, node, spelling, at)
            case "ngFor":
                items = self.code(read.keys.get("of", ""), at, spelling)
                item = next((one for one, means in read.lets.items() if not means), "")
                if not item or not items:
                    raise Unread("*ngFor", at)
                if read.alias:
                    raise Unread("*ngFor … as …", at)
                locals_ = {one: means for one, means in read.lets.items() if means}
                track = read.keys.get("trackBy", "")
                text = self.source.slice(node.start, node.end)
                index = next((one for one, means in locals_.items() if means == "index"), "$index")
                key = f"{track}({index}, {item})" if track else ""
                told = self.tracks.get(track.removeprefix("this."))
                if told is not None:
                    key = _in_terms_of(told, (index, item))
                head, inner = self.loop(
                    item,
                    items,
                    {"$index": "index", **locals_} if track else locals_,
                    key,
                    text,
                    spelling,
                    at,
                )
                self.element(node, inner, head)
            case "ngTemplateOutlet":
                self._outlet(read, node, spelling, at)
            case _:
                raise Unread(f"*{name}", at)

    def _if(self, read: Starred, node: TemplateNode, spelling: Spelling, at: int) -> None:
        code = self.code(read.value, at, spelling)
        inner = spelling.within({read.alias: operand(code)}) if read.alias else spelling
        then = read.keys.get("then")
        if then is not None:
            raise Unread("*ngIf … then", at)
        self.element(node, inner, f'v-if="{quoted(code)}"')
        other = read.keys.get("else")
        if other is None:
            return
        template = self.templates.get(other)
        if template is None:
            raise Unread(f"*ngIf … else {other}", at)
        self.line_break(node.start)
        self._elsewhere(
            template,
            node,
            lambda: self.framed(self.folded_content(template), "v-else", spelling, template.start),
        )

    def _outlet(self, read: Starred, node: TemplateNode, spelling: Spelling, at: int) -> None:
        template = self.templates.get(read.value.strip())
        if template is None or node.tag != "ng-container" or node.attributes:
            raise Unread("*ngTemplateOutlet", at)
        given = self._context(read.keys.get("context", ""), spelling, at)
        lets: dict[str, str] = {}
        for one in template.attributes:
            if one.name.startswith("let-"):
                key = self.source.slice(*one.value) if one.value is not None else "$implicit"
                lets[one.name[4:]] = given.get(key, "undefined")
        self._elsewhere(
            template,
            node,
            lambda: self.siblings(
                self.folded_content(template), spelling.within(lets), self.beside
            ),
        )

    def _elsewhere(
        self, template: TemplateNode, node: TemplateNode, write: Callable[[], None]
    ) -> None:
        """Write what stands in another place, its lines as far to the right as they are here."""
        first = len(self.pieces)
        write()
        inner = next((one for one in template.children if not self.is_blank(one)), template)
        self.dedent(first, inner.start, node.start)
        while len(self.pieces) > first and not self.pieces[-1][0].strip():
            self.pieces.pop()
        while len(self.pieces) > first and not self.pieces[first][0].strip():
            self.pieces.pop(first)

    def dedent(self, first: int, old: int, new: int) -> None:
        """Move the lines of pieces from the depth of one place of the source to that of another."""
        less = len(self.source.indent_at(old)) - len(self.source.indent_at(new))
        if less > 0:
            own = self.pieces[first:]
            self.pieces[first:] = [(re.sub(rf"\n {{{less}}}", "\n", text), at) for text, at in own]

    def _context(self, text: str, spelling: Spelling, at: int) -> dict[str, str]:
        """The values of a context object by name."""
        if not text:
            return {}
        found = {}
        inner = text.strip()
        if not (inner.startswith("{") and inner.endswith("}")):
            raise Unread("a context that is no object", at)
        root = grouped(inner).parts[0]
        assert not hasattr(root, "text")
        starts = [root.open.at + 1]  # type: ignore[union-attr]
        cuts = [p.at for p in root.parts if getattr(p, "text", "") == ","]  # type: ignore[union-attr]
        starts += [cut + 1 for cut in cuts]
        ends = [*cuts, root.close.at]  # type: ignore[union-attr]
        for start, end in zip(starts, ends, strict=True):
            key, _, value = inner[start:end].partition(":")
            if value:
                found[key.strip().strip("'\"")] = operand(self.code(value, at, spelling))
        return found


def _in_terms_of(told: tuple[list[str], str], names: tuple[str, str]) -> str:
    """The expression of a method with other names for its parameters."""
    text = told[1]
    for parameter, name in zip(told[0], names, strict=False):
        text = re.sub(rf"(?<![\w$.]){re.escape(parameter)}(?![\w$])", name, text)
    return text


def operand(code: str) -> str:
    """Code as a part of other code."""
    return code if _SIMPLE.match(code) else f"({code})"
