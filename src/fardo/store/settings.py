"""What the shop has set, and its carriers' tariffs: each a document with a revision."""

from __future__ import annotations

import json
from datetime import UTC, datetime

from fardo.files.shop import ShopFile, starting_shop
from fardo.files.tariff import TariffFile
from fardo.store.database import Conflict, Database


class Settings:
    """The settings of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def shop(self) -> tuple[int, ShopFile]:
        """Revision and shop; revision 0 and the starting values where nothing has been set."""
        row = self._database.reader.execute("SELECT revision, content FROM shop").fetchone()
        if row is None:
            return 0, starting_shop()
        return row["revision"], ShopFile.model_validate_json(row["content"])

    def change_shop(self, revision: int, shop: ShopFile) -> int:
        """The new revision. Raises Conflict where `revision` is not the newest."""
        with self._database.writing() as connection:
            row = connection.execute("SELECT revision FROM shop").fetchone()
            newest = row["revision"] if row else 0
            if newest != revision:
                raise Conflict(newest)
            connection.execute(
                "INSERT INTO shop VALUES (1, ?, ?, ?) ON CONFLICT (id) DO UPDATE SET"
                " revision = excluded.revision, content = excluded.content, saved_at = excluded.saved_at",
                (newest + 1, shop.model_dump_json(by_alias=True), _now()),
            )
        return int(newest) + 1

    def stamp(self) -> tuple[object, ...]:
        """Differs whenever the shop or a tariff has been changed; cheap to ask."""
        rows = self._database.reader.execute(
            "SELECT 'shop' AS name, revision FROM shop UNION ALL SELECT carrier, revision FROM tariff ORDER BY 1"
        )
        return tuple(tuple(row) for row in rows)

    def tariffs(self) -> list[TariffFile]:
        """All tariffs, by carrier."""
        rows = self._database.reader.execute("SELECT content FROM tariff ORDER BY carrier")
        return [TariffFile.model_validate_json(row["content"]) for row in rows]

    def keep_tariff(self, tariff: TariffFile) -> None:
        """Adds a carrier's tariff, or takes the place of the one it had."""
        content = json.dumps(tariff.model_dump(mode="json", by_alias=True, exclude_none=True))
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO tariff VALUES (?, 1, ?, ?) ON CONFLICT (carrier) DO UPDATE SET"
                " revision = revision + 1, content = excluded.content, saved_at = excluded.saved_at",
                (tariff.carrier, content, _now()),
            )


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")
