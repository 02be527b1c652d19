"""Packing steps and what is fetched for them, in words."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import UTC, datetime, time, timedelta

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from fardo.api.context import AppContext, Today
from fardo.api.parts import amount_of, cut_of
from fardo.core.goods.part import Sizes
from fardo.core.make.step import told
from fardo.core.pack.fetch import PLACES, Fetched, Place
from fardo.core.pack.packing_step import BoardUsed, BoxUsed, FillUsed, PackingStep, Section, Used
from fardo.core.pack.steps import ToPack, in_order
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.picture import Picture
from fardo.core.plan.tape import TapeStrips
from fardo.core.quantity import Units, show_cross, show_length
from fardo.core.refusal import BadInput, NoAnswer
from fardo.files.drawn import in_words
from fardo.files.job import JobFile
from fardo.files.kind import steps_of
from fardo.files.typed import FIRST_DAY, LAST_DAY
from fardo.store.ticks import Tick

EXAMPLE_TICK: dict[str, JsonValue] = {
    "id": "4f1c9a7b20de", "step": "box", "done": True, "at": "2026-03-02T10:00:00Z", "note": "",
}  # fmt: skip


class Counted(BaseModel):
    """What must be there."""

    name: str
    count: int


class PackingStepView(BaseModel):
    key: str = Field(description="what its ticks are kept by; another box or other pieces make another step")
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
    short: str = Field(description="how much is missing, where it is counted; empty where enough is there")


class FetchPlaceView(BaseModel):
    place: Place
    items: list[FetchView]


class PackedThing(BaseModel):
    """A thing where it lies in the box, as a box of its size."""

    name: str
    at_mm: tuple[float, float, float]
    size_mm: tuple[float, float, float]
    extra: bool


class TickView(BaseModel):
    """That a step was done, or taken back."""

    model_config = ConfigDict(json_schema_extra={"examples": [EXAMPLE_TICK]})
    id: str = Field(min_length=8, max_length=60, pattern=r"^[0-9A-Za-z-]+$", description="made up by the device")
    step: str = Field(min_length=1, max_length=600, description="the key of the packing step, or timer")
    done: bool
    at: datetime = Field(description="by the device's clock")
    note: str = Field("", max_length=1000)
    photo: str = Field("", max_length=120, description="taken at the step, a file kept with the shop")


class PackingView(BaseModel):
    """How a job is packed in the box that was chosen, or in the best there is."""

    title: str
    box: str
    chosen: bool = Field(description="whether the box was chosen")
    minutes: int
    fetch: list[FetchPlaceView]
    steps: list[PackingStepView]
    sides: list[str] = Field(description="of the inside: length, width and height")
    inside_mm: tuple[float, float, float]
    things: list[PackedThing] = Field(description="in the order in which they go in")
    ticks: list[TickView]


def to_pack_of(job: JobFile, picture: Picture) -> ToPack | None:
    """A job in the box that was chosen, or in the best there is; None where no box holds it."""
    if picture.current is None:
        return None
    plain = job.plain_outside or picture.shop.dear(picture.job.value)
    return ToPack(
        picture.job, picture.current.boxed, picture.shop, steps_of(job), plain, [one for one in job.checklist if one]
    )


def drawn_to_pack(key: str, context: AppContext) -> tuple[JobFile, Today, Picture, ToPack]:
    """A saved job, the shop as it sees it, its picture and what is packed.

    Raises: as `Job.must_load` does; NoAnswer where no box holds it; Gone.
    """
    job, today = context.jobs.get(key).job, context.today_for(key)
    picture = today.draw_up(job)
    picture.job.must_load()
    to_pack = to_pack_of(job, picture)
    if to_pack is None:
        raise NoAnswer("No box holds it yet: there is nothing to pack it in.")
    return job, today, picture, to_pack


def view_things(boxed: Boxed) -> list[PackedThing]:
    """Everything that has a place, in the order in which it goes in."""
    return [
        PackedThing(name=one.body.name, at_mm=_mm(one.at), size_mm=_mm(one.sizes), extra=one.body.extra)
        for one in in_order(boxed)
    ]


def inside_mm(boxed: Boxed) -> tuple[float, float, float]:
    return _mm(boxed.arrangement.inside)


def view_tick(tick: Tick) -> TickView:
    try:
        at = datetime.fromisoformat(tick.at)
    except ValueError:  # kept by no device of ours; that it was done still counts
        at = datetime.combine(FIRST_DAY, time(), UTC)
    return TickView(id=tick.id, step=tick.step, done=tick.done, at=at, note=tick.note, photo=tick.photo)


def read_ticks(views: Sequence[TickView], now: datetime) -> list[Tick]:
    """Their times in UTC, so that ticks of several devices stand in their order.

    Of a clock that is ahead the time is that of the shop, or the tick could not be taken back until then.

    Args:
        views: as a device made them.
        now: by the shop's clock, in UTC.

    Raises:
        BadInput: for a time that is no day of a shop.
    """
    found = []
    for n, view in enumerate(views):
        at = view.at if view.at.tzinfo else view.at.replace(tzinfo=UTC)
        if not FIRST_DAY.year <= at.year <= LAST_DAY.year:
            allowed = f"a time of the years {FIRST_DAY.year} to {LAST_DAY.year}"
            raise BadInput(
                "not a time a step was done", read=view.at.isoformat(), allowed=allowed, field=f"ticks[{n}].at"
            )
        found.append((at.astimezone(UTC), view))
    found.sort(key=lambda one: one[0])
    return [
        Tick(
            view.id, view.step, view.done,
            min(at, now + n * timedelta(milliseconds=1)).isoformat(timespec="milliseconds"), view.note, view.photo,
        )
        for n, (at, view) in enumerate(found)
    ]  # fmt: skip


def _mm(sides: Sizes) -> tuple[float, float, float]:
    a, b, c = (side.mm for side in sides)
    return a, b, c


def view_step(step: PackingStep, units: Units) -> PackingStepView:
    """A step in the shop's units."""
    return PackingStepView(
        key=step.tick, section=step.section, do=told(step.do, step.measures, in_words(units)), says=list(step.says),
        takes=[_takes(one, units) for one in step.used], tool=step.tool, cautions=list(step.cautions),
        minutes=round(float(step.minutes), 2), people=step.people, goes_in=step.goes_in,
        count=[Counted(name=name, count=count) for name, count in step.count],
    )  # fmt: skip


