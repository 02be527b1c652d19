"""The cutting plan of several jobs: what is cut from which sheets, board by board, and what is kept of them."""

from __future__ import annotations

import logging
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate

from pydantic import BaseModel, Field

from fardo.api.bench import Bench, CutEntry, cut_entry
from fardo.api.context import AppContext, Today
from fardo.core.cut.drawing import Blank
from fardo.core.cut.lay_out import CuttingPlan, SheetPlan
from fardo.core.cut.order import Cut
from fardo.core.cut.sheet import draw_sheet
from fardo.core.plan.cutting import MOST_PIECES, BoardCut, Tool, Work, drawings_of, plan_boards, sheets_after, work_of
from fardo.core.quantity import Units, show_cross
from fardo.core.refusal import NoAnswer
from fardo.files.boards import MOST_SHEETS, write_sheet
from fardo.files.drawn import exact_text
from fardo.files.shop import ShopFile
from fardo.files.svg import svg
from fardo.store.faults import Unreadable
from fardo.store.jobs import JobLine

_AT_FIRST = 60  # pieces, of the first to leave; more are ticked by hand
_MOST_JOBS = 200


class CutJob(BaseModel):
    """A job with something to cut. `why_not` says why it cannot be, if it cannot."""

    id: str
    title: str
    day: str | None
    box: str
    pieces: int
    taken: bool = Field(description="whether it is in this plan")
    cut: bool = Field(description="whether its blanks are cut already, as they are")
    why_not: str


class CutView(BaseModel):
    """A cut: the fence, and the piece that is parted."""

    fence: str
    new_fence: bool
    across: bool
    piece: str


class SheetView(BaseModel):
    title: str
    offcut: bool
    svg: str
    pieces: list[str]
    cuts: list[CutView]
    keeps: list[str] = Field(description="off-cuts that are large enough to keep")


class BoardPlan(BaseModel):
    """What is cut from one board."""

    board: str
    name: str
    sheets: list[SheetView]
    free: bool = Field(description="whether a knife is needed, as some cuts do not go through")
    waste_percent: int
    fence_changes: int
    price: str = Field(description="of the whole sheets taken")
    least: int = Field(description="by area no plan does with fewer sheets")
    why_not: str


class CuttingView(BaseModel):
    tool: Tool
    jobs: list[CutJob]
    boards: list[BoardPlan]
    currency: str
    revision: int = Field(description="of the shop whose sheets these are")
    more: int = Field(description="how many jobs with a box are not listed, as they leave later")
    laid_out: bool = Field(description="whether the plan is there; without it only what there is to cut is listed")


@dataclass(frozen=True, slots=True)
class Listed:
    """Jobs in hand that have something to cut, the first to leave first.

    Args:
        rows: each with what is cut for it, and whether it is cut already.
        more: how many beyond these have chosen a box.
    """

    rows: list[tuple[JobLine, CutEntry, bool]]
    more: int

    def taken(self, keys: Sequence[str] | None) -> list[str]:
        """The jobs of a plan: those named, or the first to leave, as many as are planned at first; one with more pieces
        than that is ticked by hand, unless there is no other.
        """
        if keys is not None:
            return [line.id for line, _, cut in self.rows if line.id in keys and not cut]
        to_cut = [(line.id, entry.pieces) for line, entry, cut in self.rows if not cut and not entry.why_not]
        few = [one for one in to_cut if one[1] <= _AT_FIRST]
        sums = accumulate(pieces for _, pieces in few)
        found = [key for (key, _), pieces in zip(few, sums, strict=True) if pieces <= _AT_FIRST]
        return found or [key for key, pieces in to_cut if pieces <= MOST_PIECES][:1]


def list_work(context: AppContext, bench: Bench) -> Listed:
    """What there is to cut. Of jobs that the bench has not worked out yet only the chosen box is made, quickly."""
    lines, count = context.jobs.with_box(_MOST_JOBS)
    done = context.cuts.of([line.id for line in lines])
    today = context.today
    rows = []
    kept = bench.kept(lines)
    for line in lines:
        entry = kept[line.id].cut if line.id in kept else _entry_of(line, today)
        if entry is not None:
            rows.append((line, entry, done.get(line.id) == entry.blanks))
    return Listed(rows, count - len(lines))


def _entry_of(line: JobLine, today: Today) -> CutEntry | None:
    """What is cut for a job, without working out all else of it; None where nothing is."""
    try:
        job = today.understand(line.read().job)
        return cut_entry(job, work_of(line.id, job, today.shop))
    except Unreadable:
        return None
    except Exception:  # one job must not take the list with it; the bench says what is wrong with it
        logging.getLogger("fardo").exception("what is cut for a job could not be worked out")
        return None


def works(context: AppContext, keys: Sequence[str]) -> list[Work]:
    """What is cut for jobs, by their keys."""
    return [_work_of(line, context.today) for line in context.jobs.lines(keys)]


