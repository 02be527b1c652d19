"""The database file: how it is opened, brought up to date, written and read.

One connection writes, behind a lock; every reading thread has its own. Writes are durable before they are
acknowledged (WAL with full synchronisation), so that a killed process and a power cut lose nothing that was answered.
"""

from __future__ import annotations

import sqlite3
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from fardo.store.backup import keep_copy
from fardo.store.beside import put_in_place, sweep, written_beside
from fardo.store.faults import CannotWrite, Conflict, Gone, StoreError, Unreadable, cannot_write
from fardo.store.lock import ShopLock
from fardo.store.migrating import migrate, newest_version, remains_of
from fardo.store.soundness import check_file

SYNCHRONOUS = "FULL"  # in WAL: every commit is synced before it is answered


class Database:
    """A shop's database, opened for as long as it is needed.

    One that is not there is begun, unless remains of an earlier one lie beside; one that is not sound, or that a newer
    Fardo wrote, is refused as it is. An older one is brought up to date after a copy is kept beside it.

    Args:
        path: of the file.
        only_reads: for a process beside the one that serves it.

    Raises:
        StoreError: where it cannot be opened.
    """

    def __init__(self, path: Path, *, only_reads: bool = False) -> None:
        self.path = path
        self.begun = False
        self._guard = threading.RLock()
        self._readers = threading.local()
        self._open: list[sqlite3.Connection] = []
        self._writer: sqlite3.Connection | None = None
        if not only_reads:
            path.parent.mkdir(parents=True, exist_ok=True)
        self._lock = ShopLock(path)
        try:
            if not only_reads:
                self._make_ready()
                self._writer = self._connect()
            # The log is read and kept short by whoever writes; a file that cannot be opened is told now.
            self.reader.execute("SELECT count(*) FROM sqlite_schema").fetchone()
        except sqlite3.DatabaseError as error:
            self.close()
            raise StoreError(f"{path} cannot be opened as a shop: {cannot_write(error) or error}") from error
        except BaseException:
            self.close()
            raise

    def _make_ready(self) -> None:
        if not self.path.exists():
            self._begin()
        elif check_file(self.path) < newest_version():
            self._lock.take_alone()
            keep_copy(self.path, self.path.with_name(f"{self.path.name}.before-{newest_version():03d}"))
            connection = self._connect()
            migrate(connection)
            connection.close()
            self._open.remove(connection)
            self._lock.share()
        sweep(self.path.parent)

    def _begin(self) -> None:
        """A new shop, which has its name only once it is whole."""
        if remains := remains_of(self.path):
            names = ", ".join(one.name for one in remains)
            raise StoreError(
                f"{self.path} is not there, but remains of an earlier shop lie beside it: {names}. "
                f"Restore one of them (fardo restore FILE --db {self.path}), or move them away to begin a new shop"
            )
        with written_beside(self.path) as part:
            connection = sqlite3.connect(part, isolation_level=None)
            try:
                migrate(connection)
            finally:
                connection.close()
            put_in_place(part, self.path)
        self.begun = True

    def _connect(self) -> sqlite3.Connection:
        connection = sqlite3.connect(self.path, timeout=10, isolation_level=None, check_same_thread=False)
        self._open.append(connection)
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA journal_mode = WAL")
        connection.execute(f"PRAGMA synchronous = {SYNCHRONOUS}")
        connection.execute("PRAGMA foreign_keys = ON")
        return connection

    @contextmanager
    def writing(self) -> Iterator[sqlite3.Connection]:
        """One transaction on the writer: all of it, or nothing where anything is raised.

        Raises:
            CannotWrite: where the disk is full, or the file cannot be written to.
        """
        with self._guard:
            writer = self._writer
            assert writer is not None, "this database was opened to be read"
            try:
                writer.execute("BEGIN IMMEDIATE")
                yield writer
                writer.execute("COMMIT")
            except BaseException as error:
                # A full disk ends the transaction by itself.
                if writer.in_transaction:
                    writer.execute("ROLLBACK")
                if isinstance(error, sqlite3.OperationalError) and (fault := cannot_write(error)):
                    raise fault from error
                raise

    @property
    def reader(self) -> sqlite3.Connection:
        """This thread's own reading connection."""
        connection: sqlite3.Connection | None = getattr(self._readers, "connection", None)
        if connection is None:
            connection = self._connect()
            connection.execute("PRAGMA query_only = ON")
            self._readers.connection = connection
        return connection

    def close(self) -> None:
        with self._guard:
            for connection in self._open:
                connection.close()
            self._open.clear()
            self._lock.release()


__all__ = ["CannotWrite", "Conflict", "Database", "Gone", "StoreError", "Unreadable"]
