"""A box from the shelf, new, as it was bought."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from fardo.core.make.allowances import Allowances
from fardo.core.make.contents import Contents, by_axes
from fardo.core.make.made import Made, School, check_inside
from fardo.core.make.step import Step
from fardo.core.make.stock import Standing, Stock, StockBox, Taken, all_that_fit, closing_tape, nearest
from fardo.core.refusal import NoAnswer
from fardo.core.why import Why

NAME, TITLE = "shelf", "Stock box"
FLAPS = "both"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(2)  # to fold and tape its bottom: starting value

_ON_ITS_SIDE = "The box stands on its side, so that the goods stay upright: it opens there, not at the top."
_BOTTOM = Step("Fold up the bottom flaps and tape them: three strips along and across.", tapes=True)
_RULE = "as it was made; a board on every side, two above and two below"


def take(contents: Contents, stock: Stock, allowances: Allowances) -> tuple[Made, ...]:
    """Every new box that holds it, the smallest first. Raises NoAnswer, with the nearest, where none does."""
    return from_stock(NAME, contents, tuple(box for box in stock.own_boxes if not box.used), MINUTES)


def from_stock(
    way: str, contents: Contents, boxes: tuple[StockBox, ...], minutes: Fraction, steps: tuple[Step, ...] = ()
) -> tuple[Made, ...]:
    check_inside(contents.inside)
    found = all_that_fit(boxes, contents)
    if not found:
        raise NoAnswer(nearest(boxes, contents))
    return tuple(_as_it_is(way, box, stands, minutes, steps) for box, stands in found)


def _as_it_is(way: str, box: StockBox, stands: Standing, minutes: Fraction, steps: tuple[Step, ...]) -> Made:
    told = (("inside length", box.inside[0]), ("inside width", box.inside[1]), ("inside height", box.inside[2]),
            ("caliper t", box.grade.caliper))  # fmt: skip
    why = Why(f"{box.name}, as it is", told, _RULE)
    return Made(
        way=way, school="exact", grade=box.grade, needed=stands.stood, inside=by_axes(box.inside, stands.axes),
        outside=by_axes(box.outside, stands.axes), blanks=(),
        fence=(), tape=closing_tape(box.outside), minutes=minutes,
        whys={"inside": why, "outside": why, "blank": why}, notes=(_ON_ITS_SIDE,) if stands.on_its_side else (),
        taken=(Taken(box),),
        condition="used" if box.used else "new",
        steps=(*steps, _BOTTOM, *_put_in(stands)),
    )  # fmt: skip


def _put_in(stands: Standing) -> Iterator[Step]:
    if stands.pressed.nm:
        yield Step(
            "Press the goods in: wrapped they are {} larger than the box, and the wrap gives.",
            (stands.pressed,),
            stage="close",
        )
    if stands.on_its_side:
        yield Step(
            "Pack it as it lies, close it, and stand it up; the arrow on the outside says which way is up.",
            stage="closed",
        )
