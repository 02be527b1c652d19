"""What goes into a box that is there, as the ways that take one see it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from itertools import permutations

from fardo.core.goods.part import Sizes
from fardo.core.quantity import ZERO, Length


@dataclass(frozen=True)
class Contents:
    """What goes into a box that is there.

    Args:
        inside: the inside size that the goods ask for.
        upright: whether their height must stay up. The box may be turned all the same: the arrow is on its outside.
        gives: by how much the wrap is pressed in along each side.
        floats: whether they stand in the middle of a box with room to spare, its height too.
        from_the_side: whether they may be put into a box that opens at the side: flat things, or what does not float.
        in_mailer: the size of the goods in a mailer, where no gap is kept.
        unwrapped: the size of the goods with nothing on them, as they lie in a maker's own inserts.
        kept_out: of each kind of mailer that they may not travel in bare, why not.
        over_box: what is wrapped around a closed box in a bag or an envelope, on each side.
    """

    inside: Sizes
    upright: bool
    gives: Length = ZERO
    floats: bool = False
    from_the_side: bool = True
    in_mailer: Sizes | None = None
    unwrapped: Sizes | None = None
    kept_out: Mapping[str, str] = field(default_factory=dict)
    over_box: Length = ZERO

    @property
    def in_inserts(self) -> Contents:
        """As they lie in a maker's own inserts."""
        return replace(self, inside=self.unwrapped or self.inside, gives=ZERO)

    @property
    def ways_to_stand(self) -> Iterator[Sizes]:
        """As they may be turned themselves; only about their height where that must stay up."""
        return turned(self.inside, self.upright)

    def stood_in(self, box: Sizes) -> Iterator[tuple[Sizes, tuple[int, int, int]]]:
        """Every way to bring them together with a box, the box as it opens first.

        Yields: the contents as they stand, and which side of the box then lies along length, width and height.
        """
        for stood in self.ways_to_stand:
            yield stood, (0, 1, 2)
        if self.upright and self.from_the_side:
            for turn in permutations(range(3)):
                if turn[2] != 2:
                    yield self.inside, (turn[0], turn[1], turn[2])

    def shortest_by(self, box: Sizes) -> tuple[Length, int]:
        """By how much a box is too small at best, and along which of its own sides; no more than nothing where they go
        in.
        """
        found = []
        for stood, axes in self.stood_in(box):
            lacks = [(want.nm - box[axis].nm - self.gives.nm, axis) for want, axis in zip(stood, axes, strict=True)]
            found.append(max(lacks))
        short, axis = min(found)
        return Length(short), axis


def turned(needed: Sizes, upright: bool) -> Iterator[Sizes]:
    """The ways contents may stand; only about their height where that must stay up."""
    for order in permutations(range(3)):
        if not upright or order[2] == 2:
            a, b, c = (needed[n] for n in order)
            yield a, b, c


def by_axes(sizes: Sizes, axes: tuple[int, int, int]) -> Sizes:
    """Sides as they lie once a box is turned."""
    return sizes[axes[0]], sizes[axes[1]], sizes[axes[2]]
