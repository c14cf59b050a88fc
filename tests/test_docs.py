"""The docs: links lead somewhere, commands run as written, references are up to date, words are plain."""

from __future__ import annotations

import re
import shlex
import sys
from pathlib import Path

import pytest

from clean_carry.project.settings import settings_for

ROOT = Path(__file__).parent.parent
sys.path.insert(0, str(ROOT / "tools"))

import reading  # noqa: E402
import reference  # noqa: E402

PAGES = [ROOT / name for name in ("README.md", "CHANGELOG.md", "CONTRIBUTING.md")]
PAGES += sorted((ROOT / "docs").rglob("*.md"))


def name_of(page: Path) -> str:
    return str(page.relative_to(ROOT))


def anchors(page: Path) -> set[str]:
    """The anchors of a page's headings, as hosting sites make them."""
    headings = re.findall(r"^#+ (.+)$", page.read_text("utf-8"), re.M)
    return {re.sub(r"[^\w\- ]", "", one.lower()).replace(" ", "-") for one in headings}


@pytest.mark.parametrize("page", PAGES, ids=name_of)
def test_links_lead_somewhere(page: Path) -> None:
    for target in re.findall(r"\]\(([^)\s]+)\)", page.read_text("utf-8")):
        if target.startswith(("http:", "https:")):
            continue
        file, _, anchor = target.partition("#")
        found = (page.parent / file) if file else page
        assert found.exists(), f"{name_of(page)}: {target}"
        if anchor:
            assert anchor in anchors(found), f"{name_of(page)}: {target}"


@pytest.mark.parametrize("page", PAGES, ids=name_of)
def test_lines_fit(page: Path) -> None:
    text = re.sub(r"^```.*?^```", "", page.read_text("utf-8"), flags=re.M | re.S)
    long = [line for line in text.splitlines() if len(line) > 120 and not line.startswith("|")]
    assert [line for line in long if "](" not in line and not line.startswith("**")] == []


def test_references_are_up_to_date() -> None:
    assert reference.main(["--check"]) == 0


def test_the_example_of_the_project_file_is_valid(tmp_path: Path) -> None:
    page = (ROOT / "docs" / "project-file.md").read_text("utf-8")
    example = re.findall(r"```toml\n(.*?)```", page, re.S)[0]
    (tmp_path / "clean-carry.toml").write_text(example)
    for name in re.findall(r"src/[\w/]+\.(?:js|css)", example):
        (tmp_path / name).parent.mkdir(parents=True, exist_ok=True)
        (tmp_path / name).write_text("")
    assert settings_for(tmp_path / "src" / "Berth.jsx").accepted


@pytest.mark.parametrize("kind", ["findings", "help", "docs", "docstrings"])
def test_words_are_plain(kind: str) -> None:
    assert list(reading.KINDS[kind]()) == []


BAD = {
    "What is drawn when inputs come.": ("draw", "when inputs come", "clause"),
    "The hook is told its heir.": ("told", "heir"),
    " ".join(["word"] * 25) + ".": ("25 words",),
}


@pytest.mark.parametrize("text", BAD)
def test_the_reading_test_finds_faults(text: str) -> None:
    found = " ".join(fault.why for fault in reading.faults_in(text, "here"))
    assert all(word in found for word in BAD[text]), found


def test_comments_are_read_as_one_text() -> None:
    code = "A = 1  # `told` is\n# a name.\n\n# A berth\n# is told.\n"
    comments = reading._comments(code)
    assert comments == [(1, "`told` is a name."), (4, "A berth is told.")]


def test_code_and_questions_are_no_faults() -> None:
    text = (
        "Use `draw()` to render the “drawn” page. What is a trial? " + " ".join(["word"] * 24) + "."
    )
    assert list(reading.faults_in(text, "here")) == []


def commands(page: str) -> list[str]:
    text = (ROOT / page).read_text("utf-8")
    blocks = re.findall(r"```sh\n(.*?)```", text, re.S)
    return [
        line for block in blocks for line in block.splitlines() if line.startswith("clean-carry ")
    ]


@pytest.mark.slow
def test_commands_run_as_written(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """The commands of the first two pages, one after the other, on the demo's components."""
    for line in commands("docs/getting-started.md") + commands("docs/project.md"):
        call, _, fallback = line.partition("||")
        call, _, into = call.partition(">")
        words = shlex.split(call)[1:]
        if words[0] in ("carry", "verify") and "--trials" not in words:
            words += ["--budget", "3"]
        done = run(*words)
        allowed = (0, 1) if fallback else (0,)
        assert done.returncode in allowed, (line, done.stdout[-500:], done.stderr[-500:])
        if into:
            (tmp_path / into.strip()).write_text(done.stdout)
