"""One load in one kind of box: where it lies, what is cut, what it weighs and what the box costs."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, fields, replace
from fractions import Fraction

from fardo.core.arrange.ask import Arrangement, all_turned, quarter_turned, roomier
from fardo.core.arrange.body import Body
from fardo.core.arrange.turn import TURNS, Rotation, turned_sizes
from fardo.core.board.grade import Grade
from fardo.core.board.strength import SOFT, Strength, enough, judge
from fardo.core.cut.drawing import Blank
from fardo.core.cut.fence import FenceSetting, fence_of
from fardo.core.fill.filling import NO_FILLING, Filling, fill_voids
from fardo.core.fill.voids import Block, Room, Void, voids_in, widest_between
from fardo.core.goods.part import Sizes
from fardo.core.goods.shape import Box
from fardo.core.make import WAYS, Made, School
from fardo.core.make.inserts.wanted import MINUTES_A_PIECE, Insert
from fardo.core.make.made import board_weight
from fardo.core.plan.cells import divider_of, in_cells
from fardo.core.plan.cut_out import CutOut, OnSheet, cut_out, other_side_long, within_inserts
from fardo.core.plan.load import Load, PlacedBody, ask_of, bodies_of, line_box, liner_thickness, placed
from fardo.core.plan.shop import Shop
from fardo.core.plan.tape import NO_TAPE, TapePlan, plan_tape
from fardo.core.plan.together import coats_together
from fardo.core.protect.coat import NONE, Coat, Wearer
from fardo.core.protect.forms import put_on
from fardo.core.protect.pile import lying
from fardo.core.quantity import ZERO, Length, Mass, Money, show_length, volume_nm3
from fardo.core.quantity.money import total
from fardo.core.why import Value, Why


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


_SIDES = (("left", "right"), ("front", "back"), ("below", "above"))


@dataclass(frozen=True, slots=True)
class Lies:
    """Where a bare part lies: a point p of it is at turn x p + at in the inside."""

    part: str
    number: int
    at: Sizes
    turn: Rotation


@dataclass(frozen=True, slots=True)
class Boxed:
    """A load in its box, with all that it weighs, costs and bears.

    Args:
        coats: every layer in it, the liner last.
        air: the share of the inside that is neither goods, extras, wrap nor inserts, 0 to 1.
        box, wrap, fill, tape, labour: what each costs.
        too_large: why it cannot be cut from the sheets in stock, or None.
        strength: of the closed box, and what speaks against it.
        inserts: of board, cut with it.
        suggested: the lightest board that is certified for it, where this one is not.
        filling: what goes into the room that is left.
        making: time to make it alone.
        insert_board: that inserts are cut from.
        taped: the strips of tape it takes.
    """

    load: Load
    arrangement: Arrangement
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
    filling: Filling = NO_FILLING
    insert_board: Grade | None = None
    taped: TapePlan = NO_TAPE

    @property
    def tape_length(self) -> Length:
        """Of all strips."""
        return self.taped.total

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
    def widest_between(self) -> Length:
        """Of the gaps between things, the widest."""
        return widest_between(ask_of(self.load), self.arrangement)

    @property
    def slack(self) -> tuple[tuple[str, Length], ...]:
        """Free at each of the six sides beyond the gaps that are kept."""
        there, inside = placed(self.load, self.arrangement), self.arrangement.inside
        found: list[tuple[str, Length]] = []
        for axis, (low, high) in enumerate(_SIDES):
            before = min(one.at[axis] - one.before[axis] for one in there)
            beyond = min(inside[axis] - one.at[axis] - one.sizes[axis] - one.beyond[axis] for one in there)
            found += [(low, max(before, ZERO)), (high, max(beyond, ZERO))]
        return tuple(found)

    @property
    def room_left(self) -> tuple[tuple[str, Length], ...]:
        """From the wrapped goods, not what goes with them, to each of the six sides of the box."""
        there = [one for one in placed(self.load, self.arrangement) if not one.body.extra]
        inside = self.arrangement.inside
        found: list[tuple[str, Length]] = []
        for axis, (low, high) in enumerate(_SIDES):
            found.append((low, min(one.at[axis] - one.body.around_bundle for one in there)))
            beyond = (inside[axis] - one.at[axis] - one.sizes[axis] - one.body.around_bundle for one in there)
            found.append((high, min(beyond)))
        return tuple(found)

    @property
    def extras_placed(self) -> tuple[tuple[Body, Sizes, Sizes], ...]:
        """Each extra with its lowest corner and its sizes as it lies."""
        every = placed(self.load, self.arrangement)
        return tuple((one.body, one.at, one.sizes) for one in every if one.body.extra)


def _turned_to(load: Load, arrangement: Arrangement, needed: Sizes) -> Arrangement:
    """The arrangement turned so that its inside is `needed`."""
    turn = next(turn for turn in TURNS if turned_sizes(arrangement.inside, turn) == needed)
    return all_turned(bodies_of(load), arrangement, turn)


def box_up(
    load: Load, way: str, grade: Grade, shop: Shop, school: School = "exact", value: Money | None = None, item: str = ""
) -> Boxed:  # fmt: skip
    """The load in a box of that way.

    Args:
        value: declared.
        item: which of several boxes there; the best where none is said.

    Raises: BadInput where the inside size is out of range; NoAnswer where there is no such box.
    """
    return priced_up(cut_out(load, way, grade, shop, school, item), shop, value)


def priced_up(cut: CutOut, shop: Shop, value: Money | None = None) -> Boxed:
    """What it weighs, costs and bears.

    Args:
        value: declared.
    """
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
        coats.append(line_box(load, load.liner, made))
    coats += [coat for _, coat in coats_together(load, arrangement, shop)]
    if load.over_box and made.closed_box is not None:
        coats.append(put_on(Wearer(Box(*made.closed_box), NONE, shop.bubbles), load.over_box))
    board_nm3 = sum(blank.area_nm2 * blank.count for blank in pieces) * cut.cut_from.caliper.nm
    void = max(volume_nm3(*made.inside) - load.volume_nm3 - sum(coat.room_nm3 for coat in coats) - board_nm3, 0)
    voids = _voids(load, arrangement, made, cut.cut_from.caliper, void)
    # Cut with its laps, wrap may come to more than the room it takes between the walls and the goods.
    void = max(void, sum(one.volume_nm3 for one in voids))
    fragilities = [unit.part.fragility for unit in load.units]
    filling = fill_voids(voids, load.fill, shop.fills, fragilities, load.open_parts)
    weights = Weights(
        goods=load.goods_weight,
        wrap=Mass(sum(coat.weight.ng for coat in coats)),
        extras=Mass(sum(extra.weight.ng for extra in load.extras)),
        board=made.weight + board_weight(pieces, cut.cut_from),
        fill=filling.weight,
        tape=Mass(0),
    )
    taped = plan_tape(made, load, weights.total, shop.dear(value))
    tape = taped.total.nm
    weights = replace(weights, tape=Mass(-(-tape * shop.tape.weight_per_m.ng // 10**9)))
    strength = SOFT if made.soft else judge(
        made.outside, weights.total, cut.grade, made.condition, shop.dear(value), shop.trust, made.worn
    )  # fmt: skip
    minutes = made.minutes + shop.packing_minutes(load.pack_minutes) + sum(shop.minutes_for(coat) for coat in coats)
    minutes += MINUTES_A_PIECE * sum(blank.count for blank in pieces)
    return Boxed(
        load, arrangement, made, tuple(coats), weights,
        air=Fraction(void, volume_nm3(*made.inside)),
        sheets=tuple(sheet for _, sheet in cut.on),
        box=_box_costs(made) + _board_costs(pieces, cut.cut_from),
        wrap=total([coat.price for coat in coats], shop.currency),
        fill=filling.price(shop.currency),
        tape=shop.tape.price_per_100_m.share(Fraction(tape, 10**11)),
        labour=shop.labour_per_hour.share(minutes / 60),
        making=shop.labour_per_hour.share(made.minutes / 60),
        minutes=minutes,
        too_large=_too_large(cut.on, made, shop),
        strength=strength,
        suggested=enough(made.outside, weights.total, list(shop.grades.values()))
        if strength.warnings and not made.taken else None,
        inserts=cut.inserts,
        filling=filling,
        insert_board=cut.cut_from,
        taped=taped,
    )  # fmt: skip


def _voids(load: Load, arrangement: Arrangement, made: Made, t: Length, void_nm3: int) -> tuple[Void, ...]:
    """The room that is left, place by place; a bag or a mailer closes on the goods and is not filled."""
    there = placed(load, arrangement)
    if made.soft:
        return ()
    if not there:
        return (Void("between", ZERO, void_nm3),) if void_nm3 else ()
    inner, around, below = within_inserts(load, made.inside, t)
    low = (around, around, liner_thickness(load) + below)
    high = (low[0] + inner[0], low[1] + inner[1], low[2] + inner[2])
    goods = [_around(one) for one in there if not one.body.extra] or [_around(one) for one in there]
    lows, highs = ([block[end] for block in goods] for end in range(2))
    a, b, c = (min(sides) for sides in zip(*lows, strict=True))
    d, e, f = (max(sides) for sides in zip(*highs, strict=True))
    extras = tuple(_around(one) for one in there if one.body.extra)
    return voids_in(Room((low, high), ((a, b, c), (d, e, f)), extras), void_nm3)


def _around(one: PlacedBody) -> Block:
    """The box around a thing where it lies, with what goes around all of its bundle."""
    by = one.body.around_bundle
    (x, y, z), (length, width, height) = one.at, one.sizes
    return (x - by, y - by, z - by), (x + length + by, y + width + by, z + height + by)


def _in_its_cells(load: Load, arrangement: Arrangement, made: Made, t: Length, shop: Shop) -> Arrangement:
    """Each thing in the middle of its cell, as the divider is cut for that box, within its liner and its pads."""
    inner, around, below = within_inserts(load, made.inside, t)
    if other_side_long(made, arrangement):
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


def _box_costs(made: Made) -> Money:
    """The boxes that are taken, or the board that is cut, its waste with it."""
    if made.taken:
        return total([one.price for one in made.taken], made.taken[0].price.currency)
    return _board_costs(made.blanks, made.grade)


def _board_costs(blanks: Iterable[Blank], grade: Grade) -> Money:
    return grade.price_of(sum(one.sheet_area_nm2 * one.count for one in blanks))


def _too_large(sheets: Sequence[tuple[Blank, OnSheet]], made: Made, shop: Shop) -> str | None:
    for blank, on in sheets:
        if on.sheet is None:
            run = "" if blank.flutes == "either way" else f" with its flutes {blank.flutes}"
            x, y = (show_length(side, shop.units, "up").text for side in blank.size)
            of = f"no sheet of {made.grade.code} board in stock is that large{run}"
            return f"the {blank.name} is cut from {x} x {y}; {of}"
    return None
