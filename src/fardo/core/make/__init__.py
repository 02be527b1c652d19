"""Ways to get a box, one module each. A new way is a new module here and a line in the register."""

from __future__ import annotations

from types import ModuleType

from fardo.core.board.grade import Grade
from fardo.core.goods.part import Sizes
from fardo.core.make import five_panel, recut, shelf, slotted, stack, stash, tray
from fardo.core.make.made import Allowances, Made, School
from fardo.core.make.stock import StockBox
from fardo.core.refusal import BadInput

__all__ = ["WAYS", "Allowances", "Made", "School", "StockBox", "make_box"]

WAYS: dict[str, ModuleType] = {
    module.NAME: module for module in (tray, slotted, five_panel, shelf, stash, recut, stack)
}


def make_box(
    way: str,
    inside: Sizes,
    grade: Grade,
    allowances: Allowances,
    school: School = "exact",
    stock: tuple[StockBox, ...] = (),
    upright: bool = True,
) -> Made:
    """The box that `way` makes for an inside size.

    Args:
        stock: the boxes there are, for the ways that need one. upright: whether the height must stay the height.

    Raises: BadInput for a way or school there is not; NoAnswer where no box in stock will do.
    """
    if way not in WAYS:
        raise BadInput("not a way to get a box known here", read=way, allowed=", ".join(WAYS), field="way")
    schools = WAYS[way].SCHOOLS
    if school not in schools:
        raise BadInput("not a school of this way", read=school, allowed=", ".join(schools), field="school")
    made: Made
    if WAYS[way].NEEDS == "stock":
        made = WAYS[way].take(inside, stock, allowances, upright)
    else:
        made = WAYS[way].make(inside, grade, allowances, school)
    return made
