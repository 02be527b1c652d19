"""Sizes of box worth aiming at: those at which services ask less than for the best there is, and boxes that are there.

A price falls where a side comes down to a whole unit, to a threshold of a charge or to a limit; which box is cheap has
therefore little to do with which is small. Shapes of about the room that the goods take are priced, with the thresholds
that the tariffs name among their sides; the cheap ones are what the arranging engine is asked for, one after another.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from fardo.core.arrange.ask import Arrangement
from fardo.core.arrange.body import Body
from fardo.core.arrange.cannot import too_large
from fardo.core.goods.part import Sizes, sides_less
from fardo.core.make import WAYS
from fardo.core.make.stock import StockBox
from fardo.core.plan.job import Job
from fardo.core.plan.journey import Journey, parcel_of
from fardo.core.plan.load import Load, bodies_of, liner_thickness
from fardo.core.plan.picture import PricedWays, WayPriced
from fardo.core.plan.price import Plan, price_parcel
from fardo.core.plan.shop import Shop
from fardo.core.plan.weighed import weigh_as_it_stands
from fardo.core.quantity import INCH, ZERO, Length, Money, volume_nm3
from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.marks import Marks
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Service

_LONGEST = (1.0, 1.1, 1.2, 1.35, 1.5, 1.7, 2.0, 2.4, 3.0)  # times the side of a cube of that room
_SECOND = (1.0, 1.12, 1.3, 1.6, 2.0)  # times the side of a square of what is left
_ROOM = (0.86, 0.93, 1.0, 1.08, 1.2)  # times the room of the best
_EVEN, _STEEP = 1.03, 30  # at so much room it is as likely as not, and how soon it is not: starting values
_HARDLY = 0.05  # what is less likely is not tried: starting value
_FULLEST = 0.97  # no arrangement fills more: starting value
_LEAST_SAVED = 5  # of the smallest coin: less is not searched for


@dataclass(frozen=True, slots=True)
class Aim:
    """A size to try.

    Args:
        inside: of the box, within its liner.
        at: about what it would cost in all.
    """

    inside: Sizes
    at: Money

    def goes_into(self, inside: Sizes) -> bool:
        """Whether it is as small every way: if that cannot be packed, neither can it."""
        return all(side <= room for side, room in zip(self.inside, inside, strict=True))


def aims_below(job: Job, answer: Arrangement, least_nm3: int, shop: Shop, carriers: Carriers) -> list[Aim]:
    """Sizes that would cost a job less than so arranged, what promises most first; none where nothing has a price.

    Args:
        least_nm3: the least room in which all of it was arranged.
    """
    weighed = weigh_as_it_stands(job, answer, shop, carriers)
    if weighed is None or job.journey is None or weighed[0].total is None:
        return []
    now = weighed[0].total
    listed = [
        (likely, aim)
        for aim in aims(job.must_load(), weighed[1], job.journey, shop)
        if (likely := _likely(volume_nm3(*aim.inside) / least_nm3)) >= _HARDLY
    ]
    listed.sort(key=lambda one: -(now - one[1].at).minor * one[0])
    return [aim for _, aim in listed]


def _likely(room: float) -> float:
    """How likely it is that all goes in.

    Args:
        room: times the least in which it was arranged.
    """
    return 1 / (1 + math.exp((_EVEN - room) * _STEEP))


def aims(load: Load, found: PricedWays, journey: Journey, shop: Shop) -> list[Aim]:
    """Sizes that would have a lower total than the best of these ways, the cheapest first; without what goes into a
    cheaper one.

    Args:
        found: the ways to box the best arrangement there is.
    """
    best = next((way for way in found.ways if way.plans and way.boxed.too_large is None), None)
    if best is None:
        return []
    asks = _Asks(best, best.plans[0], found.services, journey, shop)
    cut = next((way for way in found.ways if WAYS[way.way].NEEDS == "sheet"), best)
    walls = [out - into for out, into in zip(cut.boxed.made.outside, cut.boxed.made.inside, strict=True)]
    bodies = bodies_of(load)
    alike, least = tuple(dict.fromkeys(bodies)), sum(body.shape.volume_nm3 for body in bodies)
    liner = liner_thickness(load) * 2
    listed: list[Aim] = []
    for outside in _shapes(asks):
        stood = [sides_less(inside, liner) for inside in _stood(sides_less(outside, max(walls)), alike)]
        stood = [inside for inside in stood if _may_hold(inside, alike, least)]
        if stood and (at := asks.estimate(outside)) is not None:
            listed += [Aim(inside, at) for inside in stood]
    for box in shop.stock.boxes:
        inside = sides_less(box.inside, liner)
        if _may_hold(inside, alike, least) and (at := asks.estimate(box.outside, box)) is not None:
            listed.append(Aim(inside, at))
    return _none_in_another(sorted(listed, key=lambda aim: (aim.at.minor, -volume_nm3(*aim.inside), aim.inside)))


@dataclass(frozen=True, slots=True)
class _Asks:
    """Asks the services about other sizes of the best there is."""

    best: WayPriced
    plan: Plan
    services: Sequence[Service]
    journey: Journey
    shop: Shop

    @property
    def parcel(self) -> Parcel:
        return parcel_of(self.best.boxed, self.journey)

    def estimate(self, outside: Sizes, box: StockBox | None = None) -> Money | None:
        """In all, where that is less than the best costs: everything but postage and a box that is there as it is."""
        parcel = replace(self.parcel, sizes=outside, form="box", flat=None, container="")
        own, whose = self.plan.own, ""
        if box is not None:
            own, whose = own - self.plan.costs.box + box.price, box.carrier
            parcel = replace(parcel, container=box.name if box.carrier else "")
        calling = [service for service in self.services if not service.other_way]
        quotes, _ = price_parcel(parcel, whose, self.journey, calling, self.shop.exchange)
        at = min((quote.amount + own for quote in quotes), key=lambda sum_of: sum_of.minor, default=None)
        return at if at is not None and at.minor + _LEAST_SAVED <= self.plan.costs.total.minor else None


def _shapes(asks: _Asks) -> Iterator[Sizes]:
    """Outside sizes of about the room of the best, the longest side first, at whole units and at thresholds."""
    parcel = asks.parcel
    unit = INCH.nm if asks.shop.units == "in" else Length.of_mm(10).nm
    marks = Marks.all_of(service.marks(parcel) for service in asks.services if not service.other_way)
    now = [side.nm for side in parcel.sides]
    room = math.prod(now)
    seen: set[tuple[int, int, int]] = set()
    for times in _ROOM:
        wanted = room * times
        cube = wanted ** (1 / 3)
        longest = {*(int(cube * by) // unit * unit for by in _LONGEST), now[0] // unit * unit}
        longest |= {mark.nm for mark in marks.longest if cube <= mark.nm <= cube * _LONGEST[-1]}
        for a in longest:
            square = (wanted / a) ** 0.5
            second = {*(int(square * by) // unit * unit for by in _SECOND), now[1] // unit * unit}
            second |= {mark.nm for mark in marks.second if mark.nm <= a}
            for b in second:
                if not 0 < b <= a:
                    continue
                third = [int(wanted / (a * b)) // unit * unit]
                third += [(mark.nm - a) // 2 - b for mark in marks.around]
                third += [mark.nm - a - b for mark in marks.united_inches]
                third += [volume // (a * b) for volume in marks.volume]
                for c in third:
                    if 0 < c <= b and a * b * c <= wanted * 1.3 and (a, b, c) not in seen:
                        seen.add((a, b, c))
                        yield Length(a), Length(b), Length(c)


def _stood(inside: Sizes, bodies: Sequence[Body]) -> Iterator[Sizes]:
    """As that box may stand: on each side where something must keep its height up, else as it is."""
    a, b, c = inside
    yield a, b, c
    if any(body.this_side_up or body.keep_flat for body in bodies):
        yield a, c, b
        yield b, c, a


def _may_hold(inside: Sizes, alike: Sequence[Body], least: int) -> bool:
    """Whether an inside may hold all of it.

    Args:
        alike: each body that differs.
        least: the room of all of them, nm3.
    """
    if min(inside) <= ZERO or volume_nm3(*inside) * _FULLEST < least:
        return False
    return not any(too_large(body, inside) for body in alike)


def _none_in_another(listed: Sequence[Aim]) -> list[Aim]:
    """Without what goes into one before it."""
    kept: list[Aim] = []
    for aim in listed:
        if not any(aim.goes_into(one.inside) for one in kept):
            kept.append(aim)
    return kept
