"""The declaration of `jsx-function`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

SYNTAX = Syntax(
    id="jsx-function",
    summary="function returning JSX, state and effects through hooks",
    family="jsx",
    suffix="function",
    marks=Marks((".jsx", ".js", ".tsx")),
    runtime=RuntimeSpec("react", 18),
    census="clean_carry.syntaxes.jsx_function.census:census",
    features=frozenset({"one scope", "several roots", "named slots"}),
    reader="clean_carry.syntaxes.jsx_function.reader:FunctionReader",
    writer="clean_carry.syntaxes.jsx_function.writer:FunctionWriter",
    takes=frozenset({"jsx", "single-file"}),
    rules="clean_carry.syntaxes.jsx.rules:RULES",
    drops=frozenset(
        {
            "inputs-already-in-scope",
            "default-inputs-moved",
            "base-import",
            "empty-hook",
            "state-never-used",
            "event-always-sent",
        }
    ),
)
