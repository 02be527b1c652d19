"""Earlier revisions of jobs, of the shop, of kinds of goods and of tariffs: looked at, and restored."""

from __future__ import annotations

from typing import Annotated, Any, TypeVar

from fastapi import Path
from pydantic import BaseModel
from pydantic_core import from_json

from fardo.api import goods, views
from fardo.api.bench import OpenBench
from fardo.api.context import AppContext, Context
from fardo.api.resource import resource
from fardo.api.routers.jobs import change_job
from fardo.api.routers.kinds import view_kind
from fardo.api.routers.shop import view_shop
from fardo.files.job import JobFile
from fardo.files.kind import KindFile
from fardo.files.shop import ShopFile
from fardo.store.faults import Unreadable
from fardo.store.revisions import Of

Kept = TypeVar("Kept", bound=BaseModel)

router = resource("/api", "revisions")

Number = Annotated[int, Path(ge=1, le=10**9)]


class RevisionRow(BaseModel):
    """A revision in a list; the newest comes first."""

    revision: int
    saved_at: str


def _rows(context: AppContext, of: Of, key: str = "") -> list[RevisionRow]:
    return [RevisionRow(revision=one.revision, saved_at=one.saved_at) for one in context.revisions.list(of, key)]


@router.get("/jobs/{key}/revisions")
def of_job(key: str, context: Context) -> list[RevisionRow]:
    """Every time a job was saved, up to the last two hundred."""
    context.jobs.line(key)
    return _rows(context, "job", key)


@router.get("/jobs/{key}/revisions/{revision}")
def job_then(key: str, revision: Number, context: Context) -> JobFile:
    """The job as it was."""
    return _read(JobFile, context.revisions.content("job", revision, key))


@router.post("/jobs/{key}/revisions/{revision}")
def job_back(key: str, revision: Number, context: Context, bench: OpenBench) -> views.JobView:
    """The job as it was becomes its newest revision; none is lost."""
    job = job_then(key, revision, context)
    return change_job(key, views.JobChange(revision=context.jobs.line(key).revision, job=job), context, bench)


@router.get("/shop/revisions")
def of_shop(context: Context) -> list[RevisionRow]:
    """Every time the settings were saved, up to the last two hundred."""
    return _rows(context, "shop")


@router.get("/shop/revisions/{revision}")
def shop_then(revision: Number, context: Context) -> ShopFile:
    """The shop as it was set."""
    return _read(ShopFile, context.revisions.content("shop", revision))


@router.post("/shop/revisions/{revision}")
def shop_back(revision: Number, context: Context) -> views.ShopView:
    """The shop as it was set becomes its newest revision; none is lost."""
    shop = shop_then(revision, context)
    shop.to_core()
    context.settings.change_shop(context.today.revision, shop)
    return view_shop(context)


@router.get("/kinds/{code}/revisions")
def of_kind(code: str, context: Context) -> list[RevisionRow]:
    """Every time the shop's own kind was saved, also while it is archived."""
    return _rows(context, "kind", code)


@router.get("/kinds/{code}/revisions/{revision}")
def kind_then(code: str, revision: Number, context: Context) -> KindFile:
    """The kind as it was."""
    return _read(KindFile, context.revisions.content("kind", revision, code))


@router.post("/kinds/{code}/revisions/{revision}")
def kind_back(code: str, revision: Number, context: Context) -> goods.KindView:
    """The kind as it was becomes its newest revision; none is lost."""
    kind = kind_then(code, revision, context)
    return view_kind(context.kinds.keep(kind.check(), context.kinds.newest(code)))


@router.get("/tariffs/{carrier}/versions/{revision}")
def tariff_then(carrier: str, revision: Number, context: Context) -> dict[str, Any]:
    """A carrier's tariff as it was, as its file has it."""
    content: dict[str, Any] = from_json(context.revisions.content("tariff", revision, carrier))
    return content


def _read(model: type[Kept], content: str) -> Kept:
    try:
        return model.model_validate_json(content)
    except ValueError as error:
        raise Unreadable("", "this revision", str(error).splitlines()[0]) from error
