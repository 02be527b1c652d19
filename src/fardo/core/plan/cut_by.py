"""The figures a box was worked out by when it was chosen, so that a correction made later does not change it."""

from __future__ import annotations

from dataclasses import dataclass, replace

from fardo.core.board.grade import Grade
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length


@dataclass(frozen=True, slots=True)
class CutBy:
    """The figures that a box is cut by.

    Args:
        caliper: of its board.
        trim: what such a box comes out smaller by than reckoned: length, width, height.
        allowances: the shop's.
    """

    caliper: Length
    trim: Sizes
    allowances: Allowances


def cut_by(way: str, grade: Grade, allowances: Allowances) -> CutBy:
    """What a box of that way is worked out by now."""
    return CutBy(grade.caliper, grade.trim(way), allowances)


def as_then(kept: CutBy, way: str, grade: Grade, shop: Shop) -> tuple[Grade, Shop]:
    """Board and shop as they were when a box of that way was chosen."""
    was_board = replace(grade, caliper=kept.caliper, trims=((way, kept.trim),))
    return was_board, replace(shop, allowances=kept.allowances)
