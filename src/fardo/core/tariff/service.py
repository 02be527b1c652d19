"""A service of a carrier, and what it asks for a parcel: an itemised quote, or a refusal that says why."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from fardo.core.goods.hazard import IN_WORDS
from fardo.core.quantity import Money, Units
from fardo.core.quantity.money import total
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.charges import Charge, Consignment, Line
from fardo.core.tariff.limits import Limits, over_limit
from fardo.core.tariff.measure import Billing, Dimensional, WeightRule, bill_weight
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.zones import ZoneRow, find_zone


@dataclass(frozen=True, slots=True)
class Service:
    """
    Args:
        carrier, name, programme: who, which service, at which price (counter, account, ...). units: the carrier's own.
        charges: in the order they are worked out; a percentage sees the lines before it. refuses: tags of hazards.
    """

    carrier: str
    name: str
    programme: str
    currency: str
    units: Units
    zones: tuple[ZoneRow, ...]
    weights: WeightRule
    dimensional: Dimensional | None
    limits: Limits
    charges: tuple[Charge, ...]
    refuses: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True)
class Quote:
    """What a service asks. `days` is the least and most it takes."""

    carrier: str
    service: str
    programme: str
    amount: Money
    billing: Billing
    lines: tuple[Line, ...]
    days: tuple[int, int]


@dataclass(frozen=True, slots=True)
class Refused:
    """A service that does not take the parcel, and why."""

    carrier: str
    service: str
    why: str


def quote(service: Service, parcel: Parcel) -> Quote | Refused:
    """What `service` asks for `parcel`, or why it does not take it."""

    def refused(why: str) -> Refused:
        return Refused(service.carrier, service.name, why)

    zone = find_zone(service.zones, parcel.origin, parcel.destination)
    if zone is None:
        return refused(f"does not go from {parcel.origin} to {parcel.destination}")
    if broken := over_limit(parcel, service.limits, service.units):
        return refused(broken)
    if not_taken := sorted(parcel.hazards & service.refuses):
        return refused("does not take " + " or ".join(IN_WORDS[tag] for tag in not_taken))
    billing = bill_weight(parcel, service.dimensional, service.weights)
    sent = Consignment(parcel, zone, billing, service.weights, service.currency)
    lines: tuple[Line, ...] = ()
    try:
        for charge in service.charges:
            if line := charge.charge(sent, lines):
                lines = (*lines, line)
    except NoAnswer as no:
        return refused(str(no))
    amount = total([line.amount for line in lines], service.currency)
    return Quote(service.carrier, service.name, service.programme, amount, billing, lines, zone.days)


def compare(services: Iterable[Service], parcel: Parcel) -> tuple[list[Quote], list[Refused]]:
    """Every service's answer, quotes cheapest first and the quicker of equals before the slower."""
    answers = [quote(service, parcel) for service in services]
    quotes = [a for a in answers if isinstance(a, Quote)]
    quotes.sort(key=lambda q: (q.amount.minor, q.days, q.carrier, q.service))
    return quotes, [a for a in answers if isinstance(a, Refused)]
