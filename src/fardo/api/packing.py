"""Packing steps and what is fetched for them, in words."""

from __future__ import annotations

from pydantic import BaseModel, Field

from fardo.api.parts import amount_of, cut_of
from fardo.core.make.step import told
from fardo.core.pack.fetch import PLACES, Fetched, Place
from fardo.core.pack.packing_step import BoardUsed, BoxUsed, FillUsed, PackingStep, Section, TapeUsed, Used
from fardo.core.quantity import Length, Units, show_length
from fardo.files.drawn import in_words


class Counted(BaseModel):
    """What must be there."""

    name: str
    count: int


class PackingStepView(BaseModel):
    key: str = Field(description="the same as long as the plan has the step")
    section: Section
    do: str
    says: list[str]
    takes: list[str] = Field(description="what it takes, in things one can fetch")
    tool: str
    cautions: list[str]
    minutes: float
    people: int = Field(description="one or two")
    goes_in: int | None = Field(description="so many things lie in the box once it is done")
    count: list[Counted] = Field(description="what must be there once it is done")


class FetchView(BaseModel):
    """Something to fetch."""

    name: str
    amount: str
    short: int = Field(description="how many are missing, where they are counted")


class FetchPlaceView(BaseModel):
    place: Place
    items: list[FetchView]


class PackingView(BaseModel):
    """How a job is packed in the box that was chosen, or in the best there is."""

    box: str
    chosen: bool = Field(description="whether the box was chosen")
    minutes: int
    fetch: list[FetchPlaceView]
    steps: list[PackingStepView]


def view_step(step: PackingStep, units: Units) -> PackingStepView:
    """A step in the shop's units."""
    return PackingStepView(
        key=step.key, section=step.section, do=told(step.do, step.measures, in_words(units)), says=list(step.says),
        takes=[_takes(one, units) for one in step.used], tool=step.tool, cautions=list(step.cautions),
        minutes=round(float(step.minutes), 2), people=step.people, goes_in=step.goes_in,
        count=[Counted(name=name, count=count) for name, count in step.count],
    )  # fmt: skip


def view_fetched(fetched: tuple[Fetched, ...], units: Units) -> list[FetchPlaceView]:
    """By place, as far as there is something to fetch."""
    by_place: dict[Place, list[FetchView]] = {}
    for one in fetched:
        by_place.setdefault(one.place, []).append(
            FetchView(name=one.name, amount=_how_much(one, units), short=one.short)
        )
    return [FetchPlaceView(place=place, items=by_place[place]) for place in PLACES if place in by_place]


def _takes(used: Used, units: Units) -> str:
    if isinstance(used, BoardUsed):
        return f"{used.count} x {used.blank}, {_cross(used.size, units)}, {used.board}"
    if isinstance(used, BoxUsed):
        return f"{used.count} x {used.name}" if used.count > 1 else used.name
    if isinstance(used, FillUsed):
        return used.fill.fetched(used.litres)
    if isinstance(used, TapeUsed):
        length = show_length(used.length, units, "up").text
        return f"{used.count} strips of {length}, {used.where}" if used.count > 1 else f"{length}, {used.where}"
    if used.taken:
        return f"{int(used.amount)} x {used.taken}"
    cuts = ", ".join(cut_of(cut, used.material, units) for cut in used.cuts)
    return f"{used.material.name}: {cuts or amount_of(used.amount, used.material.sold, units)}"


def _how_much(one: Fetched, units: Units) -> str:
    if one.fill is not None:
        return one.fill.fetched(one.amount)
    if one.material is not None:
        return amount_of(one.amount, one.material.sold, units)
    if one.place == "Tape":
        return amount_of(one.amount, "m", units)
    if one.size is not None:
        return f"{int(one.amount)} x {_cross(one.size, units)}"
    return "" if one.place == "Tools" else str(int(one.amount))


def _cross(size: tuple[Length, Length], units: Units) -> str:
    a, b = (show_length(side, units, "nearest").text for side in size)
    return f"{a.removesuffix(f' {units}')} x {b}"
