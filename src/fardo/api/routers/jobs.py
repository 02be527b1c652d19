"""Jobs: on the bench, changed from a revision, archived, restored, and as files."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Annotated

from fastapi import Query, Request, Response
from fastapi.concurrency import run_in_threadpool

from fardo.api import views
from fardo.api.bench import BenchEntry, BenchRow, OpenBench
from fardo.api.context import AppContext, Context
from fardo.api.downloads import download
from fardo.api.intake import keep_file
from fardo.api.picture import read_knot, view_knots
from fardo.api.resource import resource
from fardo.api.sending import renew_taken
from fardo.api.uploads import write_as_it_comes
from fardo.core.plan.progress import tie_all
from fardo.core.refusal import NoAnswer
from fardo.files import bundle as bundles
from fardo.files.job import EXAMPLE, JobFile, read_job, write_job
from fardo.files.typed import Day, with_units
from fardo.store.jobs import StoredJob, without_label
from fardo.store.labels import Label

router = resource("/api/jobs", "jobs")


@router.get("")
def list_jobs(
    context: Context,
    bench: OpenBench,
    words: Annotated[str, Query(max_length=200)] = "",
    archived: bool = False,
    today: Annotated[Day | None, Query(description="said, the bench is listed by day")] = None,
    cursor: Annotated[str | None, Query(max_length=80)] = None,
) -> views.JobPage:
    """Jobs in hand, each with its next move: the last changed first or, where today is said, what leaves first before
    the rest. `words` finds by title, part, extra, place, recipient or order.
    """
    if today is not None and not words and not archived:
        page = context.jobs.page_by_day(today, cursor)
    else:
        others = context.recipients.found_by(words)
        page = context.jobs.page(words=words, archived=archived, cursor=cursor, others=others)
    rows = [row(one) for one in bench.rows(page.jobs)]
    return views.JobPage(jobs=rows, cursor=page.cursor, renewing=any(one.stale for one in rows))


@router.post("", status_code=201)
def add_job(job: JobFile, context: Context, bench: OpenBench) -> views.JobView:
    """Starts a job."""
    stored = context.jobs.add(_checked(job, context))
    bench.saved(stored, job)
    return view(stored)


_FILE_BODY = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"type": "object"}, "example": EXAMPLE}},
    }
}


@router.post("/file", status_code=201, openapi_extra=_FILE_BODY)
async def open_job_file(request: Request, context: Context) -> views.JobView:
    """Starts a job from a job file sent as it is. Nothing is kept of a file with a fault."""
    return await run_in_threadpool(_open_job, await request.body(), context)


_BUNDLE_BODY = {
    "requestBody": {
        "required": True,
        "content": {"application/zip": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.post("/bundle", status_code=201, openapi_extra=_BUNDLE_BODY)
async def open_bundle(request: Request, context: Context) -> views.JobView:
    """Starts a job from a job file in a ZIP with its photographs and meshes. Nothing is kept of one with a fault."""
    with TemporaryDirectory(prefix="fardo-") as folder:
        packed = Path(folder) / "bundle.zip"
        await write_as_it_comes(request.stream(), packed, bundles.LARGEST)
        return await run_in_threadpool(_open_bundle, packed, Path(folder), context)


@router.get("/{key}")
def get_job(key: str, context: Context) -> views.JobView:
    return view(context.jobs.get(key), context)


@router.put("/{key}")
def change_job(key: str, change: views.JobChange, context: Context, bench: OpenBench) -> views.JobView:
    """Saves a job; answers 409 where it was changed since the revision named."""
    stored = context.jobs.change(key, change.revision, _checked(change.job, context), change.change)
    bench.saved(stored, change.job)
    renew_taken(key, context)
    return view(stored, context)


@router.delete("/{key}")
def archive_job(key: str, context: Context, bench: OpenBench) -> views.JobRow:
    """Takes a job off the bench. It can be restored."""
    return row(bench.rows([context.jobs.archive(key)])[0])


@router.post("/{key}/restore")
def restore_job(key: str, context: Context, bench: OpenBench) -> views.JobRow:
    return row(bench.rows([context.jobs.restore(key)])[0])


@router.get("/{key}/text", response_class=Response)
def job_text(key: str, context: Context) -> Response:
    """What is kept of a job, as it is kept: also where it cannot be read."""
    line = context.jobs.line(key)
    return download(line.content, "text/plain; charset=utf-8", line.title, ".txt")


@router.get("/{key}/file")
def job_file(key: str, context: Context) -> Response:
    """The job as a job file; with photographs or meshes, in a ZIP with them."""
    job = context.jobs.get(key).job
    if bundles.files_of(job):
        return download(bundles.write_bundle(job, context.find_file), "application/zip", job.title, ".job.zip")
    return download(write_job(job), "application/json", job.title, ".job.json")


def _open_job(content: bytes, context: AppContext) -> views.JobView:
    return view(context.jobs.add(_checked(read_job(content), context)))


def _open_bundle(packed: Path, folder: Path, context: AppContext) -> views.JobView:
    job, sent = context.reader.read("the file", bundles.read_bundle, packed, folder)
    kept = {name: keep_file(name, path, context) for name, path in sent.items()}
    return view(context.jobs.add(_checked(bundles.renamed(job, kept), context)))


def row(shown: BenchRow) -> views.JobRow:
    line, entry = shown.line, shown.entry or BenchEntry()
    knots, move = tie_all([read_knot(knot) for knot in entry.knots], shown.sending)
    return views.JobRow(
        id=line.id,
        revision=line.revision,
        title=line.title,
        day=line.day,
        destination=line.destination,
        saved_at=line.saved_at,
        next_move=move or entry.next_move,
        left=entry.left,
        knots=view_knots(knots) if entry.knots else [],
        archived=line.archived_at is not None,
        stale=shown.stale,
        unreadable=entry.unreadable,
    )


def view(stored: StoredJob, context: AppContext | None = None) -> views.JobView:
    """A job as the page gets it.

    Args:
        context: for its label; None for a job that is new and has none.
    """
    label = context.labels.of_job(stored.id) if context else None
    return views.JobView(
        id=stored.id,
        revision=stored.revision,
        saved_at=stored.saved_at,
        archived=stored.archived_at is not None,
        job=stored.job,
        change=stored.change,
        label=view_label(label) if label else None,
    )


def view_label(label: Label) -> views.LabelView:
    return views.LabelView(
        state=label.state, carrier=label.carrier, service=label.service, programme=label.programme,
        amount=label.amount or label.at_most, currency=label.sold_currency or label.currency, tracking=label.tracking,
        says=_say_label(label),
    )  # fmt: skip


def _say_label(label: Label) -> str:
    carrier, says = label.carrier, label.says
    match label.state:
        case "asking":
            says = says or "has not answered"
            return f"It is not known yet whether a label was bought: {carrier} {says}. It is asked again."
        case "voiding":
            return f"It is not void yet: {carrier} {says or 'has not answered'}. It is asked again."
        case "unsold":
            return f"No label was bought: {carrier} {says}."
        case "sold":
            return f"{carrier} {says}." if says else ""
        case _:
            return ""


def _checked(job: JobFile, context: AppContext) -> JobFile:
    """The job with its units made plain, and without a label: that is no job's to carry.

    Raises:
        BadInput, NoAnswer: for what cannot be kept and worked on.
    """
    read = context.today.understand(job)
    if read.problems:
        raise read.problems[0]
    if read.beyond:
        raise NoAnswer(read.beyond)
    return without_label(with_units(job, context.today.shop.units))
