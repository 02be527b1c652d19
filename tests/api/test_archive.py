"""The whole shop as an open archive: exported, wiped, imported, and equal; what is no such archive leaves nothing."""

from __future__ import annotations

import json
import sqlite3
import tracemalloc
import zipfile
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from fardo.files.job import JobFile
from fardo.files.shop import starting_shop
from fardo.store import archive as archive_module
from fardo.store.access import Access
from fardo.store.archive import export_shop, import_shop
from fardo.store.database import Database
from fardo.store.faults import StoreError
from fardo.store.jobs import Jobs
from fardo.store.settings import Settings
from fardo.store.soundness import check_shop
from tests.api.test_command import fardo
from tests.api.test_recipients import PIXEL
from tests.api.test_sending import chosen, put, ticked
from tests.earlier import shop_of_version
from tests.made_up import job

_WORKED_OUT = ("job_bench", "job_search", "passphrase", "session", "sqlite_")


def everything(path: Path) -> dict[str, list[tuple[Any, ...]]]:
    """All that is kept in a shop, but for what is worked out again."""
    connection = sqlite3.connect(path)
    names = [row[0] for row in connection.execute("SELECT name FROM sqlite_schema WHERE type = 'table'")]
    found = {name: connection.execute(f"SELECT * FROM {name} ORDER BY rowid").fetchall()
             for name in names if not name.startswith(_WORKED_OUT)}  # fmt: skip
    connection.close()
    return found


@pytest.fixture
def full(client: TestClient, shop_file: Path) -> Path:
    """A shop with something in every table that a person fills."""
    key = chosen(client, "shelf")
    ticked(client, key, "box", "label")
    put(client, key, 0, closed={"weight": "7 lb"}, number="OB-4471-20")
    client.post("/api/files", content=PIXEL, headers={"X-File-Name": "reed.png", "Content-Type": "image/png"})
    return shop_file


def test_exported_wiped_and_imported_a_shop_is_equal(full: Path, tmp_path: Path) -> None:
    archive, copy = tmp_path / "shop.zip", tmp_path / "new" / "copy.db"
    copy.parent.mkdir()
    before = everything(full)
    assert sum(bool(rows) for rows in before.values()) >= 8
    export_shop(full, archive)
    import_shop(archive, copy)
    assert everything(copy) == before
    assert check_shop(copy).flaws == ()
    assert [one.name for one in copy.parent.iterdir()] == [copy.name]
    database = Database(copy)
    assert [line.title for line in Jobs(database).page(words="treadle").jobs]
    database.close()
    # And once more through the shell, to the same.
    again = tmp_path / "again.zip"
    fardo("export", str(again), "--db", str(copy))
    fardo("import", str(again), "--db", str(tmp_path / "third.db"))
    assert everything(tmp_path / "third.db") == before


def test_the_archive_is_open_and_holds_no_key_to_the_shop(full: Path, tmp_path: Path) -> None:
    database = Database(full)
    Access(database).set_passphrase("reel loom bobbin treadle")
    Access(database).begin("a tablet")
    database.close()
    export_shop(full, tmp_path / "shop.zip")
    with zipfile.ZipFile(tmp_path / "shop.zip") as archive:
        head = json.loads(archive.read("shop.json"))
        assert head["format"] == "fardo-shop/1"
        jobs = json.loads(archive.read("tables/job.json"))
        assert json.loads(jobs[0]["content"])["format"] == "fardo-job/1"
        assert head["rows"]["job"] == len(jobs)
        assert not [name for name in archive.namelist() if "session" in name or "passphrase" in name]


def rewritten(archive: Path, change: Callable[[dict[str, bytes]], None]) -> Path:
    with zipfile.ZipFile(archive) as was:
        parts = {name: was.read(name) for name in was.namelist()}
    change(parts)
    hostile = archive.with_name("hostile.zip")
    with zipfile.ZipFile(hostile, "w", zipfile.ZIP_DEFLATED) as now:
        for name, content in parts.items():
            now.writestr(name, content)
    return hostile


