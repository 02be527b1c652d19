"""A part as it is packed: piled where it is a flat thing of many, with its layers on, its size grown by each of them.

Wrapped sizes are the bare sizes plus the growth of every layer on each side, so the bare part lies in the middle.
"""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, replace
from fractions import Fraction

from fardo.core.goods.part import Part, Sizes
from fardo.core.goods.shape import Box, Shape
from fardo.core.hashed import HashedOnce
from fardo.core.make import Contents, Made, make_box
from fardo.core.make.allowances import SEAMS
from fardo.core.make.contents import by_axes
from fardo.core.make.mailer import most_that_close, must_close
from fardo.core.make.stock import Pouch, StockBox, fits, nearest
from fardo.core.plan.shop import Shop
from fardo.core.protect.coat import NONE, Coat, Cut, Layer, Wearer, all_round, along, grown, in_stock, square_metres
from fardo.core.protect.forms import BAGGED, BOXED, PADDED, check_crossed, put_on
from fardo.core.protect.forms.corner import CornerGuard, guard_for
from fardo.core.protect.forms.one_side import AXES
from fardo.core.protect.material import Material
from fardo.core.protect.pile import divide, how_to_pile, piles_needed, stacked
from fardo.core.quantity import ZERO, Length, Mass, Money, Units
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.why import Value, Why

FLOATS = "The inner box floats: the room around it in the outer one is filled on all six sides."


@dataclass(frozen=True, slots=True)
class Wrapped(HashedOnce):
    """One thing to pack, or one pile.

    Args:
        pile: how many of the part lie in it.
        shape: bare, the whole pile.
        coats: from the goods outward.
        grown: on each side, along length, width and height.
        guards: the corner guards among the coats.
    """

    part: Part
    pile: int
    shape: Shape
    coats: tuple[Coat, ...]
    grown: Sizes
    guards: tuple[CornerGuard, ...] = ()
    __hash__ = HashedOnce.__hash__

    @property
    def sizes(self) -> Sizes:
        length, width, height = (side + by * 2 for side, by in zip(self.shape.sizes, self.grown, strict=True))
        return length, width, height

    @property
    def with_gap(self) -> Sizes:
        """The inside of a box for that alone, as it was measured."""
        low, high = self.part.gap.at_walls((0, 1, 2), self.shape.thin)
        length, width, height = (side + a + b for side, a, b in zip(self.sizes, low, high, strict=True))
        return length, width, height

    @property
    def goods_weight(self) -> Mass:
        return Mass(self.part.weight.ng * self.pile)

    @property
    def wrap_weight(self) -> Mass:
        return Mass(sum(coat.weight.ng for coat in self.coats))

    @property
    def weight(self) -> Mass:
        return self.goods_weight + self.wrap_weight

    @property
    def says(self) -> tuple[str, ...]:
        """How it is piled, then how each layer goes on."""
        return (*how_to_pile(self.pile), *(sentence for coat in self.coats for sentence in coat.says))

    def why(self, units: Units) -> Why:
        """Of its wrapped size."""
        values: list[tuple[str, Value]] = [("bare" if self.pile == 1 else f"pile of {self.pile}", self.shape.sizes)]
        values += [(coat.material.name, coat.grows(units) or "nothing") for coat in self.coats]
        rule = "growth per side is layers x thickness (common practice)"
        return Why("bare + 2 x what each layer adds", tuple(values), rule)

    @property
    def has_own_box(self) -> bool:
        """Whether a box is cut for it."""
        return any(_is_cut_for_it(coat) for coat in self.coats)

    @property
    def gives(self) -> Length:
        """By how much it is pressed in along any of its ways; what is inside a box of its own gives nothing."""
        boxed = max((n + 1 for n, coat in enumerate(self.coats) if coat.material.form == BOXED), default=0)
        sides = [[coat.gives.nm for coat in self.coats[boxed:] if coat.growth[axis].nm] for axis in range(3)]
        return Length(min(sum(of_one) for of_one in sides) * 2)

    @property
    def cushion(self) -> Length:
        """What gives way on its thinnest side: the gap, the layers that cushion, and the room in a box of its own."""
        return self.part.gap.least + self.wrap_cushion

    @property
    def wrap_cushion(self) -> Length:
        """The same without its gap."""
        soft = [coat.growth for coat in self.coats if coat.material.cushions and not coat.one_side]
        filled = sum((coat.filled for coat in self.coats), start=ZERO)
        return filled + min(Length(sum(by[axis].nm for by in soft)) for axis in range(3))


