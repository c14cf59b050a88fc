"""State derived from props by the static hook `getDerivedStateFromProps`, where one call is enough.

A class component calls the hook once before every render and merges the object it returns into the state.
A function component has to call a setter while it renders, and is then rendered again at once, until no
setter is called any more. Two forms of the hook end in the same state both ways:

- The returned object makes the condition false: `if (props.at !== state.at) return { at: props.at };`.
- The returned object depends on props alone: `if (props.at) return { at: props.at };`. The function calls
  the setter only if the state has another value.

Every other form is refused.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field, replace

from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import is_constant, plain_fields, property_name

HOOK = "getDerivedStateFromProps"
_PURE = frozenset(
    "identifier member_expression property_identifier binary_expression unary_expression null "
    "parenthesized_expression number string string_fragment true false undefined".split()
)
_FALSE = frozenset({"false", "null", "undefined", "0", "''", '""'})
_UNEQUAL, _EQUAL = "!==", "==="
# The prefix of the path of an object that is written whole.
_NEW = "new "


@dataclass(frozen=True)
class Condition:
    """A condition of a derived value; `negated` if it must not hold."""

    node: Node
    negated: bool = False


@dataclass(frozen=True)
class Branch:
    """Fields the hook gives under conditions, and the comparisons of these that become false.

    `unlike` are the fields that are written only where the state has another value: an input's, by its
    name, or a constant.
    """

    conditions: tuple[Condition, ...]
    given: Node
    fields: tuple[tuple[str, Node | None], ...]
    compared: tuple[Node, ...] = ()
    unlike: tuple[tuple[str, str, Node | None], ...] = ()


@dataclass(frozen=True)
class Derivation:
    """A hook that one pass computes. `aliases` are names for parts of props and state; `patterns`
    are their declarations."""

    member: Node
    names: tuple[str, str]
    branches: tuple[Branch, ...]
    aliases: dict[str, tuple[str, str]] = field(default_factory=dict)
    patterns: tuple[Node, ...] = ()


def derivation_of(member: Node) -> Derivation | None:
    """Read the static hook; None where it is not seen to settle."""
    body = member.child("body")
    reading = _Reading()
    if body is None or not reading.parameters(member) or not reading.statements(body):
        return None
    names = reading.names
    found = Derivation(member, names, (), reading.aliases, tuple(reading.patterns))
    taken = {name for name in (*names, *reading.aliases) if name}
    if not reading.branches or _hidden(reading.branches, taken):
        return None
    meanings = {name: f"{part}.{key}" for name, (part, key) in reading.aliases.items()}
    settled = _settled(reading.branches, meanings | {names[0]: "props", names[1]: "state"})
    return replace(found, branches=settled) if settled is not None else None


class _Reading:
    """The statements of the hook, read one by one."""

    def __init__(self) -> None:
        self.names = ("", "")
        self.aliases: dict[str, tuple[str, str]] = {}
        self.patterns: list[Node] = []
        self.branches: list[Branch] = []
        self.guards: list[Condition] = []

    def parameters(self, member: Node) -> bool:
        parameters = member.child("parameters")
        given = parameters.named_children if parameters is not None else []
        patterns = [p.child("pattern") or p for p in given]
        if not 1 <= len(patterns) <= 2:
            return False
        names = ["", ""]
        for at, pattern in enumerate(patterns):
            if pattern.type == "identifier":
                names[at] = pattern.text
            elif not self._pattern(pattern, ("props", "state")[at]):
                return False
        self.names = (names[0], names[1])
        return True

    def _pattern(self, pattern: Node, part: str) -> bool:
        """Names for parts of inputs or state."""
        if pattern.type != "object_pattern":
            return False
        for entry in pattern.named_children:
            key, local = entry, entry
            if entry.type == "pair_pattern":
                first, second = entry.child("key"), entry.child("value")
                if first is None or second is None or second.type != "identifier":
                    return False
                key, local = first, second
            elif entry.type != "shorthand_property_identifier_pattern":
                return False
            name = key.text if key is local else property_name(key)
            if name is None or local.text in self.aliases:
                return False
            self.aliases[local.text] = (part, name)
        return True

    def statements(self, block: Node) -> bool:
        """Read statements to the end of a block; whether all of them are known."""
        return all(self._statement(statement) for statement in block.named_children)

    def _statement(self, statement: Node) -> bool:
        if statement.type == "lexical_declaration":
            return all(self._declared(part) for part in statement.named_children)
        if statement.type == "return_statement":
            return self._given(statement, ())
        if statement.type == "statement_block":
            return self.statements(statement)
        if statement.type != "if_statement":
            return False
        condition, then = statement.child("condition"), statement.child("consequence")
        other = statement.child("alternative")
        if condition is None or then is None:
            return False
        asked = Condition(condition.named_children[0])
        inner = then.named_children if then.type == "statement_block" else [then]
        if len(inner) != 1 or inner[0].type != "return_statement":
            return False
        if not all(n.type in _PURE for n in asked.node.walk() if n.named):
            return False
        if self._gives_nothing(inner[0]):
            self.guards.append(replace(asked, negated=True))
        elif not self._given(inner[0], (asked,)):
            return False
        rest = other.named_children if other is not None else []
        return all(self._statement(part) for part in rest)

    def _declared(self, declarator: Node) -> bool:
        target, value = declarator.child("name"), declarator.child("value")
        if target is None or value is None:
            return False
        means = dict(zip(self.names, ("props", "state"), strict=True))
        self.patterns.append(value)
        if value.type == "identifier" and value.text in means:
            return self._pattern(target, means[value.text])
        holder, part = value.child("object"), value.child("property")
        if target.type != "identifier" or value.type != "member_expression" or part is None:
            return False
        if holder is None or holder.text not in means or target.text in self.aliases:
            return False
        self.patterns[-1] = holder
        self.aliases[target.text] = (means[holder.text], part.text)
        return True

    def _gives_nothing(self, statement: Node) -> bool:
        """Whether nothing is given, or the state as it is."""
        value = statement.named_children[0] if statement.named_children else None
        return value is None or value.text in ("null", "{}", "undefined", self.names[1])

    def _given(self, statement: Node, asked: tuple[Condition, ...]) -> bool:
        if self._gives_nothing(statement):
            return True
        value = statement.named_children[0]
        fields = plain_fields(value) if value.type == "object" else None
        # A guard stands before one branch only: it would have to be said before each.
        if not fields or (self.guards and self.branches):
            return False
        self.branches.append(Branch((*self.guards, *asked), value, tuple(fields)))
        return True


def _hidden(branches: list[Branch], taken: set[str]) -> bool:
    """Whether something inside what is asked or given declares a name that means a part here."""
    for branch in branches:
        for node in (branch.given, *(c.node for c in branch.conditions)):
            for below in node.walk():
                if below.type in ("formal_parameters", "variable_declarator"):
                    if any(n.type.startswith(("identifier", "shorthand")) and n.text in taken
                           for n in below.walk()):  # fmt: skip
                        return True
                alone = below.child("parameter") if below.is_function else None
                if alone is not None and alone.text in taken:
                    return True
    return False


def _settled(branches: list[Branch], meanings: dict[str, str]) -> tuple[Branch, ...] | None:
    """The branches with what makes them settle; None where they do not."""
    compared: set[Node] = set()
    for at, branch in enumerate(branches):
        said = _Said(meanings, branch)
        gone = [
            # An earlier condition was false, and stays false unless a field it reads was written.
            (number < at and not said.touches(other.conditions))
            or said.fails(other.conditions, compared)
            for number, other in enumerate(branches)
        ]
        if not all(gone):
            return _written_where_unlike(branches, said)
    return tuple(
        replace(branch, compared=tuple(_comparisons(branch.conditions, compared)))
        for branch in branches
    )


def _written_where_unlike(branches: list[Branch], said: _Said) -> tuple[Branch, ...] | None:
    """One branch that gives the same as long as the inputs are."""
    if len(branches) != 1:
        return None
    branch = branches[0]
    unlike: list[tuple[str, str, Node | None]] = []
    for name, value in branch.fields:
        constant = value is not None and is_constant(value)
        read = "" if constant else said.input_of(name, value)
        if not constant and not read:
            return None
        unlike.append((name, read, value if constant else None))
    return (replace(branch, unlike=tuple(unlike)),)


def _comparisons(conditions: Iterable[Condition], compared: set[Node]) -> Iterable[Node]:
    for condition in conditions:
        yield from (below for below in condition.node.walk() if below in compared)


class _Said:
    """The texts of expressions once a branch's fields are written."""

    def __init__(self, meanings: dict[str, str], branch: Branch) -> None:
        self.meanings, self.written = meanings, dict[str, str]()
        for name, value in branch.fields:
            self._note(f"state.{name}", value, name)

    def _note(self, path: str, value: Node | None, name: str) -> None:
        inner = plain_fields(value) if value is not None and value.type == "object" else None
        if inner is None:
            self.written[path] = self._before(value) if value is not None else self._named(name)
            return
        self.written[path] = _NEW + path
        for key, part in inner:
            self._note(f"{_NEW}{path}.{key}", part, key)

    def _named(self, name: str) -> str:
        return self.meanings.get(name, name)

    def _before(self, node: Node) -> str:
        return self._text(node, {})

    def after(self, node: Node) -> str:
        """Return an expression's text once everything is written."""
        return self._text(node, self.written)

    def _text(self, node: Node, written: dict[str, str]) -> str:
        if node.type == "parenthesized_expression":
            return self._text(node.named_children[0], written)
        if node.type in ("identifier", "shorthand_property_identifier"):
            path = self._named(node.text)
        elif node.type == "member_expression" and not node.has("?."):
            path = f"{self._text(node.children[0], written)}.{node.children[-1].text}"
        elif node.type in ("binary_expression", "unary_expression"):
            parts = (
                self._text(part, written) if part.named else part.text for part in node.children
            )
            return f"({' '.join(parts)})"
        else:
            return node.text
        # A new object has no parts but those written.
        return written.get(path, "undefined" if path.startswith(_NEW) else path)

    def touches(self, conditions: Iterable[Condition]) -> bool:
        """Whether a condition reads a value that was written."""
        return any(self.after(c.node) != self._before(c.node) for c in conditions)

    def fails(self, conditions: Iterable[Condition], compared: set[Node]) -> bool:
        """Whether one of the conditions no longer holds; notes the comparisons that tell."""
        asked = list(conditions)
        texts = {
            ("!" if part.negated else "") + self.after(part.node)
            for condition in asked
            for part in _conjuncts(condition)
        }
        return any(
            self._fails(part, texts, compared)
            for condition in asked
            for part in _conjuncts(condition)
        )

    def _fails(self, part: Condition, texts: set[str], compared: set[Node]) -> bool:
        node = part.node
        while node.type == "parenthesized_expression":
            node = node.named_children[0]
        if node.type == "binary_expression":
            sides = node.children[0], node.children[-1]
            if node.has(_EQUAL if part.negated else _UNEQUAL):
                if self.after(sides[0]) == self.after(sides[1]):
                    compared.add(node)
                    return True
            if node.has("&&" if part.negated else "||"):
                inner = [Condition(side, part.negated) for side in sides]
                return all(
                    any(self._fails(p, texts, compared) for p in _conjuncts(one)) for one in inner
                )
            return False
        if node.type == "unary_expression" and node.has("!"):
            return self._fails(Condition(node.named_children[0], not part.negated), texts, compared)
        text = self.after(node)
        if part.negated:
            return text == "true" or text.startswith(_NEW) or text in texts
        return text in _FALSE or f"!{text}" in texts

    def input_of(self, name: str, value: Node | None) -> str:
        """The input a value is; "" where it is something else."""
        if value is not None and value.type not in ("identifier", "member_expression"):
            return ""
        text = self._before(value) if value is not None else self._named(name)
        part, _, key = text.partition(".")
        return key if part == "props" and "." not in key else ""


def _conjuncts(condition: Condition) -> list[Condition]:
    """The parts that must all hold."""
    node = condition.node
    if node.type == "parenthesized_expression":
        return _conjuncts(replace(condition, node=node.named_children[0]))
    if node.type == "unary_expression" and node.has("!"):
        return _conjuncts(Condition(node.named_children[0], not condition.negated))
    if node.type == "binary_expression" and node.has("||" if condition.negated else "&&"):
        return [
            part
            for side in node.named_children
            for part in _conjuncts(replace(condition, node=side))
        ]
    return [condition]
