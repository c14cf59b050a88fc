"""In which media a pair is looked at, and when two pictures differ."""

from __future__ import annotations

import io

import pytest
from PIL import Image, ImageDraw

from clean_carry.verify.browser.pixels import Region, differing, regions
from clean_carry.verify.browser.views import View, views_of

VIEWS = [
    ((), (), ["1280 px", "400 px"]),
    ((), (640,), ["640 px"]),
    (("@media (max-width: 600px) { a { color: red } }",), (), ["1280", "400", "600", "601"]),
    (("@media (min-width: 40em) { a {} }",), (1280,), ["1280", "639", "641"]),
    (("@media (700px <= width) { a {} }",), (1280,), ["1280", "699", "701"]),
    (("/* @media (max-width: 600px) */",), (1280,), ["1280"]),
    (("@media (prefers-color-scheme: dark) { a {} }",), (1280,), ["1280", "1280 px, dark"]),
    (("a { color: light-dark(red, blue) }",), (1280,), ["1280", "1280 px, dark"]),
    (("@media print { a {} }",), (1280,), ["1280", "1280 px, printed"]),
    (('matchMedia("(prefers-reduced-motion)")',), (1280,), ["1280", "1280 px, reduced motion"]),
    (("@media (forced-colors: active) { a {} }",), (1280,), ["1280", "1280 px, forced colours"]),
]


@pytest.mark.parametrize(("sheets", "widths", "names"), VIEWS)
def test_views_are_those_a_stylesheet_asks_for(
    sheets: tuple[str, ...], widths: tuple[int, ...], names: list[str]
) -> None:
    found = [view.name for view in views_of(sheets, widths)]
    assert found == [name if "px" in name else f"{name} px" for name in names]


def test_many_breaks_are_sampled() -> None:
    sheet = "".join(f"@media (max-width: {width}px) {{ a {{}} }}" for width in range(300, 900, 50))
    assert len(views_of([sheet])) == 2 + 4


def test_a_view_says_what_it_is() -> None:
    assert View(400, scheme="dark", contrast="more").name == "400 px, dark, more contrast"


def drawn(*boxes: tuple[int, int, int, int, str], size: tuple[int, int] = (200, 100)) -> bytes:
    image = Image.new("RGB", size, "white")
    pen = ImageDraw.Draw(image)
    for left, top, right, bottom, colour in boxes:
        pen.rectangle((left, top, right, bottom), fill=colour)
    data = io.BytesIO()
    image.save(data, "PNG")
    return data.getvalue()


PLAIN = drawn((20, 20, 79, 59, "#204060"))
NOISE = [
    ("itself", PLAIN),
    ("a shade that is not seen", drawn((20, 20, 79, 59, "#26465f"))),
    ("a smoothed edge", drawn((20, 20, 79, 59, "#204060"), (20, 60, 20, 60, "#c8c8c8"))),
]
NOISE.append(
    ("a rounded corner drawn otherwise", drawn((20, 20, 79, 59, "#204060"), (79, 20, 79, 20, "#8a98ab"), (78, 20, 78, 20, "#4a6480"), (79, 21, 79, 21, "#4a6480")))
)  # fmt: skip
SEEN = [
    ("moved by one pixel", drawn((21, 20, 80, 59, "#204060"))),
    ("recoloured", drawn((20, 20, 79, 59, "#604020"))),
    ("missing", drawn()),
    ("a thin line", drawn((20, 20, 79, 59, "#204060"), (100, 10, 100, 90, "#dddddd"))),
    ("a dot", drawn((20, 20, 79, 59, "#204060"), (150, 50, 150, 50, "#000000"))),
    ("something below", drawn((20, 20, 79, 59, "#204060"), (0, 110, 9, 119, "black"), size=(200, 120))),
]  # fmt: skip


@pytest.mark.parametrize(("name", "other"), NOISE, ids=[name for name, _ in NOISE])
def test_noise_is_no_difference(name: str, other: bytes) -> None:
    assert regions(differing(PLAIN, other)) == []


@pytest.mark.parametrize(("name", "other"), SEEN, ids=[name for name, _ in SEEN])
def test_what_a_person_sees_is_one(name: str, other: bytes) -> None:
    assert regions(differing(PLAIN, other))


def test_regions_are_told_apart_and_sorted() -> None:
    other = drawn(
        (20, 20, 79, 59, "#204060"), (150, 10, 159, 19, "black"), (110, 80, 113, 83, "red")
    )
    assert regions(differing(PLAIN, other)) == [
        Region(150, 10, 10, 10, 100),
        Region(110, 80, 4, 4, 16),
    ]
