"""A grade of corrugated board as the shop has it. Caliper and prices are the shop's own to measure and change."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import Length, Mass, Money


@dataclass(frozen=True, slots=True)
class Sheet:
    """A sheet as bought: its two sides."""

    length: Length
    width: Length


@dataclass(frozen=True, slots=True)
class Grade:
    """
    Args:
        code: its short name ("C", "BC"). name: in words. walls: 1 single, 2 double.
        caliper: thickness. edge_crush: lb per inch of edge. weight_per_m2, price_per_m2: of the flat board.
        sheets: the sheets it is bought in.
    """

    code: str
    name: str
    walls: int
    caliper: Length
    edge_crush: int
    weight_per_m2: Mass
    price_per_m2: Money
    sheets: tuple[Sheet, ...]
