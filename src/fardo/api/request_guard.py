"""What every request passes: a known host, an origin of our own, a body of bearable size that comes in bearable time;
and the headers that keep the page to itself. Whatever goes wrong behind it becomes an answer.
"""

from __future__ import annotations

import asyncio
import logging
from collections.abc import Iterable

from starlette.concurrency import run_in_threadpool
from starlette.datastructures import Headers, MutableHeaders
from starlette.responses import RedirectResponse, Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fardo.api.gate import OPEN_TO_ALL, Gate, needs_no_session, token_in
from fardo.api.problems import problem, unforeseen
from fardo.wire.hosts import LOCAL_HOSTS, is_own_host, is_own_origin

LARGEST_BODY = 2_000_000
# Read piece by piece by their routers, which have limits of their own.
_READ_AS_IT_COMES = {"/api/files", "/api/jobs/bundle", "/api/keeping/archive"}
_SMALL = 100_000  # bytes; a body no larger than that is no burden
_LARGE_AT_ONCE = 2  # files and bundles that are held at the same time; others wait unread
_BODIES_AT_ONCE = 24  # other bodies that are not small
_OPEN_BODY = 4000  # bytes, of a device that is not signed in
_PAUSE_S = 15.0  # between two pieces of a body
_LEAST_RATE = 20_000  # bytes a second, once a pause's time is over
_HEADERS = {
    # Floating parts are placed by style attributes; no style sheet or script from elsewhere, or in the page, is run.
    "Content-Security-Policy": "default-src 'self'; style-src 'self'; style-src-attr 'unsafe-inline'; "
    "img-src 'self' data: blob:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


class _TooSlow(Exception):
    """A body stopped coming."""


class _SessionEnded(Exception):
    """The device that is being sent something is not signed in any more."""


class RequestGuard:
    """An ASGI layer around the whole application.

    Args:
        hosts: names that this machine goes by.
    """

    def __init__(self, app: ASGIApp, hosts: Iterable[str] = LOCAL_HOSTS) -> None:
        self._app = app
        self._hosts = tuple(hosts)
        self._large, self._bodies = asyncio.Semaphore(_LARGE_AT_ONCE), asyncio.Semaphore(_BODIES_AT_ONCE)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        begun = False

        async def send_guarded(message: Message) -> None:
            nonlocal begun
            if message["type"] == "http.response.start":
                begun = True
                headers = MutableHeaders(scope=message)
                headers.update(_HEADERS)
                if scope["path"].startswith("/assets/") and message["status"] in (200, 304):
                    headers["Cache-Control"] = "public, max-age=31536000, immutable"
            await send(message)

        try:
            await self._let_in(scope, _in_time(receive), send_guarded)
        except _TooSlow:
            if not begun:
                slow = problem(408, "Too slow", "The rest of the request did not come in time; nothing was changed.")
                slow.headers["Connection"] = "close"
                await slow(scope, receive, send_guarded)
        except Exception as fault:  # whatever it is, who asked is answered, and the connection lasts
            if _is_end_of_session(fault):
                await send({"type": "http.response.body", "body": b"", "more_body": False})
                return
            logging.getLogger("fardo").exception("a request failed: %s %s", scope["method"], scope["path"])
            if begun:
                raise
            await unforeseen(fault)(scope, receive, send_guarded)

    async def _let_in(self, scope: Scope, receive: Receive, send: Send) -> None:
        headers = Headers(scope=scope)
        host, length = headers.get("host"), _length(headers)
        gate: Gate | None = scope["app"].state.gate
        names = gate.names if gate is not None else self._hosts
        if not is_own_host(host, names):
            asked = (host or "no host")[:80]
            # On a network a page elsewhere that had its name point here is not told what this machine is called.
            here = f"This shop answers on 127.0.0.1 and localhost, not on {asked}."
            says = f"This shop does not answer to {asked}." if gate is not None else here
            await problem(403, "Unknown host", says)(scope, receive, send)
        elif not is_own_origin(headers.get("origin"), host, scope["scheme"]):
            says = "Another site's page may not change anything here."
            await problem(403, "Foreign page", says)(scope, receive, send)
        elif _is_asked_elsewhere(scope, headers):
            says = "Another site's page may not ask for anything here; open the shop's own page."
            await problem(403, "Foreign page", says)(scope, receive, send)
        elif gate is None or needs_no_session(scope, host or ""):
            await self._take_in(scope, receive, send, length)
        elif not await _has_session(scope, headers):
            await _show_the_way_in(scope, headers)(scope, receive, send)
        else:
            await self._take_in(scope, receive, _while_signed_in(send, scope, headers, gate), length)

    async def _take_in(self, scope: Scope, receive: Receive, send: Send, length: int | None) -> None:
        """Reads the body, as many at once as can be borne."""
        if scope["path"] in OPEN_TO_ALL:
            # Half bodies of devices that are not signed in must not take the places of those that are.
            if length is None or length > _OPEN_BODY:
                await _too_large(scope, receive, send, _OPEN_BODY)
            else:
                await self._with_body(scope, receive, send)
        elif scope["path"] in _READ_AS_IT_COMES and scope["method"] == "POST":
            async with self._large:
                await self._app(scope, receive, send)
        elif length is not None and length <= _SMALL:
            await self._with_body(scope, receive, send)
        elif length is not None and length > LARGEST_BODY:
            await _too_large(scope, receive, send)
        else:
            async with self._bodies:
                await self._with_body(scope, receive, send)

    async def _with_body(self, scope: Scope, receive: Receive, send: Send) -> None:
        body = await _read_body(receive)
        if body is None:
            await _too_large(scope, receive, send)
        else:
            await self._app(scope, _replay(body, receive), send)


def _is_asked_elsewhere(scope: Scope, headers: Headers) -> bool:
    """Whether a page of another site had the browser ask: an export is work, and its file would land unasked.

    A browser says so in Sec-Fetch-Site (Fetch Metadata, W3C); whoever types or follows an address may open a page.
    """
    from_elsewhere = headers.get("sec-fetch-site") in ("cross-site", "same-site")
    return from_elsewhere and scope["path"].startswith("/api/")


async def _has_session(scope: Scope, headers: Headers) -> bool:
    """Whether a request is of a device that is signed in."""
    token = token_in(headers)
    access = scope["app"].state.context.access
    return bool(token) and await run_in_threadpool(access.session_of, token) is not None


def _while_signed_in(send: Send, scope: Scope, headers: Headers, gate: Gate) -> Send:
    """Sends a stream for as long as its device is signed in."""
    looked = gate.sessions_changed

    async def send_signed_in(message: Message) -> None:
        nonlocal looked
        if message.get("more_body") and looked != gate.sessions_changed:
            looked = gate.sessions_changed
            if not await _has_session(scope, headers):
                raise _SessionEnded
        await send(message)

    return send_signed_in


def _is_end_of_session(fault: Exception) -> bool:
    """Whether that is all that went wrong; the tasks that send a stream raise in groups."""
    if isinstance(fault, ExceptionGroup):
        return fault.split(_SessionEnded)[1] is None
    return isinstance(fault, _SessionEnded)


def _show_the_way_in(scope: Scope, headers: Headers) -> Response:
    if scope["method"] == "GET" and "text/html" in headers.get("accept", ""):
        return RedirectResponse("/enter", 303)
    return problem(401, "Not signed in", "This device is not signed in: open the shop's address, enter its passphrase.")


async def _too_large(scope: Scope, receive: Receive, send: Send, most: int = LARGEST_BODY) -> None:
    refusal = problem(413, "Too large", f"At most {most} bytes are taken at once.")
    await refusal(scope, receive, send)


def _length(headers: Headers) -> int | None:
    """Of the body as it is told, 0 where there is none; None where it is not told."""
    told = headers.get("content-length")
    if told is None:
        return None if "transfer-encoding" in headers else 0
    return int(told) if told.isascii() and told.isdigit() and len(told) < 16 else None


def _in_time(receive: Receive) -> Receive:
    """The same body, given up where it stops coming or dribbles. What comes after it is waited for without an end."""
    begun: float | None = None
    size = 0
    whole = False

    async def receive_in_time() -> Message:
        nonlocal begun, size, whole
        if whole:
            return await receive()
        now = asyncio.get_running_loop().time()
        begun = begun if begun is not None else now
        rest = _PAUSE_S + size / _LEAST_RATE - (now - begun)
        try:
            async with asyncio.timeout(max(0.0, min(_PAUSE_S, rest))):
                message = await receive()
        except TimeoutError as late:
            raise _TooSlow from late
        size += len(message.get("body", b""))
        whole = message["type"] != "http.request" or not message.get("more_body")
        return message

    return receive_in_time


async def _read_body(receive: Receive) -> bytes | None:
    """None for one that is too large."""
    body = bytearray()
    while True:
        message = await receive()
        if message["type"] == "http.disconnect":
            return bytes(body)
        body += message.get("body", b"")
        if len(body) > LARGEST_BODY:
            return None
        if not message.get("more_body"):
            return bytes(body)


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
