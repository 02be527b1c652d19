"""A grade of corrugated board as the shop has it. Caliper and prices are the shop's own to measure and change."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from fardo.core.goods.part import Sizes
from fardo.core.quantity import ZERO, Length, Mass, Money
from fardo.core.refusal import BadInput

_NM2_PER_M2 = 10**18
_MOST_OFF = Length.of_mm(25)


@dataclass(frozen=True, slots=True)
class Sheet:
    """A sheet as bought: its two sides.

    Args:
        flutes_along: whether its flutes run along its length; else along its width.
        count: how many are in stock, None for enough.
        offcut: whether it was left over of another.
    """

    length: Length
    width: Length
    flutes_along: bool = False
    count: int | None = None
    offcut: bool = False


@dataclass(frozen=True, slots=True)
class Grade:
    """A board that the shop stocks.

    Args:
        code: its short name ("C", "BC").
        name: in words.
        walls: 1 single, 2 double.
        caliper: thickness.
        edge_crush: lb per inch of edge.
        weight_per_m2, price_per_m2: of the flat board.
        sheets: the sheets it is bought in, and off-cuts kept.
        trims: by the way of a box, what it comes out smaller than reckoned, as the shop measured it: length, width,
            height.
    """

    code: str
    name: str
    walls: int
    caliper: Length
    edge_crush: int
    weight_per_m2: Mass
    price_per_m2: Money
    sheets: tuple[Sheet, ...]
    trims: tuple[tuple[str, Sizes], ...] = ()

    def trim(self, way: str) -> Sizes:
        """The last that was measured of that way; nothing where none was."""
        return next((sizes for name, sizes in reversed(self.trims) if name == way), (ZERO, ZERO, ZERO))

    def weight_of(self, area_nm2: int) -> Mass:
        """Of so much board, up to the nanogram."""
        return Mass(-(-self.weight_per_m2.ng * area_nm2 // _NM2_PER_M2))

    def price_of(self, area_nm2: int) -> Money:
        """Of so much board, to the nearest minor unit."""
        return self.price_per_m2.share(Fraction(area_nm2, _NM2_PER_M2))


def trim_measured(promised: Sizes, measured: Sizes) -> Sizes:
    """What a box came out smaller than its cut sheet promised, each side; less than nothing where larger.

    Raises: BadInput where that is more than an allowance can be.
    """
    a, b, c = (said - came for said, came in zip(promised, measured, strict=True))
    for name, side, off in zip(("length", "width", "height"), measured, (a, b, c), strict=True):
        if abs(off) > _MOST_OFF:
            raise BadInput(
                f"{name} too far off to be an allowance", read=f"{side.mm:g} mm", field="measured",
                allowed=f"within {_MOST_OFF.mm:g} mm of what was promised",
            )  # fmt: skip
    return a, b, c


# What a mailer is of; nothing is ever cut from it. XTS is the code kept for no real currency (ISO 4217, from memory).
NO_BOARD = Grade("-", "no board", 0, Length(0), 0, Mass(0), Money(0, "XTS"), ())
