"""What the commands print: plain text, coloured where the terminal takes it."""

from __future__ import annotations

import difflib
import json
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from typing import TYPE_CHECKING, Any

import click

from clean_carry.component.result import Result

if TYPE_CHECKING:
    from clean_carry.verify.judge import TrialResult
    from clean_carry.verify.reach import Reach
    from clean_carry.verify.trials import Trial
    from clean_carry.verify.verify import Verification

_STATUS = {"clean": "green", "left": "magenta", "refused": "red"}
_LEVEL = {"note": "cyan", "warning": "magenta", "error": "red"}
_VERDICT = {"same": "green", "differs": "red", "not run": "magenta", "void": "magenta"}


def diff(old: str, new: str, old_name: str, new_name: str) -> Iterator[str]:
    """A unified diff, line by line, coloured."""
    lines = difflib.unified_diff(
        old.splitlines(), new.splitlines(), old_name, new_name, lineterm=""
    )
    for line in lines:
        if line.startswith(("---", "+++")):
            yield click.style(line, bold=True)
        elif line.startswith("@@"):
            yield click.style(line, fg="cyan")
        elif line.startswith("+"):
            yield click.style(line, fg="green")
        elif line.startswith("-"):
            yield click.style(line, fg="red")
        else:
            yield line


def summary(result: Result) -> Iterator[str]:
    """One line of status and ledger, then the findings."""
    counts = result.counts
    status = click.style(result.status, fg=_STATUS[result.status])
    line = f"{click.style(result.component, bold=True)}: {status}"
    if result.status != "refused":
        line += (
            f" · ledger: {counts['kept']} kept, {counts['carried']} carried, "
            f"{counts['dropped']} dropped, {counts['left']} left"
        )
    yield line
    for finding in result.findings:
        level = click.style(finding.level, fg=_LEVEL[finding.level])
        where = f"{finding.file}:{finding.line}:{finding.column}"
        yield f"  {where}: {level}: {finding.message} [{finding.rule}]"
        yield f"      {click.style('→', dim=True)} {finding.advice}"


def totals(results: Sequence[Result], verdicts: Iterable[Verification]) -> Iterator[str]:
    """Many components at a glance: how many of each status, by which rules, and the verdicts."""
    counts: Counter[str] = Counter(result.status for result in results)
    shown = [
        click.style(f"{counts[status]} {called}", fg=_STATUS[status] if counts[status] else None)
        for status, called in (("clean", "clean"), ("left", "left in part"), ("refused", "refused"))
    ]
    files = len({result.source for result in results})
    yield ""
    yield f"{len(results)} components in {_many(files, 'file')}: {', '.join(shown)}"
    for status in ("left", "refused"):
        rules = Counter(
            rule
            for result in results
            if result.status == status
            for rule in {finding.rule for finding in result.findings if finding.level != "note"}
        )
        if rules:
            named = ", ".join(f"{rule} {count}" for rule, count in rules.most_common())
            yield f"  {status}: {named}"
    given = Counter(verification.verdict for verification in verdicts)
    if given:
        named = ", ".join(f"{count} {verdict}" for verdict, count in given.most_common())
        yield f"  verified: {named}"


def verdict(verification: Verification, name: str) -> Iterator[str]:
    """What each trial gave, where old and new differ, and the verdict over all."""
    shown = [t for t in verification.trials if not verification.generated or t.verdict != "same"]
    if verification.seen is not None:
        shown += [t for t in verification.seen.results if t.verdict != "same"]
    for trial in shown:
        yield from _trial(trial)
    if verification.failing is not None and verification.generated:
        yield from _source(verification.failing)
    if verification.reason:
        yield f"  {verification.reason}"
    said = click.style(verification.verdict, fg=_VERDICT[verification.verdict])
    found = "found and run" if verification.generated else "run"
    yield (
        f"{click.style(name, bold=True)}: {said} ({_many(verification.tried, 'trial')} {found}, "
        f"{_many(verification.points, 'settled point')} compared)"
    )
    yield from (click.style(f"  {text}", dim=True) for text in _footing(verification))


