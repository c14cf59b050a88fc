"""Which files of a project import a file, read once for a whole project.

By the paths their text names alone: nothing is parsed. Files that only pass on what another one
defines stand for those that import them.
"""

from __future__ import annotations

import os
import posixpath
import re
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from clean_carry.source.places import folder_of, real

# Files that mark the top folder of a project, and folders of packages or of generated files.
_ROOTS = ("clean-carry.toml", ".git")
# A package.json without a name may only say what an import of its folder means.
_ENTRIES = ('"main"', '"module"', '"browser"', '"types"')
_PASSED_OVER = frozenset({"node_modules", "dist", "build", "coverage"})
_ENDINGS = (".js", ".jsx", ".ts", ".tsx", ".vue")
# Generated files and declarations; generated files stand there in several forms.
_MADE = (".min.js", ".d.ts")
_FORMS = (".min.js", ".cjs.js", ".common.js", ".esm.js", ".umd.js", ".iife.js")
# A string that is a relative path: in a script hardly anything but what is imported.
_IMPORT = re.compile(r"""['"](\.\.?(?:/[^'"\n]*)?)['"]""")
_DEFAULT_IMPORT = re.compile(r"""\bimport\s+(\w+)[^;'"]*['"]([^'"\n]*)['"]""")
# Other instances: children by their references, and those a component stands in.
_CHILDREN = (
    r"\$children(?=\.(?:forEach|map|filter|some|every|find|reduce)\b|\s*\))|"
    r"\$(?:refs(?:\.\w+|\[[^\]]*\])(?:\[[^\]]*\])?|children\[[^\]]*\])"
)
# A callback for each of several instances, with the name it gives one.
_EACH = re.compile(
    r"\$(?:children|refs(?:\.\w+|\[[^\]]*\]))"
    r"\.(?:forEach|map|filter|some|every|find|findIndex|reduce|flatMap)\(\s*"
    r"(?:async\s+)?(?:function\s*)?\(?\s*(\w+)"
)
_PARENTS = r"\$(?:parent(?:\.\$parent)*|root)"
# So far before an instance the name it is given is looked for.
_BEFORE = 200
_OPTION = re.compile(r"\$options(?:\??\.(\w+)|\[)")
_PASSES_ON = re.compile(r"""export\b[^;'"]*\bfrom\s*['"](\.[^'"\n]*)['"]""")


@dataclass(frozen=True)
class Importer:
    """A file that imports another one, where it stands inside of the project, and its text."""

    path: Path
    inside: str
    text: str

    def line_of(self, at: int) -> int:
        """The line of an offset in its text."""
        return self.text.count("\n", 0, at) + 1

    def default_names(self, file: Path) -> set[str]:
        """The names under which it imports the default export of a file."""
        stem = file.stem if file.stem != "index" else file.parent.name
        return {name for name, target in _default_imports(self.text) if target == stem}


def importers_of(file: Path) -> tuple[Importer, ...]:
    """The files that import `file`, in the order of their names; none where no project is around it."""
    file = real(file)
    # Where nothing tells the top of a project, what stands in the file's own folder is looked through.
    root = project_of(file) or folder_of(file)
    by_target, passing = _index(root)
    found: dict[str, None] = {}
    queue = [_plain(file.as_posix())]
    seen: set[str] = set()
    while queue:
        target = queue.pop()
        if target in seen:
            continue
        seen.add(target)
        for name in by_target.get(target, ()):
            if name in passing.get(target, ()):
                queue.append(_plain(name))
            else:
                found[name] = None
    top = len(root.as_posix()) + 1
    return tuple(Importer(Path(name), name[top:], _text(name)) for name in sorted(found))


def project_of(file: Path) -> Path | None:
    """The top folder of the project around a file."""
    return _root_of(folder_of(file))


@cache
def _root_of(folder: Path) -> Path | None:
    return next((up for up in (folder, *folder.parents) if _is_top(up)), None)


