"""The props that a template passes on to single files it renders: their declarations apply to its
names."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from pathlib import Path

from clean_carry.project.settings import settings_for
from clean_carry.source.template.tree import TemplateNode
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.verify.search.inputs.inputs import Inputs
from clean_carry.verify.search.values.shape import Shape

# The number of files deep that passed props are followed.
MOST_DEPTH = 3
_IMPORT = re.compile(r"\bimport\s+(\w+)\s+from\s*['\"]([^'\"]+)['\"]")
# An attribute that passes on a name, or a part of one.
_BOUND = re.compile(r"^(?::|v-bind:|v-model:?)([\w-]*)")
_OWN = re.compile(r"\bname\s*:\s*['\"]([A-Za-z][\w-]*)['\"]")
_NAME = re.compile(r"\s*(?:[\w$]+\??\.)*([\w$]+)\s*$")

Read = Callable[[Path, int], Inputs]


def drawn_files(source: SourceText) -> dict[str, Path]:
    """{local name: file} of the single files that a script imports."""
    path = Path(source.path)
    workspace = Workspace(path, settings_for(path).aliases)
    found: dict[str, Path] = {}
    for name, request in _IMPORT.findall(source.slice(0, len(source.data))):
        target = workspace.resolve(request)
        if target is not None and target.suffix == ".vue":
            found.setdefault(name, target.resolve())
    return found


def handed_on(
    source: SourceText, template: TemplateNode, read: Read, depth: int
) -> list[tuple[str, Shape | str]]:
    """(own name, what a child says of the input it is given to; the input of the component itself).

    `read` gives what a file says of its inputs.
    """
    own = Path(source.path).resolve()
    files = drawn_files(source)
    itself = name_of(own, source.slice(0, len(source.data)))
    found: list[tuple[str, Shape | str]] = []
    for node in template.walk():
        tag = pascal(node.tag) if node.kind == "element" else ""
        path = files.get(node.tag) or files.get(tag)
        # The value of `is` names an element, or is a component.
        found += [
            (name, Shape({"tag"})) for name, meant in _bound(source, node) if meant == ("is",)
        ]
        if path == own or (path is None and tag == itself):
            found += [(name, meant[0]) for name, meant in _bound(source, node)]
        elif path is not None and depth < MOST_DEPTH:
            inputs = read(path, depth + 1)
            for name, meant in _bound(source, node):
                found += [(name, inputs.shapes[m]) for m in meant if m in inputs.shapes][:1]
    return found


def _bound(source: SourceText, node: TemplateNode) -> Iterator[tuple[str, tuple[str, ...]]]:
    """Yield (name that is passed on, the props it may be passed as)."""
    for attribute in node.attributes:
        bound = _BOUND.match(attribute.name)
        if bound is not None and attribute.value is not None:
            name = _NAME.match(source.slice(*attribute.value))
            if name is not None:
                yield name[1], _meant(bound[1])


def name_of(path: Path, text: str) -> str:
    """The name a component of a single file gives itself, else that of the file or its folder."""
    script = text.find("<script")
    found = _OWN.search(text, script) if script >= 0 else None
    if found is not None:
        return pascal(found[1])
    stem = path.name.split(".")[0]
    if stem not in ("index", "main"):
        return pascal(stem)
    folders = [part for part in path.parts[:-1] if part != "src"]
    return pascal(folders[-1]) if folders else "Main"


def _meant(attribute: str) -> tuple[str, ...]:
    """The inputs an attribute may mean; a model without a name means the usual ones."""
    return (camel(attribute),) if attribute else ("value", "modelValue")


def pascal(tag: str) -> str:
    """`tab-pane` as `TabPane`."""
    return "".join(part[:1].upper() + part[1:] for part in re.split(r"[-_]", tag))


def camel(name: str) -> str:
    """`max-height` as `maxHeight`."""
    return re.sub(r"-(\w)", lambda found: found[1].upper(), name)
