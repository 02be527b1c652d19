"""Calls over the network end: whoever drips an answer, floods it or packs it is left, and keeps nobody else waiting."""

from __future__ import annotations

import asyncio
import gzip
from collections.abc import AsyncIterator

import httpx
import pytest

from fardo.api.purchases import Purchases
from fardo.core.refusal import NoAnswer
from fardo.files.shop import WireEntry
from fardo.store.labels import Label
from fardo.wire.call import Patience, Trouble, Wire, call
from fardo.wire.exchange import Bounds, open_client
from fardo.wire.messages import TrackingSaid
from fardo.wire.printer import print_out

BOUNDS = Bounds(connect_s=1, read_s=1, whole_s=0.2, most_bytes=10_000)
PATIENCE = Patience(read=1, whole=0.2, tries=1, in_all=0)
DRIPS = 60  # pieces a hundredth of a second apart: three times as long as is waited


class Answers(httpx.AsyncBaseTransport):
    """A server whose answer comes in pieces.

    Args:
        pieces: of the body, each with the seconds before it.
        headers: of the answer.
    """

    def __init__(self, pieces: list[tuple[float, bytes]], headers: dict[str, str] | None = None) -> None:
        self.pieces, self.headers, self.sent = pieces, headers or {}, 0

    async def handle_async_request(self, request: httpx.Request) -> httpx.Response:
        return httpx.Response(200, headers=self.headers, stream=_Pieces(self))


class _Pieces(httpx.AsyncByteStream):
    def __init__(self, server: Answers) -> None:
        self.server = server

    async def __aiter__(self) -> AsyncIterator[bytes]:
        for pause, piece in self.server.pieces:
            await asyncio.sleep(pause)
            self.server.sent += len(piece)
            yield piece


def dripping(whole: bytes) -> Answers:
    return Answers([(0.01, b" ")] * DRIPS + [(0.0, whole)])


def flooding() -> Answers:
    return Answers([(0.0, b" " * 5000)] * 100_000)


def track(server: Answers) -> TrackingSaid:
    async def asked() -> TrackingSaid:
        async with open_client(PATIENCE.bounds, server) as client:
            wire = Wire("Oddbarrow", "http://127.0.0.1")
            return (await call(client, wire, "GET", "tracking/1", TrackingSaid, PATIENCE))[0]

    return asyncio.run(asked())


def test_a_printer_that_drips_its_answer_is_not_waited_for() -> None:
    with pytest.raises(NoAnswer, match="does not answer in time; look whether it printed"):
        asyncio.run(print_out("http://127.0.0.1", b"%PDF", bounds=BOUNDS, transport=dripping(b'{"pages": 1}')))


def test_a_carrier_that_drips_its_answer_is_slow() -> None:
    with pytest.raises(Trouble) as trouble:
        track(dripping(b'{"tracking": "1", "state": "on the way"}'))
    assert (trouble.value.state, trouble.value.uncertain) == ("slow", True)


def test_a_flood_is_not_read() -> None:
    server = flooding()
    with pytest.raises(NoAnswer, match="answers what cannot be read"):
        asyncio.run(print_out("http://127.0.0.1", b"%PDF", bounds=BOUNDS, transport=server))
    assert server.sent <= 2 * BOUNDS.most_bytes
    server = flooding()
    with pytest.raises(Trouble, match="more than 1000 kB"):
        track(server)
    assert server.sent <= 2 * 1_000_000


def test_a_packed_answer_is_not_unpacked() -> None:
    packed = gzip.compress(b" " * 50_000_000)
    with pytest.raises(Trouble) as trouble:
        track(Answers([(0.0, packed)], {"Content-Encoding": "gzip"}))
    assert trouble.value.state == "nonsense"


class Asked:
    """Stands for the kept labels, and notes which of them were asked about."""

    def __init__(self, *carriers: str) -> None:
        self.labels = [a_label(f"key {n}", carrier) for n, carrier in enumerate(carriers)]

    def unsettled(self) -> list[Label]:
        return self.labels

    def get(self, key: str) -> Label:
        return next(label for label in self.labels if label.key == key)


def a_label(key: str, carrier: str) -> Label:
    return Label(
        key=key, job_id="job", carrier=carrier, service="Ground", programme="account", quote="q", at_most="24.10",
        currency="USD", state="asking", says="", tracking=None, amount=None,
        sold_currency=None, meant_at="2026-12-02T10:00:00Z", settled_at=None,
    )  # fmt: skip


def test_a_carrier_that_hangs_keeps_no_other_from_being_asked_about_its_labels() -> None:
    kept = Asked(*["Oxbridge Carts"] * 6, "Oddbarrow")
    hung: list[str] = []
    last = asyncio.Event()

    async def ask(self: Purchases, label: Label, asked_before: bool) -> Label:
        if label.carrier == "Oddbarrow":
            last.set()
            return label
        hung.append(label.key)
        await asyncio.Event().wait()
        return label

    async def asked() -> None:
        purchases = Purchases(kept, list[WireEntry])  # type: ignore[arg-type]
        purchases._ask = ask.__get__(purchases)  # type: ignore[method-assign]
        task = asyncio.create_task(purchases.keep_asking())
        await last.wait()
        assert len(hung) == 4  # and of the one that hangs no more than these are asked at once
        task.cancel()
        await asyncio.gather(task, return_exceptions=True)

    asyncio.run(asked())
