"""The writer of stateful views: the view, its class, and the helper class where it uses one."""

from __future__ import annotations

import re

from clean_carry.component.code import Emit, Member
from clean_carry.component.markup import Attribute, Element, Handler, MarkupComment, TwoWay
from clean_carry.component.members import Derived, KeptOption, Method, State, Timed
from clean_carry.source.expressions.types import ANY, Type, type_of_value
from clean_carry.source.javascript.script_style import script_style
from clean_carry.source.php.literals import NULLISH
from clean_carry.syntaxes.member_types import REPLY
from clean_carry.syntaxes.server_view.attributes import Parts
from clean_carry.syntaxes.server_view.names import variable, view_of
from clean_carry.syntaxes.server_view.preflight import sent
from clean_carry.syntaxes.server_view.template import TemplateWriter
from clean_carry.syntaxes.server_view.writer import ViewWriter, Writing
from clean_carry.syntaxes.stateful_view.actions import Statements
from clean_carry.syntaxes.stateful_view.attributes import StatefulAttributes
from clean_carry.syntaxes.stateful_view.class_file import StatefulClass
from clean_carry.syntaxes.stateful_view.expressions import StatefulExpressions
from clean_carry.syntaxes.stateful_view.loading import SOURCE_FILES, Loading
from clean_carry.syntaxes.stateful_view.routes import Queries, Routes
from clean_carry.syntaxes.unsaid import Unsaid
from clean_carry.syntaxes.written import Note


class _Waiting(StatefulAttributes):
    """The attributes of a placeholder, in which nothing listens."""

    def one(self, one: Attribute, node: Element, parts: Parts) -> None:
        """Add an attribute to the parts of its element."""
        if isinstance(one, Handler | TwoWay):
            what = one.event if isinstance(one, Handler) else "a field"
            raise Unsaid(
                "runs-in-browser", f"{what} while data are on their way", one.code.span.start
            )
        super().one(one, node, parts)


