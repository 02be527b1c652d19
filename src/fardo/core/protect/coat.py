"""A layer worked out on one part: how much it adds on each side, what is cut for it, what that weighs and costs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from fardo.core.goods.shape import Shape, Sizes
from fardo.core.protect.material import BubbleSide, Layer, Material, ReadyMade
from fardo.core.quantity import SIXTEENTH, ZERO, Length, Mass, Money, Units, show_length
from fardo.core.why import Why

NONE: Sizes = (ZERO, ZERO, ZERO)
_NM_PER_M = 10**9
_NM3_PER_LITRE = 10**24


@dataclass(frozen=True, slots=True)
class Cut:
    """So many pieces of one size. `width` is None for what is cut to length only."""

    count: int
    length: Length
    width: Length | None = None


@dataclass(frozen=True, slots=True)
class Coat:
    """A layer as it lies on a thing.

    Args:
        growth: added on each side, along length, width and height.
        cuts: what is cut.
        amount: how much of what the material is sold by.
        says: how it is put on, in sentences.
        why: of the length to cut, where there is one.
        gives: by how much it is pressed in on a side.
        reused: it costs nothing.
        filled: the room a box of its own leaves around the goods on each side.
        one_side: it covers one side only.
        puts: how often it is put on.
        shell_nm3: the room between the thing before and after, which its own layers fill at most; nothing for what is
            inside the thing.
        taken, takes: the box or mailer there that it is, and how many.
    """

    material: Material
    growth: Sizes
    cuts: tuple[Cut, ...]
    amount: Fraction
    says: tuple[str, ...] = ()
    why: Why | None = None
    gives: Length = ZERO
    reused: bool = False
    filled: Length = ZERO
    one_side: bool = False
    puts: int = 1
    shell_nm3: int | None = None
    taken: ReadyMade | None = None
    takes: int = 0

    def times(self, count: int) -> Coat:
        """The same on so many."""
        cuts = tuple(replace(cut, count=cut.count * count) for cut in self.cuts)
        shell = None if self.shell_nm3 is None else self.shell_nm3 * count
        return replace(
            self,
            cuts=cuts,
            amount=self.amount * count,
            puts=self.puts * count,
            takes=self.takes * count,
            shell_nm3=shell,
        )

    @property
    def weight(self) -> Mass:
        return Mass(-(-(self.amount * self.material.weight_per.ng) // 1))

    @property
    def price(self) -> Money:
        if self.reused:
            return Money(0, self.material.price_per_100.currency)
        return self.material.price_per_100.share(self.amount / 100)

    @property
    def room_nm3(self) -> int:
        """The room it takes up in the box, so that no fill is counted there. What is cut off the roll and folded double
        fills no more than the shell that it grows the thing by.
        """
        if self.material.sold == "litre":
            room = int(self.amount * _NM3_PER_LITRE)
        else:
            flat = sum(cut.count * cut.length.nm * cut.width.nm for cut in self.cuts if cut.width)
            room = flat * self.material.thickness.nm
        return room if self.shell_nm3 is None else min(room, self.shell_nm3)

    def grows(self, units: Units) -> str:
        """What it adds, in words; nothing where it adds nothing outside."""
        sides = [show_length(by, units, "up").text for by in self.growth]
        grown = [side for side, by in zip(sides, self.growth, strict=True) if by.nm]
        if not grown:
            return ""
        if len(set(self.growth)) == 1:
            return f"{sides[0]} on every side"
        if len(grown) == 1:
            return f"{grown[0]} on two sides"
        return " x ".join(side.removesuffix(f" {units}") for side in sides) + f" {units} on each side"


@dataclass(frozen=True, slots=True)
class Wearer:
    """What a layer is put on: a bare shape, and how far earlier layers have grown it on each side.

    Args:
        pile: how many lie in it.
        step: of the tape, to which board around it is cut.
    """

    shape: Shape
    grown: Sizes
    bubbles: BubbleSide
    pile: int = 1
    step: Length = SIXTEENTH

    @property
    def sizes(self) -> Sizes:
        length, width, height = (side + by * 2 for side, by in zip(self.shape.sizes, self.grown, strict=True))
        return length, width, height

    @property
    def axes(self) -> tuple[int, int, int]:
        """The axes from the longest side to the shortest; of equal ones the earlier first."""
        a, b, c = sorted(range(3), key=lambda axis: -self.sizes[axis].nm)
        return a, b, c

    def girth(self, axis: int) -> Length:
        """Taut around what is on it already. A layer put on before adds eight of its thickness, as around a box."""
        u, v = (i for i in range(3) if i != axis)
        return self.shape.girth(axis) + (self.grown[u] + self.grown[v]) * 4


def in_stock(material: Material, name: str, weight: Mass, price: Money) -> Material:
    """A box or a mailer that is there, as what a layer is of."""
    hundred = Money(price.minor * 100, price.currency)
    code = f"{material.code}: {name}"
    return replace(material, code=code, name=name, sold="each", weight_per=weight, price_per_100=hundred)


def all_round(thickness: Length) -> Sizes:
    return thickness, thickness, thickness


def along(axis: int, thickness: Length) -> Sizes:
    """Growth on the two sides across one axis only."""
    a, b, c = (thickness if axis == i else ZERO for i in range(3))
    return a, b, c


def grown(growth: Sizes, by: Sizes) -> Sizes:
    length, width, height = (a + b for a, b in zip(growth, by, strict=True))
    return length, width, height


def metres(lengths: Sequence[Length]) -> Fraction:
    return Fraction(sum(length.nm for length in lengths), _NM_PER_M)


def square_metres(cuts: Sequence[Cut]) -> Fraction:
    return Fraction(sum(cut.count * cut.length.nm * cut.width.nm for cut in cuts if cut.width), _NM_PER_M**2)


def plus(length: Length, share: Fraction) -> Length:
    """A length and a share of it, up to the nanometre."""
    return Length(-(-length.nm * (1 + share) // 1))


__all__ = ["NONE", "Coat", "Cut", "Layer", "Wearer", "all_round", "along", "grown", "metres", "plus", "square_metres"]
