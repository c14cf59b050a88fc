"""A component of a script as a single file: the module's code, the statements, the template."""

from __future__ import annotations

import re
from collections.abc import Iterator

from clean_carry.component.code import (
    Builtin,
    Emit,
    FieldUse,
    MethodCall,
    Redraw,
    RootElement,
    StateWrite,
)
from clean_carry.component.fragment import Fragment, copy, new
from clean_carry.component.interface import InterfaceMap, interface_of
from clean_carry.component.markup import Element, Markup, children_of, slot_names
from clean_carry.component.members import Derived, Method
from clean_carry.component.model import Component, Refusal
from clean_carry.component.spans import Span
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.script_style import RESERVED, fixed_ranges, script_style
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.contract import Fitted, ScriptFile
from clean_carry.syntaxes.naming import edited, free_locals, with_short_pairs
from clean_carry.syntaxes.single_file.names import input_name
from clean_carry.syntaxes.single_file_flat.from_code.controlled import kept_as_typed
from clean_carry.syntaxes.single_file_flat.from_code.module_code import Cut, ModuleCode, package_of
from clean_carry.syntaxes.single_file_flat.from_code.spelling import CodeSpeller, is_open
from clean_carry.syntaxes.single_file_flat.from_code.statements import Statements
from clean_carry.syntaxes.single_file_flat.from_code.template import TemplateWriter
from clean_carry.syntaxes.single_file_flat.names import (
    FlatNames,
    NamesMeet,
    name_members,
)
from clean_carry.syntaxes.single_file_flat.syntax import SYNTAX
from clean_carry.syntaxes.unsaid import Unsaid
from clean_carry.syntaxes.written import NewText, Written, beside, orphaned_comments, unchanged

TARGET = "vue"
# The input that holds what stands between the tags of a component that returns markup.
CONTENT = "children"


def write_from_code(fitted: Fitted) -> Written:
    """Write the components of a script as single files, all of them or none."""
    file: ScriptFile = fitted.file
    components = file.components
    refused = list(file.refusals)
    files: list[_File] = []
    if not refused:
        others = frozenset(one.name for one in components)
        for component in components:
            start = component.span.start
            try:
                if start in fitted.excluded:
                    raise Unsaid(*fitted.excluded[start])
                files.append(_File(file, fitted, component, others))
            except Unsaid as reason:
                refused.append(Refusal(component.name, reason.rule, reason.detail, reason.at))
            except NamesMeet as met:
                refused.append(Refusal(component.name, "names-meet", met.name, met.at))
    if not refused:
        try:
            return _together(files)
        except Unsaid as reason:
            at = reason.at
            guilty = next((c for c in components if c.span.start <= at < c.span.end), components[0])
            refused.append(Refusal(guilty.name, reason.rule, reason.detail, at))
    named = {one.name for one in refused}
    refused += [
        Refusal(one.name, "neighbour-refused", "", one.span.start)
        for one in components
        if one.name not in named
    ]
    return unchanged(file.source, fitted.ledger, tuple(refused))


def _together(files: list[_File]) -> Written:
    """The files of all components of a script; that of the component it exports by itself comes first."""
    order = sorted(files, key=lambda one: one.component.place.exported != "default")
    parts = _parted(order)
    made = [one.written(main=one is order[0], beside_it=parts) for one in order]
    return Written(
        tuple(text for written in made for text in written.files),
        tuple(component for written in made for component in written.carried),
        (),
        {at: found for written in made for at, found in written.interfaces.items()},
        {at: notes for written in made for at, notes in written.notes.items()},
    )


def _parted(files: list[_File]) -> dict[int, Component]:
    """By the start of a statement of the module, the component in whose file it goes.

    Raises `Unsaid` for one that several need.
    """
    found: dict[int, Component] = {}
    if len(files) == 1:
        return found
    names = files[0].file.names.module.names
    for node in files[0].file.tree.root.named_children:
        declared = [b for b in names.values() if node.start <= b.node.start < node.end]
        if any(node.start <= one.component.span.start < node.end for one in files):
            continue
        users = {
            one.component.name: one.component
            for one in files
            for binding in declared
            for ref in binding.references
            if one.component.span.start <= ref.start < one.component.span.end
        }
        if len(users) > 1 and node.type != "import_statement":
            raise Unsaid("module-shared", node.text[:40], node.start)
        if len(users) == 1 and node.type != "export_statement":
            found[node.start] = next(iter(users.values()))
    return found


