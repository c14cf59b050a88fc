"""Which members always hold a number or a string, or a truth value, and so are shown alike."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from clean_carry.component.markup import Form
from clean_carry.component.model import Prop
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.single_file.members import Members

NOTHING: Mapping[int, str] = MappingProxyType({})
_TYPES: dict[str, Form] = {"String": "text", "Number": "text", "Boolean": "boolean"}
_ARITHMETIC = frozenset("+ - * / % ** | & ^ << >> >>>".split())
_COMPARING = frozenset("== != === !== < > <= >= in instanceof".split())
_SAFE = frozenset({"number", "string", "template_string"})


def member_forms(props: list[Prop], members: Members) -> dict[str, Form]:
    """Return the form that each member always holds whenever it has a value, as far as known."""
    forms: dict[str, Form] = {p.name: _TYPES[p.kind] for p in props if p.kind in _TYPES}
    pending = members.state | members.derived
    while True:
        found: dict[str, Form] = {}
        for name in sorted(pending):
            form = form_of(members.initial.get(name), forms, named=members.named)
            if form and _always(name, form, members, forms):
                found[name] = form
        if not found:
            return forms
        forms.update(found)
        pending = pending - found.keys()


def _always(name: str, form: Form, members: Members, forms: Mapping[str, Form]) -> bool:
    known = {**forms, name: form}
    for operator, value in members.assigned.get(name, ()):
        made = "text"
        if operator in ("=", "&&=", "||=", "??="):
            made = form_of(value, known, named=members.named)
        if made != form:
            return False
    return True


def form_of(
    node: Node | None,
    forms: Mapping[str, Form],
    *,
    bare: bool = False,
    named: Mapping[int, str] = NOTHING,
) -> Form:
    """Whether an expression gives a number or a string, or a truth value, whatever happens.

    In a template (`bare`) members go by their name alone; `named` are the places of other names
    that hold a member's value. The rules are those of ECMA-262 §13.
    """
    if node is None:
        return ""
    match node.type:
        case "parenthesized_expression":
            return form_of(node.named_children[0], forms, bare=bare, named=named)
        case "binary_expression":
            operator = next((c.type for c in node.children if not c.named), "")
            if operator in ("||", "&&", "??"):
                return _common(node.named_children, forms, bare, named)
            if operator in _COMPARING:
                return "boolean"
            return "text" if operator in _ARITHMETIC else ""
        case "ternary_expression":
            return _common(node.named_children[1:], forms, bare, named)
        case "unary_expression":
            if node.has("!"):
                return "boolean"
            return "text" if any(c.type in ("-", "+", "~", "typeof") for c in node.children) else ""
        case "member_expression":
            part = node.child("property")
            if node.children[0].type == "this" and part is not None:
                return forms.get(part.text, "")
            return "text" if part is not None and part.text == "length" else ""
        case "identifier":
            known = node.text if bare else named.get(node.start, "")
            return forms.get(known, "")
        case "true" | "false":
            return "boolean"
    return "text" if node.type in _SAFE else ""


def _common(
    parts: list[Node], forms: Mapping[str, Form], bare: bool, named: Mapping[int, str]
) -> Form:
    found = {form_of(part, forms, bare=bare, named=named) for part in parts}
    return found.pop() if len(found) == 1 else ""
