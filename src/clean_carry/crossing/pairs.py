"""The crossings there are: for each pair of syntaxes, how a file is read, fitted and written."""

from __future__ import annotations

from collections.abc import Callable

from clean_carry.component.ledger import Ledger
from clean_carry.crossing.directive import carry_directive_file
from clean_carry.crossing.jsx import carry_class_file
from clean_carry.crossing.outcome import Excluded, Outcome
from clean_carry.crossing.single_file import carry_object_file
from clean_carry.crossing.single_file_to_jsx import carry_object_to_function
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.jsx_class.read_in import with_bases

Attempt = Callable[[SourceText, Ledger, Workspace, int, Excluded], Outcome]

PAIRS: dict[tuple[str, str], Attempt] = {
    ("jsx-class", "jsx-function"): carry_class_file,
    ("single-file-object", "single-file-flat"): carry_object_file,
    ("single-file-object", "jsx-function"): carry_object_to_function,
    ("directive", "controller-component"): carry_directive_file,
}

# What is written into a file from others before it is read, by the syntax it is in.
WHOLE: dict[str, Callable[[SourceText, Workspace], SourceText]] = {"jsx-class": with_bases}
