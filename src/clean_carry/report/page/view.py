"""The values that the templates show of a subject, made from verdict, ledger and texts."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from clean_carry.report import words
from clean_carry.report.page.causes import behind
from clean_carry.report.page.outline import element_of, outline
from clean_carry.report.page.pictures import Picture, alike, pictures
from clean_carry.report.page.rows import Row, aligned
from clean_carry.report.subject import OUTCOMES, Subject
from clean_carry.verify.browser.browser_run import Shot
from clean_carry.verify.compare import Difference
from clean_carry.verify.judge import TrialResult
from clean_carry.verify.normalise import RULES
from clean_carry.verify.trials import Trial

# Pictures shown of a pair that is the same.
MOST_SHOTS = 6
# Source lines shown of a side.
MOST_LINES = 3
_REASONS = {rule.name: rule.reason for rule in RULES}


@dataclass(frozen=True)
class Told:
    """The differences of one element, or of none: (kind, property or "", old, new) each.

    `lines` are the source lines that may be behind it: (side, number from 1, text).
    """

    place: str
    values: tuple[tuple[str, str, str, str], ...]
    causes: tuple[str, ...]
    lines: tuple[tuple[str, int, str], ...]


@dataclass(frozen=True)
class OutlineRow:
    """Lines of both trees side by side: texts (None where a side has none), indents, marks."""

    kind: str
    old: str | None
    new: str | None
    marked: bool


@dataclass(frozen=True)
class Scene:
    """A point of a trial where old and new differ, with the steps that lead there."""

    name: str
    at: str
    engine: str
    given: tuple[str, ...]
    steps: tuple[str, ...]
    told: tuple[Told, ...]
    moved: tuple[Told, ...]
    drawn: tuple[Picture, Picture | None] | None
    outline: tuple[OutlineRow, ...]


@dataclass(frozen=True)
class SourceRow:
    """A row of the sources; `mark` is the outcome shown in the margin, `notes` what it says."""

    kind: str
    old: str | None
    old_number: int | None
    new: str | None
    new_number: int | None
    mark: str = ""
    notes: tuple[str, ...] = ()


def scenes(subject: Subject) -> list[Scene]:
    """Return the points that differ, in the order they were found.

    The browser's views of a trial are shown there too, with their pictures.
    """
    verification = subject.verification
    if verification is None:
        return []
    found: list[Scene] = []
    sources = verification.known
    seen = verification.seen
    told: set[tuple[str, int, str, str]] = set()
    shown: list[Shot] = []
    for result in seen.results if seen is not None else ():
        name = next((n for n in sources if result.name.startswith(f"{n} (")), "")
        fresh = [d for d in result.differences if (name, d.step, d.what, d.place) not in told]
        told |= {(name, one.step, one.what, one.place) for one in fresh}
        view = result.name[len(name) + 2 : -1]
        shots = {
            shot.step: shot
            for shot in (seen.shots if seen is not None else ())
            if shot.trial == name and shot.view == view
        }
        found += _scenes_of(subject, result, fresh, sources.get(name), (view, shots, shown))
    for result in verification.trials:
        fresh = [
            d for d in result.differences if (result.name, d.step, d.what, d.place) not in told
        ]
        found += _scenes_of(subject, result, fresh, sources.get(result.name), None)
    return found


def _scenes_of(
    subject: Subject, result: TrialResult, differences: list[Difference], trial: Trial | None,
    browser: tuple[str, dict[int, Shot], list[Shot]] | None,
) -> list[Scene]:  # fmt: skip
    trees = {step: (old, new) for step, old, new in result.trees}
    shots = browser[1] if browser is not None else {}
    found = []
    for step in sorted({one.step for one in differences}):
        here = [one for one in differences if one.step == step]
        old, new = trees.get(step, ([], []))
        shot = shots.get(max((at for at in shots if at <= step), default=-1))
        if shot is not None and browser is not None:
            # The same picture once more shows nothing new.
            shown = browser[2]
            shot = None if any(alike(shot, other) for other in shown) else shot
            shown += [shot] if shot is not None else []
        done = [words.step(one) for one in (trial.steps[:step] if trial is not None else ())]
        found.append(
            Scene(
                trial.name if trial is not None else result.name,
                _when(here[0], done),
                f"the browser at {browser[0]}" if browser is not None else "the simulated page",
                tuple(words.given(trial)) if trial is not None else (),
                tuple(done),
                *_grouped(subject, here, (old, new)),
                pictures(shot) if shot is not None else None,
                tuple(_outlines(old, new, here)),
            )
        )
    return found


def _when(difference: Difference, done: list[str]) -> str:
    """Return when a point was reached: after the last step, or at either end."""
    if difference.step == 0:
        return "after mounting"
    if difference.step_name == "the end":
        return "at the end"
    return f"after: {done[-1]}" if done else f"after {difference.step_name}"


def _grouped(
    subject: Subject, differences: list[Difference], trees: tuple[Any, Any]
) -> tuple[tuple[Told, ...], tuple[Told, ...]]:
    """Group differences by element; return also the elements whose box alone differs, if others
    explain it."""
    groups: dict[str, list[Difference]] = {}
    for one in differences:
        groups.setdefault(element_of(one.place), []).append(one)
    told: list[Told] = []
    moved: list[Told] = []
    for place, group in groups.items():
        alone = all(one.what == "box" for one in group)
        (moved if alone else told).append(_told(place, group, subject, trees))
    return (tuple(told), tuple(moved)) if told else (tuple(moved), ())


def _told(place: str, group: list[Difference], subject: Subject, trees: tuple[Any, Any]) -> Told:
    lines = []
    for side, tree, text in (
        ("old", trees[0], subject.old_text),
        ("new", trees[1], subject.new_text),
    ):
        texts = text.splitlines()
        numbers = dict.fromkeys(at for one in group for at in behind(one, tree, texts))
        lines += [(side, at + 1, texts[at].strip()) for at in list(numbers)[:MOST_LINES]]
    values = [
        (
            one.what,
            one.place[len(place) :].strip(" @"),
            words.value(one.what, one.old, 400),
            words.value(one.what, one.new, 400),
        )
        for one in group
    ]
    causes = dict.fromkeys(one.cause for one in group if one.cause)
    return Told(place, tuple(values), tuple(causes), tuple(lines))


def _outlines(old: Any, new: Any, told: list[Difference]) -> list[OutlineRow]:
    """Both trees side by side; those that go on for long are cut to what is around the marks."""
    plain = [one for one in told if one.what != "box"] or told
    places = frozenset(element_of(one.place) for one in plain if one.place)
    ours, theirs = outline(old, places), outline(new, places)
    texts = [["  " * line.depth + line.text for line in side] for side in (ours, theirs)]
    rows = []
    for row in aligned(*texts):
        marked = (row.old is not None and ours[row.old].marked) or (
            row.new is not None and theirs[row.new].marked
        )
        rows.append(
            OutlineRow(
                row.kind,
                texts[0][row.old] if row.old is not None else None,
                texts[1][row.new] if row.new is not None else None,
                marked or row.kind != "same",
            )
        )
    return _around(rows)


AROUND = 6


def _around(rows: list[OutlineRow]) -> list[OutlineRow]:
    if len(rows) <= 40:
        return rows
    near = {
        at
        for number, row in enumerate(rows)
        if row.marked
        for at in range(number - AROUND, number + AROUND + 1)
    }
    shown: list[OutlineRow] = []
    for number, row in enumerate(rows):
        if number in near:
            shown.append(row)
        elif not shown or shown[-1].kind != "gap":
            shown.append(OutlineRow("gap", "…", "…", False))
    return shown


def drawn(subject: Subject) -> list[tuple[str, tuple[Picture, Picture | None]]]:
    """Return (caption, both pictures) of screenshots without a difference, each look once."""
    verification = subject.verification
    if verification is None or verification.seen is None or verification.verdict == "differs":
        return []
    shots = [shot for shot in verification.seen.shots if shot.step_name != "remove"]
    step = max(1, len(shots) // MOST_SHOTS)
    chosen: list[Shot] = []
    for shot in shots[::step]:
        if len(chosen) < MOST_SHOTS and not any(alike(shot, other) for other in chosen):
            chosen.append(shot)
    found: dict[str, tuple[str, tuple[Picture, Picture | None]]] = {}
    for shot in chosen:
        both = pictures(shot)
        # Cropped, windows of two widths may look alike.
        found.setdefault(both[0].url, (f"{shot.trial} · {shot.view} · {_after(shot)}", both))
    return list(found.values())


def _after(shot: Shot) -> str:
    return "after mounting" if shot.step == 0 else f"after step {shot.step}, {shot.step_name}"


def sources(subject: Subject) -> list[SourceRow]:
    """Old and new source side by side, with the ledger in the margin."""
    old, new = subject.old_text.splitlines(), subject.new_text.splitlines()
    ledger = subject.ledger
    pairs = aligned(old, new) if new else [Row("plain", at, None) for at in range(len(old))]
    rows = []
    for pair in pairs:
        i, j = pair.old, pair.new
        entries = ledger.get(i + 1, []) if i is not None else []
        mark = next((o for o in OUTCOMES if any(e.outcome == o for e in entries)), "")
        notes = dict.fromkeys(
            f"{e.outcome}: {_worded(e.notion)}{f', by {e.rule}' if e.rule else ''}" for e in entries
        )
        rows.append(
            SourceRow(
                pair.kind,
                old[i] if i is not None else None,
                i + 1 if i is not None else None,
                new[j] if j is not None else None,
                j + 1 if j is not None else None,
                mark,
                tuple(notes),
            )
        )
    return rows


def _worded(slug: str) -> str:
    return slug.replace("-", " ")


def set_aside(subject: Subject) -> list[tuple[str, int, str]]:
    """(rule, how often, why) of what was not counted as a difference."""
    if subject.verification is None:
        return []
    used = subject.verification.normalised
    return [(rule, count, _REASONS.get(rule, "")) for rule, count in used.items()]


def trials(subject: Subject) -> list[tuple[str, TrialResult, tuple[str, ...]]]:
    """(engine, result, what the trial gives and does) of each trial shown."""
    verification = subject.verification
    if verification is None:
        return []
    sources = verification.known

    def does(name: str) -> tuple[str, ...]:
        trial = sources.get(name)
        if trial is None:
            return ()
        return (*words.given(trial), *(words.step(step) for step in trial.steps))

    found = [("page", result, does(result.name)) for result in verification.trials]
    told = {result.name for result in verification.trials}
    for result in verification.seen.results if verification.seen is not None else ():
        # The steps of a trial are listed once: with its first view, where it ran in the browser alone.
        name = next((n for n in sources if result.name.startswith(f"{n} (")), "")
        found.append(("browser", result, () if name in told else does(name)))
        told.add(name)
    return found
