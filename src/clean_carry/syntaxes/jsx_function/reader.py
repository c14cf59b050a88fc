"""The reader of functions that return JSX."""

from __future__ import annotations

import re

from clean_carry.component.errors import HoldsNone, InputError
from clean_carry.component.ledger import Ledger
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Tree
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import Workspace
from clean_carry.syntaxes.contract import Settled, Wishes
from clean_carry.syntaxes.jsx.drawing.page_types import types_of_page
from clean_carry.syntaxes.jsx.file import JsxFile
from clean_carry.syntaxes.jsx.runtime_names import RUNTIME, runtime_names
from clean_carry.syntaxes.jsx_function.reading.read import read
from clean_carry.syntaxes.jsx_function.reading.recognise import candidates
from clean_carry.syntaxes.jsx_function.syntax import SYNTAX

# A function or constant called like a component, and an element or a hook.
_NAMED = re.compile(rb"(?:\bfunction\s+[A-Z]|\bconst\s+[A-Z]\w*\s*[=:]|\bexport\s+default\b)")
_DRAWN = re.compile(rb"<(?:[A-Za-z][\w.]*[\s/>]|>)")
# Imports that only components of this family use.
_FAMILY: dict[str, Settled] = dict.fromkeys(
    (RUNTIME, "react-dom", "prop-types"), ("carried", "runtime-import")
)


class FunctionReader:
    """Reads the components of a script that are functions."""

    def recognises(self, source: SourceText) -> bool:
        """Whether a script holds a function that returns markup."""
        if not _NAMED.search(source.data) or not _DRAWN.search(source.data):
            return False
        try:
            tree = Tree(source)
        except InputError:
            return source.path.endswith((".jsx", ".tsx"))
        found = bool(candidates(tree, Names(tree), runtime_names(tree)))
        tree.release()
        return found

    def whole(self, source: SourceText, workspace: Workspace, wishes: Wishes) -> SourceText:
        """The file as it is."""
        return source

    def read(
        self, source: SourceText, ledger: Ledger, workspace: Workspace, wishes: Wishes
    ) -> JsxFile:
        """Read every component; raises `HoldsNone` where there is none."""
        tree = Tree(source)
        names = Names(tree)
        components, refusals = read(tree, names, ledger, workspace)
        if not components and not refusals:
            raise HoldsNone("holds no function that returns markup", file=source.path)
        return JsxFile(
            SYNTAX,
            source,
            components,
            refusals,
            tree,
            (0, len(source.data)),
            serving=_FAMILY,
            names=names,
            page_types=types_of_page(tree) if tree.typed else {},
        )
