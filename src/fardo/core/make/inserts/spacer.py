"""Spacer: a bridge of three panels that keeps a distance; its legs stand, its back lies against the wall."""

from __future__ import annotations

from fardo.core.cut.drawing import Blank
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.inserts.strip import scored
from fardo.core.make.inserts.wanted import Asks, Insert, Wanted
from fardo.core.quantity import INCH, ZERO, Length
from fardo.core.refusal import NoAnswer

KIND, TITLE = "spacer", "Spacer, a bridge"
ASKS = (Asks("count", "how many"), Asks("length", "long"), Asks("depth", "keeps"))
COUNT = 4
_BACK = INCH * 3  # how wide it is: starting value


def cut(wanted: Wanted, inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    assert wanted.length is not None
    assert wanted.depth is not None
    return Insert(KIND, (bridge(allowances.at_most(wanted.length), wanted.depth, t, allowances, wanted.count),))


def bridge(length: Length, distance: Length, t: Length, allowances: Allowances, count: int) -> Blank:
    """So long, keeping so much. Raises NoAnswer for a distance that is less than half a board."""
    leg = allowances.at_least(distance - t.half())
    if leg.nm <= 0:
        raise NoAnswer("a spacer keeps no distance that is less than half a board")
    marks = (ZERO, leg, leg + _BACK, leg * 2 + _BACK)
    return scored("spacer", marks, length, "across the blank", count)
