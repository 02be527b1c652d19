"""Residential: so much more when the door is a home's."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import Money
from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment


@dataclass(frozen=True, slots=True)
class Residential(Charge):
    amount: Money

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine | None:
        if not sent.parcel.residential:
            return None
        return ChargeLine("residential", "residential surcharge", self.amount, "the address is a home, not a business")

    @property
    def line_kind(self) -> str:
        return "residential"
