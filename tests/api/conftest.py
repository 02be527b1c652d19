"""Each test has a made-up shop of its own, copied from one that is made once."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from fardo.api.app import create_app
from tests.served import CREWS
from tests.simulated_carrier import BRIEF, fault, served_carrier, wired


@pytest.fixture
def shop_file(demo_file: Path, tmp_path: Path) -> Path:
    path = tmp_path / "shop.db"
    shutil.copy(demo_file, path)
    return path


@pytest.fixture
def client(shop_file: Path) -> Iterator[TestClient]:
    app = create_app(shop_file, CREWS)
    with TestClient(app, base_url="http://127.0.0.1:8740", raise_server_exceptions=False) as client:
        yield client
    app.state.desk.database.close()


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
