"""Readings of a tape or a scale: sent in by the device, passed on to every page that listens."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncGenerator, AsyncIterator
from contextlib import aclosing
from typing import Literal

from fastapi import Request
from fastapi.concurrency import run_in_threadpool
from fastapi.sse import EventSourceResponse, ServerSentEvent
from pydantic import BaseModel, ConfigDict, Field

from fardo.api.context import Context
from fardo.api.resource import resource
from fardo.core.quantity import read_length, read_mass
from fardo.files.typed import BARE_MASS

router = resource("/api/devices", "devices")

_MOST_WAITING = 20


class Readings:
    """The pages that listen, each with what it has not been told yet."""

    def __init__(self) -> None:
        self._listening: set[asyncio.Queue[Reading]] = set()

    def tell(self, reading: Reading) -> int:
        """Passes a reading on; to how many pages."""
        for queue in self._listening:
            if queue.full():
                queue.get_nowait()  # a page that does not keep up misses the oldest
            queue.put_nowait(reading)
        return len(self._listening)

    async def listen(self) -> AsyncGenerator[ServerSentEvent]:
        """Readings as they come; first a comment, that the page is listened to."""
        queue: asyncio.Queue[Reading] = asyncio.Queue(_MOST_WAITING)
        self._listening.add(queue)
        try:
            yield ServerSentEvent(comment="listening")
            while True:
                yield ServerSentEvent(data=await queue.get())
        finally:
            self._listening.discard(queue)


class Reading(BaseModel):
    """What a device read, with its unit."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"device": "tape", "reading": "10 1/2 in"}]})
    device: Literal["tape", "scale"]
    reading: str = Field(max_length=80, description="empty for an overload")
    state: Literal["settled", "settling", "overload"] = "settled"


class Heard(BaseModel):
    heard: int = Field(description="how many open pages were told")


@router.post("/readings")
async def take_reading(reading: Reading, request: Request, context: Context) -> Heard:
    """Passes a reading on to every page that listens; 422 for what is no measure of its kind."""
    units = await run_in_threadpool(lambda: context.today.shop.units)
    if reading.state == "overload":
        pass  # it has no figure
    elif reading.device == "tape":
        read_length(reading.reading, units, zero=True, field="reading")
    else:
        read_mass(reading.reading, BARE_MASS[units], zero=True, field="reading")
    readings: Readings = request.app.state.readings
    return Heard(heard=readings.tell(reading))


@router.get("/stream", response_class=EventSourceResponse)
async def stream(request: Request) -> AsyncIterator[ServerSentEvent]:
    """Readings as server-sent events, for as long as the page listens."""
    readings: Readings = request.app.state.readings
    async with aclosing(readings.listen()) as told:
        async for one in told:
            yield one
