"""Where the nearest cheaper point of a service is, and its price over two sides of the box, for the screen."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from fardo.core.plan.in_one_box import Steps
from fardo.core.plan.trim import CheaperContainer
from fardo.core.quantity import TAPE, Length, Mass, Money, Units, show_length, show_mass
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.steps import SIDES, Cheaper

Sides = Literal["longest and second", "longest and third", "second and third"]
AXES: dict[Sides, tuple[int, int]] = {
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
    to `last`, all four with it.
    """

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
    map: MapView | None = Field(description="totals; nothing where size changes none")


def view_steps(found: Steps, units: Units, exchange: Exchange) -> StepsView:
    """In the shop's units and its currency."""
    return StepsView(
        points=[_view(one, units) for one in found.points],
        map=_map(found, units, exchange) if found.around.size_matters else None,
        container=_container(found.container) if found.container else "",
    )


def _container(other: CheaperContainer) -> str:
    # One's own boxes are named first, then the container they are in.
    *within, own = sorted({one.item for one in other.taken}, key=lambda item: bool(item.carrier))
    closed = "".join(f"closed in {item.name}, " for item in within)
    by = f"by {other.plan.quote.service}: {other.plan.costs.total}"
    return f"{other.saves} less in total {closed}in its own {own.name}, {by}"


def by_and_to(one: Cheaper, units: Units) -> tuple[str, str]:
    """How much to take off and what is left, in words that add up."""
    if (taped := one.on_tape(TAPE[units])) is not None:
        by, to = (show_length(length, units, "nearest").text for length in taped)
        return by, to
    assert isinstance(one.by, Mass)
    assert isinstance(one.to, Mass)
    return show_mass(one.by, units, "up").text, show_mass(one.to, units, "down").text


def _view(one: Cheaper, units: Units) -> CheaperView:
    by, to = by_and_to(one, units)
    return CheaperView(
        what=one.what, by=by, to=to, amount=str(one.amount), saves=str(one.saves), why=one.why,
        to_mm=one.to.mm if isinstance(one.to, Length) else None,
    )  # fmt: skip


def _map(found: Steps, units: Units, exchange: Exchange) -> MapView:
    around = found.around
    seen, axes = around.map, around.axes

    def total(price: Money) -> str:
        return str(found.total(price, exchange))

    return MapView(
        first_mm=[side.mm for side in seen.first], second_mm=[side.mm for side in seen.second],
        first=[show_length(side, units, "nearest").text for side in seen.first],
        second=[show_length(side, units, "nearest").text for side in seen.second],
        sides=(SIDES[axes[0]], SIDES[axes[1]]), here=around.here,
        bands=[
            Band(
                row=band.row, last=band.last, start=band.start, end=band.end,
                price=total(band.price) if band.price else None,
            )
            for band in seen.bands()
        ],
        prices=list(dict.fromkeys(total(price) for price in seen.prices)),
    )  # fmt: skip
