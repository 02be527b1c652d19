"""Shops that are not as they should be: what check refuses is not served; what can be is, and says what is wrong."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from fardo.api.app import create_app
from fardo.files.job import JobFile
from fardo.files.shop import starting_shop
from fardo.store import jobs as store_jobs
from fardo.store.database import Database, StoreError
from fardo.store.jobs import Jobs
from fardo.store.soundness import check_file, check_shop
from tests.api.test_command import fardo
from tests.earlier import shop_of_version
from tests.made_up import job
from tests.served import CREWS, Served


def folded(path: Path) -> bytes:
    """A shop's file with nothing left in its log."""
    connection = sqlite3.connect(path)
    connection.execute("PRAGMA journal_mode = DELETE")
    connection.close()
    return path.read_bytes()


def spoil(path: Path, statement: str) -> None:
    connection = sqlite3.connect(path)
    connection.execute("PRAGMA foreign_keys = OFF")
    connection.execute(statement)
    connection.commit()
    connection.close()


SPOILT: dict[str, Callable[[Path], object]] = {
    "nothing in it": lambda path: path.write_bytes(b""),
    "the last byte cut off": lambda path: path.write_bytes(folded(path)[:-1]),
    "cut in the middle": lambda path: path.write_bytes(folded(path)[:40_000]),
    "a page of noise": lambda path: path.write_bytes(folded(path)[:8192] + b"\xa5" * 4096 + folded(path)[12288:]),
    "no database": lambda path: path.write_text("not a database " * 500),
    "another's": lambda path: (path.unlink(), spoil(path, "CREATE TABLE thing (a)")),
    "of a newer version": lambda path: spoil(path, "PRAGMA user_version = 999"),
    "a table gone": lambda path: spoil(path, "DROP TABLE tariff"),
    "settings that are none": lambda path: spoil(path, "UPDATE shop SET content = '{\"units\": 7}'"),
    "a tariff that is none": lambda path: spoil(path, "UPDATE tariff SET content = '{}' WHERE carrier = 'Oddbarrow'"),
    "a revision of no job": lambda path: spoil(path, "INSERT INTO job_revision VALUES ('none', 1, '{}', '', '')"),
}


@pytest.mark.parametrize("name", SPOILT)
def test_what_check_refuses_is_not_served_and_not_touched(shop_file: Path, name: str) -> None:
    SPOILT[name](shop_file)
    before = shop_file.read_bytes()
    refused = fardo("check", "--db", str(shop_file), code=2)
    served = fardo("serve", "--db", str(shop_file), "--port", "1", code=2)
    assert served.stderr == refused.stderr
    assert str(shop_file) in refused.stderr
    fardo("backup", str(shop_file.with_name("copy.db")), "--db", str(shop_file), code=2)
    assert shop_file.read_bytes() == before
    assert {one.name for one in shop_file.parent.glob("shop.db-*")} == set()


def test_a_new_shop_is_begun_with_a_word_and_not_beside_remains(tmp_path: Path) -> None:
    path = tmp_path / "new.db"
    with Served(path, says="A new, empty shop is begun in"):
        pass
    assert check_file(path)
    for ending in (".before-restore-20260101-000000", "-wal", ".part", ".before-004"):
        lost = tmp_path / ending.strip(".-") / "lost.db"
        lost.parent.mkdir()
        remains = lost.with_name(lost.name + ending)
        remains.write_bytes(b"something")
        refused = fardo("serve", "--db", str(lost), "--port", "1", code=2)
        assert remains.name in refused.stderr
        assert not lost.exists()
        with pytest.raises(StoreError):
            Database(lost)
    fardo("check", "--db", str(tmp_path / "nothing.db"), code=2)
    assert not (tmp_path / "nothing.db").exists()


BAD = {
    "not a job": '\'{"format": "fardo-job/1", "parts": 5}\'',
    "of another format": '\'{"format": "fardo-job/9"}\'',
    "too large a number": "json_set(content, '$.parcels_at_most', 1e300)",
    "not an object": "'[]'",
}


