"""Purchases interleaved at random: two windows, double presses, voids, cancelled tasks, a shop that is closed between
buying and saving and opened again, and every fault of the simulated carrier. Never two labels at once, none forgotten.

The carrier answers in this process and no clock is waited for: where it would be silent, the time-out comes at once.
"""

from __future__ import annotations

import asyncio
import random
from collections.abc import Awaitable
from contextlib import suppress
from functools import partial
from pathlib import Path
from typing import Any

import httpx
import pytest

from fardo.api import purchases as purchasing
from fardo.api.purchases import Purchases
from fardo.core.refusal import NoAnswer
from fardo.demo import CARRIER
from fardo.files.job import JobFile
from fardo.files.shop import WireEntry
from fardo.standins.carrier import FAULTS, create_carrier
from fardo.store.database import Database
from fardo.store.jobs import Jobs
from fardo.store.labels import GivenQuote, Label, Labels
from fardo.wire.call import Patience, Wire
from fardo.wire.labels import buy_label, void_label
from fardo.wire.messages import LabelAsked
from tests.made_up import services

ADDRESS = "http://127.0.0.1:9"
ONE_TRY = Patience(tries=1, in_all=0)
SILENT = ("slow", "sold, then silent")
PARCEL = {
    "sides_mm": [500, 400, 300], "weight_g": 4000, "form": "box", "value": None,
}  # fmt: skip


class Line(httpx.AsyncBaseTransport):
    """The line to the carrier, which holds questions and answers up and loses some.

    Args:
        drawn: what happens next.
    """

    def __init__(self, drawn: random.Random) -> None:
        app = create_carrier(CARRIER, [one for one in services() if one.carrier == CARRIER], slow_seconds=0)
        self.carrier, self.drawn = httpx.ASGITransport(app), drawn
        self.most_sold = 0
        self.is_down = True  # as long as things may go wrong

    async def handle_async_request(self, request: httpx.Request) -> httpx.Response:
        await self._held_up()
        wrong = self.drawn.choice((*FAULTS, "", "", "never arrives")) if self.is_down else ""
        if wrong == "never arrives":
            raise httpx.ConnectError("no line")
        if wrong:
            await self.ask("POST", "/fault", {"fault": wrong, "times": 1})
        response = await self.carrier.handle_async_request(request)
        content = b""
        async for piece in response.stream:  # type: ignore[union-attr]
            content += piece
        self.most_sold = max(self.most_sold, await self.sold())
        await self._held_up()
        if wrong in SILENT:
            raise httpx.ReadTimeout("silent")
        if wrong in ("drops", "sold, then drops"):
            raise httpx.RemoteProtocolError("hung up")
        return httpx.Response(response.status_code, content=content)

    async def sold(self) -> int:
        """How many labels the carrier has sold that are not void, as its own page lists them: what it answered may have
        been lost, and a fault may have struck another question that was under way.
        """
        async with httpx.AsyncClient(transport=self.carrier, base_url=ADDRESS, trust_env=False) as client:
            return (await client.get("/")).text.count("<li>")

    async def is_sold(self, key: str) -> bool:
        """Whether it has one under a key."""
        async with httpx.AsyncClient(transport=self.carrier, base_url=ADDRESS, trust_env=False) as client:
            return (await client.get(f"/labels/{key}")).status_code == 200

    async def _held_up(self) -> None:
        for _ in range(self.drawn.randrange(4)):
            await asyncio.sleep(0)

    async def ask(self, method: str, path: str, body: Any = None) -> Any:
        """Asks the carrier itself, not over this line."""
        async with httpx.AsyncClient(transport=self.carrier, base_url=ADDRESS, trust_env=False) as client:
            return (await client.request(method, path, json=body)).json()


class Crashing(Labels):
    """Now and then the shop is gone between an answer and its saving."""

    drawn: random.Random

    def settle(self, *args: Any, **kwargs: Any) -> Label:
        if self.drawn.random() < 0.15:
            raise RuntimeError("the shop was ended")
        return super().settle(*args, **kwargs)


