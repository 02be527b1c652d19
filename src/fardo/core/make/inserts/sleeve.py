"""Sleeve: a band of four panels and a tab around a thing, open at both ends of its length.

Inside it is W by H: score to score W + t, H + t, the last panel half a caliper less.
"""

from __future__ import annotations

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.inserts.strip import scored
from fardo.core.make.inserts.wanted import Asks, Insert, Wanted
from fardo.core.quantity import ZERO, Length

KIND, TITLE = "sleeve", "Sleeve around a thing"
ASKS = (Asks("count", "how many"), Asks("size", "around a thing of"))
ON_GOODS = True
COUNT = 1


def cut(wanted: Wanted, inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    around = wanted.size
    assert around is not None
    length = allowances.at_most(around[0])
    wide, high = allowances.at_least(around[1] + t), allowances.at_least(around[2] + t)
    last = allowances.at_least(around[2] + t.half())
    tab = allowances.tab
    marks = (ZERO, tab, tab + wide, tab + wide + high, tab + wide * 2 + high, tab + wide * 2 + high + last)
    return Insert(KIND, (scored("sleeve", marks, length, "across the blank", wanted.count),))
