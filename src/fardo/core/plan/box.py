"""The box of a way for a job: on its board, by its school, by the figures it was chosen by."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass
from itertools import islice

from fardo.core.board.grade import Grade
from fardo.core.cut.drawing import Blank
from fardo.core.make import WAYS, Made, School, make_box
from fardo.core.plan.boxed import Boxed, priced_up
from fardo.core.plan.cut_by import CutBy, as_then
from fardo.core.plan.cut_out import CutOut, cut_out, every_cut_out
from fardo.core.plan.job import Job
from fardo.core.plan.shop import Shop
from fardo.core.refusal import BadInput, NoAnswer


@dataclass(frozen=True, slots=True)
class LookedAt:
    """What is looked at.

    Args:
        way: nothing where whatever is current is.
        item: which of several boxes there, the best where none is said.
    """

    way: str = ""
    item: str = ""

    @classmethod
    def read(cls, text: str) -> LookedAt:
        """The box looked at, as the page names it.

        >>> LookedAt.read("shelf/18 x 14 x 12")
        LookedAt(way='shelf', item='18 x 14 x 12')
        """
        way, _, item = text.partition("/")
        return cls(way, item)


def box_for(wanted: str, job: Job, shop: Shop) -> Boxed:
    """The load in a box of a way, on the job's board and by its school where the way has it.

    Where the job names no board and the sheets of the usual one are too small, it is of the first that has one large
    enough. Of several boxes there it is the one named, else the chosen one while it holds the goods, else the best.

    Args:
        wanted: the way, or of several boxes there which one, as `LookedAt` reads it.

    Raises: BadInput for a way there is not, NoAnswer where it cannot be.
    """
    asked = LookedAt.read(wanted)
    way, item = asked.way, asked.item
    if way not in WAYS:
        raise BadInput("not a way to get a box known here", read=way, allowed=", ".join(WAYS), field="way")
    shop = job.shop_for(shop)
    usual = shop.grade(job.board)
    chosen = job.box.item if job.box is not None and job.box.way == way and not item else None
    if chosen:
        with suppress(NoAnswer):
            return _best_board(way, job, usual, shop, chosen)
    return _best_board(way, job, usual, shop, item)


def _best_board(way: str, job: Job, usual: Grade, shop: Shop, item: str) -> Boxed:
    cut, by = _cut_out(way, job, usual, shop, item)
    if cut.too_large and job.board is None:
        others = (_cut_out(way, job, grade, shop, item) for grade in shop.grades.values() if grade != cut.made.grade)
        cut, by = next((one for one in others if not one[0].too_large), (cut, by))
    return priced_up(cut, by, job.value)


def boxes_at_hand(way: str, job: Job, shop: Shop, most: int | None = None) -> tuple[Boxed, ...]:
    """The load in every box of a way that is there, the smallest first; none for a way that is cut.

    Args:
        most: the first so many; all of them where nothing is said.

    Raises: as `box_for`.
    """
    if WAYS[way].NEEDS != "stock":
        return ()
    shop = job.shop_for(shop)
    school: School = job.school if job.school in WAYS[way].SCHOOLS else "exact"
    cuts = every_cut_out(job.load or job.must_load(), way, shop.grade(job.board), shop, school)
    return tuple(priced_up(cut, shop, job.value) for cut in islice(cuts, most))


def cut_from_sheet(boxed: Boxed, own: Grade) -> tuple[Grade, tuple[Blank, ...]]:
    """What is cut from sheet for a box and its inserts, and from which board.

    Args:
        own: the job's board, of which inserts are cut for a box that is there.
    """
    if not boxed.made.taken:
        return boxed.made.grade, boxed.blanks
    return own, tuple(blank for insert in boxed.inserts for blank in insert.blanks)


def _cut_out(way: str, job: Job, grade: Grade, shop: Shop, item: str) -> tuple[CutOut, Shop]:
    """The box on that board, and the shop by whose figures it is cut."""
    school: School = job.school if job.school in WAYS[way].SCHOOLS else "exact"
    if (kept := kept_for(way, job, grade)) is not None:
        grade, shop = as_then(kept, way, grade, shop)
    return cut_out(job.load or job.must_load(), way, grade, shop, school, item), shop


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
