"""Readings of a tape or a scale, passed on to every open page; and what an open page is told."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import aclosing

from fastapi import Request
from fastapi.concurrency import run_in_threadpool
from fastapi.sse import EventSourceResponse, ServerSentEvent
from pydantic import BaseModel, Field

from fardo.api.context import Context
from fardo.api.listeners import Listeners, Reading
from fardo.api.resource import resource
from fardo.core.quantity import read_length, read_mass
from fardo.files.typed import BARE_MASS

router = resource("/api/devices", "devices")


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
    listeners: Listeners = request.app.state.listeners
    return Heard(heard=listeners.tell(reading))


@router.get("/stream", response_class=EventSourceResponse)
async def stream(request: Request, context: Context) -> AsyncIterator[ServerSentEvent]:
    """What an open page is told, as server-sent events: `reading` of a device, `changed` of the shop it shows."""
    listeners: Listeners = request.app.state.listeners
    async with aclosing(listeners.listen(context)) as told:
        async for one in told:
            yield one
