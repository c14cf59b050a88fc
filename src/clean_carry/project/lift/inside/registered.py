"""Components that a file registers in its object of options."""

from __future__ import annotations

from clean_carry.component.errors import InputError
from clean_carry.project.lift.inside.component_file import ComponentFile
from clean_carry.source.javascript.tree import Node
from clean_carry.source.merged import Edit


def registration(file: ComponentFile, names: list[str]) -> Edit:
    """The edit that registers some components. Raises `InputError` where no object of options is found."""
    options = _options(file)
    if options is None:
        raise InputError(
            "holds no object of options that can be read",
            advice="Register the components by hand",
            file=str(file.path),
        )
    listed = ", ".join(names)
    for pair in options.named_children:
        key, value = pair.child("key"), pair.child("value")
        if key is not None and key.text == "components" and value is not None:
            inner = value.named_children
            if value.type == "object" and inner:
                last = inner[-1]
                gap = ", "
                if "\n" in value.text:
                    gap = f",\n{file.source.indent_at(last.start)}"
                return Edit(last.end, last.end, gap + gap.join(names))
            if value.type == "object":
                return Edit(value.start, value.end, f"{{ {listed} }}")
    at = options.start + 1
    unit = file.style.unit
    indent = file.source.indent_at(options.start)
    return Edit(at, at, f"\n{indent}{unit}components: {{ {listed} }},")


def _options(file: ComponentFile) -> Node | None:
    for statement in file.tree.of("export_statement"):
        value = statement.child("value")
        if value is None:
            continue
        if value.type == "call_expression":
            given = value.child("arguments")
            value = given.named_children[0] if given is not None and given.named_children else value
        if value.type == "object":
            return value
    return None
