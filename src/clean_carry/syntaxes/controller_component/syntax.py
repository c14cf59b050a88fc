"""The declaration of `controller-component`."""

from clean_carry.syntaxes.syntax import Syntax

SYNTAX = Syntax(
    id="controller-component",
    summary="element defined by an object with bindings, controller, template",
    endings=(".js",),
    runtime="angular",
    reads=False,
    writes=True,
    suffix="component",
    several_roots=True,
    two_way=True,
    named_slots=True,
    open_members=True,
)
