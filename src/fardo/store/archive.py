"""The whole shop as one open archive, format fardo-shop/1: a ZIP with `shop.json`, a JSON file a table, and the
photographs and meshes as files; and such an archive read into a shop of its own, all of it or nothing.

A table is a list of rows, each an object by column. Columns that hold a file of their own format (a job, a tariff, a
kind, the settings) hold its text. Left out are what is worked out again (what the bench shows, the search index) and
who may open the shop from other devices.
"""

from __future__ import annotations

import io
import json
import sqlite3
import struct
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

from fardo import __version__
from fardo.store.atomic_files import put_in_place, written_beside
from fardo.store.faults import StoreError
from fardo.store.jobs import renew_search
from fardo.store.migrating import migrate, newest_version
from fardo.store.soundness import check_file, check_shop, looked_at

FORMAT = "fardo-shop/1"
LARGEST = 4_000_000_000  # bytes, unpacked
_ALWAYS_TAKEN = 200_000_000  # bytes, unpacked, of an archive of any size
_MOST_TIMES = 250  # its own size that a larger one unpacks to: texts of a shop pack to a tenth, seldom to a hundredth
_PAGE = 4096  # of the database
_WRITTEN_BESIDE = 20_000_000  # bytes of indices and the search index of a shop with next to nothing in it
_LARGEST_ROW = 8_000_000  # characters
_LARGEST_FILE = 200_000_000
_MOST_ROWS = 3_000_000
_PIECE = 500_000  # characters read at once
_LEFT_OUT = ("job_bench", "passphrase", "session")
_NO_ZIP = (
    zipfile.BadZipFile, zlib.error, struct.error, RuntimeError, NotImplementedError, EOFError, ValueError, KeyError,
)  # fmt: skip


def export_shop(shop: Path, target: Path) -> None:
    """Writes a shop whole, also while it is served.

    Args:
        shop: its database.
        target: the archive; what was there is replaced once it is whole.

    Raises: StoreError where the shop is not sound or the archive cannot be written.
    """
    check_file(shop)
    with looked_at(shop) as connection, written_beside(target) as part:
        with zipfile.ZipFile(part, "w", zipfile.ZIP_DEFLATED) as archive:
            counts = {}
            for table in tables_of(connection):
                rows = list(_rows(connection, table, archive))
                counts[table] = len(rows)
                archive.writestr(f"tables/{table}.json", json.dumps(rows, ensure_ascii=False, indent=1))
            (version,) = connection.execute("PRAGMA user_version").fetchone()
            head = {"format": FORMAT, "program": __version__, "database": version, "rows": counts}
            archive.writestr("shop.json", json.dumps(head, indent=1))
        put_in_place(part, target)


def import_shop(archive: Path, shop: Path) -> None:
    """Makes a shop of an archive.

    Args:
        archive: as `export_shop` writes it.
        shop: where; nothing may be there.

    Raises: StoreError, in a sentence, for what is no such archive or does not make a sound shop; then nothing is there.
    """
    if shop.exists():
        raise StoreError(f"{shop} is there already; name a file that is not")
    with written_beside(shop) as part:
        with closing(sqlite3.connect(part, isolation_level=None)) as connection:
            connection.row_factory = sqlite3.Row
            connection.execute("PRAGMA foreign_keys = OFF")
            try:
                with zipfile.ZipFile(archive) as packed:
                    _read_in(packed, connection, archive.stat().st_size)
                migrate(connection)
                renew_search(connection)
            except _NO_ZIP as fault:
                raise StoreError(f"{archive} is not a whole archive of a shop: {fault}") from fault
            except (sqlite3.Error, OSError, MemoryError) as fault:
                raise StoreError(f"{archive} does not make a shop: {fault or 'it takes too much memory'}") from fault
        check_file(part)
        if flaws := check_shop(part).flaws:
            raise StoreError(f"{archive} does not make a sound shop: {flaws[0]}")
        put_in_place(part, shop)


def tables_of(connection: sqlite3.Connection) -> list[str]:
    """The tables that are the shop itself: not who may open it, nor what is worked out again."""
    names = [row[0] for row in connection.execute("SELECT name FROM sqlite_schema WHERE type = 'table' ORDER BY name")]
    return [name for name in names if not name.startswith(("sqlite_", "job_search")) and name not in _LEFT_OUT]