@pytest.mark.parametrize("name", BAD)
def test_one_bad_job_is_shown_as_such_and_the_rest_works(shop_file: Path, name: str) -> None:
    database = Database(shop_file)
    bad = Jobs(database).add(JobFile.model_validate(job(title="Stock saddle")))
    database.close()
    spoil(shop_file, f"UPDATE job SET content = {BAD[name]} WHERE id = '{bad.id}'")
    app = create_app(shop_file, CREWS)
    with TestClient(app, base_url="http://127.0.0.1:8740", raise_server_exceptions=False) as client:
        while (page := client.get("/api/jobs").json())["renewing"]:
            pass
        rows = {row["id"]: row for row in page["jobs"]}
        assert rows[bad.id]["unreadable"]
        assert rows[bad.id]["title"] == "Stock saddle"
        assert len(rows) > 3
        assert all(not row["unreadable"] and row["knots"] for key, row in rows.items() if key != bad.id)
        refused = client.get(f"/api/jobs/{bad.id}")
        assert (refused.status_code, refused.json()["title"]) == (422, "Cannot be read")
        text = client.get(f"/api/jobs/{bad.id}/text")
        assert text.headers["content-disposition"] == 'attachment; filename="stock-saddle.txt"'
        assert json.loads(text.text) is not None
        assert client.post("/api/line", json={"text": "saddle"}).json()["jobs"][0]["unreadable"]
        assert client.get("/api/cutting").status_code == 200
        assert client.delete(f"/api/jobs/{bad.id}").json()["archived"] is True
        assert bad.id not in {row["id"] for row in client.get("/api/jobs").json()["jobs"]}
        assert client.post(f"/api/jobs/{bad.id}/restore").json()["archived"] is False
    app.state.context.database.close()
    said = fardo("check", "--db", str(shop_file), code=1)
    assert f"job {bad.id} cannot be read" in said.stdout


def test_a_kind_that_cannot_be_read_takes_nothing_with_it(client: TestClient, shop_file: Path) -> None:
    kind = client.get("/api/kinds/mirror").json()["kind"]
    assert client.put("/api/kinds", json={"revision": 0, "kind": {**kind, "title": "Ours"}}).status_code == 200
    spoil(shop_file, "UPDATE kind SET content = '{\"parts\": 5}'")
    assert client.get("/api/kinds/mirror").json()["kind"]["title"] == kind["title"]
    assert "kind of goods mirror cannot be read" in check_shop(shop_file).flaws[0]


def test_nothing_is_kept_that_could_not_be_read_again(client: TestClient) -> None:
    """A job may have more parts and extras than a kind."""
    for changes in ({"parts": job()["parts"] * 51}, {"extras": job()["extras"] * 31}):
        key = client.post("/api/jobs", json=job(**changes)).json()["id"]
        refused = client.post(f"/api/jobs/{key}/kind", json={"code": "many", "title": "Many"})
        assert (refused.status_code, refused.json()["field"]) == (422, next(iter(changes)))
    assert client.get("/api/kinds").status_code == 200


def test_check_looks_at_revisions_and_the_search_index(shop_file: Path) -> None:
    database = Database(shop_file)
    made = Jobs(database).add(JobFile.model_validate(job(title="Two revisions")))
    Jobs(database).change(made.id, 1, made.job)
    database.close()
    assert check_shop(shop_file).flaws == ()
    spoil(shop_file, f"DELETE FROM job_revision WHERE job_id = '{made.id}' AND revision = 1")
    assert check_shop(shop_file).flaws == (f"job {made.id}: its revision 1 is lost",)
    spoil(shop_file, f"INSERT INTO job_revision VALUES ('{made.id}', 1, '[]', '', '')")
    assert f"revision 1 of job {made.id} cannot be read" in check_shop(shop_file).flaws[0]
    spoil(shop_file, f"UPDATE job_revision SET content = (SELECT content FROM job WHERE id = '{made.id}')")
    spoil(shop_file, "DELETE FROM job_search WHERE words MATCH 'revisions'")
    assert "the search index lacks" in check_shop(shop_file).flaws[-1]
    fardo("check", "--db", str(shop_file), "--mend", code=1)
    assert not any("search index" in flaw for flaw in check_shop(shop_file).flaws)


def test_on_a_full_disk_it_says_so_and_what_was_saved_is_there(client: TestClient) -> None:
    key = client.post("/api/jobs", json=job(title="before")).json()["id"]
    database: Database = client.app.state.context.database  # type: ignore[attr-defined]
    with database.writing() as writer:
        pages = writer.execute("PRAGMA page_count").fetchone()[0]
        writer.execute(f"PRAGMA max_page_count = {pages}")
    large = job(title="too much", parts=[{**job()["parts"][0], "name": f"{n} " + "x" * 100} for n in range(70)])
    for _ in range(2):
        full = client.put(f"/api/jobs/{key}", json={"revision": 1, "job": large})
        assert (full.status_code, full.json()["title"]) == (507, "The disk is full")
        assert "everything saved before is as it was" in full.json()["detail"]
    assert client.get(f"/api/jobs/{key}").json()["job"]["title"] == "before"
    with database.writing() as writer:
        writer.execute("PRAGMA max_page_count = 1073741823")
    assert client.put(f"/api/jobs/{key}", json={"revision": 1, "job": large}).status_code == 200


