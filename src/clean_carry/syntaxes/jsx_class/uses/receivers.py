"""Which nodes of a class stand for the instance, its inputs or its state.

`this`, what is named after it (`const self = this`), what is taken from it by a plain pattern
(`const { props, state } = this`), and the parameter of the constructor.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from clean_carry.source.javascript.callback_this import called_on, given_this
from clean_carry.source.javascript.scope import Binding, Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name


@dataclass(frozen=True)
class Receiver:
    """A node that means the instance (`this`), all inputs (`props`), the state or the context.

    `alias` is the declaration it came through, None for the thing itself.
    """

    node: Node
    means: str
    alias: Node | None


@dataclass(frozen=True)
class Receivers:
    """The results of `find`: uses, alias declarations to remove, and `this` of static members."""

    uses: tuple[Receiver, ...]
    declarations: tuple[Node, ...]
    static_uses: tuple[Node, ...]


def find(
    tree: Tree, names: Names, class_node: Node, given: Sequence[tuple[Node, tuple[str, ...]]]
) -> Receivers:
    """Find every node below `class_node` that stands for the instance or a part of it.

    `given` are functions the runtime gives parts of it, each with what its parameters mean.
    """
    uses: list[Receiver] = []
    declarations: list[Node] = []
    static_uses: list[Node] = []
    body = class_node.child("body")
    assert body is not None
    for node in tree.of("this"):
        if not (body.start <= node.start and node.end <= body.end):
            continue
        owner = _owner(node, body, names)
        if owner == "static":
            static_uses.append(node)
        elif owner == "instance":
            aliases = _aliases(node, names)
            if aliases is None:
                uses.append(Receiver(node, "this", None))
                continue
            declaration, meanings = aliases
            declarations.append(declaration)
            for binding, means in meanings:
                uses.extend(Receiver(ref, means, declaration) for ref in binding.references)
    for function, parts in given:
        uses.extend(_parameters(function, parts, names))
    uses.sort(key=lambda use: use.node.start)
    return Receivers(tuple(uses), tuple(declarations), tuple(static_uses))


# The callbacks that the runtime calls with the instance (its reference, Component).
_OF_RUNTIME = frozenset({"setState", "forceUpdate"})


def _owner_given(function: Node, body: Node, names: Names) -> str:
    """Whose `this` a function has that is given one; "other" where nothing of the class is."""
    given = given_this(function)
    giver = given.giver if given is not None else called_on(function, _OF_RUNTIME)
    if giver is None:
        return "other"
    if giver.type == "this":
        return _owner(giver, body, names)
    return "instance" if _is_alias(giver, body, names) else "other"


def _is_alias(node: Node, body: Node, names: Names) -> bool:
    """Whether a name stands for the instance: `const self = this`."""
    binding = names.meaning(node) if node.type == "identifier" else None
    declarator = binding.node.parent if binding is not None and not binding.written else None
    value = declarator.child("value") if declarator is not None else None
    return value is not None and value.type == "this" and _owner(value, body, names) == "instance"


def _owner(node: Node, body: Node, names: Names) -> str:
    here = node
    for above in node.up():
        if above is body:
            return "static" if here.has("static") else "instance"
        if above.type == "class_body":
            return "other"
        if above.is_function and above.type != "arrow_function":
            parent = above.parent
            if parent is body:
                return "static" if above.has("static") else "instance"
            member = parent is not None and parent.type == "public_field_definition"
            if not (member and parent is not None and parent.parent is body):
                return _owner_given(above, body, names)
        here = above
    return "other"


def _aliases(node: Node, names: Names) -> tuple[Node, list[tuple[Binding, str]]] | None:
    """The declaration and the bindings it makes, where `node` is all its right-hand side."""
    declarator = node.parent
    if declarator is None or declarator.type != "variable_declarator":
        return None
    declaration = declarator.parent
    if declaration is None or len(declaration.named_children) != 1:
        return None
    if declaration.parent is None or declaration.parent.type != "statement_block":
        return None
    target = declarator.child("name")
    if target is None or declarator.child("value") is not node:
        return None
    scope = names.scope_at(target)
    if target.type == "identifier":
        binding = scope.find(target.text)
        if binding is None or binding.written:
            return None
        return declaration, [(binding, "this")]
    if target.type != "object_pattern":
        return None
    meanings: list[tuple[Binding, str]] = []
    for part in target.named_children:
        if part.type == "shorthand_property_identifier_pattern":
            key, local = part.text, part.text
        elif part.type == "pair_pattern":
            key_node, value = part.child("key"), part.child("value")
            if key_node is None or value is None or value.type != "identifier":
                return None
            key, local = property_name(key_node) or "", value.text
        else:
            return None
        binding = scope.find(local)
        if key not in ("props", "state", "context") or binding is None or binding.written:
            return None
        meanings.append((binding, key))
    return declaration, meanings


def _parameters(function: Node, meanings: tuple[str, ...], names: Names) -> list[Receiver]:
    parameters = function.child("parameters")
    scope = names.inner_scope(function)
    if parameters is None or scope is None or not parameters.named_children:
        return []
    found: list[Receiver] = []
    for parameter, means in zip(parameters.named_children, meanings, strict=False):
        pattern = parameter.child("pattern")
        if pattern is None or pattern.type != "identifier":
            continue
        binding = scope.names.get(pattern.text)
        references = binding.references if binding is not None else []
        found += [Receiver(ref, means, None) for ref in references if not _to_base(ref, means)]
    return found


def _to_base(reference: Node, means: str) -> bool:
    """Whether the context is only passed to the base's constructor, which goes."""
    call = reference.parent.parent if reference.parent is not None else None
    callee = call.child("function") if call is not None else None
    return means == "context" and callee is not None and callee.type == "super"
