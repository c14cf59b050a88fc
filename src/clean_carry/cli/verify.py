"""`clean-carry verify`: render old and new in the real runtime and compare."""

from __future__ import annotations

import json
import time
from collections.abc import Callable
from dataclasses import dataclass, replace
from pathlib import Path
from typing import TYPE_CHECKING, NoReturn

import click

from clean_carry.cli.bench import EFFORT, bench_for, effort_of, least_of
from clean_carry.cli.next_step import next_step
from clean_carry.cli.outputs import OF_VERDICTS, Outputs
from clean_carry.cli.progress import EXIT_STOPPED, Line
from clean_carry.cli.watch import saved
from clean_carry.component.errors import CarryError
from clean_carry.project.index.build import top_of
from clean_carry.project.settings import NAME, forget_settings
from clean_carry.project.verdicts import note_verdict
from clean_carry.report import terminal
from clean_carry.verify.pair import Trials, carried_as, pair_of, trials_for, verified
from clean_carry.verify.trials import beside
from clean_carry.verify.trials import save as save_trial

if TYPE_CHECKING:
    from clean_carry.report.subject import Subject
    from clean_carry.verify.verify import Effort, Verification
    from clean_carry.verify.worker_pool import Bench

# Seconds a search takes while files are watched.
WATCHING = 3.0


_EXAMPLES = """\b
Examples:
  clean-carry verify src/Board.jsx src/Board.function.jsx
  clean-carry verify src/Board.jsx src/Board.function.jsx --save Board.trials.yaml
  clean-carry verify src/Board.jsx src/Board.function.jsx --in browser --report out
  clean-carry verify src/Board.jsx src/Board.function.jsx --watch
"""


@click.command("verify", epilog=_EXAMPLES)
@click.argument("old", type=click.Path(path_type=Path), metavar="OLD")
@click.argument("new", type=click.Path(path_type=Path), metavar="NEW")
@click.option(
    "--trials",
    "trial_file",
    type=click.Path(path_type=Path),
    metavar="FILE",
    help="The trials to run; X.trials.yaml beside OLD if omitted; generated if there is none.",
)
@click.option("--search", is_flag=True, help="Generate trials even if a trial file exists.")
@click.option(
    "--mount",
    metavar="EXPORT",
    help="The export to mount; the main component of the file if omitted.",
)
@click.option(
    "--save",
    type=click.Path(path_type=Path),
    metavar="FILE",
    help="Save the smallest trial in which old and new differ.",
)
@click.option(
    "--runtime",
    "runtime_name",
    metavar="NAME",
    help="The runtime to render in; the project's own version if omitted.",
)
@click.option(
    "--watch", is_flag=True, help="Verify again whenever you save a file of either version."
)
@OF_VERDICTS
@EFFORT
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def verify_command(
    old: Path,
    new: Path,
    trial_file: Path | None,
    search: bool,
    mount: str | None,
    save: Path | None,
    runtime_name: str | None,
    watch: bool,
    report_folder: Path | None,
    junit_file: Path | None,
    as_json: bool,
    **effort: object,
) -> None:
    """Render two versions of a component and report where they differ.

    Use it after you changed a carried file, or for a rewrite you made by hand. OLD and NEW are rendered in
    their real frameworks, clicked and typed into, and compared after every step.

    Without a trial file, trials are generated: props from the code and its types, steps from the
    elements on the page. The search prefers trials that run new code, and ends when nothing new is
    found or the budget is used up. NEW's relative imports are resolved from OLD's folder.
    """
    line = Line(quiet=as_json)
    job = _Job(
        old, new, runtime_name, trial_file, search, mount, save, as_json,
        effort_of(effort), least_of(effort), line, bool(effort["verbose"]),
    )  # fmt: skip
    outputs = Outputs(report_folder, junit_file)
    since = time.time_ns()
    with bench_for(effort, line) as bench:
        code, result = job.run(bench, outputs)
        if watch and not result.interrupted:
            _watch(job, bench, result, lambda: Outputs(report_folder, junit_file), since)
    if result.verdict == "same" and not as_json:
        next_step(f"clean-carry switch {old} {new}", "moves the users of the old component")
    raise click.exceptions.Exit(code)


