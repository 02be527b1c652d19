"""One browser for all tests; a database, a server and a port of its own for each."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium import webdriver
from starlette.responses import Response
from starlette.types import ASGIApp, Receive, Scope, Send

from fardo.api.app import build_app, open_shop
from fardo.files.shop import starting_shop
from fardo.store.database import Database
from fardo.store.settings import Settings
from tests.browser.driver import Page, resize, start_browser
from tests.served import CREWS, FILL_MADE_UP, AppHere, Served


@pytest.fixture(scope="session")
def browser() -> Iterator[webdriver.Chrome]:
    driver = start_browser()
    yield driver
    driver.quit()


class Gate:
    """Lets no change through between two tests: a save outlives its page, and what a page sent last is no other
    shop's.
    """

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "http" and scope["method"] != "GET" and scope["app"].state.shut:
            await Response("between two shops", 503)(scope, receive, send)
        else:
            await self.app(scope, receive, send)


@pytest.fixture(scope="session")
def standing() -> Iterator[AppHere]:
    """A server that stands while all tests run, so that the browser knows its scripts already; each opens its own shop
    on it.
    """
    app = build_app()
    app.add_middleware(Gate)
    app.state.shut = True
    with AppHere(app) as served:
        yield served


@pytest.fixture
def server(standing: AppHere, browser: webdriver.Chrome, demo_file: Path, tmp_path: Path) -> Iterator[AppHere]:
    """The made-up shop."""
    path = tmp_path / "shop.db"
    shutil.copy(demo_file, path)
    open_shop(standing.app, path, CREWS, FILL_MADE_UP)
    # What a page before noted of a job is of that shop; the demo's jobs are called the same in each.
    browser.get(f"{standing.url}/api/alive")
    browser.execute_script("localStorage.clear()")
    standing.app.state.shut = False
    yield standing
    standing.app.state.shut = True
    standing.app.state.runs.stop_all()
    standing.app.state.context.database.close()
    standing.app.state.made_up.close()


@pytest.fixture
def shop_on_disk(demo_file: Path, tmp_path: Path) -> Path:
    """The made-up shop, for a server of its own."""
    path = tmp_path / "network.db"
    shutil.copy(demo_file, path)
    return path


@pytest.fixture
def page(browser: webdriver.Chrome, server: AppHere) -> Iterator[Page]:
    yield from _page(browser, server)


@pytest.fixture
def empty_server(demo_file: Path, tmp_path: Path) -> Iterator[Served]:
    """A shop with carriers and a postcode, and nothing on its bench yet."""
    path = tmp_path / "empty.db"
    database, demo = Database(path), Database(demo_file)
    for tariff in Settings(demo).tariffs():
        Settings(database).keep_tariff(tariff)
    Settings(database).change_shop(0, starting_shop().model_copy(update={"postcode": "10440"}))
    database.close()
    demo.close()
    with Served(path) as served:
        yield served


@pytest.fixture
def empty_page(browser: webdriver.Chrome, empty_server: Served) -> Iterator[Page]:
    yield from _page(browser, empty_server)


def _page(browser: webdriver.Chrome, served: Served | AppHere) -> Iterator[Page]:
    browser.get_log("browser")
    yield Page(browser, served.url)
    # No script may have failed and no policy been broken; a refused save (422, 409) is an answer, not a fault.
    faults = [
        entry["message"] for entry in browser.get_log("browser")
        if entry["level"] == "SEVERE" and "Failed to load resource" not in entry["message"]
    ]  # fmt: skip
    resize(browser, 1280, 800)
    # What the page would note and save on leaving comes late on a busy machine, and would be found by the next one.
    browser.execute_script(
        "addEventListener('visibilitychange', (event) => event.stopImmediatePropagation(), true);"
        "Storage.prototype.setItem = () => undefined"
    )
    browser.get("about:blank")
    assert faults == []
