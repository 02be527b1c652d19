"""A service of a carrier, and what it asks for a parcel: an itemised quote, or a refusal that says why."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal

from fardo.core.goods.hazard import tags
from fardo.core.quantity import Money, Units
from fardo.core.quantity.money import total
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.charges import Charge, ChargeLine, Consignment
from fardo.core.tariff.charges.tiers import ContainerPrice
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.limits import Limits, over_limit
from fardo.core.tariff.marks import NO_MARKS, Marks
from fardo.core.tariff.measure import Billing, Dimensional, WeightRule, bill_weight
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.zones import ZoneRow, find_zone

PostalForm = Literal["letter", "flat", "parcel"]


@dataclass(frozen=True, slots=True)
class Service:
    """A service of a carrier's by one rate plan.

    Args:
        carrier, name, rate_plan: who, which service, at which price (counter, account, ...).
        units: the carrier's own.
        charges: in the order they are worked out; a percentage sees the lines before it.
        refuses: tags of hazards.
        valid: the first and the last day of these prices, as 2026-07-11, each None where it is open.
        other_way: no carrier that calls, but what else people weigh up: it is told beside the rest and never the
            cheapest by itself.
        packs: it packs too, so that the shop has no box, wrap, fill, tape or time in it.
        note: what to know of it.
        tracked: whether it is, None where nobody said.
        form: of post it is for.
        placeholder: whether its prices are invented, until the shop enters the carrier's own.
    """

    carrier: str
    name: str
    rate_plan: str
    currency: str
    units: Units
    zones: tuple[ZoneRow, ...]
    weights: WeightRule
    dimensional: Dimensional | None
    limits: Limits
    charges: tuple[Charge, ...]
    refuses: frozenset[str] = frozenset()
    valid: tuple[str | None, str | None] = (None, None)
    other_way: bool = False
    packs: bool = False
    note: str = ""
    tracked: bool | None = None
    form: PostalForm = "parcel"
    placeholder: bool = False

    @property
    def called(self) -> tuple[str, str, str]:
        """Carrier, service and rate plan: no two of a shop are called the same on one day."""
        return self.carrier, self.name, self.rate_plan

    def marks(self, parcel: Parcel) -> Marks:
        """Where its price, or whether it takes the parcel, can change with the parcel's size and weight."""
        bulky = self.weights.bulky
        return Marks.all_of((
            self.limits.marks,
            Marks(around=(bulky.girth_over, bulky.girth_to)) if bulky else NO_MARKS,
            *(charge.marks((parcel, *parcel.beside) if charge.once else (parcel,)) for charge in self.charges),
        ))  # fmt: skip

    def prices_container(self, name: str) -> bool:
        """Whether a price of this service is for that container of its carrier's."""
        return any(isinstance(one, ContainerPrice) and name in dict(one.rows) for one in self.charges)

    def holds_on(self, day: str | None) -> bool:
        """Whether these prices do: a day as 2026-07-11, None for any."""
        first, last = self.valid
        return day is None or not ((first and day < first) or (last and day > last))


@dataclass(frozen=True, slots=True)
class Quote:
    """What a service asks.

    Args:
        billing: of the parcel itself.
        days: the least and most it takes.
        beside: the billing of those that go with it.
        packs, note, tracked, form, placeholder: as the service says.
        uncovered: of the declared value, what nothing covers; None where all of it is covered or none is declared.
    """

    carrier: str
    service: str
    rate_plan: str
    amount: Money
    billing: Billing
    lines: tuple[ChargeLine, ...]
    days: tuple[int, int]
    beside: tuple[Billing, ...] = ()
    packs: bool = False
    note: str = ""
    tracked: bool | None = None
    form: PostalForm = "parcel"
    uncovered: Money | None = None
    placeholder: bool = False

    @property
    def called(self) -> tuple[str, str, str]:
        return self.carrier, self.service, self.rate_plan

    def converted(self, exchange: Exchange) -> Quote:
        """The quote in the shop's currency; one that is in it already stays as it is."""
        if self.amount.currency == exchange.currency:
            return self
        lines = tuple(exchange.convert_line(line) for line in self.lines)
        uncovered = None if self.uncovered is None else exchange.convert(self.uncovered)
        amount = total([line.amount for line in lines], exchange.currency)
        return replace(self, lines=lines, amount=amount, uncovered=uncovered)

    def paid_by_the_sale(self, what: str) -> Quote:
        """The same by a label that the sale gave: only cover beyond it costs.

        Args:
            what: printed in its place.
        """
        none = Money(0, self.amount.currency)
        kept = tuple(line for line in self.lines if line.kind == "cover")
        lines = (ChargeLine("postage", what, none, "it costs the seller nothing more"), *kept)
        return replace(self, lines=lines, amount=total([line.amount for line in lines], self.amount.currency))


@dataclass(frozen=True, slots=True)
class Refused:
    """A service that does not take the parcel, and why."""

    carrier: str
    service: str
    why: str
    rate_plan: str = ""


