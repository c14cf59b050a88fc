"""Where the template of a directive is: in its definition, a file, a cache of templates, a page."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.source.importers import files_of, is_aside, pages_of, project_of
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.scoped_template.definition import Definition
from clean_carry.syntaxes.scoped_template.registrations import (
    Registrations,
    plain,
    text_of,
    unescaped,
    value_of,
)


@dataclass(frozen=True)
class Template:
    """One template. `source` is its text as a parser of markup hears it.

    `url` is the name it is requested by, "" where it stands in the definition. `file` is the file that
    holds it: all of it where `places` is empty, else the places of its bytes in that file, byte by byte,
    which is a script whose literals make it up; None for the script of the definition itself. `named`
    are the literals of the definition's script that hold the end of its name, `named_by` is the first of
    those that make it up.
    """

    source: SourceText
    url: str = ""
    file: Path | None = None
    places: tuple[int, ...] = ()
    named: tuple[Node, ...] = ()
    named_by: Node | None = None

    @property
    def quote(self) -> str:
        """The quote of the script's literals it stands in, "" for a file of its own."""
        if not self.places or self.named_by is None:
            return ""
        return self.named_by.text[:1]

    def place(self, offset: int) -> int:
        """Where a byte of the text stands in the file that holds it."""
        return self.places[offset] if self.places else offset


def literal_parts(node: Node | None, names: Names) -> list[Node] | None:
    """The literals whose values, one after the other, a text is made of; None where others are in it."""
    node = plain(node)
    if node is None:
        return None
    if text_of(node) is not None:
        return [node]
    if node.type == "binary_expression" and node.has("+"):
        parts = [literal_parts(node.child(side), names) for side in ("left", "right")]
        if None in parts:
            return None
        return [literal for part in parts for literal in part or []]
    if node.type == "identifier":
        return literal_parts(value_of(names.meaning(node)), names)
    if node.type == "call_expression":
        function, given = node.child("function"), node.child("arguments")
        listed = function.child("object") if function is not None else None
        asked = function.child("property") if function is not None else None
        if listed is None or listed.type != "array" or asked is None or asked.text != "join":
            return None
        glue = given.named_children if given is not None else []
        if len(glue) == 1 and text_of(glue[0]) == "":
            found = [literal_parts(part, names) for part in listed.named_children]
            return None if None in found else [node for part in found for node in part or []]
    return None


def from_literals(literals: list[Node], path: str) -> tuple[SourceText, tuple[int, ...]]:
    """The text literals make up, with the place of each of its bytes."""
    data = bytearray()
    places: list[int] = []
    for node in literals:
        raw = node.text[1:-1]
        at = node.start + 1
        here = 0
        while here < len(raw):
            size = 1
            if raw[here] == "\\":
                size = {"x": 4, "u": 6}.get(raw[here + 1 : here + 2], 2)
            piece = raw[here : here + size]
            value = unescaped(piece).encode()
            data += value
            places += [at] * len(value)
            at += len(piece.encode())
            here += size
    places.append(literals[-1].end - 1 if literals else 0)
    return SourceText(path, bytes(data)), tuple(places)


class Templates:
    """Finds the templates of the definitions of one file."""

    def __init__(self, tree: Tree, names: Names, file: Path) -> None:
        self.tree, self.names, self.file = tree, names, file.resolve()

    def of(self, definition: Definition) -> tuple[list[Template], str]:
        """The templates of a definition, and what of it could not be followed ("": all could).

        Several where a function chooses among them.
        """
        inline = definition.value("template")
        if inline is not None:
            values = list(_given(inline))
            found = []
            for value in values:
                parts = literal_parts(value, self.names)
                if parts is None:
                    return [], "its template is made by code"
                text, places = from_literals(parts, self.tree.source.path)
                found.append(Template(text, "", None, places, (), parts[0] if parts else None))
            return found, ""
        by_url = definition.value("templateUrl")
        if by_url is None:
            return [], ""
        urls = {url: node for url, node in self.urls(by_url).items() if "." in url or "/" in url}
        found = [
            replace(template, named=(node,))
            for url, node in urls.items()
            for template in self.all_at(url)
        ]
        if not found:
            shown = next(iter(urls), by_url.text.split("\n")[0][:40])
            return [], f"its template “{shown}” is not in the project"
        return found, ""

    def urls(self, value: Node) -> dict[str, Node]:
        """Return the names of a template's URL, each with the literal that ends it."""
        found: dict[str, Node] = {}
        for given in _given(value):
            parts = literal_parts(given, self.names)
            if parts:
                found["".join(text_of(part) or "" for part in parts)] = parts[-1]
                continue
            for node in given.walk():
                inner = [node] if text_of(node) is not None else None
                if node.type in ("identifier", "member_expression"):
                    inner = literal_parts(node, self.names) or self.configured(node)
                if inner:
                    found["".join(text_of(part) or "" for part in inner)] = inner[-1]
        return found

    def configured(self, node: Node) -> list[Node] | None:
        """The literal of a field of a registered constant: `config.templateUrl`."""
        path: list[str] = []
        while node.type == "member_expression":
            asked, inner = node.child("property"), node.child("object")
            if asked is None or inner is None:
                return None
            path.insert(0, asked.text)
            node = inner
        if node.type != "identifier" or not path:
            return None
        registrations = Registrations(self.tree, self.names)
        for given in registrations.found:
            for injection in given.injections:
                if injection.parameter is not None and self.names.meaning(
                    node
                ) is self.names.scope_at(injection.parameter).find(node.text):
                    for kind in ("constant", "value"):
                        for constant in registrations.of(kind, injection.name):
                            return _field(constant.value, path)
                    root = project_of(self.file)
                    if root is not None:
                        return _constant(root, injection.name, tuple(path))
        return None

    def all_at(self, url: str) -> list[Template]:
        """The templates known under a name; of one that begins with a slash, all that end so."""
        if not url.startswith("/"):
            one = self.at(url)
            return [one] if one is not None else []
        root = project_of(self.file)
        return [
            Template(SourceText.read(place), url, place)
            for place, _ in (pages_of(root) if root is not None else ())
            if place.as_posix().endswith(url)
        ]

    def at(self, url: str) -> Template | None:
        """The template known under a name."""
        parts = [part for part in url.split("/") if part]
        root = project_of(self.file)
        for folder in (self.file.parent, *self.file.parents):
            # A bare name is enough beside the script alone.
            most = len(parts) if folder == self.file.parent else max(len(parts) - 1, 1)
            for skipped in range(most):
                place = folder.joinpath(*parts[skipped:])
                if place.is_file():
                    return Template(SourceText.read(place), url, place)
            if folder == root:
                break
        own = _cached(self.tree, url, self.names)
        if own is not None:
            return replace(
                Template(*_split(own, url, self.tree.source.path, None)), named_by=own[0]
            )
        if root is None:
            return None
        return _elsewhere(root, url) or self._named(root, url)

    def _named(self, root: Path, url: str) -> Template | None:
        """The only file of a name in the nearest folder around the script that holds one.

        Builds put templates into a cache under the ends of their paths.
        """
        ending = f"/{url}"
        found = [
            place
            for place, _ in pages_of(root)
            if place.as_posix().endswith(ending) and not is_aside(place, root)
        ]
        for folder in self.file.parents:
            near = [place for place in found if place.is_relative_to(folder)]
            if near or folder == root:
                only = near[0] if len(near) == 1 else None
                return Template(SourceText.read(only), url, only) if only is not None else None
        return None


