"""Blanks that are cut: marked with the job in the transaction that takes their sheets off the stock."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from datetime import UTC, datetime

from fardo.files.shop import ShopFile
from fardo.store.database import Database
from fardo.store.settings import write_shop


class Cuts:
    """What is cut already, of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def of(self, keys: Sequence[str]) -> dict[str, list[str]]:
        """Of each of these jobs that has something cut, the blanks that were."""
        marks = ", ".join("?" * len(keys))
        rows = self._database.read(f"SELECT job_id, blanks FROM job_cut WHERE job_id IN ({marks})", tuple(keys))
        return {row["job_id"]: json.loads(row["blanks"]) for row in rows}

    def cut(self, blanks: Mapping[str, Sequence[str]], revision: int, shop: ShopFile) -> None:
        """The shop once it has cut, and the blanks of each job as cut: both or neither.

        Args:
            blanks: by job, each blank as the plan tells it apart.
            revision: of the shop that was planned from.
            shop: with the sheets that are left.

        Raises:
            Conflict: where the shop has changed since.
        """
        with self._database.writing() as connection:
            write_shop(connection, revision, shop)
            connection.executemany(
                "INSERT INTO job_cut VALUES (?, ?, ?) ON CONFLICT (job_id) DO UPDATE SET"
                " blanks = excluded.blanks, cut_at = excluded.cut_at",
                [(key, json.dumps(list(one)), _now()) for key, one in blanks.items()],
            )

    def uncut(self, keys: Sequence[str], revision: int, shop: ShopFile) -> None:
        """Takes `cut` back: the shop as it was before, the jobs to be cut again. Raises Conflict."""
        with self._database.writing() as connection:
            write_shop(connection, revision, shop)
            connection.executemany("DELETE FROM job_cut WHERE job_id = ?", [(key,) for key in keys])

    def cut_again(self, key: str) -> None:
        """The job's blanks are to be cut once more; nothing goes back to the stock."""
        with self._database.writing() as connection:
            connection.execute("DELETE FROM job_cut WHERE job_id = ?", (key,))


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")
