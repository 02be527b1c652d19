"""The cutting of several jobs together: what is cut for each, board by board from which sheets, and what stays on the
stock.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

from fardo.core.board.grade import Grade, Sheet
from fardo.core.cut.drawing import Blank
from fardo.core.cut.lay_out import CutPiece, CuttingPlan, plan_cuts
from fardo.core.plan.box import box_for, cut_from_sheet
from fardo.core.plan.job import Job
from fardo.core.plan.picture import Picture
from fardo.core.plan.shop import Shop
from fardo.core.quantity import ZERO, Length, Money
from fardo.core.refusal import BadInput, NoAnswer

Tool = Literal["saw", "straightedge", "knife"]
MOST_PIECES = 120  # that are planned at once
_MOST_ON_ONE = 12  # pieces that are tried on one sheet


@dataclass(frozen=True, slots=True)
class Work:
    """What is cut for a job.

    Args:
        key: of the job.
        grade: the board; None where it cannot be worked out.
        why_not: then.
    """

    key: str
    grade: Grade | None = None
    blanks: tuple[Blank, ...] = ()
    why_not: str = ""

    @property
    def pieces(self) -> int:
        return sum(blank.count for blank in self.blanks)

    @property
    def told(self) -> list[str]:
        """Each blank as it is told apart from others: board, name, size in nanometres, and how many."""
        board = self.grade.code if self.grade else ""
        return [f"{board} {one.name} {one.size[0].nm} x {one.size[1].nm}, {one.count}" for one in self.blanks]


@dataclass(frozen=True, slots=True)
class BoardCut:
    """What is cut from one board.

    Args:
        plan: None where it cannot be.
        why_not: then.
    """

    grade: Grade
    plan: CuttingPlan | None
    why_not: str = ""

    @property
    def price(self) -> Money:
        """Of the whole sheets that are taken; off-cuts are paid already."""
        sheets = self.plan.sheets if self.plan else ()
        whole = sum(one.sheet.length.nm * one.sheet.width.nm for one in sheets if not one.sheet.offcut)
        return self.grade.price_of(whole)


def work_of(key: str, job: Job, shop: Shop) -> Work:
    """What is cut for a job from sheet: the box it has chosen and its inserts."""
    if job.box is None:
        return Work(key, why_not="no box is chosen")
    try:
        job.must_load()
        boxed = box_for(job.box.way, job, shop)
    except (BadInput, NoAnswer) as fault:
        return Work(key, why_not=str(fault))
    return Work(key, *cut_from_sheet(boxed, shop.grade(job.board)))


def work_in(picture: Picture, key: str = "") -> Work | None:
    """The same from a picture that is drawn up; None where no box is chosen, or nothing is cut for it."""
    job = picture.job
    if job.box is None:
        return None
    way = picture.way(job.box.way)
    if way is not None:
        work = Work(key, *cut_from_sheet(way.boxed, picture.shop.grade(job.board)))
        return work if work.blanks else None
    why_not = dict(picture.cannot).get(job.box.way)
    if why_not is None:
        why_not = picture.problems[0].sentence if picture.problems else _why_no_load(job)
    return Work(key, why_not=why_not)


def _why_no_load(job: Job) -> str:
    try:
        job.must_load()
    except (BadInput, NoAnswer) as fault:
        return str(fault)
    return "this box is not among the job's ways"


def plan_boards(work: Iterable[Work], shop: Shop, tool: Tool) -> list[BoardCut]:
    """Board by board, in the shop's order. Raises NoAnswer for more pieces than are planned at once."""
    by_board: dict[str, list[CutPiece]] = {}
    for one in work:
        if one.grade is not None:
            pieces = by_board.setdefault(one.grade.code, [])
            for blank in one.blanks:
                pieces += [CutPiece(blank.name, blank.size, blank.flutes, one.key)] * blank.count
    number = sum(len(pieces) for pieces in by_board.values())
    if number > MOST_PIECES:
        raise NoAnswer(f"{number} pieces are more than are planned at once; take fewer jobs, up to {MOST_PIECES}")
    kerf = shop.kerf if tool == "saw" else ZERO
    found = []
    for code, grade in shop.grades.items():
        if code in by_board:
            try:
                plan = _planned(tuple(by_board[code]), tuple(grade.sheets), kerf, tool == "knife")
            except NoAnswer as none:
                found.append(BoardCut(grade, None, str(none)))
            else:
                found.append(BoardCut(grade, plan))
    return found


