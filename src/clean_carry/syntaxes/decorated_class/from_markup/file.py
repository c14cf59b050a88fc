"""A component with a template as a file with a decorated class, its template and its styles beside it."""

from __future__ import annotations

import re
from collections.abc import Iterator
from pathlib import Path

from clean_carry.component.code import Assign, Builtin, Changed, FieldUse, Member, Read
from clean_carry.component.fragment import Fragment, copy, joined, new, render
from clean_carry.component.interface import InterfaceMap, interface_of
from clean_carry.component.markup import Element, Loop, Reference, Text, TwoWay, slot_names, walk
from clean_carry.component.members import Injected, Model
from clean_carry.component.model import Component, Refusal, StyleBlock
from clean_carry.source.css.selectors import FOREIGN, FOREIGN_ANYWHERE
from clean_carry.source.javascript.script_style import fixed_ranges, script_style
from clean_carry.source.javascript.tree import Node
from clean_carry.source.merged import MergedText
from clean_carry.syntaxes.contract import Fitted, ScriptFile
from clean_carry.syntaxes.decorated_class.from_markup.helpers import FIRST, HELPERS, TELL
from clean_carry.syntaxes.decorated_class.from_markup.inputs import InputWriter, events_of
from clean_carry.syntaxes.decorated_class.from_markup.members import MemberWriter
from clean_carry.syntaxes.decorated_class.from_markup.module_code import ModuleCode
from clean_carry.syntaxes.decorated_class.from_markup.names import class_name, names_of, tag_of
from clean_carry.syntaxes.decorated_class.from_markup.parameters import with_types
from clean_carry.syntaxes.decorated_class.from_markup.spelling import Speller
from clean_carry.syntaxes.decorated_class.from_markup.template import TemplateWriter
from clean_carry.syntaxes.decorated_class.syntax import SYNTAX
from clean_carry.syntaxes.lists import container_of
from clean_carry.syntaxes.unsaid import Unsaid
from clean_carry.syntaxes.written import NewText, Written, beside, orphaned_comments, unchanged

_PACKAGE = "@angular/core"
_COMMON = "@angular/common"
# How trials name what an ancestor provides.
PROVIDED = "$provided."
# Findings of a reader that only say what another writer of its family looks at itself.
_LOOKED_AT = frozenset(
    {"unknown-option", "unknown-use", "instance-escapes", "derived-written", "state-not-literal"}
)


def write_from_markup(fitted: Fitted) -> Written:
    """Write the component of a file with a template as a decorated class."""
    file: ScriptFile = fitted.file
    refused = file.refusals
    if file.components and not refused:
        component = file.components[0]
        try:
            if component.span.start in fitted.excluded:
                raise Unsaid(*fitted.excluded[component.span.start])
            return _File(file, fitted, component).written()
        except Unsaid as reason:
            refused = (Refusal(component.name, reason.rule, reason.detail, reason.at),)
    return unchanged(file.source, fitted.ledger, tuple(refused))


