"""The declaration of `directive`."""

from clean_carry.syntaxes.syntax import Syntax

SYNTAX = Syntax(
    id="directive",
    summary="element defined by a directive definition object",
    endings=(".js",),
    runtime="angular",
    reads=True,
    writes=False,
    suffix="directive",
    several_roots=True,
    two_way=True,
    named_slots=True,
    open_members=True,
)
