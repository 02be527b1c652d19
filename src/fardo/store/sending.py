"""What became of each job's parcel, kept with a revision; and what it took off the stock, in the same transaction.

What is used goes off the stock once, however many devices say so, and comes back as it went when that is undone.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import TypeVar

from fardo.files.sending import SendingEntry
from fardo.files.shop import ShopFile
from fardo.files.stock import BoxEntry, PouchEntry
from fardo.store.database import Conflict, Database, Gone
from fardo.store.settings import write_shop

Counted = TypeVar("Counted", BoxEntry, PouchEntry)


@dataclass(frozen=True, slots=True)
class StoredSending:
    """What became of a job's parcel.

    Args:
        revision: 0 where nothing was written down yet.
        taken: off the stock, how many of each box or mailer by its name.
    """

    revision: int = 0
    sending: SendingEntry = field(default_factory=lambda: SendingEntry())
    taken: Mapping[str, int] = field(default_factory=dict)


class Sendings:
    """Those of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def of(self, job_id: str) -> StoredSending:
        """Of a job; an empty one where nothing was written down."""
        return self.of_each([job_id]).get(job_id, StoredSending())

    def of_each(self, job_ids: Sequence[str]) -> dict[str, StoredSending]:
        """Of those of these jobs of which something was written down."""
        marks = ", ".join("?" * len(job_ids))
        rows = self._database.read(f"SELECT * FROM sending WHERE job_id IN ({marks})", tuple(job_ids))
        return {row["job_id"]: _stored(row) for row in rows}

    def change(self, job_id: str, revision: int, sending: SendingEntry, used: Mapping[str, int]) -> StoredSending:
        """Writes down what became of a parcel, and takes off the stock what it used, or puts it back.

        Args:
            revision: that it was changed from.
            used: boxes and mailers that are used up now, by name; none where it is not packed, or no more.

        Raises:
            Gone: where there is no such job.
            Conflict: where `revision` is not the newest.
        """
        with self._database.writing() as connection:
            if connection.execute("SELECT 1 FROM job WHERE id = ?", (job_id,)).fetchone() is None:
                raise Gone(f"There is no job {job_id}.")
            row = connection.execute("SELECT * FROM sending WHERE job_id = ?", (job_id,)).fetchone()
            kept = _stored(row) if row is not None else StoredSending()
            if kept.revision != revision:
                raise Conflict(kept.revision)
            taken = _take(connection, kept.taken, used)
            over = sending.handed_over.on.isoformat() if sending.handed_over else None
            connection.execute("UPDATE job SET handed_over = ? WHERE id = ?", (over, job_id))
            connection.execute(
                "INSERT INTO sending VALUES (?, ?, ?, ?, ?) ON CONFLICT (job_id) DO UPDATE SET"
                " revision = excluded.revision, content = excluded.content, taken = excluded.taken,"
                " saved_at = excluded.saved_at",
                (job_id, revision + 1, sending.model_dump_json(exclude_none=True), json.dumps(taken), _now()),
            )
        return self.of(job_id)


def _take(connection: sqlite3.Connection, taken: Mapping[str, int], used: Mapping[str, int]) -> dict[str, int]:
    """Puts back what was taken and takes what is used now; what was taken in the end, at most what there was."""
    row = connection.execute("SELECT revision, content FROM shop").fetchone()
    if row is None:
        return {}
    shop = with_back(ShopFile.model_validate_json(row["content"]), taken)
    now = {name: min(count, there) for name, count in used.items() if (there := _there(shop).get(name, 0))}
    if now != dict(taken):
        write_shop(connection, row["revision"], with_back(shop, {name: -count for name, count in now.items()}))
    return now


def with_back(shop: ShopFile, taken: Mapping[str, int]) -> ShopFile:
    """The shop with that on its shelf again."""
    left = dict(taken)
    boxes = [_counted(one, left.pop(one.name, 0)) for one in shop.boxes]
    mailers = [_counted(one, left.pop(one.name, 0)) for one in shop.mailers]
    return shop.model_copy(update={"boxes": boxes, "mailers": mailers})


def _counted(entry: Counted, more: int) -> Counted:
    return entry.model_copy(update={"count": entry.count + more}) if more else entry


def _there(shop: ShopFile) -> dict[str, int]:
    """How many there are of each box or mailer, by name; of two of one name the first counts."""
    there = {one.name: one.count for one in reversed(shop.mailers)}
    return there | {one.name: one.count for one in reversed(shop.boxes)}


def _stored(row: sqlite3.Row) -> StoredSending:
    sending = SendingEntry.model_validate_json(row["content"])
    return StoredSending(row["revision"], sending, json.loads(row["taken"]))


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")
