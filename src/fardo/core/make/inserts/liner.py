"""Liner: one strip around the four walls, scored at the corners, a board thick at each wall."""

from __future__ import annotations

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.inserts.strip import loose, scored
from fardo.core.make.inserts.wanted import Asks, Insert, Wanted
from fardo.core.quantity import ZERO, Length

KIND, TITLE = "liner", "Liner, four walls"
ASKS: tuple[Asks, ...] = ()
COUNT = 1


def cut(wanted: Wanted, inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    """It stands within `inside`."""
    length, width = loose(inside, allowances)
    height = allowances.at_most(inside[2])
    long, short = allowances.at_most(length - t), allowances.at_most(width - t)
    # The last wall ends in a cut edge that meets the first one's inner face.
    marks = (ZERO, long, long + short, long * 2 + short, long * 2 + short + allowances.at_most(short - t.half()))
    blank = scored("liner", marks, height, "across the blank")
    return Insert(KIND, (blank,))


def room(wanted: Wanted, t: Length) -> tuple[Length, Length, Length]:
    return ZERO, ZERO, t
