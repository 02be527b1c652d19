"""What became of each job's parcel, kept with a revision; and what it took off the stock, in the same transaction.

What is used goes off the stock once, however many devices say so, and comes back as it went when that is undone.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import UTC, datetime
from fractions import Fraction
from typing import TypeVar

from pydantic import ValidationError

from fardo.core.pack.fetch import StockUsed
from fardo.files.materials import MaterialEntry
from fardo.files.sending import SendingEntry, StockTaken
from fardo.files.shop import FillEntry, ShopFile, TapeEntry
from fardo.files.stock import BoxEntry, PouchEntry
from fardo.files.typed import complaints
from fardo.store.database import Conflict, Database, Gone, Unreadable
from fardo.store.lineage import next_first
from fardo.store.settings import write_shop

Counted = TypeVar("Counted", BoxEntry, PouchEntry)
Supply = TypeVar("Supply", MaterialEntry, FillEntry, TapeEntry)


NOTHING_TAKEN = StockTaken()


@dataclass(frozen=True, slots=True)
class StoredSending:
    """What became of a job's parcel.

    Args:
        revision: 0 where nothing was written down yet.
        taken: off the stock.
    """

    revision: int = 0
    sending: SendingEntry = field(default_factory=lambda: SendingEntry())
    taken: StockTaken = field(default_factory=StockTaken)


class Sendings:
    """Those of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def of(self, job_id: str) -> StoredSending:
        """Of a job; an empty one where nothing was written down. Raises Unreadable."""
        row = self._database.read_one("SELECT * FROM sending WHERE job_id = ?", (job_id,))
        return StoredSending() if row is None else _stored(row)

    def of_each(self, job_ids: Sequence[str]) -> tuple[dict[str, StoredSending], dict[str, str]]:
        """Of those of these jobs of which something was written down; and of which it cannot be read, with why."""
        marks = ", ".join("?" * len(job_ids))
        rows = self._database.read(f"SELECT * FROM sending WHERE job_id IN ({marks})", tuple(job_ids))
        found, broken = {}, {}
        for row in rows:
            try:
                found[row["job_id"]] = _stored(row)
            except Unreadable as fault:
                broken[row["job_id"]] = fault.why
        return found, broken

    def measured(self, size: int) -> list[tuple[str, SendingEntry]]:
        """The parcels that were weighed and measured closed, by job, the newest first."""
        rows = self._database.read(
            "SELECT * FROM sending WHERE json_extract(content, '$.closed.weight') IS NOT NULL"
            " AND json_extract(content, '$.closed.sides') IS NOT NULL ORDER BY saved_at DESC LIMIT ?",
            (size,),
        )
        found = []
        for row in rows:
            with suppress(Unreadable):
                found.append((row["job_id"], _stored(row).sending))
        return found

    def change(self, job_id: str, revision: int, sending: SendingEntry, used: StockUsed) -> StoredSending:
        """Writes down what became of a parcel, and takes off the stock what it used, or puts it back.

        Args:
            revision: that it was changed from.
            used: up now; nothing where it is not packed, or no more.

        Raises:
            Gone: where there is no such job.
            Conflict: where `revision` is not the newest.
        """
        with self._database.writing() as connection:
            if connection.execute("SELECT 1 FROM job WHERE id = ?", (job_id,)).fetchone() is None:
                raise Gone(f"There is no job {job_id}.")
            row = connection.execute("SELECT * FROM sending WHERE job_id = ?", (job_id,)).fetchone()
            kept = _stored(row) if row is not None else StoredSending()
            if kept.revision != revision:
                raise Conflict(kept.revision)
            taken = _take(connection, kept.taken, taken_of(used))
            over = sending.handed_over.on.isoformat() if sending.handed_over else None
            connection.execute("UPDATE job SET handed_over = ? WHERE id = ?", (over, job_id))
            connection.execute(
                "INSERT INTO sending VALUES (?, ?, ?, ?, ?) ON CONFLICT (job_id) DO UPDATE SET"
                " revision = excluded.revision, content = excluded.content, taken = excluded.taken,"
                " saved_at = excluded.saved_at",
                (
                    job_id,
                    revision + 1 if row is not None else next_first(connection),
                    sending.model_dump_json(exclude_none=True),
                    taken.model_dump_json(exclude_defaults=True),
                    _now(),
                ),
            )
        return self.of(job_id)


