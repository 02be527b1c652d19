"""The database file: how it is opened, brought up to date, written and read.

One connection writes, behind a lock; every reading thread has its own. Writes are durable before they are
acknowledged (WAL with full synchronisation), so that a killed process and a power cut lose nothing that was answered.
"""

from __future__ import annotations

import sqlite3
import threading
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import closing, contextmanager
from pathlib import Path
from weakref import WeakSet

from fardo.store.atomic_files import put_in_place, sweep, written_beside
from fardo.store.backup import keep_copy
from fardo.store.faults import CannotWrite, Conflict, Gone, StoreError, Unreadable, cannot_write
from fardo.store.lock import ShopLock
from fardo.store.migrating import migrate, newest_version, remains_of
from fardo.store.soundness import check_file

SYNCHRONOUS = "FULL"  # in WAL: every commit is synced before it is answered


class _Reader:
    """A thread's connection to read on, and what is held while it does; closed when the thread is gone."""

    def __init__(self, connection: sqlite3.Connection) -> None:
        self.guard = threading.Lock()
        self.connection = connection

    def __del__(self) -> None:
        self.connection.close()


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
        self._mine = threading.local()
        self._readers: WeakSet[_Reader] = WeakSet()
        self._watchers: dict[object, Callable[[], None]] = {}
        self._closed = False
        self._writer: sqlite3.Connection | None = None
        if not only_reads:
            path.parent.mkdir(parents=True, exist_ok=True)
        self._lock = ShopLock(path)
        try:
            if not only_reads:
                self._make_ready()
                self._writer = self._connect()
            # The log is read and kept short by whoever writes; a file that cannot be opened is told now.
            self.read("SELECT count(*) FROM sqlite_schema")
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
            with closing(self._connect()) as connection:
                migrate(connection)
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
            with closing(sqlite3.connect(part, isolation_level=None)) as connection:
                migrate(connection)
            put_in_place(part, self.path)
        self.begun = True

    def _connect(self) -> sqlite3.Connection:
        connection = sqlite3.connect(self.path, timeout=10, isolation_level=None, check_same_thread=False)
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA journal_mode = WAL")
        connection.execute(f"PRAGMA synchronous = {SYNCHRONOUS}")
        connection.execute("PRAGMA foreign_keys = ON")
        connection.execute("PRAGMA secure_delete = ON")  # what is forgotten is overwritten, not only unlinked
        return connection

    @contextmanager
    def writing(self) -> Iterator[sqlite3.Connection]:
        """One transaction on the writer: all of it, or nothing where anything is raised.

        Raises:
            CannotWrite: where the disk is full, or the file cannot be written to.
        """
        with self._guard:
            self._must_be_open()
            writer = self._writer
            assert writer is not None, "this database was opened to be read"
            try:
                writer.execute("BEGIN IMMEDIATE")
                yield writer
                writer.execute("COMMIT")
                for told in tuple(self._watchers.values()):
                    told()
            except BaseException as error:
                # A full disk ends the transaction by itself.
                if writer.in_transaction:
                    writer.execute("ROLLBACK")
                if isinstance(error, sqlite3.OperationalError) and (fault := cannot_write(error)):
                    raise fault from error
                raise

    def watch(self, told: Callable[[], None]) -> Callable[[], None]:
        """Has somebody told after each transaction, by the thread that wrote: it must be quick and raise nothing.

        Returns:
            What ends that.
        """
        key = object()
        self._watchers[key] = told

        def unwatch() -> None:
            self._watchers.pop(key, None)

        return unwatch

    def fold_in_log(self) -> None:
        """Brings what the log holds into the file and empties it, so that nothing older is left there to be read.

        Where somebody reads at that moment the log is emptied later.
        """
        with self._guard:
            self._must_be_open()
            assert self._writer is not None, "this database was opened to be read"
            self._writer.execute("PRAGMA wal_checkpoint(TRUNCATE)")

    def read(self, query: str, given: Sequence[object] | Mapping[str, object] = ()) -> list[sqlite3.Row]:
        """Every row of a query, on this thread's own reading connection. Raises StoreError once the shop is closed."""
        mine: _Reader | None = getattr(self._mine, "reader", None)
        if mine is None:
            mine = _Reader(self._connect())
            mine.connection.execute("PRAGMA query_only = ON")
            self._mine.reader = mine
            with self._guard:
                self._readers.add(mine)
        with mine.guard:
            self._must_be_open()
            return mine.connection.execute(query, given).fetchall()

    def read_one(self, query: str, given: Sequence[object] | Mapping[str, object] = ()) -> sqlite3.Row | None:
        """The first row of a query, if it has any. Raises StoreError once the shop is closed."""
        rows = self.read(query, given)
        return rows[0] if rows else None

    def close(self) -> None:
        """Lets go of the file, once whoever reads or writes is done.

        A connection closed under a thread that reads on it would end the process.
        """
        with self._guard:
            self._closed = True
            readers = tuple(self._readers)
        for reader in readers:
            with reader.guard:
                reader.connection.close()
        with self._guard:
            if self._writer is not None:
                self._writer.close()
            self._lock.release()

    def _must_be_open(self) -> None:
        if self._closed:
            raise StoreError(f"{self.path} is closed")


__all__ = ["CannotWrite", "Conflict", "Database", "Gone", "StoreError", "Unreadable"]
