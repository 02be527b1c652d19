"""What every request passes: a known host, an origin of our own, a body of bearable size; and the headers that keep
the page to itself."""

from __future__ import annotations

from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fardo.api.problems import problem

LARGEST_BODY = 2_000_000
_LARGEST = {"/api/jobs/bundle": 120_000_000}  # a job with its photographs
# Read piece by piece by their router, which has limits of its own.
_READ_AS_IT_COMES = {"/api/files"}
_HOSTS = {"127.0.0.1", "localhost", "::1", "testserver"}
_HEADERS = {
    # Floating parts are placed by style attributes; no style sheet or script from elsewhere, or in the page, is run.
    "Content-Security-Policy": "default-src 'self'; style-src 'self'; style-src-attr 'unsafe-inline'; "
    "img-src 'self' data: blob:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
}


class Guard:
    """An ASGI layer around the whole application."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return

        async def send_guarded(message: Message) -> None:
            if message["type"] == "http.response.start":
                MutableHeaders(scope=message).update(_HEADERS)
                if scope["path"].startswith("/assets/"):
                    MutableHeaders(scope=message)["Cache-Control"] = "public, max-age=31536000, immutable"
            await send(message)

        headers = Headers(scope=scope)
        host = _host(headers)
        if host not in _HOSTS:
            refusal = problem(403, "Unknown host", f"This shop answers on 127.0.0.1 and localhost, not on {host}.")
        elif not _own_origin(headers):
            refusal = problem(403, "Foreign page", "Another site's page may not change anything here.")
        elif scope["path"] in _READ_AS_IT_COMES:
            await self._app(scope, receive, send_guarded)
            return
        else:
            most = _LARGEST.get(scope["path"], LARGEST_BODY)
            body, too_large = await _read_body(receive, headers, most)
            if not too_large:
                await self._app(scope, _replay(body, receive), send_guarded)
                return
            refusal = problem(413, "Too large", f"At most {most} bytes are taken at once.")
        await refusal(scope, receive, send_guarded)


def _host(headers: Headers) -> str | None:
    try:
        return urlsplit(f"//{headers.get('host', '')}").hostname
    except ValueError:  # brackets that are no address
        return None


def _own_origin(headers: Headers) -> bool:
    """Whether a page that says where it is from is one of ours; no origin at all is a program on this machine."""
    origin = headers.get("origin")
    return origin is None or origin.partition("://")[2] == headers.get("host")


async def _read_body(receive: Receive, headers: Headers, most: int) -> tuple[bytes, bool]:
    if headers.get("content-length", "0").isdigit() and int(headers.get("content-length", "0")) > most:
        return b"", True
    body = bytearray()
    while True:
        message = await receive()
        if message["type"] == "http.disconnect":
            return bytes(body), False
        body += message.get("body", b"")
        if len(body) > most:
            return b"", True
        if not message.get("more_body"):
            return bytes(body), False


def _replay(body: bytes, after: Receive) -> Receive:
    """Gives the body that was read, then whatever comes after it (a client that goes away)."""
    sent = False

    async def receive() -> Message:
        nonlocal sent
        if sent:
            return await after()
        sent = True
        return {"type": "http.request", "body": body, "more_body": False}

    return receive
