"""`clean-carry carry`: carry components of files to another syntax."""

from __future__ import annotations

import hashlib
import json
import time
from collections import deque
from collections.abc import Iterator, Mapping
from concurrent.futures import Future, ThreadPoolExecutor
from contextlib import contextmanager
from dataclasses import replace as replaced
from itertools import islice
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from clean_carry.cli.bench import EFFORT, bench_for, effort_of, least_of
from clean_carry.cli.outputs import OF_CROSSINGS, Outputs
from clean_carry.cli.progress import EXIT_STOPPED, Line
from clean_carry.cli.types import require_compiler, show_faults, type_faults
from clean_carry.component.errors import CarryError, HoldsNone, WriteRefused
from clean_carry.component.result import NewFile, Result
from clean_carry.crossing.carry import Request, check_syntaxes
from clean_carry.crossing.many import Outcome, carried, carry_all
from clean_carry.project.committed import not_committed
from clean_carry.project.files import Meant, component_files, sources_of
from clean_carry.project.settings import settings_for
from clean_carry.project.writing import replace, write_new
from clean_carry.report import terminal
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import major
from clean_carry.syntaxes.registry import crosses, declared, known

if TYPE_CHECKING:
    from clean_carry.report.patch import Change
    from clean_carry.report.subject import Subject
    from clean_carry.verify.bench import Bench
    from clean_carry.verify.verify import Verification


@click.command(epilog="Example: clean-carry carry src/DepartureBoard.jsx --to jsx-function --write")
@click.argument("files", nargs=-1, type=click.Path(path_type=Path), metavar="[FILE…]")
@click.option("--to", "target", required=True, metavar="SYNTAX", help="The syntax to write.")
@click.option("--from", "origin", metavar="SYNTAX", help="The syntax of FILE; told by itself.")
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
    "--replace", "overwrite", is_flag=True, help="Write over FILE itself, once it is committed."
)
@click.option("--force", is_flag=True, help="With --replace: also over text that no commit holds.")
@click.option(
    "--verify",
    "prove",
    is_flag=True,
    help="Verify too, and write nothing unless the verdict is same.",
)
@click.option("--keep-anyway", is_flag=True, help="With --verify: write whatever the verdict is.")
@click.option(
    "--runtime",
    type=click.IntRange(min=1),
    metavar="MAJOR",
    help="The major version of the target's runtime to write and verify for; the project's own.",
)
@click.option(
    "--one-way", is_flag=True, help="Two-way bindings become one way in and an event out."
)
@click.option(
    "--types",
    "check_types",
    is_flag=True,
    help="Tell what type errors the new files add, in them and in their callers.",
)
@OF_CROSSINGS
@EFFORT
@click.option("--json", "as_json", is_flag=True, help="Print JSON.")
def carry(
    files: tuple[Path, ...],
    target: str,
    origin: str | None,
    out: Path | None,
    write: bool,
    overwrite: bool,
    force: bool,
    prove: bool,
    keep_anyway: bool,
    runtime: int | None,
    one_way: bool,
    check_types: bool,
    report_folder: Path | None,
    junit_file: Path | None,
    sarif_file: Path | None,
    patch_file: Path | None,
    as_json: bool,
    **effort: object,
) -> None:
    """Carry the components in FILE… to another syntax.

    A folder stands for every component below it. Without FILE the source folders of the project file
    clean-carry.toml are meant.

    Without --out, --write or --replace nothing is written: the change is shown as a unified diff
    with the ledger and the findings under it. With --patch it is written to FILE instead.

    With --types the TypeScript compiler of the project reads it as it is, and with the new texts in the
    old ones' places; single files it does not read.
    """
    if patch_file is not None and write:
        raise click.UsageError("--patch writes no component; leave --write out")
    if junit_file is not None and not prove:
        raise click.UsageError("--junit goes with --verify")
    if sum((out is not None, write, overwrite)) > 1:
        raise click.UsageError("choose one of --out, --write and --replace")
    if force and not overwrite:
        raise click.UsageError("--force goes with --replace")
    if keep_anyway and not prove:
        raise click.UsageError("--keep-anyway goes with --verify")
    if one_way and target != "controller-component":
        raise click.UsageError("--one-way goes with --to controller-component")
    line = Line(quiet=as_json)
    results: list[Result] = []
    verdicts: dict[Path, Verification] = {}
    changed: dict[Path, NewFile] = {}
    new_texts: list[tuple[Path, str]] = []
    code = 0
    meant, others = _meant(files, target, origin)
    if check_types:
        require_compiler(meant)
    kept = not_committed(meant) if overwrite and not force and patch_file is None else {}
    for path, why in kept.items():
        refused = WriteRefused(why, advice="Commit it first, or use --force", file=str(path))
        line.say(f"clean-carry: {refused.one_line()}")
        code = refused.exit_code
    many = _many(files, meant)
    meant = [path for path in meant if path not in kept]
    requests = [
        _request(path, target, origin, runtime, one_way=one_way, beside=not overwrite)
        for path in meant
    ]
    preview = out is None and not write and not overwrite and patch_file is None
    outputs = Outputs(report_folder, junit_file, sarif_file, patch_file, many=many)
    with _bench(prove, effort, line) as bench:
        for number, each in enumerate(_each(requests, bench, effort, line), 1):
            path, found, verdict, seconds = each
            if check_types and not isinstance(found, CarryError):
                new_texts += [(path, r.files[0].text) for r in found[:1] if r.files]
            if len(meant) > 1:
                line.show(f"{number} of {len(meant)} files · {path}")
            if isinstance(found, HoldsNone) and path not in files:
                line.say(f"passed over: {found.one_line()}")
                continue
            if isinstance(found, CarryError):
                line.say(f"clean-carry: {found.one_line()}")
                code = max(code, found.exit_code)
                if outputs.wanted:
                    outputs.add(_unread(path, found))
                continue
            writes = not preview
            if verdict is not None:
                verdicts[path] = verdict
                proven = verdict.verdict == "same" and not verdict.interrupted
                writes = writes and (keep_anyway or proven)
            try:
                if outputs.wanted:
                    outputs.add(_subject(path, found, verdict, seconds))
                if writes and patch_file is not None:
                    outputs.change(_changes(found, path, out, overwrite, changed))
                elif writes:
                    found = _write(found, path, out, overwrite, changed)
            except WriteRefused as error:
                line.say(f"clean-carry: {error.one_line()}")
                code = max(code, error.exit_code)
                continue
            results.extend(found)
            if not as_json:
                line.clear()
                place = str(patch_file) if patch_file is not None else ""
                _show(found, path, preview=preview, written=writes, verdict=verdict, patch=place)
            if verdict is not None and verdict.interrupted:
                code = EXIT_STOPPED
    faults = type_faults(new_texts, line) if check_types else None
    line.clear()
    if not as_json and (len(meant) > 1 or others):
        for text in terminal.totals(results, verdicts.values(), others):
            click.echo(text)
    if faults is not None and not as_json:
        show_faults(faults)
    if as_json:
        rows = [json.dumps(row, ensure_ascii=False) for row in _rows(results, verdicts)]
        passed = f', "skipped": {json.dumps(others)}' if others else ""
        if faults is not None:
            passed += f', "types": {json.dumps([vars(fault) for fault in faults])}'
        click.echo('{"results": [\n' + ",\n".join(rows) + f"\n]{passed}}}")
    code = outputs.close(line) or code
    unproven = any(v.verdict != "same" for v in verdicts.values())
    raise click.exceptions.Exit(code or _code(results) or int(unproven or bool(faults)))


