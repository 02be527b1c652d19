"""A shop's file as each earlier version of the program wrote it, kept under tests/kept/shops, is brought up to date.

Each was written by that version's own code: the made-up shop, a job changed, one archived, and from when there were
any a file, a tick, a label sold and a parcel weighed. A new migration wants a file of the version before it.
"""

from __future__ import annotations

import lzma
import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest

from fardo.api.bench import entry_of_text
from fardo.api.context import AppContext, Crews
from fardo.store.archive import export_shop, import_shop
from fardo.store.migrating import newest_version
from fardo.store.soundness import check_shop

KEPT = Path(__file__).parents[1] / "kept/shops"
VERSIONS = range(1, newest_version() + 1)
TABLES = ("job", "job_revision", "tariff", "tariff_revision", "file", "label", "packing_tick", "sending", "recipient")


@pytest.fixture(params=VERSIONS)
def earlier(request: pytest.FixtureRequest, tmp_path: Path) -> Path:
    path = tmp_path / "shop.db"
    path.write_bytes(lzma.decompress((KEPT / f"version-{request.param:02d}.db.xz").read_bytes()))
    return path


def rows_of(path: Path, query: str) -> list[tuple[Any, ...]]:
    with closing(sqlite3.connect(path)) as connection:
        return connection.execute(query).fetchall()


def version_of(path: Path) -> int:
    return int(rows_of(path, "PRAGMA user_version")[0][0])


def counts(path: Path) -> dict[str, int]:
    there = {name for (name,) in rows_of(path, "SELECT name FROM sqlite_schema WHERE type = 'table'")}
    return {table: rows_of(path, f"SELECT count(*) FROM {table}")[0][0] for table in TABLES if table in there}


def test_all_that_an_earlier_version_kept_is_there_and_can_be_worked_with(earlier: Path) -> None:
    before, version = counts(earlier), version_of(earlier)
    titles = dict(rows_of(earlier, "SELECT id, title FROM job"))
    context = AppContext(earlier, Crews())
    try:
        after = counts(earlier)
        assert {table: after[table] for table in before} == before
        assert context.settings.shop()[1].name == "Gannet Row Workshop"
        assert len(context.today.carriers.services) >= 2
        in_hand, archived = context.jobs.page().jobs, context.jobs.page(archived=True).jobs
        assert {one.id: one.title for one in (*in_hand, *archived)} == titles
        assert len(archived) == 1
        for line in (*in_hand, *archived):
            assert line.read().job.parts, line.title
            entry = entry_of_text(line.content, context.today)
            assert "fault" not in entry.next_move, line.title
            assert entry.unreadable == "", line.title
        changed = next(one for one in in_hand if one.title.endswith("(second revision)"))
        assert [one.revision for one in context.revisions.list("job", changed.id)] == [2, 1]
        if version >= 4:
            label = context.labels.of_job(changed.id)
            assert label is not None
            assert (label.state, label.tracking, label.amount) == ("sold", "OB-1", "21.50")
        if version >= 7:
            assert [tick.step for tick in context.ticks.of(changed.id)] == ["fetch"]
        if version >= 8:
            closed = context.sendings.of(changed.id).sending.closed
            assert closed is not None
            assert closed.weight == "12 lb 3 oz"
    finally:
        context.database.close()
    kept = [one for one in earlier.parent.iterdir() if ".before-" in one.name]
    as_it_was = [(version_of(one), counts(one)) for one in kept]
    assert as_it_was == ([(version, before)] if version < newest_version() else [])
    sound = check_shop(earlier)
    assert (sound.version, sound.flaws) == (newest_version(), ())


def test_an_earlier_shop_is_exported_and_read_back_with_the_same_rows(earlier: Path, tmp_path: Path) -> None:
    export_shop(earlier, tmp_path / "shop.zip")
    import_shop(tmp_path / "shop.zip", tmp_path / "other.db")
    before, after = counts(earlier), counts(tmp_path / "other.db")
    assert {table: after[table] for table in before} == before


def test_a_shop_of_every_version_is_kept() -> None:
    assert sorted(one.name for one in KEPT.glob("*.xz")) == [f"version-{n:02d}.db.xz" for n in VERSIONS]
