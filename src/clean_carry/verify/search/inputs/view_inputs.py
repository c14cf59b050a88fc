"""The inputs of a view, with the types that its reader found."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

from clean_carry.source.expressions.types import Type
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.server_view.reading.as_single_file import whole_view
from clean_carry.syntaxes.single_file.stands_for import NotAFile
from clean_carry.verify.search.inputs.inputs import Inputs
from clean_carry.verify.search.inputs.single_file_inputs import single_file_inputs
from clean_carry.verify.search.values.shape import Shape

_KINDS = {
    "text": "string", "number": "number", "flag": "boolean", "list": "array", "record": "object",
}  # fmt: skip
# Names and numbers for what is known to have any.
_KEYS = ("holm", "skail")
_COUNTS = [3, 0, 1, 2, 5]


def view_inputs(source: SourceText) -> Inputs:
    """The inputs of a view; none if the view cannot be read."""
    try:
        view = whole_view(source, Workspace(Path(source.path).resolve()))
    except NotAFile:
        return Inputs(exports=["default"])
    found = single_file_inputs(SourceText(f"{source.path}.vue", view.merged.data))
    found.exports = ["default"]
    for name, type_ in view.types.items():
        if name in found.shapes:
            counts = name in view.counts
            found.shapes[name] = shape_of(type_, found.shapes[name], counts=counts)
    return found


def shape_of(type_: Type, known: Shape, *, counts: bool = False) -> Shape:
    """The shape of values of a type, with what else is known of them."""
    kind = _KINDS.get(type_.kind)
    if kind is None:
        return known
    literals = [one for one in known.literals if _fits(one, kind)]
    made = replace(
        known, kinds={kind}, declared=True, literals=literals, fields={}, items=None, keyed="",
        sometimes=False, result=None, nullable="null" in type_.missing or type_.missing == "either",
    )  # fmt: skip
    if counts:
        made.literals, made.listed = list(_COUNTS), True
    elif kind == "number" and not type_.whole and not literals:
        made.literals = [12.25, 0, 7]
    if type_.kind == "list":
        made.items = shape_of(type_.item, known.items or Shape()) if type_.item else known.items
    elif type_.fields is not None:
        made.fields = {
            name: replace(shape_of(own, known.fields.get(name, Shape())), required=not own.missing)
            for name, own in type_.fields
        }
    elif type_.kind == "record":
        item = shape_of(type_.item or Type("text"), known.items or Shape())
        made.fields = {name: replace(item, required=True) for name in _KEYS}
    return made


def _fits(value: object, kind: str) -> bool:
    """Whether a literal is of a kind."""
    match value:
        case bool():
            return kind == "boolean"
        case int() | float():
            return kind == "number"
        case str():
            return kind == "string"
    return False
