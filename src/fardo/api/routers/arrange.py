"""Arranging: a search that runs on its own and tells how far it is, and what follows when a hand moves a thing."""

from __future__ import annotations

import logging
import math
import threading
from collections.abc import AsyncIterator, Callable
from contextlib import suppress
from typing import Annotated, Any, Literal

from fastapi import Depends, Path, Request
from fastapi.sse import EventSourceResponse
from pydantic import BaseModel, ConfigDict, Field

from fardo.api.arranged import ArrangedView, RunState, RunView, view_arranged
from fardo.api.context import AppContext, Context, Today
from fardo.api.goods import ShapeView
from fardo.api.resource import resource
from fardo.api.routers.shapes import look_at
from fardo.api.runs import Run, Runs
from fardo.arranging import SHOWN, Effort, Progress, Whole, refuse
from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import Laid
from fardo.core.arrange.manual import by_hand, let_down, locked_or_not, moved_by, turned_by_a_quarter
from fardo.core.arrange.void_space import fill_points
from fardo.core.goods.part import Sizes
from fardo.core.plan.into import boxes_to_pack_in
from fardo.core.plan.load import (
    Load,
    arrange,
    ask_of,
    bodies_of,
    holds,
    not_in_one,
    side_by_side,
    within_liner,
)
from fardo.core.plan.savings import Saving, may_be_tried, that_hold, worth_telling
from fardo.core.plan.trimmed import trimmed
from fardo.core.protect.forms.asks import Held
from fardo.core.quantity import Length, read_sizes, show_length, show_sizes
from fardo.core.refusal import NoAnswer
from fardo.files.arrangement import read_arrangement, write_arrangement
from fardo.files.changes import Change, changes
from fardo.files.job import EXAMPLE, JobFile
from fardo.processes import CrewEnded
from fardo.store.database import Gone

router = resource("/api/arrange", "arrange")
Key = Annotated[str, Path(max_length=40)]
_FILL_CELLS = 5000


class LookRequest(BaseModel):
    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE}]})
    job: JobFile


class ArrangeRequest(LookRequest):
    """What is locked in the job's arrangement stays where it is. `inside`, as typed, is of a box that is there; empty
    where the smallest is wanted.
    """

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "effort": "quick"}]})
    effort: Effort = "normal"
    seed: int = Field(0, ge=0, le=2**31)
    inside: str = Field("", max_length=120)


Move = Annotated[float, Field(ge=-10_000, le=10_000)]


