"""The contract of a syntax: what it declares, and what its reader and its writer take and give.

A syntax is one folder. It names its reader and its writer by module and class; they are loaded when a file
is read or written for the first time.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from pkgutil import resolve_name
from typing import Any, Literal, Protocol

from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component, Refusal, StyleBlock
from clean_carry.component.rules import Rule
from clean_carry.source.index.facts import Sighting
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.merged import Edit
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.written import Written

# Abilities of a syntax: state and props in one scope, several roots, two-way bindings, named slots,
# styles that touch no neighbour, errors caught from below, an instance others may ask.
Feature = Literal[
    "one scope", "several roots", "two-way", "named slots", "scoped styles", "error capture",
    "open members",
]  # fmt: skip

# How an entry that is not written ends: outcome, rule.
Settled = tuple[Literal["carried", "dropped"], str]
# Sees the components of a parsed file.
Census = Callable[[Parsed], list[Sighting]]
# Components not to carry, by where they start: rule, detail, offset.
Excluded = dict[int, tuple[str, str, int]]


@dataclass(frozen=True)
class Relinked:
    """The `edits` of a file that imports new components, and what is left: what, advice, offset."""

    edits: tuple[Edit, ...]
    left: tuple[tuple[str, str, int], ...]


@dataclass(frozen=True)
class PartFile:
    """A file that another one names as a part: the request, and where it stands in the text."""

    request: str
    start: int
    end: int


# From the tree of a file, and by the local name of each new component the script it stands in and its name.
Relinks = Callable[[Tree, Mapping[str, tuple[Tree, str]]], Relinked]
MadeOf = Callable[[Tree], list[PartFile]]


@dataclass(frozen=True)
class Marks:
    """The marks of a syntax: an ending of its files, and words of which each group needs one."""

    endings: tuple[str, ...]
    words: tuple[tuple[bytes, ...], ...] = ()

    def fit(self, source: SourceText) -> bool:
        """Whether a file may be in the syntax."""
        data = source.data
        return source.path.lower().endswith(self.endings) and all(
            any(word in data for word in group) for group in self.words
        )


@dataclass(frozen=True)
class RuntimeSpec:
    """The runtime a syntax is checked in: its package, and the major version taken for granted."""

    name: str
    usual: int


@dataclass(frozen=True)
class Syntax:
    """One way to write a component.

    `suffix` stands before the ending of a new file written beside the old one. Syntaxes of one `family`
    share the language their components are written in; `takes` are the families a writer can write from.
    `reader` and `writer` are "package.module:Class", "" where there is none, `rules` is where its findings
    are. By a rule of `drops` a construct may be written as nothing; each has a row in docs/dropped.md.
    `census` is "package.module:function", which sees its components in a parsed file without reading them.
    Files of a `named_only` syntax are carried if a command names them, and not as a part of a folder.
    A syntax that `renews` writes its own files in newer `notations`, each by itself. A syntax that is
    written `anew` is written from the neutral component, also from its own family.
    `parts` is the module with `apart` and `together`, if template, code and styles can stand in files.
    The writer of a `typed` one asks for the types of values.
    `given` is the family that its reader gives components of, "" for its own.
    A `family_only` reader serves writers of its own family; other families are reached through those.
    `relinks` gives further edits of a file that imports new components where it imported old ones, and
    `made_of` the files that a component's file names as parts of it. `names_file` gives the name of a new
    file by the stem of the old one. All three are "package.module:function".
    """

    id: str
    summary: str
    family: str
    suffix: str
    marks: Marks
    runtime: RuntimeSpec
    features: frozenset[Feature]
    census: str = ""
    reader: str = ""
    writer: str = ""
    takes: frozenset[str] = frozenset()
    rules: str = ""
    drops: frozenset[str] = frozenset()
    family_only: bool = False
    renews: bool = False
    notations: tuple[str, ...] = ()
    anew: bool = False
    named_only: bool = False
    parts: str = ""
    typed: bool = False
    given: str = ""
    relinks: str = ""
    made_of: str = ""
    names_file: str = ""

    def load_rules(self) -> Mapping[str, Rule]:
        """Return the rules for its components."""
        found: Mapping[str, Rule] = resolve_name(self.rules) if self.rules else {}
        return found

    def load_census(self) -> Census:
        """Its census; one that sees nothing where it declares none."""
        found: Census = resolve_name(self.census) if self.census else _sees_nothing
        return found

    def load_relinks(self) -> Relinks:
        """Its changes beside an import; nothing where it declares nothing."""
        found: Relinks = resolve_name(self.relinks) if self.relinks else _relinks_nothing
        return found

    def load_made_of(self) -> MadeOf:
        """The function for the parts of a file; one that finds none where it declares nothing."""
        found: MadeOf = resolve_name(self.made_of) if self.made_of else _made_of_nothing
        return found

    def new_name(self, stem: str) -> str:
        """The name of a new file that is called after more than its old one; "" where it is not."""
        return str(resolve_name(self.names_file)(stem)) if self.names_file else ""

    def load_reader(self) -> Reader:
        """Its reader; there must be one."""
        found: Reader = resolve_name(self.reader)()
        return found

    def load_writer(self) -> Writer:
        """Its writer; there must be one."""
        found: Writer = resolve_name(self.writer)()
        return found


def _relinks_nothing(tree: Tree, taken: Mapping[str, tuple[Tree, str]]) -> Relinked:
    return Relinked((), ())


def _made_of_nothing(tree: Tree) -> list[PartFile]:
    return []


def _sees_nothing(parsed: Parsed) -> list[Sighting]:
    return []


@dataclass(frozen=True)
class Wishes:
    """The wishes of a crossing to a reader.

    `runtime` is the major version the file is read for, `since` the one it was written for where that is an
    older one (0: the same); components that start at an offset of `keeping` keep
    the defaults of their inputs as a property. `neutral` asks for what a target of another family can say;
    `onward` is set if another link carries the new text to another family, `renewing` if the target is the
    same syntax in its newer notation. `notations` names those to renew, empty for all.
    """

    runtime: int
    neutral: bool = False
    renewing: bool = False
    since: int = 0
    keeping: frozenset[int] = frozenset()
    onward: bool = False
    notations: frozenset[str] = frozenset()


@dataclass
class ReadFile:
    """A file that was read: its components, and what is refused at once.

    `serving` is what packages alone serve the form that is carried: by request, how their imports end
    (outcome, rule). `event_names` and `slot_names` are the old names of events and slots, where a
    reader gave them others. Families
    add what their writers need.
    """

    syntax: Syntax
    source: SourceText
    components: tuple[Component, ...]
    refusals: tuple[Refusal, ...]
    styles: tuple[StyleBlock, ...] = field(default=(), kw_only=True)
    event_names: Mapping[str, str] = field(default_factory=dict, kw_only=True)
    slot_names: Mapping[str, str] = field(default_factory=dict, kw_only=True)
    serving: Mapping[str, Settled] = field(default_factory=dict, kw_only=True)

    def release(self) -> None:
        """Release reference cycles once nothing of the file is needed any more."""


@dataclass
class ScriptFile(ReadFile):
    """A file whose components are written in a script: its tree, its names, and the stretch of
    code. For a target of another family, `page_types` are types of the page that the framework's
    events get, by offset ("" for none)."""

    tree: Tree
    script: tuple[int, int]
    names: Names = field(kw_only=True)
    page_types: Mapping[tuple[int, int], str] = field(default_factory=dict, kw_only=True)

    def release(self) -> None:
        """Take the tree apart."""
        self.tree.release()


@dataclass(frozen=True)
class Fitted:
    """The input of a writer: the file, its ledger, the project around it, and components to exclude. `told`
    are values that inputs may have, for writers that ask for types."""

    file: Any
    ledger: Ledger
    workspace: Workspace
    runtime: int
    excluded: Excluded
    told: Mapping[str, object] = field(default_factory=dict)


class ReadAgain(Exception):
    """A request to read the file once more: these components keep their defaults (see `Wishes`)."""

    def __init__(self, keeping: frozenset[int]) -> None:
        super().__init__("read again")
        self.keeping = keeping


class Reader(Protocol):
    """Reads files of one syntax."""

    def recognises(self, source: SourceText) -> bool:
        """Whether a file that has the marks is in the syntax."""

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The file with what is written into it from others before it is read, and in the form
        that the crossing wishes."""

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> ReadFile:
        """Read every component of a file; raises `InputError`, `HoldsNone` where it holds none."""


class Writer(Protocol):
    """Writes files of one syntax."""

    def write(self, fitted: Fitted) -> Written:
        """Write the components of a file; those it cannot write are refused."""
