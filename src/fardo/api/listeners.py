"""The pages that are open and listen: they are told what devices read, and what was changed in the shop they show."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncGenerator
from typing import Literal

from fastapi.concurrency import run_in_threadpool
from fastapi.sse import ServerSentEvent
from pydantic import BaseModel, ConfigDict, Field

from fardo.api.context import AppContext
from fardo.store.changes import changed_since, mark_of

_MOST_WAITING = 20


class Reading(BaseModel):
    """What a device read, with its unit."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"device": "tape", "reading": "10 1/2 in"}]})
    device: Literal["tape", "scale"]
    reading: str = Field(max_length=80, description="empty for an overload")
    state: Literal["settled", "settling", "overload"] = "settled"


class JobChangedView(BaseModel):
    """A job that was changed, archived or restored, and what the page that did so called it."""

    id: str
    revision: int
    change: str


class ShopChanged(BaseModel):
    """What was changed since the page was told last."""

    jobs: list[JobChangedView]
    settings: bool = Field(description="the settings or a tariff")
    at_the_bench: bool = Field(description="a tick, a closed parcel, a recipient, a cut or a label")
    whole: bool = Field(description="all of it may be another: a copy was put in the shop's place")


class _Page:
    """One that listens, with what it has not been told yet; None stands for a change of the shop."""

    def __init__(self) -> None:
        self.waiting: asyncio.Queue[Reading | None] = asyncio.Queue()
        self._loop = asyncio.get_running_loop()
        self._woken = False

    def take(self, reading: Reading) -> None:
        # A page that does not keep up misses the oldest reading, and no change.
        if self.waiting.qsize() >= _MOST_WAITING and self.waiting.get_nowait() is None:
            self.waiting.put_nowait(None)
            self.waiting.get_nowait()
        self.waiting.put_nowait(reading)

    def wake(self) -> None:
        """From whichever thread wrote: the shop was changed."""
        if not self._loop.is_closed():
            self._loop.call_soon_threadsafe(self._note_change)

    def _note_change(self) -> None:
        if not self._woken:  # several in a breath are told once
            self._woken = True
            self.waiting.put_nowait(None)

    async def next(self) -> Reading | None:
        found = await self.waiting.get()
        if found is None:
            self._woken = False
        return found


class Listeners:
    """Every open page of a server."""

    def __init__(self) -> None:
        self._pages: set[_Page] = set()

    def tell(self, reading: Reading) -> int:
        """Passes a reading on; to how many pages."""
        for page in self._pages:
            page.take(reading)
        return len(self._pages)

    async def listen(self, context: AppContext) -> AsyncGenerator[ServerSentEvent]:
        """Readings and changes as they come, for as long as somebody listens.

        Args:
            context: the shop that the page shows.
        """
        page = _Page()
        self._pages.add(page)
        unwatch = context.database.watch(page.wake)
        try:
            seen = await run_in_threadpool(mark_of, context.database)
            yield ServerSentEvent(comment="listening")
            while True:
                found = await page.next()
                if found is not None:
                    yield ServerSentEvent(event="reading", data=found)
                    continue
                seen, changed = await run_in_threadpool(changed_since, context.database, seen)
                if changed:
                    yield ServerSentEvent(
                        event="changed", data=ShopChanged.model_validate(changed, from_attributes=True)
                    )
        finally:
            unwatch()
            self._pages.discard(page)
