"""Options that tie a component to others: its children, and the values it injects and provides."""

from __future__ import annotations

from clean_carry.component.members import Injected, KeptOption, Provided
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import is_identifier, property_name
from clean_carry.source.provided import asked_of_provided, is_injected
from clean_carry.syntaxes.single_file.members import add_use
from clean_carry.syntaxes.single_file.names import camel, pascal
from clean_carry.syntaxes.single_file.options.functions import (
    FUNCTIONS,
    attached,
    only_returns,
    parts_of,
    returned,
    untyped,
    with_comma,
)
from clean_carry.syntaxes.single_file.options.read_options import Gathered, claim_option, reads


@reads("components")
def _components(gathered: Gathered, part: Node, value: Node) -> None:
    """Drop components that are registered under their name in the script; keep the rest."""
    uses = gathered.uses
    gathered.members.kept_only("unknown-option", "components", part.start)
    entry = claim_option(gathered, part)
    notes = attached(uses, part)
    in_scope = value.type == "object" and not gathered.by_name
    for name, item, given in parts_of(value):
        if item.type == "shorthand_property_identifier":
            continue
        known = given.type == "identifier" and given.text in uses.names.module.names
        if not known or name is None or given.text not in (name, camel(name), pascal(name)):
            in_scope = False
    if in_scope:
        gathered.entries["components"] = entry
        gathered.comments["components"] = notes
    else:
        gathered.parts.append(KeptOption("components", uses.span(part), entry, notes))


@reads("inject")
def _inject(gathered: Gathered, part: Node, value: Node) -> None:
    uses = gathered.uses
    gathered.members.kept_only("unknown-option", "inject", part.start)
    gathered.entries["inject"] = claim_option(gathered, part)
    notes = attached(uses, part)
    if value.type == "array":
        for item in value.named_children:
            name = property_name(item) if item.type == "string" else None
            if name is None or not is_identifier(name):
                uses.refuse("unknown-option", item.text[:60], item.start)
                continue
            entry = uses.ledger.claim("injected", with_comma(uses, item))
            gathered.parts.append(Injected(name, item.text, None, False, entry, notes))
            notes = ()
        return
    for name, item, given in parts_of(value):
        entry = uses.ledger.claim("injected", with_comma(uses, item))
        key, fallback = f"'{name}'", None
        if given.type == "string":
            key = given.text
        elif given.type == "object":
            for option, inner, held in parts_of(given):
                if option == "from":
                    key = held.text
                elif option == "default" and inner.type == "pair":
                    fallback = held
                else:
                    uses.refuse("unknown-option", inner.text[:60], inner.start)
        elif given.type == "identifier":
            key = given.text
        else:
            uses.refuse("unknown-option", item.text[:60], item.start)
        if name is None or not is_identifier(name) or value.type != "object":
            uses.refuse("unknown-option", item.text[:60], item.start)
            continue
        made = fallback is not None and fallback.type in FUNCTIONS
        code = uses.code(uses.span(fallback)) if fallback is not None else None
        gathered.parts.append(
            Injected(name, key, code, made, entry, notes + attached(uses, item))
        )  # fmt: skip
        notes = ()


@reads("provide")
def _provide(gathered: Gathered, part: Node, value: Node) -> None:
    uses = gathered.uses
    gathered.members.kept_only("unknown-option", "provide", part.start)
    gathered.entries["provide"] = claim_option(gathered, part)
    notes = attached(uses, part)
    function = value.type in FUNCTIONS
    given = returned(value) if function else value
    if given is None or given.type != "object" or (function and not only_returns(value)):
        uses.refuse("unknown-option", "provide", part.start)
        return
    for _, item, held in parts_of(given):
        key = item.child("key")
        entry = uses.ledger.claim("provided", with_comma(uses, item))
        if item.type == "shorthand_property_identifier":
            code = uses.code(uses.span(item))
            gathered.parts.append(Provided(f"'{item.text}'", code, entry, notes))
        elif item.type == "pair" and key is not None:
            text = key.text if key.type == "string" else f"'{key.text}'"
            if key.type == "computed_property_name":
                text = key.text[1:-1]
            itself = untyped(held).type == "this"
            members = _asked(gathered, key, held) if itself else None
            everything = members == ()
            if everything:
                members = tuple(sorted(gathered.members.declared() - gathered.members.internal))
            code = uses.code(uses.span(held), kept=members is None)
            notes = notes + attached(uses, item)
            gathered.parts.append(Provided(text, code, entry, notes, members, everything))
        else:
            uses.refuse("unknown-option", item.text[:60], item.start)
        notes = ()


@reads("expose")
def _expose(gathered: Gathered, part: Node, value: Node) -> None:
    """Keep the members that a parent may read."""
    uses = gathered.uses
    gathered.members.kept_only("unknown-option", "expose", part.start)
    gathered.entries["expose"] = claim_option(gathered, part)
    names = [property_name(item) for item in value.named_children]
    if value.type != "array" or any(name is None for name in names):
        uses.refuse("unknown-option", part.text[:60], part.start)
    gathered.exposed.extend(name for name in names if name is not None)
    gathered.comments["expose"] = attached(uses, part)


def _asked(gathered: Gathered, key: Node, held: Node) -> tuple[str, ...] | None:
    """Return the members of the instance that descendants read; none if nobody is seen to, and None
    if the instance itself is provided and more may be read."""
    members, uses = gathered.members, gathered.uses
    name = property_name(key)
    asked = asked_of_provided(gathered.file, name) if name is not None else None
    own = members.props | members.state | members.derived | members.methods
    if asked and asked <= own:
        return tuple(sorted(asked))
    if gathered.runtime >= 3 and not is_injected(gathered.file, name or ""):
        # On version 3 a provided instance has none of the members of its script.
        return ()
    if asked is None:
        members.hand_on(held.start)
    else:
        members.hand_over(held.start, asked)
    add_use(uses, untyped(held), "$this", members, held)
    uses.sort()
    return None
