"""Files sent in: photographs, meshes and tables of parts, several at once."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory

from fastapi import Request, Response
from fastapi.concurrency import run_in_threadpool

from fardo.api import goods
from fardo.api.context import Context
from fardo.api.intake import take_in
from fardo.api.resource import resource
from fardo.api.uploads import read_files

router = resource("/api/files", "files")

_FILES_BODY = {
    "requestBody": {
        "required": True,
        "content": {
            "multipart/form-data": {
                "schema": {
                    "type": "object",
                    "properties": {"files": {"type": "array", "items": {"type": "string", "format": "binary"}}},
                }
            }
        },
    }
}


@router.post("", openapi_extra=_FILES_BODY)
async def send_files(request: Request, context: Context) -> list[goods.TakenIn]:
    """What became of each file, in their order. A good file comes in whatever is wrong with the others."""
    with TemporaryDirectory(prefix="fardo-") as folder:
        sent = await read_files(request.headers.get("content-type", ""), request.stream(), Path(folder))
        return [await run_in_threadpool(take_in, file, context) for file in sent]


@router.get("/{name}", response_class=Response)
def get_file(name: str, context: Context) -> Response:
    """A photograph or a mesh as it is kept."""
    stored = context.files.get(name)
    headers = {"Cache-Control": "private, max-age=31536000, immutable"}
    if stored.media_type != "image/jpeg":
        headers["Content-Disposition"] = f'attachment; filename="{stored.name}"'
    return Response(stored.content, media_type=stored.media_type, headers=headers)
