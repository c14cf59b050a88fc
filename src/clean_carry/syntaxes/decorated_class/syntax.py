"""The declaration of `decorated-class`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

# Control flow for starred attributes; functions for decorated members, emitters, view queries, and
# parameters of the constructor; classes that stand alone, with the imports that their templates need.
_NOTATIONS = ("blocks", "inputs", "outputs", "queries", "injection", "imports")

SYNTAX = Syntax(
    id="decorated-class",
    summary="class with a component decorator, template, styles, module or stand-alone",
    family="single-file",
    suffix="decorated",
    marks=Marks((".ts",), ((b"@Component",), (b"@angular/core",))),
    runtime=RuntimeSpec("@angular/core", 21),
    census="clean_carry.syntaxes.decorated_class.census:census",
    features=frozenset({"one scope", "several roots", "two-way", "named slots", "scoped styles"}),
    reader="clean_carry.syntaxes.decorated_class.reader:DecoratedReader",
    writer="clean_carry.syntaxes.decorated_class.writer:DecoratedWriter",
    takes=frozenset({"single-file"}),
    renews=True,
    notations=_NOTATIONS,
    anew=True,
    parts="clean_carry.syntaxes.decorated_class.parts",
    relinks="clean_carry.syntaxes.decorated_class.declarations:relinked",
    made_of="clean_carry.syntaxes.decorated_class.resources:resources_of",
    rules="clean_carry.syntaxes.decorated_class.rules:RULES",
    drops=frozenset({"receiver-alias", "callback-instance"}),
)
