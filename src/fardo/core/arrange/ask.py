"""What is asked of the engine and what it answers."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal

from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.arrange.turn import QUARTER, Turn, after, axes_of, turned_sizes
from fardo.core.goods.part import Sizes
from fardo.core.quantity import ZERO, Length, volume_nm3

Proportion = Literal["cube", "flat", "long"]
PROPORTIONS: tuple[Proportion, ...] = ("cube", "flat", "long")
_LONG = 1.8  # the longest side against the next
_FLAT = 0.45  # the shortest side against the next


@dataclass(frozen=True, slots=True)
class Ask:
    """What is to be arranged.

    Args:
        bodies: what goes in.
        inside: of a box that is there, None where the smallest is wanted.
        locked: by number, what stays where it lies.
        apart_by: how far apart what must not lie beside each other is kept.
        seed: same ask, same answer.
    """

    bodies: tuple[Body, ...]
    inside: Sizes | None = None
    locked: tuple[tuple[int, Laid], ...] = ()
    apart_by: Length = ZERO
    seed: int = 0

    def room(self, a: int, b: int) -> Length:
        """What is kept free between two: the larger of their gaps once, more where they must not lie beside each
        other, nothing within a bundle.
        """
        one, other = self.bodies[a], self.bodies[b]
        if one.bundle and one.bundle == other.bundle:
            return ZERO
        gap = max(one.gap.between, other.gap.between)
        return max(gap, self.apart_by) if keeps_apart(one, other) else gap


def keeps_apart(one: Body, other: Body) -> bool:
    return bool({other.name, other.bundle} & one.apart or {one.name, one.bundle} & other.apart)


@dataclass(frozen=True, slots=True)
class Arrangement:
    """Where everything lies.

    Args:
        inside: the box that holds it all.
        laid: of each body, in the order asked; None where there was no place.
        order: of going in, by number, each straight from above.
    """

    inside: Sizes
    laid: tuple[Laid | None, ...]
    order: tuple[int, ...]

    @property
    def whole(self) -> bool:
        return all(laid is not None for laid in self.laid)

    @property
    def room_nm3(self) -> int:
        return volume_nm3(*self.inside)

    @property
    def proportion(self) -> Proportion:
        return proportion_of(*(side.nm for side in self.inside))


def proportion_of(*sides: float) -> Proportion:
    """Whether three sides are long, flat or about a cube.

    Args:
        sides: three, in any order and unit.
    """
    a, b, c = sorted(sides, reverse=True)
    if a >= _LONG * b:
        return "long"
    return "flat" if c <= _FLAT * b else "cube"


def balance(bodies: tuple[Body, ...], answer: Arrangement) -> tuple[float, float, float]:
    """Where the weight lies, as shares of length, width and height from the lowest corner."""
    total = 0.0
    sums = [0.0, 0.0, 0.0]
    for body, laid in zip(bodies, answer.laid, strict=True):
        if laid is None:
            continue
        weight = max(body.weight.grams, 1e-9)
        sizes = stance(body, laid.turn).sizes
        total += weight
        for axis in range(3):
            sums[axis] += weight * (laid.at[axis].mm + sizes[axis].mm / 2)
    a, b, c = (value / total / side.mm if total else 0.5 for value, side in zip(sums, answer.inside, strict=True))
    return a, b, c


def moved_in(answer: Arrangement, by: Length) -> Arrangement:
    """With so much more room on every side: the liner's."""
    laid = tuple(None if one is None else replace(one, at=_sizes(side + by for side in one.at)) for one in answer.laid)
    return Arrangement(_sizes(side + by * 2 for side in answer.inside), laid, answer.order)


def raised(answer: Arrangement, below: Length, above: Length) -> Arrangement:
    """With so much more room under and over everything: a pad's."""
    laid = tuple(
        None if one is None else replace(one, at=(one.at[0], one.at[1], one.at[2] + below)) for one in answer.laid
    )
    length, width, height = answer.inside
    return Arrangement((length, width, height + below + above), laid, answer.order)


def quarter_turned(bodies: tuple[Body, ...], answer: Arrangement) -> Arrangement:
    """All of it turned about its height: what was at x, y is now at y, length - x."""
    return all_turned(bodies, answer, QUARTER)


def all_turned(bodies: tuple[Body, ...], answer: Arrangement, by: Turn) -> Arrangement:
    """All of it turned about the axes, box and all; where that tips it, things go in from the bottom up."""
    takes = axes_of(by)
    laid: list[Laid | None] = []
    for body, one in zip(bodies, answer.laid, strict=True):
        if one is None:
            laid.append(None)
            continue
        sizes = stance(body, one.turn).sizes
        at = _sizes(
            one.at[k] if row[k] > 0 else answer.inside[k] - one.at[k] - sizes[k]
            for k, row in zip(takes, by, strict=True)
        )
        laid.append(replace(one, turn=after(by, one.turn), at=at))
    order = answer.order
    if takes[2] != 2:
        lowest = {n: one.at[2].nm for n, one in enumerate(laid) if one is not None}
        order = tuple(sorted(answer.order, key=lambda n: (lowest[n], n)))
    return Arrangement(turned_sizes(answer.inside, by), tuple(laid), order)


def roomier(answer: Arrangement, inside: Sizes, floats: bool = False) -> Arrangement:
    """The same in a larger box, in the middle of its length and width; what floats, of its height too."""
    x, y, z = ((have - had).half() for have, had in zip(inside, answer.inside, strict=True))
    if not floats:
        z = ZERO
    laid = tuple(
        None if one is None else replace(one, at=(one.at[0] + x, one.at[1] + y, one.at[2] + z)) for one in answer.laid
    )
    return Arrangement(inside, laid, answer.order)


def _sizes(sides: Iterable[Length]) -> Sizes:
    a, b, c = sides
    return a, b, c
