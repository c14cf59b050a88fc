"""The list of notions of decorated classes names all that the runtime's own declarations name."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

import clean_carry
from clean_carry.verify.runtimes import RUNTIMES

LIST = Path(clean_carry.__file__).parent / "syntaxes" / "decorated_class" / "constructs.md"
PACKAGES = RUNTIMES["angular-21"].folder / "node_modules" / "@angular"
# Kinds that stand for all kinds, or that walk over them.
ABSTRACT = {"Node", "BlockNode", "Visitor", "RecursiveVisitor"}


def declared(package: str) -> str:
    files = sorted((PACKAGES / package / "types").glob("*.d.ts"))
    return "\n".join(path.read_text("utf-8") for path in files)


def options_of(text: str, name: str) -> set[str]:
    found = re.search(
        rf"^interface {name}(?: extends \w+)? {{$(.*?)^}}", text, re.MULTILINE | re.DOTALL
    )
    assert found is not None, name
    return set(re.findall(r"^    (\w+)\??:", found[1], re.MULTILINE))


@pytest.mark.slow
@pytest.mark.skipif(not PACKAGES.is_dir(), reason="the runtime is not installed")
def test_nothing_is_missing() -> None:
    compiler, core = declared("compiler"), declared("core")
    named = set(re.findall(r"`(\w+)`", LIST.read_text("utf-8")))
    nodes = set(re.findall(r" as TmplAst(\w+)", compiler)) - ABSTRACT
    expressions = set(re.findall(r"declare class (\w+) extends (?:AST|ASTWithName)\b", compiler))
    hooks = set(
        re.findall(
            r"^interface (On[A-Z]\w+|DoCheck|After(?:View|Content)\w+) {", core, re.MULTILINE
        )
    )
    options = {
        one
        for name in ("Component", "Directive", "Input", "NgModule")
        for one in options_of(core, name)
    }
    assert len(nodes) > 30
    assert len(expressions) > 25
    for kinds in (nodes, expressions, hooks, options):
        assert kinds <= named, sorted(kinds - named)
