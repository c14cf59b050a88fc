"""Read the statements of a single file in the flat form into the neutral component."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

from clean_carry.component.ledger import Ledger
from clean_carry.component.markup import Markup
from clean_carry.component.members import State
from clean_carry.component.model import (
    Component,
    Facts,
    Foreign,
    Inputs,
    Language,
    Outward,
    Place,
    Refusal,
    StyleBlock,
    View,
)
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import is_constant, is_identifier
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import Syntax, Wishes
from clean_carry.syntaxes.single_file.expressions import TemplateCode, read_code
from clean_carry.syntaxes.single_file.file import Exported, SingleFile
from clean_carry.syntaxes.single_file.markup import GLOBALS, TemplateReader
from clean_carry.syntaxes.single_file.members import Members
from clean_carry.syntaxes.single_file.options.functions import parts_of
from clean_carry.syntaxes.single_file_flat.statements.inputs import InputReader
from clean_carry.syntaxes.single_file_flat.statements.name_meanings import (
    Declared,
    Held,
    Statement,
    element_names,
    is_written,
)
from clean_carry.syntaxes.single_file_flat.statements.name_uses import Finder
from clean_carry.syntaxes.single_file_flat.statements.parts import PartReader, functions_of
from clean_carry.syntaxes.single_file_flat.statements.scripts import (
    FlatBlocks,
    flat_blocks,
    language_of,
)
from clean_carry.syntaxes.single_file_flat.statements.types import TypeReader
from clean_carry.syntaxes.single_file_flat.statements.watched import Watched, watcher_of
from clean_carry.syntaxes.uses import Uses


def read(
    source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes, syntax: Syntax
) -> SingleFile:
    """Read a file in the flat form for a major version of its runtime; raises `InputError`."""
    blocks = flat_blocks(source)
    ledger.claim("file", source.span(0, len(source.data)))
    code = read_code(source, blocks.template) if blocks.template is not None else None
    drawn = frozenset(one.node.text for one in code.used) if code is not None else frozenset()
    declared = Declared(source, blocks, element_names(source, blocks.template), drawn)
    declared.read()
    reader = _Reader(declared, code, ledger, workspace, wishes)
    component = reader.component()
    refusals: tuple[Refusal, ...] = ()
    components: tuple[Component, ...] = (component,)
    if reader.uses.refusals:
        rule, detail, at = min(reader.uses.refusals, key=lambda one: one[2])
        refusals, components = (Refusal(component.name, rule, detail, at),), ()
    return SingleFile(
        syntax,
        source,
        components,
        refusals,
        blocks.tree,
        blocks.setup.inner,
        styles=tuple(_style(source, style) for style in blocks.styles),
        names=blocks.names,
        block=blocks.setup,
        template=blocks.template,
        exported=Exported(blocks.tree.root, blocks.tree.root),
        module_block=blocks.module,
    )


def _style(source: SourceText, style: TemplateNode) -> StyleBlock:
    scoped = style.attribute("scoped") is not None
    return StyleBlock(source.span(*style.inner), scoped, language_of(source, style) or "css")


class _Reader:
    """Reads one file, once it is known what its names stand for."""

    def __init__(
        self,
        declared: Declared,
        code: TemplateCode | None,
        ledger: Ledger,
        workspace: Workspace,
        wishes: Wishes,
    ) -> None:
        self.declared, self.code, self.ledger = declared, code, ledger
        self.workspace, self.wishes = workspace, wishes
        self.blocks: FlatBlocks = declared.blocks
        self.source = declared.source
        self.uses = Uses(self.blocks.tree, self.blocks.names, ledger)
        self.uses.refusals += [*declared.refused, *self.blocks.refused]
        self.types = TypeReader(self.blocks.tree, workspace.file, workspace)
        self.inputs = InputReader(declared, self.uses, self.types)
        self._settle_fields()
        self.module = self._module_names()
        self.watchers = self._watchers()
        self.members = self._members()

    def component(self) -> Component:
        """The component of the file."""
        start, end = self.blocks.setup.inner
        finder = Finder(self.uses, self.declared, self.members, self.module)
        finder.watched = self._watched_boxes()
        for one in self.declared.statements:
            for function in functions_of(one, self.watchers):
                finder.as_method(function, one.kind in ("moment", "watch"))
            if one.kind == "watch" and id(one.node) not in self.watchers:
                self._call_watcher(finder, one)
        finder.collect()
        for block in (self.blocks.setup, self.blocks.module):
            if block is not None:
                self.ledger.claim("block", self.source.span(block.start, block.end))
                self.ledger.claim("module code", self.source.span(*block.inner), "kept")
        self._module_options()
        parts = PartReader(self.declared, self.uses, self.types, self.watchers)
        moved = self._moved()
        for one in self.declared.statements:
            if one.kind == "module" or id(one.node) in moved:
                continue
            parts.read(one)
            self._macro(one)
        for comment in comments.within(self.blocks.tree, start, end):
            self.ledger.claim("comment", self.uses.span(comment), "kept")
        markup = self._markup()
        state = tuple(parts.fields)
        members = [*parts.parts]
        if state:
            whole = State(state, None, False, "", state[0].entry)
            members.append(whole)
        name = self._name()
        return Component(
            name,
            Place(self.source.span(start, end), self.source.span(start, start), ""),
            Inputs(tuple(self.inputs.props)),
            Outward(tuple(self.inputs.events), exposed=tuple(self.inputs.exposed)),
            tuple(members),
            View(
                markup=markup,
                names=self._template_names(),
                tags=frozenset(self._tags()),
                element_names=tuple(
                    (n, self.source.span(start, start)) for n in sorted(self.declared.elements)
                ),
            ),
            Language(typed=language_of(self.source, self.blocks.setup) in ("ts", "tsx")),
            Foreign(option_values=self.inputs.values, stands_for=self._stands_for()),
            Facts(
                module_names=frozenset(self.blocks.names.module.names) - set(self.declared.held),
                locals_at=self.uses.locals_at,
                moved_out=tuple((s.node.start, s.node.end) for s in self._moved_statements()),
                noted=tuple(finder.noted),
            ),
        )

    # -- what is decided before anything is read -----------------------------------------------------

    def _settle_fields(self) -> None:
        """A constant the template names is state, since nothing changes it; a variable that is written
        stays one that rendering does not follow."""
        for at, one in enumerate(self.declared.statements):
            if one.kind != "field" or one.name not in self.declared.drawn:
                continue
            if is_written(self.declared.binding(one.name)) or self._template_writes(one.name):
                continue
            self.declared.held[one.name] = Held("state", one.name)
            self.declared.statements[at] = Statement("state", one.node, one.name, one.value)

    def _template_writes(self, name: str) -> bool:
        used = self.code.used if self.code is not None else ()
        return any(one.node.text == name and is_write(one.node) for one in used)

    def _module_names(self) -> frozenset[str]:
        """Constants, and functions that use nothing of the component: they become code of the module."""
        exposed = self._exposed_names()
        found: set[str] = set()
        candidates = {}
        for one in self.declared.statements:
            single = len(one.node.named_children) == 1 or one.node.is_function
            if one.kind not in ("field", "method") or one.name in self.declared.drawn | exposed:
                continue
            binding = self.declared.binding(one.name)
            plain = one.kind == "method" or (one.value is not None and is_constant(one.value))
            if single and plain and not is_written(binding) and not one.node.has("let"):
                candidates[one.name] = one
        found = set(candidates)
        while True:
            out = {name for name in found if not self._is_apart(candidates[name], found)}
            if not out:
                return frozenset(found)
            found -= out

    def _is_apart(self, one: Statement, found: set[str]) -> bool:
        """Whether a statement names nothing of the component, and calls nothing that does."""
        for ref, binding in self.blocks.names.references_in(one.node):
            if binding is None or binding.scope is not self.blocks.names.module:
                continue
            if ref.text in self.declared.held and ref.text not in found:
                return False
        return not any(node.type == "this" for node in one.node.walk())

    def _exposed_names(self) -> frozenset[str]:
        found = set()
        for one in self.declared.statements:
            if one.kind in ("expose", "provided", "moment", "watch"):
                found |= {n.text for n in one.node.walk() if n.type.endswith("identifier")}
        return frozenset(found)

    def _moved_statements(self) -> list[Statement]:
        return [one for one in self.declared.statements if one.name and one.name in self.module]

    def _moved(self) -> set[int]:
        return {id(one.node) for one in self._moved_statements()}

    def _watchers(self) -> dict[int, Watched]:
        found = {}
        for one in self.declared.statements:
            if one.kind == "watch":
                seen = watcher_of(self.declared, one, self.wishes.runtime)
                if seen is not None:
                    found[id(one.node)] = seen
        return found

    def _watched_boxes(self) -> set[int]:
        """The places of boxes in the lists of sources that stay."""
        found = set()
        for one in self.declared.statements:
            call = one.call
            if one.kind in ("watch", "field") and call is None and one.value is not None:
                continue
            if one.kind != "watch" or call is None or id(one.node) in self.watchers:
                continue
            source = call.argument()
            if source is None:
                continue
            for part in source.named_children if source.type == "array" else [source]:
                if part.type == "identifier":
                    found.add(part.start)
        return found

    def _call_watcher(self, finder: Finder, one: Statement) -> None:
        """A watcher that stays a call in the code that runs when the component is made."""
        source = one.call.argument() if one.call is not None else None
        for part in source.named_children if source is not None and source.type == "array" else ():
            held = self.declared.held.get(part.text) if part.type == "identifier" else None
            if held is not None and not held.boxed and held.kind == "state":
                self.uses.refuse(
                    "unread-statement", f"a watcher of {part.text} among others", part.start
                )

    def _members(self) -> Members:
        members = Members(self.workspace.file)
        for held in self.declared.held.values():
            match held.kind:
                case "state":
                    members.state.add(held.member)
                case "derived" | "shared":
                    members.derived.add(held.member)
                    members.settable.add(held.member)
                case "prop":
                    members.props.add(held.member)
                case "injected":
                    members.injected.add(held.member)
        for one in self.declared.statements:
            if one.kind == "props" and one.call is not None:
                members.props |= set(self.inputs.names_of_inputs(one.call))
        own = {held.member for held in self.declared.held.values() if held.kind == "method"}
        members.methods = own
        meet = (members.state | members.derived | own) & members.props
        for name in sorted(meet):
            self.uses.refuse("names-meet", name, self.blocks.setup.start)
        for name in sorted(members.state | own):
            if name.startswith(("_", "$")):
                self.uses.refuse("name-not-open", name, self.blocks.setup.start)
        return members

    # -- the module's script, and what is declared ------------------------------------------------------

    def _module_options(self) -> None:
        """The options that the module's script exports beside the statements."""
        for node in self.blocks.of(self.blocks.module):
            if node.type != "export_statement" or not node.has("default"):
                continue
            value = node.child("value")
            if value is None or value.type != "object":
                self.uses.refuse("unknown-option", node.text.split("\n")[0][:60], node.start)
                continue
            self.ledger.claim("options", self.uses.span(node))
            for name, part, _ in parts_of(value):
                if name is None or part.type not in ("pair", "method_definition"):
                    self.uses.refuse("unknown-option", part.text[:60], part.start)
                    continue
                self.inputs.values[name] = self.uses.span(part)
                self.ledger.claim("option", self.uses.span(part), "kept")

    def _macro(self, one: Statement) -> None:
        match one.kind:
            case "props" if one.call is not None:
                self.inputs.inputs(one.call)
            case "model" if one.call is not None:
                self.inputs.model(one.call)
            case "emits" if one.call is not None:
                self.inputs.emits(one.call)
            case "options" if one.call is not None:
                self.inputs.options(one.call)
            case "expose" if one.call is not None:
                self.inputs.expose(one.call)

    def _name(self) -> str:
        span = self.inputs.values.get("name")
        text = self.source.slice(*span[:2]) if span is not None else ""
        word = text.partition(":")[2].strip().strip("'\"")
        stem = Path(self.source.path).name.split(".")[0]
        return word if is_identifier(word) else stem or "Component"

    # -- the template -------------------------------------------------------------------------------

    def _stands_for(self) -> dict[str, str]:
        """Return the script's names of members that are called otherwise."""
        found = {}
        for name, held in self.declared.held.items():
            if held.kind in ("emit", "runtime", "props"):
                found[name] = held.member
            elif held.member != name:
                found[name] = held.member if held.kind != "element" else f"$refs.{held.member}"
        return found

    def _template_names(self) -> tuple[tuple[str, Span, bool, bool], ...]:
        return tuple(
            (
                one.node.text,
                self.source.span(one.node.start, one.node.end),
                is_write(one.node),
                one.node.type == "shorthand_property_identifier",
            )
            for one in (self.code.used if self.code is not None else ())
        )

    def _tags(self) -> list[str]:
        template = self.blocks.template
        return (
            [n.tag for n in template.walk() if n.kind == "element"] if template is not None else []
        )

    def _markup(self) -> tuple[Markup, ...]:
        template, code = self.blocks.template, self.code
        if template is None or code is None:
            self.uses.refuse("template-missing", "", self.blocks.setup.start)
            return ()
        self.ledger.claim("template", self.source.span(template.start, template.end))
        uses = Uses(code.tree, code.names, self.ledger)
        finder = Finder(uses, self.declared, self.members, frozenset())
        for used in code.used:
            self._drawn(finder, used.node)
        uses.sort()
        reader = TemplateReader(uses, code, version=self.wishes.runtime)
        markup = reader.nodes(template.children)
        self.uses.refusals += [one for one in uses.refusals if one[0] != "markup-unread"]
        return markup

    def _drawn(self, finder: Finder, node: Node) -> None:
        """A name of the template: of the script, of the inputs, of the page, or imported."""
        held = self.declared.held.get(node.text)
        root = next((up for up in node.up() if up.parent is finder.uses.tree.root), node)
        if held is not None and held.kind != "element":
            plain = replace(held, boxed=False)
            finder.drawn(node, plain, root)
        elif held is not None:
            self.uses.refuse("reference-drawn", node.text, node.start)
        elif node.text in self.members.props:
            finder.drawn(node, Held("prop", node.text), root)
        elif node.text.startswith("$") or node.text in GLOBALS:
            return
        elif node.text not in self.blocks.names.module.names and node.text not in ("arguments",):
            self.uses.refuse("unknown-use", node.text, node.start)