class _File:
    """One file on its way to a class; raises `Unsaid`."""

    def __init__(self, file: ScriptFile, fitted: Fitted, component: Component) -> None:
        self.file, self.fitted, self.component = file, fitted, component
        self.source, self.ledger = file.source, fitted.ledger
        self.style = script_style(file.tree, fitted.workspace.file)
        self.end, self.unit, self.quote = self.style.semicolon, self.style.unit, self.style.quote
        self.name = class_name(fitted.workspace.file.name.split(".")[0])
        self._refuse_unread()
        self.module = ModuleCode(
            file, fitted.ledger, fitted.workspace, component, self.quote, self.end
        )
        self.speller = self._speller()
        self.template = TemplateWriter(
            component, self.speller, self.unit, self.style.fit.width, self.module.tag
        )

    def _refuse_unread(self) -> None:
        component = self.component
        for rule, detail, at in component.facts.unread:
            if rule not in _LOOKED_AT:
                raise Unsaid(rule, detail, at)
        for name, at in component.foreign.open_names:
            raise Unsaid("unknown-use", name, at)
        known = {name for name, _ in component.view.element_names}
        for _, one in component.operations():
            if isinstance(one, FieldUse) and one.member.kind == "element":
                if one.member.name not in known:
                    raise Unsaid("unknown-use", f"$refs.{one.member.name}", one.span.start)

    def _speller(self) -> Speller:
        component = self.component
        names = names_of(component, events_of(component))
        loops = [node for node in walk(component.view.markup) if isinstance(node, Loop)]
        for node in loops:
            for code in (node.item, node.index):
                if code is not None:
                    names.taken.update(re.findall(r"[\w$]+", self.source.slice(*code.span[:2])))
        speller = Speller(
            names, self.source, self.end, self.unit, self.quote,
            frozenset(self._written_fields()), self._containers(), tuple(self._inner()),
            frozenset(self._listed(loops)),
            frozenset(one.prop for one in component.members if isinstance(one, Model)),
            frozenset(one.name for one in component.derived if one.setter is not None),
            component.span.start, self.style.fit.width, self.style.last,
        )  # fmt: skip
        for name, _ in component.view.element_names:
            names.of(Member("element", name))
        if any(isinstance(one, Builtin) and one.name == "$el" for _, one in component.operations()):
            speller.root = self._root(names)
        return speller

    def _root(self, names) -> str:  # type: ignore[no-untyped-def]
        """The name of the root element in the class."""
        real = [
            one
            for one in self.component.view.markup
            if not isinstance(one, Text) or self.source.slice(*one.span[:2]).strip()
        ]
        if len(real) != 1 or not isinstance(real[0], Element) or real[0].component:
            return ""
        own = next((a.member for a in real[0].attributes if isinstance(a, Reference)), "")
        named: str = (
            names.of(Member("element", own)) if own else names.choose("root", "rootElement")
        )
        return named

    def _written_fields(self) -> Iterator[str]:
        """The fields of state that change."""
        component = self.component
        for _, one in component.operations():
            if isinstance(one, Assign) and one.member.kind == "state":
                yield one.member.name
            elif isinstance(one, Changed):
                yield one.name
        yield from (name for name, _ in component.facts.mutations)
        yield from component.outward.written_outside
        state = component.state
        for field in (state.fields or ()) if state is not None else ():
            reads = field.code.all() if field.code is not None else ()
            late = any(
                not (isinstance(one, Read) and one.member.kind == "state")
                and hasattr(one, "member")
                for one in reads
            )
            if field.code is None or late or component.foreign.prelude is not None:
                yield field.name
        for node in walk(component.view.markup):
            for attribute in node.attributes if isinstance(node, Element) else ():
                if isinstance(attribute, TwoWay):
                    yield from attribute.changes
                    first = next(iter(attribute.code.operations), None)
                    if isinstance(first, Read) and first.member.kind == "state":
                        yield first.member.name

    def _containers(self) -> dict[str, str]:
        found = {}
        state = self.component.state
        for field in (state.fields or ()) if state is not None else ():
            text = self.source.slice(*field.code.span[:2]) if field.code is not None else ""
            if container_of(text):
                found[field.name] = container_of(text)
        return found

    def _listed(self, loops: list[Loop]) -> Iterator[str]:
        """The names given to elements of lists."""
        for loop in loops:
            for node in walk(loop.children):
                for one in node.attributes if isinstance(node, Element) else ():
                    if isinstance(one, Reference):
                        yield one.member

    def _inner(self) -> Iterator[tuple[int, int]]:
        """The functions with a `this` of their own inside of those that become members."""
        starts = {code.span.start for _, code in self.component.codes()}

        def is_member(node: Node) -> bool:
            start = node.child("type_parameters") or node.child("parameters")
            return start is not None and start.start in starts

        for node in self.file.tree.root.walk():
            if node.is_function and node.type != "arrow_function" and not is_member(node):
                if any(up.is_function and is_member(up) for up in node.up()):
                    yield node.start, node.end

    # -- the files -----------------------------------------------------------------------------

    def written(self) -> Written:
        """The script, its template and its stylesheet, with the interface and notes."""
        source = self.source
        template = self.template.written(self.component.view.markup)
        script = self._script()
        for entry in self.ledger.entries:
            if entry.notion in ("file", "template", "block", "options") and entry.outcome == "open":
                entry.outcome, entry.rule = "carried", "blocks-to-files"
            replaced = self.template.attributes.two_ways.replaced
            if entry.notion == "code" and (entry.span.start, entry.span.end) in replaced:
                entry.outcome, entry.rule = "carried", "two-way"
        fixed = fixed_ranges(self.file.tree)
        styles = self._styles()
        files = [
            NewText(self._path("ts"), script, source, self.ledger, self.unit, fixed, with_types),
            NewText(
                self._path("html"), template + new("\n"), source, self.ledger, self.unit, fixed
            ),
            NewText(self._path(self._language()), styles, source, self.ledger, self.unit, fixed),
        ]
        start = self.component.span.start
        return Written(
            tuple(files), (self.component,), (), {start: self._interface()}, {start: self._notes()}
        )

    def _path(self, ending: str) -> str:
        return beside(self.source.path, SYNTAX.suffix, ending)

    def _script(self) -> Fragment:
        expressions = self.template.expressions
        members = MemberWriter(
            self.component, self.source, self.speller, frozenset(expressions.used)
        )
        inputs = InputWriter(self.component, self.source, self.speller)
        lines, blocks = inputs.lines(), members.blocks()
        world = [new(f"protected readonly {name} = {name}{self.end}") for name in expressions.world]
        made = [one.shifted(1) for one in expressions.members]
        first, last = self._helpers()
        line = f"\n{self.unit}"
        groups = [joined(group, line) for group in (first, world, lines) if group]
        parts = [*groups, *blocks, *made, *last]
        settle = members.settled() + self.template.settled
        imports, code, after = self.module.around()
        said = self._said()
        body = joined(parts, f"\n{line}")
        head = new(f"export class {self.name} {{{line if parts else ''}") + body + new("\n}\n")
        whole = settle + self._decorator() + head
        orphans = Fragment()
        for span in orphaned_comments(
            code + said + whole + after, self.ledger, self.component.span
        ):
            levels = -len(self.source.indent_at(span.start)) // max(1, len(self.unit))
            orphans += copy(span).shifted(levels) + new("\n")
        self.notes = [*self.template.notes, *members.notes]
        return (
            self._imports()
            + imports
            + new("\n")
            + self._apart(code)
            + said
            + orphans
            + whole
            + after
        )

    def _apart(self, code: Fragment) -> Fragment:
        """Code of the module, with a blank line behind it."""
        text = render(code, self.source.slice, self.unit, lambda a, b: [])
        if not text.strip():
            return Fragment()
        first, *rest = code.pieces
        span = first.span
        assert span is not None
        while self.source.data[span.start : span.start + 1] in (b"\n", b"\r"):
            span = span._replace(start=span.start + 1)
        pieces = [first._replace(span=span), *rest]
        last = pieces[-1].span
        assert last is not None
        end = last.start + len(self.source.data[last.start : last.end].rstrip())
        pieces[-1] = pieces[-1]._replace(span=last._replace(end=end))
        return Fragment(pieces) + new("\n\n")

    def _helpers(self) -> tuple[list[Fragment], list[Fragment]]:
        """The members that only new code needs: those that stand first, and those that stand last."""
        speller = self.speller
        queue, wanted = list(speller.asked), dict[str, None]()
        while queue:
            name = queue.pop()
            if name not in wanted and name in HELPERS:
                wanted[name] = None
                queue += HELPERS[name].asks
                speller.core.update(HELPERS[name].core)
        first: list[Fragment] = []
        last: list[Fragment] = []
        for name, helper in HELPERS.items():
            if name in wanted:
                text = helper.text.format(name=speller.names.helper(name, name))
                (first if name in FIRST else last).append(new(self._indented(text)))
        for name in sorted(speller.asked):
            if name.startswith("tell "):
                field = name.removeprefix("tell ")
                own = speller.names.made[name]
                text = TELL.format(field=field, name=own, text=speller.changed(field, -1))
                last.append(new(self._indented(text)))
        return first, last

    def _indented(self, text: str) -> str:
        """A helper in the file's own indentation, at the depth of a member."""
        lines = []
        for line in text.split("\n"):
            depth = (len(line) - len(line.lstrip(" "))) // 2
            lines.append(self.unit * (depth + 1) + line.lstrip(" "))
        text = "\n".join(lines).lstrip()
        if self.quote == '"':
            text = text.replace("'", '"')
        return text if self.end else re.sub(r";$", "", text, flags=re.MULTILINE)

    @property
    def _tag(self) -> str:
        return tag_of(self.name, self.fitted.workspace.prefix)

    def _decorator(self) -> Fragment:
        line, q = f"\n{self.unit}", self.quote
        parts = [f"selector: {q}{self._tag}{q}"]
        listed = sorted(self.module.children)
        if "JsonPipe" in self.speller.asked:
            listed.append("JsonPipe")
        if listed:
            parts.append(f"imports: [{', '.join(listed)}]")
        parts.append(f"templateUrl: {q}./{Path(self._path('html')).name}{q}")
        if self._own_styles():
            parts.append(f"styleUrl: {q}./{Path(self._path(self._language())).name}{q}")
            if not self._own_styles()[0].scoped:
                parts.append("encapsulation: ViewEncapsulation.None")
                self.speller.of_core("ViewEncapsulation")
        body = f",{line}".join(parts)
        self.speller.of_core("Component")
        return new(f"@Component({{{line}{body}{self.style.last}\n}})\n")

    def _imports(self) -> Fragment:
        names = ", ".join(sorted(self.speller.core, key=str.lower))
        text = f"import {{ {names} }} from {self.quote}{_PACKAGE}{self.quote}{self.end}\n"
        if "JsonPipe" in self.speller.asked:
            text = (
                f"import {{ JsonPipe }} from {self.quote}{_COMMON}{self.quote}{self.end}\n" + text
            )
        return new(text)

    def _said(self) -> Fragment:
        """The comment above the component."""
        head = self.component.place.head
        if head.start < self.component.span.start:
            text = self.source.slice(head.start, self.component.span.start)
            if text.lstrip().startswith(("/*", "//")):
                return copy(self.source.span(head.start, self.component.span.start))
        return Fragment()

    # -- styles --------------------------------------------------------------------------------

    def _own_styles(self) -> list[StyleBlock]:
        return [block for block in self.file.styles if not block.linked]

    def _language(self) -> str:
        own = self._own_styles()
        return {"stylus": "styl"}.get(own[0].language, own[0].language) if own else "css"

    def _styles(self) -> Fragment:
        own = self._own_styles()
        if len({block.language for block in own}) > 1:
            raise Unsaid("style-unread", "styles in several languages", own[1].content.start)
        if len({block.scoped for block in own}) > 1:
            raise Unsaid("style-unread", "styles of which some are scoped", own[1].content.start)
        linked = next((block for block in self.file.styles if block.linked), None)
        if linked is not None:
            raise Unsaid("style-unread", linked.linked, linked.content.start)
        result = Fragment()
        for block in own:
            start, end, _ = block.content
            while self.source.data[start : start + 1] == b"\n":
                start += 1
            for word in FOREIGN if block.scoped else FOREIGN_ANYWHERE:
                if word in self.source.data[start:end]:
                    raise Unsaid("style-unread", word.decode(), start)
            result += copy(self.source.span(start, end))
        return result

    # -- the interface --------------------------------------------------------------------------

    def _interface(self) -> InterfaceMap:
        names = self.speller.names
        inputs = [(prop.name, prop.name) for prop in self.component.inputs.props]
        for part in self.component.members:
            if isinstance(part, Injected):
                own = names.of(Member("injected", part.name))
                inputs.append((PROVIDED + part.key.strip("'\""), own))
        events = list(names.outputs.items())
        for part in self.component.members:
            if isinstance(part, Model):
                events.append((f"update:{part.prop}", f"{part.prop}Change"))
        return interface_of(
            inputs,
            events,
            ((name, name) for name in slot_names(self.component.view.markup)),
            exposed=((name, name) for name in self.component.outward.exposed),
            tags=((self.component.name, self._tag),),
        )

    def _notes(self) -> list[tuple[str, str, int]]:
        found = list(dict.fromkeys(self.notes))
        at = self.component.span.start
        for event, own in self.speller.names.outputs.items():
            if event not in (own, f"update:{own.removesuffix('Change')}"):
                found.append(("output-renamed", f"{event} → {own}", at))
        if isinstance(self.source, MergedText):
            found += [("mixin-read-in", words, at) for at, words in self.source.taken.items()]
        for part in self.component.members:
            if isinstance(part, Injected):
                found.append(("injected-as-input", part.name, at))
        once: dict[str, tuple[str, str, int]] = {}
        for note in found:
            if note[0] in ("object-as-text", "select-by-text", "listed-as-list"):
                once.setdefault(note[0], note)
        return [n for n in found if n[0] not in once] + list(once.values())
