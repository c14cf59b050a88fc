"""Look a code base over: its components, who uses whom, what a carry would leave, and in which order."""

from __future__ import annotations

import heapq
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from clean_carry.component.errors import CarryError
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request
from clean_carry.crossing.many import carry_together
from clean_carry.project.index.build import Say
from clean_carry.project.index.links import Index
from clean_carry.project.index.model import Found, Key, Use
from clean_carry.project.index.store import FactStore
from clean_carry.source.workspace import major
from clean_carry.syntaxes.registry import declared, way

# How easy a component is to carry, by the outcome of a dry run; "" is not tried.
_EASE = {"clean": 0, "": 1, "left": 2, "refused": 3, "not read": 4, "no crossing": 5, "done": 6}
# A reason names so many components.
_NAMED = 3


@dataclass(frozen=True)
class Tried:
    """The outcome of a dry run, and the rules of its findings without notes.

    `outcome` is `clean`, `left`, `refused` or `no crossing`. It is `not read` where the index sees a
    component and no reader does, and `done` for a component in the target syntax.
    """

    to: str
    outcome: str
    rules: tuple[str, ...] = ()

    def as_json(self) -> dict[str, Any]:
        """The JSON shape: {"to", "outcome", "rules"}."""
        return {"to": self.to, "outcome": self.outcome, "rules": list(self.rules)}


@dataclass
class Row:
    """A component in a survey. `order` counts from 1; `cycle` are the others it stands in a cycle with."""

    found: Found
    users: list[Use]
    uses: list[Found]
    carry: Tried | None = None
    order: int = 0
    reason: str = ""
    cycle: tuple[str, ...] = ()
    waits: tuple[str, ...] = field(default=())

    @property
    def name(self) -> str:
        """The component's name."""
        return self.found.seen.name

    @property
    def files_using(self) -> int:
        """The number of other source files that use it; files that only pass it on do not count."""
        return len(
            {
                use.file
                for use in self.users
                if use.role == "source"
                and use.how not in ("re-export", "script")
                and use.file != self.found.key.file
            }
        )

    def as_json(self, root: Path) -> dict[str, Any]:
        """The JSON shape of a component in `survey --json`."""
        top = len(root.as_posix().rstrip("/")) + 1
        seen = self.found.seen
        return {
            "name": seen.name,
            "file": self.found.key.file[top:],
            "line": seen.line,
            "syntax": seen.syntax,
            "lines": seen.lines,
            "counts": seen.counts,
            "users": [
                {"file": use.file[top:], "line": use.line, "how": use.how, "role": use.role}
                for use in self.users
            ],
            "uses": [
                {"name": one.seen.name, "file": one.key.file[top:], "line": one.seen.line}
                for one in self.uses
            ],
            "cycle": list(self.cycle),
            "order": self.order,
            "reason": self.reason,
            "carry": self.carry.as_json() if self.carry is not None else None,
        }


def survey(
    index: Index, paths: Iterable[Path] = (), tried: Mapping[Key, Tried] | None = None
) -> list[Row]:
    """The components below some paths (all without any), in the order in which to carry them.

    Leaves come first, the easy ones first among those that wait for nothing: by the outcome of the dry run,
    then by how few lines they have. Components of tests and stories are left out.
    """
    tops = [path.resolve().as_posix() for path in paths]
    wanted = {
        key: found
        for key, found in index.components.items()
        if index.role(key.file) == "source"
        and (
            not tops
            or any(key.file == top or key.file.startswith(top.rstrip("/") + "/") for top in tops)
        )
    }
    rows = {}
    for key, found in wanted.items():
        used = dict.fromkeys(target for target, use in found.uses if use.role == "source")
        uses = [index.components[target] for target in used]
        rows[key] = Row(found, found.users, uses, (tried or {}).get(key))
    _order(rows)
    return sorted(rows.values(), key=lambda row: row.order)


def _order(rows: dict[Key, Row]) -> None:
    edges = {
        key: [one.key for one in row.uses if one.key in rows and one.key != key]
        for key, row in rows.items()
    }
    group_of: dict[Key, int] = {}
    groups = _cycles(edges)
    for number, group in enumerate(groups):
        group_of.update(dict.fromkeys(group, number))
        if len(group) > 1:
            for key in group:
                rows[key].cycle = tuple(rows[one].name for one in group if one != key)
    # Components that are there already hold nobody up.
    waits = {
        number: {
            group_of[to]
            for key in group
            for to in edges[key]
            if group_of[to] != number and not _is_done(rows[to])
        }
        for number, group in enumerate(groups)
    }
    wanted_by: dict[int, list[int]] = {number: [] for number in waits}
    for number, others in waits.items():
        for other in others:
            wanted_by[other].append(number)

    def ease(number: int) -> tuple[int, int, str, int]:
        found = [rows[key] for key in groups[number]]
        outcome = max(_EASE[row.carry.outcome if row.carry is not None else ""] for row in found)
        return outcome, sum(row.found.seen.lines for row in found), found[0].name, number

    ready = [ease(number) for number, others in waits.items() if not others]
    heapq.heapify(ready)
    place = 0
    while ready:
        number = heapq.heappop(ready)[-1]
        for key in sorted(groups[number], key=lambda one: rows[one].found.seen.lines):
            place += 1
            rows[key].order, rows[key].reason = place, _reason(rows[key])
        for other in wanted_by[number]:
            waits[other].discard(number)
            if not waits[other]:
                heapq.heappush(ready, ease(other))


