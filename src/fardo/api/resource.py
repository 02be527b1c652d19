"""How every router of the API is made: the same refusals described, and JSON read as strictly as JSON is."""

from __future__ import annotations

import json
from collections.abc import Callable, Coroutine
from typing import Any

from fastapi import APIRouter
from fastapi.routing import APIRoute
from pydantic_core import from_json
from starlette.requests import Request
from starlette.responses import Response

from fardo.api.problems import RESPONSES


def resource(prefix: str, *tags: str) -> APIRouter:
    """A router.

    Args:
        prefix: of its addresses.
        tags: it is listed under.
    """
    return APIRouter(prefix=prefix, tags=list(tags), responses=RESPONSES, route_class=StrictRoute)


class _StrictRequest(Request):
    async def json(self) -> Any:
        """Without halves of signs, which the language's own reader takes and no text may hold."""
        body = await self.body()
        try:
            return from_json(body)
        except ValueError as error:
            raise json.JSONDecodeError(str(error), "", 0) from error


class StrictRoute(APIRoute):
    """A route whose JSON is read by `_StrictRequest`."""

    def get_route_handler(self) -> Callable[[Request], Coroutine[Any, Any, Response]]:
        handle = super().get_route_handler()

        async def handle_strictly(request: Request) -> Response:
            return await handle(_StrictRequest(request.scope, request.receive))

        return handle_strictly
