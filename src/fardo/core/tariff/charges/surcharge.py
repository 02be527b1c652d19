"""A surcharge where a condition holds: an amount, or a percentage of lines before it. Of a group only one is charged.

Additional handling, large, over maximum, remote area, signature, oversize: all are this, with their own conditions. The
order in the tariff is the precedence within a group: the first that holds is charged, later ones of it are not.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction

from fardo.core.quantity import Money
from fardo.core.quantity.money import total
from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment
from fardo.core.tariff.marks import Marks
from fardo.core.tariff.measure import WeightRule
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.when import When


@dataclass(frozen=True, slots=True)
class Surcharge(Charge):
    """A charge that is made where a condition holds.

    Args:
        code: the kind of its line, for percentages.
        what: as printed.
        prices: a column a zone, or one for all; None where it is a percentage of the lines `on`.
        group: of which only one is charged.
        why: a sentence.
    """

    code: str
    what: str
    when: When
    why: str
    zones: tuple[str, ...] = ()
    prices: tuple[Money, ...] | None = None
    percent: Fraction | None = None
    on: tuple[str, ...] = ()
    group: str = ""

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine | None:
        if not self.when.holds(sent.parcel, sent.billing):
            return None
        if self.group and any(line.group == self.group for line in before):
            return None
        if self.prices is not None:
            return ChargeLine(self.code, self.what, sent.price(self.zones, self.prices), self.why, self.group)
        base = total([line.amount for line in before if line.kind in self.on], sent.currency)
        percent = self.percent or Fraction(0)
        why = f"{float(percent):g} % of {base}; {self.why}"
        return ChargeLine(self.code, self.what, base.share(percent / 100), why, self.group)

    @property
    def line_kind(self) -> str:
        return self.code

    @property
    def taken_of(self) -> tuple[str, ...]:
        return self.on

    def marks(self, parcels: tuple[Parcel, ...]) -> Marks:
        return self.when.marks

    def look_over(self, weights: WeightRule) -> tuple[Iterable[str], ...]:
        return ((f"{self.what} is 0 %",),) if self.percent is not None and not self.percent else ()


class Within(Charge):
    """A charge made under a condition: what it is, it is by the one within it."""

    __slots__ = ()
    charged: Charge

    def covers(self, value: Money) -> bool:
        return self.charged.covers(value)

    @property
    def line_kind(self) -> str:
        return self.charged.line_kind

    @property
    def once(self) -> bool:
        return self.charged.once

    @property
    def taken_of(self) -> tuple[str, ...]:
        return self.charged.taken_of

    @property
    def columns(self) -> tuple[str, ...]:
        return self.charged.columns

    def marks(self, parcels: tuple[Parcel, ...]) -> Marks:
        return self.charged.marks(parcels)

    def look_over(self, weights: WeightRule) -> tuple[Iterable[str], ...]:
        return self.charged.look_over(weights)


def bare(charge: Charge) -> Charge:
    """A charge without the conditions it is made under."""
    while isinstance(charge, Within):
        charge = charge.charged
    return charge


@dataclass(frozen=True, slots=True)
class Conditional(Within):
    """A charge that is made only where a condition holds, or only where it does not: one price list in the place of
    another, an oversize price in the place of the grid.
    """

    charged: Charge
    when: When
    unless: bool = False

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine | None:
        if self.when.holds(sent.parcel, sent.billing) == self.unless:
            return None
        return self.charged.charge(sent, before)

    def marks(self, parcels: tuple[Parcel, ...]) -> Marks:
        return Marks.all_of((self.when.marks, self.charged.marks(parcels)))


@dataclass(frozen=True, slots=True)
class PerConsignment(Within):
    """A charge that is made once for all parcels that go together: a lift at the tail, a minimum, a price by what all
    of them weigh. It sees the lines of all of them.
    """

    charged: Charge

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine | None:
        return self.charged.charge(sent, before)

    @property
    def once(self) -> bool:
        return True
