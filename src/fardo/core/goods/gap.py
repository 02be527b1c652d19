"""The gap around a thing: one length, or by place, as packers say it: at a wall, between things, below, above, at the
edges and at the faces of a flat thing (common practice).

Against each wall the larger of the names that apply holds. `faces` are the two largest sides of the bare thing, across
its shortest way; `edges` are the other four.
"""

from __future__ import annotations

from dataclasses import dataclass, fields

from fardo.core.goods.shape import Sizes
from fardo.core.quantity import ZERO, Length

BETWEEN = "gap between"
IN_WORDS = {
    "wall": "gap to the walls", "between": BETWEEN, "below": "gap below", "above": "gap above",
    "edges": "gap at the edges", "faces": "gap at the faces",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Gap:
    """Free space kept around a part.

    Args:
        wall: to the walls of the box, and to bottom and top where `below` and `above` are not said.
        between: to other things; of two things the larger holds.
        below: under it.
        above: over it.
        edges: at the edges of a flat thing.
        faces: at its faces.

    >>> inch = Length.of_inches
    >>> framed = Gap(inch(1), inch(1), below=inch(2), edges=inch(2), faces=inch("0.5"))
    >>> low, high = framed.at_walls((0, 2, 1), thin=2)  # it stands on an edge, its faces to the front and the back
    >>> [str(side.inches) for side in low], [str(side.inches) for side in high]
    (['2', '1/2', '2'], ['2', '1/2', '2'])
    """

    wall: Length
    between: Length
    below: Length | None = None
    above: Length | None = None
    edges: Length | None = None
    faces: Length | None = None

    @classmethod
    def even(cls, everywhere: Length) -> Gap:
        """The same on every side and between."""
        return cls(everywhere, everywhere)

    def widened(self, by: Length) -> Gap:
        """With so much more at every place: what goes around several things."""

        def more(length: Length | None) -> Length | None:
            return None if length is None else length + by

        return Gap(
            self.wall + by, self.between + by, more(self.below), more(self.above), more(self.edges), more(self.faces)
        )

    @property
    def is_even(self) -> bool:
        return all(said is None or said == self.wall for said in (getattr(self, one.name) for one in fields(self)))

    @property
    def at_a_wall(self) -> bool:
        """Whether any is kept to a wall of the box."""
        return any(said.nm for place, said in self.said if place != BETWEEN)

    @property
    def said(self) -> tuple[tuple[str, Length], ...]:
        """Each place with what is kept there; one for all where it is the same everywhere."""
        if self.is_even:
            return (("gap on every side", self.wall),)
        return tuple(
            (IN_WORDS[one.name], getattr(self, one.name)) for one in fields(self) if getattr(self, one.name) is not None
        )

    def at_walls(self, own: tuple[int, int, int], thin: int) -> tuple[Sizes, Sizes]:
        """What is kept to the lower and to the upper wall along length, width and height of the box.

        Args:
            own: which way of the bare thing lies along each of the three.
            thin: its shortest way.
        """
        low = [self._towards(own[axis] == thin, self.below if axis == 2 else None) for axis in range(3)]
        high = [self._towards(own[axis] == thin, self.above if axis == 2 else None) for axis in range(3)]
        return (low[0], low[1], low[2]), (high[0], high[1], high[2])

    def at_walls_slantwise(self) -> tuple[Sizes, Sizes]:
        """The same for a thing that does not lie along the box: the larger of edges and faces everywhere."""
        low = [max(self._towards(face, said) for face in (True, False)) for said in (None, None, self.below)]
        high = [max(self._towards(face, said) for face in (True, False)) for said in (None, None, self.above)]
        return (low[0], low[1], low[2]), (high[0], high[1], high[2])

    @property
    def least(self) -> Length:
        """At the side of the box where it is least."""
        return min(
            side for sides in (self.at_walls((0, 1, 2), thin) for thin in range(3)) for one in sides for side in one
        )

    def _towards(self, face: bool, over_or_under: Length | None) -> Length:
        """The gap towards a face or an edge.

        Args:
            face: whether a face looks that way, else an edge.
            over_or_under: said for that way alone.
        """
        own = self.faces if face else self.edges
        if own is None:
            return self.wall if over_or_under is None else over_or_under
        return max(own, over_or_under or ZERO)


NO_GAP = Gap.even(ZERO)
