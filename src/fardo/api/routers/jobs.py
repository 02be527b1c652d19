"""Jobs: on the bench, changed from a revision, put away, brought back, and as files."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query, Request, Response
from fastapi.concurrency import run_in_threadpool

from fardo.api import views
from fardo.api.desk import Desk, OpenDesk
from fardo.api.downloads import download
from fardo.api.intake import keep_file
from fardo.api.picture import view_knots
from fardo.api.problems import RESPONSES
from fardo.api.worked import draw_up
from fardo.core.refusal import NoAnswer
from fardo.files.bundle import files_of, read_bundle, renamed, write_bundle
from fardo.files.job import EXAMPLE, JobFile, read_job, with_units, write_job
from fardo.files.understood import understand
from fardo.store.jobs import StoredJob

router = APIRouter(prefix="/api/jobs", tags=["jobs"], responses=RESPONSES)


@router.get("")
def list_jobs(
    desk: OpenDesk,
    words: Annotated[str, Query(max_length=200)] = "",
    put_away: bool = False,
    cursor: Annotated[str | None, Query(max_length=80)] = None,
) -> views.JobPage:
    """Jobs in hand, newest first, each with its next move; `words` finds by title, part, extra or place."""
    page = desk.jobs.page(words=words, put_away=put_away, cursor=cursor)
    return views.JobPage(jobs=[row(stored, desk) for stored in page.jobs], cursor=page.cursor)


@router.post("", status_code=201)
def add_job(job: JobFile, desk: OpenDesk) -> views.JobView:
    """Starts a job."""
    return view(desk.jobs.add(_checked(job, desk)))


_FILE_BODY = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"type": "object"}, "example": EXAMPLE}},
    }
}


@router.post("/file", status_code=201, openapi_extra=_FILE_BODY)
async def open_job_file(request: Request, desk: OpenDesk) -> views.JobView:
    """Starts a job from a job file sent as it is. Nothing is kept of a file with a fault."""
    return view(desk.jobs.add(_checked(read_job(await request.body()), desk)))


_BUNDLE_BODY = {
    "requestBody": {
        "required": True,
        "content": {"application/zip": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.post("/bundle", status_code=201, openapi_extra=_BUNDLE_BODY)
async def open_bundle(request: Request, desk: OpenDesk) -> views.JobView:
    """Starts a job from a job file in a ZIP with its photographs and meshes. Nothing is kept of one with a fault."""
    content = await request.body()
    return await run_in_threadpool(_open_bundle, content, desk)


@router.get("/{key}")
def get_job(key: str, desk: OpenDesk) -> views.JobView:
    return view(desk.jobs.get(key))


@router.put("/{key}")
def change_job(key: str, change: views.JobChange, desk: OpenDesk) -> views.JobView:
    """Saves a job; answers 409 where it was changed since the revision named."""
    return view(desk.jobs.change(key, change.revision, _checked(change.job, desk)))


@router.delete("/{key}")
def put_away_job(key: str, desk: OpenDesk) -> views.JobView:
    """Takes a job off the bench. It can be brought back."""
    return view(desk.jobs.put_away(key))


@router.post("/{key}/bring-back")
def bring_back_job(key: str, desk: OpenDesk) -> views.JobView:
    return view(desk.jobs.bring_back(key))


@router.get("/{key}/file")
def job_file(key: str, desk: OpenDesk) -> Response:
    """The job as a job file; with photographs or meshes, in a ZIP with them."""
    job = desk.jobs.get(key).job
    if files_of(job):
        return download(write_bundle(job, desk.find_file), "application/zip", job.title, ".job.zip")
    return download(write_job(job), "application/json", job.title, ".job.json")


def _open_bundle(content: bytes, desk: Desk) -> views.JobView:
    job, sent = read_bundle(content)
    kept = {name: keep_file(name, one, desk) for name, one in sent.items()}
    return view(desk.jobs.add(_checked(renamed(job, kept), desk)))


def row(stored: StoredJob, desk: Desk) -> views.JobRow:
    knots, next_move = draw_up(stored.job, desk.today).knots()
    return views.JobRow(
        id=stored.id,
        revision=stored.revision,
        title=stored.job.title,
        day=stored.job.day.isoformat() if stored.job.day else None,
        destination=stored.job.ship.to or "",
        saved_at=stored.saved_at,
        next_move=next_move,
        knots=view_knots(knots),
    )


def view(stored: StoredJob) -> views.JobView:
    return views.JobView(
        id=stored.id,
        revision=stored.revision,
        saved_at=stored.saved_at,
        put_away=stored.put_away_at is not None,
        job=stored.job,
    )


def _checked(job: JobFile, desk: Desk) -> JobFile:
    """The job with its units made plain. Raises BadInput or NoAnswer for what cannot be kept and worked on."""
    shop = desk.today.shop
    said = understand(job, shop, find_mesh=desk.find_mesh)
    if said.problems:
        raise said.problems[0]
    if said.beyond:
        raise NoAnswer(said.beyond)
    return with_units(job, shop)
