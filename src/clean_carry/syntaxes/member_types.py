"""The types of a component's members, and its code as expressions that another language can say.

A type is known by what declares a prop, by literals and defaults, by the code of a derived value, or by
values that trials give. Where nothing tells it, the member has any type.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, field, replace

from clean_carry.component.code import Assign, Code, Member, Read, SlotGiven
from clean_carry.component.errors import InputError
from clean_carry.component.members import Derived
from clean_carry.component.model import Component, Default, Prop
from clean_carry.source.expressions.model import Expr, Name, Unsayable
from clean_carry.source.expressions.types import (
    ANY,
    FLAG,
    NUMBER,
    TEXT,
    Type,
    either,
    list_of,
    record_of,
    type_of_value,
)
from clean_carry.source.javascript.expression import expression
from clean_carry.source.javascript.narrowing import found_there
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText

# The name under which values are given that requests are answered with.
REPLY = "$reply"
# The types that declarations of props name.
_DECLARED = {
    "String": TEXT, "Number": NUMBER, "Boolean": FLAG, "Array": list_of(None), "Object": record_of(),
}  # fmt: skip


# The one value that a function returns, from its parameters on.
_RETURNED = re.compile(r"\(\)\s*(?::[^{]+)?\{\s*return\s+(.*?);?\s*\}\s*$", re.DOTALL)
_ARROW = re.compile(r"\(\)\s*=>\s*(?!\{)(.*)$", re.DOTALL)


def is_full(type_: Type) -> bool:
    """Whether a type and its parts are known."""
    if type_.kind == "any":
        return False
    if type_.kind == "list":
        return type_.item is not None and type_.item.kind != "any"
    return type_.kind != "record" or bool(type_.fields)


# Content that a parent may have given, by the name of its slot.
_SLOT = re.compile(r"(?:this\.)?\$?(?:slots|scopedSlots)(?:\.([\w$]+)|\['([\w-]+)'\])")
_PARTS = frozenset({"member_expression", "subscript_expression"})
_GIVEN = record_of({}).or_missing("undefined")


def name_of(member: Member) -> str:
    """The name of a member in expressions: its kind and its own name."""
    return f"{member.kind} {member.name}"


@dataclass
class MemberTypes:
    """The types of one component's members. `told` are values that inputs and state may have, by name:
    those of trials, and of what a data source answers."""

    component: Component
    source: SourceText
    told: Mapping[str, object] = field(default_factory=dict)

    def __post_init__(self) -> None:
        # Members whose value is known where code is read.
        self.fixed: Mapping[Member, Expr] = {}
        self._known: dict[Member, Type] = {}
        self._asked: set[Member] = set()

    def of(self, member: Member) -> Type:
        """The type of a member."""
        if member in self._known:
            return self._known[member]
        if member in self._asked:
            # It is made of itself.
            return ANY
        self._asked.add(member)
        found = self._find(member)
        self._known[member] = found
        return found

    def _find(self, member: Member) -> Type:
        component = self.component
        match member.kind:
            case "prop":
                prop = next(
                    (one for one in component.inputs.props if one.name == member.name), None
                )
                return self._prop(prop) if prop is not None else ANY
            case "state":
                fields = component.state.fields if component.state is not None else None
                one = next((each for each in fields or () if each.name == member.name), None)
                if one is None or one.code is None:
                    return self._told(member.name)
                found = self._with_told(self._type_of(one.code), member.name)
                return self._widened(member, found)
            case "derived":
                made = next((one for one in component.derived if one.name == member.name), None)
                returned = made.returned if made is not None else None
                return self._type_of(returned) if returned is not None else ANY
        return ANY

    def _widened(self, member: Member, first: Type) -> Type:
        """The type of a field of state, with those of the values that code gives it."""
        self._known[member] = first
        found = first
        for _, one in self.component.operations():
            if isinstance(one, Assign) and one.member == member and one.value is not None:
                given = self._type_of(one.value)
                if one.operator == "=" and given.kind != "any":
                    found = given if found.kind == "any" else either(found, given)
                elif one.operator == "+=" and found.kind == "number" and not given.whole:
                    found = replace(found, whole=False)
        return found

    def _prop(self, prop: Prop) -> Type:
        kinds = [_DECLARED[one] for one in prop.kind.split() if one in _DECLARED]
        found = kinds[0] if len(kinds) == 1 else ANY
        if prop.default is not None and (found.kind == "any" or not is_full(found)):
            default = self._default(prop.default)
            found = default if default.kind == found.kind or found.kind == "any" else found
        first = prop.default.code if prop.default is not None else None
        if found != NUMBER or first is None or self._type_of(first).whole:
            found = self._with_told(found, prop.name)
        if prop.required or prop.default is not None or found.kind in ("flag", "any"):
            return found
        return found.or_missing("undefined")

    def _default(self, default: Default) -> Type:
        code = self.default_code(default)
        return self._type_of(code) if code is not None else ANY

    def learn(self, member: Member, type_: Type) -> None:
        """Take a type that was found otherwise."""
        self._known[member] = type_

    def default_code(self, default: Default) -> Code | None:
        """The value of a default, or what a function gives that makes it; None where that is not one
        expression."""
        start, end, _ = default.code.span
        text = self.source.slice(start, end)
        if not default.method and not text.startswith("("):
            return default.code
        made = _RETURNED.match(text) or _ARROW.match(text)
        if made is None:
            return None
        at = start + len(text[: made.start(1)].encode())
        return Code(default.code.span._replace(start=at, end=at + len(made[1].encode())))

    def _told(self, name: str) -> Type:
        return type_of_value(self.told[name]) if name in self.told else ANY

    def _with_told(self, type_: Type, name: str) -> Type:
        """A type, with what values of it are known to hold."""
        told = self._told(name)
        if type_.kind in ("any", "nothing"):
            return either(type_, told) if type_.kind == "nothing" and told.kind != "any" else told
        if told.kind != type_.kind:
            return type_
        if type_.kind == "number" and told.whole:
            return replace(type_, whole=True)
        holds = type_.kind == "list" and (
            type_.item is None or type_.item.kind in ("any", "record")
        )
        if holds or (type_.kind == "record" and not type_.fields):
            return told.or_missing(type_.missing) if type_.missing else told
        return type_

    def _type_of(self, code: Code) -> Type:
        try:
            return self.read(code, {}).type
        except Unsayable:
            return ANY

    # -- code ----------------------------------------------------------------------------

    def read(
        self, code: Code, names: Mapping[str, Type], there: frozenset[str] = frozenset()
    ) -> Expr:
        """Code as an expression; `names` are the types of locals, `there` the texts of expressions that are
        known to have a value. Raises `Unsayable`, at places of the source."""
        start = code.span.start
        reads = {
            (one.span.start - start + 1, one.span.end - start + 1): one for one in code.operations
        }

        def leaf(node: Node) -> Expr | None:
            operation = reads.get((node.start, node.end))
            if operation is None:
                slot = _SLOT.fullmatch(node.text) if node.type in _PARTS else None
                if slot is not None:
                    return Name(_GIVEN, f"slot {slot[1] or slot[2]}")
                if node.type in ("identifier", "shorthand_property_identifier"):
                    own = names.get(node.text)
                    return Name(own, node.text) if own is not None else None
                return None
            if isinstance(operation, SlotGiven):
                return Name(_GIVEN, f"slot {operation.name or 'default'}")
            if not isinstance(operation, Read):
                raise Unsayable(f"`{node.text[:40]}`", start + node.start - 1)
            if operation.member in self.fixed:
                return self.fixed[operation.member]
            return Name(self.of(operation.member), name_of(operation.member))

        with self._parsed(code) as node:
            try:
                return expression(node, leaf, there)
            except Unsayable as reason:
                raise Unsayable(reason.what, start + max(0, reason.at - 1)) from None

    def there_where(self, code: Code, *, holds: bool) -> frozenset[str]:
        """Texts of expressions that have a value where a condition holds, or does not. Raises
        `Unsayable`."""
        with self._parsed(code) as node:
            return found_there(node, holds=holds)

    @contextmanager
    def _parsed(self, code: Code) -> Iterator[Node]:
        """The expression of code, in parentheses. Raises `Unsayable` for what is none."""
        text = self.source.slice(*code.span[:2])
        try:
            tree = Tree(SourceText(self.source.path, f"({text});".encode()))
        except InputError:
            raise Unsayable(f"`{text[:40]}`", code.span.start) from None
        try:
            yield tree.root.named_children[0].named_children[0].named_children[0]
        finally:
            tree.release()

    def returned(self, derived: Derived) -> Code:
        """The one expression of a derived value. Raises `Unsayable` where it has several statements."""
        if derived.returned is None:
            raise Unsayable(f"the statements of {derived.name}", derived.text.span.start)
        return derived.returned
