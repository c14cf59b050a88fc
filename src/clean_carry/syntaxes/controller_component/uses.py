"""Where the templates of a project use a directive that becomes a component.

An element the directive stood on becomes the component's own; one that a page only allows in certain places
(a row of a table, an option), or that is another directive's, is left with a finding.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.source.importers import files_of, pages_of, project_of
from clean_carry.source.template.tree import TemplateAttribute, TemplateNode, read_markup
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.controller_component.one_way import event_of
from clean_carry.syntaxes.scoped_template.directives import dashed, normalised
from clean_carry.syntaxes.scoped_template.model import Binding

# Expressions that can be assigned to: a name, or a field by names.
_SET = re.compile(r"[A-Za-z_$][\w$]*(?:\.[A-Za-z_$][\w$]*)*$")
_INLINE = frozenset({"span"})
# Elements that mean nothing by themselves (HTML §4.4, §4.5): one of another name can take their place.
_PLAIN = frozenset("div span section article aside header footer main nav p figure".split())


@dataclass(frozen=True)
class Use:
    """One use in a template: the element, the attribute (None for an element of its own), the file."""

    path: Path
    source: SourceText
    element: TemplateNode
    attribute: TemplateAttribute | None

    @property
    def can_change(self) -> bool:
        """Whether another element can take the place of this one."""
        return self.attribute is None or self.element.tag.lower() in _PLAIN

    @property
    def line(self) -> int:
        """The line it stands on."""
        return self.source.place(self.element.start).line

    def told(self, events: dict[str, Binding]) -> tuple[list[tuple[int, int, str]], int]:
        """Return attributes that take the new value of a two-way binding, and how many cannot be
        set."""
        found: list[tuple[int, int, str]] = []
        unbound = 0
        for name, binding in events.items():
            for attribute in self.element.attributes:
                if normalised(attribute.name) != binding.attribute or attribute.value is None:
                    continue
                value = self.source.slice(*attribute.value).strip()
                if _SET.match(value):
                    text = f' {dashed(event_of(name))}="{value} = $value"'
                    found.append((attribute.end, attribute.end, text))
                else:
                    unbound += 1
        return found, unbound

    def edits(self, name: str, bound: dict[str, str]) -> Iterator[tuple[int, int, str]]:
        """Return the edits of a use: (start, end, text). `bound` are further attributes with their
        values."""
        node, tag = self.element, dashed(name)
        at = node.start + 1
        after = at + len(node.tag.encode())
        known = {normalised(attribute.name) for attribute in node.attributes}
        more = "".join(f' {dashed(n)}="{value}"' for n, value in bound.items() if n not in known)
        if self.attribute is None:
            if more:
                yield after, after, more
            return
        if node.tag.lower() not in _INLINE:
            # An element of another name is inline: it keeps the box of the one it takes the place of.
            style = node.attribute("style")
            if style is not None and style.value is not None:
                yield style.value[0], style.value[0], "display: block; "
            else:
                more += ' style="display: block"'
        yield at, after, tag + more
        if self.attribute.value is None or self.attribute.value[0] == self.attribute.value[1]:
            start = self.attribute.start
            while self.source.data[start - 1 : start].isspace():
                start -= 1
            yield start, self.attribute.end, ""
        closing = self.source.data[node.inner[1] : node.end]
        if closing.startswith(b"</"):
            start = node.inner[1] + 2
            yield start, start + len(node.tag.encode()), tag


def uses_in_templates(file: Path, name: str) -> Iterator[Use]:
    """The uses of a directive in the project's templates and pages."""
    root = project_of(file)
    word = dashed(name)
    for path, text in pages_of(root) if root is not None else ():
        if word not in text or ".component." in path.name:
            continue
        source = SourceText(str(path), text.encode())
        try:
            nodes = read_markup(source, 0, len(source.data), loose=True)
        except InputError:
            continue
        for node in (inner for top in nodes for inner in top.walk()):
            if node.kind != "element":
                continue
            if normalised(node.tag) == name:
                yield Use(path, source, node, None)
                continue
            for attribute in node.attributes:
                if normalised(attribute.name) == name:
                    yield Use(path, source, node, attribute)


def uses_in_code(file: Path, name: str) -> Iterator[tuple[Path, int]]:
    """The places (file, line) where scripts of the project make such an element as text."""
    root = project_of(file)
    use = re.compile(
        rf"""["'`][^"'`\n]*<[\w-]+(?:\s[^<>]*)?\s(?:data-|x-)?{re.escape(dashed(name))}(?![\w-])"""
    )
    for path, text in files_of(root, ".js") if root is not None else ():
        if ".component." in path.name:
            continue
        for found in use.finditer(text):
            yield path, text.count("\n", 0, found.start()) + 1
