"""Options of the commands that hand their outcome on: a report, and open formats."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from clean_carry.cli.progress import Line
from clean_carry.component.errors import WriteRefused
from clean_carry.project.writing import replace

if TYPE_CHECKING:
    from clean_carry.report.page.write import Report
    from clean_carry.report.patch import Change
    from clean_carry.report.subject import Subject

_REPORT = click.option(
    "--report",
    "report_folder",
    type=click.Path(path_type=Path, file_okay=False),
    metavar="DIR",
    help="Write an HTML report to DIR/index.html; it needs no network.",
)
_JUNIT = click.option(
    "--junit",
    "junit_file",
    type=click.Path(path_type=Path, dir_okay=False),
    metavar="FILE",
    help="Write the verdicts as JUnit XML.",
)
_SARIF = click.option(
    "--sarif",
    "sarif_file",
    type=click.Path(path_type=Path, dir_okay=False),
    metavar="FILE",
    help="Write the findings as SARIF 2.1.0.",
)
_PATCH = click.option(
    "--patch",
    "patch_file",
    type=click.Path(path_type=Path, dir_okay=False),
    metavar="FILE",
    help="Write the change as one diff for `git apply`, and no component.",
)


def OF_VERDICTS(command: Callable[..., Any]) -> Callable[..., Any]:
    """The options of a command that gives verdicts."""
    return _REPORT(_JUNIT(command))


def OF_CROSSINGS(command: Callable[..., Any]) -> Callable[..., Any]:
    """The options of a command that carries."""
    return _REPORT(_JUNIT(_SARIF(_PATCH(command))))


class Outputs:
    """The outputs of a run: reports and open formats. `add` each result, then `close`."""

    def __init__(
        self,
        report: Path | None = None,
        junit: Path | None = None,
        sarif: Path | None = None,
        patch: Path | None = None,
        *,
        many: bool = False,
    ) -> None:
        self._report: Report | None = None
        if report is not None:
            from clean_carry.report.page.write import Report

            self._report = Report(report, many=many)
        self._junit, self._sarif, self._patch = junit, sarif, patch
        self._refused: WriteRefused | None = None
        self._subjects: list[Subject] = []
        self._changes: list[Change] = []

    @property
    def wanted(self) -> bool:
        """Whether the run has any output of this kind."""
        return self._report is not None or self._junit is not None or self._sarif is not None

    def add(self, subject: Subject) -> None:
        """Pass one result on to the outputs."""
        if self._report is not None and self._refused is None:
            try:
                self._report.add(subject)
            except WriteRefused as error:
                # Reported once, at the end; what else the run does goes on.
                self._refused = error
        if self._junit is not None or self._sarif is not None:
            self._subjects.append(subject.without_pictures())

    def change(self, changes: list[Change]) -> None:
        """Note files that a patch changes; of one file the last state counts."""
        for change in changes:
            same = [one for one in self._changes if one.path == change.path]
            for one in same:
                self._changes.remove(one)
            self._changes.append(change)

    def close(self, line: Line) -> int:
        """Write what is whole only at the end, and say where it is; an exit code, 0 if all is written."""
        try:
            if self._report is not None and self._refused is None:
                line.say(f"report: {self._report.close()}")
            if self._junit is not None:
                from clean_carry.report.junit import junit

                replace(self._junit, junit(self._subjects))
                line.say(f"JUnit XML: {self._junit}")
            if self._sarif is not None:
                from clean_carry.report.sarif import sarif

                replace(self._sarif, sarif(self._subjects))
                line.say(f"SARIF: {self._sarif}")
            if self._patch is not None:
                from clean_carry.report.patch import patch

                text = patch(self._changes)
                if text:
                    replace(self._patch, text)
                    line.say(f"patch: {self._patch}")
                else:
                    line.say("no patch: nothing would change")
        except WriteRefused as error:
            self._refused = error
        if self._refused is None:
            return 0
        line.say(f"clean-carry: {self._refused.one_line()}")
        return self._refused.exit_code
