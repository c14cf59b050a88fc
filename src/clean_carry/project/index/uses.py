"""All uses of a project's components: by import, tag, registration, route, text and lazy import."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping
from typing import TYPE_CHECKING

from clean_carry.project.index.model import Found, Key, Use
from clean_carry.project.index.names import spellings
from clean_carry.source.index.facts import FileFacts, Import, TagUse

if TYPE_CHECKING:
    from clean_carry.project.index.links import Index

# Prefixes of attributes that the scoped templates' compiler leaves out.
_PREFIXES = ("data-", "x-")
# Syntaxes that an attribute of markup may name.
_BY_ATTRIBUTE = frozenset({"directive"})


def uses_of(index: Index, components: Mapping[Key, Found]) -> Iterator[tuple[Key, Use]]:
    """Yield each use with the component it is of; one place may use several."""
    for file, facts in index.files.items():
        yield from _imports(index, file, facts)
        yield from _names(index, file, facts)
        yield from _tags(index, file, facts, components)


def _use(index: Index, file: str, line: int, how: str, start: int, end: int) -> Use:
    return Use(file, line, how, start, end, index.role(file), index.at(file, start))


def _imports(index: Index, file: str, facts: FileFacts) -> Iterator[tuple[Key, Use]]:
    members: dict[str, set[str]] = defaultdict(set)
    for use in facts.names:
        members[use.local].add(use.member)
    for one in facts.imports:
        target = index.resolve(one.request, file)
        if target is None:
            continue
        keys: list[Key] = []
        if one.how == "mock":
            keys = index.exported(target, "*")
        elif one.how == "script" or (one.how in ("import", "require") and not _named(one)):
            # A script is run for the components that it registers.
            keys = [key for key in index.in_file(target) if index.is_registered(key)]
        elif one.how == "re-export":
            for there, _ in one.names:
                keys += index.exported(target, there)
        else:
            for there, here in one.names:
                keys += index.of_import(file, one, there)
                if there == "*" and here and one.how != "lazy":
                    wanted = members.get(here, set()) - {""}
                    keys += [key for name in wanted for key in index.exported(target, name)]
        for key in dict.fromkeys(keys):
            yield key, _use(index, file, one.line, one.how, one.start, one.end)


def _named(one: Import) -> bool:
    return any(here for _, here in one.names)


def _names(index: Index, file: str, facts: FileFacts) -> Iterator[tuple[Key, Use]]:
    whole = {
        here: target
        for one in facts.imports
        for there, here in one.names
        if there == "*" and one.how in ("import", "require")
        and (target := index.resolve(one.request, file)) is not None
    }  # fmt: skip
    known: dict[str, list[Key]] = {}
    for use in facts.names:
        if use.local in whole and use.member:
            keys = index.exported(whole[use.local], use.member)
        else:
            if use.local not in known:
                known[use.local] = index.local(file, use.local)
            keys = known[use.local]
        for key in keys:
            if key.file == file and use.how in ("value", "re-export"):
                # A component's own file: static values, exports, and its own code.
                if index.at(file, use.start) in (None, key):
                    continue
            yield key, _use(index, file, use.line, use.how, use.start, use.end)


def _tags(
    index: Index, file: str, facts: FileFacts, components: Mapping[Key, Found]
) -> Iterator[tuple[Key, Use]]:
    local = _local_tags(index, file, facts)
    for one in facts.tags:
        for key in local.get(one.name) or _global(index, one, components):
            if key.file != file or not _within(index, key, one):
                yield key, _use(index, file, one.line, one.how, one.start, one.end)


def _within(index: Index, key: Key, use: TagUse) -> bool:
    """Whether a name stands where the component itself is registered under it."""
    seen = index.files[key.file].components[key.number]
    return use.how == "string" and seen.start <= use.start < seen.end


def _local_tags(index: Index, file: str, facts: FileFacts) -> dict[str, list[Key]]:
    """The tags that one single file's own registrations, or its imports, give a meaning."""
    found: dict[str, list[Key]] = {}
    flat = any(one.syntax == "single-file-flat" for one in facts.components)
    for one in facts.registrations:
        if one.how == "components":
            keys = index.registered(file, one.local, one.request)
            found.update((spelled, keys) for spelled in spellings(one.name) if keys)
    for request in facts.imports if flat else ():
        for there, here in request.names:
            keys = index.of_import(file, request, there) if here else []
            found.update((spelled, keys) for spelled in spellings(here) if keys)
    if file.endswith(".vue"):
        for key in index.in_file(file):
            # A component may render itself by its name.
            seen = index.files[file].components[key.number]
            for spelled in spellings(seen.name):
                found.setdefault(spelled, [key])
    return found


def _global(index: Index, one: TagUse, components: Mapping[Key, Found]) -> list[Key]:
    name = one.name
    for prefix in _PREFIXES:
        name = name.removeprefix(prefix)
    keys = index.by_tag.get(one.name) or index.by_tag.get(name, [])
    if one.how == "attribute":
        return [key for key in keys if components[key].seen.syntax in _BY_ATTRIBUTE]
    return keys
