"""Boxes and cases that are sold ready for such goods and are not here: below which price buying one would pay."""

from __future__ import annotations

from dataclasses import dataclass, replace

from fardo.core.make.shelf import NAME as SHELF
from fardo.core.make.stock import StockBox
from fardo.core.plan.boxed import box_up
from fardo.core.plan.job import Job
from fardo.core.plan.price import price
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Money
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.service import Service


@dataclass(frozen=True, slots=True)
class NotHere:
    """A ready-made box that is not in stock.

    Args:
        pays_below: what it may cost so that all of it together costs less than the best way there is; None where it
            saves nothing or nothing has a price.
        lacks: why it does not hold the goods, or nothing.
    """

    box: StockBox
    pays_below: Money | None = None
    lacks: str = ""


def not_here(job: Job, shop: Shop, services: tuple[Service, ...], best: Money | None) -> tuple[NotHere, ...]:
    """Each ready box that the kind of goods names.

    Args:
        best: what the cheapest way there is costs in all, None where none has a price.
    """
    return tuple(_weighed_up(box, job, shop, services, best) for box in job.ready_boxes)


def _weighed_up(box: StockBox, job: Job, shop: Shop, services: tuple[Service, ...], best: Money | None) -> NotHere:
    only = replace(shop, stock=replace(shop.stock, boxes=(box,)))
    try:
        boxed = box_up(job.must_load(), SHELF, shop.grade(None), only, value=job.value)
    except NoAnswer as none:
        return NotHere(box, lacks=str(none))
    plans = price(boxed, job.journey, services, shop.exchange)[0] if job.journey is not None else []
    if not plans or best is None or plans[0].costs.total >= best:
        return NotHere(box)
    return NotHere(box, best - plans[0].costs.total)
