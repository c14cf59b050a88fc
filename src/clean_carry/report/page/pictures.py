"""Pictures for a page: cut to what is drawn on either side, small, and as text."""

from __future__ import annotations

import base64
import io
from dataclasses import dataclass
from typing import TYPE_CHECKING

from clean_carry.verify.browser.browser_run import Shot
from clean_carry.verify.browser.pixels import Region

if TYPE_CHECKING:
    from PIL.Image import Image

MARGIN = 8
# A page is at least so wide and high that a small component is not blown up.
LEAST = (320, 48)


@dataclass(frozen=True)
class Picture:
    """A PNG as a data URL, its size in pixels, and rectangles (left, top, width, height) on it."""

    url: str
    width: int
    height: int
    marks: tuple[tuple[float, float, float, float], ...] = ()


def pictures(shot: Shot) -> tuple[Picture, Picture]:
    """Both sides of a shot, cut alike, with what differs marked: regions, else boxes."""
    from PIL import ImageChops
    from PIL.Image import new as made
    from PIL.Image import open as opened

    sides = []
    for data in (shot.old, shot.new):
        with opened(io.BytesIO(data)) as png:
            sides.append(png.convert("RGB"))
    right = bottom = 0
    for image in sides:
        corner = image.getpixel((image.width - 1, image.height - 1))
        back = made("RGB", image.size, corner or 0)
        box = ImageChops.difference(image, back).getbbox()
        if box is not None:
            right, bottom = max(right, box[2]), max(bottom, box[3])
    marks = _marks(shot)
    for left, top, width, height in marks:
        right, bottom = max(right, int(left + width)), max(bottom, int(top + height))
    size = max(LEAST[0], right + MARGIN), max(LEAST[1], bottom + MARGIN)
    old, new = (_picture(image, size, marks) for image in sides)
    return old, new


def _marks(shot: Shot) -> tuple[tuple[float, float, float, float], ...]:
    shown = [_around(region) for region in shot.regions] or list(shot.boxes)
    return tuple((x - 3, y - 3, width + 6, height + 6) for x, y, width, height in shown)


def _around(region: Region) -> tuple[float, float, float, float]:
    return region.left, region.top, region.width, region.height


def _picture(
    image: Image, size: tuple[int, int], marks: tuple[tuple[float, float, float, float], ...]
) -> Picture:
    width, height = min(size[0], image.width), min(size[1], image.height)
    cut = image.crop((0, 0, width, height))
    if cut.getcolors(256):
        cut = cut.quantize(256)
    out = io.BytesIO()
    cut.save(out, "PNG", optimize=True)
    text = base64.b64encode(out.getvalue()).decode()
    return Picture(f"data:image/png;base64,{text}", width, height, marks)
