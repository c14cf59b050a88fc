"""The declaration of `server-view`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

SYNTAX = Syntax(
    id="server-view",
    summary="view template plus a class whose public members the view sees",
    family="server",
    suffix="view",
    marks=Marks((".blade.php",)),
    runtime=RuntimeSpec("illuminate/view", 8),
    features=frozenset({"several roots", "named slots"}),
    census="clean_carry.syntaxes.server_view.census:census",
    reader="clean_carry.syntaxes.server_view.reading.reader:ViewReader",
    given="single-file",
    writer="clean_carry.syntaxes.server_view.writer:ViewWriter",
    takes=frozenset({"single-file"}),
    typed=True,
    names_file="clean_carry.syntaxes.server_view.names:file_of",
    rules="clean_carry.syntaxes.server_view.rules:RULES",
)
