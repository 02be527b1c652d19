"""A box from the shelf, new, as it was bought."""

from __future__ import annotations

from fractions import Fraction

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.made import Made, School, check_inside
from fardo.core.make.step import Step
from fardo.core.make.stock import Stock, StockBox, Taken, closing_tape, nearest, smallest_that_fits
from fardo.core.refusal import NoAnswer
from fardo.core.why import Why

NAME, TITLE = "shelf", "Box from the shelf"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(2)  # to fold and tape its bottom: starting value

_RULE = "as it was made; a board on every side, two above and two below"


def take(inside: Sizes, stock: Stock, allowances: Allowances, upright: bool) -> Made:
    """The smallest new box that holds it. Raises NoAnswer, with the nearest, where none does."""
    return from_stock(NAME, inside, tuple(box for box in stock.own_boxes if not box.used), upright, MINUTES)


def from_stock(
    way: str, inside: Sizes, boxes: tuple[StockBox, ...], upright: bool, minutes: Fraction, steps: tuple[Step, ...] = ()
) -> Made:
    check_inside(inside)
    found = smallest_that_fits(boxes, inside, upright)
    if found is None:
        raise NoAnswer(nearest(boxes, inside, upright))
    box, stood = found
    told = (("inside length", box.inside[0]), ("inside width", box.inside[1]), ("inside height", box.inside[2]),
            ("caliper t", box.grade.caliper))  # fmt: skip
    why = Why(f"{box.name}, as it is", told, _RULE)
    return Made(
        way=way, school="exact", grade=box.grade, needed=stood, inside=box.inside, outside=box.outside, blanks=(),
        fence=(), tape=closing_tape(box.outside), minutes=minutes,
        whys={"inside": why, "outside": why, "blank": why}, notes=(), taken=(Taken(box),),
        condition="used" if box.used else "new",
        steps=(*steps, Step("Fold up the bottom flaps and tape them: three strips along and across.")),
    )  # fmt: skip
