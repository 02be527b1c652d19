"""Carriers asked for prices over the network, several at once.

A carrier that is slow, away, in trouble or talks nonsense costs nobody more than a few seconds and a sentence: what
comes back is always an answer, of a state.
"""

from __future__ import annotations

import asyncio
import time
from collections.abc import Sequence
from dataclasses import dataclass, replace

import httpx

from fardo.core.quantity import Money
from fardo.core.quantity.money import total
from fardo.core.refusal import BadInput
from fardo.core.tariff.against import Asks, adds_up
from fardo.core.tariff.parcel import Parcel
from fardo.wire.call import PATIENCE, CallState, Patience, Trouble, Wire, call, client_of
from fardo.wire.exchange import Transport
from fardo.wire.messages import ParcelSaid, QuoteSaid, QuotesAsked, QuotesSaid, RefusedSaid


@dataclass(frozen=True, slots=True)
class Asked:
    """What came of asking a carrier for prices.

    Args:
        says: a sentence where it is not "answered".
        quotes, refused: where it is.
        tries: it took.
        seconds: it took.
    """

    carrier: str
    state: CallState
    says: str
    quotes: tuple[QuoteSaid, ...]
    refused: tuple[RefusedSaid, ...]
    tries: int
    seconds: float

    def without(self, programmes: frozenset[str]) -> Asked:
        """The same without the prices of these programmes, which belong to other sales."""
        return replace(self, quotes=tuple(one for one in self.quotes if one.programme not in programmes))


def message_of(parcel: Parcel, currency: str) -> QuotesAsked:
    """A parcel and those beside it as they go over the wire.

    Args:
        currency: of their values, the carrier's own.
    """
    parcels = (parcel, *parcel.beside)
    return QuotesAsked(
        origin=parcel.origin, to=parcel.destination, country=parcel.country, home=parcel.residential,
        signature=parcel.signature, currency=currency,
        parcels=[
            ParcelSaid(
                sides_mm=(one.sides[0].mm, one.sides[1].mm, one.sides[2].mm), weight_g=one.weight.grams,
                form=one.form, value=str(one.value) if one.value else None,
            )
            for one in parcels
        ],
    )  # fmt: skip


async def ask_all(
    asked: Sequence[tuple[Wire, QuotesAsked]], patience: Patience = PATIENCE, transport: Transport | None = None
) -> list[Asked]:
    """Every carrier's answer, in the order given, all asked at once."""
    async with client_of(patience, transport) as client:
        return list(await asyncio.gather(*(_ask(client, wire, message, patience) for wire, message in asked)))


async def _ask(client: httpx.AsyncClient, wire: Wire, message: QuotesAsked, patience: Patience) -> Asked:
    begun = time.monotonic()
    try:
        said, tries = await call(client, wire, "POST", "quotes", QuotesSaid, patience, message)
    except Trouble as trouble:
        return Asked(wire.carrier, trouble.state, trouble.says, (), (), trouble.tries, time.monotonic() - begun)
    for quote in said.quotes:
        if why := _does_not_add_up(quote):
            return Asked(wire.carrier, "nonsense", why, (), (), tries, time.monotonic() - begun)
    return Asked(wire.carrier, "answered", "", tuple(said.quotes), tuple(said.refused), tries, time.monotonic() - begun)


def asked_amounts(quote: QuoteSaid) -> tuple[Money, list[Asks]]:
    """All that a quote asks, and its lines. Raises BadInput where one of them is no amount of money."""
    lines = [Asks(line.kind, line.what, Money.read(line.amount, quote.currency)) for line in quote.charges]
    return Money.read(quote.amount, quote.currency), lines


def _does_not_add_up(quote: QuoteSaid) -> str:
    """Why its lines are not its amount; nothing where they are, or there are none."""
    try:
        amount, lines = asked_amounts(quote)
    except BadInput as problem:
        return f"asks for {quote.service} what is no price: {problem.plain}"
    if not adds_up(amount, lines):
        come_to = total([line.amount for line in lines], quote.currency)
        return f"its lines for {quote.service} come to {come_to}, and it asks {amount}"
    return ""
