"""The declaration of `stateful-view`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

SYNTAX = Syntax(
    id="stateful-view",
    summary="view template and a class that keeps its state between requests",
    family="server",
    suffix="view",
    marks=Marks((".blade.php",), ((b"wire:",),)),
    runtime=RuntimeSpec("livewire/livewire", 3),
    features=frozenset({"two-way"}),
    writer="clean_carry.syntaxes.stateful_view.writer:StatefulWriter",
    takes=frozenset({"single-file"}),
    rules="clean_carry.syntaxes.server_view.rules:RULES",
    typed=True,
    names_file="clean_carry.syntaxes.server_view.names:file_of",
)