class HandRequest(BaseModel):
    """One thing moved, turned, locked or let down where the job's things lie: as it keeps them, else side by side."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "thing": 0, "turn": 2}]})
    job: JobFile
    thing: int = Field(ge=0, le=2000, description="its number among all there are, extras after parts")
    move_mm: tuple[Move, Move, Move] = Field((0.0, 0.0, 0.0), description="along length, width and height")
    turn: Literal[0, 1, 2] | None = Field(None, description="the axis about which it is turned by a quarter")
    drop: bool = Field(False, description="let down until something holds it")
    lock: bool | None = Field(None, description="held where it lies by the next search, or let go")


@router.post("", status_code=202)
def begin(request: ArrangeRequest, http: Request, context: Context) -> RunView:
    """Begins a search. 422 with every reason where it cannot be."""
    today = context.today
    load = _load(request.job, context)
    locked = _locked(request.job, load)
    ask = ask_of(load, _inside(request.inside, load, today), locked, request.seed)
    refuse(ask, today.shop.units)
    runs: Runs = http.app.state.runs
    run = runs.begin(lambda run: _search(run, ask, request, load, context))
    return RunView(run=run.key, state="searching", done=0, of=1)


def _inside(typed: str, load: Load, today: Today) -> Sizes | None:
    """What its liner leaves of a box that is there."""
    return within_liner(read_sizes(typed, today.shop.units, field="inside"), load) if typed.strip() else None


class WrapView(BaseModel):
    """What a thing has on: how much on each side along its own axes, and whether that follows its shape."""

    grown_mm: tuple[float, float, float]
    held: Held
    boxed: bool = Field(description="in a box of its own")


class ThingShapes(BaseModel):
    """The bare shapes of all things. `of` says, for each thing by number, which of `shapes` it has; `wraps` what it has
    on.
    """

    shapes: list[ShapeView]
    of: list[int]
    wraps: list[WrapView]


@router.post("/shapes")
def shapes(request: LookRequest, context: Context) -> ThingShapes:
    """What everything looks like, to be shown where it lies; a pile is one thing."""
    assert context.crews is not None
    context.crews.search.warm()  # who looks at where things lie is about to have them arranged
    bodies = bodies_of(_load(request.job, context))
    distinct = list(dict.fromkeys(body.shape for body in bodies))
    units = context.today.shop.units
    return ThingShapes(
        shapes=[look_at(shape, units) for shape in distinct],
        of=[distinct.index(body.shape) for body in bodies],
        wraps=[
            WrapView(grown_mm=(body.grown[0].mm, body.grown[1].mm, body.grown[2].mm), held=body.held, boxed=body.boxed)
            for body in bodies
        ],
    )


class IntoView(BaseModel):
    """A box that is there, to arrange things into."""

    name: str
    inside: str = Field(description="as it may be typed")
    short: str = Field(description="which side is short of the goods as they lie now; empty where they go in")


@router.post("/boxes")
def boxes(request: LookRequest, context: Context) -> list[IntoView]:
    """The boxes there, those that take the goods as they lie now first, then those that lack least."""
    today = context.today
    units = today.shop.units
    return [
        IntoView(
            name=one.box.name, inside=show_sizes(one.box.inside, units, "nearest").text,
            short="" if one.takes_it else f"{show_length(one.short, units, 'up').text} not {one.side} enough",
        )
        for one in boxes_to_pack_in(today.understand(request.job), today.shop)
    ]  # fmt: skip


class FillView(BaseModel):
    """Where there is room for fill: middles of cells of `step_mm`, three numbers each, from the floor upwards."""

    points_mm: list[float]
    step_mm: float


@router.post("/fill")
def fill(request: LookRequest, context: Context) -> FillView:
    """The room between things as they are arranged, or side by side."""
    load = _load(request.job, context)
    points, step = fill_points(ask_of(load), arrange(load), _FILL_CELLS)
    return FillView(points_mm=[round(float(c), 2) for c in points.ravel()], step_mm=step)


def _found(key: Key, http: Request) -> Run:
    runs: Runs = http.app.state.runs
    run = runs.find(key)
    if run is None:
        raise Gone(key)
    return run


Found = Annotated[Run, Depends(_found)]


@router.get("/{key}", response_model=RunView)
def look(run: Found) -> RunView:
    """How far a search is."""
    return _view(run)


@router.get("/{key}/stream", response_class=EventSourceResponse)
async def stream(run: Found) -> AsyncIterator[RunView]:
    """How far a search is, as server-sent events until it ends."""
    async for _ in run.listen():
        yield _view(run)


def _plate(name: str, size: tuple[str, str, str], count: int = 1) -> dict[str, Any]:
    shape = {"kind": "box", **dict(zip(("length", "width", "height"), size, strict=True))}
    return {"name": name, "count": count, "weight": "2 lb", "gap": "0", "shape": shape}


_LOOSE: dict[str, Any] = {
    "title": "Loom parts", "ship": {"to": "73120"}, "ways": ["slotted"],
    "parts": [_plate("heddle case", ("15 in", "11 in", "4 in"), 2), _plate("shuttle box", ("7 in", "8 in", "4 in")),
              _plate("beam", ("18 in", "4 in", "3 in")), _plate("reed", ("13 in", "7 in", "3 in"), 2)],
}  # fmt: skip


class TrimRequest(LookRequest):
    """A job whose docket names a trim."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": _LOOSE}]})


class SavingView(BaseModel):
    """A change that was worked out, holds, and makes the job cheaper. `job` is as it is then."""

    says: str = Field(description="what is changed")
    total: str = Field(description="in all, then")
    saves: str = Field(description="in all")
    job: JobFile


@router.post("/trim")
def trim(request: TrimRequest, context: Context) -> list[SavingView]:
    """What would make a job cheaper, each tried for real, what saves most first: all of it arranged in a box that is
    smaller by the docket's trim, one step further apart, a layer less where the check allows, the goods pressed in.
    422 where nothing holds and costs less.
    """
    return context.look_for(_savings, request.job)


def _savings(context: AppContext, job: JobFile) -> list[SavingView]:
    today = context.today
    now = today.draw_up(job)
    if not may_be_tried(now):
        raise NoAnswer("Nothing is tried for a box that is chosen, or for what no service takes.")
    found = that_hold(now, ((change, today.draw_up(change.job)) for change in changes(job, now.job, today.shop)))
    with suppress(NoAnswer):
        lies = trimmed(now.job, now, today.shop, today.carriers_for(now.job))
        answer = lies.weighed.answer
        arranged = job.model_copy(update={"arrangement": write_arrangement(now.job.must_load(), answer)})
        says = f"Arrange all of it in {show_sizes(answer.inside, today.shop.units, 'up').text}"
        found.append(Saving(Change(says, arranged), lies.saves, lies.total))
    told = worth_telling(now, found)
    if not told:
        raise NoAnswer("It was tried: nothing holds that costs less.")
    return [
        SavingView(says=one.change.says, total=str(one.total), saves=str(one.saves), job=one.change.job) for one in told
    ]


@router.post("/{key}/stop")
def stop(run: Found) -> RunView:
    """Ends a search; the best so far is kept."""
    run.stop.set()
    return _view(run)


