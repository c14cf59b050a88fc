"""The declaration of `single-file-object`."""

from clean_carry.syntaxes.syntax import Syntax

SYNTAX = Syntax(
    id="single-file-object",
    summary="template, script, style in one file; the script exports one object",
    endings=(".vue",),
    runtime="vue",
    reads=True,
    writes=False,
    suffix="object",
    several_roots=True,
    two_way=True,
    named_slots=True,
    scoped_styles=True,
    open_members=True,
)
