"""A box from a blank of the shop's own design, read in from a drawing and cut from sheet as it is."""

from __future__ import annotations

from fractions import Fraction

from fardo.core.cut.fence import fence_of
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.contents import Contents
from fardo.core.make.made import Made, School, check_inside, sides_told
from fardo.core.make.stock import OwnBlank, Stock, TooSmall, closing_tape, nearest_of
from fardo.core.quantity import Length, both_units, volume_nm3
from fardo.core.refusal import NoAnswer
from fardo.core.why import Why

NAME, TITLE = "design", "Box of your own design"
FLAPS = "both"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(12)  # starting value

_RULE = "as the shop says that its design folds"


def take(contents: Contents, stock: Stock, allowances: Allowances) -> tuple[Made, ...]:
    """Every design that holds it, the smallest closed first. Raises NoAnswer, with the nearest, where none does."""
    check_inside(contents.inside)
    found: list[tuple[int, str, OwnBlank, Sizes]] = []
    whys: list[tuple[str, NoAnswer]] = []
    for design in stock.designs:
        shorts = []
        for stood in contents.ways_to_stand:
            short = max(want.nm - have.nm for want, have in zip(stood, design.inside, strict=True))
            shorts.append(short)
            if short <= 0:
                found.append((volume_nm3(*design.outside), design.name, design, stood))
                break
        else:
            lacks = Length(min(shorts))
            whys.append((design.name, TooSmall(f"{both_units(lacks)} too small", lacks)))
    if not found:
        raise nearest_of(whys, "no drawing of one's own has been read in")
    return tuple(_folded(design, stood) for _, _, design, stood in sorted(found, key=lambda one: one[:2]))


def _folded(design: OwnBlank, stood: Sizes) -> Made:
    why = Why(f"{design.name}, as it was read in", sides_told("inside", design.inside), _RULE)
    return Made(
        way=NAME, school="exact", grade=design.grade, needed=stood, inside=design.inside, outside=design.outside,
        blanks=(design.blank,), fence=fence_of(design.blank), tape=closing_tape(design.outside), minutes=MINUTES,
        whys={"inside": why, "outside": why, "blank": why}, notes=(),
    )  # fmt: skip
