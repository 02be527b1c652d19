"""The cut sheet of a saved job, to print or to send to a machine."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import Query, Response

from fardo.api.context import AppContext, Context
from fardo.api.downloads import download, today_in_words
from fardo.api.resource import resource
from fardo.api.ways import says_sheets
from fardo.core.make import called
from fardo.core.make.step import before_cutting
from fardo.core.plan.box import box_for
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.cautions import CUTTING
from fardo.core.plan.in_one_box import every_price
from fardo.core.quantity import show_sizes
from fardo.core.refusal import BadInput
from fardo.files.cut_list import cut_list
from fardo.files.drawn import in_words
from fardo.files.full_size import full_size
from fardo.files.page import Heading
from fardo.files.pdf import cut_sheet
from fardo.files.prices_csv import prices_csv
from fardo.files.svg import svg

router = resource("/api/jobs/{key}/cut-sheet", "cut sheet")
prices = resource("/api/jobs/{key}/prices", "work")

Way = Annotated[str, Query(max_length=240)]


@router.get(".pdf", response_class=Response)
def pdf_sheet(key: str, context: Context, way: Way, scale: Literal["fit", "full"] = "fit") -> Response:
    """To scale with its fence settings, or at full size over several pages with register marks."""
    title, board, boxed = _box(context, key, way)
    shop, made = context.today.file, boxed.made
    outside = show_sizes(made.outside, shop.units, "up")
    sizes = f"{made.grade.name}, inside {show_sizes(made.inside, shop.units, 'down')}, outside {outside}"
    if made.soft:
        sizes = f"closed on the goods as wrapped, {outside}"
    sheets = tuple(says_sheets(boxed, context.today.shop, board))
    box = called(made)
    heading = Heading(title or "Untitled job", (sizes, *sheets, *made.notes), box, today_in_words())
    if scale == "full":
        _must_be_cut(boxed)
        content = full_size(heading, boxed.blanks, shop.units, shop.paper)
    else:
        steps = [step.told(in_words(shop.units)) for step in made.steps]
        drawn = boxed.blanks or ((made.standing,) if made.standing else ())
        cautions = CUTTING if boxed.fence else CUTTING[: any(step.knife for step in made.steps)]
        content = cut_sheet(heading, drawn, boxed.fence, cautions, shop.units, shop.paper, steps,
                            before=before_cutting(made.steps))  # fmt: skip
    return download(content, "application/pdf", title, f"-{boxed.made.way}.pdf", look=True)


@router.get(".dxf", response_class=Response)
def dxf_sheet(key: str, context: Context, way: Way) -> Response:
    """All blanks at real size in millimetres."""
    # Its library takes most of a second to load, which a starting shop need not wait for.
    from fardo.files.dxf import dxf

    title, _, boxed = _box(context, key, way)
    _must_be_cut(boxed)
    return download(dxf(boxed.blanks, context.today.shop.units), "image/vnd.dxf", title, f"-{boxed.made.way}.dxf")


@router.get(".csv", response_class=Response)
def csv_sheet(key: str, context: Context, way: Way) -> Response:
    """The cut list: every blank and insert with its size, how many, how its flutes run, and its lines' lengths."""
    title, _, boxed = _box(context, key, way)
    _must_be_cut(boxed)
    return download(
        cut_list(boxed.blanks, boxed.made.grade, context.today.shop.units), "text/csv", title, f"-{boxed.made.way}.csv"
    )


@router.get(".svg", response_class=Response)
def svg_sheet(key: str, context: Context, way: Way, blank: Annotated[str, Query(max_length=20)]) -> Response:
    """One blank at real size."""
    title, _, boxed = _box(context, key, way)
    drawings = {piece.name: piece for piece in boxed.blanks}
    if blank not in drawings:
        raise BadInput("not a blank of this box", read=blank, allowed=", ".join(drawings), field="blank")
    return download(svg(drawings[blank], context.today.shop.units), "image/svg+xml", title, f"-{blank}.svg")


@prices.get(".csv", response_class=Response)
def csv_prices(key: str, context: Context, way: Way) -> Response:
    """What every service asks for the saved job in the box of that way, a row a charge."""
    today, file = context.today, context.jobs.get(key).job
    job = today.understand(file)
    job.must_load()
    plans, refused = every_price(job, way, today.shop, today.carriers_for(job))
    return download(prices_csv(plans, refused, today.shop.units), "text/csv", file.title, f"-{way}-prices.csv")


def _must_be_cut(boxed: Boxed) -> None:
    if not boxed.blanks:
        raise BadInput(
            "nothing is cut for it", read=boxed.made.way, allowed="a way that is cut from board", field="way"
        )


def _box(context: AppContext, key: str, way: str) -> tuple[str, str | None, Boxed]:
    """A saved job's title, its board, and it boxed that way. Raises Gone, or BadInput where it is not measured."""
    today, file = context.today, context.jobs.get(key).job
    job = today.understand(file)
    job.must_load()
    return file.title, job.board, box_for(way, job, today.shop)
