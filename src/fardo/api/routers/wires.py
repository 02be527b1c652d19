"""Carriers with live quotes: prices beside the shop's own reckoning, a label, and where a parcel is."""

from __future__ import annotations

from typing import Annotated

from fastapi import Depends, Request
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict, Field

from fardo.api import views
from fardo.api.context import AppContext, Context, asked_for
from fardo.api.live_quotes import LiveQuotes, view_said
from fardo.api.purchases import Purchases
from fardo.api.resource import resource
from fardo.api.routers.jobs import view, view_label
from fardo.core.plan.in_one_box import to_ask
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.service import Quote
from fardo.files.job import EXAMPLE, JobFile
from fardo.store.labels import GivenQuote
from fardo.wire.call import Wire
from fardo.wire.carrier import ask_all, message_of
from fardo.wire.labels import NoTracking, track
from fardo.wire.messages import QuoteSaid, QuotesAsked, TrackingSaid

router = resource("/api", "carriers over the network")


def _purchases(request: Request) -> Purchases:
    purchases: Purchases = asked_for(request).purchases
    return purchases


OpenPurchases = Annotated[Purchases, Depends(_purchases)]


class AskRequest(BaseModel):
    """Which job, in the box of which way."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "way": "tray"}]})
    job: JobFile
    way: str = Field(max_length=240)
    id: str | None = Field(None, max_length=40, description="of the saved job, where a label may be bought for it")


@router.post("/ask")
async def ask(request: AskRequest, context: Context, purchases: OpenPurchases) -> list[LiveQuotes]:
    """What every carrier that can be asked says itself, each beside what its tariff comes to. One that does not answer
    is told as such after a few seconds; nothing else waits for it.
    """
    questions, ours, exchange, closed = await run_in_threadpool(_questions, request, context)
    answers = [answer.without(closed) for answer in await ask_all(questions, purchases.patience)]
    if request.id is not None:
        given = [_given(answer.carrier, one) for answer in answers for one in answer.quotes]
        await run_in_threadpool(context.labels.keep_quotes, request.id, given)
    return [view_said(answer, ours, exchange) for answer in answers]


def _given(carrier: str, quote: QuoteSaid) -> GivenQuote:
    return GivenQuote(carrier, quote.id, quote.service, quote.programme, quote.amount, quote.currency)


def _questions(
    request: AskRequest, context: AppContext
) -> tuple[list[tuple[Wire, QuotesAsked]], list[Quote], Exchange, frozenset[str]]:
    """What each carrier is asked, what each service comes to by its tariff, the shop's rates, and the programmes that
    belong to sales of other channels.
    """
    today, exchange = context.today, context.today.shop.exchange
    if not today.file.wires:
        return [], [], exchange, frozenset()
    job = today.understand(request.job)
    parcel, quotes = to_ask(job, request.way, today.shop, today.carriers_for(job))
    asked = []
    for entry in today.file.wires:
        currency = today.carriers.currency_of(entry.carrier) or exchange.currency
        currency = currency if exchange.knows(currency) else exchange.currency
        message = message_of(exchange.declared(parcel, currency), currency)
        asked.append((Wire(entry.carrier, entry.address), message))
    return asked, quotes, exchange, job.journey.closed if job.journey is not None else frozenset()


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
async def buy(key: str, request: LabelRequest, context: Context, purchases: OpenPurchases) -> views.JobView:
    """Buys the label of a quote that was given for this job, once. Where the carrier does not say whether it sold, the
    label's state is "asking", and it is asked until it says.
    """
    wanted = GivenQuote(
        request.carrier, request.quote, request.service, request.programme, request.amount, request.currency
    )
    await run_in_threadpool(_must_be_its_own_price, wanted, context)
    await purchases.buy(key, wanted)
    return await run_in_threadpool(_view, key, context)


def _must_be_its_own_price(wanted: GivenQuote, context: AppContext) -> None:
    """Raises NoAnswer for a service whose prices here are placeholders: nobody has looked at what it really asks."""
    asked = (wanted.carrier, wanted.service, wanted.programme)
    if any(one.placeholder for one in context.today.carriers.services if one.called == asked):
        why = f"The prices of {wanted.carrier} {wanted.service} are placeholders; no label is bought by them."
        raise NoAnswer(f"{why} Enter the carrier's own under Tariffs first.")


@router.get("/jobs/{key}/label")
def look(key: str, context: Context) -> views.LabelView | None:
    """The job's live label, or the last there was."""
    context.jobs.line(key)
    label = context.labels.of_job(key)
    return view_label(label) if label else None


@router.post("/jobs/{key}/label/ask-again")
async def ask_again(key: str, context: Context, purchases: OpenPurchases) -> views.JobView:
    """Asks the carrier at once about a label of which it is not known whether it was sold, or is void."""
    await purchases.ask_again(key)
    return await run_in_threadpool(_view, key, context)


@router.delete("/jobs/{key}/label")
async def void(key: str, context: Context, purchases: OpenPurchases) -> views.JobView:
    """Voids the job's label, or the purchase that is still asked about; another may be bought once it is void."""
    await purchases.void(key)
    return await run_in_threadpool(_view, key, context)


def _view(key: str, context: AppContext) -> views.JobView:
    return view(context.jobs.get(key), context)


@router.get("/jobs/{key}/tracking")
async def where(key: str, context: Context, purchases: OpenPurchases) -> TrackingSaid:
    """Where the parcel is, as its carrier says."""
    label = await run_in_threadpool(context.labels.of_job, key)
    if label is None or label.tracking is None:
        raise NoAnswer("No label was bought for this job over the network.")
    try:
        wire = await run_in_threadpool(purchases.wire, label.carrier)
        return await track(wire, label.tracking, purchases.patience)
    except NoTracking as no:
        raise NoAnswer(f"{label.carrier} {no}.") from no
