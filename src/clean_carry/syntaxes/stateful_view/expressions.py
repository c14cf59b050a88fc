"""Code of a component as a stateful view says it, or its class."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.code import Member
from clean_carry.syntaxes.server_view.expressions import Expressions
from clean_carry.syntaxes.server_view.names import variable


@dataclass
class StatefulExpressions(Expressions):
    """Says the code of one component: computed values are members in the view as well."""

    def member(self, member: Member) -> str:
        """The spelling of a member."""
        own = variable(member.name)
        if self.in_class or member.kind == "derived":
            return f"$this->{own}"
        return f"${own}"
