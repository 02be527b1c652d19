"""The tables' versions: which scripts there are, and how a shop's file is brought up to date."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from functools import cache
from importlib.resources import files
from pathlib import Path


@cache
def migrations() -> tuple[tuple[int, str], ...]:
    """Number and SQL of each migration, in order."""
    folder = files("fardo.store").joinpath("migrations")
    scripts = sorted((entry for entry in folder.iterdir() if entry.name.endswith(".sql")), key=lambda entry: entry.name)
    return tuple((int(entry.name.partition("_")[0]), entry.read_text("utf-8")) for entry in scripts)


def newest_version() -> int:
    return migrations()[-1][0]


def migrate(connection: sqlite3.Connection, to: int | None = None) -> None:
    """Every script that is newer than the file, in one transaction: all of them or none.

    Args:
        to: the version that is wanted, the newest unless given.
    """
    connection.execute("BEGIN IMMEDIATE")
    try:
        version: int = connection.execute("PRAGMA user_version").fetchone()[0]
        for number, script in migrations():
            if version < number <= (number if to is None else to):
                for statement in _statements(script):
                    connection.execute(statement)
                connection.execute(f"PRAGMA user_version = {number}")
        connection.execute("COMMIT")
    except BaseException:
        if connection.in_transaction:
            connection.execute("ROLLBACK")
        raise


def _statements(script: str) -> Iterator[str]:
    """One statement at a time: a whole script would end the transaction it is run in."""
    statement = ""
    for line in script.splitlines(keepends=True):
        statement += line
        if sqlite3.complete_statement(statement):
            yield statement
            statement = ""


def remains_of(shop: Path) -> list[Path]:
    """What lies beside a shop's file that is not there and speaks of one that was: a log, a copy, a half restore."""
    if not shop.parent.is_dir():
        return []
    endings = ("-wal", "-journal", ".part", ".before-", ".copies")
    found = (one for one in shop.parent.iterdir() if one.name.startswith(shop.name))
    return sorted(one for one in found if one.name[len(shop.name) :].startswith(endings))
