"""Work that is left in a project beside marked places: refused components, and pairs without proof."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

from clean_carry.project.index.build import Say
from clean_carry.project.index.links import Index
from clean_carry.project.survey import dry_run, survey
from clean_carry.project.targets import usual_targets
from clean_carry.project.verdicts import known_verdicts
from clean_carry.project.walk.pairs import BRIDGE, written_beside


@dataclass(frozen=True)
class Refused:
    """A component that cannot be carried to a syntax, by which rules."""

    name: str
    file: str
    line: int
    to: str
    rules: tuple[str, ...]


@dataclass(frozen=True)
class Unproven:
    """An old file whose new file was never found to be the same; `verdict` is "" where it was not verified
    since one of them changed."""

    old: str
    new: str
    verdict: str


def refused(
    index: Index, paths: Iterable[Path], target: str | None, *, processes: int, say: Say
) -> list[Refused]:
    """The components that a carry would refuse, to `target` or to the one syntax of their own family."""
    paths = list(paths)
    rows = survey(index, paths)
    syntaxes = dict.fromkeys(row.found.seen.syntax for row in rows)
    wanted = {name: [target] if target else usual_targets([name]) for name in syntaxes}
    found = []
    for to in dict.fromkeys(t for targets in wanted.values() if len(targets) == 1 for t in targets):
        tried = dry_run(index, to, paths, processes=processes, say=say, fresh=False)
        for row in rows:
            outcome = tried.get(row.found.key)
            meant = wanted[row.found.seen.syntax] == [to]
            if outcome is not None and outcome.outcome == "refused" and meant:
                seen = row.found.seen
                found.append(Refused(seen.name, row.found.key.file, seen.line, to, outcome.rules))
    return found


def unproven(index: Index, paths: Iterable[Path]) -> list[Unproven]:
    """The old files with a new one beside them that is not known to be the same."""
    tops = [path.resolve().as_posix() for path in paths]
    pairs: list[tuple[Path, Path]] = []
    for file, facts in index.files.items():
        inside = not tops or any(
            file == top or file.startswith(f"{top.rstrip('/')}/") for top in tops
        )
        if facts.components and inside and f".{BRIDGE}." not in file:
            old = Path(file)
            pairs += [(old, new) for new, _ in written_beside(old, index.settings)]
    verdicts = known_verdicts(index.root, pairs)
    return [
        Unproven(str(old), str(new), verdict)
        for (old, new), verdict in zip(pairs, verdicts, strict=True)
        if verdict != "same"
    ]
