"""What the shop has set."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict, Field

from fardo.api import goods, views
from fardo.api.context import AppContext, Context
from fardo.api.resource import resource
from fardo.core.board.wear import WEAR
from fardo.core.cut.fold import fold_panels, folds_to
from fardo.core.goods.hazard import QUESTIONS, tags
from fardo.core.goods.shape import SHAPES
from fardo.core.make import WAYS
from fardo.core.make.allowances import ALLOWANCES
from fardo.core.make.inserts import INSERTS
from fardo.core.protect.cushion import CLASS_NAMES, DOES_NOT_BREAK, say_class
from fardo.core.protect.forms import FORMS, WOUND, goes_around_several, goes_on_walls, of_stock
from fardo.core.protect.material import IN_WORDS_OF_SIDES
from fardo.core.quantity import Units, show_length, show_sizes
from fardo.files.blank_in import LARGEST, read_blank
from fardo.files.first_start import AtHand, new_shop, with_at_hand
from fardo.files.shapes import ASKED
from fardo.files.shop import ShopFile
from fardo.files.stock import DesignEntry, DesignLine
from fardo.files.svg import svg
from fardo.files.typed import with_units

_SQUARE = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="300mm" viewBox="0 0 300 300">'
    '<path class="cut" d="M100 0H200V100H300V200H200V300H100V200H0V100H100Z" fill="none" stroke="black"/>'
    '<path class="score" d="M100 100H200V200H100Z" fill="none" stroke="black"/></svg>'
)

router = resource("/api/shop", "shop")


@router.get("")
def get_shop(context: Context) -> views.ShopView:
    return view_shop(context)


@router.put("")
def change_shop(change: views.ShopChange, context: Context) -> views.ShopView:
    """Saves the shop's settings; answers 409 where they were changed since the revision named."""
    # What is typed bare was typed under the units that the screen showed, which are those of before.
    shown = context.today.shop.units
    shop = with_units(change.shop, shown)
    shop.to_core()
    context.settings.change_shop(change.revision, shop)
    if shop.units != shown:
        _keep_kinds(context, shown)
    return view_shop(context)


def _keep_kinds(context: AppContext, units: Units) -> None:
    """The shop's own kinds with the units of before behind what hangs on them."""
    for stored in context.kinds.all():
        kept = with_units(stored.kind, units)
        if stored.revision and kept != stored.kind:
            context.kinds.keep(kept, stored.revision)


@router.get("/starting")
def starting(units: Units) -> ShopFile:
    """The values a new shop starts with, in inches or in centimetres."""
    return new_shop(units)


class SettingUp(BaseModel):
    """A shop as it is being set up, and what it says it has at hand."""

    model_config = ConfigDict(
        json_schema_extra={
            "examples": [{"shop": new_shop("in").model_dump(mode="json", by_alias=True),
                          "at_hand": {"lines": "14 x 10 x 6, 25\npadded, 9 1/2 x 12 1/2, 40"}}]
        }
    )  # fmt: skip
    shop: ShopFile
    at_hand: AtHand


@router.post("/at-hand")
def at_hand(setting_up: SettingUp) -> ShopFile:
    """The shop with the board, boxes and mailers it says it has. Nothing is kept."""
    return with_at_hand(setting_up.shop, setting_up.at_hand)


class DrawingSent(BaseModel):
    """A drawing as it is in its file."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"name": "strip.svg", "content": _SQUARE}]})
    name: str = Field(max_length=200, description="with its ending, .svg or .dxf")
    content: str = Field(max_length=LARGEST)


class DesignRead(BaseModel):
    """What was read of a drawing: a design to look over, name and save with the shop."""

    design: DesignEntry
    panels: int
    svg: str


@router.post("/designs/read")
def read_design(drawing: DrawingSent, context: Context) -> DesignRead:
    """Reads a blank of the shop's own. Its inside and outside are what it folds to with two boards at every wall, so
    that neither promises too much; the shop corrects them. Nothing is kept.
    """
    blank = context.reader.read(drawing.name[:80], read_blank, drawing.name, drawing.content.encode())
    grade = context.today.shop.grade(None)
    panels = fold_panels(blank)
    inside, outside = folds_to(panels, grade.caliper)
    lines = [
        DesignLine(kind=one.kind, from_mm=(one.start[0].mm, one.start[1].mm), to_mm=(one.end[0].mm, one.end[1].mm))
        for one in blank.lines
    ]
    units = context.today.shop.units
    design = DesignEntry(
        name=blank.name, board=grade.code, inside=show_sizes(inside, units, "down").text,
        outside=show_sizes(outside, units, "up").text, lines=lines,
    )  # fmt: skip
    return DesignRead(design=design, panels=len(panels), svg=svg(blank, units))


def view_shop(context: AppContext) -> views.ShopView:
    today = context.today
    carriers = sorted({f"{service.carrier} {service.name}" for service in today.carriers.services})
    return views.ShopView(
        revision=today.revision,
        made_up=context.made_up,
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
        ways=[
            views.WayChoice(way=name, title=way.TITLE, minutes=round(way.MINUTES), cut=way.NEEDS == "sheet")
            for name, way in WAYS.items()
        ],
        forms=[
            views.FormChoice(
                form=name,
                title=form.TITLE,
                asks=list(form.ASKS),
                laps=getattr(form, "LAPS", False),
                on_walls=goes_on_walls(name),
                around_several=goes_around_several(name),
                around_a_box=name == WOUND,
                of_stock=of_stock(name),
            )
            for name, form in FORMS.items()
        ],
        inserts=[
            views.InsertChoice(
                kind=kind,
                title=insert.TITLE,
                count=insert.COUNT,
                asks=[views.AsksView(field=one.field, label=one.label) for one in insert.ASKS],
            )
            for kind, insert in INSERTS.items()
        ],
        allowances=[
            views.AllowanceChoice(
                name=name, title=one.title, starts=show_length(one.starts, today.shop.units, "up").text
            )
            for name, one in ALLOWANCES.items()
        ],
        tags=[goods.Choice(value=code, says=tag.says) for code, tag in tags().items()],
        fragilities=[goods.Choice(value=name, says=say_class(name)) for name in (*CLASS_NAMES, DOES_NOT_BREAK)],
        sides=[goods.Choice(value=side, says=says) for side, says in IN_WORDS_OF_SIDES.items()],
        wear=[goods.Choice(value=code, says=one.question) for code, one in WEAR.items()],
        questions=[views.QuestionChoice(value=question.code, says=question.asks) for question in QUESTIONS.values()],
    )
