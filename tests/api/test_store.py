"""The store under faults: killed while saving, damaged files, older and newer versions, backups."""

from __future__ import annotations

import json
import sqlite3
import threading
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import httpx
import pytest

from fardo.core.pack.fetch import NOTHING_USED
from fardo.files.job import JobFile
from fardo.files.kind import shipped_kinds
from fardo.files.sending import SendingEntry, StockTaken
from fardo.files.shop import starting_shop
from fardo.store.atomic_files import written_beside
from fardo.store.database import Conflict, Database, Gone, StoreError
from fardo.store.files import Files
from fardo.store.jobs import Jobs
from fardo.store.kinds import Kinds
from fardo.store.migrating import migrations
from fardo.store.revisions import Revisions
from fardo.store.sending import NOTHING_TAKEN, Sendings
from fardo.store.settings import Settings
from fardo.store.soundness import check_file, check_shop
from tests.earlier import shop_of_version
from tests.made_up import job
from tests.served import Served


def save_until_cut_off(url: str, key: str, kill_after: int, enough: threading.Event) -> int:
    """Saves a job again and again; returns how many changes were acknowledged before the server was gone."""
    acknowledged = 0
    with httpx.Client() as client:
        while True:
            change = {"revision": acknowledged + 1, "job": job(title=str(acknowledged + 1))}
            try:
                answer = client.put(f"{url}/api/jobs/{key}", json=change)
            except httpx.TransportError:
                return acknowledged
            assert answer.status_code == 200
            acknowledged += 1
            if acknowledged == kill_after:
                enough.set()


@pytest.mark.parametrize("kill_after", [3, 17, 40])
def test_killed_in_the_middle_of_saving_it_opens_with_every_acknowledged_change(
    shop_file: Path, kill_after: int
) -> None:
    with Served(shop_file) as server, ThreadPoolExecutor(1) as pool:
        key = httpx.post(f"{server.url}/api/jobs", json=job(title="0")).json()["id"]
        enough = threading.Event()
        saving = pool.submit(save_until_cut_off, server.url, key, kill_after, enough)
        assert enough.wait(60)
        server.kill()  # while the thread goes on saving
        acknowledged = saving.result()
    check_file(shop_file)
    database = Database(shop_file)
    stored = Jobs(database).get(key)
    # All that was acknowledged is there; one more may have been written and not yet answered.
    assert stored.revision - 1 in (acknowledged, acknowledged + 1)
    assert stored.job.title == str(stored.revision - 1)
    assert len(Revisions(database).list("job", key)) == min(stored.revision, 200)
    assert key in [one.id for one in Jobs(database).page(words=stored.job.title).jobs]
    database.close()


def test_a_change_that_fails_half_way_leaves_nothing(shop_file: Path) -> None:
    database = Database(shop_file)
    jobs = Jobs(database)
    kept = jobs.add(JobFile.model_validate(job()))

    def half() -> None:
        with database.writing() as connection:
            connection.execute("UPDATE job SET title = 'half'")
            connection.execute("INSERT INTO job_revision VALUES (?, 1, '{}', '', '')", (kept.id,))

    with pytest.raises(sqlite3.IntegrityError):
        half()
    assert jobs.get(kept.id) == kept
    with pytest.raises(Conflict):
        jobs.change(kept.id, 7, kept.job)
    with pytest.raises(Gone):
        jobs.change("nothing", 1, kept.job)
    database.close()