@pytest.fixture
def database(tmp_path: Path) -> Database:
    return Database(tmp_path / "shop.db")


async def interleave(seed: int, database: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    drawn = random.Random(seed)
    line = Line(drawn)
    monkeypatch.setattr(purchasing, "buy_label", partial(buy_label, transport=line))
    monkeypatch.setattr(purchasing, "void_label", partial(void_label, transport=line))
    job_id = (await asyncio.to_thread(Jobs(database).add, JobFile())).id
    crashing, sound = Crashing(database), Labels(database)
    crashing.drawn = drawn
    asked = {"from": "10440", "to": "73120", "home": True, "signature": False, "country": "", "currency": "USD",
             "parcels": [PARCEL]}  # fmt: skip
    quotes = []
    for _ in range(2):
        told = next(one for one in (await line.ask("POST", "/quotes", asked))["quotes"] if one["service"] == "Ground")
        quotes.append(GivenQuote(CARRIER, told["id"], told["service"], told["programme"], told["amount"], "USD"))
    await asyncio.to_thread(sound.keep_quotes, job_id, quotes)

    def opened(labels: Labels) -> Purchases:
        return Purchases(labels, lambda: [WireEntry(carrier=CARRIER, address=ADDRESS)], ONE_TRY)

    for _ in range(2):  # the shop is closed, and opened again
        shop = opened(crashing)
        pressed: list[Awaitable[Any]] = [shop.buy(job_id, drawn.choice(quotes)) for _ in range(4)]
        pressed += [shop.void(job_id) for _ in range(drawn.randrange(2))]
        pressed += [shop.ask_again(job_id) for _ in range(drawn.randrange(3))]
        drawn.shuffle(pressed)
        tasks = [asyncio.ensure_future(one) for one in pressed]
        for _ in range(drawn.randrange(6)):
            await asyncio.sleep(0)
        if drawn.random() < 0.3:
            drawn.choice(tasks).cancel()
        for done in await asyncio.gather(*tasks, return_exceptions=True):
            assert not isinstance(done, BaseException) or isinstance(
                done, NoAnswer | RuntimeError | asyncio.CancelledError
            ), repr(done)
    line.is_down = False
    await line.ask("POST", "/fault", {"fault": ""})
    shop = opened(sound)
    for _ in range(3):
        with suppress(NoAnswer):
            await shop.ask_again(job_id)
    assert line.most_sold <= 1, f"seed {seed}: two labels at once"
    rows = await asyncio.to_thread(database.read, "SELECT key, state FROM label WHERE job_id = ?", (job_id,))
    await line.ask("POST", "/fault", {"fault": ""})  # one that struck nobody
    for row in rows:
        assert await line.is_sold(row["key"]) == (row["state"] == "sold"), f"seed {seed}: {row['state']}"
    assert await line.sold() == sum(row["state"] == "sold" for row in rows), f"seed {seed}: forgotten"
    assert not any(row["state"] in ("asking", "voiding") for row in rows), f"seed {seed}: not settled"


@pytest.mark.parametrize("seeds", [range(50)])
def test_no_two_labels_are_sold_and_none_is_forgotten(
    seeds: range, database: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    for seed in seeds:
        asyncio.run(interleave(seed, database, monkeypatch))


def test_five_hundred_interleavings_sell_no_label_twice(database: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    for seed in range(1000, 1500):
        asyncio.run(interleave(seed, database, monkeypatch))


def test_the_line_tells_what_was_sold(database: Database) -> None:
    """The check itself: two keys are two labels."""
    line = Line(random.Random(1))
    line.is_down = False

    async def twice() -> None:
        asked = {"from": "10440", "to": "73120", "home": True, "currency": "USD", "parcels": [PARCEL]}
        told = next(one for one in (await line.ask("POST", "/quotes", asked))["quotes"] if one["service"] == "Ground")
        message = LabelAsked(quote=told["id"], at_most=told["amount"], currency="USD")
        for key in ("one", "two"):
            await buy_label(Wire(CARRIER, ADDRESS), message, key, patience=ONE_TRY, transport=line)

    asyncio.run(twice())
    assert line.most_sold == 2
