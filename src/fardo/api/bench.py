"""What the bench shows of a job, kept with it: its knots, its next move, what is cut for it.

Working a job out takes some hundredths of a second, a list of them seconds. So what came of it is kept, with the text
of the job it was worked out of and the shop it holds for. A list shows what is kept, says where that is of before a
change, and has it renewed by a process beside the server.
"""

from __future__ import annotations

import logging
import threading
from collections import OrderedDict
from collections.abc import Sequence
from concurrent.futures import Future
from contextlib import suppress
from dataclasses import dataclass
from typing import Annotated

from fastapi import Depends, Request
from pydantic import BaseModel, Field

from fardo.api.context import AppContext, Today, asked_for
from fardo.api.picture import view_knots
from fardo.api.sending import sending_of_each, ticks_of
from fardo.api.views import KnotView
from fardo.core.make import WAYS
from fardo.core.plan.cutting import Work, work_in
from fardo.core.plan.job import Job
from fardo.core.plan.picture import Picture
from fardo.core.plan.progress import NOT_BEGUN, Sending
from fardo.files.job import JobFile
from fardo.files.sending import StockTaken
from fardo.store.faults import CannotWrite
from fardo.store.jobs import JobLine, StoredJob
from fardo.store.soundness import why_unreadable

_REMEMBERED = 8  # pictures of jobs as they are typed, which are saved a moment later
_ON_THE_SPOT = 2  # rows that are worked out while the list waits


class CutEntry(BaseModel):
    """What is cut from sheet for the box that a job has chosen.

    Args:
        blanks: each as it is told apart from others: board, name, size in nanometres, and how many.
    """

    box: str
    pieces: int
    blanks: list[str]
    why_not: str = ""


class BenchEntry(BaseModel):
    """Of one job."""

    next_move: str = ""
    knots: list[KnotView] = Field(default_factory=list)
    left: str = Field("", description="what its sale leaves, where that is known")
    cut: CutEntry | None = None
    steps: list[str] = Field(default_factory=list, description="ticks of its packing steps, where a box is chosen")
    unreadable: str = Field("", description="why the job cannot be read")


@dataclass(frozen=True, slots=True)
class BenchRow:
    """A job in a list.

    Args:
        entry: what is known of it; None where it has not been worked out yet.
        stale: whether that is being renewed.
        sending: what was done at the bench and after it.
    """

    line: JobLine
    entry: BenchEntry | None
    stale: bool
    sending: Sending = NOT_BEGUN


def entry_of(job: JobFile, picture: Picture) -> BenchEntry:
    """What the bench shows of a job that is worked out, whichever way is looked at."""
    return BenchEntry(
        next_move=picture.next_move, knots=view_knots(picture.knots), cut=_cut_of(picture),
        left=_left_of(picture), steps=list(ticks_of(job, picture)),
    )  # fmt: skip


def _left_of(picture: Picture) -> str:
    if picture.job.sale is None or picture.plan is None or picture.job.journey is None:
        return ""
    left = picture.job.sale.left(picture.plan.costs.total)
    return f"{left} {left.currency}"


def entry_of_text(content: str, today: Today, taken: str = "{}") -> BenchEntry:
    """The same from a job as it is kept; never raises for what that holds.

    Args:
        taken: off the stock for it, as JSON.
    """
    try:
        job = JobFile.model_validate_json(content)
    except ValueError:
        return BenchEntry(unreadable=why_unreadable(content), next_move="Cannot be read")
    try:
        return entry_of(job, today.with_back(StockTaken.model_validate_json(taken)).draw_up(job))
    except Exception as fault:  # one job must not take the list with it
        logging.getLogger("fardo").exception("a job could not be worked out")
        return BenchEntry(next_move=f"A fault of ours: it cannot be worked out ({type(fault).__name__})")


async def _bench(request: Request) -> Bench:
    bench: Bench = asked_for(request).bench
    return bench


def _cut_of(picture: Picture) -> CutEntry | None:
    return cut_entry(picture.job, work_in(picture))


def cut_entry(job: Job, work: Work | None) -> CutEntry | None:
    """What is cut for the box that a job has chosen; None where nothing is."""
    if job.box is None or work is None or not (work.blanks or work.why_not):
        return None
    return CutEntry(box=WAYS[job.box.way].TITLE, pieces=work.pieces, blanks=work.told, why_not=work.why_not)


def renewed(context: AppContext, kept: Sequence[tuple[str, str]]) -> tuple[str, list[str]]:
    """What the bench shows of jobs as they are kept, as JSON, and for which shop.

    Args:
        kept: each job, and what was taken off the stock for it.
    """
    today = context.today
    return today.mark, [entry_of_text(content, today, taken).model_dump_json() for content, taken in kept]


