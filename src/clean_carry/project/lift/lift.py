"""Lift repeated blocks of pages into components, in every syntax that is written."""

from __future__ import annotations

import re
import tempfile
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any, Protocol

from clean_carry.component.errors import CarryError, InputError
from clean_carry.component.findings import Finding
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request
from clean_carry.crossing.lift import block as blocks
from clean_carry.crossing.lift.align import Part, aligned
from clean_carry.crossing.lift.block import Block
from clean_carry.crossing.lift.groups import Group, find_groups
from clean_carry.crossing.lift.props import odd_spaces, planned
from clean_carry.crossing.lift.selectors import Selectable, selector_of
from clean_carry.crossing.lift.wording import component_name, pascal
from clean_carry.crossing.many import carry_together
from clean_carry.project.lift.page import PageLift
from clean_carry.project.lift.single_file import Lifted
from clean_carry.source.places import folder_of
from clean_carry.source.workspace import major, package_version
from clean_carry.syntaxes.registry import declared
from clean_carry.syntaxes.single_file.stands_for import NotAFile

# The syntax in which components and pages are composed; to others they are carried from it.
COMPOSED = "single-file-flat"


class Markup(Protocol):
    """Markup in which groups are found."""

    @property
    def roots(self) -> list[Block]:
        """The outermost blocks."""

    @property
    def selectable(self) -> Selectable:
        """The blocks by selectors."""


@dataclass(frozen=True)
class Wishes:
    """Decisions of a person: names of components and props, which blocks, how many copies."""

    names: Mapping[str, str] = field(default_factory=dict)
    props: Mapping[str, str] = field(default_factory=dict)
    least: int = 2
    select: str = ""
    once: tuple[str, ...] = ()


@dataclass
class LiftedPages:
    """The outcome: groups, the lifted ones' components by the groups' numbers in Python, new files by
    path, and findings. `entries` are the files that take the places of pages."""

    groups: list[Group]
    lifted: dict[int, Lifted]
    files: dict[Path, str]
    entries: dict[Path, Path]
    findings: list[Finding]
    refused: list[Finding]
    # The components as they were composed, by name, and the files they became; none where that is the same.
    carried: dict[str, tuple[str, Path]] = field(default_factory=dict)

    def as_json(self, shown: Any) -> dict[str, Any]:
        """The JSON shape: {"files": [{"path", "text"}], "entry", "groups": [{"component", "copies": […],
        "props": […], "lifted", "reason"}], "findings"}."""
        rows = []
        for group in self.groups:
            made = self.lifted.get(id(group))
            rows.append(
                {
                    "component": made.name if made is not None else None,
                    "copies": [selector_of(one) for one in group.copies],
                    "pages": list(dict.fromkeys(one.source.path for one in group.copies)),
                    "props": [one.as_json() for one in made.plan.props] if made is not None else [],
                    "lifted": made is not None,
                    "reason": group.reason,
                }
            )
        entries = [shown(path) for path in self.entries.values()]
        return {
            "files": [{"path": shown(path), "text": text} for path, text in self.files.items()],
            "entry": entries[0] if entries else None,
            "entries": entries,
            "groups": rows,
            "findings": [one.as_json() for one in (*self.refused, *self.findings)],
        }


def lift(pages: list[Path], target: str, wishes: Wishes, folder: Path | None = None) -> LiftedPages:
    """Lift the blocks that repeat in some pages. New files stand in `folder`, else beside each first page.

    Raises `CarryError` for pages that cannot be read, and for selectors that match nothing.
    """
    blocks.forget()
    refused: list[Finding] = []
    opened = []
    for path in pages:
        page = PageLift.read(path)
        unread = page.refusal()
        refused += [unread] if unread is not None else []
        opened += [page] if unread is None else []
    if not opened:
        return LiftedPages([], {}, {}, {}, [], refused)
    groups = chosen_groups(opened, wishes)
    while True:
        lifted = components(groups, wishes)
        made = _written(opened, groups, lifted, target, folder)
        failed = [
            one for one in made.results if one.status == "refused" and one.source in made.owners
        ]
        if not failed:
            break
        for result in failed:
            refused += [one for one in result.findings if one.level == "error"]
            why = next((f.message for f in result.findings if f.level == "error"), "it is refused")
            made.owners[result.source].reason = why
    notes = made.findings
    notes += [one for result in made.results for one in result.findings if one.level != "error"]
    refused += [
        one
        for result in made.results
        if result.status == "refused"
        for one in result.findings
        if one.level == "error"
    ]
    return LiftedPages(groups, lifted, made.files, made.entries, notes, refused, made.carried)


# -- which -------------------------------------------------------------------------------


def chosen_groups(pages: Sequence[Markup], wishes: Wishes) -> list[Group]:
    """The groups of some pages or component files, and requested blocks. Raises `InputError`."""
    single: list[Group] = []
    for selector in wishes.once:
        found = [one for page in pages for one in page.selectable.all(selector)]
        if not found:
            raise InputError(
                "matches no element of the pages", advice="Look the selector up", file=selector
            )
        single.append(Group(found[:1]))
    roots = [root for page in pages for root in page.roots]
    if wishes.select:
        roots = [one for page in pages for one in page.selectable.all(wishes.select)]
        if not roots:
            raise InputError(
                "matches no element of the pages", advice="Look the selector up", file=wishes.select
            )
    groups = [*find_groups(roots, least=wishes.least), *single]
    _part_from_each_other(groups, wishes.least)
    return groups


