"""Refusals as problem documents (RFC 9457), with the field and a sentence that a packer understands."""

from __future__ import annotations

import json
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from fardo.core.refusal import BadInput, NoAnswer
from fardo.files.typed import complaint
from fardo.store.faults import CannotWrite, Conflict, Gone, NameTaken, Unreadable

MEDIA_TYPE = "application/problem+json"


class Problem(BaseModel):
    """What went wrong. `field` is a path such as ``parts[0].weight``, empty where no field is to blame;
    `taken` the code of what has a name already.
    """

    title: str
    status: int
    detail: str
    field: str = ""
    read: str = ""
    allowed: str = ""
    newest_revision: int | None = None
    taken: str = ""


RESPONSES: dict[int | str, dict[str, Any]] = {
    status: {"model": Problem, "description": words, "content": {MEDIA_TYPE: {}}}
    for status, words in (
        (404, "There is no such thing."),
        (409, "It was changed meanwhile."),
        (405, "That is not done at this address."),
        (413, "Too large."),
        (422, "Something in the request cannot be used; nothing was saved."),
        (507, "The disk is full, or the shop's file cannot be written; nothing was saved, nothing is lost."),
    )
}


def problem(status: int, title: str, detail: str, **more: Any) -> JSONResponse:
    content = Problem(title=title, status=status, detail=detail, **more).model_dump(exclude_none=True)
    return _ProblemResponse(content, status, media_type=MEDIA_TYPE)


class _ProblemResponse(JSONResponse):
    """Whatever it quotes of a request can be sent."""

    def render(self, content: Any) -> bytes:
        return json.dumps(content, ensure_ascii=False).encode("utf-8", "replace")


def unforeseen(_: Exception) -> JSONResponse:
    return problem(500, "A fault of ours", "Something went wrong here. What you typed is still on your screen.")


def of_bad_input(error: BadInput) -> JSONResponse:
    return problem(
        422, "That cannot be used", error.sentence, field=error.field, read=error.read, allowed=error.allowed
    )


def _body_of(request: Request) -> type[BaseModel] | None:
    """The model that the body of a request is read by."""
    body = getattr(request.scope.get("route"), "body_field", None)
    model = getattr(getattr(body, "field_info", None), "annotation", None)
    return model if isinstance(model, type) and issubclass(model, BaseModel) else None


def answer_with_problems(app: FastAPI) -> None:
    """Makes every refusal of the rules and the store a problem document."""

    @app.exception_handler(BadInput)
    def _bad_input(_: Request, error: BadInput) -> JSONResponse:
        return of_bad_input(error)

    @app.exception_handler(NoAnswer)
    def _no_answer(_: Request, error: NoAnswer) -> JSONResponse:
        return problem(422, "No answer", str(error))

    @app.exception_handler(RequestValidationError)
    def _invalid(request: Request, error: RequestValidationError) -> JSONResponse:
        return of_bad_input(complaint(error.errors()[0], _body_of(request)))

    @app.exception_handler(Gone)
    def _gone(_: Request, error: Gone) -> JSONResponse:
        return problem(404, "Not there", str(error))

    @app.exception_handler(Conflict)
    def _conflict(_: Request, error: Conflict) -> JSONResponse:
        detail = "It was changed in another window since you opened it. Nothing of yours was saved yet."
        return problem(409, "Changed meanwhile", detail, newest_revision=error.revision)

    @app.exception_handler(NameTaken)
    def _taken(_: Request, error: NameTaken) -> JSONResponse:
        return problem(409, "The name is taken", str(error), taken=error.code)

    @app.exception_handler(HTTPException)
    def _http(_: Request, error: HTTPException) -> JSONResponse:
        refusal = problem(error.status_code, "Not possible", str(error.detail))
        refusal.headers.update(error.headers or {})  # which methods there are, say
        return refusal

    @app.exception_handler(Unreadable)
    def _unreadable(_: Request, error: Unreadable) -> JSONResponse:
        return problem(422, "Cannot be read", str(error))

    @app.exception_handler(CannotWrite)
    def _cannot_write(_: Request, error: CannotWrite) -> JSONResponse:
        return problem(507, "The disk is full" if error.full else "Not written", str(error))
