"""What was changed in a shop since a moment, asked cheaply, so that open pages can be told."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.store.database import Database
from fardo.store.settings import Settings

_MOST = 200  # jobs that are named; where more were changed, all are meant
# Each grows, or changes, with whatever is written there.
_AT_THE_BENCH = (
    "SELECT (SELECT count(*) FROM packing_tick), (SELECT coalesce(sum(revision), 0) FROM sending),"
    " (SELECT coalesce(sum(revision), 0) FROM recipient), (SELECT count(*) FROM job_cut),"
    " (SELECT count(*) FROM label), (SELECT max(settled_at) FROM label)"
)


@dataclass(frozen=True, slots=True)
class Mark:
    """A moment in the life of a shop."""

    jobs: tuple[int, int]  # how many, and the newest change of any
    settings: tuple[object, ...]
    lineage: int  # how often a copy was put in its place
    at_the_bench: tuple[object, ...]


@dataclass(frozen=True, slots=True)
class JobChanged:
    """A job that was changed, archived or restored.

    Args:
        change: what the page that changed it called the change; empty where it gave it no name.
    """

    id: str
    revision: int
    change: str


@dataclass(frozen=True, slots=True)
class Changed:
    """What differs between two moments.

    Args:
        jobs: that were changed; empty with `whole`.
        settings: whether the settings or a tariff were.
        at_the_bench: whether a tick, a closed parcel, a recipient, a cut or a label was.
        whole: whether all of it may be another, as when a copy was put in the shop's place.
    """

    jobs: tuple[JobChanged, ...] = ()
    settings: bool = False
    at_the_bench: bool = False
    whole: bool = False

    def __bool__(self) -> bool:
        return bool(self.jobs) or self.settings or self.at_the_bench or self.whole


def mark_of(database: Database) -> Mark:
    """This moment."""
    [jobs] = database.read("SELECT count(*), coalesce(max(changed), 0) FROM job")
    [bench] = database.read(_AT_THE_BENCH)
    [lineage] = database.read("SELECT count(*) FROM lineage")
    return Mark((jobs[0], jobs[1]), Settings(database).stamp(), lineage[0], tuple(bench))


def changed_since(database: Database, then: Mark) -> tuple[Mark, Changed]:
    """This moment, and what differs from `then`."""
    now = mark_of(database)
    query = "SELECT id, revision, change_id FROM job WHERE changed > ? ORDER BY changed LIMIT ?"
    rows = database.read(query, (then.jobs[1], _MOST + 1))
    jobs = tuple(JobChanged(row["id"], row["revision"], row["change_id"]) for row in rows)
    fewer = now.jobs[0] < then.jobs[0] or now.jobs[1] < then.jobs[1] or now.lineage != then.lineage
    return now, Changed(
        jobs=() if fewer or len(jobs) > _MOST else jobs,
        settings=now.settings != then.settings,
        at_the_bench=now.at_the_bench != then.at_the_bench,
        whole=fewer or len(jobs) > _MOST,
    )