def taken_of(used: StockUsed) -> StockTaken:
    """What a parcel uses, to be taken off the stock: pieces, and thousandths of what is not counted in pieces."""
    return StockTaken(
        boxes=dict(used.boxes),
        wrap={code: _thousandths(amount) for code, amount in used.wrap.items()},
        fill={name: _thousandths(litres) for name, litres in used.fill.items()},
        tape=_thousandths(used.tape),
    )


def _thousandths(amount: Fraction) -> int:
    return int(amount * 1000)


def _take(connection: sqlite3.Connection, taken: StockTaken, used: StockTaken) -> StockTaken:
    """Puts back what was taken and takes what is used now; what was taken in the end, at most what there was."""
    row = connection.execute("SELECT revision, content FROM shop").fetchone()
    if row is None:
        return StockTaken()
    shop = with_back(ShopFile.model_validate_json(row["content"]), taken)
    there = _there(shop)
    now = StockTaken(
        boxes=_at_most(used.boxes, there.boxes), wrap=_at_most(used.wrap, there.wrap),
        fill=_at_most(used.fill, there.fill), tape=min(used.tape, there.tape),
    )  # fmt: skip
    if now != taken:
        write_shop(connection, row["revision"], with_back(shop, now, -1))
    return now


def _at_most(used: Mapping[str, int], there: Mapping[str, int]) -> dict[str, int]:
    return {name: least for name, count in used.items() if (least := min(count, there.get(name, 0)))}


def with_back(shop: ShopFile, taken: StockTaken, times: int = 1) -> ShopFile:
    """The shop with that on its shelf again.

    Args:
        times: -1 takes it off.
    """
    boxes_left, wrap, fills = dict(taken.boxes), dict(taken.wrap), dict(taken.fill)
    boxes = [_counted(one, times * boxes_left.pop(one.name, 0)) for one in shop.boxes]
    mailers = [_counted(one, times * boxes_left.pop(one.name, 0)) for one in shop.mailers]
    materials = [_with_left(one, times * wrap.pop(one.code, 0)) for one in shop.materials]
    fill, *others = (_with_left(one, times * fills.pop(one.name, 0)) for one in (shop.fill, *shop.fills))
    return shop.model_copy(
        update={
            "boxes": boxes, "mailers": mailers, "materials": materials, "fill": fill, "fills": others,
            "tape": _with_left(shop.tape, times * taken.tape),
        }
    )  # fmt: skip


def _counted(entry: Counted, more: int) -> Counted:
    return entry.model_copy(update={"count": entry.count + more}) if more else entry


def _with_left(entry: Supply, thousandths: int) -> Supply:
    """What is not counted by now stays so."""
    if entry.left is None or not thousandths:
        return entry
    return entry.model_copy(update={"left": max(_left(entry) + thousandths, 0) / 1000})


def _left(entry: MaterialEntry | FillEntry | TapeEntry) -> int:
    """In thousandths; nothing of what is not counted."""
    return round((entry.left or 0) * 1000)


def _there(shop: ShopFile) -> StockTaken:
    """How much there is of everything that is counted; of two of one name the first counts."""
    boxes = {one.name: one.count for one in reversed(shop.mailers)}
    boxes |= {one.name: one.count for one in reversed(shop.boxes)}
    fills = {one.name: _left(one) for one in reversed((shop.fill, *shop.fills))}
    return StockTaken(
        boxes=boxes, wrap={one.code: _left(one) for one in shop.materials}, fill=fills, tape=_left(shop.tape)
    )


def _stored(row: sqlite3.Row) -> StoredSending:
    """Raises Unreadable."""
    try:
        sending = SendingEntry.model_validate_json(row["content"])
        return StoredSending(row["revision"], sending, StockTaken.model_validate_json(row["taken"]))
    except ValidationError as error:
        first = next(complaints(error))
        why = f"what became of its parcel is none: {first.field}: {first.why}"
        raise Unreadable(row["job_id"], "", why) from error


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")
