"""The option `setup` where it only makes values that a parent binds both ways."""

from __future__ import annotations

from clean_carry.component.members import KeptOption, Model
from clean_carry.source.javascript.tree import Node
from clean_carry.source.javascript.values import property_name
from clean_carry.syntaxes.single_file.options.functions import attached, parts_of
from clean_carry.syntaxes.single_file.options.read_options import Gathered, claim_option, reads


def models_of(setup: Node) -> dict[str, tuple[str, Node]] | None:
    """(input, statement) of each value bound both ways, by its name; None where `setup` does anything
    else."""
    body, parameters = setup.child("body"), setup.child("parameters")
    statements = body.named_children if body is not None else []
    given = [p.text for p in parameters.named_children] if parameters is not None else []
    if len(statements) < 2 or len(given) != 1 or statements[-1].type != "return_statement":
        return None
    found = {}
    for statement in statements[:-1]:
        made = statement.named_children[0] if len(statement.named_children) == 1 else statement
        name, call = made.child("name"), made.child("value")
        arguments = call.child("arguments") if call is not None else None
        asked = arguments.named_children if arguments is not None else []
        callee = call.child("function") if call is not None else None
        if name is None or name.type != "identifier" or callee is None or callee.text != "useModel":
            return None
        key = property_name(asked[1]) if len(asked) == 2 and asked[1].type == "string" else None
        if key is None or asked[0].text != given[0]:
            return None
        found[name.text] = (key, statement)
    returned = statements[-1].named_children[:1]
    offered = parts_of(returned[0]) if returned and returned[0].type == "object" else []
    plain = [name for name, part, _ in offered if part.type == "shorthand_property_identifier"]
    return found if plain == list(found) and len(offered) == len(found) else None


@reads("setup")
def _setup(gathered: Gathered, part: Node, value: Node) -> None:
    uses = gathered.uses
    models = models_of(value) if gathered.members.neutral else None
    if models is None:
        uses.refuse("unknown-option", part.text.split("\n")[0][:60], part.start)
        return
    kinds = {prop.name: prop.kind for prop in gathered.props}
    entry = claim_option(gathered, part)
    gathered.parts.append(
        KeptOption("setup", uses.span(part), entry, attached(uses, part), idle=True)
    )
    for name, (prop, statement) in models.items():
        own = uses.ledger.claim("state-part", uses.span(statement))
        notes = attached(uses, statement)
        gathered.parts.append(Model(name, prop, None, kinds.get(prop, ""), own, notes))