def wrap_up(part: Part, layers: tuple[Layer, ...], shop: Shop, pile: int = 1) -> Wrapped:
    """A part, or a pile of it, with its layers put on in their order.

    Raises: BadInput where a layer does not suit the shape, or a pile is asked of what is not flat.
    """
    shape, coats = part.shape, list[Coat]()
    if pile > 1:
        shape, coats = _sleeved(shape, layers, shop, pile)
        shape = stacked(shape, pile)
    wearer = Wearer(shape, NONE, shop.bubbles, pile, shop.allowances.mark_step)
    growth = NONE
    guards: list[CornerGuard] = []
    for n, layer in enumerate(layers):
        if layer.each and pile > 1:
            continue
        try:
            if layer.material.form == "corner":
                guards.append(guard_for(wearer, layer))
            coat = coat_of(wearer, layer, shop)
        except BadInput as problem:
            raise problem.under(f"protect[{n}]") from problem
        coats.append(coat)
        growth = grown(growth, coat.growth)
        if layer.material.form == BOXED:  # what goes on after it goes around a box
            length, width, height = (side + by * 2 for side, by in zip(shape.sizes, growth, strict=True))
            wearer = Wearer(Box(length, width, height), NONE, shop.bubbles, step=shop.allowances.mark_step)
        else:
            wearer = replace(wearer, grown=grown(wearer.grown, coat.growth))
    return Wrapped(part, pile, shape, tuple(coats), growth, tuple(guards))


def _sleeved(shape: Shape, layers: tuple[Layer, ...], shop: Shop, pile: int) -> tuple[Shape, list[Coat]]:
    """One of a pile with what goes on each before they are piled, and those layers on all of them."""
    coats: list[Coat] = []
    for n, layer in enumerate(layers):
        if not layer.each:
            continue
        try:
            coat = coat_of(Wearer(shape, NONE, shop.bubbles, step=shop.allowances.mark_step), layer, shop)
        except BadInput as problem:
            raise problem.under(f"protect[{n}]") from problem
        coats.append(coat.times(pile))
        if any(by.nm for by in coat.growth):
            length, width, height = (side + by * 2 for side, by in zip(shape.sizes, coat.growth, strict=True))
            shape = Box(length, width, height)
    return shape, coats


def coat_of(wearer: Wearer, layer: Layer, shop: Shop) -> Coat:
    """One layer on what wears it; it may be a box or a mailer in stock. Raises BadInput where it does not suit."""
    check_crossed(layer)
    if isinstance(layer.item, Pouch):
        return _in_mailer(wearer, layer, layer.item, shop) if layer.material.form == BAGGED else _as_pads(layer)
    if isinstance(layer.item, StockBox):
        return _in_stock_box(wearer, layer, layer.item)
    if layer.material.form == BOXED:
        return _box_in(wearer, layer, shop)
    return put_on(wearer, layer)


def in_front_and_behind(unit: Wrapped, by: Part, shop: Shop) -> Wrapped:
    """A thing with flat goods in front of it and behind it as its cushion, half of them on each side.

    Raises: BadInput where those are not flat.
    """
    pile = stacked(by.shape, by.count)
    thin, own = pile.thin, unit.shape.thin
    across = sorted((k for k in range(3) if k != own), key=lambda k: unit.sizes[k].nm)
    sides = sorted(pile.sizes[k] for k in range(3) if k != thin)
    growth = [ZERO, ZERO, ZERO]
    growth[own] = pile.sizes[thin].half()
    for axis, side in zip(across, sides, strict=True):
        growth[axis] = Length(max(side.nm - unit.sizes[axis].nm, 0)).half()
    goods = Material(
        f"goods: {by.name}", by.name, PADDED, by.shape.sizes[by.shape.thin], "each", by.weight, Money(0, shop.currency),
        cushions=True,
    )  # fmt: skip
    half = by.count // 2
    says = (f"{by.name}: {by.count - half} in front of it, {half} behind it.",)
    by_goods: Sizes = (growth[0], growth[1], growth[2])
    coat = Coat(goods, by_goods, (), Fraction(by.count), says, puts=0)
    return replace(unit, coats=(*unit.coats, coat), grown=grown(unit.grown, by_goods))


def units_of(
    part: Part, layers: tuple[Layer, ...], shop: Shop, piles: int | None = None, sleeve_holds: int | None = None
) -> tuple[Wrapped, ...]:
    """Everything to pack of a part: each one by itself, or in so many piles as even as can be.

    Args:
        sleeve_holds: at most so many go into a pile, which may make more piles.
    """
    if sleeve_holds is not None:
        piles = max(piles or 1, piles_needed(part.count, sleeve_holds))
    counts = (1,) * part.count if piles is None else divide(part.count, piles)
    made = {pile: wrap_up(part, layers, shop, pile) for pile in set(counts)}
    units = tuple(made[pile] for pile in counts)
    _check_stock(units, layers)
    return units


def _check_stock(units: tuple[Wrapped, ...], layers: tuple[Layer, ...]) -> None:
    """Raises BadInput where layers take more boxes or mailers than there are."""
    needed = Counter[str]()
    for coat in (coat for unit in units for coat in unit.coats):
        if coat.taken is not None:
            needed[coat.taken.name] += coat.takes
    for n, layer in enumerate(layers):
        if layer.item is not None and needed[layer.item.name] > layer.item.count:
            raise BadInput(
                f"there are {layer.item.count}, and {needed[layer.item.name]} are needed", read=layer.item.name,
                allowed="one of which there are enough", field=f"protect[{n}].item",
            )  # fmt: skip


