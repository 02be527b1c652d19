"""Postage from a grid: rows of billed weight up to so much, a column a zone."""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import dataclass

from fardo.core.quantity import Mass, Money
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.charges.charge import Consignment, Line
from fardo.core.tariff.measure import weigh


@dataclass(frozen=True, slots=True)
class WeightGrid:
    """
    Args:
        zones: the columns. rows: weight up to and including, rising, and a price a column.
    """

    zones: tuple[str, ...]
    rows: tuple[tuple[Mass, tuple[Money, ...]], ...]

    def charge(self, sent: Consignment, before: tuple[Line, ...]) -> Line:
        billed = sent.billing.billed
        if sent.zone.zone not in self.zones:
            raise NoAnswer(f"has no price for zone {sent.zone.zone}")
        at = bisect_left(self.rows, billed, key=lambda row: row[0])
        if at == len(self.rows):
            most = weigh(self.rows[-1][0], sent.weights)
            raise NoAnswer(f"is billed {weigh(billed, sent.weights)}; the price list ends at {most}")
        up_to, prices = self.rows[at]
        return Line(
            "postage", f"postage, zone {sent.zone.zone}", prices[self.zones.index(sent.zone.zone)],
            f"{sent.billing.why}; price up to {weigh(up_to, sent.weights)} in zone {sent.zone.zone}",
        )  # fmt: skip
