"""`clean-carry carry`: carry components of files to another syntax."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from clean_carry.cli.bench import EFFORT
from clean_carry.cli.carried_files import Place, changes
from clean_carry.cli.carried_files import write as write_files
from clean_carry.cli.carry_each import Each, bench_if, each_file
from clean_carry.cli.next_step import next_step
from clean_carry.cli.outputs import OF_CROSSINGS, Outputs
from clean_carry.cli.progress import EXIT_STOPPED, Line
from clean_carry.cli.types import require_compiler, show_faults, type_faults
from clean_carry.component.errors import CarryError, HoldsNone, WriteRefused
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, check_syntaxes
from clean_carry.crossing.many import Outcome
from clean_carry.crossing.parts import Parts, laid_out
from clean_carry.project.committed import not_committed
from clean_carry.project.files import Meant, component_files, sources_of
from clean_carry.project.index.build import top_of
from clean_carry.project.settings import settings_for
from clean_carry.project.targets import usual_targets
from clean_carry.project.verdicts import note_verdict
from clean_carry.project.walk.pairs import syntaxes_of
from clean_carry.report import terminal
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import major
from clean_carry.syntaxes.registry import declared, known, way

if TYPE_CHECKING:
    from clean_carry.report.subject import Subject
    from clean_carry.verify.types import TypeFault
    from clean_carry.verify.verify import Verification


_EXAMPLES = """\b
Examples:
  clean-carry carry src/Board.jsx --to jsx-function                   show the change
  clean-carry carry src/Board.jsx --to jsx-function --write           write Board.function.jsx
  clean-carry carry src --to single-file-flat --write --verify        write only what is proven
  clean-carry carry src --to jsx-function --patch change.patch        one diff for `git apply`
