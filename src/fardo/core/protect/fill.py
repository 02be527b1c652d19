"""Void fill: how much goes in, what it weighs and costs. The figures per litre are the shop's own."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from fardo.core.quantity import Mass, Money, cubic_cm


@dataclass(frozen=True, slots=True)
class Fill:
    """
    Args:
        name: as the shop calls it. weight_per_litre: as stuffed in. price_per_100_litres: a litre costs
        less than the smallest coin.
    """

    name: str
    weight_per_litre: Mass
    price_per_100_litres: Money


def fill_void(void_nm3: int, fill: Fill) -> tuple[Mass, Money]:
    """Weight (rounded up to the nanogram) and cost of filling `void_nm3` cubic nanometres."""
    litres = cubic_cm(void_nm3) / 1000
    return Mass(-(-(litres * fill.weight_per_litre.ng) // 1)), fill.price_per_100_litres.share(litres / Fraction(100))