def _footing(verification: Verification) -> Iterator[str]:
    """How the verdict was reached."""
    if verification.cached:
        yield "answered from the cache: neither side, nor what they import, has changed"
    if verification.seen is not None:
        looked = verification.seen
        ran = _many(sum(r.verdict in ("same", "differs") for r in looked.results), "run")
        yield (
            f"in the browser: {looked.verdict}, {ran}, {_many(looked.points, 'settled point')}"
            f", at {'; '.join(looked.views)} ({looked.stopped})"
        )
        if looked.unlooked:
            yield f"not looked at, because there are so many: {_many(looked.unlooked, 'element')}"
    if verification.reach is not None and verification.tried:
        old, new = verification.reach
        yield f"reached: {_reach(old)} of old, {_reach(new)} of new"
    if verification.stopped:
        yield f"the search ended because {verification.stopped}"
    if verification.mounted and verification.generated:
        inside = f", inside {verification.around}" if verification.around else ""
        yield f"mounted: the export {verification.mounted}{inside}"
    if verification.void:
        yield f"void, because old differed from itself: {_many(verification.void, 'trial')}"
    for reason, count in verification.accepted.items():
        yield f"accepted by the project file ×{count}: {reason}"
    if verification.normalised:
        rules = ", ".join(f"{rule} ×{count}" for rule, count in verification.normalised.items())
        yield f"not counted as differences: {rules}"


def _reach(reach: Reach) -> str:
    if not reach.total:
        return "nothing countable"
    text = f"{reach.covered} of {reach.total} branches"
    lines = sorted({row["line"] for row in reach.unreached if row["line"]})
    if lines:
        more = f" and {len(lines) - 8} more" if len(lines) > 8 else ""
        text += f" (not line {', '.join(map(str, lines[:8]))}{more})"
    return text


def _trial(trial: TrialResult) -> Iterator[str]:
    said = click.style(trial.verdict, fg=_VERDICT[trial.verdict])
    steps = f" · {_many(len(trial.steps), 'settled point')}" if trial.steps else ""
    yield f"  {said}  {trial.name}{steps}"
    for text in (trial.reason, trial.note):
        if text:
            yield f"      {text}"
    for difference in trial.differences[:6]:
        place = f" at {difference.place}" if difference.place else ""
        yield f"      after step {difference.step} ({difference.step_name}): {difference.what}{place}"
        yield click.style(f"        old  {_short(difference.old)}", fg="red")
        yield click.style(f"        new  {_short(difference.new)}", fg="green")
        if difference.cause:
            yield click.style(f"        by   {_short(difference.cause)}", dim=True)
    if len(trial.differences) > 6:
        yield f"      … and {len(trial.differences) - 6} more"


def _source(trial: Trial) -> Iterator[str]:
    """The trial itself, so that a person can follow it."""
    yield "      what it does:"
    for what, value in (
        ("inputs", trial.inputs),
        ("functions", trial.functions),
        ("content", trial.slots),
        ("replies", trial.replies),
    ):
        if value:
            yield f"        {what}: {_short(value)}"
    for number, step in enumerate(trial.steps, 1):
        yield f"        step {number}: {_step(step)}"


def _step(step: dict[str, Any]) -> str:
    """A step in words: what is done, on which element, with what."""
    (kind, given), *_ = step.items()
    if not isinstance(given, dict):
        return kind if given is True else f"{kind} {given} ms"
    rest = dict(given)
    what = rest.pop("role", None) or rest.pop("tag", None) or rest.pop("place", None)
    words = [kind]
    if kind == "key":
        key = str(rest.pop("key"))
        words.append("Space" if key == " " else key)
    words += ["on", str(what)] if what else []
    if "name" in rest:
        words.append(f"“{rest.pop('name')}”")
    if "position" in rest:
        words.append(f"number {rest.pop('position')}")
    words += [f"{name} {_short(value)}" for name, value in rest.items()]
    return " ".join(words)


def _many(number: int, thing: str) -> str:
    return f"{number} {thing}{'' if number == 1 else 's'}"


def _short(value: object) -> str:
    text = value if isinstance(value, str) else json.dumps(value, ensure_ascii=False)
    text = " ".join(text.split()) or "(nothing)"
    return text if len(text) <= 160 else text[:157] + "…"
