"""The names that a class takes from its module and the globals, and those its render code declares."""

from __future__ import annotations

from clean_carry.component.model import Default
from clean_carry.source.javascript.scope import Binding
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.jsx_class.members.derived_state import HOOK
from clean_carry.syntaxes.jsx_class.members.members import Gathered
from clean_carry.syntaxes.jsx_class.uses.operations import ClassFacts

# The static members that are written into the function.
_INSIDE = frozenset({HOOK, "contextType"})


# Reads whose result changes without notice to the component (HTML, DOM, ECMA-262 §21.4, §21.3.2.27).
_WORLD = frozenset(
    ["Date", "document", "window", "performance", "localStorage", "sessionStorage", "location"]
)


def is_impure(facts: ClassFacts, drawing: Node) -> bool:
    """Whether render code reads a value that changes without a re-render."""
    for ref, binding in facts.names.references_in(drawing):
        if binding is not None:
            continue
        if ref.text in _WORLD:
            return True
        if ref.text == "Math" and ref.parent is not None and ref.parent.text == "Math.random":
            return True
    return False


def drawing_locals(facts: ClassFacts, drawing: Node) -> frozenset[tuple[str, int]]:
    """The names the render method declares at its top, each with its place."""
    scope = facts.names.inner_scope(drawing)
    own = scope.names.items() if scope is not None else ()
    return frozenset((name, binding.node.start) for name, binding in own)


def reserved(
    facts: ClassFacts, taken: frozenset[str], defaults: dict[str, Default]
) -> frozenset[str]:
    """Names that what is written into the function takes from the module or the world, with its defaults:
    no new name may hide them. Statics stand outside."""
    found = {default.text.split(".")[0] for default in defaults.values()} | taken
    spans = [default.code.span for default in defaults.values() if not default.text]
    for ref, binding in facts.names.references_in(facts.tree.root) if spans else ():
        span = next((span for span in spans if span.start <= ref.start < span.end), None)
        if span is not None and (
            binding is None or not span.start <= binding.node.start < span.end
        ):
            found.add(ref.text)
    return frozenset(found)


def taken_by(gathered: Gathered, members: list[Node]) -> frozenset[str]:
    """Names that members take from around the class, itself among them, and the context that is given to
    it after it. Statics stand outside of the function."""
    facts = gathered.facts
    found = {
        ref.text
        for member in members
        if not _stands_outside(member)
        for ref, binding in facts.names.references_in(member)
        if binding is None or _is_around(facts, binding)
    }
    if facts.itself is not None and asks_itself(facts):
        found.add(facts.itself.name)
    if gathered.context is not None and gathered.context.span is not None:
        found.add(gathered.context.text.split(".")[0])
    return frozenset(found)


def asks_itself(facts: ClassFacts) -> bool:
    """Whether the class reads members under its own name."""
    return any(raw.notion == "own-static" for raw in facts.raws)


def _is_around(facts: ClassFacts, binding: Binding) -> bool:
    """Whether a name is declared around the class; its own stands in it."""
    own = binding.node.parent is facts.node
    return own or not facts.node.start <= binding.node.start < facts.node.end


def _stands_outside(member: Node) -> bool:
    name = member.child("name")
    named = property_name(name) if name is not None else None
    return member.has("static") and named not in _INSIDE
