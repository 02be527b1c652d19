"""Carriers asked over the network: prices beside the shop's own reckoning, a label, and where a parcel is."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Depends, Request
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict, Field

from fardo.api import views
from fardo.api.asked import CarrierSays, view_said
from fardo.api.desk import Desk, OpenDesk
from fardo.api.problems import RESPONSES
from fardo.api.routers.jobs import view
from fardo.api.worked import box_for, services_for
from fardo.core.plan.search import parcel_of
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.tariff.service import Quote, compare
from fardo.files.job import EXAMPLE, JobFile, LabelBought
from fardo.files.understood import understand
from fardo.store.database import Conflict
from fardo.wire.carrier import NoLabel, Patience, Wire, ask_all, buy_label, message_of, track
from fardo.wire.messages import LabelAsked, QuotesAsked, TrackingSaid

router = APIRouter(prefix="/api", tags=["carriers over the network"], responses=RESPONSES)


def _patience(request: Request) -> Patience:
    patience: Patience = request.app.state.patience
    return patience


HasPatience = Annotated[Patience, Depends(_patience)]


class AskRequest(BaseModel):
    """Which job, in the box of which way."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "way": "tray"}]})
    job: JobFile
    way: str = Field(max_length=20)


@router.post("/ask")
async def ask(request: AskRequest, desk: OpenDesk, patience: HasPatience) -> list[CarrierSays]:
    """What every carrier that can be asked says itself, each beside what its tariff comes to. One that does not answer
    is told as such after a few seconds; nothing else waits for it."""
    questions, ours = await run_in_threadpool(_questions, request, desk)
    answers = await ask_all(questions, patience)
    exchange = desk.today.shop.exchange
    return [view_said(answer, ours, exchange) for answer in answers]


def _questions(request: AskRequest, desk: Desk) -> tuple[list[tuple[Wire, QuotesAsked]], list[Quote]]:
    today = desk.today
    if not today.file.wires:
        return [], []
    said = understand(request.job, today.shop, today.file.postcode, today.find_mesh)
    boxed = box_for(request.way, request.job, said.load or said.must_load(), today)
    if said.journey is None:
        raise BadInput("nothing given", read="", allowed="a postcode such as 73120", field="ship.to")
    if said.hazards.never:
        raise NoAnswer("This does not ship, so that no carrier is asked.")
    parcel = parcel_of(boxed, said.journey)
    exchange = today.shop.exchange
    quotes, _ = compare(services_for(request.job, today), parcel, said.journey.day, exchange)
    asked = []
    for entry in today.file.wires:
        currency = next((s.currency for s in today.services if s.carrier == entry.carrier), today.file.currency)
        if not exchange.knows(currency):
            currency = exchange.currency
        message = message_of(exchange.declared(parcel, currency), currency)
        asked.append((Wire(entry.carrier, entry.address), message))
    return asked, quotes


class LabelRequest(BaseModel):
    """The quote a carrier gave, and the price that was seen."""

    model_config = ConfigDict(
        json_schema_extra={
            "examples": [{"carrier": "Oddbarrow", "service": "Ground", "programme": "account",
                          "quote": "6a1f", "amount": "24.10", "currency": "USD"}]
        }
    )  # fmt: skip
    carrier: str = Field(max_length=80)
    service: str = Field(max_length=80)
    programme: str = Field("", max_length=40)
    quote: str = Field(min_length=1, max_length=80)
    amount: str = Field(max_length=20, pattern=r"^\d{1,9}(\.\d{1,4})?$")
    currency: str = Field(pattern=r"^[A-Z]{3}$")


@router.post("/jobs/{key}/label")
async def buy(key: str, request: LabelRequest, desk: OpenDesk, patience: HasPatience) -> views.JobView:
    """Buys the label of a quote at no more than the price that was seen, once; the job keeps its number."""
    stored = await run_in_threadpool(desk.jobs.get, key)
    if stored.job.chosen.label is not None:
        raise NoAnswer(f"A label is bought already: {stored.job.chosen.label.tracking}.")
    wire = _wire(request.carrier, desk)
    message = LabelAsked(quote=request.quote, at_most=request.amount, currency=request.currency)
    try:
        sold = await buy_label(wire, message, f"{key}-{request.quote}"[:80], patience)
    except NoLabel as no:
        raise NoAnswer(f"No label was bought: {request.carrier} {no}.") from no
    label = LabelBought(
        carrier=request.carrier, service=request.service, programme=request.programme, amount=sold.amount,
        currency=sold.currency, tracking=sold.tracking,
    )  # fmt: skip
    return await run_in_threadpool(_keep, key, label, desk)


def _keep(key: str, label: LabelBought, desk: Desk) -> views.JobView:
    """It is paid for: it goes into the job as that now is, whatever was typed meanwhile."""
    while True:
        stored = desk.jobs.get(key)
        chosen = stored.job.chosen.model_copy(update={"label": label})
        try:
            return view(desk.jobs.change(key, stored.revision, stored.job.model_copy(update={"chosen": chosen})))
        except Conflict:  # somebody typed in between
            continue


@router.get("/jobs/{key}/tracking")
async def where(key: str, desk: OpenDesk, patience: HasPatience) -> TrackingSaid:
    """Where the parcel is, as its carrier says."""
    label = (await run_in_threadpool(desk.jobs.get, key)).job.chosen.label
    if label is None:
        raise NoAnswer("No label was bought for this job over the network.")
    try:
        return await track(_wire(label.carrier, desk), label.tracking, patience)
    except NoLabel as no:
        raise NoAnswer(f"{label.carrier} {no}.") from no


def _wire(carrier: str, desk: Desk) -> Wire:
    """Raises BadInput for a carrier that is not asked over the network."""
    for entry in desk.today.file.wires:
        if entry.carrier == carrier:
            return Wire(entry.carrier, entry.address)
    allowed = ", ".join(entry.carrier for entry in desk.today.file.wires) or "none is set"
    raise BadInput("not a carrier that is asked over the network", read=carrier, allowed=allowed, field="carrier")
