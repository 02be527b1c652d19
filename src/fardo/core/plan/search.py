"""Every box by every service, ranked by what it costs in all: postage, surcharges, cover, box, fill, tape, labour."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from fardo.core.goods.hazard import NO_HAZARDS, Hazards
from fardo.core.make import WAYS, School, triangle
from fardo.core.make.stock import Pouch
from fardo.core.plan.boxed import Boxed, box_up
from fardo.core.plan.load import Load
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length, Money
from fardo.core.quantity.money import total
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.parcel import Form, Parcel
from fardo.core.tariff.service import Quote, Refused, Service, compare


@dataclass(frozen=True, slots=True)
class Journey:
    """Where a load goes.

    Args:
        value: declared of all of it, or None. hazards: what its answers come to. day: it leaves. beside: parcels that
        are closed already and go with it, each with its own part of the value. distance: by road, where it was said.
    """

    origin: str
    destination: str
    residential: bool
    value: Money | None = None
    hazards: Hazards = NO_HAZARDS
    day: str | None = None
    signature: bool = False
    beside: tuple[Parcel, ...] = ()
    distance: Length | None = None


@dataclass(frozen=True, slots=True)
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

    @property
    def total(self) -> Money:
        return total(
            [self.postage, self.surcharges, self.cover, self.box, self.wrap, self.fill, self.tape, self.labour],
            self.postage.currency,
        )


@dataclass(frozen=True, slots=True)
class Plan:
    """One box by one service."""

    boxed: Boxed
    quote: Quote
    costs: Costs

    @property
    def label(self) -> str:
        return f"{WAYS[self.boxed.made.way].TITLE}, {self.quote.carrier} {self.quote.service}"


def parcel_of(boxed: Boxed, journey: Journey) -> Parcel:
    """The closed box as a carrier sees it."""
    made = boxed.made
    pouch = next((one.item for one in made.taken if isinstance(one.item, Pouch)), None)
    own = next((one.item for one in made.taken if one.item.carrier), None)
    form: Form = "soft" if made.soft else "not rectangular" if made.way == triangle.NAME else "box"
    value = journey.value
    for other in journey.beside:
        value = value - other.value if value and other.value else value
    return Parcel(
        made.outside, boxed.weights.total, journey.origin, journey.destination, journey.residential,
        value, journey.hazards.tags, form, (pouch.length, pouch.width) if made.soft and pouch else None,
        own.name if own else "", journey.signature, journey.beside, journey.distance,
    )  # fmt: skip


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
    whose = boxed.made.carrier
    takers = [service for service in listed if not whose or service.carrier == whose]
    into = exchange or Exchange(boxed.box.currency)
    quotes, refused = compare(takers, parcel_of(boxed, journey), journey.day, into)
    refused += [
        Refused(s.carrier, s.name, f"the container is {whose}'s", s.programme) for s in listed if s not in takers
    ]
    plans = [Plan(boxed, quote, _costs(boxed, quote)) for quote in quotes]
    return sorted(plans, key=lambda plan: plan.costs.total.minor), refused


def search(
    load: Load,
    ways: Sequence[str],
    journey: Journey,
    services: Sequence[Service],
    shop: Shop,
    school: School = "exact",
    board: str | None = None,
) -> list[Plan]:
    """The plans for a load, best first; equal sums keep the order of `ways`.

    Args:
        board: what the job names; else the shop's usual one, or where its sheets are too small the next that is not.

    Raises: NoAnswer, with every reason, where no box can be cut or no service takes one.
    """
    plans: list[Plan] = []
    reasons: list[str] = []
    for way in ways:
        made_school: School = school if school in WAYS[way].SCHOOLS else "exact"
        try:
            boxed = _on_board(load, way, shop, made_school, board)
        except NoAnswer as none:
            reasons.append(f"{WAYS[way].TITLE}: {none}")
            continue
        if boxed.too_large:
            reasons.append(f"{WAYS[way].TITLE}: {boxed.too_large}")
            continue
        priced, refused = price(boxed, journey, services, shop.exchange)
        plans += priced
        reasons += [f"{WAYS[way].TITLE}: {r.carrier} {r.service}: {r.why}" for r in refused]
    if not plans:
        raise NoAnswer("No way was found to send it. " + "; ".join(reasons or ["no services are known"]) + ".")
    return sorted(plans, key=lambda plan: plan.costs.total.minor)


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


def _on_board(load: Load, way: str, shop: Shop, school: School, board: str | None) -> Boxed:
    usual = box_up(load, way, shop.grade(board), shop, school)
    if usual.too_large is None or board is not None:
        return usual
    others = (box_up(load, way, grade, shop, school) for grade in shop.grades.values() if grade != usual.made.grade)
    return next((boxed for boxed in others if boxed.too_large is None), usual)


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
