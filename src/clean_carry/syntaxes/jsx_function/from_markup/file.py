"""A component with a template as a file with a function that returns JSX, and its stylesheet beside it."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

from clean_carry.component.code import Builtin, FieldUse, Member, Operation, Read, Taken
from clean_carry.component.fragment import Fragment, copy, joined, new
from clean_carry.component.interface import InterfaceMap, interface_of
from clean_carry.component.markup import (
    Condition,
    Element,
    Loop,
    Markup,
    MarkupComment,
    Reference,
    Text,
    TwoWay,
    children_of,
    slot_names,
    walk,
)
from clean_carry.component.members import (
    Derived,
    Injected,
    KeptOption,
    StateField,
    Timed,
)
from clean_carry.component.model import Component, Refusal
from clean_carry.source.javascript.script_style import RESERVED, fixed_ranges, script_style
from clean_carry.source.javascript.values import is_identifier
from clean_carry.source.merged import MergedText
from clean_carry.syntaxes.contract import Fitted, ScriptFile
from clean_carry.syntaxes.jsx.attributes import HTML_NAMES
from clean_carry.syntaxes.jsx.runtime_names import RUNTIME
from clean_carry.syntaxes.jsx_function.from_markup.analysis import Analysis, sends
from clean_carry.syntaxes.jsx_function.from_markup.events import event_property
from clean_carry.syntaxes.jsx_function.from_markup.exposed_members import with_reached
from clean_carry.syntaxes.jsx_function.from_markup.helpers import HELPERS, ORDER
from clean_carry.syntaxes.jsx_function.from_markup.laziness import lazy_values, worked_out_always
from clean_carry.syntaxes.jsx_function.from_markup.markup import MarkupWriter
from clean_carry.syntaxes.jsx_function.from_markup.module_code import ModuleCode
from clean_carry.syntaxes.jsx_function.from_markup.names import function_name, names_of
from clean_carry.syntaxes.jsx_function.from_markup.signature import Signature
from clean_carry.syntaxes.jsx_function.from_markup.spelling import Speller
from clean_carry.syntaxes.jsx_function.from_markup.statements import Statements
from clean_carry.syntaxes.jsx_function.from_markup.styles import language_of, scope_mark, styles_of
from clean_carry.syntaxes.jsx_function.from_markup.types import typed
from clean_carry.syntaxes.jsx_function.syntax import SYNTAX
from clean_carry.syntaxes.lists import container_of
from clean_carry.syntaxes.naming import Edits, edited, free_locals, with_short_pairs
from clean_carry.syntaxes.unsaid import Unsaid
from clean_carry.syntaxes.written import NewText, Written, beside, orphaned_comments, unchanged

# How trials name what an ancestor provides.
PROVIDED = "$provided."
_MOVES = re.compile(rb"(?:appendChild|insertBefore|append|prepend)\(\s*this\.\$el\b")
# Findings of a reader that only say what another writer of its family looks at itself.
_LOOKED_AT = frozenset(
    {"unknown-option", "unknown-use", "instance-escapes", "derived-written", "state-not-literal"}
)


def write_from_markup(fitted: Fitted) -> Written:
    """Write the component of a file with a template as a function."""
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


def _made_at_once(component: Component) -> Component:
    """A component whose code just before the first render runs with that of its making: nothing happens
    between them."""
    members = component.members
    late = [m for m in members if isinstance(m, Timed) and m.when == "starting"]
    moved = tuple(replace(one, when="made") for one in late)
    return replace(component, members=(*(m for m in members if m not in late), *moved))


class _File:
    """One file on its way to a function; raises `Unsaid`."""

    def __init__(self, file: ScriptFile, fitted: Fitted, component: Component) -> None:
        # A file may be called what no function can be: `fare-table`, `404`.
        self.own_name = component.name
        component = replace(component, name=function_name(component.name))
        component = _made_at_once(with_reached(component))
        self.file, self.fitted, self.component = file, fitted, component
        self.source, self.ledger = file.source, fitted.ledger
        self.style = script_style(file.tree, fitted.workspace.file)
        self.folder = fitted.workspace.file.parent
        self.end, self.unit = self.style.semicolon, self.style.unit
        self.module = ModuleCode(file, fitted, component, self.style.quote, self.end)
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
        self.roots = self._roots(component.view.markup)
        self.attributes_kept = self._attributes_kept()
        scoped = any(block.scoped for block in file.styles)
        self.mark = scope_mark(component.name) if scoped else ""
        self.times = Analysis(component)
        self.times.lazy = lazy_values(component, self.source, self.times.asked)
        self.speller = self._speller()
        self._take_two_ways(component.view.markup)
        self._take_module_values()
        self._name_root()
        used = ((one, root) for one in self._named() for root in self.speller.root(one))
        names = self.speller.names
        free_locals(names.edits, names.taken, component, used, file.names)

    def _named(self) -> Iterator[Operation]:
        """The operations whose text begins with a name, those a pattern holds one by one."""
        for owner, one in self.component.operations():
            drawing = owner == "drawing" or isinstance(owner, Derived | StateField)
            with self.speller.mode(drawing=drawing):
                yield from [part for part, _, _ in one.members] if isinstance(one, Taken) else [one]

    def _speller(self) -> Speller:
        component = self.component
        taken = set(RESERVED) | set(component.facts.module_names) | set(component.facts.reserved)
        taken |= {RUNTIME.title(), "React", "Fragment", "event", component.name, *HELPERS}
        # Names that a template declares hide them there.
        loops = (node for node in walk(component.view.markup) if isinstance(node, Loop))
        given = {name for node in loops for name in self._given(node)}
        names = names_of(component, Edits(self.ledger), taken)
        for event in sends(component):
            names.events[event] = names.choose(
                event_property(event), f"{event_property(event)}Event"
            )
        for name in slot_names(component.view.markup):
            wish = name or "children"
            plain = is_identifier(wish) and wish not in HTML_NAMES
            plain = plain and wish not in given
            names.slots[name] = names.choose(wish if plain else f"{wish}Slot", f"{wish}Slot")
        if self.roots:
            names.taken.add("className")
        for field in component.state.fields or () if component.state is not None else ():
            names.of(Member("state", field.name))
        for derived in component.derived:
            names.of(Member("derived", derived.name))
        for method in component.methods():
            names.of(Member("method", method.name))
        return Speller(
            names,
            self.times,
            self.source,
            self.end,
            self.unit,
            self.style.quote,
            self._containers(),
        )

    def _given(self, loop: Loop) -> list[str]:
        """The names a list gives in the template."""
        codes = [loop.item, *([loop.index] if loop.index is not None else [])]
        text = " ".join(self.source.slice(*code.span[:2]) for code in codes)
        return re.findall(r"[A-Za-z_$][\w$]*", text)

    def _take_module_values(self) -> None:
        """State that is a constant of the module, and that nothing writes, is that constant."""
        component, names = self.component, self.speller.names
        if component.state is None or component.foreign.prelude is not None:
            return
        for field in component.state.fields or ():
            text = self.source.slice(*field.code.span[:2]) if field.code is not None else ""
            binding = self.file.names.module.names.get(text)
            if binding is None or binding.kind != "const" or field.name != text:
                continue
            if field.name in self.times.written or field.name in self.times.live:
                continue
            names.members[Member("state", field.name)] = text
            self.speller.module_values.add(field.name)
            declared = binding.node.parent
            value = declared.child("value") if declared is not None else None
            form = container_of(value.text) if value is not None else ""
            if form:
                self.speller.containers[field.name] = form

    def _containers(self) -> dict[str, str]:
        """Return the kind of value in the state fields, as far as their initial values show: a list
        or an object."""
        found = {}
        state = self.component.state
        for field in (state.fields or ()) if state is not None else ():
            text = self.source.slice(*field.code.span[:2]) if field.code is not None else ""
            form = container_of(text)
            if form:
                found[field.name] = form
        return found

    def _name_root(self) -> None:
        """Add a ref to the root element if code reads it."""
        asked = (
            isinstance(one, Builtin) and one.name == "$el" for _, one in self.component.operations()
        )
        if len(self.roots) != 1 or self.roots[0].component or not any(asked):
            return
        moved = _MOVES.search(self.source.data, *self.file.script)
        if moved is not None:
            # The runtime takes an element away where it put it.
            raise Unsaid("not-in-target", "$el, which is moved in the page", moved.start())
        own = next((a.member for a in self.roots[0].attributes if isinstance(a, Reference)), "")
        names = self.speller.names
        named = names.of(Member("element", own)) if own else names.choose("root", "rootElement")
        self.speller.root_named = named

    def _take_two_ways(self, nodes: tuple[Markup, ...]) -> None:
        """A field that is bound both ways is written."""
        for node in nodes:
            for one in node.attributes if isinstance(node, Element) else ():
                if isinstance(one, TwoWay):
                    first = one.code.operations[0] if one.code.operations else None
                    if isinstance(first, Read) and first.member.kind == "state":
                        self.times.written.add(first.member.name)
                    self.times.written.update(one.changes)
                    self.times.live.update(one.changes)
            self._take_two_ways(children_of(node))
        again = Analysis(self.component)
        again.written |= self.times.written
        again.live |= self.times.live
        again._find_live()
        again._find_asked()
        self.times.live, self.times.asked = again.live, again.asked

    def _roots(self, nodes: tuple[Markup, ...]) -> tuple[Element, ...]:
        """The elements that take what the parent passes on: the only root, or that of each arm of a
        condition; none where there may be several."""
        real = [one for one in nodes if not _is_blank(one, self.source)]
        if len(real) != 1:
            return ()
        if isinstance(real[0], Element):
            return (real[0],)
        if not isinstance(real[0], Condition):
            return ()
        found = [self._roots(branch.children) for branch in real[0].branches]
        return tuple(root for roots in found for root in roots) if all(found) else ()

    def _attributes_kept(self) -> bool:
        """Whether attributes go where the template says, and nowhere by themselves."""
        for part in self.component.members:
            if isinstance(part, KeptOption) and part.name == "inheritAttrs":
                return "false" in self.source.slice(part.span.start, part.span.end)
        return False

    # -- the file -----------------------------------------------------------------------------

    def written(self) -> Written:
        """The script and its stylesheet, with the interface and notes."""
        component, source = self.component, self.source
        language = language_of(self.file.styles)
        sheet = beside(source.path, "", language).replace("..", ".")
        if source.path.endswith(".ts") and (self.folder / Path(sheet).name).is_file():
            # A stylesheet that the old component has stands there.
            sheet = beside(source.path, SYNTAX.suffix, language)
        styles = styles_of(self.file.styles, self.source, self.mark)
        script = edited(
            self._script(Path(sheet).name, bool(styles.pieces)), self.speller.names.edits
        )
        script = with_short_pairs(script, source.slice, self.ledger)
        fixed = fixed_ranges(self.file.tree)
        for entry in self.ledger.entries:
            if entry.notion in ("file", "template") and entry.outcome == "open":
                entry.outcome, entry.rule = "carried", "blocks-to-module"
        ending = "tsx" if component.language.typed else "jsx"
        files = [
            NewText(
                beside(source.path, SYNTAX.suffix, ending), script, source, self.ledger, self.unit, fixed
            ),
            NewText(sheet, styles, source, self.ledger, self.unit, fixed),
        ]  # fmt: skip
        start = component.span.start
        return Written(
            tuple(files), (component,), (), {start: self._interface()}, {start: self._notes()}
        )

    def _script(self, sheet: str, styled: bool) -> Fragment:
        component, names = self.component, self.speller.names
        statements = Statements(component, self.source, self.speller)
        takes_root = bool(self.roots) and not self.attributes_kept
        writer = MarkupWriter(
            self.speller, self.unit, self.style.fit.width, self.mark,
            self.roots if takes_root else (), self.module.tag,
        )  # fmt: skip
        blocks, drawn = self._blocks(statements, writer)
        line = f"\n{self.unit}"
        body = joined(blocks, f"\n{line}")
        latest = self._latest(line)
        inputs = Signature(component, self.speller, self.source, self.style)
        signature = inputs.write(takes_root)
        given = f"{component.name}Props"
        if component.language.typed and signature.pieces:
            self.speller.names.taken.add(given)
            signature += new(f": {given}")
        reached = bool(component.outward.exposed)
        opening = f"export default function {component.name}("
        closing = f"{line}){self.end}\n}}\n"
        if reached:
            made = f"<unknown, {given}>" if component.language.typed else ""
            hook = self.speller.hook("forwardRef")
            opening = f"export default {hook}{made}(function {component.name}("
            closing = f"{line}){self.end}\n}}){self.end}\n"
            signature = (signature if signature else new("props")) + new(f", {names.reference}")
        kind = inputs.props_type(signature, takes_root)
        head = new(kind) + new(opening) + signature + new(f") {{{line}")
        inner = latest + body + (new(f"\n{line}") if blocks else Fragment())
        returned = new(f"return (\n{self.unit * 2}") + drawn + new(closing)
        function = statements.settled() + writer.settled + head + inner + returned
        before, after = self.module.around()
        said = self._said()
        for span in orphaned_comments(
            before + said + function + after, self.ledger, component.span
        ):
            levels = -len(self.source.indent_at(span.start)) // max(1, len(self.unit))
            said += copy(span).shifted(levels) + new("\n")
        helpers = self._helpers()
        imports = self._imports(sheet, styled)
        gap = (
            new("\n")
            if imports and not (before.pieces and self.module.begins_with_import())
            else Fragment()
        )
        return (
            new(imports) + gap + before + inputs.constants + said + function + after + new(helpers)
        )

    def _blocks(
        self, statements: Statements, writer: MarkupWriter
    ) -> tuple[list[Fragment], Fragment]:
        """The statements of the function, and what it returns."""
        component, names = self.component, self.speller.names
        blocks = statements.write()
        drawn = writer.drawn(component.view.markup, 2)
        blocks[statements.effects_at : statements.effects_at] = self._fields(writer)
        blocks += writer.attributes.hearing
        for entry in self.ledger.entries:
            if entry.notion == "code" and entry.span in writer.attributes.two_ways.replaced:
                entry.outcome, entry.rule = "carried", "two-way"
        for name, write, value, take in writer.attributes.two_ways.typed:
            hook = self.speller.helper("useTyped")
            blocks.append(new(f"const [{name}, {write}] = {hook}({value}, {take}){self.end}"))
        for name, code in writer.tags:
            blocks.append(new(f"const {name} = ") + code + new(self.end))
        if self.speller.heard:
            # Last, so that code that ends things can still be heard.
            held = ", ".join(self.speller.heard)
            text = f"const {names.listeners} = useListeners({{ {held} }}){self.end}"
            blocks.append(new(text))
        lazy = worked_out_always(component, self.source, self.times.lazy)
        self.notes = [*writer.notes, *statements.notes, *statements.effects.notes, *lazy]
        for span in statements.replaced:
            for entry in self.ledger.entries:
                if entry.notion == "code" and entry.span == span:
                    entry.outcome, entry.rule = "carried", "made-to-first-value"
        return blocks, drawn

    def _fields(self, writer: MarkupWriter) -> list[Fragment]:
        """Return the hooks that set field values before any other code runs after the render."""
        found = []
        for at in dict.fromkeys(writer.attributes.references.values()):
            found.append(new(f"const {at} = {self.speller.hook('useRef')}(null){self.end}"))
        for local, name, value in writer.attributes.fields:
            hook, quote = self.speller.helper("useField"), self.style.quote
            head = new(f"{hook}({local}, {quote}{name}{quote}, ")
            found.append(head + value + new(f"){self.end}"))
        return found

    def _latest(self, line: str) -> Fragment:
        """Return the ref with the latest props, for functions that outlive their render."""
        names = self.speller.names
        if not (self.speller.latest or names.after_used or names.redraw_used):
            return Fragment()
        text = ""
        if self.speller.names.redraw_used:
            name = self.speller.names.redraw(self.speller)
            text += f"const [, {name}] = useReducer((count) => count + 1, 0){self.end}{line}"
        if self.speller.latest:
            box = self.speller.names.latest
            held = ", ".join(self.speller.latest)
            text += f"const {box} = {self.speller.hook('useRef')}({{}}){self.end}{line}"
            text += f"{box}.current = {{ {held} }}{self.end}{line}"
        if self.speller.names.after_used:
            hook = self.speller.helper("useAfterRender")
            text += f"const {self.speller.names.after(self.speller)} = {hook}(){self.end}{line}"
        return new(text.rstrip() + f"\n\n{self.unit}")

    def _imports(self, own_sheet: str, styled: bool) -> str:
        q, end = self.style.quote, self.end
        hooks = set(self.speller.hooks)
        for name in self.speller.helpers:
            hooks.update(HELPERS[name][0])
        lines = ""
        if hooks:
            lines += f"import {{ {', '.join(sorted(hooks))} }} from {q}{RUNTIME}{q}{end}\n"
        if self.component.language.typed and self.speller.names.slots:
            lines += f"import type {{ ReactNode }} from {q}{RUNTIME}{q}{end}\n"
        if self.speller.page_functions:
            named = ", ".join(sorted(self.speller.page_functions))
            lines += f"import {{ {named} }} from {q}{RUNTIME}-dom{q}{end}\n"
        own = f"./{own_sheet}"
        for sheet in dict.fromkeys(block.linked or own for block in self.file.styles):
            if sheet != own or styled:
                lines += f"import {q}{sheet}{q}{end}\n"
        return lines

    def _helpers(self) -> str:
        text = ""
        for name in ORDER:
            if name in self.speller.helpers:
                made = HELPERS[name][1]
                if self.component.language.typed:
                    made = typed(name, made)
                if self.unit != "  ":
                    made = "\n".join(_indented(one, self.unit) for one in made.split("\n"))
                if not self.end:
                    made = made.replace(";\n", "\n")
                text += "\n" + made
        return text

    # -- what is said of it ---------------------------------------------------------------------

    def _said(self) -> Fragment:
        """Return the comment above the component."""
        head = self.component.place.head
        if head.start < self.component.span.start:
            return copy(self.source.span(head.start, self.component.span.start))
        return Fragment()

    def _interface(self) -> InterfaceMap:
        """Inputs keep their names; events and slots are inputs of the function."""
        names = self.speller.names
        scoped = Signature(self.component, self.speller, self.source, self.style).scoped()
        inputs = [(p.name, p.name) for p in self.component.inputs.props]
        for part in self.component.members:
            if isinstance(part, Injected):
                inputs.append((PROVIDED + part.key.strip("'\""), part.name))
        return interface_of(
            inputs,
            names.events.items(),
            (
                (name, f"{local}()" if name in scoped else local)
                for name, local in names.slots.items()
            ),
            exposed=((name, name) for name in self.component.outward.exposed),
            tags=((self.own_name, self.component.name),),
            classes=(("class", "className"),),
        )

    def _notes(self) -> list[tuple[str, str, int]]:
        found = list(dict.fromkeys(self.notes))
        if isinstance(self.source, MergedText):
            found += [("mixin-read-in", words, at) for at, words in self.source.taken.items()]
        for name, local in self.speller.names.slots.items():
            if name and local != name:
                found.append(("element-prefix", name, self.component.span.start))
        once: dict[str, tuple[str, str, int]] = {}
        for note in found:
            if note[0] in ("shown-as-it-is", "select-by-text", "style-object"):
                once.setdefault(note[0], note)
        return [n for n in found if n[0] not in once] + list(once.values())


def _is_blank(node: Markup, source) -> bool:  # type: ignore[no-untyped-def]
    if isinstance(node, Text):
        return not source.data[node.span.start : node.span.end].strip()
    return isinstance(node, MarkupComment)


def _indented(line: str, unit: str) -> str:
    depth = (len(line) - len(line.lstrip(" "))) // 2
    return unit * depth + line.lstrip(" ")
