"""A grade of corrugated board as the shop has it. Caliper and prices are the shop's own to measure and change."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import ZERO, Length, Mass, Money


@dataclass(frozen=True, slots=True)
class Sheet:
    """A sheet as bought: its two sides.

    Args:
        flutes_along: whether its flutes run along its length; else along its width. count: how many are in stock, None
        for enough. offcut: whether it was left over of another.
    """

    length: Length
    width: Length
    flutes_along: bool = False
    count: int | None = None
    offcut: bool = False


@dataclass(frozen=True, slots=True)
class Grade:
    """
    Args:
        code: its short name ("C", "BC"). name: in words. walls: 1 single, 2 double.
        caliper: thickness. edge_crush: lb per inch of edge. weight_per_m2, price_per_m2: of the flat board.
        sheets: the sheets it is bought in, and off-cuts kept. trims: by the way of a box, what it comes out smaller
        than reckoned, as the shop measured it: length, width, height.
    """

    code: str
    name: str
    walls: int
    caliper: Length
    edge_crush: int
    weight_per_m2: Mass
    price_per_m2: Money
    sheets: tuple[Sheet, ...]
    trims: tuple[tuple[str, tuple[Length, Length, Length]], ...] = ()

    def trim(self, way: str) -> tuple[Length, Length, Length]:
        """The last that was measured of that way; nothing where none was."""
        return next((sizes for name, sizes in reversed(self.trims) if name == way), (ZERO, ZERO, ZERO))


# What a mailer is of; nothing is ever cut from it. XTS is the code kept for no real currency (ISO 4217, from memory).
NO_BOARD = Grade("-", "no board", 0, Length(0), 0, Mass(0), Money(0, "XTS"), ())
