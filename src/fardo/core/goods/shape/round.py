"""Round things that stand along their own z: cylinder, disc, ring, taper, and the ellipsoid."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from typing import TYPE_CHECKING

from fardo.core.goods.shape.box import Sided
from fardo.core.goods.shape.shape import PI, Asked, DimensionLine, Direction, Shape, Sizes, whole
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput

if TYPE_CHECKING:
    from fardo.core.goods.shape.cover import Convex
    from fardo.core.goods.shape.solids import Solid

_FINER = 10**6  # a root is taken to that share of a nanometre


def _round_reach(direction: Direction, diameter: Length, centre: float, low: float, high: float) -> float:
    """How far a disc or a stack of equal discs reaches. `centre` is that of x and y, `low` and `high` the ends, nm."""
    x, y, z = direction
    return centre * (x + y) + diameter.nm / 2 * math.hypot(x, y) + max(z * low, z * high)


def _across(name: str, diameter: float, z: float, centre: float) -> DimensionLine:
    """A diameter's line, lying along x at the height z."""
    return DimensionLine(name, (centre - diameter / 2, centre, z), (centre + diameter / 2, centre, z))


def _upright(name: str, size: float, height: float) -> DimensionLine:
    """A height's line at the near corner of a round thing `size` across."""
    return DimensionLine(name, (size, size / 2, 0.0), (size, size / 2, height))


class _Straight(Shape):
    """A cylinder or a disc: one shape, two ways of naming its height."""

    __slots__ = ()

    @property
    def across(self) -> Length:
        raise NotImplementedError

    @property
    def along(self) -> Length:
        raise NotImplementedError

    @property
    def sizes(self) -> Sizes:
        return self.across, self.across, self.along

    @property
    def volume_nm3(self) -> int:
        return whole(PI * self.across.nm**2 * self.along.nm / 4)

    @property
    def area_nm2(self) -> int:
        return whole(PI * self.across.nm * (Fraction(self.across.nm, 2) + self.along.nm))

    def support(self, direction: Direction) -> float:
        return _round_reach(direction, self.across, self.across.nm / 2, 0, self.along.nm)

    def girth(self, axis: int) -> Length:
        if axis == 2:
            return Length(math.ceil(PI * self.across.nm))
        return (self.across + self.along) * 2

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import upright

        return upright(self.across.mm, self.across.mm, self.along.mm)

    def cover(self) -> tuple[Convex, ...]:
        from fardo.core.goods.shape.cover import upright

        return (upright(self.across.mm, self.across.mm, self.along.mm),)


@dataclass(frozen=True, slots=True)
class Cylinder(_Straight):
    KIND = "cylinder"
    TITLE = "cylinder"
    ASKED = (Asked("diameter", "Diameter"), Asked("length", "Length"))

    diameter: Length
    length: Length

    @property
    def across(self) -> Length:
        return self.diameter

    @property
    def along(self) -> Length:
        return self.length

    def lines(self) -> tuple[DimensionLine, ...]:
        d, h = self.diameter.mm, self.length.mm
        return _across("diameter", d, h, d / 2), _upright("length", d, h)


@dataclass(frozen=True, slots=True)
class Disc(_Straight):
    KIND = "disc"
    TITLE = "disc"
    ASKED = (Asked("diameter", "Diameter"), Asked("thickness", "Thickness"))

    diameter: Length
    thickness: Length

    @property
    def across(self) -> Length:
        return self.diameter

    @property
    def along(self) -> Length:
        return self.thickness

    def lines(self) -> tuple[DimensionLine, ...]:
        d, h = self.diameter.mm, self.thickness.mm
        return _across("diameter", d, h, d / 2), _upright("thickness", d, h)


