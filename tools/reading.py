"""Check the wording of findings, help texts, docstrings and docs.

python tools/reading.py [KIND…]   print each fault as `place: fault: sentence`, exit with 1 if there is one

KIND is any of `findings`, `help`, `docstrings`, `docs`; all of them by default. The faults are words and
phrases that readers stumbled over, sentences whose subject is a “what” clause, and sentences of 25 words
or more.
"""

from __future__ import annotations

import ast
import io
import re
import sys
import tokenize
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

ROOT = Path(__file__).parent.parent
MOST_WORDS = 25
# Words of a dialect, each with the trade's word.
WORDS = {
    r"draw|draws|drawn|drawing|drew": "render",
    r"moments?": "hook",
    r"kin|heirs?": "subclass, family",
    r"the making": "creation, setup",
    r"told": "reported, called",
    r"handed on|hands on|hand on": "passed on",
    r"asked for": "requested, read",
    r"settled|settles": "done, resolved",
}
PHRASES = (
    "when inputs come", "meet in one scope", "means something else to a method", "both come into one scope",
    "stands less deep", "points at itself", "told by itself", "settled points compared", "find themselves",
    "can no longer be reached from outside", "the runtime's own",
)  # fmt: skip
_WORD = [(re.compile(rf"\b(?:{words})\b", re.I), instead) for words, instead in WORDS.items()]
_CLAUSE = re.compile(r"^(?:What|That which|One that|Those that|Whoever)\b(?!.*\?$)")
_CODE = re.compile(r"``.*?``|`[^`]*`|“[^”]*”")
_END = re.compile(r"(?<=[.!?;:])\s+|\n\s*\n|\s\|\s")


class Fault(NamedTuple):
    """One sentence that does not read well: where, why, and the sentence."""

    place: str
    why: str
    sentence: str


def faults_in(text: str, place: str) -> Iterator[Fault]:
    """Yield the faults of a text. Code in backticks and quoted words are not looked at."""
    plain = _CODE.sub("CODE", text)
    for sentence in _END.split(plain):
        shown = " ".join(sentence.split())
        if not shown:
            continue
        for pattern, instead in _WORD:
            found = pattern.search(shown)
            if found is not None:
                yield Fault(place, f"“{found[0]}” (write {instead})", shown)
        for phrase in PHRASES:
            if phrase in shown.lower():
                yield Fault(place, f"the phrase “{phrase}”", shown)
        if _CLAUSE.match(shown):
            yield Fault(place, "begins with a clause instead of a noun", shown)
        if len(shown.split()) >= MOST_WORDS:
            yield Fault(place, f"{len(shown.split())} words", shown)


def findings() -> Iterator[Fault]:
    """Yield the faults of all rules' messages and advice."""
    from clean_carry.syntaxes.rules import every_rule

    for rule in every_rule().values():
        for text in (rule.title, rule.advice):
            yield from faults_in(text, rule.name)


def help_texts() -> Iterator[Fault]:
    """Yield the faults of every command's help, its options with it."""
    import click

    from clean_carry.cli.main import cli as program

    commands: list[tuple[str, click.Command]] = [("clean-carry", program)]
    while commands:
        name, command = commands.pop()
        yield from faults_in(command.help or "", name)
        for option in command.params:
            yield from faults_in(getattr(option, "help", None) or "", f"{name} {option.name}")
        if isinstance(command, click.Group):
            commands += [(f"{name} {one}", inner) for one, inner in command.commands.items()]


def docstrings() -> Iterator[Fault]:
    """Yield the faults of the program's docstrings and comments.

    Sentences may be long in comments and after the first paragraph of a docstring.
    """
    for path in sorted((ROOT / "src").rglob("*.py")):
        code = path.read_text("utf-8")
        for line, comment in _comments(code):
            yield from _words(faults_in(comment, f"{path.relative_to(ROOT)}:{line}"))
        for node in ast.walk(ast.parse(code)):
            if not isinstance(
                node, ast.Module | ast.ClassDef | ast.FunctionDef | ast.AsyncFunctionDef
            ):
                continue
            text = ast.get_docstring(node)
            if text:
                place = f"{path.relative_to(ROOT)}:{getattr(node, 'lineno', 1)}"
                first, _, rest = text.partition("\n\n")
                yield from faults_in(first, place)
                yield from _words(faults_in(rest, place))


def _comments(code: str) -> list[tuple[int, str]]:
    """The comments of a file with their first lines; lines below each other are one comment."""
    found: list[tuple[int, str]] = []
    last = 0
    for token in tokenize.generate_tokens(io.StringIO(code).readline):
        if token.type != tokenize.COMMENT:
            continue
        line, text = token.start[0], token.string.lstrip("# ")
        if found and line == last + 1:
            found[-1] = (found[-1][0], f"{found[-1][1]} {text}")
        else:
            found.append((line, text))
        last = line
    return found


def _words(faults: Iterator[Fault]) -> Iterator[Fault]:
    """The faults that are no length."""
    return (fault for fault in faults if not fault.why.endswith(" words"))


def docs() -> Iterator[Fault]:
    """Yield the faults of the Markdown pages, without their code and their headings."""
    for path in (ROOT / "README.md", ROOT / "CHANGELOG.md", ROOT / "CONTRIBUTING.md", *_pages()):
        if not path.is_file():
            continue
        text = re.sub(r"^```.*?^```", "", path.read_text("utf-8"), flags=re.M | re.S)
        text = re.sub(r"!?\[([^\]]*)\]\([^)]*\)", r"\1", text)
        text = re.sub(r"^#.*$|^<!--.*?-->$", "", text, flags=re.M)
        for paragraph in re.split(r"\n\s*\n|\n\s*(?=[-|] ?|\d+\. )", text):
            yield from faults_in(paragraph.lstrip("-|0123456789. "), str(path.relative_to(ROOT)))


def _pages() -> list[Path]:
    return sorted((ROOT / "docs").rglob("*.md"))


KINDS = {"findings": findings, "help": help_texts, "docstrings": docstrings, "docs": docs}


def main(kinds: list[str]) -> int:
    """Print the faults of the kinds of text; return 1 if there is one."""
    count = 0
    for kind in kinds or list(KINDS):
        for fault in KINDS[kind]():
            count += 1
            print(f"{fault.place}: {fault.why}: {fault.sentence}")
    print(f"{count} faults", file=sys.stderr)
    return int(count > 0)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
