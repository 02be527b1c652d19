"""Refusals as problem documents (RFC 9457), with the field and a sentence that a packer understands."""

from __future__ import annotations

from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from fardo.core.refusal import BadInput, NoAnswer
from fardo.files.typed import complaint
from fardo.store.database import Conflict, Gone

MEDIA_TYPE = "application/problem+json"


class Problem(BaseModel):
    """What went wrong. `field` is a path such as ``parts[0].weight``, empty where no field is to blame."""

    title: str
    status: int
    detail: str
    field: str = ""
    read: str = ""
    allowed: str = ""
    newest_revision: int | None = None


RESPONSES: dict[int | str, dict[str, Any]] = {
    status: {"model": Problem, "description": words, "content": {MEDIA_TYPE: {}}}
    for status, words in (
        (404, "There is no such thing."),
        (409, "It was changed meanwhile."),
        (413, "Too large."),
        (422, "Something in the request cannot be used; nothing was saved."),
    )
}


def problem(status: int, title: str, detail: str, **more: Any) -> JSONResponse:
    content = Problem(title=title, status=status, detail=detail, **more).model_dump(exclude_none=True)
    return JSONResponse(content, status, media_type=MEDIA_TYPE)


def of_bad_input(error: BadInput) -> JSONResponse:
    return problem(
        422, "That cannot be used", error.sentence, field=error.field, read=error.read, allowed=error.allowed
    )


def answer_with_problems(app: FastAPI) -> None:
    """Makes every refusal of the rules and the store a problem document."""

    @app.exception_handler(BadInput)
    def _bad_input(_: Request, error: BadInput) -> JSONResponse:
        return of_bad_input(error)

    @app.exception_handler(NoAnswer)
    def _no_answer(_: Request, error: NoAnswer) -> JSONResponse:
        return problem(422, "No answer", str(error))

    @app.exception_handler(RequestValidationError)
    def _invalid(_: Request, error: RequestValidationError) -> JSONResponse:
        return of_bad_input(complaint(error.errors()[0]))

    @app.exception_handler(Gone)
    def _gone(_: Request, error: Gone) -> JSONResponse:
        return problem(404, "Not there", str(error))

    @app.exception_handler(Conflict)
    def _conflict(_: Request, error: Conflict) -> JSONResponse:
        detail = "It was changed in another window since you opened it. Nothing of yours was saved yet."
        return problem(409, "Changed meanwhile", detail, newest_revision=error.revision)

    @app.exception_handler(HTTPException)
    def _http(_: Request, error: HTTPException) -> JSONResponse:
        return problem(error.status_code, "Not possible", str(error.detail))

    @app.exception_handler(Exception)
    def _unforeseen(_: Request, error: Exception) -> JSONResponse:
        return problem(500, "A fault of ours", "Something went wrong here. What you typed is still on your screen.")
