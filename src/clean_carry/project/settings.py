"""The project file `clean-carry.toml`: found upward from a file, checked against its schema."""

from __future__ import annotations

import json
import tomllib
from dataclasses import dataclass, field
from fnmatch import fnmatch
from functools import cache
from pathlib import Path
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.source.places import folder_of, upward

NAME = "clean-carry.toml"
SCHEMA = Path(__file__).with_name("settings.schema.json")
# Files of compilers and bundlers that name import aliases in a plain format.
_COMPILER_FILES = ("tsconfig.json", "jsconfig.json")


@dataclass(frozen=True)
class Accepted:
    """A difference that is accepted: where (a glob over places), of what kind, and why."""

    place: str
    reason: str
    what: str = "*"
    component: str = "*"

    def fits(self, component: str, what: str, place: str) -> bool:
        """Whether a difference is this one."""
        return (
            fnmatch(component, self.component)
            and fnmatch(what, self.what)
            and fnmatch(place, _literal(self.place))
        )


def _literal(pattern: str) -> str:
    """A glob in which brackets stand for themselves: places are written `/div[1]@title`."""
    return pattern.replace("[", "[[]")


@dataclass(frozen=True)
class Settings:
    """The settings of a project. All of them may be omitted."""

    folder: Path | None = None
    sources: tuple[str, ...] = ()
    ignore: tuple[str, ...] = ()
    aliases: dict[str, str] = field(default_factory=dict)
    defines: dict[str, str] = field(default_factory=dict)
    naming: dict[str, str] = field(default_factory=dict)
    runtimes: dict[str, str] = field(default_factory=dict)
    accepted: tuple[Accepted, ...] = ()
    setup: Path | None = None
    prefix: str = ""
    styles: tuple[Path, ...] = ()

    def for_builder(self) -> dict[str, Any]:
        """Return the settings that the builder needs: aliases, defines, stylesheets, the set-up
        module."""
        found: dict[str, Any] = {"aliases": self.aliases, "defines": self.defines}
        if self.styles:
            found["styles"] = [str(path) for path in self.styles]
        if self.setup is not None:
            found["setup"] = str(self.setup)
        return found


def settings_for(path: Path) -> Settings:
    """The settings of the project a file stands in. Raises `InputError` for a project file in error."""
    folder = folder_of(path)
    file = upward(folder, NAME)
    return _read(file) if file is not None else _without_file(folder)


def forget_settings() -> None:
    """Read project files anew from now on."""
    _compiler_aliases.cache_clear()
    _without_file.cache_clear()
    _read.cache_clear()


@cache
def _without_file(folder: Path) -> Settings:
    return Settings(aliases=_compiler_aliases(folder))


@cache
def _read(path: Path) -> Settings:
    try:
        value = tomllib.loads(path.read_text("utf-8"))
    except (OSError, UnicodeDecodeError) as error:
        raise InputError(f"cannot be read ({error})", file=str(path)) from None
    except tomllib.TOMLDecodeError as error:
        raise InputError(f"is not TOML: {error}", file=str(path)) from None
    import jsonschema  # costs a third of a command's start

    schema = json.loads(SCHEMA.read_text("utf-8"))
    checker = jsonschema.Draft202012Validator(schema)
    problem = next(iter(sorted(checker.iter_errors(value), key=lambda e: list(e.path))), None)
    if problem is not None:
        place = ".".join(str(part) for part in problem.absolute_path) or "the file"
        raise InputError(f"{place}: {problem.message[:160]}", file=str(path))
    folder = path.parent
    own = {k: _absolute(folder, v) for k, v in value.get("imports", {}).items()}
    setup = value.get("setup")
    if setup is not None and not (folder / setup).is_file():
        raise InputError(f"setup: there is no file {setup}", file=str(path))
    styles = tuple((folder / name).resolve() for name in value.get("styles", ()))
    gone = [name for name in value.get("styles", ()) if not (folder / name).is_file()]
    if gone:
        raise InputError(f"styles: there is no file {gone[0]}", file=str(path))
    return Settings(
        folder=folder,
        styles=styles,
        sources=tuple(value.get("sources", ())),
        ignore=tuple(value.get("ignore", ())),
        aliases={**_compiler_aliases(folder), **own},
        defines=dict(value.get("defines", {})),
        naming=dict(value.get("naming", {})),
        prefix=value.get("prefix", ""),
        runtimes={k: str(v) for k, v in value.get("runtimes", {}).items()},
        accepted=tuple(Accepted(**one) for one in value.get("accepted", ())),
        setup=(folder / setup).resolve() if setup is not None else None,
    )


@cache
def _compiler_aliases(folder: Path) -> dict[str, str]:
    """Import aliases of the nearest compiler file: `paths`, as far as each names one place."""
    for name in _COMPILER_FILES:
        options = _plain_json(folder / name).get("compilerOptions")
        if not isinstance(options, dict):
            continue
        base = folder / str(options.get("baseUrl", "."))
        found: dict[str, str] = {}
        paths = options.get("paths")
        for key, targets in paths.items() if isinstance(paths, dict) else ():
            if isinstance(targets, list) and len(targets) == 1:
                found[key.removesuffix("*")] = _absolute(base, str(targets[0]).removesuffix("*"))
        return found
    if folder.parent == folder or (folder / "package.json").is_file():
        return {}
    return _compiler_aliases(folder.parent)


def _absolute(folder: Path, target: str) -> str:
    return str((folder / target).resolve()) + ("/" if target.endswith("/") else "")


def _plain_json(path: Path) -> dict[str, Any]:
    """A JSON file in which comments and trailing commas are allowed; empty where it cannot be read."""
    try:
        text = path.read_text("utf-8-sig")
    except (OSError, UnicodeDecodeError):
        return {}
    try:
        value = json.loads(_without_comments(text))
    except ValueError:
        return {}
    return value if isinstance(value, dict) else {}


def _without_comments(text: str) -> str:
    out: list[str] = []
    at = 0
    while at < len(text):
        if text[at] == '"':
            end = at + 1
            while end < len(text) and text[end] != '"':
                end += 2 if text[end] == "\\" else 1
            out.append(text[at : end + 1])
            at = end + 1
        elif text.startswith("//", at):
            at = text.find("\n", at) if "\n" in text[at:] else len(text)
        elif text.startswith("/*", at):
            end = text.find("*/", at)
            at = end + 2 if end >= 0 else len(text)
        elif text[at] in "]}":
            kept = "".join(out).rstrip()
            out = [kept[:-1] if kept.endswith(",") else kept, text[at]]
            at += 1
        else:
            out.append(text[at])
            at += 1
    return "".join(out)
