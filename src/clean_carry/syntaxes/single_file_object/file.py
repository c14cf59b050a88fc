"""A single file whose statements become a component object."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import replace

from clean_carry.component.fragment import Fragment, copy, joined, new, render
from clean_carry.component.interface import InterfaceMap, interface_of
from clean_carry.component.markup import slot_names
from clean_carry.component.model import Component, Refusal
from clean_carry.component.spans import Span
from clean_carry.source.javascript import comments
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.script_style import RESERVED, fixed_ranges, script_style
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import MergedText
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.contract import Fitted
from clean_carry.syntaxes.naming import Edits, edited
from clean_carry.syntaxes.single_file.carried_children import import_carried
from clean_carry.syntaxes.single_file.file import SingleFile
from clean_carry.syntaxes.single_file.names import ELEMENTS, camel, pascal
from clean_carry.syntaxes.single_file.runtime_import import RuntimeImport
from clean_carry.syntaxes.single_file_object.inputs import InputWriter
from clean_carry.syntaxes.single_file_object.members import MemberWriter
from clean_carry.syntaxes.single_file_object.spelling import Speller
from clean_carry.syntaxes.single_file_object.syntax import SYNTAX
from clean_carry.syntaxes.unsaid import Unsaid
from clean_carry.syntaxes.written import NewText, Written, beside, orphaned_comments, unchanged

# Options the object has already under their own names.
_OWN = ("props", "emits")


def write_file(fitted: Fitted) -> Written:
    """Write the statements of a file as an object, in `X.object.vue` for `X.vue`."""
    file: SingleFile = fitted.file
    refused = file.refusals
    if file.components and not refused:
        component = file.components[0]
        try:
            if component.span.start in fitted.excluded:
                raise Unsaid(*fitted.excluded[component.span.start])
            if file.exported.literal.type == "object":
                return _as_it_is(fitted, component)
            return _File(file, fitted, component).written()
        except Unsaid as reason:
            refused = (Refusal(component.name, reason.rule, reason.detail, reason.at),)
    return unchanged(file.source, fitted.ledger, tuple(refused))


def _as_it_is(fitted: Fitted, component: Component) -> Written:
    """An object that stands elsewhere, in the file its reader has made of it."""
    file: SingleFile = fitted.file
    left = [(entry, entry.rule) for entry in fitted.ledger.entries if entry.outcome == "left"]
    whole = unchanged(file.source, fitted.ledger, ())
    for entry, rule in left:
        entry.outcome, entry.rule = "left", rule
    path = beside(file.source.path, SYNTAX.suffix, "vue")
    edits = Edits(fitted.ledger)
    import_carried(edits, file.tree, fitted.workspace, SYNTAX.suffix)
    fragment = edited(whole.files[0].fragment, edits)
    made = replace(whole.files[0], path=path, fragment=fragment, finish=_closed_up)
    start = component.span.start
    return Written((made,), (component,), (), {start: _interface(component)}, {start: []})


def _closed_up(text: str) -> str:
    """The object without the lines its template left empty."""
    return re.sub(r"\{ (name: '[^'\n]*',)[ \t]*\n(?:[ \t]*\n)*", r"{\n  \1\n", text, count=1)


class _File:
    """One file on its way to the object form; raises `Unsaid`."""

    def __init__(self, file: SingleFile, fitted: Fitted, component: Component) -> None:
        self.file, self.fitted, self.component = file, fitted, component
        self.source, self.ledger, self.version = file.source, fitted.ledger, fitted.runtime
        self.style = script_style(file.tree, fitted.workspace.file)
        self.edits = Edits(self.ledger)
        taken = set(file.names.module.names)
        own = next(name for name in ("self", "vm", "component", "instance") if name not in taken)
        self.speller = Speller(
            self.style.unit, self.style.semicolon, self.style.quote, tuple(self._inner()), own, self._level,
            frozenset(node.start for node in file.tree.of("expression_statement")),
            frozenset(self._listed()),
        )  # fmt: skip
        self.members = MemberWriter(
            component, self.source, self.ledger, self.speller, self.version, self.style.last
        )

    def _level(self, at: int) -> int:
        return len(self.source.indent_at(at)) // max(1, len(self.style.unit))

    def _inner(self) -> Iterator[tuple[int, int]]:
        """The functions with a `this` of their own inside of those that become members."""
        for node in self.file.tree.root.walk():
            if not node.is_function or node.type == "arrow_function":
                continue
            above = [up for up in node.up() if up.is_function]
            if above or not self._is_member(node):
                yield node.start, node.end

    def _is_member(self, node: Node) -> bool:
        start = node.child("type_parameters") or node.child("parameters")
        return start is not None and start.start in self._member_starts

    @property
    def _member_starts(self) -> set[int]:
        return {code.span.start for _, code in self.component.codes()}

    def _listed(self) -> Iterator[str]:
        """The names given to elements of lists."""
        template = self.file.template
        for node in template.walk() if template is not None else ():
            attribute = node.attribute("ref")
            if attribute is None or attribute.value is None:
                continue
            if any(up.attribute("v-for") is not None for up in self._around(node)):
                yield self.source.slice(*attribute.value)

    def _around(self, node: TemplateNode) -> Iterator[TemplateNode]:
        template = self.file.template
        for up in template.walk() if template is not None else ():
            if up.start <= node.start and node.end <= up.end and up.kind == "element":
                yield up

    # -- the file ---------------------------------------------------------------------------------

    def written(self) -> Written:
        """The one file, with its interface."""
        component, source = self.component, self.source
        fragment = edited(self._assembled(), self.edits)
        for entry in self.ledger.entries:
            if entry.outcome != "open":
                continue
            if entry.notion in ("file", "template") or self._in_template(entry.span):
                entry.outcome = "kept"
            elif entry.notion in ("block", "options"):
                entry.outcome, entry.rule = "carried", "statements-to-object"
        made = NewText(
            beside(source.path, SYNTAX.suffix, "vue"), fragment, source, self.ledger,
            self.style.unit, fixed_ranges(self.file.tree),
        )  # fmt: skip
        start = component.span.start
        taken = source.taken.items() if isinstance(source, MergedText) else ()
        notes = [("composable-read-in", words, at) for at, words in taken]
        notes += list(dict.fromkeys(component.facts.noted))
        return Written((made,), (component,), (), {start: _interface(component)}, {start: notes})

    def _in_template(self, span: Span) -> bool:
        template = self.file.template
        return template is not None and template.start <= span.start < template.end

    def _assembled(self) -> Fragment:
        source, block, module = self.source, self.file.block, self.file.module_block
        self._edit_template()
        script = self._script()
        result, here = Fragment(), 0
        if module is not None:
            at = (
                module.end
                + len(source.data[module.end :])
                - len(source.data[module.end :].lstrip())
            )
            cut = (module.start, at if module.start < block.start else module.end)
            pieces = sorted(
                [(cut, Fragment()), ((block.start, block.end), script)], key=lambda p: p[0]
            )
        else:
            pieces = [((block.start, block.end), script)]
        for (start, end), fragment in pieces:
            result += copy(source.span(here, start)) + fragment
            here = end
        return result + copy(source.span(here, len(source.data)))

    def _script(self) -> Fragment:
        """The script's block: the module's code, then the object."""
        source, block = self.source, self.file.block
        exported = self._object()
        body = self._with_head(self._module(None), exported)
        orphans = orphaned_comments(body, self.ledger, self.component.span)
        if orphans:
            exported = joined((copy(span) for span in orphans), "\n") + new("\n") + exported
        idle, runtime = self._idle(body), RuntimeImport(self.file, self.source)
        kept = set(runtime.names().values()) - idle
        gone = runtime.statement if not kept and not self.speller.imports else None
        added = self._added(runtime, idle) if gone is None else ""
        head = self._module(gone)
        body = self._with_head(new(added) + head if added else head, exported)
        if gone is not None:
            self.ledger.settle(
                self.ledger.claim(
                    "import", self.source.span(gone.start, self._statement_end(gone))
                ),
                "carried",
                "runtime-import",
            )
        tag = source.slice(block.start, block.inner[0])
        opening = re.sub(r"\s+setup(?=[\s>])", "", tag, count=1)
        closing = source.slice(block.inner[1], block.end)
        return new(f"{opening}\n") + body + new(f"\n{closing}")

    # -- code of the module -------------------------------------------------------------------------

    def _module(self, gone: Node | None) -> Fragment:
        """The imports except `gone`, the types, and code that uses nothing of the component."""
        lines: list[Fragment] = []
        last = -1
        for node in self._module_nodes():
            if node is gone:
                continue
            notes = comments.leading(self.file.tree, node)
            start = notes[0].start if notes else node.start
            after = comments.trailing(self.file.tree, node)
            end = after[-1].end if after else self._statement_end(node)
            gap = self.source.data[last:start].count(b"\n") > 1 if last >= 0 else False
            apart = gap or (lines and not self._is_import(node))
            if lines:
                lines.append(
                    new("\n\n" if apart and last >= 0 and (gap or self._was_import) else "\n")
                )
            self._was_import = self._is_import(node)
            lines.append(copy(self.source.span(start, end)))
            last = end
        return joined(lines, "")

    _was_import = False

    def _is_import(self, node: Node) -> bool:
        return node.type == "import_statement"

    def _statement_end(self, node: Node) -> int:
        end = node.end
        return end + 1 if self.source.data[end : end + 1] == b";" else end

    def _module_nodes(self) -> list[Node]:
        moved = set(self.component.facts.moved_out)
        found = []
        for node in self.file.tree.root.named_children:
            start, _ = self.file.block.inner
            inside = start <= node.start < self.file.block.inner[1]
            if not inside and node.type == "export_statement" and node.has("default"):
                continue
            if not inside or node.type in _MODULE or (node.start, node.end) in moved:
                found.append(node)
        imports = [node for node in found if self._is_import(node)]
        return imports + [node for node in found if not self._is_import(node)]

    # -- the object -----------------------------------------------------------------------------------

    def _object(self) -> Fragment:
        component, unit, members = self.component, self.style.unit, self.members
        inputs = InputWriter(component, self.source, members)
        called, asked = self._asked_of_module()
        before, created = members.made()
        options = [
            *self._kept("name"), *self._registered(), *self._kept(""), members.injected(),
            inputs.props(), inputs.emits() if self.version >= 3 else None, inputs.exposed(),
            members.shared(), members.provided(), members.data(asked), members.derived(),
            members.watched(), before, created, *members.moments(), members.methods(called),
        ]  # fmt: skip
        parts = [one for one in options if one is not None]
        opens, closes = "export default {", "}"
        if component.language.typed:
            self.speller.imports.add("defineComponent")
            opens, closes = "export default defineComponent({", "})"
        said = Fragment()
        if not parts:
            return said + new(f"{opens}{closes}{self.style.semicolon}")
        line = f"\n{unit}"
        body = joined((part.shifted(1) for part in parts), f",{line}")
        return (
            new(f"{opens}{line}") + body + new(f"{self.style.last}\n{closes}{self.style.semicolon}")
        )

    def _kept(self, name: str) -> list[Fragment]:
        """Options that stay as they are: the one of a name, or all others."""
        values = self.component.foreign.option_values
        names = [name] if name else [n for n in values if n not in (*_OWN, "name", "components")]
        found = [copy(values[one]) for one in names if one in values]
        if name == "name" and not found and self._draws_itself():
            found = [new(f"name: {self.style.quote}{self._stem()}{self.style.quote}")]
        return found

    def _stem(self) -> str:
        return self.fitted.workspace.file.name.split(".")[0]

    def _draws_itself(self) -> bool:
        own = pascal(camel(self._stem()))
        return own not in self.file.names.module.names and any(
            pascal(camel(tag)) == own for tag in self.component.view.tags if tag not in ELEMENTS
        )

    def _registered(self) -> list[Fragment]:
        """The components and directives the template takes from the script."""
        known = self.file.names.module.names
        found: dict[str, None] = {}
        for tag in sorted(self.component.view.tags):
            for name in (tag, camel(tag), pascal(camel(tag))):
                if name in known and tag not in ELEMENTS:
                    found.setdefault(name)
                    break
        for name, *_ in self.component.view.names:
            if name in known and name[:1].isupper() and self._is_component(name):
                found.setdefault(name)
        options = []
        values = self.component.foreign.option_values
        if "components" in values:
            options.append(copy(values["components"]))
        elif found:
            options.append(new(f"components: {{ {', '.join(found)} }}"))
        directives = self._directives()
        if directives:
            options.append(new(f"directives: {{ {', '.join(directives)} }}"))
        return options

    def _is_component(self, name: str) -> bool:
        binding = self.file.names.module.names[name]
        statement = next((up for up in binding.node.up() if up.type == "import_statement"), None)
        source = statement.child("source") if statement is not None else None
        return source is not None and source.text[1:-1].endswith(".vue")

    def _directives(self) -> list[str]:
        template, found = self.file.template, []
        for name in self.file.names.module.names:
            if re.fullmatch(r"v[A-Z]\w*", name) is None:
                continue
            word = re.sub(r"(?<!^)([A-Z])", r"-\1", name[1:]).lower()
            for node in template.walk() if template is not None else ():
                if any(re.split(r"[.:]", a.name)[0] == f"v-{word}" for a in node.attributes):
                    found.append(f"{name[1].lower()}{name[2:]}: {name}")
                    break
        return found

    def _asked_of_module(self) -> tuple[list[str], list[str]]:
        """Names of the module that the template calls, and those it shows."""
        known = self.component.facts.module_names
        called: dict[str, None] = {}
        shown: dict[str, None] = {}
        for name, span, _, _ in self.component.view.names:
            if name not in known or name in self.component.foreign.stands_for:
                continue
            if name[:1].isupper() and self._is_component(name):
                raise Unsaid("component-by-value", name, span.start)
            calls = self.source.data[span.end : span.end + 1] == b"("
            (called if calls else shown).setdefault(name)
        return list(called), [name for name in shown if name not in called]

    # -- the template, and imports ------------------------------------------------------------------

    def _edit_template(self) -> None:
        """Write the names of the template that mean a member of another name."""
        stands, given = self.component.foreign.stands_for, self._given()
        for name, span, _, short in self.component.view.names:
            means = stands.get(name)
            if means is None:
                continue
            if means == "$props":
                after = re.match(rb"\.(\w+)", self.source.data[span.end : span.end + 80])
                known = {prop.name for prop in self.component.inputs.props}
                word = after[1].decode() if after is not None else ""
                if word in known and word not in RESERVED | given:
                    span, means = span._replace(end=span.end + 1), ""
            text = f"{name}: {means}" if short else means
            self.edits.add(span, text, "statements-to-object")

    def _given(self) -> set[str]:
        """Names that lists and slots give in the template."""
        template = self.file.template
        found: set[str] = set()
        for node in template.walk() if template is not None else ():
            for one in node.attributes:
                if one.value is not None and one.name.startswith(
                    ("v-for", "v-slot", "#", "slot-scope")
                ):
                    names = re.split(r"\s(?:in|of)\s", self.source.slice(*one.value))[0]
                    found.update(re.findall(r"[\w$]+", names))
        return found

    def _with_head(self, head: Fragment, exported: Fragment) -> Fragment:
        return head + (new("\n\n") if head else Fragment()) + exported

    def _idle(self, body: Fragment) -> set[str]:
        """The names from the runtime that the new script does not use any more."""
        text = render(edited(body, self.edits), self.source.slice, "", lambda a, b: [])
        ending = "ts" if self.component.language.typed else "jsx"
        names = Names(Tree(SourceText(f"script.{ending}", text.encode())))
        runtime = RuntimeImport(self.file, self.source)
        if "PropType" in text:
            self.speller.imports.add("PropType")
        return {
            name
            for name, binding in names.module.names.items()
            if binding.kind == "import" and not binding.references and runtime.brings(name)
        }

    def _added(self, runtime: RuntimeImport, idle: set[str]) -> str:
        """Edit the runtime's import. Return the import to add as a line, "" for none."""
        known = runtime.names()
        added = sorted(
            f"type {n}" if n == "PropType" else n for n in self.speller.imports if n not in known
        )
        edit = runtime.edited(added, idle)
        if edit is not None:
            self.edits.add(*edit, "runtime-import")
        elif added:
            q = self.style.quote
            return f"import {{ {', '.join(added)} }} from {q}vue{q}{self.style.semicolon}\n"
        return ""


_MODULE = (
    "import_statement type_alias_declaration interface_declaration enum_declaration "
    "ambient_declaration"
).split()


def _interface(component: Component) -> InterfaceMap:
    """Everything keeps its name."""
    return interface_of(
        ((prop.name, prop.name) for prop in component.inputs.props),
        ((event, event) for event in component.outward.events),
        ((name, name) for name in slot_names(component.view.markup)),
        exposed=((name, name) for name in component.outward.exposed),
    )
