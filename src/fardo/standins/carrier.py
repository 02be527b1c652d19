"""A carrier's own service, simulated: it quotes, sells labels and tracks over HTTP, with faults on request.

It prices by a tariff like anybody, but by its own: its fuel is not what the shop's copy says, as happens every week. It
speaks fardo-wire/1, see docs/formats/carrier-wire.md. ``POST /fault {"fault": "slow", "times": 2}`` makes its next two
answers slow; without `times` all of them, until ``{"fault": ""}``.
"""

from __future__ import annotations

import asyncio
import secrets
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime
from fractions import Fraction
from html import escape
from typing import Any, Literal

from fastapi import FastAPI, Header, Request
from fastapi.responses import HTMLResponse, JSONResponse, Response
from pydantic import BaseModel, Field

from fardo.core.quantity import Length, Mass, Money
from fardo.core.refusal import BadInput
from fardo.core.tariff.charges import Charge, Conditional, Fuel, PerConsignment
from fardo.core.tariff.parcel import Parcel, read_postcode
from fardo.core.tariff.service import Quote, Service, quote
from fardo.wire.hosts import is_own_host, is_own_origin
from fardo.wire.messages import LabelAsked, QuotesAsked

FAULTS = {
    "": "none",
    "slow": "answers after twenty seconds",
    "error": "answers that it has trouble of its own",
    "nonsense": "answers what is no answer",
    "wrong sum": "its lines do not add up",
    "changed": "asks more for a label than it quoted",
    "drops": "hangs up in the middle",
    "sold, then silent": "sells a label, then does not answer for twenty seconds",
    "sold, then nonsense": "sells a label, then answers what is no answer",
    "sold, then drops": "sells a label, then hangs up in the middle",
    "sold dearer": "sells a label for more than was agreed to",
    "key refused": "refuses a second question under one key, whatever it sold",
}
_AFTER_SALE = ("sold, then silent", "sold, then nonsense", "sold, then drops", "sold dearer", "key refused")
_SLOW_SECONDS = 20.0
_FUEL_MORE = Fraction(5, 4)  # per cent, since the shop's copy was made
_MOST_KEPT = 2000


class Fault(BaseModel):
    fault: Literal[
        "", "slow", "error", "nonsense", "wrong sum", "changed", "drops", "sold, then silent", "sold, then nonsense",
        "sold, then drops", "sold dearer", "key refused",
    ]  # fmt: skip
    times: int = Field(0, ge=0, le=1000, description="of so many answers; 0 for all")


# The stations of a parcel after its label was sold: its state there, and what is told of it.
_JOURNEY = (
    ("accepted", "accepted at the counter"), ("on the way", "left the sorting centre"),
    ("out for delivery", "out for delivery"), ("delivered", "delivered"),
)  # fmt: skip


@dataclass
class _Books:
    """What it remembers."""

    fault: str = ""
    left: int = 0
    quotes: dict[str, Quote] = field(default_factory=dict)
    sold: dict[str, dict[str, str]] = field(default_factory=dict)
    by_key: dict[str, str] = field(default_factory=dict)
    voided: set[str] = field(default_factory=set)
    moved: dict[str, list[dict[str, str]]] = field(default_factory=dict)
    asked: int = 0

    def next_fault(self, path: str) -> str:
        """Of this answer; counts it off. What goes wrong with a sale goes wrong nowhere else."""
        self.asked += 1
        fault = self.fault
        if fault in _AFTER_SALE and path != "/labels":
            return ""
        if fault and self.left:
            self.left -= 1
            if not self.left:
                self.fault = ""
        return fault