class _File:
    """One script on its way to a single file; raises `Unsaid` and `NamesMeet`."""

    def __init__(
        self, file: ScriptFile, fitted: Fitted, component: Component, siblings: frozenset[str]
    ) -> None:
        self.file, self.fitted, self.component = file, fitted, component
        self.siblings = siblings - {component.name}
        self.source, self.ledger = file.source, fitted.ledger
        self.style = script_style(file.tree, fitted.workspace.file)
        self.end = self.style.semicolon
        self.typed = component.language.typed
        if component.language.annotated:
            raise Unsaid("not-in-target", "annotated types", component.span.start)
        fields = {owner for owner, one in component.operations() if isinstance(one, FieldUse)}
        kept = any(isinstance(owner, Derived) for owner in fields)
        for _, operation in component.operations():
            if isinstance(operation, Redraw) and kept:
                # A value that is worked out of a field would not be worked out again.
                raise Unsaid("forced-update", "this.forceUpdate", operation.span.start)
        # Where code asks the runtime for an element: a reference gives it here.
        self.found_elements = frozenset(
            operation.span.start
            for _, operation in component.operations()
            if isinstance(operation, RootElement) and not operation.mark
        )
        self.tags = list(_components(component.view.markup))
        # By tag: the statement that imports it, and the import of its carried form.
        self.children: dict[str, tuple[Node, str]] = {}
        # By tag: the file of a component that stood in the same script.
        self.beside: dict[str, str] = {}
        self._check_children()
        statics = frozenset(one.name for one in component.statics)
        names = name_members(component, RESERVED | statics, fitted.ledger, fitted.runtime)
        self.names = names
        self.speller = self._speller(names)
        free_locals(names.edits, names.taken, component, self._used(), file.names)
        self.written_statics = frozenset(self._own_statics(statics))

    def _own_statics(self, statics: frozenset[str]) -> Iterator[str]:
        """Let its own code ask the module for values of the component; those that are written."""
        span = self.component.span
        binding = self.file.names.module.names.get(self.component.name)
        for ref in binding.references if binding is not None else ():
            if not span.start <= ref.start < span.end:
                continue
            asked = ref.parent
            part = asked.child("property") if asked is not None else None
            if asked is None or part is None or part.text not in statics or ref.field != "object":
                raise Unsaid("module-uses-it", ref.text, ref.start)
            self.names.edits.add(self.source.span(ref.start, part.start), "", "static-to-export")
            if is_write(asked):
                yield part.text

    def _speller(self, names: FlatNames) -> CodeSpeller:
        component = self.component
        whole = ""
        if any(is_open(write) for write in component.writes()):
            whole = names.helper("state")
        props = {prop.name for prop in component.inputs.props}
        events = set(component.outward.events)
        imported = props & component.facts.module_names
        computed = {m.name for m in component.methods() if m.getter and self._is_pure(m)}
        for name in events & component.facts.module_names:
            names.taken.add(name)
        return CodeSpeller(
            names, self.fitted.runtime, self.source, self.end, component=component, whole=whole,
            computed=frozenset(computed), imported=frozenset(imported), unit=self.style.unit,
        )  # fmt: skip

    def _is_pure(self, method: Method) -> bool:
        """Whether a getter asks inputs and state alone, so that its value may be kept."""
        for operation in method.text.all():
            if isinstance(operation, FieldUse | MethodCall | StateWrite | Emit | Builtin):
                return False
        text = self.source.slice(*method.text.span[:2])
        return not any(word in text for word in ("Date", "Math.random", "window", "document"))

    def _used(self) -> Iterator:  # type: ignore[type-arg]
        for owner, operation in self.component.operations():
            if owner == "drawing":
                with self.speller.in_template():
                    roots = self.speller.roots(operation)
            else:
                roots = self.speller.roots(operation)
            yield from ((operation, root) for root in roots)

    def _check_children(self) -> None:
        """A child must have been carried: what it is now cannot stand in a template."""
        for element in self.tags:
            if element.tag in self.siblings:
                self.beside[element.tag] = f"./{element.tag}.{SYNTAX.suffix}.vue"
                continue
            binding = self.file.names.module.names.get(element.tag)
            if binding is None or binding.kind != "import":
                raise Unsaid("child-not-found", element.tag, element.span.start)
            self.children[element.tag] = self._carried_import(element, binding.node)

    def _carried_import(self, element: Element, name: Node) -> tuple[Node, str]:
        """The statement that imports a child, and the import of what it was carried to."""
        statement = next(up for up in name.up() if up.type == "import_statement")
        request = package_of(statement)
        if not self.fitted.workspace.is_carried(request):
            raise Unsaid("child-not-carried", element.tag, element.span.start)
        names = [n for n in statement.walk() if n.type == "import_specifier"]
        whole = next(n for n in statement.walk() if n.type == "import_clause").named_children
        if not request.startswith((".", "/")) and request.partition("/")[0] not in (
            "@",
            "~",
            "src",
        ):
            raise Unsaid("child-of-package", element.tag, element.span.start)
        if len(names) > 1 or len(whole) > 1 or any(n.child("alias") for n in names):
            raise Unsaid("child-import-shared", element.tag, element.span.start)
        stem = re.sub(r"\.(jsx?|tsx?|mjs)$", "", request)
        quote = self.style.quote
        return (
            statement,
            f"import {element.tag} from {quote}{stem}.{SYNTAX.suffix}.vue{quote}{self.end}",
        )

    # -- the file -----------------------------------------------------------------------------

    def written(self, *, main: bool, beside_it: dict[int, Component]) -> Written:
        """The one file, with its interface and notes. The `main` one gets what no other one needs alone
        (`beside_it`: by the start of a statement, the component that does)."""
        component, source = self.component, self.source
        self.module = ModuleCode(
            self.file, self.ledger, component, self.children, self.found_elements, main, beside_it
        )
        fragment = edited(self._fragment(), self.names.edits)
        fragment = with_short_pairs(fragment, source.slice, self.ledger)
        path = beside(source.path, SYNTAX.suffix, "vue")
        if not main:
            folder, slash, _ = path.rpartition("/")
            path = f"{folder}{slash}{component.name}.{SYNTAX.suffix}.vue"
        made = NewText(
            path, fragment, source, self.ledger, self.style.unit, fixed_ranges(self.file.tree)
        )
        start = component.span.start
        notes = [*component.facts.noted, *self.notes]
        return Written((made,), (component,), (), {start: _interface(component)}, {start: notes})

    def _fragment(self) -> Fragment:
        component = self.component
        template = TemplateWriter(self.speller, self.style.unit, self.style.fit.width)
        markup = template.write(component.view.markup)
        markup = template.settled + markup
        for entry in self.ledger.entries:
            if entry.notion == "code" and any(_within(entry.span, s) for s in template.replaced):
                entry.outcome, entry.rule = "carried", "two-way"
        cuts = self.module.cuts()
        self._types(cuts)
        written = Statements(
            component, self.source, self.speller, self.style.unit, self.end, self.style.quote,
            self.style.last, self.typed,
        )  # fmt: skip
        written.written_fields = frozenset(
            operation.member.name
            for _, operation in component.operations()
            if isinstance(operation, FieldUse) and operation.write
        )
        head = component.place.head.start
        statement = next(
            n for n in self.file.tree.root.children if n.start <= component.span.start < n.end
        )
        # Comments about the component move with the component.
        self._said = Fragment()
        if head < statement.start:
            self._said = copy(self.source.span(head, statement.start))
            cuts.append(Cut(head, statement.start, "said", ""))
        statements = written.write()
        self.notes = [*written.notes, *kept_as_typed(component.view.markup, self.source)]
        before, after = self.module.around(cuts)
        orphans = orphaned_comments(
            before + statements + after + markup, self.ledger, component.span
        )
        for span in reversed(orphans):
            levels = -len(self.source.indent_at(span.start)) // max(1, len(self.style.unit))
            statements = copy(span).shifted(levels) + new("\n") + statements
        kind = ' lang="ts"' if self.typed else ""
        generic = self._generic()
        first = next((piece.span for piece in before.pieces if piece.span is not None), None)
        text = self.source.data[first.start : first.end] if first is not None else b""
        imported = any(piece.text.startswith("import") for piece in before.pieces)
        self._has_module = text.startswith(b"import") or imported
        runtime = self._runtime_import()
        statics = written.statics(self.written_statics)
        script = self._scripts(before, after, statements, statics, kind, generic, runtime)
        return script + markup

    def _scripts(
        self, before: Fragment, after: Fragment, statements: Fragment, statics: Fragment,
        kind: str, generic: str, runtime: Fragment,
    ) -> Fragment:  # fmt: skip
        """The script, or both where the module keeps one of its own."""
        if self.module.own_module():
            script = new(f"<script{kind}>\n") + before + after
            if statics:
                script += new("\n" if before.pieces or after.pieces else "") + statics + new("\n")
            script += new(f"</script>\n\n<script setup{kind}{generic}>\n")
            script += runtime + self._said + statements + new("\n</script>\n\n")
        else:
            held = Fragment(
                piece for piece in before.pieces if piece.span is not None or piece.text
            )
            blank = new("\n") if held and not self._ends_blank(held) else Fragment()
            script = (
                new(f"<script setup{kind}{generic}>\n")
                + runtime
                + before
                + blank
                + self._said
                + statements
            )
            behind = any(piece.span is not None for piece in after.pieces)
            script += new("\n\n" if behind else "\n") + after
            script += new("</script>\n\n")
        return script

    def _generic(self) -> str:
        """The type parameters of the component, as an attribute of its script."""
        span = self.component.inputs.type_parameters
        if span is None or not self.typed or self.fitted.runtime < 3:
            return ""
        text = " ".join(
            self.source.slice(*span[:2]).strip().removeprefix("<").removesuffix(">").split()
        )
        return f' generic="{text}"' if '"' not in text else ""

    def _ends_blank(self, fragment: Fragment) -> bool:
        last = fragment.pieces[-1].span
        if last is None:
            return False
        text = self.source.data[last.start : last.end]
        return (
            text.endswith(b"\n\n")
            or not text.strip()
            or b"\n" not in text
            or self._is_comment(text)
        )

    def _is_comment(self, text: bytes) -> bool:
        line = text.rstrip().rpartition(b"\n")[2].lstrip()
        return line.startswith((b"//", b"/*", b"*"))

    def _runtime_import(self) -> Fragment:
        names = sorted(
            name if name == local else f"{name} as {local}"
            for name, local in self.speller.imports.items()
        )
        q = self.style.quote
        own = "".join(
            f"import {tag} from {q}{path}{q}{self.end}\n" for tag, path in self.beside.items()
        )
        if not names:
            return new(own)
        blank = "" if self._has_module and not self.module.own_module() else "\n"
        return new(f"import {{ {', '.join(names)} }} from {q}{TARGET}{q}{self.end}\n{own}{blank}")

    def _types(self, cuts: list[Cut]) -> None:
        if not self.typed:
            return
        gone = [cut for cut in cuts if cut.notion != "class-statement"]
        for (start, end), text in self.file.page_types.items():
            if any(cut.start <= start < cut.end for cut in gone):
                continue
            span = self.source.span(start, end)
            if not text:
                raise Unsaid("old-runtime-used", self.source.slice(start, end)[:40], start)
            self.names.edits.add(span, text.strip(), "type-of-page")


def _within(span: Span, around: Span) -> bool:
    return around.start <= span.start and span.end <= around.end


def _components(nodes: tuple[Markup, ...]) -> Iterator[Element]:
    for node in nodes:
        if isinstance(node, Element) and node.component:
            yield node
        yield from _components(children_of(node))


def _interface(component: Component) -> InterfaceMap:
    """Inputs keep their names; functions that are only called are events, content is slots."""
    return interface_of(
        ((prop.name, input_name(prop.name)) for prop in component.inputs.props),
        ((prop, prop[2].lower() + prop[3:]) for prop in component.outward.events),
        ((name or CONTENT, name) for name in slot_names(component.view.markup)),
        exposed=((name, name) for name in component.outward.exposed),
        tags=((component.name, component.name),),
        classes=((("className", "class"),) if component.view.falls_through else ()),
    )