def _table(name: str, change: Callable[[list[Any]], Any]) -> Callable[[dict[str, bytes]], None]:
    def done(parts: dict[str, bytes]) -> None:
        rows = json.loads(parts[f"tables/{name}.json"])
        parts[f"tables/{name}.json"] = json.dumps(change(rows)).encode()

    return done


HOSTILE: dict[str, Callable[[dict[str, bytes]], None]] = {
    "another format": lambda parts: parts.update({"shop.json": b'{"format": "other/1", "database": 1}'}),
    "a newer one": lambda parts: parts.update({"shop.json": b'{"format": "fardo-shop/1", "database": 99999}'}),
    "no head": lambda parts: parts.update({"shop.json": b"[]"}),
    "no JSON": lambda parts: parts.update({"tables/job.json": b"{"}),
    "a table missing": lambda parts: parts.__delitem__("tables/job.json"),
    "another column": _table("job", lambda rows: [{**rows[0], "x) VALUES (1); DROP TABLE job; --": 1}]),
    "a row that is none": _table("job", lambda _: ["job"]),
    "no list": _table("job", lambda _: {"job": 1}),
    "a list in a column": _table("job", lambda rows: [{**rows[0], "title": ["x"]}]),
    "content that is none": _table("job", lambda rows: [{**rows[0], "content": "no job"}]),
    "a revision of nothing": _table("job_revision", lambda rows: [{**rows[0], "job_id": "nothing"}]),
    "two of one id": _table("job", lambda rows: [rows[0], rows[0]]),
    "a file outside": _table("job", lambda rows: [{**rows[0], "title": {"file": "../../etc/passwd"}}]),
    "a number no column holds": _table("job", lambda rows: [{**rows[0], "changed": 10**31}]),
    "no number": _table("job", lambda rows: [{**rows[0], "changed": float("inf")}]),
    "a list that does not end": lambda parts: parts.update(
        {"tables/job.json": parts["tables/job.json"].rstrip().removesuffix(b"]")}
    ),
    "brackets nested": lambda parts: parts.update({"tables/job.json": b"[" + b'{"id":' * 100_000}),
    "settings that are none": _table("shop", lambda rows: [{**rows[0], "content": '{"currency": 7}'}]),
}


@pytest.mark.parametrize("name", HOSTILE)
def test_a_hostile_archive_leaves_nothing_behind(shop_file: Path, tmp_path: Path, name: str) -> None:
    export_shop(shop_file, tmp_path / "shop.zip")
    hostile = rewritten(tmp_path / "shop.zip", HOSTILE[name])
    before = sorted(one.name for one in tmp_path.iterdir())
    with pytest.raises(StoreError):
        import_shop(hostile, tmp_path / "new.db")
    assert sorted(one.name for one in tmp_path.iterdir()) == before


@pytest.mark.parametrize("version", [5, 8, 10])
def test_an_archive_of_an_earlier_version_is_brought_up_to_date(tmp_path: Path, version: int) -> None:
    """As the program of then would have written it: its tables, and columns as they were called."""
    then = tmp_path / "then.db"
    connection = shop_of_version(then, version, starting_shop(), revision=3)
    content = JobFile.model_validate(job(title="of then")).model_dump_json(by_alias=True)
    connection.execute(
        "INSERT INTO job (id, revision, title, destination, content, created_at, saved_at, changed)"
        " VALUES ('a', 1, 'of then', '', ?, '2026', '2026', 1)", (content,),
    )  # fmt: skip
    connection.execute(
        "INSERT INTO job_revision (job_id, revision, content, saved_at) VALUES ('a', 1, ?, '')", (content,)
    )
    connection.commit()
    connection.close()
    export_shop(then, tmp_path / "shop.zip")
    import_shop(tmp_path / "shop.zip", tmp_path / "now.db")
    database = Database(tmp_path / "now.db")
    assert [line.title for line in Jobs(database).page(words="of then").jobs] == ["of then"]
    assert Settings(database).shop()[0] == 3
    database.close()


