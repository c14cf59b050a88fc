"""Where the template of a decorated class stands: in its decorator, or in a file of its own."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.component.spans import Place
from clean_carry.source.template.tree import read_markup
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.decorated_class.recognise import Decorated, property_of, text_of
from clean_carry.syntaxes.piped_expressions import Unread, tokens
from clean_carry.syntaxes.single_file.stands_for import NotAFile


@dataclass
class TemplateText:
    """The stretch of a file that is a template; `inside` says that the file is that of the class."""

    source: SourceText
    start: int
    end: int
    inside: bool

    def place(self, at: int) -> Place:
        """The place of an offset."""
        return self.source.place(at)


def template_of(one: Decorated, source: SourceText, file: Path) -> TemplateText:
    """The template of a class in a file. Raises `NotAFile` where there is none that can be read."""
    inline, beside = property_of(one.options, "template"), property_of(one.options, "templateUrl")
    if inline is not None:
        if text_of(inline) is None or "\\" in inline.text:
            raise NotAFile("template-not-text", inline.text.partition("\n")[0][:40], inline.start)
        return TemplateText(source, inline.start + 1, inline.end - 1, inside=True)
    request = text_of(beside) if beside is not None else None
    if beside is None or request is None:
        raise NotAFile("template-not-text", one.name, one.options.start)
    try:
        found = SourceText.read(file.parent / request)
    except InputError as error:
        raise NotAFile("template-not-text", str(error), beside.start) from None
    return TemplateText(found, 0, len(found.data), inside=False)


def _values(markup: TemplateText) -> Iterator[tuple[str, str]]:
    """The names of all attributes of a template, with their values."""
    for node in read_markup(markup.source, markup.start, markup.end):
        for inner in node.walk():
            for one in inner.attributes:
                value = markup.source.slice(*one.value) if one.value is not None else ""
                yield one.name, value


def written_names(markup: TemplateText) -> Iterator[str]:
    """The members that a template writes. Raises `InputError`."""
    for name, value in _values(markup):
        if name.startswith("[("):
            yield value.strip().removesuffix("()")
        elif name.startswith("("):
            try:
                found = tokens(value)
            except Unread:
                continue
            for before, here, after in zip([None, *found], found, found[1:], strict=False):
                if here.kind == "name" and after.text in ("=", "+=", "-=", "??=", "||=", "&&="):
                    if before is None or before.text not in (".", "?."):
                        yield here.text


def element_names(markup: TemplateText) -> frozenset[str]:
    """The names of the references in a template. Raises `InputError`."""
    return frozenset(name[1:] for name, _ in _values(markup) if name.startswith("#"))


def read_references(markup: TemplateText) -> Iterator[str]:
    """The references that listeners of a template read. Raises `InputError`."""
    names = {name[1:] for name, _ in _values(markup) if name.startswith("#")}
    for name, value in _values(markup):
        if name.startswith("("):
            yield from (one for one in names if re.search(rf"(?<![\w$.]){one}(?![\w$])", value))
