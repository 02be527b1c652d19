"""One request over the network and its whole answer, within one deadline and one size.

What waits between two pieces of an answer only is held for ever by whoever sends a byte every few seconds; so every
call of the shop, to carriers and printers alike, goes through here.
"""

from __future__ import annotations

import asyncio
from dataclasses import dataclass

import httpx

Transport = httpx.AsyncBaseTransport


@dataclass(frozen=True, slots=True)
class Bounds:
    """How long one request may take and how much its answer may be.

    Args:
        connect_s: seconds until the connection stands.
        read_s: seconds between two pieces of the answer.
        whole_s: seconds from the first byte sent to the last received.
        most_bytes: of the answer's body.
    """

    connect_s: float
    read_s: float
    whole_s: float
    most_bytes: int


class AnswerTooLarge(Exception):
    """The answer's body is more than is read."""


class AnswerTooLate(Exception):
    """The answer was not complete in time; what was asked may have been done."""


def open_client(bounds: Bounds, transport: Transport | None = None) -> httpx.AsyncClient:
    """A client without the machine's proxies, cookies and netrc, which have no say in what the shop asks."""
    times = httpx.Timeout(bounds.read_s, connect=bounds.connect_s)
    return httpx.AsyncClient(timeout=times, transport=transport, trust_env=False, follow_redirects=False)


async def exchange(
    client: httpx.AsyncClient, method: str, url: str, content: bytes | str | None, headers: dict[str, str],
    bounds: Bounds,
) -> tuple[int, bytes]:  # fmt: skip
    """Status and body of the answer.

    Args:
        client: from `open_client`.
        content: of the request, or None.
        headers: of the request.

    Raises:
        AnswerTooLate, AnswerTooLarge: where it is out of bounds.
        httpx.HTTPError, httpx.InvalidURL, ValueError: as the client raises them.
    """
    # Not packed: 64 kB can be unpacked to hundreds of megabytes before its size is known.
    asked = {**headers, "Accept-Encoding": "identity"}
    body = bytearray()
    try:
        async with (
            asyncio.timeout(bounds.whole_s),
            client.stream(method, url, content=content, headers=asked) as answer,
        ):
            if answer.headers.get("content-encoding", "identity") != "identity":
                raise ValueError("packed, which was not asked for")
            async for piece in answer.aiter_bytes():
                body += piece
                if len(body) > bounds.most_bytes:
                    raise AnswerTooLarge
    except TimeoutError as late:
        raise AnswerTooLate from late
    return answer.status_code, bytes(body)
