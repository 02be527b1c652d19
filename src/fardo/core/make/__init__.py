"""Ways to get a box, one module each. A new way is a new module here and a line in the register."""

from __future__ import annotations

from dataclasses import replace
from types import ModuleType
from typing import Literal

from fardo.core.board.grade import Grade
from fardo.core.goods.part import Sizes
from fardo.core.make import (
    bagged,
    boxed_twice,
    carrier_container,
    design,
    end_to_end,
    five_panel,
    folder,
    half_slotted,
    halves,
    mailer,
    overlap,
    part_lid,
    recut,
    shelf,
    slotted,
    stack,
    stash,
    tray,
    triangle,
    tube,
)
from fardo.core.make.allowances import Allowances
from fardo.core.make.contents import Contents
from fardo.core.make.made import Made, School
from fardo.core.make.stock import NOTHING_THERE, Stock
from fardo.core.refusal import BadInput

__all__ = [
    "WAYS",
    "Allowances",
    "Contents",
    "Made",
    "School",
    "Stock",
    "boxes_for",
    "make_box",
    "opens_at_its_end",
    "short_title",
]

WAYS: dict[str, ModuleType] = {
    module.NAME: module
    for module in (
        tray, part_lid, slotted, overlap, half_slotted, halves, five_panel, tube, triangle, folder, boxed_twice, design,
        shelf, stash, recut, stack, end_to_end, bagged, mailer, carrier_container,
    )
}  # fmt: skip


def make_box(
    way: str,
    inside: Sizes,
    grade: Grade,
    allowances: Allowances,
    school: School = "exact",
    stock: Stock = NOTHING_THERE,
    upright: bool = True,
) -> Made:
    """The box that `way` makes for an inside size, the best where several are there.

    Args:
        stock: what is there, for the ways that need it.
        upright: whether the height must stay the height.

    Raises: BadInput for a way or school there is not; NoAnswer where no box in stock will do.
    """
    return boxes_for(way, Contents(inside, upright), grade, allowances, school, stock)[0]


def boxes_for(
    way: str,
    contents: Contents,
    grade: Grade,
    allowances: Allowances,
    school: School = "exact",
    stock: Stock = NOTHING_THERE,
) -> tuple[Made, ...]:
    """Every box of a way that the contents go into, the best first; one where it is cut. Raises as `make_box` does."""
    if way not in WAYS:
        raise BadInput("not a way to get a box known here", read=way, allowed=", ".join(WAYS), field="way")
    schools = WAYS[way].SCHOOLS
    if school not in schools:
        raise BadInput("not a school of this way", read=school, allowed=", ".join(schools), field="school")
    if WAYS[way].NEEDS == "stock":
        taken: tuple[Made, ...] = WAYS[way].take(contents, stock, allowances)
        return taken
    return (_corrected(way, contents.inside, grade, allowances, school),)


def opens_at_its_end(way: str) -> bool:
    """Whether goods are slid into it, and not let down from above."""
    return getattr(WAYS[way], "OPENS", "top") == "end"


def flaps_of(way: str) -> Literal["both", "bottom", ""]:
    """Whether it closes with flaps at top and bottom, at the bottom only, or by a lid, covers or a fold."""
    return getattr(WAYS[way], "FLAPS", "")


def called(made: Made) -> str:
    """A box by its way, and which of those there it is."""
    title: str = WAYS[made.way].TITLE
    return f"{title}: {made.item}" if made.item else title


def short_title(way: str) -> str:
    """Its title where it is plain that it is cut.

    >>> short_title("tray"), short_title("shelf")
    ('Lid and tray', 'Stock box')
    """
    title: str = WAYS[way].TITLE
    return title.removesuffix(", cut from sheet")


def _corrected(way: str, inside: Sizes, grade: Grade, allowances: Allowances, school: School) -> Made:
    """Cut as much larger as the shop found that such boxes come out smaller; never by rule of thumb."""
    trim = grade.trim(way)
    if school == "thumb" or not any(trim):
        made: Made = WAYS[way].make(inside, grade, allowances, school)
        return made
    if inside[0] < inside[1]:
        trim = (trim[1], trim[0], trim[2])
    asked = _by(inside, trim, 1)
    made = WAYS[way].make(asked, grade, allowances, school)
    if made.needed != asked:  # it was turned to have its longer side first
        trim = (trim[1], trim[0], trim[2])
    whys = {
        name: replace(why, values=(*why.values, ("comes out smaller by (measured)", trim)))
        for name, why in made.whys.items()
    }
    return replace(
        made, needed=_by(made.needed, trim, -1), inside=_by(made.inside, trim, -1),
        outside=_by(made.outside, trim, -1), whys=whys,
    )  # fmt: skip


def _by(sizes: Sizes, trim: Sizes, sign: int) -> Sizes:
    a, b, c = (side + off * sign for side, off in zip(sizes, trim, strict=True))
    return a, b, c