def test_a_clock_that_jumps_back_does_not_change_the_order_of_jobs(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    first = client.post("/api/jobs", json=job(title="heddle one")).json()
    monkeypatch.setattr(store_jobs, "_now", lambda: "2001-01-01T00:00:00+00:00")
    second = client.post("/api/jobs", json=job(title="heddle two")).json()

    def order(**asked: object) -> list[str]:
        rows = client.get("/api/jobs", params=asked).json()["jobs"]
        return [row["title"] for row in rows if row["title"].startswith("heddle")]

    assert order() == order(words="heddle") == ["heddle two", "heddle one"]
    client.put(f"/api/jobs/{first['id']}", json={"revision": 1, "job": first["job"]})
    assert order() == order(words="heddle") == ["heddle one", "heddle two"]
    client.delete(f"/api/jobs/{second['id']}")
    assert order(archived=True, words="heddle") == order(archived=True) == ["heddle two"]
    assert order(words="heddle") == ["heddle one"]


BESIDE = {
    "a parcel": ("UPDATE sending SET content = '{\"closed\": 7}'", "sending of job"),
    "what it took": ("UPDATE sending SET taken = '[]'", "sending of job"),
    "a recipient": ("UPDATE recipient SET content = '{\"address\": 7}'", "recipient of job"),
    "a tick's time": ("UPDATE packing_tick SET at = 'noon'", "has no time"),
    "a number past all counting": ("UPDATE job SET changed = 9223372036854775807 WHERE id = '{key}'", "is no count"),
    "a revision past it": ("UPDATE sending SET revision = 9223372036854775807", "is no count"),
}


@pytest.mark.parametrize("name", BESIDE)
def test_check_looks_at_what_is_kept_beside_a_job_and_the_bench_stands(shop_file: Path, name: str) -> None:
    """Each of these was called sound by check, and took the bench down."""
    app = create_app(shop_file, CREWS)
    with TestClient(app, base_url="http://127.0.0.1:8740", raise_server_exceptions=False) as client:
        key = client.post("/api/jobs", json=job(title="Reel")).json()["id"]
        closed = {"revision": 0, "sending": {"closed": {"weight": "3 lb"}}}
        assert client.put(f"/api/jobs/{key}/sending", json=closed).status_code == 200
        to = {"revision": 0, "recipient": {"address": {"name": "Isolde Marran"}}}
        assert client.put(f"/api/jobs/{key}/recipient", json=to).status_code == 200
        tick = {"id": "tick-00000001", "step": "fetch", "done": True, "at": "2026-03-02T09:00:00Z"}
        assert client.post(f"/api/jobs/{key}/packing/ticks", json={"ticks": [tick]}).status_code == 200
        assert check_shop(shop_file).flaws == ()
        statement, says = BESIDE[name]
        spoil(shop_file, statement.replace("{key}", key))
        assert any(says in flaw for flaw in check_shop(shop_file).flaws)
        page = client.get("/api/jobs", params={"today": "2026-03-02"})
        assert page.status_code == 200
        row = next(row for row in page.json()["jobs"] if row["id"] == key)
        assert bool(row["unreadable"]) is (name in ("a parcel", "what it took"))
        for path in ("sending", "recipient", "packing/ticks"):
            assert client.get(f"/api/jobs/{key}/{path}").status_code in (200, 422)
    app.state.context.database.close()


def test_what_an_earlier_version_took_off_the_stock_is_no_flaw(tmp_path: Path) -> None:
    """Before version 11 it was boxes by name alone; it is brought up to date when the shop is opened."""
    path = tmp_path / "then.db"
    connection = shop_of_version(path, 10, starting_shop(), revision=1)
    content = JobFile.model_validate(job()).model_dump_json(by_alias=True)
    connection.execute(
        "INSERT INTO job (id, revision, title, destination, content, created_at, saved_at, changed)"
        " VALUES ('a', 1, '', '', ?, '2026', '2026', 1)", (content,),
    )  # fmt: skip
    connection.execute(
        "INSERT INTO job_revision (job_id, revision, content, saved_at) VALUES ('a', 1, ?, '')", (content,)
    )
    connection.execute("INSERT INTO sending VALUES ('a', 1, '{}', '{\"reel box\": 1}', '2026')")
    connection.commit()
    connection.close()
    assert not any("sending" in flaw for flaw in check_shop(path).flaws)
    Database(path).close()
    assert not any("sending" in flaw for flaw in check_shop(path).flaws)
