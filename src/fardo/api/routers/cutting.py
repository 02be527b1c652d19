"""The cutting plan of the jobs in hand: looked at, printed, sent to a cutter, and done."""

from __future__ import annotations

from typing import Annotated

from fastapi import Query, Response
from pydantic import BaseModel, ConfigDict, Field

from fardo.api import cutting, views
from fardo.api.bench import Bench, OpenBench
from fardo.api.context import AppContext, Context
from fardo.api.downloads import download, today_in_words
from fardo.api.resource import resource
from fardo.api.routers.shop import view_shop
from fardo.core.cut.drawing import Blank
from fardo.core.cut.fence import FenceSetting
from fardo.core.cut.sheet import draw_sheet
from fardo.core.plan.cautions import CUTTING
from fardo.core.plan.cutting import Tool, drawings_of, plan_boards
from fardo.core.quantity import show_cross, show_sizes
from fardo.core.refusal import BadInput, NoAnswer
from fardo.files.page import Heading
from fardo.files.pdf import cut_sheet
from fardo.files.shop import ShopFile
from fardo.store.faults import Conflict

router = resource("/api/cutting", "cutting")

Jobs = Annotated[list[str] | None, Query(max_length=200, description="the jobs in it; nothing said: all in hand")]
LayOut = Annotated[bool, Query(description="whether it is laid out, or only listed what there is to cut")]
ToolAsked = Annotated[Tool, Query(description="a saw loses its kerf; a knife need not cut through")]


@router.get("")
def look(
    context: Context, bench: OpenBench, jobs: Jobs = None, tool: ToolAsked = "straightedge", lay_out: LayOut = True
) -> cutting.CuttingView:
    """What is cut from which sheets for these jobs, with the cuts in the order that sets the fence least often."""
    return cutting.view_cutting(context, bench, jobs, tool, lay_out)


@router.get(".pdf", response_class=Response)
def pdf(context: Context, bench: OpenBench, jobs: Jobs = None, tool: ToolAsked = "straightedge") -> Response:
    """A page a sheet, with the cuts in order."""
    shop = context.today.file
    drawn, fence = [], []
    pieces: list[str] = []
    for title, blank, settings, of in _sheets(context, bench, jobs, tool):
        drawn.append(blank)
        pieces += of
        fence += [FenceSetting(one.fence, one.blade, f"{title}: {one.do}", one.cuts) for one in settings]
    heading = Heading("Cutting plan", day=today_in_words())
    cautions = CUTTING if tool == "saw" else CUTTING[:1]
    set_to = "Fence" if tool == "saw" else "Mark"
    content = cut_sheet(heading, drawn, fence, cautions, shop.units, shop.paper, pieces, set_to)
    return download(content, "application/pdf", "cutting plan", ".pdf", look=True)


@router.get(".dxf", response_class=Response)
def dxf_sheets(context: Context, bench: OpenBench, jobs: Jobs = None, tool: ToolAsked = "knife") -> Response:
    """All sheets at real size in millimetres, every blank with its lines where it lies."""
    # Its library takes most of a second to load, which a starting shop need not wait for.
    from fardo.files.dxf import dxf

    drawn = [blank for _, blank, _, _ in _sheets(context, bench, jobs, tool)]
    return download(dxf(drawn, context.today.shop.units), "image/vnd.dxf", "cutting plan", ".dxf")


class Done(BaseModel):
    """That it was cut, and from which shop it was planned."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"revision": 1, "jobs": [], "tool": "straightedge"}]})
    revision: int = Field(ge=0, le=views.MOST)
    jobs: list[str] = Field(max_length=200)
    tool: Tool


@router.post("/done")
def done(what: Done, context: Context, bench: OpenBench) -> views.ShopView:
    """Takes the sheets it used off the stock, keeps the off-cuts, and marks the blanks as cut, so that they are not cut
    again; 409 where the shop changed meanwhile.
    """
    if what.revision != context.today.revision:
        raise Conflict(context.today.revision)
    listed = cutting.list_work(context, bench)
    keys = listed.taken(what.jobs)
    blanks = {line.id: entry.blanks for line, entry, _ in listed.rows if line.id in keys}
    after = context.reckon(_after, keys, what.tool)
    if after is None:
        allowed = "jobs with a chosen box whose blanks are not cut yet"
        raise BadInput("nothing to cut", read=", ".join(what.jobs), allowed=allowed, field="jobs")
    context.cuts.cut(blanks, what.revision, after)
    return view_shop(context)


class Undone(BaseModel):
    """That what was marked as cut was not."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"revision": 2, "jobs": [], "shop": None}]})
    revision: int = Field(ge=0, le=views.MOST)
    jobs: list[str] = Field(max_length=200)
    shop: ShopFile | None = Field(None, description="as it was before; None leaves the stock as it is")


@router.post("/undone")
def undone(what: Undone, context: Context) -> views.ShopView:
    """The blanks of these jobs are to be cut again; with the shop as it was, the sheets are on the stock again too."""
    shop = what.shop or context.today.file
    shop.to_core()
    context.cuts.uncut(what.jobs, what.revision, shop)
    return view_shop(context)


def _after(context: AppContext, keys: list[str], tool: Tool) -> ShopFile | None:
    """The shop once these jobs are cut; None where nothing is."""
    today = context.today
    cuts = plan_boards(cutting.works(context, keys), today.shop, tool)
    if not any(cut.plan is not None and cut.plan.sheets for cut in cuts):
        return None
    after = cutting.stock_after(today.file, today, cuts)
    after.to_core()
    return after


# A sheet by its name, drawn, its cuts, and in words what each piece of it is.
Sheet = tuple[str, Blank, list[FenceSetting], list[str]]


def _sheets(context: AppContext, bench: Bench, jobs: list[str] | None, tool: Tool) -> list[Sheet]:
    """Every sheet drawn, with its cuts. Raises NoAnswer where there is nothing to cut or a piece fits no sheet."""
    found = context.reckon(_draw_sheets, cutting.list_work(context, bench).taken(jobs), tool)
    if not found:
        raise NoAnswer("Nothing is to be cut: no job in hand has chosen a box that is cut from sheet.")
    return found


def _draw_sheets(context: AppContext, keys: list[str], tool: Tool) -> list[Sheet]:
    today, units = context.today, context.today.shop.units
    taken = cutting.works(context, keys)
    drawings = drawings_of(taken)
    found: list[Sheet] = []
    titles = {key: context.jobs.get(key).job.title or "Untitled job" for key in keys}
    for board in plan_boards(taken, today.shop, tool):
        if board.plan is None:
            raise NoAnswer(board.why_not)
        for one in board.plan.sheets:
            title = f"{board.grade.code} {len(found) + 1}"
            settings = []
            for n, cut in enumerate(one.cuts, 1):
                rest = show_sizes((cut.rest.length, cut.rest.width, cut.rest.width), units, "down").text
                piece = rest.rpartition(" x ")[0]
                way = "across its length" if cut.across else "along its length"
                settings.append(FenceSetting(cut.fence, "through", f"cut {n}: {piece}, {way}", 1))
            least = today.shop.offcut_least
            placed = [(laid.piece, show_cross(*laid.piece.size, units, "down")) for laid in one.placed]
            of = [f"{title}: {piece.name}, {size}, for {titles[piece.of]}" for piece, size in placed]
            keeps = [show_cross(rest.length, rest.width, units, "down") for rest in one.worth_keeping(least)]
            of += [f"{title}: keep {size}" for size in keeps]
            found.append((title, draw_sheet(f"sheet {title}", one, drawings, units, least, titles), settings, of))
    return found
