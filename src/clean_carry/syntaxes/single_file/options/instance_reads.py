"""Reads of an instance, and ways it is passed on: by a member, a name, a call, whole."""

from __future__ import annotations

from functools import lru_cache
from pathlib import Path

from clean_carry.source.instance_reads import called_with
from clean_carry.source.javascript.scope import is_write
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import last_name, property_name


@lru_cache(maxsize=512)
def handed_in(code: Node) -> tuple[Node, ...]:
    """The places where code does more with the instance than ask it for a member by name."""
    return tuple(node for node in code.walk() if node.type == "this" and not stays(node))


def is_indexed(this: Node) -> bool:
    """Whether the instance is read by a computed name."""
    above = this.parent
    return above is not None and above.type == "subscript_expression" and this.field == "object"


def is_lent(this: Node) -> bool:
    """Whether an instance is lent to a function: `f.call(this)`, `f.apply(this)`, `f.bind(this)`."""
    above = this.parent
    call = above.parent if above is not None and above.type == "arguments" else None
    callee = call.child("function") if call is not None else None
    part = callee.child("property") if callee is not None else None
    if above is None or part is None or above.named_children[0] is not this:
        return False
    return part.text in ("call", "apply", "bind")


def lent_to(this: Node) -> str:
    """The function an instance is lent to at once, by its name; empty where it is not known."""
    call = this.parent.parent if is_lent(this) and this.parent is not None else None
    callee = call.child("function") if call is not None else None
    part, function = (callee.child(n) for n in ("property", "object")) if callee else (None, None)
    if part is None or function is None or part.text == "bind":
        return ""
    return function.text if function.type == "identifier" else ""


def words_of(this: Node, file: Path) -> frozenset[str] | None:
    """The members that `this[name]` may read or write; None where the possible names are not known.

    Known are a word, and a parameter of a function that the project calls with words alone.
    """
    whole = this.parent
    key = whole.child("index") if whole is not None else None
    if whole is None or key is None:
        return None
    if key.type == "string":
        return frozenset([property_name(key) or ""])
    if key.type == "ternary_expression":
        either = [key.child("consequence"), key.child("alternative")]
        words = [property_name(n) for n in either if n is not None and n.type == "string"]
        return frozenset(word for word in words if word) if len(words) == 2 else None
    function = next(
        (up for up in whole.up() if up.is_function and up.type != "arrow_function"), None
    )
    taken = function.child("parameters") if function is not None else None
    if (
        function is None
        or taken is None
        or [n.text for n in taken.named_children[:1]] != [key.text]
    ):
        return None
    above = function.parent
    named = function.child("name") or (above.child("key") if above is not None else None)
    return called_with(file, named.text) if named is not None else None


# Functions that call their callbacks with nothing, or with an element, as `this`.
_PLAIN_CALLERS = frozenset(
    "then catch finally setTimeout setInterval requestAnimationFrame queueMicrotask addEventListener on "
    "one forEach map filter some every find findIndex reduce sort".split()
)


def may_be_instance(this: Node, owner: Node, declared: set[str]) -> bool:
    """Whether the `this` of a function inside a component may be the instance: a member is read,
    and the caller is unknown.

    It cannot be where the function is passed to a call that keeps nothing for anybody, stands in an object
    that has such a member itself, or belongs to a class.
    """
    asked = this.parent.child("property") if this.parent is not None else None
    if this.field != "object" or asked is None or asked.text not in declared:
        return False
    above = owner.parent
    if owner.type == "method_definition" or (above is not None and above.type == "pair"):
        holder = above.parent if above is not None and above.type == "pair" else above
        if holder is None or holder.type != "object":
            return False
        keys = [part.child("key") or part.child("name") or part for part in holder.named_children]
        return asked.text not in {property_name(key) for key in keys}
    if above is not None and above.type == "arguments" and above.parent is not None:
        call = above.parent
        if last_name(call.child("function")) in _PLAIN_CALLERS or call.type == "new_expression":
            return False
        return call.parent is None or call.parent.type not in (
            "expression_statement",
            "await_expression",
        )
    return True


@lru_cache(maxsize=512)
def data_names(code: Node, known: frozenset[int] = frozenset()) -> dict[str, int]:
    """Return the names under which code passes the state on, each with its first place; "" for an
    unknown name.

    The use of the state in the calls that begin at `known` is known.
    """
    found: dict[str, int] = {}
    for node in code.walk() if "$data" in code.text else ():
        part = node.child("property") if node.type == "member_expression" else None
        above = node.parent
        if part is None or part.text != "$data" or above is None or node.field == "object":
            continue
        if above.parent is not None and above.parent.start in known:
            continue
        key = above.child("key") if above.type == "pair" else None
        name = (property_name(key) or "") if key is not None else ""
        found.setdefault(name, node.start)
    return found


@lru_cache(maxsize=512)
def asked_in(code: Node) -> tuple[set[str], set[str]]:
    """(the names code asks the instance for, or what may stand for it; those of them it writes)."""
    asked: set[str] = set()
    written: set[str] = set()
    for node in code.walk():
        if node.type == "object_pattern":
            asked.update(n.text for n in node.walk() if n.type.endswith(("identifier", "pattern")))
        if node.type != "member_expression":
            continue
        part, owner = node.child("property"), node.child("object")
        name = property_name(part) if part is not None else None
        if name is not None and owner is not None:
            asked.add(name)
            if is_write(node) and owner.type in ("this", "identifier"):
                written.add(name)
    return asked, written


def stays(this: Node) -> bool:
    """Whether the instance stands before a member of it, or is only compared by kind."""
    above = this.parent
    if above is None:
        return True
    if above.type == "member_expression" and this.field == "object":
        return True
    if above.type == "variable_declarator" and this.field == "value":
        return True
    while above is not None and above.type in ("binary_expression", "arguments"):
        above = above.parent
    callee = above.child("function") if above is not None else None
    return callee is not None and callee.text == "Object.getPrototypeOf"


def is_of_prototype(tree: Tree, name: str) -> bool:
    """Whether a function is one that a plug-in gives every instance."""
    for node in tree.of("variable_declarator"):
        declared, value = node.child("name"), node.child("value")
        if declared is not None and value is not None and declared.text == name:
            return value.text.startswith("Object.getPrototypeOf(")
    return False