@lru_cache(maxsize=16)
def _planned(pieces: tuple[CutPiece, ...], sheets: tuple[Sheet, ...], kerf: Length, knife: bool) -> CuttingPlan:
    """One plan is looked at, printed, and ticked off; it is laid out once. Raises NoAnswer."""
    return plan_cuts(pieces, sheets, kerf, knife)


@lru_cache(maxsize=256)
def one_sheet_for(blanks: tuple[Blank, ...], sheets: tuple[Sheet, ...]) -> Sheet | None:
    """The smallest sheet in stock that gives all of them; None where none does, or there are many."""
    pieces = [CutPiece(blank.name, blank.size, blank.flutes) for blank in blanks for _ in range(blank.count)]
    if len(pieces) > _MOST_ON_ONE:
        return None
    board = sum(blank.sheet_area_nm2 * blank.count for blank in blanks)
    for sheet in sorted(sheets, key=lambda one: (not one.offcut, one.length.nm * one.width.nm)):
        if sheet.length.nm * sheet.width.nm >= board and sheet.count != 0:
            with suppress(NoAnswer):
                plan_cuts(pieces, (replace(sheet, count=1),))
                return sheet
    return None


def drawings_of(work: Iterable[Work]) -> dict[tuple[str, str], Blank]:
    """By a piece's name and its job."""
    return {(blank.name, one.key): blank for one in work for blank in one.blanks}


def sheets_after(sheets: Sequence[Sheet], plan: CuttingPlan, least: Length) -> list[tuple[Sheet, int | None]]:
    """The sheets of a board once it is cut: those that are counted are fewer, off-cuts worth keeping are on the list,
    equal ones as one, those used up gone.

    Args:
        sheets: as they are in stock.
        least: shorter side of an off-cut that is worth keeping.

    Returns:
        each sheet, and which of `sheets` it was, None for a new off-cut.
    """
    rows: list[tuple[Sheet, int | None]] = [(sheet, n) for n, sheet in enumerate(sheets)]
    for cut in plan.sheets:
        at = _row_of(cut.sheet, rows, sheets)
        taken = rows[at][0]
        if taken.offcut or taken.count is not None:
            rows[at] = (replace(taken, count=(1 if taken.count is None else taken.count) - 1), at)
        along = cut.sheet.flutes_along
        rows += [(Sheet(rest.length, rest.width, along, 1, True), None) for rest in cut.worth_keeping(least)]
    found: list[tuple[Sheet, int | None]] = []
    for sheet, was in rows:
        if sheet.offcut and sheet.count == 0:
            continue
        same = next((n for n, (one, _) in enumerate(found) if sheet.offcut and _alike(one, sheet)), None)
        if same is None:
            found.append((sheet, was))
        else:
            one, first = found[same]
            found[same] = (replace(one, count=(one.count or 1) + (sheet.count or 1)), first)
    return found


def _row_of(sheet: Sheet, rows: Sequence[tuple[Sheet, int | None]], sheets: Sequence[Sheet]) -> int:
    """Where a sheet is taken from: of equal rows the first that has one left."""
    equal = [n for n, one in enumerate(sheets) if one == sheet]
    return next((n for n in equal if rows[n][0].count != 0), equal[0])


def _alike(one: Sheet, other: Sheet) -> bool:
    return replace(one, count=None) == replace(other, count=None)
