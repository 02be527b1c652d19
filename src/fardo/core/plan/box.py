"""The box of a way for a job: on its board, by its school, by the figures it was chosen by."""

from __future__ import annotations

from fardo.core.board.grade import Grade
from fardo.core.cut.drawing import Blank
from fardo.core.make import WAYS, Made, School, make_box
from fardo.core.plan.boxed import Boxed, CutOut, cut_out, priced_up
from fardo.core.plan.cut_by import CutBy, as_then
from fardo.core.plan.job import Job
from fardo.core.plan.shop import Shop
from fardo.core.refusal import BadInput


def box_for(way: str, job: Job, shop: Shop) -> Boxed:
    """The load in a box of that way, on the job's board and by its school where the way has it.

    Where the job names no board and the sheets of the usual one are too small, it is of the first that has one large
    enough. Raises BadInput for a way there is not, NoAnswer where it cannot be.
    """
    if way not in WAYS:
        raise BadInput("not a way to get a box known here", read=way, allowed=", ".join(WAYS), field="way")
    usual = shop.grade(job.board)
    cut, by = _cut_out(way, job, usual, shop)
    if cut.too_large and job.board is None:
        others = (_cut_out(way, job, grade, shop) for grade in shop.grades.values() if grade != cut.made.grade)
        cut, by = next((one for one in others if not one[0].too_large), (cut, by))
    return priced_up(cut, by, job.value)


def cut_from_sheet(boxed: Boxed, own: Grade) -> tuple[Grade, tuple[Blank, ...]]:
    """What is cut from sheet for a box and its inserts, and from which board.

    Args:
        own: the job's board, of which inserts are cut for a box that is there.
    """
    if not boxed.made.taken:
        return boxed.made.grade, boxed.blanks
    return own, tuple(blank for insert in boxed.inserts for blank in insert.blanks)


def _cut_out(way: str, job: Job, grade: Grade, shop: Shop) -> tuple[CutOut, Shop]:
    """The box on that board, and the shop by whose figures it is cut."""
    school: School = job.school if job.school in WAYS[way].SCHOOLS else "exact"
    if (kept := kept_for(way, job, grade)) is not None:
        grade, shop = as_then(kept, way, grade, shop)
    return cut_out(job.load or job.must_load(), way, grade, shop, school), shop


def kept_for(way: str, job: Job, grade: Grade) -> CutBy | None:
    """The figures this way was chosen by, if it was."""
    box = job.box
    return box.cut_by if box is not None and (box.way, box.board) == (way, grade.code) else None


def by_other_school(boxed: Boxed, kept: CutBy | None, shop: Shop) -> Made | None:
    """The same box by the other school; None where the way has one only."""
    made = boxed.made
    if len(WAYS[made.way].SCHOOLS) < 2:
        return None
    other: School = "thumb" if made.school == "exact" else "exact"
    allowances = kept.allowances if kept is not None else shop.allowances
    return make_box(made.way, boxed.arrangement.inside, made.grade, allowances, other)
