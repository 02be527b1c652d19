"""What is arranged: a thing with its wrap on, its convex pieces, and how it may lie.

The wrap follows the shape: an opening stays open, smaller by the wrap on each side. What is stuffed is full, and what
is boxed or stiffened is a block.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from fardo.core.arrange.turn import LEVEL, STANDING, TURNS, Rotation, Turn, as_rotation, is_square
from fardo.core.goods.gap import NO_GAP, Gap
from fardo.core.goods.shape import Shape, Sizes
from fardo.core.goods.shape.cover import Convex, block
from fardo.core.goods.shape.shape import outward
from fardo.core.hashed import HashedOnce
from fardo.core.protect.forms.asks import Held
from fardo.core.quantity import ZERO, Length, Mass

NO_WEIGHT = Mass(0)
NM = 1e6  # nanometres in a millimetre


@dataclass(frozen=True, slots=True)
class Body(HashedOnce):
    """A wrapped thing as the arranging engine sees it.

    Args:
        shape: bare.
        grown: by its wrap, on each side, along its own axes.
        held: as its own shape, or filled to its hull, or to its bounding box.
        gap: kept to the walls and between things.
        bears: what may lie over it, None for anything.
        bundle: those of one name are held together; of none where empty.
        apart: names of bundles or bodies it must not lie beside, `apart_by` away.
        extra: goes in after the goods.
        around_bundle: what goes around all of its bundle adds on each side; its gap has it too.
        boxed: it is in a box of its own, which is drawn around it.
    """

    name: str
    shape: Shape
    gap: Gap = NO_GAP
    grown: Sizes = (ZERO, ZERO, ZERO)
    held: Held = "own"
    weight: Mass = NO_WEIGHT
    this_side_up: bool = False
    keep_flat: bool = False
    bears: Mass | None = None
    fragility: int | None = None
    bundle: str = ""
    apart: frozenset[str] = frozenset()
    extra: bool = False
    around_bundle: Length = ZERO
    boxed: bool = False
    __hash__ = HashedOnce.__hash__

    @property
    def sizes(self) -> Sizes:
        """Wrapped."""
        return _wrapped_sizes(self)

    @property
    def is_block(self) -> bool:
        return self.held == "block" or self.shape.KIND == "box"

    @property
    def turns(self) -> tuple[Turn, ...]:
        """The turns about its axes that its rules leave."""
        return STANDING if self.this_side_up else LEVEL if self.keep_flat else TURNS

    @property
    def round(self) -> float:
        """How far its pieces are grown as by a ball, mm: what its wrap adds on every side."""
        return 0.0 if self.held == "block" else min(by.mm for by in self.grown)


@lru_cache(maxsize=512)
def _wrapped_sizes(body: Body) -> Sizes:
    a, b, c = (side + by * 2 for side, by in zip(body.shape.sizes, body.grown, strict=True))
    return a, b, c


@lru_cache(maxsize=512)
def pieces_of(shape: Shape, grown: Sizes, held: Held) -> tuple[Convex, ...]:
    """Its convex pieces in its bare frame, mm, all but the growth that is the same on every side."""
    if held == "block":
        by = [side.mm for side in grown]
        return (block([-b for b in by], [side.mm + b for side, b in zip(shape.sizes, by, strict=True)]),)
    least = min(by.mm for by in grown)
    rest = [by.mm - least for by in grown]
    pieces = tuple(piece.grown(rest) for piece in shape.cover())
    if held == "hull":
        return (Convex(np.concatenate([p.points for p in pieces]), np.concatenate([p.swell for p in pieces])),)
    return pieces


@dataclass(frozen=True, slots=True)
class Stance:
    """A body turned: how large it is then, and where its bare frame begins.

    Args:
        sizes: of its bounding box, wrapped.
        inset: where a bare point p lies from its lowest corner: turn x p + inset.
        before, beyond: the gap it keeps to the walls it lies after, and to those it lies before.
    """

    turn: Rotation
    sizes: Sizes
    inset: Sizes
    before: Sizes
    beyond: Sizes


@lru_cache(maxsize=2048)
def stance(body: Body, turn: Rotation) -> Stance:
    """Exact for a turn about the axes; else never too small."""
    if is_square(turn):
        own, bare = body.sizes, body.shape.sizes
        sizes, inset, along = [], [], []
        for row in turn:
            k = next(k for k in range(3) if row[k])
            along.append(k)
            sizes.append(own[k])
            inset.append(body.grown[k] + (bare[k] if row[k] < 0 else ZERO))
        before, beyond = body.gap.at_walls((along[0], along[1], along[2]), body.shape.thin)
    else:
        pieces = pieces_of(body.shape, body.grown, body.held)
        rows = np.array(turn)
        high = np.max([piece.reach(rows) for piece in pieces], axis=0) + body.round
        low = np.max([piece.reach(-rows) for piece in pieces], axis=0) + body.round
        inset = [Length(outward(v * NM)) for v in low]
        sizes = [Length(outward(v * NM)) + below for v, below in zip(high, inset, strict=True)]
        before, beyond = body.gap.at_walls_slantwise()
    return Stance(turn, (sizes[0], sizes[1], sizes[2]), (inset[0], inset[1], inset[2]), before, beyond)


def with_gap(stood: Stance) -> Sizes:
    """The inside of the smallest box for that alone, so turned."""
    a, b, c = (
        side + before + beyond for side, before, beyond in zip(stood.sizes, stood.before, stood.beyond, strict=True)
    )
    return a, b, c


@dataclass(frozen=True, slots=True)
class Laid:
    """A body in its place: `at` is the lowest corner of its wrapped bounding box."""

    turn: Rotation
    at: Sizes
    locked: bool = False


def lay(body: Body, turn: Rotation, origin: Sizes, locked: bool) -> Laid | None:
    """A body so turned, a bare point p of it at turn x p + origin; None where the matrix is no rotation."""
    rotation = as_rotation(turn)
    if rotation is None:
        return None
    x, y, z = (at - inset for at, inset in zip(origin, stance(body, rotation).inset, strict=True))
    return Laid(rotation, (x, y, z), locked)


def more_than_it_bears(lower: Body, upper: Body) -> bool:
    """Whether the one alone is more than the other bears."""
    return lower.bears is not None and max(upper.weight.ng, 1) > lower.bears.ng
