"""The declaration of `jsx-function`."""

from clean_carry.syntaxes.syntax import Syntax

SYNTAX = Syntax(
    id="jsx-function",
    summary="function returning JSX, state and effects through hooks",
    endings=(".jsx", ".js", ".tsx"),
    runtime="react",
    reads=False,
    writes=True,
    suffix="function",
    one_scope=True,
    several_roots=True,
    named_slots=True,
)
