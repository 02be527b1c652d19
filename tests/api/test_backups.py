"""Backups and restores: all of it or nothing at every instant, and nothing that was kept is ever overwritten."""

from __future__ import annotations

import os
import resource
import shutil
import sqlite3
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

import httpx
import pytest

from fardo.files.job import JobFile
from fardo.store.backup import back_up, restore
from fardo.store.database import Database, StoreError
from fardo.store.jobs import Jobs
from fardo.store.soundness import check_shop
from tests.api.test_command import fardo
from tests.cut_off import cut_off_at_every_step
from tests.made_up import job
from tests.served import Served


def titles(path: Path) -> list[str]:
    """Of the jobs of a shop, which is sound."""
    assert check_shop(path).flaws == ()
    database = Database(path)
    try:
        return sorted(line.title for line in Jobs(database).page().jobs)
    finally:
        database.close()


def add(path: Path, title: str) -> None:
    database = Database(path)
    Jobs(database).add(JobFile.model_validate(job(title=title)))
    database.close()


@pytest.fixture
def small(tmp_path: Path) -> Path:
    """A shop with one job and nothing else, that is quickly looked through."""
    path = tmp_path / "shop.db"
    add(path, "first")
    return path


@pytest.fixture
def two(small: Path, tmp_path: Path) -> tuple[Path, Path]:
    """A backup, and the shop it was made of, which has gone on since."""
    backup = tmp_path / "elsewhere" / "backup.db"
    backup.parent.mkdir()
    back_up(small, backup)
    add(small, "since")
    return backup, small


def killed(path: Path, title: str) -> None:
    """Leaves a shop as a killed server does: its last change stands in the log beside it."""
    child = os.fork()
    if child == 0:
        try:
            Jobs(Database(path)).add(JobFile.model_validate(job(title=title)))
        finally:
            os._exit(0)
    os.waitpid(child, 0)
    assert path.with_name(path.name + "-wal").stat().st_size > 0


def test_a_restore_cut_off_at_any_step_leaves_one_shop_or_the_other(two: tuple[Path, Path], tmp_path: Path) -> None:
    backup, shop = two
    before, after = titles(shop), titles(backup)
    folder = tmp_path / "trial"
    trial = folder / "shop.db"

    def begin() -> Callable[[], object]:
        shutil.rmtree(folder, ignore_errors=True)
        folder.mkdir()
        shutil.copy(shop, trial)
        killed(trial, "in the log")
        return lambda: restore(backup, trial)

    seen = set()
    for _ in cut_off_at_every_step(folder, begin):
        found = titles(trial)
        assert found in (after, sorted([*before, "in the log"]))
        if found == after:
            (kept,) = folder.glob("shop.db.before-restore-*")
            assert titles(kept) == sorted([*before, "in the log"])
        seen.add(found == after)
    assert seen == {True, False}  # cut off before the swap and after it
    assert titles(trial) == after


@pytest.mark.parametrize("what", ["backup", "migration", "new shop"])
def test_whatever_is_cut_off_leaves_nothing_half_done(small: Path, tmp_path: Path, what: str) -> None:
    folder = tmp_path / "trial"
    target = folder / "target.db"
    before = titles(small)

    def begin() -> Callable[[], object]:
        shutil.rmtree(folder, ignore_errors=True)
        folder.mkdir()
        if what == "migration":
            old_shop(target)
        if what == "backup":
            shutil.copy(small, target)
            return lambda: back_up(small, target)
        return lambda: Database(target)

    for _ in cut_off_at_every_step(folder, begin):
        if what == "new shop" and not target.exists():
            continue
        if what == "migration":
            Database(target).close()
            assert sqlite3.connect(target).execute("SELECT revision FROM shop").fetchone() == (4,)
        assert titles(target) == (before if what == "backup" else [])
        # Whatever was left half written is swept away by the next who writes there.
        Database(target).close()
        assert not list(folder.glob("*.fardo-part*"))


def old_shop(path: Path) -> None:
    """As the first version left it."""
    from fardo.files.shop import starting_shop
    from fardo.store.migrating import migrations

    connection = sqlite3.connect(path)
    connection.executescript(migrations()[0][1])
    connection.execute("INSERT INTO shop VALUES (1, 4, ?, '2026-01-01')", (starting_shop().model_dump_json(),))
    connection.execute("PRAGMA user_version = 1")
    connection.commit()
    connection.close()


def test_two_restores_within_a_second_keep_both_shops(two: tuple[Path, Path]) -> None:
    backup, shop = two
    first = restore(backup, shop)
    add(shop, "between")
    second = restore(backup, shop)
    assert first is not None
    assert second is not None
    assert first != second
    assert "since" in titles(first)
    assert "between" in titles(second)