def _is_done(row: Row) -> bool:
    return row.carry is not None and row.carry.outcome == "done"


def _reason(row: Row) -> str:
    parts = [f"used by {row.files_using}" if row.files_using else "used by nothing"]
    names = sorted({one.seen.name for one in row.uses})
    if row.cycle:
        parts.append(f"in a cycle with {_listed(list(row.cycle))}")
    elif names:
        parts.append(f"uses {_listed(names)}")
    else:
        parts.append("uses nothing")
    if row.carry is not None:
        parts.append(_outcome(row.carry))
    return ", ".join(parts)


def _outcome(tried: Tried) -> str:
    if tried.outcome == "done":
        return f"already {tried.to}"
    rules = f" ({_listed(list(tried.rules))})" if tried.rules else ""
    return f"{tried.outcome}{rules}"


def _listed(names: list[str]) -> str:
    more = f" and {len(names) - _NAMED} more" if len(names) > _NAMED else ""
    return ", ".join(names[:_NAMED]) + more


def _cycles(edges: Mapping[Key, list[Key]]) -> list[list[Key]]:
    """The strongly connected groups of a graph (Tarjan 1972), without recursion."""
    number: dict[Key, int] = {}
    low: dict[Key, int] = {}
    held: list[Key] = []
    inside: set[Key] = set()
    groups: list[list[Key]] = []
    for start in edges:
        work: list[tuple[Key, int]] = [(start, 0)] if start not in number else []
        while work:
            key, at = work.pop()
            if at == 0:
                number[key] = low[key] = len(number)
                held.append(key)
                inside.add(key)
            for to in edges[key][at:]:
                at += 1
                if to not in number:
                    work += [(key, at), (to, 0)]
                    break
                if to in inside:
                    low[key] = min(low[key], number[to])
            else:
                if low[key] == number[key]:
                    cut = held.index(key)
                    groups.append(held[cut:])
                    inside -= set(held[cut:])
                    del held[cut:]
                if work:
                    above = work[-1][0]
                    low[above] = min(low[above], low[key])
    return groups


def dry_run(
    index: Index, target: str, paths: Iterable[Path], *, processes: int, say: Say, fresh: bool
) -> dict[Key, Tried]:
    """The outcome of carrying each component to `target`; files are carried once for each state of them.

    The outcomes are kept under the content of all files: what one file becomes depends on others.
    """
    rows = survey(index, paths)
    found: dict[Key, Tried] = {}
    wanted: dict[str, list[Key]] = {}
    for row in rows:
        key, syntax = row.found.key, row.found.seen.syntax
        if syntax == target:
            found[key] = Tried(target, "done")
        elif not way(syntax, target):
            found[key] = Tried(target, "no crossing")
        else:
            wanted.setdefault(key.file, []).append(key)
    store = FactStore.of(index.root, fresh=fresh)
    try:
        kept = store.values(f"carry {target} {index.digest}")
        missing = [file for file in wanted if file not in kept]
        new = _carried(index, target, missing, processes, say)
        if new:
            store.keep_values(f"carry {target} {index.digest}", new)
        kept.update(new)
    finally:
        store.close()
    for file, keys in wanted.items():
        outcomes = kept.get(file, [])
        for key in keys:
            line = index.components[key].seen.line
            found[key] = _tried(target, index.components[key].seen.name, line, outcomes)
    return found


def _tried(target: str, name: str, line: int, outcomes: list[list[Any]]) -> Tried:
    """The outcome for one component of a file: by its name, or the file's only one."""
    for own, status, rules in outcomes:
        if own == name or len(outcomes) == 1:
            return Tried(target, status, tuple(rules))
    return Tried(target, "not read")


def _carried(
    index: Index, target: str, files: list[str], processes: int, say: Callable[[int, int], None]
) -> dict[str, list[list[Any]]]:
    settings = index.settings
    runtime = major(settings.runtimes.get(declared(target).runtime.name))
    requests = [
        Request(
            Path(file), file, target, runtime=runtime, naming=settings.naming.get(target, ""),
            aliases=tuple(settings.aliases.items()), prefix=settings.prefix, assume_carried=True,
        )
        for file in files
    ]  # fmt: skip
    found: dict[str, list[list[Any]]] = {}
    for request, outcome in carry_together(requests, processes):
        say(len(found) + 1, len(requests))
        if isinstance(outcome, CarryError):
            found[request.shown] = [["", "refused", []]]
            continue
        found[request.shown] = [_row(result) for result in outcome]
    return found


def _row(result: Result) -> list[Any]:
    rules = dict.fromkeys(one.rule for one in result.findings if one.level != "note")
    return [result.component, result.status, list(rules)]
