"""A load in a box that is worked out, and not yet weighed or priced: where it lies, and what is cut for it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from fardo.core.arrange.ask import Arrangement, moved_in, raised, roomier
from fardo.core.board.grade import Grade, Sheet
from fardo.core.cut.drawing import Blank
from fardo.core.cut.hand_holes import hand_holes
from fardo.core.cut.nest import count_on_sheet
from fardo.core.goods.part import Sizes, sides_less
from fardo.core.make import WAYS, Contents, Made, School, boxes_for, opens_at_its_end
from fardo.core.make.inserts import cut_insert, divider, room_of
from fardo.core.make.inserts.wanted import Insert
from fardo.core.make.step import Step
from fardo.core.plan.cells import divider_of, in_cells, turned_about, with_cells
from fardo.core.plan.load import Load, arrange, liner_thickness
from fardo.core.plan.needed import contents_of, may_be_turned
from fardo.core.plan.shop import Shop
from fardo.core.plan.soft import kept_out
from fardo.core.quantity import ZERO, Length
from fardo.core.refusal import NoAnswer

_LONG = 2  # times as long as it is wide, what is slid into a tube: starting value


@dataclass(frozen=True, slots=True)
class OnSheet:
    """A blank on the sheet that suits it: how many that sheet gives, or None where no sheet in stock takes it."""

    blank: str
    sheet: Sheet | None
    count: int


@dataclass(frozen=True, slots=True)
class CutOut:
    """A load in a box that is worked out, and not yet weighed or priced.

    Args:
        arrangement: as it was arranged, with its liner and inserts.
        grade: of its board.
        cut_from: the board that inserts are cut from.
        on: every blank on the sheet that suits it, the box's, then the inserts'.
    """

    load: Load
    arrangement: Arrangement
    made: Made
    inserts: tuple[Insert, ...]
    grade: Grade
    cut_from: Grade
    on: tuple[tuple[Blank, OnSheet], ...]

    @property
    def too_large(self) -> bool:
        return any(one.sheet is None for _, one in self.on)


def cut_out(load: Load, way: str, grade: Grade, shop: Shop, school: School = "exact", item: str = "") -> CutOut:
    """Where the load lies, and what is cut for it. Raises as `box_up` does."""
    load = with_cells(load)
    arrangement, found = _boxes(load, way, grade, shop, school)
    made = found[0] if not item else next((one for one in found if one.item == item), None)
    if made is None:
        raise NoAnswer(f"{item} does not hold it, or is not there any more")
    return _cut_for(load, arrangement, made, grade, shop)


def every_cut_out(load: Load, way: str, grade: Grade, shop: Shop, school: School = "exact") -> Iterator[CutOut]:
    """The load in every box of that way that it goes into, the best first. Raises as `box_up` does."""
    load = with_cells(load)
    arrangement, found = _boxes(load, way, grade, shop, school)
    return (_cut_for(load, arrangement, made, grade, shop) for made in found)


def _boxes(load: Load, way: str, grade: Grade, shop: Shop, school: School) -> tuple[Arrangement, tuple[Made, ...]]:
    """How it lies in them, and every box of a way that it goes into."""
    if opens_at_its_end(way) and load.from_above:
        raise NoAnswer("it opens at its end, and these goods are packed from above")
    if opens_at_its_end(way) and not _is_long(arrange(load).inside):
        raise NoAnswer("it opens at its end, for what is long and slid in; these goods are not")
    arrangement = arrange(load) if divider_of(load) is None else in_cells(load, grade.caliper, shop.allowances)
    if load.liner:
        arrangement = moved_in(arrangement, liner_thickness(load))
    arrangement = _with_inserts(arrangement, load, grade.caliper)
    if WAYS[way].NEEDS == "stock":
        contents = _contents(load, arrangement, shop)
        return arrangement, boxes_for(way, contents, grade, shop.allowances, school, shop.stock)
    contents = Contents(sides_less(arrangement.inside, load.pressed), not may_be_turned(load))
    found = boxes_for(way, contents, grade, shop.allowances, school, shop.stock)
    return arrangement, tuple(_pressed_in(made, load.pressed) for made in found)


def _pressed_in(made: Made, by: Length) -> Made:
    """A box that was cut so much smaller than the goods, which are as large as they were."""
    if not by.nm:
        return made
    step = Step("Press the goods in: wrapped they are {} larger than the box each way, and the wrap gives.", (by,))
    a, b, c = (side + by for side in made.needed)
    return replace(made, needed=(a, b, c), pressed=by, steps=(*made.steps, step))


def _contents(load: Load, arrangement: Arrangement, shop: Shop) -> Contents:
    """As the ways that take what is there see it. How it would lie in a mailer, or in a maker's inserts, is worked out
    only where there is one that it may go in.
    """
    stock, out = shop.stock, kept_out(load, shop.soft)
    in_mailer = unwrapped = None
    if any(pouch.kind not in out for pouch in stock.pouches):
        in_mailer = arrange(load.without_gap).inside
    if any(box.hollow is not None for box in stock.boxes):
        unwrapped = arrange(load.unwrapped).inside
    contents = contents_of(load, arrangement.inside)
    return replace(
        contents, in_mailer=in_mailer, unwrapped=unwrapped, kept_out=out, over_box=load.over_box_thickness
    )  # fmt: skip


def _is_long(inside: Sizes) -> bool:
    _, second, longest = sorted(inside)
    return longest >= second * _LONG


def _cut_for(load: Load, arrangement: Arrangement, made: Made, grade: Grade, shop: Shop) -> CutOut:
    if made.soft or made.has_inserts:
        load = load.without_gap if made.soft else load.unwrapped
        load = replace(load, inserts=tuple(one for one in load.inserts if one is not divider_of(load)))
        arrangement = arrange(load)
    made = replace(made, minutes=_minutes(made, shop))
    if load.holes:
        made = _with_holes(made)
    cut_from = grade
    wanted = load.inserts
    if other_side_long(made, arrangement):
        wanted = tuple(turned_about(one) for one in wanted)
    inner, _, _ = within_inserts(load, made.inside, cut_from.caliper)
    inserts = tuple(
        cut_insert(one, inner if one.kind == divider.KIND else made.inside, cut_from.caliper, shop.allowances)
        for one in wanted
    )
    if WAYS[made.way].NEEDS == "stock":
        grade = made.grade
    on = [(blank, _on_sheet(blank, grade.sheets)) for blank in (() if made.taken else made.blanks)]
    on += [(blank, _on_sheet(blank, cut_from.sheets)) for insert in inserts for blank in insert.blanks]
    return CutOut(load, arrangement, made, inserts, grade, cut_from, tuple(on))


def other_side_long(made: Made, arrangement: Arrangement) -> bool:
    """Whether the box stands a quarter turned about its height from how the goods were laid."""
    length, width, _ = arrangement.inside
    return length != width and made.needed[:2] == (width, length)


def within_inserts(load: Load, inside: Sizes, t: Length) -> tuple[Sizes, Length, Length]:
    """What liners and pads of `t` thick board leave of the inside; what they take at each wall, and under the goods."""
    takes = [room_of(one, t) for one in load.inserts]
    below, above, around = (sum((one[k] for one in takes), start=ZERO) for k in range(3))
    liner = liner_thickness(load)
    around = around + liner
    length, width, height = inside
    return (length - around * 2, width - around * 2, height - below - above - liner * 2), around, below


def _minutes(made: Made, shop: Shop) -> Fraction:
    """To make it, as the shop found it takes; more boxes of one way take as much more as they start with."""
    starts: Fraction = WAYS[made.way].MINUTES
    found = dict(shop.making).get(made.way, starts)
    return made.minutes * found / starts if starts else found


def _with_inserts(arrangement: Arrangement, load: Load, t: Length) -> Arrangement:
    """With the room that pads and a liner of board take, `t` thick each."""
    for wanted in load.inserts:
        below, above, around = room_of(wanted, t)
        if around.nm:
            x, y, z = arrangement.inside
            arrangement = roomier(arrangement, (x + around * 2, y + around * 2, z))
        arrangement = raised(arrangement, below, above)
    return arrangement


def _with_holes(made: Made) -> Made:
    """With hand holes in the blanks that have the room."""
    cut = [hand_holes(blank) for blank in made.blanks]
    blanks = tuple(with_holes or blank for with_holes, blank in zip(cut, made.blanks, strict=True))
    if made.taken or not any(cut):
        return replace(
            made, notes=(*made.notes, "No hand holes: this box has no walls of its own that are large enough.")
        )
    return replace(made, blanks=blanks, notes=(*made.notes, "Hand holes weaken the two walls they are in."))


def _on_sheet(blank: Blank, sheets: tuple[Sheet, ...]) -> OnSheet:
    """The sheet that leaves least board over for each blank."""
    counts = [(count_on_sheet(blank.size, sheet, blank.flutes), sheet) for sheet in sheets]
    fitting = [(sheet.length.nm * sheet.width.nm / count, count, sheet) for count, sheet in counts if count]
    if not fitting:
        return OnSheet(blank.name, None, 0)
    _, count, sheet = min(fitting, key=lambda row: row[0])
    return OnSheet(blank.name, sheet, count)
