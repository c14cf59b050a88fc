"""The writer of views: the view, its class, and the helper class where it uses one."""

from __future__ import annotations

from pathlib import Path

from clean_carry.component.code import Assign, Changed, Emit
from clean_carry.component.fragment import Fragment, new, settled
from clean_carry.component.interface import InterfaceMap, interface_of
from clean_carry.component.markup import Element, RawHtml, slot_names, walk
from clean_carry.component.members import (
    Derived,
    Effect,
    Followed,
    KeptOption,
    Method,
    Reaction,
    State,
    Timed,
)
from clean_carry.component.model import Component, Refusal
from clean_carry.component.spans import Span
from clean_carry.source.javascript.script_style import script_style
from clean_carry.source.php.helper import METHODS, helper_class
from clean_carry.syntaxes.contract import Fitted
from clean_carry.syntaxes.member_types import MemberTypes
from clean_carry.syntaxes.server_view.children import Children
from clean_carry.syntaxes.server_view.class_file import ClassWriter
from clean_carry.syntaxes.server_view.expressions import RULE, Expressions
from clean_carry.syntaxes.server_view.names import class_of, variable, view_of
from clean_carry.syntaxes.server_view.preflight import faults, faults_of_view
from clean_carry.syntaxes.server_view.template import TemplateWriter
from clean_carry.syntaxes.unsaid import Unsaid
from clean_carry.syntaxes.written import NewText, Note, Written, stem_of, unchanged

_HELPER = "Js.php"
# Findings of a reader that say nothing about a view.
_LOOKED_AT = frozenset({"unknown-option", "state-not-literal"})


class ViewWriter:
    """Writes a component that only shows what it is given as a view of the server."""

    writing: type[Writing]

    def write(self, fitted: Fitted) -> Written:
        """Write the component of a file; one that cannot be written is refused."""
        file = fitted.file
        refused = file.refusals
        if file.components and not refused:
            component = file.components[0]
            try:
                if component.span.start in fitted.excluded:
                    raise Unsaid(*fitted.excluded[component.span.start])
                return self.writing(fitted, component).written()
            except Unsaid as reason:
                refused = (Refusal(component.name, reason.rule, reason.detail, reason.at),)
        return unchanged(file.source, fitted.ledger, tuple(refused))