def _meant(files: tuple[Path, ...], target: str, origin: str | None) -> Meant:
    """The files meant: as named, below the folders named, or of the project file's source folders.

    Of a folder those are left out that nothing carries to the target, or that are not in `origin`.
    """

    def wanted(syntax: str) -> bool:
        return crosses(syntax, target) and origin in (None, syntax)

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


def _request(
    path: Path, target: str, origin: str | None, runtime: int | None, *, one_way: bool, beside: bool
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
        one_way,
        beside,
    )


# A file, what it was carried to, the verdict, and how many seconds that took.
Each = tuple[Path, Outcome, "Verification | None", float]


def _each(
    requests: list[Request], bench: Bench | None, effort: Mapping[str, object], line: Line
) -> Iterator[Each]:
    """What became of each file, in order: carried in several processes, or verified side by side."""
    workers = int(effort["workers"])  # type: ignore[call-overload]
    if bench is None:
        for request, outcome in zip(requests, carry_all(requests, workers), strict=True):
            yield request.path, outcome, None, 0.0
        return
    if len(requests) == 1:
        yield _proved(bench, requests[0], effort, line)
        return
    with ThreadPoolExecutor(workers) as pool:
        # A few are under way at once, so that who stops it finds the rest untouched.
        ahead: deque[Future[Each]] = deque()
        waiting = iter(requests)
        try:
            while True:
                for request in islice(waiting, workers - len(ahead)):
                    ahead.append(pool.submit(_proved, bench, request, effort, line))
                if not ahead:
                    return
                yield ahead.popleft().result()
        except KeyboardInterrupt:
            bench.stopped.set()
            for proof in ahead:
                yield proof.result()


