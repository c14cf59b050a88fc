"""Carry the components of a file from one syntax to another."""

from __future__ import annotations

import gc
import hashlib
import json
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

from clean_carry.component.code import Left
from clean_carry.component.errors import CarryError, InputError, UnsettledEntry, closest
from clean_carry.component.findings import Finding
from clean_carry.component.interface import InterfaceMap
from clean_carry.component.ledger import Ledger
from clean_carry.component.members import LeftMember
from clean_carry.component.model import Component
from clean_carry.component.result import LedgerEntry, NewFile, Result, Status
from clean_carry.component.rules import Rule
from clean_carry.crossing.chain import carry_chain
from clean_carry.source.places import folder_of
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace, major, package_version
from clean_carry.syntaxes.contract import Excluded, Fitted, ReadAgain, ReadFile, Syntax, Wishes
from clean_carry.syntaxes.registry import declared, every_syntax, is_across, known, recognise, way
from clean_carry.syntaxes.rules import rules_of
from clean_carry.syntaxes.written import Note, Written


@dataclass(frozen=True)
class Request:
    """One file to carry. `origin` is None where the syntax is to be recognised.

    `runtime` is the major version to write for, None for the project's own; `naming` the name of a
    new file, made of {stem} and {ending} of the old one; `prefix` what element names begin with;
    `one_way` turns two-way bindings into one way in and an event out; `beside` says that the new file
    stands beside the old one; `assume_carried` that all components it renders, or those of
    some files, have been carried too. `notations` are those that a syntax
    renews, empty for all. `told` is JSON of values that inputs may have, by name.
    """

    path: Path
    shown: str
    target: str
    origin: str | None = None
    runtime: int | None = None
    naming: str = ""
    aliases: tuple[tuple[str, str], ...] = ()
    prefix: str = ""
    one_way: bool = False
    beside: bool = True
    assume_carried: bool | frozenset[Path] = False
    notations: frozenset[str] = frozenset()
    told: str = ""


def carry_file(request: Request) -> list[Result]:
    """Carry every component of a file; one result for each, in source order.

    Raises `CarryError` for a file that cannot be read or holds no component to carry.
    """
    check_syntaxes(request.target, request.origin)
    with _no_collection():
        source = SourceText.read(request.path, request.shown)
        origin = request.origin or recognise(source)
        if origin is None:
            raise InputError(
                "holds no component in a syntax that can be read",
                advice="`clean-carry syntaxes` lists them",
                file=source.path,
            )
        ids = way(origin, request.target)
        if not ids:
            raise CarryError(
                f"there is no crossing from {origin} to {request.target}",
                advice="`clean-carry syntaxes` shows what is read and written",
                file=source.path,
            )
        runtime = request.runtime or _version(request.path, declared(request.target))
        if len(ids) == 2:
            return _balanced(source, request, origin, runtime)

        def link(text: SourceText, old: str, new: str) -> list[Result]:
            own = replace(request, path=request.path.with_name(Path(text.path).name), target=new)
            return _balanced(
                text,
                own if text is not source else replace(own, path=request.path),
                old,
                runtime if new == request.target else _version(request.path, declared(new)),
                onward=is_across(declared(old), declared(request.target)),
            )

        return carry_chain(source, ids, link)


def read_file(request: Request) -> tuple[ReadFile, Ledger]:
    """Read a file in its own syntax, as a crossing inside its family would. Raises `CarryError`.

    Call `release` on the file when nothing of it is needed any more.
    """
    source = SourceText.read(request.path, request.shown)
    origin = request.origin or recognise(source)
    if origin is None:
        raise InputError("holds no component in a syntax that can be read", file=source.path)
    syntax = declared(origin)
    workspace = Workspace(request.path, dict(request.aliases), request.prefix)
    reader = syntax.load_reader()
    wishes = Wishes(_version(request.path, syntax))
    whole = reader.whole(source, workspace, wishes)
    ledger = Ledger(whole.path, whole.data, syntax.drops)
    return reader.read(whole, ledger, workspace, wishes), ledger


def _version(path: Path, syntax: Syntax) -> int:
    """The major version of a syntax's runtime that the project has, or the usual one."""
    spec = syntax.runtime
    return major(package_version(folder_of(path), spec.name)) or spec.usual


def check_syntaxes(target: str, origin: str | None) -> None:
    """Raises `CarryError` where there is no such syntax to write or to read, with the one meant."""
    for given, part, done in ((target, "writer", "written"), (origin, "reader", "read")):
        if given is None or (known(given) and getattr(declared(given), part)):
            continue
        names = [syntax.id for syntax in every_syntax() if getattr(syntax, part)]
        raise CarryError(
            f"“{given}” is not a syntax that can be {done}",
            advice=closest(given, names) + "`clean-carry syntaxes` lists them",
        )


@contextmanager
def _no_collection() -> Iterator[None]:
    """Turn garbage collection off while a file is processed; its reference cycles are released at
    the end."""
    was = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if was:
            gc.enable()


