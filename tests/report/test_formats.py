"""Open formats through the built program: JUnit XML, SARIF, and a patch the version control applies."""

from __future__ import annotations

import json
import subprocess
from pathlib import Path
from typing import Any

import jsonschema
import pytest
from lxml import etree

from tests_support import CLASS

SCHEMAS = Path(__file__).with_name("schemas")
GUARD = """import React from 'react';
export class Guard extends React.Component {
  componentDidCatch(error) { this.setState({ error }); }
  render() { return this.props.children; }
}
"""
TRIALS = "trials:\n  - name: opens\n    steps:\n      - press: { tag: button }\n"


def suites(path: Path) -> Any:
    tree = etree.parse(path)
    etree.XMLSchema(etree.parse(SCHEMAS / "junit.xsd")).assertValid(tree)
    return tree.getroot()


def log(path: Path) -> dict[str, Any]:
    value: dict[str, Any] = json.loads(path.read_text("utf-8"))
    schema = json.loads((SCHEMAS / "sarif-2.1.0-part.json").read_text())
    jsonschema.Draft202012Validator(schema).validate(value)
    return value


def test_junit_of_what_is_the_same(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Berth.jsx").write_text(CLASS)
    (tmp_path / "Guard.jsx").write_text(GUARD)
    (tmp_path / "Berth.trials.yaml").write_text(TRIALS)
    done = run(
        "carry", "Berth.jsx", "Guard.jsx", "--to", "jsx-function", "--verify", "--junit", "out/j.xml"
    )  # fmt: skip
    assert "JUnit XML: out/j.xml" in done.stderr
    root = suites(tmp_path / "out/j.xml")
    assert [root.get(key) for key in ("tests", "failures", "errors")] == ["2", "0", "0"]
    assert [suite.get("name") for suite in root] == ["Berth.jsx", "Guard.jsx"]
    assert "catches errors" in root[1].find("testcase/skipped").get("message")


def test_junit_of_what_differs_and_of_what_was_not_run(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Berth.jsx").write_text(CLASS)
    (tmp_path / "Berth.trials.yaml").write_text(TRIALS)
    (tmp_path / "Other.jsx").write_text(CLASS.replace("{ open: true }", "{ open: '\\u0001' }"))
    (tmp_path / "Broken.jsx").write_text("export default class {")
    assert run("verify", "Berth.jsx", "Other.jsx", "--junit", "j.xml").returncode == 1
    failure = suites(tmp_path / "j.xml").find(".//failure")
    assert "tree at /button[1]" in failure.get("message")
    assert "after step 1 (press)" in failure.text and "\x01" not in failure.text
    assert run("verify", "Berth.jsx", "Broken.jsx", "--junit", "j.xml").returncode == 1
    root = suites(tmp_path / "j.xml")
    assert root.get("errors") == "1"
    assert "cannot be built" in root.find(".//error").get("message")


def test_a_file_that_cannot_be_read_is_handed_on_too(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Broken.jsx").write_text("export default class {")
    (tmp_path / "Berth.jsx").write_text(CLASS)
    (tmp_path / "Berth.trials.yaml").write_text(TRIALS)
    call = ("carry", "Berth.jsx", "Broken.jsx", "--to", "jsx-function", "--verify")
    done = run(*call, "--junit", "j.xml", "--report", "r")
    assert done.returncode == 3
    root = suites(tmp_path / "j.xml")
    assert (root.get("tests"), root.get("errors")) == ("2", "1")
    assert root[1].find("testcase/error").get("type") == "not read"
    front = (tmp_path / "r" / "index.html").read_text()
    assert 'data-standing="not read"' in front and "2 components" in front


def test_junit_goes_with_a_verdict(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Berth.jsx").write_text(CLASS)
    done = run("carry", "Berth.jsx", "--to", "jsx-function", "--junit", "j.xml")
    assert done.returncode == 2
    assert "--junit goes with --verify" in done.stderr


def test_sarif_of_findings(run: Any, tmp_path: Path) -> None:
    folder = tmp_path / "a b"
    folder.mkdir()
    (folder / "Guard.jsx").write_text(GUARD)
    (folder / "Berth.jsx").write_text(CLASS)
    done = run("carry", "a b", "--to", "jsx-function", "--sarif", "f.sarif")
    assert done.returncode == 1
    (found,) = log(tmp_path / "f.sarif")["runs"]
    (result,) = found["results"]
    (rule,) = found["tool"]["driver"]["rules"]
    assert result["ruleId"] == rule["id"] == "error-capture"
    assert result["level"] == "error"
    place = result["locations"][0]["physicalLocation"]
    assert place["artifactLocation"]["uri"] == "a%20b/Guard.jsx"
    assert place["region"]["startLine"] == 3
    (folder / "Guard.jsx").write_text("// moved\n" + GUARD)
    run("carry", "a b", "--to", "jsx-function", "--sarif", "g.sarif")
    again = log(tmp_path / "g.sarif")["runs"][0]["results"][0]
    assert again["partialFingerprints"] == result["partialFingerprints"]


def git(folder: Path, *arguments: str) -> str:
    settings = ("user.name=t", "user.email=t@t.example", "core.autocrlf=false")
    done = subprocess.run(
        ["git", *(part for setting in settings for part in ("-c", setting)), *arguments],
        cwd=folder, capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert done.returncode == 0, done.stderr
    return done.stdout


@pytest.fixture
def checkout(tmp_path: Path) -> Path:
    """A checkout with components in folders with odd names, line ends and last lines."""
    for name, text in (
        ("pages/Berth.jsx", CLASS),
        ("old pier/Berth.jsx", CLASS.rstrip("\n")),
        ("Anleger Süd/Berth.jsx", CLASS.replace("\n", "\r\n")),
    ):
        (tmp_path / name).parent.mkdir()
        (tmp_path / name).write_bytes(text.encode())
    git(tmp_path, "init", "-q")
    git(tmp_path, "add", "-A")
    git(tmp_path, "commit", "-qm", "the components as they are")
    return tmp_path


@pytest.mark.parametrize("way", [(), ("--replace",), ("--out", "carried")])
def test_the_version_control_applies_the_patch(
    run: Any, checkout: Path, way: tuple[str, ...]
) -> None:
    folders = ["pages"] if "--out" in way else ["pages", "old pier", "Anleger Süd"]
    call = ("carry", *folders, "--to", "jsx-function", *way)
    done = run(*call, "--patch", "change.patch")
    assert done.returncode == 0, done.stderr
    assert git(checkout, "status", "--porcelain") == "?? change.patch\n", "nothing else was written"
    git(checkout, "apply", "--check", "change.patch")
    git(checkout, "apply", "change.patch")
    (checkout / "change.patch").unlink()
    git(checkout, "add", "-A")
    patched = git(checkout, "write-tree")
    git(checkout, "reset", "-q", "--hard")
    done = run(*call, *(() if way else ("--write",)))
    assert done.returncode == 0, done.stderr
    git(checkout, "add", "-A")
    assert git(checkout, "write-tree") == patched, "byte for byte what writing gives"


def test_a_patch_from_a_folder_below_the_top(run: Any, checkout: Path) -> None:
    (checkout / "inner").mkdir()
    (checkout / "inner" / "Berth.jsx").write_text(CLASS)
    (checkout / "p").mkdir()
    done = run("carry", "inner/Berth.jsx", "--to", "jsx-function", "--patch", "p/c.patch")
    assert "added to p/c.patch: inner/Berth.function.jsx" in done.stdout
    git(checkout / "p", "apply", "--directory=", "--check", "--unsafe-paths", "c.patch")
    assert "+++ b/inner/Berth.function.jsx\n" in (checkout / "p/c.patch").read_text()


def test_a_patch_changes_the_templates_that_use_a_directive(run: Any, tmp_path: Path) -> None:
    (tmp_path / "tide.js").write_text(
        "angular.module('pier', []).directive('tideMark', function () {\n"
        "  return { restrict: 'A', scope: { level: '=' }, template: '<b>{{ level }}</b>' };\n});\n"
    )
    (tmp_path / "page.html").write_text('<p>Now</p>\n<div tide-mark level="2"></div>\n')
    git(tmp_path, "init", "-q")
    git(tmp_path, "add", "-A")
    git(tmp_path, "commit", "-qm", "a directive")
    call = ("carry", "tide.js", "--to", "controller-component")
    done = run(*call, "--patch", "c.patch")
    assert done.returncode in (0, 1), done.stderr
    git(tmp_path, "apply", "c.patch")
    (tmp_path / "c.patch").unlink()
    git(tmp_path, "add", "-A")
    patched = git(tmp_path, "write-tree")
    git(tmp_path, "reset", "-q", "--hard")
    run(*call, "--write")
    git(tmp_path, "add", "-A")
    assert git(tmp_path, "write-tree") == patched
    assert "tide" in git(tmp_path, "diff", "--cached", "--stat")


def test_a_patch_holds_only_what_is_proven(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Berth.jsx").write_text(CLASS)
    (tmp_path / "Berth.trials.yaml").write_text("trials:\n  - name: nothing\n    inputs: {}\n")
    (tmp_path / "None.jsx").write_text(
        CLASS.replace("Berth", "None").replace("return <button", "return null; return <button")
    )
    done = run(
        "carry", "Berth.jsx", "None.jsx", "--to", "jsx-function", "--verify", "--patch", "c.patch",
        "--budget", "1", "--least-reach", "0",
    )  # fmt: skip
    assert "not written, because the verdict is not same" in done.stdout
    assert "b/Berth.function.jsx" in (tmp_path / "c.patch").read_text()
    assert "None.function.jsx" not in (tmp_path / "c.patch").read_text()


def test_a_place_that_cannot_be_written(run: Any, tmp_path: Path) -> None:
    (tmp_path / "Berth.jsx").write_text(CLASS)
    (tmp_path / "file").write_text("")
    done = run("carry", "Berth.jsx", "--to", "jsx-function", "--sarif", "file/f.sarif")
    assert done.returncode == 5
    assert "clean-carry: file/f.sarif: cannot be written" in done.stderr
    assert run("carry", "Berth.jsx", "--to", "jsx-function", "--report", "file").returncode == 2
