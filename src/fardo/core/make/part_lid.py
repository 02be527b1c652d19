"""A tray with a lid of part depth: as `tray`, exactly, but the lid's walls reach only some way down.

It takes less board and is quicker to lift off; the tray's walls are single below the lid (common practice).
"""

from __future__ import annotations

from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.goods.part import Sizes
from fardo.core.make import tray
from fardo.core.make.allowances import LID, Allowances
from fardo.core.make.made import Made, School, check_inside

NAME, TITLE = "part-lid", "Tray with a part-depth lid, cut from sheet"
NEEDS = "sheet"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(10)  # as for a full lid: it is scored and cut as often


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """The two blanks for an inside size, and the box they make. Raises BadInput for a size out of range."""
    check_inside(inside)
    return tray.exactly(inside, grade, allowances, NAME, allowances[LID])