def _balanced(
    source: SourceText, request: Request, origin: str, runtime: int, *, onward: bool = False
) -> list[Result]:
    """Carry; a component whose ledger does not balance is refused and the rest carried again."""
    excluded: Excluded = {}
    workspace = Workspace(
        request.path, dict(request.aliases), request.prefix, request.one_way, request.beside,
        request.assume_carried,
    )  # fmt: skip
    old, new = declared(origin), declared(request.target)
    reader, writer, drops = old.load_reader(), new.load_writer(), old.drops | new.drops
    across = is_across(old, new)
    own = _version(request.path, old)
    one_runtime = old.runtime.name == new.runtime.name
    since = own if not across and one_runtime and own < runtime else 0
    wishes = Wishes(own if across else runtime, neutral=across, since=since, onward=onward,
        renewing=origin == request.target, notations=request.notations,
    )  # fmt: skip
    source = reader.whole(source, workspace, wishes)
    told = json.loads(request.told) if request.told else {}
    while True:
        ledger = Ledger(source.path, source.data, drops)
        file = reader.read(source, ledger, workspace, wishes)
        written: Written | None = None
        try:
            written = writer.write(Fitted(file, ledger, workspace, runtime, excluded, told))
            written.settle()
        except ReadAgain as again:
            wishes = replace(wishes, keeping=wishes.keeping | again.keeping)
            continue
        except UnsettledEntry as error:
            spans = written.carried if written is not None else ()
            guilty = [c for c in spans if c.span.start <= error.start < c.span.end] or list(spans)
            guilty = [c for c in guilty if c.span.start not in excluded]
            if not guilty:
                raise
            for component in guilty:
                excluded[component.span.start] = ("ledger-unsettled", error.what, error.start)
            continue
        results = _results(written, source, ledger, request, origin, file)
        file.release()
        return results


def _named_as(interface: InterfaceMap, origin: str, target: str, file: ReadFile) -> InterfaceMap:
    """An interface map, its events and slots by their names in the old file."""
    names = {"event": file.event_names, "slot": file.slot_names}
    rows = tuple(
        row._replace(old=names.get(row.kind, {}).get(row.old, row.old)) for row in interface.rows
    )
    return replace(interface, old=origin, new=target, rows=rows)


def _results(
    written: Written,
    source: SourceText,
    ledger: Ledger,
    request: Request,
    origin: str,
    file: ReadFile,
) -> list[Result]:
    results: list[tuple[int, Result]] = []
    say = _Says(source, rules_of(declared(origin), declared(request.target)))
    files = _named(written.new_files(), request)
    whole = source.encode(source.slice(0, len(source.data)))
    digest = hashlib.sha256(whole).hexdigest()

    def result(at: int, name: str, status: Status, findings: list[Finding], **more: Any) -> None:
        made = Result(
            source.path, name, origin, request.target, status, findings=tuple(findings), **more
        )
        results.append((at, made))

    for component in written.carried:
        at = component.span.start
        findings = [*say.of(component), *say.notes(written.notes.get(at, []))]
        counts, entries = _entries(ledger, component, source)
        result(
            at, component.name, "left" if counts["left"] else "clean", findings, files=files,
            counts=counts, entries=entries, digest=digest,
            interface=_named_as(written.interfaces[at], origin, request.target, file),
        )  # fmt: skip
    for refusal in written.refused:
        result(
            refusal.at,
            refusal.name,
            "refused",
            say.notes([(refusal.rule, refusal.detail, refusal.at)]),
        )
    return [result for _, result in sorted(results, key=lambda pair: pair[0])]


def _named(files: tuple[NewFile, ...], request: Request) -> tuple[NewFile, ...]:
    """The new files under the project's own naming rule; what they import keeps its name."""
    if not request.naming or not files:
        return files
    first = files[0]
    folder, slash, name = first.path.rpartition("/")
    stem = request.path.name.partition(".")[0]
    named = request.naming.format(stem=stem, ending="." + name.rpartition(".")[2])
    return (replace(first, path=f"{folder}{slash}{named}"), *files[1:])


@dataclass(frozen=True)
class _Says:
    """Makes findings of what a reader and a writer say of a file."""

    source: SourceText
    rules: dict[str, Rule]

    def _finding(self, rule: str, detail: str, at: int) -> Finding:
        place = self.source.place(at)
        return Finding.of(self.rules[rule], place.file, place.line, place.column, detail)

    def notes(self, notes: Iterable[Note]) -> list[Finding]:
        """Return the notes of a component."""
        return [self._finding(*note) for note in notes]

    def of(self, component: Component) -> list[Finding]:
        """Return the places left in a component, in source order, and notes for its users elsewhere."""
        found: list[Note] = []
        for _, operation in component.operations():
            if isinstance(operation, Left):
                found.append((operation.rule, operation.detail, operation.span.start))
        for member in component.members:
            if isinstance(member, LeftMember):
                found.append((member.rule, member.detail, member.span.start))
        ordered = self.notes(sorted(found, key=lambda note: note[2]))
        elsewhere = component.facts.elsewhere
        return ordered + [
            Finding.of(self.rules[one.rule], one.file, one.line, 1, one.detail) for one in elsewhere
        ]


def _entries(
    ledger: Ledger, component: Component, source: SourceText
) -> tuple[dict[str, int], tuple[LedgerEntry, ...]]:
    own = [
        entry
        for entry in ledger.entries
        if component.span.start <= entry.span.start < component.span.end
        or any(entry.span.start == span.start for span, _, _ in component.place.moved)
        or any(span.start <= entry.span.start < span.end for span in component.place.beside)
    ]
    counts = {"kept": 0, "carried": 0, "dropped": 0, "left": 0}
    entries = []
    for entry in sorted(own, key=lambda e: (e.span.start, -e.span.end)):
        counts[entry.outcome] += 1
        place = source.place(entry.span.start)
        if place.file != source.path:
            place = source.place(component.span.start)
        entries.append(
            LedgerEntry(entry.notion, place.line, place.column, entry.outcome, entry.rule)
        )
    return counts, tuple(entries)
