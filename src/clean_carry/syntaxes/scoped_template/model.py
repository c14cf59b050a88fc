"""Directives that were read, as far as they were understood, and the file they stand in."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.contract import ScriptFile
from clean_carry.syntaxes.scoped_template.definition import Definition
from clean_carry.syntaxes.scoped_template.markup import TemplateNames
from clean_carry.syntaxes.scoped_template.meaning import Meaning
from clean_carry.syntaxes.scoped_template.registrations import (
    Injection,
    Registration,
    Registrations,
)
from clean_carry.syntaxes.scoped_template.scope_uses import InstanceUses, ScopeUses
from clean_carry.syntaxes.scoped_template.templates import Template

# The template's name for the component's instance, where no other one is declared.
CONTROLLER = "$ctrl"


@dataclass(frozen=True)
class Binding:
    """One binding of an isolated scope: `kind` is what stands for it (`@`, `&`, `=`, `<`)."""

    name: str
    kind: str
    optional: bool
    attribute: str
    node: Node


@dataclass(frozen=True)
class Controller:
    """The function that makes a directive's instance.

    `form` is how it is given: `inline` in the definition, `registered` under a name of its own or
    `declared` as a function of the file, `local` to the factory, `closed` where it is a class or stands in
    another file: nothing can be written into it; "" where there is none.
    """

    form: str = ""
    name: str = ""
    function: Node | None = None
    injections: tuple[Injection, ...] = ()
    explicit: bool = False
    value: Node | None = None
    registration: Registration | None = None


@dataclass
class Directive:
    """One directive that can be carried, as far as it was understood."""

    definition: Definition
    templates: list[tuple[Template, TemplateNames]]
    bindings: dict[str, Binding]
    controller: Controller
    links: list[tuple[str, Node]]
    scope: ScopeUses
    instance: InstanceUses
    alias: str
    bound_to_controller: bool
    required: list[tuple[str, str]] = field(default_factory=list)

    @property
    def name(self) -> str:
        """The name it is registered by."""
        return self.definition.name

    @property
    def isolated(self) -> bool:
        """Whether its scope inherits nothing."""
        return self.definition.isolated

    @property
    def holder(self) -> str:
        """The name by which its template asks the instance: the author's own, or the runtime's for
        components."""
        return self.alias or CONTROLLER

    def template_names(self) -> set[str]:
        """The names of its own scope that its templates use."""
        return {
            n.name
            for _, names in self.templates
            for n in names.names
            if n.up <= n.level and not n.name.startswith("$") and n.name not in (self.alias, "this")
        }


@dataclass
class DirectiveFile(ScriptFile):
    """A script with directives; each of those read has a component of its own.

    `controllers` are the directives that have each controller that is registered by name, `meaning` what
    the project's directives mean.
    """

    names: Names = field(kw_only=True)
    registrations: Registrations = field(kw_only=True)
    directives: list[Directive] = field(default_factory=list, kw_only=True)
    controllers: dict[str, list[str]] = field(default_factory=dict, kw_only=True)
    meaning: Meaning | None = field(default=None, kw_only=True)


class NotRead(Exception):
    """A directive that cannot be carried: a rule, a detail, and where."""

    def __init__(self, rule: str, detail: str, at: int) -> None:
        super().__init__(rule)
        self.rule, self.detail, self.at = rule, detail, at
