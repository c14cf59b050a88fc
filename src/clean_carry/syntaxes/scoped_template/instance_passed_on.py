"""Where a scope goes that a directive hands to the controller of another one, and what is asked of it.

`harbour.addBerth(scope)`: the method may ask the scope for its members, which a component's controller has
as well, and for what the runtime offers (`$on`), which only a scope has.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.source.javascript.scope import Binding
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.scoped_template.definition import define, link_functions
from clean_carry.syntaxes.scoped_template.registrations import (
    Registrations,
    parameters_of,
    plain,
    text_of,
)
from clean_carry.syntaxes.scoped_template.scope_uses import EVALUATES, OF_RUNTIME

# Methods of lists that take an item in, or look for one; what only looks at it or sets its members.
_KEEPS = frozenset({"push", "unshift"})
_LOOKS = frozenset(
    "indexOf lastIndexOf includes splice extend isDefined isUndefined isObject equals".split()
)


class Unfollowed(Exception):
    """A value is passed on to code that cannot be followed."""


@dataclass
class Handed:
    """The results of following. `asked` are the expressions, in the receiving controller, for the
    passed value of which scope members are read; `controller` is its function, `method` the method
    called."""

    controller: Node
    method: str
    asked: list[Node] = field(default_factory=list)


def follow(
    registrations: Registrations, required: str, by: str, call: Node, argument: Node
) -> Handed:
    """Follow an argument of `controller.method(…)` that a directive `by` gives. Raises `Unfollowed`."""
    function, given = call.child("function"), call.child("arguments")
    asked = function.child("property") if function is not None else None
    controller = _controller(registrations, required)
    if asked is None or given is None or controller is None:
        raise Unfollowed
    follower = _Follower(registrations, controller)
    method = follower.methods.get(asked.text)
    if method is None:
        raise Unfollowed
    follower.parameter(method, given.named_children.index(argument))
    follower.run()
    if _asked_elsewhere(registrations, {required, by}, controller, call):
        raise Unfollowed
    return Handed(controller, asked.text, follower.asked)


def _asked_elsewhere(
    registrations: Registrations, names: set[str], controller: Node, call: Node
) -> bool:
    """Whether another directive that has one of these controllers asks something for what only a scope
    has that is not its own scope."""
    for registration in registrations.of("directive"):
        node = registration.call
        if registration.name in names or registration.at <= call.start < node.end:
            continue
        require = define(registration, registrations.names).value("require")
        texts = [text_of(part) for part in (require.walk() if require is not None else ())]
        if not names & {text.strip("?^") for text in texts if text}:
            continue
        known = {
            p.start
            for _, fn in link_functions(define(registration, registrations.names))
            for p in parameters_of(fn)[:1]
        }
        for member in registration.value.walk():
            asked, inner = member.child("property"), member.child("object")
            if (
                member.type != "member_expression"
                or asked is None
                or inner is None
                or asked.text not in OF_RUNTIME
            ):
                continue
            binding = registrations.names.meaning(inner) if inner.type == "identifier" else None
            if binding is None or binding.node.start not in known:
                return True
    return False


def _controller(registrations: Registrations, name: str) -> Node | None:
    """The function of the controller of a directive of the same file."""
    for registration in registrations.of("directive", name):
        value = define(registration, registrations.names).value("controller")
        text = text_of(value)
        if text is not None:
            found = registrations.of("controller", text.split(" as ")[0].strip())
            return found[-1].function if found else None
        return registrations.followed(value)[0]
    return None


class _Follower:
    def __init__(self, registrations: Registrations, controller: Node) -> None:
        self.names, self.controller = registrations.names, controller
        self.asked: list[Node] = []
        self.queue: list[tuple[Binding, str]] = []
        self.seen: set[tuple[int, str]] = set()
        self.gave: set[int] = set()
        self.kept: set[tuple[str, str]] = set()
        self.methods: dict[str, Node] = {}
        self.functions: dict[str, Node] = {}
        for node in controller.walk():
            left, right = node.child("left"), plain(node.child("right"))
            if node.type == "assignment_expression" and left is not None and right is not None:
                name = left.child("property")
                while right is not None and right.type == "assignment_expression":
                    right = plain(right.child("right"))
                if name is not None and right is not None and right.is_function:
                    self.methods.setdefault(name.text, right)
            name = node.child("name")
            if node.type == "function_declaration" and name is not None:
                self.functions[name.text] = node

    def parameter(self, function: Node, at: int, field_name: str = "") -> None:
        """A parameter stands for the instance, or for an object that holds it as a field."""
        taken = parameters_of(function)
        if at >= len(taken):
            return
        if taken[at].type != "identifier":
            raise Unfollowed
        binding = self.names.scope_at(taken[at]).find(taken[at].text)
        if binding is not None:
            self.add(binding, field_name)

    def add(self, binding: Binding, field_name: str) -> None:
        key = (binding.node.start, field_name)
        if key not in self.seen:
            self.seen.add(key)
            self.queue.append((binding, field_name))

    def run(self) -> None:
        while self.queue:
            binding, field_name = self.queue.pop()
            for ref in binding.references:
                self.place(ref, field_name)

    def place(self, node: Node, field_name: str) -> None:
        """A place of the instance, or of an object that holds it as a field."""
        member = node.parent
        if (
            not field_name
            or member is None
            or member.type != "member_expression"
            or node.field != "object"
        ):
            self.one(node, field_name)
            return
        asked = member.child("property")
        if asked is not None and asked.text == field_name:
            self.one(member, "")

    def one(self, node: Node, field_name: str) -> None:
        """One place at which an expression stands for it."""
        parent = node.parent
        if parent is None:
            raise Unfollowed
        match parent.type:
            case "member_expression" if node.field == "object":
                asked = parent.child("property")
                if asked is not None and asked.text in EVALUATES:
                    # Its expressions use names of the scope that is passed.
                    raise Unfollowed
                if asked is not None and (asked.text in OF_RUNTIME or asked.text.startswith("$$")):
                    self.asked.append(node)
            case "subscript_expression" if node.field == "object":
                pass
            case "binary_expression" | "unary_expression" | "if_statement" | "expression_statement":
                pass
            case "parenthesized_expression" | "ternary_expression":
                pass
            case "arguments":
                self.argument(node, parent, field_name)
            case "pair" if node.field == "value":
                self.field(parent)
            case "variable_declarator" if node.field == "value":
                name = parent.child("name")
                binding = self.names.scope_at(parent).find(name.text) if name is not None else None
                if binding is None or name is None or name.type != "identifier":
                    raise Unfollowed
                self.add(binding, field_name)
            case "assignment_expression" if node.field == "left":
                pass
            case "return_statement":
                self.given_back(parent, field_name)
            case _:
                raise Unfollowed

    def given_back(self, statement: Node, field_name: str) -> None:
        """Return the result of a function: for the code that loops over it, or wherever the
        function is called."""
        function = next((node for node in statement.up() if node.is_function), None)
        if function is None or function.parent is None:
            raise Unfollowed
        if function.parent.type == "arguments":
            return
        name = function.child("name")
        if function.type != "function_declaration" or name is None:
            raise Unfollowed
        if function.start in self.gave:
            return
        self.gave.add(function.start)
        for call in self.controller.walk():
            callee = call.child("function") if call.type == "call_expression" else None
            if callee is not None and callee.text == name.text:
                self.place(call, field_name)

    def argument(self, node: Node, given: Node, field_name: str) -> None:
        call = given.parent
        function = call.child("function") if call is not None else None
        if function is None:
            raise Unfollowed
        asked, owner = function.child("property"), function.child("object")
        at = given.named_children.index(node)
        name = asked.text if asked is not None else function.text
        if asked is not None and owner is not None and name in _KEEPS:
            self.keep(owner, field_name)
        elif asked is not None and name in _LOOKS:
            pass
        elif asked is not None and name in self.methods:
            self.parameter(self.methods[name], at, field_name)
        elif asked is None and name in self.functions:
            self.parameter(self.functions[name], at, field_name)
        else:
            raise Unfollowed

    def field(self, pair: Node) -> None:
        """A field of an object that is kept in a list: `slides.push({ slide: slide })`."""
        key, whole = pair.child("key"), pair.parent
        given = whole.parent if whole is not None else None
        call = given.parent if given is not None and given.type == "arguments" else None
        function = call.child("function") if call is not None else None
        asked = function.child("property") if function is not None else None
        owner = function.child("object") if function is not None else None
        if key is None or asked is None or owner is None or asked.text not in _KEEPS:
            raise Unfollowed
        self.keep(owner, text_of(key) or key.text)

    def keep(self, owner: Node, field_name: str) -> None:
        """A list holds it: whatever goes through that list has it."""
        name = _last(owner)
        if (name, field_name) in self.kept:
            return
        self.kept.add((name, field_name))
        for node in self.controller.walk():
            if node.type not in ("identifier", "member_expression") or _last(node) != name:
                continue
            if (
                node.parent is not None
                and node.parent.type == "member_expression"
                and node.field != "object"
            ):
                continue
            self.through(node, field_name)

    def through(self, node: Node, field_name: str) -> None:
        """Follow a use of the list: its items are passed to functions, or read by number."""
        parent = node.parent
        if parent is None:
            return
        if parent.type == "subscript_expression" and node.field == "object":
            self.place(parent, field_name)
        elif parent.type == "member_expression" and node.field == "object":
            call = parent.parent
            if call is not None and call.type == "call_expression" and parent.field == "function":
                self.callbacks(call, field_name)
        elif parent.type == "arguments" and parent.parent is not None:
            self.callbacks(parent.parent, field_name)

    def callbacks(self, call: Node, field_name: str) -> None:
        given = call.child("arguments")
        for function in given.named_children if given is not None else []:
            if function.is_function:
                for at in range(min(len(parameters_of(function)), 2)):
                    self.parameter(function, at, field_name)


def _last(node: Node) -> str:
    asked = node.child("property") if node.type == "member_expression" else node
    return asked.text if asked is not None else ""
