"""How many blanks of one size a sheet gives by straight cuts from edge to edge, as a saw or straightedge makes them."""

from __future__ import annotations

from functools import lru_cache

from fardo.core.board.grade import Sheet
from fardo.core.cut.drawing import Flutes, Point

_DEPTH = 2  # how often a piece is divided before it is filled with one plain grid
_MOST_DIVISIONS = 24  # with more blanks to a side than this, a plain grid wastes next to nothing


def ways_on(flutes: Flutes, sheet: Sheet) -> tuple[bool, ...]:
    """Whether a blank may lie as it is drawn (False) and turned a quarter (True), its flutes as they must run."""
    if flutes == "either way":
        return False, True
    along = flutes == "along the blank"
    return (along != sheet.flutes_along,)


@lru_cache(maxsize=256)
def count_on_sheet(size: Point, sheet: Sheet, flutes: Flutes = "either way") -> int:
    """The number found; at least the better plain grid, more where turning some of the blanks pays and their flutes
    allow it.

    >>> from fardo.core.quantity import Length
    >>> inch = Length.of_inches
    >>> count_on_sheet((inch(14), inch(12)), Sheet(inch(30), inch(24)))
    4
    >>> count_on_sheet((inch(30), inch(14)), Sheet(inch(96), inch(28)), "along the blank")
    0
    """
    ways = ways_on(flutes, sheet)
    if len(ways) == 1:
        a, b = (size[1], size[0]) if ways[0] else size
        return (sheet.length.nm // a.nm) * (sheet.width.nm // b.nm)
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
