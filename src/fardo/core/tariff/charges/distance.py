"""So much for every mile or kilometre of the road, and back where it is driven for this alone: one's own delivery."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fardo.core.quantity import Length, Money
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment

DistanceUnit = Literal["mi", "km"]
UNITS: dict[DistanceUnit, Length] = {"mi": Length(1_609_344_000_000), "km": Length(1_000_000_000_000)}


@dataclass(frozen=True, slots=True)
class Distance(Charge):
    """A price by the driving distance.

    Args:
        what: as printed.
        why: a sentence.
        price: of one `unit`.
        both_ways: the way back is paid too.
    """

    what: str
    why: str
    price: Money
    unit: DistanceUnit
    both_ways: bool = True

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine:
        distance = sent.parcel.distance
        if distance is None:
            raise NoAnswer("priced by distance: enter the driving distance")
        units = Fraction(distance.nm, UNITS[self.unit].nm)
        ways = 2 if self.both_ways else 1
        why = f"{ways} x {float(units):g} {self.unit} at {self.price}; {self.why}"
        return ChargeLine("postage", self.what, self.price.share(units * ways), why)