@cache
def _is_top(folder: Path) -> bool:
    if any((folder / mark).exists() for mark in _ROOTS):
        return True
    package = folder / "package.json"
    text = _text(package.as_posix()) if package.is_file() else '"main"'
    return '"name"' in text or not any(entry in text for entry in _ENTRIES)


def texts_of(root: Path, ending: str = "") -> Iterator[str]:
    """The texts of a project's scripts and single files, or of those whose names end in `ending`."""
    for _, text in files_of(root, ending):
        yield text


def files_of(root: Path, ending: str = "") -> Iterator[tuple[Path, str]]:
    """The same files with their paths."""
    for name in _scripts(root):
        if name.endswith(ending):
            yield Path(name), _text(name)


def pages_of(root: Path) -> Iterator[tuple[Path, str]]:
    """The pages and template files of a project with their texts."""
    for name in _named(root, (".html", ".htm")):
        yield Path(name), _text(name)


# Folders of pages about a project, not of it.
_ASIDE = frozenset("demo demos doc docs example examples test tests spec".split())


def is_aside(file: Path, root: Path) -> bool:
    """Whether a file of a project stands in a folder that shows or tests it."""
    return bool(_ASIDE & set(file.relative_to(root).parts[:-1]))


def reached_by_reference(file: Path) -> tuple[frozenset[str], frozenset[str]]:
    """The names of members that files of the project around `file` ask an instance for that they do not
    own: a child by a reference to it, and one they stand in."""
    root = project_of(file)
    if root is None:
        return frozenset(), frozenset()
    return _reached(root, _CHILDREN), _reached(root, _PARENTS)


@cache
def _reached(root: Path, instance: str) -> frozenset[str]:
    # A member asked of an instance, also where its type is stated; and names that stand for one.
    one = re.compile(instance + r"(?:(?:\s+as\s[^)]*\))?[?!]?\.(\w+))?")
    stands_for = (
        re.compile(r"\b(\w+)\s*=\s*[\w.(]*$"),
        re.compile(r"\b(?:const|let|var)\s+(\w+)\s+of\s+[\w.(]*$"),
        re.compile(r"\b(\w+)\s*\([^)]*\)[^{};]*\{\s*return\s+[\w.(]*$"),
    )
    found: set[str] = set()
    for text in texts_of(root):
        names: set[str] = set()
        for match in one.finditer(text):
            if match[1]:
                found.add(match[1])
            each = _EACH.match(text, match.start(), match.end() + _BEFORE)
            if each is not None:
                names.add(each[1])
            before = text[max(match.start() - _BEFORE, 0) : match.start()]
            names.update(
                form[1] for pattern in stands_for for form in [pattern.search(before)] if form
            )
        if names:
            either = "|".join(map(re.escape, sorted(names)))
            found.update(re.findall(rf"\b(?:{either})[?!]?\.(\w+)", text))
    return frozenset(found)


def asked_by_name(file: Path, name: str) -> frozenset[str]:
    """The names of members that files of the project ask of anything, where they look for an instance by
    the name of its component: `closest(this, 'Berth').free`, `parent.$options.name === 'Berth'`."""
    root = project_of(file)
    return _by_name(root, name) if root is not None and name else frozenset()


@cache
def _by_name(root: Path, name: str) -> frozenset[str]:
    word = rf"""['"]{re.escape(name)}['"]"""
    looks = re.compile(
        rf"\(\s*(?:this|vm|self|that|_this|\$?parent)\s*,[^()]*{word}"
        rf"|(?:[nN]ame|[tT]ag)\s*\)?\s*[!=]==?\s*{word}"
    )
    found: set[str] = set()
    for text in texts_of(root):
        if name in text and looks.search(text):
            found.update(_MEMBER.findall(text))
    return frozenset(found)


_MEMBER = re.compile(r"\.([A-Za-z_$][\w$]*)")


