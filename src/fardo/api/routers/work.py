"""Working out while a person types, and the bench line."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import Response
from pydantic import BaseModel, ConfigDict, Field

from fardo.api import views
from fardo.api.bench import OpenBench
from fardo.api.context import AppContext, Context
from fardo.api.folded import FoldView, view_fold
from fardo.api.picture import view_picture
from fardo.api.price_steps import AXES, Sides, StepsView, view_steps
from fardo.api.quotes import view_quote, view_refused
from fardo.api.resource import resource
from fardo.api.routers.jobs import row
from fardo.api.routers.kinds import row_of
from fardo.core.plan.box import box_for
from fardo.core.plan.channel import PREPAID, closed_to
from fardo.core.plan.cost_comparison import side_by_side
from fardo.core.plan.in_one_box import steps_of
from fardo.core.quantity import Length, Units, read_length, show_length, show_mass, show_sizes
from fardo.core.tariff.line import read_line
from fardo.core.tariff.service import compare
from fardo.core.tariff.step_map import FARTHEST
from fardo.files.job import EXAMPLE, JobFile
from fardo.files.typed import to_money

router = resource("/api", "work")


@router.post("/work-out", response_model=views.WorkOut)
def work_out(request: views.WorkOutRequest, context: Context, bench: OpenBench) -> Response:
    """Everything that follows from a job as it is typed. Saves nothing; what cannot be read is told, not refused."""
    picture = context.today_for(request.id).draw_up(request.job, request.in_hand)
    bench.remember(request.job, picture)
    # Written here: at every stroke it is neither checked again nor handed to another thread.
    return Response(view_picture(picture, request.job.answers).model_dump_json(), media_type="application/json")


class FoldRequest(BaseModel):
    """Which way of a job is folded up."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "way": "tray"}]})
    job: JobFile
    way: str = Field(max_length=240, description="or which of several boxes there: 'shelf/18 x 14 x 12'")


@router.post("/fold")
def fold_up(request: FoldRequest, context: Context) -> FoldView:
    """Every blank of that way with its panels and hinges, and how the contents stand in what the first folds to."""
    today = context.today
    return view_fold(box_for(request.way, today.understand(request.job), today.shop))


class StepsRequest(BaseModel):
    """Which service is asked about a job in the box of a way."""

    model_config = ConfigDict(
        json_schema_extra={
            "examples": [{"job": EXAMPLE, "way": "tray", "carrier": "Oddbarrow", "service": "Ground",
                          "programme": "account"}]
        }
    )  # fmt: skip
    job: JobFile
    way: str = Field(max_length=240, description="or which of several boxes there: 'shelf/18 x 14 x 12'")
    carrier: str = Field(max_length=80)
    service: str = Field(max_length=80)
    programme: str = Field(max_length=40)
    sides: Sides = Field("longest and second", description="over which the price is mapped")
    reach: str | None = Field(None, max_length=20, description="how far is looked: 5 in; a foot at most")


@router.post("/steps")
def steps(request: StepsRequest, context: Context) -> StepsView:
    """What to trim for the nearest cheaper price of that service, and its price over two sides."""
    return context.reckon(_steps, request)


def _steps(context: AppContext, request: StepsRequest) -> StepsView:
    today, units = context.today, context.today.shop.units
    reach = read_length(request.reach, units, most=FARTHEST, field="reach") if request.reach else None
    asked = (request.carrier, request.service, request.programme)
    job = today.understand(request.job)
    found = steps_of(job, request.way, asked, today.shop, today.carriers_for(job), AXES[request.sides], reach)
    return view_steps(found, units, today.shop.exchange)


Amount = Annotated[str, Field(max_length=20)]
_COMPARED: dict[str, Any] = {"currency": "USD", "rows": {"postage": ["21.40", "18.05"], "total": ["26.10", "23.90"]}}


class CompareRequest(BaseModel):
    """Rows of costs by their name, an amount a way to send it."""

    model_config = ConfigDict(json_schema_extra={"examples": [_COMPARED]})
    currency: str = Field(max_length=3)
    rows: dict[str, Annotated[list[Amount], Field(min_length=1, max_length=8)]] = Field(max_length=12)


class ComparedRow(BaseModel):
    least: list[bool] = Field(description="which are the least; none where all are alike")
    over: list[str | None] = Field(description="how much more than the least each is, nothing for the least")
    nothing: bool = Field(description="whether all are nothing")


@router.post("/compare")
def compare_costs(request: CompareRequest) -> dict[str, ComparedRow]:
    """What stands out in each row of costs where several ways to send it stand side by side."""
    found = {}
    for name, amounts in request.rows.items():
        read = [to_money(text, request.currency, f"rows.{name}[{n}]") for n, text in enumerate(amounts)]
        row = side_by_side(read)
        over = [None if more is None else str(more) for more in row.over]
        found[name] = ComparedRow(least=list(row.least), over=over, nothing=row.nothing)
    return found


class LineText(BaseModel):
    """What was typed in the bench line."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"text": "24x12x8 9lb to 73120"}, {"text": "saddle"}]})
    text: str = Field(max_length=200)


@router.post("/line")
def bench_line(line: LineText, context: Context, bench: OpenBench) -> views.LineAnswer:
    """A parcel in a line is priced; anything else is looked for among the jobs and the kinds of goods."""
    today = context.today
    parcel = read_line(line.text, today.shop.units, today.file.postcode)
    if parcel is None:
        page = context.jobs.page(words=line.text, size=8)
        return views.LineAnswer(
            kind="jobs",
            jobs=[row(one) for one in bench.rows(page.jobs)],
            kinds=[row_of(stored) for stored in context.kinds.find(line.text)][:4],
        )
    units = today.shop.units
    # A line names no sale: prices that only a sale opens, and labels that only a sale gives, are not for it.
    closed = closed_to(None, today.shop.channels) | {PREPAID}
    open_to_it = [one for one in today.carriers.services if not one.other_way and one.rate_plan not in closed]
    quotes, refused = compare(open_to_it, parcel, exchange=today.shop.exchange)
    home = ", a home" if parcel.residential else ""
    flat = f", soft pack {_flat(parcel.flat, units)} flat" if parcel.flat else ""
    read_as = (
        f"{show_sizes(parcel.sizes, units, 'up')}, {show_mass(parcel.weight, units, 'up')}{flat}, "
        f"from {parcel.origin} to {parcel.destination}{home}"
    )
    return views.LineAnswer(
        kind="price",
        read_as=read_as,
        quotes=[view_quote(quote, units) for quote in quotes],
        refused=view_refused(refused),
    )


def _flat(flat: tuple[Length, Length], units: Units) -> str:
    """A flat size in words, its unit once.

    >>> _flat((Length.of_inches(18), Length.of_inches(13)), "in")
    '18 x 13 in'
    """
    length, width = (show_length(side, units, "up").text for side in flat)
    return f"{length.removesuffix(f' {units}')} x {width}"