def test_a_restore_beside_goes_on_above_what_was_given_out(two: tuple[Path, Path]) -> None:
    backup, shop = two
    with closing(sqlite3.connect(shop)) as connection:
        (given_out,) = connection.execute("SELECT max(revision) FROM job").fetchone()
    restore(backup, shop)
    with closing(sqlite3.connect(shop)) as connection:
        (least,) = connection.execute("SELECT min(revision) FROM job").fetchone()
    assert least > given_out
    assert check_shop(shop).flaws == ()
    # In the place of one that cannot be read they go on far above.
    shop.write_bytes(b"no shop at all" * 4000)
    restore(backup, shop)
    with closing(sqlite3.connect(shop)) as connection:
        (least,) = connection.execute("SELECT min(revision) FROM job").fetchone()
    assert least > 100_000
    assert check_shop(shop).flaws == ()


def test_a_shop_that_is_open_is_not_restored_and_a_save_after_it_is_kept(two: tuple[Path, Path]) -> None:
    backup, shop = two
    with Served(shop) as served:
        refused = fardo("restore", str(backup), "--db", str(shop), code=2)
        assert "open in another Fardo" in refused.stderr
        assert httpx.post(f"{served.url}/api/jobs", json=job(title="after")).status_code == 201
        # A backup is made all the same.
        fardo("backup", str(backup), "--db", str(shop))
    assert {"since", "after"} <= set(titles(shop))
    assert "after" in titles(backup)
    restore(backup, shop)


def test_a_shop_is_not_restored_from_itself_or_onto_a_folder(two: tuple[Path, Path], tmp_path: Path) -> None:
    _, shop = two
    before = shop.read_bytes()
    link = tmp_path / "link.db"
    link.symlink_to(shop)
    for other in (shop, link):
        with pytest.raises(StoreError, match="one file"):
            restore(other, shop)
        with pytest.raises(StoreError, match="one file"):
            back_up(shop, other)
    with pytest.raises(StoreError, match="folder"):
        back_up(shop, tmp_path)
    assert shop.read_bytes() == before


def unprivileged(work: Callable[[], object], most_bytes: int | None = None) -> str:
    """What the store says to work by somebody who may not write everywhere, or not much."""
    read, write = os.pipe()
    child = os.fork()
    if child == 0:
        said = "no refusal"
        try:
            if os.getuid() == 0:
                os.setuid(65534)
            if most_bytes is not None:
                resource.setrlimit(resource.RLIMIT_FSIZE, (most_bytes, most_bytes))
            work()
        except StoreError as error:
            said = str(error)
        except BaseException as error:
            said = f"a fault: {error!r}"
        os.write(write, said.encode())
        os._exit(0)
    os.close(write)
    with os.fdopen(read) as told:
        said = told.read()
    os.waitpid(child, 0)
    return said


@pytest.fixture
def anyones(two: tuple[Path, Path]) -> tuple[Path, Path]:
    """The same in folders that anybody may enter."""
    for path in (*two, *two[0].parents, *two[1].parents):
        if any(part.startswith("pytest-of-") for part in path.parts):
            path.chmod(0o777 if path.is_dir() else 0o666)
    return two


def test_onto_a_full_disk_or_into_a_folder_for_reading_nothing_changes(anyones: tuple[Path, Path]) -> None:
    backup, shop = anyones
    before = titles(shop)
    for name in ("-wal", "-shm", ".lock"):
        shop.with_name(shop.name + name).unlink(missing_ok=True)
    assert "was not written" in unprivileged(lambda: restore(backup, shop), most_bytes=60_000)
    assert "was not written" in unprivileged(lambda: back_up(shop, backup), most_bytes=60_000)
    assert titles(shop) == before
    shop.with_name(shop.name + ".lock").unlink(missing_ok=True)
    shop.parent.chmod(0o555)
    assert "was not written" in unprivileged(lambda: restore(backup, shop))
    shop.parent.chmod(0o755)
    assert titles(shop) == before
    assert not list(shop.parent.glob("*.fardo-part*"))


def test_a_shop_on_a_medium_for_reading_is_checked_and_backed_up(anyones: tuple[Path, Path], tmp_path: Path) -> None:
    backup, shop = anyones
    killed(shop, "in the log")
    for one in shop.parent.glob("shop.db*"):
        one.chmod(0o444)
    shop.with_name("shop.db-shm").unlink()
    shop.parent.chmod(0o555)
    try:
        assert unprivileged(lambda: check_shop(shop)) == "no refusal"
        assert unprivileged(lambda: back_up(shop, backup)) == "no refusal"
    finally:
        shop.parent.chmod(0o755)
    assert "in the log" in titles(backup)


def test_a_damaged_shop_is_kept_as_it_is_when_another_takes_its_place(two: tuple[Path, Path]) -> None:
    backup, shop = two
    content = bytearray(shop.read_bytes())
    content[5000:9000] = b"x" * 4000
    shop.write_bytes(content)
    kept = restore(backup, shop)
    assert kept is not None
    assert kept.read_bytes() == content
    assert "since" not in titles(shop)


def test_a_backup_that_is_no_shop_is_refused(two: tuple[Path, Path], tmp_path: Path) -> None:
    _, shop = two
    notes = tmp_path / "notes.txt"
    notes.write_text("not a database " * 99)
    for bad in (notes, tmp_path / "nothing.db"):
        with pytest.raises(StoreError):
            restore(bad, shop)
    assert "since" in titles(shop)