def find_service(services: Iterable[Service], called: tuple[str, str, str], day: str | None = None) -> Service | None:
    """The one that is called so and whose prices hold on that day, or of those that do not the first."""
    found = [service for service in services if service.called == called]
    return next((service for service in found if service.holds_on(day)), found[0] if found else None)


def quote(service: Service, parcel: Parcel, day: str | None = None, zone: ZoneRow | None = None) -> Quote | Refused:
    """What `service` asks for `parcel` and those beside it, or why it does not take them.

    Args:
        day: it leaves, 2026-07-11, or None for any.
        zone: it goes to, where that is known already.
    """

    def refused(why: str) -> Refused:
        return Refused(service.carrier, service.name, why, service.rate_plan)

    if not service.holds_on(day):
        first, last = service.valid
        return refused(f"these prices hold {f'from {first} ' if first else ''}{f'to {last}' if last else 'on'}".strip())
    zone = zone or find_zone(service.zones, parcel.origin, parcel.destination, parcel.country)
    if zone is None:
        return refused(f"does not go from {parcel.origin} to {parcel.destination}")
    parcels = (parcel, *parcel.beside)
    for n, one in enumerate(parcels, 1):
        if why := _not_taken(service, one):
            return refused(why if len(parcels) == 1 else f"parcel {n}: {why}")
    sent = tuple(
        Consignment(
            one, zone, bill_weight(one, service.dimensional, service.weights), service.weights, service.currency
        )
        for one in parcels
    )
    lines: tuple[ChargeLine, ...] = ()
    try:
        for charge in service.charges:
            lines += _lines(charge, sent, lines)
    except NoAnswer as no:
        return refused(str(no))
    if not any(line.kind == "postage" for line in lines):
        return refused("has no price for such a parcel")
    amount = total([line.amount for line in lines], service.currency)
    billing, *beside = (one.billing for one in sent)
    return Quote(
        service.carrier, service.name, service.rate_plan, amount, billing, lines, zone.days, tuple(beside),
        service.packs, service.note, service.tracked, service.form, _uncovered(service, parcels),
        service.placeholder,
    )  # fmt: skip


def _uncovered(service: Service, parcels: Iterable[Parcel]) -> Money | None:
    """Of what is declared of each, what no charge for cover is for."""
    declared = [parcel.value for parcel in parcels if parcel.value is not None and parcel.value.minor]
    open_ones = [value for value in declared if not any(charge.covers(value) for charge in service.charges)]
    return total(open_ones, open_ones[0].currency) if open_ones else None


def _not_taken(service: Service, parcel: Parcel) -> str | None:
    """Why the service does not take this one."""
    if broken := over_limit(parcel, service.limits, service.units):
        return broken
    if hazards := sorted(parcel.hazards & service.refuses):
        return "does not take " + " or ".join(tags()[tag].says for tag in hazards)
    return None


def _lines(charge: Charge, sent: tuple[Consignment, ...], before: tuple[ChargeLine, ...]) -> tuple[ChargeLine, ...]:
    """A charge's lines: one a parcel, each seeing those of its own parcel, or one for all that sees every line."""
    if len(sent) == 1:
        line = charge.charge(sent[0], before)
        return (line,) if line else ()
    if charge.once:
        for n, one in enumerate(sent):
            others = tuple((other.parcel, other.billing) for k, other in enumerate(sent) if k != n)
            if line := charge.charge(replace(one, others=others), before):
                return (line,)
        return ()
    found = []
    for n, one in enumerate(sent, 1):
        try:
            line = charge.charge(one, tuple(line for line in before if line.parcel == n))
        except NoAnswer as no:
            raise NoAnswer(f"parcel {n}: {no}") from no
        if line:
            found.append(replace(line, parcel=n))
    return tuple(found)


def compare(
    services: Iterable[Service], parcel: Parcel, day: str | None = None, exchange: Exchange | None = None
) -> tuple[list[Quote], list[Refused]]:
    """Every service's answer, quotes cheapest first and the quicker of equals before the slower.

    Args:
        day: it leaves, None for any.
        exchange: into the shop's currency; those it has no rate for refuse.
    """
    answers: list[Quote | Refused] = []
    for service in services:
        if exchange is not None and not exchange.knows(service.currency):
            why = f"prices in {service.currency}, for which the shop has no rate into {exchange.currency}"
            answers.append(Refused(service.carrier, service.name, why, service.rate_plan))
            continue
        if exchange is None:
            answers.append(quote(service, parcel, day))
            continue
        answer = quote(service, exchange.declared(parcel, service.currency), day)
        answers.append(answer.converted(exchange) if isinstance(answer, Quote) else answer)
    quotes = [a for a in answers if isinstance(a, Quote)]
    quotes.sort(key=lambda q: (q.amount.minor, q.days, q.carrier, q.service))
    return quotes, [a for a in answers if isinstance(a, Refused)]
