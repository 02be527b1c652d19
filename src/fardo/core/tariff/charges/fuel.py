"""Fuel: a percentage of named lines that come before it, a half cent going up."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from fardo.core.quantity.money import total
from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment


@dataclass(frozen=True, slots=True)
class Fuel(Charge):
    """A percentage of other charges, for fuel.

    Args:
        percent: 14.5 means 14.5 per cent.
        on: the kinds of line it is taken from.
    """

    percent: Fraction
    on: tuple[str, ...]

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine | None:
        base = [line for line in before if line.kind in self.on]
        if not base:
            return None
        sum_ = total([line.amount for line in base], sent.currency)
        words = " and ".join(line.what for line in base)
        return ChargeLine(
            "fuel", "fuel", sum_.share(self.percent / 100), f"{float(self.percent):g} % of {sum_} ({words})"
        )

    @property
    def line_kind(self) -> str:
        return "fuel"

    @property
    def taken_of(self) -> tuple[str, ...]:
        return self.on
