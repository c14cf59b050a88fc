"""The notion of each member of a component class, by name and form, as in constructs.md."""

from __future__ import annotations

from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.jsx_class.members.derived_state import HOOK, derivation_of

HOOKS = {
    "componentDidMount": "display-hook",
    "componentDidUpdate": "update-hook",
    "componentWillUnmount": "removal-hook",
    "componentWillMount": "start-hook",
    "UNSAFE_componentWillMount": "start-hook",
    "componentWillReceiveProps": "receipt-hook",
    "UNSAFE_componentWillReceiveProps": "receipt-hook",
    "componentWillUpdate": "before-update-hook",
    "UNSAFE_componentWillUpdate": "before-update-hook",
}
# Members that decide how the class behaves as a whole: without them the output would look right
# and be wrong, so the class is refused.
REFUSED = {
    "decorator": "decorated",
    "shouldComponentUpdate": "decides-updates",
    "getSnapshotBeforeUpdate": "snapshot-before-update",
    "componentDidCatch": "error-capture",
    "getChildContext": "legacy-context",
}
# Hooks that allow every update. A parent's render always gives a new props object.
ALWAYS_BY_PARENT = frozenset({"this.props !== next", "next !== this.props"})
_ALWAYS = frozenset({"true"}) | ALWAYS_BY_PARENT
# Members that the runtime gives an instance, and that typed scripts declare by a field.
TYPED_BY_FIELD = frozenset({"props", "state", "context", "refs"})
REFUSED_STATICS = {
    "getDerivedStateFromProps": "derived-state",
    "getDerivedStateFromError": "error-capture",
    "childContextTypes": "legacy-context",
}


def notion_of(member: Node, typed: bool = False) -> tuple[str, str]:
    """(notion, name) of a class member; `unknown-member` where none fits.

    In a typed script a field without a value only says what type something of the runtime's has.
    """
    if member.type == "decorator":
        return "refused-member", "decorator"
    name_node = member.child("name")
    name = property_name(name_node) if name_node is not None else None
    if name is None:
        return "unknown-member", member.type.replace("_", " ")
    if any(part.type == "decorator" for part in member.children):
        return "unknown-member", f"decorated {name}"
    if member.type == "method_definition":
        return _method_notion(member, name)
    if typed and name in TYPED_BY_FIELD and member.type == "public_field_definition":
        if member.child("value") is None and not member.has("static"):
            return "type-field", name
    if member.type == "public_field_definition":
        return _field_notion(member, name)
    return "unknown-member", name


def _method_notion(member: Node, name: str) -> tuple[str, str]:
    if member.has("static") and member.has("get"):
        if name in _LITERAL_STATICS and returned(member) is not None:
            return _LITERAL_STATICS[name], name
        return "unknown-member", f"accessor {name}"
    if member.has("get"):
        return "getter", name
    if member.has("set"):
        return ("unknown-member" if member.has("static") else "setter"), name
    if member.has("static"):
        if name == HOOK and derivation_of(member) is not None:
            return "derivation", name
        if name in REFUSED_STATICS:
            return "refused-member", name
        return "static-method", name
    if name == "shouldComponentUpdate" and given_by(member) in _ALWAYS:
        return "draws-always", name
    if name in REFUSED:
        return "refused-member", name
    if name == "constructor":
        return "constructor", name
    if name == "render":
        return "render", name
    if name in HOOKS:
        return HOOKS[name], name
    return "prototype-method", name


# Statics that a getter may give anew at each time: only the runtime reads them.
_LITERAL_STATICS = {
    "defaultProps": "default-inputs",
    "propTypes": "static-value",
    "contextTypes": "context-type",
    "displayName": "static-value",
}
# Hooks that may be functions kept in a field of their name.
_ASSIGNABLE = frozenset({"componentDidMount", "componentDidUpdate", "componentWillUnmount"})


def returned(member: Node) -> Node | None:
    """Return the result of a method that does nothing but return it."""
    body = member.child("body")
    statements = body.named_children if body is not None else []
    if len(statements) != 1 or statements[0].type != "return_statement":
        return None
    return statements[0].named_children[0] if statements[0].named_children else None


def value_of(member: Node) -> Node | None:
    """The value of a static member: that of a field, or what a getter returns."""
    return member.child("value") if member.type != "method_definition" else returned(member)


def function_of(member: Node) -> Node:
    """The function of a member: a method, or one that is the value of a field."""
    value = member.child("value")
    return value if value is not None and value.is_function else member


def given_by(member: Node) -> str:
    """Return the result of a method that does nothing else; its first parameter is called `next`
    then."""
    value, parameters = returned(member), member.child("parameters")
    if value is None:
        return ""
    given = parameters.named_children[:1] if parameters is not None else []
    first = [part.child("pattern") or part for part in given]
    names = {first[0].text: "next"} if first and first[0].type == "identifier" else {}
    words = value.text.split()
    return " ".join(names.get(word, word) for word in words)


def _has_block(function: Node) -> bool:
    body = function.child("body")
    return function.is_function and body is not None and body.type == "statement_block"


def _field_notion(member: Node, name: str) -> tuple[str, str]:
    value = member.child("value")
    if member.has("static"):
        if name in REFUSED_STATICS:
            return "refused-member", name
        if name == "defaultProps":
            return "default-inputs", name
        if name in ("contextType", "contextTypes"):
            return "context-type", name
        return "static-value", name
    if name in _ASSIGNABLE and value is not None and value.is_function:
        return HOOKS[name], name
    if name == "render" and value is not None and _has_block(value):
        return "render", name
    if name in REFUSED or name in HOOKS or name == "render":
        return "refused-member", name
    if name == "state":
        return "state-field", name
    if value is None:
        return ("declared-field" if member.has("declare") else "instance-field"), name
    if value.type in ("arrow_function", "function_expression"):
        return "arrow-method", name
    return "instance-field", name
