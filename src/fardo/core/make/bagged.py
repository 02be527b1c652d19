"""A box that is there, in a bag trimmed to size: against wet, scuffs and a box that tells what is in it.

The bag is cut to l + h and the seams of the closed box, and is wide enough for w + h and the seams (common practice).
"""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import SEAMS, Allowances
from fardo.core.make.made import Made, School, check_inside
from fardo.core.make.mailer import RULE, must_close
from fardo.core.make.shelf import from_stock
from fardo.core.make.step import Step
from fardo.core.make.stock import Pouch, Stock, Taken, nearest_of
from fardo.core.quantity import Length
from fardo.core.refusal import NoAnswer
from fardo.core.why import Why

NAME, TITLE = "bagged", "Box in a bag"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(5)  # as a box from the shelf, and to trim and tape the bag: starting value


def take(inside: Sizes, stock: Stock, allowances: Allowances, upright: bool) -> Made:
    """The smallest own box that holds it, in the cheapest bag that closes on it. Raises NoAnswer where none."""
    check_inside(inside)
    boxed = from_stock(NAME, inside, stock.own_boxes, upright, MINUTES)
    bags = [pouch for pouch in stock.own_pouches if pouch.kind == "bag" and pouch.count]
    found: list[Pouch] = []
    whys: list[tuple[str, NoAnswer]] = []
    for bag in bags:
        try:
            must_close(bag, boxed.outside, allowances[SEAMS])
        except NoAnswer as none:
            whys.append((bag.name, none))
        else:
            found.append(bag)
    if not found:
        why = nearest_of(whys, "there is no bag")
        raise NoAnswer(f"{boxed.taken[0].item.name} would hold it, but of the bags {why}" if whys else str(why))
    bag = min(found, key=lambda one: (one.price.minor, one.width.nm * one.length.nm, one.name))
    length, _, height = sorted(boxed.outside, reverse=True)
    trimmed = length + height + allowances[SEAMS]
    a, b, c = (side + bag.wall * 2 for side in boxed.outside)
    why_bag = Why("box outside + 2 walls", (("box outside", boxed.outside), ("wall", bag.wall)), RULE)
    return replace(
        boxed, outside=(a, b, c), taken=(*boxed.taken, Taken(bag)),
        tape=boxed.tape + (bag.width + Length(bag.width.nm // 2)), whys={**boxed.whys, "outside": why_bag},
        steps=(
            *boxed.steps,
            Step(f"Trim the {bag.name} to {{}} and slip the closed box in, its end against the bag's seam.", (trimmed,),
                 knife=True),
            Step("Fold the ends flat over the box like a parcel, tape them all along; the label goes on a flat face."),
        ),
    )  # fmt: skip
