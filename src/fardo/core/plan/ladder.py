"""The ladder of a thing: what goes into what, up to which count, by what it costs in all."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from fardo.core.plan.job import Job
from fardo.core.plan.picture import price_ways
from fardo.core.plan.price import Plan
from fardo.core.plan.shop import Shop
from fardo.core.plan.table import boxed_in
from fardo.core.refusal import Refusal
from fardo.core.tariff.carriers import Carriers


@dataclass(frozen=True, slots=True)
class Rung:
    """From so many things to so many: the box they go in.

    Args:
        least, most: how many go into it.
        first, last: the plans for those; None where so many cannot be sent.
        why_not: why they cannot.
    """

    least: int
    most: int
    first: Plan | None
    last: Plan | None
    why_not: str = ""

    @property
    def box(self) -> str:
        return boxed_in(self.last) if self.last is not None else ""


def ladder(of: Callable[[int], Job], counts: Iterable[int], shop: Shop, carriers: Carriers) -> list[Rung]:
    """From the fewest to the most; counts that follow each other and go into the same box are one rung.

    Args:
        of: the job with so many of its thing.
        counts: that are looked at, rising.
    """
    rungs: list[Rung] = []
    for count in counts:
        plan, why_not = _cheapest(of(count), shop, carriers)
        was = rungs[-1] if rungs else None
        if was is not None and _same(was.last, plan):
            rungs[-1] = replace(was, most=count, last=plan)
        else:
            rungs.append(Rung(count, count, plan, plan, why_not))
    return rungs


def _cheapest(job: Job, shop: Shop, carriers: Carriers) -> tuple[Plan | None, str]:
    try:
        job.must_load()
        job.must_go()
    except Refusal as refusal:
        return None, str(refusal)
    found = price_ways(job, shop, carriers)
    return (found.cheapest, "") if found.cheapest is not None else (None, "no service takes so many in one parcel")


def _same(a: Plan | None, b: Plan | None) -> bool:
    if a is None or b is None:
        return a is b
    return boxed_in(a) == boxed_in(b)
