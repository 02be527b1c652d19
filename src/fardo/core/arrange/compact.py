"""Everything pressed together without half a cell paid for: positions that are exact, with the proof for every pair.

For each two things that are near each other, every two of their convex pieces have a direction along which their gap
is kept. With those directions held, how far each thing may go is a matter of straight lines, and the smallest box a
linear program; then the directions are looked for anew where things now lie, until nothing is gained. No step ever
breaks a gap, as a direction proves it wherever the two are moved. The order in which things go in is kept the same
way: what goes in later is only held by directions that do not point down, so it can always be lifted straight out.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from fardo.core.arrange.apart import Ints, Pairs, Pieces, best_direction, side_by_side
from fardo.core.arrange.body import Body, Stance, more_than_it_bears, pieces_of
from fardo.core.goods.shape.cover import Floats

_NEAR = 15.0  # mm: nearer than that beyond what is kept, things are told apart piece by piece
_ROUNDS = 8
_GAIN = 0.1  # mm
_PULL = 1e-4
SNAP = 1e-3  # mm: nearer than that to touching is touching


@dataclass(frozen=True, slots=True, eq=False)
class Separations:
    """What holds things apart: along `directions` thing `a` is at least `least` mm further than thing `b`.

    Args:
        a, b: (k,) ints.
        directions: (k, 3).
        least: (k,) mm.
    """

    a: Ints
    b: Ints
    directions: Floats
    least: Floats


class Compactor:
    """Presses an arrangement together, every pair kept apart along a direction.

    Args:
        bodies: in the order in which they go in.
        stances: how each is turned.
        room: kept between two of them, (n, n) mm.
    """

    def __init__(self, bodies: Sequence[Body], stances: Sequence[Stance], room: Floats) -> None:
        self.bodies, self.room = bodies, room
        self.count = len(bodies)
        self.sizes = np.array([[side.mm for side in stood.sizes] for stood in stances])
        self.stances = stances
        self.before = np.array([[gap.mm for gap in stood.before] for stood in stances])
        self.beyond = np.array([[gap.mm for gap in stood.beyond] for stood in stances])
        self.round = np.array([body.round for body in bodies])
        covers = [pieces_of(body.shape, body.grown, body.held) for body in bodies]
        self.pieces: Pieces = side_by_side(
            [
                [piece.moved(stood.turn, [c.mm for c in stood.inset]) for piece in cover]
                for cover, stood in zip(covers, stances, strict=True)
            ]
        )
        count = len(self.pieces.owner)
        self._known = np.full((count, count, 3), np.nan)
        self.of = [np.flatnonzero(self.pieces.owner == n) for n in range(self.count)]
        self.level = np.array([[more_than_it_bears(lower, upper) for lower in bodies] for upper in bodies])
        pairs = [(i, j) for i in range(self.count) for j in range(i)]
        self.later = np.array([i for i, _ in pairs], dtype=int)
        self.earlier = np.array([j for _, j in pairs], dtype=int)

    def rows(self, at: Floats) -> Separations:
        """What holds each two apart as they lie at lowest corners `at` (n, 3)."""
        i, j = self.later, self.earlier
        room = self.room[i, j]
        # Boxes first: along which axis are they furthest apart? Never down.
        ahead = at[i] - at[j] - self.sizes[j]
        behind = at[j] - at[i] - self.sizes[i]
        behind[:, 2] = -np.inf
        ahead[self.level[i, j], 2] = -np.inf
        sides = np.concatenate([ahead, behind], axis=1)
        best = sides.argmax(axis=1)
        how_far = sides[np.arange(len(i)), best]
        far = how_far >= room + _NEAR
        boxes = self._box_rows(i[far], j[far], best[far], room[far])
        blocks = np.array([body.is_block and body.round == 0 for body in self.bodies])
        straight = ~far & blocks[i] & blocks[j] & (how_far >= room - SNAP)
        boxes_too = self._box_rows(i[straight], j[straight], best[straight], room[straight])
        near = np.flatnonzero(~far & ~straight)
        pieces = self._piece_rows(at, i[near], j[near], room[near])
        return _joined([boxes, boxes_too, pieces])

    def _box_rows(self, i: Ints, j: Ints, side: Ints, room: Floats) -> Separations:
        axis, sign = side % 3, np.where(side < 3, 1.0, -1.0)
        directions = np.zeros((len(i), 3))
        directions[np.arange(len(i)), axis] = sign
        least = room + np.where(side < 3, self.sizes[j, axis], self.sizes[i, axis])
        return Separations(i, j, directions, least)

    def _piece_rows(self, at: Floats, i: Ints, j: Ints, room: Floats) -> Separations:
        if not len(i):
            return _NO_ROWS
        a = np.concatenate([np.repeat(self.of[m], len(self.of[n])) for m, n in zip(i, j, strict=True)])
        b = np.concatenate([np.tile(self.of[n], len(self.of[m])) for m, n in zip(i, j, strict=True)])
        own_a, own_b = self.pieces.owner[a], self.pieces.owner[b]
        shift = at[own_a] - at[own_b]
        keep = np.repeat(room, [len(self.of[m]) * len(self.of[n]) for m, n in zip(i, j, strict=True)])
        keep = keep + self.round[own_a] + self.round[own_b]
        pairs = Pairs(self.pieces, a, b, shift)
        directions, apart = best_direction(pairs, keep + _NEAR, self._known[a, b], self.level[own_a, own_b])
        self._known[a, b] = directions
        least = keep - apart + np.einsum("ki,ki->k", directions, shift)
        return _tightest(Separations(own_a, own_b, directions, least))

    def slack(self, at: Floats) -> Floats:
        """Of each row how much more there is than must be, mm."""
        rows = self.rows(at)
        found: Floats = np.einsum("ki,ki->k", rows.directions, at[rows.a] - at[rows.b]) - rows.least
        return found

    def settle(
        self,
        at: Floats,
        cost_of: Callable[[Floats], Floats],
        locked: Sequence[int] = (),
        within: Sequence[int] = (),
        least: Sequence[float] = (0.0, 0.0, 0.0),
        hopeless: Callable[[Floats], bool] = lambda _: False,
    ) -> tuple[Floats, Floats] | None:
        """Pressed together from where they lie: lowest corners and sides of the box, mm; None where it cannot be.

        Args:
            cost_of: of sides (3,), what a millimetre of each costs.
            locked: the things that stay where they are.
            within: those drawn to the middle of length and width, where that costs nothing.
            least: sides no box is smaller than, mm.
            hopeless: of sides, whether to press on from there is not worth it; None then too.
        """
        sides = (at + self.sizes + self.beyond).max(axis=0)
        weight = np.array([body.weight.grams for body in self.bodies])
        heavy = weight / weight.sum() if weight.sum() else np.full(self.count, 1 / self.count)
        for _ in range(_ROUNDS):
            found = self._press(self.rows(at), cost_of(sides), heavy, at, locked, within, least)
            if found is None:
                return None
            new, new_sides = found
            gained = float((cost_of(sides) / cost_of(sides).max()) @ (sides - new_sides))
            moved = float(np.abs(new - at).max())
            at, sides = new, new_sides
            if hopeless(sides):
                return None
            if gained < _GAIN and moved < 1.0:
                break
        return at, sides

    def _press(
        self,
        rows: Separations,
        cost: Floats,
        heavy: Floats,
        at: Floats,
        locked: Sequence[int],
        within: Sequence[int],
        least: Sequence[float],
    ) -> tuple[Floats, Floats] | None:
        n, k = self.count, len(rows.a)
        number = np.arange(k)
        # -(n.t_a - n.t_b) <= -least, then t + size + gap - side <= 0.
        row = np.concatenate([np.repeat(number, 3), np.repeat(number, 3)])
        column = np.concatenate(
            [(rows.a[:, None] * 3 + np.arange(3)).ravel(), (rows.b[:, None] * 3 + np.arange(3)).ravel()]
        )
        value = np.concatenate([-rows.directions.ravel(), rows.directions.ravel()])
        wall = np.arange(3 * n)
        # How far the middle of what is drawn within lies from that of the box, both ways: one more unknown each.
        inner = np.array([3 * m + axis for m in within for axis in (0, 1)], dtype=int)
        off = np.arange(len(inner))
        after = k + 3 * n
        row = np.concatenate([row, k + wall, k + wall])
        column = np.concatenate([column, wall, 3 * n + wall % 3])
        value = np.concatenate([value, np.ones(3 * n), -np.ones(3 * n)])
        half = self.sizes.ravel()[inner] / 2
        for sign, start in ((1.0, after), (-1.0, after + len(inner))):
            row = np.concatenate([row, start + off, start + off, start + off])
            column = np.concatenate([column, inner, 3 * n + inner % 3, 3 * n + 3 + off])
            value = np.concatenate(
                [value, np.full(len(inner), sign), np.full(len(inner), -sign / 2), -np.ones(len(inner))]
            )
        most = np.concatenate([-rows.least, -(self.sizes + self.beyond).ravel(), -half, half])
        pull = np.tile([_PULL, _PULL, _PULL], (n, 1)) / n
        pull[:, 2] += _PULL * heavy
        pull.ravel()[inner] = 0.0
        aim = np.concatenate([(pull * cost.max()).ravel(), cost, np.full(len(inner), _PULL / n * cost.max())])
        bounds: list[tuple[float, float | None]] = [(float(gap), None) for gap in self.before.ravel()]
        for m in locked:
            bounds[3 * m : 3 * m + 3] = [(float(c), float(c)) for c in at[m]]
        bounds += [*((float(side), None) for side in least), *[(0.0, None)] * len(inner)]
        # They take a third of a second to load; what only prices or cuts never needs them.
        from scipy.optimize import linprog
        from scipy.sparse import csr_array

        table = csr_array((value, (row, column)), shape=(after + 2 * len(inner), 3 * n + 3 + len(inner)))
        answer = linprog(aim, A_ub=table, b_ub=most, bounds=bounds, method="highs")
        if answer.status != 0:
            return None
        found = np.asarray(answer.x)
        return found[: 3 * n].reshape(n, 3), found[3 * n : 3 * n + 3]


# One figure for a direction and its two: equal ones are equal, and where others are too nothing is taken for one.
_PRIMES = np.array([1.0, 1.7320508075688772, 2.6457513110645907])
_FAR, _FARTHER = 7.0, 1777.0
_NO_ROWS = Separations(np.zeros(0, int), np.zeros(0, int), np.zeros((0, 3)), np.zeros(0))


def _joined(parts: Sequence[Separations]) -> Separations:
    return Separations(
        np.concatenate([part.a for part in parts]),
        np.concatenate([part.b for part in parts]),
        np.concatenate([part.directions for part in parts]),
        np.concatenate([part.least for part in parts]),
    )


def _tightest(rows: Separations) -> Separations:
    """Of rows between the same two along the same direction only the one that asks most."""
    # Sorted so that those of one two and direction follow each other, the one that asks most first.
    along = np.round(rows.directions, 9)
    keys = (along * _PRIMES).sum(axis=1) + rows.a * _FAR + rows.b * _FARTHER
    order = np.lexsort((-rows.least, keys))
    a, b, along = rows.a[order], rows.b[order], along[order]
    differs = (a[1:] != a[:-1]) | (b[1:] != b[:-1]) | (along[1:] != along[:-1]).any(axis=1)
    first = order[np.concatenate([[True], differs])]
    return Separations(rows.a[first], rows.b[first], rows.directions[first], rows.least[first])
