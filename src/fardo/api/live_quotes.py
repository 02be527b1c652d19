"""What a carrier itself asks beside what its tariff comes to, line by line, the differences marked."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from pydantic import BaseModel, Field

from fardo.core.quantity import Money
from fardo.core.tariff.against import set_against
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.service import Quote
from fardo.wire.call import CallState
from fardo.wire.carrier import Asked, asked_amounts
from fardo.wire.messages import QuoteSaid


class LiveQuoteLine(BaseModel):
    """A kind of charge, theirs and ours, in the shop's currency."""

    what: str
    theirs: str | None
    ours: str | None
    differs: bool


class LiveQuote(BaseModel):
    """`quote`, `asks` and `currency` are what a label is bought by; the rest is in the shop's currency."""

    quote: str
    service: str
    programme: str
    asks: str
    currency: str
    amount: str
    ours: str | None = Field(description="what the tariff comes to; nothing where it has no such service, or refuses")
    more: str = Field(description="theirs less ours, with its sign; nothing where they are the same")
    days: tuple[int, int]
    lines: list[LiveQuoteLine]


class LiveQuoteRefusal(BaseModel):
    service: str
    programme: str
    why: str
    ours: str | None = Field(description="what the tariff comes to all the same")


class LiveQuotes(BaseModel):
    carrier: str
    state: CallState
    says: str
    tries: int
    seconds: float
    quotes: list[LiveQuote]
    refused: list[LiveQuoteRefusal]


def view_said(answer: Asked, ours: Sequence[Quote], exchange: Exchange) -> LiveQuotes:
    """What a carrier answered, beside what its tariff comes to.

    Args:
        ours: quotes by the shop's tariffs, in its currency.
    """
    of_carrier = [quote for quote in ours if quote.carrier == answer.carrier]
    quotes = [_view(said, of_carrier, exchange) for said in answer.quotes if exchange.knows(said.currency)]
    foreign = sorted({said.currency for said in answer.quotes if not exchange.knows(said.currency)})
    says = answer.says or (f"asks in {', '.join(foreign)}, for which the shop has no rate" if foreign else "")
    return LiveQuotes(
        carrier=answer.carrier, state=answer.state, says=says, tries=answer.tries, seconds=round(answer.seconds, 1),
        quotes=sorted(quotes, key=lambda one: float(one.amount)),
        refused=[
            LiveQuoteRefusal(
                service=no.service, programme=no.programme, why=no.why,
                ours=next((str(q.amount) for q in of_carrier if q.called[1:] == (no.service, no.programme)), None),
            )
            for no in answer.refused
        ],
    )  # fmt: skip


def _view(said: QuoteSaid, ours: Iterable[Quote], exchange: Exchange) -> LiveQuote:
    same = next((q for q in ours if (q.service, q.rate_plan) == (said.service, said.programme)), None)
    against = set_against(*asked_amounts(said), same, exchange)
    return LiveQuote(
        quote=said.id, service=said.service, programme=said.programme, asks=said.amount, currency=said.currency,
        amount=str(against.amount), ours=str(same.amount) if same else None,
        more=_signed(against.more) if against.more else "", days=said.days,
        lines=[
            LiveQuoteLine(
                what=line.what, theirs=str(line.theirs) if line.theirs else None,
                ours=str(line.ours) if line.ours else None, differs=line.differs,
            )
            for line in against.lines
        ],
    )  # fmt: skip


def _signed(amount: Money) -> str:
    text = str(amount)
    return text if text.startswith("-") else f"+{text}"
