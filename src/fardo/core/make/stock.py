"""Boxes that are there: new ones on the shelf and used ones in the stash, and how one of them is closed."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fardo.core.board.grade import Grade
from fardo.core.board.wear import WearCode, left_of
from fardo.core.cut.drawing import Blank
from fardo.core.goods.part import Sizes
from fardo.core.make.contents import Contents
from fardo.core.quantity import INCH, Length, Mass, Money, both_units, volume_nm3
from fardo.core.refusal import NoAnswer

TAPE_DOWN_THE_SIDE = INCH * 3
_TAB = Length.of_mm(32.0)


@dataclass(frozen=True, slots=True)
class StockBox:
    """A box in stock.

    Args:
        name: on its shelf.
        inside: as it was made, its longer opening side first.
        price: of one; a used one may cost nothing.
        count: how many there are.
        carrier: whose free or fixed-price container it is, nothing for one's own.
        worn: what is so of a used one.
        hollow: that a maker's own inserts leave in it for the bare goods, None where there are none.
    """

    name: str
    inside: Sizes
    grade: Grade
    price: Money
    count: int
    used: bool
    carrier: str = ""
    worn: frozenset[WearCode] = frozenset()
    hollow: Sizes | None = None

    @property
    def left(self) -> Fraction:
        """The share of the strength of its like that it is trusted with."""
        return left_of(self.worn)

    @property
    def outside(self) -> Sizes:
        """Closed, as a slotted case is."""
        t = self.grade.caliper
        return self.inside[0] + t * 2, self.inside[1] + t * 2, self.inside[2] + t * 4

    @property
    def board_nm2(self) -> int:
        """What a slotted case of that inside is cut from, tab and flaps with it."""
        t = self.grade.caliper
        around = (self.inside[0] + self.inside[1] + t * 2) * 2 + _TAB
        return around.nm * (self.inside[2] + t * 2 + min(self.inside[:2]) + t).nm

    @property
    def weight(self) -> Mass:
        return self.grade.weight_of(self.board_nm2)


PouchKind = Literal["flat", "rigid", "padded", "bag"]
POUCHES: dict[PouchKind, str] = {
    "flat": "flat mailer", "rigid": "rigid mailer", "padded": "padded mailer", "bag": "bag",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Pouch:
    """A mailer or a bag.

    Args:
        width, length: inside, lying flat, between its seams; it opens at one end of its length.
        wall: of one side.
        thickest: what goes into a flat or rigid one at most, None where only its width and length say.
        price, weight: of one.
        count: how many there are.
    """

    name: str
    kind: PouchKind
    width: Length
    length: Length
    wall: Length
    thickest: Length | None
    weight: Mass
    price: Money
    count: int
    carrier: str = ""


@dataclass(frozen=True, slots=True)
class OwnBlank:
    """A blank of the shop's own design, cut from sheet as it is.

    Args:
        name: of the design.
        blank: its drawing.
        inside, outside: of the box it folds to, as the shop says.
    """

    name: str
    blank: Blank
    inside: Sizes
    outside: Sizes
    grade: Grade


@dataclass(frozen=True, slots=True)
class Pattern:
    """A box made over that worked, to be made again.

    Args:
        name: the shop's own for it.
        box: what it is made from, by its name.
        inside: after the folds.
    """

    name: str
    box: str
    inside: Sizes


@dataclass(frozen=True, slots=True)
class Stock:
    """What is there: boxes and mailers, carriers' containers among them, the shop's own designs, and its patterns for
    boxes made over.
    """

    boxes: tuple[StockBox, ...] = ()
    pouches: tuple[Pouch, ...] = ()
    designs: tuple[OwnBlank, ...] = ()
    patterns: tuple[Pattern, ...] = ()

    @property
    def own_boxes(self) -> tuple[StockBox, ...]:
        """Not the carriers'."""
        return tuple(box for box in self.boxes if not box.carrier)

    @property
    def used_boxes(self) -> tuple[StockBox, ...]:
        return tuple(box for box in self.own_boxes if box.used)

    @property
    def boxes_to_cut(self) -> tuple[StockBox, ...]:
        """That may be made over: used ones and carriers' cartons, sound, and without inserts of their maker."""
        return tuple(box for box in self.boxes if (box.used or box.carrier) and box.left and box.hollow is None)

    @property
    def boxes_to_join(self) -> tuple[StockBox, ...]:
        """Those that may be telescoped or joined end to end."""
        return tuple(box for box in self.own_boxes if box.left and box.hollow is None)

    @property
    def own_pouches(self) -> tuple[Pouch, ...]:
        """Not the carriers'."""
        return tuple(pouch for pouch in self.pouches if not pouch.carrier)


