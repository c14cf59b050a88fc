"""The markup of a class, with the declarations of its render code as members."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from clean_carry.component.spans import Span
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import (
    last_name,
    member_name,
    property_name,
)
from clean_carry.syntaxes.jsx.drawing.declared import Declared, checked_inputs, typed_inputs
from clean_carry.syntaxes.jsx.drawing.kinds import Kinds, kinds_of
from clean_carry.syntaxes.jsx.drawing.locals import (
    Locals,
    body_of,
    holds_markup,
    parameters_of,
)
from clean_carry.syntaxes.jsx.neutral.drawing import DrawnReader
from clean_carry.syntaxes.jsx.neutral.events import send
from clean_carry.syntaxes.jsx.neutral.reads_after_writes import keep_earlier, refuse_repeated
from clean_carry.syntaxes.jsx_class.bases.heritage import heritage_types
from clean_carry.syntaxes.jsx_class.members.notions import function_of
from clean_carry.syntaxes.jsx_class.neutral.patterns import resolve
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts
from clean_carry.syntaxes.jsx_class.uses.receivers import Receiver, Receivers
from clean_carry.syntaxes.uses import Build

Members = list[tuple[Node, str, str]]


@dataclass
class Neutral(DrawnReader):
    """One class on its way to another family.

    After `prepare` the uses of all names are known: `helpers` are methods that render, by name. After
    `read` its markup is known.
    """

    facts: ClassFacts
    members: Members
    receivers: Receivers
    helpers: dict[str, Node] = field(default_factory=dict)

    def prepare(self) -> None:
        """Find the render code, and the values of names that it declares."""
        facts = self.facts
        self._means = {id(use.node): use for use in self.receivers.uses}
        self._named = {
            raw.span.start: raw.member for raw in facts.raws if raw.notion.startswith("method-")
        }
        self.drawing = next((function_of(m) for m, n, _ in self.members if n == "render"), None)
        self.declared = self._declared()
        if self.drawing is None:
            return
        self._find_helpers()
        self.locals = Locals(facts, self._part_of, self.helper)
        self.locals.read(self.drawing)
        self._refuse_other_markup()
        self.state_kinds = self._kinds_of_state()
        skipped = [self.drawing, *self.helpers.values()]
        facts.sort()
        self.resolved = resolve(facts, skipped) | self.locals.resolved
        facts.raws = [raw for raw in facts.raws if raw.notion != "pattern-read" or not any(
            node.start <= raw.span.start < node.end for node in skipped)]  # fmt: skip
        self._rests()
        self._references()
        facts.sort()
        self._index()
        others = {name for name, found in self.declared.items() if found.kind == "markup"}
        if not facts.tree.typed:
            required = frozenset(name for name, one in self.declared.items() if one.required)
            self.events = send(
                facts, self.literal_defaults(), frozenset(others), required, self.told
            )
        facts.sort()
        keep_earlier(facts)
        refuse_repeated(facts)
        facts.sort()

    # -- what is known of the class -----------------------------------------------------------

    def _declared(self) -> dict[str, Declared]:
        given = heritage_types(self.facts.node)
        if self.facts.tree.typed and given:
            return typed_inputs(self.facts.tree, given[0])
        return checked_inputs(self.checked())

    def checked(self) -> Node | None:
        """The object of checked types, inside of the class or after it."""
        for member, _, name in self.members:
            if name == "propTypes" and member.has("static"):
                return self._named_value(member.child("value"))
        for statement in self.facts.tree.of("assignment_expression"):
            left = statement.child("left")
            if left is not None and left.text == f"{self._own_name()}.propTypes":
                return self._named_value(statement.child("right"))
        return None

    def _own_name(self) -> str:
        name = self.facts.node.child("name")
        return name.text if name is not None else ""

    def _named_value(self, value: Node | None) -> Node | None:
        """A value, or the one of the constant of the module that is named."""
        if value is None or value.type != "identifier":
            return value
        binding = self.facts.names.module.names.get(value.text)
        declarator = binding.node.parent if binding is not None else None
        if declarator is None or declarator.type != "variable_declarator":
            return value
        return declarator.child("value")

    def literal_defaults(self) -> Node | None:
        for member, notion, _ in self.members:
            if notion == "default-inputs":
                return self._named_value(member.child("value"))
        for statement in self.facts.tree.of("assignment_expression"):
            left = statement.child("left")
            if left is not None and left.text == f"{self._own_name()}.defaultProps":
                return self._named_value(statement.child("right"))
        return None

    def _kinds_of_state(self) -> dict[str, Kinds]:
        """The kinds of value that fields of state begin with, and keep."""
        literal = None
        for member, notion, _ in self.members:
            if notion == "state-field":
                literal = member.child("value")
        for assignment in self.facts.tree.of("assignment_expression"):
            if assignment.children[0].text == "this.state" and _within(assignment, self.facts.node):
                literal = assignment.child("right")
        found: dict[str, Kinds] = {}
        for part in (
            literal.named_children if literal is not None and literal.type == "object" else ()
        ):
            key, value = part.child("key"), part.child("value")
            name = property_name(key) if key is not None else None
            kinds = kinds_of(value, lambda node: None) if value is not None else None
            if name is not None and kinds is not None and kinds != frozenset({"nothing"}):
                found[name] = kinds
        return found

    # -- who renders --------------------------------------------------------------------------

    def _find_helpers(self) -> None:
        own = {
            name: function_of(member)
            for member, notion, name in self.members
            if notion in ("prototype-method", "arrow-method")
        }
        drawing = {name for name, function in own.items() if self._gives_markup(function)}
        while True:
            more = {
                name
                for name, function in own.items()
                if name not in drawing and self._returns_call(function, drawing)
            }
            if not more:
                break
            drawing |= more
        self.helpers = {name: own[name] for name in drawing}
        for name, function in self.helpers.items():
            uses = [raw for raw in self.facts.raws if raw.member == name]
            if len(uses) > 1:
                self.facts.refuse(
                    "markup-in-code", f"{name}() draws in several places", uses[1].span.start
                )
            inside = [self.drawing, *self.helpers.values()]
            for raw in uses:
                if not any(f is not None and f.start <= raw.span.start < f.end for f in inside):
                    self.facts.refuse("markup-in-code", f"{name}() draws elsewhere", raw.span.start)
            if function.has("async") or function.has("*"):
                self.facts.refuse("markup-in-code", f"{name}() waits", function.start)

    def _gives_markup(self, function: Node) -> bool:
        """Whether what a function returns holds JSX."""
        body = body_of(function)
        if body.type != "statement_block":
            return holds_markup(body)
        return any(
            below.type == "return_statement" and holds_markup(below) for below in body.walk()
        )

    def _returns_call(self, function: Node, drawing: set[str]) -> bool:
        for below in function.walk():
            if below.type == "member_expression" and self._named.get(below.start, "") in drawing:
                above = next((up for up in below.up() if up.type == "return_statement"), None)
                if above is not None or body_of(function).type != "statement_block":
                    return True
        return False

    def helper(self, node: Node) -> Node | None:
        """Return the method that a call renders by, or that is passed on to render."""
        callee = node.child("function") if node.type == "call_expression" else node
        if callee is None or callee.type != "member_expression":
            return None
        name = self._named.get(callee.start, "")
        function = self.helpers.get(name)
        if function is not None and node.type == "call_expression":
            self._given(function, node)
        return function

    def _given(self, function: Node, call: Node) -> None:
        """Return the arguments of a helper's only call."""
        if id(call) in self._given_to:
            return
        self._given_to.add(id(call))
        arguments = call.child("arguments")
        values = arguments.named_children if arguments is not None else []
        parameters = parameters_of(function)
        if len(parameters) > len(values):
            self.facts.refuse("markup-in-code", f"{call.text[:30]} gives fewer values", call.start)
            return
        for parameter, value in zip(parameters, values, strict=False):
            self.locals.stand_for(parameter, value)

    def __post_init__(self) -> None:
        self._given_to: set[int] = set()

    def _refuse_other_markup(self) -> None:
        """Refuse JSX outside of render code: no template can return it as a value."""
        inside = [self.drawing, *self.helpers.values()]
        for node in self.facts.tree.of("jsx_element", "jsx_self_closing_element"):
            if not _within(node, self.facts.node):
                continue
            if not any(f is not None and f.start <= node.start < f.end for f in inside):
                self.facts.refuse("markup-in-code", "markup that is kept as a value", node.start)
                return

    def _part_of(self, value: Node) -> str:
        """ "prop" or "state" for all of the inputs or of the state."""
        use: Receiver | None = self._means.get(id(value))
        if use is not None and use.means in ("props", "state"):
            return "prop" if use.means == "props" else "state"
        if value.type == "member_expression" and id(value.children[0]) in self._means:
            if self._means[id(value.children[0])].means == "this":
                return {"props": "prop", "state": "state"}.get(value.children[-1].text, "")
        return ""

    def _references(self) -> None:
        """`this.box.current` is one thing: what a reference to an element gives."""
        facts = self.facts
        at = {(node.start, node.end): node for node in facts.tree.of("member_expression")}
        for raw in facts.raws:
            node = at.get((raw.span.start, raw.span.end)) if raw.notion == "field-use" else None
            if node is None or raw.member.lstrip("#") not in facts.elements:
                continue
            above = node.parent
            asked = above.child("property") if above is not None else None
            if above is not None and asked is not None and node.field == "object":
                if asked.text == "current" and not above.has("?."):
                    raw.span = facts.span(above)
                    build = raw.build
                    raw.build = _reaching(build, raw.span)
                    continue
            if above is None or above.type != "jsx_expression":
                facts.refuse("reference-passed", raw.member, raw.span.start)

    # -- reading ----------------------------------------------------------------------------

    def asked_elsewhere(self) -> list[str]:
        """The inputs that functions of the state take by a parameter of their own."""
        found: list[str] = []
        for call in self.facts.tree.of("call_expression"):
            arguments = call.child("arguments")
            given = arguments.named_children[0] if arguments and arguments.named_children else None
            if not _within(call, self.facts.node) or given is None or not given.is_function:
                continue
            if last_name(call.child("function")) != "setState" or len(parameters_of(given)) < 2:
                continue
            inputs = parameters_of(given)[1]
            if inputs.type == "object_pattern":
                keys = [property_name(part.child("key") or part) for part in inputs.named_children]
                found += [key for key in keys if key is not None]
                continue
            binding = self.facts.names.scope_at(inputs).find(inputs.text)
            for ref in binding.references if binding is not None else ():
                name = member_name(ref.parent) if ref.parent is not None else None
                if name is None or ref.field != "object":
                    self.facts.refuse("not-in-target", "all of the inputs", ref.start)
                else:
                    found.append(name)
        return found


def _reaching(build: Build, span: Span) -> Build:
    return lambda entry: replace(build(entry), span=span)


def _within(node: Node, around: Node) -> bool:
    return around.start <= node.start < around.end
