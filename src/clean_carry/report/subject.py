"""The subject of a report: texts, results and verdict of one pair."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace

from clean_carry.component.findings import Finding
from clean_carry.component.result import LedgerEntry, Result
from clean_carry.verify.verify import Verification

# The weightiest first: what a line's mark in the margin shows.
OUTCOMES = ("left", "dropped", "carried", "kept")
# The states a component counts as in a list, the most pressing first.
STANDINGS = (
    "differs",
    "unproven",
    "not run",
    "not read",
    "refused",
    "left",
    "stays",
    "same",
    "clean",
)


@dataclass(frozen=True)
class Subject:
    """One pair. `new` and `new_text` are empty where nothing was made, `verification` None where none ran.

    `results` are those of the components in the file, none where old and new were only compared;
    `seconds` is what carrying and verifying took, `also` are (path, text) of files made beside the new one,
    `problem` is why the file could not be read or verified at all.
    """

    old: str
    old_text: str
    new: str = ""
    new_text: str = ""
    verification: Verification | None = None
    results: tuple[Result, ...] = ()
    seconds: float = 0.0
    also: tuple[tuple[str, str], ...] = ()
    problem: str = ""

    @classmethod
    def of(
        cls, old: str, old_text: str, results: Sequence[Result], verification: Verification | None,
        seconds: float,
    ) -> Subject:  # fmt: skip
        """The subject of what a file was carried to."""
        files = {file.path: file.text for result in results for file in result.files}
        (new, new_text), *also = files.items() or [("", "")]
        return cls(old, old_text, new, new_text, verification, tuple(results), seconds, tuple(also))

    @property
    def name(self) -> str:
        """The component's name, or those of all in the file."""
        names = [result.component for result in self.results]
        return ", ".join(dict.fromkeys(names)) or self.old.replace("\\", "/").rpartition("/")[2]

    @property
    def folder(self) -> str:
        """The folder of the old file, as it was named."""
        return self.old.replace("\\", "/").rpartition("/")[0] or "."

    @property
    def findings(self) -> list[Finding]:
        """The findings of all results."""
        return [finding for result in self.results for finding in result.findings]

    @property
    def standing(self) -> str:
        """One of `STANDINGS`: the verdict, else what carrying gave."""
        if self.problem:
            return "not read"
        if self.verification is not None:
            return self.verification.verdict
        statuses = {result.status for result in self.results}
        if "refused" in statuses:
            stays = [f.rule.startswith("stays-") for f in self.findings if f.level == "error"]
            return "stays" if stays and all(stays) else "refused"
        return "left" if "left" in statuses else "clean"

    @property
    def ledger(self) -> dict[int, list[LedgerEntry]]:
        """The ledger's entries by line of the old file, from 1; code that is copied is none."""
        found: dict[int, list[LedgerEntry]] = defaultdict(list)
        for result in self.results:
            for entry in result.entries:
                if not (entry.outcome == "kept" and entry.notion == "code"):
                    found[entry.line].append(entry)
        return found

    @property
    def counts(self) -> dict[str, int]:
        """How many entries ended in each outcome."""
        return {
            outcome: sum(result.counts.get(outcome, 0) for result in self.results)
            for outcome in reversed(OUTCOMES)
        }

    def without_pictures(self) -> Subject:
        """The same without what takes room: thousands of them can be kept."""
        verification = self.verification
        if verification is None or verification.seen is None:
            return self
        seen = replace(verification.seen, shots=())
        return replace(self, verification=replace(verification, seen=seen))

    def summary(self, page: str) -> Summary:
        """Return its line in a list; `page` is the path of its page."""
        verification = self.verification
        reach = None
        if verification is not None and verification.reach is not None and verification.tried:
            reach = verification.reach[0].percent
        return Summary(
            page,
            self.name,
            self.old,
            self.folder,
            self.standing,
            reach,
            verification.tried if verification is not None else 0,
            verification.points if verification is not None else 0,
            self.seconds,
            self._said or next((f.message for f in self.findings if f.level != "note"), ""),
            self.results[0].origin if self.results else "",
            self.results[0].target if self.results else "",
        )

    @property
    def _said(self) -> str:
        if self.problem:
            return self.problem
        verification = self.verification
        if verification is None:
            return ""
        return verification.reason or next(
            (
                f"{one.what} at {one.place}" if one.place else one.what
                for trial in (
                    *verification.trials,
                    *(verification.seen.results if verification.seen is not None else ()),
                )
                for one in trial.differences
            ),
            "",
        )


@dataclass(frozen=True)
class Summary:
    """One line of a front page. `reach` is the share of old's own code that ran, in percent, None if it is
    not known."""

    page: str
    name: str
    old: str
    folder: str
    standing: str
    reach: float | None
    trials: int
    points: int
    seconds: float
    said: str
    origin: str = ""
    target: str = ""
