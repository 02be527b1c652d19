"""What the shop has set."""

from __future__ import annotations

from fastapi import APIRouter

from fardo.api import goods, views
from fardo.api.desk import Desk, OpenDesk
from fardo.api.problems import RESPONSES
from fardo.core.goods.hazard import QUESTIONS
from fardo.core.goods.shape import SHAPES
from fardo.core.protect.cushion import CLASSES, say_class
from fardo.files.shapes import ASKED

router = APIRouter(prefix="/api/shop", tags=["shop"], responses=RESPONSES)


@router.get("")
def get_shop(desk: OpenDesk) -> views.ShopView:
    return view_shop(desk)


@router.put("")
def change_shop(change: views.ShopChange, desk: OpenDesk) -> views.ShopView:
    """Saves the shop's settings; answers 409 where they were changed since the revision named."""
    change.shop.to_core()
    desk.settings.change_shop(change.revision, change.shop)
    return view_shop(desk)


def view_shop(desk: Desk) -> views.ShopView:
    today = desk.today
    carriers = sorted({f"{service.carrier} {service.name}" for service in today.services})
    return views.ShopView(
        revision=today.revision,
        shop=today.file,
        carriers=carriers,
        shapes=[
            goods.ShapeKind(
                kind=kind,
                title=shape.TITLE,
                asked=[goods.AskedView(name=asked.name, label=asked.label) for asked in ASKED[kind]],
            )
            for kind, shape in SHAPES.items()
        ],
        fragilities=[goods.Choice(value=name, says=say_class(name)) for name, _, _ in CLASSES],
        questions=[goods.Choice(value=question.code, says=question.asks) for question in QUESTIONS.values()],
    )
