"""The compiled loops against the same worked out otherwise: a linear program, and every place tried one by one."""

from __future__ import annotations

from itertools import product

import numpy as np
import pytest
from scipy.optimize import linprog

from fardo.core.arrange.apart import Pairs, best_direction, side_by_side
from fardo.core.arrange.compiled import best_spot
from fardo.core.arrange.compiled_blocks import _split
from fardo.core.goods.shape.cover import Convex, corners

RANDOM = np.random.default_rng(18)


def cloud(count: int, at: tuple[float, float, float]) -> Convex:
    return corners(RANDOM.normal(size=(count, 3)) * 20 + np.array(at))


def distance(a: Convex, b: Convex) -> float:
    """Of two hulls: the widest slab between them, by small steps of a linear program over directions in a box; scaled
    to length 1 it is a lower bound, and at the best direction the distance itself.
    """
    best = 0.0
    for axis, sign in product(range(3), (1.0, -1.0)):
        # n.x of a is at least s, of b at most t; n's coordinate along the axis is 1.
        rows = [[*(-point), 1.0, 0.0] for point in a.points] + [[*point, 0.0, -1.0] for point in b.points]
        bounds = [(-1.0, 1.0)] * 3 + [(None, None)] * 2
        bounds[axis] = (sign, sign)
        found = linprog([0, 0, 0, -1, 1], A_ub=rows, b_ub=[0.0] * len(rows), bounds=bounds)
        if found.status == 0:
            best = max(best, -found.fun / float(np.linalg.norm(found.x[:3])))
    return best


@pytest.mark.parametrize("count", [4, 9, 40])
def test_no_direction_a_linear_program_finds_parts_two_hulls_more(count: int) -> None:
    for _ in range(10):
        a, b = cloud(count, (150.0, 40.0, 60.0)), cloud(count, (0.0, 0.0, 0.0))
        pairs = Pairs(side_by_side([[a], [b]]), np.array([0]), np.array([1]), np.zeros((1, 3)))
        directions, apart = best_direction(pairs, np.array([np.inf]))
        # It is what it says: every point of the one lies so far beyond every point of the other.
        assert np.linalg.norm(directions[0]) == pytest.approx(1)
        assert (a.points @ directions[0]).min() - (b.points @ directions[0]).max() == pytest.approx(apart[0])
        assert apart[0] >= distance(a, b) - 0.03


def test_the_best_spot_is_the_best_of_all_tried_one_by_one() -> None:
    for _ in range(60):
        laid = RANDOM.integers(1, 6)
        low = RANDOM.integers(0, 40, (laid, 3)) * 10**6
        high = low + RANDOM.integers(5, 30, (laid, 3)) * 10**6
        room = RANDOM.integers(0, 3, laid) * 10**6
        spots = RANDOM.integers(0, 70, (30, 3)) * 10**6
        sizes = RANDOM.integers(5, 25, (3, 3)) * 10**6
        before, beyond = np.full((3, 3), 10**6), np.full((3, 3), 2 * 10**6)
        over, under = RANDOM.random(laid) < 0.3, RANDOM.random(laid) < 0.3
        grown, limit = high.max(axis=0), np.full(3, 80 * 10**6)
        target, stretch, noise = np.zeros(3), np.ones(3), np.zeros(3)
        found = best_spot(spots, sizes, before, beyond, low, high, room, over, under, grown, limit, target, stretch,
                          0.001, 0.0005, noise)  # fmt: skip
        scores: dict[tuple[int, int], float] = {}
        for s, k in product(range(3), range(30)):
            corner, end = spots[k], spots[k] + sizes[s]
            if (corner < before[s]).any() or (end + beyond[s] > limit).any():
                continue
            meets = False
            for n in range(laid):
                apart = (corner >= high[n] + room[n]) | (end + room[n] <= low[n])
                level = not apart[:2].any()
                meets |= not apart.any()
                meets |= bool(over[n] and level and corner[2] >= high[n, 2])
                meets |= bool(under[n] and level and end[2] <= low[n, 2])
            if not meets:
                reach = np.maximum(end + beyond[s], grown) / 1e6
                scores[s, k] = float((np.log(reach) + 0.001 * reach + (corner + end) / 2e6 * 0.0005).sum())
        if not scores:
            assert found == (-1, -1)
        else:
            assert scores[found] == pytest.approx(min(scores.values()))


def test_what_is_left_of_spaces_is_kept_once_and_the_largest_of_it() -> None:
    """A block over half of two equal spaces and of one within them leaves the other half, once."""
    spaces = np.zeros((20, 6), dtype=np.int64)
    spaces[:3] = [[0, 0, 0, 10, 10, 10], [0, 0, 0, 10, 10, 10], [0, 0, 0, 10, 6, 10]]
    least = np.ones(3, dtype=np.int64)
    left = _split(spaces, 3, np.array([0, 0, 0]), np.array([4, 10, 10]), least)
    assert spaces[:left].tolist() == [[4, 0, 0, 10, 10, 10]]
    # Of equal ones the first is kept, so that their order stays what it was.
    spaces[:3] = [[0, 0, 0, 10, 10, 10], [0, 0, 0, 10, 6, 20], [0, 0, 0, 10, 10, 10]]
    left = _split(spaces, 3, np.array([0, 0, 0]), np.array([4, 10, 20]), least)
    assert spaces[:left].tolist() == [[4, 0, 0, 10, 10, 10], [4, 0, 0, 10, 6, 20]]
    # A space that it does not touch stays, and what is too narrow for anything is dropped.
    spaces[:2] = [[0, 0, 0, 10, 10, 10], [12, 0, 0, 20, 10, 10]]
    left = _split(spaces, 2, np.array([0, 0, 0]), np.array([10, 8, 10]), np.array([3, 3, 3]))
    assert spaces[:left].tolist() == [[12, 0, 0, 20, 10, 10]]