class Writing:
    """One component on its way to a view: what it may hold, and how its parts are written."""

    held: tuple[type, ...] = (State, Derived)
    expressions_of = Expressions
    tag = "x-"

    def __init__(self, fitted: Fitted, component: Component) -> None:
        self.fitted, self.component = fitted, component
        self.source = fitted.file.source
        self.name = class_of(stem_of(fitted.workspace.file.name).partition(".")[0])
        self.types = MemberTypes(component, self.source, fitted.told)
        self.expressions = self.expressions_of(self.types)
        # The text written beside the view.
        self.also = Fragment()
        self.refuse_browser()

    def refuse_browser(self) -> None:
        """Refuse what only a browser does: state that changes, events, hooks, elements."""
        self.refuse_unread()
        for _, one in self.component.operations():
            at = one.span.start
            if isinstance(one, Assign | Changed):
                name = one.name if isinstance(one, Changed) else one.member.name
                raise Unsaid("runs-in-browser", f"the change of {name}", at)
            if isinstance(one, Emit):
                raise Unsaid("runs-in-browser", f"the event {one.event}", at)
        self.refuse_members()

    def refuse_unread(self) -> None:
        """Refuse what a reader has left."""
        for rule, detail, at in self.component.facts.unread:
            if rule not in _LOOKED_AT:
                raise Unsaid(rule, detail, at)

    def refuse_members(self) -> None:
        """Refuse members that run in the browser, and output that is no template."""
        component = self.component
        for part in component.members:
            if isinstance(part, KeptOption) and part.name == "inheritAttrs":
                continue
            if not isinstance(part, self.held):
                what, at = _named(part, component.span.start)
                raise Unsaid("runs-in-browser", what, at)
        if component.view.drawing is not None:
            raise Unsaid("view-markup-unread", "code that renders", component.span.start)
        if self.fitted.file.styles:
            at = self.fitted.file.styles[0].content.start
            raise Unsaid("view-markup-unread", "a block of styles", at)

    def template(self, unit: str) -> TemplateWriter:
        """The writer of the view."""
        made = TemplateWriter(self.component, self.source, self.expressions, unit)
        made.children = Children(self.fitted.file, self.fitted.workspace)
        for part in self.component.members:
            if isinstance(part, KeptOption):
                made.passes_on = "false" not in self.source.slice(*part.span[:2])
                made.settle(part.entry)
        return made

    def script(self) -> ClassWriter:
        """The writer of the class."""
        return ClassWriter(self.component, self.name, self.expressions)

    def preflight(self, class_text: str, view: str, *, one_root: bool = False) -> None:
        """Raises `Unsaid` for a class or a view in which the engine would not find what it names."""
        elements = (one for one in walk(self.component.view.markup) if isinstance(one, Element))
        raw = sum(isinstance(one, RawHtml) for each in elements for one in each.attributes)
        for fault in (
            *faults(class_text, self.name, view_of(self.name)),
            *faults_of_view(view, raw=raw, one_root=one_root),
        ):
            raise Unsaid("view-preflight", fault, self.component.span.start)

    def more_files(self) -> dict[str, str]:
        """Other files that belong to the view, by their names."""
        return {}

    def refuse_module(self, children: Children) -> None:
        """Refuse code around the component, but imports of children that the view uses."""
        for node in self.fitted.file.tree.root.named_children:
            if node.type in ("export_statement", "empty_statement") or children.is_used(node):
                continue
            what = node.text.split("\n")[0][:40]
            raise Unsaid("not-said-in-view", f"the code of the module, `{what}`,", node.start)

    def check(self, template: TemplateWriter, view: str) -> None:
        """Raises `Unsaid` where the view is not as the engine wants it."""

    def written(self) -> Written:
        """The new files, with the interface and notes."""
        component, source, ledger = self.component, self.source, self.fitted.ledger
        unit = script_style(self.fitted.file.tree, self.fitted.workspace.file).unit
        template = self.template(unit)
        view = template.written()
        self.check(template, view)
        if template.children is not None:
            self.refuse_module(template.children)
        script = self.script()
        class_text = script.written()
        self.preflight(class_text, view)
        for entry in ledger.entries:
            held = entry.notion in ("file", "template", "block", "options")
            if (held and entry.outcome == "open") or entry.notion == "module code":
                entry.outcome, entry.rule = "carried", "file-to-view"
            elif entry.notion == "code" and self._is_said(entry.span):
                entry.outcome, entry.rule = "carried", RULE
            elif entry.notion == "comment" and self._is_said(entry.span):
                # Statements keep their comments; one inside an expression stays behind.
                if source.slice(*entry.span[:2]) in class_text:
                    entry.outcome, entry.rule = "carried", RULE
        settle = template.settled + template.attributes.settled + script.settled
        settle += self.expressions.settled + self.also
        for entry_ in component.entries.values():
            settle += settled(entry_, "file-to-view")
        folder = Path(source.path).parent
        path = (folder / f"{view_of(self.name)}.blade.php").as_posix()
        helpers = self.expressions.helpers
        head = "@php use App\\Support\\Js; @endphp\n" if "Js::" in view else ""
        files = [
            NewText(path, settle + new(f"{head}{view}\n"), source, ledger),
            NewText((folder / f"{self.name}.php").as_posix(), new(class_text), source, ledger),
        ]
        if helpers:
            # The same for all components, so that they can share it.
            text = helper_class(METHODS)
            files.append(NewText((folder / _HELPER).as_posix(), new(text), source, ledger))
        for name, text in self.more_files().items():
            files.append(NewText((folder / name).as_posix(), new(text), source, ledger))
        start = component.span.start
        notes = [*template.notes, *self.notes()]
        return Written(tuple(files), (component,), (), {start: self._interface()}, {start: notes})

    def _is_said(self, span: Span) -> bool:
        said = self.expressions.said_spans
        return any(start <= span.start and span.end <= end for start, end in said)

    def notes(self) -> list[Note]:
        """Inputs whose types only the values of trials tell."""
        found = []
        for member in self.expressions.used:
            if member.kind in ("prop", "state") and member.name in self.fitted.told:
                bare = MemberTypes(self.component, self.source).of(member)
                if bare != self.types.of(member):
                    found.append(member.name)
        names = ", ".join(dict.fromkeys(found))
        return [("types-from-trials", names, self.component.span.start)] if names else []

    def _interface(self) -> InterfaceMap:
        inputs = [(one.name, variable(one.name)) for one in self.component.inputs.props]
        slots = ((name, variable(name)) for name in slot_names(self.component.view.markup))
        tags = ((self.component.name, f"{self.tag}{view_of(self.name)}"),)
        return interface_of(inputs, (), slots, tags=tags)


def _named(part: object, start: int) -> tuple[str, int]:
    """A member that no view has, in words, and its place: `start` where it has none of its own."""
    match part:
        case Timed():
            text = part.callback.text
            return f"the hook {part.hook}", text.span.start if text is not None else start
        case Reaction():
            return f"the watcher of {part.source.name}", part.text.span.start
        case Effect() | Followed():
            return "an effect", part.text.span.start
        case Method():
            return f"the method {part.name}", part.text.span.start
    return getattr(part, "name", "") or type(part).__name__.lower(), start


ViewWriter.writing = Writing
