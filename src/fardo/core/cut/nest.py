"""How many blanks of one size a sheet gives by straight cuts from edge to edge, as a saw or straightedge makes them."""

from __future__ import annotations

from functools import lru_cache

from fardo.core.board.grade import Sheet
from fardo.core.cut.drawing import Point

_DEPTH = 2  # how often a piece is divided before it is filled with one plain grid
_MOST_DIVISIONS = 24  # with more blanks to a side than this, a plain grid wastes next to nothing


@lru_cache(maxsize=256)
def count_on_sheet(size: Point, sheet: Sheet) -> int:
    """The number found; at least the better plain grid, more where turning some of the blanks pays.

    >>> from fardo.core.quantity import Length
    >>> inch = Length.of_inches
    >>> count_on_sheet((inch(14), inch(12)), Sheet(inch(30), inch(24)))
    4
    """
    return _count(sheet.length.nm, sheet.width.nm, size[0].nm, size[1].nm, _DEPTH)


def _count(length: int, width: int, a: int, b: int, depth: int) -> int:
    best = max((length // a) * (width // b), (length // b) * (width // a))
    if depth == 0 or max(length, width) // min(a, b) > _MOST_DIVISIONS:
        return best
    for step in {a, b}:
        for at in range(step, length, step):
            best = max(best, _count(at, width, a, b, depth - 1) + _count(length - at, width, a, b, depth - 1))
        for at in range(step, width, step):
            best = max(best, _count(length, at, a, b, depth - 1) + _count(length, width - at, a, b, depth - 1))
    return best
