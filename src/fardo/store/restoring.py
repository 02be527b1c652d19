"""A copy of a shop against the shop as it is: what putting it back would change; and it put back while the shop is
served, in one transaction, after the shop as it is was kept beside it.

Some things only go forward. A person who was forgotten since stays forgotten. A label that was bought or voided since
stays so, where its job is in the copy: its carrier knows. Who may open the shop from other devices stays as it is.
"""

from __future__ import annotations

import sqlite3
import tempfile
from collections.abc import Iterator, Sequence
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

from fardo.store.archive import tables_of
from fardo.store.backup import back_up, keep_copy
from fardo.store.database import Database
from fardo.store.faults import StoreError
from fardo.store.jobs import renew_search
from fardo.store.lineage import base_of, go_on_above
from fardo.store.migrating import migrate
from fardo.store.recipients import forget
from fardo.store.soundness import check_shop

_JOBS = "SELECT id, title, content FROM job"
_TARIFFS = "SELECT carrier, carrier, content FROM tariff"
_KINDS = "SELECT code, code, content FROM kind"
_Named = dict[str, tuple[str, str]]  # by key: what it is called, and its content


@dataclass(frozen=True, slots=True)
class Differing:
    """What of one table a copy has otherwise, by name.

    Args:
        back: that is in the copy alone.
        gone: that is in the shop alone.
        other: that is in both and differs.
    """

    back: tuple[str, ...]
    gone: tuple[str, ...]
    other: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Changes:
    """What putting a copy back would change.

    Args:
        jobs, tariffs, kinds: of each what would come back, be gone, be another.
        settings: whether those differ.
        labels: how many that are bought would be gone here with their jobs, though their carriers have sold them.
    """

    jobs: Differing
    tariffs: Differing
    kinds: Differing
    settings: bool
    labels: int


def changes_of(copy: Path, database: Database) -> Changes:
    """What putting a copy back would change. Raises StoreError where it is none of a shop."""
    with _as_of_today(copy) as other:
        jobs, tariffs, kinds = (
            _differing(_named(other.execute(query)), _named(database.read(query)))
            for query in (_JOBS, _TARIFFS, _KINDS)
        )
        shops = [[row[0] for row in rows] for rows in (other.execute("SELECT content FROM shop"),
                                                       database.read("SELECT content FROM shop"))]  # fmt: skip
        kept = {row[0] for row in other.execute("SELECT id FROM job")}
        bought = database.read("SELECT job_id FROM label WHERE state IN ('asking', 'sold', 'voiding')")
        lost = sum(row["job_id"] not in kept for row in bought)
        return Changes(jobs, tariffs, kinds, shops[0] != shops[1], lost)


def put_back(copy: Path, database: Database) -> Path:
    """Puts a copy in the place of all there is, all of it or nothing, while the shop is served.

    Returns:
        Where the shop as it was is kept.

    Raises:
        StoreError: where the copy is none of a sound shop, or something cannot be written.
    """
    shop, now = database.path, f"{datetime.now(UTC):%Y%m%d-%H%M%S}"
    with _as_of_today(copy) as other, database.writing() as connection:
        # Nobody else writes from here on: what is kept is what is replaced.
        kept = keep_copy(shop, shop.with_name(f"{shop.name}.before-restore-{now}"))
        forgotten = connection.execute("SELECT job_id FROM recipient WHERE forgotten_at IS NOT NULL").fetchall()
        labels = connection.execute("SELECT * FROM label ORDER BY number").fetchall()
        connection.execute("PRAGMA defer_foreign_keys = ON")
        base = base_of(connection)
        tables = tables_of(other)
        for table in (*tables, "job_bench"):
            connection.execute(f"DELETE FROM {table}")
        for table in tables:
            _take_over(table, other, connection)
        go_on_above(connection, base)
        there = {row["id"] for row in connection.execute("SELECT id FROM job")}
        for row in forgotten:
            if row["job_id"] in there:
                forget(connection, row["job_id"])
        _keep_labels([row for row in labels if row["job_id"] in there], connection)
        renew_search(connection)
    database.fold_in_log()  # what was forgotten is not left lying in it
    return kept


def _keep_labels(labels: Sequence[sqlite3.Row], connection: sqlite3.Connection) -> None:
    """Labels as they are now in the place of what the copy knows of those jobs' labels."""
    for job_id in {row["job_id"] for row in labels}:
        connection.execute("DELETE FROM label WHERE job_id = ?", (job_id,))
    (last,) = connection.execute("SELECT coalesce(max(number), 0) FROM label").fetchone()
    for n, row in enumerate(labels, 1):
        told = {**dict(row), "number": last + n}
        marks = ", ".join("?" * len(told))
        connection.execute(f"INSERT INTO label ({', '.join(told)}) VALUES ({marks})", tuple(told.values()))


def _take_over(table: str, other: sqlite3.Connection, connection: sqlite3.Connection) -> None:
    rows = other.execute(f"SELECT * FROM {table} ORDER BY rowid")
    columns = [one[0] for one in rows.description]
    marks = ", ".join("?" * len(columns))
    # A row at a time, as photographs may be large.
    for row in rows:
        connection.execute(f"INSERT INTO {table} ({', '.join(columns)}) VALUES ({marks})", tuple(row))


@contextmanager
def _as_of_today(copy: Path) -> Iterator[sqlite3.Connection]:
    """A copy's content, brought up to date in a place of its own."""
    with tempfile.TemporaryDirectory(prefix="fardo-") as folder:
        mine = Path(folder) / "copy.db"
        back_up(copy, mine)
        with closing(sqlite3.connect(mine, isolation_level=None)) as connection:
            migrate(connection)
        if flaws := check_shop(mine).flaws:
            raise StoreError(f"{copy.name} is not sound: {flaws[0]}")
        with closing(sqlite3.connect(mine)) as connection:
            yield connection


def _named(rows: Iterator[tuple[str, str, str]] | list[sqlite3.Row]) -> _Named:
    return {key: (name, content) for key, name, content in rows}


def _differing(copy: _Named, now: _Named) -> Differing:
    return Differing(
        tuple(copy[key][0] for key in copy if key not in now),
        tuple(now[key][0] for key in now if key not in copy),
        tuple(now[key][0] for key in now if key in copy and now[key][1] != copy[key][1]),
    )