def create_carrier(name: str, tariff: Sequence[Service], slow_seconds: float = _SLOW_SECONDS) -> FastAPI:
    """The carrier's service.

    Args:
        tariff: as the shop has it.
    """
    app = FastAPI(title=f"{name}, simulated", docs_url=None, redoc_url=None, openapi_url=None)
    services, books = [_by_now(service) for service in tariff], _Books()

    @app.middleware("http")
    async def faulty(request: Request, call_next: Any) -> Response:
        host, path = request.headers.get("host"), request.url.path
        if not (is_own_host(host) and is_own_origin(request.headers.get("origin"), host)):
            return JSONResponse({"why": "asked for by another host, or by another site's page"}, 403)
        fault = "" if path in ("/", "/fault", "/move") else books.next_fault(path)
        request.state.fault = fault
        if fault == "slow":
            await asyncio.sleep(slow_seconds)
        if fault == "error":
            return JSONResponse({"why": "a fault of ours"}, 503)
        if fault == "nonsense":
            return _nonsense()
        if fault == "drops":
            return _cut_off()
        found: Response = await call_next(request)
        if fault == "sold, then silent":
            await asyncio.sleep(slow_seconds)
        if fault == "sold, then nonsense":
            return _nonsense()
        return _cut_off() if fault == "sold, then drops" else found

    @app.post("/quotes")
    def quotes(asked: QuotesAsked, request: Request) -> Response:
        try:
            parcel = _parcel(asked)
        except BadInput as problem:
            return JSONResponse({"why": problem.sentence}, 422)
        found = [(one, quote(one, parcel)) for one in services]
        told = [_tell(one, books, request.state.fault) for _, one in found if isinstance(one, Quote)]
        refused = [
            {"service": of.name, "programme": of.rate_plan, "why": one.why}
            for of, one in found
            if not isinstance(one, Quote)
        ]
        return JSONResponse({"quotes": told, "refused": refused})

    @app.post("/labels", status_code=201)
    def labels(asked: LabelAsked, request: Request, idempotency_key: str = Header("", max_length=80)) -> Response:
        if idempotency_key in books.voided:
            return JSONResponse({"why": "void"}, 410)
        if idempotency_key in books.by_key:
            if request.state.fault == "key refused":
                return JSONResponse({"why": "this key was used already"}, 409)
            return JSONResponse(books.sold[books.by_key[idempotency_key]], 201)
        found = books.quotes.get(asked.quote)
        if found is None:
            return JSONResponse({"why": "no such quote, or too old"}, 404)
        amount = found.amount
        if request.state.fault in ("changed", "sold dearer"):
            amount = amount + amount.share(Fraction(8, 100))
        told = {"amount": str(amount), "currency": amount.currency}
        dearer = asked.currency != amount.currency or Money.read(asked.at_most, asked.currency) < amount
        if dearer and request.state.fault != "sold dearer":
            return JSONResponse({"why": "the price has changed", **told}, 409)
        tracking = f"T{secrets.randbelow(10**10):010d}"
        books.sold[tracking] = {"tracking": tracking, **told, "sold_at": _now()}
        if idempotency_key:
            books.by_key[idempotency_key] = tracking
        return JSONResponse(books.sold[tracking], 201)

    @app.get("/labels/{key}")
    def sold_under(key: str) -> Response:
        if key not in books.by_key:
            return JSONResponse({"why": "nothing is sold under this key"}, 404)
        return JSONResponse(books.sold[books.by_key[key]])

    @app.delete("/labels/{key}")
    def void(key: str) -> Response:
        """Voids what was sold under a key; nothing is sold under it any more."""
        tracking = books.by_key.pop(key, None)
        if tracking is not None:
            del books.sold[tracking]
        books.voided.add(key)
        return JSONResponse({"state": "void"})

    @app.get("/tracking/{number}")
    def tracking(number: str) -> Response:
        sold = books.sold.get(number)
        if sold is None:
            return JSONResponse({"why": "no such parcel"}, 404)
        moved = books.moved.get(number, [])
        events = [{"at": sold["sold_at"], "what": "label sold; waiting for the parcel"}, *moved]
        state = _JOURNEY[len(moved) - 1][0] if moved else "label sold"
        return JSONResponse({"tracking": number, "state": state, "events": events})

    @app.post("/move")
    async def move(request: Request) -> Response:
        """Every parcel goes on by one station, as nothing travels here by itself; from its own page's form."""
        for number in books.sold:
            moved = books.moved.setdefault(number, [])
            if len(moved) < len(_JOURNEY):
                moved.append({"at": _now(), "what": _JOURNEY[len(moved)][1]})
        return HTMLResponse(_page(name, books))

    @app.post("/fault")
    async def fault(request: Request) -> Response:
        """As JSON, or from its own page's form."""
        if request.headers.get("content-type", "").startswith("application/json"):
            wanted = Fault.model_validate_json(await request.body())
            books.fault, books.left = wanted.fault, wanted.times
            return JSONResponse({"fault": books.fault})
        books.fault, books.left = str((await request.form()).get("fault", "")), 0
        return HTMLResponse(_page(name, books))

    @app.get("/")
    def page() -> HTMLResponse:
        return HTMLResponse(_page(name, books))

    return app


