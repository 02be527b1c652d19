"""Where the nearest cheaper point of a service is, and its price over two sides of the box, for the screen."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import BaseModel, Field

from fardo.api.desk import Today
from fardo.api.worked import box_for
from fardo.core.make import carrier
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.search import price
from fardo.core.quantity import INCH, Length, Mass, Units, show_length, show_mass
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Service
from fardo.core.tariff.step_map import price_map
from fardo.core.tariff.steps import REACH, SIDES, Cheaper, cheaper_points
from fardo.files.job import JobFile
from fardo.files.understood import Understood

_FINE = {"in": Length(INCH.nm // 8), "cm": Length.of_mm(5)}
_SPAN = {"in": INCH * 5, "cm": Length.of_mm(100)}  # shown on both sides of the box, unless said
FARTHEST = INCH * 12
Sides = Literal["longest and second", "longest and third", "second and third"]
_AXES: dict[Sides, tuple[int, int]] = {
    "longest and second": (0, 1), "longest and third": (0, 2), "second and third": (1, 2),
}  # fmt: skip


class CheaperView(BaseModel):
    what: str
    by: str
    to: str
    amount: str
    saves: str
    why: str
    to_mm: float | None = Field(description="where a side comes to; nothing for a weight")


class Band(BaseModel):
    """Cells of one price that lie side by side: along the first side from `start` to `end`, along the second from `row`
    to `last`, all four with it."""

    row: int
    last: int
    start: int
    end: int
    price: str | None


class MapView(BaseModel):
    """Price over two sides. `here` is the cell of the box; sides are millimetres, and in words."""

    first_mm: list[float]
    second_mm: list[float]
    first: list[str]
    second: list[str]
    sides: tuple[str, str] = Field(description="what they are called")
    here: tuple[int, int]
    bands: list[Band]
    prices: list[str] = Field(description="every price there is, cheapest first")


class StepsView(BaseModel):
    points: list[CheaperView]
    container: str = Field("", description="what it would cost in a container of the carrier's own, if that is less")
    map: MapView


def view_steps(
    service: Service, parcel: Parcel, units: Units, exchange: Exchange, sides: Sides = "longest and second",
    reach: Length | None = None,
) -> StepsView:  # fmt: skip
    """In the shop's units and its currency. Args: reach: how far from the box is looked, a few inches unless said."""
    declared = exchange.declared(parcel, service.currency)
    return StepsView(
        points=[_view(one, units, exchange) for one in cheaper_points(service, declared, reach or REACH)],
        map=_map(service, declared, units, exchange, _AXES[sides], reach or _SPAN[units]),
    )


def cheaper_container(job: JobFile, said: Understood, boxed: Boxed, service: Service, today: Today) -> str:
    """What it would cost in all in a container of that carrier, where there is one that takes it for less."""
    if said.load is None or said.journey is None or boxed.made.way == carrier.NAME or carrier.NAME not in job.ways:
        return ""
    try:
        other = box_for(carrier.NAME, job, said.load, today)
    except (BadInput, NoAnswer):
        return ""
    exchange = today.shop.exchange
    plans, _ = price(other, said.journey, [s for s in today.services if s.carrier == service.carrier], exchange)
    now, _ = price(boxed, said.journey, [service], exchange)
    if not plans or not now or plans[0].costs.total >= now[0].costs.total:
        return ""
    less, quote = now[0].costs.total - plans[0].costs.total, plans[0].quote
    names = " and ".join(sorted({one.item.name for one in other.made.taken}))
    return f"{less} less in all in its own {names}, by {quote.service}: {plans[0].costs.total}"


def _view(one: Cheaper, units: Units, exchange: Exchange) -> CheaperView:
    if isinstance(one.by, Mass):
        assert isinstance(one.to, Mass)
        by, to = show_mass(one.by, units, "up").text, show_mass(one.to, units, "down").text
    else:
        assert isinstance(one.to, Length)
        by, to = show_length(one.by, units, "up").text, show_length(one.to, units, "down").text
    return CheaperView(
        what=one.what, by=by, to=to, amount=str(exchange.into(one.amount)), saves=str(exchange.into(one.saves)),
        why=one.why, to_mm=one.to.mm if isinstance(one.to, Length) else None,
    )  # fmt: skip


def _map(
    service: Service, parcel: Parcel, units: Units, exchange: Exchange, axes: tuple[int, int], reach: Length
) -> MapView:
    sides = parcel.sides
    first, second = (_around(sides[axis], units, reach) for axis in axes)
    seen = price_map(service, replace(parcel, sizes=sides), first, second, axes)
    bands: list[Band] = []
    above: dict[tuple[int, int, int], Band] = {}
    for row in range(len(second)):
        here: dict[tuple[int, int, int], Band] = {}
        start = 0
        for k in range(1, len(first) + 1):
            if k == len(first) or seen.minor[k, row] != seen.minor[start, row]:
                key = (start, k - 1, int(seen.minor[start, row]))
                band = above.get(key)
                if band is None:
                    price = seen.at(start, row)
                    said = None if price is None else str(exchange.into(price))
                    band = Band(row=row, last=row, start=start, end=k - 1, price=said)
                    bands.append(band)
                band.last = row
                here[key] = band
                start = k
        above = here
    prices = sorted({band.price for band in bands if band.price is not None}, key=float)
    return MapView(
        first_mm=[side.mm for side in first], second_mm=[side.mm for side in second],
        first=[show_length(side, units, "nearest").text for side in first],
        second=[show_length(side, units, "nearest").text for side in second],
        sides=(SIDES[axes[0]], SIDES[axes[1]]),
        here=(first.index(sides[axes[0]]), second.index(sides[axes[1]])), bands=bands, prices=prices,
    )  # fmt: skip


def _around(side: Length, units: Units, reach: Length) -> list[Length]:
    """Even steps either way with the side itself among them."""
    fine, span = _FINE[units].nm, reach.nm
    least = max(side.nm - span, fine)
    points = {Length(nm) for nm in range(-(-least // fine) * fine, side.nm + span, fine)}
    return sorted(points | {side}, key=lambda one: one.nm)
