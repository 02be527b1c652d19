"""The database file: how it is opened, brought up to date, written and read.

One connection writes, behind a lock; every reading thread has its own. Writes are durable before they are
acknowledged (WAL with full synchronisation), so a killed process loses nothing that was answered.
"""

from __future__ import annotations

import shutil
import sqlite3
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from importlib.resources import files
from pathlib import Path


class StoreError(Exception):
    """The database file cannot be used; the sentence says why."""


class Conflict(Exception):
    """A change was made from a revision that is not the newest any more."""

    def __init__(self, revision: int) -> None:
        self.revision = revision
        super().__init__(f"changed meanwhile; the newest is revision {revision}")


class Gone(Exception):
    """There is no such thing."""


class Database:
    """A shop's database. Opening it migrates it, after keeping a copy beside it."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self._lock = threading.RLock()
        self._readers = threading.local()
        self._open: list[sqlite3.Connection] = []
        path.parent.mkdir(parents=True, exist_ok=True)
        try:
            self._writer = self._connect()
            _migrate(self._writer, path)
        except sqlite3.DatabaseError as error:
            raise StoreError(f"{path} cannot be opened as a shop: {error}") from error

    def _connect(self) -> sqlite3.Connection:
        connection = sqlite3.connect(self.path, timeout=10, isolation_level=None, check_same_thread=False)
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA journal_mode = WAL")
        connection.execute("PRAGMA synchronous = FULL")
        connection.execute("PRAGMA foreign_keys = ON")
        self._open.append(connection)
        return connection

    @contextmanager
    def writing(self) -> Iterator[sqlite3.Connection]:
        """One transaction on the writer: all of it, or nothing where anything is raised."""
        with self._lock:
            self._writer.execute("BEGIN IMMEDIATE")
            try:
                yield self._writer
            except BaseException:
                self._writer.execute("ROLLBACK")
                raise
            self._writer.execute("COMMIT")

    @property
    def reader(self) -> sqlite3.Connection:
        """This thread's own reading connection."""
        connection: sqlite3.Connection | None = getattr(self._readers, "connection", None)
        if connection is None:
            connection = self._connect()
            connection.execute("PRAGMA query_only = ON")
            self._readers.connection = connection
        return connection

    def copy_to(self, target: Path) -> None:
        """A whole copy while the shop goes on working; one that is there is replaced only by a whole one."""
        part = target.with_name(target.name + ".part")
        part.unlink(missing_ok=True)
        copy = sqlite3.connect(part)
        try:
            with self._lock:
                self._writer.backup(copy)
            copy.execute("PRAGMA journal_mode = DELETE")
        finally:
            copy.close()
        part.replace(target)

    def close(self) -> None:
        with self._lock:
            for connection in self._open:
                connection.close()
            self._open.clear()


def migrations() -> list[tuple[int, str]]:
    """Number and SQL of each migration, in order."""
    folder = files("fardo.store").joinpath("migrations")
    scripts = sorted((entry for entry in folder.iterdir() if entry.name.endswith(".sql")), key=lambda entry: entry.name)
    return [(int(entry.name.partition("_")[0]), entry.read_text("utf-8")) for entry in scripts]


def check_file(path: Path) -> int:
    """The version of a shop's database file. Raises StoreError where it is not one, or is damaged."""
    if not path.is_file():
        raise StoreError(f"{path} is not there")
    try:
        connection = sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)
        try:
            damage = connection.execute("PRAGMA integrity_check").fetchone()[0]
            version: int = connection.execute("PRAGMA user_version").fetchone()[0]
            tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_schema WHERE type = 'table'")}
        finally:
            connection.close()
    except sqlite3.DatabaseError as error:
        raise StoreError(f"{path} is not a shop's database ({error})") from error
    if damage != "ok":
        raise StoreError(f"{path} is damaged: {damage}")
    if not {"shop", "job", "job_revision"} <= tables:
        raise StoreError(f"{path} is a database, but not a shop's")
    newest = migrations()[-1][0]
    if version > newest:
        raise StoreError(f"{path} was written by a newer Fardo (version {version}, this one knows {newest})")
    return version


def take_place(backup: Path, target: Path) -> Path | None:
    """Puts a checked backup in a database's place; returns where the one before is kept. Raises StoreError."""
    check_file(backup)
    kept = None
    if target.exists():
        # Whatever still stands in the write-ahead log belongs to the old file, and is folded into it first.
        old = sqlite3.connect(target)
        old.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        old.close()
        kept = target.with_name(f"{target.name}.before-restore-{datetime.now(UTC):%Y%m%d-%H%M%S}")
        target.replace(kept)
        for ending in ("-wal", "-shm"):
            target.with_name(target.name + ending).unlink(missing_ok=True)
    part = target.with_name(target.name + ".part")
    shutil.copy2(backup, part)
    part.replace(target)
    return kept


def _migrate(connection: sqlite3.Connection, path: Path) -> None:
    version: int = connection.execute("PRAGMA user_version").fetchone()[0]
    newer = [(number, script) for number, script in migrations() if number > version]
    if version > migrations()[-1][0]:
        raise StoreError(f"{path} was written by a newer Fardo; nothing was changed")
    if not newer:
        return
    if version:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        shutil.copy2(path, path.with_name(f"{path.name}.before-{newer[-1][0]:03d}"))
    connection.execute("BEGIN IMMEDIATE")
    try:
        for number, script in newer:
            for statement in _statements(script):
                connection.execute(statement)
            connection.execute(f"PRAGMA user_version = {number}")
    except BaseException:
        connection.execute("ROLLBACK")
        raise
    connection.execute("COMMIT")


def _statements(script: str) -> Iterator[str]:
    """One statement at a time: a whole script would end the transaction it is run in."""
    statement = ""
    for line in script.splitlines(keepends=True):
        statement += line
        if sqlite3.complete_statement(statement):
            yield statement
            statement = ""
