"""A used box from the stash, as it is."""

from __future__ import annotations

from fractions import Fraction

from fardo.core.make.allowances import Allowances
from fardo.core.make.contents import Contents
from fardo.core.make.made import Made, School
from fardo.core.make.shelf import from_stock
from fardo.core.make.step import Step
from fardo.core.make.stock import Stock

NAME, TITLE = "stash", "Used box, as it is"
FLAPS = "both"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(4)  # to look it over, cover labels and tape it: starting value

_LOOK = (
    Step("Look it over: no crushed corner, no tear, no damp. A box that is soft at its edges is not used."),
    Step("Cover or take off every old label and mark."),
)


def take(contents: Contents, stock: Stock, allowances: Allowances) -> tuple[Made, ...]:
    """Every used box that holds it, the smallest first. Raises NoAnswer, with the nearest, where none does."""
    return from_stock(NAME, contents, stock.used_boxes, MINUTES, _LOOK)