def _nonsense() -> Response:
    return HTMLResponse("<h1>Welcome to our new site</h1>")


def _cut_off() -> Response:
    return Response(b'{"quotes": [', headers={"Content-Length": "4000"}, media_type="application/json")


def _by_now(service: Service) -> Service:
    return replace(service, charges=tuple(_dearer(charge) for charge in service.charges))


def _dearer(charge: Charge) -> Charge:
    """The charge with the fuel of this week in the place of the tariff's."""
    if isinstance(charge, Conditional | PerConsignment):
        return replace(charge, charged=_dearer(charge.charged))
    return replace(charge, percent=charge.percent + _FUEL_MORE) if isinstance(charge, Fuel) else charge


def _parcel(asked: QuotesAsked) -> Parcel:
    parcels = [
        Parcel(
            tuple(Length.of_mm(side) for side in one.sides_mm), Mass.of_grams(one.weight_g),  # type: ignore[arg-type]
            read_postcode(asked.origin), read_postcode(asked.to), asked.home, signature=asked.signature,
            form=one.form, country=asked.country,  # type: ignore[arg-type]
            value=Money.read(one.value, asked.currency) if one.value else None,
        )
        for one in asked.parcels
    ]  # fmt: skip
    return replace(parcels[0], beside=tuple(parcels[1:]))


def _tell(found: Quote, books: _Books, fault: str) -> dict[str, Any]:
    number = secrets.token_hex(8)
    if len(books.quotes) >= _MOST_KEPT:
        books.quotes.pop(next(iter(books.quotes)))
    books.quotes[number] = found
    lines = found.lines[1:] if fault == "wrong sum" else found.lines
    return {
        "id": number, "service": found.service, "programme": found.rate_plan, "amount": str(found.amount),
        "currency": found.amount.currency, "days": list(found.days),
        "charges": [{"kind": line.kind, "what": line.what, "amount": str(line.amount)} for line in lines],
    }  # fmt: skip


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")


def _page(name: str, books: _Books) -> str:
    options = "".join(
        f'<option value="{code}"{" selected" if code == books.fault else ""}>{words}</option>'
        for code, words in FAULTS.items()
    )
    sold = "".join(f"<li>{escape(one['tracking'])}: {escape(one['amount'])}</li>" for one in books.sold.values())
    return f"""<!doctype html><html lang="en"><meta charset="utf-8"><title>{escape(name)}, simulated</title>
<style>body{{font:18px/1.5 sans-serif;margin:2em auto;max-width:26em}}
select,button{{font:inherit;padding:.3em .5em}}</style>
<h1>{escape(name)}, simulated</h1><p>Asked {books.asked} times. What it quotes has this week's fuel in it.</p>
<form method="post" action="/fault"><label>Fault <select name="fault">{options}</select></label>
<button>Set</button></form><form method="post" action="/move"><button>Move every parcel on</button></form>
<p role="status">{escape(FAULTS.get(books.fault, ""))}</p><ul>{sold}</ul></html>"""
