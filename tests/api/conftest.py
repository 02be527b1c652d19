"""Each test has a made-up shop of its own, copied from one that is made once."""

from __future__ import annotations

import asyncio
import shutil
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from fardo.store.database import Database
from tests.served import close_app, open_app
from tests.simulated_carrier import BRIEF, fault, served_carrier, wired


@pytest.fixture(autouse=True)
def _nothing_is_read_in_the_event_loop(monkeypatch: pytest.MonkeyPatch) -> None:
    """What waits for the disk there keeps everybody waiting."""
    read, writing = Database.read, Database.writing

    def must_not_hold_up() -> None:
        with suppress(RuntimeError):  # there is none in this thread
            asyncio.get_running_loop()
            raise AssertionError("the store is asked in the event loop")

    def watched_read(self: Database, *given: Any) -> Any:
        must_not_hold_up()
        return read(self, *given)

    def watched_writing(self: Database) -> Any:
        must_not_hold_up()
        return writing(self)

    monkeypatch.setattr(Database, "read", watched_read)
    monkeypatch.setattr(Database, "writing", watched_writing)


@pytest.fixture
def shop_file(demo_file: Path, tmp_path: Path) -> Path:
    path = tmp_path / "shop.db"
    shutil.copy(demo_file, path)
    return path


@pytest.fixture
def client(shop_file: Path) -> Iterator[TestClient]:
    app = open_app(shop_file)
    with TestClient(app, base_url="http://127.0.0.1:8740", raise_server_exceptions=False) as client:
        yield client
    close_app(app)


@pytest.fixture(scope="module")
def carrier() -> Iterator[str]:
    """The simulated carrier on a port of its own: its address."""
    with served_carrier() as served:
        yield served.url


@pytest.fixture
def asking(client: TestClient, carrier: str) -> TestClient:
    """A shop that asks the simulated carrier, which has no fault."""
    fault(carrier, "")
    client.app.state.purchases.patience = BRIEF  # type: ignore[attr-defined]
    wired(client, carrier)
    return client
