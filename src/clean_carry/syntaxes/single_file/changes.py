"""Values that are changed in place: where a statement that does so ends.

A runtime that follows insides sees `this.lines.push(line)`; another one must be notified that the field has
changed.
"""

from __future__ import annotations

from collections.abc import Iterator

from clean_carry.component.code import Changed, Operation
from clean_carry.source.javascript.mutations import changes_insides
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.uses import Build, Raw, Uses

_BLOCKS = ("statement_block", "program", "switch_case", "switch_default")


def note_change(uses: Uses, node: Node, name: str) -> None:
    """Note that the statement around a node changes what the field `name` holds."""
    here = node
    for above in node.up():
        if above.type in _BLOCKS:
            if here.type == "return_statement":
                uses.refuse("change-returned", name, node.start)
            _add(uses, here.end, name, "behind")
            return
        alone = above.is_function and here.field == "body"
        branch = here.field in ("consequence", "alternative", "body") or above.type == "else_clause"
        if alone or (branch and here.type.endswith("_statement")):
            _add(uses, here.start, name, "opens")
            _add(uses, here.end, name, "closes")
            return
        here = above


def _add(uses: Uses, at: int, name: str, form: str) -> None:
    span = uses.tree.source.span(at, at)
    if not any(raw.notion == f"change {form} {name}" and raw.span == span for raw in uses.raws):
        uses.raws.append(Raw(span, f"change {form} {name}", _built(span, name, form)))


def _built(span, name: str, form: str) -> Build:  # type: ignore[no-untyped-def]
    def build(entry: int) -> Operation:
        return Changed(span, entry, False, name, form)  # type: ignore[arg-type]

    return build


def changed_names(node: Node, names: Names) -> Iterator[tuple[str, Node]]:
    """The plain names below a node whose insides are changed there: (name, the place)."""
    for ref in node.walk():
        if ref.type != "identifier" or not changes_insides(ref):
            continue
        yield ref.text, ref
