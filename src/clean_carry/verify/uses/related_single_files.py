"""The single files of a project by the names of their components, and which of them belong together.

By text, like `importers.py`. A tab set asks its content for components called `Tab`, a form provides
itself to its fields, a list and its items share a name and a folder.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from clean_carry.source.importers import files_of, project_of
from clean_carry.verify.search.inputs.single_file_children import name_of, pascal
from clean_carry.verify.uses.model import distance

MOST_KIN = 4
# A name of a component that something is compared with, or looked for by.
_ASKED = re.compile(
    r"(?:[=!]==?\s*|\(\s*)['\"]((?:[A-Z]\w+|[a-z]+-[\w-]+))['\"]"
    r"|['\"]((?:[A-Z]\w+|[a-z]+-[\w-]+))['\"]\s*[=!]=="
)
# The older runtime tells tags in lower case, with words of its own around them (`vue-component-3-tab`).
_TAGGED = re.compile(r"(?:\.tag|[tT]ag)\b[^;\n]{0,40}?['\"]([a-z][a-z0-9]{2,})['\"]")
# It also tells which inputs a component declares.
_DECLARING = re.compile(r"_propKeys\b[^;\n]{0,30}?['\"]([\w$]+)['\"]")
# The keys of what is provided: by name, quoted, a constant that holds it, or the first of a call.
_KEY = re.compile(
    r"['\"]?([$\w]+)['\"]?\s*:\s*this\b|['\"]([$\w]+)['\"]\s*:|\[\s*([$\w]+)\s*\]\s*:|^\s*['\"]?([$\w]+)['\"]?\s*,"
)
# A parent is known by a mark it carries (`this.$parent.$data._isQuay`).
_MARKED = re.compile(r"(?<![\w$])(_[a-z]\w+)\s*:\s*true\b")
_MARK_ASKED = re.compile(r"arent\b[^;\n]{0,40}?\.(_[a-z]\w+)")
# Last words of what holds others.
_WHOLE = ("Group", "List", "Container")
# The number of characters before a name in which a read of it stands.
_NEAR = 80
# Uses by which a component depends on its content.
_INTEREST = re.compile(r"\$slots\b|\$children\b|\bslots\.default\b|componentOptions\b|\bprovide\b")


@dataclass(frozen=True)
class Member:
    """A component of the project, as it is imported."""

    name: str
    path: Path


def single_files(root: Path) -> Iterator[tuple[Path, str]]:
    """The single files of a project with their texts, but those that stand beside what made them."""
    for path, text in files_of(root, ".vue"):
        stem, _, more = path.name.removesuffix(".vue").partition(".")
        if not more or not path.with_name(f"{stem}.vue").is_file():
            yield path, text


@cache
def components_of(root: Path) -> dict[str, tuple[Path, ...]]:
    """{name: files} of the components in single files of a project."""
    found: dict[str, tuple[Path, ...]] = {}
    for path, text in single_files(root):
        name = name_of(path, text)
        found[name] = (*found.get(name, ()), path)
    return found


def component_called(name: str, file: Path) -> Path | None:
    """The file of the component of a name that is nearest to `file`."""
    root = project_of(file)
    paths = components_of(root).get(pascal(name), ()) if root is not None else ()
    return min(paths, key=lambda path: distance(path, file), default=None)


def kin_inside(file: Path) -> list[Member]:
    """The components of the project that belong into the content of one, the likeliest first."""
    file = file.resolve()
    root = project_of(file)
    return list(_inside(root, file))[:MOST_KIN] if root is not None else []


def kin_around(file: Path) -> list[Member]:
    """The components of the project whose content this one belongs into."""
    file = file.resolve()
    root = project_of(file)
    if root is None:
        return []
    asked = _parents_asked(root).get(file, frozenset())
    around = [
        Member(name, path)
        for name, paths in components_of(root).items()
        for path in paths
        if path != file and (name in asked or any(m.path == file for m in _inside(root, path)))
    ]
    return sorted(around, key=lambda m: (m.name not in asked, distance(m.path, file)))


@cache
def _inside(root: Path, file: Path) -> tuple[Member, ...]:
    texts = dict(single_files(root))
    own = texts.get(file, "")
    if not _is_drawn(own):
        return ()
    name = name_of(file, own)
    interest = _INTEREST.search(own) is not None
    above = _parents_asked(root).get(file, frozenset())
    ranked: list[tuple[int, int, str, Path]] = []
    asked = {pascal(found[1] or found[2]) for found in _asked(own, of_parents=False)} - above
    tagged = {found[1] for found in _TAGGED.finditer(own)} if interest else set()
    declaring = [
        re.compile(rf"(?<![\w$]){re.escape(found[1])}\s*:") for found in _DECLARING.finditer(own)
    ]
    keys = _provided(own)
    marks = set(_MARKED.findall(own))
    base = name[:-1] if name.endswith("s") else name
    for other, paths in components_of(root).items():
        path = min(paths, key=lambda path: distance(path, file))
        if path == file or other == name or not _is_drawn(texts[path]):
            continue
        far = distance(path, file)
        if marks & set(_MARK_ASKED.findall(texts[path])):
            ranked.append((0, far, other, path))
            continue
        if _imports(own, path):
            continue
        if name in _parents_asked(root)[path]:
            ranked.append((0, far, other, path))
            continue
        called = other in asked or other.lower() in tagged
        if interest and (called or any(name.search(texts[path]) for name in declaring)):
            ranked.append((0, far, other, path))
        elif keys and _injects(texts[path], keys):
            ranked.append((1, far, other, path))
        elif not far and other not in above and _is_part(other, base, interest):
            ranked.append((2, far, other, path))
    return tuple(Member(other, path) for _, _, other, path in sorted(ranked))


@cache
def _parents_asked(root: Path) -> dict[Path, frozenset[str]]:
    """{file: names of the components it looks for among those it stands in}."""
    return {
        path: frozenset(pascal(m[1] or m[2]) for m in _asked(text, of_parents=True))
        for path, text in single_files(root)
    }


def _is_part(other: str, base: str, interest: bool) -> bool:
    """Whether a component of the folder is a part of another one, going by its name."""
    rest = other.removeprefix(base)
    if not other.startswith(base) or rest == "s" or rest.endswith(_WHOLE):
        return False
    return interest or rest in ("", "Item")


def _asked(text: str, *, of_parents: bool) -> Iterator[re.Match[str]]:
    """Where a component asks others for their name: what it stands in, or what stands in it."""
    for found in _ASKED.finditer(text):
        before = text[max(found.start() - _NEAR, 0) : found.start()]
        if ("arent" in before) == of_parents:
            yield found


def _is_drawn(text: str) -> bool:
    """Whether a single file renders anything; others are there to be extended."""
    return any(sign in text for sign in ("<template", "render(", "mixins:"))


def _provided(text: str) -> set[str]:
    """The keys under which a component provides itself, or anything by a quoted key."""
    at = re.search(r"\bprovide\b\s*[:(]", text)
    if at is None:
        return set()
    keys = _KEY.findall(text[at.end() : at.end() + 300])
    return {key for alternatives in keys for key in alternatives if key}


def _injects(text: str, keys: set[str]) -> bool:
    at = re.search(r"\binject\s*[:(]", text)
    if at is None:
        return False
    near = text[at.end() : at.end() + 400]
    return any(re.search(rf"(?<![\w$]){re.escape(key)}(?![\w$])", near) for key in keys)


def _imports(text: str, path: Path) -> bool:
    """Whether a component renders another one itself."""
    stem = path.parent.name if path.stem in ("index", "main") else path.stem
    return (
        re.search(rf"\bimport\s[^;'\"]*['\"][^'\"]*\b{re.escape(stem)}(?:\.vue)?['\"]", text)
        is not None
    )
