"""Box and packing by one who packs for you: a price by length, width and height together."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable
from dataclasses import dataclass

from fardo.core.quantity import Length, Money, Units, show_length
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment
from fardo.core.tariff.charges.rows import falls
from fardo.core.tariff.marks import Marks
from fardo.core.tariff.measure import WeightRule
from fardo.core.tariff.parcel import Parcel


@dataclass(frozen=True, slots=True)
class PackingCharge(Charge):
    """What a shop that packs asks for packing.

    Args:
        rows: sides together up to and including, rising, and the price.
    """

    rows: tuple[tuple[Length, tuple[Money, ...]], ...]
    units: Units = "in"

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine:
        united = sent.parcel.united_inches
        at = bisect_left(self.rows, united, key=lambda row: row[0])
        shown = show_length(united, self.units, "up").text
        if at == len(self.rows):
            most = show_length(self.rows[-1][0], self.units, "down").text
            raise NoAnswer(f"the sides come to {shown} together; it packs up to {most}")
        up_to, (price,) = self.rows[at]
        why = f"the sides come to {shown} together, up to {show_length(up_to, self.units, 'down').text}"
        return ChargeLine("packing", "box and packing", price, why)

    @property
    def line_kind(self) -> str:
        return "packing"

    def marks(self, parcels: tuple[Parcel, ...]) -> Marks:
        return Marks(united_inches=tuple(row for row, _ in self.rows))

    def look_over(self, weights: WeightRule) -> tuple[Iterable[str], ...]:
        return (falls(self.rows, (), lambda key: f"{float(key.inches):g} in"),)