"""


@click.command(epilog=_EXAMPLES)
@click.argument("files", nargs=-1, type=click.Path(path_type=Path), metavar="[FILE…]")
@click.option(
    "--to",
    "target",
    metavar="SYNTAX",
    help="The syntax to write; if omitted, the only one that files of this family are carried to.",
)
@click.option(
    "--from",
    "origin",
    metavar="SYNTAX",
    help="The syntax of FILE; detected from the file if omitted.",
)
@click.option(
    "--out",
    type=click.Path(path_type=Path, file_okay=False),
    metavar="DIR",
    help="Write the new files into DIR.",
)
@click.option(
    "--write", is_flag=True, help="Write each new file beside the old: X.function.jsx for X.jsx."
)
@click.option(
    "--replace",
    "overwrite",
    is_flag=True,
    help="Overwrite FILE itself, provided its current text is committed.",
)
@click.option("--force", is_flag=True, help="With --replace: overwrite uncommitted changes too.")
@click.option(
    "--verify",
    "prove",
    is_flag=True,
    help="Also render old and new and compare them; write only files whose verdict is same.",
)
@click.option(
    "--keep-anyway", is_flag=True, help="With --verify: write the files whatever the verdict is."
)
@click.option(
    "--runtime",
    type=click.IntRange(min=1),
    metavar="MAJOR",
    help="The major version of the target's framework; the project's own version if omitted.",
)
@click.option(
    "--one-way",
    is_flag=True,
    help="Directives only: turn each two-way binding into a one-way binding and an event.",
)
@click.option(
    "--renew",
    "notations",
    multiple=True,
    type=click.Choice([*declared("decorated-class").notations, "nothing"]),
    help="Decorated classes only: renew this notation; may be repeated. All if omitted.",
)
@click.option(
    "--parts",
    type=click.Choice(["together", "apart"]),
    help="Write template, code and styles together in one file, or apart in files of their own.",
)
@click.option(
    "--assume-carried",
    is_flag=True,
    help="Assume that child components are carried already, in new files beside the old ones.",
)
@click.option(
    "--types",
    "check_types",
    is_flag=True,
    help="Run the project's TypeScript compiler and report type errors that the new files add.",
)
@OF_CROSSINGS
@EFFORT
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def carry(
    files: tuple[Path, ...],
    target: str | None,
    origin: str | None,
    out: Path | None,
    write: bool,
    overwrite: bool,
    force: bool,
    prove: bool,
    keep_anyway: bool,
    runtime: int | None,
    one_way: bool,
    notations: tuple[str, ...],
    parts: Parts | None,
    assume_carried: bool,
    check_types: bool,
    report_folder: Path | None,
    junit_file: Path | None,
    sarif_file: Path | None,
    patch_file: Path | None,
    as_json: bool,
    **effort: object,
) -> None:
    """Rewrite components in another component syntax.

    Use it to see a component in another syntax, and to write the new file once you are content. FILE
    may be a folder. Without FILE, the source folders in clean-carry.toml are carried.

    Nothing is written unless you pass --out, --write, --replace or --patch. The change is shown as a
    diff, followed by findings: each names a place that changed meaning or needs your decision.

    --types compares the type errors before and after. It does not cover single files.
    """
    target = target or _inferred(files, origin)
    _agree({**locals(), "target": target})
    line = Line(quiet=as_json)
    meant, others = _meant(files, target, origin)
    if check_types:
        require_compiler(meant)
    outputs = Outputs(report_folder, junit_file, sarif_file, patch_file, many=_many(files, meant))
    preview = out is None and not write and not overwrite and patch_file is None
    run = _Run(
        line, outputs, Place(out, overwrite), files, as_json, preview, keep_anyway, patch_file,
        bool(effort["verbose"]), len(meant) > 1,
    )  # fmt: skip
    if overwrite and not force and patch_file is None:
        meant = run.committed(meant)
    wanted = _Wanted(one_way, not overwrite, assume_carried, frozenset(notations))
    requests = [_request(path, target, origin, runtime, wanted) for path in meant]
    with bench_if(prove, effort, line) as bench:
        for number, each in enumerate(each_file(requests, bench, effort, line), 1):
            if len(meant) > 1:
                line.show(f"{number} of {len(meant)} files · {each[0]}")
            run.take(*_laid_out(each, parts))
    faults = type_faults(run.new_texts, run.beside, line) if check_types else None
    run.print_end(others, faults, meant, target, prove=prove)
    raise click.exceptions.Exit(run.exit_code(faults))


# Options that exclude or need each other: the option, the one it needs (or excludes, with a sign before
# it), and the message.
_DISAGREE = (
    ("patch_file", "!write", "--patch writes no component; leave --write out"),
    ("junit_file", "prove", "--junit goes with --verify"),
    ("force", "overwrite", "--force goes with --replace"),
    ("keep_anyway", "prove", "--keep-anyway goes with --verify"),
)


def _agree(given: Mapping[str, Any]) -> None:
    """Raises `UsageError` for options that do not go together."""
    for option, needs, told in _DISAGREE:
        if given[option] and bool(given[needs.removeprefix("!")]) == needs.startswith("!"):
            raise click.UsageError(told)
    if sum((given["out"] is not None, given["write"], given["overwrite"])) > 1:
        raise click.UsageError("choose one of --out, --write and --replace")
    if given["one_way"] and given["target"] != "controller-component":
        raise click.UsageError("--one-way goes with --to controller-component")
    if given["notations"] and given["target"] != "decorated-class":
        raise click.UsageError("--renew goes with --to decorated-class")


def _laid_out(each: Each, parts: Parts | None) -> Each:
    """A result whose parts stand together or apart; the same text was verified in one file."""
    path, found, verdict, seconds = each
    if parts is not None and isinstance(found, list):
        found = laid_out(found, parts, path.resolve().parent)
    return path, found, verdict, seconds


def _next(run: _Run, meant: list[Path], target: str, *, prove: bool) -> None:
    """Show the command that follows: write, verify or switch."""
    files = [file.path for result in run.results for file in result.files]
    if not files:
        return
    named = str(meant[0]) if len(meant) == 1 else " ".join(map(str, run.named))
    if run.preview:
        next_step(
            f"clean-carry carry {named} --to {target} --write --verify", "writes what is proven"
        )
    elif prove and len(meant) == 1:
        next_step(f"clean-carry switch {named}", "shows the change for its users")
    elif prove:
        next_step(f"clean-carry switch --proven {named}", "shows the change for their users")
    elif len(meant) == 1:
        next_step(f"clean-carry verify {named} {files[0]}", "compares old and new")


@dataclass
class _Run:
    """The results of the files so far, printed as they come."""

    line: Line
    outputs: Outputs
    place: Place
    named: tuple[Path, ...]
    as_json: bool
    preview: bool
    keep_anyway: bool
    patch: Path | None
    verbose: bool = False
    many: bool = False
    results: list[Result] = field(default_factory=list)
    verdicts: dict[Path, Verification] = field(default_factory=dict)
    new_texts: list[tuple[Path, str]] = field(default_factory=list)
    beside: list[tuple[Path, str]] = field(default_factory=list)
    code: int = 0

    def committed(self, meant: list[Path]) -> list[Path]:
        """Return the files whose current text is committed; report the others and leave them alone."""
        kept = not_committed(meant)
        for path, why in kept.items():
            advice = "Commit it first, or use --force"
            self._refused(WriteRefused(why, advice=advice, file=str(path)))
        return [path for path in meant if path not in kept]

    def _refused(self, error: CarryError) -> None:
        self.line.say(f"clean-carry: {error.one_line()}")
        self.code = max(self.code, error.exit_code)

    def take(
        self, path: Path, found: Outcome, verdict: Verification | None, seconds: float
    ) -> None:
        """Pass on, write and print the result of one file."""
        if isinstance(found, HoldsNone) and path not in self.named:
            self.line.say(f"passed over: {found.one_line()}")
            return
        if isinstance(found, CarryError):
            self._refused(found)
            if self.outputs.wanted:
                self.outputs.add(_unread(path, found))
            return
        self.new_texts += [(path, r.files[0].text) for r in found[:1] if r.files]
        new = (file for r in found for file in r.files)
        self.beside += [(path.with_name(Path(file.path).name), file.text) for file in new]
        writes = not self.preview
        if verdict is not None:
            self.verdicts[path] = verdict
            proven = verdict.verdict == "same" and not verdict.interrupted
            writes = writes and (self.keep_anyway or proven)
        try:
            if self.outputs.wanted:
                self.outputs.add(_subject(path, found, verdict, seconds))
            if writes and self.patch is not None:
                self.outputs.change(changes(found, path, self.place))
            elif writes:
                found = write_files(found, path, self.place)
                made = [Path(file.path) for result in found[:1] for file in result.files[:1]]
                if verdict is not None and made:
                    note_verdict(top_of(path), path, made[0], verdict.verdict)
        except WriteRefused as error:
            self._refused(error)
            return
        self.results.extend(found)
        if not self.as_json:
            self.line.clear()
            place = str(self.patch) if self.patch is not None else ""
            _show(
                found, path, preview=self.preview, written=writes, verdict=verdict, patch=place,
                verbose=self.verbose, notes=self.verbose or not self.many,
            )  # fmt: skip
        if verdict is not None and verdict.interrupted:
            self.code = EXIT_STOPPED

    def print_totals(
        self, others: Mapping[str, int], faults: list[TypeFault] | None, *, many: bool
    ) -> None:
        """Print the totals over all files, and the type errors that they add."""
        if many or others:
            for text in terminal.totals(self.results, self.verdicts.values(), others):
                click.echo(text)
        if faults is not None:
            show_faults(faults)

    def print_json(self, others: Mapping[str, int], faults: list[TypeFault] | None) -> None:
        """All results as JSON, a line each."""
        rows = [json.dumps(row, ensure_ascii=False) for row in _rows(self.results, self.verdicts)]
        passed = f', "skipped": {json.dumps(others)}' if others else ""
        if faults is not None:
            passed += f', "types": {json.dumps([vars(fault) for fault in faults])}'
        click.echo('{"results": [\n' + ",\n".join(rows) + f"\n]{passed}}}")

    def print_end(
        self,
        others: Mapping[str, int],
        faults: list[TypeFault] | None,
        meant: list[Path],
        target: str,
        *,
        prove: bool,
    ) -> None:
        """All results as JSON, or the totals and the next command."""
        self.line.clear()
        if self.as_json:
            self.print_json(others, faults)
            return
        self.print_totals(others, faults, many=len(meant) > 1)
        _next(self, meant, target, prove=prove)

    def exit_code(self, faults: list[TypeFault] | None) -> int:
        """Return the exit code, once all outputs are written."""
        code = self.outputs.close(self.line) or self.code
        unproven = any(v.verdict != "same" for v in self.verdicts.values())
        return code or _code(self.results) or int(unproven or bool(faults))


def _inferred(files: tuple[Path, ...], origin: str | None) -> str:
    """The one syntax that the files meant are carried to inside of their family; raises `UsageError`."""
    sources = files or sources_of(settings_for(Path("x")))
    if not sources:
        raise click.UsageError("name a FILE (or `sources` in the project file clean-carry.toml)")
    origins = [origin] if origin else []
    for path in component_files(sources).files if not origin else ():
        origins += syntaxes_of(path) if path.is_file() else []
    targets = usual_targets(dict.fromkeys(origins))
    if len(targets) != 1:
        known = f"; these files are carried to {', '.join(targets)}" if targets else ""
        raise click.UsageError(f"say --to SYNTAX{known}")
    return targets[0]


def _meant(files: tuple[Path, ...], target: str, origin: str | None) -> Meant:
    """The files meant: as named, below the folders named, or of the project file's source folders.

    Of a folder those are left out that nothing carries to the target, or that are not in `origin`.
    """

    def wanted(syntax: str) -> bool:
        return bool(way(syntax, target)) and origin in (None, syntax)

    check_syntaxes(target, origin)
    sources = files or sources_of(settings_for(Path("x")))
    if not sources:
        raise click.UsageError("name a FILE (or `sources` in the project file clean-carry.toml)")
    meant = component_files(sources, wanted)
    if not meant.files:
        others = ", ".join(f"{count} {syntax}" for syntax, count in meant.passed_over.items())
        raise CarryError(
            f"nothing there is carried to {target}",
            advice=f"The components are of other syntaxes: {others}",
            file=", ".join(map(str, sources)),
        )
    return meant


@dataclass(frozen=True)
class _Wanted:
    """The options that apply to every file: see `Request`."""

    one_way: bool
    beside: bool
    assume_carried: bool
    notations: frozenset[str]


def _request(
    path: Path, target: str, origin: str | None, runtime: int | None, wanted: _Wanted
) -> Request:
    settings = settings_for(path)
    naming = settings.naming.get(target, "")
    if runtime is None and known(target):
        runtime = major(settings.runtimes.get(declared(target).runtime.name))
    return Request(
        path,
        str(path),
        target,
        origin,
        runtime,
        naming,
        tuple(settings.aliases.items()),
        settings.prefix,
        wanted.one_way,
        wanted.beside,
        wanted.assume_carried,
        wanted.notations,
        _told(path, target),
    )


def _told(path: Path, target: str) -> str:
    """Values of the inputs of a file, where the writer of the target asks for types."""
    if not known(target) or not declared(target).typed:
        return ""
    from clean_carry.verify.told import told_of

    try:
        return told_of(path, path.read_text("utf-8", "replace"))
    except OSError:
        return ""


def _rows(results: list[Result], verdicts: dict[Path, Verification]) -> list[dict[str, Any]]:
    by_source = {str(path): found for path, found in verdicts.items()}
    rows = []
    for result in results:
        row = result.as_json()
        if result.source in by_source:
            row["verification"] = by_source[result.source].as_json()
        rows.append(row)
    return rows


def _code(results: list[Result]) -> int:
    if any(f.rule == "ledger-unsettled" for r in results for f in r.findings):
        return 70
    return 0 if all(r.status == "clean" for r in results) else 1


def _many(files: tuple[Path, ...], meant: list[Path]) -> bool:
    """Whether a report has a front page: where a folder was named, or several files."""
    return len(meant) != 1 or any(path.is_dir() for path in files)


def _unread(path: Path, error: CarryError) -> Subject:
    from clean_carry.report.subject import Subject

    return Subject(str(path), "", problem=error.one_line())


def _subject(
    path: Path, found: list[Result], verdict: Verification | None, seconds: float
) -> Subject:
    from clean_carry.report.subject import Subject

    source = SourceText.read(path)
    text = source.slice(0, len(source.data))
    return Subject.of(str(path), text, found, verdict, seconds)


def _show(
    results: list[Result],
    path: Path,
    *,
    preview: bool,
    written: bool,
    verdict: Verification | None,
    patch: str = "",
    verbose: bool = False,
    notes: bool = True,
) -> None:
    files = {file.path: file for result in results for file in result.files}
    for number, file in enumerate(files.values()):
        if preview:
            source = SourceText.read(path)
            old = source.slice(0, len(source.data)) if number == 0 else ""
            if number == 0:
                click.echo(terminal.heading(results[0], file.path))
            for line in terminal.diff(old, file.text, str(path), file.path):
                click.echo(line)
        elif written:
            click.echo(f"added to {patch}: {file.path}" if patch else f"written: {file.path}")
        else:
            click.echo(f"not written, because the verdict is not same: {file.path}")
    for result in results:
        for line in terminal.summary(result, notes=notes):
            click.echo(line)
    if verdict is not None:
        for line in terminal.verdict(verdict, str(path), verbose=verbose):
            click.echo(line)
