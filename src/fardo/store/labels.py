"""Labels, kept from the moment one is meant to be bought: nothing that may have been paid for is forgotten, and nothing
is paid for twice.

The states of a purchase: `asking` until its carrier says whether it sold, `sold`, `unsold`; `voiding` until the carrier
says that it is void, `void`. A job has at most one that is asking, sold or voiding; a quote is spent once.
"""

from __future__ import annotations

import secrets
import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Literal

from fardo.store.database import Database, Gone

LabelState = Literal["asking", "sold", "unsold", "voiding", "void"]
_LIVE = "('asking', 'sold', 'voiding')"
_QUOTES_KEPT = 5000


@dataclass(frozen=True, slots=True)
class GivenQuote:
    """A price that a carrier gave over the network for one job.

    Args:
        quote: the carrier's own name for it.
        amount: decimal, in `currency`.
    """

    carrier: str
    quote: str
    service: str
    programme: str
    amount: str
    currency: str


@dataclass(frozen=True, slots=True)
class Label:
    """A label, bought or meant to be.

    Args:
        key: names the purchase to the carrier.
        at_most: the price that was seen, decimal, in `currency`.
        amount: what it was sold for, decimal, in `sold_currency`; None before it is.
        says: what the carrier said last, in a sentence.
    """

    key: str
    job_id: str
    carrier: str
    service: str
    programme: str
    quote: str
    at_most: str
    currency: str
    state: LabelState
    tracking: str | None
    amount: str | None
    sold_currency: str | None
    says: str
    meant_at: str
    settled_at: str | None

    @property
    def live(self) -> bool:
        return self.state in ("asking", "sold", "voiding")


class Taken(Exception):
    """There is a live label already, for this job or of this quote.

    Args:
        label: that one.
    """

    def __init__(self, label: Label) -> None:
        self.label = label
        super().__init__(f"a label of {label.carrier} is {label.state}")


class NotGiven(Exception):
    """The quote was not given for this job at this price."""


class Labels:
    """The labels of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def keep_quotes(self, job_id: str, quotes: Sequence[GivenQuote]) -> None:
        """Notes which quotes were given for a job. Raises Gone where there is no such job."""
        with self._database.writing() as connection:
            if connection.execute("SELECT 1 FROM job WHERE id = ?", (job_id,)).fetchone() is None:
                raise Gone(f"There is no job {job_id}.")
            connection.executemany(
                "INSERT INTO quote_given VALUES (?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING",
                [
                    (one.carrier, one.quote, job_id, one.service, one.programme, one.amount, one.currency, _now())
                    for one in quotes
                ],
            )
            connection.execute(
                "DELETE FROM quote_given WHERE rowid <= (SELECT max(rowid) FROM quote_given) - ?", (_QUOTES_KEPT,)
            )

    def intend(self, job_id: str, wanted: GivenQuote) -> Label:
        """Writes down that a label is to be bought, before its carrier is asked.

        Raises:
            Gone: where there is no such job.
            Taken: where the job has a live label, or the quote is spent.
            NotGiven: where the quote was given for another job, at another price, or not at all.
        """
        with self._database.writing() as connection:
            if connection.execute("SELECT 1 FROM job WHERE id = ?", (job_id,)).fetchone() is None:
                raise Gone(f"There is no job {job_id}.")
            taken = connection.execute(
                f"SELECT * FROM label WHERE state IN {_LIVE} AND (job_id = ? OR (carrier = ? AND quote = ?))",
                (job_id, wanted.carrier, wanted.quote),
            ).fetchone()
            if taken is not None:
                raise Taken(_label(taken))
            given = connection.execute(
                "SELECT service, programme, amount, currency FROM quote_given"
                " WHERE carrier = ? AND quote = ? AND job_id = ?",
                (wanted.carrier, wanted.quote, job_id),
            ).fetchone()
            if given is None or tuple(given) != (wanted.service, wanted.programme, wanted.amount, wanted.currency):
                raise NotGiven
            key = secrets.token_hex(16)
            connection.execute(
                "INSERT INTO label VALUES (?, (SELECT coalesce(max(number), 0) + 1 FROM label), ?, ?, ?, ?, ?, ?, ?,"
                " 'asking', NULL, NULL, NULL, '', ?, NULL)",
                (key, job_id, wanted.carrier, wanted.service, wanted.programme, wanted.quote, wanted.amount,
                 wanted.currency, _now()),
            )  # fmt: skip
        return self.get(key)

    def settle(
        self, seen: Label, state: LabelState, says: str, *, tracking: str | None = None, amount: str | None = None,
        currency: str | None = None,
    ) -> Label:  # fmt: skip
        """What the carrier said, or that a label is to be void.

        A number once known is never dropped; where somebody else changed the state meanwhile, theirs stands.

        Args:
            seen: the label as it was when the carrier was asked.
        """
        settled = _now() if state in ("sold", "unsold", "void") else None
        with self._database.writing() as connection:
            connection.execute(
                "UPDATE label SET state = iif(state = ?, ?, state), says = ?, tracking = coalesce(?, tracking),"
                " amount = coalesce(?, amount), sold_currency = coalesce(?, sold_currency),"
                " settled_at = coalesce(?, settled_at) WHERE key = ? AND state NOT IN ('unsold', 'void')",
                (seen.state, state, says, tracking, amount, currency, settled, seen.key),
            )
        return self.get(seen.key)

    def get(self, key: str) -> Label:
        """Raises Gone."""
        row = self._database.read_one("SELECT * FROM label WHERE key = ?", (key,))
        if row is None:
            raise Gone(f"There is no label {key}.")
        return _label(row)

    def of_job(self, job_id: str) -> Label | None:
        """The live one, or the last there was; None where none was ever meant to be bought."""
        row = self._database.read_one(
            f"SELECT * FROM label WHERE job_id = ? ORDER BY state IN {_LIVE} DESC, number DESC LIMIT 1", (job_id,)
        )
        return _label(row) if row else None

    def sold_of(self, job_ids: Sequence[str]) -> frozenset[str]:
        """Those of these jobs that have a label."""
        marks = ", ".join("?" * len(job_ids))
        rows = self._database.read(
            f"SELECT job_id FROM label WHERE state = 'sold' AND job_id IN ({marks})", tuple(job_ids)
        )
        return frozenset(row["job_id"] for row in rows)

    def unsettled(self) -> list[Label]:
        """Those whose carrier must still be asked, oldest first."""
        rows = self._database.read("SELECT * FROM label WHERE state IN ('asking', 'voiding') ORDER BY number")
        return [_label(row) for row in rows]


def _label(row: sqlite3.Row) -> Label:
    return Label(
        row["key"], row["job_id"], row["carrier"], row["service"], row["programme"], row["quote"], row["at_most"],
        row["currency"], row["state"], row["tracking"], row["amount"], row["sold_currency"],
        row["says"], row["meant_at"], row["settled_at"],
    )  # fmt: skip


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="microseconds")
