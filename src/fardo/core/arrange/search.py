"""The search: many orders and starts, each built on the grid, the promising ones pressed together exactly.

A round is one start: an order (by size, by length, or that of the best so far with a few things moved), an aim (which
proportions the box may have for nothing), and a few ways for each thing to stand. Every round draws on its own numbers,
so that the same ask gives the same answer however the rounds are shared out.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from fardo.core.arrange.ask import PROPORTIONS, Answer, Ask, Proportion
from fardo.core.arrange.body import Body, Laid, Stance, stance
from fardo.core.arrange.boxes import BoxGround, boxes_only
from fardo.core.arrange.build import Aim, Ground, Standing, order_in
from fardo.core.arrange.bundle import Bundled, bundle_up
from fardo.core.arrange.exact import snapped
from fardo.core.arrange.few import FEW, smallest
from fardo.core.arrange.hand import smallest_around
from fardo.core.arrange.load import overloaded
from fardo.core.arrange.nofit import NoFits, Posed, posed, solid_cells
from fardo.core.arrange.settle import Settler
from fardo.core.arrange.turn import UNTURNED, Matrix, about, carried
from fardo.core.goods.shape.cover import Floats
from fardo.core.quantity import ZERO

_CELLS = 12_000  # in the room all things take together
_WAYS = 5
_FIRST_WAYS = 6
_SLANTS = (30.0, 45.0, 60.0)
_SLENDER = 2.5  # so much longer than wide: it may lie slantwise
_PROMISING = 0.25  # the share of what is built that is pressed together
_REMEMBERED = 40
_BOX_STARTS = 8
_BOXES_EVERY = 4  # one round in so many begins from the boxes around the things
_FEW_BOXES = 14
_SLIM = 1 / 540_000
_TOLERANCE = 1e-6  # mm
_MISSED = 1e4
_BUNDLE_ROUNDS = 6
_ANYWHERE = Laid(UNTURNED, (ZERO, ZERO, ZERO))


@dataclass(frozen=True, slots=True)
class Found:
    """An answer, what it is worth (the less the better), and the order in which it was built."""

    worth: float
    answer: Answer
    built_in: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class State:
    """How far a search is.

    Args:
        chain: which of several searches of one ask. done: rounds. found: the best, and the best of each proportion.
        costs: of what was built lately.
    """

    chain: int = 0
    done: int = 0
    found: tuple[Found, ...] = ()
    costs: tuple[float, ...] = ()

    @property
    def best(self) -> Found | None:
        return min(self.found, key=lambda found: found.worth, default=None)


def improve(ask: Ask, state: State, rounds: int) -> State:
    """So many more rounds."""
    bundled = _bundled(replace(ask, seed=0))
    if bundled is None:
        return _improve(ask, state, rounds)
    state = _improve(replace(bundled.ask, seed=ask.seed), state, rounds)
    untied = tuple(
        found if len(found.answer.laid) == len(ask.bodies) else replace(found, answer=bundled.untied(found.answer))
        for found in state.found
    )
    return replace(state, found=untied)


@lru_cache(maxsize=4)
def _bundled(ask: Ask) -> Bundled | None:
    return bundle_up(ask, _pack_a_bundle)


def _pack_a_bundle(ask: Ask) -> Answer | None:
    best = _improve(ask, State(), _BUNDLE_ROUNDS).best
    return best.answer if best else None


def _improve(ask: Ask, state: State, rounds: int) -> State:
    start = _box_start(replace(ask, seed=0)) if boxes_only(ask.bodies) else _grid(replace(ask, seed=0))
    for _ in range(rounds):
        state = _box_round(ask, start, state) if isinstance(start, _Boxes) else _round(ask, start, state)
    return state


def merge(states: Sequence[State]) -> tuple[Answer, ...]:
    """The answers of several chains, the best first, one for each proportion."""
    kept: dict[Proportion, Found] = {}
    for found in sorted((f for state in states for f in state.found), key=lambda f: f.worth):
        kept.setdefault(found.answer.proportion, found)
    return tuple(found.answer for found in kept.values())


@dataclass(frozen=True, slots=True, eq=False)
class _Grid:
    ground: Ground
    boxes: BoxGround
    size: float  # mm, of a cube as large as all things
    longest: float


# A worker goes on with the searches it began.
@lru_cache(maxsize=4)
def _grid(ask: Ask) -> _Grid:
    bodies = ask.bodies
    room = [[ask.room(i, j).mm for j in range(len(bodies))] for i in range(len(bodies))]
    size = _room_of(ask) ** (1 / 3)
    step = size / _CELLS ** (1 / 3)
    stances: dict[Body, list[Posed]] = {}
    numbers = 0
    for body in bodies:
        if body not in stances:
            stances[body] = ways_to_stand(body, numbers, step)
            numbers += 1 + len(_SLANTS) * 2
    ground = Ground(bodies, [stances[body] for body in bodies], room, NoFits(step))
    longest = max(max(side.mm for side in body.sizes) + 2 * body.gap.mm for body in bodies)
    return _Grid(ground, BoxGround(ask), size, longest)


def ways_to_stand(body: Body, number: int, step: float) -> list[Posed]:
    """Those its rules leave, each once; those along the axes first, then slantwise for what is long and thin."""
    poses: list[tuple[int, Matrix]] = [(number, UNTURNED)]
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
            key = (tuple(side.nm for side in stood.stance.sizes), turned.tobytes())
            if key not in seen:
                seen.add(key)
                found.append(stood)
    return found


def _round(ask: Ask, grid: _Grid, state: State) -> State:
    random = np.random.default_rng([ask.seed, state.chain, state.done])
    # One search begins so too, as that is soonest done.
    if state.done % _BOXES_EVERY == 1 or (state.chain, state.done) == (1, 0):
        return replace(_from_boxes(ask, grid, state, random), done=state.done + 1)
    order, aim = _plan(ask, grid.size, state, random)
    built = grid.ground.build(order, aim, _limit(ask, grid), random, _locked(ask, grid))
    done = replace(state, done=state.done + 1)
    if built.left_out and ask.inside is None:
        return done
    laid_out = [None if n in built.left_out else _ANYWHERE for n in range(len(ask.bodies))]
    cost = _worth(ask, np.array(built.sides), _missed(ask, laid_out))
    costs = (*state.costs, cost)[-_REMEMBERED:]
    done = replace(done, costs=costs)
    if cost > np.quantile(costs, _PROMISING) + _TOLERANCE:
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
    found = _pressed(ask, grid, laid, order)
    return done if found is None else _kept(done, found)


def _from_boxes(ask: Ask, grid: _Grid, state: State, random: np.random.Generator) -> State:
    """Everything packed as the boxes around them, then pressed together as what they are."""
    packed = _packed_as_boxes(ask, _Boxes(grid.boxes, grid.size), state, random)
    best = min(packed, key=lambda found: found.worth, default=None)
    if best is None or not best.answer.order:
        return state
    laid = {}
    for n in best.answer.order:
        one = best.answer.laid[n]
        assert one is not None
        laid[n] = stance(ask.bodies[n], one.turn), np.array([c.mm for c in one.at])
    found = _pressed(ask, grid, laid, best.built_in)
    return state if found is None else _kept(state, found)


@dataclass(frozen=True, slots=True, eq=False)
class _Boxes:
    ground: BoxGround
    size: float


@lru_cache(maxsize=4)
def _box_start(ask: Ask) -> _Boxes:
    return _Boxes(BoxGround(ask), _room_of(ask) ** (1 / 3))


def _room_of(ask: Ask) -> float:
    """What all things take with their gaps, mm3."""
    return sum(math.prod(side.mm + body.gap.mm for side in body.sizes) for body in ask.bodies)


def _box_round(ask: Ask, start: _Boxes, state: State) -> State:
    random = np.random.default_rng([ask.seed, state.chain, state.done])
    for found in _packed_as_boxes(ask, start, state, random):
        if not overloaded(ask, found.answer):
            state = _kept(state, found)
    return replace(state, done=state.done + 1)


def _packed_as_boxes(ask: Ask, start: _Boxes, state: State, random: np.random.Generator) -> list[Found]:
    """Several starts; of few boxes the first search also asks, once, for the smallest there is."""
    answers: list[tuple[Answer, list[int]]] = []
    for n in range(_BOX_STARTS if len(ask.bodies) <= _FEW_BOXES else 1):
        order, aim = _plan(ask, start.size, state, random, first=n == 0)
        answers.append((start.ground.build(order, aim, random), order))
    if len(ask.bodies) <= FEW and not ask.locked and (state.chain, state.done) == (0, 1):
        proved = smallest(ask, min(answer.room_nm3 for answer, _ in answers))
        answers += [(proved, answers[0][1])] if proved else []
    return [
        Found(
            _worth(ask, np.array([side.mm for side in answer.inside]), _missed(ask, answer.laid)), answer, tuple(order)
        )
        for answer, order in answers
        if answer.whole or ask.inside is not None
    ]


def _kept(state: State, new: Found) -> State:
    """The best of each proportion; of equals the older."""
    same = [found for found in state.found if found.answer.proportion == new.answer.proportion]
    if any(found.worth <= new.worth + _TOLERANCE for found in same):
        return state
    others = [found for found in state.found if found not in same]
    found = sorted([*others, new], key=lambda f: (f.worth, PROPORTIONS.index(f.answer.proportion)))
    return replace(state, found=tuple(found))


def _plan(
    ask: Ask, size: float, state: State, random: np.random.Generator, first: bool = True
) -> tuple[list[int], Aim]:
    """An order and an aim: the plain ones first, then what differs a little from the best, or by much."""
    bodies, count = ask.bodies, len(ask.bodies)
    # What bears nothing closes all above it, so it goes on top.
    last = [body.bears is not None for body in bodies]
    by_room = sorted(range(count), key=lambda n: (last[n], -float(np.prod([side.mm for side in bodies[n].sizes]))))
    by_length = sorted(range(count), key=lambda n: (last[n], -max(side.nm for side in bodies[n].sizes)))
    start = state.done * 2 + state.chain
    if start < 3 and first:
        aim = Aim(size, ways=_FIRST_WAYS)
        return (by_room if start != 1 else by_length), _aimed(ask, aim)
    best = state.found[int(random.integers(min(2, len(state.found))))] if state.found else None
    order = list(best.built_in) if best and random.random() < 0.7 else [by_room, by_length][int(random.integers(2))]
    order = list(order)
    for _ in range(int(random.integers(1, 4))):
        taken, put = random.integers(0, count, 2)
        order.insert(int(put), order.pop(int(taken)))
    slants = 2 if random.random() < 0.3 else 0
    if best is not None and random.random() < 0.6:
        sides = np.array([side.mm for side in best.answer.inside])
        change = np.exp(random.normal(0, 0.12, 3))
        target = random.permutation(sides * change / np.prod(change) ** (1 / 3) * 0.97)
        aim = Aim(size, (float(target[0]), float(target[1]), float(target[2])), noise=0.02, ways=_WAYS, slants=slants)
    else:
        dear = np.exp(random.normal(0, 0.2, 3))
        aim = Aim(size, stretch=(float(dear[0]), float(dear[1]), float(dear[2])), noise=0.03, ways=_WAYS,
                  slants=slants)  # fmt: skip
    return order, _aimed(ask, aim)


def _aimed(ask: Ask, aim: Aim) -> Aim:
    """In a box that is there, all of it is free."""
    if ask.inside is None:
        return aim
    a, b, c = (side.mm for side in ask.inside)
    return replace(aim, target=(a, b, c), pull=aim.pull * 4)


def _limit(ask: Ask, grid: _Grid) -> tuple[float, float, float]:
    """How far it may be built; over the walls of a given box a little, as pressing takes back what the grid wastes."""
    if ask.inside is None:
        side = max(grid.longest * 1.1, 3 * grid.size)
        return side, side, side
    a, b, c = (side.mm + 1.5 * grid.ground.nofits.step for side in ask.inside)
    return a, b, c


def _locked(ask: Ask, grid: _Grid) -> list[Standing]:
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


def _missed(ask: Ask, laid: Sequence[Laid | None]) -> float:
    """What is left out: how many things, and how much room they take."""
    out = [body for body, one in zip(ask.bodies, laid, strict=True) if one is None]
    return sum(_MISSED + math.prod(side.mm for side in body.sizes) / 1000 for body in out)


def _worth(ask: Ask, sides: Floats, missed: float = 0.0) -> float:
    """Of a box the less the better: its room, and a very little of the cube of its sides' sum, as of two of equal room
    the more compact is better. In a box that is there: what is left out, and by how much the rest sticks out, mm."""
    if ask.inside is None:
        return float(np.prod(sides) + _SLIM * sides.sum() ** 3)
    over = np.maximum(sides - np.array([side.mm for side in ask.inside]), 0)
    return missed + float(over.sum())


def _slopes(ask: Ask, sides: Floats) -> Floats:
    """What a millimetre of each side is worth."""
    if ask.inside is not None:
        return np.where(sides > np.array([side.mm for side in ask.inside]), 1.0, 0.01)
    found: Floats = np.prod(sides) / sides + 3 * _SLIM * sides.sum() ** 2
    return found


def _pressed(ask: Ask, grid: _Grid, going_in: dict[int, tuple[Stance, Floats]], order: Sequence[int]) -> Found | None:
    """Settled and made exact; None where something bears more than it may.

    Args:
        going_in: of each thing, in the order in which it goes in, how it stands and its lowest corner, mm.
    """
    numbers = list(going_in)
    bodies = [ask.bodies[n] for n in numbers]
    room = np.array([[grid.ground.room[i][j] for j in numbers] for i in numbers])
    locked = dict(ask.locked)
    stances = [stance(ask.bodies[n], locked[n].turn) if n in locked else going_in[n][0] for n in numbers]
    at = np.array([[c.mm for c in locked[n].at] if n in locked else going_in[n][1] for n in numbers])
    settler = Settler(bodies, stances, room)
    fixed = [k for k, n in enumerate(numbers) if n in locked]
    settled = settler.settle(at, lambda sides: _slopes(ask, sides), locked=fixed)
    if settled is None:
        return None
    laid: list[Laid | None] = [None] * len(ask.bodies)
    for n, stood, corner in zip(numbers, stances, snapped(settler, settled[0]), strict=True):
        laid[n] = locked.get(n) or Laid(stood.turn, corner)
    inside = smallest_around(ask, laid)
    worth = _worth(ask, np.array([side.mm for side in inside]), _missed(ask, laid))
    if ask.inside is not None and worth <= _TOLERANCE:
        inside = ask.inside
    answer = Answer(inside, tuple(laid), tuple(numbers))
    return None if overloaded(ask, answer) else Found(worth, answer, tuple(order))
