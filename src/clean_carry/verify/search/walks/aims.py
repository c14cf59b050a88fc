"""The conditions of branches: the props that a condition, and those around it, depend on.

Names are followed as words, from a name to all that stands in what declares it: enough to say which inputs
are worth trying together, and wrong at no greater cost than a few trials that vary something else.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Collection, Iterable, Iterator
from contextlib import suppress
from dataclasses import dataclass, field
from random import Random
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.source.javascript.tree import Node, Tree
from clean_carry.source.template.tree import TemplateNode, read_blocks
from clean_carry.source.text import SourceText
from clean_carry.syntaxes.single_file.expressions import read_code
from clean_carry.verify.worker_pool import Bundle, Side

_WORD = re.compile(r"[A-Za-z_$][\w$]*")
# The deciding expression, and the part of it that is read.
_DECISIONS = {
    "if_statement": "condition",
    "ternary_expression": "condition",
    "switch_statement": "value",
    "while_statement": "condition",
    "binary_expression": "left",
}
_HANGS = ("v-if", "v-else-if", "v-show", "v-for")
_LOGICAL = frozenset({"&&", "||", "??"})
# So many declarations are followed from a word, and so many inputs are varied together at most.
DEEPEST = 4
MOST = 5


@dataclass
class _Code:
    """Decisions (first line, last line, words of what is asked), what names mean, lines of markup."""

    decisions: list[tuple[int, int, tuple[str, ...]]] = field(default_factory=list)
    meanings: dict[str, set[str]] = field(default_factory=dict)
    markup: tuple[int, int] = (0, 0)

    def add(self, tree: Tree) -> None:
        """Read one tree of the file."""
        line = tree.source.line_of
        for kind, part in _DECISIONS.items():
            for node in tree.of(kind):
                asked = node.child(part)
                if asked is None or (kind == "binary_expression" and not _logical(node)):
                    continue
                row = (line(node.start), line(node.end), tuple(_WORD.findall(asked.text)))
                self.decisions.append(row)
        for name, body in _declared(tree):
            self.meanings.setdefault(name, set()).update(_WORD.findall(body.text))

    def add_markup(self, source: SourceText, template: TemplateNode) -> None:
        """Read what elements of a template hang on: conditions, lists, and content in a slot's place."""
        line = source.line_of
        self.markup = (line(template.start), line(template.end))
        for above in template.walk():
            before: tuple[str, ...] = ()
            for node in above.children:
                if node.kind != "element":
                    continue
                given = {a.name: source.slice(*a.value) if a.value else "" for a in node.attributes}
                asked = [given[name] for name in _HANGS if name in given]
                words = tuple(word for text in asked for word in _WORD.findall(text))
                if "v-else" in given or "v-else-if" in given:
                    words = (*words, *before)
                before = words
                if node.tag == "slot":
                    words = (*words, given.get("name", "default"))
                if words:
                    self.decisions.append((line(node.start), line(node.end), words))

    def behind(self, words: Iterable[str], named: Collection[str]) -> Iterator[str]:
        """The names among `named` that some words come from, nearest first."""
        seen: set[str] = set()
        now = list(dict.fromkeys(words))
        for _ in range(DEEPEST):
            after: list[str] = []
            for word in now:
                if word in seen:
                    continue
                seen.add(word)
                if word in named:
                    yield word
                else:
                    after.extend(sorted(self.meanings.get(word, ())))
            now = after


def _logical(node: Node) -> bool:
    return any(not part.named and part.type in _LOGICAL for part in node.children)


def _declared(tree: Tree) -> Iterator[tuple[str, Node]]:
    """(name, what it stands for) of variables, functions, members and what is taken out of objects."""
    for node in tree.of("variable_declarator"):
        name, value = node.child("name"), node.child("value")
        if name is None or value is None:
            continue
        if name.type == "identifier":
            yield name.text, value
        for pair in (n for n in name.walk() if n.type == "pair_pattern"):
            key, local = pair.child("key"), pair.child("value")
            if key is not None and local is not None:
                yield from ((name, key) for name in _WORD.findall(local.text)[:1])
    for kind in ("function_declaration", "method_definition", "public_field_definition", "pair"):
        for node in tree.of(kind):
            name = node.child("name") or node.child("key") or node.child("property")
            body = node.child("body") or node.child("value")
            if name is not None and body is not None:
                yield name.text, body


def _code(source: SourceText) -> _Code:
    code = _Code()
    with suppress(InputError):
        if not source.path.endswith(".vue"):
            code.add(Tree(source))
            return code
        for block in read_blocks(source):
            if block.kind == "element" and block.tag == "script":
                code.add(Tree(source, bytes(source.blanked([block.inner]))))
            elif block.kind == "element" and block.tag == "template":
                code.add_markup(source, block)
                code.add(read_code(source, block).tree)
    return code


def aims_of(
    text: str, path: str, counters: Iterable[dict[str, Any]], named: Collection[str]
) -> dict[str, tuple[str, ...]]:
    """For each branch of a file the inputs, functions and slots in `named` it hangs on, at most `MOST`.

    `counters` are {"id", "line", "kind"}, as a bundle has them; branches that hang on none are left out.
    A function that a compiler makes of a part of a template is a branch as well.
    """
    source = SourceText(path, text.encode())
    code = _code(source)
    first, last = code.markup
    branches = [c for c in counters if c["id"].startswith("b") or first <= c["line"] <= last]
    code.decisions.sort(key=lambda row: (row[0], -row[1]))
    lines = source.data.decode("utf-8").split("\n")
    found: dict[int, tuple[str, ...]] = {}
    for line in {counter["line"] for counter in branches}:
        words = _WORD.findall(lines[line - 1]) if 0 < line <= len(lines) else []
        around = [asked for first, last, asked in code.decisions if first <= line <= last]
        every = [*words, *(word for asked in reversed(around) for word in asked)]
        found[line] = tuple(dict.fromkeys(code.behind(every, named)))[:MOST]
    return {c["id"]: found[c["line"]] for c in branches if found[c["line"]]}


class Aims:
    """The props to vary together next: those behind a branch that never ran."""

    def __init__(self, hangs_on: dict[str, tuple[str, ...]]) -> None:
        self.hangs_on = hangs_on
        self._aimed: Counter[tuple[str, ...]] = Counter()

    @classmethod
    def of(cls, side: Side, bundle: Bundle, named: Collection[str]) -> Aims:
        """The aims in the code of one side."""
        own = [c for c in bundle.counters or () if _within(c["line"], side.lines)]
        return cls(aims_of(side.text, str(side.place), own, named))

    def next(self, reached: Collection[str], rng: Random) -> tuple[str, ...]:
        """Names to vary; none where nothing hangs on an input."""
        known = dict.fromkeys(names for id_, names in self.hangs_on.items() if id_ not in reached)
        aims = list(known or dict.fromkeys(self.hangs_on.values()))
        if not aims:
            return ()
        chosen = rng.choices(aims, [1 / (1 + 0.3 * self._aimed[names]) for names in aims])[0]
        self._aimed[chosen] += 1
        return chosen


def _within(line: int, stretches: Collection[tuple[int, int]]) -> bool:
    return not stretches or any(first <= line <= last for first, last in stretches)
