"""What a box costs by each service, in all: postage, surcharges, cover, box, wrap, fill, tape, labour."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, fields, replace
from functools import cached_property

from fardo.core.make import WAYS
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.channel import PREPAID
from fardo.core.plan.journey import Journey, parcel_of
from fardo.core.quantity import Money, show_length, show_mass
from fardo.core.quantity.money import total
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.parcel import Parcel
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
        return Why(" + ".join(name for name, _ in values), tuple(values), "what the shop pays for this parcel in total")


@dataclass(frozen=True, slots=True)
class Plan:
    """A box by a service, or several that go together.

    Args:
        at_risk: whether it leaves so much of the value uncovered that the shop minds.
        beside: further parcels of it.
        favour: how many of the smallest coins more it may cost and still come first, by a house rule.
        favoured_by: that rule.
    """

    boxed: Boxed
    quote: Quote
    costs: Costs
    at_risk: bool = False
    beside: tuple[Boxed, ...] = ()
    favour: int = 0
    favoured_by: str = ""

    @property
    def boxes(self) -> tuple[Boxed, ...]:
        return (self.boxed, *self.beside)

    @property
    def overloaded(self) -> bool:
        """Whether a box of it is trusted with less than what is in it."""
        return any(boxed.strength.overloaded for boxed in self.boxes)

    @property
    def rank(self) -> tuple[bool, int]:
        """What is covered before what is not, then the cheaper in all, less what a house rule would pay more for it."""
        return self.at_risk, self.costs.total.minor - self.favour

    def more_than(self, other: Plan) -> Money | None:
        """By how much it costs more in all; None where it does not."""
        return self.costs.total - other.costs.total if self.costs.total > other.costs.total else None

    @property
    def own(self) -> Money:
        """What it costs beside what the carrier asks."""
        return self.costs.total - self.quote.amount

    @property
    def label(self) -> str:
        titles = list(dict.fromkeys(WAYS[boxed.made.way].TITLE for boxed in self.boxes))
        boxes = titles[0] if not self.beside else f"{len(self.boxes)} parcels, {' and '.join(titles)}"
        return f"{boxes}, {self.quote.carrier} {self.quote.service}"


def price(
    boxed: Boxed, journey: Journey, services: Iterable[Service], exchange: Exchange | None = None
) -> tuple[list[Plan], list[Refused]]:
    """What the box costs by each service that calls for it, those that cover it first and of these the cheapest in all,
    and who does not take it.
    """
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
            Refused(service.carrier, service.name, "this does not ship", service.rate_plan) for service in listed
        ]
    exchange = exchange or Exchange(boxed.box.currency)
    quotes, refused = price_parcel(parcel_of(boxed, journey), boxed.made.carrier, journey, listed, exchange)
    plans = [
        Plan(boxed, one, _costs(boxed, one), _at_risk(one, journey), (), *journey.house.favours(one.carrier))
        for one in quotes
    ]
    return sorted(plans, key=lambda plan: plan.rank), refused


def price_together(
    boxes: Sequence[Boxed], values: Sequence[Money | None], journey: Journey, services: Sequence[Service],
    exchange: Exchange,
) -> list[Plan]:  # fmt: skip
    """What several boxes of a job cost that go together by one service, the best first; those that take them.

    Args:
        values: declared of each.
    """
    parcels = [
        replace(parcel_of(boxed, replace(journey, beside=(), value=None)), value=value)
        for boxed, value in zip(boxes, values, strict=True)
    ]
    first = replace(parcels[0], beside=(*parcels[1:], *journey.beside))
    calling = [service for service in services if not service.other_way]
    quotes, _ = price_parcel(first, "", journey, calling, exchange)
    plans = [
        Plan(
            boxes[0], one, _costs_of(boxes, one), _at_risk(one, journey), tuple(boxes[1:]),
            *journey.house.favours(one.carrier),
        )
        for one in quotes
    ]  # fmt: skip
    return sorted(plans, key=lambda plan: plan.rank)


def price_parcel(
    parcel: Parcel, whose: str, journey: Journey, listed: Sequence[Service], exchange: Exchange
) -> tuple[list[Quote], list[Refused]]:
    """What each service asks for a parcel, the cheapest first, and who does not take it.

    Args:
        whose: the box is, the name of a carrier, nothing for the shop's.
    """
    # A container that is sold with a service travels by that alone.
    theirs = [one for one in listed if parcel.container and one.carrier == whose]
    own = [one for one in theirs if one.prices_container(parcel.container)]
    refused = [
        Refused(service.carrier, service.name, why, service.rate_plan)
        for service in listed if (why := _not_for_it(service, own, whose, parcel, journey))
    ]  # fmt: skip
    out = {(one.carrier, one.service, one.rate_plan) for one in refused}
    asked = [service for service in listed if service.called not in out]
    quotes, not_taken = compare(asked, parcel, journey.day, exchange)
    taken = []
    for quote in quotes:
        if why := _against_the_wishes(quote, journey):
            refused.append(Refused(quote.carrier, quote.service, why, quote.rate_plan))
        else:
            taken.append(quote.paid_by_the_sale("label from the sale") if quote.rate_plan == PREPAID else quote)
    return taken, [*refused, *not_taken]


def _not_for_it(service: Service, own: Sequence[Service], whose: str, parcel: Parcel, journey: Journey) -> str:
    """Why a service is not asked: the box is another carrier's, the price is another sale's, a wish is against it.

    Args:
        own: those that the container is sold with.
        whose: the box is, nothing for the shop's.
    """
    if why := journey.house.against_carrier(service.carrier):
        return why
    if whose and service.carrier != whose:
        return f"the container is {whose}'s"
    if own and service not in own:
        return f"the {parcel.container} travels by {' or '.join(dict.fromkeys(one.name for one in own))} only"
    if service.rate_plan == PREPAID:
        return _not_by_its_label(service, parcel, journey)
    if service.rate_plan in journey.closed:
        return f"{service.rate_plan} prices belong to sales of another channel"
    every = (parcel, *parcel.beside)
    heaviest, weight = journey.wishes.parcel_weight_at_most, max(one.weight for one in every)
    if heaviest is not None and weight > heaviest:
        shown, wish_is = show_mass(weight, service.units, "up"), show_mass(heaviest, service.units, "down")
        return f"a parcel weighs {shown}; at most {wish_is} is wished for"
    most, united = journey.wishes.sides_sum_at_most, max(one.united_inches for one in every)
    if most is not None and united > most:
        shown, wish = show_length(united, service.units, "up"), show_length(most, service.units, "down")
        return f"length, width and height together are {shown}; at most {wish} is wished for"
    return ""


def _not_by_its_label(service: Service, parcel: Parcel, journey: Journey) -> str:
    label = journey.label
    if label is None:
        return "no label came with the sale"
    if label.carrier != service.carrier:
        return f"the label that came with the sale is {label.carrier}'s"
    if label.most_weight is not None and parcel.weight > label.most_weight:
        most = show_mass(label.most_weight, service.units, "down")
        return f"weighs {show_mass(parcel.weight, service.units, 'up')}; the label from the sale takes {most}"
    return ""


def _against_the_wishes(quote: Quote, journey: Journey) -> str:
    days = journey.wishes.days_at_most
    if days is not None and quote.days[1] > days:
        return f"takes up to {quote.days[1]} days; at most {days} are wished for"
    return ""


def _at_risk(quote: Quote, journey: Journey) -> bool:
    """Whether it leaves so much uncovered that it comes after those that cover it."""
    least = journey.cover_from
    return quote.uncovered is not None and least is not None and quote.uncovered >= least


def compared(plans: Sequence[Plan]) -> str:
    """Whether the first of ranked plans beats those in another kind of box, or in another number of parcels, by what it
    costs in all, in words.
    """
    if not plans:
        return ""
    first = plans[0]
    title = _boxed_in(first)
    other = next((plan for plan in plans if _boxed_in(plan) != title), None)
    if other is None:
        return f"{title} is the only box style of those looked at."
    less = other.costs.total - first.costs.total
    against = f"{_boxed_in(other).lower()} at {other.costs.total}"
    costs = "costs" if not first.beside else "cost"
    if not less.minor:
        return f"{title} {costs} as much in total as {against}."
    saving = first.costs.total.saving_on(other.costs.total)
    return f"{title} {costs} {less} ({saving} %) less in total than the next way, {against}."


def _boxed_in(plan: Plan) -> str:
    return f"{len(plan.boxes)} parcels" if plan.beside else WAYS[plan.boxed.made.way].TITLE


def _costs(boxed: Boxed, quote: Quote) -> Costs:
    return _costs_of((boxed,), quote)


def _costs_of(boxes: Sequence[Boxed], quote: Quote) -> Costs:
    def of(*kinds: str) -> Money:
        return total([line.amount for line in quote.lines if line.kind in kinds], quote.amount.currency)

    postage, cover = of("postage"), of("cover")
    surcharges = quote.amount - postage - cover
    if quote.packs:
        none = Money(0, quote.amount.currency)
        return Costs(postage, surcharges, cover, box=none, wrap=none, fill=none, tape=none, labour=none)

    def own(of_one: Callable[[Boxed], Money]) -> Money:
        return total([of_one(boxed) for boxed in boxes], quote.amount.currency)

    return Costs(
        postage=postage, surcharges=surcharges, cover=cover, box=own(lambda one: one.box),
        wrap=own(lambda one: one.wrap), fill=own(lambda one: one.fill), tape=own(lambda one: one.tape),
        labour=own(lambda one: one.labour),
    )  # fmt: skip
