"""The shop on its own network: the way in, the devices that are signed in, the code that signs another in."""

from __future__ import annotations

import math
from typing import Annotated

from fastapi import Depends, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import HTMLResponse, JSONResponse
from pydantic import BaseModel, ConfigDict, Field

from fardo.api.context import ServedContext
from fardo.api.gate import CODE_LASTS_S, COOKIE, Gate, client_of, is_loopback, token_in
from fardo.api.problems import problem
from fardo.api.resource import resource
from fardo.core.refusal import NoAnswer
from fardo.files.qr import qr_svg
from fardo.store.access import LONGEST

router = resource("/api/access", "access")
page_router = resource("", "access")

_PAGE = """<!doctype html><html lang="en"><meta charset="utf-8"><title>Open the shop · Fardo</title>
<meta name="viewport" content="width=device-width, initial-scale=1"><link rel="stylesheet" href="/enter.css">
<link rel="icon" href="/bale.svg"><main><h1>Open the shop</h1>
<p>Type the shop's passphrase, or scan the code that a screen of the shop shows under Settings.</p>
<form><label for="passphrase">Passphrase</label>
<input id="passphrase" type="password" autocomplete="current-password" maxlength="200" required>
<button>Open</button></form><p id="says" role="alert"></p></main><script src="/enter.js" defer></script></html>"""


def _gate(request: Request) -> Gate | None:
    gate: Gate | None = request.app.state.gate
    return gate


OpenGate = Annotated[Gate | None, Depends(_gate)]


@page_router.get("/enter", include_in_schema=False)
def enter_page() -> HTMLResponse:
    return HTMLResponse(_PAGE, headers={"Cache-Control": "no-store"})


class Entering(BaseModel):
    """The passphrase, or a code from another screen."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"passphrase": "reel loom bobbin treadle"}]})
    passphrase: str = Field("", max_length=LONGEST)
    code: str = Field("", max_length=80)


@router.post("/enter")
async def enter(entering: Entering, request: Request, context: ServedContext, gate: OpenGate) -> Response:
    """Begins a session of this device, whose cookie no script and no other site can read or send."""
    if gate is None:
        return JSONResponse({"in": True})
    address = client_of(request.scope)
    if entering.code:
        if not gate.take_code(entering.code):
            return problem(403, "Not signed in", "The code is used up or too old; show a new one.")
        gate.know(address)
    else:
        async with gate.one_at_a_time:
            if (wait := gate.waits(address)) > 0:
                return _wait(math.ceil(wait))
            gate.begin_try(address)
            if not await run_in_threadpool(context.access.knows, entering.passphrase):
                return problem(403, "Not signed in", "That is not the passphrase.")
            gate.was_right(address)
    _, token = await run_in_threadpool(context.access.begin, _device_of(request, address))
    answer = JSONResponse({"in": True})
    answer.set_cookie(
        COOKIE, token, max_age=90 * 24 * 3600, httponly=True, samesite="strict", path="/",
        secure=request.url.scheme == "https",
    )  # fmt: skip
    return answer


def _wait(seconds: int) -> Response:
    answer = problem(429, "Too many tries", f"Too many wrong tries; try again in {seconds} seconds.")
    answer.headers["Retry-After"] = str(seconds)
    return answer


def _device_of(request: Request, address: str) -> str:
    """What a device is, as far as it says so, and its address on the network."""
    said = request.headers.get("user-agent", "").lower()
    return f"{'phone or tablet' if 'mobi' in said or 'tablet' in said else 'computer'} at {address}"


class SessionView(BaseModel):
    id: str
    device: str
    begun_at: str
    seen_at: str
    this_device: bool


class AccessView(BaseModel):
    """How the shop is reached."""

    on_network: bool = Field(description="whether it is served to other devices")
    addresses: list[str] = Field(description="at which they open it")
    plain: bool = Field(description="whether what is sent can be read on the network")
    has_passphrase: bool
    may_change: bool = Field(description="the passphrase, which is changed on the shop's own machine")
    sessions: list[SessionView]


@router.get("")
def get_access(request: Request, context: ServedContext, gate: OpenGate) -> AccessView:
    """How the shop is reached, and which devices are signed in."""
    own = context.access.session_of(token_in(request.headers))
    addresses: list[str] = request.app.state.addresses
    return AccessView(
        on_network=gate is not None, addresses=addresses, plain=not any(one.startswith("https") for one in addresses),
        has_passphrase=context.access.has_passphrase, may_change=_is_here(request),
        sessions=[
            SessionView(
                id=one.id, device=one.device, begun_at=one.begun_at, seen_at=one.seen_at,
                this_device=own is not None and own.id == one.id,
            )
            for one in context.access.sessions()
        ],
    )  # fmt: skip


def _is_here(request: Request) -> bool:
    return request.app.state.gate is None or is_loopback(client_of(request.scope))


class Passphrase(BaseModel):
    model_config = ConfigDict(json_schema_extra={"examples": [{"passphrase": "reel loom bobbin treadle"}]})
    passphrase: str = Field(max_length=1000)


@router.put("/passphrase")
def set_passphrase(wanted: Passphrase, request: Request, context: ServedContext, gate: OpenGate) -> AccessView:
    """Sets the passphrase, or another, on the shop's own machine; every session ends."""
    if not _is_here(request):
        raise NoAnswer("The passphrase is changed on the machine that serves the shop.")
    context.access.set_passphrase(wanted.passphrase)
    _look_again(gate)
    return get_access(request, context, gate)


def _look_again(gate: Gate | None) -> None:
    """Has what is being sent to devices looked at again: the session of one may have ended."""
    if gate is not None:
        gate.sessions_changed += 1


class CodeView(BaseModel):
    """A code that signs one device in."""

    address: str
    seconds: int
    svg: str = Field(description="the address as a QR code")


@router.post("/code")
def new_code(request: Request, gate: OpenGate) -> CodeView:
    """A code for a device to scan: it signs one in, within a few minutes."""
    if gate is None:
        raise NoAnswer("The shop is served to this machine only; start it with fardo serve --lan.")
    address = f"{request.app.state.addresses[0]}/enter#code={gate.new_code()}"
    return CodeView(address=address, seconds=int(CODE_LASTS_S), svg=qr_svg(address))


@router.delete("/sessions/{session_id}")
def end_session(session_id: str, request: Request, context: ServedContext, gate: OpenGate) -> AccessView:
    """Ends the session of a device; it must enter the passphrase again."""
    context.access.end(session_id)
    _look_again(gate)
    return get_access(request, context, gate)
