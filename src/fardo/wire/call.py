"""One call to a carrier over the network, with its time-outs and its second and third try.

A time-out or a fault of the carrier's own is tried again, what it refuses is not. What comes of a call is an answer or
a `Trouble`, which says whether the carrier may have done what it was asked.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, TypeVar

import httpx
from pydantic import BaseModel, ValidationError
from tenacity import AsyncRetrying, retry_if_exception, stop_after_attempt, stop_after_delay, wait_random_exponential

from fardo.wire.exchange import AnswerTooLarge, AnswerTooLate, Bounds, Transport, exchange, open_client
from fardo.wire.messages import PriceChanged

CallState = Literal["answered", "slow", "away", "trouble", "nonsense", "refused"]
Said = TypeVar("Said", bound=BaseModel)
LARGEST_ANSWER = 1_000_000  # bytes
_BUSY = 429
_FAULTS_OF_THEIRS = (_BUSY, 500, 502, 503, 504)
_UNDER_WAY = 201  # also of a label


@dataclass(frozen=True, slots=True)
class Patience:
    """How long a carrier is waited for, in seconds.

    Args:
        connect: of one try.
        read: of one try, between two pieces of its answer.
        whole: of one try, from the first byte to the last.
        tries: at most.
        in_all: no further try is begun after so long.
    """

    connect: float = 1.0
    read: float = 2.5
    whole: float = 4.0
    tries: int = 3
    in_all: float = 4.0

    @property
    def bounds(self) -> Bounds:
        """Of one try."""
        return Bounds(self.connect, self.read, self.whole, LARGEST_ANSWER)


PATIENCE = Patience()


@dataclass(frozen=True, slots=True)
class Wire:
    """A carrier that can be asked: its name, as its tariff has it, and its address."""

    carrier: str
    address: str


class Trouble(Exception):
    """No answer, or one that is a refusal.

    Args:
        state: of which kind.
        says: in a sentence that follows the carrier's name.
        again: whether another try may do better.
        uncertain: whether the carrier may have done what it was asked all the same.
        status: of its answer; 0 where there was none.
        changed: its new price, where that is why.
    """

    def __init__(
        self, state: CallState, says: str, *, again: bool = False, uncertain: bool = True, status: int = 0,
        changed: PriceChanged | None = None,
    ) -> None:  # fmt: skip
        super().__init__(says)
        self.state, self.says, self.again, self.uncertain = state, says, again, uncertain
        self.status, self.changed = status, changed
        self.tries = 1


def client_of(patience: Patience, transport: Transport | None) -> httpx.AsyncClient:
    return open_client(patience.bounds, transport)


async def call(
    client: httpx.AsyncClient, wire: Wire, method: str, path: str, said: type[Said], patience: Patience,
    message: BaseModel | None = None, headers: dict[str, str] | None = None,
) -> tuple[Said, int]:  # fmt: skip
    """The answer, and how many tries it took. Raises Trouble after the last try, uncertain where any try was."""
    retrying = AsyncRetrying(
        stop=stop_after_attempt(patience.tries) | stop_after_delay(patience.in_all),
        wait=wait_random_exponential(multiplier=0.1, max=0.8),
        retry=retry_if_exception(lambda fault: isinstance(fault, Trouble) and fault.again),
        reraise=True,
    )
    tries, uncertain = 0, False
    try:
        async for attempt in retrying:
            with attempt:
                tries += 1
                try:
                    return await _once(client, wire, method, path, said, message, headers, patience), tries
                except Trouble as trouble:
                    uncertain = uncertain or trouble.uncertain
                    raise
    except Trouble as trouble:
        trouble.tries, trouble.uncertain = tries, uncertain
        raise
    raise AssertionError("a retry ends with an answer or a fault")  # pragma: no cover


async def _once(
    client: httpx.AsyncClient, wire: Wire, method: str, path: str, said: type[Said], message: BaseModel | None,
    headers: dict[str, str] | None, patience: Patience,
) -> Said:  # fmt: skip
    url = f"{wire.address.rstrip('/')}/{path}"
    body = message.model_dump_json(by_alias=True) if message else None
    sent = {"Content-Type": "application/json", "Accept": "application/json", **(headers or {})}
    try:
        status, content = await exchange(client, method, url, body, sent, patience.bounds)
    except AnswerTooLarge as fault:
        raise Trouble("nonsense", f"answers with more than {LARGEST_ANSWER // 1000} kB") from fault
    except (httpx.ConnectError, httpx.ConnectTimeout) as fault:
        raise Trouble("away", "cannot be reached", again=True, uncertain=False) from fault
    except (AnswerTooLate, httpx.TimeoutException) as fault:
        raise Trouble("slow", "does not answer in time", again=True) from fault
    except httpx.TransportError as fault:
        raise Trouble("away", "cannot be reached", again=True) from fault
    except (httpx.HTTPError, httpx.InvalidURL, ValueError) as fault:
        raise Trouble("nonsense", "answers what cannot be read") from fault
    if status in _FAULTS_OF_THEIRS:
        says = f"has trouble of its own (status {status})"
        raise Trouble("trouble", says, again=True, uncertain=status != _BUSY, status=status)
    if status == 409:
        try:
            changed = _read(content, PriceChanged)
        except Trouble as trouble:
            trouble.status = status  # a refusal of another kind
            raise
        says = f"asks {changed.amount} {changed.currency} by now: {changed.why}"
        raise Trouble("refused", says, uncertain=False, status=status, changed=changed)
    if status not in (200, _UNDER_WAY):
        says = f"does not take the question (status {status})"
        raise Trouble("refused", says, uncertain=not 400 <= status < 500, status=status)
    return _read(content, said)


def _read(content: bytes, said: type[Said]) -> Said:
    try:
        return said.model_validate_json(content)
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(step) for step in first["loc"])
        raise Trouble("nonsense", f"answers what cannot be read{f', at {where}' if where else ''}") from error
