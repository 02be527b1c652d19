"""The shop moved and kept: exported as one open archive, one imported, copies looked at and put back."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Annotated, Literal

from fastapi import Path as InPath
from fastapi import Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import FileResponse
from pydantic import BaseModel, Field
from starlette.background import BackgroundTask

from fardo.api.context import AppContext, Context
from fardo.api.downloads import today_in_words
from fardo.api.resource import resource
from fardo.api.uploads import write_as_it_comes
from fardo.core.refusal import NoAnswer
from fardo.store.archive import LARGEST, export_shop, import_shop
from fardo.store.copies import KeptCopy, drop_oldest, kept_copies, place_for_import
from fardo.store.faults import Gone, StoreError
from fardo.store.restoring import Changes, Differing, changes_of, put_back

router = resource("/api/keeping", "keeping")

Name = Annotated[str, InPath(max_length=120)]


class CopyRow(BaseModel):
    """A copy that lies beside the shop."""

    name: str
    made: str = Field(description="the day of a daily one, else the moment")
    size: int = Field(ge=0, description="in bytes")
    why: Literal["daily", "before-restore", "before-update", "imported"]


class DifferingView(BaseModel):
    """By name, what of one kind of thing would come back, be gone, be another."""

    back: list[str]
    gone: list[str]
    other: list[str]


class ChangesView(BaseModel):
    """What putting a copy back would change."""

    jobs: DifferingView
    tariffs: DifferingView
    kinds: DifferingView
    settings: bool
    labels: int = Field(ge=0, description="that are bought and would be gone here with their jobs")


@router.get("/archive", response_class=Response)
def export(context: Context) -> Response:
    """The whole shop as one archive: JSON, photographs and meshes in a ZIP."""
    folder = tempfile.TemporaryDirectory(prefix="fardo-")
    try:
        target = Path(folder.name) / "shop.zip"
        export_shop(context.database.path, target)
    except BaseException:
        folder.cleanup()
        raise
    name = f"fardo-shop-{today_in_words().replace(' ', '-')}.zip"
    return FileResponse(target, media_type="application/zip", filename=name, background=BackgroundTask(folder.cleanup))


_ARCHIVE = {
    "requestBody": {
        "required": True,
        "content": {"application/zip": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.post("/archive", status_code=201, openapi_extra=_ARCHIVE)
async def take_in(request: Request, context: Context) -> CopyRow:
    """Reads an archive and lays it beside the shop as a copy, to be looked at and put in the shop's place."""
    with tempfile.TemporaryDirectory(prefix="fardo-") as folder:
        packed = Path(folder) / "archive.zip"
        await write_as_it_comes(request.stream(), packed, LARGEST)
        return await run_in_threadpool(_take_in, packed, context)


def _take_in(packed: Path, context: AppContext) -> CopyRow:
    target = place_for_import(context.database.path)
    assert context.crews is not None, "a process beside the server takes nothing in"
    context.crews.reader.read_archive("The file", _import, packed, target)
    drop_oldest(context.database.path)
    return _row(_find(target.name, context))


def _import(packed: Path, target: Path) -> None:
    """Beside the server. Raises NoAnswer for what is no archive of a sound shop."""
    with _told(packed, "The file"):
        import_shop(packed, target)


@router.get("/copies")
def copies(context: Context) -> list[CopyRow]:
    """The copies that lie beside the shop, the newest first."""
    return [_row(one) for one in kept_copies(context.database.path)]


@router.get("/copies/{name}")
def look(name: Name, context: Context) -> ChangesView:
    """What putting a copy back would change. Nothing is changed by asking."""
    found = _find(name, context)
    with _told(found.path, name):
        return _view(changes_of(found.path, context.database))


@router.post("/copies/{name}/restore")
def restore(name: Name, context: Context) -> CopyRow:
    """Puts a copy in the shop's place, all of it or nothing; answers with the copy of the shop as it was."""
    found = _find(name, context)
    with _told(found.path, name):
        kept = put_back(found.path, context.database)
    drop_oldest(context.database.path, but=(found.path, kept))
    return _row(_find(kept.name, context))


@contextmanager
def _told(path: Path, called: str) -> Iterator[None]:
    """What the store refuses is an answer, by the name of the file and not by where it lies."""
    try:
        yield
    except StoreError as fault:
        raise NoAnswer(str(fault).replace(str(path), called)) from fault


def _find(name: str, context: AppContext) -> KeptCopy:
    """Raises Gone where there is no copy of that name."""
    found = next((one for one in kept_copies(context.database.path) if one.name == name), None)
    if found is None:
        raise Gone("copy")
    return found


def _row(copy: KeptCopy) -> CopyRow:
    return CopyRow(name=copy.name, made=copy.made, size=copy.size, why=copy.why)


def _view(changes: Changes) -> ChangesView:
    def named(of: Differing) -> DifferingView:
        return DifferingView(back=list(of.back), gone=list(of.gone), other=list(of.other))

    return ChangesView(
        jobs=named(changes.jobs), tariffs=named(changes.tariffs), kinds=named(changes.kinds),
        settings=changes.settings, labels=changes.labels,
    )  # fmt: skip