@dataclass
class _Job:
    """One call of the command: verified once, or whenever a file of it is saved."""

    old: Path
    new: Path
    runtime_name: str | None
    trial_file: Path | None
    search: bool
    mount: str | None
    save: Path | None
    as_json: bool
    effort: Effort
    least: float
    line: Line
    verbose: bool = False

    def run(
        self, bench: Bench, outputs: Outputs, known: Verification | None = None
    ) -> tuple[int, Verification]:
        """Verify, print and write the outputs; return the exit code and the verdict.

        Where none is found that differs, those found before (`known`) run too.
        """
        started = time.monotonic()
        before, after, interface = pair_of(self.old, self.new, self.runtime_name)
        trials = Trials(None) if self.search else trials_for(self.old, self.trial_file)
        if self.mount is not None:
            trials = Trials(trials.trials, self.mount)

        def verdict(trials: Trials, effort: Effort) -> Verification:
            found = verified(bench, (before, after), interface, trials, effort, self.line.show)
            return found.measured(self.least)

        result = verdict(trials, self.effort)
        if result.verdict in ("same", "unproven") and known is not None and _can_run_again(known):
            again = verdict(Trials(known.sources, known.mounted), self.effort)
            if again.verdict == "differs":
                result = replace(again, generated=True)
        self.line.clear()
        note_verdict(top_of(self.old), self.old, self.new, result.verdict)
        self._print(result)
        code = 0
        if outputs.wanted:
            texts = before.text, after.text
            subject = _subject(self.old, self.new, texts, result, time.monotonic() - started)
            outputs.add(subject)
            code = outputs.close(self.line)
        if self.save is not None and result.failing is not None:
            save_trial(self.save, result.failing, trials.exported or result.mounted)
            self.line.say(f"saved: {self.save}")
        return self._code(result) or code, result

    def _print(self, result: Verification) -> None:
        if self.as_json:
            click.echo(json.dumps(result.as_json(), indent=2, ensure_ascii=False))
            return
        for text in terminal.verdict(result, f"{self.old} → {self.new}", verbose=self.verbose):
            click.echo(text)

    def _code(self, result: Verification) -> int:
        if result.interrupted:
            return EXIT_STOPPED
        return int(result.verdict != "same")

    @property
    def files(self) -> set[Path]:
        """The files it is about, what they import left out."""
        own = {self.old, self.new, self.trial_file or beside(self.old)}
        return {path.resolve() for path in own} | {path.resolve().parent / NAME for path in own}


def _can_run_again(known: Verification) -> bool:
    """Whether trials that were found can be run as given ones: not inside a parent."""
    return known.generated and bool(known.sources) and not known.around


def _watch(
    job: _Job, bench: Bench, result: Verification, outputs: Callable[[], Outputs], since: int
) -> NoReturn:
    """Verify again whenever a file is saved that the verdict depends on, until the user stops."""
    job.effort = replace(job.effort, budget=min(job.effort.budget, WATCHING))
    try:
        while True:
            job.line.say("watching; Ctrl-C ends it")
            changed = saved(job.files | bench.files, since)
            bench.forget(changed)
            forget_settings()
            shown = ", ".join(sorted(path.name for path in changed)[:4])
            started, since = time.monotonic(), time.time_ns()
            try:
                _, result = job.run(bench, outputs(), result)
            except CarryError as error:
                job.line.say(f"clean-carry: {error.one_line()}")
                continue
            job.line.say(f"saved: {shown}; {time.monotonic() - started:.1f} s")
    except KeyboardInterrupt:
        job.line.clear()
        raise click.exceptions.Exit(EXIT_STOPPED) from None


def _subject(
    old: Path, new: Path, texts: tuple[str, str], result: Verification, seconds: float
) -> Subject:
    """Return the subject of a report, with the ledger if NEW is exactly the carried form of OLD."""
    from clean_carry.report.subject import Subject

    results = carried_as(old, texts[1])
    return Subject(str(old), texts[0], str(new), texts[1], result, results, seconds)
