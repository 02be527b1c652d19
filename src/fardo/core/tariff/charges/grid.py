"""Postage from a grid: rows of billed weight up to so much, a column a zone; beyond the last so much a step."""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import dataclass

from fardo.core.quantity import Mass, Money
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.charges.charge import Consignment, Line
from fardo.core.tariff.measure import weigh


@dataclass(frozen=True, slots=True)
class Tail:
    """Beyond the last row: for every step begun so much, a price a column."""

    step: Mass
    prices: tuple[Money, ...]


@dataclass(frozen=True, slots=True)
class WeightGrid:
    """
    Args:
        zones: the columns. rows: weight up to and including, rising, and a price a column. tail: beyond the last row.
    """

    zones: tuple[str, ...]
    rows: tuple[tuple[Mass, tuple[Money, ...]], ...]
    tail: Tail | None = None

    def charge(self, sent: Consignment, before: tuple[Line, ...]) -> Line:
        billed = sent.billed
        at = bisect_left(self.rows, billed, key=lambda row: row[0])
        most, last = self.rows[-1]
        if at < len(self.rows):
            up_to, prices = self.rows[at]
            amount = sent.price(self.zones, prices)
            why = f"price up to {weigh(up_to, sent.weights)} in zone {sent.zone.zone}"
        elif self.tail is not None:
            steps = -(-(billed.ng - most.ng) // self.tail.step.ng)
            each = sent.price(self.zones, self.tail.prices)
            amount = sent.price(self.zones, last) + Money(each.minor * steps, each.currency)
            why = (
                f"{sent.price(self.zones, last)} up to {weigh(most, sent.weights)} in zone {sent.zone.zone}, "
                f"then {steps} x {weigh(self.tail.step, sent.weights)} at {each}"
            )
        else:
            most_shown = weigh(most, sent.weights)
            raise NoAnswer(f"is billed {weigh(billed, sent.weights)}; the price list ends at {most_shown}")
        by = f"all together billed {weigh(billed, sent.weights)}" if sent.others else sent.billing.why
        return Line("postage", f"postage, zone {sent.zone.zone}", amount, f"{by}; {why}")
