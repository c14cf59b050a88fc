"""The declaration of `single-file-object`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

SYNTAX = Syntax(
    id="single-file-object",
    summary="template, script, style in one file; the script exports one object",
    family="single-file",
    suffix="object",
    marks=Marks((".vue",), ((b"export default",),)),
    runtime=RuntimeSpec("vue", 3),
    census="clean_carry.syntaxes.single_file.census:census",
    features=frozenset(
        {"several roots", "two-way", "named slots", "scoped styles", "open members"}
    ),
    reader="clean_carry.syntaxes.single_file_object.reader:ObjectReader",
    writer="clean_carry.syntaxes.single_file_object.writer:ObjectFileWriter",
    takes=frozenset({"single-file"}),
    parts="clean_carry.syntaxes.single_file.parts",
    rules="clean_carry.syntaxes.single_file.rules:RULES",
    drops=frozenset({"receiver-alias", "callback-instance"}),
)
