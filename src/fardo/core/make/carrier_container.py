"""A carrier's own container, free or at a fixed price: only with that carrier's services, closed within its seams."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from fractions import Fraction

from fardo.core.make.allowances import Allowances
from fardo.core.make.bagged import closed_in
from fardo.core.make.contents import Contents
from fardo.core.make.made import Made, School
from fardo.core.make.mailer import in_pouches
from fardo.core.make.shelf import from_stock
from fardo.core.make.step import Step
from fardo.core.make.stock import Stock, Taken
from fardo.core.quantity import volume_nm3
from fardo.core.refusal import NoAnswer

NAME, TITLE = "carrier", "Carrier's own container"
FLAPS = "both"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(2)  # to fold and close: starting value

_CLOSED = (Step("Close it within its own seams: a bulging one is charged as a parcel of your own.", stage="close"),)


def take(contents: Contents, stock: Stock, allowances: Allowances) -> tuple[Made, ...]:
    """Every carrier's box or envelope that holds it, what takes least room closed first: the goods themselves, or a
    closed box of one's own in an envelope.

    Raises: NoAnswer, with the nearest, where none does.
    """
    boxes = tuple(box for box in stock.boxes if box.carrier)
    pouches = tuple(pouch for pouch in stock.pouches if pouch.carrier)
    if not boxes and not pouches:
        raise NoAnswer("there is none")
    found: list[Made] = []
    reasons: list[str] = []
    ways: list[Callable[[], tuple[Made, ...]]] = []
    if boxes:
        ways.append(lambda: from_stock(NAME, contents, boxes, MINUTES, _CLOSED))
    if pouches:
        ways.append(lambda: in_pouches(NAME, contents, pouches, allowances))
        ways.append(lambda: closed_in(NAME, contents, stock.own_boxes, pouches, allowances))
    for way in ways:
        try:
            found += way()
        except NoAnswer as none:
            reasons.append(str(none))
    if not found:
        raise NoAnswer("; ".join(dict.fromkeys(reasons)))
    found.sort(key=lambda one: volume_nm3(*one.outside))
    return tuple(replace(one, carrier=_whose(one.taken)) for one in found)


def _whose(taken: Sequence[Taken]) -> str:
    return next(one.item.carrier for one in taken if one.item.carrier)
