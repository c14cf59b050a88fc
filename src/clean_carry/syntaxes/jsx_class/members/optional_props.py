"""Which declared props a caller may leave out once their defaults stand in the signature.

Of a class the runtime's types make props with defaults optional for callers (its declarations,
`LibraryManagedAttributes`); a function's parameter type says so itself.
"""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.spans import Span
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.jsx_class.bases.heritage import heritage_types

_TYPES = ("interface_declaration", "type_alias_declaration")
_BODIES = frozenset({"interface_body", "object_type"})


@dataclass(frozen=True)
class OptionalProps:
    """`marks` are the places where a sign behind a key makes it optional in its declaration; `names` are
    keys that the type of the parameter must make optional itself; `inline` is that type where it is
    written in the head of the class."""

    marks: tuple[Span, ...] = ()
    names: tuple[str, ...] = ()
    inline: str = ""


def optional_props(tree: Tree, names: Names, node: Node, defaults: set[str]) -> OptionalProps:
    """How the type of a class's props is made to say that those with `defaults` may be left out."""
    given = heritage_types(node)
    if not defaults or not given or not tree.typed or tree.annotated:
        return OptionalProps()
    props = given[0]
    if props.type == "object_type":
        text, start = props.text, props.start
        ends = sorted(
            (key.end - start for key in _required(props, defaults).values()), reverse=True
        )
        for end in ends:
            text = f"{text[:end]}?{text[end:]}"
        return OptionalProps(inline=text)
    named = props.children[0] if props.type == "generic_type" else props
    declaration = _declaration(tree, named.text) if named.type == "type_identifier" else None
    if declaration is None:
        return OptionalProps(names=tuple(sorted(defaults)))
    body = next((part for part in declaration.children if part.type in _BODIES), None)
    keys = _required(body, defaults) if body is not None else {}
    own = {
        property_name(key) for part in _signatures(body) if (key := part.child("name")) is not None
    }
    missing = tuple(sorted(defaults - own))
    if _only_of_class(tree, names, node, declaration):
        marks = tuple(_mark(tree, key) for key in keys.values())
        return OptionalProps(marks, missing if _inherits(declaration) else ())
    wanted = sorted(keys) + (list(missing) if _inherits(declaration) else [])
    return OptionalProps(names=tuple(wanted))


def _declaration(tree: Tree, name: str) -> Node | None:
    return next(
        (
            node
            for node in tree.of(*_TYPES)
            if (own := node.child("name")) is not None and own.text == name
        ),
        None,
    )


def _signatures(body: Node | None) -> list[Node]:
    kinds = ("property_signature", "method_signature")
    return [
        part for part in (body.named_children if body is not None else ()) if part.type in kinds
    ]


def _required(body: Node, defaults: set[str]) -> dict[str, Node]:
    """The keys of a type that are required and have a default."""
    found: dict[str, Node] = {}
    for part in _signatures(body):
        key = part.child("name")
        name = property_name(key) if key is not None else None
        if key is not None and name in defaults and not part.has("?"):
            found[str(name)] = key
    return found


def _mark(tree: Tree, key: Node) -> Span:
    return tree.source.span(key.end, key.end)


def _inherits(declaration: Node) -> bool:
    """Whether a type has props that are not written in its own body."""
    if declaration.type == "interface_declaration":
        return any(part.type.startswith("extends") for part in declaration.children)
    value = declaration.child("value")
    return value is not None and value.type not in _BODIES


def _only_of_class(tree: Tree, names: Names, node: Node, declaration: Node) -> bool:
    """Whether nothing but the class's own head and hooks names a type: a change of it is seen by no
    other."""
    if declaration.parent is not None and declaration.parent.type == "export_statement":
        return False
    name = declaration.child("name")
    body = node.child("body")
    assert name is not None and body is not None
    for ref in tree.of("type_identifier"):
        if ref.text != name.text or ref is name:
            continue
        if node.start <= ref.start < body.start:
            continue
        member = next((up for up in ref.up() if up.parent is body), None)
        key = member.child("name") if member is not None else None
        if key is None or key.text not in _GOING:
            return False
    return True


# Members whose parameters, or whose own type, do not go along into the function.
_GOING = frozenset(
    (
        "constructor componentDidUpdate componentWillReceiveProps shouldComponentUpdate defaultProps "
        "UNSAFE_componentWillReceiveProps props"
    ).split()
)