def _rows(connection: sqlite3.Connection, table: str, archive: zipfile.ZipFile) -> Iterator[dict[str, Any]]:
    """Rows by column; what is no text or number goes into the archive as a file of its own."""
    for row in connection.execute(f"SELECT * FROM {table} ORDER BY rowid"):
        told = dict(row)
        for column, value in told.items():
            if isinstance(value, bytes):
                name = f"files/{told['name']}"
                archive.writestr(name, value)
                told[column] = {"file": name}
        yield told


def _read_in(packed: zipfile.ZipFile, connection: sqlite3.Connection, size: int) -> None:
    """Reads every table, a row at a time.

    Args:
        size: of the archive, bytes: what it may write is measured by it.
    """
    most = min(LARGEST, max(_ALWAYS_TAKEN, _MOST_TIMES * size))
    if sum(entry.file_size for entry in packed.infolist()) > most:
        raise ValueError(f"it unpacks to more than {most} bytes")
    connection.execute(f"PRAGMA page_size = {_PAGE}")
    connection.execute(f"PRAGMA max_page_count = {(2 * most + _WRITTEN_BESIDE) // _PAGE}")
    head = json.loads(_read(packed, "shop.json", 1_000_000))
    if not isinstance(head, dict) or head.get("format") != FORMAT:
        raise ValueError(f"its format is not {FORMAT}")
    version = head.get("database")
    if not isinstance(version, int) or not 1 <= version <= newest_version():
        raise ValueError(f"it was written by a newer Fardo ({str(head.get('program', 'unknown'))[:40]})")
    migrate(connection, version)  # its rows are those of that version; they are brought up to date afterwards
    connection.execute("BEGIN")
    count = 0
    for table in tables_of(connection):
        columns = {row[1] for row in connection.execute(f"PRAGMA table_info({table})")}
        for n, row in enumerate(_rows_in(packed, table)):
            if not row or not set(row) <= columns:
                raise ValueError(f"row {n + 1} of {table} is not a row of it")
            count += 1
            if count > _MOST_ROWS:
                raise ValueError(f"it has more than {_MOST_ROWS} rows")
            values = [_value(packed, value) for value in row.values()]
            marks = ", ".join("?" * len(row))
            connection.execute(f"INSERT INTO {table} ({', '.join(row)}) VALUES ({marks})", values)
    connection.execute("COMMIT")


def _rows_in(packed: zipfile.ZipFile, table: str) -> Iterator[dict[str, Any]]:
    """The rows of a table, each read when the one before is written: a list of millions takes no more memory."""
    decoder = json.JSONDecoder()
    with io.TextIOWrapper(packed.open(f"tables/{table}.json"), "utf-8") as text:
        held, at = text.read(_PIECE), 0

        def after(separators: str) -> int:
            """Where the next sign stands that is none of these."""
            nonlocal held, at
            while True:
                while at < len(held) and held[at] in separators:
                    at += 1
                if at < len(held):
                    return at
                held, at = text.read(_PIECE), 0
                if not held:
                    raise ValueError(f"{table} ends before its list does")

        if held[after(" \t\r\n")] != "[":
            raise ValueError(f"{table} is not a list of rows")
        at += 1
        n = 0
        while held[after(" \t\r\n,")] != "]":
            n += 1
            if held[at] != "{":
                raise ValueError(f"row {n} of {table} is not a row of it")
            while True:
                try:
                    row, at = decoder.raw_decode(held, at)
                    break
                except json.JSONDecodeError:
                    more = text.read(_PIECE)
                    held, at = held[at:] + more, 0
                    if not more or len(held) > _LARGEST_ROW:
                        raise
            yield row


def _value(packed: zipfile.ZipFile, value: Any) -> str | int | float | bytes | None:
    if isinstance(value, dict):
        name = value.get("file")
        if not isinstance(name, str) or not name.startswith("files/"):
            raise ValueError(f"{str(value)[:60]} is no file of it")
        return _read(packed, name, _LARGEST_FILE)
    if isinstance(value, int) and not -(2**63) <= value < 2**63:
        raise ValueError(f"{str(value)[:60]} is no value of a column")
    if value is not None and not isinstance(value, str | int | float):
        raise ValueError(f"{str(value)[:60]} is no value of a column")
    return value


def _read(packed: zipfile.ZipFile, name: str, most: int) -> bytes:
    entry = packed.getinfo(name)
    with packed.open(entry) as opened:
        content = opened.read(most + 1)
    if len(content) > most:
        raise ValueError(f"{name} is larger than {most} bytes")
    return content
