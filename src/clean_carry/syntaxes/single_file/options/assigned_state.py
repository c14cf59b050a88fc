"""State that is given values at once: `Object.assign(this.$data, { open: false, tries: 0 })`.

The fields are set in the order of the object, once all values are there (ECMA-262 §20.1.2.1).
`Object.assign(this.$data, this.$options.data.call(this))` gives the first values again.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from clean_carry.component.code import AssignEach, Member, Operation
from clean_carry.source.javascript.timing import is_deferred
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.single_file.members import Members, locals_at
from clean_carry.syntaxes.single_file.options.functions import only_returns, parts_of, returned
from clean_carry.syntaxes.uses import Build, Raw, Uses


@dataclass(frozen=True)
class AtOnce:
    """A statement that gives fields their values: the call, (field, value) in order, and whether the values
    are the first ones, which stand in the options."""

    call: Node
    fields: tuple[tuple[str, Node], ...]
    first: bool


@lru_cache(maxsize=512)
def given_at_once(literal: Node) -> tuple[AtOnce, ...]:
    """The statements of a component's options that give state fields values at once."""
    fields = dict(_first_values(literal))
    found: list[AtOnce] = []
    for call in literal.walk() if "$data" in literal.text else ():
        arguments = call.child("arguments") if call.type == "call_expression" else None
        given = arguments.named_children if arguments is not None else []
        callee, above = call.child("function"), call.parent
        if callee is None or callee.text != "Object.assign" or len(given) != 2:
            continue
        if above is None or above.type != "expression_statement" or above.parent is None:
            continue
        if above.parent.type != "statement_block":
            continue
        owner, dot, data = given[0].text.rpartition(".")
        if data != "$data" or not dot or not owner.isidentifier():
            continue
        if given[1].type == "object":
            parts = [(name or "", value) for name, _, value in parts_of(given[1])]
            plain = all(p.type == "pair" for p in given[1].named_children)
            once = AtOnce(call, tuple(parts), False)
        else:
            plain = given[1].text in _first_again(owner)
            once = AtOnce(call, tuple(fields.items()), True)
        if plain and once.fields and {name for name, _ in once.fields} <= fields.keys():
            if not _sees_written(once, owner, literal):
                found.append(once)
    return tuple(found)


_PARTS = ("pair", "shorthand_property_identifier")


def _first_again(owner: str) -> tuple[str, ...]:
    asked = f"{owner}.$options.data"
    return f"{asked}.call({owner})", f"{asked}.apply({owner})", f"{asked}.call({owner}, {owner})"


def _first_values(literal: Node) -> Iterator[tuple[str, Node]]:
    """The fields of the state with what they start as; none where more than a literal gives them, or where
    something else does too."""
    options = {name: value for name, _, value in parts_of(literal)}
    data = options.get("data")
    given = returned(data) if data is not None and data.is_function and only_returns(data) else None
    if given is None or given.type != "object" or {"mixins", "extends"} & options.keys():
        return
    if all(part.type in _PARTS for part in given.named_children):
        yield from ((name or "", value) for name, _, value in parts_of(given))


def _sees_written(once: AtOnce, owner: str, literal: Node) -> bool:
    """Whether a value may see a field that is written before it: all values came before any write."""
    hidden = {
        name
        for option, _, value in parts_of(literal)
        if option in ("computed", "methods") and value.type == "object"
        for name, _, _ in parts_of(value)
    }
    for number, (name, value) in enumerate(once.fields):
        for node in value.walk() if number else ():
            part = node.child("property") if node.type == "member_expression" else None
            asked = part is not None and node.children[0].text in ("this", owner)
            if node.text in ("this", owner) and not _is_asked(node):
                return True
            if asked and part is not None and part.text in hidden:
                return True
        hidden.add(name)
    return False


def _is_asked(node: Node) -> bool:
    above = node.parent
    return above is not None and above.type == "member_expression" and node.field == "object"


def is_given_at_once(node: Node, literal: Node) -> bool:
    """Whether an instance only stands in what a statement of this kind says by itself."""
    for once in given_at_once(literal):
        arguments = once.call.child("arguments")
        target, given = arguments.named_children if arguments is not None else (node, node)
        inside = given if once.first else target
        if target.start <= node.start < target.end or inside.start <= node.start < inside.end:
            return True
    return False


def collect_given(uses: Uses, members: Members, literal: Node, owners: dict[int, Node]) -> None:
    """An operation for each statement that gives fields their values at once.

    `owners` are the functions that run on the instance, by the id of each function in them.
    """
    for once in given_at_once(literal):
        owner = next((owners[id(up)] for up in once.call.up() if id(up) in owners), None)
        names = {name for name, _ in once.fields}
        if (
            owner is None
            or not _is_instance(uses, once, owner)
            or not names <= members.state
            or (once.first and _hidden(uses, members, once))
        ):
            uses.refuse("unknown-use", once.call.text[:60], once.call.start)
            continue
        members.kept_only("unknown-use", "Object.assign(this.$data, …)", once.call.start)
        for name, value in once.fields:
            members.assigned.setdefault(name, []).append(("=", value))
        deferred = is_deferred(once.call, owner, uses.names)
        uses.raws.append(Raw(uses.span(once.call), "state-write", _build(uses, once, deferred)))


def _is_instance(uses: Uses, once: AtOnce, owner: Node) -> bool:
    """Whether the state that is written is the component's own: that of `this` in a function that runs on
    the instance, or of a constant that stands for it."""
    arguments = once.call.child("arguments")
    target = arguments.named_children[0].children[0] if arguments is not None else None
    if target is not None and target.type == "identifier":
        binding = uses.names.meaning(target)
        declarator = binding.node.parent if binding is not None and not binding.written else None
        target = declarator.child("value") if declarator is not None else None
    if target is None or target.type != "this":
        return False
    functions = (up for up in target.up() if up.is_function and up.type != "arrow_function")
    return next(functions, None) is owner


def _build(uses: Uses, once: AtOnce, deferred: bool) -> Build:
    span = uses.span(once.call)

    def build(entry: int) -> Operation:
        uses.locals_at[entry] = locals_at(uses, once.call)
        fields = tuple(
            (Member("state", name), uses.code(uses.span(value), kept=not once.first))
            for name, value in once.fields
        )
        return AssignEach(span, entry, deferred, fields, once.first)

    return build


def _hidden(uses: Uses, members: Members, once: AtOnce) -> bool:
    """Whether first values cannot be written again here: they take several lines, are written in place, or
    name what means something else."""
    around = {name for name, _ in locals_at(uses, once.call)}
    for _, value in once.fields:
        names = {node.text for node in value.walk() if node.type == "identifier"}
        parts = [n.parent.child("property") for n in value.walk() if n.type == "this" and n.parent]
        if any(part is None or part.text not in members.props for part in parts):
            return True
        if "\n" in value.text or value.type not in _WRITTEN_AGAIN or names & around:
            return True
    return False


_WRITTEN_AGAIN = frozenset(
    "string number true false null undefined array object call_expression member_expression identifier "
    "unary_expression update_expression binary_expression template_string ternary_expression".split()
)