@contextmanager
def _bench(prove: bool, effort: Mapping[str, object], line: Line) -> Iterator[Bench | None]:
    """The bench to verify on; none where nothing is verified."""
    if not prove:
        yield None
        return
    with bench_for(effort, line) as bench:
        yield bench


def _proved(bench: Bench, request: Request, effort: Mapping[str, object], line: Line) -> Each:
    """Carry a file and verify what it became, before any of it is written."""
    from clean_carry.verify.pair import sides_of_result, trials_for, verified, verified_each

    started = time.monotonic()
    path, found = request.path, carried(request)
    if isinstance(found, CarryError) or not any(r.files for r in found):
        return path, found, None, time.monotonic() - started
    try:
        made = [r for r in found if r.files]
        old, new, interface = sides_of_result(path, made[0], request.runtime)
        trials, much = trials_for(path, None), effort_of(effort)

        def tell(text: str) -> None:
            line.show(f"{path}: {text}")

        if old.application is not None:
            names = [result.component for result in made]
            verdict = verified_each(bench, (old, new), names, trials, much, tell)
        else:
            verdict = verified(bench, (old, new), interface, trials, much, tell)
    except CarryError as error:
        return path, error, None, time.monotonic() - started
    return path, found, verdict.measured(least_of(effort)), time.monotonic() - started


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


def _changes(
    results: list[Result],
    path: Path,
    out: Path | None,
    overwrite: bool,
    changed: dict[Path, NewFile],
) -> list[Change]:
    """What writing would change. Raises `WriteRefused` where another file stands in the way."""
    from clean_carry.report.patch import Change

    found: dict[Path, Change] = {}
    for result in results:
        for file in result.files:
            place = Path(file.path)
            if overwrite and len(result.files) == 1:
                found[path] = Change(path, path.read_bytes(), file.data)
                continue
            place = out / place.name if out is not None else place
            if place in changed:
                file = file.with_edits(changed[place].edits)
            if file.edits:
                changed[place] = file
            elif place.exists() and place.read_bytes() != file.data:
                raise WriteRefused(
                    "a file stands there already", advice="Move it away first", file=str(place)
                )
            before = place.read_bytes() if place.exists() else None
            found[place] = Change(place, before, file.data)
    return list(found.values())


def _write(
    results: list[Result],
    path: Path,
    out: Path | None,
    overwrite: bool,
    changed: dict[Path, NewFile],
) -> list[Result]:
    """Write what was made; `changed` are the files of this run that several crossings change."""
    done: dict[str, NewFile] = {}
    for result in results:
        for file in result.files:
            if file.path in done:
                continue
            place = Path(file.path)
            if overwrite and len(result.files) == 1:
                place = path
                _unchanged(place, result.digest)
                replace(place, file.data)
            else:
                place = out / place.name if out is not None else place
                before = changed.get(place)
                if before is not None:
                    file = file.with_edits(before.edits)
                    replace(place, file.data)
                else:
                    write_new(place, file.data)
                if file.edits:
                    changed[place] = file
            done[file.path] = NewFile(str(place), file.text, file.data)
    return [
        replaced(result, files=tuple(done[file.path] for file in result.files))
        for result in results
    ]


def _unchanged(path: Path, digest: str) -> None:
    """Raise `WriteRefused` where a file is not what was carried any more."""
    if hashlib.sha256(path.read_bytes()).hexdigest() != digest:
        raise WriteRefused(
            "was saved while it was carried", advice="Carry it again", file=str(path)
        )


def _show(
    results: list[Result],
    path: Path,
    *,
    preview: bool,
    written: bool,
    verdict: Verification | None,
    patch: str = "",
) -> None:
    files = {file.path: file for result in results for file in result.files}
    for number, file in enumerate(files.values()):
        if preview:
            source = SourceText.read(path)
            old = source.slice(0, len(source.data)) if number == 0 else ""
            for line in terminal.diff(old, file.text, str(path), file.path):
                click.echo(line)
        elif written:
            click.echo(f"in {patch}: {file.path}" if patch else f"written: {file.path}")
        else:
            click.echo(f"not written, because it was not proven the same: {file.path}")
    for result in results:
        for line in terminal.summary(result):
            click.echo(line)
    if verdict is not None:
        for line in terminal.verdict(verdict, str(path)):
            click.echo(line)
