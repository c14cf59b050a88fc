"""The types of inputs, by how single files declare them."""

from __future__ import annotations

import re

from clean_carry.component.model import Prop

# The runtime's constructors for types of inputs, and the types they stand for.
_KINDS = {
    "String": "string", "Number": "number", "Boolean": "boolean", "Array": "any[]",
    "Object": "Record<string, any>", "Function": "(...given: any[]) => any", "Date": "Date",
    "Symbol": "symbol", "BigInt": "bigint", "null": "any", "true": "any",
}  # fmt: skip
_GIVEN = re.compile(r"^\w+\s+as\s+(?:unknown\s+as\s+)?PropType<(.*)>$", re.DOTALL)
_CAST = re.compile(r"^\w+\s+as\s+\(\)\s*=>\s*(.*)$", re.DOTALL)


def type_of(prop: Prop) -> str:
    """The type of an input by its declaration; `any` where that does not tell."""
    kind = prop.kind.strip()
    given = _GIVEN.match(kind) or _CAST.match(kind)
    if given is not None:
        return given[1].strip().rstrip(",").strip()
    if kind.startswith("[") and kind.endswith("]"):
        names = [one.strip() for one in kind[1:-1].split(",") if one.strip()]
        found = [_KINDS.get(name, name if name.isidentifier() else "any") for name in names]
        return " | ".join(f"({one})" if "=>" in one else one for one in found) or "any"
    return _KINDS.get(kind, kind if kind[:1].isupper() and kind.isidentifier() else "any")
