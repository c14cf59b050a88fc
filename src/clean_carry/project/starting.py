"""A first project file, with what a project shows of itself."""

from __future__ import annotations

import json
import posixpath
from collections import Counter

from clean_carry.project.index.links import Index
from clean_carry.source.workspace import package_version
from clean_carry.syntaxes.registry import every_syntax

_STYLES = (".css", ".scss", ".sass", ".less")
_ENTRIES = ("main", "index", "app", "App", "entry", "bootstrap")


def project_file(index: Index) -> str:
    """The text of a commented `clean-carry.toml` for a project."""
    sources = source_folders(index)
    entries = entry_files(index)
    styles = _styles(index, entries)
    lines = [
        "# The project file of Clean Carry. Everything may be left out; see docs/project-file.md.",
        "",
        "# The folders whose components are surveyed and carried if a command names none.",
        f"sources = {json.dumps(sources)}",
        "",
        "# Files that commands pass over, as patterns.",
        '# ignore = ["src/legacy/**"]',
        "",
        "# Stylesheets of the page, so that pictures and boxes are compared as users see them.",
        f"{'' if styles else '# '}styles = {json.dumps(styles or ['src/page.css'])}",
        "",
        "# A module that trials load first: plug-ins, providers, global components.",
        f"# setup = {json.dumps(entries[0] if entries else 'trial-setup.js')}",
        "",
        "# Prefixes of imports that stand for folders; those of tsconfig.json are read as well.",
        "[imports]",
        *_aliases(index),
        "",
        "# The major version of each framework to render in; package.json decides if one is left out.",
        "[runtimes]",
        *_runtimes(index),
        "",
        "# How new files are called, by syntax; {stem} and {ending} are those of the old file.",
        "[naming]",
        '# jsx-function = "{stem}.next{ending}"',
        "",
    ]
    return "\n".join(lines)


def source_folders(index: Index) -> list[str]:
    """The top folders that hold components, the fullest first."""
    top = len(index.root.as_posix().rstrip("/")) + 1
    counts: Counter[str] = Counter()
    for file, facts in index.files.items():
        folder = file[top:].partition("/")[0] if "/" in file[top:] else "."
        if index.role(file) == "source":
            counts[folder] += len(facts.components)
    return [folder for folder, count in counts.most_common() if count] or ["."]


def entry_files(index: Index) -> list[str]:
    """Scripts that nothing imports and that are called like an entry, relative to the top folder."""
    top = len(index.root.as_posix().rstrip("/")) + 1
    imported = {
        target
        for file, facts in index.files.items()
        for one in facts.imports
        if one.how != "script" and (target := index.resolve(one.request, file)) is not None
    }
    return sorted(
        (
            file[top:]
            for file in index.files
            if file not in imported
            and posixpath.basename(file).partition(".")[0] in _ENTRIES
            and file.endswith((".js", ".jsx", ".ts", ".tsx"))
        ),
        key=lambda name: (name.count("/"), name),
    )


def _styles(index: Index, entries: list[str]) -> list[str]:
    """The stylesheets that an entry imports from the project."""
    found = []
    for entry in entries:
        file = f"{index.root.as_posix().rstrip('/')}/{entry}"
        for one in index.files[file].imports:
            if one.request.endswith(_STYLES) and one.request.startswith("."):
                place = posixpath.normpath(posixpath.join(posixpath.dirname(entry), one.request))
                if (index.root / place).is_file():
                    found.append(place)
    return found


def _aliases(index: Index) -> list[str]:
    top = index.root.as_posix().rstrip("/") + "/"
    known = [
        f"# {json.dumps(prefix)} = {json.dumps(target.removeprefix(top))}"
        for prefix, target in index.settings.aliases.items()
    ]
    return known or ['# "@/" = "src/"']


def _runtimes(index: Index) -> list[str]:
    names = dict.fromkeys(syntax.runtime.name for syntax in every_syntax())
    found = []
    for name in names:
        version = package_version(index.root, name)
        if version is not None:
            major = version.lstrip("^~>=v ").partition(".")[0]
            found.append(f'# {name} = "{major}"')
    return found or ['# react = "18"']
