"""Round bars joined into a frame: a triangle of tube, a bent bar, a rack. Its openings are room for something else."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from typing import TYPE_CHECKING

from fardo.core.goods.shape.shape import PI, DimensionLine, Direction, Shape, Sizes, whole
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput

if TYPE_CHECKING:
    from fardo.core.goods.shape.cover import Convex
    from fardo.core.goods.shape.solids import Solid

Place = tuple[Length, Length, Length]
Member = tuple[Place, Place]
MOST_MEMBERS = 60


@dataclass(frozen=True, slots=True)
class Bars(Shape):
    """Bars of one diameter: sawn off flat where an end is free, round where it meets the end of another, as a joint is.

    A pole is as long as the tape says, and a frame has no notch at its corners. Made by `bars`, which moves them to
    begin at 0,0,0.

    Args:
        members: middle line of each bar, from end to end.
    """

    KIND = "bars"
    TITLE = "bars"

    diameter: Length
    members: tuple[Member, ...]

    @property
    def sizes(self) -> Sizes:
        low, high = _twice_reached(self.diameter, self.members)
        # Halves of a nanometre on both sides make a whole one; a slanted end is never taken as too small.
        a, b, c = (Length(-(-(top - bottom) // 2)) for bottom, top in zip(low, high, strict=True))
        return a, b, c

    @property
    def lengths(self) -> tuple[Length, ...]:
        """Each bar from end to end, over those that are round, up to the nanometre."""
        return tuple(
            Length(_up_root(_square(member)) + -(-self.diameter.nm * sum(rounded) // 2))
            for member, rounded in zip(self.members, _rounded(self.members), strict=True)
        )

    def _apart(self) -> tuple[Fraction, Fraction]:
        """Volume and surface of all bars, each as if it were alone: a cylinder with half a ball or a disc at each
        end.
        """
        d = self.diameter.nm
        between = sum(_up_root(_square(member)) for member in self.members)
        balls = sum(sum(rounded) for rounded in _rounded(self.members))
        discs = len(self.members) * 2 - balls
        volume = PI * d * d / 4 * between + balls * PI * d**3 / 12
        return volume, PI * d * between + balls * PI * d * d / 2 + discs * PI * d * d / 4

    @property
    def volume_nm3(self) -> int:
        return whole(self._apart()[0]) - _shared(self)[0]

    @property
    def area_nm2(self) -> int:
        return whole(self._apart()[1]) - _shared(self)[1]

    def rods(self) -> list[Solid]:
        from fardo.core.goods.shape.solids import rod

        return [
            rod([c.mm for c in a], [c.mm for c in b], self.diameter.mm, rounded)
            for (a, b), rounded in zip(self.members, _rounded(self.members), strict=True)
        ]

    def support(self, direction: Direction) -> float:
        return max(
            sum(d * c.nm for d, c in zip(direction, end, strict=True))
            + self.diameter.nm / 2 * _spread(direction, member, ball)
            for member, rounded in zip(self.members, _rounded(self.members), strict=True)
            for end, ball in zip(member, rounded, strict=True)
        )

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import joined

        return joined(self.rods())

    def cover(self) -> tuple[Convex, ...]:
        from fardo.core.goods.shape.cover import rod

        return tuple(
            rod([c.mm for c in a], [c.mm for c in b], self.diameter.mm, rounded)
            for (a, b), rounded in zip(self.members, _rounded(self.members), strict=True)
        )

    def lines(self) -> tuple[DimensionLine, ...]:
        sides = Shape.lines(self)  # a class with slots is made twice, and a bare super() looks in the first
        start, end = ([c.mm for c in end] for end in self.members[0])
        across = min(range(3), key=lambda axis: abs(end[axis] - start[axis]))
        (x, y, z), (u, v, w) = (
            [c + by * (axis == across) for axis, c in enumerate(start)]
            for by in (-self.diameter.mm / 2, self.diameter.mm / 2)
        )
        return *sides, DimensionLine("diameter", (x, y, z), (u, v, w))


@lru_cache(maxsize=256)
def _rounded(members: tuple[Member, ...]) -> tuple[tuple[bool, bool], ...]:
    """Of each bar, which of its ends are round: those where another ends too, and both of one without a length."""
    ends = Counter(end for member in members for end in member)
    return tuple((a == b or ends[a] > 1, a == b or ends[b] > 1) for a, b in members)


def _square(member: Member) -> int:
    """Of its length."""
    return sum((a.nm - b.nm) ** 2 for a, b in zip(*member, strict=True))


def _up_root(square: int) -> int:
    root = math.isqrt(square)
    return root if root * root == square else root + 1


def _spread(direction: Direction, member: Member, ball: bool) -> float:
    """How far an end of diameter 2 reaches from its middle: a ball, or a disc across its bar."""
    if ball:
        return math.hypot(*direction)
    along = [float(b.nm - a.nm) for a, b in zip(*member, strict=True)]
    share = sum(d * c for d, c in zip(direction, along, strict=True)) / sum(c * c for c in along)
    return math.hypot(*(d - share * c for d, c in zip(direction, along, strict=True)))


def _twice_reached(diameter: Length, members: Sequence[Member]) -> tuple[list[int], list[int]]:
    """Twice the lowest and the highest nanometre that bars reach along each axis; twice, as half a diameter may be
    odd.
    """
    low, high = [], []
    for axis in range(3):
        lows, highs = [], []
        for member, rounded in zip(members, _rounded(tuple(members)), strict=True):
            square = _square(member)
            off = square - (member[0][axis].nm - member[1][axis].nm) ** 2
            disc = _up_root(-(-(diameter.nm**2 * off) // square)) if square else diameter.nm
            for end, ball in zip(member, rounded, strict=True):
                reach = diameter.nm if ball else disc
                lows.append(end[axis].nm * 2 - reach)
                highs.append(end[axis].nm * 2 + reach)
        low.append(min(lows))
        high.append(max(highs))
    return low, high


@lru_cache(maxsize=64)
def _shared(shape: Bars) -> tuple[int, int]:
    """The volume and the surface that are counted twice where bars meet, from their meshes."""
    from fardo.core.goods.shape.solids import overlap

    volume, area = overlap(shape.rods()) if len(shape.members) > 1 else (0.0, 0.0)
    return round(volume * 10**18), round(area * 10**12)


def bars(diameter: Length, members: Sequence[Member]) -> Bars:
    """Bars moved so that their bounding box begins at 0,0,0. Raises BadInput for none, or too many."""
    if not 1 <= len(members) <= MOST_MEMBERS:
        raise BadInput(
            "not a number of bars that is worked with", read=str(len(members)), allowed=f"1 to {MOST_MEMBERS} bars",
            field="members",
        )  # fmt: skip
    low, _ = _twice_reached(diameter, members)

    def to_start(end: Place) -> Place:
        # Half an odd nanometre goes up, and so does every end alike: nothing changes its size.
        a, b, c = (Length(end[axis].nm + -(low[axis] // 2)) for axis in range(3))
        return a, b, c

    return Bars(diameter, tuple((to_start(a), to_start(b)) for a, b in members))
