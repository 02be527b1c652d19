"""The made-up shop tried in this browser, and back to one's own."""

from __future__ import annotations

from typing import Literal

from fastapi import Request, Response
from pydantic import BaseModel

from fardo.api.context import MADE_UP_COOKIE
from fardo.api.made_up import MadeUp
from fardo.api.resource import resource
from fardo.core.refusal import NoAnswer
from fardo.store.faults import StoreError

router = resource("/api/made-up", "shop")


class WhichShop(BaseModel):
    """Which shop this browser works on from now on."""

    made_up: Literal["offered", "tried"]


@router.post("")
def try_it(request: Request, response: Response) -> WhichShop:
    """From now on this browser works on the made-up shop. 422 where that is what is served, or all that there is."""
    made_up: MadeUp | None = request.app.state.made_up
    if made_up is None:
        raise NoAnswer("This is the made-up shop already.")
    try:
        made_up.open()
    except StoreError as fault:
        raise NoAnswer(f"{fault} Move that file away to have it made anew; your own shop is not touched.") from fault
    secure = request.url.scheme == "https"
    response.set_cookie(MADE_UP_COOKIE, "1", httponly=True, samesite="strict", secure=secure)
    return WhichShop(made_up="tried")


@router.delete("")
def leave(response: Response) -> WhichShop:
    """This browser works on the shop that is served again; the made-up one stays as it is left."""
    response.delete_cookie(MADE_UP_COOKIE, httponly=True, samesite="strict")
    return WhichShop(made_up="offered")
