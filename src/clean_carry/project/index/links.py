"""The index of a project: where imports lead, what names mean in other files, and who uses what."""

from __future__ import annotations

import json
import posixpath
from collections import defaultdict
from collections.abc import Iterator
from functools import cached_property
from pathlib import Path

from clean_carry.project.index.model import Found, Key, Use
from clean_carry.project.index.names import spellings
from clean_carry.project.index.roles import Role, role_of
from clean_carry.project.index.uses import uses_of
from clean_carry.project.settings import Settings
from clean_carry.source.index.facts import FileFacts, Import

_ENDINGS = (
    "",
    *(f"{i}{e}" for i in ("", "/index") for e in (".js", ".jsx", ".ts", ".tsx", ".vue", ".mjs")),
)
# Through so many files a name is followed.
_MOST_STEPS = 12


class Index:
    """All facts of a project. `files` are its facts by absolute path, `digest` stands for their content."""

    def __init__(
        self, root: Path, settings: Settings, files: dict[str, FileFacts], digest: str = ""
    ) -> None:
        self.root, self.settings, self.files, self.digest = root, settings, files, digest
        self._resolved: dict[tuple[str, str], str | None] = {}

    # -- files ----------------------------------------------------------------------------

    def resolve(self, request: str, origin: str) -> str | None:
        """The file of the project that a request means; None for packages and missing files."""
        folder = posixpath.dirname(origin)
        key = (folder, request)
        if key not in self._resolved:
            self._resolved[key] = self._file(request, folder)
        return self._resolved[key]

    def _file(self, request: str, folder: str) -> str | None:
        if request.startswith("."):
            base = posixpath.normpath(posixpath.join(folder, request))
        else:
            aliases = self.settings.aliases
            known = [a for a in aliases if request.startswith(a) or request + "/" == a]
            if not known:
                return self._own_package(request)
            prefix = max(known, key=len)
            inside = request[len(prefix) :].lstrip("/")
            base = posixpath.normpath(posixpath.join(aliases[prefix], inside))
        return next((base + end for end in _ENDINGS if base + end in self.files), None)

    def _own_package(self, request: str) -> str | None:
        """A file that an import means by the name of a package inside of the project."""
        for name, folder in self._packages.items():
            if request == name or request.startswith(name + "/"):
                base = posixpath.normpath(f"{folder}/{request[len(name) :].lstrip('/')}")
                tries = [base, f"{folder}/src"] if request == name else [base]
                return next(
                    (one + end for one in tries for end in _ENDINGS if one + end in self.files),
                    None,
                )
        return None

    @cached_property
    def _packages(self) -> dict[str, str]:
        """{name: folder} of the packages whose sources stand in the project."""
        found: dict[str, str] = {}
        for folder in {posixpath.dirname(name) for name in self.files}:
            place = Path(folder, "package.json")
            while True:
                if place.is_file():
                    try:
                        name = json.loads(place.read_text("utf-8")).get("name")
                    except (OSError, ValueError, AttributeError):
                        name = None
                    if isinstance(name, str):
                        found[name] = place.parent.as_posix()
                    break
                if place.parent == self.root or place.parent == place.parent.parent:
                    break
                place = place.parent.parent / "package.json"
        return found

    def role(self, file: str) -> Role:
        """Whether a file is source, a test or a story."""
        return role_of(file[len(self.root.as_posix()) :])

    # -- components -----------------------------------------------------------------------

    @cached_property
    def components(self) -> dict[Key, Found]:
        """Every component with its uses, in the order of files and of their lines."""
        found = {
            Key(file, number): Found(Key(file, number), seen)
            for file, facts in self.files.items()
            for number, seen in enumerate(facts.components)
        }
        self._seen = found
        known: set[tuple[Key, str, int, str]] = set()
        for key, use in uses_of(self, found):
            same = (key, use.file, use.line, use.how)
            if same in known:
                continue
            known.add(same)
            found[key].users.append(use)
            if use.user is not None and use.user != key:
                found[use.user].uses.append((key, use))
        for one in found.values():
            one.users.sort(key=lambda use: (use.file, use.start))
        self._through_modules(found)
        return found

    def _through_modules(self, found: dict[Key, Found]) -> None:
        """Note components that others use through a plain module, such as a route table."""
        held: dict[str, list[tuple[Key, Use]]] = defaultdict(list)
        for key, one in found.items():
            for use in one.users:
                if use.user is None and use.how != "re-export" and not self.in_file(use.file):
                    held[use.file].append((key, use))
        for file, facts in self.files.items() if held else ():
            for request in facts.imports if facts.components else ():
                target = self.resolve(request.request, file)
                for key, use in held.get(target or "", ()):
                    for user in self.in_file(file):
                        found[user].uses.append((key, use))

    def in_file(self, file: str) -> list[Key]:
        """The components of a file."""
        return [Key(file, number) for number in range(len(self.files[file].components))]

    def at(self, file: str, offset: int) -> Key | None:
        """The innermost component around an offset; of a file with one component that one, for imports."""
        around = [
            (one.end - one.start, number)
            for number, one in enumerate(self.files[file].components)
            if one.start <= offset < one.end
        ]
        return Key(file, min(around)[1]) if around else None

    # -- names ----------------------------------------------------------------------------

    def exported(self, file: str, name: str, steps: int = 0) -> list[Key]:
        """The components behind an exported name of a file, re-exports followed; `*` means all of them."""
        facts = self.files.get(file)
        if facts is None or steps > _MOST_STEPS:
            return []
        if name == "*":
            named = {one.name for one in facts.exports}
            named |= {own for one in facts.components for own in one.exports}
            named |= {here for i in facts.imports if i.how == "re-export" for _, here in i.names}
            found = [
                key for own in sorted(named - {"*"}) for key in self.exported(file, own, steps + 1)
            ]
            found += [
                key for target in self._stars(file) for key in self.exported(target, "*", steps + 1)
            ]
            return list(dict.fromkeys(found))
        keys = [
            Key(file, number) for number, one in enumerate(facts.components) if name in one.exports
        ]
        for one in facts.exports if not keys else ():
            if one.name == name:
                keys += [key for own in one.locals for key in self.local(file, own, steps + 1)]
        for request, there, here in self._passed_on(file):
            if here == name:
                keys += self.exported(request, there, steps + 1)
        if not keys and name != "default":
            for target in self._stars(file):
                keys += self.exported(target, name, steps + 1)
        return list(dict.fromkeys(keys))

    def _passed_on(self, file: str) -> Iterator[tuple[str, str, str]]:
        for one in self.files[file].imports:
            target = self.resolve(one.request, file) if one.how == "re-export" else None
            if target is not None:
                yield from ((target, there, here) for there, here in one.names if here != "*")

    def _stars(self, file: str) -> Iterator[str]:
        for one in self.files[file].imports:
            if one.how == "re-export" and ("*", "*") in one.names:
                target = self.resolve(one.request, file)
                if target is not None:
                    yield target

    def local(self, file: str, name: str, steps: int = 0) -> list[Key]:
        """The components behind a name at the top of a file."""
        facts = self.files[file]
        own = [
            Key(file, number) for number, one in enumerate(facts.components) if one.local == name
        ]
        if own or steps > _MOST_STEPS:
            return own
        found = []
        for one in facts.imports:
            for there, here in one.names:
                if here == name and one.how != "re-export":
                    found += self.of_import(file, one, there, steps)
        return list(dict.fromkeys(found))

    def of_import(self, file: str, one: Import, name: str, steps: int = 0) -> list[Key]:
        """The components that an import of a file means under a name of the other module."""
        target = self.resolve(one.request, file)
        if target is None:
            return []
        if one.how in ("lazy", "require") and name == "*":
            # The whole module stands for its default export, or for its only component.
            return self.exported(target, "default") or self._only(target)
        if name == "default" and one.how != "type":
            return self.exported(target, name, steps + 1) or self.exported(target, "module.exports")
        return self.exported(target, name, steps + 1) if name != "*" else []

    def _only(self, file: str) -> list[Key]:
        keys = self.in_file(file)
        return keys if len(keys) == 1 else []

    @cached_property
    def by_tag(self) -> dict[str, list[Key]]:
        """Components by the names that hold in the markup of a whole application."""
        found: dict[str, list[Key]] = defaultdict(list)
        computed = False
        for file, facts in self.files.items():
            for one in facts.registrations:
                if one.how != "global":
                    continue
                computed = computed or not one.name
                keys = self.registered(file, one.local, one.request)
                names = (
                    [one.name] if one.name else [n for k in keys for n in self._seen[k].seen.tags]
                )
                for name in names:
                    for spelled in spellings(name):
                        found[spelled] += keys
        for key, known in self._seen.items():
            for name in known.seen.tags if computed or self.is_registered(key) else ():
                for spelled in spellings(name):
                    found[spelled].append(key)
        return {name: list(dict.fromkeys(keys)) for name, keys in found.items() if keys}

    def is_registered(self, key: Key) -> bool:
        """Whether the file of a component registers it by a name for a whole application."""
        seen = self.files[key.file].components[key.number]
        return bool(seen.tags) and not seen.local and "default" not in seen.exports

    def registered(self, file: str, local: str, request: str) -> list[Key]:
        """The components behind the value of a registration."""
        if local:
            return self.local(file, local)
        target = self.resolve(request, file) if request else None
        return self.exported(target, "default") if target is not None else []
