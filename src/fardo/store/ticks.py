"""Ticks of packing steps: each under a name that its device made up, so that nothing is counted twice and two devices
that were apart for a while merge.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fardo.core.refusal import BadInput
from fardo.store.database import Database, Gone


@dataclass(frozen=True, slots=True)
class Tick:
    """That a step was done, or taken back.

    Args:
        id: made up by the device.
        step: the key of the packing step.
        at: by the device's clock, ISO 8601 in UTC.
        note: what was written down at it.
        photo: taken at it, a file kept with the shop.
    """

    id: str
    step: str
    done: bool
    at: str
    note: str = ""
    photo: str = ""


class Ticks:
    """The ticks of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def of(self, job_id: str) -> tuple[Tick, ...]:
        """Of a job, in the order in which they were made."""
        rows = self._database.read(
            "SELECT id, step, done, at, note, photo FROM packing_tick WHERE job_id = ? ORDER BY at, id", (job_id,)
        )
        return tuple(
            Tick(row["id"], row["step"], bool(row["done"]), row["at"], row["note"], row["photo"]) for row in rows
        )

    def done_of_each(self, job_ids: Sequence[str]) -> dict[str, frozenset[str]]:
        """The steps of each of these jobs that are done: of each step its last tick counts."""
        marks = ", ".join("?" * len(job_ids))
        rows = self._database.read(
            f"SELECT job_id, step, done FROM packing_tick WHERE job_id IN ({marks}) ORDER BY at, id", tuple(job_ids)
        )
        last: dict[str, dict[str, bool]] = {}
        for row in rows:
            last.setdefault(row["job_id"], {})[row["step"]] = bool(row["done"])
        return {key: frozenset(step for step, done in steps.items() if done) for key, steps in last.items()}

    def keep(self, job_id: str, ticks: Sequence[Tick]) -> tuple[Tick, ...]:
        """Keeps ticks; one that is known already is passed over.

        Returns:
            All of the job's.

        Raises:
            Gone: where there is no such job.
            BadInput: for a tick that has the name of one of another job.
        """
        with self._database.writing() as connection:
            if connection.execute("SELECT 1 FROM job WHERE id = ?", (job_id,)).fetchone() is None:
                raise Gone(f"There is no job {job_id}.")
            for n, tick in enumerate(ticks):
                of = connection.execute("SELECT job_id FROM packing_tick WHERE id = ?", (tick.id,)).fetchone()
                if of is not None and of["job_id"] != job_id:
                    raise BadInput(
                        "a tick of another job", read=tick.id, allowed="a name of its own", field=f"ticks[{n}].id"
                    )
            connection.executemany(
                "INSERT INTO packing_tick (id, job_id, step, done, at, note, photo) VALUES (?, ?, ?, ?, ?, ?, ?)"
                " ON CONFLICT (id) DO NOTHING",
                [(one.id, job_id, one.step, one.done, one.at, one.note, one.photo) for one in ticks],
            )
        return self.of(job_id)
