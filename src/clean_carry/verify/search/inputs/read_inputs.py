"""Read the inputs of a version, whatever it is written in."""

from __future__ import annotations

from contextlib import suppress
from pathlib import Path

from clean_carry.component.errors import HoldsNone, InputError
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.controller_component.reading.as_single_file import (
    as_single_file as of_controller,
)
from clean_carry.syntaxes.decorated_class.as_single_file import as_single_file
from clean_carry.syntaxes.decorated_class.recognise import decorated_in
from clean_carry.syntaxes.jsx_class.bases.read_in import with_bases
from clean_carry.syntaxes.scoped_template.registrations import registers
from clean_carry.syntaxes.single_file.stands_for import NotAFile
from clean_carry.syntaxes.single_file_flat.composables import with_composables
from clean_carry.verify.search.inputs.decorated_inputs import decorated_inputs
from clean_carry.verify.search.inputs.directive_inputs import directive_inputs
from clean_carry.verify.search.inputs.inputs import Inputs, merged
from clean_carry.verify.search.inputs.script_inputs import default_name, script_inputs
from clean_carry.verify.search.inputs.single_file_inputs import single_file_inputs
from clean_carry.verify.search.inputs.view_inputs import view_inputs

# Keys that are held while something else is pressed.
HELD = ("ctrl", "meta", "shift", "alt")


def read_inputs(text: str, path: str, component: str = "") -> Inputs:
    """Read a version's props. A version that cannot be parsed has none that are known."""
    if path.endswith(".php"):
        return view_inputs(SourceText(path, text.encode()))
    try:
        found = _read(SourceText(path, text.encode()), component)
    except InputError:
        return Inputs()
    found.held = tuple(key for key in HELD if f".{key}Key" in text)
    return found


def _of_class(source: SourceText) -> Inputs:
    """The inputs of a decorated class: those of the single file that says the same."""
    whole = as_single_file(source, Workspace(Path(source.path).resolve()))
    found = single_file_inputs(SourceText(f"{source.path}.vue", whole.data))
    found.exports = [one.name for one in decorated_in(Tree(source))]
    # Undeclared attributes stay on the element of the component.
    found.passes_on = False
    return found


def _add_known(found: Inputs, source: SourceText) -> None:
    """Add the kinds of inputs that the single file standing for a component declares."""
    whole = of_controller(source, Workspace(Path(source.path).resolve()))
    known = single_file_inputs(SourceText(f"{source.path}.vue", whole.data)).shapes
    for name, shape in known.items():
        if name in found.shapes and shape.declared and shape.kinds:
            found.shapes[name] = merged(shape, found.shapes[name])


def _read(source: SourceText, component: str) -> Inputs:
    if source.path.endswith((".html", ".htm")):
        found = Inputs()
        found.exports = ["default"]
        return found
    if source.path.endswith(".vue"):
        with suppress(HoldsNone):
            # Members that a composable reads from its argument are read from the props.
            source = with_composables(source, Workspace(Path(source.path).resolve()))
        return single_file_inputs(source)
    if source.path.endswith(".ts") and b"@Component" in source.data:
        with suppress(NotAFile):
            return _of_class(source)
        script = Tree(source)
        classes = decorated_in(script)
        named = [one for one in classes if one.name == component]
        if classes:
            return decorated_inputs(script, (named or classes)[0])
    if registers(source.data):
        found = directive_inputs(source, component)
        with suppress(NotAFile):
            _add_known(found, source)
        return found
    # Props that a base of the project reads are given to its subclasses.
    tree = Tree(with_bases(source, Workspace(Path(source.path).resolve())))
    if component in ("", "default"):
        component = default_name(tree) or Path(source.path).name.split(".")[0]
    return script_inputs(tree, component)
