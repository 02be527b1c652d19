"""An arrangement built thing by thing on a grid: each goes where the box grows least, turned as it fits best there."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

import numpy as np

from fardo.core.arrange.body import Body, more_than_it_bears
from fardo.core.arrange.nofit import ABOVE, BELOW, TAKEN, Cells, NoFit, NoFits, Posed
from fardo.core.arrange.turn import is_square
from fardo.core.goods.shape.cover import Floats


@dataclass(frozen=True, slots=True)
class Aim:
    """What is wanted of a box.

    Args:
        target: sides up to which the box may grow for nothing, mm.
        stretch: by how much more than its share of the volume a side costs.
        slim: how much a side costs beside its share of the volume, for each `size` of it, mm.
        pull: what the same length nearer to the corner is worth, where the box is the same.
        noise: by how much one way to stand may be taken as better than it is, so that starts differ.
        ways: how many ways to stand along the axes are looked at.
        slants: how many slantwise.
    """

    size: float
    target: tuple[float, float, float] = (0.0, 0.0, 0.0)
    stretch: tuple[float, float, float] = (1.0, 1.0, 1.0)
    slim: float = 0.05
    pull: float = 0.005
    noise: float = 0.0
    ways: int = 8
    slants: int = 0

    def cost(self, axis: int, sides: Floats) -> Floats:
        """Of a side, mm: the sum over the three is the logarithm of the volume, and what long sides cost beside it."""
        counted = np.maximum(sides, self.target[axis])
        found: Floats = self.stretch[axis] * np.log(counted) + self.slim * counted / self.size
        return found


@dataclass(slots=True)
class Standing:
    """A body where it was put: which, how it is turned, the place of its cells."""

    which: int
    posed: Posed
    place: tuple[int, int, int]


@dataclass(slots=True)
class Built:
    """An arrangement as it is built up, thing by thing.

    Args:
        sides: of the box that holds them with their gaps, mm.
        left_out: for which there was no place.
    """

    standing: list[Standing]
    sides: tuple[float, float, float]
    left_out: list[int]


class Ground:
    """The grid on which it is built, and which stances there are.

    Args:
        bodies: all there are. kinds: of each, the number of the first that is like it.
        stances: of each, how it may stand.
        room: kept between two of them, by their numbers, mm.
    """

    def __init__(
        self,
        bodies: Sequence[Body],
        stances: Sequence[Sequence[Posed]],
        room: Sequence[Sequence[float]],
        nofits: NoFits,
    ) -> None:
        self.bodies, self.stances, self.room, self.nofits = bodies, stances, room, nofits
        self.kinds = [list(bodies).index(body) for body in bodies]

    def build(
        self, order: Sequence[int], aim: Aim, limit: tuple[float, float, float], random: np.random.Generator,
        standing: Sequence[Standing] = (), turns: Mapping[int, Collection[int]] = MappingProxyType({}),
    ) -> Built:  # fmt: skip
        """Each in that order, inside sides of `limit` mm, beside those that stand already; those for which there is no
        place are left out.

        Args:
            turns: of each kind, by number, ways to stand that are looked at before those drawn.
        """
        work = _Work(self, aim, limit, random, turns)
        left = [n for n in order if all(n != stood.which for stood in standing)]
        for stood in standing:
            work.add(stood, left)
        left_out: list[int] = []
        while left:
            which = left.pop(0)
            place = work.best_place(which)
            if place is None:
                left_out.append(which)
            else:
                work.add(place, left)
        return Built(work.standing, work.sides, left_out)


class _Work:
    """One arrangement as it grows."""

    def __init__(
        self, ground: Ground, aim: Aim, limit: tuple[float, float, float], random: np.random.Generator,
        turns: Mapping[int, Collection[int]],
    ) -> None:  # fmt: skip
        self.ground, self.aim, self.limit, self.random = ground, aim, limit, random
        self.step = ground.nofits.step
        self.standing: list[Standing] = []
        self.sides = (0.0, 0.0, 0.0)
        self._taken: dict[tuple[int, int], Cells] = {}
        self._most_room = max((max(row) for row in ground.room), default=0.0)
        self.shown = {kind: self._some(ground.stances[kind], turns.get(kind, ())) for kind in sorted(set(ground.kinds))}

    def _some(self, stances: Sequence[Posed], known: Collection[int]) -> list[int]:
        """Of many ways to stand those known and a few more, other ones each time."""
        others = [n for n in range(len(stances)) if n not in known]
        square = [n for n in others if is_square(stances[n].pose)]
        slanted = [n for n in others if not is_square(stances[n].pose)]
        ways = max(1, self.aim.ways - len(known))
        return sorted([*known, *self._drawn(square, ways), *self._drawn(slanted, self.aim.slants)])

    def _drawn(self, numbers: list[int], count: int) -> list[int]:
        if len(numbers) <= count:
            return numbers
        return [int(n) for n in self.random.choice(numbers, count, replace=False)]

    def add(self, stood: Standing, left: Sequence[int]) -> None:
        """Puts it there, and marks for all that is left where it cannot stand any more."""
        self.standing.append(stood)
        posed = stood.posed
        far = [
            place * self.step + (cells * self.step + side) / 2 + gap.mm
            for place, cells, side, gap in zip(stood.place, posed.cells, posed.sizes, posed.stance.beyond, strict=True)
        ]
        self.sides = tuple(max(old, new) for old, new in zip(self.sides, far, strict=True))  # type: ignore[assignment]
        kinds = self.ground.kinds
        for kind in sorted({kinds[n] for n in left}):
            room = self.ground.room[kind][stood.which]
            for s in self.shown[kind]:
                other = self.ground.stances[kind][s]
                taken = self._taken_of(kind, s)
                if taken.size:
                    self._mark(taken, other, posed, stood.place, room)

    def _mark(self, taken: Cells, other: Posed, posed: Posed, place: tuple[int, int, int], room: float) -> None:
        nofit = self.ground.nofits.of(other, posed, room)
        into, out_of = [], []
        for axis in range(3):
            start = place[axis] + nofit.first[axis] - self._first(other, axis)
            stop = start + nofit.codes.shape[axis]
            low, high = max(start, 0), min(stop, taken.shape[axis])
            if low >= high and axis < 2:
                return
            into.append(slice(low, high))
            out_of.append(slice(low - start, high - start))
        x, y, z = into
        if z.start < z.stop:
            taken[x, y, z] |= (nofit.codes[tuple(out_of)] & TAKEN).view(np.bool_)
        if more_than_it_bears(posed.body, other.body):
            self._keep_off(taken, nofit, into, out_of, above=True)
        if more_than_it_bears(other.body, posed.body):
            self._keep_off(taken, nofit, into, out_of, above=False)

    def _keep_off(self, taken: Cells, nofit: NoFit, into: list[slice], out_of: list[slice], above: bool) -> None:
        """Over (or under) what stands there is taken too, all the way."""
        x, y, z = into
        if z.start < z.stop:
            taken[x, y, z] |= (nofit.above if above else nofit.below)[tuple(out_of)]
        column = np.logical_or.reduce(nofit.taken, axis=2)[tuple(out_of[:2])]
        beyond = slice(max(z.stop, 0), None) if above else slice(0, max(z.start, 0))
        taken[x, y, beyond] |= column[:, :, None]

    def _spare(self, posed: Posed, axis: int) -> float:
        return float((posed.cells[axis] * self.step - posed.sizes[axis]) / 2)

    def _first(self, posed: Posed, axis: int) -> int:
        """The first place that keeps its gap to the wall."""
        return int(np.ceil((posed.stance.before[axis].mm - self._spare(posed, axis)) / self.step - 1e-6))

    def _taken_of(self, kind: int, s: int) -> Cells:
        """What is taken for a stance of a kind; empty where it cannot stand in the box at all."""
        found = self._taken.get((kind, s))
        if found is None:
            posed = self.ground.stances[kind][s]
            counts = []
            for axis in range(3):
                most = self.limit[axis] - posed.stance.beyond[axis].mm - posed.sizes[axis] - self._spare(posed, axis)
                counts.append(max(0, int(np.floor(most / self.step + 1e-6)) - self._first(posed, axis) + 1))
            found = np.zeros(counts, dtype=bool)
            self._taken[kind, s] = found
        return found

    def best_place(self, which: int) -> Standing | None:
        kind = self.ground.kinds[which]
        best: tuple[float, int, tuple[int, int, int]] | None = None
        for s in self.shown[kind]:
            posed = self.ground.stances[kind][s]
            taken = self._taken_of(kind, s)
            if not taken.size:
                continue
            along = []
            for axis in range(3):
                first, spare = self._first(posed, axis), self._spare(posed, axis)
                # Beyond what stands there already, one place beside it is as good as any.
                beyond = int(np.ceil((self.sides[axis] + self._most_room) / self.step)) + 1 - first
                low = (np.arange(min(taken.shape[axis], max(1, beyond))) + first) * self.step + spare
                side = posed.sizes[axis]
                reach = np.maximum(low + side + posed.stance.beyond[axis].mm, self.sides[axis])
                cost = self.aim.cost(axis, reach) + (low + side / 2) * (self.aim.pull / self.aim.size)
                along.append(cost.astype(np.float32))
            x, y, z = along
            score = (x[:, None] + y[None, :])[:, :, None] + z[None, None, :]
            if self.aim.noise:
                score += np.float32(self.aim.noise * self.random.random())
            np.copyto(score, np.inf, where=taken[: len(x), : len(y), : len(z)])
            at = int(score.argmin())
            value = float(score.flat[at])
            if np.isfinite(value) and (best is None or value < best[0]):
                spot = np.unravel_index(at, score.shape)
                i, j, k = (int(n) + self._first(posed, axis) for axis, n in enumerate(spot))
                best = (value, s, (i, j, k))
        if best is None:
            return None
        _, s, place = best
        return Standing(which, self.ground.stances[kind][s], place)


def order_in(ground: Ground, built: Built) -> list[int] | None:
    """The order in which they can be let down from above, the lowest first where it is free; as places in
    `built.standing`. None where they lock each other.
    """
    stood = built.standing
    before: list[set[int]] = [set() for _ in stood]
    for i, one in enumerate(stood):
        for j, other in enumerate(stood[:i]):
            room = ground.room[one.which][other.which]
            nofit = ground.nofits.of(one.posed, other.posed, room)
            spot = tuple(a - b - first for a, b, first in zip(one.place, other.place, nofit.first, strict=True))
            if any(s < 0 or s >= n for s, n in zip(spot[:2], nofit.codes.shape[:2], strict=True)):
                continue
            column = spot[:2]
            height = spot[2]
            if height >= nofit.codes.shape[2]:
                over, under = bool(nofit.taken[column].any()), False
            elif height < 0:
                over, under = False, bool(nofit.taken[column].any())
            else:
                over, under = nofit.codes[spot] == ABOVE, nofit.codes[spot] == BELOW
            if over:
                before[i].add(j)
            if under:
                before[j].add(i)
    order: list[int] = []
    left = set(range(len(stood)))
    while left:
        free = [n for n in left if not before[n] & left]
        if not free:
            return None
        order.append(min(free, key=lambda n: (stood[n].place[2], n)))
        left.discard(order[-1])
    return order
