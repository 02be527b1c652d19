"""A job in several parcels that go together by one service."""

from __future__ import annotations

from collections import Counter
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from fardo.api.context import AppContext, Context
from fardo.api.resource import resource
from fardo.arranging import arranger
from fardo.core.make import called
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.parcels import plans_in_parcels
from fardo.core.plan.picture import price_ways
from fardo.core.plan.price import Plan
from fardo.core.quantity import Units, show_mass, show_sizes
from fardo.core.tariff.measure import Billing
from fardo.files.job import EXAMPLE, JobFile
from fardo.files.parcel_jobs import parcel_jobs

router = resource("/api/parcels", "parcels")
_LOOKED_AT: dict[str, int] = {"quick": 8, "normal": 60}  # parcels that are worked out at most
_SHOWN = 5


class ParcelsRequest(BaseModel):
    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE | {"parcels_at_most": 2}}]})
    job: JobFile
    effort: Literal["quick", "normal"] = Field("normal", description="quick: the first that come to mind")


class ParcelView(BaseModel):
    """One of the parcels."""

    holds: list[str] = Field(description="what is in it, as '2 x wheel'")
    box: str
    outside: str
    weight: str
    billed: str
    job: JobFile = Field(description="it as a job of its own, to be cut and packed by itself")


class ParcelsPlan(BaseModel):
    """A way to send it in several parcels."""

    total: str = Field(description="total of all parcels")
    carrier: str
    service: str
    programme: str
    days: tuple[int, int]
    postage: str = Field(description="with surcharges and cover")
    own: str = Field(description="boxes, wrap, fill, tape and time of all parcels")
    against: str = Field(description="by how much it costs less or more than in one parcel")
    parcels: list[ParcelView]


class ParcelsView(BaseModel):
    """What it costs in several parcels, the cheapest in all first."""

    one: str | None = Field(description="what it costs in one parcel; None where no service takes that")
    plans: list[ParcelsPlan]


@router.post("")
def in_parcels(request: ParcelsRequest, context: Context) -> ParcelsView:
    """The job divided among up to as many parcels as it allows. Takes seconds where there are many things."""
    return context.look_for(_divided, request.job, request.effort)


def _divided(context: AppContext, job: JobFile, effort: Literal["quick", "normal"]) -> ParcelsView:
    today = context.today
    read = today.understand(job)
    read.must_load()
    read.must_go()
    carriers, units = today.carriers_for(read), today.shop.units
    one = price_ways(read, today.shop, carriers).cheapest
    arrange_one = None if effort == "quick" else arranger(today.shop, carriers)
    plans = plans_in_parcels(read, today.shop, carriers, _LOOKED_AT[effort], arrange_one)
    return ParcelsView(
        one=str(one.costs.total) if one else None,
        plans=[_view(plan, one, units, parcel_jobs(job, read, plan)) for plan in plans[:_SHOWN]],
    )


def _view(plan: Plan, one: Plan | None, units: Units, jobs: list[JobFile]) -> ParcelsPlan:
    quote = plan.quote
    billed = (quote.billing, *quote.beside)
    return ParcelsPlan(
        total=str(plan.costs.total), carrier=quote.carrier, service=quote.service, programme=quote.rate_plan,
        days=quote.days, postage=str(quote.amount), own=str(plan.own), against=_against(plan, one),
        parcels=[_parcel(*each, units) for each in zip(plan.boxes, billed, jobs, strict=False)],
    )  # fmt: skip


def _against(plan: Plan, one: Plan | None) -> str:
    if one is None:
        return "no service takes it in one parcel"
    if (more := plan.more_than(one)) is not None:
        return f"{more} more than in one parcel"
    less = one.more_than(plan)
    return f"{less} less than in one parcel" if less is not None else "as much as in one parcel"


def _parcel(boxed: Boxed, billing: Billing, job: JobFile, units: Units) -> ParcelView:
    made = boxed.made
    counts = Counter[str]()
    for unit in boxed.load.units:
        counts[unit.part.name] += unit.pile
    holds = [f"{count} x {name}" if count > 1 else name for name, count in counts.items()]
    return ParcelView(
        holds=[*holds, *(extra.name for extra in boxed.load.extras)],
        box=called(made),
        outside=show_sizes(made.outside, units, "up").text,
        weight=show_mass(boxed.weights.total, units, "up").text,
        billed=show_mass(billing.billed, units, "up").text,
        job=job,
    )
