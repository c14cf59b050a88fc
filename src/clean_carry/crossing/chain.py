"""Several crossings one after the other, where none leads from a syntax to another one at once.

Each link carries the text the one before it wrote; none of that text is ever written to the disk. A
component that one link refuses is refused as a whole, and the finding names the link.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise

from clean_carry.component.findings import Finding
from clean_carry.component.interface import InterfaceMap, Row
from clean_carry.component.result import NewFile, Result
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.registry import declared

# Carries a text from one syntax to another.
Link = Callable[[SourceText, str, str], list[Result]]


def carry_chain(source: SourceText, ids: tuple[str, ...], link: Link) -> list[Result]:
    """Carry a file through the syntaxes `ids`, from the first to the last."""
    results = link(source, ids[0], ids[1])
    others: dict[str, NewFile] = {}
    for origin, target in pairwise(ids[1:]):
        written = next((one for one in results if one.status != "refused"), None)
        if written is None or any(one.status == "refused" for one in results):
            break
        after: list[Result] = []
        texts = {}
        for file in written.files:
            text = SourceText(_named(file.path, origin), file.data)
            if not declared(origin).marks.fit(text):
                others[file.path] = file
                continue
            carried = link(text, origin, target)
            after += carried
            texts.update(dict.fromkeys((one.component for one in carried), file.text))
        results = _joined(results, after, source, texts, f"{origin} → {target}")
    middle = [declared(one).suffix for one in ids[1:-1]]
    return [_whole(one, ids, others, middle) for one in results]


def _named(path: str, syntax: str) -> str:
    """The name a file between two links would have had by itself: without the syntax's own part."""
    return path.replace(f".{declared(syntax).suffix}.", ".")


def _whole(
    result: Result, ids: tuple[str, ...], others: dict[str, NewFile], middle: list[str]
) -> Result:
    """A result of the whole chain, with the files that links before the last one wrote beside theirs.

    Imports of files that links in the `middle` would have written are of those the last one writes.
    """
    if result.status == "refused":
        return replace(result, origin=ids[0], target=ids[-1])
    own = {file.path for file in result.files}
    more = tuple(file for path, file in others.items() if path not in own)
    interface = replace(result.interface, old=ids[0], new=ids[-1])
    last = declared(ids[-1]).suffix
    files = tuple(_importing(file, middle, last) for file in (*result.files, *more))
    return replace(result, origin=ids[0], target=ids[-1], files=files, interface=interface)


def _importing(file: NewFile, middle: list[str], last: str) -> NewFile:
    """A file that imports what the last link writes."""
    text, data = file.text, file.data
    for suffix in middle:
        for ending in ("vue", "jsx", "tsx", "js"):
            for quote in "'\"":
                old, new = f".{suffix}.{ending}{quote}", f".{last}.{ending}{quote}"
                text, data = text.replace(old, new), data.replace(old.encode(), new.encode())
    return replace(file, text=text, data=data)


def _joined(
    before: list[Result],
    after: list[Result],
    source: SourceText,
    between: dict[str, str],
    link: str,
) -> list[Result]:
    """Results so far with those of one more link, by the name of the component; a component keeps its place
    in the old file. `between` are the texts the link carried, by component."""
    named = {one.component: one for one in after}
    if len(before) == len(after) == 1:
        # A file of one component may be called otherwise than what it holds.
        text = between[after[0].component]
        named, between = {before[0].component: after[0]}, {before[0].component: text}
    refused = [one for one in after if one.status == "refused"]
    if refused or set(named) != {one.component for one in before}:
        told = list(named.values()) if len(after) == 1 else refused or after
        first = next(iter(between.values()), "")
        said = [
            (found, between.get(one.component, first)) for one in told for found in one.findings
        ]
        return [
            replace(
                one,
                status="refused",
                files=(),
                findings=tuple(
                    place
                    for found, text in said
                    for place in _placed([found], one, source, text, link)
                ),
            )
            for one in before
        ]
    made = []
    files = tuple(dict.fromkeys(file for one in after for file in one.files))
    for one in before:
        two = named[one.component]
        text = between.get(one.component, "")
        findings = (*one.findings, *_placed(two.findings, one, source, text, link))
        left = {**one.counts, "left": one.counts["left"] + two.counts["left"]}
        made.append(
            replace(
                one,
                status="left" if "left" in (one.status, two.status) else one.status,
                files=files,
                counts=left,
                interface=through(one.interface, two.interface),
                findings=findings,
            )
        )
    return made


def _placed(
    findings: list[Finding] | tuple[Finding, ...],
    result: Result,
    source: SourceText,
    between: str,
    link: str,
) -> tuple[Finding, ...]:
    """Findings about text between two links, at the line of the old file that says the same; else at the
    component's first."""
    old = [line.strip() for line in source.data.decode("utf-8", "replace").split("\n")]
    lines = between.split("\n")
    first = min((entry.line for entry in result.entries), default=1)
    made = []
    for found in findings:
        text = lines[found.line - 1].strip() if 0 < found.line <= len(lines) else ""
        line = old.index(text) + 1 if text and old.count(text) == 1 else first
        made.append(
            replace(
                found, file=source.path, line=line, column=1, message=f"{link}: {found.message}"
            )
        )
    return tuple(made)


def through(one: InterfaceMap, two: InterfaceMap) -> InterfaceMap:
    """The rows of one map, under the names the other one gives them, with those the other one adds."""
    names = {(row.kind, row.old): row.new for row in two.rows}
    known = {(row.kind, row.new) for row in one.rows}
    rows = [Row(row.kind, row.old, names.get((row.kind, row.new), row.new)) for row in one.rows]
    rows += [row for row in two.rows if (row.kind, row.old) not in known]
    return InterfaceMap(one.old, two.new, tuple(rows))
