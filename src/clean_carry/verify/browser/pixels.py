"""Compare two pictures of a page: what moved, changed colour or is missing differs, noise does not."""

from __future__ import annotations

import io
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Mask = NDArray[np.bool_]

# Channels (of 255) that differ by less are not seen.
LEAST = 16
# A pixel that differs alone by less than this is the smoothing of an edge.
EDGE = 96
# So are a few pixels near each other whose colours lie between those of the other picture's pixels beside
# them: fewer than DENSE of them within WINDOW in either direction. A part that moves by a pixel has more.
WINDOW, DENSE = 3, 7
# Regions are separated by cells of so many pixels.
CELL = 16
MOST_REGIONS = 8


@dataclass(frozen=True)
class Region:
    """A rectangle of a picture in pixels, and how many of its pixels differ."""

    left: int
    top: int
    width: int
    height: int
    pixels: int


def decoded(png: bytes) -> NDArray[np.int16]:
    """A picture as height × width × 3 channels of 0 to 255."""
    import numpy as np
    from PIL import Image

    with Image.open(io.BytesIO(png)) as image:
        return np.asarray(image.convert("RGB"), dtype=np.int16)


def padded(image: NDArray[np.int16], height: int, width: int) -> NDArray[Any]:
    """A picture made as large as asked with white, which is what an empty page shows."""
    import numpy as np

    full = np.full((height, width, 3), 255, dtype=np.int16)
    full[: image.shape[0], : image.shape[1]] = image
    return full


def differing(old: bytes, new: bytes) -> Mask:
    """Which pixels differ, noise left out. Pictures of another size are compared on the larger one."""
    import numpy as np

    if old == new:
        return np.zeros((0, 0), dtype=np.bool_)
    a, b = decoded(old), decoded(new)
    height, width = max(a.shape[0], b.shape[0]), max(a.shape[1], b.shape[1])
    a, b = padded(a, height, width), padded(b, height, width)
    distance = np.abs(a - b).max(axis=2)
    mask: Mask = np.asarray(distance > LEAST)
    seen = np.zeros_like(mask)
    if not mask.any():
        return seen
    rows, columns = np.nonzero(mask)
    top, left = max(0, rows.min() - WINDOW), max(0, columns.min() - WINDOW)
    part = np.s_[top : rows.max() + 1 + WINDOW, left : columns.max() + 1 + WINDOW]
    smoothed = _within_reach(a[part], b[part]) & _within_reach(b[part], a[part])
    alone = _count(mask[part], 1) <= 2
    few = _count(mask[part], WINDOW) < DENSE
    noise = (smoothed & few) | (alone & (distance[part] < EDGE))
    seen[part] = mask[part] & ~noise
    return seen


def _count(mask: Mask, reach: int) -> NDArray[np.int32]:
    """How many pixels of the mask are at most `reach` away in either direction, itself counted."""
    import numpy as np

    height, width = mask.shape
    wide = np.pad(mask, reach + 1).astype(np.int32).cumsum(axis=0).cumsum(axis=1)
    size = 2 * reach + 1
    whole: NDArray[np.int32] = (
        wide[size : size + height, size : size + width]
        - wide[:height, size : size + width]
        - wide[size : size + height, :width]
        + wide[:height, :width]
    )
    return whole


def _within_reach(image: NDArray[Any], other: NDArray[Any]) -> Mask:
    """Where a pixel's colour lies between those of the other picture's pixels beside it."""
    import numpy as np

    height, width, _ = image.shape
    wide = np.pad(other, ((1, 1), (1, 1), (0, 0)), mode="edge")
    low, high = other.copy(), other.copy()
    for down in range(3):
        for right in range(3):
            shifted = wide[down : down + height, right : right + width]
            np.minimum(low, shifted, out=low)
            np.maximum(high, shifted, out=high)
    inside: Mask = np.asarray(((image >= low - LEAST) & (image <= high + LEAST)).all(axis=2))
    return inside


def regions(mask: Mask) -> list[Region]:
    """The connected parts of what differs, the largest first."""
    import numpy as np

    if not mask.any():
        return []
    height, width = mask.shape
    rows, columns = -(-height // CELL), -(-width // CELL)
    full = np.zeros((rows * CELL, columns * CELL), dtype=np.bool_)
    full[:height, :width] = mask
    cells: Mask = np.asarray(full.reshape(rows, CELL, columns, CELL).any(axis=(1, 3)))
    label = np.zeros(cells.shape, dtype=np.int32)
    found: list[Region] = []
    for start in zip(*np.nonzero(cells), strict=True):
        if label[start]:
            continue
        number = len(found) + 1
        label[start] = number
        stack, members = [start], []
        while stack:
            row, column = stack.pop()
            members.append((row, column))
            for r in range(max(0, row - 1), min(rows, row + 2)):
                for c in range(max(0, column - 1), min(columns, column + 2)):
                    if cells[r, c] and not label[r, c]:
                        label[r, c] = number
                        stack.append((r, c))
        top = min(r for r, _ in members) * CELL
        left = min(c for _, c in members) * CELL
        bottom = (max(r for r, _ in members) + 1) * CELL
        right = (max(c for _, c in members) + 1) * CELL
        ys, xs = np.nonzero(full[top:bottom, left:right])
        found.append(
            Region(
                int(left + xs.min()),
                int(top + ys.min()),
                int(xs.max() - xs.min() + 1),
                int(ys.max() - ys.min() + 1),
                len(xs),
            )
        )
    return sorted(found, key=lambda region: -region.pixels)[:MOST_REGIONS]
