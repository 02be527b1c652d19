"""Postage from a grid: rows of billed weight up to so much, a column a zone; beyond the last so much a step."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import pairwise

from fardo.core.quantity import Mass, Money
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment
from fardo.core.tariff.charges.rows import falls
from fardo.core.tariff.measure import WeightRule, weigh


@dataclass(frozen=True, slots=True)
class Increment:
    """Beyond the last row: for every step begun so much, a price a column."""

    step: Mass
    prices: tuple[Money, ...]


@dataclass(frozen=True, slots=True)
class WeightGrid(Charge):
    """Postage by billed weight and zone.

    Args:
        zones: the columns.
        rows: weight up to and including, rising, and a price a column.
        increment: beyond the last row.
    """

    zones: tuple[str, ...]
    rows: tuple[tuple[Mass, tuple[Money, ...]], ...]
    increment: Increment | None = None

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine:
        billed = sent.billed
        at = bisect_left(self.rows, billed, key=lambda row: row[0])
        most, last = self.rows[-1]
        if at < len(self.rows):
            up_to, prices = self.rows[at]
            amount = sent.price(self.zones, prices)
            why = f"price up to {weigh(up_to, sent.weights)} in zone {sent.zone.zone}"
        elif self.increment is not None:
            steps = -(-(billed.ng - most.ng) // self.increment.step.ng)
            each = sent.price(self.zones, self.increment.prices)
            amount = sent.price(self.zones, last) + Money(each.minor * steps, each.currency)
            why = (
                f"{sent.price(self.zones, last)} up to {weigh(most, sent.weights)} in zone {sent.zone.zone}, "
                f"then {steps} x {weigh(self.increment.step, sent.weights)} at {each}"
            )
        else:
            most_shown = weigh(most, sent.weights)
            raise NoAnswer(f"is billed {weigh(billed, sent.weights)}; the price list ends at {most_shown}")
        by = f"all together billed {weigh(billed, sent.weights)}" if sent.others else sent.billing.why
        return ChargeLine("postage", f"postage, zone {sent.zone.zone}", amount, f"{by}; {why}")

    def look_over(self, weights: WeightRule) -> tuple[Iterable[str], ...]:
        return falls(self.rows, self.zones, lambda key: weigh(key, weights)), self._gaps(weights)

    def _gaps(self, weights: WeightRule) -> Iterator[str]:
        """Where rows are more than a step apart and others are not: most likely one was left out."""
        widths = [after[0].ng - before[0].ng for before, after in pairwise(self.rows)]
        usual = min(widths, default=0)
        for (before, _), width in zip(self.rows, widths, strict=False):
            if usual == weights.step.ng and width == 2 * usual:
                yield f"no row between {weigh(before, weights)} and two steps more"
