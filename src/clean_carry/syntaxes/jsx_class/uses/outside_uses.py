"""Uses of a class in other files: subclasses, refs, tests of its insides."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from clean_carry.source.importers import Importer, importers_of

_TEST = re.compile(r"(\.|^|[/_-])(test|tests|spec|__tests__)([./_-]|$)")
# Members of an instance that tests read and a function does not have.
_REACHES_IN = re.compile(r"\.instance\(\)|\.state\(|\.setState\(|\bfindRenderedComponentWithType\(")
_EXTENDS = re.compile(r"\bextends\s+(\w+)\b")
_REFERRED = re.compile(r"<(\w+)\b(?=[^<]{0,800}?\bref=)")
# Names that hold a reference to a component: `ref={this.lamp}`, `ref={(lamp) => (this.lamp = lamp)}`.
_HELD = re.compile(
    r"\bref=\{\s*(?:this\.)?(\w+)\s*\}"
    r"|\bref=\{\s*\(?\s*(\w+)\s*\)?\s*=>\s*[({]?\s*(?:this\.)?(\w+)\s*=\s*\2\b"
)
# Members that an instance has beside its own; a function has none of them.
_OF_INSTANCES = frozenset({"state", "setState", "props", "forceUpdate", "context", "refs"})
# A call of something else than the file's own members and what it is given.
_CALLS = re.compile(r"(?<!\bthis)(?<!\bsuper)(?<!\bprops)\.(\w+)\s*\(")
MOST_PLACES = 5


@dataclass(frozen=True)
class Outsiders:
    """The outside uses of a class. `extended` is a subclass in another file ("" for none).
    `reached` are members read through a ref, `written` those assigned, `inside` those a function
    cannot offer. `tests` are the places where a test reaches in."""

    extended: str = ""
    reached: frozenset[str] = frozenset()
    written: frozenset[str] = frozenset()
    inside: frozenset[str] = frozenset()
    tests: tuple[tuple[str, int], ...] = ()


def outsiders_of(
    file: Path, name: str, methods: set[str], fields: set[str], own_text: str
) -> Outsiders:
    """Search the files that import this one, and its own text, for users of the class."""
    extended = ""
    reached, written, inside = set[str](), set[str](), set[str]()
    tests: list[tuple[str, int]] = []
    for importer in importers_of(file):
        called = {name, *importer.default_names(file)}
        insides = _insides(importer.text)
        at = next((at for base, at in insides.extends if base in called), None)
        if at is not None and not extended:
            extended = f"{importer.path.name}, line {importer.line_of(at)}"
        if called & insides.referred:
            reached |= (methods & insides.calls) | (fields & insides.asked)
            written |= fields & insides.written
            inside |= _OF_INSTANCES & insides.asked
        own = importer.path.name.split(".")[0].removesuffix("-test").lower()
        if _TEST.search(importer.inside.lower()) and own in (name.lower(), _stem(file)):
            tests += _places(importer)
    here = _insides(own_text)
    if name in here.referred:
        reached |= (methods & here.calls) | (fields & here.asked)
        written |= fields & here.written
        inside |= _OF_INSTANCES & here.asked
    return Outsiders(
        extended,
        frozenset(reached),
        frozenset(written),
        frozenset(inside),
        tuple(tests[:MOST_PLACES]),
    )


def reads_defaults(file: Path, name: str) -> str:
    """The file that imports this one and reads the defaults of its class as a property; "" for none."""
    for importer in importers_of(file):
        if "defaultProps" not in importer.text:
            continue
        for called in sorted({name, *importer.default_names(file)}):
            if re.search(
                rf"(?<![\w$.]){re.escape(called)}\.defaultProps\b(?!\s*=[^=])", importer.text
            ):
                return importer.path.name
    return ""


# Reads of an element's props, not of an instance's: `child.props.size`, `{ size } = child.props`.
_OF_ELEMENTS = re.compile(
    r"(?<![\w.])(?!this\b)\w+\.props\.(\w+)|\{([^{}]*)\}\s*=\s*(?!this\b)\w+\.props\b"
)


def reads_elements(file: Path, inputs: set[str]) -> str:
    """The file that imports this one and asks elements for one of these inputs; "" for none.

    An element of a class has the defaults of its inputs, one of a function has what it was given.
    """
    for importer in importers_of(file):
        if ".props" not in importer.text or _TEST.search(importer.inside.lower()):
            continue
        for found in _OF_ELEMENTS.finditer(importer.text):
            asked = found.group(1) or found.group(2)
            if inputs & {part.split(":")[0].split("=")[0].strip() for part in asked.split(",")}:
                return importer.path.name
    return ""


def _stem(file: Path) -> str:
    """The name of a file, or of the folder it is the index of."""
    return (file.stem if file.stem != "index" else file.parent.name).split(".")[0].lower()


@dataclass(frozen=True)
class _Insides:
    """Yield (base, offset) of subclasses, tags with a ref, called methods, and members `asked` of
    and `written` to a ref."""

    extends: tuple[tuple[str, int], ...]
    referred: frozenset[str]
    calls: frozenset[str]
    asked: frozenset[str] = frozenset()
    written: frozenset[str] = frozenset()


@cache
def _insides(text: str) -> _Insides:
    extends = tuple((found[1], found.start()) for found in _EXTENDS.finditer(text))
    referred = frozenset(_REFERRED.findall(text))
    if not referred:
        return _Insides(extends, referred, frozenset())
    asked, written = _asked_of_references(text)
    return _Insides(extends, referred, frozenset(_CALLS.findall(text)), asked, written)


def _asked_of_references(text: str) -> tuple[frozenset[str], frozenset[str]]:
    """The members asked of what a reference is kept under, and those written there."""
    names = {found[1] or found[3] for found in _HELD.finditer(text)}
    if not names:
        return frozenset(), frozenset()
    either = "|".join(map(re.escape, sorted(names)))
    one = rf"(?<![\w$])(?:this\.)?(?:{either})(?:[?!]?\.current)?"
    aliases = re.findall(rf"\b(?:const|let|var)\s+(\w+)\s*=\s*{one}\s*[;\n,]", text)
    if aliases:
        one = rf"(?:{one}|(?<![\w$.])(?:{'|'.join(sorted(set(aliases)))}))"
    asked = {found for found in re.findall(rf"{one}[?!]?\.(\w+)", text) if found != "current"}
    for pattern in re.findall(rf"\{{([^{{}}]*)\}}\s*=\s*{one}\s*[;\n,]", text):
        asked |= {part.split(":")[0].split("=")[0].strip() for part in pattern.split(",")}
    written = set(re.findall(rf"{one}[?!]?\.(\w+)\s*(?:[-+*/]?=(?!=)|\+\+|--)", text))
    return frozenset(asked), frozenset(written - {"current"})


def _places(importer: Importer) -> list[tuple[str, int]]:
    found = _REACHES_IN.finditer(importer.text)
    return [(str(importer.path), importer.line_of(match.start())) for match in found]
