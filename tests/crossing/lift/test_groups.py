"""Which blocks of a page are groups, and why others are not."""

from __future__ import annotations

import pytest

from clean_carry.crossing.lift.block import Block, forget, likeness
from clean_carry.crossing.lift.groups import Group, find_groups
from clean_carry.crossing.lift.of_page import page_blocks
from clean_carry.crossing.lift.selectors import Selectable, selector_of
from clean_carry.source.text import SourceText


def root_of(markup: str) -> Block:
    forget()
    return page_blocks(SourceText("page.html", f"<body>\n{markup}\n</body>\n".encode()))


def groups_of(markup: str) -> list[Group]:
    return find_groups([root_of(markup)])


def lifted(markup: str) -> list[str]:
    """The lifted groups, as `tag.class ×copies`."""
    return [
        f"{one.copies[0].tag}{''.join('.' + c for c in one.copies[0].classes[:1])} ×{len(one.copies)}"
        for one in groups_of(markup)
        if one.lifted
    ]


def card(title: str, extra: str = "", kind: str = "card") -> str:
    return f'<div class="{kind}"><h3>{title}</h3><p>Text of {title}.</p>{extra}</div>\n'


BADGE = "<span>New</span>"
LIFTED = {
    "alike": (card("Tern") + card("Skerry") + card("Holm"), ["div.card ×3"]),
    "a part that some lack": (card("A") + card("B", BADGE) + card("C"), ["div.card ×3"]),
    "the column stays": (
        "".join(f'<div class="col-4">{card(name)}</div>' for name in "ABC"),
        ["div.card ×3"],
    ),
    "variants of a name": (
        "".join(
            card(n, kind=f"tide-{k}") for n, k in (("A", "info"), ("B", "danger"), ("C", "info"))
        ),
        ["div.tide-info ×3"],
    ),
    "rows of one table": (
        "<table><thead><tr><th>a</th><th>b</th></tr></thead><tbody>"
        + "<tr><td>1</td><td>2</td></tr>" * 3
        + "</tbody></table>",
        ["tr ×3"],
    ),
    "lists of another length": (
        "".join(
            card(name, "<ul>" + "<li><a href='#'>x</a></li>" * count + "</ul>")
            for name, count in (("A", 1), ("B", 4), ("C", 2))
        ),
        ["div.card ×3"],
    ),
    "items, not the links in them": (
        "<ul>" + "<li><a href='#a'>Fares</a></li>" * 3 + "</ul>",
        ["li ×3"],
    ),
    "scattered": (
        card("A") + "<hr><p>x</p>" + card("B") + "<hr><p>y</p>" + card("C"),
        ["div.card ×3"],
    ),
}


@pytest.mark.parametrize("name", LIFTED)
def test_blocks_that_repeat_are_lifted(name: str) -> None:
    markup, expected = LIFTED[name]
    assert lifted(markup) == expected


HEAD = (
    '<div class="head"><h3>{}</h3><nav><a href="#a">one</a><button>two</button><i>3</i></nav>'
    "<p><b>4</b></p></div>"
)
LEFT = {
    "text as it is written": (
        "".join(f'<div class="x"><b>{n}</b><pre>a  {n}</pre></div>' for n in "abc"),
        "white space counts",
    ),
    "only text": ("<p>a</p><p>b</p><p>c</p>", ""),
    "two small copies": (
        '<div class="x"><b>1</b><i>2</i></div><div class="x"><b>3</b><i>4</i></div>',
        "two copies of 3 elements save little",
    ),
    "icons alone": ('<a class="b"><i class="i"></i></a>' * 4, "shows neither text"),
    "a line of text": ('<div class="x"><code>a</code></div>' * 3, "a line of text"),
    "other content": (
        "".join(
            f'<div class="card">{HEAD.format(n)}<div class="body">{body}</div></div>'
            for n, body in (
                ("A", "<form><label>a</label><input></form>"),
                ("B", "<table><tr><td>1</td></tr></table>"),
                ("C", "<ul><li><b>1</b></li></ul>"),
            )
        ),
        "content that differs",
    ),
}


@pytest.mark.parametrize("name", LEFT)
def test_blocks_that_only_look_alike_are_left(name: str) -> None:
    markup, reason = LEFT[name]
    found = groups_of(markup)
    assert not any(one.lifted and one.copies[0].classes[:1] == ("card",) for one in found)
    if reason:
        assert any(reason in one.reason for one in found), [one.reason for one in found]
    else:
        assert found == []


def test_parts_and_holders_of_lifted_blocks_say_so() -> None:
    rows = "".join(f'<div class="row">{card("A") * 3}</div>' for _ in range(3))
    reasons = {one.copies[0].tag + str(len(one.copies)): one.reason for one in groups_of(rows)}
    assert reasons == {"div9": ""}
    boxed = "".join(
        f'<section class="s"><div class="in">{card("A") * 3}</div></section>' for _ in "abc"
    )
    found = {one.copies[0].classes[0]: one.reason for one in groups_of(boxed)}
    assert found["card"] == "" and "only holds a list" in found["s"]


def test_at_least_so_many_copies() -> None:
    root = root_of(card("A") * 2 + "<hr>" + card("B", "<em>x</em><ul><li>1</li><li>2</li></ul>"))
    assert all("are asked for" in one.reason for one in find_groups([root], least=4))


def test_likeness_is_symmetric_and_full_for_the_same() -> None:
    one, other, third = root_of(card("A") + card("B", BADGE) + "<ul><li>a</li></ul>").elements
    assert likeness(one, one) == 1.0 and likeness(one, third) == 0.0
    assert likeness(one, other) == likeness(other, one)
    assert 0.7 < likeness(one, other) < 1.0


def test_each_selector_finds_its_block_alone() -> None:
    root = root_of(card("A") + '<main id="m"><div><b>1</b><b>2</b></div></main>' + card("B"))
    page = Selectable(root)
    for block in root.walk():
        if block.tag and block is not root:
            assert page.all(selector_of(block)) == [block]