def own_boxes(unit: Wrapped, shop: Shop) -> tuple[Made, ...]:
    """The boxes among its layers that are cut for it, from the goods outward."""
    found, sizes = [], unit.shape.sizes
    for coat in unit.coats:
        if _is_cut_for_it(coat):
            found.append(_case_around(sizes, coat.filled, coat.material.board, shop))
        length, width, height = (side + by * 2 for side, by in zip(sizes, coat.growth, strict=True))
        sizes = length, width, height
    return tuple(found)


def _is_cut_for_it(coat: Coat) -> bool:
    return coat.material.form == BOXED and coat.taken is None


def _case_around(sizes: Sizes, room: Length, board: str | None, shop: Shop) -> Made:
    length, width, height = (side + room * 2 for side in sizes)
    return make_box("slotted", (length, width, height), shop.grade(board), shop.allowances)


def _box_in(wearer: Wearer, layer: Layer, shop: Shop) -> Coat:
    """A slotted case of its own around it. It is made as every box is; half of what it adds is on each side."""
    grade = shop.grade(layer.material.board)
    length, width, height = (side + layer.room * 2 for side in wearer.sizes)
    made = _case_around(wearer.sizes, layer.room, layer.material.board, shop)
    # A case is longer than wide; it stands around the thing as the thing lies.
    outside = made.outside if made.needed == (length, width, height) else (made.outside[1], made.outside[0],
                                                                           made.outside[2])  # fmt: skip
    a, b, c = (Length(-(-(out.nm - side.nm) // 2)) for out, side in zip(outside, wearer.sizes, strict=True))
    board = replace(
        layer.material, thickness=grade.caliper, sold="m2", weight_per=grade.weight_per_m2,
        price_per_100=grade.price_per_m2.share(Fraction(100)),
    )  # fmt: skip
    cuts = tuple(Cut(1, blank.size[0], blank.size[1]) for blank in made.blanks)
    says = (f"A slotted case of {grade.code} board.", *((FLOATS,) if layer.room.nm else ()))
    return Coat(board, (a, b, c), cuts, square_metres(cuts), says, filled=layer.room)


def _in_stock_box(wearer: Wearer, layer: Layer, box: StockBox) -> Coat:
    """A box that is there around it, open at the top where it need not shut. Raises BadInput where it is too small."""
    length, width, height = (side + layer.room * 2 for side in wearer.sizes)
    inside = (length, width, min(height, box.inside[2])) if layer.open else (length, width, height)
    contents = Contents(inside, upright=True, from_the_side=False)
    standing = fits(box, contents)
    if standing is None:
        raise BadInput(
            "not large enough", read=box.name, allowed=f"a box that holds it; {nearest([box], contents)}", field="item"
        )
    turned_about = standing.stood[:2] != inside[:2]
    a, b, c = by_axes(box.outside, (1, 0, 2) if turned_about else (0, 1, 2))
    if layer.open:
        c = max(c - box.grade.caliper * 2, height + box.grade.caliper * 2)
    growth = tuple(Length(-(-(out.nm - side.nm) // 2)) for out, side in zip((a, b, c), wearer.sizes, strict=True))
    says = (
        f"In {box.name}{', open at the top: its upper flaps are folded down outside' if layer.open else ''}.",
        *((FLOATS,) if layer.room.nm else ()),
    )
    return Coat(
        in_stock(layer.material, box.name, box.weight, box.price), (growth[0], growth[1], growth[2]), (), Fraction(1),
        says, filled=layer.room, reused=layer.reused, taken=box, takes=1,
    )  # fmt: skip


def _in_mailer(wearer: Wearer, layer: Layer, pouch: Pouch, shop: Shop) -> Coat:
    """A mailer that is there drawn over it. Raises BadInput where it does not close."""
    seams = shop.allowances[SEAMS]
    try:
        must_close(pouch, wearer.sizes, seams)
    except NoAnswer as why:
        raise BadInput(f"it does not close: {why}", read=pouch.name, allowed="a larger mailer", field="item") from why
    says = [f"In {pouch.name}, closed on it."]
    if wearer.pile > 1:
        says.append(f"At most {most_that_close(pouch, wearer.shape.sizes, wearer.pile, seams)} of these go into one.")
    return Coat(
        in_stock(layer.material, pouch.name, pouch.weight, pouch.price), all_round(pouch.wall), (), Fraction(1),
        tuple(says), reused=layer.reused, taken=pouch, takes=1,
    )  # fmt: skip


def _as_pads(layer: Layer) -> Coat:
    """Mailers that are there, empty and flat, under and over it, or on one side only."""
    pouch = layer.item
    assert isinstance(pouch, Pouch)
    count = layer.layers * (2 if layer.on == "all" else 1)
    thick = pouch.wall * (2 * layer.layers)
    growth = along(2, thick) if layer.on == "all" else along(AXES[layer.on], thick.half())
    return Coat(
        in_stock(layer.material, pouch.name, pouch.weight, pouch.price), growth, (), Fraction(count),
        ("Empty and flat, as a pad.",), reused=layer.reused, one_side=layer.on != "all", taken=pouch, takes=count,
    )  # fmt: skip
