"""What cannot be, known before anything is searched: the reason, and by how much."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

from fardo.core.arrange.ask import Arrangement, Ask, keeps_apart
from fardo.core.arrange.body import Body, stance, with_gap
from fardo.core.arrange.manual import faults
from fardo.core.goods.part import Sizes
from fardo.core.quantity import Length, volume_nm3

_SLENDER = 2.5


@dataclass(frozen=True, slots=True)
class Cannot:
    """A reason why it cannot be arranged.

    Args:
        which: the thing it hangs on, by number, or None.
        says: in words.
        short: by how much, or None.
    """

    which: int | None
    says: str
    short: Length | None = None


def cannot(ask: Ask) -> list[Cannot]:
    """Every reason known at once; nothing where it is worth a search."""
    found = [
        Cannot(i, f"{a.name} and {b.name} are to be held together and kept apart")
        for (i, a), (_, b) in combinations(enumerate(ask.bodies), 2)
        if a.bundle and a.bundle == b.bundle and keeps_apart(a, b)
    ]
    if ask.inside is not None:
        found += _in_a_box(ask, ask.inside)
    return found + _locked(ask)


def lacking(ask: Ask, answer: Arrangement) -> list[Cannot]:
    """What keeps an answer out of the box that was asked about: what found no place, which side is short by how much.
    Nothing where all goes in, or no box was asked about.
    """
    out = [n for n, laid in enumerate(answer.laid) if laid is None]
    found = [Cannot(n, f"no place was found for {ask.bodies[n].name}") for n in out]
    for axis, side in zip(("length", "width", "height"), range(3), strict=True):
        over = answer.inside[side].nm - ask.inside[side].nm if ask.inside else 0
        if over > 0:
            found.append(Cannot(None, f"its {axis} is too small", Length(over)))
    return found


def _in_a_box(ask: Ask, inside: Sizes) -> list[Cannot]:
    found = []
    for n, body in enumerate(ask.bodies):
        if ask.bodies.index(body) == n and (short := too_large(body, inside)):
            found.append(Cannot(n, f"{body.name} with its gap is larger than the box, however it is turned", short))
    if found:
        return found
    room, needed = volume_nm3(*inside), sum(body.shape.volume_nm3 for body in ask.bodies)
    if needed > room:
        return [Cannot(None, "the goods alone take more room than the box has")]
    if all(body.bears is not None and not body.bears.ng for body in ask.bodies):
        floor = inside[0].nm * inside[1].nm
        if sum(_least_floor(body) for body in ask.bodies) > floor:
            return [Cannot(None, "nothing may lie over anything here, and the floor is too small for all side by side")]
    return []


def too_large(body: Body, inside: Sizes) -> Length | None:
    """By how much a thing alone is too large for a box; None where it goes in. What is slender may lie slantwise."""
    x, y, z = (side.nm for side in inside)
    short = min(max(a - x, b - y, c - z) for a, b, c in _needed(body))
    sides = sorted((side.nm for side in body.sizes), reverse=True)
    if short > 0 and sides[0] >= _SLENDER * sides[1]:
        across = math.sqrt(sum(side.nm**2 for side in inside))
        short = min(short, math.ceil(sides[0] + 2 * body.gap.least.nm - across))
    return Length(short) if short > 0 else None


@lru_cache(maxsize=512)
def _needed(body: Body) -> tuple[tuple[int, int, int], ...]:
    """By each way to stand that differs, the inside of the smallest box for it alone, nm."""
    found: dict[tuple[int, int, int], None] = {}
    for turn in body.turns:
        a, b, c = with_gap(stance(body, turn))
        found[a.nm, b.nm, c.nm] = None
    return tuple(found)


def _least_floor(body: Body) -> int:
    if not body.is_block:
        return 0  # how much of a floor an odd shape takes is not known so simply
    sizes = [stance(body, turn).sizes for turn in body.turns]
    return min(a.nm * b.nm for a, b, _ in sizes)


def _locked(ask: Ask) -> list[Cannot]:
    if not ask.locked or ask.inside is None:
        return []
    laid = dict(ask.locked)
    order = sorted(laid, key=lambda n: (laid[n].at[2].nm, n))
    answer = Arrangement(ask.inside, tuple(laid.get(n) for n in range(len(ask.bodies))), tuple(order))
    return [Cannot(fault.which, f"locked as it is, {fault.says}", fault.short) for fault in faults(ask, answer)]
