"""Boxes only: against published smallest boxes, and against an exact solver asked whether there is a smaller one.

Open-dimension packing: Tsai & Li (2006), values from memory and proved again here. Solver: OR-Tools CP-SAT, with a
model of its own: the three sides are tried one by one, and the boxes placed in each by interval scheduling along every
axis.
"""

from __future__ import annotations

from itertools import permutations, product

import numpy as np
import pytest
from ortools.sat.python import cp_model

from fardo.core.arrange.ask import Ask
from fardo.core.arrange.body import Body
from fardo.core.arrange.search import SearchState, improve
from fardo.core.goods.shape import Box
from fardo.core.quantity import INCH
from tests.arrangement_checked import faults

Sides = tuple[int, int, int]

SETS = 20


def ask_for(boxes: list[Sides]) -> Ask:
    return Ask(tuple(Body(f"box {n}", Box(*(INCH * side for side in box))) for n, box in enumerate(boxes)))


def smallest_found(boxes: list[Sides], rounds: int = 2) -> list[int]:
    """The sides in inches of the smallest box found, largest first."""
    ask = ask_for(boxes)
    answer = min((one.answer for one in improve(ask, SearchState(), rounds).found), key=lambda answer: answer.room_nm3)
    assert faults(ask, answer) == []
    assert list(answer.inside) == sorted(answer.inside, reverse=True)  # what may lie any way up lies lowest
    assert all(side.nm % INCH.nm == 0 for side in answer.inside)
    return sorted((side.nm // INCH.nm for side in answer.inside), reverse=True)


def fits(boxes: list[Sides], box: Sides) -> bool:
    """Whether they go into a box of that size, each turned as it likes."""
    model = cp_model.CpModel()
    low, size = [], []
    for sides in boxes:
        own = [model.new_int_var(1, max(sides), "") for _ in range(3)]
        model.add_allowed_assignments(own, sorted(set(permutations(sides))))
        low.append([model.new_int_var(0, side, "") for side in box])
        size.append(own)
        for axis in range(3):
            model.add(low[-1][axis] + own[axis] <= box[axis])
    for i, j in product(range(len(boxes)), repeat=2):
        if i < j:
            said = []
            for (a, b), axis in product(((i, j), (j, i)), range(3)):
                before = model.new_bool_var("")
                model.add(low[a][axis] + size[a][axis] <= low[b][axis]).only_enforce_if(before)
                said.append(before)
            model.add_at_least_one(said)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    status = solver.solve(model)
    assert status in (cp_model.OPTIMAL, cp_model.FEASIBLE, cp_model.INFEASIBLE)
    return status != cp_model.INFEASIBLE


def normal_sides(boxes: list[Sides]) -> list[int]:
    """Lengths that some boxes laid end to end come to: no side of a smallest box is any other."""
    sums = {0}
    for sides in boxes:
        sums |= {total + side for total in sums for side in sides}
    return sorted(sums - {0})


def smaller_boxes(boxes: list[Sides], volume: int) -> list[Sides]:
    """Every box below a volume that is not ruled out at sight."""
    least = sum(a * b * c for a, b, c in boxes)
    shortest = max(min(sides) for sides in boxes)
    sides = [side for side in normal_sides(boxes) if side >= shortest]
    longest = max(max(sides_of) for sides_of in boxes)
    found = []
    for c in sides:
        for b in (side for side in sides if side >= c):
            if c * b * b >= volume:
                break
            for a in (side for side in sides if side >= max(b, longest)):
                if a * b * c >= volume:
                    break
                if a * b * c >= least:
                    found.append((a, b, c))
    # A box within another needs no trial of its own.
    return [
        one for one in found if not any(o != one and all(x >= y for x, y in zip(o, one, strict=True)) for o in found)
    ]


FOUR = [(25, 8, 6), (20, 10, 5), (16, 7, 3), (15, 12, 6)]


@pytest.mark.parametrize(
    ("boxes", "sides"), [(FOUR, [28, 26, 6]), ([*FOUR, (22, 8, 3)], [30, 28, 6])], ids=["four", "five"]
)
def test_the_published_smallest_boxes_are_found(boxes: list[Sides], sides: list[int]) -> None:
    assert smallest_found(boxes) == sides
    assert fits(boxes, (sides[0], sides[1], sides[2]))


def test_nine_of_ten_random_sets_of_up_to_seven_boxes_are_packed_in_the_smallest_there_is() -> None:
    random = np.random.default_rng(2026)
    met = 0
    for _ in range(SETS):
        count = int(random.integers(3, 8))
        boxes = [tuple(int(side) for side in random.integers(2, 11, 3)) for _ in range(count)]
        a, b, c = smallest_found(boxes)
        if not any(fits(boxes, smaller) for smaller in smaller_boxes(boxes, a * b * c)):
            met += 1
            continue
        assert not any(fits(boxes, smaller) for smaller in smaller_boxes(boxes, int(a * b * c / 1.03)))
    assert met >= SETS * 9 // 10
