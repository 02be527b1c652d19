"""What every charge is told and gives back."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from fardo.core.quantity import Money
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.measure import Billing, WeightRule
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.zones import ZoneRow


@dataclass(frozen=True, slots=True)
class Line:
    """One line of a quote.

    Args:
        kind: which charge ("postage", "fuel", ...), for percentages and sums. what: as printed. why: a sentence.
        group: of surcharges of which only one is charged.
    """

    kind: str
    what: str
    amount: Money
    why: str
    group: str = ""


@dataclass(frozen=True, slots=True)
class Consignment:
    """A parcel with what the service made of it so far."""

    parcel: Parcel
    zone: ZoneRow
    billing: Billing
    weights: WeightRule
    currency: str

    def price(self, zones: tuple[str, ...], prices: tuple[Money, ...]) -> Money:
        """Of a column a zone, or one for all zones. Raises NoAnswer for a zone without a column."""
        if not zones:
            return prices[0]
        if self.zone.zone not in zones:
            raise NoAnswer(f"has no price for zone {self.zone.zone}")
        return prices[zones.index(self.zone.zone)]


class Charge(Protocol):
    def charge(self, sent: Consignment, before: tuple[Line, ...]) -> Line | None:
        """This charge's line. Raises NoAnswer where the tariff has no price for the consignment."""
        ...
