"""Components passed to others that ask what they are given for the tag it is written as.

The flat form renders what it imports, and version 2.7 gives only what is registered a tag
(`componentOptions.tag`).
"""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

from clean_carry.component.markup import Element, Markup, children_of
from clean_carry.component.model import Component, Refusal
from clean_carry.component.spans import Span
from clean_carry.source.importers import asks_for_tag, asks_for_tags
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.workspace import Workspace


def tag_asked(component: Component, tree: Tree, workspace: Workspace) -> Refusal | None:
    """Return the first child of a component whose code reads tags, if it is imported or shares a
    name with such a file."""
    asking = asks_for_tags(workspace.file)
    if not asking:
        return None
    for span, around in _handed(component.view.markup, ""):
        if around in _BUILT_IN:
            continue
        text = _text_of(around, tree, workspace)
        asks = asks_for_tag(text) if text is not None else _is_called(around, asking)
        if asks:
            return Refusal(component.name, "tag-asked", f"<{around}>", span.start)
    return None


# Attributes that the runtime and a router give every template; they need no tag.
_BUILT_IN = frozenset(
    "transition transition-group keep-alive component slot template router-link router-view Transition "
    "TransitionGroup KeepAlive RouterLink RouterView".split()
)


def _is_called(tag: str, files: tuple[Path, ...]) -> bool:
    """Whether a tag ends with the name of a file, or of the folder of one called `index` or `main`."""
    for file in files:
        stem = file.stem if file.stem not in ("index", "main") else file.parent.name
        if stem == "src":
            stem = file.parent.parent.name
        if _plain(tag).endswith(_plain(stem)):
            return True
    return False


def _handed(nodes: tuple[Markup, ...], around: str) -> Iterator[tuple[Span, str]]:
    """(place, the component around it) of each component in the content of another one."""
    for node in nodes:
        drawn = isinstance(node, Element) and ("-" in node.tag or not node.tag.islower())
        if isinstance(node, Element) and drawn and around:
            yield node.span, around
        inner = node.tag if isinstance(node, Element) and drawn else around
        yield from _handed(children_of(node), inner)


def _text_of(tag: str, tree: Tree, workspace: Workspace) -> str | None:
    """The file a component is imported from; None where it is not imported by its tag's name."""
    for statement in tree.of("import_statement"):
        source = statement.child("source")
        names = [n.text for n in statement.walk() if n.type == "identifier"]
        if source is None or _plain(tag) not in map(_plain, names):
            continue
        path = workspace.resolve(source.text[1:-1], workspace.file)
        return workspace.text(path) if path is not None else None
    return None


def _plain(name: str) -> str:
    return name.replace("-", "").lower()
