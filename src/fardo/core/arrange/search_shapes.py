"""Rounds of a search among true shapes: built on the grid or begun from the boxes around the things, then pressed."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np

from fardo.core.arrange.ask import Arrangement, Ask, proportion_of
from fardo.core.arrange.body import Body, Laid, Stance, stance, with_gap
from fardo.core.arrange.boxes import BoxGround
from fardo.core.arrange.build import Ground, Standing, order_in
from fardo.core.arrange.compact import Compactor
from fardo.core.arrange.cost import TOLERANCE, arrangement_cost, bulk, is_fragile, slopes
from fardo.core.arrange.exact import snapped
from fardo.core.arrange.load_on_top import overloaded
from fardo.core.arrange.manual import smallest_around
from fardo.core.arrange.nofit import NoFits, Posed, posed, solid_cells
from fardo.core.arrange.search_boxes import BoxStart, packed_as_boxes, room_of
from fardo.core.arrange.search_start import plan
from fardo.core.arrange.search_state import Found, SearchState
from fardo.core.arrange.turn import UNTURNED, Rotation, about, carried
from fardo.core.goods.shape.cover import Floats
from fardo.core.quantity import ZERO

_CELLS = 12_000  # in the room all things take together
_SLANTS = (30.0, 45.0, 60.0)
_SLENDER = 2.5  # so much longer than wide: it may lie slantwise
_PROMISING = 0.25  # the share of what is built that is pressed together
_REMEMBERED = 40
_BOXES_EVERY = 4  # one round in so many begins from the boxes around the things
_PRESSES_TO = 0.9  # pressing on from there never took more off
_ANYWHERE = Laid(UNTURNED, (ZERO, ZERO, ZERO))


@dataclass(frozen=True, eq=False)
class Grid:
    """What the rounds of an ask share. The grid is made when the first of them builds on it, as one that begins from
    boxes is sooner done.
    """

    ask: Ask

    @cached_property
    def size(self) -> float:
        """Of a cube as large as all things, mm."""
        side: float = room_of(self.ask) ** (1 / 3)
        return side

    @cached_property
    def longest(self) -> float:
        return max(
            max(side.mm for side in with_gap(stance(body, turn))) for body in self.ask.bodies for turn in body.turns
        )

    @cached_property
    def room(self) -> list[list[float]]:
        count = range(len(self.ask.bodies))
        return [[self.ask.room(i, j).mm for j in count] for i in count]

    @cached_property
    def boxes(self) -> BoxStart:
        return BoxStart(BoxGround(self.ask), self.size)

    @cached_property
    def ground(self) -> Ground:
        step = self.size / _CELLS ** (1 / 3)
        stances: dict[Body, list[Posed]] = {}
        numbers = 0
        for body in self.ask.bodies:
            if body not in stances:
                stances[body] = ways_to_stand(body, numbers, step)
                numbers += 1 + len(_SLANTS) * 2
        return Ground(self.ask.bodies, [stances[body] for body in self.ask.bodies], self.room, NoFits(step))


# A worker goes on with the searches it began.
grid_of = lru_cache(maxsize=4)(Grid)


def ways_to_stand(body: Body, number: int, step: float) -> list[Posed]:
    """Those its rules leave, each once; those along the axes first, then slantwise for what is long and thin."""
    poses: list[tuple[int, Rotation]] = [(number, UNTURNED)]
    order = sorted(range(3), key=lambda axis: -body.sizes[axis].nm)
    if body.sizes[order[0]].nm >= _SLENDER * body.sizes[order[1]].nm:
        for k, (axis, angle) in enumerate((axis, angle) for axis in order[1:] for angle in _SLANTS):
            if axis == 2 or not (body.this_side_up or body.keep_flat):
                poses.append((number + 1 + k, about(axis, angle)))
    found: list[Posed] = []
    seen: set[tuple[object, ...]] = set()
    for of, pose in poses:
        cells = solid_cells(body, pose, step, 0.0, 0)
        for turn in body.turns:
            stood = posed(body, of, pose, turn, step)
            turned = carried(cells, turn)
            key = (stood.stance.sizes, stood.stance.before, stood.stance.beyond, turned.tobytes())
            if key not in seen:
                seen.add(key)
                found.append(stood)
    return found


def shape_round(ask: Ask, grid: Grid, state: SearchState) -> SearchState:
    random = np.random.default_rng([ask.seed, state.chain, state.done])
    done = replace(state, done=state.done + 1)
    # One search begins from boxes, as that is soonest done.
    if state.done % _BOXES_EVERY == 1 or (state.chain, state.done) == (1, 0):
        return _from_boxes(ask, grid, state, done, random)
    best = [(found.answer, found.built_in) for found in state.found]
    begun = plan(ask, grid.size, state.done * 2 + state.chain, best, random)
    turns = _turns_of(ask, grid, begun.like) if begun.like else {}
    built = grid.ground.build(begun.order, begun.aim, _limit(ask, grid), random, _locked(ask, grid), turns)
    if built.left_out and ask.inside is None:
        return done
    laid_out = [None if n in built.left_out else _ANYWHERE for n in range(len(ask.bodies))]
    cost = bulk(ask, np.array(built.sides), laid_out)
    costs = (*state.costs, cost)[-_REMEMBERED:]
    done = replace(done, costs=costs)
    if cost > np.quantile(costs, _PROMISING) + TOLERANCE:
        return done
    goes_in = order_in(grid.ground, built)
    if not goes_in:
        return done
    step = grid.ground.nofits.step
    standing = [built.standing[n] for n in goes_in]
    laid = {
        stood.which: (
            stood.posed.stance,
            np.array([
                place * step + (cells * step - side) / 2
                for place, cells, side in zip(stood.place, stood.posed.cells, stood.posed.sizes, strict=True)
            ]),
        )
        for stood in standing
    }  # fmt: skip
    return _pressed(ask, grid, done, laid, begun.order)


def _turns_of(ask: Ask, grid: Grid, answer: Arrangement) -> dict[int, set[int]]:
    """Of each kind, the ways to stand in which an answer has one of it, by their number."""
    found: dict[int, set[int]] = {}
    for n, laid in enumerate(answer.laid):
        if laid is not None:
            kind = grid.ground.kinds[n]
            same = [s for s, stood in enumerate(grid.ground.stances[kind]) if stood.stance.turn == laid.turn]
            found.setdefault(kind, set()).update(same)
    return found


def _from_boxes(
    ask: Ask, grid: Grid, state: SearchState, done: SearchState, random: np.random.Generator
) -> SearchState:
    """Everything packed as the boxes around them, then pressed together as what they are."""
    packed = packed_as_boxes(ask, grid.boxes, state, random)
    best = min(packed, key=lambda found: found.cost, default=None)
    if best is None or not best.answer.order:
        return done
    laid = {}
    for n in best.answer.order:
        one = best.answer.laid[n]
        assert one is not None
        laid[n] = stance(ask.bodies[n], one.turn), np.array([c.mm for c in one.at])
    return _pressed(ask, grid, done, laid, best.built_in)


def _limit(ask: Ask, grid: Grid) -> tuple[float, float, float]:
    """How far it may be built; over the walls of a given box a little, as pressing takes back what the grid wastes."""
    if ask.inside is None:
        side = max(grid.longest * 1.1, 3 * grid.size)
        return side, side, side
    a, b, c = (side.mm + 1.5 * grid.ground.nofits.step for side in ask.inside)
    return a, b, c


def _locked(ask: Ask, grid: Grid) -> list[Standing]:
    """What is locked, on the grid as near as it can be to where it lies; pressing puts it right."""
    step = grid.ground.nofits.step
    found = []
    for which, laid in ask.locked:
        body = ask.bodies[which]
        stood = next(
            (posed for posed in grid.ground.stances[which] if posed.stance == stance(body, laid.turn)), None
        ) or posed(body, 10**6 + which, laid.turn, UNTURNED, step)  # fmt: skip
        low = [
            round((at.mm - (cells * step - side) / 2) / step)
            for at, cells, side in zip(laid.at, stood.cells, stood.sizes, strict=True)
        ]
        found.append(Standing(which, stood, (low[0], low[1], low[2])))
    return found


def _pressed(
    ask: Ask, grid: Grid, state: SearchState, going_in: dict[int, tuple[Stance, Floats]], order: Sequence[int]
) -> SearchState:
    """Settled, made exact and kept; as it was where something bears more than it may, or nothing is gained.

    Args:
        going_in: of each thing, in the order in which it goes in, how it stands and its lowest corner, mm.
    """
    numbers = list(going_in)
    bodies = [ask.bodies[n] for n in numbers]
    room = np.array([[grid.room[i][j] for j in numbers] for i in numbers])
    locked = dict(ask.locked)
    stances = [stance(ask.bodies[n], locked[n].turn) if n in locked else going_in[n][0] for n in numbers]
    at = np.array([[c.mm for c in locked[n].at] if n in locked else going_in[n][1] for n in numbers])
    settler = Compactor(bodies, stances, room)
    settled = settler.settle(
        at, lambda sides: slopes(ask, sides), locked=[k for k, n in enumerate(numbers) if n in locked],
        within=[k for k, body in enumerate(bodies) if is_fragile(body)],
        least=[side.mm for side in ask.inside] if ask.inside else (0.0, 0.0, 0.0), hopeless=_hopeless(ask, state),
    )  # fmt: skip
    if settled is None:
        return state
    laid: list[Laid | None] = [None] * len(ask.bodies)
    for n, stood, corner in zip(numbers, stances, snapped(settler, settled[0]), strict=True):
        laid[n] = locked.get(n) or Laid(stood.turn, corner)
    answer = Arrangement(smallest_around(ask, laid), tuple(laid), tuple(numbers))
    value = arrangement_cost(ask, answer)
    if ask.inside is not None and value <= TOLERANCE:
        answer = replace(answer, inside=ask.inside)
    return state if overloaded(ask, answer) else state.kept(Found(value, answer, tuple(order)))


def _hopeless(ask: Ask, state: SearchState) -> Callable[[Floats], bool]:
    """Whether sides are so large that they will not come to be better than the best of their proportion."""

    def hopeless(sides: Floats) -> bool:
        if ask.inside is not None:
            return False
        best = state.of(proportion_of(*(float(side) for side in sides)))
        return best is not None and bulk(ask, sides) * _PRESSES_TO > best.cost

    return hopeless