@router.post("/hand")
def hand(request: HandRequest, context: Context) -> ArrangedView:
    """What follows when things are moved: what comes too near what, and the box around them all."""
    load = _load(request.job, context)
    ask, answer = ask_of(load), arrange(load)
    if request.lock is not None:
        answer = locked_or_not(answer, request.thing, request.lock)
    else:
        x, y, z = (Length.of_mm(by) for by in request.move_mm)
        answer = moved_by(answer, request.thing, (x, y, z))
        if request.turn is not None:
            answer = turned_by_a_quarter(ask, answer, request.thing, request.turn)
        answer = by_hand(ask, answer.laid, answer.order)
        if request.drop:
            answer = let_down(ask, answer, request.thing)
    return view_arranged(request.job, load, answer, context.today, priced=False)


def _load(job: JobFile, context: AppContext) -> Load:
    """Raises NoAnswer for what does not go in one parcel, which is what is arranged."""
    load = context.today.understand(job).must_load()
    if why := not_in_one(load):
        raise NoAnswer(f"In one parcel it cannot be arranged: {why}. Price divides it.")
    return load


def _locked(job: JobFile, load: Load) -> tuple[tuple[int, Laid], ...]:
    if job.arrangement is None:
        return ()
    kept = read_arrangement(job.arrangement, load)
    if kept is None:
        return ()
    return tuple((n, laid) for n, laid in enumerate(kept.laid) if laid is not None and laid.locked)


def _arranged(context: AppContext, job: JobFile, load: Load, answer: Arrangement, inside: Sizes | None) -> ArrangedView:
    return view_arranged(job, load, answer, context.today, inside=inside)


def _search(run: Run, ask: Ask, request: ArrangeRequest, load: Load, context: AppContext) -> None:
    """Searches, telling every step forward; whatever happens, the page that looks on is told an end."""
    assert context.crews is not None
    seen: dict[Arrangement, ArrangedView] = {}
    there: list[Arrangement] = []
    last = RunView(run=run.key, state="searching", done=0, of=1)

    def view(state: RunState, progress: Progress) -> RunView:
        nonlocal last
        by_size: dict[tuple[Length, ...], Arrangement] = {}
        for answer in (*progress.answers, *there):
            by_size.setdefault(tuple(sorted(answer.inside)), answer)
        answers = list(by_size.values())
        for answer in answers:
            if answer not in seen:
                seen[answer] = context.reckon(_arranged, request.job, load, answer, ask.inside)
        views = sorted((seen[answer] for answer in answers), key=_price)
        last = RunView.model_validate(
            {"run": run.key, "state": state, "done": progress.done, "of": progress.of, "answers": views}
        )
        return last

    def ended(state: RunState, says: str = "") -> None:
        run.tell(last.model_copy(update={"state": state, "says": says}), ended=True)

    try:
        there = _there(request.job, ask, load)
        if there:
            run.tell(view("searching", Progress(0, 1, ())))
        answers = _answers(ask, request, context, lambda progress: run.tell(view("searching", progress)), run.stop)
        state: RunState = "stopped" if run.stop.is_set() else "done"
        run.tell(view(state, Progress(last.done, last.of, answers)), ended=True)
    except CrewEnded:
        ended("stopped")
    except Exception:  # whatever it is, the server goes on
        logging.getLogger("fardo").exception("a search ended")
        ended("failed", "The search broke off; the best so far is kept.")


def _answers(
    ask: Ask, request: ArrangeRequest, context: AppContext, told: Callable[[Progress], None], stop: threading.Event
) -> tuple[Arrangement, ...]:
    """Fit into a box in stock, or around what is locked, as small as can be; else what costs least in all."""
    assert context.crews is not None
    if ask.inside is not None or ask.locked:
        return context.crews.search.arrange(ask, request.effort, told, stop)
    read = context.today.understand(request.job)
    whole = Whole(read, context.today.shop, context.today.carriers_for(read), request.seed)
    return tuple(one.answer for one in context.crews.search.cheapest(whole, request.effort, told, stop)[:SHOWN])


def _there(job: JobFile, ask: Ask, load: Load) -> list[Arrangement]:
    """Everything side by side, and as it was arranged before: nothing dearer takes their place."""
    found = [side_by_side(ask, load)]
    if job.arrangement is not None and ask.inside is None:
        kept = read_arrangement(job.arrangement, load)
        found.append(kept if kept is not None and holds(ask, kept) else None)
    return [one for one in found if one is not None]


def _price(view: ArrangedView) -> tuple[int, bool, float, float]:
    return len(view.lacks), view.total is None, float(view.total or 0), math.prod(view.inside.mm)


def _view(run: Run) -> RunView:
    if isinstance(run.view, RunView):
        return run.view
    return RunView(run=run.key, state="searching", done=0, of=1)
