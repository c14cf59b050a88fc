"""The arguments of a component's controller, and the names of its instance.

A link function is given scope, element and attributes by their place, a controller by their names; what the
factory of a directive was given, its controller is.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.component.ledger import Ledger
from clean_carry.component.replacements import Replacements
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.controller_component.names import MemberNames, name_members
from clean_carry.syntaxes.scoped_template.instance_passed_on import Handed
from clean_carry.syntaxes.scoped_template.model import (
    CONTROLLER,
    Binding,
    Directive,
    DirectiveFile,
    NotRead,
)
from clean_carry.syntaxes.scoped_template.registrations import annotation, parameters_of

# The member by which a controller that is passed on gives its scope.
HANDED = "scope"
# Services of the runtime (its public API, module `ng`): being given one does nothing.
OF_RUNTIME = frozenset(
    "$anchorScroll $animate $animateCss $cacheFactory $compile $controller $document "
    "$exceptionHandler $filter $http $httpBackend $injector $interpolate $interval $locale "
    "$location $log $parse $q $rootElement $rootScope $sce $sceDelegate $templateCache "
    "$templateRequest $timeout $window $sanitize $$rAF".split()
)
# The arguments of a link function in order, and the controller's names for the same.
LINKED = ("$scope", "$element", "$attrs", "", "$transclude")


@dataclass
class Style:
    """How the file is written: one level of indentation, quotes, its declarations, its functions.

    `space` stands between `function` and its parameters.
    """

    unit: str
    quote: str
    declare: str
    semicolon: str
    space: str = ""


@dataclass
class Sharing:
    """How a directive stands to a controller that others have as well.

    `bindings` are those of all of them; the `first` one writes the controller, and each whose link
    function does something has a controller of its own that makes the shared one.
    """

    bindings: dict[str, Binding]
    first: bool


@dataclass
class Given:
    """The arguments of the new controller function: service to parameter, in order."""

    services: dict[str, str] = field(default_factory=dict)


class Giving:
    """One directive of a file on its way: what it is given, and under which names."""

    def __init__(
        self,
        file: DirectiveFile,
        directive: Directive,
        edits: Replacements,
        style: Style,
        ledger: Ledger,
        sharing: Sharing | None = None,
    ) -> None:
        self.file, self.directive, self.edits, self.style = file, directive, edits, style
        self.ledger = ledger
        self.source: SourceText = file.source
        self.js: Names = file.names
        self.definition = directive.definition
        self.members: MemberNames = name_members(directive)
        self.notes: list[tuple[str, str, int]] = []
        factory = self.definition.registration.function
        assert factory is not None and self.definition.object is not None
        self.factory, self.object = factory, self.definition.object
        self.handed = Given()
        self.alias = ""
        self.keys: dict[int, str] = {}
        self.handed_on: list[Handed] = []
        self.sharing = sharing
        # Names of the scope around that become bindings.
        self.outer: list[str] = []

    def local_services(self) -> list[str]:
        """Return the services of its element that a shared controller still gets."""
        function = self.directive.controller.function
        if self.directive.controller.form == "closed":
            return [name for name in LINKED if name]
        return [
            i.name
            for i in self.directive.controller.injections
            if i.name in LINKED
            and i.name
            and (i.name != "$scope" or (function is not None and self._asked_in(function)))
        ]

    def _asked_in(self, function: Node) -> bool:
        """Whether a function reads members of the scope itself."""
        return any(
            use.kind in ("own", "parent") and function.start <= use.ref.start < function.end
            for use in self.directive.scope.uses
        )

    def _wraps(self) -> bool:
        """Whether it has a controller of its own that makes the shared one."""
        return self.sharing is not None and (
            any(has_body(function) for _, function in self.directive.links) or bool(self._helpers())
        )

    def _in_controller(self, ref: Node) -> bool:
        function = self.directive.controller.function
        return function is not None and function.start <= ref.start < function.end

    def instance_at(self, ref: Node) -> str:
        """Return the name of the instance at a place."""
        if self.sharing is not None and not self._in_controller(ref):
            return CONTROLLER
        return self.instance

    def _handed(self) -> None:
        """Settle what the controller's function is given, and under which names."""
        controller = self.directive.controller
        if self.sharing is None:
            for injection in controller.injections:
                if injection.parameter is not None:
                    self.handed.services[injection.name] = injection.parameter.text
        elif self._wraps():
            self.handed.services["$controller"] = "$controller"
            for name in self.local_services():
                self._hand(name, name, self.factory)
        moved = [fn for _, fn in self.directive.links]
        for function in moved:
            for at, node in enumerate(parameters_of(function)[:5]):
                if node.type != "identifier":
                    raise NotRead("link-pattern", node.text[:60], node.start)
                if LINKED[at] and self._needed(LINKED[at], node):
                    root = at == 1 and self._root
                    self._hand(LINKED[at], LINKED[at] if root else node.text, function)
                    if LINKED[at] != "$scope" and not root:
                        binding = self.js.scope_at(node).find(node.text)
                        for ref in binding.references if binding is not None else []:
                            self._rename(ref, self.handed.services[LINKED[at]])
        self._services(moved)
        self._alias()

    def _needed(self, service: str, parameter: Node) -> bool:
        """Whether the rest of a link function uses one of its parameters."""
        binding = self.js.scope_at(parameter).find(parameter.text)
        if binding is None or not binding.references:
            return False
        if service != "$scope":
            return True
        return self._scope_wanted() or any(
            use.kind in ("own", "parent")
            for use in self.directive.scope.uses
            if use.ref in binding.references
        )

    def _hand(self, service: str, name: str, function: Node) -> None:
        known = self.handed.services.get(service)
        if known is None:
            holder = self.directive.controller.function
            scope = self.js.inner_scope(holder) if holder is not None else None
            if scope is not None and name in scope.names:
                name = service
            self.handed.services[service] = name

    def _services(self, moved: list[Node]) -> None:
        """Return the factory's services that moved code uses."""
        registration = self.definition.registration
        stays_inside = self.directive.controller.form in ("inline", "local", "")
        holders = [*moved]
        if stays_inside and self.directive.controller.function is not None:
            holders.append(self.directive.controller.function)
        for injection in registration.injections:
            if injection.parameter is None:
                continue
            binding = self.js.scope_at(injection.parameter).find(injection.parameter.text)
            refs = binding.references if binding is not None else []
            used = any(
                h.start <= ref.start < h.end for ref in refs for h in (*holders, *self._helpers())
            )
            # To be given a service of the project makes it, which may be all that is wanted of it.
            made = not refs and bool(holders) and injection.name not in OF_RUNTIME
            if used or made:
                name = injection.parameter.text
                known = self.handed.services.get(injection.name)
                if known is None:
                    self._hand(injection.name, name, self.factory)
                elif known != name:
                    for ref in refs:
                        self._rename(ref, known)

    def _apart(self) -> list[Node]:
        """The statements that give the factory, and its list of services, where it stands by itself.

        Raises `NotRead` where other code requests the factory as well.
        """
        call = self.definition.registration.call
        beside = self._links_beside()
        if call.start <= self.factory.start < call.end:
            return beside
        holder = self.factory
        if self.factory.type != "function_declaration":
            declarator = self.factory.parent
            while declarator is not None and declarator.type != "variable_declarator":
                declarator = declarator.parent
            holder = declarator if declarator is not None else self.factory
        name = holder.child("name")
        binding = self.js.scope_at(holder).find(name.text) if name is not None else None
        listed = annotation(binding)
        statement = _statement(holder)
        refs = binding.references if binding is not None else []
        known = [self.definition.registration.value.start]
        if listed is not None:
            known.append(_statement(listed).start)
        several = statement.type != "function_declaration" and len(statement.named_children) > 1
        if several or any(ref.start not in known for ref in refs) or statement.parent is None:
            raise NotRead("definition-unread", "its factory is used elsewhere", self.factory.start)
        return [statement, *([_statement(listed)] if listed is not None else []), *beside]

    def _links_beside(self) -> list[Node]:
        """The statements of link functions that stand beside the factory, which move into the controller.

        Raises `NotRead` where one is used elsewhere as well.
        """
        found: list[Node] = []
        for _, function in self.directive.links:
            if self.factory.start <= function.start < self.factory.end:
                continue
            holder = function
            if function.type != "function_declaration":
                holder = next(
                    (up for up in function.up() if up.type == "variable_declarator"), function
                )
            name, statement = holder.child("name"), _statement(holder)
            binding = self.js.scope_at(holder).find(name.text) if name is not None else None
            refs = binding.references if binding is not None else []
            inside = [ref for ref in refs if self.factory.start <= ref.start < self.factory.end]
            several = statement.type != "function_declaration" and len(statement.named_children) > 1
            if len(refs) != 1 or len(inside) != 1 or several or statement.parent is None:
                raise NotRead("link-unread", "it is used elsewhere as well", function.start)
            found.append(statement)
        return found

    def _helpers(self) -> list[Node]:
        """The statements of the factory that moved code needs: all but what gives the definition."""
        body = self.factory.child("body")
        if body is None or body.type != "statement_block":
            return []
        given = self.definition.given
        found = []
        own = {link.start for _, link in self.directive.links}
        if (
            self.directive.controller.form == "local"
            and self.directive.controller.function is not None
        ):
            own.add(self.directive.controller.function.start)
            name = self.directive.controller.function.child("name")
            binding = self.js.scope_at(body).find(name.text) if name is not None else None
            listed = annotation(binding)
            if listed is not None:
                own.add(_statement(listed).start)
        for node in body.named_children:
            if node is given or node.start in own or self._holds_definition(node):
                continue
            if any(option.whole.parent is node for option in self.definition.options.values()):
                continue
            if (
                node.type == "expression_statement"
                and node.named_children
                and node.named_children[0].type == "string"
            ):
                continue
            found.append(node)
        return found

    def _prologue(self) -> Node | None:
        """The directive that makes the factory's code strict (ECMA-262 §11.2.1); None without one."""
        body = self.factory.child("body")
        first = body.named_children[0] if body is not None and body.named_children else None
        if body is None or first is None or body.type != "statement_block":
            return None
        strict = first.type == "expression_statement" and first.text.strip("'\";") == "use strict"
        return first if strict else None

    def _holds_definition(self, statement: Node) -> bool:
        return statement.start <= self.object.start < statement.end

    def _rename(self, ref: Node, name: str) -> None:
        if ref.text == name:
            return
        meaning = self.js.scope_at(ref).find(name)
        inside = any(
            fn.start <= (meaning.node.start if meaning else -1) < fn.end
            for _, fn in self.directive.links
        )
        if meaning is not None and inside:
            raise NotRead("names-meet", name, ref.start)
        self.edits.spell(ref.start, ref.end, name, "injection", "injected-name")

    def _alias(self) -> None:
        """The name that stands for the controller's instance in its function."""
        function = self.directive.controller.function
        body = function.child("body") if function is not None else None
        for node in self.directive.instance.alias_nodes:
            declaration = node.parent
            if declaration is not None and declaration.parent is body:
                uses = [
                    u.ref.start
                    for u in self.directive.scope.uses
                    if function is not None and function.start <= u.ref.start < function.end
                ]
                if not uses or min(uses) > node.start:
                    name = node.child("name")
                    self.alias = name.text if name is not None else ""
                    return

    @property
    def instance(self) -> str:
        """Return the name of the instance in code."""
        return self.alias or CONTROLLER

    @property
    def _root(self) -> bool:
        """Whether the element code works on was the template's root: a component's stands around it."""
        return self.definition.true("replace")

    def _scope_wanted(self) -> bool:
        """Whether a receiver of it reads a member that only its scope has."""
        return any(handed.asked for handed in self.handed_on)

    def _own_name(self, asked: str) -> bool:
        return asked.lstrip("?") == self.definition.name

    def _indent(self, offset: int) -> str:
        return self.source.indent_at(offset)

    def _levels(self, indent: str) -> int:
        unit = self.style.unit
        return len(indent.expandtabs(4)) // max(len(unit.expandtabs(4)), 1)

    def _is_done(self, ref: Node) -> bool:
        """Whether it stands in a controller that another directive writes."""
        return self.sharing is not None and not self.sharing.first and self._in_controller(ref)


def _statement(node: Node) -> Node:
    """The statement a node stands in."""
    here = node
    while here.parent is not None and here.parent.type not in ("program", "statement_block"):
        here = here.parent
    return here


def has_body(function: Node) -> bool:
    body = function.child("body")
    return body is not None and bool(body.named_children)


def plain_name(asked: str) -> str:
    return asked.lstrip("?^")
