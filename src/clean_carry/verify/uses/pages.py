"""What a project's own pages put around a registered component, and beside it.

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
from clean_carry.syntaxes.scoped_template.directives import normalised

_CONTROLLERS = re.compile(r"""\.controller\(\s*['"]([^'"]+)['"]""")
_DIRECTIVES = re.compile(r"""\.(?:directive|component)\(\s*['"]([^'"]+)['"]""")
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
        """What the page is told of them."""
        return {
            "around": [list(tags) for tags in self.around],
            "beside": list(self.beside),
            "standsOn": self.stands_on,
        }


def on_pages(own: str, others: Iterable[str], pages: Iterable[tuple[Path, str]]) -> OnPages:
    """What pages put around and beside the components a script registers (`own`); `others` are the
    texts of the application's other scripts, which register directives as well."""
    components = set(_DIRECTIVES.findall(own))
    controllers = set(_CONTROLLERS.findall(own))
    known = {name for text in others for name in _DIRECTIVES.findall(text)} | components
    around: dict[tuple[str, ...], None] = {}
    beside: dict[str, None] = {}
    stands_on = ""
    for path, text in pages:
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
                if controller in controllers and len(whole) <= LONGEST:
                    beside.setdefault(whole)
            if not components & named:
                continue
            if normalised(node.tag) not in components:
                stands_on = stands_on or node.tag
            tags = tuple(source.slice(up.start, up.inner[0]) for up in above if _names(up) & known)
            if tags:
                around.setdefault(tags)
    return OnPages(tuple(around)[:MOST], tuple(beside)[:MOST], stands_on)


def _names(node: TemplateNode) -> set[str]:
    return {normalised(node.tag), *(normalised(a.name) for a in node.attributes)}


def _walk(
    nodes: list[TemplateNode], above: tuple[TemplateNode, ...]
) -> Iterator[tuple[TemplateNode, tuple[TemplateNode, ...]]]:
    """Every element with those around it, from the outside in."""
    for node in nodes:
        if node.kind == "element":
            yield node, above
            yield from _walk(node.children, (*above, node))


__all__ = ["OnPages", "on_pages"]
