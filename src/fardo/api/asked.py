"""What a carrier itself asks beside what its tariff comes to, line by line, the differences marked."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from pydantic import BaseModel, Field

from fardo.core.quantity import Money
from fardo.core.quantity.money import total
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.service import Quote
from fardo.wire.call import State
from fardo.wire.carrier import Asked
from fardo.wire.messages import QuoteSaid


class AskedLine(BaseModel):
    """A kind of charge, theirs and ours, in the shop's currency."""

    what: str
    theirs: str | None
    ours: str | None
    differs: bool


class AskedQuote(BaseModel):
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
    lines: list[AskedLine]


class AskedRefusal(BaseModel):
    service: str
    programme: str
    why: str
    ours: str | None = Field(description="what the tariff comes to all the same")


class CarrierSays(BaseModel):
    carrier: str
    state: State
    says: str
    tries: int
    seconds: float
    quotes: list[AskedQuote]
    refused: list[AskedRefusal]


def view_said(answer: Asked, ours: Sequence[Quote], exchange: Exchange) -> CarrierSays:
    """Args: ours: quotes by the shop's tariffs, in its currency."""
    of_carrier = [quote for quote in ours if quote.carrier == answer.carrier]
    quotes = [_view(said, of_carrier, exchange) for said in answer.quotes if exchange.knows(said.currency)]
    foreign = sorted({said.currency for said in answer.quotes if not exchange.knows(said.currency)})
    says = answer.says or (f"asks in {', '.join(foreign)}, for which the shop has no rate" if foreign else "")
    return CarrierSays(
        carrier=answer.carrier, state=answer.state, says=says, tries=answer.tries, seconds=round(answer.seconds, 1),
        quotes=sorted(quotes, key=lambda one: float(one.amount)),
        refused=[
            AskedRefusal(
                service=no.service, programme=no.programme, why=no.why,
                ours=next((str(q.amount) for q in of_carrier if q.called[1:] == (no.service, no.programme)), None),
            )
            for no in answer.refused
        ],
    )  # fmt: skip


def _view(said: QuoteSaid, ours: Iterable[Quote], exchange: Exchange) -> AskedQuote:
    same = next((q for q in ours if (q.service, q.programme) == (said.service, said.programme)), None)

    def into(amount: str) -> Money:
        return exchange.into(Money.read(amount, said.currency))

    # In another currency every line is turned by itself, as our own are, and their sum is the amount.
    theirs = [(line.kind, line.what, into(line.amount)) for line in said.charges]
    amount = total([one for _, _, one in theirs], exchange.currency) if theirs else into(said.amount)
    lines = _lines(theirs, same)
    more = amount.minor - same.amount.minor if same else 0
    return AskedQuote(
        quote=said.id, service=said.service, programme=said.programme, asks=said.amount, currency=said.currency,
        amount=str(amount), ours=str(same.amount) if same else None,
        more=f"{'+' if more > 0 else '-'}{Money(abs(more), exchange.currency)}" if more else "",
        days=said.days, lines=lines,
    )  # fmt: skip


def _lines(theirs: Sequence[tuple[str, str, Money]], ours: Quote | None) -> list[AskedLine]:
    """By kind of charge, in our order and then theirs: what several parcels are charged is summed."""
    named: dict[str, str] = {}
    sums: dict[str, list[Money | None]] = {}
    for side, lines in ((1, [(line.kind, line.what, line.amount) for line in ours.lines] if ours else []), (0, theirs)):
        for kind, what, amount in lines:
            key = kind or what
            named.setdefault(key, what)
            pair = sums.setdefault(key, [None, None])
            so_far = pair[side]
            pair[side] = amount if so_far is None else so_far + amount
    return [
        AskedLine(
            what=named[key], theirs=str(their) if their else None, ours=str(own) if own else None,
            differs=ours is not None and their != own,
        )
        for key, (their, own) in sums.items()
    ]  # fmt: skip