@dataclass(frozen=True, slots=True)
class Ring(Shape):
    """A ring or wheel rim: its hole is room for something else. Raises BadInput for a hole no smaller than the ring."""

    KIND = "ring"
    TITLE = "ring"
    ASKED = (
        Asked("outer_diameter", "Outside diameter"),
        Asked("inner_diameter", "Inside diameter"),
        Asked("thickness", "Thickness"),
    )

    outer_diameter: Length
    inner_diameter: Length
    thickness: Length

    def __post_init__(self) -> None:
        if self.inner_diameter >= self.outer_diameter:
            raise BadInput(
                "the inside of a ring is smaller than its outside",
                read=f"{float(self.inner_diameter.inches):g} in inside {float(self.outer_diameter.inches):g} in",
                allowed="an inside diameter below the outside diameter",
                field="inner_diameter",
            )

    @property
    def sizes(self) -> Sizes:
        return self.outer_diameter, self.outer_diameter, self.thickness

    @property
    def volume_nm3(self) -> int:
        return whole(PI * (self.outer_diameter.nm**2 - self.inner_diameter.nm**2) * self.thickness.nm / 4)

    @property
    def area_nm2(self) -> int:
        outer, inner, thick = self.outer_diameter.nm, self.inner_diameter.nm, self.thickness.nm
        return whole(PI * (Fraction(outer**2 - inner**2, 2) + (outer + inner) * thick))

    def wrapped_nm3(self, by: Length) -> int:
        """Its opening stays open, smaller by the wrap."""
        outer, inner = self.outer_diameter.nm + by.nm * 2, max(0, self.inner_diameter.nm - by.nm * 2)
        return whole(PI * (outer**2 - inner**2) * (self.thickness.nm + by.nm * 2) / 4)

    def support(self, direction: Direction) -> float:
        return _round_reach(direction, self.outer_diameter, self.outer_diameter.nm / 2, 0, self.thickness.nm)

    def girth(self, axis: int) -> Length:
        if axis == 2:
            return Length(math.ceil(PI * self.outer_diameter.nm))
        return (self.outer_diameter + self.thickness) * 2

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import ring

        return ring(self.outer_diameter.mm, self.inner_diameter.mm, self.thickness.mm)

    def cover(self) -> tuple[Convex, ...]:
        from fardo.core.goods.shape.cover import ring

        return ring(self.outer_diameter.mm, self.inner_diameter.mm, self.thickness.mm)

    def lines(self) -> tuple[DimensionLine, ...]:
        d, h = self.outer_diameter.mm, self.thickness.mm
        inner = _across("inner_diameter", self.inner_diameter.mm, h, d / 2)
        flat = DimensionLine("outer_diameter", (0.0, 0.0, h), (d, 0.0, h))
        return flat, inner, _upright("thickness", d, h)


@dataclass(frozen=True, slots=True)
class Taper(Shape):
    """A round thing that narrows: a leg, a horn. `diameter_a` is at the bottom."""

    KIND = "taper"
    TITLE = "taper"
    ASKED = (
        Asked("diameter_a", "Diameter at one end"),
        Asked("diameter_b", "Diameter at the other"),
        Asked("length", "Length"),
    )

    diameter_a: Length
    diameter_b: Length
    length: Length

    @property
    def _widest(self) -> Length:
        return max(self.diameter_a, self.diameter_b)

    @property
    def sizes(self) -> Sizes:
        return self._widest, self._widest, self.length

    @property
    def volume_nm3(self) -> int:
        a, b = self.diameter_a.nm, self.diameter_b.nm
        return whole(PI * self.length.nm * (a * a + a * b + b * b) / 12)

    @property
    def area_nm2(self) -> int:
        a, b, height = self.diameter_a.nm, self.diameter_b.nm, self.length.nm
        slant = Fraction(math.isqrt((4 * height**2 + (a - b) ** 2) * _FINER**2), 2 * _FINER)
        return whole(PI * (Fraction(a * a + b * b, 4) + Fraction(a + b, 2) * slant))

    def support(self, direction: Direction) -> float:
        centre = self._widest.nm / 2
        return max(
            _round_reach(direction, self.diameter_a, centre, 0, 0),
            _round_reach(direction, self.diameter_b, centre, self.length.nm, self.length.nm),
        )

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import upright

        return upright(self.diameter_a.mm, self.diameter_b.mm, self.length.mm)

    def cover(self) -> tuple[Convex, ...]:
        from fardo.core.goods.shape.cover import upright

        return (upright(self.diameter_a.mm, self.diameter_b.mm, self.length.mm),)

    def lines(self) -> tuple[DimensionLine, ...]:
        d, h = self._widest.mm, self.length.mm
        a, b = self.diameter_a.mm, self.diameter_b.mm
        return _across("diameter_a", a, 0.0, d / 2), _across("diameter_b", b, h, d / 2), _upright("length", d, h)


@dataclass(frozen=True, slots=True)
class Ellipsoid(Sided):
    """A rounded bulk: a body, a dome, a sack, by its three longest sides."""

    KIND = "ellipsoid"
    TITLE = "rounded"

    @property
    def volume_nm3(self) -> int:
        return whole(PI * self.length.nm * self.width.nm * self.height.nm / 6)

    @property
    def area_nm2(self) -> int:
        """By Carlson's symmetric integral (NIST Digital Library of Mathematical Functions, 19.33.1)."""
        from scipy.special import elliprg

        a, b, c = (side.mm / 2 for side in self.sizes)
        square_mm = 4 * math.pi * float(elliprg((a * b) ** 2, (b * c) ** 2, (c * a) ** 2))
        return round(square_mm * 10**12)

    def support(self, direction: Direction) -> float:
        halves = [side.nm / 2 for side in self.sizes]
        from_centre = math.hypot(*(d * half for d, half in zip(direction, halves, strict=True)))
        return sum(d * half for d, half in zip(direction, halves, strict=True)) + from_centre

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import egg

        return egg(self.length.mm, self.width.mm, self.height.mm)

    def cover(self) -> tuple[Convex, ...]:
        from fardo.core.goods.shape.cover import egg

        return (egg(self.length.mm, self.width.mm, self.height.mm),)
