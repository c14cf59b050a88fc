"""Values of a file that must exist once: a new file beside the old one imports them from there."""

from __future__ import annotations

import re
from pathlib import PurePosixPath

from clean_carry.component.fragment import Fragment, new
from clean_carry.component.ledger import Ledger
from clean_carry.component.model import Component
from clean_carry.component.spans import Span
from clean_carry.source.javascript.made_once import MadeOnce, made_once
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node, Tree

Refusals = list[tuple[Component, str, str, int]]


def shared_values(tree: Tree, names: Names, components: list[Component]) -> list[MadeOnce]:
    """The values that must exist once and can be imported from the old file: exported, and made of no
    component that is carried."""
    return [
        value
        for value in made_once(tree, names)
        if value.exported and not _needs(value, components)
    ]


def split_values(tree: Tree, names: Names, components: list[Component]) -> list[MadeOnce]:
    """Return values that cannot be imported and that exported code shares: old and new would each
    have their own."""
    return [
        value
        for value in made_once(tree, names)
        if not value.exported
        and not _needs(value, components)
        and sum(_is_exported(user, tree) for user in value.users) > 1
    ]


def _needs(value: MadeOnce, components: list[Component]) -> bool:
    words = set(re.findall(r"[\w$]+", value.statement.text))
    return any(component.name in words for component in components)


def _is_exported(statement: Node, tree: Tree) -> bool:
    if statement.type == "export_statement":
        return True
    name = statement.child("name")
    return name is not None and any(
        re.search(rf"\b{re.escape(name.text)}\b", other.text)
        for other in tree.of("export_statement")
    )


def imports_from_old(
    values: list[MadeOnce], tree: Tree, ledger: Ledger, quote: str, semicolon: str
) -> list[tuple[Span, Fragment]]:
    """The edits of a file that imports these values instead of making them."""
    source = tree.source
    request = _request(tree)
    named = [
        value.name if value.exported == value.name else f"{value.exported} as {value.name}"
        for value in values
    ]
    statement = f"import {{ {', '.join(named)} }} from {quote}{request}{quote}{semicolon}\n"
    at = _after_imports(tree)
    edits = [(source.span(at, at), new(statement))]
    for value in values:
        start, end = value.statement.start, value.statement.end
        if source.data[end : end + 1] == b";" and not value.statement.text.endswith(";"):
            end += 1
        span = source.span(start, end)
        if not value.inline:
            span = source.statement_line(start, end)
        text = f"export {{ {value.name} }}{semicolon}" if value.inline else ""
        entry = ledger.claim("made-once", span)
        for part in value.statement.walk():
            if part.type == "comment":
                ledger.settle(
                    ledger.claim("comment", source.span(part.start, part.end)),
                    "carried",
                    "made-once",
                )
        edits.append((span, new(text, entry, "import-made-once")))
    return edits


def _request(tree: Tree) -> str:
    """The old file as an import beside it names it, with its ending where the file's imports have one."""
    path = PurePosixPath(tree.source.path.replace("\\", "/"))
    sources = [node.child("source") for node in tree.of("import_statement")]
    own = [node.text[1:-1] for node in sources if node is not None and node.text[1:2] == "."]
    ended = bool(own) and all(re.search(r"\.[jt]sx?$", text) for text in own)
    return f"./{path.name if ended else path.stem}"


def _after_imports(tree: Tree) -> int:
    """The offset of the line behind the last import."""
    last = [node for node in tree.root.children if node.type == "import_statement"]
    if not last:
        return next((node.start for node in tree.root.children if node.type != "comment"), 0)
    end = tree.source.data.find(b"\n", last[-1].end)
    return end + 1 if end >= 0 else len(tree.source.data)
