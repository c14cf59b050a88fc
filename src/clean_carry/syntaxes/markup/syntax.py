"""The declaration of `markup`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

SYNTAX = Syntax(
    id="markup",
    summary="plain HTML and CSS: a page, or a part of one",
    family="single-file",
    suffix="markup",
    marks=Marks((".html", ".htm"), ((b"<",),)),
    runtime=RuntimeSpec("vue", 3),
    features=frozenset({"several roots"}),
    reader="clean_carry.syntaxes.markup.reader:PageReader",
    rules="clean_carry.syntaxes.markup.rules:RULES",
    named_only=True,
)
