"""What the commands print: plain text, coloured where the terminal takes it."""

from __future__ import annotations

import difflib
import json
from collections.abc import Iterator

import click

from clean_carry.component.result import Result
from clean_carry.verify.verify import Verification

_STATUS = {"clean": "green", "left": "yellow", "refused": "red"}
_LEVEL = {"note": "cyan", "warning": "yellow", "error": "red"}
_VERDICT = {"same": "green", "differs": "red", "not run": "yellow", "void": "yellow"}


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
    status = click.style(result.status, fg=_STATUS[result.status], bold=True)
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


def verdict(verification: Verification, name: str) -> Iterator[str]:
    """A line a trial, its differences, and the verdict over all."""
    for trial in verification.trials:
        said = click.style(trial.verdict, fg=_VERDICT[trial.verdict], bold=True)
        steps = f" · {len(trial.steps)} settled points" if trial.steps else ""
        yield f"  {said}  {trial.name}{steps}"
        for text in (trial.reason, trial.note):
            if text:
                yield f"      {text}"
        for difference in trial.differences[:6]:
            place = f" at {difference.place}" if difference.place else ""
            head = (
                f"after step {difference.step} ({difference.step_name}): {difference.what}{place}"
            )
            yield f"      {head}"
            yield click.style(f"        old  {_short(difference.old)}", fg="red")
            yield click.style(f"        new  {_short(difference.new)}", fg="green")
        if len(trial.differences) > 6:
            yield f"      … and {len(trial.differences) - 6} more"
    if verification.reason:
        yield f"  {verification.reason}"
    ran = [t for t in verification.trials if t.verdict in ("same", "differs")]
    points = sum(len(t.steps) for t in ran)
    said = click.style(verification.verdict, fg=_VERDICT[verification.verdict], bold=True)
    yield (
        f"{click.style(name, bold=True)}: {said} "
        f"({_many(len(ran), 'trial')} run, {_many(points, 'settled point')} compared)"
    )
    if verification.normalised:
        rules = ", ".join(f"{rule} ×{count}" for rule, count in verification.normalised.items())
        yield click.style(f"  not counted as differences: {rules}", dim=True)


def _many(number: int, thing: str) -> str:
    return f"{number} {thing}{'' if number == 1 else 's'}"


def _short(value: object) -> str:
    text = value if isinstance(value, str) else json.dumps(value, ensure_ascii=False)
    text = " ".join(text.split()) or "(nothing)"
    return text if len(text) <= 160 else text[:157] + "…"
