"""A flat thing of any outline and one thickness: a panel, a neck, a plate, with holes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import isqrt
from typing import TYPE_CHECKING

from fardo.core.goods.shape.shape import Direction, Shape, Sizes, whole
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput

if TYPE_CHECKING:
    from fardo.core.goods.shape.cover import Convex
    from fardo.core.goods.shape.solids import Solid

Corner = tuple[Length, Length]
Corners = tuple[Corner, ...]
MOST_CORNERS = 400


@dataclass(frozen=True, slots=True)
class Outline(Shape):
    """Made by `outline`, which checks the corners and moves them to begin at 0,0."""

    KIND = "outline"
    TITLE = "flat outline"

    points: Corners
    thickness: Length
    holes: tuple[Corners, ...] = ()

    @property
    def sizes(self) -> Sizes:
        x, y = (max(point[axis] for point in self.points) for axis in range(2))
        return x, y, self.thickness

    @property
    def _flat_nm2(self) -> Fraction:
        return Fraction(_twice_area(self.points) - sum(_twice_area(hole) for hole in self.holes), 2)

    @property
    def volume_nm3(self) -> int:
        return whole(self._flat_nm2 * self.thickness.nm)

    @property
    def area_nm2(self) -> int:
        around = sum(_around(ring) for ring in (self.points, *self.holes))
        return whole(2 * self._flat_nm2) + around * self.thickness.nm

    def support(self, direction: Direction) -> float:
        x, y, z = direction
        return max(x * px.nm + y * py.nm for px, py in self.points) + max(z, 0.0) * self.thickness.nm

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import plate

        return plate(_mm(self.points), [_mm(hole) for hole in self.holes], self.thickness.mm)

    def cover(self) -> tuple[Convex, ...]:
        from fardo.core.goods.shape.cover import plate

        return plate(_mm(self.points), [_mm(hole) for hole in self.holes], self.thickness.mm)


def outline(points: Sequence[Corner], thickness: Length, holes: Sequence[Sequence[Corner]] = ()) -> Outline:
    """A flat thing from its corners, in either direction round.

    Raises BadInput for fewer than three corners, for too many, for an outline that crosses or touches itself, and for
    a hole that is not wholly inside.
    """
    for name, ring in (("points", points), *((f"holes[{n}]", hole) for n, hole in enumerate(holes))):
        if not 3 <= len(ring) <= MOST_CORNERS:
            raise BadInput(
                "not a number of corners that makes an outline", read=f"{len(ring)} corners",
                allowed=f"3 to {MOST_CORNERS} corners", field=name,
            )  # fmt: skip
    _check(points, holes)
    x, y = (min(point[axis].nm for point in points) for axis in range(2))

    def to_start(ring: Sequence[Corner]) -> Corners:
        return tuple((Length(a.nm - x), Length(b.nm - y)) for a, b in ring)

    return Outline(to_start(points), thickness, tuple(to_start(hole) for hole in holes))


def _check(points: Sequence[Corner], holes: Sequence[Sequence[Corner]]) -> None:
    # Whole nanometres up to ten metres are exact in the floats of the geometry library.
    from shapely import Polygon
    from shapely.validation import explain_validity

    body = Polygon([(x.nm, y.nm) for x, y in points])
    if not body.is_valid or not body.area:
        reason = explain_validity(body)
        flat = body.convex_hull.area == 0
        raise BadInput(
            "the corners lie on one line" if flat else "the outline crosses or touches itself" + _near(reason),
            read=f"{len(points)} corners", allowed="corners in order, all the way round", field="points",
        )  # fmt: skip
    for n, hole in enumerate(holes):
        gap = Polygon([(x.nm, y.nm) for x, y in hole])
        others = [Polygon([(x.nm, y.nm) for x, y in other]) for m, other in enumerate(holes) if m != n]
        if (
            not gap.is_valid
            or not body.contains_properly(gap)
            or any(gap.intersects(other) for other in others if other.is_valid)
        ):
            raise BadInput(
                "a hole that crosses itself, the edge or another hole", read=f"{len(hole)} corners",
                allowed="a hole wholly inside the outline", field=f"holes[{n}]",
            )  # fmt: skip


def _near(reason: str) -> str:
    """Where, from the checker's own words: ``Self-intersection[254000000 12700000]``."""
    place = reason.partition("[")[2].rstrip("]").split()
    if len(place) < 2:
        return ""
    x, y = (float(value) / 25_400_000 for value in place[:2])
    return f" near {x:.4g} in along, {y:.4g} in across"


def _twice_area(ring: Sequence[Corner]) -> int:
    return abs(sum(a[0].nm * b[1].nm - b[0].nm * a[1].nm for a, b in zip(ring, (*ring[1:], ring[0]), strict=True)))


def _around(ring: Sequence[Corner]) -> int:
    return sum(
        isqrt((a[0].nm - b[0].nm) ** 2 + (a[1].nm - b[1].nm) ** 2)
        for a, b in zip(ring, (*ring[1:], ring[0]), strict=True)
    )


def _mm(ring: Corners) -> list[tuple[float, float]]:
    return [(x.mm, y.mm) for x, y in ring]
