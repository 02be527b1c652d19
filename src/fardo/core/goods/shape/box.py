"""A box: three sides."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from fardo.core.goods.shape.shape import Asked, Direction, Shape, Sizes
from fardo.core.quantity import Length, volume_nm3

if TYPE_CHECKING:
    from fardo.core.goods.shape.cover import Convex
    from fardo.core.goods.shape.solids import Solid


@dataclass(frozen=True, slots=True)
class Sided(Shape):
    """What is known by its three longest sides."""

    ASKED = (Asked("length", "Length"), Asked("width", "Width"), Asked("height", "Height"))

    length: Length
    width: Length
    height: Length

    @property
    def sizes(self) -> Sizes:
        return self.length, self.width, self.height


@dataclass(frozen=True, slots=True)
class Box(Sided):
    KIND = "box"
    TITLE = "box"

    @property
    def volume_nm3(self) -> int:
        return volume_nm3(*self.sizes)

    @property
    def area_nm2(self) -> int:
        a, b, c = (side.nm for side in self.sizes)
        return 2 * (a * b + b * c + c * a)

    def support(self, direction: Direction) -> float:
        return sum(max(d, 0.0) * side.nm for d, side in zip(direction, self.sizes, strict=True))

    def girth(self, axis: int) -> Length:
        a, b = (side for n, side in enumerate(self.sizes) if n != axis)
        return (a + b) * 2

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import block

        return block(self.length.mm, self.width.mm, self.height.mm)

    def cover(self) -> tuple[Convex, ...]:
        from fardo.core.goods.shape.cover import block

        return (block((0.0, 0.0, 0.0), (self.length.mm, self.width.mm, self.height.mm)),)
