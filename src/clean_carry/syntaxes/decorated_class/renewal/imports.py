"""The imports of a class in the newer notation: what its code and its template need, and nothing else."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator

from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.merged import Edit
from clean_carry.syntaxes.decorated_class.recognise import Decorated, property_of
from clean_carry.syntaxes.decorated_class.renewal.alone import Needed

CORE, COMMON = "@angular/core", "@angular/common"
# The runtime's pipes by their names, with their classes.
PIPES = {
    "async": "AsyncPipe", "currency": "CurrencyPipe", "date": "DatePipe", "json": "JsonPipe",
    "keyvalue": "KeyValuePipe", "lowercase": "LowerCasePipe", "number": "DecimalPipe",
    "percent": "PercentPipe", "slice": "SlicePipe", "titlecase": "TitleCasePipe",
    "uppercase": "UpperCasePipe",
}  # fmt: skip
# Classes that the blocks took the place of.
_BLOCKS = frozenset({"NgIf", "NgFor", "NgForOf", "NgSwitch", "NgSwitchCase", "NgSwitchDefault"})
_DECORATORS = frozenset({"Input", "Output", "EventEmitter", "ViewChild"})


def needed_of_template(text: str, directives: Iterable[str]) -> set[str]:
    """The classes of the common package that a template needs."""
    found = set(directives)
    for name, class_ in PIPES.items():
        if re.search(rf"(?<!\|)\|(?!\|)\s*{name}\b", text):
            found.add(class_)
    return found


def import_edits(
    one: Decorated, tree: Tree, used: set[str], text: str, needed: set[str], *, listed_too: bool
) -> Iterator[Edit]:
    """The edits of the imports and of the decorator's list.

    `used` are functions of the core that are used from now on. `text` is the class as it will be, `needed`
    are the classes its template needs, which `listed_too` asks for in the decorator's list.
    """
    listed = property_of(one.options, "imports")
    old = [each.text for each in listed.named_children] if listed is not None else []
    whole = "CommonModule" in old
    kept = [name for name in old if name not in _BLOCKS | {"CommonModule"} or name in needed]
    new = kept + (sorted(needed - set(old)) if whole else [])
    if listed_too:
        yield from _list(one, tree, listed, old, new)
    for statement in tree.of("import_statement"):
        request = statement.child("source")
        name = request.text[1:-1] if request is not None else ""
        if name == CORE:
            yield from _clause(statement, tree, add=used, gone=_gone(statement, text))
        elif name == COMMON and listed_too:
            gone = {
                each for each in _named(statement) if each not in new and not _is_used(each, text)
            }
            yield from _clause(
                statement, tree, add=set(new) & set(needed) - set(_named(statement)), gone=gone
            )


def alone_edits(
    one: Decorated, tree: Tree, used: set[str], text: str, needed: set[str], more: list[Needed]
) -> Iterator[Edit]:
    """The edits by which a class that a module declared stands alone: its mark goes, a list of imports
    comes, and the statements for it. `more` are classes that are not of the common package."""
    names = [*sorted(needed), *(each.name for each in more)]
    told = next((pair for pair in one.options.named_children if _is_pair(pair, "standalone")), None)
    listed = f"imports: [{', '.join(names)}]"
    if told is not None:
        yield Edit(told.start, told.end, listed) if names else _line(tree, told)
    elif names:
        first = one.options.named_children[0]
        gap = tree.source.slice(one.options.start + 1, first.start)
        yield Edit(first.end, first.end, f",{gap}{listed}")
    last: Node | None = None
    has_common = False
    for statement in tree.of("import_statement"):
        last = statement
        request = statement.child("source")
        name = request.text[1:-1] if request is not None else ""
        if name == CORE:
            yield from _clause(statement, tree, add=used, gone=_gone(statement, text))
        elif name == COMMON:
            has_common = True
            yield from _clause(statement, tree, add=needed - set(_named(statement)), gone=set())
    assert last is not None
    asked: dict[str, list[str]] = {COMMON: sorted(needed)} if needed and not has_common else {}
    known = {each for statement in tree.of("import_statement") for each in _named(statement)}
    for each in more:
        if each.name not in known:
            asked.setdefault(each.request, []).append(each.name)
    quote = last.text.rstrip(";")[-1]
    end = ";" if last.text.endswith(";") else ""
    text = "".join(
        f"\nimport {{ {', '.join(own)} }} from {quote}{request}{quote}{end}"
        for request, own in asked.items()
    )
    if text:
        yield Edit(last.end, last.end, text)


def _is_pair(pair: Node, name: str) -> bool:
    key = pair.child("key")
    return key is not None and key.text == name


def _gone(statement: Node, text: str) -> set[str]:
    return {name for name in _named(statement) if name in _DECORATORS and not _is_used(name, text)}


def _is_used(name: str, text: str) -> bool:
    return re.search(rf"(?<![\w$]){re.escape(name)}(?![\w$])", text) is not None


def _named(statement: Node) -> list[str]:
    return [node.text for node in statement.walk() if node.type == "import_specifier"]


def _clause(statement: Node, tree: Tree, add: set[str], gone: set[str]) -> Iterator[Edit]:
    """An import with other names; those that stay keep their order."""
    names = _named(statement)
    new = [name for name in names if name not in gone]
    new += sorted(name for name in add if name not in new)
    if new == names:
        return
    if not new:
        line = tree.source.statement_line(statement.start, statement.end)
        yield Edit(line.start, line.end, "")
        return
    clause = next(node for node in statement.walk() if node.type == "named_imports")
    if "\n" in clause.text:
        yield Edit(clause.start, clause.end, "{\n" + "".join(f"  {name},\n" for name in new) + "}")
    else:
        yield Edit(clause.start, clause.end, f"{{ {', '.join(new)} }}")


def _list(
    one: Decorated, tree: Tree, listed: Node | None, old: list[str], new: list[str]
) -> Iterator[Edit]:
    """The decorator's list of imports, and its mark of a class that stands alone, which all do now."""
    for pair in one.options.named_children:
        key, value = pair.child("key"), pair.child("value")
        if (
            key is not None
            and value is not None
            and key.text == "standalone"
            and value.text == "true"
        ):
            yield _line(tree, pair)
    if listed is None or old == new:
        return
    if not new:
        assert listed.parent is not None
        yield _line(tree, listed.parent)
        return
    yield Edit(listed.start, listed.end, f"[{', '.join(new)}]")


def _line(tree: Tree, pair: Node) -> Edit:
    """A property of an object with its comma and its line."""
    data = tree.source.data
    end = pair.end
    while data[end : end + 1] in (b",", b" "):
        end += 1
    start = tree.source.line_start(pair.start)
    if data[start : pair.start].strip():
        return Edit(pair.start, end, "")
    return Edit(start, end + 1 if data[end : end + 1] == b"\n" else end, "")
