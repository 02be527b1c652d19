"""Revisions across a restore: a copy that takes a shop's place goes on above every number the shop had given out, so
that one number never stands for two texts, and a page opened before finds that what it has is not the newest.
"""

from __future__ import annotations

import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

from fardo.store.migrating import migrate

_KEPT_WHOLE = (  # with their revisions, and what tells one from another there
    ("job", "job_id", "id"), ("shop", "", ""), ("tariff", "carrier", "carrier"), ("kind", "code", "code"),
)  # fmt: skip
_COUNTED = ("sending", "recipient")  # only their newest is kept
_UNKNOWN = 100_000  # above the copy's own, where the shop that was there cannot be read


def next_first(connection: sqlite3.Connection) -> int:
    """The first revision of what was not there yet: 1, or the first above what was given out before a restore."""
    return _base(connection) + 1


def base_of(connection: sqlite3.Connection) -> int:
    """The highest revision that a shop has given out."""
    counts = [_base(connection)]
    for table in (*(one for one, *_ in _KEPT_WHOLE), *_COUNTED):
        counts.append(connection.execute(f"SELECT coalesce(max(revision), 0) FROM {table}").fetchone()[0])
    return max(counts)


def go_on_above(connection: sqlite3.Connection, base: int) -> None:
    """Every revision of a copy becomes one above `base`, with what it holds; earlier ones stay as they are.

    Args:
        connection: to the copy, as this version writes it, in a transaction or of its own.
        base: the highest revision that the shop in whose place it comes has given out.
    """
    now, number = datetime.now(UTC).isoformat(timespec="seconds"), max(base, base_of(connection)) + 1
    for table, there, key in _KEPT_WHOLE:
        names = [row[1] for row in connection.execute(f"PRAGMA table_info({table}_revision)")]
        kept = ", ".join(names)
        renewed = ", ".join({"revision": str(number), "saved_at": "?"}.get(name, f"kept.{name}") for name in names)
        same = f" AND kept.{there} = now.{key}" if there else ""
        connection.execute(
            f"INSERT INTO {table}_revision ({kept}) SELECT {renewed} FROM {table} AS now JOIN {table}_revision AS kept"
            f" ON kept.revision = now.revision{same}",
            (now,),
        )
        connection.execute(f"UPDATE {table} SET revision = ?", (number,))
    for table in _COUNTED:
        connection.execute(f"UPDATE {table} SET revision = ?", (number,))
    connection.execute("INSERT INTO lineage VALUES (?, ?)", (number - 1, now))


def go_on_above_shop(copy: Path, shop: Path) -> None:
    """The same with a copy that lies ready to take a shop's place as a file.

    Args:
        copy: brought up to date if need be.
        shop: which may be one that cannot be read.
    """
    with closing(sqlite3.connect(copy, isolation_level=None)) as connection:
        migrate(connection)
        connection.execute("BEGIN IMMEDIATE")
        base = _base_of_file(shop)
        go_on_above(connection, base_of(connection) + _UNKNOWN if base is None else base)
        connection.execute("COMMIT")


def _base_of_file(shop: Path) -> int | None:
    try:
        with closing(sqlite3.connect(f"{shop.absolute().as_uri()}?mode=ro", uri=True)) as connection:
            return base_of(connection)
    except sqlite3.DatabaseError:  # damaged, of an earlier version, or no shop at all
        return None


def _base(connection: sqlite3.Connection) -> int:
    (base,) = connection.execute("SELECT coalesce(max(base), 0) FROM lineage").fetchone()
    return int(base)