def _work_of(line: JobLine, today: Today) -> Work:
    try:
        job = line.read().job
    except Unreadable as fault:
        return Work(line.id, why_not=str(fault))
    return work_of(line.id, today.understand(job), today.shop)


def view_cutting(
    context: AppContext, bench: Bench, keys: Sequence[str] | None, tool: Tool, lay_out: bool = True
) -> CuttingView:
    """The plan for the jobs named, or for the first to leave.

    Args:
        lay_out: whether it is laid out too, which takes a while for many pieces, or the jobs are listed only.

    Raises:
        NoAnswer: for more pieces than are planned at once.
    """
    listed = list_work(context, bench)
    taken = listed.taken(keys)
    return CuttingView(
        tool=tool, currency=context.today.shop.currency, revision=context.today.revision,
        jobs=[
            CutJob(
                id=line.id, title=line.title or "Untitled job", day=line.day, box=entry.box, pieces=entry.pieces,
                taken=line.id in taken, cut=cut, why_not=entry.why_not,
            )
            for line, entry, cut in listed.rows
        ],
        boards=context.reckon(_boards, taken, tool) if taken and lay_out else [], more=listed.more, laid_out=lay_out,
    )  # fmt: skip


def _boards(context: AppContext, keys: Sequence[str], tool: Tool) -> list[BoardPlan]:
    taken = works(context, keys)
    titles = {line.id: line.title or "Untitled job" for line in context.jobs.lines(keys)}
    show = _Show(context.today, drawings_of(taken), titles)
    return [show.board(cut) for cut in plan_boards(taken, context.today.shop, tool)]


@dataclass(frozen=True, slots=True)
class _Show:
    """Puts plans into words.

    Args:
        titles: of the jobs, by their keys.
    """

    today: Today
    drawings: dict[tuple[str, str], Blank]
    titles: dict[str, str]

    def board(self, cut: BoardCut) -> BoardPlan:
        plan, why_not = cut.plan or CuttingPlan((), False, 0), cut.why_not
        for key, title in self.titles.items():
            why_not = why_not.replace(key, title)
        return BoardPlan(
            board=cut.grade.code, name=cut.grade.name, free=plan.free, waste_percent=round(plan.waste * 100),
            sheets=[self.sheet(n, one) for n, one in enumerate(plan.sheets, 1)], fence_changes=plan.fence_changes,
            price=str(cut.price), least=plan.least, why_not=why_not,
        )  # fmt: skip

    def sheet(self, n: int, one: SheetPlan) -> SheetView:
        units = self.today.shop.units
        what = "off-cut" if one.sheet.offcut else "sheet"
        pieces: dict[str, int] = {}
        for placed in one.placed:
            label = f"{placed.piece.name}, {self.titles[placed.piece.of]}"
            pieces[label] = pieces.get(label, 0) + 1
        least = self.today.shop.offcut_least
        drawn = draw_sheet(f"{what} {n}", one, self.drawings, units, least, self.titles)
        return SheetView(
            title=f"{n}. {what} {show_cross(one.sheet.length, one.sheet.width, units, 'down')}",
            offcut=one.sheet.offcut,
            svg=svg(drawn, units),
            pieces=[f"{count} x {label}" if count > 1 else label for label, count in pieces.items()],
            cuts=[_view_cut(k, cut, one.cuts, units) for k, cut in enumerate(one.cuts)],
            keeps=[show_cross(rest.length, rest.width, units, "down") for rest in one.worth_keeping(least)],
        )  # fmt: skip


def _view_cut(n: int, cut: Cut, cuts: Sequence[Cut], units: Units) -> CutView:
    return CutView(
        fence=exact_text(cut.fence, units), new_fence=n == 0 or cut.fence != cuts[n - 1].fence, across=cut.across,
        piece=show_cross(cut.rest.length, cut.rest.width, units, "down"),
    )  # fmt: skip


def stock_after(shop: ShopFile, today: Today, cuts: Sequence[BoardCut]) -> ShopFile:
    """The shop once it has cut."""
    least, done = today.shop.offcut_least, {cut.grade.code: cut for cut in cuts if cut.plan is not None}
    boards = []
    for board in shop.boards:
        cut = done.get(board.code)
        if cut is not None and cut.plan is not None:
            after = sheets_after(cut.grade.sheets, cut.plan, least)
            entries = [write_sheet(sheet, None if was is None else board.sheets[was]) for sheet, was in after]
            if len(entries) > MOST_SHEETS:
                raise NoAnswer(
                    f"{board.code} would have {len(entries)} sheets and off-cuts; a board has at most {MOST_SHEETS}. "
                    "Remove off-cuts that are used up under Settings, Boards, then mark these as cut."
                )
            board = board.model_copy(update={"sheets": entries})
        boards.append(board)
    return shop.model_copy(update={"boards": boards})
