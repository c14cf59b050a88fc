"""The import of the runtime, edited once per file."""

from __future__ import annotations

from collections.abc import Callable

from clean_carry.source.javascript.joining import Fit
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.jsx.runtime_names import RUNTIME, RuntimeNames


def edited_import(
    runtime: RuntimeNames,
    names: Names,
    hooks: set[str],
    still_used: Callable[[Node], bool],
    semicolon: str,
    unit: str,
    fit: Fit,
) -> str:
    """The text of the runtime's import after the crossing.

    `still_used` tells whether a reference is among what was copied. The order of what stays is the
    author's; hooks come after it, in alphabetical order, one a line where they do not fit on one.
    """
    statement = runtime.statement
    assert statement is not None
    source = statement.child("source")
    assert source is not None
    default = ""
    namespace = ""
    kept: list[str] = []
    for part in statement.walk():
        if part.type == "namespace_import":
            namespace = part.text
        elif part.type == "identifier" and part.parent is not None:
            if part.parent.type == "import_clause" and _default_needed(part, names, still_used):
                default = part.text
        elif part.type == "import_specifier":
            local = (part.child("alias") or part.child("name")).text  # type: ignore[union-attr]
            binding = names.module.names.get(local)
            unseen = local in names.tree.unseen
            if unseen or binding is None or any(still_used(ref) for ref in binding.references):
                kept.append(part.text)
    wanted = [hook for hook in sorted(hooks) if hook not in runtime.named]
    braces = ", ".join([*kept, *wanted])
    parts = [part for part in (default, namespace, f"{{ {braces} }}" if braces else "") if part]
    if not parts:
        return ""
    text = f"import {', '.join(parts)} from {source.text}{semicolon}"
    if fit.columns(text) <= fit.width or not braces:
        return text
    lines = "".join(f"\n{unit}{name}," for name in (*kept, *wanted))
    return text.replace(f"{{ {braces} }}", f"{{{lines}\n}}")


def _default_needed(name: Node, names: Names, still_used: Callable[[Node], bool]) -> bool:
    """Whether the default import stays: it is used, was unused before, or markup may need it."""
    binding = names.module.names.get(name.text)
    if binding is None or not binding.references or name.text in names.tree.unseen:
        return True
    if names.tree.by_type.get("jsx_attribute"):
        return True
    if any(names.tree.of("jsx_element", "jsx_self_closing_element", "jsx_fragment")):
        return True
    return any(still_used(ref) for ref in binding.references)


def new_import(hooks: set[str], quote: str, semicolon: str) -> str:
    """An import of the runtime where the file had none."""
    return f"import {{ {', '.join(sorted(hooks))} }} from {quote}{RUNTIME}{quote}{semicolon}"
