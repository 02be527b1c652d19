"""A box that is there, closed, in a bag or an envelope: against wet and scuffs, and because a carrier counts it as a
soft pack, by the flat size of the bag as it is trimmed.

The bag is cut on both sides to l + h and w + h of the closed box, by its outside, and taped like wrapping, which needs
no seam (common practice).
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import SEAMS, Allowances
from fardo.core.make.contents import Contents
from fardo.core.make.made import Made, School
from fardo.core.make.mailer import RULE, bag_to_trim, must_close, trim_steps, trimmed_flat
from fardo.core.make.shelf import from_stock
from fardo.core.make.step import Step
from fardo.core.make.stock import POUCHES, Pouch, Stock, StockBox, Taken, nearest_of
from fardo.core.quantity import ZERO, Length
from fardo.core.refusal import NoAnswer
from fardo.core.why import Value, Why

NAME, TITLE = "bagged", "Box in a bag"
FLAPS = "both"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
_FLAT = "Counted flat by the outside of the closed box; cut sides are taped like wrapping and take no seam."
_CLOSED = "Counted by the outside of the closed box, within the envelope's own seams."
_WRAP_IT = Step("Roll the closed box in its wrap and fold the wrap in at both ends.", stage="closed")
MINUTES = Fraction(5)  # as a box from the shelf, and to trim and tape the bag: starting value


def take(contents: Contents, stock: Stock, allowances: Allowances) -> tuple[Made, ...]:
    """Every own box that holds it, in the cheapest bag that closes on it, the smallest box first.

    Raises: NoAnswer where no box holds it or no bag closes on one.
    """
    bags = tuple(pouch for pouch in stock.own_pouches if pouch.kind == "bag")
    return closed_in(NAME, contents, stock.own_boxes, bags, allowances)


def closed_in(
    way: str, contents: Contents, boxes: tuple[StockBox, ...], pouches: tuple[Pouch, ...], allowances: Allowances
) -> tuple[Made, ...]:  # fmt: skip
    """Boxes that are there, each closed in the cheapest of some mailers that closes on it. Raises as `take` does."""
    closed = from_stock(way, contents, boxes, MINUTES)
    over = contents.over_box
    found = tuple(_all_closed_in(closed, pouches, allowances, over))
    if found:
        return found
    whys: list[tuple[str, NoAnswer]] = []
    for pouch in pouches:
        try:
            _must_take(pouch, closed[0], allowances, over)
        except NoAnswer as none:
            whys.append((pouch.name, none))
    why = nearest_of(whys, "there is none")
    raise NoAnswer(f"{closed[0].taken[0].item.name} would hold it, but of what goes around a box {why}")


def _all_closed_in(
    closed: tuple[Made, ...], pouches: tuple[Pouch, ...], allowances: Allowances, over: Length
) -> Iterator[Made]:  # fmt: skip
    for boxed in closed:
        fitting = []
        for pouch in pouches:
            try:
                _must_take(pouch, boxed, allowances, over)
            except NoAnswer:
                continue
            fitting.append(pouch)
        if fitting:
            yield _closed(
                boxed, min(fitting, key=lambda p: (p.price.minor, p.width.nm * p.length.nm, p.name)), allowances, over
            )


def _must_take(pouch: Pouch, boxed: Made, allowances: Allowances, over: Length) -> None:
    if not pouch.count:
        raise NoAnswer("there is none left")
    must_close(pouch, _with(boxed.outside, over), ZERO if pouch.kind == "bag" else allowances[SEAMS])


def _with(box: Sizes, over: Length) -> Sizes:
    """A closed box with what is wrapped around it."""
    a, b, c = (side + over * 2 for side in box)
    return a, b, c


def _closed(boxed: Made, pouch: Pouch, allowances: Allowances, over: Length) -> Made:
    """The box in its bag or envelope.

    Args:
        over: what is wrapped around the box, on each side.
    """
    wrapped = _with(boxed.outside, over)
    values: list[tuple[str, Value]] = [("box outside", boxed.outside), ("wall", pouch.wall)]
    if over.nm:
        values.append(("wrap around the box", over))
    why = Why(f"box outside + 2 walls{' + 2 x the wrap' if over.nm else ''}", tuple(values), RULE)
    wrap_it = (_WRAP_IT,) if over.nm else ()
    bag = pouch.kind == "bag"
    if bag:
        flat = trimmed_flat(pouch, wrapped, allowances)
        steps = (*wrap_it, *trim_steps(pouch, flat, "closed box", "closed"), Step(
            "Fold the cut sides flat over the box like wrapping and tape them all along; the label goes on a "
            "flat face.", tapes=True))  # fmt: skip
        tape = flat[1] + flat[0]
    else:
        flat, tape = (pouch.length, pouch.width), Length(0)
        steps = (
            *wrap_it,
            Step(f"Slip it into the {POUCHES[pouch.kind]} and close that within its own seams.", stage="closed"),
        )
    told = (*why.values, ("flat length", flat[0]), ("flat width", flat[1]))
    return replace(
        boxed, outside=_with(wrapped, pouch.wall), closed_box=boxed.outside, taken=(*boxed.taken, Taken(pouch)),
        tape=boxed.tape + tape, flat=flat, standing=bag_to_trim(pouch, flat) if bag else None,
        carrier=pouch.carrier, steps=(*boxed.steps, *steps), notes=(*boxed.notes, _FLAT if bag else _CLOSED),
        whys={**boxed.whys, "outside": replace(why, values=told)},
    )  # fmt: skip
