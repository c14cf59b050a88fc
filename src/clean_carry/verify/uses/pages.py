"""The surroundings that a project's own pages give to a registered component.

A page may use the component inside an element with a directive of the project that reaches into it, and
may give its controller to an element of its own. Trials do so too: what works alone may not work there.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.source.template.tree import TemplateNode, read_markup
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.controller_component.syntax import SYNTAX
from clean_carry.syntaxes.scoped_template.directives import normalised

_CONTROLLERS = re.compile(r"""\.controller\(\s*['"]([^'"]+)['"]""")
_REGISTERED = re.compile(r"""\.(directive|component)\(\s*['"]([^'"]+)['"]""")
# So many are taken, of so many characters at most.
MOST = 3
LONGEST = 2000


@dataclass(frozen=True)
class OnPages:
    """`around` are start tags from the outside in, one list for each use; `beside` whole elements;
    `stands_on` the element the component is an attribute of, "" where none is found."""

    around: tuple[tuple[str, ...], ...] = ()
    beside: tuple[str, ...] = ()
    stands_on: str = ""

    @property
    def count(self) -> int:
        """How many ways there are to stand in a page."""
        return len(self.around) + len(self.beside)

    def for_page(self) -> dict[str, object]:
        """Return their description for the page."""
        return {
            "around": [list(tags) for tags in self.around],
            "beside": list(self.beside),
            "standsOn": self.stands_on,
        }


def on_pages(
    own: str, others: Iterable[str], pages: Iterable[tuple[Path, str]], new: str = ""
) -> OnPages:
    """Return the elements that pages put around and beside the components of a script (`own`);
    `others` are the texts of the application's other scripts.

    A page that uses as an attribute what `new`, the script's new text, registers as a component is changed
    with it: it is no page for both versions.
    """
    elements = {name for kind, name in _REGISTERED.findall(new) if kind == "component"}
    components = {name for _, name in _REGISTERED.findall(own)}
    controllers = set(_CONTROLLERS.findall(own))
    known = {name for text in others for _, name in _REGISTERED.findall(text)} | components
    around: dict[tuple[str, ...], None] = {}
    beside: dict[str, None] = {}
    stands_on = ""
    for path, text in pages:
        if _written_beside(path):
            continue
        source = SourceText(str(path), text.encode())
        try:
            nodes = read_markup(source, 0, len(source.data), loose=True)
        except InputError:
            continue
        for node, above in _walk(nodes, ()):
            named = _names(node)
            given = node.attribute("ng-controller")
            if given is not None and given.value is not None:
                controller = source.slice(*given.value).split(" as ")[0].strip()
                whole = source.slice(node.start, node.end)
                changes = any(_attributes(inner) & elements for inner in node.walk())
                if controller in controllers and len(whole) <= LONGEST and not changes:
                    beside.setdefault(whole)
            if not components & named:
                continue
            if normalised(node.tag) not in components:
                stands_on = stands_on or node.tag
            tags = tuple(source.slice(up.start, up.inner[0]) for up in above if _names(up) & known)
            if tags and not any(_attributes(up) & elements for up in above):
                around.setdefault(tags)
    return OnPages(tuple(around)[:MOST], tuple(beside)[:MOST], stands_on)


def _written_beside(path: Path) -> bool:
    """Whether a page is a new version of the one it stands beside: the old component has no place there."""
    stem, dot, suffix = path.stem.rpartition(".")
    return bool(dot) and suffix == SYNTAX.suffix and path.with_name(stem + path.suffix).exists()


def _names(node: TemplateNode) -> set[str]:
    return {normalised(node.tag), *_attributes(node)}


def _attributes(node: TemplateNode) -> set[str]:
    return {normalised(attribute.name) for attribute in node.attributes}


def _walk(
    nodes: list[TemplateNode], above: tuple[TemplateNode, ...]
) -> Iterator[tuple[TemplateNode, tuple[TemplateNode, ...]]]:
    """Every element with those around it, from the outside in."""
    for node in nodes:
        if node.kind == "element":
            yield node, above
            yield from _walk(node.children, (*above, node))


__all__ = ["OnPages", "on_pages"]
