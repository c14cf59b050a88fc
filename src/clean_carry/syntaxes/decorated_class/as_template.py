"""The template of a decorated class as one of a single file."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from clean_carry.source.html.display import BLOCKS
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.decorated_class.attributes import Attributes, quoted, read_attributes
from clean_carry.syntaxes.decorated_class.children import Child, Slot, slot_name
from clean_carry.syntaxes.decorated_class.markup import Flow, Part, folded, read_template
from clean_carry.syntaxes.decorated_class.microsyntax import read_starred
from clean_carry.syntaxes.decorated_class.older_notation import OlderNotation, operand
from clean_carry.syntaxes.piped_expressions import Spelling, Unread, respelled

_LOOP = {
    "$index": "index",
    "$first": "first",
    "$last": "last",
    "$even": "even",
    "$odd": "odd",
    "$count": "count",
}
# The blocks that go on with one of a kind.
_AFTER = {"if": ("else", "else if"), "else if": ("else", "else if"), "for": ("empty",)}


@dataclass
class TemplateWriter(OlderNotation):
    """Writes a template. `pieces` are the new texts with the offsets they come from; `forms` says that the
    module of forms is imported, `references` are those that code needs."""

    source: SourceText
    spelling: Spelling
    forms: bool
    references: set[str]
    # Methods that only say what tells items apart: parameters, expression.
    tracks: Mapping[str, tuple[list[str], str]]
    # The components of the project by their tags.
    children: Mapping[str, Child] = field(default_factory=dict)
    pieces: list[tuple[str, int]] = field(default_factory=list)
    notes: list[tuple[str, str, int]] = field(default_factory=list)
    templates: dict[str, TemplateNode] = field(default_factory=dict)
    loops: int = 0
    # Whether white space shows on either side of what is being written.
    beside: tuple[bool, bool] = (False, False)

    def write(self, start: int, end: int) -> None:
        """Write a stretch of the source. Raises `Unread` with an offset of the source, and `InputError`."""
        parts = read_template(self.source, start, end)
        self._named(parts)
        self.siblings(parts, self.spelling)

    def _named(self, parts: list[Part]) -> None:
        """Find the templates that have a name."""
        for part in parts:
            if isinstance(part, Flow):
                self._named(part.children)
                continue
            if part.tag == "ng-template":
                for one in part.attributes:
                    if one.name.startswith("#"):
                        self.templates[one.name[1:]] = part
            for inner in part.children:
                self._named([inner])

    def put(self, text: str, at: int) -> None:
        """Add a text that comes from an offset."""
        if text:
            self.pieces.append((text, at))

    def code(self, text: str, at: int, spelling: Spelling) -> str:
        """An expression in the new spelling. Raises `Unread` at its place."""
        try:
            return respelled(text, spelling)
        except Unread as reason:
            raise Unread(reason.what, at) from None

    # -- siblings ------------------------------------------------------------------------

    def siblings(
        self, parts: list[Part], spelling: Spelling, ends: tuple[bool, bool] = (False, False)
    ) -> None:
        """Write parts that stand beside each other. `ends` says whether white space shows at either end."""
        at, outer = 0, self.beside
        while at < len(parts):
            part = parts[at]
            if isinstance(part, TemplateNode) and self._is_named(part):
                at += 1
                behind = parts[at] if at < len(parts) else None
                if isinstance(behind, TemplateNode) and self.is_blank(behind):
                    at += 1
                continue
            if isinstance(part, Flow):
                self.beside = self._sides(parts, at, ends)
                at, spelling = self._flow(parts, at, spelling)
                continue
            if part.kind in ("text", "interpolation"):
                run = [part]
                while at + len(run) < len(parts) and _is_text(parts[at + len(run)]):
                    run.append(parts[at + len(run)])  # type: ignore[arg-type]
                shown = ends[0] and at == 0, ends[1] and at + len(run) == len(parts)
                self._text(run, spelling, shown)
                at += len(run)
                continue
            at += 1
            if part.kind == "comment":
                self.put(self.source.slice(part.start, part.end), part.start)
            elif part.kind == "element":
                self.beside = self._sides(parts, at - 1, ends)
                self.element(part, spelling)
            else:
                raise Unread(f"<{part.kind}>", part.start)
        self.beside = outer

    def _sides(self, parts: list[Part], at: int, ends: tuple[bool, bool]) -> tuple[bool, bool]:
        return self._beside(parts, at, -1, ends[0]), self._beside(parts, at, 1, ends[1])

    def _beside(self, parts: list[Part], at: int, step: int, end: bool) -> bool:
        """Whether white space shows on a side of a part: something in a line stands there."""
        at += step
        while 0 <= at < len(parts):
            part = parts[at]
            if isinstance(part, Flow):
                return True
            if part.kind == "comment" or self.is_blank(part) or self._is_named(part):
                at += step
                continue
            return part.kind != "element" or part.tag not in BLOCKS
        return end

    def _is_named(self, part: TemplateNode) -> bool:
        """Whether it is a template that is shown elsewhere."""
        return part.tag == "ng-template" and any(
            one.name.startswith("#") for one in part.attributes
        )

    def _text(self, run: list[TemplateNode], spelling: Spelling, shown: tuple[bool, bool]) -> None:
        """Texts and interpolations in a row. White space alone shows nothing: the compiler drops it."""
        whole = self.source.slice(run[0].start, run[-1].end)
        if not whole.strip():
            if "\n" in whole:
                self.put(whole, run[0].start)
            return
        for number, node in enumerate(run):
            text = self.source.slice(node.start, node.end)
            at_end = (number == 0 and shown[0]) or (number == len(run) - 1 and shown[1])
            if at_end and not text.strip():
                # The other compiler drops it beside an interpolation at an end.
                self.put("{{ ' ' }}", node.start)
                continue
            if node.kind == "interpolation":
                inner = self.source.slice(*node.inner)
                code = self.code(inner, node.start, spelling)
                lead = inner[: len(inner) - len(inner.lstrip())]
                tail = inner[len(inner.rstrip()) :]
                self.put(f"{{{{{lead}{code}{tail}}}}}", node.start)
            else:
                if re.search(r"\{[^{}]*,\s*(?:plural|select|selectordinal)\s*,", text):
                    raise Unread("a text by plural or case", node.start)
                self.put(text.replace("&ngsp;", "{{ ' ' }}"), node.start)

    # -- blocks --------------------------------------------------------------------------

    def _flow(self, parts: list[Part], at: int, spelling: Spelling) -> tuple[int, Spelling]:
        flow = parts[at]
        assert isinstance(flow, Flow)
        if flow.kind == "let":
            name, _, value = flow.given.partition("=")
            code = self.code(value, flow.given_at, spelling)
            return at + 1, spelling.within({name.strip(): operand(code)})
        chain = [flow]
        while (follower := self._follower(parts, at + 1, chain[-1].kind)) is not None:
            at, next_ = follower
            chain.append(next_)
        match flow.kind:
            case "if":
                self._conditions(chain, spelling)
            case "for":
                self._each(chain, spelling)
            case "switch":
                self._switch(flow, spelling)
            case _:
                raise Unread(f"@{flow.kind}", flow.start)
        return at + 1, spelling

    def _follower(self, parts: list[Part], at: int, kind: str) -> tuple[int, Flow] | None:
        """The block that belongs to the one before it, white space passed over, and its number."""
        while at < len(parts):
            part = parts[at]
            if isinstance(part, Flow):
                return (at, part) if part.kind in _AFTER.get(kind, ()) else None
            if not self.is_blank(part):
                return None
            at += 1
        return None

    def _conditions(self, chain: list[Flow], spelling: Spelling) -> None:
        for number, flow in enumerate(chain):
            given, _, more = flow.given.partition(";")
            inner = spelling
            head = "v-else"
            if flow.kind != "else":
                code = self.code(given, flow.given_at, spelling)
                head = f'{"v-if" if number == 0 else "v-else-if"}="{quoted(code)}"'
                alias = re.match(r"\s*as\s+([\w$]+)\s*$", more)
                if alias is not None:
                    inner = spelling.within({alias[1]: operand(code)})
                elif more.strip():
                    raise Unread(f"@if (… ;{more})", flow.given_at)
            if number:
                self.line_break(flow.start)
            self.framed(flow.children, head, inner, flow.start)

    def _each(self, chain: list[Flow], spelling: Spelling) -> None:
        flow = chain[0]
        head, *rest = [one.strip() for one in flow.given.split(";")]
        loop = re.match(r"([\w$]+)\s+of\s+(.*)$", head, re.DOTALL)
        if loop is None:
            raise Unread(f"@for ({flow.given})", flow.given_at)
        lets = {name: name for name in _LOOP}
        key = ""
        for one in rest:
            if one.startswith("let "):
                for pair in one[4:].split(","):
                    name, _, value = pair.partition("=")
                    lets[name.strip()] = value.strip()
            elif one.startswith("track"):
                key = one[5:].strip()
        items = self.code(loop[2], flow.given_at, spelling)
        locals_ = {name: _LOOP[value] for name, value in lets.items() if value in _LOOP}
        text = "".join(self._source_of(flow.children))
        directive, inner = self.loop(loop[1], items, locals_, key, text, spelling, flow.given_at)
        self.framed(flow.children, directive, inner, flow.start)
        if len(chain) > 1:
            self.line_break(chain[1].start)
            length = f"{operand(items)}?.length" if not items.endswith("()") else f"{items}?.length"
            self.framed(
                chain[1].children, f'v-if="{quoted(f"!{length}")}"', spelling, chain[1].start
            )

    def _source_of(self, parts: list[Part]) -> list[str]:
        return [self.source.slice(parts[0].start, parts[-1].end)] if parts else []

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
        """The directive of a loop, and the spelling in it. `locals_` are names with what they stand for."""
        used = {name: means for name, means in locals_.items() if _names(name, text + " " + key)}
        index = next(
            (name for name, means in used.items() if means == "index" and name[0] != "$"), ""
        )
        if not index:
            index = "index" if self.loops == 0 else f"index{self.loops + 1}"
        self.loops += 1
        meanings = {
            "index": index, "first": f"{index} === 0", "last": f"{index} === {items}.length - 1",
            "even": f"{index} % 2 === 0", "odd": f"{index} % 2 === 1", "count": f"{items}.length",
        }  # fmt: skip
        more = {item: item}
        for name, means in used.items():
            plain = means in ("index", "count")
            more[name] = meanings[means] if plain else f"({meanings[means]})"
        inner = spelling.within(more)
        own = self.code(key, at, inner) if key else ""
        if own in ("", item, index):
            own = index
            self.notes.append(("tracked-by-place", items, at))
        names = f"({item}, {index})"
        if own != index and not any(
            means != "index" or name != "$index" for name, means in used.items()
        ):
            names = item if not _names(index, own) and "$index" not in used else names
        return f'v-for="{names} in {quoted(items)}" :key="{quoted(own)}"', inner

    def _switch(self, flow: Flow, spelling: Spelling) -> None:
        subject = self.code(flow.given, flow.given_at, spelling)
        first, tests = True, list[str]()
        for part in flow.children:
            if not isinstance(part, Flow):
                continue
            if part.kind == "case":
                tests.append(
                    f"{operand(subject)} === {self.code(part.given, part.given_at, spelling)}"
                )
                if not part.end or (
                    not part.children and part.end <= part.given_at + len(part.given) + 2
                ):
                    continue
                head = f'{"v-if" if first else "v-else-if"}="{quoted(" || ".join(tests))}"'
            elif part.kind == "default":
                head = "v-else" if not first else 'v-if="true"'
            else:
                raise Unread(f"@{part.kind}", part.start)
            if not first:
                self.line_break(part.start)
            first, tests = False, []
            self.framed(part.children, head, spelling, part.start)

    def line_break(self, at: int) -> None:
        self.put(f"\n{self.source.indent_at(at)}", at)

    def framed(self, parts: list[Part], head: str, spelling: Spelling, at: int) -> None:
        """Content under a directive: on its only element, or on a template around it."""
        shown = [part for part in parts if isinstance(part, Flow) or not self.is_blank(part)]
        only = shown[0] if len(shown) == 1 else None
        if isinstance(only, TemplateNode) and only.kind == "element" and _takes(only):
            first = len(self.pieces)
            self.element(only, spelling, head)
            self.dedent(first, only.start, at)
            return
        self.put(f"<template {head}>", at)
        self.siblings(parts, spelling, self.beside)
        self.put("</template>", at)

    def is_blank(self, part: TemplateNode) -> bool:
        return part.kind == "text" and not self.source.slice(part.start, part.end).strip()

    # -- elements ------------------------------------------------------------------------

    def element(self, node: TemplateNode, spelling: Spelling, head: str = "") -> None:
        """Write an element; `head` is a directive that it gets."""
        starred = next((one for one in node.attributes if one.name.startswith("*")), None)
        if starred is not None:
            value = self.source.slice(*starred.value) if starred.value is not None else ""
            try:
                read = read_starred(value)
            except Unread as reason:
                raise Unread(reason.what, starred.start) from None
            bare = [one for one in node.attributes if one is not starred]
            plain = TemplateNode(
                node.kind, node.start, node.end, node.inner, node.tag, bare, node.children,
                node.closed_itself,
            )  # fmt: skip
            self.starred(starred.name[1:], read, plain, spelling, starred.start)
            return
        if node.tag == "ng-template":
            if any(one.name.startswith("#") for one in node.attributes):
                return
            raise Unread("<ng-template> without a name", node.start)
        if node.tag == "ng-content":
            self._slot(node, head)
            return
        if node.attribute("[ngTemplateOutlet]") is not None:
            raise Unread("[ngTemplateOutlet]", node.start)
        switch = node.attribute("[ngSwitch]")
        if switch is not None:
            self.old_switch(node, spelling, head)
            return
        if node.tag == "ng-container":
            self._container(node, spelling, head)
            return
        child = self.children.get(node.tag)
        if child is None and "-" in node.tag:
            raise Unread(f"<{node.tag}>", node.start)
        self._plain(node, spelling, head, child)

    def _plain(
        self, node: TemplateNode, spelling: Spelling, head: str, child: Child | None = None
    ) -> None:
        tag = node.tag if child is None else child.name
        made = self.attributes_of(node, spelling, child)
        lead = f" {head}" if head else ""
        open_end = node.inner[0] if not node.closed_itself else node.end
        last = max(
            (one.end for one in node.attributes), default=node.start + 1 + len(node.tag.encode())
        )
        found = re.search(r"\s*/?>$", self.source.slice(last, open_end))
        tail = found.group() if found is not None else ">"
        parts = self.folded_content(node)
        empty = child is not None and all(self._is_nothing(one) for one in parts)
        if empty and not node.closed_itself:
            # White space alone is no content.
            tail = " />"
        self.put(f"<{tag}{lead}{made.written()}{tail}", node.start)
        if node.closed_itself or node.inner[0] == node.end or empty:
            return
        if child is not None:
            self._given(parts, child, spelling, node)
        else:
            inline = node.tag not in BLOCKS
            self.siblings(parts, spelling, (inline, inline))
        self.put(f"</{tag}>", node.inner[1])

    def _is_nothing(self, part: Part) -> bool:
        return isinstance(part, TemplateNode) and self.is_blank(part)

    def _given(
        self, parts: list[Part], child: Child, spelling: Spelling, node: TemplateNode
    ) -> None:
        """The content of a component, each part for its slot."""
        slots = [child.slot_of(one, self.source) for one in parts]
        if not any(slots):
            self.siblings(parts, spelling)
            return
        if any(isinstance(one, Flow) and one.kind == "let" for one in parts):
            raise Unread("@let beside content for slots", parts[0].start)
        for slot in child.slots:
            own = [part for part, its in zip(parts, slots, strict=True) if its == slot]
            if own:
                self.line_break(own[0].start)
                self._for_slot(slot, own, spelling)
        rest = [part for part, its in zip(parts, slots, strict=True) if its is None]
        if not all(self._is_nothing(one) for one in rest):
            shown = [one for one in rest if not self._is_nothing(one)]
            self.line_break(shown[0].start)
            self.siblings(rest[rest.index(shown[0]) : rest.index(shown[-1]) + 1], spelling)
        self.line_break(node.start)

    def _for_slot(self, slot: Slot, parts: list[Part], spelling: Spelling) -> None:
        """The content for a slot with a name, in a template of its own."""
        self.put(f"<template #{slot.name}>", parts[0].start)
        for part in parts:
            told = part.attribute("ngProjectAs") if isinstance(part, TemplateNode) else None
            if told is not None and isinstance(part, TemplateNode):
                bare = [one for one in part.attributes if one is not told]
                part = replace(part, attributes=bare)
            self.siblings([part], spelling)
        self.put("</template>", parts[-1].start)

    def attributes_of(
        self, node: TemplateNode, spelling: Spelling, child: Child | None = None
    ) -> Attributes:
        shown = node.attribute("[value]")
        if shown is not None and node.tag in ("input", "textarea"):
            code = self.source.slice(*shown.value) if shown.value is not None else ""
            self.notes.append(("value-in-step", code, shown.start))
        return read_attributes(
            node,
            self.source,
            spelling,
            forms=self.forms,
            references=self.references,
            of_child=child.attribute if child is not None else None,
        )

    def folded_content(self, node: TemplateNode) -> list[Part]:
        return folded(node.children, self.source)

    def _container(self, node: TemplateNode, spelling: Spelling, head: str) -> None:
        if node.attributes:
            raise Unread("<ng-container> with attributes", node.start)
        if not head:
            self.siblings(self.folded_content(node), spelling, self.beside)
            return
        self.framed(self.folded_content(node), head, spelling, node.start)

    def _slot(self, node: TemplateNode, head: str) -> None:
        select = node.attribute("select")
        value = (
            self.source.slice(*select.value)
            if select is not None and select.value is not None
            else ""
        )
        name = slot_name(value)
        attributes = f' name="{name}"' if name else ""
        lead = f" {head}" if head else ""
        if not node.children:
            self.put(f"<slot{lead}{attributes} />", node.start)
            return
        self.put(f"<slot{lead}{attributes}>", node.start)
        self.siblings(self.folded_content(node), self.spelling)
        self.put("</slot>", node.start)


def _is_text(part: Part) -> bool:
    return isinstance(part, TemplateNode) and part.kind in ("text", "interpolation")


def _names(name: str, text: str) -> bool:
    """Whether a text may name something."""
    return re.search(rf"(?<![\w$.]){re.escape(name)}(?![\w$])", text) is not None


def _takes(node: TemplateNode) -> bool:
    """Whether an element can carry a directive more."""
    taken = ("*", "[ngSwitch]")
    return node.tag != "ng-template" and not any(
        one.name.startswith(taken) for one in node.attributes
    )
