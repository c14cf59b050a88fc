"""`clean-carry demo`: a full example on the demo company's components."""

from __future__ import annotations

import json
import time
from pathlib import Path

import click

from clean_carry.demo.lifting import Lifting, lifted_page
from clean_carry.demo.story import Chapter, desk_page, searched, settle_in, tell
from clean_carry.demo.walk import Walk, walks
from clean_carry.report import terminal
from clean_carry.source.text import SourceText
from clean_carry.verify.worker_pool import Bench

# The component that is searched too, and for how many seconds.
SEARCHED, SECONDS = "TicketForm", 4.0
PARTS = {
    "components": "The staff pages: classes become functions (React 18)",
    "passenger": "The passenger pages: objects become statements (Vue 3)",
    "booking-desk": "The old booking desk: directives become components (AngularJS 1.8)",
    "passenger-older": "Older passenger pages, on the runtime they have (Vue 2.7)",
    "crew": "The crew pages: a newer notation, and another framework (Angular 21)",
}


@click.command(epilog="Example: clean-carry demo --into ferries")
@click.option(
    "--into",
    type=click.Path(path_type=Path),
    default=Path("gullmoor-ferries"),
    show_default=True,
    metavar="DIR",
    help="The folder to copy the components into.",
)
@click.option("--offline", is_flag=True, help="Never install a missing runtime.")
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def demo(into: Path, offline: bool, as_json: bool) -> None:
    """Run a full example: carry and verify the components of a made-up ferry company.

    Use it to see the whole tool at work in half a minute. The components are copied into a folder, so you
    can try other commands on them afterwards.
    """
    started = time.monotonic()
    say = (lambda text: None) if as_json else click.echo
    with Bench(offline=offline, say=lambda text: click.echo(text, err=True)) as bench:
        settle_in(into)
        say(click.style("Gullmoor Ferries moves its front end.", bold=True))
        say(f"Its components are now in {into}. None of them is changed; each new file stands")
        say("beside the old one, and both are rendered and compared.")
        chapters: list[Chapter] = []
        for chapter in tell(into, bench):
            title = PARTS.get(chapter.path.parent.name)
            if title and chapter.path.parent.name not in {c.path.parent.name for c in chapters}:
                say(click.style(f"\n{title}", bold=True))
            chapters.append(chapter)
            if not as_json:
                for line in _lines(chapter):
                    click.echo(line)
        page = desk_page(into, offline, lambda text: click.echo(text, err=True))
        say(f"{'':<16} old and new on one page: {page}")
        say(click.style("\nTwo components in applications, from survey to retirement", bold=True))
        walked = []
        for walk in walks(into, bench):
            walked.append(walk)
            for line in _walk_lines(walk):
                say(line)
        say(click.style("\nThe tourist page: blocks of plain HTML become components", bold=True))
        lifting = lifted_page(into, bench)
        for line in _lifting_lines(lifting):
            say(line)
        example = next(c for c in chapters if c.path.stem == SEARCHED)
        found = searched(example, bench, SECONDS)
    if as_json:
        rows = {
            "components": [_json(c) for c in chapters],
            "walks": [vars(walk) for walk in walked],
            "lifted": vars(lifting),
            "searched": found.as_json(),
        }
        click.echo(json.dumps(rows, indent=2))
    else:
        say(f"\nThe same without a trial file: {SECONDS:g} s of generated trials for {SEARCHED}.")
        for line in terminal.verdict(found, SEARCHED):
            click.echo(line)
        _ending(chapters, time.monotonic() - started)
    verdicts = [c.verification.verdict for c in chapters if c.verification is not None]
    every = [*verdicts, found.verdict, lifting.verdict]
    bad = [verdict for verdict in every if verdict != "same"]
    raise click.exceptions.Exit(int(bool(bad) or not all(walk.is_same for walk in walked)))


def _walk_lines(walk: Walk) -> list[str]:
    users = ", ".join(f"{name} {verdict}" for name, verdict in walk.users.items())
    colour = "green" if walk.is_same else "red"
    steps = [
        f"survey: {walk.order} of {walk.components} in the order ({walk.reason})",
        f"carry, verify: {walk.verdict}",
        f"switch: {walk.switched} files; users {users}; application half-way {walk.half_way}",
        f"retire: {walk.lines[0]} → {walk.lines[1]} lines; application in the end {walk.end}",
    ]
    name = click.style(f"{walk.component:<16}", bold=True)
    head = click.style("same    " if walk.is_same else "differs ", fg=colour)
    return [f"{name} {head}  {steps[0]}", *(f"{'':<26} {step}" for step in steps[1:])]


def _lifting_lines(lifting: Lifting) -> list[str]:
    colour = "green" if lifting.verdict == "same" else "red"
    name = click.style(f"{Path(lifting.page).stem:<16}", bold=True)
    told = ", ".join(f"{name} ×{count}" for name, count in lifting.copies.items())
    before, after = lifting.lines
    said = click.style(f"{lifting.verdict:<8}", fg=colour)
    return [f"{name} {said}  lifted: {told}", f"{'':<26} page: {before} → {after} lines"]


def _lines(chapter: Chapter) -> list[str]:
    result = chapter.result
    name = click.style(f"{result.component:<16}", bold=True)
    if chapter.verification is None or chapter.new is None:
        finding = result.findings[0]
        stays = finding.rule.startswith("stays-")
        refused = click.style(
            "stays    " if stays else "refused  ", fg="cyan" if stays else "magenta"
        )
        return [
            f"{name} {refused} {finding.message} (line {finding.line})",
            f"{'':<16} {'':<9} {click.style('→', dim=True)} {finding.advice}",
        ]
    v = chapter.verification
    old = SourceText.read(chapter.path).data.count(b"\n")
    new = SourceText.read(chapter.new).data.count(b"\n")
    colour = "green" if v.verdict == "same" else "red"
    said = click.style(f"{v.verdict:<9}", fg=colour)
    points = sum(len(t.steps) for t in v.trials)
    trials = f"{len(v.trials)} trial{'s' if len(v.trials) > 1 else ''},"
    lines = [
        f"{name} {said} {trials:<9} {points:>2} points · {old} → {new} lines · "
        f"{result.counts['carried']} constructs carried, {result.counts['left']} left"
    ]
    if v.verdict != "same":
        lines += list(terminal.verdict(v, result.component))
    return lines


def _ending(chapters: list[Chapter], seconds: float) -> None:
    same = sum(c.verification is not None and c.verification.verdict == "same" for c in chapters)
    stay = sum(c.stays for c in chapters)
    refused = sum(c.verification is None for c in chapters) - stay
    click.echo(
        f"\n{same} components are the same in every trial, {refused} was refused, "
        f"{stay} stays a directive; {seconds:.0f} s."
    )
    first = chapters[0]
    if first.new is not None:
        click.echo("\nLook at one pair, or run its trials again:")
        click.echo(f"  clean-carry carry {first.path} --to jsx-function")
        click.echo(f"  clean-carry verify {first.path} {first.new}")


def _json(chapter: Chapter) -> dict[str, object]:
    return {
        "result": chapter.result.as_json(),
        "verification": chapter.verification.as_json() if chapter.verification else None,
    }
