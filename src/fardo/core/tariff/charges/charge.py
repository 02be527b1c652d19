"""What every charge is told and gives back."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from fardo.core.quantity import Money
from fardo.core.tariff.measure import Billing, WeightRule
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.zones import ZoneRow


@dataclass(frozen=True, slots=True)
class Line:
    """One line of a quote.

    Args:
        kind: which charge ("postage", "fuel", ...), for percentages and sums. what: as printed. why: a sentence.
    """

    kind: str
    what: str
    amount: Money
    why: str


@dataclass(frozen=True, slots=True)
class Consignment:
    """A parcel with what the service made of it so far."""

    parcel: Parcel
    zone: ZoneRow
    billing: Billing
    weights: WeightRule
    currency: str


class Charge(Protocol):
    def charge(self, sent: Consignment, before: tuple[Line, ...]) -> Line | None:
        """This charge's line. Raises NoAnswer where the tariff has no price for the consignment."""
        ...
