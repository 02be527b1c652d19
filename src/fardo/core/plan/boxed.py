"""One load in one kind of box: where it lies, what is cut, what it weighs and what the box costs."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass, fields, replace
from fractions import Fraction

from fardo.core.arrange.ask import Answer, all_turned, moved_in, quarter_turned, raised, roomier
from fardo.core.arrange.body import Body
from fardo.core.arrange.turn import TURNS, Matrix, turned_sizes
from fardo.core.board.grade import Grade, Sheet
from fardo.core.board.strength import SOFT, Strength, enough, judge
from fardo.core.cut.drawing import Blank
from fardo.core.cut.fence import FenceSetting, fence_of
from fardo.core.cut.hand_holes import hand_holes
from fardo.core.cut.nest import count_on_sheet
from fardo.core.goods.part import Sizes
from fardo.core.goods.shape import Box
from fardo.core.make import WAYS, Contents, Made, School, boxes_for, opens_at_its_end
from fardo.core.make.inserts import cut_insert, divider, room_of
from fardo.core.make.inserts.wanted import MINUTES_A_PIECE, Insert
from fardo.core.make.made import board_weight
from fardo.core.plan.cells import divider_of, in_cells, turned_about, with_cells
from fardo.core.plan.load import Load, arrange, bodies_of, liner_thickness, placed
from fardo.core.plan.shop import Shop
from fardo.core.plan.soft import kept_out
from fardo.core.plan.together import coats_together
from fardo.core.protect.coat import NONE, Coat, Wearer
from fardo.core.protect.fill import fill_void
from fardo.core.protect.forms import put_on
from fardo.core.protect.liner import line_walls
from fardo.core.protect.pile import lying
from fardo.core.quantity import ZERO, Length, Mass, Money, show_length, volume_nm3
from fardo.core.quantity.money import total
from fardo.core.refusal import NoAnswer
from fardo.core.why import Value, Why

_LONG = 2  # times as long as it is wide, what is slid into a tube: starting value


@dataclass(frozen=True, slots=True)
class Weights:
    """The estimate before anything is packed, part by part."""

    goods: Mass
    wrap: Mass
    extras: Mass
    board: Mass
    fill: Mass
    tape: Mass

    @property
    def total(self) -> Mass:
        return self.goods + self.wrap + self.extras + self.board + self.fill + self.tape

    @property
    def why(self) -> Why:
        """Of the total: what of it there is."""
        values: list[tuple[str, Value]] = [
            (field.name, weight) for field in fields(self) if (weight := getattr(self, field.name)).ng
        ]
        formula = " + ".join(field.name for field in fields(self))
        return Why(formula, tuple(values), "estimated before packing; weigh it when it is closed")


@dataclass(frozen=True, slots=True)
class OnSheet:
    """A blank on the sheet that suits it: how many that sheet gives, or None where no sheet in stock takes it."""

    blank: str
    sheet: Sheet | None
    count: int


@dataclass(frozen=True, slots=True)
class Lies:
    """Where a bare part lies: a point p of it is at turn x p + at in the inside."""

    part: str
    number: int
    at: Sizes
    turn: Matrix


@dataclass(frozen=True, slots=True)
class Boxed:
    """
    Args:
        coats: every layer in it, the liner last. air: the share of the inside that is neither goods, extras, wrap nor
        inserts, 0 to 1.
        box, wrap, fill, tape, labour: what each costs. too_large: why it cannot be cut from the sheets in stock, or
        None. strength: of the closed box, and what speaks against it. inserts: of board, cut with it.
        suggested: the lightest board that is certified for it, where this one is not. making: time to make it alone.
    """

    load: Load
    arrangement: Answer
    made: Made
    coats: tuple[Coat, ...]
    weights: Weights
    air: Fraction
    sheets: tuple[OnSheet, ...]
    box: Money
    wrap: Money
    fill: Money
    tape: Money
    labour: Money
    making: Money
    minutes: Fraction
    too_large: str | None
    strength: Strength
    inserts: tuple[Insert, ...] = ()
    suggested: Grade | None = None

    @property
    def own(self) -> Money:
        """What the box itself costs: board or bought, tape, and the time to make it."""
        return self.box + self.tape + self.making

    @property
    def blanks(self) -> tuple[Blank, ...]:
        """Everything that is cut: the box's, then the inserts'."""
        return (*self.made.blanks, *(blank for insert in self.inserts for blank in insert.blanks))

    @property
    def fence(self) -> tuple[FenceSetting, ...]:
        """To cut all of it, in order."""
        return (
            *self.made.fence,
            *(one for insert in self.inserts for blank in insert.blanks for one in fence_of(blank)),
        )

    @property
    def placements(self) -> tuple[Lies, ...]:
        """Where each bare part lies, in the order of the load; those of a pile one on the other."""
        numbers: dict[str, int] = {}
        return tuple(self._lie(numbers))

    def _lie(self, numbers: dict[str, int]) -> Iterator[Lies]:
        for one in placed(self.load, self.arrangement):
            if one.body.extra:
                continue
            unit, turn = self.load.units[one.number], one.laid.turn
            for spot in lying(unit.part.shape, unit.pile):
                name = unit.part.name
                numbers[name] = numbers.get(name, 0) + 1
                x, y, z = (
                    origin + Length(round(sum(row[k] * spot[k].nm for k in range(3))))
                    for origin, row in zip(one.origin, turn, strict=True)
                )
                yield Lies(name, numbers[name], (x, y, z), turn)

    @property
    def room_left(self) -> tuple[tuple[str, Length], ...]:
        """From the wrapped goods to each of the six sides of the box."""
        there, inside = placed(self.load, self.arrangement), self.arrangement.inside
        found: list[tuple[str, Length]] = []
        for axis, (low, high) in enumerate((("left", "right"), ("front", "back"), ("below", "above"))):
            found.append((low, min(one.at[axis] - one.body.around_bundle for one in there)))
            beyond = (inside[axis] - one.at[axis] - one.sizes[axis] - one.body.around_bundle for one in there)
            found.append((high, min(beyond)))
        return tuple(found)

    @property
    def extras_placed(self) -> tuple[tuple[Body, Sizes, Sizes], ...]:
        """Each extra with its lowest corner and its sizes as it lies."""
        every = placed(self.load, self.arrangement)
        return tuple((one.body, one.at, one.sizes) for one in every if one.body.extra)


def inside_of(load: Load, grade: Grade, shop: Shop) -> tuple[Answer, Why]:
    """The inside size that is asked for: the cells of a divider, where one is wanted, of that board."""
    with suppress(NoAnswer):
        counted = with_cells(load)
        if (wanted := divider_of(counted)) is not None:
            answer = in_cells(counted, grade.caliper, shop.allowances)
            told = (("cells", f"{wanted.along} x {wanted.across}"), ("strips of the divider", grade.caliper))
            why = Why(
                "cells + strips between them + slip; height + its gap", told, "a cell is as large as what is in it"
            )
            return moved_in(answer, liner_thickness(load)), why
    return inside_needed(load)


def inside_needed(load: Load) -> tuple[Answer, Why]:
    """The inside size that holds every part with its gap, every extra and the liner, and why it is so."""
    values: list[tuple[str, Value]] = []
    if len(load.units) == 1:
        unit = load.units[0]
        values += zip(("length", "width", "height"), unit.sizes, strict=True)
        values += [(name, side) for name, side in unit.part.gap.said]
    else:
        values += [(f"{unit.part.name}, wrapped, with its gap", unit.with_gap) for unit in load.units]
    values += [(f"{extra.name}", extra.sizes) for extra in load.extras if not extra.lies_flat]
    thick = liner_thickness(load)
    if thick.nm:
        values.append(("liner on every wall", thick))
    rule = "the gap is kept all round; the rest lies beside it, where the box grows least; slips and cards lie on top"
    if load.packed:
        formula = "parts in their own shapes, as they are arranged, gaps kept"
    else:
        several = len(load.units) > 1
        formula = "parts side by side, gaps between kept" if several else "contents + 2 x gap, then the extras"
    return moved_in(arrange(load), thick), Why(formula, tuple(values), rule)


def may_be_turned(load: Load) -> bool:
    """Whether all of it may be laid on another side: one thing that need not stay as it stands, beside its extras."""
    rules = [unit.part.rules for unit in load.units]
    return len(rules) == 1 and not rules[0].this_side_up and not rules[0].keep_flat and load.packed is None


def _turned_to(load: Load, arrangement: Answer, needed: Sizes) -> Answer:
    """The arrangement turned so that its inside is `needed`."""
    turn = next(turn for turn in TURNS if turned_sizes(arrangement.inside, turn) == needed)
    return all_turned(bodies_of(load), arrangement, turn)


@dataclass(frozen=True, slots=True)
class CutOut:
    """A load in a box that is worked out, and not yet weighed or priced.

    Args:
        arrangement: as it was arranged, with its liner and inserts. grade: of its board. cut_from: the board that
        inserts are cut from. on: every blank on the sheet that suits it,
        the box's, then the inserts'.
    """

    load: Load
    arrangement: Answer
    made: Made
    inserts: tuple[Insert, ...]
    grade: Grade
    cut_from: Grade
    on: tuple[tuple[Blank, OnSheet], ...]

    @property
    def too_large(self) -> bool:
        return any(one.sheet is None for _, one in self.on)


def box_up(
    load: Load, way: str, grade: Grade, shop: Shop, school: School = "exact", value: Money | None = None, item: str = ""
) -> Boxed:  # fmt: skip
    """The load in a box of that way.

    Args:
        value: declared. item: which of several boxes there; the best where none is said.

    Raises: BadInput where the inside size is out of range; NoAnswer where there is no such box.
    """
    return priced_up(cut_out(load, way, grade, shop, school, item), shop, value)


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


def _boxes(load: Load, way: str, grade: Grade, shop: Shop, school: School) -> tuple[Answer, tuple[Made, ...]]:
    """How it lies in them, and every box of a way that it goes into."""
    if opens_at_its_end(way) and load.from_above:
        raise NoAnswer("it opens at its end, and these goods are packed from above")
    if opens_at_its_end(way) and not _is_long(arrange(load).inside):
        raise NoAnswer("it opens at its end, for what is long and slid in; these goods are not")
    arrangement = arrange(load) if divider_of(load) is None else in_cells(load, grade.caliper, shop.allowances)
    if load.liner:
        arrangement = moved_in(arrangement, liner_thickness(load))
    arrangement = _with_inserts(arrangement, load, grade.caliper)
    contents = Contents(arrangement.inside, not may_be_turned(load))
    if WAYS[way].NEEDS == "stock":
        contents = _contents(load, arrangement, shop)
    return arrangement, boxes_for(way, contents, grade, shop.allowances, school, shop.stock)


def _contents(load: Load, arrangement: Answer, shop: Shop) -> Contents:
    """As the ways that take what is there see it. How it would lie in a mailer, or in a maker's inserts, is worked out
    only where there is one that it may go in."""
    stock, out = shop.stock, kept_out(load, shop.soft)
    in_mailer = unwrapped = None
    if any(pouch.kind not in out for pouch in stock.pouches):
        in_mailer = arrange(load.without_gap).inside
    if any(box.hollow is not None for box in stock.boxes):
        unwrapped = arrange(load.unwrapped).inside
    return Contents(
        arrangement.inside, not may_be_turned(load), load.gives, load.floats, not load.floats or load.flat, in_mailer,
        unwrapped, out, load.over_box_thickness,
    )  # fmt: skip


def _is_long(inside: Sizes) -> bool:
    _, second, longest = sorted(inside)
    return longest >= second * _LONG


def _cut_for(load: Load, arrangement: Answer, made: Made, grade: Grade, shop: Shop) -> CutOut:
    if made.soft or made.has_inserts:
        load = load.without_gap if made.soft else load.unwrapped
        load = replace(load, inserts=tuple(one for one in load.inserts if one is not divider_of(load)))
        arrangement = arrange(load)
    made = replace(made, minutes=_minutes(made, shop))
    if load.holes:
        made = _with_holes(made)
    cut_from = grade
    wanted = load.inserts
    if _other_side_long(made, arrangement):
        wanted = tuple(turned_about(one) for one in wanted)
    inner, _, _ = _within(load, made.inside, cut_from.caliper)
    inserts = tuple(
        cut_insert(one, inner if one.kind == divider.KIND else made.inside, cut_from.caliper, shop.allowances)
        for one in wanted
    )
    if WAYS[made.way].NEEDS == "stock":
        grade = made.grade
    on = [(blank, _on_sheet(blank, grade.sheets)) for blank in (() if made.taken else made.blanks)]
    on += [(blank, _on_sheet(blank, cut_from.sheets)) for insert in inserts for blank in insert.blanks]
    return CutOut(load, arrangement, made, inserts, grade, cut_from, tuple(on))


def priced_up(cut: CutOut, shop: Shop, value: Money | None = None) -> Boxed:
    """What it weighs, costs and bears. Args: value: declared."""
    load, made, arrangement = cut.load, cut.made, cut.arrangement
    if divider_of(load) is not None:
        arrangement = _in_its_cells(load, arrangement, made, cut.cut_from.caliper, shop)
    else:
        if made.needed != arrangement.inside:
            arrangement = _turned_to(load, arrangement, made.needed)
        if WAYS[made.way].NEEDS == "stock":
            arrangement = roomier(arrangement, made.inside, load.floats)
    pieces = [blank for insert in cut.inserts for blank in insert.blanks]
    coats = [coat for unit in load.units for coat in unit.coats]
    if load.liner:
        coats.append(line_walls(arrange(load).inside, load.liner))
    coats += [coat for _, coat in coats_together(load, arrangement, shop.bubbles)]
    if load.over_box and made.closed_box is not None:
        coats.append(put_on(Wearer(Box(*made.closed_box), NONE, shop.bubbles), load.over_box))
    board_nm3 = sum(blank.area_nm2 * blank.count for blank in pieces) * cut.cut_from.caliper.nm
    void = max(volume_nm3(*made.inside) - load.volume_nm3 - sum(coat.room_nm3 for coat in coats) - board_nm3, 0)
    fill_weight, fill_cost = fill_void(void, shop.fill)
    weights = Weights(
        goods=load.goods_weight,
        wrap=Mass(sum(coat.weight.ng for coat in coats)),
        extras=Mass(sum(extra.weight.ng for extra in load.extras)),
        board=made.weight + board_weight(pieces, cut.cut_from),
        fill=fill_weight,
        tape=Mass(-(-made.tape.nm * shop.tape.weight_per_m.ng // 10**9)),
    )
    strength = SOFT if made.soft else judge(
        made.outside, weights.total, cut.grade, made.condition, shop.dear(value), shop.trust, made.worn
    )  # fmt: skip
    minutes = made.minutes + shop.pack_minutes + sum(shop.minutes_for(coat) for coat in coats)
    minutes += MINUTES_A_PIECE * sum(blank.count for blank in pieces)
    return Boxed(
        load, arrangement, made, tuple(coats), weights,
        air=Fraction(void, volume_nm3(*made.inside)),
        sheets=tuple(sheet for _, sheet in cut.on),
        box=_box_costs(made) + _board_costs(pieces, cut.cut_from),
        wrap=total([coat.price for coat in coats], shop.currency),
        fill=fill_cost,
        tape=shop.tape.price_per_100_m.share(Fraction(made.tape.nm, 10**11)),
        labour=shop.labour_per_hour.share(minutes / 60),
        making=shop.labour_per_hour.share(made.minutes / 60),
        minutes=minutes,
        too_large=_too_large(cut.on, made, shop),
        strength=strength,
        suggested=enough(made.outside, weights.total, list(shop.grades.values()))
        if strength.warnings and not made.taken else None,
        inserts=cut.inserts,
    )  # fmt: skip


def _other_side_long(made: Made, arrangement: Answer) -> bool:
    """Whether the box stands a quarter turned about its height from how the goods were laid."""
    length, width, _ = arrangement.inside
    return length != width and made.needed[:2] == (width, length)


def _in_its_cells(load: Load, arrangement: Answer, made: Made, t: Length, shop: Shop) -> Answer:
    """Each thing in the middle of its cell, as the divider is cut for that box, within its liner and its pads."""
    inner, around, below = _within(load, made.inside, t)
    if _other_side_long(made, arrangement):
        length, width, height = inner
        answer = quarter_turned(bodies_of(load), in_cells(load, t, shop.allowances, (width, length, height)))
    else:
        answer = in_cells(load, t, shop.allowances, inner)
    liner = liner_thickness(load)
    laid = tuple(
        None if one is None else replace(one, at=(one.at[0] + around, one.at[1] + around, one.at[2] + liner + below))
        for one in answer.laid
    )
    return replace(answer, inside=made.inside, laid=laid)


def _within(load: Load, inside: Sizes, t: Length) -> tuple[Sizes, Length, Length]:
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


def _box_costs(made: Made) -> Money:
    """The boxes that are taken, or the board that is cut, its waste with it."""
    if made.taken:
        return total([one.price for one in made.taken], made.taken[0].price.currency)
    return _board_costs(made.blanks, made.grade)


def _board_costs(blanks: Iterable[Blank], grade: Grade) -> Money:
    return grade.price_of(sum(one.sheet_area_nm2 * one.count for one in blanks))


def _with_inserts(arrangement: Answer, load: Load, t: Length) -> Answer:
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


def _too_large(sheets: Sequence[tuple[Blank, OnSheet]], made: Made, shop: Shop) -> str | None:
    for blank, on in sheets:
        if on.sheet is None:
            run = "" if blank.flutes == "either way" else f" with its flutes {blank.flutes}"
            x, y = (show_length(side, shop.units, "up").text for side in blank.size)
            of = f"no sheet of {made.grade.code} board in stock is that large{run}"
            return f"the {blank.name} is cut from {x} x {y}; {of}"
    return None
