"""A simulated device on a port of this machine: its page, to which no other site's page may speak."""

from __future__ import annotations

import threading
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any, NamedTuple, Protocol

from fardo.wire.hosts import is_own_host, is_own_origin

_WAITS_S = 10


class Answer(NamedTuple):
    """What a device answers a request with."""

    content: bytes
    media_type: str = "text/html; charset=utf-8"
    status: int = 200


class Device(Protocol):
    """An instrument or a machine with a page.

    Args:
        largest: of what it is sent it reads so many bytes; the rest of a form is left out.
    """

    largest: int

    def got(self, path: str) -> Answer:
        """What stands at a path."""
        ...

    def sent(self, path: str, media_type: str, content: bytes) -> Answer:
        """What comes of what was sent to a path."""
        ...


def serve_device(device: Device, port: int) -> ThreadingHTTPServer:
    """It on a port of this machine, served by a thread of its own. Raises OSError where the port is taken."""

    class Handler(BaseHTTPRequestHandler):
        timeout = _WAITS_S  # a page that stops in the middle of a request is hung up on

        def do_GET(self) -> None:
            if self._is_ours():
                self._answer(device.got(self.path))

        def do_POST(self) -> None:
            if not self._is_ours():
                return
            length = _length(self.headers.get("Content-Length"))
            content = self.rfile.read(min(length, device.largest))
            self._answer(device.sent(self.path, self.headers.get("Content-Type", ""), content))

        def _is_ours(self) -> bool:
            """Whether it is asked for on this machine and by no other site's page; refuses it otherwise."""
            host = self.headers.get("Host")
            ours = is_own_host(host) and is_own_origin(self.headers.get("Origin"), host)
            if not ours:
                refused = b"<!doctype html><title>Refused</title><p>Another site's page may not press here."
                self._answer(Answer(refused, status=403))
            return ours

        def _answer(self, answer: Answer) -> None:
            self.send_response(answer.status)
            self.send_header("Content-Type", answer.media_type)
            self.send_header("Content-Length", str(len(answer.content)))
            self.end_headers()
            self.wfile.write(answer.content)

        def log_message(self, *_: Any) -> None:
            """Says nothing; what came of a press stands on its page."""

    server = ThreadingHTTPServer(("127.0.0.1", port), Handler)
    threading.Thread(target=server.serve_forever, args=(0.05,), daemon=True).start()
    return server


def _length(told: str | None) -> int:
    return int(told) if told and told.isascii() and told.isdigit() and len(told) < 10 else 0
