"""A controller component as the single file that does the same: template, and an object of options."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from clean_carry.component.errors import InputError
from clean_carry.component.spans import Place
from clean_carry.source.javascript.comments import leading as comments_above
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit, MergedText
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.controller_component.reading.code import refuse_framework
from clean_carry.syntaxes.controller_component.reading.controller import Controller, controller_of
from clean_carry.syntaxes.controller_component.reading.filters import FILTERS
from clean_carry.syntaxes.controller_component.reading.recognise import (
    Found,
    components_in,
    event_of,
    found_of,
)
from clean_carry.syntaxes.controller_component.reading.services import REQUEST
from clean_carry.syntaxes.controller_component.reading.template import TemplateReading
from clean_carry.syntaxes.piped_expressions import Unread
from clean_carry.syntaxes.scoped_template.registrations import Registrations
from clean_carry.syntaxes.scoped_template.templates import Template, Templates
from clean_carry.syntaxes.single_file.names import pascal
from clean_carry.syntaxes.single_file.stands_for import NotAFile


def as_single_file(source: SourceText, workspace: Workspace) -> MergedText:
    """The single file that does the same as the one component of a script. Raises `NotAFile`."""
    tree = Tree(source)
    names = Names(tree)
    found = components_in(tree, names)
    if len(found) != 1:
        raise NotAFile("several-registered", str(len(found)), found[1].at if found else 0)
    return _File(source, tree, names, found_of(found[0], names), workspace).merged()


@dataclass
class _File:
    source: SourceText
    tree: Tree
    names: Names
    found: Found
    workspace: Workspace

    def merged(self) -> MergedText:
        """The new text, with the places that its parts come from."""
        controller = controller_of(self.found, self.tree, self.names)
        template = self._template(controller)
        pieces = [
            ("<template>\n", self.found.registration.at),
            *self._markup(template),
            ("\n</template>\n\n<script>\n", self.found.registration.at),
            *self._module(controller),
            *self._object(controller, template),
            ("</script>\n", len(self.source.data) - 1),
        ]
        end = len(self.source.data)
        edits = [Edit(0, 0, text, self._place(at)) for text, at in pieces if text]
        made = MergedText(self.source, [*edits, Edit(0, end, "", None)])
        start = made.data.find(b"export default")
        made.noted += [(rule, detail, start) for rule, detail, _ in template.notes]
        others = [
            one.name
            for one in Registrations(self.tree, self.names).found
            if one.at != self.found.registration.at
        ]
        if others:
            made.noted.append(("registrations-stay", ", ".join(others), start))
        return made

    def _place(self, at: int) -> Place:
        return self.source.place(max(0, min(at, len(self.source.data) - 1)))

    def _template(self, controller: Controller) -> TemplateReading:
        definition = self.found.definition
        if definition.value("template") is None and definition.value("templateUrl") is None:
            raise NotAFile("template-unread", "no template", self.found.registration.at)
        found, unread = Templates(self.tree, self.names, self.workspace.file).of(definition)
        if unread or len(found) != 1:
            raise NotAFile("template-unread", unread or "several templates", self._at)
        self.held: Template = found[0]
        members = {*controller.state, *controller.methods, *controller.derived}
        members |= {one.name for one in self.found.bindings}
        nullable = set(controller.nullable) | set(controller.methods)
        reading = TemplateReading(
            found[0].source,
            self.found.alias,
            {one.name: one for one in self.found.bindings},
            nullable,
            members,
            self.found.slots,
        )
        try:
            reading.write()
        except Unread as reason:
            raise NotAFile("template-unread", reason.what, self._file_at(reason.at)) from None
        except InputError as error:
            raise NotAFile("template-unread", str(error), self._at) from None
        return reading

    @property
    def _at(self) -> int:
        return self.found.registration.at

    def _file_at(self, offset: int) -> int:
        """Where a byte of the template stands in the script."""
        if self.held.file is not None:
            return self._at
        return self.held.place(min(offset, len(self.held.places) - 1))

    def _markup(self, template: TemplateReading) -> Iterator[tuple[str, int]]:
        text = "".join(part for part, _ in template.pieces)
        lines = text.strip("\n").rstrip().split("\n")
        own = min((len(one) - len(one.lstrip()) for one in lines if one.strip()), default=0)
        if not text.lstrip(" ").startswith("\n"):
            rest = [len(one) - len(one.lstrip()) for one in lines[1:] if one.strip()]
            own = min(rest, default=0)
        begun = False
        pieces = list(template.pieces)
        while pieces and not pieces[-1][0].strip():
            pieces.pop()
        for part, at in pieces:
            shown = re.sub(rf"\n {{0,{own}}}", "\n  ", part)
            if not begun:
                shown = shown.lstrip()
                begun = bool(shown)
                shown = f"  {shown}" if begun else ""
            yield shown, self._file_at(at)

    # -- the script ----------------------------------------------------------------------------

    def _module(self, controller: Controller) -> Iterator[tuple[str, int]]:
        """Code beside the component that it needs: statements that neither register nor wrap."""
        for statement in self._beside():
            for node in statement.walk():
                if node.type == "identifier" and self.names.meaning(node) is None:
                    refuse_framework(node)
            above = comments_above(self.tree, statement)
            start = above[0].start if above else statement.start
            text = self.source.slice(start, statement.end)
            indent = self.source.indent_at(statement.start)
            lines = text.split("\n")
            plain = "\n".join([lines[0], *(line.removeprefix(indent) for line in lines[1:])])
            yield f"{plain}\n\n", start
        if controller.requests:
            yield f"{REQUEST}\n", self._at

    def _beside(self) -> Iterator[Node]:
        registered = self.found.registration.call
        value = self.found.definition.value("controller")
        named = value.text if value is not None and value.type == "identifier" else ""
        for statement in self._statements():
            inside = statement.start <= registered.start < statement.end
            name = statement.child("name")
            own = name is not None and bool(named) and name.text == named
            text = statement.text
            serves = bool(named) and text.startswith((f"{named}.$inject", f"class {named}"))
            if inside or own or serves or text.strip("'\";") == "use strict":
                continue
            if _MODULE.match(text):
                # Modules and what they register besides are the old application's.
                continue
            if statement.type == "comment":
                continue
            yield statement

    def _statements(self) -> list[Node]:
        """The statements of the script, or of the one function that wraps them."""
        nodes = [one for one in self.tree.root.named_children if one.type != "comment"]
        if len(nodes) == 1 and nodes[0].type == "expression_statement":
            call = nodes[0].named_children[0]
            callee = call.child("function") if call.type == "call_expression" else None
            while callee is not None and callee.type == "parenthesized_expression":
                callee = callee.named_children[0]
            body = callee.child("body") if callee is not None and callee.is_function else None
            if body is not None:
                return body.named_children
        return nodes

    def _is_listed(self, name: str) -> bool:
        """Whether code of the controller uses a binding as a list."""
        own = rf"\.{re.escape(name)}(?:\s*\|\|\s*\[\]|{_OF_LISTS})"
        return re.search(own, self.source.slice(0, len(self.source.data))) is not None

    def _said(self) -> list[Node]:
        """The comments above the component, and above a controller that stands by itself."""
        value = self.found.definition.value("controller")
        named = value.text if value is not None and value.type == "identifier" else ""
        found: list[Node] = []
        for statement in self._statements():
            name = statement.child("name")
            own = name is not None and bool(named) and name.text == named
            call = self.found.registration.call
            if own or statement.start <= call.start < statement.end:
                found += comments_above(self.tree, statement)
        return found

    def _object(
        self, controller: Controller, template: TemplateReading
    ) -> Iterator[tuple[str, int]]:
        for comment in self._said():
            yield f"{comment.text}\n", comment.start
        yield f"export default {{\n  name: '{pascal(self.found.registration.name)}',\n", self._at
        inputs = [one for one in self.found.bindings if one.mode != "&"]
        if inputs:
            yield "  props: {\n", self._at
            for one in inputs:
                kind = "String" if one.mode == "@" else "null"
                listed = one.name in template.lists or self._is_listed(one.name)
                kind = "Array" if listed and one.mode == "<" else kind
                yield f"    {one.name}: {kind},\n", one.node.start
            yield "  },\n", self._at
        events = [event_of(one.name) for one in self.found.bindings if one.mode == "&"]
        if events:
            yield f"  emits: [{', '.join(repr(one) for one in events)}],\n", self._at
        if controller.state:
            yield "  data() {\n    return {\n", self._at
            for name, (text, at) in controller.state.items():
                yield f"{_noted(controller, name, 6)}      {name}: {text},\n", at
            yield "    };\n  },\n", self._at
        derived = [(_with_notes(controller, n, t), at) for n, (t, at) in controller.derived.items()]
        yield from _group("computed", derived)
        if controller.watches:
            yield _noted(controller, "$onChanges", 2), self._at
        yield from _group("watch", controller.watches)
        for name, (text, at) in controller.hooks.items():
            yield f"{_noted(controller, name, 2)}  {text},\n", at
        methods = [(_with_notes(controller, n, t), at) for n, (t, at) in controller.methods.items()]
        methods += [(FILTERS[name], self._at) for name in template.filters]
        yield from _group("methods", methods)
        yield "};\n", self._at


# Statements of the old application: its modules, and what they register.
_MODULE = re.compile(r"angular\s*\.module\(")
# Methods that only lists have.
_OF_LISTS = r"\.(?:map|filter|forEach|reduce|some|every|find|findIndex|push|splice|join|sort)\b"


def _noted(controller: Controller, name: str, indent: int) -> str:
    """The comments of a member, each on lines of its own."""
    texts = controller.comments.get(name, [])
    return "".join(f"{' ' * indent}{text}\n" for text in texts)


def _with_notes(controller: Controller, name: str, text: str) -> str:
    """A member of a group, behind its comments."""
    return f"{_noted(controller, name, 4)}    {text}".lstrip()


def _group(name: str, parts: list[tuple[str, int]]) -> Iterator[tuple[str, int]]:
    if parts:
        yield f"  {name}: {{\n", parts[0][1]
        for text, at in parts:
            yield f"    {text},\n", at
        yield "  },\n", parts[0][1]
