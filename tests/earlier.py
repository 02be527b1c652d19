"""A shop's file as an earlier version of the program left it."""

from __future__ import annotations

import sqlite3
from pathlib import Path

from fardo.files.shop import ShopFile
from fardo.store.migrating import migrate


def shop_of_version(path: Path, version: int, shop: ShopFile | None = None, revision: int = 1) -> sqlite3.Connection:
    """A new file with the tables of that version, open to be filled.

    Args:
        shop: its settings, none unless given.
        revision: of these.
    """
    connection = sqlite3.connect(path)
    migrate(connection, version)
    if shop is not None:
        content = shop.model_dump_json(by_alias=True)
        connection.execute("INSERT INTO shop VALUES (1, ?, ?, '')", (revision, content))
    return connection
