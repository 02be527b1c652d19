"""Corner cap, over a corner of what is square: a square of three equal faces, the fourth slit and lapped under."""

from __future__ import annotations

from fardo.core.cut.drawing import Blank, Line, Note, Point, chain, cut_along
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.inserts.wanted import Asks, Insert, Wanted
from fardo.core.quantity import INCH, ZERO, Length

KIND, TITLE = "corner-cap", "Corner cap"
ASKS = (Asks("count", "how many"),)
ON_GOODS = True
COUNT = 8
_CAP = INCH * 3  # how far it goes along each edge: starting value


def cut(wanted: Wanted, inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    side = allowances.at_least(_CAP)
    whole = side * 2
    outline: tuple[Point, ...] = (
        (ZERO, ZERO),
        (whole, ZERO),
        (whole, side),
        (side, side),
        (side, whole),
        (ZERO, whole),
    )
    lines = (*cut_along(outline), Line("score", (side, ZERO), (side, side)), Line("score", (ZERO, side), (side, side)))
    dimensions = (*chain((ZERO, side, whole), "below", ZERO), *chain((ZERO, side, whole), "left", ZERO))
    note = Note((side.half(), side.half()), "inside face up")
    blank = Blank("corner cap", (whole, whole), outline, lines, dimensions, (note,), "either way", wanted.count)
    return Insert(KIND, (blank,), says="Fold both wings up; tape where they meet.")
