"""The members of a base that its subclass needs: those that it or the runtime reads, without dead
code.

A base often holds helpers that clean up after themselves; a class that uses none has nothing to clean up.
So a list of the base that nothing needed fills stays empty, code that reads it does nothing, and a
method in which nothing is done is not called. A member that no class has, such as a method that only
other subclasses have, is undefined.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from clean_carry.source.exports import Declared, declared
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import runs_code
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx_class.bases.base_class import Base, Mentions, Part, mentions
from clean_carry.syntaxes.jsx_class.bases.heritage import is_base_call
from clean_carry.syntaxes.jsx_class.members.notions import HOOKS, REFUSED

# Members that the runtime itself reads from an instance or its class.
_ASKED_BY_RUNTIME = frozenset({*HOOKS, *REFUSED, "constructor", "state"})
# Members that the runtime gives every instance.
_HAD_BY_ALL = frozenset("context forceUpdate props refs setState state".split())
_MOST_STEPS = 4
# Values that loose comparison takes for one another (ECMA-262 §7.2.14).
_NOTHING = frozenset({"null", "undefined"})
_PLAIN = frozenset(
    {
        "identifier", "this", "string", "number", "true", "false", "null", "undefined",
        "member_expression", "subscript_expression", "unary_expression", "binary_expression",
        "ternary_expression", "parenthesized_expression", "property_identifier",
        "template_string", "template_substitution", "string_fragment", "as_expression",
        "non_null_expression",
    }
)  # fmt: skip


@dataclass
class Inherited:
    """The members of `base` that a subclass needs, with their code.

    `own` are the names of the subclass's members, `asked` those its code reads (None for any), `above`
    those it reads from the base by `super` although it has its own.
    """

    base: Base
    workspace: Workspace
    own: frozenset[str]
    asked: frozenset[str] | None
    above: frozenset[str]
    parts: dict[str, Part] = field(init=False)
    needed: set[str] = field(init=False)
    empty: set[str] = field(init=False)
    absent: set[str] = field(init=False)
    _judging: set[str] = field(init=False, default_factory=set)
    # Facts about calls, by their nodes.
    _pure: dict[int, bool] = field(init=False, default_factory=dict)

    def __post_init__(self) -> None:
        self.parts = {p.name: p for p in self.base.parts if not p.static}
        self.empty = {name for name, part in self.parts.items() if self._may_stay_empty(part)}
        self.absent = self._had_by_nobody()
        self.needed = set()
        while True:
            self.needed = self._closure()
            filled = self.empty & self._used()
            given = self.absent & self._written()
            if not filled and not given:
                break
            self.empty -= filled
            self.absent -= given

    def inserted(self) -> list[Part]:
        """Return the members to write into the subclass, in the order of the base; its statics
        after them."""
        taken = [
            part
            for part in self.parts.values()
            if part.name in self.needed
            and part.name not in self.own
            and not (part.name in _ASKED_BY_RUNTIME and self.idle(part))
        ]
        fields = [p for p in taken if p.body is None]
        statics = [p for p in self.base.parts if p.static and p.name not in self.own]
        return fields + [p for p in taken if p not in fields] + statics

    def idle(self, part: Part) -> bool:
        """Whether nothing is done in a method."""
        if part.body is None or part.name in self._judging:
            return False
        self._judging.add(part.name)
        try:
            return all(is_base_call(s) or self.dead(s) for s in part.body.named_children)
        finally:
            self._judging.discard(part.name)

    def dead(self, statement: Node) -> bool:
        """Whether a statement does nothing."""
        match statement.type:
            case "comment" | "empty_statement":
                return True
            case "statement_block" | "else_clause":
                return all(self.dead(inner) for inner in statement.named_children)
            case "if_statement":
                return self._dead_question(statement)
            case "for_in_statement":
                return self._is_list(statement.child("right"))
            case "expression_statement":
                return self._dead_expression(statement.named_children[0])
        return False

    def live(self, node: Node) -> Iterator[Node]:
        """A node and what is below it, without statements that do nothing."""
        if self.dead(node):
            return
        yield node
        for below in node.children:
            yield from self.live(below)

    def is_pure(self, node: Node, here: Declared | None = None, steps: int = 0) -> bool:
        """Whether evaluating an expression changes nothing, as far as it can be followed.

        `here` is the function of another place it stands in, None for the base itself.
        """
        if node.type == "call_expression":
            if id(node) not in self._pure:
                self._pure[id(node)] = self._is_pure_call(node, here, steps)
            return self._pure[id(node)]
        if node.type in _PLAIN:
            if node.type == "unary_expression" and node.has("delete"):
                return False
            return all(self.is_pure(below, here, steps) for below in node.named_children)
        return False

    def _is_pure_call(self, node: Node, here: Declared | None, steps: int) -> bool:
        """A call of a function that only gives back what is made of plain parts."""
        callee, arguments = node.child("function"), node.child("arguments")
        if callee is None or callee.type != "identifier" or arguments is None:
            return False
        given = arguments.named_children
        if steps > _MOST_STEPS or not all(self.is_pure(a, here, steps) for a in given):
            return False
        own = self.base.names.meaning(callee) if here is None else None
        if own is not None and own.scope is not self.base.names.module:
            return False
        tree, file = (
            (here.tree, here.file) if here is not None else (self.base.tree, self.base.file)
        )
        found = declared(callee.text, tree, file, self.workspace)
        body = found.node.child("body") if found is not None and found.node.is_function else None
        if body is None or found is None:
            return False
        if body.type != "statement_block":
            return self.is_pure(body, found, steps + 1)
        statements = body.named_children
        if len(statements) != 1 or statements[0].type != "return_statement":
            return False
        return all(self.is_pure(value, found, steps + 1) for value in statements[0].named_children)

    # -- what is needed -------------------------------------------------------------------

    def _closure(self) -> set[str]:
        needed: set[str] = set()
        queue = [name for name, part in self.parts.items() if self._is_root(part)]
        queue += self.above
        while queue:
            name = queue.pop()
            part = self.parts.get(name)
            if part is None or name in needed or name in self.empty:
                continue
            if name in self.own and name not in self.above:
                continue
            needed.add(name)
            found = Mentions(set(), set())
            for node in self._code(part):
                found.add(node)
            queue += self.parts if found.anything else found.names
        return needed

    def _is_root(self, part: Part) -> bool:
        """Whether the subclass or the runtime reads a member, or creating it runs code."""
        value = part.node.child("value")
        declares = value is None and part.node.type == "public_field_definition"
        if declares and part.name in _ASKED_BY_RUNTIME:
            return False
        if self.asked is None or part.name in self.asked:
            return True
        return not declares and (part.name in _ASKED_BY_RUNTIME or self._acts(part))

    def _acts(self, part: Part) -> bool:
        """Whether making a field runs code."""
        value = part.node.child("value")
        return value is not None and not value.is_function and runs_code(value)

    def _code(self, part: Part) -> Iterator[Node]:
        """Return the code of a member that runs: a method's without dead code."""
        if part.body is None:
            yield from part.node.walk()
            return
        for statement in part.body.children:
            yield from self.live(statement)

    def _used(self) -> set[str]:
        """Return the members that needed code reads."""
        found = Mentions(set(), set())
        for name in self.needed:
            for node in self._code(self.parts[name]):
                found.add(node)
        return set(self.parts) if found.anything else found.names

    def _written(self) -> set[str]:
        """Return the members that needed code assigns; code that gets the instance may assign any."""
        found = Mentions(set(), set())
        given: set[str] = set()
        for member in self.needed:
            for node in self._code(self.parts[member]):
                found.add(node)
                if is_write(node) and (name := _own_member(node)):
                    given.add(name)
        return set(self.absent) if found.anything else given

    def _had_by_nobody(self) -> set[str]:
        """Return the members the base reads that neither it, its subclass nor the runtime has, as
        far as visible."""
        if self.asked is None:
            return set()
        names = {n for part in self.parts.values() for n in mentions(part.node).names}
        return names - {*self.parts, *self.own, *self.asked, *_HAD_BY_ALL, *_ASKED_BY_RUNTIME}

    def _binds(self, statement: Node) -> str:
        """The method of the base that all a statement does is bind to its instance; "" for none."""
        node = statement.named_children[0]
        target, value = node.child("left"), node.child("right")
        name = _own_member(target) if target is not None else ""
        callee = value.child("function") if value is not None else None
        part = callee.child("property") if callee is not None else None
        if not name or name in self.own or value is None or callee is None or part is None:
            return ""
        arguments = value.child("arguments")
        only = arguments is not None and [a.text for a in arguments.named_children] == ["this"]
        bound = part.text == "bind" and only and _own_member(callee.children[0]) == name
        return name if bound and name in self.parts else ""

    # -- what stays empty -----------------------------------------------------------------

    def _may_stay_empty(self, part: Part) -> bool:
        """A field that begins as nothing, or as a list without anything, and is the base's alone."""
        value = part.node.child("value")
        if value is None or part.node.type != "public_field_definition" or self.asked is None:
            return False
        begins = value.text in ("[]", "null", "undefined", "false", "0")
        mentioned = any(
            part.name in mentions(other.node).names
            for name in self.asked
            if (other := self.parts.get(name)) is not None
        )
        return begins and part.name not in self.asked | self.own and not mentioned

    def _is_empty(self, node: Node | None) -> bool:
        """Whether an expression is a field that stays empty."""
        if node is None or node.type != "member_expression" or node.children[0].type != "this":
            return False
        part = node.child("property")
        return part is not None and part.text in self.empty

    def _is_false(self, node: Node | None) -> bool:
        """Whether a condition never holds, because a field stays as it began."""
        if node is None:
            return False
        match node.type:
            case "parenthesized_expression":
                return self._is_false(node.named_children[0])
            case "binary_expression":
                left, right = node.child("left"), node.child("right")
                sign = next((c.type for c in node.children if c.field == "operator"), "")
                if sign == "&&":
                    return self._is_false(left)
                if left is not None and left.type == "unary_expression" and right is not None:
                    kind = right.text[1:-1] if left.has("typeof") else ""
                    told = kind not in ("", "undefined") and right.type == "string"
                    return told and sign[:2] == "==" and self._is_absent(left.child("argument"))
                value, other = self._value(left), right.text if right is not None else ""
                if not value or value == "[]":
                    return False
                alike = value == other or (sign == "!=" and {value, other} <= _NOTHING)
                return (sign == ">" and other == "0") or (sign in ("!==", "!=") and alike)
            case "member_expression":
                return self._is_absent(node) or self._value(node) not in ("", "[]")
        return False

    def _is_absent(self, node: Node | None) -> bool:
        """Whether an expression is a member that nobody has."""
        return node is not None and _own_member(node) in self.absent

    def _value(self, node: Node | None) -> str:
        """Return the constant value of a field, or `0` for the length of its list; "" for anything
        else."""
        if node is None or node.type != "member_expression":
            return ""
        part = node.child("property")
        if part is not None and part.text == "length" and self._is_list(node.children[0]):
            return "0"
        return self._first(node)

    def _first(self, node: Node | None) -> str:
        """Return the initial value of a field that never changes; "" for anything else."""
        if not self._is_empty(node) or node is None:
            return ""
        part = node.child("property")
        value = self.parts[part.text].node.child("value") if part is not None else None
        return value.text if value is not None else ""

    def _is_list(self, node: Node | None) -> bool:
        """Whether an expression is a list that stays without anything."""
        return self._first(node) == "[]"

    def _dead_question(self, statement: Node) -> bool:
        condition = statement.child("condition")
        then, other = statement.child("consequence"), statement.child("alternative")
        if condition is None or then is None or (other is not None and not self.dead(other)):
            return False
        return self._is_false(condition) or (self.is_pure(condition) and self.dead(then))

    def _dead_expression(self, node: Node) -> bool:
        if node.type == "assignment_expression":
            target, value = node.child("left"), node.child("right")
            bound = self._binds(node.parent) if node.parent is not None else ""
            if bound and bound not in self.needed:
                return True
            return value is not None and self._first(target) == value.text
        if node.type == "binary_expression":
            return self._is_false(node)
        callee = node.child("function") if node.type == "call_expression" else None
        arguments = node.child("arguments") if callee is not None else None
        if callee is None or arguments is None or callee.type != "member_expression":
            return False
        part = callee.child("property")
        if part is not None and part.text == "forEach" and self._is_list(callee.children[0]):
            return True
        if part is None or callee.children[0].type != "this" or part.text in self.own:
            return False
        method = self.parts.get(part.text)
        plain = all(self.is_pure(argument) for argument in arguments.named_children)
        return method is not None and plain and self.idle(method)


def _own_member(node: Node) -> str:
    """The name of what is asked of the instance itself; "" for all else."""
    if node.type != "member_expression" or node.children[0].type != "this":
        return ""
    part = node.child("property")
    return part.text if part is not None else ""
