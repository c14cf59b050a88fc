"""The declaration of `directive`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

SYNTAX = Syntax(
    id="directive",
    summary="element defined by a directive definition object",
    family="directive",
    suffix="directive",
    marks=Marks((".js",), ((b".directive(",),)),
    runtime=RuntimeSpec("angular", 1),
    census="clean_carry.syntaxes.directive.census:census",
    features=frozenset({"several roots", "two-way", "named slots", "open members"}),
    reader="clean_carry.syntaxes.directive.reader:DirectiveReader",
    rules="clean_carry.syntaxes.scoped_template.rules:RULES",
)
