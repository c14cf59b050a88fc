"""The declaration of `jsx-class`."""

from clean_carry.syntaxes.contract import Marks, RuntimeSpec, Syntax

SYNTAX = Syntax(
    id="jsx-class",
    summary="class with a render method returning JSX",
    family="jsx",
    suffix="class",
    marks=Marks((".jsx", ".js", ".tsx"), ((b"class",), (b"extends",))),
    runtime=RuntimeSpec("react", 18),
    census="clean_carry.syntaxes.jsx_class.census:census",
    features=frozenset({"several roots", "named slots", "error capture", "open members"}),
    reader="clean_carry.syntaxes.jsx_class.reader:ClassReader",
    rules="clean_carry.syntaxes.jsx.rules:RULES",
    drops=frozenset(
        {
            "base-constructor-call",
            "method-bound-in-constructor",
            "receiver-alias",
            "callback-instance",
            "default-inputs-moved",
            "declaration-only",
            "instance-display-name",
            "field-never-used",
            "draws-always",
            "class-lifecycle-help",
            "event-always-sent",
        }
    ),
)