def view_fetched(fetched: tuple[Fetched, ...], units: Units) -> list[FetchPlaceView]:
    """By place, as far as there is something to fetch."""
    by_place: dict[Place, list[FetchView]] = {}
    for one in fetched:
        name, amount = _in_words(one, units)
        short = _amount(replace(one, amount=one.short), units) if one.short else ""
        by_place.setdefault(one.place, []).append(FetchView(name=name, amount=amount, short=short))
    return [FetchPlaceView(place=place, items=by_place[place]) for place in PLACES if place in by_place]


def _amount(one: Fetched, units: Units) -> str:
    """How much, by itself."""
    if one.fill is not None:
        return one.fill.fetched(one.amount)
    if one.material is not None:
        return amount_of(one.amount, one.material.sold, units)
    return amount_of(one.amount, "m", units) if one.place == "Tape" else str(int(one.amount))


def _takes(used: Used, units: Units) -> str:
    if isinstance(used, BoardUsed):
        return f"{used.count} x {used.blank}, {show_cross(*used.size, units, 'nearest')}, {used.board}"
    if isinstance(used, BoxUsed):
        return f"{used.count} x {used.name}" if used.count > 1 else used.name
    if isinstance(used, FillUsed):
        return used.fill.fetched(used.litres)
    if isinstance(used, TapeStrips):
        length = show_length(used.length, units, "up").text
        return f"{used.count} strips of {length}, {used.where}" if used.count > 1 else f"{length}, {used.where}"
    if used.taken:
        return f"{int(used.amount)} x {used.taken}"
    cuts = ", ".join(cut_of(cut, used.material, units) for cut in used.cuts)
    return f"{used.material.name}: {cuts or amount_of(used.amount, used.material.sold, units)}"


def _in_words(one: Fetched, units: Units) -> tuple[str, str]:
    """What it is, and how much of it; of fill both at once, as it is counted out."""
    if one.fill is not None:
        return _amount(one, units), ""
    if one.size is not None:
        return one.name, f"{int(one.amount)} x {show_cross(*one.size, units, 'nearest')}"
    return one.name, "" if one.place in ("Tools", "Papers") else _amount(one, units)
