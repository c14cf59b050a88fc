"""The known facts of one value, and the literals it is compared with."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from clean_carry.source.javascript.tree import Node


@dataclass
class Shape:
    """The known facts of one value. `kinds` is empty if nothing is known.

    `literals` are values it is compared with or declared to be one of; `tested` says that it is
    tested for truth; `default` is (value,) of a literal default; `hints` are numbers the code
    mentions, which it may be compared with in a roundabout way; `used` are constants the project
    gives it; `passed` says that it is declared by another component it is passed on to; `holds` are
    values it is asked whether it holds; `sometimes` says that it is asked whether it is a
    function; `keyed` is the name of what its keys are taken from; `listed` says that it is
    declared to be one of its literals; `alike` is the name whose values it may have, where the code
    asks whether it is equal to another one; `least` is how many items a list must have for all that is
    asked of it by number; `nullable` says that its declared type takes null.
    """

    kinds: set[str] = field(default_factory=set)
    literals: list[Any] = field(default_factory=list)
    fields: dict[str, Shape] = field(default_factory=dict)
    items: Shape | None = None
    result: Shape | None = None
    tested: bool = False
    declared: bool = False
    required: bool = False
    default: tuple[Any] | None = None
    hints: list[Any] = field(default_factory=list)
    used: list[Any] = field(default_factory=list)
    passed: bool = False
    holds: list[Any] = field(default_factory=list)
    sometimes: bool = False
    keyed: str = ""
    listed: bool = False
    alike: str = ""
    least: int = 0
    nullable: bool = False

    def note(self, value: Any) -> None:
        """A literal it is compared with."""
        if not any(type(v) is type(value) and v == value for v in self.literals):
            self.literals.append(value)


def literal_of(node: Node) -> tuple[bool, Any]:
    """(whether it is a literal, its value); `undefined` counts as null."""
    match node.type:
        case "string":
            return True, _string(node.text[1:-1])
        case "number":
            try:
                text = node.text.replace("_", "")
                return True, (float(text) if "." in text or "e" in text else int(text, 0))
            except ValueError:
                return False, None
        case "true" | "false":
            return True, node.type == "true"
        case "null" | "undefined":
            return True, None
        case "unary_expression":
            found, value = literal_of(node.named_children[0])
            if found and node.has("-") and isinstance(value, int | float):
                return True, -value
        case "identifier" if node.text == "undefined":
            return True, None
    return False, None


_ESCAPES = {"n": "\n", "t": "\t", "r": "\r", "0": "\0"}


def _string(text: str) -> str:
    head, *rest = text.split("\\")
    return head + "".join(_ESCAPES.get(part[:1], part[:1]) + part[1:] for part in rest)


def kind_of(value: Any) -> str:
    """The kind of a literal."""
    if isinstance(value, bool):
        return "boolean"
    if isinstance(value, int | float):
        return "number"
    return "string"
