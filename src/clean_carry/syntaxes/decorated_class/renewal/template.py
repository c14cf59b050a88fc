"""A template in the newer notation: control flow in blocks, and inputs that are called. All else stays."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field

from clean_carry.source.merged import Edit
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode, read_markup
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.decorated_class.markup import Flow, Part, folded
from clean_carry.syntaxes.decorated_class.microsyntax import Starred, read_starred
from clean_carry.syntaxes.piped_expressions import Spelling, Unread, free_names, respelled

_LOCALS = {name: f"${name}" for name in ("index", "first", "last", "even", "odd", "count")}


# The directives behind starred attributes.
_DIRECTIVES = {
    "*ngIf": "NgIf", "*ngFor": "NgFor", "*ngSwitchCase": "NgSwitchCase",
    "*ngSwitchDefault": "NgSwitchDefault", "*ngTemplateOutlet": "NgTemplateOutlet",
}  # fmt: skip


@dataclass
class TemplateRenewal:
    """Collects the edits of a template. `called` are names that are called to be read from now on, and
    without `blocks` its control flow stays. `stays` is what keeps its form: rule, detail, offset.
    `directives` are those that the template still needs.
    """

    source: SourceText
    called: set[str]
    unit: str = "  "
    blocks: bool = True
    edits: list[Edit] = field(default_factory=list)
    stays: list[tuple[str, str, int]] = field(default_factory=list)
    directives: set[str] = field(default_factory=set)
    # Templates by name, those whose content stands in a block now, and how often each name is used.
    templates: dict[str, TemplateNode] = field(default_factory=dict)
    moved: list[tuple[TemplateNode, int, str]] = field(default_factory=list)
    uses: dict[str, int] = field(default_factory=dict)
    # The indentation that blocks around add here, and that those of an element add to its content.
    shift: str = ""
    moves: dict[int, str] = field(default_factory=dict)

    def run(self, start: int, end: int) -> None:
        """Collect the edits of a stretch. Raises `Unread`, and `InputError` for unbalanced markup."""
        nodes = read_markup(self.source, start, end)
        for node in (inner for one in nodes for inner in one.walk()):
            if node.tag == "ng-template":
                for attribute in node.attributes:
                    if attribute.name.startswith("#"):
                        self.templates[attribute.name[1:]] = node
        code = " ".join(self._codes(nodes))
        for name in self.templates:
            self.uses[name] = len(re.findall(rf"(?<![\w$]){re.escape(name)}(?![\w$])", code))
        # A reference hides the member of its name.
        references = {
            one.name[1:]
            for node in nodes
            for inner in node.walk()
            for one in inner.attributes
            if one.name.startswith("#")
        }
        self._parts(folded(nodes, self.source), references)
        for template, at, indent in self.moved:
            self._move(template, at, indent)

    def _codes(self, nodes: list[TemplateNode]) -> Iterator[str]:
        """The code of a template: values of attributes, and interpolations."""
        for node in (inner for one in nodes for inner in one.walk()):
            if node.kind == "interpolation":
                yield self.source.slice(*node.inner)
            for one in node.attributes:
                if one.value is not None and one.name[0] in "[(*":
                    yield self.source.slice(*one.value)

    def _parts(self, parts: list[Part], hidden: set[str]) -> None:
        for part in parts:
            if isinstance(part, Flow):
                inner = hidden | self._flow(part, hidden)
                self._parts(part.children, inner)
            elif part.kind == "interpolation":
                self._code(part.inner[0], part.inner[1], hidden)
            elif part.kind == "element":
                self._element(part, hidden)

    def _flow(self, flow: Flow, hidden: set[str]) -> set[str]:
        """Respell the code of a block; the names that it declares."""
        given = flow.given
        declared = set(re.findall(r"let\s+([\w$]+)|,\s*([\w$]+)\s*=|\bas\s+([\w$]+)", given))
        names = {name for group in declared for name in group if name}
        if flow.kind == "for":
            loop = re.match(r"\s*([\w$]+)\s+of\s+([^;]*)", given)
            if loop is not None:
                names.add(loop[1])
                at = flow.given_at + len(given[: loop.start(2)].encode())
                self._code(at, at + len(loop[2].encode()), hidden)
        elif flow.kind in ("if", "else if", "switch", "case"):
            head = given.partition(";")[0]
            self._code(flow.given_at, flow.given_at + len(head.encode()), hidden)
        elif flow.kind == "let":
            name, _, _ = given.partition("=")
            at = flow.given_at + len(name.encode()) + 1
            self._code(at, flow.given_at + len(given.encode()), hidden)
            names.add(name.strip())
        return names

    # -- code ----------------------------------------------------------------------------

    def _code(self, start: int, end: int, hidden: set[str]) -> None:
        """Respell a stretch of code, where anything in it changes."""
        text = self.source.slice(start, end)
        new = self.spelled(text, hidden, start)
        if new != text.strip():
            lead = len(text) - len(text.lstrip())
            tail = len(text) - len(text.rstrip())
            self.edits.append(Edit(start + lead, end - tail, new))

    def spelled(self, text: str, hidden: set[str], at: int) -> str:
        """Code with the calls of what is called now. Raises `Unread` at a place."""
        names = self.called - hidden
        try:
            if not names or not free_names(text) & names:
                return text.strip()
            nothing: dict[str, str] = {}
            spelling = Spelling(
                {one: f"{one}()" for one in names}, nothing, nothing, _piped, bare=False
            )
            return respelled(text, spelling)
        except Unread as reason:
            raise Unread(reason.what, at) from None

    # -- elements ------------------------------------------------------------------------

    def _element(self, node: TemplateNode, hidden: set[str]) -> None:
        inner = set(hidden)
        starred = next((one for one in node.attributes if one.name.startswith("*")), None)
        switch = node.attribute("[ngSwitch]")
        inner |= {one.name[4:] for one in node.attributes if one.name.startswith("let-")}
        read: Starred | None = None
        if starred is not None and starred.value is not None:
            read = read_starred(self.source.slice(*starred.value))
            inner |= {*read.lets, *([read.alias] if read.alias else [])}
        for one in node.attributes:
            if one is starred or one is switch or one.value is None:
                continue
            if one.name.startswith(("[", "(")):
                self._code(*one.value, inner)
            elif "{{" in self.source.slice(*one.value):
                for found in re.finditer(
                    r"\{\{(.*?)\}\}", self.source.slice(*one.value), re.DOTALL
                ):
                    at = one.value[0] + len(
                        self.source.slice(*one.value)[: found.start(1)].encode()
                    )
                    self._code(at, at + len(found[1].encode()), inner)
            self._directive(one.name)
        before = self.shift
        if starred is not None and not self.blocks:
            self._keep(_DIRECTIVES.get(starred.name, ""), starred, read or Starred(), hidden)
        elif starred is not None and starred.name not in ("*ngSwitchCase", "*ngSwitchDefault"):
            self._starred(node, starred, read or Starred(), hidden)
        self.shift += self.moves.pop(id(node), "")
        if switch is not None and switch.value is not None:
            if self.blocks:
                self._switch(node, switch, hidden)
            else:
                self._code(*switch.value, hidden)
                self.directives.add("NgSwitch")
        self._parts(folded(node.children, self.source), inner)
        self.shift = before

    def _directive(self, name: str) -> None:
        known = {
            "[ngClass]": "NgClass",
            "[ngStyle]": "NgStyle",
            "[ngTemplateOutlet]": "NgTemplateOutlet",
            "ngClass": "NgClass",
        }
        if name in known:
            self.directives.add(known[name])

    def _starred(
        self, node: TemplateNode, starred: TemplateAttribute, read: Starred, hidden: set[str]
    ) -> None:
        at = starred.start
        match starred.name:
            case "*ngIf":
                other = read.keys.get("else", "")
                template = self.templates.get(other)
                known = not other or (template is not None and self.uses.get(other, 0) == 1)
                if (
                    "then" in read.keys
                    or not known
                    or (template is not None and self._lets(template))
                ):
                    self._keep("NgIf", starred, read, hidden)
                    return
                alias = f"; as {read.alias}" if read.alias else ""
                head = f"@if ({self.spelled(read.value, hidden, at)}{alias}) {{"
                end = self._framed(node, starred, head)
                if template is not None:
                    self.moved.append(
                        (template, end, self.source.indent_at(node.start) + self.shift)
                    )
            case "*ngFor":
                item = next((name for name, means in read.lets.items() if not means), "")
                items = read.keys.get("of", "")
                if not item or not items or read.alias:
                    self._keep("NgFor", starred, read, hidden)
                    return
                track = read.keys.get("trackBy", "")
                lets = [
                    f"{name} = {_LOCALS[means]}"
                    for name, means in read.lets.items()
                    if means in _LOCALS
                ]
                locals_ = f"; let {', '.join(lets)}" if lets else ""
                key = f"{track}($index, {item})" if track else item
                code = self.spelled(items, hidden, at)
                self._framed(node, starred, f"@for ({item} of {code}; track {key}{locals_}) {{")
            case "*ngTemplateOutlet":
                self._keep("NgTemplateOutlet", starred, read, hidden)
            case _:
                self.stays.append(("directive-stays", starred.name, at))

    def _keep(
        self, directive: str, starred: TemplateAttribute, read: Starred, hidden: set[str]
    ) -> None:
        """A starred attribute that keeps its form."""
        self.directives.add(directive)
        if directive != "NgTemplateOutlet" and self.blocks:
            self.stays.append(("directive-stays", starred.name, starred.start))
        names = {name for part in (read.value, *read.keys.values()) for name in free_names(part)}
        if names & (self.called - hidden):
            raise Unread(
                f"{starred.name}, which keeps its form and reads what is called now", starred.start
            )

    def _lets(self, template: TemplateNode) -> bool:
        return any(one.name.startswith("let-") for one in template.attributes)

    def _switch(self, node: TemplateNode, switch: TemplateAttribute, hidden: set[str]) -> None:
        cases = [
            (child, one)
            for child in node.children
            for one in child.attributes
            if one.name in ("*ngSwitchCase", "*ngSwitchDefault")
        ]
        shown = [
            c
            for c in node.children
            if c.kind != "text" or self.source.slice(c.start, c.end).strip()
        ]
        if len(shown) != len(cases) or not cases:
            raise Unread("[ngSwitch] with other content", node.start)
        assert switch.value is not None
        subject = self.spelled(self.source.slice(*switch.value), hidden, switch.start)
        self._without(node, switch)
        indent = self.source.indent_at(node.start) + self.shift
        container = node.tag == "ng-container" and len(node.attributes) == 1
        deeper = "" if container else self.unit
        lines = "\n" in self.source.slice(*node.inner)
        gap = f"\n{indent}{deeper}" if lines else " "
        opened = f"@switch ({subject}) {{"
        if container:
            self.edits.append(Edit(node.start, node.inner[0], opened))
        else:
            self.edits.append(Edit(node.inner[0], node.inner[0], f"{gap}{opened}"))
        for child, one in cases:
            head = "@default {"
            if one.name == "*ngSwitchCase" and one.value is not None:
                code = self.spelled(self.source.slice(*one.value), hidden, one.start)
                head = f"@case ({code}) {{"
            self._framed(child, one, head, more="" if container else self.unit)
        # Behind the blocks of the cases, which may end at the same place.
        if container:
            self.edits.append(Edit(node.inner[1], node.end, "}"))
        else:
            closed = f"{self.unit}}}\n{indent}" if lines else " }"
            self.edits.append(Edit(node.inner[1], node.inner[1], closed))

    # -- blocks --------------------------------------------------------------------------

    def _framed(
        self, node: TemplateNode, attribute: TemplateAttribute, head: str, more: str = ""
    ) -> int:
        """Put an element into a block, which ends at the offset returned; `more` is added to its lines."""
        data = self.source.data
        line = self.source.line_start(node.start)
        end_of_line = data.find(b"\n", node.end)
        end_of_line = len(data) if end_of_line < 0 else end_of_line
        alone = not data[line : node.start].strip() and not data[node.end : end_of_line].strip()
        bare = node.tag == "ng-container" and len(node.attributes) == 1
        indent = self.source.indent_at(node.start) + self.shift
        if bare:
            # The element only held the attribute: the block takes its place.
            self.edits.append(Edit(node.start, node.inner[0], f"{more}{head}"))
            several = "\n" in self.source.slice(*node.inner)
            self.edits.append(Edit(node.inner[1], node.end, f"{more}}}" if several else "}"))
            if more:
                self._indent(node.start, node.inner[1], more)
                self.moves[id(node)] = more
            return node.end
        self._without(node, attribute)
        if alone:
            self.edits.append(
                Edit(node.start, node.start, f"{more}{head}\n{indent}{more}{self.unit}")
            )
            self._indent(node.start, node.end, more + self.unit)
            self.moves[id(node)] = more + self.unit
            self.edits.append(Edit(node.end, node.end, f"\n{indent}{more}}}"))
        else:
            self.edits.append(Edit(node.start, node.start, head))
            self.edits.append(Edit(node.end, node.end, "}"))
        return node.end

    def _without(self, node: TemplateNode, attribute: TemplateAttribute) -> None:
        """Take an attribute out of a tag, with the white space in front of it."""
        data = self.source.data
        start = len(data[: attribute.start].rstrip())
        self.edits.append(Edit(start, attribute.end, ""))

    def _indent(self, start: int, end: int, more: str) -> None:
        """Move the lines of a stretch but the first to the right, except where white space is content."""
        data = self.source.data
        at = data.find(b"\n", start, end)
        while at >= 0:
            rest = data[at + 1 : at + 2]
            if rest not in (b"\n", b"") and not self._is_kept(at):
                self.edits.append(Edit(at + 1, at + 1, more))
            at = data.find(b"\n", at + 1, end)

    def _is_kept(self, at: int) -> bool:
        return any(start <= at < end for start, end in self.kept)

    @property
    def kept(self) -> list[tuple[int, int]]:
        """Stretches whose white space is content."""
        found = []
        for match in re.finditer(rb"<(pre|textarea)\b.*?</\1>", self.source.data, re.DOTALL):
            found.append(match.span())
        return found

    def _move(self, template: TemplateNode, at: int, indent: str) -> None:
        """Put the content of a template behind a block, as what is shown instead."""
        start, end = template.inner
        inside = [one for one in self.edits if start <= one.start and one.end <= end]
        # An edit that ends where the template begins belongs to the element before it.
        self.edits = [
            one
            for one in self.edits
            if not template.start <= one.start <= one.end <= template.end
            or one.end == template.start
        ]
        text = _applied(self.source, start, end, inside)
        lines = text.strip("\n").rstrip().split("\n")
        if "\n" not in text.strip():
            body = f" @else {{\n{indent}{self.unit}{text.strip()}\n{indent}}}"
        else:
            own = min((len(line) - len(line.lstrip()) for line in lines if line.strip()), default=0)
            moved = "\n".join(
                f"{indent}{self.unit}{line[own:]}" if line.strip() else "" for line in lines
            )
            body = f" @else {{\n{moved}\n{indent}}}"
        # It stands behind the brace that ends the block.
        self.edits.append(Edit(at, at, body))
        line = self.source.line_start(template.start)
        begin = line if not self.source.data[line : template.start].strip() else template.start
        stop = template.end
        if begin == line and self.source.data[stop : stop + 1] == b"\n":
            stop += 1
        self.edits.append(Edit(begin, stop, ""))


def _piped(name: str, value: str, given: list[str]) -> str:
    return f"{value} | {name}{''.join(f': {one}' for one in given)}"


def _applied(source: SourceText, start: int, end: int, edits: list[Edit]) -> str:
    parts, here = [], start
    for edit in sorted(edits, key=lambda one: (one.start, one.end)):
        if edit.start < here:
            # Within what is gone.
            continue
        parts += [source.slice(here, edit.start), edit.text]
        here = edit.end
    return "".join([*parts, source.slice(here, end)])
