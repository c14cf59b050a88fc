"""The declaration of `registered-object`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

SYNTAX = Syntax(
    id="registered-object",
    summary="a script registers an object by a name; its template is text in it",
    family="single-file",
    suffix="registered",
    marks=Marks((".js", ".ts", ".mjs"), ((b"template",), (b".component(", b"export default"))),
    runtime=RuntimeSpec("vue", 3),
    census="clean_carry.syntaxes.registered_object.census:census",
    features=frozenset({"several roots", "two-way", "named slots", "open members"}),
    reader="clean_carry.syntaxes.registered_object.reader:RegisteredReader",
    rules="clean_carry.syntaxes.single_file.rules:RULES",
    drops=frozenset({"receiver-alias", "callback-instance"}),
)
