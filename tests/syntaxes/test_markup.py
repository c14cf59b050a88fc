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
    "template-language": '<p @click="open">a</p>',
    "markup-repaired": "<b><p>a</b></p>",
    "style-media": '<style media="print">@import "fares.css";</style>',
}
MEANT_BY_TEMPLATES = (
    '<p ref="fares">a</p>', '<p is="x-fare">a</p>', "<slot></slot>", "<template></template>",
)  # fmt: skip


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


@pytest.mark.parametrize("target", TARGETS)
def test_inline_handlers_are_left(target: str, tmp_path: Path) -> None:
    result = carried(
        tmp_path, '<main>\n<button id="b" onclick="book()">a</button>\n</main>\n', target
    )
    assert result.status == "left" and result.counts["left"] == 1
    (found,) = result.findings
    assert (found.rule, found.line) == ("inline-handler", 2) and 'onclick="book()"' in found.message
    assert '<button id="b">a</button>' in result.files[0].text


@pytest.mark.parametrize("markup", MEANT_BY_TEMPLATES)
def test_what_a_template_reads_otherwise_is_refused(markup: str, tmp_path: Path) -> None:
    result = carried(tmp_path, f"<main>\n{markup}\n</main>\n")
    assert result.status == "refused"
    assert [(one.rule, one.line) for one in result.findings] == [("template-language", 2)]


@pytest.mark.parametrize("target", TARGETS)
def test_scripts_beside_the_page_are_read(target: str, tmp_path: Path) -> None:
    (tmp_path / "menu.js").write_text("document.querySelector('.card').hidden = true;\n")
    page = '<p class="card">a</p>\n<script src="menu.js"></script>\n'
    result = carried(tmp_path, page, target)
    assert result.status == "left" and result.counts["left"] == 1
    assert "(.card in menu.js)" in result.findings[0].message
    (tmp_path / "menu.js").write_text("console.log('tides');\n")
    assert carried(tmp_path, page, target).status == "clean"
    far = carried(tmp_path, page.replace("menu.js", "https://x.test/menu.js"), target)
    assert "not read" in far.findings[0].message


def test_all_that_stays_with_the_page_is_named(tmp_path: Path) -> None:
    head = (
        '<!-- by hand -->\n<html lang="en">\n<head><meta charset="utf-8"><title>Fares</title>\n'
        '<link rel="stylesheet" href="fares.css"><style type="text/x-fares">a</style></head>\n'
    )
    page = (
        head
        + '<body onload="document.getElementById(\'f\').focus()">\n<input id="f"></body></html>'
    )
    result = carried(tmp_path, page)
    found = {(one.rule, one.line) for one in result.findings}
    assert found == {("page-around", 2), ("page-stylesheet", 4), ("page-script-touches", 5)}
    told = result.findings[0].message
    for part in ('<html lang="en">', "<body onload=", "<meta>", "<title>", "<style>", "comment"):
        assert part in told
    assert "text/x-fares" not in result.files[0].text and result.status == "left"


ODD = """<H1 CLASS="card" class="other">Fares</H1>
<p style="margin:0;background:url(./img/tern.png)"><img src="./img/tern.png" ALT="a tern"></br>b</p></p>
<svg viewBox="0 0 10 10"><title>A ferry</title><path d="M0 0h10"/></svg>
<style media="print">p { margin: 0 }</style>
"""


@pytest.mark.parametrize("target", TARGETS)
def test_odd_markup_shows_the_same(target: str, run: Run, tmp_path: Path) -> None:
    (tmp_path / "Fares.html").write_text(ODD)
    (tmp_path / "img").mkdir()
    (tmp_path / "img" / "tern.png").write_bytes(b"a picture")
    done = run("carry", "Fares.html", "--to", target, "--verify", "--json")
    result = json.loads(done.stdout)["results"][0]
    assert (result["status"], result["verification"]["verdict"]) == ("clean", "same"), done.stdout
    texts = "".join(file["text"] for file in result["files"])
    assert "A ferry" in texts and "@media print {\n  p { margin: 0 }\n}" in texts
    assert "other" not in texts


def test_pages_of_a_folder_are_no_components_of_it(run: Run, tmp_path: Path) -> None:
    (tmp_path / "index.html").write_text(PAGE)
    berth = "<template><b /></template>\n<script>\nexport default {};\n</script>\n"
    (tmp_path / "Berth.vue").write_text(berth)
    done = json.loads(run("carry", ".", "--to", "single-file-flat", "--json").stdout)
    assert [result["component"] for result in done["results"]] == ["Berth"]
