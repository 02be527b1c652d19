"""Working out while a person types, and the bench line."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict, Field

from fardo.api import views
from fardo.api.bench import OpenBench
from fardo.api.desk import Desk, OpenDesk
from fardo.api.folded import FoldView, view_fold
from fardo.api.picture import view_picture, view_quote, view_refused
from fardo.api.resource import resource
from fardo.api.routers.jobs import row
from fardo.api.routers.kinds import row_of
from fardo.api.stepped import FARTHEST, Sides, StepsView, cheaper_container, view_steps
from fardo.api.worked import box_for, draw_up, services_for
from fardo.core.plan.search import parcel_of
from fardo.core.quantity import read_length, show_mass, show_sizes
from fardo.core.refusal import BadInput
from fardo.core.tariff.line import read_line
from fardo.core.tariff.service import compare, find_service
from fardo.files.job import EXAMPLE, JobFile
from fardo.files.understood import understand

router = resource("/api", "work")


@router.post("/work-out")
def work_out(request: views.WorkOutRequest, desk: OpenDesk, bench: OpenBench) -> views.WorkOut:
    """Everything that follows from a job as it is typed. Saves nothing; what cannot be read is told, not refused."""
    picture = draw_up(request.job, desk.today, request.in_hand)
    bench.remember(request.job, picture)
    return view_picture(picture)


class FoldRequest(BaseModel):
    """Which way of a job is folded up."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "way": "tray"}]})
    job: JobFile
    way: str = Field(max_length=20)


@router.post("/fold")
def fold_up(request: FoldRequest, desk: OpenDesk) -> FoldView:
    """Every blank of that way with its panels and hinges, and how the contents stand in what the first folds to."""
    today = desk.today
    said = understand(request.job, today.shop, today.file.postcode, today.find_mesh)
    return view_fold(box_for(request.way, request.job, said.load or said.must_load(), today))


class StepsRequest(BaseModel):
    """Which service is asked about a job in the box of a way."""

    model_config = ConfigDict(
        json_schema_extra={
            "examples": [{"job": EXAMPLE, "way": "tray", "carrier": "Oddbarrow", "service": "Ground",
                          "programme": "account"}]
        }
    )  # fmt: skip
    job: JobFile
    way: str = Field(max_length=20)
    carrier: str = Field(max_length=80)
    service: str = Field(max_length=80)
    programme: str = Field(max_length=40)
    sides: Sides = Field("longest and second", description="over which the price is mapped")
    reach: str | None = Field(None, max_length=20, description="how far is looked: 5 in; a foot at most")


@router.post("/steps")
def steps(request: StepsRequest, desk: OpenDesk) -> StepsView:
    """What to trim for the nearest cheaper price of that service, and its price over two sides."""
    return desk.reckon(_steps, request)


def _steps(desk: Desk, request: StepsRequest) -> StepsView:
    today = desk.today
    said = understand(request.job, today.shop, today.file.postcode, today.find_mesh)
    boxed = box_for(request.way, request.job, said.load or said.must_load(), today)
    asked = (request.carrier, request.service, request.programme)
    day = said.journey.day if said.journey else None
    service = find_service(services_for(request.job, today), asked, day)
    if service is None or not today.shop.exchange.knows(service.currency):
        raise BadInput("not a service here", read=" ".join(asked), allowed="one that quotes", field="service")
    if said.journey is None:
        raise BadInput("nothing given", read="", allowed="a postcode such as 73120", field="ship.to")
    units = today.shop.units
    reach = read_length(request.reach, units, most=FARTHEST, field="reach") if request.reach else None
    parcel = parcel_of(boxed, said.journey)
    told = view_steps(service, parcel, units, today.shop.exchange, request.sides, reach)
    told.container = cheaper_container(request.job, said, boxed, service, today)
    return told


class LineText(BaseModel):
    """What was typed in the bench line."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"text": "24x12x8 9lb to 73120"}, {"text": "saddle"}]})
    text: str = Field(max_length=200)


@router.post("/line")
def bench_line(line: LineText, desk: OpenDesk, bench: OpenBench) -> views.LineAnswer:
    """A parcel in a line is priced; anything else is looked for among the jobs and the kinds of goods."""
    today = desk.today
    parcel = read_line(line.text, today.shop.units, today.file.postcode)
    if parcel is None:
        page = desk.jobs.page(words=line.text, size=8)
        return views.LineAnswer(
            kind="jobs",
            jobs=[row(one) for one in bench.rows(page.jobs)],
            kinds=[row_of(stored) for stored in desk.kinds.find(line.text)][:4],
        )
    units = today.shop.units
    quotes, refused = compare(
        (one for one in today.services if not one.other_way), parcel, exchange=today.shop.exchange
    )
    home = ", a home" if parcel.residential else ""
    read_as = (
        f"{show_sizes(parcel.sizes, units, 'up')}, {show_mass(parcel.weight, units, 'up')}, "
        f"from {parcel.origin} to {parcel.destination}{home}"
    )
    return views.LineAnswer(
        kind="price",
        read_as=read_as,
        quotes=[view_quote(quote, units) for quote in quotes],
        refused=view_refused(refused),
    )
