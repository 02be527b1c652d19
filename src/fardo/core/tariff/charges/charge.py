"""What every charge is told and gives back."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Iterable
from dataclasses import dataclass

from fardo.core.quantity import Mass, Money
from fardo.core.quantity.money import total
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.marks import NO_MARKS, Marks
from fardo.core.tariff.measure import Billing, WeightRule
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.zones import ZoneRow


@dataclass(frozen=True, slots=True)
class ChargeLine:
    """One line of a quote.

    Args:
        kind: which charge ("postage", "fuel", ...), for percentages and sums.
        what: as printed.
        why: a sentence.
        group: of surcharges of which only one is charged.
        parcel: the number of the parcel it is for, from 1, where several go together; 0 where it is for all of them, or
            there is one.
    """

    kind: str
    what: str
    amount: Money
    why: str
    group: str = ""
    parcel: int = 0


@dataclass(frozen=True, slots=True)
class Consignment:
    """A parcel with what the service made of it so far.

    Args:
        others: of the same consignment, where a charge is made once for all of them: it counts what they weigh, measure
            and are worth with its own.
    """

    parcel: Parcel
    zone: ZoneRow
    billing: Billing
    weights: WeightRule
    currency: str
    others: tuple[tuple[Parcel, Billing], ...] = ()

    @property
    def billed(self) -> Mass:
        if not self.others:
            return self.billing.billed
        return Mass(self.billing.billed.ng + sum(billing.billed.ng for _, billing in self.others))

    @property
    def weight(self) -> Mass:
        return Mass(self.parcel.weight.ng + sum(parcel.weight.ng for parcel, _ in self.others))

    @property
    def volume_nm3(self) -> int:
        return self.parcel.volume_nm3 + sum(parcel.volume_nm3 for parcel, _ in self.others)

    @property
    def value(self) -> Money | None:
        """Declared of all, None where of none."""
        said = [p.value for p in (self.parcel, *(parcel for parcel, _ in self.others)) if p.value is not None]
        return total(said, said[0].currency) if said else None

    def price(self, zones: tuple[str, ...], prices: tuple[Money, ...]) -> Money:
        """Of a column a zone, or one for all zones. Raises NoAnswer for a zone without a column."""
        if not zones:
            return prices[0]
        if self.zone.zone not in zones:
            raise NoAnswer(f"has no price for zone {self.zone.zone}")
        return prices[zones.index(self.zone.zone)]


class Charge(ABC):
    """One kind of charge. What it does not say of itself, it has none of."""

    __slots__ = ()

    @abstractmethod
    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine | None:
        """This charge's line. Raises NoAnswer where the tariff has no price for the consignment."""

    def covers(self, value: Money) -> bool:
        """Whether goods of that value are covered by it."""
        return False

    @property
    def line_kind(self) -> str:
        """The kind of its lines."""
        return "postage"

    @property
    def once(self) -> bool:
        """Whether it is made once for all parcels that go together."""
        return False

    @property
    def taken_of(self) -> tuple[str, ...]:
        """The kinds of line that it is a percentage of."""
        return ()

    @property
    def columns(self) -> tuple[str, ...]:
        """The zones it has a price for; none where it has one for all, or no rows."""
        zones: tuple[str, ...] = getattr(self, "zones", ())
        return zones

    def marks(self, parcels: tuple[Parcel, ...]) -> Marks:
        """Where it can change with size and weight.

        Args:
            parcels: that it is made for.
        """
        return NO_MARKS

    def look_over(self, weights: WeightRule) -> tuple[Iterable[str], ...]:
        """What is most likely a slip, in words; slips of one kind together."""
        return ()