def _part_from_each_other(groups: list[Group], least: int) -> None:
    """Lift the outer of blocks within each other, and inner ones where enough of them are left."""
    taken: set[int] = set()
    for group in sorted(groups, key=lambda one: -one.largest):
        if not group.lifted:
            continue
        free = [
            one
            for one in group.copies
            if taken.isdisjoint(map(id, one.above())) and taken.isdisjoint(map(id, one.walk()))
        ]
        if not free or (len(group.copies) > 1 and len(free) < max(2, least)):
            group.reason = "it stands within another block that is lifted"
            continue
        group.copies = free
        taken |= {id(one) for one in free}


def components(
    groups: list[Group], wishes: Wishes, taken: set[str] | None = None
) -> dict[int, Lifted]:
    """The components of the groups that are lifted, by the groups' numbers in Python; `taken` names are
    not used."""
    taken = set() if taken is None else taken
    found: dict[int, Lifted] = {}
    for group in groups:
        if not group.lifted:
            continue
        name = component_name(group.copies)
        name = wishes.names.get(name, name)
        while name in taken:
            name = _next(name)
        taken.add(name)
        part = _aligned(group)
        if not group.lifted:
            continue
        renamed = {
            old.removeprefix(f"{name}."): new
            for old, new in wishes.props.items()
            if "." not in old or old.startswith(f"{name}.")
        }
        found[id(group)] = Lifted(name, planned(part, renamed), part)
        group.name = name
    return found


def _aligned(group: Group) -> Part:
    """The template of a group; copies whose white space shows otherwise stay with their pages."""
    part = aligned({(at,): one for at, one in enumerate(group.copies)})
    odd = odd_spaces(part)
    if odd:
        group.copies = [one for at, one in enumerate(group.copies) if (at,) not in odd]
        if len(group.copies) < 2:
            group.reason = "white space that shows differs between its copies"
            return part
        part = aligned({(at,): one for at, one in enumerate(group.copies)})
    return part


def _next(name: str) -> str:
    ending = re.search(r"\d+$", name)
    return f"{name}2" if ending is None else f"{name[: ending.start()]}{int(ending[0]) + 1}"


# -- files -------------------------------------------------------------------------------


@dataclass
class _Made:
    files: dict[Path, str]
    entries: dict[Path, Path]
    results: list[Result]
    findings: list[Finding]
    carried: dict[str, tuple[str, Path]]
    owners: dict[str, Group]


def _written(
    pages: list[PageLift],
    groups: list[Group],
    lifted: dict[int, Lifted],
    target: str,
    folder: Path | None,
) -> _Made:
    """The texts of all files in the target syntax, by where they are to stand."""
    into = folder or pages[0].path.parent
    for page in pages:
        page.dropped.clear()
    composed: dict[str, str] = {}
    owners: dict[str, Group] = {}
    plain = target == COMPOSED
    for group in groups:
        made = lifted.get(id(group))
        if made is None or not group.lifted:
            lifted.pop(id(group), None)
            continue
        try:
            styles = "\n".join(page.take_styles(group.copies) for page in pages).strip()
            name = f"{made.name}.vue"
            composed[name] = made.text(styles, scoped=plain, passes_on=plain)
            owners[name] = group
        except NotAFile as reason:
            group.reason = f"no template can say {reason.detail}"
            lifted.pop(id(group), None)
    entries: dict[Path, Path] = {}
    findings: list[Finding] = []
    for page in pages:
        stem = pascal(page.path.name.partition(".")[0]) or "Page"
        while f"{stem}.vue" in composed:
            stem += "Page"
        used = [
            (lifted[id(group)], group)
            for group in groups
            if id(group) in lifted and any(one.source is page.source for one in group.copies)
        ]
        composed[f"{stem}.vue"], notes = page.text(used, setup=plain)
        findings += notes
        entries[page.path] = Path(f"{stem}.vue")
    if plain:
        files = {into / name: text for name, text in composed.items()}
        return _Made(
            files, {page: into / name for page, name in entries.items()}, [], findings, {}, owners
        )
    carried = _carried(composed, owners, entries, target, into)
    carried.findings += findings
    return carried


def _carried(
    composed: dict[str, str],
    owners: dict[str, Group],
    entries: dict[Path, Path],
    target: str,
    into: Path,
) -> _Made:
    syntax = declared(target)
    runtime = major(package_version(folder_of(into), syntax.runtime.name))
    files: dict[Path, str] = {}
    places: dict[str, Path] = {}
    results: list[Result] = []
    renamed: dict[str, str] = {}
    with tempfile.TemporaryDirectory() as work:
        for name, text in composed.items():
            Path(work, name).write_text(text, "utf-8")
        requests = [
            Request(Path(work, name), name, target, COMPOSED, runtime=runtime, assume_carried=True)
            for name in composed
        ]
        for request, outcome in carry_together(requests, 1):
            if isinstance(outcome, CarryError):
                raise outcome
            results += outcome
            for result in outcome:
                for number, file in enumerate(result.files):
                    ending = Path(file.path).suffix
                    stem = request.path.stem
                    name = f"{stem}{ending}" if number == 0 else Path(file.path).name
                    renamed[Path(file.path).name] = name
                    files[into / name] = file.text
                    if number == 0:
                        places[request.shown] = into / name
    for path, text in files.items():
        for old, new in renamed.items():
            text = text.replace(f"'./{old}'", f"'./{new}'").replace(f'"./{old}"', f'"./{new}"')
        files[path] = text
    found = {page: places[name.name] for page, name in entries.items() if name.name in places}
    carried = {
        name.partition(".")[0]: (text, places[name])
        for name, text in composed.items()
        if name in owners and name in places
    }
    return _Made(files, found, results, [], carried, owners)
