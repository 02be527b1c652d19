"""Jobs: kept with every revision, found by their words, archived and restored."""

from __future__ import annotations

import json
import re
import secrets
import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from hashlib import blake2b

from fardo.files.job import JobFile, plain
from fardo.files.typed import must_read_back
from fardo.store.database import Conflict, Database, Gone, Unreadable
from fardo.store.lineage import next_first
from fardo.store.soundness import why_unreadable
from fardo.store.words import words_of


@dataclass(frozen=True, slots=True)
class StoredJob:
    """A job with what the store knows of it. Times are UTC, ISO 8601.

    Args:
        change: what a page called the change that made this revision; empty where it gave it no name.
    """

    id: str
    revision: int
    job: JobFile
    created_at: str
    saved_at: str
    archived_at: str | None
    change: str = ""


@dataclass(frozen=True, slots=True)
class JobLine:
    """A job as a list has it: its text is not read yet, so that a list is quick and one bad job spoils none.

    Args:
        content: the job as JSON.
        bench: what the bench shows of it, as JSON, as it was last worked out of this content; None where it was not.
        stamp: of the shop for which that was.
        taken: off the stock for it, as JSON.
    """

    id: str
    revision: int
    title: str
    day: str | None
    destination: str
    created_at: str
    saved_at: str
    archived_at: str | None
    content: str
    bench: str | None
    stamp: str | None
    change: str = ""
    taken: str = "{}"

    def read(self) -> StoredJob:
        """Raises Unreadable."""
        try:
            job = JobFile.model_validate_json(self.content)
        except ValueError as error:
            raise Unreadable(self.id, self.title, why_unreadable(self.content)) from error
        if job.chosen.label is not None:
            # Jobs kept their label themselves once; now a label is kept of its own, and a copy of a job has none.
            job = without_label(job)
        return StoredJob(
            self.id, self.revision, job, self.created_at, self.saved_at, self.archived_at, self.change
        )  # fmt: skip


@dataclass(frozen=True, slots=True)
class Page:
    """Some of the jobs, the last changed first; `cursor` asks for the next ones, None at the end."""

    jobs: tuple[JobLine, ...]
    cursor: str | None


_LINES = (
    "SELECT job.*, job_bench.content AS bench, job_bench.stamp AS stamp, job_bench.of_content AS of_content,"
    " sending.taken AS taken"
    " FROM job LEFT JOIN job_bench ON job_bench.job_id = job.id LEFT JOIN sending ON sending.job_id = job.id"
)
_GONE = "9999-12-31~"  # after every day there is


