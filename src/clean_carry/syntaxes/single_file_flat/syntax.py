"""The declaration of `single-file-flat`."""

from clean_carry.syntaxes.syntax import Syntax

SYNTAX = Syntax(
    id="single-file-flat",
    summary="the same file form; top-level statements of the script are the component",
    endings=(".vue",),
    runtime="vue",
    reads=False,
    writes=True,
    suffix="flat",
    one_scope=True,
    several_roots=True,
    two_way=True,
    named_slots=True,
    scoped_styles=True,
)
