"""Values that a directive's factory shares between all its uses, as a service beside the component.

A factory runs once for an application, as a service's does; a controller runs for each component.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from clean_carry.component.fragment import Fragment, new
from clean_carry.source.javascript.read_only_values import only_looked_at
from clean_carry.source.javascript.scope import Binding
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.controller_component.spelling import Spelling
from clean_carry.syntaxes.controller_component.text import first_of, lead_of
from clean_carry.syntaxes.scoped_template.model import NotRead
from clean_carry.syntaxes.scoped_template.registrations import plain

_DECLARES = ("variable_declaration", "lexical_declaration")
_PLAIN = "string number true false null member_expression identifier".split()


@dataclass(frozen=True)
class Shared:
    """Statements of a factory that stay one for all, in order, and the names others use of them."""

    statements: tuple[Node, ...]
    names: tuple[str, ...]


def _is_pattern(value: Node) -> bool:
    """Whether a value is a pattern that does not remember where it was.

    One with the flag `g` or `y` does (ECMA-262 §22.2.7.2).
    """
    flags = value.child("flags")
    return value.type == "regex" and not (flags is not None and set(flags.text) & {"g", "y"})


class SharedWriting(Spelling):
    """Splits the statements of the factory into those each component has, and those all share."""

    @cached_property
    def shared(self) -> Shared:
        """Return the values shared by all uses. Raises `NotRead` if they cannot be a service."""
        helpers = super()._helpers()
        group = [s for s in helpers if not self._fixed(s)]
        if not group:
            return Shared((), ())
        if self.sharing is not None:
            raise NotRead("shared-between-instances", _line(group[0]), group[0].start)
        growing = True
        while growing:
            inside = {id(b) for s in group for b in self._declared(s)}
            asked = {id(b) for s in group for b in self._asked(s)}
            more = [
                s
                for s in helpers
                if s not in group
                and (
                    any(id(b) in asked for b in self._declared(s))
                    or any(id(b) in inside and (b.written or _holds(s)) for b in self._asked(s))
                )
            ]
            group += more
            growing = bool(more)
        group.sort(key=lambda s: s.start)
        self._apart_from_definition(group)
        return Shared(tuple(group), tuple(self._used_names(group)))

    def _apart_from_definition(self, group: list[Node]) -> None:
        """Raise `NotRead` where shared statements end the factory, or ask for what gives the definition."""
        injected = {
            i.parameter.start
            for i in self.definition.registration.injections
            if i.parameter is not None
        }
        for statement in group:
            ends = any(
                node.type == "return_statement"
                and next((up for up in node.up() if up.is_function), None) is self.factory
                for node in statement.walk()
            )
            strange = any(
                _within(binding.node, [self.factory])
                and not _within(binding.node, group)
                and binding.node.start not in injected
                for binding in self._asked(statement)
            )
            if ends or strange:
                raise NotRead("shared-between-instances", _line(statement), statement.start)

    def _used_names(self, group: list[Node]) -> list[str]:
        """The names of shared statements that code of the component uses."""
        moved = [function for _, function in self.directive.links]
        if self.directive.controller.function is not None:
            moved.append(self.directive.controller.function)
        moved += [s for s in super()._helpers() if s not in group]
        found = []
        for statement in group:
            for binding in self._declared(statement):
                outside = [r for r in binding.references if not _within(r, group)]
                if not outside:
                    continue
                if binding.written or not all(_within(r, moved) for r in outside):
                    raise NotRead("shared-between-instances", _line(statement), statement.start)
                found.append(binding.node.text)
        return found

    def _helpers(self) -> list[Node]:
        """The statements of the factory that each component has."""
        shared = {s.start for s in self.shared.statements}
        return [s for s in super()._helpers() if s.start not in shared]

    def _brings(self) -> bool:
        """Whether the controller has anything of the factory."""
        return bool(self._helpers()) or bool(self.shared.statements)

    def _handed(self) -> None:
        super()._handed()
        if self.shared.statements:
            self.handed.services[self._service] = self._service
            at = self.shared.statements[0].start
            self.notes.append(("shared-as-service", self._service, at))

    @property
    def _service(self) -> str:
        """The name of the service."""
        return f"{self.directive.name}Shared"

    def _shared_names(self, line: str) -> Fragment:
        """The shared names the controller uses, as variables of it."""
        text = Fragment()
        for name in self.shared.names:
            value = f"{self._service}.{name}{self.style.semicolon}"
            text += new(f"{line}{self.style.declare} {name} = {value}")
        return text

    def _shared_service(self) -> Fragment:
        """The registration of the service, up to the dot of the component's."""
        if not self.shared.statements:
            return Fragment()
        at, unit, q = self.definition.registration.at, self.style.unit, self.style.quote
        indent = self._indent(at)
        given = self._given_to_shared()
        listed = "".join(f"{q}{service}{q}, " for service, _ in given)
        names = ", ".join(name for _, name in given)
        opening = "[" if given else ""
        head = f".factory({q}{self._service}{q}, {opening}{listed}function{self.style.space}({names}) {{"
        inner = f"\n{indent}{unit}"
        text = new(head)
        strict = self._prologue()
        if strict is not None:
            text += new(inner + self.source.slice(strict.start, strict.end) + "\n")
        level = self._levels(indent) + 1
        before = 0
        for statement in self.shared.statements:
            lead = lead_of(self.source, self.file.tree.comments, statement, 0)
            first = first_of(self.source, lead, statement)
            gap = before and self.source.data[before:first].count(b"\n") > 1
            shift = level - self._levels(self._indent(statement.start))
            text += new("\n" + inner if gap else inner)
            text += self.edits.text(first, statement.end).shifted(shift)
            before = statement.end
        if self.shared.names:
            pairs = ", ".join(f"{name}: {name}" for name in self.shared.names)
            text += new(f"\n{inner}return {{ {pairs} }}{self.style.semicolon}")
        else:
            text += new(f"\n{inner}return {{}}{self.style.semicolon}")
        own_line = not self.source.data[self.source.line_start(at) : at].strip()
        text += new(f"\n{indent}}}{']' if given else ''})" + (f"\n{indent}" if own_line else ""))
        return text

    def _given_to_shared(self) -> list[tuple[str, str]]:
        """Yield the factory's services that shared statements use: (service, parameter)."""
        found = []
        for injection in self.definition.registration.injections:
            if injection.parameter is None:
                continue
            binding = self.js.scope_at(injection.parameter).find(injection.parameter.text)
            refs = binding.references if binding is not None else []
            if any(_within(ref, self.shared.statements) for ref in refs):
                found.append((injection.name, injection.parameter.text))
        return found

    # -- statements -------------------------------------------------------------------------

    def _fixed(self, statement: Node) -> bool:
        """Whether it makes no difference if a statement runs once for all, or for each."""
        if statement.type in ("function_declaration", "comment", "empty_statement"):
            return True
        if statement.type not in _DECLARES:
            return False
        for declarator in statement.named_children:
            name, value = declarator.child("name"), plain(declarator.child("value"))
            binding = self.js.scope_at(declarator).find(name.text) if name is not None else None
            fixed = value is not None and (
                value.is_function
                or _is_pattern(value)
                or self._is_filter(value)
                or (binding is not None and only_looked_at(binding, value))
                or value.type in _PLAIN
            )
            if binding is None or binding.written or not fixed:
                return False
        return True

    def _is_filter(self, value: Node) -> bool:
        """Whether a value is a filter the runtime has one of: `$filter('date')`."""
        callee = value.child("function") if value.type == "call_expression" else None
        injections = self.definition.registration.injections
        named = [
            i.parameter.text for i in injections if i.name == "$filter" and i.parameter is not None
        ]
        return callee is not None and callee.text in named

    def _declared(self, statement: Node) -> list[Binding]:
        """Return the names that a statement declares; raises `NotRead` if one is no plain name."""
        holders = statement.named_children if statement.type in _DECLARES else [statement]
        found = []
        for holder in holders:
            name = holder.child("name")
            if name is None and holder.type not in ("variable_declarator", "function_declaration"):
                continue
            binding = self.js.scope_at(holder).find(name.text) if name is not None else None
            if binding is None or name is None or name.type != "identifier":
                raise NotRead("shared-between-instances", _line(statement), statement.start)
            found.append(binding)
        return found

    def _asked(self, statement: Node) -> list[Binding]:
        """Return the names that a statement uses."""
        found = [self.js.meaning(n) for n in statement.walk() if n.type == "identifier"]
        return [binding for binding in found if binding is not None]


def _holds(statement: Node) -> bool:
    return statement.type in _DECLARES


def _line(node: Node) -> str:
    return node.text.split("\n")[0][:60]


def _within(ref: Node, nodes: list[Node] | tuple[Node, ...]) -> bool:
    return any(node.start <= ref.start < node.end for node in nodes)
