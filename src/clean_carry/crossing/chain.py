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
        first, *beside = written.files
        others |= {file.path: file for file in beside}
        after = link(SourceText(first.path, first.data), origin, target)
        results = _joined(results, after, source, first.text, f"{origin} → {target}")
    return [_whole(one, ids, others) for one in results]


def _whole(result: Result, ids: tuple[str, ...], others: dict[str, NewFile]) -> Result:
    """A result of the whole chain, with the files that links before the last one wrote beside theirs."""
    if result.status == "refused":
        return replace(result, origin=ids[0], target=ids[-1])
    own = {file.path for file in result.files}
    more = tuple(file for path, file in others.items() if path not in own)
    interface = replace(result.interface, old=ids[0], new=ids[-1])
    return replace(
        result, origin=ids[0], target=ids[-1], files=(*result.files, *more), interface=interface
    )


def _joined(
    before: list[Result], after: list[Result], source: SourceText, between: str, link: str
) -> list[Result]:
    """Results so far with those of one more link; a component keeps its place in the old file."""
    refused = [one for one in after if one.status == "refused"]
    if refused or len(after) != len(before):
        said = [found for one in refused or after for found in one.findings]
        return [
            replace(
                one, status="refused", files=(), findings=_placed(said, one, source, between, link)
            )
            for one in before
        ]
    made = []
    for one, two in zip(before, after, strict=True):
        findings = (*one.findings, *_placed(two.findings, one, source, between, link))
        left = {**one.counts, "left": one.counts["left"] + two.counts["left"]}
        made.append(
            replace(
                one,
                status="left" if "left" in (one.status, two.status) else one.status,
                files=two.files,
                counts=left,
                interface=_through(one.interface, two.interface),
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


def _through(one: InterfaceMap, two: InterfaceMap) -> InterfaceMap:
    """The rows of one map, under the names the other one gives them."""
    names = {(row.kind, row.old): row.new for row in two.rows}
    rows = [Row(row.kind, row.old, names.get((row.kind, row.new), row.new)) for row in one.rows]
    return InterfaceMap(one.old, two.new, tuple(rows))
