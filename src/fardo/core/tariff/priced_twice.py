"""Parcels priced by two tariffs, this year's and next year's: what each comes to, and all of them together."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from fardo.core.quantity import Money
from fardo.core.quantity.money import total
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Quote, Refused, Service, compare


@dataclass(frozen=True, slots=True)
class PricedTwice:
    """A parcel by two tariffs.

    Args:
        was, now: the cheapest service of each; None where none takes it.
        why_not: of each, why its first service does not, where none does.
    """

    was: Quote | None
    now: Quote | None
    why_not: tuple[str, str] = ("", "")

    @property
    def more(self) -> Money | None:
        """What the later asks beyond the earlier, less than nothing where it is less; None unless both price it."""
        return None if self.was is None or self.now is None else self.now.amount - self.was.amount


@dataclass(frozen=True, slots=True)
class PricedTwiceInAll:
    """Parcels by two tariffs, and the sums of those that both price.

    Args:
        parcels: in the order they were asked in.
        counted: how many both price.
    """

    parcels: tuple[PricedTwice, ...]
    was: Money
    now: Money
    counted: int

    @property
    def more(self) -> Money:
        """What the later asks beyond the earlier in all."""
        return self.now - self.was

    @property
    def per_cent_more(self) -> Fraction | None:
        """The same in per cent of the earlier; None where that is nothing."""
        return Fraction(100 * self.more.minor, self.was.minor) if self.was.minor else None


def price_twice(
    parcels: Sequence[Parcel], was: Sequence[Service], now: Sequence[Service], exchange: Exchange
) -> PricedTwiceInAll:
    """Each parcel by the services of two tariffs, in the shop's currency."""
    priced = tuple(_priced(parcel, was, now, exchange) for parcel in parcels)
    both = [(one.was.amount, one.now.amount) for one in priced if one.was is not None and one.now is not None]
    before, after = (total([amounts[n] for amounts in both], exchange.currency) for n in (0, 1))
    return PricedTwiceInAll(priced, before, after, len(both))


def _priced(parcel: Parcel, was: Sequence[Service], now: Sequence[Service], exchange: Exchange) -> PricedTwice:
    (one, why_one), (other, why_other) = (_cheapest(services, parcel, exchange) for services in (was, now))
    return PricedTwice(one, other, (why_one, why_other))


def _cheapest(services: Sequence[Service], parcel: Parcel, exchange: Exchange) -> tuple[Quote | None, str]:
    quotes: Sequence[Quote]
    refused: Sequence[Refused]
    quotes, refused = compare(services, parcel, exchange=exchange)
    if quotes:
        return quotes[0], ""
    return None, f"{refused[0].service}: {refused[0].why}" if refused else "no service has prices then"
