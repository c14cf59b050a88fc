"""Write the controller of a component: what made the instance, what waits for inputs, what was linked."""

from __future__ import annotations

from dataclasses import replace

from clean_carry.component.fragment import Fragment, new, settled
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.controller_component.controller_arguments import HANDED, has_body
from clean_carry.syntaxes.controller_component.shared import SharedWriting
from clean_carry.syntaxes.controller_component.text import first_of, lead_of
from clean_carry.syntaxes.controller_component.use_before_ready import Waiting, early_statements
from clean_carry.syntaxes.scoped_template.model import (
    CONTROLLER,
    Binding,
    Directive,
    DirectiveFile,
    NotRead,
)
from clean_carry.syntaxes.scoped_template.registrations import annotation, parameters_of


class ControllerWriting(SharedWriting):
    """Writes the function that makes a component's instance."""

    def _root_line(self, function: Node, inner: str) -> Fragment:
        """The name of the element, for the template's root."""
        taken = parameters_of(function)
        if not self._root or len(taken) < 2 or not self._needed("$element", taken[1]):
            return Fragment()
        injected = self.handed.services["$element"]
        entry = self.ledger.claim("link", self.source.span(taken[1].start, taken[1].end))
        name, end = taken[1].text, self.style.semicolon
        # Under its own name it stands for the root from here on: a declaration would hide it from itself.
        declares = "" if name == injected else f"{self.style.declare} "
        text = f"\n{inner}{declares}{name} = {injected}.children(){end}"
        return new(text, entry, "root-inside") + new("\n")

    def _listed(self) -> tuple[list[str], list[str]]:
        """The services a controller function is given now, and the parameters that take them."""
        kept: list[str] = []
        for service, name in self.handed.services.items():
            if service == "$scope" and not self._scope_asked(name):
                continue
            kept.append(service)
        return kept, [self.handed.services[s] for s in kept]

    def _scope_asked(self, name: str) -> bool:
        if self.sharing is not None and "$scope" in self.local_services():
            return True
        links = [function for _, function in self.directive.links]
        if self.sharing is not None:
            return self._scope_wanted() or any(self._asked_in(function) for function in links)
        return self._scope_wanted() or any(
            use.kind in ("own", "parent") for use in self.directive.scope.uses
        )

    def _new_controller(self, indent: int) -> Fragment:
        """A controller for a directive that had none."""
        unit = self.style.unit
        inner = unit * (indent + 1)
        body = self._self_line(inner) + self._shared_names(f"\n{inner}") + self._moved(indent + 1)
        return self._listed_function("", body + new(f"\n{unit * indent}}}"), indent)

    def _listed_function(self, name: str, body: Fragment, indent: int) -> Fragment:
        """A function with the list of what it is given; `body` ends with its closing brace."""
        directive = self._prologue()
        if directive is not None and body.pieces:
            line = f"\n{self.style.unit * (indent + 1)}"
            text = self.source.slice(directive.start, directive.end)
            body = new(f"{line}{text}\n") + body
        services, parameters = self._listed()
        q = self.style.quote
        head = f"function{name or self.style.space}({', '.join(parameters)}) {{"
        if not services:
            return new(head) + body
        listed = ", ".join(f"{q}{s}{q}" for s in services)
        return new(f"[{listed}, {head}") + body + new("]")

    def _self_line(self, inner: str) -> Fragment:
        line = f"\n{inner}{self.style.declare} {CONTROLLER} = this{self.style.semicolon}"
        if self._scope_wanted():
            scope = self.handed.services["$scope"]
            line += f"\n{inner}{CONTROLLER}.{HANDED} = {scope}{self.style.semicolon}"
        return new(line)

    def _moved(self, level: int, *, values: bool = True) -> Fragment:
        """Helpers of the factory and the link functions, as statements at a level of indentation; without
        those that hold values, where these stand elsewhere."""
        unit = self.style.unit
        lead = "\n\n" + unit * level
        parts = Fragment()
        for statement in self._helpers():
            if (
                not values
                and statement.type.endswith("_declaration")
                and "function" not in statement.type
            ):
                continue
            shift = level - self._levels(self._indent(statement.start))
            above = lead_of(self.source, self.file.tree.comments, statement, 0)
            first = first_of(self.source, above, statement)
            parts += new(lead) + self.edits.text(first, statement.end).shifted(shift)
        for when, function in self.directive.links:
            body = function.child("body")
            assert body is not None
            if body.type != "statement_block":
                raise NotRead("link-unread", function.text.split("\n")[0][:60], function.start)
            if not body.named_children and not _comments_in(self.file, body):
                continue
            self.ledger.claim("link", self.source.span(body.start + 1, body.end - 1), "kept")
            moment = "$postLink" if when == "post" else "$onInit"
            shift = level - self._levels(self._indent(function.start))
            text = self.edits.text(body.start + 1, body.end - 1).shifted(shift)
            entry = self.ledger.claim("link", self.source.span(function.start, function.end))
            parts += (
                new(
                    f"{lead}{self.instance_at(function)}.{moment} = function{self.style.space}() {{",
                    entry,
                    "link-to-moment",
                )
                + self._root_line(function, unit * (level + 1))
                + text
                + new("}" + self.style.semicolon)
            )
        return parts

    def _wrapped(self, indent: int) -> Fragment:
        """A controller that makes the shared one and is it: what a controller returns is the instance."""
        unit, q, end = self.style.unit, self.style.quote, self.style.semicolon
        controller = self.directive.controller
        inner = "\n" + unit * (indent + 1)
        local = self.local_services()
        given = ", ".join(f"{name}: {self.handed.services[name]}" for name in local)
        made = (
            f"$controller({q}{controller.name}{q}, {{ {given} }})"
            if given
            else f"$controller({q}{controller.name}{q})"
        )
        text = new(f"{inner}{self.style.declare} {CONTROLLER} = {made}{end}")
        if self._scope_wanted():
            text += new(f"{inner}{CONTROLLER}.{HANDED} = {self.handed.services['$scope']}{end}")
        text += self._moved(indent + 1)
        text += new(f"\n{inner}return {CONTROLLER}{end}\n{unit * indent}}}")
        return self._listed_function("", text, indent)

    def _whole(self, function: Node) -> Fragment:
        """A controller's function with its list of services, written where it stands."""
        own = self._levels(self._indent(function.start))
        name = function.child("name")
        shown = f" {name.text}" if name is not None and function.type != "method_definition" else ""
        return self._listed_function(shown, self._body(function, own + 1) + new("}"), own)

    def _body(self, function: Node, level: int) -> Fragment:
        """The statements of a controller: its own, those that wait for the inputs, what was linked."""
        body = function_body(function)
        start, end = body.start + 1, body.end - 1
        inner = self.style.unit * level
        self.ledger.claim("controller", self.source.span(start, end), "kept")
        text = Fragment()
        if not self.alias and self._names_instance():
            text += self._self_line(inner)
        text += self._shared_names(f"\n{inner}")
        if text.pieces and body.named_children:
            text += new("\n")
        if self.sharing is None:
            # A value made by the factory existed before the controller ran.
            values = [
                s
                for s in self._helpers()
                if s.type.endswith("_declaration") and "function" not in s.type
            ]
            for statement in values:
                shift = level - self._levels(self._indent(statement.start))
                text += new(f"\n{inner}") + self.edits.text(statement.start, statement.end).shifted(
                    shift
                )
            if values and body.named_children:
                text += new("\n")
        early = early_statements(self._bound(), self.js, body)
        if early:
            moments = {when for when, function in self.directive.links if has_body(function)}
            if "pre" in moments or "$onInit" in self.directive.instance.members:
                raise NotRead("names-meet", "$onInit", early[0].statement.start)
            text += self._with_init(body, early, level, inner)
        else:
            tail = self.source.data[start:end].rstrip()
            text += self.edits.text(start, start + len(tail))
        if self.sharing is None:
            text += self._moved(level, values=False)
        return text + new("\n" + self.style.unit * (level - 1))

    def _bound(self) -> Directive:
        """The directive with the bindings of all that share its controller."""
        object_node = self.object
        outer = {n: Binding(n, "<", True, n, object_node) for n in self.outer}
        shared = self.sharing.bindings if self.sharing is not None else self.directive.bindings
        return replace(self.directive, bindings={**shared, **outer})

    def _names_instance(self) -> bool:
        """Whether anything written is asked of the instance."""
        uses = [u for u in self.directive.scope.uses if u.kind not in ("own", "parent", "alias")]
        if any(self.sharing is None or self._in_controller(use.ref) for use in uses):
            return True
        if self.sharing is None and any(has_body(function) for _, function in self.directive.links):
            return True
        function = self.directive.controller.function
        return function is not None and bool(
            early_statements(self._bound(), self.js, function_body(function))
        )

    def _with_init(self, body: Node, early: list[Waiting], level: int, inner: str) -> Fragment:
        """Put code that needs the props into `$onInit`; the rest stays in its place."""
        unit = self.style.unit
        deeper = "\n" + unit * (level + 1)
        text, waiting = Fragment(), Fragment()
        data = self.source.data
        here = body.start + 1
        for one in early:
            statement = one.statement
            if one.values is None:
                lead = lead_of(self.source, self.file.tree.comments, statement, here)
                first = first_of(self.source, lead, statement)
                if (
                    lead > here
                    and data[lead - 1 : lead + 1] == b"\n\n" == data[statement.end :][:2]
                ):
                    lead -= 1
                text += self.edits.text(here, lead)
                blank = "\n" if waiting and b"\n\n" in data[here:first] else ""
                waiting += new(blank + deeper) + self.edits.text(first, statement.end).shifted(1)
                here = statement.end
                continue
            self._only_declared(statement, one.values)
            for declarator in one.values:
                name, value = declarator.child("name"), declarator.child("value")
                assert name is not None and value is not None
                waiting += (
                    new(f"{deeper}{name.text} = ")
                    + self.edits.text(value.start, value.end).shifted(1)
                    + new(self.style.semicolon)
                )
        tail = self.source.data[here : body.end - 1].rstrip()
        text += self.edits.text(here, here + len(tail))
        at = early[0].statement.start
        entry = self.ledger.claim("controller", self.source.span(at, at))
        return text + (
            new(
                f"\n\n{inner}{self.instance}.$onInit = function{self.style.space}() {{",
                entry,
                "waits-for-inputs",
            )
            + waiting
            + new(f"\n{inner}}}{self.style.semicolon}")
        )

    def _only_declared(self, statement: Node, values: list[Node]) -> None:
        """Leave the names of a declaration where they are, without these values."""
        word = statement.children[0]
        if word.text == "const":
            self.edits.spell(word.start, word.end, "let", "declaration", "waits-for-inputs")
        for declarator in values:
            name, value = declarator.child("name"), declarator.child("value")
            assert name is not None and value is not None
            if name.type != "identifier":
                raise NotRead(
                    "controller-unread", declarator.text.split("\n")[0][:60], declarator.start
                )
            entry = self.ledger.claim("declaration", self.source.span(name.end, value.start))
            self.edits.put(name.end, value.end, settled(entry, "waits-for-inputs"))

    def _controller_in_place(self, function: Node) -> None:
        """A controller that is registered, or a function of the file, changes where it stands."""
        body = function_body(function)
        level = self._levels(self._indent(function.start)) + 1
        self.edits.put(body.start + 1, body.end - 1, self._body(function, level))
        self._injections(function)

    def _injections(self, function: Node) -> None:
        """The list of services and the parameters of a controller that stays in its place."""
        controller = self.directive.controller
        services, parameters = self._listed()
        if self.sharing is not None:
            stays = [
                i for i in controller.injections if i.name != "$scope" or self._asked_in(function)
            ]
            services = [i.name for i in stays]
            parameters = [i.parameter.text for i in stays if i.parameter is not None]
        before = [i.name for i in controller.injections]
        if services == before:
            return
        listed = function.child("parameters")
        if listed is None:
            raise NotRead("controller-unread", function.text.split("\n")[0][:60], function.start)
        self.edits.spell(
            listed.start + 1,
            listed.end - 1,
            ", ".join(parameters),
            "injection",
            "injections-listed",
        )
        if not controller.explicit:
            return
        q = self.style.quote
        array = function.parent
        if array is not None and array.type == "array":
            start = array.named_children[0].start if services else array.start
            text = "".join(f"{q}{s}{q}, " for s in services)
            self.edits.spell(start, function.start, text, "injection", "injections-listed")
            if not services:
                self.edits.spell(function.end, array.end, "", "injection", "injections-listed")
            return
        name = function.child("name")
        binding = self.js.scope_at(function).find(name.text) if name is not None else None
        array = annotation(binding)
        if array is None:
            raise NotRead("controller-unread", "its services are listed elsewhere", function.start)
        text = ", ".join(f"{q}{s}{q}" for s in services)
        at = (array.start + 1, array.end - 1)
        self.edits.spell(*at, text, "injection", "injections-listed")


def function_body(function: Node) -> Node:
    """The block of a function; raises `NotRead` where it has none."""
    body = function.child("body")
    if body is None or body.type != "statement_block":
        raise NotRead("controller-unread", function.text.split("\n")[0][:60], function.start)
    return body


def _comments_in(file: DirectiveFile, node: Node) -> bool:
    return any(node.start <= c.start < node.end for c in file.tree.comments)
