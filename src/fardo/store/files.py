"""Photographs and mesh files, each kept once under a name made from its content."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from datetime import UTC, datetime

from fardo.store.database import Database, Gone


@dataclass(frozen=True, slots=True)
class StoredFile:
    """`called` is the name it had when it came."""

    name: str
    called: str
    media_type: str
    content: bytes


class Files:
    """The files of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def keep(self, called: str, ending: str, media_type: str, content: bytes) -> str:
        """The name it is kept under; a file that is here already is not kept twice.

        Args:
            ending: with its dot, such as ``.stl``.
        """
        name = hashlib.sha256(content).hexdigest()[:24] + ending
        now = datetime.now(UTC).isoformat(timespec="seconds")
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO file VALUES (?, ?, ?, ?, ?) ON CONFLICT (name) DO NOTHING",
                (name, called, media_type, content, now),
            )
        return name

    def get(self, name: str) -> StoredFile:
        """Raises Gone."""
        row = self._database.read_one("SELECT * FROM file WHERE name = ?", (name,))
        if row is None:
            raise Gone(f"There is no file {name}.")
        return StoredFile(row["name"], row["called"], row["media_type"], row["content"])
