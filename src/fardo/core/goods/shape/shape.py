"""What every shape can say of itself: its bounding sizes, volume, surface, reach in a direction, girth and mesh.

Sizes come out exact where the shape is, and are never too small where it is not. A shape's frame has the lowest corner
of its bounding box at 0,0,0.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from typing import TYPE_CHECKING, ClassVar

from fardo.core.goods.shape.mesh import Mesh
from fardo.core.quantity import Length

if TYPE_CHECKING:
    from fardo.core.goods.shape.cover import Convex
    from fardo.core.goods.shape.solids import Solid

Sizes = tuple[Length, Length, Length]  # length, width, height
Direction = tuple[float, float, float]
Point = tuple[float, float, float]  # mm

# To 37 places, far below a cubic nanometre of anything that can be sent.
PI = Fraction(31415926535897932384626433832795028842, 10**37)
_AXES: tuple[Direction, Direction, Direction] = ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
_GIRTH_STEPS = 240
# Reach is reckoned in floats, whose error at ten metres is far below this share of a nanometre.
_FLOAT_SLACK_NM = 1e-3


@dataclass(frozen=True, slots=True)
class Asked:
    """A measure that is taken of a shape. `label` is what the tape is held to."""

    name: str
    label: str


@dataclass(frozen=True, slots=True)
class DimensionLine:
    """Where a measure is taken, for a drawing: from one point to the other, in mm."""

    name: str
    start: Point
    end: Point

    @property
    def length(self) -> Length:
        return Length.of_mm(math.dist(self.start, self.end))


class Shape(ABC):
    """One kind of shape. `ASKED` are its measures in the order of measuring; empty where it takes more than figures."""

    __slots__ = ()
    KIND: ClassVar[str]
    TITLE: ClassVar[str]
    ASKED: ClassVar[tuple[Asked, ...]] = ()

    @property
    @abstractmethod
    def sizes(self) -> Sizes:
        """Length, width and height of the bounding box."""

    @property
    def thin(self) -> int:
        """Its shortest way, 0 to 2; of equal ones the last, as a flat thing is measured lying."""
        return min((2, 1, 0), key=lambda axis: self.sizes[axis].nm)

    @property
    @abstractmethod
    def volume_nm3(self) -> int:
        """Cubic nanometres, to the nearest."""

    @property
    @abstractmethod
    def area_nm2(self) -> int:
        """Surface in square nanometres."""

    def wrapped_nm3(self, by: Length) -> int:
        """Its volume with so much around it on every side: its surface times that, the surface taken as much larger as
        that of the box around it is half way out, unless it says better.
        """
        half_way = tuple(side + by for side in self.sizes)
        return self.volume_nm3 + self.area_nm2 * by.nm * _box_surface(half_way) // _box_surface(self.sizes)

    @abstractmethod
    def support(self, direction: Direction) -> float:
        """The highest product of a point of the shape with `direction`, in nm: how far it reaches that way."""

    @abstractmethod
    def solid(self) -> Solid:
        """Its body, in mm, for looking at and for finding places; round things have `FACETS` sides."""

    def cover(self) -> tuple[Convex, ...]:
        """Convex pieces that together hold all of it and little more, in mm; its solid cut up unless it says better."""
        from fardo.core.goods.shape.cover import split

        return split(self.solid())

    def mesh(self) -> Mesh:
        """Its surface."""
        from fardo.core.goods.shape.solids import mesh_of

        return mesh_of(self.solid())

    def lines(self) -> tuple[DimensionLine, ...]:
        """Where its measures are taken; the sides of its bounding box unless it says better."""
        return box_lines(self.sizes, ("length", "width", "height"))

    def girth(self, axis: int) -> Length:
        """All the way round, taut, across `axis` (0 is the length).

        By Cauchy's formula the way around a convex outline is its reach summed over all directions; it goes up.
        """
        return _taut(self, axis)


# The girth of a part that is not typed at is asked for at every stroke.
@lru_cache(maxsize=512)
def _taut(shape: Shape, axis: int) -> Length:
    u, v = (i for i in range(3) if i != axis)
    around = 0.0
    for step in range(_GIRTH_STEPS):
        angle = 2 * math.pi * step / _GIRTH_STEPS
        direction = [0.0, 0.0, 0.0]
        direction[u], direction[v] = math.cos(angle), math.sin(angle)
        around += shape.support((direction[0], direction[1], direction[2]))
    return Length(math.ceil(around * 2 * math.pi / _GIRTH_STEPS))


def _box_surface(sizes: tuple[Length, ...]) -> int:
    a, b, c = (side.nm for side in sizes)
    return 2 * (a * b + b * c + c * a)


def reach(shape: Shape) -> Sizes:
    """The bounding sizes of a shape from its reach along the axes; never too small."""
    a, b, c = (outward(shape.support(axis) + shape.support(_against(axis))) for axis in _AXES)
    return Length(a), Length(b), Length(c)


def outward(nm: float) -> int:
    """Up to a whole nanometre; what is whole but for the noise of floats stays as it is."""
    return math.ceil(nm - _FLOAT_SLACK_NM)


def _against(axis: Direction) -> Direction:
    return -axis[0], -axis[1], -axis[2]


def box_lines(sizes: Sizes, names: tuple[str, str, str]) -> tuple[DimensionLine, ...]:
    """The three near edges of a bounding box."""
    x, y, z = (side.mm for side in sizes)
    return (
        DimensionLine(names[0], (0.0, 0.0, 0.0), (x, 0.0, 0.0)),
        DimensionLine(names[1], (x, 0.0, 0.0), (x, y, 0.0)),
        DimensionLine(names[2], (x, y, 0.0), (x, y, z)),
    )


def whole(value: Fraction) -> int:
    return round(value)
