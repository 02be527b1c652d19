"""Every way to send a job as one table; one of them unfolded; one of them chosen."""

from __future__ import annotations

from typing import Any

from fastapi import Response
from pydantic import BaseModel, ConfigDict, Field

from fardo.api.context import AppContext, Context, Today
from fardo.api.plans import (
    PlanKey,
    PlanTable,
    PlanUnfolded,
    RungView,
    chosen_with,
    rungs_of,
    view_table,
    view_unfolded,
)
from fardo.api.resource import resource
from fardo.core.plan.alternatives import habit
from fardo.core.plan.load import MOST_UNITS
from fardo.core.plan.picture import Picture, WayPriced
from fardo.core.plan.price import Plan
from fardo.core.plan.table import Asked, Column, Show
from fardo.core.refusal import NoAnswer
from fardo.files.job import EXAMPLE, Chosen, JobFile

router = resource("/api/plans", "plans")
_KEY: dict[str, Any] = {"way": "tray", "carrier": "Oddbarrow", "service": "Ground", "programme": "account"}


class TableRequest(BaseModel):
    """What of the table is looked at."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE}]})
    job: JobFile
    show: Show = "best of each service"
    way: str = Field("", max_length=40, description="of the one box, where one is looked at")
    sort: Column = "total"
    words: str = Field("", max_length=120, description="each of them must be in a row: 'tray ground'")
    covered: bool = Field(False, description="only what covers the declared value")
    days_at_most: int | None = Field(None, ge=1, le=365)
    orders: int = Field(1, ge=1, le=100_000, description="how many orders like it a saving is told for")


class OnePlan(BaseModel):
    """Which plan of a job."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "plan": _KEY}]})
    job: JobFile
    plan: PlanKey


@router.post("", response_model=PlanTable)
def table(request: TableRequest, context: Context) -> Response:
    """All plans, the alternatives among them, and what the habit would cost."""
    return Response(context.reckon(_table, request), media_type="application/json")


def _table(context: AppContext, request: TableRequest) -> str:
    today = context.today
    picture = today.draw_up(request.job)
    job = picture.job
    usual = habit(job, today.shop, picture.carriers) if job.load is not None and not job.hazards.never else None
    asked = Asked(request.show, request.sort, request.way, request.words, request.covered, request.days_at_most)
    return view_table(picture, picture.plans, asked, usual, request.orders).model_dump_json()


@router.post("/unfolded")
def unfolded(request: OnePlan, context: Context) -> PlanUnfolded:
    """One plan down to its lines, its box and its parts."""
    return context.reckon(_unfolded, request)


def _unfolded(context: AppContext, request: OnePlan) -> PlanUnfolded:
    picture, way, plan = _found(context.today, request)
    return view_unfolded(plan, way, picture)


@router.post("/chosen")
def chosen(request: OnePlan, context: Context) -> Chosen:
    """What a job keeps when that plan is chosen. Saves nothing. A box it keeps already stays as it was chosen."""
    return context.reckon(_chosen, request)


def _chosen(context: AppContext, request: OnePlan) -> Chosen:
    picture, way, plan = _found(context.today, request)
    return chosen_with(plan, way, picture, request.job.chosen)


class LadderRequest(BaseModel):
    """Of one thing: what so many of it go into."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "most": 4}]})
    job: JobFile
    most: int = Field(12, ge=1, le=MOST_UNITS, description="how many at most")


@router.post("/ladder")
def what_goes_into_what(request: LadderRequest, context: Context) -> list[RungView]:
    """What so many of the job's one thing go into, each by what it costs in all. Takes seconds for many."""
    return context.look_for(_rungs, request)


def _rungs(context: AppContext, request: LadderRequest) -> list[RungView]:
    return rungs_of(request.job, request.most, context.today)


def _found(today: Today, request: OnePlan) -> tuple[Picture, WayPriced, Plan]:
    """Raises NoAnswer where there is no such plan any more."""
    wanted = request.plan
    picture = today.draw_up(request.job, f"{wanted.way}/{wanted.item}" if wanted.item else wanted.way)
    way = picture.way(wanted.way)
    called = (wanted.carrier, wanted.service, wanted.programme)
    for plan in (*way.plans, *way.others) if way is not None and way.item == wanted.item else ():
        if plan.quote.called == called:
            assert way is not None
            return picture, way, plan
    raise NoAnswer(f"{wanted.carrier} {wanted.service} does not take it in that box any more.")