class _Stateful(Writing):
    """One component on its way to a stateful view."""

    held: tuple[type, ...] = (State, Derived, Method)
    expressions_of = StatefulExpressions
    tag = "livewire:"

    def refuse_browser(self) -> None:
        """Refuse what only a browser does: events for parents, hooks, elements."""
        self.refuse_unread()
        for _, one in self.component.operations():
            if isinstance(one, Emit):
                raise Unsaid("runs-in-browser", f"the event {one.event}", one.span.start)
        told = self.fitted.told.get(REPLY)
        answer = type_of_value(told) if told is not None else ANY
        names = frozenset(getattr(one, "name", "") for one in self.component.members)
        queries = Queries(Routes(self.fitted.workspace.file), names)
        self.loading = Loading(self.component, self.source, answer, queries)
        if self.loading.hook is not None:
            self.held = (*self.held, Timed)
            self._refuse_other_hooks(self.loading.hook)
            self.loading.find_pending(self.expressions)
            self.loading.learn(self.expressions)
            self.loading.settle_flags(self.expressions)
        self.refuse_members()
        for derived in self.component.derived:
            if derived.returned is None and derived.setter is None:
                # Its statements are read for the type of their result.
                scratch = StatefulExpressions(self.types)
                with scratch.of_class():
                    made = Statements(self.source, scratch, derived.text)
                    made.written({}, 0)
                self.types.learn(Member("derived", derived.name), made.returned or ANY)

    def _refuse_other_hooks(self, loading: Timed) -> None:
        for one in self.component.members:
            if isinstance(one, Timed) and one is not loading:
                at = one.callback.text.span.start if one.callback.text is not None else 0
                raise Unsaid("runs-in-browser", f"the hook {one.hook}", at)

    def template(self, unit: str) -> TemplateWriter:
        """The writer of the view, whose one root takes no attributes, and which has no slots."""
        made = TemplateWriter(self.component, self.source, self.expressions, unit)
        self.fields = StatefulAttributes(self.source, self.expressions, made.notes)
        members = (getattr(one, "name", "") for one in self.component.members)
        inputs = (one.name for one in self.component.inputs.props)
        state = self.component.state
        held = (one.name for one in (state.fields or () if state is not None else ()))
        self.fields.taken = frozenset({*members, *inputs, *held})
        made.attributes = self.fields
        made.passes_on = made.takes_slots = False
        for part in self.component.members:
            if isinstance(part, KeptOption):
                made.settle(part.entry)
        return made

    def script(self) -> StatefulClass:
        """The writer of the class."""
        made = StatefulClass(self.component, self.name, self.expressions)
        made.given, made.inline = self.fields.given, self.fields.inline
        made.loading = self.loading
        if self.loading.hook is not None:
            made.shown = self._shown()
        return made

    def notes(self) -> list[Note]:
        """The findings about the view, its types and its data."""
        start = self.component.span.start
        unread = ", ".join(self.unread)
        more = [("sent-to-browser", unread, start)] if unread else []
        return [*super().notes(), *self.loading.notes, *more]

    def more_files(self) -> dict[str, str]:
        """The placeholder, and the interface that gives the data."""
        if self.loading.hook is None:
            return {}
        files = SOURCE_FILES if self.loading.opens else {}
        return {f"{view_of(self.name)}-placeholder.blade.php": self.waiting, **files}

    def _shown(self) -> dict[str, str]:
        """Write the placeholder: the view while data are on their way. Gives the values that it shows."""
        self.first = self.loading.wait(self.expressions)
        before = dict(self.expressions.used)
        self.expressions.used.clear()
        unit = script_style(self.fitted.file.tree, self.fitted.workspace.file).unit
        waiting = TemplateWriter(self.component, self.source, self.expressions, unit)
        waiting.attributes = _Waiting(self.source, self.expressions, waiting.notes)
        waiting.passes_on = waiting.takes_slots = False
        self.waiting = waiting.written() + "\n"
        self.also = waiting.settled + waiting.attributes.settled
        shown = {variable(one.name): self._first(one) for one in self.expressions.used}
        self.expressions.used.update(before)
        self.loading.settle_flags(self.expressions)
        return shown

    def _first(self, member: Member) -> str:
        """The code for the value that a member has before the data are there."""
        if member.kind == "prop":
            prop = next(one for one in self.component.inputs.props if one.name == member.name)
            name = f"$params['{variable(member.name)}']"
            code = self.expressions.types.default_code(prop.default) if prop.default else None
            if code is None:
                return name if prop.required else f"{name} ?? null"
            return f"{name} ?? {self.expressions.said(code, 'value', NULLISH)}"
        code = self.first.get(member.name) if member.kind == "state" else None
        if code is not None and not code.operations:
            return self.expressions.said(code, "value")
        raise Unsaid(
            "runs-in-browser", f"the value {member.name} while data are on their way",
            self.component.span.start,
        )  # fmt: skip

    def preflight(self, class_text: str, view: str, *, one_root: bool = True) -> None:
        """The same, for a view and a placeholder of one root each."""
        super().preflight(class_text, view, one_root=one_root)
        if self.loading.hook is not None:
            super().preflight(class_text, self.waiting, one_root=one_root)
        texts = f"{class_text.partition('{')[2]}{view}"
        self.unread = list(sent(self._public(), _without_declarations(texts)))

    def _public(self) -> dict[str, Type]:
        """The public members, with their types."""
        state = self.component.state
        fields = [Member("state", one.name) for one in (state.fields or () if state else ())]
        inputs = [Member("prop", one.name) for one in self.component.inputs.props]
        kept = [one for one in (*inputs, *fields) if one.name not in self.loading.pending]
        return {variable(one.name): self.types.of(one) for one in kept}

    def check(self, template: TemplateWriter, view: str) -> None:
        """Raises `Unsaid` where the view has several roots, or keeps nothing."""
        if re.search(r"\bwire:(?!key)", view) is None and self.loading.hook is None:
            raise Unsaid("keeps-no-state", self.component.name, self.component.span.start)
        real = [one for one in template.roots if not isinstance(one, MarkupComment)]
        if len(real) != 1 or not isinstance(real[0], Element):
            raise Unsaid(
                "view-markup-unread", "a view with several roots", self.component.span.start
            )


def _without_declarations(text: str) -> str:
    """Code without the lines that declare public members."""
    return re.sub(r"(?m)^    public (?!function).*;$", "", text)


class StatefulWriter(ViewWriter):
    """Writes a component as a stateful view."""

    writing = _Stateful
