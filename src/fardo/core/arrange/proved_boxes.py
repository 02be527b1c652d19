"""A few boxes in the smallest box there is, proved: by an exact solver (OR-Tools CP-SAT), in whole units.

Any two boxes are apart along one of the axes, one before the other; each stands one of its ways. The unit is the
largest in which every size and gap is whole, so nothing is rounded.
"""

from __future__ import annotations

from functools import reduce
from math import gcd, prod

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import Laid, more_than_it_bears
from fardo.core.arrange.boxes import sides_of
from fardo.core.quantity import Length

FEW = 8
_EFFORT = 4.0  # of the solver's own measure, about seconds; the same everywhere, so that answers are
_MOST = 2**60  # what the solver's numbers may come to


def smallest(ask: Ask, most_nm3: int) -> Arrangement | None:
    """The smallest box of less than `most_nm3`, or an arrangement in the box that is there.

    None where there is none, or where the solver did not come to an end in its time.
    """
    from ortools.sat.python import cp_model

    numbers = range(len(ask.bodies))
    sides = [sides_of(body) for body in ask.bodies]
    room = [[ask.room(i, j).nm for j in numbers] for i in numbers]
    lengths = [nm for ways in sides for side in ways for nm in (*side.sizes, *side.before, *side.beyond)]
    lengths += [nm for row in room for nm in row]
    unit = reduce(gcd, lengths)
    longest = sum(max(max(side.sizes) + max(side.before) + max(side.beyond) for side in ways) for ways in sides) // unit
    if 4 * longest**4 > _MOST:
        return None
    model = cp_model.CpModel()
    most = [longest] * 3 if ask.inside is None else [side.nm // unit for side in ask.inside]
    box = [model.new_int_var(0, side, "") for side in most]
    low = [[model.new_int_var(0, max(most), "") for _ in range(3)] for _ in numbers]
    size = []
    way = []
    for n in numbers:
        chosen = model.new_int_var(0, len(sides[n]) - 1, "")
        own = [model.new_int_var(0, longest, "") for _ in range(3)]
        gaps = [model.new_int_var(0, longest, "") for _ in range(6)]
        rows = [
            [k, *(nm // unit for nm in (*side.sizes, *side.before, *side.beyond))] for k, side in enumerate(sides[n])
        ]
        model.add_allowed_assignments([chosen, *own, *gaps], rows)
        way.append(chosen)
        size.append(own)
        for axis in range(3):
            model.add(low[n][axis] >= gaps[axis])
            model.add(low[n][axis] + own[axis] + gaps[3 + axis] <= box[axis])
    for i in numbers:
        for j in numbers[:i]:
            apart = []
            for before, after in ((i, j), (j, i)):
                for axis in range(3):
                    if axis == 2 and more_than_it_bears(ask.bodies[before], ask.bodies[after]):
                        continue
                    said = model.new_bool_var("")
                    model.add(
                        low[before][axis] + size[before][axis] + room[i][j] // unit <= low[after][axis]
                    ).only_enforce_if(said)
                    apart.append(said)
            model.add_bool_or(apart)
    if ask.inside is None:
        least = sum(prod(nm // unit for nm in ways[0].sizes) for ways in sides)
        flat, volume = model.new_int_var(0, longest**2, ""), model.new_int_var(least, most_nm3 // unit**3, "")
        model.add_multiplication_equality(flat, [box[0], box[1]])
        model.add_multiplication_equality(volume, [flat, box[2]])
        model.add(box[0] >= box[1])
        up_and_down = all(body.gap.below is None and body.gap.above is None for body in ask.bodies)
        if up_and_down and all(len(body.turns) == 24 and body.bears is None for body in ask.bodies):
            model.add(box[1] >= box[2])
        # Of boxes of equal room the one with the least sum of sides.
        model.minimize(volume * (3 * longest + 1) + sum(box))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = ask.seed
    solver.parameters.max_deterministic_time = _EFFORT
    if solver.solve(model) not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    laid = []
    for n in numbers:
        a, b, c = (Length(solver.value(value) * unit) for value in low[n])
        laid.append(Laid(sides[n][solver.value(way[n])].turn, (a, b, c)))
    a, b, c = (Length(solver.value(side) * unit) for side in box)
    inside = (a, b, c) if ask.inside is None else ask.inside
    return Arrangement(inside, tuple(laid), tuple(sorted(numbers, key=lambda n: (laid[n].at[2].nm, n))))
