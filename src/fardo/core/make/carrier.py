"""A carrier's own container, free or at a fixed price: only with that carrier's services, closed within its seams."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.made import Made, School
from fardo.core.make.mailer import in_pouch
from fardo.core.make.shelf import from_stock
from fardo.core.make.step import Step
from fardo.core.make.stock import Stock, carton_of
from fardo.core.quantity import volume_nm3
from fardo.core.refusal import NoAnswer

NAME, TITLE = "carrier", "Carrier's own container"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(2)  # to fold and close: starting value

_CLOSED = (Step("Close it within its own seams: a bulging one is charged as a parcel of your own."),)


def take(inside: Sizes, stock: Stock, allowances: Allowances, upright: bool) -> Made:
    """The carrier's box or envelope that takes least room. Raises NoAnswer, with the nearest, where none holds it."""
    boxes = tuple(box for box in stock.boxes if box.carrier)
    pouches = tuple(pouch for pouch in stock.pouches if pouch.carrier)
    if not boxes and not pouches:
        raise NoAnswer("there is none")
    found: list[Made] = []
    reasons: list[str] = []
    if boxes:
        try:
            found.append(from_stock(NAME, inside, boxes, upright, MINUTES, _CLOSED))
        except NoAnswer as none:
            reasons.append(str(none))
    if pouches:
        try:
            found.append(in_pouch(NAME, inside, pouches, allowances))
        except NoAnswer as none:
            reasons.append(str(none))
    if not found:
        raise NoAnswer("; ".join(reasons))
    made = min(found, key=lambda one: volume_nm3(*one.outside))
    box = carton_of(made.taken)
    return made if box is None else replace(made, carrier=box.carrier)
