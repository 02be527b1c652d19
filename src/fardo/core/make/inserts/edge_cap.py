"""Edge cap: an angle along an edge, as wide on both faces."""

from __future__ import annotations

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.inserts.strip import scored
from fardo.core.make.inserts.wanted import Asks, Insert, Wanted
from fardo.core.quantity import ZERO, Length

KIND, TITLE = "edge-cap", "Edge cap"
ASKS = (Asks("count", "how many"), Asks("length", "long"), Asks("depth", "legs"))
ON_GOODS = True
COUNT = 4


def cut(wanted: Wanted, inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    assert wanted.length is not None
    assert wanted.depth is not None
    wide = allowances.at_least(wanted.depth)
    marks = (ZERO, wide, wide * 2)
    return Insert(
        KIND, (scored("edge cap", marks, allowances.at_most(wanted.length), "across the blank", wanted.count),)
    )
