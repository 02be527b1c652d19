"""Asks carriers over the network, several at once, each with its time-outs and its second and third try.

A carrier that is slow, away, in trouble or talks nonsense costs nobody more than a few seconds and a sentence: what
comes back is always an answer, of a state. A time-out or a fault of the carrier's own is tried again, what it refuses
is not; a label is asked for under a key of its own, so that a second try never buys a second one.
"""

from __future__ import annotations

import asyncio
import time
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, TypeVar

import httpx
from pydantic import BaseModel, ValidationError
from tenacity import AsyncRetrying, retry_if_exception, stop_after_attempt, stop_after_delay, wait_random_exponential

from fardo.core.quantity import Money
from fardo.core.refusal import BadInput
from fardo.core.tariff.parcel import Parcel
from fardo.wire.messages import (
    LabelAsked,
    LabelSaid,
    ParcelSaid,
    PriceChanged,
    QuoteSaid,
    QuotesAsked,
    QuotesSaid,
    RefusedSaid,
    TrackingSaid,
)

State = Literal["answered", "slow", "away", "trouble", "nonsense", "refused"]
Said = TypeVar("Said", bound=BaseModel)
LARGEST_ANSWER = 1_000_000  # bytes
_FAULTS_OF_THEIRS = (429, 500, 502, 503, 504)
_UNDER_WAY = 201  # also of a label


@dataclass(frozen=True, slots=True)
class Patience:
    """In seconds.

    Args:
        connect, read: of one try. tries: at most. in_all: no further try is begun after so long.
    """

    connect: float = 1.0
    read: float = 2.5
    tries: int = 3
    in_all: float = 4.0


PATIENCE = Patience()
Transport = httpx.AsyncBaseTransport


@dataclass(frozen=True, slots=True)
class Wire:
    """A carrier that can be asked: its name, as its tariff has it, and its address."""

    carrier: str
    address: str


@dataclass(frozen=True, slots=True)
class Asked:
    """What came of asking a carrier for prices.

    Args:
        says: a sentence where it is not "answered". quotes, refused: where it is. tries: it took. seconds: it took.
    """

    carrier: str
    state: State
    says: str
    quotes: tuple[QuoteSaid, ...]
    refused: tuple[RefusedSaid, ...]
    tries: int
    seconds: float


class NoLabel(Exception):
    """No label was sold. `asks` is the new price, where that is why."""

    def __init__(self, says: str, asks: Money | None = None) -> None:
        super().__init__(says)
        self.asks = asks


class _Trouble(Exception):
    def __init__(self, state: State, says: str, again: bool, changed: PriceChanged | None = None) -> None:
        super().__init__(says)
        self.state, self.says, self.again, self.changed = state, says, again, changed
        self.tries = 1


