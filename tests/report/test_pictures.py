"""Screenshots of a report: cropped to the difference, and never the same look twice."""

from __future__ import annotations

import io

from PIL import Image, ImageDraw

from clean_carry.report.page.pictures import alike, pictures
from clean_carry.verify.browser.browser_run import Shot
from clean_carry.verify.browser.pixels import Region


def page(*boxes: tuple[int, int, int, int], size: tuple[int, int] = (1280, 400)) -> bytes:
    """A white page with dark boxes."""
    image = Image.new("RGB", size, "white")
    for box in boxes:
        ImageDraw.Draw(image).rectangle(box, fill="navy")
    out = io.BytesIO()
    image.save(out, "PNG")
    return out.getvalue()


CARD = (10, 10, 1000, 300)


def shot(old: bytes, new: bytes, *regions: Region) -> Shot:
    return Shot("opens", 1, "press", "1280 px", old, new, regions)


def test_pictures_that_look_alike_are_one() -> None:
    old, new = pictures(shot(page(CARD), page(CARD)))
    assert new is None
    assert (old.width, old.height) == (1009, 309)


def test_a_small_difference_is_cropped_to_its_surroundings() -> None:
    other = page(CARD, (900, 350, 920, 360))
    old, new = pictures(shot(page(CARD), other, Region(900, 350, 21, 11, 231)))
    assert new is not None and old.width == new.width < 400
    (left, top, width, height) = new.marks[0]
    assert 0 < left < new.width - width and 0 < top <= new.height - height + 6


def test_a_large_difference_shows_the_whole() -> None:
    old, new = pictures(shot(page(CARD), page(), Region(10, 10, 990, 290, 287100)))
    assert new is not None and old.width > 1000


def test_what_looks_alike() -> None:
    first = shot(page(CARD), page(CARD))
    assert alike(first, shot(page(CARD, (0, 0, 9, 9)), page(CARD)))
    assert not alike(first, shot(page(CARD), page()))
    assert not alike(first, shot(page(CARD, size=(400, 400)), page(CARD, size=(400, 400))))
