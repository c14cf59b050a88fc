"""Screenshots for a report page: cropped to the rendered part, small, and as data URLs."""

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
# Two pictures look alike if fewer of their pixels differ; a crop around the difference then shows more.
ALIKE = 0.01
_AROUND = 72
_EDGE = 200

Mark = tuple[float, float, float, float]


@dataclass(frozen=True)
class Picture:
    """A PNG as a data URL, its size in pixels, and rectangles (left, top, width, height) on it."""

    url: str
    width: int
    height: int
    marks: tuple[Mark, ...] = ()


def pictures(shot: Shot) -> tuple[Picture, Picture | None]:
    """Return both sides of a shot, cropped alike, with the differing regions or boxes marked.

    The second one is None if both look alike and nothing is marked. If something is marked, but under 1 %
    of the pixels differ, both are cropped to the surroundings of the marks.
    """
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
    part = (0, 0, max(LEAST[0], right + MARGIN), max(LEAST[1], bottom + MARGIN))
    if _differing(sides[0].crop(part), sides[1].crop(part)) < ALIKE:
        if not marks:
            return _picture(sides[0], part, marks), None
        part = _near(marks, part)
    old, new = (_picture(image, part, marks) for image in sides)
    return old, new


def alike(one: Shot, other: Shot) -> bool:
    """Whether both sides of two shots look alike: of each side under 1 % of the pixels differ."""
    from PIL.Image import open as opened

    for first, second in ((one.old, other.old), (one.new, other.new)):
        with opened(io.BytesIO(first)) as left, opened(io.BytesIO(second)) as right:
            if (
                left.size != right.size
                or _differing(left.convert("RGB"), right.convert("RGB")) >= ALIKE
            ):
                return False
    return True


def _differing(one: Image, other: Image) -> float:
    """The share of pixels that differ, from 0 to 1; 1 for pictures of different sizes."""
    import numpy as np

    if one.size != other.size:
        return 1.0
    return float(np.any(np.asarray(one) != np.asarray(other), axis=2).mean())


def _near(marks: tuple[Mark, ...], part: tuple[int, int, int, int]) -> tuple[int, int, int, int]:
    """The surroundings of the marks, within a part of the page."""
    left = max(part[0], int(min(x for x, _, _, _ in marks)) - _AROUND)
    top = max(part[1], int(min(y for _, y, _, _ in marks)) - _AROUND)
    # A crop that begins near the edge of the page begins at it.
    left, top = (0 if at < _EDGE else at for at in (left, top))
    right = min(part[2], int(max(x + width for x, _, width, _ in marks)) + _AROUND)
    bottom = min(part[3], int(max(y + height for _, y, _, height in marks)) + _AROUND)
    return left, top, max(right, left + LEAST[0]), max(bottom, top + LEAST[1])


def _marks(shot: Shot) -> tuple[Mark, ...]:
    shown = [_around(region) for region in shot.regions] or list(shot.boxes)
    return tuple((x - 3, y - 3, width + 6, height + 6) for x, y, width, height in shown)


def _around(region: Region) -> tuple[float, float, float, float]:
    return region.left, region.top, region.width, region.height


def _picture(image: Image, part: tuple[int, int, int, int], marks: tuple[Mark, ...]) -> Picture:
    left, top, right, bottom = part
    cut = image.crop((left, top, min(right, image.width), min(bottom, image.height)))
    moved = tuple((x - left, y - top, width, height) for x, y, width, height in marks)
    if cut.getcolors(256):
        cut = cut.quantize(256)
    out = io.BytesIO()
    cut.save(out, "PNG", optimize=True)
    text = base64.b64encode(out.getvalue()).decode()
    return Picture(f"data:image/png;base64,{text}", cut.width, cut.height, moved)