def test_two_who_change_at_once_never_overwrite_each_other(shop_file: Path) -> None:
    database = Database(shop_file)
    jobs = Jobs(database)
    kept = jobs.add(JobFile.model_validate(job()))
    wins, conflicts = [], []

    def change(n: int) -> None:
        try:
            wins.append(jobs.change(kept.id, 1, kept.job.model_copy(update={"title": str(n)})))
        except Conflict:
            conflicts.append(n)

    threads = [threading.Thread(target=change, args=(n,)) for n in range(12)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert (len(wins), len(conflicts)) == (1, 11)
    assert jobs.get(kept.id).job.title == wins[0].job.title
    database.close()


def test_a_newer_or_foreign_or_damaged_file_is_left_alone(shop_file: Path, tmp_path: Path) -> None:
    newer = sqlite3.connect(shop_file)
    newer.execute("PRAGMA user_version = 999")
    newer.commit()
    newer.execute("PRAGMA journal_mode = DELETE")
    newer.close()
    before = shop_file.read_bytes()
    with pytest.raises(StoreError, match="newer Fardo"):
        Database(shop_file)
    assert shop_file.read_bytes() == before
    foreign = tmp_path / "notes.txt"
    foreign.write_text("not a database at all, but long enough to look like something " * 20)
    with pytest.raises(StoreError, match="not a shop's database"):
        Database(foreign)
    assert foreign.read_text().startswith("not a database")
    with pytest.raises(StoreError, match="not there"):
        check_file(tmp_path / "nothing.db")
    other = tmp_path / "other.db"
    connection = sqlite3.connect(other)
    connection.execute("CREATE TABLE thing (a)")
    connection.close()
    with pytest.raises(StoreError, match="not a shop's"):
        check_file(other)


def test_tables_are_strict_and_content_is_json(shop_file: Path) -> None:
    database = Database(shop_file)
    strict = database.read("SELECT name FROM pragma_table_list WHERE schema = 'main' AND strict")
    assert {"shop", "tariff", "job", "job_revision"} <= {row[0] for row in strict}
    for row in database.read("SELECT content FROM job"):
        assert json.loads(row["content"])["format"] == "fardo-job/1"
    database.close()


def test_a_shop_closes_once_its_readers_are_done_and_is_not_read_after(shop_file: Path) -> None:
    """A connection closed under a thread that reads on it ends the whole process."""
    database = Database(shop_file)
    told: list[object] = []
    reading = threading.Event()
    slow = "WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 200000) SELECT i FROM n"

    def read() -> None:
        try:
            while True:
                reading.set()
                told.append(len(database.read(slow)))
        except StoreError as closed:
            told.append(str(closed))

    readers = [threading.Thread(target=read) for _ in range(3)]
    for reader in readers:
        reader.start()
    reading.wait()
    database.close()
    for reader in readers:
        reader.join()
    assert told.count(f"{shop_file} is closed") == 3
    assert set(told) <= {f"{shop_file} is closed", 200_000}
    with pytest.raises(StoreError, match="is closed"), database.writing():
        raise AssertionError("nothing is written to a closed shop")


def test_a_file_is_kept_once_under_a_name_made_from_it(shop_file: Path) -> None:
    database = Database(shop_file)
    files = Files(database)
    first = files.keep("front.jpg", ".jpg", "image/jpeg", b"one")
    assert files.keep("again.jpg", ".jpg", "image/jpeg", b"one") == first
    other = files.keep("front.jpg", ".jpg", "image/jpeg", b"two")
    assert other != first
    assert (files.get(first).content, files.get(first).called) == (b"one", "front.jpg")
    count = database.read("SELECT count(*) FROM file")[0][0]
    assert count == 2
    with pytest.raises(Gone):
        files.get("nothing.jpg")
    database.close()


def test_a_shops_own_kind_takes_the_place_of_a_shipped_one_and_gives_it_back(shop_file: Path) -> None:
    database = Database(shop_file)
    kinds = Kinds(database)
    shipped = kinds.get("mirror")
    assert shipped.revision == 0
    own = kinds.keep(shipped.kind.model_copy(update={"title": "Our mirrors"}), 0)
    assert (own.revision, kinds.get("mirror").kind.title) == (1, "Our mirrors")
    assert len(kinds.all()) == len(shipped_kinds())
    with pytest.raises(Conflict):
        kinds.keep(own.kind, 0)
    kinds.archive("mirror")
    assert kinds.get("mirror") == shipped
    # A new one of the same name begins anew, with a number that never stood for another.
    assert kinds.keep(shipped.kind, 0).revision == 2
    kinds.archive("mirror")
    assert kinds.restore("mirror").kind.title == shipped.kind.title
    with pytest.raises(Gone):
        kinds.archive("nothing")
    database.close()


def test_a_shop_of_before_there_was_wrap_opens_with_starting_materials_and_keeps_its_own_figures(
    tmp_path: Path,
) -> None:
    """As the first version left it: its tables, and settings that know no materials."""
    path = tmp_path / "old.db"
    number = 1
    connection = shop_of_version(path, number)
    settings = starting_shop().model_dump(mode="json")
    newer = ("wrap_minutes", "bubbles", "cushion_factor", "gaps", "materials", "habits")
    old = {name: value for name, value in settings.items() if name not in newer}
    old["gap"] = "3 in"
    connection.execute("INSERT INTO shop VALUES (1, 4, ?, '2026-01-01')", (json.dumps(old),))
    connection.commit()
    connection.close()
    database = Database(path)
    # Before its tables are brought up to date a copy is kept, as it was.
    copy = sqlite3.connect(path.with_name(f"old.db.before-{migrations()[-1][0]:03d}"))
    assert copy.execute("PRAGMA user_version").fetchone() == (number,)
    assert copy.execute("SELECT revision, content FROM shop").fetchall() == [(4, json.dumps(old))]
    copy.close()
    revision, shop = Settings(database).shop()
    assert (revision, shop.gap) == (4, "3 in")
    assert shop.materials == starting_shop().materials
    assert shop.to_core().materials["bubble-small"].bubbly
    assert Files(database).keep("a.jpg", ".jpg", "image/jpeg", b"1")
    database.close()
    assert check_file(path) == migrations()[-1][0]


def test_what_went_off_the_stock_before_supplies_were_counted_comes_back(tmp_path: Path) -> None:
    path = tmp_path / "then.db"
    shop = starting_shop()
    connection = shop_of_version(path, 10, shop)
    taken, nothing = shop.boxes[0], "{}"
    for n, (key, off) in enumerate((("a", json.dumps({taken.name: 2})), ("b", nothing))):
        connection.execute(
            "INSERT INTO job (id, revision, title, destination, content, created_at, saved_at, changed)"
            " VALUES (?, 1, '', '', '{}', '', '', ?)", (key, n)
        )  # fmt: skip
        connection.execute("INSERT INTO sending VALUES (?, 1, '{}', ?, '')", (key, off))
    connection.commit()
    connection.close()
    database = Database(path)
    sendings = Sendings(database)
    assert sendings.of("a").taken == StockTaken(boxes={taken.name: 2})
    assert sendings.of("b").taken == NOTHING_TAKEN
    sendings.change("a", 1, SendingEntry(), NOTHING_USED)
    _, after = Settings(database).shop()
    assert after.boxes[0].count == taken.count + 2
    database.close()


@pytest.mark.parametrize("version", [2, 5])
def test_a_file_of_an_earlier_version_is_checked_as_it_is(tmp_path: Path, version: int) -> None:
    """A copy made before an update is looked at without being changed; columns were called otherwise then."""
    path = tmp_path / "then.db"
    connection = shop_of_version(path, version, starting_shop())
    connection.commit()
    connection.close()
    before = path.read_bytes()
    assert check_shop(path).version == version
    assert path.read_bytes() == before


def test_a_fault_of_the_disk_is_told_and_any_other_of_the_database_stays_what_it_is(tmp_path: Path) -> None:
    for code, raised in ((sqlite3.SQLITE_FULL, StoreError), (sqlite3.SQLITE_ERROR, sqlite3.OperationalError)):
        fault = sqlite3.OperationalError("said")
        fault.sqlite_errorcode = code
        with pytest.raises(raised), written_beside(tmp_path / "copy.db"):
            raise fault
    assert list(tmp_path.iterdir()) == []
