"""Texts that the commands print, coloured if the terminal supports it."""

from __future__ import annotations

import difflib
from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import TYPE_CHECKING

import click

from clean_carry.component.errors import printable
from clean_carry.component.result import Result
from clean_carry.report import words

if TYPE_CHECKING:
    from clean_carry.verify.judge import TrialResult
    from clean_carry.verify.trials import Trial
    from clean_carry.verify.verify import Verification

_STATUS = {"clean": "green", "left": "magenta", "refused": "red"}
_LEVEL = {"note": "cyan", "warning": "magenta", "error": "red"}
_VERDICT = {
    "same": "green", "differs": "red", "unproven": "magenta", "not run": "magenta", "void": "magenta"
}  # fmt: skip


def diff(old: str, new: str, old_name: str, new_name: str) -> Iterator[str]:
    """A unified diff, line by line, coloured."""
    lines = difflib.unified_diff(
        old.splitlines(), new.splitlines(), old_name, new_name, lineterm=""
    )
    for line in map(printable, lines):
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


def heading(result: Result, new: str) -> str:
    """Return the line above a diff: from which syntax to which, and that nothing was written."""
    kinds = f"{result.origin} → {result.target}"
    return click.style(
        f"{printable(result.source)} as {printable(new)} ({kinds}); not written without --write:",
        bold=True,
    )


def summary(result: Result, *, notes: bool = True) -> Iterator[str]:
    """Yield a line of status and counts, then the findings; `notes` among them if wanted."""
    counts = result.counts
    status = click.style(result.status, fg=_STATUS[result.status])
    line = f"{click.style(printable(result.component), bold=True)}: {status}"
    if result.status != "refused":
        line += (
            f" · constructs: {counts['kept']} kept, {counts['carried']} carried, "
            f"{counts['dropped']} dropped, {counts['left']} left"
        )
    yield line
    for finding in result.findings:
        if finding.level == "note" and not notes:
            continue
        level = click.style(finding.level, fg=_LEVEL[finding.level])
        where = printable(f"{finding.file}:{finding.line}:{finding.column}")
        yield f"  {where}: {level}: {printable(finding.message)} [{finding.rule}]"
        yield f"      {click.style('→', dim=True)} {printable(finding.advice)}"


def totals(
    results: Sequence[Result],
    verdicts: Iterable[Verification],
    passed_over: Mapping[str, int],
) -> Iterator[str]:
    """Many components at a glance: how many of each status, by which rules, and the verdicts.

    `passed_over` are files of other syntaxes in the folders searched, by syntax.
    """
    counts: Counter[str] = Counter(result.status for result in results)
    shown = [
        click.style(f"{counts[status]} {called}", fg=_STATUS[status] if counts[status] else None)
        for status, called in (("clean", "clean"), ("left", "left in part"), ("refused", "refused"))
    ]
    files = len({result.source for result in results})
    yield ""
    yield f"{len(results)} components in {words.many(files, 'file')}: {', '.join(shown)}"
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
    noted: dict[str, set[str]] = {}
    for result in results:
        for finding in result.findings:
            if finding.level == "note":
                noted.setdefault(finding.rule, set()).add(result.source)
    if noted:
        ordered = sorted(noted.items(), key=lambda item: (-len(item[1]), item[0]))
        named = ", ".join(f"{rule} in {words.many(len(files), 'file')}" for rule, files in ordered)
        yield f"  notes: {named} (--verbose lists them, `clean-carry explain RULE` explains one)"
    given = Counter(verification.verdict for verification in verdicts)
    if given:
        named = ", ".join(f"{count} {verdict}" for verdict, count in given.most_common())
        yield f"  verified: {named}"
    if passed_over:
        named = ", ".join(f"{count} {syntax}" for syntax, count in sorted(passed_over.items()))
        yield f"  skipped, in other syntaxes: {named}"


def verdict(verification: Verification, name: str, *, verbose: bool = False) -> Iterator[str]:
    """Yield the result of each trial, where old and new differ, and the verdict.

    A `verbose` one also counts the differences that were normalised.
    """
    shown = [t for t in verification.trials if not verification.generated or t.verdict != "same"]
    if verification.seen is not None:
        shown += [t for t in verification.seen.results if t.verdict != "same"]
    for trial in shown:
        yield from _trial(trial)
    if verification.failing is not None and verification.generated:
        yield from _source(verification.failing)
    if verification.reason:
        yield f"  {printable(verification.reason)}"
    said = click.style(verification.verdict, fg=_VERDICT[verification.verdict])
    found = "generated and run" if verification.generated else "run"
    trials = words.many(verification.tried, "trial")
    yield (
        f"{click.style(printable(name), bold=True)}: {said} ({trials} {found}, "
        f"{words.many(verification.points, 'point')} compared)"
    )
    yield from (
        click.style(f"  {printable(text)}", dim=True)
        for what, text in words.facts(verification)
        if verbose or what != "normalised"
    )


def _trial(trial: TrialResult) -> Iterator[str]:
    said = click.style(trial.verdict, fg=_VERDICT[trial.verdict])
    steps = f" · {words.many(len(trial.steps), 'point')}" if trial.steps else ""
    yield f"  {said}  {printable(trial.name)}{steps}"
    for text in (trial.reason, trial.note):
        if text:
            yield f"      {printable(text)}"
    for difference in trial.differences[:6]:
        place = f" at {printable(difference.place)}" if difference.place else ""
        step = printable(difference.step_name)
        yield f"      after step {difference.step} ({step}): {difference.what}{place}"
        old, new = (
            printable(words.value(difference.what, side))
            for side in (difference.old, difference.new)
        )
        yield click.style(f"        old  {old}", fg="blue")
        yield click.style(f"        new  {new}", fg="yellow")
        if difference.cause:
            cause = printable(words.short(difference.cause))
            yield click.style(f"        by   {cause}", dim=True)
    if len(trial.differences) > 6:
        yield f"      … and {len(trial.differences) - 6} more"


def _source(trial: Trial) -> Iterator[str]:
    """The trial itself, so that a person can follow it."""
    yield "      the trial:"
    given = list(words.given(trial))
    for line in given or ["the component is mounted without props"] * (not trial.steps):
        yield f"        {printable(line)}"
    for number, step in enumerate(trial.steps, 1):
        yield f"        step {number}: {printable(words.step(step))}"
