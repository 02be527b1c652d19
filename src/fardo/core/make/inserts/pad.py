"""Pad: a flat board as large as the inside, less the slip, under or over the goods."""

from __future__ import annotations

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.inserts.strip import loose, plain
from fardo.core.make.inserts.wanted import Asks, Insert, Wanted
from fardo.core.quantity import ZERO, Length

KIND, TITLE = "pad", "Pad, flat"
ASKS = (Asks("count", "how many"), Asks("where", "lies"))
COUNT = 1


def cut(wanted: Wanted, inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    count = wanted.count * (2 if wanted.where == "both" else 1)
    return Insert(KIND, (plain("pad", loose(inside, allowances), count),))


def room(wanted: Wanted, t: Length) -> tuple[Length, Length, Length]:
    thick = t * wanted.count
    return thick if wanted.where != "above" else ZERO, thick if wanted.where != "below" else ZERO, ZERO
