"""The declaration of `controller-component`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

SYNTAX = Syntax(
    id="controller-component",
    summary="element defined by an object with bindings, controller, template",
    family="directive",
    suffix="component",
    marks=Marks((".js",), ((b".component(",),)),
    runtime=RuntimeSpec("angular", 1),
    census="clean_carry.syntaxes.controller_component.census:census",
    features=frozenset({"several roots", "two-way", "named slots", "open members"}),
    reader="clean_carry.syntaxes.controller_component.reader:ControllerReader",
    given="single-file",
    writer="clean_carry.syntaxes.controller_component.writer:ControllerComponentWriter",
    takes=frozenset({"directive"}),
    rules="clean_carry.syntaxes.scoped_template.rules:RULES",
    drops=frozenset({"receiver-alias"}),
)
