"""The application: its routers, what guards it, and the page it serves."""

from __future__ import annotations

import asyncio
import logging
from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager
from datetime import date
from importlib.resources import files
from pathlib import Path

from fastapi import FastAPI, HTTPException
from fastapi.concurrency import run_in_threadpool
from fastapi.middleware.gzip import GZipMiddleware
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.staticfiles import StaticFiles

from fardo import __version__
from fardo.api import arranged, bench, price_steps
from fardo.api import cutting as cutting_plan
from fardo.api.bench import Bench
from fardo.api.context import AppContext, Crews
from fardo.api.listeners import Listeners
from fardo.api.made_up import MadeUp
from fardo.api.problems import answer_with_problems
from fardo.api.purchases import Purchases
from fardo.api.request_guard import RequestGuard
from fardo.api.routers import (
    access,
    arrange,
    coming_prices,
    cutting,
    devices,
    jobs,
    keeping,
    kinds,
    made_up,
    packing,
    papers,
    parcels,
    plans,
    practice,
    recipients,
    revisions,
    sending,
    shapes,
    sheets,
    shop,
    tariffs,
    wires,
    work,
)
from fardo.api.routers import files as sent_files
from fardo.api.runs import Runs
from fardo.store.copies import copy_daily
from fardo.store.faults import StoreError

_RECKONED = tuple(module.__name__ for module in (arranged, bench, cutting_plan, price_steps))
_BESIDE = ("theme.js", "bale.svg", "enter.js", "enter.css", "notices.txt")
_COPIES_LOOKED_AT_S = 3600
_ROOMS = ("/", "/settings", "/start", "/kinds", "/cutting", "/tariffs", "/jobs/{key}", "/jobs/{key}/{station}")


@asynccontextmanager
async def _while_open(app: FastAPI) -> AsyncIterator[None]:
    """Asks about labels that are not settled, and works out what the bench shows first; ends searches and the processes
    beside with the application.
    """
    asking = asyncio.create_task(app.state.purchases.keep_asking())
    renewing = asyncio.create_task(run_in_threadpool(app.state.bench.renew_first_page))
    copying = asyncio.create_task(_keep_copies(app.state.context) if app.state.keeps_copies else asyncio.sleep(0))
    yield
    asking.cancel()
    copying.cancel()
    await asyncio.wait([asking, renewing, copying])
    app.state.runs.stop_all()
    if app.state.owns_crews:
        await run_in_threadpool(app.state.context.crews.close)


async def _keep_copies(context: AppContext) -> None:
    """A copy a day, also of a shop that is served for weeks; what cannot be written is tried again an hour later."""
    while True:
        try:
            await run_in_threadpool(
                lambda: copy_daily(context.database.path, date.today(), context.today.file.copies_days)
            )
        except (StoreError, OSError) as fault:
            logging.getLogger("fardo").warning("today's copy of the shop was not made: %s", fault)
        await asyncio.sleep(_COPIES_LOOKED_AT_S)


def create_app(
    database: Path, crews: Crews | None = None, *, keeps_copies: bool = False,
    fill_made_up: Callable[[Path], None] | None = None,
) -> FastAPI:  # fmt: skip
    """The application on one shop's database.

    Args:
        crews: processes beside that it shares with others; its own unless given.
        keeps_copies: whether it makes a copy of the shop each day.
        fill_made_up: makes the made-up shop in a file, where that may be tried beside.
    """
    app = open_shop(build_app(), database, crews, fill_made_up)
    app.state.keeps_copies = keeps_copies
    return app


def open_shop(
    app: FastAPI, database: Path, crews: Crews | None = None, fill_made_up: Callable[[Path], None] | None = None
) -> FastAPI:
    """The application on that shop's database, whatever it was on before."""
    app.state.owns_crews = crews is None
    app.state.keeps_copies = False
    app.state.gate, app.state.addresses = None, []
    app.state.context = context = AppContext(database, crews or Crews(_RECKONED))
    app.state.bench = Bench(context)
    app.state.purchases = Purchases(context.labels, lambda: context.today.file.wires)
    app.state.listeners = Listeners()
    app.state.runs = Runs()
    app.state.made_up = None
    if fill_made_up is not None and context.crews is not None:
        context.made_up = "offered"
        app.state.made_up = MadeUp(database, fill_made_up, context.crews)
    return app


def build_app() -> FastAPI:
    """The application before it is on any shop."""
    app = FastAPI(
        title="Fardo", version=__version__, docs_url=None, redoc_url=None, openapi_url="/api/openapi.json",
        lifespan=_while_open,
        separate_input_output_schemas=False,  # a job is one thing, whichever way it goes
    )  # fmt: skip
    app.router.redirect_slashes = False  # an address is one thing; a slash more is another
    answer_with_problems(app)
    # Kinds go before jobs: /api/jobs/begin is no job's key.
    for router in (
        kinds.router,
        revisions.router,
        jobs.router,
        sheets.router,
        sheets.prices,
        cutting.router,
        packing.router,
        sending.router,
        recipients.router,
        recipients.parting,
        papers.router,
        papers.day_router,
        parcels.router,
        plans.router,
        work.router,
        arrange.router,
        shop.router,
        coming_prices.router,
        tariffs.router,
        keeping.router,
        made_up.router,
        practice.router,
        wires.router,
        sent_files.router,
        shapes.router,
        devices.router,
        access.router,
        access.page_router,
    ):
        app.include_router(router)
    app.add_middleware(GZipMiddleware, minimum_size=1500, compresslevel=3)
    app.add_middleware(RequestGuard)

    @app.get("/api/alive", tags=["work"])
    def alive() -> dict[str, str]:
        """Answers as soon as the shop is open."""
        return {"fardo": __version__}

    _serve_page(app, Path(str(files("fardo").joinpath("static"))))
    return app


def _serve_page(app: FastAPI, folder: Path) -> None:
    if not (folder / "index.html").is_file():

        @app.get("/", include_in_schema=False)
        def unbuilt() -> Response:
            return JSONResponse({"detail": "The screens are not built yet; run make setup."}, 503)

        return

    def page(status: int = 200) -> Response:
        return FileResponse(folder / "index.html", status, headers={"Cache-Control": "no-cache"})

    def room() -> Response:
        return page()

    for path in _ROOMS:
        app.add_api_route(path, room, include_in_schema=False)
    app.mount("/assets", StaticFiles(directory=folder / "assets"), name="assets")

    @app.get("/{path:path}", include_in_schema=False)
    def other(path: str) -> Response:
        """The few files beside the page; any other address gets the page, which says that nothing is there."""
        if path.startswith("api/"):
            raise HTTPException(404, "There is nothing at this address.")
        return FileResponse(folder / path) if path in _BESIDE else page(404)
