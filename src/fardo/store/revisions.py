"""Earlier revisions of a job, of the shop, of a kind of goods: looked at, and restored as the newest."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fardo.store.database import Database
from fardo.store.faults import Gone

Of = Literal["job", "shop", "kind", "tariff"]
_KEYS: dict[Of, str | None] = {"job": "job_id", "shop": None, "kind": "code", "tariff": "carrier"}
_MOST = 200  # listed; older ones are kept, and can be asked for by their number


@dataclass(frozen=True, slots=True)
class Revision:
    """A revision in a list.

    Args:
        saved_at: UTC, ISO 8601.
    """

    revision: int
    saved_at: str


class Revisions:
    """Of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def list(self, of: Of, key: str = "") -> list[Revision]:
        """The newest first, up to two hundred."""
        where, given = _of(of, key)
        rows = self._database.read(
            f"SELECT revision, saved_at FROM {of}_revision{where} ORDER BY revision DESC LIMIT {_MOST}", given
        )
        return [Revision(row["revision"], row["saved_at"]) for row in rows]

    def content(self, of: Of, revision: int, key: str = "") -> str:
        """What was kept, as JSON. Raises Gone."""
        where, given = _of(of, key)
        row = self._database.read_one(
            f"SELECT content FROM {of}_revision{where or ' WHERE true'} AND revision = ?", (*given, revision)
        )
        if row is None:
            raise Gone(f"There is no revision {revision} of this {of}.")
        content: str = row["content"]
        return content


def _of(of: Of, key: str) -> tuple[str, tuple[str, ...]]:
    column = _KEYS[of]
    return ("", ()) if column is None else (f" WHERE {column} = ?", (key,))
