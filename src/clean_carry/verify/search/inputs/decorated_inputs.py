"""The inputs of a decorated class that no single file stands for: those it declares."""

from __future__ import annotations

from contextlib import suppress

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.syntaxes.decorated_class.members import HOOKS, LEFT_HOOKS, read_members
from clean_carry.syntaxes.decorated_class.recognise import Decorated
from clean_carry.syntaxes.single_file.stands_for import NotAFile
from clean_carry.verify.search.inputs.inputs import Inputs, merged, note_default
from clean_carry.verify.search.inputs.methods import given_to
from clean_carry.verify.search.values.functions import functions_of
from clean_carry.verify.search.values.shape import Shape
from clean_carry.verify.search.values.shapes import Shapes
from clean_carry.verify.search.values.types import declared_type

_CALLED = {*HOOKS, *LEFT_HOOKS, "constructor", "ngOnChanges", "ngAfterContentInit"}
_HIDDEN = frozenset({"private", "protected"})


def decorated_inputs(tree: Tree, one: Decorated) -> Inputs:
    """Read the inputs, outputs and public methods of a class."""
    shapes, found = Shapes([tree]), Inputs()
    with suppress(NotAFile):
        members = read_members(one, keeps=True)
        for member in members.inputs:
            # A signal is called to be read, which says nothing of its value.
            read = member.name in shapes and not member.called
            shape = shapes.of(member.name) if read else Shape()
            if member.type is not None:
                shape = merged(declared_type(member.type, tree), shape)
            shape.required = member.required
            if member.default is not None:
                note_default(shape, member.default)
            found.shapes[member.public] = shape
        found.events = [output.public for output in members.outputs]
    functions = functions_of([tree])
    found.methods = {
        name: given_to(functions[name], shapes) for name in _public(one) if name in functions
    }
    found.exports = [one.name]
    return found


def _public(one: Decorated) -> list[str]:
    """The methods that whoever holds the instance may call."""
    body = one.node.child("body")
    found = []
    for member in body.named_children if body is not None else ():
        name = member.child("name")
        words = {child.text for child in member.children if child.type == "accessibility_modifier"}
        if name is None or not _is_method(member) or words & _HIDDEN or member.has("set"):
            continue
        if name.text not in _CALLED and not name.text.startswith(("#", "_")):
            found.append(name.text)
    return found


def _is_method(member: Node) -> bool:
    return member.is_function and not member.has("get")
