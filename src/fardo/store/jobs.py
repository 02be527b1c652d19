"""Jobs: kept with every revision, found by their words, put away and brought back."""

from __future__ import annotations

import json
import re
import secrets
import sqlite3
from dataclasses import dataclass
from datetime import UTC, datetime

from fardo.files.job import JobFile, plain
from fardo.store.database import Conflict, Database, Gone, StoreError


@dataclass(frozen=True, slots=True)
class StoredJob:
    """A job with what the store knows of it. Times are UTC, ISO 8601."""

    id: str
    revision: int
    job: JobFile
    created_at: str
    saved_at: str
    put_away_at: str | None


@dataclass(frozen=True, slots=True)
class Page:
    """Some of the jobs, newest first; `cursor` asks for the next ones, None at the end."""

    jobs: tuple[StoredJob, ...]
    cursor: str | None


class Jobs:
    """The jobs of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def add(self, job: JobFile) -> StoredJob:
        now, key = _now(), secrets.token_hex(6)
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO job (id, revision, title, day, destination, content, created_at, saved_at)"
                " VALUES (?, 0, '', NULL, '', '{}', ?, ?)",
                (key, now, now),
            )
            _write(connection, key, 1, job, now)
        return self.get(key)

    def get(self, key: str) -> StoredJob:
        """Raises Gone."""
        row = self._database.reader.execute("SELECT * FROM job WHERE id = ?", (key,)).fetchone()
        if row is None:
            raise Gone(f"There is no job {key}.")
        return _stored(row)

    def change(self, key: str, revision: int, job: JobFile) -> StoredJob:
        """The job as it now is. Raises Gone, or Conflict where `revision` is not the newest."""
        with self._database.writing() as connection:
            newest = _revision(connection, key)
            if newest != revision:
                raise Conflict(newest)
            _write(connection, key, revision + 1, job, _now())
        return self.get(key)

    def put_away(self, key: str) -> StoredJob:
        """Takes it off the bench; nothing of it is lost. Raises Gone."""
        return self._set_put_away(key, _now())

    def bring_back(self, key: str) -> StoredJob:
        """Raises Gone."""
        return self._set_put_away(key, None)

    def _set_put_away(self, key: str, when: str | None) -> StoredJob:
        with self._database.writing() as connection:
            _revision(connection, key)
            connection.execute("UPDATE job SET put_away_at = ? WHERE id = ?", (when, key))
        return self.get(key)

    def page(self, *, words: str = "", put_away: bool = False, cursor: str | None = None, size: int = 50) -> Page:
        """Jobs on the bench, or those put away, that hold every one of `words` (beginnings of words count)."""
        after_time, _, after_id = (cursor or "9999 ").partition(" ")
        match = _match(words)
        rows = self._database.reader.execute(
            "SELECT job.* FROM job"
            + (" JOIN job_search ON job_search.rowid = job.number" if match else "")
            + f" WHERE put_away_at IS {'NOT' if put_away else ''} NULL"
            + (" AND job_search MATCH :match" if match else "")
            + " AND (saved_at < :time OR (saved_at = :time AND job.id > :id))"
            + " ORDER BY saved_at DESC, job.id LIMIT :size",
            {"match": match, "time": after_time, "id": after_id, "size": size + 1},
        ).fetchall()
        jobs = tuple(_stored(row) for row in rows[:size])
        return Page(jobs, f"{jobs[-1].saved_at} {jobs[-1].id}" if len(rows) > size else None)

    def check_all(self) -> int:
        """Reads every job there is; returns how many. Raises StoreError naming one that cannot be read."""
        rows = self._database.reader.execute("SELECT id, content FROM job").fetchall()
        for row in rows:
            try:
                JobFile.model_validate_json(row["content"])
            except ValueError as error:
                raise StoreError(f"job {row['id']} cannot be read: {error}") from error
        return len(rows)

    def revisions(self, key: str) -> list[tuple[int, str]]:
        """Number and time of each revision, oldest first."""
        rows = self._database.reader.execute(
            "SELECT revision, saved_at FROM job_revision WHERE job_id = ? ORDER BY revision", (key,)
        )
        return [(row["revision"], row["saved_at"]) for row in rows]


def _write(connection: sqlite3.Connection, key: str, revision: int, job: JobFile, now: str) -> None:
    content = json.dumps(plain(job), ensure_ascii=False)
    connection.execute(
        "UPDATE job SET revision = ?, title = ?, day = ?, destination = ?, content = ?, saved_at = ? WHERE id = ?",
        (revision, job.title, job.day.isoformat() if job.day else None, job.ship.to or "", content, now, key),
    )
    connection.execute("INSERT INTO job_revision VALUES (?, ?, ?, ?)", (key, revision, content, now))
    words = [job.title, job.ship.to or "", *(part.name for part in job.parts), *(extra.name for extra in job.extras)]
    number = connection.execute("SELECT number FROM job WHERE id = ?", (key,)).fetchone()["number"]
    connection.execute("DELETE FROM job_search WHERE rowid = ?", (number,))
    connection.execute("INSERT INTO job_search (rowid, words) VALUES (?, ?)", (number, " ".join(words)))


def _revision(connection: sqlite3.Connection, key: str) -> int:
    row = connection.execute("SELECT revision FROM job WHERE id = ?", (key,)).fetchone()
    if row is None:
        raise Gone(f"There is no job {key}.")
    return int(row["revision"])


def _stored(row: sqlite3.Row) -> StoredJob:
    job = JobFile.model_validate_json(row["content"])
    return StoredJob(row["id"], row["revision"], job, row["created_at"], row["saved_at"], row["put_away_at"])


def _match(words: str) -> str:
    """An FTS5 query for what was typed: each word quoted, so that no sign in it is taken for the query language."""
    return " ".join(f'"{word}"*' for word in re.findall(r"\w+", words)[:12])


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="microseconds")
