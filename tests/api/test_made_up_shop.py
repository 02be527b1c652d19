"""The made-up shop, tried in one browser beside a shop of one's own."""

from __future__ import annotations

from pathlib import Path

import httpx
import pytest
from fastapi.testclient import TestClient

from fardo.api.app import create_app
from fardo.store.database import Database
from tests.made_up import job
from tests.served import CREWS, FILL_MADE_UP, ServedHere


@pytest.fixture
def own(tmp_path: Path) -> Path:
    """A new shop with nothing in it."""
    path = tmp_path / "own.db"
    Database(path).close()
    return path


def titles(client: httpx.Client) -> list[str]:
    return [row["title"] for row in client.get("/api/jobs").json()["jobs"]]


def test_who_tries_it_works_on_the_made_up_shop_and_everybody_else_on_their_own(own: Path) -> None:
    with ServedHere(own) as served, httpx.Client(base_url=served.url) as one, httpx.Client(base_url=served.url) as two:
        assert one.get("/api/shop").json()["made_up"] == "offered"
        two.post("/api/jobs", json=job(title="Ours")).raise_for_status()
        cookie = one.post("/api/made-up").headers["set-cookie"]
        assert "HttpOnly" in cookie
        assert "SameSite=strict" in cookie
        shop = one.get("/api/shop").json()
        assert (shop["made_up"], shop["shop"]["name"]) == ("tried", "Gannet Row Workshop")
        assert "Concertina for Ostwick" in titles(one)
        assert titles(two) == ["Ours"]
        one.post("/api/jobs", json=job(title="Tried")).raise_for_status()
        assert titles(two) == ["Ours"]
        one.delete("/api/made-up").raise_for_status()
        assert titles(one) == ["Ours"]
        assert one.get("/api/shop").json()["made_up"] == "offered"
        one.post("/api/made-up").raise_for_status()
        assert "Tried" in titles(one)  # it is as it was left


def test_what_is_tried_is_there_after_the_shop_was_started_again(own: Path) -> None:
    with ServedHere(own) as served, httpx.Client(base_url=served.url) as client:
        client.post("/api/made-up").raise_for_status()
        client.post("/api/jobs", json=job(title="Tried")).raise_for_status()
        cookies = client.cookies
    with ServedHere(own) as served, httpx.Client(base_url=served.url, cookies=cookies) as client:
        assert "Tried" in titles(client)
    (own.parent / f"{own.name}.made-up").unlink()
    with ServedHere(own) as served, httpx.Client(base_url=served.url, cookies=cookies) as client:
        assert titles(client) == []  # it was taken away: one's own is shown


def test_a_page_is_told_only_of_the_shop_it_shows(own: Path) -> None:
    with ServedHere(own) as served, httpx.Client(base_url=served.url) as one, httpx.Client(base_url=served.url) as two:
        one.post("/api/made-up").raise_for_status()
        with one.stream("GET", "/api/devices/stream") as stream:
            lines = stream.iter_lines()
            assert next(lines) == ": listening"
            two.post("/api/jobs", json=job(title="Ours"))
            tried = one.post("/api/jobs", json=job(title="Tried")).json()["id"]
            told = next(line for line in lines if line.startswith("data: "))
    assert tried in told


def test_the_made_up_shop_itself_offers_none(shop_file: Path) -> None:
    app = create_app(shop_file, CREWS)
    with TestClient(app, base_url="http://127.0.0.1:8740") as client:
        assert client.get("/api/shop").json()["made_up"] == ""
        answer = client.post("/api/made-up")
        assert (answer.status_code, answer.json()["detail"]) == (422, "This is the made-up shop already.")
    app.state.context.database.close()


def test_a_shop_in_which_none_was_tried_has_no_file_beside_it(own: Path) -> None:
    app = create_app(own, CREWS, fill_made_up=FILL_MADE_UP)
    app.state.context.database.close()
    assert not (own.parent / f"{own.name}.made-up").exists()


def test_a_made_up_shop_that_is_damaged_keeps_nobody_from_their_own(own: Path) -> None:
    (own.parent / f"{own.name}.made-up").write_bytes(b"no shop at all" * 400)
    with ServedHere(own) as served, httpx.Client(base_url=served.url, cookies={"fardo_made_up": "1"}) as client:
        client.post("/api/jobs", json=job(title="Ours")).raise_for_status()
        assert titles(client) == ["Ours"]
        answer = client.post("/api/made-up")
        assert answer.status_code == 422
        assert "Move that file away" in answer.json()["detail"]
        assert "set-cookie" not in answer.headers
