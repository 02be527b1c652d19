"""What the shop has set, and its carriers' tariffs: each a document with a revision."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.service import Service
from fardo.files.shop import ShopFile, starting_shop
from fardo.files.tariff import TariffFile, services_in
from fardo.files.typed import must_read_back
from fardo.store.database import Conflict, Database, Gone
from fardo.store.lineage import next_first


class Settings:
    """The settings of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def carriers(self) -> Carriers:
        """Those that are asked for prices."""
        asked = self._database.read(
            "SELECT carrier, revision, content FROM tariff WHERE archived_at IS NULL ORDER BY carrier"
        )
        return Carriers(
            tuple(service for row in asked for service in services_in(row["content"])),
            {row["carrier"]: row["revision"] for row in asked},
        )

    def carriers_with(self, carriers: Carriers, kept: tuple[str, int | None] | None) -> Carriers:
        """With the version of a carrier's tariff that a job keeps, where that is not today's."""
        if kept is None or kept[1] is None or carriers.versions.get(kept[0]) == kept[1]:
            return carriers
        services = self._services_of(kept[0], kept[1])
        if services == tuple(one for one in carriers.services if one.carrier == kept[0]):
            return carriers  # as after a restore: another number for the same prices
        return replace(carriers, kept=services)

    def _services_of(self, carrier: str, version: int) -> tuple[Service, ...]:
        # Kept in mind by its text and not by its number, as a copy put back may have another under that.
        try:
            return services_in(self._version_text(carrier, version))
        except Gone:
            return ()

    def shop(self) -> tuple[int, ShopFile]:
        """Revision and shop; revision 0 and the starting values where nothing has been set."""
        row = self._database.read_one("SELECT revision, content FROM shop")
        if row is None:
            return 0, starting_shop()
        return row["revision"], ShopFile.model_validate_json(row["content"])

    def change_shop(self, revision: int, shop: ShopFile) -> int:
        """The new revision. Raises Conflict where `revision` is not the newest."""
        with self._database.writing() as connection:
            return write_shop(connection, revision, shop)

    def stamp(self) -> tuple[object, ...]:
        """Differs whenever the shop or a tariff has been changed; cheap to ask."""
        rows = self._database.read(
            "SELECT 'shop' AS name, revision, saved_at, NULL AS archived_at FROM shop"
            " UNION ALL SELECT carrier, revision, saved_at, archived_at FROM tariff ORDER BY 1"
        )
        return tuple(tuple(row) for row in rows)

    def tariffs(self) -> list[TariffFile]:
        """All tariffs that are asked for prices, by carrier."""
        return [stored.tariff for stored in self.stored_tariffs() if stored.archived_at is None]

    def stored_tariffs(self) -> list[StoredTariff]:
        """All tariffs, archived ones too, by carrier."""
        rows = self._database.read("SELECT * FROM tariff ORDER BY carrier")
        return [_stored(row) for row in rows]

    def tariff(self, carrier: str) -> StoredTariff:
        """Raises Gone where there is none."""
        row = self._database.read_one("SELECT * FROM tariff WHERE carrier = ?", (carrier,))
        if row is None:
            raise Gone("tariff")
        return _stored(row)

    def tariff_versions(self, carrier: str) -> list[tuple[int, str]]:
        """Revision and when it was saved, newest first."""
        rows = self._database.read(
            "SELECT revision, saved_at FROM tariff_revision WHERE carrier = ? ORDER BY revision DESC", (carrier,)
        )
        return [(row["revision"], row["saved_at"]) for row in rows]

    def tariff_version(self, carrier: str, revision: int) -> TariffFile:
        """Raises Gone where there is none."""
        return TariffFile.model_validate_json(self._version_text(carrier, revision))

    def _version_text(self, carrier: str, revision: int) -> str:
        row = self._database.read_one(
            "SELECT content FROM tariff_revision WHERE carrier = ? AND revision = ?", (carrier, revision)
        )
        if row is None:
            raise Gone("version")
        return str(row["content"])

    def keep_tariff(self, tariff: TariffFile, made_from: int | None = None) -> None:
        """Adds a carrier's tariff, or takes the place of the one it had, which is kept as a version.

        Args:
            made_from: the version that was changed; None where it does not matter.

        Raises: Conflict where `made_from` is not the newest.
        """
        content = must_read_back(
            TariffFile, json.dumps(tariff.model_dump(mode="json", by_alias=True, exclude_none=True))
        )
        now = _now()
        with self._database.writing() as connection:
            if made_from is not None:
                row = connection.execute("SELECT revision FROM tariff WHERE carrier = ?", (tariff.carrier,)).fetchone()
                if row is None or row["revision"] != made_from:
                    raise Conflict(row["revision"] if row else 0)
            connection.execute(
                "INSERT INTO tariff (carrier, revision, content, saved_at) VALUES (?, ?, ?, ?)"
                " ON CONFLICT (carrier) DO UPDATE SET revision = revision + 1, content = excluded.content,"
                " saved_at = excluded.saved_at, archived_at = NULL",
                (tariff.carrier, next_first(connection), content, now),
            )
            connection.execute(
                "INSERT INTO tariff_revision SELECT carrier, revision, content, saved_at FROM tariff WHERE carrier = ?",
                (tariff.carrier,),
            )

    def archive_tariff(self, carrier: str) -> None:
        """Its services are not asked any more. Raises Gone where there is none."""
        self._set_archived(carrier, _now())

    def restore_tariff(self, carrier: str) -> None:
        """Its services are asked again. Raises Gone where there is none."""
        self._set_archived(carrier, None)

    def _set_archived(self, carrier: str, when: str | None) -> None:
        with self._database.writing() as connection:
            done = connection.execute("UPDATE tariff SET archived_at = ? WHERE carrier = ?", (when, carrier))
            if not done.rowcount:
                raise Gone("tariff")


def write_shop(connection: sqlite3.Connection, revision: int, shop: ShopFile) -> int:
    """The shop within a transaction; its new revision. Raises Conflict where `revision` is not the newest."""
    row = connection.execute("SELECT revision FROM shop").fetchone()
    newest = row["revision"] if row else 0
    if newest != revision:
        raise Conflict(newest)
    number = int(newest) + 1 if row else next_first(connection)
    kept = (number, must_read_back(ShopFile, shop.model_dump_json(by_alias=True)), _now())
    connection.execute(
        "INSERT INTO shop VALUES (1, ?, ?, ?) ON CONFLICT (id) DO UPDATE SET"
        " revision = excluded.revision, content = excluded.content, saved_at = excluded.saved_at",
        kept,
    )
    connection.execute("INSERT INTO shop_revision VALUES (?, ?, ?)", kept)
    return number


@dataclass(frozen=True, slots=True)
class StoredTariff:
    """A carrier's tariff with what the store knows of it."""

    tariff: TariffFile
    revision: int
    saved_at: str
    archived_at: str | None


def _stored(row: sqlite3.Row) -> StoredTariff:
    tariff = TariffFile.model_validate_json(row["content"])
    return StoredTariff(tariff, row["revision"], row["saved_at"], row["archived_at"])


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")
