"""Divider: strips that slot into each other and make cells; they stand as high as the inside.

Slots are as wide as the board, up to the step of the tape, and half the height deep, from above in the long strips and
from below in the short.
"""

from __future__ import annotations

from fardo.core.cut.drawing import Blank, Point, chain, cut_along
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.inserts.strip import loose
from fardo.core.make.inserts.wanted import Asks, Insert, Wanted
from fardo.core.quantity import ZERO, Length
from fardo.core.refusal import BadInput, NoAnswer

KIND, TITLE = "divider", "Divider, cells"
ASKS = (Asks("along", "cells along"), Asks("across", "across"))  # as many as there are things, where nothing is said
COUNT = 1
MOST_CELLS = 20
_LONG, _SHORT = "long strip", "short strip"


def check(wanted: Wanted) -> None:
    """Raises BadInput for one cell, or too many."""
    if wanted.from_goods:
        return
    for name, cells in (("along", wanted.along), ("across", wanted.across)):
        if not 1 <= cells <= MOST_CELLS:
            raise BadInput("no number of cells", read=str(cells), allowed=f"1 to {MOST_CELLS}", field=name)
    if wanted.along * wanted.across < 2:
        raise BadInput("no divider", read="1 x 1 cells", allowed="two cells or more", field="along")


def cut(wanted: Wanted, inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    """Raises NoAnswer where a cell would be nothing."""
    along, across = wanted.along, wanted.across
    length, width = loose(inside, allowances)
    height = allowances.at_most(inside[2])
    cell = cells_in(inside, (along, across), t, allowances)
    if min(cell).nm <= 0:
        raise NoAnswer(f"{along} x {across} cells of a divider are more than there is room for")
    blanks = []
    if across > 1:
        blanks.append(_slotted_strip(_LONG, length, height, cell[0], along - 1, t, across - 1, allowances))
    if along > 1:
        blanks.append(_slotted_strip(_SHORT, width, height, cell[1], across - 1, t, along - 1, allowances))
    told = tuple(allowances.at_most(side) for side in cell)
    return Insert(KIND, tuple(blanks), says="Each cell is {} x {} and as high as the box.", measures=told)


def cells_in(
    inside: Sizes, cells: tuple[int, int], t: Length, allowances: Allowances
) -> tuple[Length, Length]:  # fmt: skip
    """Length and width of each cell; from strip to strip it is a measure the tape has, and the cells at the ends take
    what is over.

    Args:
        cells: along and across.
        t: of the strips.
    """
    free = loose(inside, allowances)
    along, across = (
        allowances.at_most(Length((side.nm + t.nm) // count)) - t for side, count in zip(free, cells, strict=True)
    )
    return along, across


def _slotted_strip(
    name: str, length: Length, height: Length, cell: Length, slots: int, t: Length, count: int, allowances: Allowances
) -> Blank:
    """Slots half the height deep, a cell apart; the cells at the ends take what is over."""
    from_above = name == _LONG
    middle = allowances.at_least(height.half())
    over = length - cell * (slots + 1) - t * slots
    wide = allowances.at_least(t)
    first = allowances.at_most(cell + over.half())
    at = [first + (cell + t) * n for n in range(slots)]
    edge = height if from_above else ZERO
    points: list[Point] = []
    for x in at:
        points += [(x, edge), (x, middle), (x + wide, middle), (x + wide, edge)]
    if from_above:
        outline = ((ZERO, ZERO), (length, ZERO), (length, height), *reversed(points), (ZERO, height))
    else:
        outline = ((ZERO, ZERO), *points, (length, ZERO), (length, height), (ZERO, height))
    marks = (ZERO, *(x for start in at for x in (start, start + wide)), length)
    dimensions = [*chain((ZERO, length), "below" if from_above else "above", ZERO if from_above else height),
                  *chain(marks, "above" if from_above else "below", edge),
                  *chain((ZERO, height), "left", ZERO)]  # fmt: skip
    if slots:
        dimensions += chain((middle, height) if from_above else (ZERO, middle), "right", length)
    return Blank(name, (length, height), outline, cut_along(outline), tuple(dimensions), (), "across the blank", count)