@pytest.mark.parametrize("content", [b"", b"PK\x03\x04", b"no archive", b"PK\x05\x06" + bytes(18)])
def test_what_is_no_archive_is_refused_in_a_sentence(tmp_path: Path, content: bytes) -> None:
    (tmp_path / "shop.zip").write_bytes(content)
    with pytest.raises(StoreError, match=r"shop\.zip is not a whole archive of a shop"):
        import_shop(tmp_path / "shop.zip", tmp_path / "new.db")
    assert not (tmp_path / "new.db").exists()


def test_a_shop_that_is_there_is_not_written_over(shop_file: Path, tmp_path: Path) -> None:
    export_shop(shop_file, tmp_path / "shop.zip")
    before = shop_file.read_bytes()
    with pytest.raises(StoreError, match="there already"):
        import_shop(tmp_path / "shop.zip", shop_file)
    assert shop_file.read_bytes() == before


def packed_with(archive: Path, table: str, pieces: Iterable[bytes]) -> Path:
    """An archive whose one table is written piece by piece, as whoever means harm would."""
    with zipfile.ZipFile(archive) as was:
        parts = {name: was.read(name) for name in was.namelist() if name != f"tables/{table}.json"}
    hostile = archive.with_name("hostile.zip")
    with zipfile.ZipFile(hostile, "w", zipfile.ZIP_DEFLATED) as now:
        for name, content in parts.items():
            now.writestr(name, content)
        with now.open(f"tables/{table}.json", "w") as written:
            for piece in pieces:
                written.write(piece)
    return hostile


@pytest.mark.parametrize("row", [b"[],", b'{"id": "a"},', b"7,"])
def test_an_archive_of_millions_of_rows_takes_no_memory(shop_file: Path, tmp_path: Path, row: bytes) -> None:
    """It was read whole before its first row was looked at: 150 kB took 1.5 GB."""
    export_shop(shop_file, tmp_path / "shop.zip")
    pieces = [b"[", *[row * 100_000] * 200, b"{}]"]
    hostile = packed_with(tmp_path / "shop.zip", "kind", pieces)
    assert sum(map(len, pieces)) > 40_000_000
    tracemalloc.start()
    try:
        with pytest.raises(StoreError):
            import_shop(hostile, tmp_path / "new.db")
        assert tracemalloc.get_traced_memory()[1] < 30_000_000
    finally:
        tracemalloc.stop()


def test_a_small_archive_writes_no_large_shop(shop_file: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """One picture that hundreds of rows name would be written once for each."""
    monkeypatch.setattr(archive_module, "_ALWAYS_TAKEN", 10_000_000)
    export_shop(shop_file, tmp_path / "shop.zip")
    row = {"called": "a", "media_type": "image/png", "content": {"file": "files/a"}, "kept_at": ""}
    rows = json.dumps([{"name": f"{n}", **row} for n in range(300)]).encode()
    hostile = packed_with(tmp_path / "shop.zip", "file", [rows])
    with zipfile.ZipFile(hostile, "a", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("files/a", bytes(1_000_000))
    with pytest.raises(StoreError, match="full"):
        import_shop(hostile, tmp_path / "new.db")
    unpacked = packed_with(tmp_path / "shop.zip", "kind", [b" " * 1_000_000] * 60)
    with pytest.raises(StoreError, match="unpacks to more than"):
        import_shop(unpacked, tmp_path / "new.db")
    assert not (tmp_path / "new.db").exists()


def test_a_hostile_archive_sent_in_is_refused_in_a_sentence(
    client: TestClient, shop_file: Path, tmp_path: Path
) -> None:
    export_shop(shop_file, tmp_path / "shop.zip")
    hostile = rewritten(tmp_path / "shop.zip", HOSTILE["a number no column holds"])
    answer = client.post("/api/keeping/archive", content=hostile.read_bytes())
    assert (answer.status_code, "no value of a column" in answer.json()["detail"]) == (422, True)
    assert client.get("/api/keeping/copies").json() == []
