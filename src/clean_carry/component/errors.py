"""The one family of errors a user can cause, and the one that means a fault of ours."""

from __future__ import annotations

import re
from collections.abc import Iterable
from difflib import get_close_matches
from typing import Any


def closest(given: str, known: Iterable[str]) -> str:
    """A question whether the nearest of the names is meant; nothing where none is near."""
    near = get_close_matches(given, list(known), n=1)
    return f"Did you mean {near[0]}? " if near else ""


# Control codes but the tab, and what turns the direction of a text (ISO 6429, Unicode UAX #9).
_STEERS = re.compile("[\x00-\x08\x0a-\x1f\x7f-\x9f\u202a-\u202e\u2066-\u2069]")


def printable(text: str) -> str:
    """Somebody else's text for one line of a terminal: signs that would steer it are shown, not sent."""
    return _STEERS.sub(lambda found: found[0].encode("unicode_escape").decode(), text)


class CarryError(Exception):
    """A mistake of the user, bad input or a missing runtime, reported in one line.

    `exit_code` is the documented exit code of the command (docs/exit-codes.md).
    """

    exit_code = 2

    def __init__(
        self, what: str, *, advice: str = "", file: str = "", line: int = 0, column: int = 0
    ) -> None:
        super().__init__(what)
        self.what = what
        self.advice = advice
        self.file = file
        self.line = line
        self.column = column

    def __reduce__(self) -> tuple[Any, ...]:
        return _made_again, (type(self), self.__dict__)

    def one_line(self) -> str:
        """Where, what, and what to do, on one line."""
        where = self.file
        if where and self.line:
            where += f":{self.line}:{self.column}"
        text = f"{where}: {self.what}" if where else self.what
        if self.advice:
            text += f". {self.advice}"
        return printable(" ".join(text.split()))


class InputError(CarryError):
    """The file named cannot be read as what it should be."""

    exit_code = 3


class HoldsNone(InputError):
    """A file holds no component of the syntax that its words let expect; in a folder it is passed over."""


class RuntimeMissing(CarryError):
    """A rendering runtime is not there and may not or cannot be installed."""

    exit_code = 4


class WriteRefused(CarryError):
    """The output place does not take the file, or a file stands there already."""

    exit_code = 5


class Fault(CarryError):
    """A fault of the tool, reported with the file that caused it; the other files continue."""

    exit_code = 70

    @classmethod
    def of(cls, error: Exception, file: str) -> Fault:
        """The fault that an unexpected error is."""
        text = " ".join(f"{type(error).__name__}: {error}".split())[:200]
        return cls(f"a fault of the tool ({text})", advice="The file stays as it is", file=file)


def _made_again(kind: type[CarryError], values: dict[str, Any]) -> CarryError:
    """An error that comes from another process."""
    error = kind(values["what"])
    error.__dict__.update(values)
    return error


class UnsettledEntry(Exception):
    """The ledger does not balance: a fault of ours, never of the user.

    A command turns it into a refusal under the rule `ledger-unsettled`.
    """

    def __init__(self, what: str, start: int = 0) -> None:
        super().__init__(what)
        self.what = what
        self.start = start
