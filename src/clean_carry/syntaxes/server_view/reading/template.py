"""The markup of a view as the template of a single file: the bytes stay, but for the marks."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from clean_carry.source.expressions.model import Apply, Constant, Expr, Unsayable
from clean_carry.source.expressions.types import TEXT
from clean_carry.source.html.display import BLOCKS as SHOWN_AS_BLOCKS
from clean_carry.source.text import SourceText
from clean_carry.source.view.marks import Mark
from clean_carry.source.view.tree import Block, Part, Piece, Tag
from clean_carry.syntaxes.server_view.reading.attributes import quoted
from clean_carry.syntaxes.server_view.reading.blocks import LATER, Blocks
from clean_carry.syntaxes.server_view.reading.children import child_of, name_of, request_to
from clean_carry.syntaxes.server_view.reading.nesting import lacks_body

# Elements that mean something else in a template, and those that do something in a page.
_OTHER_TAGS = frozenset(
    (
        "slot template component keep-alive keepalive transition transition-group teleport suspense "
        "router-view router-link script style link meta base title noscript textarea pre"
    ).split()
)
_SPACE = "{{ ' ' }}"


@dataclass
class TemplateReading(Blocks):
    """Writes a template. `passes_on` says that an element takes the attributes of the parent. `children`
    are the requests of other views, by the names of their imports."""

    passes_on: bool = False
    children: dict[str, str] = field(default_factory=dict)

    def write(self, parts: list[Part]) -> None:
        """Write a whole template. Raises `Unsayable`."""
        shown = [part for part in parts if self._shows(part)]
        root = shown[0] if len(shown) == 1 and isinstance(shown[0], Tag) else None
        self.root = root
        self.siblings(parts, (False, False))

    def _shows(self, part: Part) -> bool:
        if isinstance(part, Mark):
            return part.kind not in ("comment", "code") and part.name not in ("props", "php")
        return not self.is_blank(part)

    # -- siblings ------------------------------------------------------------------------

    def siblings(self, parts: list[Part], ends: tuple[bool, bool]) -> None:
        """Write parts that stand beside each other. `ends` says whether white space shows at either end."""
        outer = self.beside
        for at, part in enumerate(parts):
            self.beside = self._shown(parts, at, -1, ends[0]), self._shown(parts, at, 1, ends[1])
            try:
                self._part(part, parts, at)
            except Unsayable as reason:
                self.failed(reason if reason.at else Unsayable(reason.what, part.start))
        self.beside = outer

    def _part(self, part: Part, parts: list[Part], at: int) -> None:
        match part:
            case Piece():
                self._text(part, parts, at)
            case Tag():
                self.element(part)
            case Block():
                self.block(part)
            case Mark(kind="echo" | "raw"):
                self._echo(part)
            case Mark(kind="comment"):
                inner = self.source.slice(part.start + 4, part.end - 4)
                self.put(f"<!--{inner.replace('--', '- -')}-->", part.start)
            case Mark(kind="directive", name="lang") if part.given is not None:
                self.put(f"{{{{ {self.code(self.attributes.text(part))} }}}}", part.start)
            case Mark(kind="doubled"):
                self.put(self.source.slice(part.start + 1, part.end), part.start)
            case Mark(kind="directive", name="props" | "php") if part.given is not None:
                return
            case Mark(kind="code"):
                return
            case _:
                raise Unsayable(
                    self.source.slice(part.start, part.end).split("\n")[0][:40], part.start
                )

    def _shown(self, parts: list[Part], at: int, step: int, end: bool) -> bool:
        """Whether white space shows on a side of a part: something in a line stands there."""
        at += step
        while 0 <= at < len(parts):
            part = parts[at]
            if isinstance(part, Block):
                return any(self._shown(arm.children, -1, 1, False) for arm in part.arms)
            if isinstance(part, Tag):
                return part.node.tag not in SHOWN_AS_BLOCKS
            if self._shows(part) and not self._is_comment(part):
                return True
            at += step
        return end

    def _is_comment(self, part: Part) -> bool:
        return isinstance(part, Piece) and self.source.data.startswith(b"<!--", part.start)

    def _text(self, part: Piece, parts: list[Part], at: int) -> None:
        """A text. White space alone, between elements or at an end, is dropped by the other compiler."""
        text = self.source.slice(part.start, part.end)
        if "{{" in text:
            raise Unsayable("`{{` as text", part.start)
        before = parts[at - 1] if at else None
        after = parts[at + 1] if at + 1 < len(parts) else None
        if not part.shown:
            self.put("" if self._is_text(before) or self._is_text(after) else text, part.start)
            return
        if text.strip() or not all(self.beside):
            self.put(text, part.start)
            return
        plain = self._is_text(before) or self._is_text(after)
        if plain and before is not None and after is not None:
            self.put(text, part.start)
        elif "\n" in text or before is None or after is None:
            self.put(_SPACE + text if "\n" in text else _SPACE, part.start)
        else:
            self.put(text, part.start)

    def _is_text(self, part: Part | None) -> bool:
        return (isinstance(part, Piece) and not self._is_comment(part)) or (
            isinstance(part, Mark) and part.kind in ("echo", "raw") and self.slot_of(part) == ""
        )

    # -- echoes --------------------------------------------------------------------------

    def _echo(self, mark: Mark) -> None:
        name = self.slot_of(mark)
        if name:
            self.slot(name, mark.start)
            return
        if mark.kind == "raw":
            raise Unsayable(
                f"`{self.source.slice(mark.start, mark.end)}` beside other content", mark.start
            )
        if self._is_fallback(mark):
            return
        node = self.attributes.node(mark)
        value = self.names.reader.read(node)
        shown = self.names.reader.shown(value, node)
        code = self.code(value if value.type.kind in ("text", "number", "any") else shown)
        inner = self.source.slice(*mark.given) if mark.given else ""
        lead, tail = _edges(inner)
        self.put(f"{{{{{lead}{code}{tail}}}}}", mark.start)

    def _is_fallback(self, mark: Mark) -> bool:
        """Write `$footer ?? 'none'` as a slot with its fallback."""
        text = self.source.slice(*mark.given).strip() if mark.given else ""
        found = re.fullmatch(r"\$(\w+)\s*\?\?\s*'([^'\\\\<&{]+)'", text)
        if found is None or not self.names.is_slot(found[1]):
            return False
        self.put(f'<slot name="{found[1]}">{found[2]}</slot>', mark.start)
        return True

    def slot(self, name: str, at: int, head: str = "", fallback: list[Part] | None = None) -> None:
        given = "" if name == "slot" else f' name="{name}"'
        lead = f" {head}" if head else ""
        if not fallback:
            self.put(f"<slot{lead}{given} />", at)
            return
        self.put(f"<slot{lead}{given}>", at)
        self.siblings(fallback, (False, False))
        self.put("</slot>", at)

    def framed(self, parts: list[Part], head: str, at: int) -> None:
        """Content under a directive: on its only element, or on a template around it."""
        head = head or LATER
        shown = [part for part in parts if not self.is_blank(part)]
        only = shown[0] if len(shown) == 1 else None
        if isinstance(only, Tag) and not (all(self.beside) and len(parts) > 1):
            first = len(self.pieces)
            self.element(only, head)
            self._dedent(first, only.start, at)
            return
        slot = self.slot_of(only) if isinstance(only, Mark) and only.kind in ("echo", "raw") else ""
        if slot and not (all(self.beside) and len(parts) > 1):
            self.slot(slot, at, head)
            return
        self.put(f"<template {head}>", at)
        self.siblings(parts, self.beside)
        self.put("</template>", at)

    def _dedent(self, first: int, start: int, at: int) -> None:
        """Move what was written to the place of the directive around it."""
        inner, outer = self.source.indent_at(start), self.source.indent_at(at)
        extra = len(inner) - len(outer)
        if extra <= 0 or "\n" not in self.source.slice(at, start):
            return
        for number in range(first, len(self.pieces)):
            text, place = self.pieces[number]
            self.pieces[number] = (re.sub(rf"\n[ \t]{{{extra}}}", "\n", text), place)

    # -- elements ------------------------------------------------------------------------

    def element(self, tag: Tag, head: str = "") -> None:
        """Write an element; `head` is a directive that it gets."""
        node = tag.node
        if node.tag.startswith("x-"):
            self._child(tag, head)
            return
        if node.tag in _OTHER_TAGS or ":" in node.tag or node.tag[:1].isupper():
            raise Unsayable(f"<{node.tag}>", node.start)
        given = self.attributes.given(tag.given, rooted=tag is self.root)
        self.passes_on |= given.passes_on
        texts = [text for text, _ in given.texts]
        if given.plain or given.classes or given.class_at >= 0:
            texts[max(0, given.class_at) : max(0, given.class_at)] = _classes(
                given.plain, given.classes
            )
        raw = self._only_raw(tag)
        if raw is not None:
            code = self.code(self._html(raw, tag))
            texts.append(f'v-html="{quoted(code)}"')
            self.names.reader.notes.append(("escaped-raw", code, raw.start))
        lines = self._lines(tag, texts, head)
        closes = "/>" if node.closed_itself else ">"
        gap = (
            " "
            if node.closed_itself and self.source.data[node.end - 3 : node.end - 2] == b" "
            else ""
        )
        self.put(f"<{node.tag}{lines}{gap}{closes}", node.start)
        if node.closed_itself or node.inner[0] == node.end:
            return
        body = lacks_body(tag)
        self.put("<tbody>" if body else "", node.inner[0])
        if raw is None:
            inline = node.tag not in SHOWN_AS_BLOCKS
            self.siblings(tag.children, (inline, inline))
        self.put(f"{'</tbody>' if body else ''}</{node.tag}>", node.inner[1])

    # -- children ------------------------------------------------------------------------

    def _child(self, tag: Tag, head: str) -> None:
        """Write a view that is used by its tag, with its content for each slot."""
        node = tag.node
        path = child_of(self.view, node.tag)
        if path is None:
            raise Unsayable(f"<{node.tag}>, whose view was not found", node.start)
        name = name_of(node.tag)
        self.children[name] = request_to(self.view, path)
        given = self.attributes.for_child(tag.given, self.types_of(path))
        self.passes_on |= given.passes_on
        lines = self._lines(tag, [text for text, _ in given.texts], head)
        slots = [
            part for part in tag.children if isinstance(part, Tag) and _slot_name(part, self.source)
        ]
        rest = [part for part in tag.children if part not in slots]
        shown = [part for part in rest if not self.is_blank(part)]
        if not slots and not shown:
            self.put(f"<{name}{lines} />", node.start)
            return
        self.put(f"<{name}{lines}>", node.start)
        for slot in slots:
            self.line_break(slot.start)
            self.put(f"<template #{_slot_name(slot, self.source)}>", slot.start)
            self._content(slot.children)
            self.put("</template>", slot.end)
        if shown:
            if slots:
                self.line_break(shown[0].start)
                rest = rest[rest.index(shown[0]) : rest.index(shown[-1]) + 1]
            self._content(rest)
        if slots:
            self.line_break(node.start)
        self.put(f"</{name}>", node.inner[1])

    def _content(self, parts: list[Part]) -> None:
        """Content for a slot, which is given without white space at its ends."""
        first = len(self.pieces)
        self.siblings(parts, (False, False))
        if len(self.pieces) == first:
            return
        shown = [part for part in parts if not self.is_blank(part)]
        if shown and isinstance(shown[0], Piece):
            text, at = self.pieces[first]
            self.pieces[first] = (text.lstrip(), at)
        if shown and isinstance(shown[-1], Piece):
            text, at = self.pieces[-1]
            self.pieces[-1] = (text.rstrip(), at)

    def _value(self, mark: Mark) -> Expr:
        return self.names.reader.read(self.attributes.node(mark))

    def _html(self, mark: Mark, tag: Tag) -> Expr:
        """HTML that is shown as all of an element's content, with the white space around it."""
        shown = self.names.reader.shown(self._value(mark), self.attributes.node(mark))
        blanks = [part for part in tag.children if self.is_blank(part)]
        if tag.node.tag in SHOWN_AS_BLOCKS or not blanks:
            return shown
        before = [Constant(TEXT, " ")] if blanks[0].start < mark.start else []
        after = [Constant(TEXT, " ")] if blanks[-1].start > mark.start else []
        return Apply(TEXT, "text.join", (*before, shown, *after))

    def _only_raw(self, tag: Tag) -> Mark | None:
        """The echo of HTML that is all of an element's content."""
        shown = [part for part in tag.children if not self.is_blank(part)]
        only = shown[0] if len(shown) == 1 else None
        if isinstance(only, Mark) and only.kind == "raw" and not self.slot_of(only):
            return only
        return None

    def _lines(self, tag: Tag, texts: list[str], head: str) -> str:
        """The attributes, each on a line of its own where the first one stands on one."""
        node = tag.node
        end = node.start + 1 + len(node.tag.encode())
        found = re.match(rb"\s*", self.source.data[end:])
        own = found[0].decode() if found is not None else ""
        texts = [*([head] if head else []), *texts]
        if "\n" in own and tag.given:
            return "".join(f"{own}{text}" for text in texts) + self.source.slice(
                tag.given[-1].end, node.inner[0] - 1
            )
        return "".join(f" {text}" for text in texts)


def _slot_name(tag: Tag, source: SourceText) -> str:
    """The slot that an element holds the content for, "" for another element."""
    node = tag.node
    if node.tag.startswith("x-slot:"):
        return node.tag[7:]
    name = node.attribute("name") if node.tag == "x-slot" else None
    return source.slice(*name.value) if name is not None and name.value is not None else ""


def _classes(plain: list[str], classes: list[str]) -> list[str]:
    """The attributes of a class: words that are the same always, and the others."""
    found = [f'class="{" ".join(plain)}"'] if plain else []
    if len(classes) == 1:
        found.append(f':class="{quoted(classes[0])}"')
    elif classes:
        found.append(f':class="{quoted("[" + ", ".join(classes) + "]")}"')
    return found


def _edges(inner: str) -> tuple[str, str]:
    """The white space at either end of an echo."""
    lead = inner[: len(inner) - len(inner.lstrip())]
    return lead, inner[len(inner.rstrip()) :]
