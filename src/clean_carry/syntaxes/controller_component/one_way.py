"""Two-way bindings as a one-way binding and an event: the owner of the value hears it and sets it.

Each place that writes one tells of it: `$ctrl.onSeatsChange({ $value: $ctrl.seats })`. Where a write cannot
be followed by that, nothing is written.
"""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.component.replacements import Replacements
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.controller_component.spelling import Spelling
from clean_carry.syntaxes.scoped_template.markup import ScopeName, TemplateNames
from clean_carry.syntaxes.scoped_template.model import CONTROLLER, Binding, Directive, NotRead
from clean_carry.syntaxes.scoped_template.registrations import text_of
from clean_carry.syntaxes.scoped_template.templates import Template


def event_of(name: str) -> str:
    """The name of the event that reports a new value: `seats` has `onSeatsChange`."""
    return f"on{name[:1].upper()}{name[1:]}Change"


class OneWay:
    """The changes of one directive so that its bindings become one-way."""

    def __init__(self, writer: Spelling, edits: Replacements) -> None:
        self.writer, self.edits = writer, edits
        self.directive: Directive = writer.directive
        two_way = {n: b for n, b in self.directive.bindings.items() if b.kind == "="}
        self.written = {name: b for name, b in two_way.items() if self._is_written(name)}
        self.read = {name: b for name, b in two_way.items() if name not in self.written}

    def _is_written(self, name: str) -> bool:
        found = (n for _, t in self.directive.templates for n in t.names)
        if any(n.name == name and n.written and not n.path for n in found):
            return True
        return bool(
            self.directive.scope.members().get(name) or self.directive.instance.members.get(name)
        )

    def told(self, name: str, instance: str = CONTROLLER) -> str:
        """The call that reports a new value."""
        member = self.writer.members.of(name)
        return f"{instance}.{event_of(name)}({{ $value: {instance}.{member} }})"

    def in_code(self) -> None:
        """Report the change after every statement that writes a binding. Raises `NotRead`."""
        for name, binding in self.directive.bindings.items():
            if binding.kind == "=":
                self._declared(name, binding)
        at = self.directive.definition.registration.at
        for name in self.written:
            if self.directive.instance.members.get(name) or self.writer.handed_on:
                raise NotRead("one-way-write", name, at)
        for use in self.directive.scope.uses:
            if use.kind in ("computed", "fill"):
                raise NotRead(
                    "one-way-write", use.where.text[:60] if use.where else "", use.ref.start
                )
            if use.kind == "member" and use.written and use.name in self.written:
                assert use.where is not None
                statement = _statement_of(use.where)
                if statement is None:
                    raise NotRead("one-way-write", use.where.text, use.ref.start)
                style = self.writer.style
                indent = self.writer.source.indent_at(statement.start)
                text = self.told(use.name, self.writer.instance_at(use.ref))
                end = statement.end
                self.edits.spell(
                    end, end, f"\n{indent}{text}{style.semicolon}", "binding", "one-way"
                )

    def _declared(self, name: str, binding: Binding) -> None:
        pair = binding.node
        value = pair.child("value")
        assert value is not None
        at = value.start + 1 + (text_of(value) or "").index("=")
        self.edits.spell(at, at + 1, "<", "binding", "one-way")
        if name in self.written:
            q = self.writer.style.quote
            data = self.writer.source.data
            line = self.writer.source.line_start(pair.start)
            alone = not data[line : pair.start].strip()
            gap = f"\n{self.writer.source.indent_at(pair.start)}" if alone else " "
            event = f",{gap}{event_of(name)}: {q}&{q}"
            self.edits.spell(pair.end, pair.end, event, "binding", "one-way")

    def in_template(
        self, template: Template, found: TemplateNames
    ) -> Iterator[tuple[int, int, str, str]]:
        """Return the events of the template for values that it writes: (start, end, text, rule)."""
        for name in found.names:
            if (
                name.written
                and not name.path
                and name.name in self.written
                and name.up >= name.level
            ):
                yield self._after(template, found, name)

    def _after(
        self, template: Template, found: TemplateNames, name: ScopeName
    ) -> tuple[int, int, str, str]:
        call = self.told(name.name, self.directive.holder)
        for node, attribute, start, end in found.values:
            if not start <= name.start < end:
                continue
            if attribute != "ngModel":
                return end, end, f"; {call}", "one-way"
            for other, its, first, _ in found.values:
                if other is node and its == "ngChange":
                    return first, first, f"{call}; ", "one-way"
            quote = template.source.slice(end, end + 1)
            if quote not in ('"', "'"):
                break
            around = template.quote
            shown = f"\\{quote}" if around == quote else quote
            return end + 1, end + 1, f" ng-change={shown}{call}{shown}", "one-way"
        raise NotRead("one-way-write", name.name, self.directive.definition.registration.at)


def _statement_of(member: Node) -> Node | None:
    """The statement that does nothing but to write a member."""
    write = member.parent
    statement = write.parent if write is not None else None
    kinds = ("assignment_expression", "augmented_assignment_expression", "update_expression")
    if write is None or statement is None or write.type not in kinds:
        return None
    block = statement.parent
    plain = statement.type == "expression_statement" and block is not None
    return statement if plain and block is not None and block.type == "statement_block" else None
