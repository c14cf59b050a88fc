"""The writer of stateful views: the view, its class, and the helper class where it uses one."""

from __future__ import annotations

import re

from clean_carry.component.code import Emit, Member
from clean_carry.component.markup import Element, MarkupComment
from clean_carry.component.members import Derived, KeptOption, Method, State
from clean_carry.source.expressions.types import ANY
from clean_carry.syntaxes.server_view.template import TemplateWriter
from clean_carry.syntaxes.server_view.writer import ViewWriter, Writing
from clean_carry.syntaxes.stateful_view.actions import Statements
from clean_carry.syntaxes.stateful_view.attributes import StatefulAttributes
from clean_carry.syntaxes.stateful_view.class_file import StatefulClass
from clean_carry.syntaxes.stateful_view.expressions import StatefulExpressions
from clean_carry.syntaxes.unsaid import Unsaid


class _Stateful(Writing):
    """One component on its way to a stateful view."""

    held = (State, Derived, Method)
    expressions_of = StatefulExpressions
    tag = "livewire:"

    def refuse_browser(self) -> None:
        """Refuse what only a browser does: events for parents, hooks, elements."""
        self.refuse_unread()
        for _, one in self.component.operations():
            if isinstance(one, Emit):
                raise Unsaid("runs-in-browser", f"the event {one.event}", one.span.start)
        self.refuse_members()
        for derived in self.component.derived:
            if derived.returned is None and derived.setter is None:
                # Its statements are read for the type of their result.
                scratch = StatefulExpressions(self.types)
                with scratch.of_class():
                    made = Statements(self.source, scratch, derived.text)
                    made.written({}, 0)
                self.types.learn(Member("derived", derived.name), made.returned or ANY)

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
        return made

    def check(self, template: TemplateWriter, view: str) -> None:
        """Raises `Unsaid` where the view has several roots, or keeps nothing."""
        if re.search(r"\bwire:(?!key)", view) is None:
            raise Unsaid("keeps-no-state", self.component.name, self.component.span.start)
        real = [one for one in template.roots if not isinstance(one, MarkupComment)]
        if len(real) != 1 or not isinstance(real[0], Element):
            raise Unsaid(
                "view-markup-unread", "a view with several roots", self.component.span.start
            )


class StatefulWriter(ViewWriter):
    """Writes a component as a stateful view."""

    writing = _Stateful
