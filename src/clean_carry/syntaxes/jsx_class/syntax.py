"""The declaration of `jsx-class`."""

from clean_carry.syntaxes.syntax import Syntax

SYNTAX = Syntax(
    id="jsx-class",
    summary="class with a render method returning JSX",
    endings=(".jsx", ".js", ".tsx"),
    runtime="react",
    reads=True,
    writes=False,
    suffix="class",
    several_roots=True,
    named_slots=True,
    error_capture=True,
    open_members=True,
)