class Bench:
    """What is shown of the jobs of one shop, kept and renewed."""

    def __init__(self, context: AppContext) -> None:
        self._context = context
        self._guard = threading.Lock()
        self._pictures: OrderedDict[str, Picture] = OrderedDict()
        self._under_way: set[str] = set()

    def remember(self, job: JobFile, picture: Picture) -> None:
        """A job as it is typed and worked out: when it is saved in a moment, that need not be done again."""
        with self._guard:
            self._pictures[job.model_dump_json()] = picture
            while len(self._pictures) > _REMEMBERED:
                self._pictures.popitem(last=False)

    def saved(self, stored: StoredJob, job: JobFile) -> None:
        """A job was saved: what it was worked out to is kept with it.

        Args:
            stored: it as it was saved.
            job: it as it was sent.
        """
        with self._guard:
            picture = self._pictures.get(job.model_dump_json())
        line = self._context.jobs.line(stored.id)
        today = self._context.today
        if picture is not None and line.taken == "{}" and today.drew(picture) and line.revision == stored.revision:
            self._keep([(line, entry_of(job, picture).model_dump_json())], today.mark)

    def rows(self, lines: Sequence[JobLine], on_the_spot: int = _ON_THE_SPOT) -> list[BenchRow]:
        """Each job with what is known of it. A few are worked out at once, the rest beside.

        Args:
            on_the_spot: how many at most are waited for.
        """
        mark = self._context.today.mark
        stale = [line for line in lines if line.bench is None or line.stamp != mark]
        with self._guard:
            new = [line for line in stale if line.content not in self._under_way]
        fresh: dict[str, BenchEntry] = {}
        if new and len(new) <= on_the_spot:
            # A few beside each other are worked out quicker than they are sent anywhere.
            found = [(line, entry_of_text(line.content, self._context.today, line.taken)) for line in new]
            fresh = {line.id: entry for line, entry in found}
            self._keep([(line, entry.model_dump_json()) for line, entry in found], mark)
        elif new:
            self._renew(new)
        entries = {
            line.id: fresh.get(line.id) or (BenchEntry.model_validate_json(line.bench) if line.bench else None)
            for line in lines
        }
        steps = {key: entry.steps for key, entry in entries.items() if entry is not None}
        sent, broken = sending_of_each([line.id for line in lines], steps, self._context)
        for key, why in broken.items():
            entries[key] = BenchEntry(unreadable=why, next_move="Cannot be read")
        return [
            BenchRow(
                line, entries[line.id], line.id not in fresh and (line.bench is None or line.stamp != mark),
                sent[line.id],
            )
            for line in lines
        ]  # fmt: skip

    def renew_first_page(self) -> None:
        """Has what a shop is opened on worked out, before somebody looks."""
        self.rows(self._context.jobs.page().jobs, on_the_spot=0)

    def kept(self, lines: Sequence[JobLine]) -> dict[str, BenchEntry]:
        """What is known of jobs as they and the shop are now, by their ids; of none that is still to be worked out."""
        mark = self._context.today.mark
        return {
            line.id: BenchEntry.model_validate_json(line.bench) for line in lines if line.bench and line.stamp == mark
        }

    def _renew(self, lines: Sequence[JobLine]) -> None:
        with self._guard:
            self._under_way |= {line.content for line in lines}
        half = (len(lines) + 1) // 2
        for some in (lines[:half], lines[half:]):  # what is seen first comes first
            if some:
                asked = self._context.reckon_beside(renewed, [(line.content, line.taken) for line in some])
                asked.add_done_callback(lambda done, some=some: self._renewed(some, done))  # type: ignore[misc]

    def _renewed(self, lines: Sequence[JobLine], done: Future[tuple[str, list[str]]]) -> None:
        try:
            mark, entries = done.result()
            self._keep(list(zip(lines, entries, strict=True)), mark)
        except Exception:  # the list asks again
            logging.getLogger("fardo").debug("what the bench shows was not renewed", exc_info=True)
        finally:
            with self._guard:
                self._under_way -= {line.content for line in lines}

    def _keep(self, entries: Sequence[tuple[JobLine, str]], mark: str) -> None:
        """What cannot be kept, on a full disk say, is worked out again: nobody's list or save fails for it."""
        with suppress(CannotWrite):
            self._context.jobs.keep_bench(entries, mark)


OpenBench = Annotated[Bench, Depends(_bench)]
