"""What a box costs by each service, in all: postage, surcharges, cover, box, wrap, fill, tape, labour."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, fields
from functools import cached_property

from fardo.core.make import WAYS
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.journey import Journey, parcel_of
from fardo.core.quantity import Money
from fardo.core.quantity.money import total
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.service import Quote, Refused, Service, compare
from fardo.core.why import Value, Why


@dataclass(frozen=True)
class Costs:
    """What the sum is made of."""

    postage: Money
    surcharges: Money
    cover: Money
    box: Money
    wrap: Money
    fill: Money
    tape: Money
    labour: Money

    @cached_property
    def total(self) -> Money:
        return total([amount for _, amount in self.named], self.postage.currency)

    @cached_property
    def named(self) -> tuple[tuple[str, Money], ...]:
        """Each by its name."""
        return tuple((field.name, getattr(self, field.name)) for field in fields(self))

    @property
    def why(self) -> Why:
        """Of the total: what of it there is."""
        values: list[tuple[str, Value]] = [(name, amount) for name, amount in self.named if amount.minor]
        return Why(" + ".join(name for name, _ in values), tuple(values), "what the shop pays for this parcel in all")


@dataclass(frozen=True, slots=True)
class Plan:
    """One box by one service."""

    boxed: Boxed
    quote: Quote
    costs: Costs

    @property
    def own(self) -> Money:
        """What it costs beside what the carrier asks."""
        return self.costs.total - self.quote.amount

    @property
    def label(self) -> str:
        return f"{WAYS[self.boxed.made.way].TITLE}, {self.quote.carrier} {self.quote.service}"


def price(
    boxed: Boxed, journey: Journey, services: Iterable[Service], exchange: Exchange | None = None
) -> tuple[list[Plan], list[Refused]]:
    """What the box costs by each service that calls for it, cheapest in all first, and who does not take it."""
    return _priced(boxed, journey, [service for service in services if not service.other_way], exchange)


def price_other_ways(
    boxed: Boxed, journey: Journey, services: Iterable[Service], exchange: Exchange | None = None
) -> tuple[list[Plan], list[Refused]]:
    """As `price`, of what else people weigh up: a shop that packs, luggage, their own van."""
    return _priced(boxed, journey, [service for service in services if service.other_way], exchange)


def _priced(
    boxed: Boxed, journey: Journey, listed: list[Service], exchange: Exchange | None
) -> tuple[list[Plan], list[Refused]]:
    if journey.hazards.never:
        return [], [
            Refused(service.carrier, service.name, "this does not ship", service.programme) for service in listed
        ]
    whose, parcel = boxed.made.carrier, parcel_of(boxed, journey)
    theirs = [service for service in listed if not whose or service.carrier == whose]
    # A container that is sold with a service travels by that alone.
    own = [service for service in theirs if parcel.container and service.prices_container(parcel.container)]
    takers = own or theirs
    quotes, refused = compare(takers, parcel, journey.day, exchange or Exchange(boxed.box.currency))
    by = " or ".join(dict.fromkeys(service.name for service in own))
    for s in listed:
        if s not in takers:
            why = f"the {parcel.container} travels by {by} only" if s in theirs else f"the container is {whose}'s"
            refused.append(Refused(s.carrier, s.name, why, s.programme))
    plans = [Plan(boxed, quote, _costs(boxed, quote)) for quote in quotes]
    return sorted(plans, key=lambda plan: plan.costs.total.minor), refused


def compared(plans: Sequence[Plan]) -> str:
    """Whether the first of ranked plans beats those in another kind of box by what it costs in all, in words."""
    if not plans:
        return ""
    first = plans[0]
    way = first.boxed.made.way
    other = next((plan for plan in plans if plan.boxed.made.way != way), None)
    title = WAYS[way].TITLE
    if other is None:
        return f"{title} is the only way to box it of those looked at."
    less = other.costs.total - first.costs.total
    against = f"{WAYS[other.boxed.made.way].TITLE.lower()} at {other.costs.total}"
    if not less.minor:
        return f"{title} costs as much in all as {against}."
    saving = first.costs.total.saving_on(other.costs.total)
    return f"{title} costs {less} ({saving} %) less in all than the next way, {against}."


def _costs(boxed: Boxed, quote: Quote) -> Costs:
    def of(*kinds: str) -> Money:
        return total([line.amount for line in quote.lines if line.kind in kinds], quote.amount.currency)

    postage, cover = of("postage"), of("cover")
    surcharges = quote.amount - postage - cover
    if quote.packs:
        none = Money(0, quote.amount.currency)
        return Costs(postage, surcharges, cover, box=none, wrap=none, fill=none, tape=none, labour=none)
    return Costs(
        postage=postage, surcharges=surcharges, cover=cover, box=boxed.box,
        wrap=boxed.wrap, fill=boxed.fill, tape=boxed.tape, labour=boxed.labour,
    )  # fmt: skip
