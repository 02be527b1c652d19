"""Several shapes fixed together into one thing: a seat with its legs, a body with its horn."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING

from fardo.core.goods.shape.shape import Direction, Shape, Sizes, outward, reach
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput

if TYPE_CHECKING:
    from fardo.core.goods.shape.cover import Convex
    from fardo.core.goods.shape.solids import Solid

Turn = tuple[Direction, Direction, Direction]
UNTURNED: Turn = ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
MOST_PIECES = 60
_AXES = ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
_TURN_SLACK = 1e-6


@dataclass(frozen=True, slots=True)
class Piece:
    """A shape in its place: a point p of it is at turn x p + at."""

    shape: Shape
    at: Sizes
    turn: Turn = UNTURNED

    def support(self, direction: Direction) -> float:
        at = sum(d * c.nm for d, c in zip(direction, self.at, strict=True))
        # The reach of a turned shape is its own reach in the direction turned back.
        back = [sum(self.turn[row][column] * direction[row] for row in range(3)) for column in range(3)]
        return at + self.shape.support((back[0], back[1], back[2]))

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import moved

        return moved(self.shape.solid(), self.turn, [c.mm for c in self.at])


@dataclass(frozen=True, slots=True)
class Compound(Shape):
    """Made by `compound`, which moves the pieces to begin at 0,0,0."""

    KIND = "compound"
    TITLE = "several fixed"

    pieces: tuple[Piece, ...]

    @property
    def sizes(self) -> Sizes:
        return reach(self)

    @property
    def volume_nm3(self) -> int:
        return sum(piece.shape.volume_nm3 for piece in self.pieces) - _shared(self)[0]

    @property
    def area_nm2(self) -> int:
        return sum(piece.shape.area_nm2 for piece in self.pieces) - _shared(self)[1]

    def support(self, direction: Direction) -> float:
        return max(piece.support(direction) for piece in self.pieces)

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import joined

        return joined(piece.solid() for piece in self.pieces)

    def cover(self) -> tuple[Convex, ...]:
        return tuple(
            convex.moved(piece.turn, [c.mm for c in piece.at])
            for piece in self.pieces
            for convex in piece.shape.cover()
        )


@lru_cache(maxsize=64)
def _shared(shape: Compound) -> tuple[int, int]:
    """The volume and the surface that are counted twice where pieces meet, from their meshes."""
    from fardo.core.goods.shape.solids import overlap

    if len(shape.pieces) == 1:
        return 0, 0
    volume, area = overlap([piece.solid() for piece in shape.pieces])
    return round(volume * 10**18), round(area * 10**12)


def compound(pieces: Sequence[Piece]) -> Compound:
    """Pieces moved so that their bounding box begins at 0,0,0. Raises BadInput for none, too many, or a bad turn."""
    if not 1 <= len(pieces) <= MOST_PIECES:
        raise BadInput(
            "not a number of shapes that is worked with", read=str(len(pieces)), allowed=f"1 to {MOST_PIECES} shapes",
            field="of",
        )  # fmt: skip
    for n, piece in enumerate(pieces):
        if not _is_rotation(piece.turn):
            raise BadInput(
                "not a turn", read=str(piece.turn), allowed="a rotation matrix: three rows of three, determinant 1",
                field=f"of[{n}].turn",
            )  # fmt: skip
    whole = Compound(tuple(pieces))
    low = [-outward(whole.support((-axis[0], -axis[1], -axis[2]))) for axis in _AXES]

    def to_start(piece: Piece) -> Piece:
        a, b, c = (Length(piece.at[axis].nm - low[axis]) for axis in range(3))
        return Piece(piece.shape, (a, b, c), piece.turn)

    return Compound(tuple(to_start(piece) for piece in pieces))


def _is_rotation(turn: Turn) -> bool:
    for i in range(3):
        for j in range(3):
            product = sum(a * b for a, b in zip(turn[i], turn[j], strict=True))
            if not math.isclose(product, float(i == j), abs_tol=_TURN_SLACK):
                return False
    (a, b, c), (d, e, f), (g, h, i_) = turn
    return a * (e * i_ - f * h) - b * (d * i_ - f * g) + c * (d * h - e * g) > 0
