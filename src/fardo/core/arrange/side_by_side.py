"""Things laid beside each other as boxes: the inside size that holds them all, and where each lies.

The largest of the goods stands as it was measured; each of the others lies against what is there already, on
whichever side makes the box grow least, and later ones first go into the corners that earlier ones left. Every thing
brings room with it, so no gap is ever taken from. A beam search over sides and turns; the same input gives the same
answer. It is exact for a single thing beside the first; for several it is the best of those followed side by side.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from fardo.core.arrange.turn import QUARTER, UNTURNED, Turn
from fardo.core.goods.part import Sizes
from fardo.core.quantity import ZERO, Length

_BEAM = 12
_STEPS = 42  # arrangements followed over all steps; many things share them, so that an answer comes at once
_LOOK_AT = 2  # for each one followed, so many are worked out
_MANY = 10  # blocks of which a few followed make a column, so that boxes of good proportions are filled too
_PROPORTIONS = ((1.2, 1.0, 0.85), (1.5, 1.1, 0.6))  # of boxes that are tried for many blocks: compact, and flatter
_SPARE = (1.2, 1.35, 1.55, 1.8, 2.2)  # so many times their room, until all go in
_ALIKE = 3  # followed of one size of box, which differ in the corners left
_Spot = tuple[int, int, int]


# Which of a thing's own sides comes to lie along length, width and height, and the turn that brings it there.
_TURNS: dict[_Spot, Turn] = {
    (0, 1, 2): UNTURNED,
    (1, 0, 2): QUARTER,
    (2, 1, 0): ((0, 0, 1), (0, 1, 0), (-1, 0, 0)),
    (0, 2, 1): ((1, 0, 0), (0, 0, 1), (0, -1, 0)),
    (1, 2, 0): ((0, 1, 0), (0, 0, 1), (1, 0, 0)),
    (2, 0, 1): ((0, 0, 1), (1, 0, 0), (0, 1, 0)),
}
_STANDING: tuple[_Spot, ...] = ((0, 1, 2), (1, 0, 2))


@dataclass(frozen=True, slots=True)
class Block:
    """A thing to lay down, with its gap around it.

    Args:
        upright: keeps its height up.
        extra: comes after the goods.
        bears: what may lie over it in all, ng, None for anything.
        weight: ng.
        apart: of the others by their number, those it must not lie beside.
    """

    name: str
    sizes: Sizes
    upright: bool = False
    extra: bool = False
    bears: int | None = None
    weight: int = 0
    apart: frozenset[int] = frozenset()


@dataclass(frozen=True, slots=True)
class PlacedBlock:
    """A block in the box.

    Args:
        block: its number among those given.
        at: its lowest corner.
        sizes: as turned.
        turn: from its own frame.
    """

    block: int
    name: str
    at: Sizes
    sizes: Sizes
    turn: Turn


@dataclass(frozen=True, slots=True)
class SideBySide:
    """The inside size that holds everything, and where each block lies, in the order they were given."""

    inside: Sizes
    placed: tuple[PlacedBlock, ...]


@dataclass(frozen=True, slots=True)
class _State:
    box: _Spot
    free: tuple[tuple[_Spot, _Spot], ...]  # lowest corner and size of each empty corner of the box
    placed: tuple[tuple[int, _Spot, _Spot, _Spot], ...]  # block, at, size, which side lies where


# One picture of a job asks for the same arrangement several times, for each way to box it.
@lru_cache(maxsize=128)
def lay_side_by_side(blocks: tuple[Block, ...], apart_by: Length = ZERO) -> SideBySide:
    """The least box found for at least one block. The largest of the goods is not turned.

    Args:
        apart_by: how far apart what must not lie beside each other is kept.

    >>> inch = Length.of_inches
    >>> things = (Block("case", (inch(10), inch(8), inch(3))), Block("card", (inch(6), inch(4), inch(1))))
    >>> [str(side.inches) for side in lay_side_by_side(things).inside]
    ['10', '8', '4']
    """
    sizes = [_spot([side.nm for side in block.sizes]) for block in blocks]
    order = sorted(range(len(blocks)), key=lambda n: (blocks[n].extra, -_volume(sizes[n]), blocks[n].name, n))
    first, *others = order
    turns = {n: _turns(sizes[n], blocks[n].upright) for n in others}
    rules = _Rules(blocks, apart_by.nm) if any(one.bears is not None or one.apart for one in blocks) else None
    start = _State(sizes[first], (), ((first, (0, 0, 0), sizes[first], (0, 1, 2)),))
    # Growing by the least room makes rows; growing by the least sum of sides makes clusters. The better end is taken:
    # beside one thing the least room, among several a cluster before a row that is hardly smaller.
    several = sum(not block.extra for block in blocks) > 1
    ends = [end for rank in (_room, _bulk) for end in _follow(start, others, turns, rank, rules)]
    if len(others) >= _MANY:
        ends += _filled_boxes(sizes, first, others, turns, rules)
    wanted = _cost if several else _room
    best = min(ends, key=lambda end: (wanted(end.box), -len(end.free)))
    placed = sorted(best.placed)
    return SideBySide(
        _lengths(best.box),
        tuple(PlacedBlock(n, blocks[n].name, _lengths(at), _lengths(size), _TURNS[way]) for n, at, size, way in placed),
    )


def _room(box: _Spot) -> tuple[Any, ...]:
    """The least room first, of equal ones the least sum of sides."""
    return _volume(box), sum(box), box


def _bulk(box: _Spot) -> tuple[Any, ...]:
    return sum(box), _volume(box), box


def _cost(box: _Spot) -> tuple[Any, ...]:
    """What is long is dear to make and to send."""
    return _compactness(box), box


def _compactness(box: _Spot) -> int:
    """Its room, and a fifth of the cube with its sum of sides."""
    return 135 * _volume(box) + sum(box) ** 3


def compactness(sides: Sizes) -> int:
    """What a size of box is compared by, the less the better: its room, and a little of the sum of its sides, as a
    column is dear to send and a plate bends.
    """
    return _compactness(_spot([side.nm for side in sides]))


def sizes_when_turned(sizes: Sizes, upright: bool) -> list[tuple[Turn, Sizes]]:
    """The sizes a thing can have in the box, each once, with a turn for it."""
    return [(_TURNS[way], _lengths(turned)) for turned, way in _turns(_spot([side.nm for side in sizes]), upright)]


def _follow(
    start: _State,
    others: list[int],
    turns: dict[int, list[tuple[_Spot, _Spot]]],
    rank: Callable[[_Spot], tuple[Any, ...]],
    rules: _Rules | None,
) -> list[_State]:
    """The ends found when the first few by `rank` are followed at each step."""
    width = max(1, min(_BEAM, _STEPS // max(1, len(others))))
    beam = [start]
    for n in others:
        # What the box becomes is known before the rest of a step is worked out; most steps need no more than that.
        moves = [move for state in beam for move in _moves(state, n, turns[n], rules)]
        moves.sort(key=lambda move: rank(move.box))
        options: dict[Any, _State] = {}
        alike: Counter[_Spot] = Counter()
        for move in moves:
            if alike[move.box] == _ALIKE:
                continue  # enough of that size; others are followed too
            option = move.made(n)
            if (option.box, option.free) not in options:
                options[(option.box, option.free)] = option
                alike[move.box] += 1
                if len(options) == width * _LOOK_AT:
                    break
        beam = sorted(options.values(), key=lambda state: (rank(state.box), -len(state.free)))[:width]
    return beam


def _filled_boxes(
    sizes: list[_Spot],
    first: int,
    others: list[int],
    turns: dict[int, list[tuple[_Spot, _Spot]]],
    rules: _Rules | None,
) -> list[_State]:
    """Boxes of good proportions, each the smallest tried that takes everything; cut down to what lies in it."""
    room = sum(_volume(sizes[n]) for n in (first, *others))
    found = []
    for proportion in _PROPORTIONS:
        for spare in _SPARE:
            edge = (room * spare / (proportion[0] * proportion[1] * proportion[2])) ** (1 / 3)
            # Whole nanometres; how large a box that is tried is decides nothing about what lies in it.
            box = _spot([max(int(edge * share), own) for share, own in zip(proportion, sizes[first], strict=True)])
            end = _filled(box, sizes[first], first, others, turns, rules)
            if end is not None:
                found.append(end)
                break
    return found


def _filled(
    box: _Spot,
    size: _Spot,
    first: int,
    others: list[int],
    turns: dict[int, list[tuple[_Spot, _Spot]]],
    rules: _Rules | None,
) -> _State | None:
    """Each block in the lowest corner it fits, of equal ones the tightest; None where one fits none."""
    whole = ((0, 0, 0), box)
    state = _State(box, _without((whole,), whole, size), ((first, (0, 0, 0), size, (0, 1, 2)),))
    for n in others:
        moves = [
            move
            for move in _into_corners(state, turns[n])
            if move.spot is not None and (rules is None or rules.allow(state, n, move.spot[0], move.turn))
        ]
        if not moves:
            return None
        state = min(moves, key=_lowest_and_tightest).made(n)
    reach = _spot([max(at[axis] + turn[axis] for _, at, turn, _ in state.placed) for axis in range(3)])
    return _State(reach, (), state.placed)


def _lowest_and_tightest(move: _Move) -> tuple[Any, ...]:
    """A block that ends low leaves the room above whole; one that fills a side of its corner leaves no sliver there."""
    assert move.spot is not None
    at, corner = move.spot
    left = sorted(corner[axis] - move.turn[axis] for axis in range(3))
    return at[2] + move.turn[2], left, at, move.turn


@dataclass(frozen=True, slots=True)
class _Move:
    """A block laid into an empty corner (`spot`), or against a side (`axis`), and the box it makes."""

    state: _State
    turn: _Spot
    way: _Spot
    box: _Spot
    spot: tuple[_Spot, _Spot] | None
    axis: int = 0
    away: int = 0

    def made(self, n: int) -> _State:
        state = self.state
        if self.spot is None:
            return _grown(state, n, self.turn, self.way, self.axis, self.away)
        laid = (n, self.spot[0], self.turn, self.way)
        return _State(state.box, _without(state.free, self.spot, self.turn), (*state.placed, laid))


@dataclass(frozen=True, slots=True)
class _Rules:
    """What keeps a block from where it would fit: what others bear, what must not lie beside it.

    Args:
        apart_by: nm.
    """

    blocks: tuple[Block, ...]
    apart_by: int

    def away(self, state: _State, n: int) -> int:
        """How far from all that is there already a block stands where it must."""
        return self.apart_by if any(other in self.blocks[n].apart for other, *_ in state.placed) else 0

    def allow(self, state: _State, n: int, at: _Spot, turn: _Spot) -> bool:
        """Whether a block may lie there beside what is there already."""
        blocks, mine = self.blocks, self.blocks[n]
        x, y, z = at
        beyond_x, beyond_y = x + turn[0], y + turn[1]
        over = 0  # what lies over the block itself
        under = []
        for other, (a, b, c), (length, width, height), _ in state.placed:
            aside = max(x - a - length, a - beyond_x, y - b - width, b - beyond_y)
            if other in mine.apart and max(aside, z - c - height, c - z - turn[2]) < self.apart_by:
                return False
            if aside < 0:
                if z <= c:
                    over += blocks[other].weight
                elif blocks[other].bears is not None:
                    under.append((other, a, b, c, a + length, b + width))
        if over and mine.bears is not None and over > mine.bears:
            return False
        for lower, a, b, c, beyond_a, beyond_b in under:
            weight = mine.weight + sum(
                blocks[k].weight
                for k, low, reach, _ in state.placed
                if low[2] > c and low[0] < beyond_a and a < low[0] + reach[0]
                and low[1] < beyond_b and b < low[1] + reach[1]
            )  # fmt: skip
            if max(weight, 1) > blocks[lower].bears:  # type: ignore[operator]  # only those that bear so much
                return False
        return True


def _moves(state: _State, n: int, turns: list[tuple[_Spot, _Spot]], rules: _Rules | None) -> list[_Move]:
    if rules is None:
        return _free_moves(state, turns)
    filled = [
        move
        for move in _into_corners(state, turns)
        if move.spot is not None and rules.allow(state, n, move.spot[0], move.turn)
    ]
    if filled:
        return filled
    away = rules.away(state, n)
    grown = []
    for turn, way in turns:
        for axis in (2, 1, 0):
            at = [0, 0, 0]
            at[axis] = state.box[axis] + away
            if rules.allow(state, n, _spot(at), turn):
                grown.append(_Move(state, turn, way, _box_with(state.box, turn, axis, away), None, axis, away))
    return grown


def _into_corners(state: _State, turns: list[tuple[_Spot, _Spot]]) -> list[_Move]:
    return [
        _Move(state, turn, way, state.box, spot)
        for spot in state.free
        for turn, way in turns
        if turn[0] <= spot[1][0] and turn[1] <= spot[1][1] and turn[2] <= spot[1][2]
    ]


def _free_moves(state: _State, turns: list[tuple[_Spot, _Spot]]) -> list[_Move]:
    return _into_corners(state, turns) or [
        _Move(state, turn, way, _box_with(state.box, turn, axis), None, axis)
        for turn, way in turns
        for axis in (2, 1, 0)
    ]


def _box_with(old: _Spot, turn: _Spot, axis: int, away: int = 0) -> _Spot:
    """The box once the block lies against its side along `axis`, or so far away from it."""
    return (
        old[0] + away + turn[0] if axis == 0 else max(old[0], turn[0]),
        old[1] + away + turn[1] if axis == 1 else max(old[1], turn[1]),
        old[2] + away + turn[2] if axis == 2 else max(old[2], turn[2]),
    )


def _turns(size: _Spot, upright: bool) -> list[tuple[_Spot, _Spot]]:
    """The sizes it can have in the box, each once, and which side lies where."""
    found: dict[_Spot, _Spot] = {}
    for way in _STANDING if upright else _TURNS:
        found.setdefault((size[way[0]], size[way[1]], size[way[2]]), way)
    return sorted(found.items())


def _grown(state: _State, n: int, turn: _Spot, way: _Spot, axis: int, away: int) -> _State:
    """The box made longer along `axis` by the block, and wider where the block sticks out."""
    old, box = state.box, list(_box_with(state.box, turn, axis, away))
    at = [0, 0, 0]
    at[axis] = old[axis] + away
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
    return _State(_spot(box), _without((*free, whole), whole, turn), (*state.placed, (n, _spot(at), turn, way)))


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


def _volume(size: _Spot) -> int:
    return size[0] * size[1] * size[2]


def _spot(values: Sequence[int]) -> _Spot:
    return values[0], values[1], values[2]


def _lengths(spot: _Spot) -> Sizes:
    return Length(spot[0]), Length(spot[1]), Length(spot[2])
