"""One load in one kind of box: where it lies, what is cut, what it weighs and what the box costs."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from fardo.core.arrange.beside import Arrangement, put_beside
from fardo.core.board.grade import Grade, Sheet
from fardo.core.cut.drawing import Blank
from fardo.core.cut.nest import count_on_sheet
from fardo.core.goods.part import Extra, Part, Sizes
from fardo.core.make import Made, School, make_box
from fardo.core.plan.shop import Shop
from fardo.core.protect.fill import fill_void
from fardo.core.protect.gap import with_gap
from fardo.core.quantity import Mass, Money, show_length, volume_nm3
from fardo.core.why import Why

_NM2_PER_M2 = 10**18

Turn = tuple[tuple[int, int, int], tuple[int, int, int], tuple[int, int, int]]


@dataclass(frozen=True, slots=True)
class Load:
    """What goes into one parcel."""

    part: Part
    extras: tuple[Extra, ...]

    @property
    def volume_nm3(self) -> int:
        return sum(volume_nm3(*sizes) for sizes in (self.part.sizes, *(extra.sizes for extra in self.extras)))


@dataclass(frozen=True, slots=True)
class Weights:
    """The estimate before anything is packed, part by part."""

    goods: Mass
    extras: Mass
    board: Mass
    fill: Mass
    tape: Mass

    @property
    def total(self) -> Mass:
        return self.goods + self.extras + self.board + self.fill + self.tape


@dataclass(frozen=True, slots=True)
class OnSheet:
    """A blank on the sheet that suits it: how many that sheet gives, or None where no sheet in stock takes it."""

    blank: str
    sheet: Sheet | None
    count: int


@dataclass(frozen=True, slots=True)
class Boxed:
    """
    Args:
        air: the share of the inside that is neither goods nor extras, 0 to 1. box, fill, tape, labour: what each costs.
        too_large: why it cannot be cut from the sheets in stock, or None.
    """

    load: Load
    arrangement: Arrangement
    made: Made
    weights: Weights
    air: Fraction
    sheets: tuple[OnSheet, ...]
    box: Money
    fill: Money
    tape: Money
    labour: Money
    minutes: Fraction
    too_large: str | None

    @property
    def part_placement(self) -> tuple[Sizes, Turn]:
        """Where the bare part lies: a point p of it, from its lowest corner, is at turn x p + at in the inside."""
        gap = self.load.part.gap
        if not self.arrangement.quarter_turned:
            return (gap, gap, gap), ((1, 0, 0), (0, 1, 0), (0, 0, 1))
        return (gap, self.arrangement.inside[1] - gap, gap), ((0, 1, 0), (-1, 0, 0), (0, 0, 1))


def inside_needed(load: Load) -> tuple[Arrangement, Why]:
    """The inside size that holds the part with its gap and every extra, and why it is so."""
    arrangement = put_beside(with_gap(load.part), load.extras)
    length, width, height = load.part.sizes
    values = [("length", length), ("width", width), ("height", height), ("gap on every side", load.part.gap)]
    values += [(f"{extra.name} {side}", size) for extra in load.extras
               for side, size in zip(("length", "width", "height"), extra.sizes, strict=True)]  # fmt: skip
    rule = "the gap is kept on all six sides; extras lie beside it, where the box grows least (common practice)"
    return arrangement, Why("contents + 2 x gap, then the extras", tuple(values), rule)


def box_up(load: Load, way: str, grade: Grade, shop: Shop, school: School = "exact") -> Boxed:
    """The load in a box of that way. Raises BadInput where the inside size is out of range."""
    arrangement, _ = inside_needed(load)
    made = make_box(way, arrangement.inside, grade, shop.allowances, school)
    if made.needed != arrangement.inside:
        arrangement = arrangement.quarter_turn()
    void = volume_nm3(*made.inside) - load.volume_nm3
    fill_weight, fill_cost = fill_void(max(void, 0), shop.fill)
    weights = Weights(
        goods=load.part.weight,
        extras=Mass(sum(extra.weight.ng for extra in load.extras)),
        board=_share_up(grade.weight_per_m2, sum(blank.area_nm2 for blank in made.blanks)),
        fill=fill_weight,
        tape=Mass(-(-made.tape.nm * shop.tape.weight_per_m.ng // 10**9)),
    )
    used = Fraction(sum(blank.sheet_area_nm2 for blank in made.blanks), _NM2_PER_M2)
    minutes = made.minutes + shop.pack_minutes
    sheets = tuple(_on_sheet(blank, grade.sheets) for blank in made.blanks)
    return Boxed(
        load, arrangement, made, weights,
        air=Fraction(max(void, 0), volume_nm3(*made.inside)),
        sheets=sheets,
        box=grade.price_per_m2.share(used),
        fill=fill_cost,
        tape=shop.tape.price_per_100_m.share(Fraction(made.tape.nm, 10**11)),
        labour=shop.labour_per_hour.share(minutes / 60),
        minutes=minutes,
        too_large=_too_large(sheets, made, shop),
    )  # fmt: skip


def _share_up(per_m2: Mass, nm2: int) -> Mass:
    return Mass(-(-per_m2.ng * nm2 // _NM2_PER_M2))


def _on_sheet(blank: Blank, sheets: tuple[Sheet, ...]) -> OnSheet:
    """The sheet that leaves least board over for each blank."""
    counts = [(count_on_sheet(blank.size, sheet), sheet) for sheet in sheets]
    fitting = [(sheet.length.nm * sheet.width.nm / count, count, sheet) for count, sheet in counts if count]
    if not fitting:
        return OnSheet(blank.name, None, 0)
    _, count, sheet = min(fitting, key=lambda row: row[0])
    return OnSheet(blank.name, sheet, count)


def _too_large(sheets: tuple[OnSheet, ...], made: Made, shop: Shop) -> str | None:
    for on, blank in zip(sheets, made.blanks, strict=True):
        if on.sheet is None:
            x, y = (show_length(side, shop.units, "up").text for side in blank.size)
            return f"the {blank.name} is cut from {x} x {y}; no sheet of {made.grade.code} board in stock is that large"
    return None
