"""A cup: a round body that stands along its own z, with a handle at one side."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING

from fardo.core.goods.shape.box import Box
from fardo.core.goods.shape.compound import Compound, Piece
from fardo.core.goods.shape.round import Cylinder
from fardo.core.goods.shape.shape import PI, Asked, DimensionLine, Direction, Shape, Sizes
from fardo.core.quantity import ZERO, Length

if TYPE_CHECKING:
    from fardo.core.goods.shape.cover import Convex
    from fardo.core.goods.shape.solids import Solid

_HANDLE_WIDE = 5  # a handle is so many times less wide than the cup, and leaves as much of its height free: from memory


@dataclass(frozen=True, slots=True)
class Cup(Shape):
    KIND = "cup"
    TITLE = "cup with a handle"
    ASKED = (Asked("diameter", "Diameter"), Asked("height", "Height"), Asked("handle", "The handle sticks out"))

    diameter: Length
    height: Length
    handle: Length

    @property
    def sizes(self) -> Sizes:
        return self.diameter + self.handle, self.diameter, self.height

    @property
    def body_girth(self) -> Length:
        """Around the round body alone."""
        return Length(math.ceil(PI * self.diameter.nm))

    @property
    def volume_nm3(self) -> int:
        return _made_of(self).volume_nm3

    @property
    def area_nm2(self) -> int:
        return _made_of(self).area_nm2

    def support(self, direction: Direction) -> float:
        return _made_of(self).support(direction)

    def solid(self) -> Solid:
        return _made_of(self).solid()

    def cover(self) -> tuple[Convex, ...]:
        return _made_of(self).cover()

    def lines(self) -> tuple[DimensionLine, ...]:
        d, h, middle, out = self.diameter.mm, self.height.mm, self.diameter.mm / 2, self.sizes[0].mm
        return (
            DimensionLine("diameter", (0.0, middle, h), (d, middle, h)),
            DimensionLine("height", (0.0, middle, 0.0), (0.0, middle, h)),
            DimensionLine("handle", (d, middle, h / 2), (out, middle, h / 2)),
        )


@lru_cache(maxsize=64)
def _made_of(cup: Cup) -> Compound:
    """The body, and the handle as the block around it, which begins in the middle of the body."""
    wide, free = Length(cup.diameter.nm // _HANDLE_WIDE), Length(cup.height.nm // _HANDLE_WIDE)
    handle = Box(cup.diameter - cup.diameter.half() + cup.handle, wide, cup.height - free * 2)
    at = (cup.diameter.half(), (cup.diameter - wide).half(), free)
    return Compound((Piece(Cylinder(cup.diameter, cup.height), (ZERO, ZERO, ZERO)), Piece(handle, at)))
