"""The reader of classes that return JSX."""

from __future__ import annotations

import re

from clean_carry.component.errors import HoldsNone
from clean_carry.component.ledger import Ledger
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import Settled, Wishes
from clean_carry.syntaxes.jsx.drawing.page_types import types_of_page
from clean_carry.syntaxes.jsx.file import JsxFile
from clean_carry.syntaxes.jsx.runtime_names import RUNTIME
from clean_carry.syntaxes.jsx_class.bases.read_in import with_bases
from clean_carry.syntaxes.jsx_class.read import FOR_CLASSES_DROP, read
from clean_carry.syntaxes.jsx_class.recognise import FOR_CLASSES
from clean_carry.syntaxes.jsx_class.syntax import SYNTAX
from clean_carry.syntaxes.jsx_class.uses.instance_leaks import DOM

# A class that extends something; its type parameters may stand between, with defaults of their own.
_EXTENDS = re.compile(rb"\bclass\b[^;]{0,300}?\bextends\b")

# Imports that only components of this family use.
_FAMILY: dict[str, Settled] = dict.fromkeys(
    (RUNTIME, "react-dom", "prop-types"), ("carried", "runtime-import")
)


class ClassReader:
    """Reads the component classes of a script."""

    def recognises(self, source: SourceText) -> bool:
        """Whether a class of the file extends something."""
        return _EXTENDS.search(source.data) is not None

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The file with what its classes inherit from small bases of the project."""
        return with_bases(source, workspace)

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> JsxFile:
        """Read every component class; raises `HoldsNone` where there is none."""
        tree = Tree(source)
        names = Names(tree)
        components, refusals = read(
            tree, names, ledger, workspace, wishes.keeping, neutral=wishes.neutral
        )
        if not components and not refusals:
            raise HoldsNone("holds no class component", file=source.path)
        return JsxFile(
            SYNTAX,
            source,
            components,
            refusals,
            tree,
            (0, len(source.data)),
            serving={
                # A call that finds the class's element is a reference now.
                DOM: ("carried", "root-element-reference"),
                # A call that adds newer lifecycle methods to classes is dropped.
                **{one.request: ("dropped", FOR_CLASSES_DROP) for one in FOR_CLASSES},
                **(_FAMILY if wishes.neutral else {}),
            },
            names=names,
            page_types=types_of_page(tree) if wishes.neutral and tree.typed else {},
        )
