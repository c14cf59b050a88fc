"""The script of the single file that a view becomes: its props, and computed values."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from clean_carry.source.expressions.model import Expr, Listing, Record
from clean_carry.source.expressions.types import Type
from clean_carry.syntaxes.server_view.reading.names import ERRORS, TEXTS, Input, Names

_TYPES = {
    "text": "String", "number": "Number", "flag": "Boolean", "list": "Array", "record": "Object",
}  # fmt: skip


def script_of(names: Names, children: Mapping[str, str], *, passes_on: bool) -> str:
    """The script. Values are computed in the order in which the view sets them; `children` are requests by
    the names of what they import."""
    unit = "  "
    parts: list[str] = []
    imports = "".join(f"import {name} from '{request}';\n" for name, request in children.items())
    imports += "\n" if imports else ""
    if children:
        parts.append(f"{unit}components: {{ {', '.join(children)} }},\n")
    if not passes_on:
        parts.append(f"{unit}inheritAttrs: false,\n")
    inputs = [*names.inputs.values()]
    if names.reads_errors:
        inputs.append(Input(ERRORS, Type("record"), Record(Type("record"), ())))
    if names.reads_texts:
        inputs.append(Input(TEXTS, Type("record"), Record(Type("record"), ())))
    if inputs:
        lines = "".join(f"{unit * 2}{one.name}: {_prop(one, names)},\n" for one in inputs)
        parts.append(f"{unit}props: {{\n{lines}{unit}}},\n")
    if names.values:
        speller = names.in_script()
        made = (
            f"{unit * 2}{name}() {{\n{unit * 3}return {speller.value(value)};\n{unit * 2}}},\n"
            for name, value in names.values.items()
        )
        parts.append(f"{unit}computed: {{\n{''.join(made)}{unit}}},\n")
    return f"<script>\n{imports}export default {{\n{''.join(parts)}}};\n</script>\n"


def _prop(one: Input, names: Names) -> str:
    """The declaration of a prop."""
    type_ = names.uses.type_of((one.name,), one.type)
    kinds = ", ".join(_kinds(one, type_, names))
    fields = [f"type: [{kinds}]" if "," in kinds else f"type: {kinds}"] if kinds else []
    if one.default is None and (one.name,) not in names.uses.missing:
        fields.append("required: true")
    elif one.default is not None:
        fields.append(f"default: {_default(one.default, names, kinds)}")
    else:
        fields.append("default: null")
    return "{ " + ", ".join(fields) + " }"


def _kinds(one: Input, type_: Type, names: Names) -> Iterator[str]:
    """The types of a prop. A value that is shown only may be a number too."""
    if type_.kind not in _TYPES:
        return
    yield _TYPES[type_.kind]
    uses = names.uses.kinds.get((one.name,), set())
    if one.type.kind == "any" and type_.kind == "text" and not uses & {"text", "flag"}:
        yield "Number"


def _default(value: Expr, names: Names, kinds: str) -> str:
    code = names.in_script().value(value)
    if isinstance(value, Listing) and not value.items and kinds == "Object":
        return "() => ({})"
    if isinstance(value, Record | Listing):
        return f"() => ({code})" if isinstance(value, Record) else f"() => {code}"
    return code


def assumed(names: Names) -> list[str]:
    """Inputs whose types only their uses tell, with these types."""
    found = []
    for one in names.inputs.values():
        type_ = names.uses.type_of((one.name,), one.type)
        if type_ != one.type and type_.present != one.type:
            shown = "/".join(_kinds(one, type_, names)) or "any"
            found.append(f"{one.name}: {shown}")
    return found
