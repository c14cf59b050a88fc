"""What differs between copies, as props."""

from __future__ import annotations

from clean_carry.crossing.lift.align import aligned
from clean_carry.crossing.lift.block import forget
from clean_carry.crossing.lift.of_page import page_blocks
from clean_carry.crossing.lift.props import Plan, odd_spaces, planned
from clean_carry.source.text import SourceText


def plan_of(*copies: str, **renamed: str) -> Plan:
    forget()
    body = page_blocks(SourceText("page.html", "\n".join(copies).encode()))
    part = aligned({(at,): one for at, one in enumerate(body.elements)})
    assert len(part.blocks) == len(copies)
    return planned(part, renamed)


def props_of(plan: Plan) -> dict[str, tuple[str, bool, list[object]]]:
    return {
        one.name: (one.type, one.required, [one.values[key] for key in sorted(one.values)])
        for one in plan.props
    }


def test_texts_and_attributes_are_named_by_their_role() -> None:
    one = '<div><h3>{0}</h3><img src="{0}.png" alt="A pier"><a href="{0}.html">Visit {0}</a></div>'
    assert props_of(plan_of(one.format("tern"), one.format("holm"))) == {
        "title": ("String", True, ["tern", "holm"]),
        "src": ("String", True, ["tern.png", "holm.png"]),
        "href": ("String", True, ["tern.html", "holm.html"]),
        "label": ("String", True, ["Visit tern", "Visit holm"]),
    }


def test_values_that_are_the_same_are_one_prop() -> None:
    one = '<div><img src="a.png" alt="{0}"><h3>{0}</h3><i id="{0}"></i><a href="#{0}">x</a></div>'
    plan = plan_of(one.format("tern"), one.format("holm"))
    assert list(props_of(plan)) == ["title"]
    codes = [code for codes in plan.attributes.values() for _, code in codes]
    assert sorted(codes) == ["`#${title}`", "title", "title"]


def test_a_part_that_some_lack_depends_on_its_text() -> None:
    plan = plan_of(
        "<div><h3>A <b class='badge'>New</b></h3></div>", "<div><h3>B</h3></div>",
        "<div><h3>C <b class='badge'>New</b></h3></div>",
    )  # fmt: skip
    assert props_of(plan)["badge"] == ("String", False, ["New", "New"])
    assert list(plan.conditions.values()) == ["badge"]
    assert props_of(plan)["title"][2] == ["A", "B", "C"]


def test_a_part_without_text_depends_on_a_flag() -> None:
    plan = plan_of("<div><p>a</p><hr></div>", "<div><p>b</p></div>")
    assert props_of(plan)["withRule"] == ("Boolean", False, [True])


def test_classes_that_differ() -> None:
    tones = plan_of(
        *(f'<div class="notice notice-{t}"><p>{t}</p></div>' for t in ("calm", "storm"))
    )
    assert "`notice notice-${variant}`" in str(tones.attributes)
    states = plan_of('<li class="tab active"><a>x</a></li>', '<li class="tab"><a>y</a></li>')
    assert props_of(states)["active"] == ("Boolean", False, [True])
    assert "`tab${active ? ' active' : ''}`" in str(states.attributes)
    shores = plan_of(*(f'<div><i class="shore shore-{s}">a</i></div>' for s in ("sand", "rock")))
    assert list(props_of(shores)) == ["shore"]


def test_styles_are_objects_of_what_differs() -> None:
    one = '<div><i style="width: {0}%; color: red"></i></div>'
    plan = plan_of(one.format(20), one.format(30))
    assert props_of(plan) == {"width": ("String", True, ["20%", "30%"])}
    assert "{ width: width, color: 'red' }" in str(plan.attributes)


def test_lists_of_values_and_of_objects() -> None:
    plain = plan_of(
        "<div><ul><li>a</li><li>b</li></ul></div>",
        "<div><ul><li>c</li><li>d</li><li>e</li></ul></div>",
    )
    assert props_of(plain) == {"items": ("Array", True, [["a", "b"], ["c", "d", "e"]])}
    assert [(one.items, one.name, one.key) for one in plain.lists.values()] == [
        ("items", "item", "item")
    ]
    link = '<li><a href="{0}">{1}</a></li>'
    several = plan_of(
        f"<div><ul>{link.format('#a', 'A')}{link.format('#b', 'B')}</ul></div>",
        "<div><ul></ul></div>",
        f"<div><ul>{link.format('#c', 'C')}</ul></div>",
    )
    (found,) = props_of(several).values()
    assert found == (
        "Array", True,
        [[{"href": "#a", "label": "A"}, {"href": "#b", "label": "B"}], [], [{"href": "#c", "label": "C"}]],
    )  # fmt: skip


def test_a_list_that_is_the_same_everywhere_is_no_prop() -> None:
    items = "<ul><li>a</li><li>b</li><li>c</li></ul>"
    assert list(
        props_of(plan_of(f"<div><b>1</b>{items}</div>", f"<div><b>2</b>{items}</div>"))
    ) == ["title"]


def test_cells_are_named_by_their_column() -> None:
    forget()
    rows = "<tr><td>Tern</td><td>8</td></tr><tr><td>Holm</td><td>9</td></tr>"
    table = f"<table><thead><tr><th>Route</th><th>Adult fare</th></tr></thead><tbody>{rows}</tbody></table>"
    body = page_blocks(SourceText("page.html", table.encode()))
    found = [
        one for one in body.walk() if one.tag == "tr" and one.parent and one.parent.tag == "tbody"
    ]
    plan = planned(aligned({(at,): one for at, one in enumerate(found)}))
    assert list(props_of(plan)) == ["route", "adultFare"]


def test_names_that_runtimes_or_the_language_take_are_not_given() -> None:
    forget()
    head = "<tr><th>On request</th><th>Package</th><th>Größe</th></tr>"
    rows = "".join(f"<tr><td>a{n}</td><td>b{n}</td><td>c{n}</td></tr>" for n in "12")
    table = f"<table><thead>{head}</thead><tbody>{rows}</tbody></table>"
    body = page_blocks(SourceText("page.html", table.encode()))
    found = [
        one for one in body.walk() if one.tag == "tr" and one.parent and one.parent.tag == "tbody"
    ]
    plan = planned(aligned({(at,): one for at, one in enumerate(found)}))
    assert list(props_of(plan)) == ["valueOnRequest", "packageValue", "größe"]


def test_a_space_that_does_not_break_is_text() -> None:
    plan = plan_of("<div><b>&nbsp;</b></div>", "<div><b>x</b></div>")
    assert [values for _, _, values in props_of(plan).values()] == [["\xa0", "x"]]


def test_props_get_other_names() -> None:
    assert list(
        props_of(plan_of("<div><p>a</p></div>", "<div><p>b</p></div>", text="summary"))
    ) == ["summary"]


def test_copies_whose_white_space_shows_otherwise_are_found() -> None:
    forget()
    copies = "<a><b>1</b> x</a>", "<a> <b>2</b> y</a>", "<a><b>3</b> z</a>"
    body = page_blocks(SourceText("page.html", "\n".join(copies).encode()))
    part = aligned({(at,): one for at, one in enumerate(body.elements)})
    assert odd_spaces(part) == {(1,)}
