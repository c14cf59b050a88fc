"""`clean-carry demo`: a full example on the demo company's components."""

from __future__ import annotations

import json
import time
from dataclasses import dataclass, field
from pathlib import Path

import click

from clean_carry.demo.lifting import Lifting, lifted_page
from clean_carry.demo.story import (
    Chapter,
    departures_page,
    desk_page,
    missing_for_views,
    searched,
    settle_in,
    tell,
)
from clean_carry.demo.walk import Walk, walks
from clean_carry.report import terminal
from clean_carry.verify.verify import Verification
from clean_carry.verify.worker_pool import Bench

# The component that is searched too, and for how many seconds.
SEARCHED, SECONDS = "TicketForm", 4.0
PARTS = {
    "components": "The staff pages: classes become functions (React 18)",
    "passenger": "The passenger pages: objects become statements (Vue 3)",
    "passenger-older": "Older passenger pages, on the runtime they have (Vue 2.7)",
    "crew": "The crew pages: a newer notation, and another framework (Angular 21)",
    "departures": "The departures: single files become views of a server (PHP)",
    "booking-desk": "The old booking desk: directives become components (AngularJS 1.8)",
    "applications": "Components in applications, from survey to retirement",
    "tourist": "The tourist page: blocks of plain HTML become components",
}


@click.command(epilog="Example: clean-carry demo crew --into ferries")
@click.argument("part", type=click.Choice([*PARTS, "all"]), required=False)
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
def demo(part: str | None, into: Path, offline: bool, as_json: bool) -> None:
    """Run a full example: carry and verify the components of a made-up ferry company.

    Use it to see the whole tool at work in half a minute. It shows one component of each part; a PART named
    is shown whole, and `all` shows every part whole. The components are copied into a folder, so you can
    try other commands on them afterwards.
    """
    started = time.monotonic()
    with Bench(offline=offline, say=lambda text: click.echo(text, err=True)) as bench:
        settle_in(into)
        show = _Show(into, bench, whole=part is not None, silent=as_json)
        show.say(click.style("Gullmoor Ferries moves its front end.", bold=True))
        show.say(f"Its components are now in {into}. None of them is changed; each new file stands")
        show.say("beside the old one, and both are rendered and compared.")
        for name in PARTS if part in (None, "all") else [part]:
            show.part(str(name), offline)
        if as_json:
            click.echo(json.dumps(show.as_json(), indent=2))
        else:
            show.ending(part, time.monotonic() - started)
    raise click.exceptions.Exit(int(not show.is_same))


@dataclass
class _Show:
    """The demo as far as it was shown, in the folder `into`."""

    into: Path
    bench: Bench
    whole: bool
    silent: bool
    chapters: list[Chapter] = field(default_factory=list)
    walked: list[Walk] = field(default_factory=list)
    lifted: Lifting | None = None
    found: Verification | None = None

    def say(self, text: str) -> None:
        """Print a line, unless JSON is requested."""
        if not self.silent:
            click.echo(text)

    def part(self, name: str, offline: bool) -> None:
        """Show one part."""
        self.say(click.style(f"\n{PARTS[name]}", bold=True))
        if name == "applications":
            for walk in walks(self.into, self.bench, whole=self.whole):
                self.walked.append(walk)
                self._lines(_walk_lines(walk))
        elif name == "tourist":
            self.lifted = lifted_page(self.into, self.bench)
            self._lines(_lifting_lines(self.lifted))
        elif name == "departures" and (missing := missing_for_views()):
            self.say(f"{'':<16} not shown: {missing}")
        else:
            for chapter in tell(self.into, self.bench, name, whole=self.whole):
                self.chapters.append(chapter)
                self._lines(_lines(chapter))
        if name == "booking-desk" and self.whole:
            page = desk_page(self.into, offline, lambda text: click.echo(text, err=True))
            self.say(f"{'':<16} old and new on one page: {page}")
        if name == "departures" and self.whole and not missing_for_views():
            own = [one for one in self.chapters if one.path.parent.name == name]
            page, (before, after) = departures_page(own, self.bench)
            self.say(f"{'':<16} the browser loads {before:,} → {after:,} bytes of them")
            self.say(f"{'':<16} old and new on one page: {page}")
        if name == "components" and self.whole:
            self._search()

    def _search(self) -> None:
        """Verify one component once more, without its trial file."""
        example = next(c for c in self.chapters if c.path.stem == SEARCHED)
        self.found = searched(example, self.bench, SECONDS)
        self.say(
            f"The same without a trial file: {SECONDS:g} s of generated trials for {SEARCHED}."
        )
        self._lines(list(terminal.verdict(self.found, SEARCHED)))

    def _lines(self, lines: list[str]) -> None:
        for line in lines:
            self.say(line)

    @property
    def is_same(self) -> bool:
        """Whether all that was verified is the same."""
        verdicts: list[str] = [
            c.verification.verdict for c in self.chapters if c.verification is not None
        ]
        verdicts += [one.verdict for one in (self.found, self.lifted) if one is not None]
        return set(verdicts) <= {"same"} and all(walk.is_same for walk in self.walked)

    def as_json(self) -> dict[str, object]:
        """All that was shown, as JSON."""
        return {
            "components": [_json(c) for c in self.chapters],
            "walks": [vars(walk) for walk in self.walked],
            "lifted": vars(self.lifted) if self.lifted is not None else None,
            "searched": self.found.as_json() if self.found is not None else None,
        }

    def ending(self, part: str | None, seconds: float) -> None:
        """Print the sum, and the commands to go on with."""
        verified = [c.verification for c in self.chapters if c.verification is not None]
        same = sum(one.verdict == "same" for one in verified) + sum(w.is_same for w in self.walked)
        same += self.lifted is not None and self.lifted.verdict == "same"
        stay = sum(c.stays for c in self.chapters)
        refused = len(self.chapters) - len(verified) - stay
        said = f"{same} {'is' if same == 1 else 'are'} the same in every trial"
        was = "was" if refused == 1 else "were"
        said += f", {refused} {was} refused" * bool(refused) + f", {stay} stays a directive" * bool(
            stay
        )
        click.echo(f"\n{said}; {seconds:.0f} s.")
        first = next((c for c in self.chapters if c.new is not None), None)
        if first is not None:
            click.echo("\nLook at one pair, or run its trials again:")
            click.echo(f"  clean-carry carry {first.path} --to {first.result.target}")
            click.echo(f"  clean-carry verify {first.path} {first.new}")
        if part is None:
            click.echo("\nName a part to see all of it, or `all`:")
            click.echo(
                f"  clean-carry demo crew      # or {', '.join(p for p in PARTS if p != 'crew')}"
            )


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
    old, new = chapter.lines
    colour = "green" if v.verdict == "same" else "red"
    said = click.style(f"{v.verdict:<9}", fg=colour)
    points = sum(len(t.steps) for t in v.trials)
    trials = f"{len(v.trials)} trial{'s' if len(v.trials) > 1 else ''},"
    lines = [
        f"{name} {said} {trials:<9} {points:>2} points · {old} → {new} lines · "
        f"{result.counts['carried']} constructs carried, {result.counts['left']} left"
    ]
    if v.stand_in:
        lines.append(click.style(f"{'':<26} rendered by {v.stand_in}", dim=True))
    if v.verdict != "same":
        lines += list(terminal.verdict(v, result.component))
    return lines


def _json(chapter: Chapter) -> dict[str, object]:
    return {
        "result": chapter.result.as_json(),
        "verification": chapter.verification.as_json() if chapter.verification else None,
    }