def message_of(parcel: Parcel, currency: str) -> QuotesAsked:
    """A parcel and those beside it as they go over the wire. Args: currency: of their values, the carrier's own."""
    parcels = (parcel, *parcel.beside)
    return QuotesAsked(
        origin=parcel.origin, to=parcel.destination, home=parcel.residential, signature=parcel.signature,
        currency=currency,
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
    async with _client(patience, transport) as client:
        return list(await asyncio.gather(*(_ask(client, wire, message, patience) for wire, message in asked)))


async def buy_label(
    wire: Wire, message: LabelAsked, key: str, patience: Patience = PATIENCE, transport: Transport | None = None
) -> LabelSaid:
    """A label for a quote at no more than its price. Raises NoLabel.

    Args:
        key: names this purchase, so that asking twice buys once.
    """
    async with _client(patience, transport) as client:
        try:
            said, _ = await _call(
                client, wire, "POST", "labels", LabelSaid, patience, message, {"Idempotency-Key": key}
            )
        except _Trouble as trouble:
            changed = trouble.changed
            raise NoLabel(trouble.says, _money(changed.amount, changed.currency) if changed else None) from trouble
    if _money(said.amount, said.currency) > _money(message.at_most, message.currency):
        # It is paid for, so its number is told: nothing that was bought is lost.
        raise NoLabel(f"sold label {said.tracking} for {said.amount}, more than was agreed to: call it")
    return said


async def track(
    wire: Wire, tracking: str, patience: Patience = PATIENCE, transport: Transport | None = None
) -> TrackingSaid:
    """Where a parcel is. Raises NoLabel, with a sentence, where the carrier does not say."""
    async with _client(patience, transport) as client:
        try:
            said, _ = await _call(client, wire, "GET", f"tracking/{tracking}", TrackingSaid, patience)
        except _Trouble as trouble:
            raise NoLabel(trouble.says) from trouble
    return said


def _client(patience: Patience, transport: Transport | None) -> httpx.AsyncClient:
    times = httpx.Timeout(patience.read, connect=patience.connect)
    # No proxy, cookie or netrc of this machine has a say in what a carrier is asked.
    return httpx.AsyncClient(timeout=times, transport=transport, trust_env=False, follow_redirects=False)


async def _ask(client: httpx.AsyncClient, wire: Wire, message: QuotesAsked, patience: Patience) -> Asked:
    begun = time.monotonic()
    try:
        said, tries = await _call(client, wire, "POST", "quotes", QuotesSaid, patience, message)
    except _Trouble as trouble:
        return Asked(wire.carrier, trouble.state, trouble.says, (), (), trouble.tries, time.monotonic() - begun)
    for quote in said.quotes:
        if why := _does_not_add_up(quote):
            return Asked(wire.carrier, "nonsense", why, (), (), tries, time.monotonic() - begun)
    return Asked(wire.carrier, "answered", "", tuple(said.quotes), tuple(said.refused), tries, time.monotonic() - begun)


def _does_not_add_up(quote: QuoteSaid) -> str:
    """Why its lines are not its amount; nothing where they are, or there are none."""
    try:
        amount = Money.read(quote.amount, quote.currency)
        lines = sum(Money.read(line.amount, quote.currency).minor for line in quote.charges)
    except BadInput as problem:
        return f"asks for {quote.service} what is no price: {problem.plain}"
    if quote.charges and lines != amount.minor:
        return f"its lines for {quote.service} come to {Money(lines, quote.currency)}, and it asks {amount}"
    return ""


def _money(amount: str, currency: str) -> Money:
    try:
        return Money.read(amount, currency)
    except BadInput as problem:
        raise NoLabel(f"it answers with what is no price: {problem.plain}") from problem


async def _call(
    client: httpx.AsyncClient, wire: Wire, method: str, path: str, said: type[Said], patience: Patience,
    message: BaseModel | None = None, headers: dict[str, str] | None = None,
) -> tuple[Said, int]:  # fmt: skip
    """The answer, and how many tries it took. Raises _Trouble after the last try."""
    retrying = AsyncRetrying(
        stop=stop_after_attempt(patience.tries) | stop_after_delay(patience.in_all),
        wait=wait_random_exponential(multiplier=0.1, max=0.8),
        retry=retry_if_exception(lambda fault: isinstance(fault, _Trouble) and fault.again),
        reraise=True,
    )
    tries = 0
    try:
        async for attempt in retrying:
            with attempt:
                tries += 1
                return await _once(client, wire, method, path, said, message, headers), tries
    except _Trouble as trouble:
        trouble.tries = tries
        raise
    raise AssertionError("a retry ends with an answer or a fault")  # pragma: no cover


async def _once(
    client: httpx.AsyncClient, wire: Wire, method: str, path: str, said: type[Said], message: BaseModel | None,
    headers: dict[str, str] | None,
) -> Said:  # fmt: skip
    url = f"{wire.address.rstrip('/')}/{path}"
    body = message.model_dump_json(by_alias=True) if message else None
    sent = {"Content-Type": "application/json", "Accept": "application/json", **(headers or {})}
    try:
        async with client.stream(method, url, content=body, headers=sent) as response:
            content = b""
            async for piece in response.aiter_bytes():
                content += piece
                if len(content) > LARGEST_ANSWER:
                    raise _Trouble("nonsense", f"answers with more than {LARGEST_ANSWER // 1000} kB", False)
    except httpx.TimeoutException as fault:
        raise _Trouble("slow", "does not answer in time", True) from fault
    except httpx.TransportError as fault:
        raise _Trouble("away", "cannot be reached", True) from fault
    except (httpx.HTTPError, httpx.InvalidURL, ValueError) as fault:
        raise _Trouble("nonsense", "answers what cannot be read", False) from fault
    if response.status_code in _FAULTS_OF_THEIRS:
        raise _Trouble("trouble", f"has trouble of its own (status {response.status_code})", True)
    if response.status_code == 409:
        changed = _read(content, PriceChanged)
        raise _Trouble("refused", f"asks {changed.amount} {changed.currency} by now: {changed.why}", False, changed)
    if response.status_code not in (200, _UNDER_WAY):
        raise _Trouble("refused", f"does not take the question (status {response.status_code})", False)
    return _read(content, said)


def _read(content: bytes, said: type[Said]) -> Said:
    try:
        return said.model_validate_json(content)
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(step) for step in first["loc"])
        raise _Trouble("nonsense", f"answers what cannot be read{f', at {where}' if where else ''}", False) from error
