"""Kinds of goods: those that ship and the shop's own; and jobs begun from one, or made into one."""

from __future__ import annotations

from fastapi import Response
from pydantic import BaseModel, ConfigDict, Field

from fardo.api import goods, views
from fardo.api.context import Context
from fardo.api.resource import resource
from fardo.api.routers.jobs import view as view_job
from fardo.core.refusal import BadInput
from fardo.core.tariff.line import read_line
from fardo.files.job import EXAMPLE, JobFile
from fardo.files.kind import code_of, kind_of_job, start_job, take_step, with_parcel
from fardo.files.typed import with_units
from fardo.store.faults import NameTaken
from fardo.store.kinds import StoredKind

router = resource("/api", "kinds")


@router.get("/kinds")
def list_kinds(context: Context) -> list[goods.KindRow]:
    """Every kind, by title."""
    return [row_of(stored) for stored in context.kinds.all()]


@router.get("/kinds/{code}")
def get_kind(code: str, context: Context) -> goods.KindView:
    return view_kind(context.kinds.get(code))


@router.put("/kinds")
def change_kind(change: goods.KindChange, context: Context) -> goods.KindView:
    """Keeps a kind as the shop's own; answers 409 where it was changed since the revision named."""
    return view_kind(context.kinds.keep(with_units(change.kind, context.today.shop.units).check(), change.revision))


@router.delete("/kinds/{code}", status_code=204, response_class=Response)
def archive_kind(code: str, context: Context) -> Response:
    """Takes the shop's own kind off the list; it can be restored."""
    context.kinds.archive(code)
    return Response(status_code=204)


@router.post("/kinds/{code}/restore")
def restore_kind(code: str, context: Context) -> goods.KindView:
    return view_kind(context.kinds.restore(code))


class Beginning(BaseModel):
    """What a job is begun with: a kind, or none, and a title."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"kind": "concertina", "title": "Concertina, 48 keys"}]})
    kind: str | None = Field(None, max_length=40)
    title: str = Field("", max_length=200)
    line: str = Field("", max_length=200, description="size, weight and place of its goods: '24x12x8 9lb to 73120'")


@router.post("/jobs/begin", status_code=201)
def begin_job(beginning: Beginning, context: Context) -> views.JobView:
    """Starts a job: the parts of its kind with their usual steps taken, and the shop's habits on the list."""
    kind = context.kinds.get(beginning.kind).kind if beginning.kind else None
    today = context.today
    job = start_job(kind, beginning.title, today.file)
    parcel = read_line(beginning.line, today.shop.units, today.file.postcode) if beginning.line else None
    if parcel is not None:
        job = with_parcel(job, parcel, today.shop.units)
    return view_job(context.jobs.add(with_units(job, today.shop.units)))


class StepTaken(BaseModel):
    """A job as it is typed, and a step of it that is to be taken or left."""

    model_config = ConfigDict(
        json_schema_extra={
            "examples": [
                {
                    "job": {**EXAMPLE, "take_apart": [{"id": "straps", "do": "Strap the bellows"}]},
                    "step": "straps",
                    "take": True,
                }
            ]
        }
    )
    job: JobFile
    step: str = Field(max_length=40)
    take: bool


@router.post("/take-apart")
def take_apart(asked: StepTaken, context: Context) -> JobFile:
    """The job with the step taken or left; saves nothing."""
    return take_step(asked.job, asked.step, asked.take, context.today.shop)


class NewKind(BaseModel):
    """What a kind made from a job is called."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"title": "My concertina"}]})
    title: str = Field(min_length=1, max_length=80)
    replaces: str | None = Field(None, max_length=40, description="code of the kind whose place it takes")


@router.post("/jobs/{key}/kind", status_code=201)
def keep_as_kind(key: str, new: NewKind, context: Context) -> goods.KindView:
    """Keeps a job as a kind of its own, with what was measured as its starting sizes. Answers 409 where there is a kind
    of that name, unless it is the one whose place it takes; that one's earlier form is kept among its revisions.
    """
    job = context.jobs.get(key).job
    every = {stored.kind.code: stored for stored in context.kinds.all()}
    if new.replaces is not None and new.replaces not in every:
        raise BadInput("not a kind of goods that is here", read=new.replaces, allowed="a kind's code", field="replaces")
    code = new.replaces or code_of(new.title)
    same = every.get(code) or next((one for one in every.values() if one.kind.title == new.title), None)
    if same is not None and same.kind.code != new.replaces:
        raise NameTaken(f"There is a kind of goods called {same.kind.title} already.", same.kind.code)
    was = every.get(job.kind) if job.kind else None
    kind = kind_of_job(job, code, new.title, was.kind if was else None)
    kind = with_units(kind, context.today.shop.units)
    return view_kind(context.kinds.keep(kind, context.kinds.newest(code)))


def row_of(stored: StoredKind) -> goods.KindRow:
    kind = stored.kind
    return goods.KindRow(
        code=kind.code, title=kind.title, words=kind.words, about=kind.about, own=stored.revision > 0,
        revision=stored.revision,
    )  # fmt: skip


def view_kind(stored: StoredKind) -> goods.KindView:
    return goods.KindView(revision=stored.revision, kind=stored.kind)
