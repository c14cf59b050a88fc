"""Types of TypeScript as the constructors a declared input names (the rules of the runtime's compiler)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from pathlib import Path

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.type_exports import type_of
from clean_carry.source.workspace import Workspace

_PLAIN = {
    "string": "String",
    "number": "Number",
    "boolean": "Boolean",
    "object": "Object",
    "symbol": "Symbol",
}
_BUILT_IN = frozenset(
    "Array Function Date Map Set WeakMap WeakSet Promise Error RegExp Object".split()
)
_AS_OBJECT = frozenset("Record Partial Required Readonly Pick Omit".split())
_ANY = frozenset("any unknown never".split())


@dataclass(frozen=True)
class TypeReader:
    """Reads the types of one file; those of other files of the project are read there."""

    tree: Tree
    file: Path
    workspace: Workspace

    def members(self, node: Node, depth: int = 0) -> list[tuple[Node, TypeReader]] | None:
        """The members of a type that says what there is, each with who reads it; None where it does not."""
        match node.type:
            case "object_type" | "interface_body":
                return [(one, self) for one in node.named_children]
            case "type_identifier" if depth < 9:
                found = self._declaration(node)
                return found[1]._of_declaration(found[0], depth) if found is not None else None
            case "intersection_type":
                parts = [self.members(part, depth + 1) for part in node.named_children]
                return None if None in parts else [one for part in parts for one in part or ()]
        return None

    def _of_declaration(self, declared: Node, depth: int) -> list[tuple[Node, TypeReader]] | None:
        body = declared.child("body") or declared.child("value")
        own = self.members(body, depth + 1) if body is not None else None
        if own is None:
            return None
        for clause in (part for part in declared.children if part.type == "extends_type_clause"):
            for base in clause.named_children:
                inherited = self.members(base, depth + 1)
                if inherited is None:
                    return None
                named = {(m.child("name") or m).text for m, _ in own}
                own += [
                    one for one in inherited if (one[0].child("name") or one[0]).text not in named
                ]
        return own

    def _declaration(self, node: Node) -> tuple[Node, TypeReader] | None:
        found = type_of(node.text, self.tree, self.file, self.workspace)
        if found is None:
            return None
        declared, tree, file = found
        return declared, replace(self, tree=tree, file=file)

    # -- constructors -----------------------------------------------------------------------------

    def constructors(self, node: Node) -> list[str] | None:
        """The constructors a type stands for, each once; empty for anything, None where it is not known."""
        found = list(self._constructors(node, 0))
        if None in found:
            return None
        if "" in found:
            return []
        return list(dict.fromkeys(one for one in found if one is not None))

    def _constructors(self, node: Node, depth: int) -> Iterator[str | None]:
        match node.type:
            case "predefined_type":
                yield "" if node.text in _ANY else _PLAIN.get(node.text)
            case "literal_type":
                yield _literal(node)
            case "template_literal_type":
                yield "String"
            case "array_type" | "tuple_type" | "readonly_type":
                yield "Array"
            case "function_type":
                yield "Function"
            case "object_type":
                yield "Object"
            case "parenthesized_type":
                yield from self._constructors(node.named_children[0], depth)
            case "union_type":
                for part in node.named_children:
                    yield from self._constructors(part, depth)
            case "generic_type":
                name = (node.child("name") or node.named_children[0]).text
                yield name if name in _BUILT_IN else "Object" if name in _AS_OBJECT else None
            case "type_identifier":
                yield from self._named(node, depth)
            case _:
                yield None

    def _named(self, node: Node, depth: int) -> Iterator[str | None]:
        found = self._declaration(node)
        if found is None:
            # A class of the page, or of the language: HTMLElement, Date.
            yield node.text if _is_class(node.text) else None
            return
        declared, reader = found
        value = declared.child("value")
        if declared.type == "interface_declaration":
            yield "Object"
        elif declared.type != "type_alias_declaration" or depth > 9 or value is None:
            yield None
        else:
            yield from reader._constructors(value, depth + 1)

    def declared_type(self, node: Node, shown: str) -> str | None:
        """Return the runtime declaration of a prop for a type that the script calls `shown`:
        `String`, `Array as PropType<Row[]>`; None if unknown, "null" for anything."""
        found = self.constructors(node)
        if found is None:
            return None
        if not found:
            return "null"
        made = found[0] if len(found) == 1 else f"[{', '.join(found)}]"
        exact = {"String": "string", "Number": "number", "Boolean": "boolean"}.get(
            made
        ) == node.text
        return made if exact else f"{made} as PropType<{shown}>"


def _literal(node: Node) -> str | None:
    text = node.text
    if text in ("null", "undefined"):
        return "null"
    if text in ("true", "false"):
        return "Boolean"
    return "String" if text[:1] in "'\"`" else "Number"


def _is_class(name: str) -> bool:
    known = name.startswith(("HTML", "SVG")) or name in ("File", "Blob", "Event")
    return name in _BUILT_IN or known
