"""The findings there are: those of every crossing, and those of the syntaxes."""

from __future__ import annotations

from functools import cache

from clean_carry.component.rules import Row, Rule, table
from clean_carry.syntaxes.across import RULES as ACROSS
from clean_carry.syntaxes.contract import Syntax
from clean_carry.syntaxes.registry import every_syntax

_ROWS: tuple[Row, ...] = (
    (
        "ledger-unsettled",
        "error",
        "the tool could not account for every construct",
        "Nothing was written; please report the component",
        "(a fault of the tool)",
    ),
    ("member-twice", "error", "two members share a name", "Rename one", "load = 1; load() {}"),
    (
        "method-replaced",
        "error",
        "a method is replaced while the component lives",
        "Keep the replacement in a field of its own name",
        "this.load = debounce(this.load, 100);",
    ),
    (
        "unknown-use",
        "warning",
        "this use of the instance is not known",
        "Carry it by hand",
        "this.updater.enqueue()",
    ),
    (
        "instance-escapes",
        "warning",
        "the instance itself is handed away",
        "Hand over the values that are needed instead",
        "findNode(this)",
    ),
    (
        "input-written",
        "warning",
        "an input is assigned to",
        "Inputs are read only",
        "this.props.limit = 3",
    ),
    (
        "block-unread",
        "error",
        "the file has a block that is not read",
        "Move what it holds into a plain template, script or style",
        '<template src="./Berth.html">',
    ),
    (
        "markup-unread",
        "error",
        "the template has something that is not read yet",
        "Carry the component by hand",
        '<li v-for="berth in berths">',
    ),
    (
        "input-declaration",
        "error",
        "an input is declared in a way that the target cannot say",
        "Check the value where it is used",
        "limit: { type: Number, validator: isTide }",
    ),
    (
        "names-meet",
        "error",
        "two names would meet in one scope",
        "Rename one of them first",
        "import { load } from './load'; … methods: { load() {} }",
    ),
    (
        "style-unread",
        "error",
        "the stylesheet has something that is not read yet",
        "Move the rule to a plain stylesheet first",
        ":deep(.berth) { … }",
    ),
)
_OF_EVERY = table(_ROWS) | ACROSS


def rules_of(*syntaxes: Syntax) -> dict[str, Rule]:
    """What can be found where components are carried between these syntaxes."""
    found = dict(_OF_EVERY)
    for syntax in syntaxes:
        found |= syntax.load_rules()
    return found


@cache
def every_rule() -> dict[str, Rule]:
    """Every rule of every syntax."""
    return rules_of(*every_syntax())