NOTHING_THERE = Stock()


@dataclass(frozen=True, slots=True)
class Taken:
    """A box or a mailer that is there, and how many of it."""

    item: StockBox | Pouch
    count: int = 1

    @property
    def weight(self) -> Mass:
        return self.item.weight * self.count

    @property
    def price(self) -> Money:
        return Money(self.item.price.minor * self.count, self.item.price.currency)


def carton_of(taken: Sequence[Taken]) -> StockBox | None:
    """The box among what is taken."""
    return next((one.item for one in taken if isinstance(one.item, StockBox)), None)


@dataclass(frozen=True, slots=True)
class Standing:
    """Contents in a box.

    Args:
        stood: the contents as they stand.
        axes: which side of the box lies along length, width and height.
        pressed: by how much they are larger and are pressed in.
    """

    stood: Sizes
    axes: tuple[int, int, int]
    pressed: Length

    @property
    def on_its_side(self) -> bool:
        """Whether the box does not stand on its bottom."""
        return self.axes[2] != 2


def fits(box: StockBox, contents: Contents) -> Standing | None:
    """How the contents go into a box, as it opens before on its side; None where they do not."""
    have, contents = _room(box, contents)
    for stood, axes in contents.stood_in(have):
        over = max(want.nm - have[axis].nm for want, axis in zip(stood, axes, strict=True))
        if over <= contents.gives.nm:
            return Standing(stood, axes, Length(max(over, 0)))
    return None


def all_that_fit(boxes: Iterable[StockBox], contents: Contents) -> list[tuple[StockBox, Standing]]:
    """Of those there are, every one they go into, the one that takes least room closed first; of equal ones the
    cheaper.
    """
    found = [(box, stands) for box in boxes if box.count and box.left and (stands := fits(box, contents))]
    return sorted(found, key=lambda one: (volume_nm3(*one[0].outside), one[0].price.minor, one[0].name))


SIDES = ("long", "wide", "high")  # of a box, as one says what it is not enough of


def nearest(boxes: Iterable[StockBox], contents: Contents) -> str:
    """Why none of them does: the one that lacks least, on which side and by how much."""
    found = []
    for box in boxes:
        have, going_in = _room(box, contents)
        found.append((going_in.shortest_by(have), box))
    if not found:
        return "there is none"
    (short, axis), box = min(found, key=lambda one: one[0])
    if short.nm <= 0:
        return f"{box.name} would hold it, and {'there is none left' if box.left else 'it is soft or was wet'}"
    return f"the nearest, {box.name}, is {both_units(short)} not {SIDES[axis]} enough"


def _room(box: StockBox, contents: Contents) -> tuple[Sizes, Contents]:
    """What there is for the goods in a box, and they as they go in: bare, where it has its maker's inserts."""
    return (box.inside, contents) if box.hollow is None else (box.hollow, contents.in_inserts)


class TooSmall(NoAnswer):
    """Why one box will not do, and by how much, so that of many the nearest is named."""

    def __init__(self, why: str, short: Length) -> None:
        super().__init__(why)
        self.short = short


def nearest_of(whys: Sequence[tuple[str, NoAnswer]], otherwise: str) -> NoAnswer:
    """Of the reasons of several boxes, by their names, that of the one that lacks least."""
    if not whys:
        return NoAnswer(otherwise)
    name, why = min(whys, key=lambda one: one[1].short.nm if isinstance(one[1], TooSmall) else math.inf)
    return NoAnswer(f"{name}: {why}" + (", and no other comes nearer" if len(whys) > 1 else ""))


def closing_tape(outside: Sizes) -> Length:
    """Three strips over the top and three under the bottom, each a hand down the sides (common practice)."""
    return (outside[0] + TAPE_DOWN_THE_SIDE * 2) * 2 + (outside[1] + TAPE_DOWN_THE_SIDE * 2) * 4
