"""Arrangements weighed by what each costs in all, in the best container there is for it by the best service.

Room breaks ties, then compactness, then how low the weight is and how far in what is fragile. Where nothing has a price
yet, the least billed weight at a usual divisor, in a box that can be cut.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from fardo.core.arrange.ask import Arrangement, all_turned
from fardo.core.arrange.cost import placement_penalty
from fardo.core.arrange.turn import TURNS
from fardo.core.plan.job import Job
from fardo.core.plan.load import bodies_of, with_packed
from fardo.core.plan.picture import PricedWays, WayPriced, price_ways
from fardo.core.plan.shop import Shop
from fardo.core.quantity import INCH, Money, volume_nm3
from fardo.core.tariff.carriers import Carriers

_DIVISOR = 139  # cubic inches to the pound: usual, no carrier's own
_CUBIC_INCH = INCH.nm**3
_NEAR = Fraction(23, 20)  # times the least sum: starting value

Rank = tuple[bool, bool, bool, Fraction, int, int, float]


@dataclass(frozen=True, slots=True)
class Weighed:
    """An arrangement and what it comes to.

    Args:
        rank: the less the better.
        total: in all; None where no service takes it, or nobody said where it goes.
    """

    answer: Arrangement
    rank: Rank
    total: Money | None = None

    def goes_into(self, answer: Arrangement) -> bool:
        """Whether it is as small every way as another arrangement, which then costs no less."""
        return all(side <= other.nm for side, other in zip(self.sides, sorted(answer.inside), strict=True))

    @property
    def sides(self) -> tuple[int, int, int]:
        a, b, c = sorted(side.nm for side in self.answer.inside)
        return a, b, c


def weigh(job: Job, answer: Arrangement, shop: Shop, carriers: Carriers) -> tuple[Weighed, PricedWays] | None:
    """What a job so arranged comes to, stood on whichever side costs least, and every way to box it so; None where it
    does not hold, or no box holds it.
    """
    found = [weigh_as_it_stands(job, one, shop, carriers) for one in (answer, *_stood_otherwise(job, answer))]
    return min((one for one in found if one is not None), key=lambda one: one[0].rank, default=None)


def _stood_otherwise(job: Job, answer: Arrangement) -> Iterator[Arrangement]:
    """All of it with each of its other sides up."""
    bodies = bodies_of(job.must_load())
    heights = {answer.inside[2]}
    for turn in TURNS:
        turned = all_turned(bodies, answer, turn)
        if turned.inside[2] not in heights:
            heights.add(turned.inside[2])
            yield turned


def weigh_as_it_stands(
    job: Job, answer: Arrangement, shop: Shop, carriers: Carriers
) -> tuple[Weighed, PricedWays] | None:  # fmt: skip
    """The same without turning it."""
    load = job.must_load()
    packed = with_packed(load, answer)
    if packed.packed is not answer:
        return None
    found = price_ways(replace(job, load=packed), shop, carriers)
    best = min(found.ways, key=_first, default=None)
    if best is None:
        return None
    plan = best.plans[0] if best.plans and best.boxed.too_large is None else None
    rank = (*_first(best), answer.room_nm3, _surface(answer), placement_penalty(bodies_of(load), answer))
    return Weighed(answer, rank, plan.costs.total if plan else None), found


def weigh_each(job: Job, answers: Iterable[Arrangement], shop: Shop, carriers: Carriers) -> list[Weighed]:
    """Those that hold, in the order given. What costs much more than the best is not stood on its other sides."""
    found = [one[0] for answer in answers if (one := weigh_as_it_stands(job, answer, shop, carriers)) is not None]
    least = min((one.total.minor for one in found if one.total is not None), default=0)
    near = [one for one in found if one.total is None or one.total.minor <= least * _NEAR]
    otherwise = (weigh_as_it_stands(job, answer, shop, carriers) for one in near
                 for answer in _stood_otherwise(job, one.answer))  # fmt: skip
    return [*found, *(one[0] for one in otherwise if one is not None)]


def best_first(weighed: Iterable[Weighed]) -> tuple[Weighed, ...]:
    """One of each size, those that cost least first; of equals the earlier first."""
    kept: dict[tuple[int, int, int], Weighed] = {}
    for one in sorted(weighed, key=lambda one: one.rank):
        kept.setdefault(one.sides, one)
    return tuple(kept.values())


def _first(way: WayPriced) -> tuple[bool, bool, bool, Fraction]:
    """What can be made before what cannot, priced before unpriced, then as ways are ranked."""
    boxed = way.boxed
    if boxed.too_large is None and way.plans:
        plan = way.plans[0]
        return False, boxed.strength.overloaded, plan.at_risk, Fraction(plan.rank[1])
    sizes = boxed.made.outside
    dimensional = Fraction(volume_nm3(*sizes), _CUBIC_INCH * _DIVISOR)
    return True, boxed.too_large is not None, False, max(dimensional, boxed.weights.total.pounds)


def _surface(answer: Arrangement) -> int:
    a, b, c = (side.nm for side in answer.inside)
    return a * b + b * c + c * a
