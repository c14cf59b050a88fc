"""A page becomes the tree that a browser makes of it."""

from __future__ import annotations

import pytest

from clean_carry.source.html.page import PageNode, read_page
from clean_carry.source.text import SourceText


def shape(node: PageNode) -> str:
    """A tree in short: `ul(li li)`; text is `-`."""
    inner = " ".join(
        "-" if child.kind == "text" else shape(child)
        for child in node.children
        if child.kind in ("element", "text")
    )
    return f"{node.tag}({inner})" if inner else node.tag


CASES = {
    "<p>a<p>b": "p(-) p(-)",
    "<p>a<div>b</div>": "p(-) div(-)",
    "<ul><li>a<li>b</ul>": "ul(li(-) li(-))",
    "<ul><li>a<ul><li>b</ul><li>c</ul>": "ul(li(- ul(li(-))) li(-))",
    "<dl><dt>a<dd>b<dt>c</dl>": "dl(dt(-) dd(-) dt(-))",
    "<table><tr><td>1<td>2<tr><td>3</table>": "table(tbody(tr(td(-) td(-)) tr(td(-))))",
    "<table><thead><th>a<tbody><td>1</table>": "table(thead(tr(th(-))) tbody(tr(td(-))))",
    "<table><col><tr><td>1</table>": "table(colgroup(col) tbody(tr(td(-))))",
    "<select><option>a<option>b</select>": "select(option(-) option(-))",
    "<h1>a<h2>b</h2>": "h1(-) h2(-)",
    "a<br/>b<img>c": "- br - img -",
    "<DIV>a</div>": "div(-)",
    "<div/>a</div>": "div(-)",
    "a</p>b": "- p -",
    "<svg viewBox='0 0 1 1'><path/><g><rect/></g></svg>a": "svg(path g(rect)) -",
    "<textarea><b></textarea>a": "textarea(-) -",
    "<button>a<button>b": "button(-) button(-)",
    "<div>a</span></div>b": "div(-) -",
}


@pytest.mark.parametrize(("markup", "tree"), CASES.items(), ids=CASES)
def test_trees(markup: str, tree: str) -> None:
    page = read_page(SourceText("p.html", markup.encode()))
    assert shape(page.body) == f"body({tree})"


def test_head_and_body_are_implied_or_taken() -> None:
    text = "<!doctype html><title>a</title><meta charset=utf-8><p>b"
    page = read_page(SourceText("p.html", text.encode()))
    assert shape(page.html) == "html(head(title(-) meta) body(p(-)))"
    text = '<html lang="en"><head></head><body class="day">\n<p>b</p>\n</body></html>\n'
    page = read_page(SourceText("p.html", text.encode()))
    body = page.body
    assert [one.name for one in page.html.attributes + body.attributes] == ["lang", "class"]
    assert (
        text[body.start : body.end].startswith("<body")
        and text[slice(*body.inner)] == "\n<p>b</p>\n"
    )


@pytest.mark.parametrize("markup", ["<b><p>a</b></p>", "<table>a<tr><td>1</table>", "<a>1<a>2</a>"])
def test_repairs_are_noted(markup: str) -> None:
    assert read_page(SourceText("p.html", markup.encode())).repaired
