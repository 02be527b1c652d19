"""Round bars joined into a frame: a triangle of tube, a bent bar, a rack. Its openings are room for something else."""

from __future__ import annotations

import math
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
    """Bars of one diameter with round ends. Made by `bars`, which moves them to begin at 0,0,0.

    Args:
        members: middle line of each bar, from end to end.
    """

    KIND = "bars"
    TITLE = "bars"

    diameter: Length
    members: tuple[Member, ...]

    @property
    def sizes(self) -> Sizes:
        a, b, c = (max(side.nm for side in self._ends(axis)) - min(side.nm for side in self._ends(axis))
                   + self.diameter.nm for axis in range(3))  # fmt: skip
        return Length(a), Length(b), Length(c)

    def _ends(self, axis: int) -> list[Length]:
        return [end[axis] for member in self.members for end in member]

    @property
    def lengths(self) -> tuple[Length, ...]:
        """Each bar from end to end over its round ends, up to the nanometre."""
        return tuple(
            Length(math.isqrt(sum((a.nm - b.nm) ** 2 for a, b in zip(*member, strict=True))) + 1) + self.diameter
            for member in self.members
        )

    def _apart(self) -> tuple[Fraction, Fraction]:
        """Volume and surface of all bars, each as if it were alone: a cylinder and a ball."""
        d = self.diameter.nm
        between = sum(length.nm - d for length in self.lengths)
        volume = PI * d * d / 4 * between + len(self.members) * PI * d**3 / 6
        return volume, PI * d * between + len(self.members) * PI * d * d

    @property
    def volume_nm3(self) -> int:
        return whole(self._apart()[0]) - _shared(self)[0]

    @property
    def area_nm2(self) -> int:
        return whole(self._apart()[1]) - _shared(self)[1]

    def rods(self) -> list[Solid]:
        from fardo.core.goods.shape.solids import rod

        return [rod([c.mm for c in a], [c.mm for c in b], self.diameter.mm) for a, b in self.members]

    def support(self, direction: Direction) -> float:
        along = max(
            sum(d * c.nm for d, c in zip(direction, end, strict=True)) for member in self.members for end in member
        )
        return along + self.diameter.nm / 2 * math.hypot(*direction)

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import joined

        return joined(self.rods())

    def cover(self) -> tuple[Convex, ...]:
        from fardo.core.goods.shape.cover import rod

        return tuple(rod([c.mm for c in a], [c.mm for c in b], self.diameter.mm) for a, b in self.members)

    def lines(self) -> tuple[DimensionLine, ...]:
        sides = Shape.lines(self)  # a class with slots is made twice, and a bare super() looks in the first
        (x, y, z), _ = ([c.mm for c in end] for end in self.members[0])
        r = self.diameter.mm / 2
        return *sides, DimensionLine("diameter", (x, y, z - r), (x, y, z + r))


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
    low = [min(end[axis].nm for member in members for end in member) for axis in range(3)]

    def to_start(end: Place) -> Place:
        # Half an odd nanometre goes up, and so does every end alike: nothing changes its size.
        a, b, c = (Length(end[axis].nm - low[axis]) + diameter.half() for axis in range(3))
        return a, b, c

    return Bars(diameter, tuple((to_start(a), to_start(b)) for a, b in members))
