"""Pages become components, and show the same."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from conftest import Run

PAGE = """<!doctype html>
<html lang="en">
<head>
  <title>Islands</title>
  <style>
    .card { border: 1px solid #456; }
  </style>
</head>
<body class="day">
  <h1>Our <EM>islands</EM></h1>
  <ul>
    <li class="card" tabindex="0">North Skerry <b>new</b>
    <li class="card">Gull &amp; Island {{ x }} &lt;b>
  </ul>
  <p><a href="#a">Fares</a>
     <a href="#b"><i></i> Times</a></p>
  <table><tr><td>1<td>2</table>
  <label for="n">Name</label> <input id="n" value="Tern" required>
  <svg viewBox="0 0 10 10"><path d="M0 0h10" stroke-width="2"/></svg>
  <script src="x.js"></script>
</body>
</html>
"""
TARGETS = ("single-file-flat", "single-file-object", "jsx-function")


def carried(folder: Path, text: str, target: str = "single-file-flat") -> Result:
    (folder / "Tour.html").write_text(text)
    return carry_file(Request(folder / "Tour.html", "Tour.html", target))[0]


@pytest.mark.parametrize("target", TARGETS)
def test_a_page_shows_the_same(target: str, run: Run, tmp_path: Path) -> None:
    (tmp_path / "Tour.html").write_text(PAGE)
    done = run("carry", "Tour.html", "--to", target, "--verify", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert result["status"] == "clean"
    assert [finding["rule"] for finding in result["findings"]] == ["page-around", "page-script"]
    assert result["verification"]["verdict"] == "same", result["verification"]["trials"]


def test_what_is_written(tmp_path: Path) -> None:
    text = carried(tmp_path, PAGE).files[0].text
    for line in (
        "  <h1>Our <em>islands</em></h1>",
        '    <li class="card" tabindex="0">North Skerry <b>new</b></li>',
        "    <li class=\"card\">Gull &amp; Island {{ '{{' }} x }} &lt;b></li>",
        '  <p><a href="#a">Fares</a> <a href="#b"><i></i> Times</a></p>',
        "  <table><tbody><tr><td>1</td><td>2</td></tr></tbody></table>",
        ".card { border: 1px solid #456; }",
    ):
        assert line in text.splitlines(), text
    function = carried(tmp_path, PAGE, "jsx-function")
    assert "import './Tour.css';" in function.files[0].text
    assert '<label htmlFor="n">Name</label>' in function.files[0].text
    assert 'defaultValue="Tern"' in function.files[0].text
    assert function.files[1].text == ".card { border: 1px solid #456; }\n"


REFUSED = {
    "inline-handler": '<button onclick="book()">a</button>',
    "template-language": '<p @click="open">a</p>',
    "markup-repaired": "<b><p>a</b></p>",
}


@pytest.mark.parametrize(("rule", "markup"), REFUSED.items(), ids=REFUSED)
def test_what_no_component_says_is_refused(rule: str, markup: str, tmp_path: Path) -> None:
    result = carried(tmp_path, f"<main>\n{markup}\n</main>\n")
    assert result.status == "refused"
    assert [(one.rule, one.line) for one in result.findings] == [(rule, 2)]


@pytest.mark.parametrize(
    "code",
    ["document.getElementById('fares').hidden = true;", "$('.card').hide()", "q(`ul .card > b`)"],
)
def test_a_script_that_touches_the_markup_is_left(code: str, tmp_path: Path) -> None:
    page = f'<p id="fares" class="card">a</p>\n<script>\n{code}\n</script>\n'
    result = carried(tmp_path, page)
    assert result.status == "left" and result.counts["left"] == 1
    assert [(one.rule, one.line) for one in result.findings] == [("page-script-touches", 2)]
    other = page.replace("fares", "tides", 1).replace("card", "strip", 1)
    assert carried(tmp_path, other).status == "clean"


def test_pages_of_a_folder_are_no_components_of_it(run: Run, tmp_path: Path) -> None:
    (tmp_path / "index.html").write_text(PAGE)
    berth = "<template><b /></template>\n<script>\nexport default {};\n</script>\n"
    (tmp_path / "Berth.vue").write_text(berth)
    done = json.loads(run("carry", ".", "--to", "single-file-flat", "--json").stdout)
    assert [result["component"] for result in done["results"]] == ["Berth"]
