"""One thing with its gap, and the extras beside it: the inside size, and where each lies.

Extras never take from the gap: they lie against the padded thing, on whichever side makes the box grow least, and later
ones first go into the corners that earlier ones left. A beam search over sides and turns; the same input gives the same
answer. It is exact for a single extra; for several it is the best of `_BEAM` arrangements followed side by side.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from itertools import permutations

from fardo.core.goods.part import Extra, Sizes
from fardo.core.quantity import Length

_BEAM = 12
_Spot = tuple[int, int, int]


@dataclass(frozen=True, slots=True)
class Placed:
    """An extra in the box: its lowest corner, and its sizes as turned."""

    name: str
    at: Sizes
    sizes: Sizes


@dataclass(frozen=True, slots=True)
class Arrangement:
    """The inside size that holds everything, with the padded thing's lowest corner at 0,0,0; or all of it turned a
    quarter about its height, for a box that is longer the other way."""

    inside: Sizes
    extras: tuple[Placed, ...]
    quarter_turned: bool = False

    def quarter_turn(self) -> Arrangement:
        """Length and width change places: what was at x, y is now at y, length - x."""
        length, width, height = self.inside
        extras = tuple(
            Placed(e.name, (e.at[1], length - e.at[0] - e.sizes[0], e.at[2]), (e.sizes[1], e.sizes[0], e.sizes[2]))
            for e in self.extras
        )
        return Arrangement((width, length, height), extras, quarter_turned=True)


@dataclass(frozen=True, slots=True)
class _State:
    box: _Spot
    free: tuple[tuple[_Spot, _Spot], ...]  # lowest corner and size of each empty corner of the box
    placed: tuple[tuple[str, _Spot, _Spot], ...]

    @property
    def rank(self) -> tuple[int, int, _Spot, int]:
        x, y, z = self.box
        return x * y * z, max(self.box), self.box, -len(self.free)


# One picture of a job asks for the same arrangement several times, for each way to box it.
@lru_cache(maxsize=128)
def put_beside(padded: Sizes, extras: tuple[Extra, ...]) -> Arrangement:
    """The least box found for a padded thing and its extras.

    >>> from fardo.core.quantity import Mass
    >>> inch = Length.of_inches
    >>> card = Extra("card", (inch(6), inch(4), inch(1)), Mass(0))
    >>> [str(side.inches) for side in put_beside((inch(10), inch(8), inch(3)), (card,)).inside]
    ['10', '8', '4']
    """
    length, width, height = (side.nm for side in padded)
    beam = [_State((length, width, height), (), ())]
    for extra in sorted(extras, key=lambda e: (-(e.sizes[0].nm * e.sizes[1].nm * e.sizes[2].nm), e.name)):
        turns = sorted({(a, b, c) for a, b, c in permutations(side.nm for side in extra.sizes)})
        options = {(option.box, option.free): option for state in beam for option in _options(state, extra.name, turns)}
        beam = sorted(options.values(), key=lambda state: state.rank)[:_BEAM]
    best = beam[0]
    return Arrangement(
        _lengths(best.box), tuple(Placed(n, _lengths(at), _lengths(size)) for n, at, size in best.placed)
    )


def _options(state: _State, name: str, turns: list[_Spot]) -> list[_State]:
    filled = [
        _State(state.box, _without(state.free, spot, turn), (*state.placed, (name, spot[0], turn)))
        for spot in state.free
        for turn in turns
        if all(a <= b for a, b in zip(turn, spot[1], strict=True))
    ]
    return filled or [_grown(state, name, turn, axis) for turn in turns for axis in (2, 1, 0)]


def _grown(state: _State, name: str, turn: _Spot, axis: int) -> _State:
    """The box made longer along `axis` by the extra, and wider where the extra sticks out."""
    box, old = list(state.box), state.box
    at = [0, 0, 0]
    at[axis] = old[axis]
    for other in range(3):
        box[other] = old[other] + turn[other] if other == axis else max(old[other], turn[other])
    free = list(state.free)
    reach = list(old)
    for other in range(3):  # what the growth sideways left beside the old box
        if other != axis and box[other] > old[other]:
            corner, size = [0, 0, 0], list(reach)
            corner[other], size[other] = old[other], box[other] - old[other]
            free.append((_spot(corner), _spot(size)))
            reach[other] = box[other]
    slab = list(box)
    slab[axis] = turn[axis]
    whole = (_spot(at), _spot(slab))
    return _State(_spot(box), _without((*free, whole), whole, turn), (*state.placed, (name, _spot(at), turn)))


def _without(
    free: tuple[tuple[_Spot, _Spot], ...], spot: tuple[_Spot, _Spot], turn: _Spot
) -> tuple[tuple[_Spot, _Spot], ...]:
    """The empty corners once `turn` lies in the lowest corner of `spot`: three straight cuts, no overlap."""
    left = [other for other in free if other != spot]
    corner, size = list(spot[0]), list(spot[1])
    for axis in sorted(range(3), key=lambda a: turn[a] - size[a]):
        rest = size[axis] - turn[axis]
        if rest:
            start, piece = list(corner), list(size)
            start[axis] += turn[axis]
            piece[axis] = rest
            left.append((_spot(start), _spot(piece)))
            size[axis] = turn[axis]
    return tuple(left)


def _spot(values: list[int]) -> _Spot:
    return values[0], values[1], values[2]


def _lengths(spot: _Spot) -> Sizes:
    return Length(spot[0]), Length(spot[1]), Length(spot[2])