def _split(
    literals: list[Node], url: str, path: str, file: Path | None
) -> tuple[SourceText, str, Path | None, tuple[int, ...]]:
    text, places = from_literals(literals, path)
    return text, url, file, places


def _given(value: Node) -> Iterator[Node]:
    """The value of an option, or all that its function gives."""
    if not value.is_function:
        yield value
        return
    for node in value.walk():
        if node.type == "return_statement" and node.named_children:
            yield from _arms(node.named_children[0])
    body = value.child("body")
    if body is not None and body.type != "statement_block":
        yield from _arms(body)


def _arms(value: Node) -> Iterator[Node]:
    """Yield the possible results of a choice."""
    inner = plain(value)
    if inner is not None and inner.type == "ternary_expression":
        for arm in ("consequence", "alternative"):
            chosen = inner.child(arm)
            if chosen is not None:
                yield from _arms(chosen)
    elif inner is not None:
        yield inner


def _field(node: Node | None, path: list[str]) -> list[Node] | None:
    """The literal at a path of fields of an object."""
    for name in path:
        pairs = node.named_children if node is not None and node.type == "object" else []
        node = next(
            (
                p.child("value")
                for p in pairs
                if (key := p.child("key")) is not None and (text_of(key) or key.text) == name
            ),
            None,
        )
    return [node] if node is not None and text_of(node) is not None else None


def _cached(tree: Tree, url: str, names: Names) -> list[Node] | None:
    """The literals of what a script puts into a cache of templates under a name."""
    for node in tree.of("string"):
        given = node.parent
        if given is None or given.type != "arguments" or text_of(node) != url:
            continue
        call = given.parent
        function = call.child("function") if call is not None else None
        asked = function.child("property") if function is not None else None
        parts = given.named_children
        if asked is not None and asked.text == "put" and len(parts) == 2 and parts[0] is node:
            return literal_parts(parts[1], names)
    return None


@lru_cache(maxsize=512)
def _constant(root: Path, name: str, path: tuple[str, ...]) -> list[Node] | None:
    """The literal of a field of a constant that another script registers."""
    call = re.compile(rf"""\.(?:constant|value)\(\s*['"]{re.escape(name)}['"]""")
    for file, text in files_of(root, ".js"):
        if call.search(text):
            try:
                tree = Tree(SourceText(str(file), text.encode()))
            except InputError:
                continue
            registrations = Registrations(tree, Names(tree))
            for kind in ("constant", "value"):
                for constant in registrations.of(kind, name):
                    return _field(constant.value, list(path))
    return None


@lru_cache(maxsize=512)
def _elsewhere(root: Path, url: str) -> Template | None:
    """A template that another script caches, or a page holds in a script block."""
    for name, text in files_of(root, ".js"):
        if url in text and "emplateCache" in text:
            try:
                tree = Tree(SourceText(str(name), text.encode()))
            except InputError:
                continue
            found = _cached(tree, url, Names(tree))
            if found is not None:
                return Template(*_split(found, url, str(name), name))
    block = re.compile(
        rb"<script\b[^>]*\bid\s*=\s*[\"']"
        + re.escape(url.encode())
        + rb"[\"'][^>]*>(.*?)</script>",
        re.DOTALL,
    )
    for name, text in pages_of(root):
        found_block = block.search(text.encode()) if url in text else None
        if found_block is not None and b"text/ng-template" in found_block.group(0):
            start, end = found_block.span(1)
            places = tuple(range(start, end + 1))
            return Template(SourceText(str(name), found_block.group(1)), url, name, places)
    return None


__all__ = ["Template", "Templates", "literal_parts"]
