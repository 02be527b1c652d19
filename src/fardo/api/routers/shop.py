"""What the shop has set."""

from __future__ import annotations

from fastapi import APIRouter

from fardo.api import views
from fardo.api.desk import Desk, OpenDesk
from fardo.api.problems import RESPONSES

router = APIRouter(prefix="/api/shop", tags=["shop"], responses=RESPONSES)


@router.get("")
def get_shop(desk: OpenDesk) -> views.ShopView:
    return _view(desk)


@router.put("")
def change_shop(change: views.ShopChange, desk: OpenDesk) -> views.ShopView:
    """Saves the shop's settings; answers 409 where they were changed since the revision named."""
    change.shop.to_core()
    desk.settings.change_shop(change.revision, change.shop)
    return _view(desk)


def _view(desk: Desk) -> views.ShopView:
    today = desk.today
    carriers = sorted({f"{service.carrier} {service.name}" for service in today.services})
    return views.ShopView(revision=today.revision, shop=today.file, carriers=carriers)
