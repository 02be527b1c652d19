"""What to take off a box, or to take in its stead, so that its service asks less."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from fardo.core.make import carrier_container
from fardo.core.make.stock import Pouch, Taken
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.journey import Journey, parcel_of
from fardo.core.plan.price import Plan, price
from fardo.core.plan.shop import Shop
from fardo.core.quantity import INCH, ZERO, Length, Money
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.service import Quote, Service, find_service, quote
from fardo.core.tariff.step_map import REFUSED, PriceMap, around, price_map
from fardo.core.tariff.steps import REACH, Cheaper, cheaper_points

_SMALL = (INCH * 3).half()  # what the goods may still give of a side, common practice; more is another box


@dataclass(frozen=True, slots=True)
class CheaperContainer:
    """A container of the carrier's own that takes the load for a lower total.

    Args:
        saves: against the box that is looked at.
    """

    plan: Plan
    taken: tuple[Taken, ...]
    saves: Money


@dataclass(frozen=True, slots=True)
class PricesAround:
    """What a service asks over two sides of a box.

    Args:
        axes: which two, of the sides longest first.
        here: the cell of the box as it is.
    """

    map: PriceMap
    axes: tuple[int, int]
    here: tuple[int, int]

    @property
    def size_matters(self) -> bool:
        """Whether the price is another anywhere on the map."""
        return len(self.map.prices) > 1 or bool((self.map.minor == REFUSED).any())


def prices_around(
    service: Service, boxed: Boxed, journey: Journey, shop: Shop, axes: tuple[int, int], reach: Length | None = None
) -> PricesAround:
    """In the service's currency.

    Args:
        reach: how far from the box is looked, a few inches unless said.
    """
    parcel = shop.exchange.declared(parcel_of(boxed, journey), service.currency)
    sides = parcel.sides
    first, second = (around(sides[axis], shop.units, reach) for axis in axes)
    seen = price_map(service, replace(parcel, sizes=sides), first, second, axes)
    return PricesAround(seen, axes, (first.index(sides[axes[0]]), second.index(sides[axes[1]])))


def best_trim(plan: Plan, journey: Journey, services: Iterable[Service], exchange: Exchange) -> Cheaper | None:
    """The small trim of a side or of the weight that saves most with the plan's service, in the shop's currency."""
    service = find_service(services, plan.quote.called, journey.day)
    points = trims(service, plan.boxed, journey, exchange, _SMALL, 1) if service is not None else []
    return points[0] if points else None


def flat_trim(plan: Plan, journey: Journey, services: Iterable[Service], exchange: Exchange) -> Cheaper | None:
    """How much less of the flat length of a trimmed bag brings all of it into a limit or a cheaper tier of a soft pack.

    It is what the box in it is longer or higher, or its wrap thicker, than such a pack may be.
    """
    parcel = parcel_of(plan.boxed, journey)
    if parcel.flat is None or not _is_trimmed(plan.boxed):
        return None
    length, width = parcel.flat
    best: Cheaper | None = None
    for service in services:
        declared = exchange.declared(parcel, service.currency)
        marks = service.marks(declared)
        over = {length - side for side in marks.flat_side} | {length + width - both for both in marks.flat_both}
        offs = {off + by for off in over for by in over | {ZERO} if by.nm >= 0}
        for off in sorted(one for one in offs if ZERO < one <= _SMALL):
            asked = quote(service, replace(declared, flat=(length - off, width)), journey.day)
            if not isinstance(asked, Quote):
                continue
            amount = exchange.convert(asked.amount)
            if amount < plan.quote.amount and (best is None or amount < best.amount):
                why = f"{service.carrier} {service.name}"
                best = Cheaper("flat length", off, length - off, amount, plan.quote.amount - amount, why)
    return best


def _is_trimmed(boxed: Boxed) -> bool:
    return any(isinstance(one.item, Pouch) and one.item.kind == "bag" for one in boxed.made.taken)


def trims(
    service: Service, boxed: Boxed, journey: Journey, exchange: Exchange, reach: Length = REACH, most: int | None = None
) -> list[Cheaper]:
    """Where that service asks less, the one that saves most first, in the shop's currency.

    Args:
        reach: how much of a side is looked at.
        most: how many are wanted, None for all.
    """
    declared = exchange.declared(parcel_of(boxed, journey), service.currency)
    return [
        replace(one, amount=exchange.convert(one.amount), saves=exchange.convert(one.saves))
        for one in cheaper_points(service, declared, reach, most=most)
    ]


def cheaper_container(
    boxed: Boxed, other: Boxed, journey: Journey, service: Service, services: Sequence[Service], exchange: Exchange
) -> CheaperContainer | None:
    """The load in a container of the service's carrier, where that has a lower total.

    Args:
        boxed: as it is looked at.
        other: in a container of a carrier.
    """
    if boxed.made.way == carrier_container.NAME:
        return None
    plans, _ = price(other, journey, [one for one in services if one.carrier == service.carrier], exchange)
    now, _ = price(boxed, journey, [service], exchange)
    if not plans or not now or plans[0].costs.total >= now[0].costs.total:
        return None
    return CheaperContainer(plans[0], other.made.taken, now[0].costs.total - plans[0].costs.total)