def asks_for_tags(file: Path) -> tuple[Path, ...]:
    """The files of the project that read the tag of components they are given (on version 2.7 only a
    registered component has one)."""
    root = project_of(file)
    return _tags_asked(root) if root is not None else ()


@cache
def _tags_asked(root: Path) -> tuple[Path, ...]:
    return tuple(path for path, text in files_of(root) if asks_for_tag(text))


def asks_for_tag(text: str) -> bool:
    """Whether a text reads the tag of a component."""
    if "_componentTag" in text or _TAG.search(text) is not None:
        return True
    # By another name: `const options = node.componentOptions`.
    named = _OPTIONS_NAMED.findall(text) if "componentOptions" in text else []
    return any(re.search(rf"\b{re.escape(name)}\??\.tag\b", text) for name in named)


_TAG = re.compile(
    r"\bcomponentOptions\??\.tag\b|\{[^{}]*\btag\b[^{}]*\}\s*=\s*[^;\n]*\bcomponentOptions\b"
)
_OPTIONS_NAMED = re.compile(r"\b(\w+)\s*=\s*[^;=\n]*\bcomponentOptions\b(?!\??\.)")


def options_asked(file: Path) -> frozenset[str]:
    """Return the custom options that the project around `file` reads from components; "" for a
    computed name."""
    root = project_of(file)
    return _options(root) if root is not None else frozenset()


@cache
def _options(root: Path) -> frozenset[str]:
    found: set[str] = set()
    for text in texts_of(root):
        if "ptions" in text:
            found.update(match[1] or "" for match in _OPTION.finditer(text))
    return frozenset(found)


@cache
def _default_imports(text: str) -> tuple[tuple[str, str], ...]:
    """(name, file it comes from, without folder and ending) of the default imports in a text."""
    return tuple(
        (found[1], posixpath.basename(_plain(found[2]))) for found in _DEFAULT_IMPORT.finditer(text)
    )


@cache
def _index(root: Path) -> tuple[dict[str, list[str]], dict[str, set[str]]]:
    """({file: who imports it}, {file: who passes it on}), files without their endings as keys."""
    by_target: dict[str, list[str]] = {}
    passing: dict[str, set[str]] = {}
    for name in _scripts(root):
        text = _text(name)
        folder = posixpath.dirname(name)
        for found in _IMPORT.finditer(text):
            target = _plain(posixpath.normpath(posixpath.join(folder, found[1])))
            by_target.setdefault(target, []).append(name)
        for found in _PASSES_ON.finditer(text):
            target = _plain(posixpath.normpath(posixpath.join(folder, found[1])))
            passing.setdefault(target, set()).add(name)
    return by_target, passing


def _named(root: Path, endings: tuple[str, ...]) -> Iterator[str]:
    for folder, inside, names in os.walk(root):
        inside[:] = sorted(n for n in inside if n not in _PASSED_OVER and not n.startswith("."))
        yield from (f"{Path(folder).as_posix()}/{n}" for n in sorted(names) if n.endswith(endings))


def _scripts(root: Path) -> Iterator[str]:
    project = project_of(root / "package.json") is not None
    for folder, inside, names in os.walk(root):
        inside[:] = sorted(n for n in inside if n not in _PASSED_OVER and not n.startswith("."))
        if not project:
            inside.clear()
        forms = Counter(n.removesuffix(form) for n in names for form in _FORMS if n.endswith(form))
        built = {f"{stem}{form}" for stem, count in forms.items() if count > 1 for form in _FORMS}
        for name in sorted(set(names) - built):
            if name.endswith(_ENDINGS) and not name.endswith(_MADE):
                yield f"{Path(folder).as_posix()}/{name}"


def _plain(name: str) -> str:
    """A file as an import names it: without its ending, an index by its folder."""
    for ending in _ENDINGS:
        name = name.removesuffix(ending)
    return name.removesuffix("/index")


@cache
def _text(name: str) -> str:
    try:
        return Path(name).read_text("utf-8", "replace")
    except OSError:
        return ""
