"""Data and code as scripts write them."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from typing import Any

from clean_carry.crossing.lift.code import code_of, is_code

# Lines of data and of tags are broken from this length on.
WIDE = 100
# Elements whose line breaks show.
_AS_WRITTEN = re.compile(r"<(?:pre|textarea)\b")


def name_of(name: str) -> str:
    """The name of a field of an object."""
    return name if name.isidentifier() else f"'{name}'"


def literal(value: Any, indent: str = "") -> str:
    """A value as JavaScript writes it; objects and lists over lines where they are long."""
    if is_code(value):
        return code_of(value)
    match value:
        case bool():
            return "true" if value else "false"
        case int():
            return str(value)
        case str():
            plain = value.replace("\\", "\\\\").replace("'", "\\'").replace("\n", "\\n")
            return f"'{plain}'"
        case dict():
            pairs = [(name_of(key), one) for key, one in value.items()]
            short = "{ " + ", ".join(f"{key}: {literal(one)}" for key, one in pairs) + " }"
            if len(indent) + len(short) <= WIDE or not pairs:
                return short if pairs else "{}"
            inner = f"{indent}  "
            rows = "".join(f"{inner}{key}: {literal(one, inner)},\n" for key, one in pairs)
            return f"{{\n{rows}{indent}}}"
    short = "[" + ", ".join(literal(one) for one in value) + "]"
    if len(indent) + len(short) <= WIDE:
        return short
    inner = f"{indent}  "
    return "[\n" + "".join(f"{inner}{literal(one, inner)},\n" for one in value) + f"{indent}]"


def data_list(name: str, rows: Sequence[Mapping[str, Any]]) -> str:
    """The statement that declares the data of a row of copies."""
    lines = "".join(f"  {literal(dict(row), '  ')},\n" for row in rows)
    return f"const {name} = [\n{lines}];\n"


def indented(text: str, indent: str) -> str:
    """A text whose first line stands at `indent`, and the others as they stood to its last one."""
    lines = text.split("\n")
    if _AS_WRITTEN.search(text) or len(lines) == 1:
        return indent + text
    own = min((len(line) - len(line.lstrip()) for line in lines[1:] if line.strip()), default=0)
    moved = [f"{indent}{line[own:]}" if line.strip() else "" for line in lines[1:]]
    return "\n".join([indent + lines[0], *moved])
