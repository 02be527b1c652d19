"""Who each parcel goes to: kept apart from its job, so that a person can be forgotten while the figures stay."""

from __future__ import annotations

import json
import re
import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime

from pydantic import ValidationError

from fardo.files.recipient import RecipientEntry
from fardo.files.typed import complaints
from fardo.store.database import Conflict, Database, Gone, Unreadable
from fardo.store.lineage import next_first

_MOST_FOUND = 500


@dataclass(frozen=True, slots=True)
class StoredRecipient:
    """Who a job's parcel goes to.

    Args:
        revision: 0 where nobody was written down yet.
        forgotten_at: when the person was forgotten, UTC.
    """

    revision: int = 0
    recipient: RecipientEntry = field(default_factory=lambda: RecipientEntry())
    forgotten_at: str | None = None


class Recipients:
    """Those of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def of(self, job_id: str) -> StoredRecipient:
        """Of a job; nobody where nobody was written down. Raises Unreadable."""
        row = self._database.read_one("SELECT * FROM recipient WHERE job_id = ?", (job_id,))
        return _stored(row) if row is not None else StoredRecipient()

    def change(self, job_id: str, revision: int, recipient: RecipientEntry) -> StoredRecipient:
        """Writes down who it goes to. Raises Gone, or Conflict where `revision` is not the newest."""
        with self._database.writing() as connection:
            _write(connection, job_id, revision, recipient, None)
        return self.of(job_id)

    def forget(self, job_id: str) -> StoredRecipient:
        """Forgets the person: address, order and note, notes at the bench, photographs of receipts. Figures stay.

        Returns:
            What is left: nothing but when that was. Raises Gone.
        """
        with self._database.writing() as connection:
            forget(connection, job_id)
        self._database.fold_in_log()
        return self.of(job_id)

    def found_by(self, words: str) -> list[str]:
        """Jobs whose recipient or order has each of these words in it."""
        wanted = re.findall(r"\w+", words.lower())[:12]
        if not wanted:
            return []
        each = " AND ".join(["instr(words, ?) > 0"] * len(wanted))
        rows = self._database.read(f"SELECT job_id FROM recipient WHERE {each} LIMIT {_MOST_FOUND}", tuple(wanted))
        return [row["job_id"] for row in rows]


def forget(connection: sqlite3.Connection, job_id: str) -> None:
    """Forgets the person of a job, within a transaction. Raises Gone where there is no such job."""
    kept = connection.execute("SELECT revision FROM recipient WHERE job_id = ?", (job_id,)).fetchone()
    _write(connection, job_id, kept["revision"] if kept else 0, RecipientEntry(), _now())
    _drop_notes(connection, job_id)
    _drop_receipts(connection, job_id)


def _write(
    connection: sqlite3.Connection, job_id: str, revision: int, recipient: RecipientEntry, forgotten_at: str | None
) -> None:
    if connection.execute("SELECT 1 FROM job WHERE id = ?", (job_id,)).fetchone() is None:
        raise Gone(f"There is no job {job_id}.")
    row = connection.execute("SELECT revision FROM recipient WHERE job_id = ?", (job_id,)).fetchone()
    newest = row["revision"] if row is not None else 0
    if newest != revision:
        raise Conflict(newest)
    number = newest + 1 if row is not None else next_first(connection)
    connection.execute(
        "INSERT INTO recipient VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (job_id) DO UPDATE SET"
        " revision = excluded.revision, content = excluded.content, words = excluded.words,"
        " saved_at = excluded.saved_at, forgotten_at = excluded.forgotten_at",
        (job_id, number, recipient.model_dump_json(), recipient.words, _now(), forgotten_at),
    )


def _drop_receipts(connection: sqlite3.Connection, job_id: str) -> None:
    """The photographs of a job's receipts, but for those that another job has too."""
    row = connection.execute("SELECT content FROM sending WHERE job_id = ?", (job_id,)).fetchone()
    content = json.loads(row["content"]) if row is not None else {}
    receipts: Sequence[str] = (content.get("handed_over") or {}).pop("receipts", [])
    if not receipts:
        return
    connection.execute(
        "UPDATE sending SET content = ?, revision = revision + 1 WHERE job_id = ?", (json.dumps(content), job_id)
    )
    _drop_files(connection, receipts)


def _drop_notes(connection: sqlite3.Connection, job_id: str) -> None:
    """What was written down and photographed at the packing steps of a job; the ticks stay."""
    rows = connection.execute("SELECT photo FROM packing_tick WHERE job_id = ? AND photo <> ''", (job_id,)).fetchall()
    connection.execute("UPDATE packing_tick SET note = '', photo = '' WHERE job_id = ?", (job_id,))
    _drop_files(connection, [row["photo"] for row in rows])


_HELD = (
    "SELECT 1 FROM sending WHERE instr(content, :name) UNION SELECT 1 FROM job_revision WHERE instr(content, :name)"
    " UNION SELECT 1 FROM packing_tick WHERE photo = :name"
)


def _drop_files(connection: sqlite3.Connection, names: Sequence[str]) -> None:
    """Files that nothing names any more."""
    for name in names:
        if connection.execute(_HELD, {"name": name}).fetchone() is None:
            connection.execute("DELETE FROM file WHERE name = ?", (name,))


def _stored(row: sqlite3.Row) -> StoredRecipient:
    """Raises Unreadable."""
    try:
        recipient = RecipientEntry.model_validate_json(row["content"])
    except ValidationError as error:
        first = next(complaints(error))
        raise Unreadable(row["job_id"], "", f"its recipient is none: {first.field}: {first.why}") from error
    return StoredRecipient(row["revision"], recipient, row["forgotten_at"])


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")