class Jobs:
    """The jobs of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def add(self, job: JobFile) -> StoredJob:
        now, key = _now(), secrets.token_hex(6)
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO job (id, revision, title, day, destination, content, created_at, saved_at, changed)"
                " VALUES (?, 0, '', NULL, '', '{}', ?, ?, ?)",
                (key, now, now, _next(connection)),
            )
            _write(connection, key, next_first(connection), job, now)
        return self.get(key)

    def get(self, key: str) -> StoredJob:
        """Raises Gone, or Unreadable where what is kept is no job."""
        return self.line(key).read()

    def line(self, key: str) -> JobLine:
        """Raises Gone."""
        row = self._database.read_one(f"{_LINES} WHERE job.id = ?", (key,))
        if row is None:
            raise Gone(f"There is no job {key}.")
        return _line(row)

    def change(self, key: str, revision: int, job: JobFile, change: str = "") -> StoredJob:
        """The job as it now is. Raises Gone, or Conflict where `revision` is not the newest.

        Args:
            change: what a page calls this change. One that was made already is not made again: its answer was lost.
        """
        with self._database.writing() as connection:
            newest = _revision(connection, key)
            if newest != revision:
                if not (change and _made(connection, key, change)):
                    raise Conflict(newest)
            else:
                _write(connection, key, revision + 1, job, _now(), change)
        return self.get(key)

    def archive(self, key: str) -> JobLine:
        """Takes it off the bench; nothing of it is lost. Raises Gone."""
        return self._set_archived(key, _now())

    def restore(self, key: str) -> JobLine:
        """Raises Gone."""
        return self._set_archived(key, None)

    def _set_archived(self, key: str, when: str | None) -> JobLine:
        with self._database.writing() as connection:
            _revision(connection, key)
            connection.execute("UPDATE job SET archived_at = ? WHERE id = ?", (when, key))
            words = connection.execute(
                "SELECT words FROM job_search JOIN job ON job.changed = job_search.rowid WHERE job.id = ?", (key,)
            ).fetchone()
            _index(connection, key, words["words"] if words else "")
        return self.line(key)

    def page(
        self, *, words: str = "", archived: bool = False, cursor: str | None = None, size: int = 50,
        others: Sequence[str] = (),
    ) -> Page:  # fmt: skip
        """Jobs on the bench, or archived ones, that hold every one of `words` (beginnings of words count); the last
        changed first.

        Args:
            others: jobs that are found by the words otherwise, by who they go to.
        """
        before = int(cursor) if cursor is not None and re.fullmatch(r"\d{1,18}", cursor) else 2**62
        match = _match(words, "away" if archived else "hand")
        place = f"archived_at IS {'NOT' if archived else ''} NULL"
        found = f"{place} AND job.id IN (SELECT value FROM json_each(:others))"
        rows = self._database.read(
            (
                f"{_LINES} WHERE changed < :before AND (changed IN"
                f" (SELECT rowid FROM job_search WHERE job_search MATCH :match) OR {found})"
                if match
                else f"{_LINES} WHERE {place} AND changed < :before"
            )
            + " ORDER BY changed DESC LIMIT :size",
            {"match": match, "before": before, "size": size + 1, "others": json.dumps(list(others))},
        )
        jobs = tuple(_line(row) for row in rows[:size])
        return Page(jobs, str(rows[size - 1]["changed"]) if len(rows) > size else None)

    def page_by_day(self, today: date, cursor: str | None = None, size: int = 50) -> Page:
        """Jobs on the bench, what leaves first before the rest; what has no ship date between what leaves by tomorrow
        and what leaves later, what was handed over last of all. Of one day the last changed first.
        """
        day, _, before = (cursor or "").rpartition(":")
        if not (re.fullmatch(r"\d{4}-\d\d-\d\d~?", day) and re.fullmatch(r"\d{1,18}", before)):
            day, before = "", "0"
        undated = f"{today + timedelta(days=1)}~"
        leaves = "iif(handed_over IS NULL, coalesce(day, :undated), :gone)"
        rows = self._database.read(
            f"SELECT lines.*, {leaves} AS leaves FROM ({_LINES}) AS lines WHERE archived_at IS NULL"
            f" AND ({leaves} > :day OR {leaves} = :day AND changed < :before)"
            f" ORDER BY {leaves}, changed DESC LIMIT :size",
            {"undated": undated, "gone": _GONE, "day": day, "before": int(before), "size": size + 1},
        )
        last = rows[size - 1] if len(rows) > size else None
        after = f"{last['leaves']}:{last['changed']}" if last else None
        return Page(tuple(_line(row) for row in rows[:size]), after)

    def with_box(self, size: int) -> tuple[list[JobLine], int]:
        """Jobs in hand that have chosen a box and are not handed over, and how many there are.

        Those that had blanks cut come last, those without a day after the others; else the first to leave first.
        """
        where = " WHERE archived_at IS NULL AND handed_over IS NULL AND box_way <> ''"
        order = " ORDER BY EXISTS (SELECT 1 FROM job_cut WHERE job_cut.job_id = job.id), day IS NULL, day, changed"
        rows = self._database.read(f"{_LINES}{where}{order} LIMIT ?", (size,))
        [(count,)] = self._database.read(f"SELECT count(*) FROM job{where}")
        return [_line(row) for row in rows], int(count)

    def handed_over_on(self, day: date) -> list[JobLine]:
        """The jobs that were handed over on a day, by their titles."""
        rows = self._database.read(f"{_LINES} WHERE handed_over = ? ORDER BY title, job.id", (day.isoformat(),))
        return [_line(row) for row in rows]

    def lines(self, keys: Sequence[str]) -> list[JobLine]:
        """The jobs of these keys in their order; those there are none of are left out."""
        marks = ", ".join("?" * len(keys))
        rows = self._database.read(f"{_LINES} WHERE job.id IN ({marks})", tuple(keys))
        found = {row["id"]: _line(row) for row in rows}
        return [found[key] for key in dict.fromkeys(keys) if key in found]

    def keep_bench(self, lines: Sequence[tuple[JobLine, str]], stamp: str) -> None:
        """Keeps what the bench shows of jobs, worked out of just these lines, as JSON."""
        with self._database.writing() as connection:
            connection.executemany(
                "INSERT INTO job_bench VALUES (?, ?, ?, ?) ON CONFLICT (job_id) DO UPDATE SET"
                " of_content = excluded.of_content, stamp = excluded.stamp, content = excluded.content",
                [(line.id, fingerprint(line.content), stamp, bench) for line, bench in lines],
            )

    def renew_search(self) -> None:
        """Makes the search index anew from the jobs."""
        with self._database.writing() as connection:
            renew_search(connection)


def renew_search(connection: sqlite3.Connection) -> None:
    """Makes the search index of a shop anew from its jobs."""
    connection.execute("DELETE FROM job_search")
    for job_id, content in connection.execute("SELECT id, content FROM job").fetchall():
        try:
            words = words_of(JobFile.model_validate_json(content))
        except ValueError:
            words = ""
        _index(connection, job_id, words, renumber=False)


def fingerprint(content: str) -> str:
    """Differs where the content does."""
    return blake2b(content.encode("utf-8", "surrogatepass"), digest_size=12).hexdigest()


def without_label(job: JobFile) -> JobFile:
    return job.model_copy(update={"chosen": job.chosen.model_copy(update={"label": None})})


def _made(connection: sqlite3.Connection, key: str, change: str) -> bool:
    """Whether the newest revision is that change."""
    row = connection.execute("SELECT change_id FROM job WHERE id = ?", (key,)).fetchone()
    return row is not None and row["change_id"] == change


def _write(connection: sqlite3.Connection, key: str, revision: int, job: JobFile, now: str, change: str = "") -> None:
    content = must_read_back(JobFile, json.dumps(plain(job), ensure_ascii=False, allow_nan=False))
    day, way = job.day.isoformat() if job.day else None, job.chosen.box.way if job.chosen.box else ""
    connection.execute(
        "UPDATE job SET revision = ?, title = ?, day = ?, destination = ?, content = ?, saved_at = ?, box_way = ?,"
        " change_id = ? WHERE id = ?",
        (revision, job.title, day, job.ship.to or "", content, now, way, change, key),
    )
    connection.execute("INSERT INTO job_revision VALUES (?, ?, ?, ?, ?)", (key, revision, content, now, change))
    _index(connection, key, words_of(job))


def _index(connection: sqlite3.Connection, key: str, words: str, *, renumber: bool = True) -> None:
    """Its words under its place in the order of change, which is a new one unless it keeps the one it has."""
    row = connection.execute("SELECT changed, archived_at FROM job WHERE id = ?", (key,)).fetchone()
    changed = row["changed"]
    connection.execute("DELETE FROM job_search WHERE rowid = ?", (changed,))
    if renumber:
        changed = _next(connection)
        connection.execute("UPDATE job SET changed = ? WHERE id = ?", (changed, key))
    place = "hand" if row["archived_at"] is None else "away"
    connection.execute("INSERT INTO job_search (rowid, words, place) VALUES (?, ?, ?)", (changed, words, place))


def _next(connection: sqlite3.Connection) -> int:
    return int(connection.execute("SELECT coalesce(max(changed), 0) + 1 FROM job").fetchone()[0])


def _revision(connection: sqlite3.Connection, key: str) -> int:
    row = connection.execute("SELECT revision FROM job WHERE id = ?", (key,)).fetchone()
    if row is None:
        raise Gone(f"There is no job {key}.")
    return int(row["revision"])


def _line(row: sqlite3.Row) -> JobLine:
    content = row["content"]
    # What was worked out of another text of the job says nothing of this one.
    kept = row["of_content"] is not None and row["of_content"] == fingerprint(content)
    return JobLine(
        row["id"], row["revision"], row["title"], row["day"], row["destination"], row["created_at"], row["saved_at"],
        row["archived_at"], content, row["bench"] if kept else None, row["stamp"] if kept else None, row["change_id"],
        row["taken"] or "{}",
    )  # fmt: skip


def _match(words: str, place: str) -> str:
    """An FTS5 query for what was typed: each word quoted, so that no sign in it is taken for the query language."""
    wanted = " AND ".join(f'"{word}"*' for word in re.findall(r"\w+", words)[:12])
    return f"words : ({wanted}) AND place : {place}" if wanted else ""


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="microseconds")
