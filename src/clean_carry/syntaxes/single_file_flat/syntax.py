"""The declaration of `single-file-flat`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

SYNTAX = Syntax(
    id="single-file-flat",
    summary="the same file form; top-level statements of the script are the component",
    family="single-file",
    suffix="flat",
    marks=Marks((".vue",)),
    runtime=RuntimeSpec("vue", 3),
    census="clean_carry.syntaxes.single_file.census:census",
    features=frozenset({"one scope", "several roots", "two-way", "named slots", "scoped styles"}),
    reader="clean_carry.syntaxes.single_file_flat.reader:FlatReader",
    writer="clean_carry.syntaxes.single_file_flat.writer:FlatFileWriter",
    takes=frozenset({"single-file", "jsx"}),
    parts="clean_carry.syntaxes.single_file.parts",
    rules="clean_carry.syntaxes.single_file.rules:RULES",
    drops=frozenset({"registered-by-import", "method-in-scope", "option-never-read"}),
    family_only=True,
)
