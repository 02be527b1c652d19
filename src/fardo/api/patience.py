"""Connections that send half a request and stop are closed after a time, so that they cannot be piled up."""

from __future__ import annotations

import asyncio
from typing import cast

from uvicorn.protocols.http.h11_impl import H11Protocol

HEAD_S = 10.0  # for the first line and the headers of a request


class PatientProtocol(H11Protocol):
    """The server's own, which waits for the head of a request without an end, with an end to that."""

    _late: asyncio.TimerHandle | None = None

    def connection_made(self, transport: asyncio.BaseTransport) -> None:
        super().connection_made(cast(asyncio.Transport, transport))
        self._wait_for_head()

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        # The server's own timer ends a connection on which nothing comes; this one, one on which half a request did.
        if self._answering():
            self._stop_waiting()
        else:
            self._wait_for_head()

    def connection_lost(self, exc: Exception | None) -> None:
        self._stop_waiting()
        super().connection_lost(exc)

    def _answering(self) -> bool:
        return self.cycle is not None and not self.cycle.response_complete

    def _wait_for_head(self) -> None:
        if self._late is None:
            self._late = self.loop.call_later(HEAD_S, self._give_up)

    def _stop_waiting(self) -> None:
        if self._late is not None:
            self._late.cancel()
            self._late = None

    def _give_up(self) -> None:
        self._late = None
        if not self._answering():
            self.transport.close()
