"""The pages of constructs: every notion has a row, every row a pair with a trial or a test."""

from __future__ import annotations

import json
import re
from pathlib import Path

import pytest

from clean_carry.syntaxes.single_file.options.read import RUNTIME_OPTIONS
from clean_carry.syntaxes.single_file.options.read_options import OPTIONS

SYNTAXES = Path(__file__).parents[2] / "src" / "clean_carry" / "syntaxes"
HERE = Path(__file__).parent
TESTS = HERE.parent
PAGES = sorted(SYNTAXES.glob("*/constructs.md"))


def rows(page: Path) -> list[list[str]]:
    """The cells of every row of its tables, headings left out."""
    found = [
        [cell.strip() for cell in line.strip().strip("|").split("|")]
        for line in page.read_text("utf-8").splitlines()
        if line.startswith("|")
    ]
    return [cells for cells in found if cells[0] not in ("notion", "member", "---")]


def declared() -> list[str]:
    members = json.loads((HERE / "jsx_class" / "runtime-members.json").read_text("utf-8"))
    return sorted({*members["instance"], *members["static"]})


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.parent.name)
def test_every_row_names_a_pair_with_a_trial_or_a_test(page: Path) -> None:
    family = {"controller_component": "directive"}.get(page.parent.name, page.parent.name)
    pairs = HERE / family / "pairs"
    for cells in rows(page):
        names = re.findall(r"`([\w./-]+)`", cells[-1])
        assert names, cells
        for name in names:
            if name.endswith(".py"):
                assert (TESTS.parent / name).exists() or (HERE / name).exists(), name
            else:
                assert list((pairs / name).glob("old.trials.yaml")), name


@pytest.mark.parametrize("member", declared())
def test_every_member_the_runtime_declares_has_a_row(member: str) -> None:
    page = SYNTAXES / "jsx_class" / "constructs.md"
    table = page.read_text("utf-8").split("## What the runtime declares")[1]
    lines = [line for line in table.splitlines() if line.startswith("|")]
    found = [line for line in lines if f"`{member}`" in line.split("|")[1]]
    assert len(found) == 1


def single() -> dict[str, list[str]]:
    found: dict[str, list[str]] = json.loads(
        (HERE / "single_file_object" / "runtime-members.json").read_text("utf-8")
    )
    return found


@pytest.mark.parametrize("kind", ["options", "instance"])
def test_every_option_and_member_of_an_object_has_a_row(kind: str) -> None:
    page = (SYNTAXES / "single_file_object" / "constructs.md").read_text("utf-8")
    heading = "the instance" if kind == "instance" else "options"
    table = page.split(f"## What the runtime declares: {heading}")[1].split("\n## ")[0]
    first = [line.split("|")[1] for line in table.splitlines() if line.startswith("|")]
    for name in single()[kind]:
        assert sum(f"`{name}`" in cell for cell in first) == 1, name


def scoped() -> dict[str, list[str]]:
    found: dict[str, list[str]] = json.loads(
        (HERE / "directive" / "runtime-members.json").read_text("utf-8")
    )
    return found


@pytest.mark.parametrize("kind", ["definition", "scope", "directives", "component"])
def test_all_that_a_directive_a_scope_and_a_template_may_say_has_a_row(kind: str) -> None:
    folder = "controller_component" if kind == "component" else "directive"
    table = (SYNTAXES / folder / "constructs.md").read_text("utf-8")
    if kind != "component":
        headings = {"scope": "the scope", "definition": "the definition"}
        heading = headings.get(kind, "directives of templates")
        table = table.split(f"declares: {heading}")[1].split("\n## ")[0]
    first = [line.split("|")[1] for line in table.splitlines() if line.startswith("|")]
    for name in scoped()[kind]:
        assert any(f"`{name}`" in cell for cell in first), name


@pytest.mark.parametrize("option", single()["options"])
def test_an_option_without_a_reader_is_never_taken_for_somebodys_own(option: str) -> None:
    assert option in OPTIONS or option in RUNTIME_OPTIONS


@pytest.mark.parametrize(
    "pair", sorted((HERE / "jsx_class" / "pairs").iterdir()), ids=lambda p: p.name
)
def test_every_pair_is_named_by_a_row(pair: Path) -> None:
    text = (SYNTAXES / "jsx_class" / "constructs.md").read_text("utf-8")
    assert f"`{pair.name}`" in text


@pytest.mark.parametrize("folder", ["jsx_function", "single_file_flat"])
def test_every_function_of_the_runtime_has_a_row(folder: str) -> None:
    found = json.loads((HERE / folder / "runtime-members.json").read_text("utf-8"))
    page = (SYNTAXES / folder / "constructs.md").read_text("utf-8")
    table = page.split("## What the runtime declares")[1]
    first = [line.split("|")[1] for line in table.splitlines() if line.startswith("|")]
    for name in found["functions"]:
        assert sum(f"`{name}`" in cell for cell in first) == 1, name
