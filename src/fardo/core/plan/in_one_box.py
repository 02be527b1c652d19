"""A job in one box: what services ask, where one asks less, what it asks over two sides, what a container saves."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.make import carrier_container
from fardo.core.plan.box import box_for
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.job import Job
from fardo.core.plan.journey import Journey, parcel_of
from fardo.core.plan.picture import services_for
from fardo.core.plan.price import Plan, price, price_other_ways
from fardo.core.plan.shop import Shop
from fardo.core.plan.trim import CheaperContainer, PricesAround, cheaper_container, prices_around, trims
from fardo.core.quantity import Length, Money
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Quote, Refused, Service, compare, find_service
from fardo.core.tariff.steps import REACH, Cheaper


@dataclass(frozen=True, slots=True)
class Steps:
    """What would make one box cheaper by one service.

    Args:
        points: where it asks less, the one that saves most first.
        around: its price over two sides.
        container: of its carrier, where one takes the load for a lower total.
        own: what box and packing cost beside.
    """

    points: tuple[Cheaper, ...]
    around: PricesAround
    container: CheaperContainer | None
    own: Money

    def total(self, price: Money, exchange: Exchange) -> Money:
        """The carrier's price and what box and packing cost, in the shop's currency."""
        return exchange.convert(price) + self.own


def steps_of(
    job: Job, way: str, called: tuple[str, str, str], shop: Shop, carriers: Carriers, axes: tuple[int, int],
    reach: Length | None = None,
) -> Steps:  # fmt: skip
    """What would make one box cheaper by one service.

    Args:
        way: of the box.
        called: carrier, service and rate plan.
        axes: the two sides, of the sides longest first.
        reach: how far from the box is looked, a few inches unless said.

    Raises: BadInput for a service there is not, or where it goes nowhere; NoAnswer where there is no such box.
    """
    boxed = box_for(way, job, shop)
    services, _ = services_for(job, carriers)
    service = find_service(services, called, job.journey.day if job.journey else None)
    if service is None or not shop.exchange.knows(service.currency):
        raise BadInput("not a service here", read=" ".join(called), allowed="one that quotes", field="service")
    journey = job.must_go()
    points = trims(service, boxed, journey, shop.exchange, reach or REACH)
    around = prices_around(service, boxed, journey, shop, axes, reach)
    now = price_other_ways if service.other_way else price
    plans, _ = now(boxed, journey, [service], shop.exchange)
    own = plans[0].own if plans else Money(0, shop.currency)
    return Steps(tuple(points), around, _container(job, boxed, journey, service, shop, carriers), own)


def every_price(
    job: Job, way: str, shop: Shop, carriers: Carriers
) -> tuple[tuple[Plan, ...], tuple[Refused, ...]]:  # fmt: skip
    """What every service asks for a job in the box of a way, what else people weigh up last, and who does not take it.

    Raises: BadInput for a way there is not, or where it goes nowhere; NoAnswer where there is no such box.
    """
    boxed, journey = box_for(way, job, shop), job.must_go()
    services, _ = services_for(job, carriers)
    plans, refused = price(boxed, journey, services, shop.exchange)
    others, not_so = price_other_ways(boxed, journey, services, shop.exchange)
    return (*plans, *others), (*refused, *not_so)


def to_ask(job: Job, way: str, shop: Shop, carriers: Carriers) -> tuple[Parcel, list[Quote]]:
    """A job in the box of a way as a carrier is asked about it, and what every service comes to by its tariff.

    Raises: as `every_price`; NoAnswer for what does not ship.
    """
    boxed, journey = box_for(way, job, shop), job.must_go()
    if journey.hazards.never:
        raise NoAnswer("This does not ship, so that no carrier is asked.")
    parcel = parcel_of(boxed, journey)
    services, _ = services_for(job, carriers)
    quotes, _ = compare(services, parcel, journey.day, shop.exchange)
    return parcel, quotes


def _container(
    job: Job, boxed: Boxed, journey: Journey, service: Service, shop: Shop, carriers: Carriers
) -> CheaperContainer | None:  # fmt: skip
    if carrier_container.NAME not in job.ways:
        return None
    try:
        other = box_for(carrier_container.NAME, job, shop)
    except (BadInput, NoAnswer):
        return None
    return cheaper_container(boxed, other, journey, service, carriers.services, shop.exchange)
